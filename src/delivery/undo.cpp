// The deliveries that stand, and the way back from them.
#include <fmt/format.h>

#include "base/file_write.h"
#include "base/phrase.h"
#include "delivery/vault.h"

namespace skivet {

namespace fs = std::filesystem;

Result<Journal> Vault::read_journal_folder(const fs::path& folder) const {
    Journal out;
    std::vector<fs::path> places;
    std::error_code code;
    for (const auto& item : fs::directory_iterator(folder, code)) places.push_back(item.path());
    std::sort(places.begin(), places.end(), [](const auto& a, const auto& b) {
        return std::strtoull(a.filename().c_str(), nullptr, 10) < std::strtoull(b.filename().c_str(), nullptr, 10);
    });
    for (const auto& place : places) {
        SKIVET_TRY(const auto view, FileView::open(place));
        SKIVET_TRY(const auto data, view.bytes());
        auto one = read_description(data);
        if (!one) return fail(std::move(one).error().within(place.string()));
        if (out.parts.empty()) out.id = one->id, out.time = one->time, out.title = one->title;
        one->parts[0].place = place;
        out.parts.push_back(std::move(one->parts[0]));
    }
    return out;
}

Result<std::vector<Journal>> Vault::history() const {
    std::vector<Journal> out;
    for (const auto& path : folders_in(kept_state))
        if (auto journal = read_journal_folder(path); journal && !journal->parts.empty()) out.push_back(std::move(*journal));
    return out;
}

std::vector<Error> Vault::unreadable() const {
    std::vector<Error> out;
    for (const auto& path : folders_in(kept_state))
        if (auto journal = read_journal_folder(path); !journal) {
            auto error = std::move(journal).error();
            error.advice = "This delivery cannot be undone any more; the others can";
            out.push_back(std::move(error));
        }
    return out;
}

Status Vault::check_untouched(const JournalPart& part) const {
    for (const auto& file : part.files) {
        const auto changed = [&] {
            std::string advice =
                "Putting the old bytes back would damage it. Take the new version as it is, or restore the game's own files";
            const auto mine = real_path(folder_);
            for (const auto& other : register_ ? register_->all() : std::vector<fs::path>{}) {
                if (other == mine) continue;
                const auto theirs = Vault(other, *files_).history();
                for (const auto& journal : theirs ? *theirs : std::vector<Journal>{})
                    for (const auto& p : journal.parts)
                        for (const auto& f : p.files)
                            if (f.file == file.file)
                                advice = phrase("\"{}\" was delivered into it from another vault, {}. Undo that one first", journal.title,
                                                other.string());
            }
            return fail(ErrorCode::stale, phrase("{} was changed by something else since this delivery", file.file.filename().string()),
                        std::move(advice));
        };
        if (file.way == Way::remove) {
            std::error_code code;
            if (fs::exists(fs::symlink_status(file.file, code))) return changed();
            continue;
        }
        const auto size = files_->size(file.file);
        if (!size && size.error().code == ErrorCode::missing) return changed();
        if (!size) return fail(size.error());
        if (*size != file.new_size) return changed();
        if (file.way == Way::rebuild || file.way == Way::create) {
            SKIVET_TRY(const auto hash, hash_file(file.file, cancel_));
            if (hash != file.new_hash) return changed();
        }
        for (const auto& range : file.ranges) {
            SKIVET_CHECK(cancel_.check());
            SKIVET_TRY(const auto now, files_->read(file.file, range.at, range.new_size));
            if (sha256(now) != range.new_hash) return changed();
        }
    }
    return {};
}

Status Vault::undo_locked(const Journal& journal, const std::optional<fs::path>& source) {
    const auto kept = path_of(journal.id, kept_state);
    std::vector<JournalPart> parts;
    for (const auto& part : journal.parts)
        if (!source || part.source == *source) parts.push_back(part);
    SKIVET_TRY(const auto locks, lock_parts(parts));
    for (const auto& part : parts) SKIVET_CHECK(check_there(part));
    for (const auto& part : parts) SKIVET_CHECK(check_untouched(part));
    // Here a damaged journal is an error and nothing more; once it is pending it would have to be set aside.
    for (const auto& part : parts) SKIVET_CHECK(check_kept(part, cancel_));
    // From the rename on a crash finishes the undo at the next start.
    auto pending = path_of(journal.id, pending_state);
    if (parts.size() == journal.parts.size()) {
        SKIVET_CHECK(files_->rename(kept, pending));
    } else {
        pending = path_of(fmt::format("{}-{}", journal.id, parts[0].place.filename().string()), pending_state);
        SKIVET_CHECK(files_->make_folder(pending));
        SKIVET_CHECK(files_->sync_folder(folder_));
        for (const auto& part : parts) SKIVET_CHECK(files_->rename(part.place, pending / part.place.filename()));
        SKIVET_CHECK(files_->sync_folder(pending));
        SKIVET_CHECK(files_->sync_folder(kept));
    }
    SKIVET_CHECK(files_->sync_folder(folder_));
    for (auto& part : parts) part.place = pending / part.place.filename();
    auto done = roll_back(pending, parts, cancel_);
    if (done || done.error().code != ErrorCode::canceled) return done;
    // What was not put back yet stands again.
    if (parts.size() == journal.parts.size()) {
        SKIVET_CHECK(files_->rename(pending, kept));
    } else {
        std::error_code code;
        for (const auto& part : parts)
            if (fs::exists(part.place, code)) SKIVET_CHECK(files_->rename(part.place, kept / part.place.filename()));
        SKIVET_CHECK(files_->remove_folder(pending));
        SKIVET_CHECK(files_->sync_folder(kept));
    }
    SKIVET_CHECK(files_->sync_folder(folder_));
    return done;
}

Status Vault::undo(const std::string& id, const std::optional<fs::path>& source) {
    SKIVET_TRY(const auto vault_lock, lock());
    SKIVET_TRY(const auto all, history());
    const auto found = std::find_if(all.begin(), all.end(), [&](const auto& j) { return j.id == id; });
    if (found == all.end()) return fail(ErrorCode::missing, phrase("there is no delivery {} in the vault", id));
    std::optional<fs::path> wanted;
    if (source) wanted = real_path(*source);
    if (wanted && !found->touches(*wanted))
        return fail(ErrorCode::missing, phrase("\"{}\" did not touch {}", found->title, source->string()));
    for (auto later = found + 1; later != all.end(); ++later)
        for (const auto& mine : found->parts)
            for (const auto& theirs : later->parts)
                for (const auto& a : mine.files)
                    for (const auto& b : theirs.files)
                        if (a.file == b.file && (!wanted || mine.source == *wanted))
                            return fail(ErrorCode::usage, phrase("\"{}\" was delivered later into the same file", later->title),
                                        "Undo that one first");
    return undo_locked(*found, wanted);
}

Result<unsigned> Vault::restore(const fs::path& source) {
    SKIVET_TRY(const auto vault_lock, lock());
    SKIVET_TRY(const auto all, history());
    const auto wanted = real_path(source);
    unsigned count = 0;
    for (auto journal = all.rbegin(); journal != all.rend(); ++journal) {
        if (!journal->touches(wanted)) continue;
        SKIVET_CHECK(undo_locked(*journal, wanted));
        ++count;
    }
    return count;
}

Result<unsigned> Vault::restore_all() {
    SKIVET_TRY(const auto vault_lock, lock());
    SKIVET_TRY(const auto all, history());
    std::optional<Error> away;  // a card that is not there holds nothing else up
    for (auto journal = all.rbegin(); journal != all.rend(); ++journal) {
        auto done = undo_locked(*journal, std::nullopt);
        if (!done && done.error().code == ErrorCode::missing &&
            std::all_of(journal->parts.begin(), journal->parts.end(), [](const auto& p) { return p.device; }))
            away = std::move(done).error();
        else if (!done) return fail(std::move(done).error());
    }
    if (away) return fail(std::move(*away));
    return static_cast<unsigned>(all.size());
}

Result<FileView> Vault::original(const fs::path& path, std::uint64_t most) const {
    SKIVET_TRY(const auto all, history());
    const auto wanted = real_path(path);
    auto now_there = FileView::open(wanted);
    if (!now_there && now_there.error().code != ErrorCode::missing) return now_there;
    std::optional<FileView> found;
    if (now_there) found = std::move(*now_there);
    for (auto journal = all.rbegin(); journal != all.rend(); ++journal)
        for (const auto& part : journal->parts)
            for (const auto& file : part.files) {
                if (file.file != wanted) continue;
                if (file.way == Way::create)
                    return fail(ErrorCode::missing, phrase("{} was not there before the delivery", wanted.filename().string()));
                SKIVET_TRY(const auto journal_view, FileView::open(part.place));
                std::vector<Overlay> over;
                if (file.way == Way::remove) {
                    if (file.old_size > most)
                        return fail(ErrorCode::limit, phrase("{} are too much to put together in memory", human_bytes(file.old_size)),
                                    "Undo the delivery instead");
                    Bytes old;
                    for (const auto& range : file.ranges) {
                        SKIVET_TRY(const auto kept, journal_view.bytes(range.kept_at, range.old_size));
                        old.insert(old.end(), kept.begin(), kept.end());
                    }
                    found = FileView::of(std::move(old), wanted);
                    continue;
                }
                if (!found) break;  // nobody who knows it took it away
                auto& view = *found;
                if (file.way == Way::rebuild) {
                    if (file.old_size > most)
                        return fail(ErrorCode::limit, phrase("{} are too much to put together in memory", human_bytes(file.old_size)),
                                    "Restore the whole archive or the delivery instead");
                    Bytes old;
                    SKIVET_TRY(const auto now, view.bytes());
                    SKIVET_TRY(const auto kept, journal_view.bytes());
                    for (const auto& piece : file.back) {
                        SKIVET_TRY(const auto bytes, slice(piece.from_new ? now : kept, piece.at, piece.size));
                        old.insert(old.end(), bytes.begin(), bytes.end());
                    }
                    view = FileView::of(std::move(old), wanted);
                    continue;
                }
                for (const auto& range : file.ranges) {
                    SKIVET_TRY(const auto kept, journal_view.bytes(range.kept_at, range.old_size));
                    over.push_back({range.at, kept});
                }
                SKIVET_TRY(view, view.with(over, file.old_size));
            }
    if (!found) return FileView::open(wanted);
    return *found;
}

Result<bool> Vault::changed_by_others(const fs::path& source) const {
    const auto seen = past({&source, 1}, ~0ull);
    if (!seen && seen.error().code == ErrorCode::stale) return true;
    if (!seen) return fail(seen.error());
    return false;
}

Result<std::vector<std::string>> Vault::let_go(const fs::path& source) {
    SKIVET_TRY(const auto vault_lock, lock());
    SKIVET_TRY(const bool changed, changed_by_others(source));
    std::vector<std::string> out;
    if (!changed) return out;
    SKIVET_TRY(const auto all, history());
    const auto wanted = real_path(source);
    for (auto journal = all.rbegin(); journal != all.rend(); ++journal) {
        std::vector<JournalPart> parts;
        for (const auto& part : journal->parts)
            if (part.source == wanted) parts.push_back(part);
        if (parts.empty()) continue;
        const bool whole = parts.size() == journal->parts.size();
        SKIVET_TRY(const auto said,
                   set_aside(path_of(journal->id, kept_state), parts, whole,
                             Error{ErrorCode::stale,
                                   phrase("{} was changed by something else after \"{}\"", wanted.filename().string(), journal->title),
                                   {},
                                   {},
                                   {}}));
        (void)said;
        out.push_back(journal->id);
    }
    return out;
}

}  // namespace skivet

// Putting old bytes back: after a crash, after a refused delivery, for an undo. What may be written is decided here and nowhere else: a
// file gets its old bytes only when each of its ranges is, sector by sector, either as it was or as the delivery wrote it. A game's updater
// that put a new version there since leaves sectors that are neither; such a file stays as it is, and its journal is set aside.
#include <fmt/format.h>
#include <xxhash.h>

#include "base/file_write.h"
#include "base/phrase.h"
#include "delivery/vault.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr std::uint64_t chunk = 4u << 20;

bool all_zero(ByteSpan bytes) {
    return std::all_of(bytes.begin(), bytes.end(), [](std::byte b) { return b == std::byte{0}; });
}

bool is_ours(const std::string& name) { return !name.empty() && name.find_first_not_of("0123456789") == std::string::npos; }

}  // namespace

std::vector<fs::path> Vault::folders_in(std::string_view state) const {
    std::vector<fs::path> out;
    std::error_code code;
    for (const auto& item : fs::directory_iterator(folder_, code)) {
        // Only names a journal has: the folder may be one that holds other things too.
        auto stem = item.path().stem().string();
        if (const auto dash = stem.find('-'); dash != std::string::npos) stem.erase(dash, 1);  // one archive's share of an undo
        if (item.path().extension() == "." + std::string(state) && is_ours(stem) && item.is_directory(code) && !item.is_symlink(code))
            out.push_back(item.path());
    }
    std::sort(out.begin(), out.end());
    return out;
}

Status Vault::check_kept(const JournalPart& part, const CancelToken& cancel) const {
    SKIVET_TRY(const auto size, files_->size(part.place));
    const auto kept = part.bytes_kept();
    if (size < kept + 32) return fail(ErrorCode::damaged, phrase("{} is not complete", part.place.string()));
    Sha256Stream hash;
    for (std::uint64_t done = 0; done < kept; done += chunk) {
        SKIVET_CHECK(cancel.check());
        SKIVET_TRY(const auto bytes, files_->read(part.place, size - 32 - kept + done, std::min(chunk, kept - done)));
        hash.add(bytes);
    }
    SKIVET_TRY(const auto digest, files_->read(part.place, size - 32, 32));
    const auto now = hash.finish();
    if (!std::equal(now.begin(), now.end(), digest.begin()))
        return fail(ErrorCode::damaged, phrase("{}: the old bytes do not match their checksum", part.place.string()),
                    "The disk that holds the vault may be failing");
    return {};
}

Result<Vault::Stand> Vault::stand_of_ranges(const JournalPart& part, const JournalFile& file) const {
    SKIVET_TRY(const auto size, files_->size(file.file));
    if (size < std::min(file.old_size, file.new_size) || size > std::max(file.old_size, file.new_size)) return Stand::foreign;
    bool all_old = size == file.old_size, all_new = size == file.new_size;
    for (const auto& range : file.ranges) {
        const auto whole = std::max(range.old_size, range.new_size);
        // Journals of the first kind know no sectors: the range is old or new as a whole.
        auto sectors = sectors_of(range);
        if (range.new_sectors.empty() && range.new_size > 0) sectors = {{range.at, range.at + range.new_size}};
        std::size_t next = 0;
        for (std::uint64_t done = 0; done < whole;) {
            // Whole sectors at a time; behind the last one lies what was only cut off.
            auto end = std::min(range.at + whole, range.at + done + chunk);
            const auto first = next;
            while (next < sectors.size() && sectors[next].second <= end) ++next;
            if (next < sectors.size()) end = next == first ? sectors[next++].second : sectors[next - 1].second;
            const auto from = range.at + done;
            const auto there = std::min(size, end) - std::min(size, from);
            SKIVET_TRY(const auto now, there > 0 ? files_->read(file.file, from, there) : Result<Bytes>(Bytes{}));
            const auto old_there = range.old_size - std::min(range.old_size, done);
            SKIVET_TRY(const auto kept, old_there > 0 ? files_->read(part.place, range.kept_at + done, std::min(old_there, end - from))
                                                      : Result<Bytes>(Bytes{}));
            const auto piece = [&](ByteSpan bytes, std::uint64_t a, std::uint64_t b) {
                const auto lo = std::min<std::uint64_t>(bytes.size(), a - from), hi = std::min<std::uint64_t>(bytes.size(), b - from);
                return bytes.subspan(static_cast<std::size_t>(lo), static_cast<std::size_t>(hi - lo));
            };
            for (auto s = first; s < next; ++s) {
                const auto [a, b] = sectors[s];
                const auto mine = piece(now, a, b), old = piece(kept, a, b);
                const bool is_new =
                    mine.size() == b - a && (range.new_sectors.empty() ? sha256(mine) == range.new_hash
                                                                       : XXH3_64bits(mine.data(), mine.size()) == range.new_sectors[s]);
                // Behind the old end: nothing yet, a part of a sector, or a hole.
                const bool grown = a >= range.at + range.old_size;
                const bool is_old =
                    grown ? mine.size() < b - a || all_zero(mine) : std::equal(mine.begin(), mine.end(), old.begin(), old.end());
                if (!is_new && !is_old) return Stand::foreign;
                all_new = all_new && is_new;
                all_old = all_old && is_old;
            }
            const auto tail = std::max(from, range.at + range.new_size);
            if (tail < end && range.old_size > range.new_size) {  // cut off at the end of the file, whole or in part
                const auto mine = piece(now, tail, end), old = piece(kept, tail, end);
                if (mine.size() > old.size() || !std::equal(mine.begin(), mine.end(), old.begin())) return Stand::foreign;
            }
            done = end - range.at;
        }
    }
    return all_old ? Stand::old : all_new ? Stand::written : Stand::between;
}

Result<Vault::Stand> Vault::stand_of(const JournalPart& part, const JournalFile& file) const {
    std::error_code code;
    const auto there = fs::symlink_status(file.file, code);
    if (file.way == Way::create) {
        if (!fs::exists(there)) return Stand::old;
        if (!fs::is_regular_file(there)) return Stand::foreign;
        SKIVET_TRY(const auto hash, hash_file(file.file));
        return hash == file.new_hash ? Stand::written : Stand::foreign;
    }
    if (file.way == Way::remove) {
        if (!fs::exists(there)) return Stand::written;
        if (!fs::is_regular_file(there)) return Stand::foreign;
        SKIVET_TRY(const auto hash, hash_file(file.file));
        return hash == file.old_hash ? Stand::old : Stand::foreign;
    }
    if (!fs::is_regular_file(there)) return Stand::foreign;
    if (file.way != Way::rebuild) return stand_of_ranges(part, file);
    SKIVET_TRY(const auto now, hash_file(file.file));
    return now == file.old_hash ? Stand::old : now == file.new_hash ? Stand::written : Stand::foreign;
}

Result<bool> Vault::any_foreign(const JournalPart& part, std::string& name) const {
    for (const auto& file : part.files) {
        SKIVET_TRY(const auto stand, stand_of(part, file));
        if (stand != Stand::foreign) continue;
        name = file.file.filename().string();
        return true;
    }
    return false;
}

Status Vault::roll_back_file(const JournalPart& part, const JournalFile& file, const CancelToken& cancel) {
    std::error_code code;
    const auto back_from_vault = [&](const fs::path& to, std::uint64_t at, std::uint64_t kept_at, std::uint64_t size) -> Status {
        for (std::uint64_t done = 0; done < size; done += chunk) {
            SKIVET_TRY(const auto bytes, files_->read(part.place, kept_at + done, std::min(chunk, size - done)));
            SKIVET_CHECK(files_->write(to, at + done, bytes));
        }
        return {};
    };
    // The name was made up by us and cannot be guessed, so what lies there is ours.
    if (!file.fresh.empty() && fs::is_regular_file(fs::symlink_status(file.fresh, code))) SKIVET_CHECK(files_->remove(file.fresh));
    SKIVET_TRY(const auto stand, stand_of(part, file));
    if (stand == Stand::foreign)
        return fail(ErrorCode::stale,
                    phrase("{} is neither as it was before the delivery nor as the delivery left it", file.file.filename().string()),
                    "Something else changed it");
    if (file.way == Way::create) {
        if (stand == Stand::written) SKIVET_CHECK(files_->remove(file.file));
        for (auto folder = file.folders.rbegin(); folder != file.folders.rend(); ++folder)
            if (fs::is_directory(*folder, code) && fs::is_empty(*folder, code)) SKIVET_CHECK(files_->remove_folder(*folder));
        return {};
    }
    if (file.way == Way::remove) {
        if (stand == Stand::old) return {};
        // Its place may be gone with it by now.
        std::vector<fs::path> folders;
        for (auto folder = file.file.parent_path(); !fs::exists(folder, code) && folder != folder.parent_path();
             folder = folder.parent_path())
            folders.insert(folders.begin(), folder);
        for (const auto& folder : folders) SKIVET_CHECK(files_->make_folder(folder));
        SKIVET_CHECK(files_->create(file.fresh, {}));
        for (const auto& range : file.ranges) SKIVET_CHECK(back_from_vault(file.fresh, range.at, range.kept_at, range.old_size));
        SKIVET_CHECK(files_->set_mode(file.fresh, file.mode));
        SKIVET_CHECK(files_->sync(file.fresh));
        SKIVET_TRY(const auto hash, hash_file(file.fresh));
        if (hash != file.old_hash) return fail(ErrorCode::io, phrase("{} does not read back as it was written", file.fresh.string()));
        SKIVET_CHECK(files_->rename(file.fresh, file.file));
        for (const auto& folder : folders) SKIVET_CHECK(files_->sync_folder(folder.parent_path()));
        return files_->sync_folder(file.file.parent_path());
    }
    if (file.way == Way::rebuild) {
        if (stand == Stand::old) return {};
        auto old = file.fresh;
        if (old.empty()) old = file.file, old += ".skivet-" + unguessable();  // a journal of the first kind
        SKIVET_CHECK(files_->create_like(old, file.file));
        const auto put_together = [&]() -> Status {
            std::uint64_t at = 0;
            for (const auto& piece : file.back) {
                SKIVET_CHECK(cancel.check());
                for (std::uint64_t done = 0; piece.from_new && done < piece.size; done += 16 * chunk) {
                    SKIVET_CHECK(cancel.check());
                    SKIVET_CHECK(files_->copy(file.file, piece.at + done, old, at + done, std::min(16 * chunk, piece.size - done)));
                }
                if (!piece.from_new) SKIVET_CHECK(back_from_vault(old, at, piece.at, piece.size));
                at += piece.size;
            }
            SKIVET_CHECK(files_->sync(old));
            SKIVET_TRY(const auto hash, hash_file(old, cancel));
            if (hash != file.old_hash) return fail(ErrorCode::io, phrase("{} does not read back as it was written", old.string()));
            return files_->rename(old, file.file);
        };
        if (auto done = put_together(); !done) {
            (void)files_->remove(old);
            return done;
        }
        return files_->sync_folder(file.file.parent_path());
    }
    // Only what differs is written: a delivery that was refused before its first byte is rolled back on a disk that cannot be written, too.
    SKIVET_TRY(const auto size, files_->size(file.file));
    for (const auto& range : file.ranges)
        for (std::uint64_t done = 0; done < range.old_size; done += chunk) {
            const auto at = range.at + done, count = std::min(chunk, range.old_size - done);
            SKIVET_TRY(const auto kept, files_->read(part.place, range.kept_at + done, count));
            if (at + count <= size) {
                SKIVET_TRY(const auto now, files_->read(file.file, at, count));
                if (now == kept) continue;
            }
            SKIVET_CHECK(files_->write(file.file, at, kept));
        }
    if (size != file.old_size) SKIVET_CHECK(files_->resize(file.file, file.old_size));
    SKIVET_CHECK(files_->sync(file.file));
    for (const auto& range : file.ranges)
        for (std::uint64_t done = 0; done < range.old_size; done += chunk) {
            const auto count = std::min(chunk, range.old_size - done);
            SKIVET_TRY(const auto now, files_->read(file.file, range.at + done, count));
            SKIVET_TRY(const auto kept, files_->read(part.place, range.kept_at + done, count));
            if (now != kept) return fail_at(ErrorCode::io, range.at, phrase("{} does not read back as it was written", file.file.string()));
        }
    return {};
}

/// Rolls back every part that lies in the pending folder, then removes it.
Status Vault::roll_back(const fs::path& pending, const std::vector<JournalPart>& parts, const CancelToken& cancel) {
    for (const auto& part : parts) SKIVET_CHECK(check_there(part));
    for (const auto& part : parts) {
        SKIVET_CHECK(check_kept(part, cancel));  // before the first of the kept bytes is written anywhere
        // Given up only before anything of this archive is put back: half of its files old and half new is a state nobody could undo.
        for (std::size_t i = 0; i < part.files.size(); ++i)
            SKIVET_CHECK(roll_back_file(part, part.files[i], i == 0 ? cancel : CancelToken()));
        SKIVET_CHECK(files_->remove(part.place));
    }
    SKIVET_CHECK(files_->remove_folder(pending));
    return files_->sync_folder(folder_);
}

Result<Error> Vault::set_aside(const fs::path& folder, const std::vector<JournalPart>& parts, bool whole, Error why) {
    std::error_code code;
    const auto stem = folder.stem().string();
    auto place = folder_ / (stem + ".aside");
    for (int n = 2; fs::exists(fs::symlink_status(place, code)); ++n) place = folder_ / fmt::format("{}_{}.aside", stem, n);
    if (whole) {
        SKIVET_CHECK(files_->rename(folder, place));
    } else {
        SKIVET_CHECK(files_->make_folder(place));
        SKIVET_CHECK(files_->sync_folder(folder_));
        for (const auto& part : parts) SKIVET_CHECK(files_->rename(part.place, place / part.place.filename()));
        SKIVET_CHECK(files_->sync_folder(place));
        SKIVET_CHECK(files_->sync_folder(folder));
    }
    SKIVET_CHECK(files_->sync_folder(folder_));
    why.advice = phrase("The old bytes are kept in {}; remove that folder when the archive is as you want it", place.string());
    const auto text = why.message() + '\n';
    (void)files_->create(place / "why.txt", as_bytes(text));
    return why;
}

Status Vault::roll_back_what_is_known(const fs::path& folder, const Journal& journal, Recovered& out) {
    Journal rolled = journal;
    rolled.parts.clear();
    std::vector<JournalPart> left;
    for (const auto& part : journal.parts) SKIVET_CHECK(check_there(part));
    for (const auto& part : journal.parts) {
        std::string name;
        std::optional<Error> why;
        if (auto kept = check_kept(part); !kept) {
            if (kept.error().code != ErrorCode::damaged) return kept;
            why = kept.error();
        } else {
            auto foreign = any_foreign(part, name);
            if (!foreign) return fail(foreign.error());
            if (*foreign)
                why = Error{
                    ErrorCode::stale,
                    phrase("\"{}\" was cut short, and something else has changed {} since, so it is left as it is", journal.title, name),
                    {},
                    {},
                    {}};
        }
        if (!why) {
            rolled.parts.push_back(part);
            continue;
        }
        const bool whole = journal.parts.size() == 1;
        SKIVET_TRY(auto said, set_aside(folder, {part}, whole, std::move(*why)));
        out.set_aside.push_back(std::move(said));
        if (whole) return {};
    }
    SKIVET_CHECK(roll_back(folder, rolled.parts));
    if (!rolled.parts.empty()) out.rolled_back.push_back(std::move(rolled));
    return {};
}

void Vault::drop_part_folder(const fs::path& folder) {
    std::error_code code;
    std::vector<fs::path> ours;
    for (const auto& item : fs::directory_iterator(folder, code)) {
        const auto name = item.path().filename().string();
        if (!is_ours(name) || !item.is_regular_file(code) || item.is_symlink(code)) return;  // somebody else's folder
        const auto view = FileView::open(item.path());
        const auto head = view ? view->bytes(0, std::min<std::uint64_t>(4, view->size())) : Result<ByteSpan>(ByteSpan{});
        if (!head || as_text(*head) != std::string_view("SKJ3").substr(0, head->size())) {
            if (!head || as_text(*head) != "SKJ2") return;
        }
        ours.push_back(item.path());
    }
    for (const auto& file : ours) (void)files_->remove(file);
    (void)files_->remove_folder(folder);
}

Result<Recovered> Vault::recover() {
    Recovered out;
    if (folders_in(pending_state).empty() && folders_in(part_state).empty()) return out;  // looking needs no right to write
    SKIVET_TRY(const auto vault_lock, lock());
    for (const auto& folder : folders_in(part_state)) drop_part_folder(folder);
    auto half_done = folders_in(pending_state);
    std::reverse(half_done.begin(), half_done.end());  // newest first
    for (const auto& path : half_done) {
        auto journal = read_journal_folder(path);
        if (!journal) {
            // A description was renamed only after it was synced, so this is a failing disk, not a crash.
            auto said = set_aside(path, {}, true, std::move(journal).error());
            if (said) out.set_aside.push_back(std::move(*said));
            else out.waiting.push_back(std::move(said).error());
            continue;
        }
        const auto work = [&]() -> Status {
            SKIVET_TRY(const auto locks, lock_parts(journal->parts));
            return roll_back_what_is_known(path, *journal, out);
        };
        if (auto done = work(); !done) out.waiting.push_back(std::move(done).error().within(journal->title));
    }
    return out;
}

std::vector<Unfinished> Vault::unfinished() const { return unfinished(false); }

std::vector<Unfinished> Vault::unfinished(bool locked_by_us) const {
    std::vector<Unfinished> out;
    const auto pending = folders_in(pending_state);
    if (pending.empty()) return out;
    bool running = false;
    if (!locked_by_us) {
        const auto lock = FileLock::take(folder_ / "lock");
        running = !lock && lock.error().code == ErrorCode::busy;
    }
    for (const auto& folder : pending) {
        const auto journal = read_journal_folder(folder);
        if (!journal) continue;
        Unfinished one{journal->title, {}, running};
        for (const auto& part : journal->parts)
            for (const auto& file : part.files) one.files.push_back(file.file);
        if (!one.files.empty()) out.push_back(std::move(one));
    }
    return out;
}

}  // namespace skivet

#include "delivery/vault.h"

#include <cstdlib>
#include <fmt/format.h>

#include "base/file_write.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

// The states of a journal are its file's ending, because a rename is atomic.
constexpr std::string_view part = "part";        // being written; nothing else has happened
constexpr std::string_view pending = "pending";  // complete; game files may be half written
constexpr std::string_view kept = "kept";        // the delivery stands and can be undone

fs::path real_path(const fs::path& path) {
    std::error_code code;
    auto out = fs::weakly_canonical(path, code);
    return code ? fs::absolute(path) : out;
}

/// Whole-file locks on everything a journal or plan touches.
template <class List>
Result<std::vector<FileLock>> lock_files(const List& list) {
    std::vector<FileLock> locks;
    for (const auto& item : list) {
        auto lock = FileLock::take(item.file);
        if (!lock) return fail(std::move(lock).error());
        locks.push_back(std::move(*lock));
    }
    return locks;
}

}  // namespace

fs::path Vault::default_folder() {
    if (const char* data = std::getenv("XDG_DATA_HOME"); data && *data) return fs::path(data) / "skivet" / "vault";
    if (const char* home = std::getenv("HOME"); home && *home) return fs::path(home) / ".local" / "share" / "skivet" / "vault";
    return fs::temp_directory_path() / "skivet" / "vault";
}

fs::path Vault::path_of(const std::string& id, std::string_view state) const { return folder_ / fmt::format("{}.{}", id, state); }

Result<FileLock> Vault::lock() const {
    std::error_code code;
    fs::create_directories(folder_, code);
    if (code) return fail_errno(code.value(), "cannot make the vault " + folder_.string());
    auto lock = FileLock::take(folder_ / "lock", true);
    if (!lock && lock.error().code == ErrorCode::busy)
        return fail(ErrorCode::busy, "another Skivet is writing", "Wait until it is done and try again");
    return lock;
}

Status Vault::roll_back(const Journal& journal) {
    for (const auto& file : journal.files) {
        for (const auto& range : file.ranges)
            if (!range.old_bytes.empty()) SKIVET_CHECK(files_->write(file.file, range.at, range.old_bytes));
        SKIVET_CHECK(files_->resize(file.file, file.old_size));
        SKIVET_CHECK(files_->sync(file.file));
        for (const auto& range : file.ranges) {
            SKIVET_TRY(const auto now, files_->read(file.file, range.at, range.old_bytes.size()));
            if (now != range.old_bytes)
                return fail_at(ErrorCode::io, range.at, fmt::format("{} does not read back as it was written", file.file.string()));
        }
    }
    SKIVET_CHECK(files_->remove(path_of(journal.id, pending)));
    return files_->sync_folder(folder_);
}

Result<Journal> Vault::deliver(const WritePlan& plan, const DeliveryNote& note, std::int64_t now, const std::function<Status()>& verify) {
    SKIVET_TRY(const auto vault_lock, lock());
    SKIVET_TRY(const auto locks, lock_files(plan.files));
    Journal journal;
    std::uint64_t next = 1;
    std::error_code code;
    for (const auto& item : fs::directory_iterator(folder_, code))
        next = std::max<std::uint64_t>(next, std::strtoull(item.path().stem().c_str(), nullptr, 10) + 1);
    journal.id = fmt::format("{:06}", next);
    journal.time = now;
    journal.title = note.title;
    journal.source = real_path(note.source);
    journal.entries = note.entries;
    for (const auto& file : plan.files) {
        // The plan was made from the file in this state; anything else would be written into the wrong places.
        SKIVET_TRY(const auto stamp, stamp_of(file.file));
        if (!(stamp == file.expected))
            return fail(ErrorCode::stale, file.file.filename().string() + " changed since the plan was made", "Look at the plan again and deliver then");
        JournalFile f{real_path(file.file), stamp.size, file.new_size, {}};
        for (const auto& range : file.ranges) {
            const auto old_end = std::min(stamp.size, range.at + range.bytes.size());
            JournalRange r{range.at, {}, range.bytes.size(), sha256(range.bytes)};
            if (old_end > range.at) {
                SKIVET_TRY(r.old_bytes, files_->read(file.file, range.at, old_end - range.at));
            }
            f.ranges.push_back(std::move(r));
        }
        if (file.new_size < stamp.size) {
            SKIVET_TRY(auto tail, files_->read(file.file, file.new_size, stamp.size - file.new_size));
            f.ranges.push_back({file.new_size, std::move(tail), 0, sha256({})});
        }
        journal.files.push_back(std::move(f));
    }
    const auto part_path = path_of(journal.id, part);
    const auto write_the_journal = [&]() -> Status {
        SKIVET_CHECK(files_->create(part_path, write_journal(journal)));
        SKIVET_CHECK(files_->sync(part_path));
        SKIVET_CHECK(files_->rename(part_path, path_of(journal.id, pending)));
        return files_->sync_folder(folder_);
    };
    if (auto written = write_the_journal(); !written) {
        // No game byte was touched; whichever name the journal has by now, it goes.
        if (!files_->remove(part_path)) (void)files_->remove(path_of(journal.id, pending));
        return fail(std::move(written).error().within("vault"));
    }
    const auto write_the_game = [&]() -> Status {
        for (const auto& file : plan.files) {
            for (const auto& range : file.ranges) SKIVET_CHECK(files_->write(file.file, range.at, range.bytes));
            if (file.new_size != file.expected.size) SKIVET_CHECK(files_->resize(file.file, file.new_size));
            SKIVET_CHECK(files_->sync(file.file));
        }
        for (const auto& file : plan.files)
            for (const auto& range : file.ranges) {
                SKIVET_TRY(const auto back, files_->read(file.file, range.at, range.bytes.size()));
                if (back != range.bytes)
                    return fail_at(ErrorCode::io, range.at, file.file.string() + " does not read back as it was written", "The disk may be failing");
            }
        if (verify) SKIVET_CHECK(verify());
        SKIVET_CHECK(files_->rename(path_of(journal.id, pending), path_of(journal.id, kept)));
        return files_->sync_folder(folder_);
    };
    if (auto written = write_the_game(); !written) {
        auto error = std::move(written).error();
        // The journal may already be marked kept when only the last sync failed.
        std::error_code ignored;
        if (fs::exists(path_of(journal.id, kept), ignored)) (void)files_->rename(path_of(journal.id, kept), path_of(journal.id, pending));
        if (auto back = roll_back(journal); !back)
            error.advice = "The old bytes could not be put back yet (" + back.error().message() + "); they are safe in the vault, and the next start puts them back";
        return fail(std::move(error));
    }
    return journal;
}

Result<unsigned> Vault::recover() {
    std::error_code code;
    if (!fs::exists(folder_, code)) return 0u;
    SKIVET_TRY(const auto vault_lock, lock());
    std::vector<fs::path> half_done;
    for (const auto& item : fs::directory_iterator(folder_, code)) {
        if (item.path().extension() == ".part") SKIVET_CHECK(files_->remove(item.path()));
        if (item.path().extension() == ".pending") half_done.push_back(item.path());
    }
    std::sort(half_done.rbegin(), half_done.rend());  // newest first
    unsigned count = 0;
    for (const auto& path : half_done) {
        SKIVET_TRY(const auto data, read_file(path, 8ull << 30));
        auto journal = read_journal(data);
        if (!journal) {
            // It was renamed only after it was synced, so this is a damaged disk, not a crash. Keep it for a person to look at.
            return fail(std::move(journal).error().within(path.string()));
        }
        SKIVET_TRY(const auto locks, lock_files(journal->files));
        SKIVET_CHECK(roll_back(*journal));
        ++count;
    }
    return count;
}

Result<std::vector<Journal>> Vault::history() const {
    std::vector<fs::path> paths;
    std::error_code code;
    for (const auto& item : fs::directory_iterator(folder_, code))
        if (item.path().extension() == ".kept") paths.push_back(item.path());
    std::sort(paths.begin(), paths.end());
    std::vector<Journal> out;
    for (const auto& path : paths) {
        SKIVET_TRY(const auto data, read_file(path, 8ull << 30));
        auto journal = read_journal(data);
        if (!journal) return fail(std::move(journal).error().within(path.string()));
        out.push_back(std::move(*journal));
    }
    return out;
}

Status Vault::check_untouched(const Journal& journal) {
    for (const auto& file : journal.files) {
        const auto changed = [&] {
            return fail(ErrorCode::stale, file.file.filename().string() + " was changed by something else since this delivery",
                        "Putting the old bytes back would damage it. Take the new version as it is, or restore the game's own files");
        };
        SKIVET_TRY(const auto size, files_->size(file.file));
        if (size != file.new_size) return changed();
        for (const auto& range : file.ranges) {
            SKIVET_TRY(const auto now, files_->read(file.file, range.at, range.new_size));
            if (sha256(now) != range.new_hash) return changed();
        }
    }
    return {};
}

Status Vault::undo_locked(const Journal& journal) {
    SKIVET_TRY(const auto locks, lock_files(journal.files));
    SKIVET_CHECK(check_untouched(journal));
    // From here on a crash finishes the undo at the next start.
    SKIVET_CHECK(files_->rename(path_of(journal.id, kept), path_of(journal.id, pending)));
    SKIVET_CHECK(files_->sync_folder(folder_));
    return roll_back(journal);
}

Status Vault::undo(const std::string& id) {
    SKIVET_TRY(const auto vault_lock, lock());
    SKIVET_TRY(const auto all, history());
    const auto found = std::find_if(all.begin(), all.end(), [&](const auto& j) { return j.id == id; });
    if (found == all.end()) return fail(ErrorCode::missing, fmt::format("there is no delivery {} in the vault", id));
    for (auto later = found + 1; later != all.end(); ++later)
        for (const auto& mine : found->files)
            for (const auto& theirs : later->files)
                if (mine.file == theirs.file)
                    return fail(ErrorCode::usage, fmt::format("\"{}\" was delivered later into the same file", later->title), "Undo that one first");
    return undo_locked(*found);
}

Result<unsigned> Vault::restore(const fs::path& source) {
    SKIVET_TRY(const auto vault_lock, lock());
    SKIVET_TRY(const auto all, history());
    const auto wanted = real_path(source);
    unsigned count = 0;
    for (auto journal = all.rbegin(); journal != all.rend(); ++journal) {
        if (journal->source != wanted) continue;
        SKIVET_CHECK(undo_locked(*journal));
        ++count;
    }
    return count;
}

}  // namespace skivet

#include "delivery/vault.h"

#include <fmt/format.h>
#include <sys/stat.h>
#include <sys/statvfs.h>
#include <map>
#include <set>

#include "base/file_write.h"
#include "base/own_folders.h"
#include "base/phrase.h"
#include "delivery/in_use.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

/// A lock on a file; one that a delivery is about to make has none yet. A program that is in the way is named.
Status lock_file(const fs::path& file, Way way, std::vector<FileLock>& locks) {
    std::error_code code;
    if (way == Way::create || !fs::exists(file, code)) return {};
    auto lock = FileLock::take(file);
    if (!lock) {
        auto error = std::move(lock).error();
        if (error.code == ErrorCode::busy)
            if (const auto names = names_of(programs_with(file)); !names.empty())
                error.what = phrase("{} is in use by {}", file.filename().string(), names);
        return fail(std::move(error));
    }
    locks.push_back(std::move(*lock));
    return {};
}

/// Room for the journal beside the vault and for growth beside every game file, before anything is touched.
Status check_room(const fs::path& vault, const std::vector<JournalPart>& parts) {
    struct Disk {
        std::uint64_t needed = 0, free = 0;
        fs::path at;
    };
    std::map<std::uint64_t, Disk> disks;  // by file system
    const auto want = [&](const fs::path& path, std::uint64_t bytes) {
        auto where = path;
        std::error_code code;
        while (!fs::exists(where, code) && where != where.parent_path()) where = where.parent_path();
        struct statvfs info {};
        if (::statvfs(where.c_str(), &info) != 0) return;
        auto& disk = disks[info.f_fsid];
        disk.needed += bytes;
        disk.free = static_cast<std::uint64_t>(info.f_bavail) * info.f_frsize;
        disk.at = where;
    };
    for (const auto& part : parts) {
        want(vault, part.bytes_kept());
        for (const auto& file : part.files) {
            const bool whole = file.way == Way::rebuild || file.way == Way::create;
            want(file.file.parent_path(), whole ? file.new_size : file.new_size - std::min(file.new_size, file.old_size));
        }
    }
    for (const auto& [id, disk] : disks)
        if (disk.free < disk.needed)
            return fail(ErrorCode::no_space,
                        phrase("{} are needed at {}, {} are free", human_bytes(disk.needed), disk.at.string(), human_bytes(disk.free)),
                        "Free some space and try again; nothing was changed");
    return {};
}

/// How the old file comes back from the rebuilt one: what the plan copied is copied back, the rest is kept.
std::vector<BackPiece> back_pieces(const FilePlan& plan, std::uint64_t old_size) {
    struct Copied {
        std::uint64_t from, size, at;
    };
    std::vector<Copied> copied;
    std::uint64_t at = 0;
    for (const auto& piece : plan.pieces) {
        if (piece.is_copy()) copied.push_back({piece.from, piece.size, at});
        at += piece.length();
    }
    std::sort(copied.begin(), copied.end(), [](const auto& a, const auto& b) { return a.from < b.from; });
    std::vector<BackPiece> out;
    std::uint64_t done = 0;
    for (const auto& c : copied) {
        const auto end = std::min(old_size, c.from + c.size);
        if (end <= done) continue;
        const auto from = std::max(done, c.from);
        if (from > done) out.push_back({false, 0, from - done});
        out.push_back({true, c.at + (from - c.from), end - from});
        done = end;
    }
    if (done < old_size) out.push_back({false, 0, old_size - done});
    return out;
}

/// A name beside a file that nobody else has.
fs::path beside(const fs::path& file) {
    auto out = file;
    out += ".skivet-" + unguessable();
    return out;
}

constexpr std::uint64_t chunk = 4u << 20;

/// Of a file that is made: of its ranges, or of its pieces. Error `stale` when what they are copied from is not as the plan expects it.
Result<Sha256> hash_of_new(const FilePlan& plan, const CancelToken& cancel) {
    Sha256Stream hash;
    for (const auto& range : plan.ranges) hash.add(range.bytes), range.bytes.rest();
    if (plan.origin.path.empty()) return hash.finish();
    const auto changed = [&] {
        return fail(ErrorCode::stale, phrase("{} changed since the plan was made", plan.origin.path.filename().string()),
                    "Look at the plan again and deliver then");
    };
    SKIVET_TRY(const auto view, FileView::open(plan.origin.path));
    SKIVET_TRY(const auto all, view.bytes());
    if (!(view.stamp() == plan.origin.stamp) || sample_of(all) != plan.sample) return changed();
    for (const auto& piece : plan.pieces) {
        if (!piece.is_copy()) hash.add(piece.bytes), piece.bytes.rest();
        for (std::uint64_t done = 0; piece.is_copy() && done < piece.size; done += chunk) {
            SKIVET_CHECK(cancel.check());
            SKIVET_TRY(const auto some, view.bytes(piece.from + done, std::min(chunk, piece.size - done)));
            hash.add(some);
            view.note_read(some.size());
        }
    }
    SKIVET_CHECK(view.intact());
    return hash.finish();
}

bool on_other_disks(const fs::path& a, const fs::path& b) {
    struct stat one {
    }, other{};
    return ::stat(a.c_str(), &one) == 0 && ::stat(b.c_str(), &other) == 0 && one.st_dev != other.st_dev;
}

}  // namespace

Status Vault::check_there(const JournalPart& part) const {
    std::error_code code;
    if (!part.device || (fs::is_directory(part.source, code) && (!part.apart || on_other_disks(part.source, folder_)))) return {};
    return fail(ErrorCode::missing, phrase("{} is not there", part.source.string()),
                "Put in the card, or connect the device, and try again");
}

fs::path Vault::real_path(const fs::path& path) {
    std::error_code code;
    auto out = fs::weakly_canonical(path, code);
    return code ? fs::absolute(path) : out;
}

Result<std::vector<FileLock>> Vault::lock_parts(const std::vector<JournalPart>& parts) {
    std::vector<FileLock> locks;
    for (const auto& part : parts)
        for (const auto& file : part.files) SKIVET_CHECK(lock_file(file.file, file.way, locks));
    return locks;
}

fs::path Vault::default_folder() { return user_data_folder() / "vault"; }

fs::path Vault::path_of(const std::string& id, std::string_view state) const { return folder_ / fmt::format("{}.{}", id, state); }

Result<FileLock> Vault::lock() const {
    std::error_code code;
    make_folders(folder_, code);
    if (code) return fail_errno(code.value(), phrase("cannot make the vault {}", folder_.string()));
    auto lock = FileLock::take(folder_ / "lock", true);
    if (!lock && lock.error().code == ErrorCode::busy)
        return fail(ErrorCode::busy, "another Skivet is writing", "Wait until it is done and try again");
    return lock;
}

Result<Sha256> Vault::hash_file(const fs::path& file, const CancelToken& cancel) const {
    SKIVET_TRY(const auto size, files_->size(file));
    Sha256Stream hash;
    for (std::uint64_t at = 0; at < size; at += chunk) {
        SKIVET_CHECK(cancel.check());
        SKIVET_TRY(const auto bytes, files_->read(file, at, std::min(chunk, size - at)));
        hash.add(bytes);
    }
    return hash.finish();
}

/// The description of what a share will do. Everything the plan rests on is checked.
Result<JournalPart> Vault::prepare(const Share& share) const {
    JournalPart part;
    part.source = real_path(share.source);
    part.entries = share.entries;
    part.device = share.device;
    part.apart = share.device && on_other_disks(share.source, folder_);
    for (const auto& plan : share.plan.files) {
        const auto name = plan.file.filename().string();
        const auto changed = [&] {
            return fail(ErrorCode::stale, phrase("{} changed since the plan was made", name), "Look at the plan again and deliver then");
        };
        JournalFile f;
        f.file = real_path(plan.file);
        f.way = plan.way;
        f.new_size = plan.new_size;
        if (plan.way == Way::create) {
            std::error_code code;
            if (fs::exists(plan.file, code)) return changed();
            f.fresh = beside(f.file);
            for (auto folder = f.file.parent_path(); !fs::exists(folder, code) && folder != folder.parent_path();
                 folder = folder.parent_path())
                f.folders.insert(f.folders.begin(), folder);
            SKIVET_TRY(f.new_hash, hash_of_new(plan, cancel_));
            part.files.push_back(std::move(f));
            continue;
        }
        SKIVET_TRY(const auto stamp, stamp_of(plan.file));
        // The plan was made from the file in this state; anything else would be written into the wrong places.
        if (!(stamp == plan.expected)) return changed();
        SKIVET_TRY(const auto view, FileView::open(plan.file));
        SKIVET_TRY(const auto current, view.bytes());
        if (plan.sample != 0 && sample_of(current) != plan.sample) return changed();
        f.old_size = stamp.size;
        if (plan.way == Way::remove) {
            struct stat info {};
            if (::stat(f.file.c_str(), &info) != 0) return changed();
            f.mode = info.st_mode & 07777;
            f.fresh = beside(f.file);
            SKIVET_TRY(f.old_hash, hash_file(f.file, cancel_));
        }
        if (!plan.pieces.empty()) {
            Sha256Stream old_hash, new_hash;
            f.fresh = beside(f.file);
            const auto add = [&](Sha256Stream& hash, ByteSpan bytes) -> Status {
                for (std::size_t at = 0; at < bytes.size(); at += chunk) {
                    SKIVET_CHECK(cancel_.check());
                    const auto some = bytes.subspan(at, std::min<std::size_t>(chunk, bytes.size() - at));
                    hash.add(some);
                    view.note_read(some.size());  // the archive may be larger than memory
                }
                return {};
            };
            SKIVET_CHECK(add(old_hash, current));
            for (const auto& piece : plan.pieces) {
                if (!piece.is_copy()) {
                    new_hash.add(piece.bytes);
                    piece.bytes.rest();
                    continue;
                }
                SKIVET_TRY(const auto old, slice(current, piece.from, piece.size));
                SKIVET_CHECK(add(new_hash, old));
            }
            f.old_hash = old_hash.finish();
            f.new_hash = new_hash.finish();
            f.back = back_pieces(plan, stamp.size);
        }
        for (const auto& range : plan.ranges) {
            const auto old_end = std::max(range.at, std::min<std::uint64_t>(stamp.size, range.at + range.bytes.size()));
            if (range.was != 0 && old_end > range.at &&
                range_hash(current.subspan(static_cast<std::size_t>(range.at), static_cast<std::size_t>(old_end - range.at))) != range.was)
                return changed();
            JournalRange kept{range.at, old_end - range.at, range.bytes.size(), sha256(range.bytes), 0, {}};
            kept.new_sectors = sector_hashes(kept, range.bytes);
            range.bytes.rest();
            view.note_read(kept.old_size);
            f.ranges.push_back(std::move(kept));
        }
        if (plan.pieces.empty() && plan.new_size < stamp.size)
            f.ranges.push_back({plan.new_size, stamp.size - plan.new_size, 0, sha256({}), 0, {}});
        SKIVET_CHECK(view.intact());
        part.files.push_back(std::move(f));
    }
    return part;
}

/// The description, the old bytes piece by piece, and their hash.
Status Vault::write_part(const Journal& journal, JournalPart& part, const fs::path& place) {
    const auto description = write_description(journal, part);
    SKIVET_CHECK(files_->create(place, description));
    std::uint64_t at = description.size();
    Sha256Stream hash;
    const auto keep = [&](const fs::path& file, std::uint64_t from, std::uint64_t size) -> Status {
        for (std::uint64_t done = 0; done < size; done += chunk) {
            SKIVET_CHECK(cancel_.check());
            SKIVET_TRY(const auto bytes, files_->read(file, from + done, std::min(chunk, size - done)));
            hash.add(bytes);
            SKIVET_CHECK(files_->write(place, at, bytes));
            at += bytes.size();
        }
        return {};
    };
    for (const auto& file : part.files) {
        for (const auto& range : file.ranges) SKIVET_CHECK(keep(file.file, range.at, range.old_size));
        std::uint64_t old_at = 0;
        for (const auto& piece : file.back) {
            if (!piece.from_new) SKIVET_CHECK(keep(file.file, old_at, piece.size));
            old_at += piece.size;
        }
    }
    const auto digest = hash.finish();
    SKIVET_CHECK(files_->write(place, at, digest));
    part.place = place;
    return files_->sync(place);
}

Status Vault::write_game(const Share& share, const JournalPart& part) {
    // In pieces, so that a cancel is answered soon.
    const auto write = [&](const fs::path& file, std::uint64_t at, const Content& content) -> Status {
        const ByteSpan bytes = content;
        for (std::size_t done = 0; done < bytes.size(); done += chunk) {
            SKIVET_CHECK(cancel_.check());
            SKIVET_CHECK(files_->write(file, at + done, bytes.subspan(done, std::min<std::size_t>(chunk, bytes.size() - done))));
        }
        content.rest();
        return {};
    };
    for (std::size_t i = 0; i < share.plan.files.size(); ++i) {
        SKIVET_CHECK(cancel_.check());
        const auto& plan = share.plan.files[i];
        const auto& file = part.files[i].file;
        if (plan.way == Way::create || !plan.pieces.empty()) {
            for (const auto& folder : part.files[i].folders) SKIVET_CHECK(files_->make_folder(folder));
            const auto& fresh = part.files[i].fresh;
            if (plan.way == Way::create) SKIVET_CHECK(files_->create(fresh, {}));
            else SKIVET_CHECK(files_->create_like(fresh, file));
            std::uint64_t at = 0;
            for (const auto& range : plan.ranges) {
                SKIVET_CHECK(write(fresh, at, range.bytes));
                at += range.bytes.size();
            }
            for (const auto& piece : plan.pieces) {
                if (!piece.is_copy()) SKIVET_CHECK(write(fresh, at, piece.bytes));
                for (std::uint64_t done = 0; piece.is_copy() && done < piece.size; done += 16 * chunk) {
                    SKIVET_CHECK(cancel_.check());
                    SKIVET_CHECK(files_->copy(plan.way == Way::create ? plan.origin.path : file, piece.from + done, fresh, at + done,
                                              std::min(16 * chunk, piece.size - done)));
                }
                at += piece.length();
            }
            SKIVET_CHECK(files_->sync(fresh));
            SKIVET_TRY(const auto hash, hash_file(fresh, cancel_));
            if (hash != part.files[i].new_hash)
                return fail(ErrorCode::io, phrase("{} does not read back as it was written", fresh.string()), "The disk may be failing");
            SKIVET_CHECK(files_->rename(fresh, file));
            SKIVET_CHECK(files_->sync_folder(file.parent_path()));
            for (const auto& folder : part.files[i].folders) SKIVET_CHECK(files_->sync_folder(folder.parent_path()));
            continue;
        }
        if (plan.way == Way::remove) {
            SKIVET_CHECK(files_->remove(file));
            SKIVET_CHECK(files_->sync_folder(file.parent_path()));
            continue;
        }
        for (const auto& range : plan.ranges) SKIVET_CHECK(write(file, range.at, range.bytes));
        if (plan.new_size != plan.expected.size) SKIVET_CHECK(files_->resize(file, plan.new_size));
        SKIVET_CHECK(files_->sync(file));
    }
    return {};
}

Status Vault::check_written(const Share& share, const JournalPart& part) {
    for (std::size_t i = 0; i < share.plan.files.size(); ++i)
        for (const auto& range : share.plan.files[i].ranges) {
            const auto& file = part.files[i].file;
            SKIVET_TRY(const auto back, files_->read(file, range.at, range.bytes.size()));
            if (range.bytes != back)
                return fail_at(ErrorCode::io, range.at, phrase("{} does not read back as it was written", file.string()),
                               "The disk may be failing");
            range.bytes.rest();
        }
    return {};
}

Result<Journal> Vault::deliver(const WritePlan& plan, const DeliveryNote& note, std::int64_t now, const std::function<Status()>& verify) {
    std::vector<Share> shares;
    shares.push_back({note.source, note.entries, plan});
    return deliver(std::move(shares), note.title, now, verify);
}

Result<Journal> Vault::deliver(std::vector<Share> shares, const std::string& title, std::int64_t now,
                               const std::function<Status()>& verify) {
    SKIVET_TRY(const auto vault_lock, lock());
    Journal journal;
    std::uint64_t next = 1;
    std::error_code code;
    for (const auto& item : fs::directory_iterator(folder_, code))
        next = std::max<std::uint64_t>(next, std::strtoull(item.path().stem().c_str(), nullptr, 10) + 1);
    journal.id = fmt::format("{:06}", next);
    journal.time = now;
    journal.title = title;
    // Each of two plans for one file rests on what the other changes; rolled back, one would be taken for somebody else's.
    std::set<fs::path> once;
    for (const auto& share : shares)
        for (const auto& file : share.plan.files)
            if (!once.insert(real_path(file.file)).second)
                return fail(ErrorCode::usage, phrase("{} would be written twice by one delivery", file.file.string()),
                            "Deliver the pieces one after the other");
    // Locked first, so that what is checked then stays as it is.
    std::vector<FileLock> locks;
    for (const auto& share : shares)
        for (const auto& file : share.plan.files) SKIVET_CHECK(lock_file(file.file, file.way, locks));
    SKIVET_CHECK(check_unfinished(shares));
    if (register_) SKIVET_CHECK(register_->add(folder_));
    for (const auto& share : shares) {
        SKIVET_TRY(auto part, prepare(share));
        journal.parts.push_back(std::move(part));
    }
    SKIVET_CHECK(check_room(folder_, journal.parts));
    const auto being_written = path_of(journal.id, part_state), pending = path_of(journal.id, pending_state),
               kept = path_of(journal.id, kept_state);
    const auto write_the_journal = [&]() -> Status {
        SKIVET_CHECK(files_->make_folder(being_written));
        for (std::size_t p = 0; p < journal.parts.size(); ++p)
            SKIVET_CHECK(write_part(journal, journal.parts[p], being_written / std::to_string(p)));
        SKIVET_CHECK(files_->sync_folder(being_written));
        SKIVET_CHECK(files_->rename(being_written, pending));
        return files_->sync_folder(folder_);
    };
    if (auto written = write_the_journal(); !written) {
        // No game byte was touched; whichever name the journal has by now, it goes.
        drop_part_folder(fs::exists(pending, code) ? pending : being_written);
        return fail(std::move(written).error().within("vault"));
    }
    for (auto& part : journal.parts) part.place = pending / part.place.filename();
    const auto write_all = [&]() -> Status {
        for (std::size_t p = 0; p < shares.size(); ++p) SKIVET_CHECK(write_game(shares[p], journal.parts[p]));
        for (std::size_t p = 0; p < shares.size(); ++p) SKIVET_CHECK(check_written(shares[p], journal.parts[p]));
        if (verify) SKIVET_CHECK(verify());
        SKIVET_CHECK(cancel_.check());
        SKIVET_CHECK(files_->rename(pending, kept));
        return files_->sync_folder(folder_);
    };
    if (auto written = write_all(); !written) {
        auto error = std::move(written).error();
        // The journal may already be marked kept when only the last sync failed.
        if (fs::exists(kept, code)) (void)files_->rename(kept, pending);
        Recovered back;
        if (auto rolled = roll_back_what_is_known(pending, journal, back); !rolled)
            error.advice =
                phrase("The old bytes could not be put back yet ({}); they are safe in the vault, and the next start puts them back",
                       rolled.error().message());
        else if (!back.set_aside.empty()) error.advice = back.set_aside[0].message();
        return fail(std::move(error));
    }
    for (auto& part : journal.parts) part.place = kept / part.place.filename();
    return journal;
}

Status Vault::check_unfinished(const std::vector<Share>& shares) const {
    const auto check = [&](const Vault& vault, bool ours) -> Status {
        for (const auto& one : vault.unfinished(ours))
            for (const auto& file : one.files)
                for (const auto& share : shares)
                    for (const auto& plan : share.plan.files)
                        if (real_path(plan.file) == file && one.running)
                            return fail(ErrorCode::busy, phrase("another Skivet is writing into {}", file.filename().string()),
                                        "Wait until it is done and try again");
                        else if (real_path(plan.file) == file)
                            return fail(
                                ErrorCode::stale,
                                phrase("a delivery into {} was cut short and is not rolled back yet (\"{}\", in the vault {})",
                                       file.filename().string(), one.title, vault.folder_.string()),
                                phrase("Put the old bytes back first: skivet-cli restore --unfinished --vault {}", vault.folder_.string()));
        return {};
    };
    SKIVET_CHECK(check(*this, true));
    const auto mine = real_path(folder_);
    for (const auto& other : register_ ? register_->all() : std::vector<fs::path>{})
        if (other != mine) SKIVET_CHECK(check(Vault(other, *files_), false));
    return {};
}

}  // namespace skivet

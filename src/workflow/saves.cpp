#include "workflow/saves.h"

#include <algorithm>
#include <ctime>
#include <set>

#include "base/file_write.h"
#include "base/phrase.h"
#include "base/text.h"
#include "bench/open_raster.h"
#include "container/zip.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr std::int64_t second_ns = 1'000'000'000;

std::int64_t clock_ns() {
    timespec t{};
    clock_gettime(CLOCK_REALTIME, &t);
    return std::int64_t{t.tv_sec} * second_ns + t.tv_nsec;
}

std::string hash_of(ByteSpan data) { return to_hex(sha256(data)); }

/// The path without its last ending: what programs keep when they save in another format.
fs::path base_of(const fs::path& file) { return file.parent_path() / file.stem(); }

/// PNG, ISO/IEC 15948: chunks of length, type, data and CRC, the last one IEND.
bool png_is_whole(ByteSpan file) {
    for (std::uint64_t at = 8;;) {
        const auto head = slice(file, at, 8);
        if (!head) return false;
        const auto length = (std::to_integer<std::uint64_t>((*head)[0]) << 24) | (std::to_integer<std::uint64_t>((*head)[1]) << 16) |
                            (std::to_integer<std::uint64_t>((*head)[2]) << 8) | std::to_integer<std::uint64_t>((*head)[3]);
        if (at + 12 + length > file.size()) return false;
        if (as_text(head->subspan(4, 4)) == "IEND") return true;
        at += 12 + length;
    }
}

bool begins(ByteSpan file, std::string_view mark) {
    const auto head = slice(file, 0, mark.size());
    return head && as_text(*head) == mark;
}

const TextureKinds& kinds() {
    static const auto standard = TextureKinds::standard();
    return standard;
}

/// The piece with new content in one of its files.
Piece with_content(Piece piece, const fs::path& file, std::string hash, std::int64_t now) {
    if (piece.file == file) piece.seen_hash = hash;
    for (auto& one : piece.more)
        if (one.file == file) one.seen_hash = hash;
    piece.changed_at = now;
    piece.state = state_by_edit(piece);
    return piece;
}

/// Pieces may have the same content; each has versions of its own.
bool is_kept(const Project& project, const fs::path& file, const std::string& hash) {
    return std::any_of(project.versions.begin(), project.versions.end(),
                       [&](const Version& v) { return v.hash == hash && base_of(v.file) == base_of(file); });
}

/// A file of a piece as it was exported and as it was seen last.
struct Watched {
    const fs::path& file;
    const std::string &exported, &seen;
};
std::vector<Watched> files_of(const Piece& piece) {
    std::vector<Watched> out{{piece.file, piece.exported_hash, piece.seen_hash}};
    for (const auto& one : piece.more) out.push_back({one.file, one.exported_hash, one.seen_hash});
    return out;
}

Result<std::optional<Version>> keep(const Project& project, const Watched& of, ByteSpan bytes, const std::string& hash, std::int64_t now) {
    if (hash == of.exported || is_kept(project, of.file, hash)) return std::optional<Version>();
    SKIVET_CHECK(write_file(project.version_file(hash), bytes));
    return std::optional(Version{of.file, hash, now, bytes.size()});
}

}  // namespace

bool is_whole(ByteSpan file, std::string_view name) {
    if (file.empty()) return false;
    if (begins(file, "\x89PNG\r\n\x1a\n")) return png_is_whole(file);
    if (begins(file, "\xff\xd8\xff")) {
        // Some programs write a few bytes behind the end mark.
        const auto tail = as_text(file.last(std::min<std::size_t>(file.size(), 4096)));
        return tail.find("\xff\xd9") != std::string::npos;
    }
    const ReadLimits limits;
    if (is_open_raster(file)) return ZipContainer::recognize(file);  // its directory comes last
    if (begins(file, "RIFF")) {
        // WebP container specification: the size field counts what follows it.
        const auto size = slice(file, 4, 4);
        return size && std::uint64_t{8} + load_le<std::uint32_t>(size->data()) <= file.size();
    }
    const auto kind = kinds().recognize(file.first(std::min<std::size_t>(file.size(), 1024)), name);
    if (!kind) return true;
    const auto layout = kind->layout(file, file.size(), limits);
    if (!layout || layout->damage) return false;
    // OpenEXR says in its header how many rows there are, and only reading shows whether they came.
    if (begins(file, "\x76\x2f\x31\x01")) return kind->decode_wide(file, *layout, layout->surfaces.front()).has_value();
    return true;
}

bool is_named_like_an_edit(const fs::path& file) {
    const auto ending = lower(file.extension().string());
    return ending == ".ora" || kinds().by_extension("x" + ending) != nullptr;
}

bool SeenFiles::may_be_new(const fs::path& file, const FileStamp& stamp) const {
    const auto found = seen_.find(file);
    return found == seen_.end() || found->second.first != stamp || !found->second.second;
}

void SeenFiles::remember(const fs::path& file, const FileStamp& stamp) {
    seen_[file] = {stamp, clock_ns() - stamp.modified_ns > 2 * second_ns};
}

BenchLook look_at_files(const Project& project, SeenFiles& seen, std::int64_t now, const CancelToken& cancel, const SaveSeen& first_saved) {
    constexpr std::int64_t patience_ns = 10 * second_ns;
    BenchLook out;
    bool told = false;
    std::map<fs::path, std::string> read;  // pieces that follow another share its files; empty: nothing new there
    const auto look = [&](const Watched& of) -> const std::string& {
        const auto [found, first] = read.emplace(of.file, std::string());
        if (!first) return found->second;
        const auto path = project.work() / of.file;
        const auto stamp = stamp_of(path);
        if (!stamp || !seen.may_be_new(path, *stamp)) return found->second;
        const auto bytes = read_file(path);
        if (!bytes) return found->second;
        auto hash = hash_of(*bytes);
        if (hash != of.seen) {
            if (!is_whole(*bytes, of.file.string()) && clock_ns() - stamp->modified_ns < patience_ns) {
                out.unfinished = true;
                return found->second;
            }
            if (first_saved && !std::exchange(told, true)) first_saved(of.file, hash);
            auto kept = keep(project, of, *bytes, hash, now);
            if (!kept) out.errors.push_back(std::move(kept).error().within("versions"));
            else if (*kept) out.versions.push_back(std::move(**kept));
        }
        seen.remember(path, *stamp);
        return found->second = std::move(hash);
    };
    for (const auto& piece : project.pieces) {
        if (cancel.canceled()) return out;
        auto now_there = piece;
        for (const auto& of : files_of(piece))
            if (const auto& hash = look(of); !hash.empty() && hash != of.seen)
                now_there = with_content(std::move(now_there), of.file, hash, now);
        if (now_there.edit() != piece.edit()) out.saved.push_back(std::move(now_there));
    }
    out.others = other_saves(project);
    return out;
}

std::vector<PieceId> note_save(Project& project, const fs::path& file, const std::string& hash, std::int64_t now) {
    std::vector<PieceId> out;
    for (const auto& piece : project.pieces) {
        const auto files = files_of(piece);
        if (std::none_of(files.begin(), files.end(), [&](const Watched& w) { return w.file == file; })) continue;
        // The list stays as it is: only what is in the piece changes.
        if (note_refreshed(project, with_content(piece, file, hash, now))) out.push_back(piece.id);
    }
    return out;
}

std::vector<PieceId> note_look(Project& project, const BenchLook& look) {
    std::vector<PieceId> out;
    for (const auto& piece : look.saved)
        if (note_refreshed(project, piece)) out.push_back(piece.id);
    add_versions(project, look.versions);
    return out;
}

std::vector<OtherSave> other_saves(const Project& project) {
    std::set<fs::path> taken, folders;
    std::map<fs::path, const Piece*> by_base;
    for (const auto& piece : project.pieces) {
        for (const auto& of : files_of(piece)) taken.insert(of.file);
        folders.insert(piece.file.parent_path());
        by_base.emplace(base_of(piece.file), &piece);
        // x.dds.png becomes x.ora where a program takes all endings off.
        if (const auto shorter = base_of(base_of(piece.file)); shorter != base_of(piece.file)) by_base.emplace(shorter, &piece);
    }
    std::vector<OtherSave> out;
    for (const auto& folder : folders) {
        std::error_code code;
        for (const auto& item : fs::directory_iterator(project.work() / folder, code)) {
            const auto file = folder / item.path().filename();
            const auto found = by_base.find(base_of(file));
            if (found == by_base.end() || taken.contains(file) || !item.is_regular_file(code)) continue;
            if (!is_named_like_an_edit(file)) continue;
            const auto theirs = stamp_of(item.path()), ours = stamp_of(project.work() / found->second->file);
            if (theirs && ours && theirs->modified_ns > ours->modified_ns) out.push_back({found->second->id, file});
        }
    }
    std::sort(out.begin(), out.end(),
              [](const OtherSave& a, const OtherSave& b) { return std::pair(a.piece, a.file) < std::pair(b.piece, b.file); });
    return out;
}

Status use_file(Project& project, PieceId id, const fs::path& file, std::int64_t now) {
    const auto* asked = project.piece(id);
    if (!asked) return fail(ErrorCode::usage, phrase("the project has no piece {}", id));
    const auto old = asked->file;
    if (std::any_of(project.pieces.begin(), project.pieces.end(), [&](const Piece& p) { return p.file == file && p.file != old; }))
        return fail(ErrorCode::usage, phrase("{} is another piece's file", file.string()));
    SKIVET_TRY(const auto bytes, read_file(project.work() / file));
    const auto hash = hash_of(bytes);
    std::optional<Version> kept;
    for (auto& piece : project.pieces) {
        if (piece.file != old) continue;
        piece.file = file;
        auto version = keep(project, files_of(piece).front(), bytes, hash, now);
        if (!version) return fail(std::move(version).error());
        if (*version) kept = std::move(*version);
        piece = with_content(std::move(piece), file, hash, now);
        piece.options.mends = {};
    }
    if (kept) project.versions.push_back(std::move(*kept));
    return {};
}

Result<std::vector<Version>> keep_versions(const Project& project, const Piece& piece, std::int64_t now) {
    std::vector<Version> out;
    for (const auto& of : files_of(piece)) {
        const auto path = project.work() / of.file;
        std::error_code code;
        if (!fs::exists(path, code)) continue;
        SKIVET_TRY(const auto bytes, read_file(path));
        SKIVET_TRY(auto kept, keep(project, of, bytes, hash_of(bytes), now));
        if (kept) out.push_back(std::move(*kept));
    }
    return out;
}

std::vector<Version> versions_of(const Project& project, const Piece& piece) {
    std::vector<Version> out;
    const auto files = files_of(piece);
    // Those of one second stay in the order they were seen in.
    for (auto version = project.versions.rbegin(); version != project.versions.rend(); ++version)
        if (std::any_of(files.begin(), files.end(), [&](const Watched& of) { return base_of(of.file) == base_of(version->file); }))
            out.push_back(*version);
    std::stable_sort(out.begin(), out.end(), [](const Version& a, const Version& b) { return a.at > b.at; });
    return out;
}

Result<WentBack> go_back(const Project& project, const Piece& piece, const Version& version, std::int64_t now) {
    const auto has = [](const Piece& p, const fs::path& file) {
        const auto files = files_of(p);
        return std::any_of(files.begin(), files.end(), [&](const Watched& of) { return of.file == file; });
    };
    if (std::any_of(project.pieces.begin(), project.pieces.end(),
                    [&](const Piece& p) { return has(p, version.file) && p.file != piece.file; }))
        return fail(ErrorCode::usage, phrase("{} is another piece's file", version.file.string()));
    auto bytes = read_file(project.version_file(version.hash));
    if (!bytes) return fail(std::move(bytes).error().within("versions"));
    WentBack out{piece, {}};
    // It may go into another file than the one the edit is in now; what either holds stays to be had.
    if (!has(piece, version.file)) {
        SKIVET_TRY(out.kept, keep_versions(project, piece, now));
        out.piece.file = version.file;
    }
    SKIVET_TRY(auto kept, keep_versions(project, out.piece, now));
    std::move(kept.begin(), kept.end(), std::back_inserter(out.kept));
    SKIVET_CHECK(write_file(project.work() / version.file, *bytes));
    out.piece = with_content(std::move(out.piece), version.file, version.hash, now);
    return out;
}

void add_versions(Project& project, std::span<const Version> versions) {
    for (const auto& version : versions)
        if (!is_kept(project, version.file, version.hash)) project.versions.push_back(version);
}

std::vector<Version> cleared_versions(const Project& project) {
    std::vector<Version> out;
    std::set<std::string> in_use;
    for (const auto& piece : project.pieces)
        for (const auto& of : files_of(piece)) in_use.insert(of.seen);
    for (const auto& version : project.versions) {
        std::error_code code;
        if (!in_use.contains(version.hash) && (fs::remove(project.version_file(version.hash), code) || !code)) out.push_back(version);
    }
    return out;
}

std::uint64_t bytes_of_versions(const Project& project) {
    std::uint64_t sum = 0;
    for (const auto& version : project.versions) sum += version.size;
    return sum;
}

}  // namespace skivet

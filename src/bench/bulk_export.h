#pragma once
// Many textures out at once: names that do not collide, room on the disk, pause, cancel, going on later, a log of what failed.
#include <condition_variable>
#include <filesystem>
#include <mutex>

#include "base/progress.h"
#include "base/shard.h"
#include "bench/alpha_way.h"
#include "container/address.h"

namespace skivet {

enum class FolderShape : std::uint8_t {
    kept,     ///< the archive's folders
    flat,     ///< one folder; names that would meet get a number
    per_set,  ///< a folder for each set of textures that belong together
};

struct ExportWish {
    ExportAs as = ExportAs::picture;
    FolderShape shape = FolderShape::kept;
    std::string mip = "0";        ///< a level, or "all"; pictures only
    std::string faces = "cross";  ///< of a cubemap: cross, six or first
    std::string layers = "all";   ///< of an array or a volume: all or first
    AlphaWay alpha = AlphaWay::kept;
    std::uint64_t part_bytes = 0;  ///< files of more are cut into name.000, name.001 …; 0: never. fat32_part is what FAT32 holds
    Shard shard;                   ///< only this part of the items; names are given as for all
    bool resume = false;           ///< leave out what is there already
    bool overwrite = false;        ///< also files that no export made, or that changed since; otherwise those are failures
};
/// FAT32 holds files of up to 4 GiB less one byte.
inline constexpr std::uint64_t fat32_part = (1ull << 32) - 1;

struct ExportItem {
    std::string inner;  ///< path inside the source, archives inside as folders
    std::string set;    ///< name of its set, for FolderShape::per_set; empty: none
    TextureDesc desc;
    std::uint64_t size = 0;  ///< bytes of the texture file
    std::function<Result<TextureFile>()> load;
    std::function<Result<Bytes>()> raw;  ///< the file as it is; only for ExportAs::raw
    Address address;
};

/// What will be written where.
struct ExportPlan {
    std::vector<std::filesystem::path> names;  ///< one per item: relative to the target
    std::uint64_t bytes = 0;                   ///< about what it will take: pictures count as packed to half
};
/// Gives out names in order, so that they depend on nothing else. Names that differ only in case count as one, characters that FAT cannot
/// hold become "_": the files go to other machines.
[[nodiscard]] ExportPlan plan_export(std::span<const ExportItem> items, const ExportWish& wish);

/// Lets work be halted and go on.
class Gate {
public:
    void pause();
    void go_on();
    [[nodiscard]] bool paused() const;
    /// Returns at once unless paused; then when it goes on or is canceled.
    void pass(const CancelToken& cancel);

private:
    mutable std::mutex mutex_;
    std::condition_variable changed_;
    bool paused_ = false;
};

struct ExportFailure {
    std::string inner;
    Error error;
};
struct ExportReport {
    std::size_t written = 0, skipped = 0;  ///< items; skipped: there already
    std::uint64_t bytes = 0;               ///< written
    std::vector<ExportFailure> failed;
    std::vector<ExportFailure> damaged;  ///< written, but what was there is not whole
    std::filesystem::path log;           ///< where the failures are listed; empty when there is none
};
struct ExportProgress : Progress {
    std::atomic<std::uint64_t> bytes{0};
    Gate gate;
};
/// Writes everything on `jobs` threads (0: all cores). A failed item is no reason to stop, except where the disk is full. Failures are
/// listed in "export log.txt" in the target, what was written in its manifest (export_manifest.h). Each file appears whole or not at all. A
/// file that no export made, or that changed since, stays unless `wish.overwrite`; a source is never written, nor anything in a folder that
/// is one. Errors: `usage` for a target that is a source, `busy` when another export writes there, `no_space` before anything is written
/// (with `force` only afterwards), `canceled`; what was written stays and `resume` goes on from there.
[[nodiscard]] Result<ExportReport> run_export(std::span<const ExportItem> items, const ExportWish& wish, const std::filesystem::path& to,
                                              ExportProgress& progress, int jobs = 0, bool force = false);

/// Puts one file of an export where it belongs: its path, its content, and whether an edit comes back by it.
using PutFile = std::function<Status(const std::filesystem::path&, ByteSpan, bool whole)>;
/// One texture as one or several files; `target` has its final ending.
[[nodiscard]] Status export_files(const TextureFile& texture, const ExportWish& wish, const std::filesystem::path& target,
                                  const CancelToken& cancel, const PutFile& put);

}  // namespace skivet

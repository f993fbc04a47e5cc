#pragma once
// Files for a card or device: names its file system can hold, and files cut where it cannot hold them whole.
#include "container/write_plan.h"

namespace skivet {

/// Bytes of the largest file on FAT32: its directory keeps a size in 32 bits (Microsoft FAT specification, 2005, section 6).
inline constexpr std::uint64_t fat32_largest = 0xFFFFFFFF;

/// Error `usage` for a path, separated by '/', with a name that FAT cannot hold: more than 255 UTF-16 units, a control character or one of
/// \" * : < > ? \\ |, a point or a space at its end (Microsoft FAT specification, 2005, section 7).
[[nodiscard]] Status check_fat_path(std::string_view path);

/// How a device takes large files: of more than `largest` bytes they become several, with `part` behind their names, where {n}, {nn} or
/// {nnn} is the part's number from 0 on, with so many digits.
struct DeviceCut {
    std::uint64_t largest = fat32_largest;
    std::string part = ".{nn}";

    /// Bytes of each part but the last: whole pages, so that parts can be mapped one behind the other.
    [[nodiscard]] std::uint64_t part_size() const;
    [[nodiscard]] std::string ending(unsigned number) const;
};
/// Error `usage` for parts too small, and for endings by which parts would not be known as such again (container/parts.h).
[[nodiscard]] Status check_cut(const DeviceCut& cut);

/// The first file of one that may have been cut: `to` itself, or its first part; nothing when neither is there.
[[nodiscard]] std::optional<std::filesystem::path> there_on_device(const std::filesystem::path& to, const DeviceCut& cut);

/// A new file `to` with a game file's content as `becomes` makes it; without a change to it (`becomes.file` empty) as it is. The game's
/// file is copied from as the plan is carried out, and stays as it is.
[[nodiscard]] Result<WritePlan> plan_copy(const std::filesystem::path& origin, const FilePlan& becomes, const std::filesystem::path& to,
                                          const DeviceCut& cut);

/// Error `limit` where a plan for files on the device makes one larger than it holds.
[[nodiscard]] Status check_sizes(const WritePlan& plan, const DeviceCut& cut);

}  // namespace skivet

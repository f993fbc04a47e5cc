#pragma once
// What a container wants written. Nothing here touches a disk; delivery does.
#include "base/file_view.h"

namespace skivet {

enum class Way { nothing, in_place, append, rebuild };
[[nodiscard]] std::string_view name_of(Way way);

struct WriteRange {
    std::uint64_t at = 0;   ///< byte position in the file
    Bytes bytes;
};

/// The change to one file: bytes at positions, and the size the file has afterwards.
struct FilePlan {
    std::filesystem::path file;
    FileStamp expected;                ///< the file as it was when the plan was made
    std::uint64_t new_size = 0;
    std::vector<WriteRange> ranges;    ///< sorted, not overlapping
    Way way = Way::nothing;

    [[nodiscard]] std::uint64_t bytes_written() const;
    [[nodiscard]] bool empty() const { return ranges.empty() && new_size == expected.size; }
};

struct WritePlan {
    std::vector<FilePlan> files;
    [[nodiscard]] std::uint64_t bytes_written() const;
    [[nodiscard]] bool empty() const { return files.empty(); }
};

/// Sorts the ranges and cuts them down to the bytes that really differ from `current`. Equal runs shorter than `gap` bytes stay
/// inside a range: two writes cost more than a few bytes.
void minimize(FilePlan& plan, ByteSpan current, std::size_t gap = 32);

/// The file's bytes after the plan, for archives inside archives.
[[nodiscard]] Result<Bytes> planned_bytes(const FilePlan& plan, ByteSpan current);

}  // namespace skivet

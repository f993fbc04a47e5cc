#pragma once
// What a container wants written. Nothing here touches a disk; delivery does.
#include "base/content.h"
#include "base/file_view.h"

namespace skivet {

enum class Way {
    nothing,
    in_place,  ///< over bytes that are there
    append,    ///< the file grows; what was moved leaves dead space behind
    rebuild,   ///< a new file beside the old one, which it then replaces
    create,    ///< a file that was not there
    remove,    ///< a file that is taken away
};
[[nodiscard]] std::string_view name_of(Way way);

struct WriteRange {
    std::uint64_t at = 0;  ///< byte position in the file
    Content bytes;
    std::uint64_t was = 0;  ///< hash of what lies there as the plan is made; set by `finish_plan`
};

/// A stretch of a rebuilt file: `size` bytes of the old file (of `origin`, for a new one) from `from` on, or `bytes` when it has any.
struct PlanPiece {
    std::uint64_t from = 0;
    std::uint64_t size = 0;
    Content bytes;
    [[nodiscard]] bool is_copy() const { return bytes.empty(); }
    [[nodiscard]] std::uint64_t length() const { return is_copy() ? size : bytes.size(); }
};

/// The change to one file: bytes at positions and the size the file has afterwards, or the pieces of a new one.
struct FilePlan {
    std::filesystem::path file;
    FileStamp expected;  ///< the file as it was when the plan was made; all zero for `create`
    std::uint64_t new_size = 0;
    std::vector<WriteRange> ranges;  ///< sorted, not overlapping; in place, append, create. None for `remove`
    std::vector<PlanPiece> pieces;   ///< rebuild, and create with an origin: the new file from its beginning to its end
    Way way = Way::nothing;
    std::uint64_t sample = 0;  ///< sampled hash of the file (of `origin`, where there is one) as the plan is made (`sample_of`)
    FilePart origin = {};      ///< create: the file that pieces are copied from, which stays as it is; no path: there is none

    /// Bytes that are new; what a rebuild copies from the old file is not counted.
    [[nodiscard]] std::uint64_t bytes_new() const;
    /// Bytes that are written: for a rebuild the whole new file.
    [[nodiscard]] std::uint64_t bytes_written() const;
    [[nodiscard]] bool empty() const {
        return way != Way::create && way != Way::remove && ranges.empty() && pieces.empty() && new_size == expected.size;
    }
};

struct WritePlan {
    std::vector<FilePlan> files;
    [[nodiscard]] std::uint64_t bytes_written() const;
    [[nodiscard]] bool empty() const { return files.empty(); }
    /// The way that touches most: remove, create, rebuild, append, in place.
    [[nodiscard]] Way way() const;
    void add(WritePlan other);
};

/// Hash of the size and of a few pages spread over the file, to notice a change that kept size and time.
[[nodiscard]] std::uint64_t sample_of(ByteSpan file);
/// Hash of a range's bytes, as WriteRange::was has it.
[[nodiscard]] std::uint64_t range_hash(ByteSpan bytes);

/// Ranges that follow one another in a file, of about a megabyte each: what is written behind an archive does not lie in memory whole.
class RangeWriter {
public:
    /// From `at` on, into `out`.
    RangeWriter(std::vector<WriteRange>& out, std::uint64_t at) : out_(out), at_(at) {}
    void put(ByteSpan bytes);
    /// Shares it when it is large.
    void put_content(const Content& content);
    void fill(std::uint64_t count, std::byte value);
    /// Where the next byte goes.
    [[nodiscard]] std::uint64_t at() const { return at_ + waiting_.size(); }
    /// The rest; to be called at the end.
    void finish();

private:
    std::vector<WriteRange>& out_;
    std::uint64_t at_;  ///< of what waits
    Bytes waiting_;
};

/// Where new bytes end up in the new file: position and size. For a rebuild what is not copied.
[[nodiscard]] std::vector<std::pair<std::uint64_t, std::uint64_t>> written_ranges(const FilePlan& plan);

/// Bytes of the old file that the vault has to keep for the way back.
[[nodiscard]] std::uint64_t kept_bytes(const FilePlan& plan);

/// Sorts the ranges and cuts them down to the bytes that really differ from `current`. Equal runs shorter than `gap` bytes stay
/// inside a range: two writes cost more than a few bytes.
void minimize(FilePlan& plan, ByteSpan current, std::size_t gap = 32);
/// Joins pieces that follow one another in the old file, and finds what a rebuilt file has in common with the old one at its
/// beginning when it is all new bytes.
void join_pieces(FilePlan& plan);

/// A container's plan for its file, ready to be delivered: minimal ranges, hashes to recognize the file by, and, for an archive cut
/// into parts, one plan for each part that changes.
[[nodiscard]] Result<WritePlan> finish_plan(const FileView& view, FilePlan plan);

/// The plan for giving a loose file other content: over its own bytes, growing or shrinking.
[[nodiscard]] Result<WritePlan> plan_whole_file(const FileView& view, Content content);

/// The plan for a loose file that is not there yet.
[[nodiscard]] WritePlan plan_new_file(const std::filesystem::path& file, Content content);
/// The plan for taking a loose file away: all of its parts, where it was cut.
[[nodiscard]] Result<WritePlan> plan_no_file(const FileView& view);

/// The file's bytes after the plan, for archives inside archives.
[[nodiscard]] Result<Bytes> planned_bytes(const FilePlan& plan, ByteSpan current);

}  // namespace skivet

#pragma once
// A container lists entries, reads them and plans how to replace them. It never writes a file.
#include "base/limits.h"
#include "base/progress.h"
#include "container/write_plan.h"

namespace skivet {

struct Entry {
    std::string path;             ///< UTF-8, separated by '/'
    std::uint64_t size = 0;       ///< bytes, unpacked
    std::uint64_t stored = 0;     ///< bytes in the archive
    std::string_view method;      ///< "stored", "deflate", or the name of one we cannot read
    std::uint64_t at = 0;         ///< where the entry begins in the file (its local header, where it has one)
};

struct Replacement {
    std::size_t entry = 0;        ///< index into entries()
    Bytes bytes;                  ///< unpacked
};

/// A stretch of an archive, for the byte map.
struct Segment {
    enum class What { table, entry, gap } what = What::gap;
    std::uint64_t at = 0;
    std::uint64_t size = 0;
    std::size_t entry = 0;        ///< index into entries(), for What::entry
};

class Container {
public:
    virtual ~Container() = default;
    [[nodiscard]] virtual std::string kind() const = 0;
    /// How it was recognized, in words.
    [[nodiscard]] const std::string& recognized_by() const { return recognized_by_; }
    [[nodiscard]] const std::vector<Entry>& entries() const { return entries_; }
    /// Index of the entry with this path; the last one when a path occurs twice, as most readers take it.
    [[nodiscard]] std::optional<std::size_t> find(std::string_view path) const;
    /// Unpacked and checked against its checksum.
    [[nodiscard]] virtual Result<Bytes> read(std::size_t entry, const ReadLimits& limits) const = 0;
    /// The first `count` bytes or fewer, not checked.
    [[nodiscard]] virtual Result<Bytes> read_head(std::size_t entry, std::size_t count) const = 0;
    /// The plan for replacing entries. Replacing an entry by the bytes it has plans nothing.
    [[nodiscard]] virtual Result<WritePlan> plan(std::span<const Replacement> replacements, const ReadLimits& limits) const = 0;
    /// What lies where, in file order; empty for a folder.
    [[nodiscard]] virtual std::vector<Segment> segments() const { return {}; }

protected:
    std::vector<Entry> entries_;
    std::string recognized_by_;
};

/// Fills the space between `used` segments (any order) with gaps up to `file_size`; overlapping ones are cut.
[[nodiscard]] std::vector<Segment> with_gaps(std::vector<Segment> used, std::uint64_t file_size);

/// The error with the entry's path in front.
[[nodiscard]] Error in_entry(const Container& container, std::size_t entry, Error error);

}  // namespace skivet

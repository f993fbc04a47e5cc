#pragma once
// Archives without a table: the header, name and content of one entry behind the other, as they are (tar, cpio).
#include "container/container.h"

namespace skivet {

/// Stretches of a file that get other content, in any order; they do not overlap. Where each keeps its size they are written over their
/// places; where only a small part at the end has to move, it is written over itself; otherwise a new file is made, in which
/// everything else is copied.
class Stretches {
public:
    /// `size` bytes from `at` on become `bytes`: none take them out, and a `size` of 0 puts bytes in between.
    void put(std::uint64_t at, std::uint64_t size, Content bytes);
    /// Entries that come behind the last one, which ends at `at`, padding included that the file may end without. An archive ends with
    /// `mark` and zeros up to a whole number of records of `record` bytes; where it does, those zeros become the room for them.
    void put_last(std::uint64_t at, Bytes entries, ByteSpan mark, std::uint64_t record);
    [[nodiscard]] Result<WritePlan> plan(const FileView& view) &&;

private:
    struct Stretch {
        std::uint64_t at, size;
        Content bytes;
    };
    std::vector<Stretch> all_;
    bool moved_ = false;  ///< one of them has another size than it had
    Bytes last_;
    std::uint64_t last_at_ = 0, record_ = 1;
    ByteSpan mark_;
};

/// `content` with zeros behind it, up to a multiple of `unit` bytes.
[[nodiscard]] Content padded(const Content& content, std::uint64_t unit);

class MemberArchive : public Container {
public:
    std::string fixed_entries() const override { return read_only(); }
    Result<WritePlan> plan(std::span<const Replacement> replacements, const ReadLimits& limits) const override;
    std::vector<Segment> segments() const override;

protected:
    /// Where an entry's content lies; what belongs to the entry begins at Entry::at.
    struct Place {
        std::uint64_t data_at = 0;
        std::uint64_t size = 0;  ///< bytes
        std::uint64_t end = 0;   ///< behind what belongs to the entry, padding included
    };
    explicit MemberArchive(FileView file) : file_(std::move(file)) {}
    [[nodiscard]] Result<ByteSpan> bytes_of(std::size_t entry) const;
    /// Error `unsupported` for an entry that is to go or to be named anew: others are hard links to it.
    [[nodiscard]] tl::unexpected<Error> is_linked(std::size_t entry) const;

    Result<Bytes> unpack_entry(std::size_t entry, const ReadLimits& limits) const override;
    Result<Bytes> head_of_entry(std::size_t entry, std::size_t count) const override;
    Result<FileView> view_of_entry(std::size_t entry, const ReadLimits& limits) const override;

    FileView file_;
    std::vector<Place> places_;  ///< of each entry
    std::uint64_t end_ = 0;      ///< behind the last entry and what pads it, which a file may end without
};

}  // namespace skivet

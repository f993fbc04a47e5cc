#pragma once
// A file mapped for reading. Archives are never read whole: pages come in as they are touched.
#include <filesystem>

#include "base/bytes.h"

namespace skivet {

/// What tells one state of a file from another without reading it.
struct FileStamp {
    std::uint64_t size = 0;
    std::int64_t modified_ns = 0;
    std::uint64_t inode = 0;
    bool operator==(const FileStamp&) const = default;
};

[[nodiscard]] Result<FileStamp> stamp_of(const std::filesystem::path& path);

/// One file of an archive that is cut into several.
struct FilePart {
    std::filesystem::path path;
    FileStamp stamp;
};

/// Bytes that lie over a file's own.
struct Overlay {
    std::uint64_t at = 0;
    ByteSpan bytes;
};

/// A read-only memory map; copies share it.
///
/// Another program may cut the file off at any time, and touching a page that went with it is a fault (SIGBUS) that ends a process. Reading
/// through `pread` instead would copy every byte of every archive once more and take the views of archives inside archives away, so the
/// map is guarded: the file's size is looked at before each `bytes`, and where a fault comes all the same, its pages become zeros, the view
/// is broken from then on, and `breaks` counts. Whoever reads from a view asks for one of the two afterwards (`unless_broken` does it).
class FileView {
public:
    [[nodiscard]] static Result<FileView> open(const std::filesystem::path& path);
    /// Files that are one archive cut into parts, in order. They are mapped one behind the other; when a part that is not the last
    /// one has no whole number of pages, they are read into memory instead, and more than `limit` bytes are an error `limit`.
    [[nodiscard]] static Result<FileView> join(const std::vector<std::filesystem::path>& parts, std::uint64_t limit);
    /// Bytes that are already in memory, e.g. an archive inside an archive.
    [[nodiscard]] static FileView of(Bytes bytes, std::filesystem::path name = {});
    /// Bytes that stand for files as they were: like `join` of them, but from memory. At least one part; their sizes make up the whole.
    [[nodiscard]] static FileView of(Bytes bytes, std::vector<FilePart> parts);
    /// Bytes that somebody else keeps while the view lives.
    [[nodiscard]] static FileView over(ByteSpan bytes, std::filesystem::path name = {});

    [[nodiscard]] const std::filesystem::path& path() const;
    [[nodiscard]] std::uint64_t size() const;
    [[nodiscard]] const FileStamp& stamp() const;
    [[nodiscard]] bool in_memory() const;
    /// The files behind it, or that it stands for: one, several when joined, none of bytes that are no file.
    [[nodiscard]] const std::vector<FilePart>& parts() const;
    /// The file with other bytes over its own and another size, as if they had been written; only the pages they touch take memory.
    /// Only for one file, not for joined parts.
    [[nodiscard]] Result<FileView> with(std::span<const Overlay> over, std::uint64_t new_size) const;
    /// Part of this view as a view of its own that shares its memory, for an archive stored inside an archive.
    [[nodiscard]] Result<FileView> part(std::uint64_t offset, std::uint64_t size, std::filesystem::path name) const;
    /// How many maps broke so far in this process; another number than before means that what was read since may be zeros.
    [[nodiscard]] static std::uint64_t breaks();
    /// The whole file. Error `stale` when a file behind it is no longer as large as when it was opened, or a page could not be read.
    [[nodiscard]] Result<ByteSpan> bytes() const;
    /// Whether what was read from it so far was there: the error that `bytes` would give now.
    [[nodiscard]] Status intact() const;
    /// Says that about so many bytes were read and are done with. Each 32 MB the pages they lie in are given back to the system, so that
    /// reading through an archive does not hold all of it; bytes somebody still looks at come in again by themselves.
    void note_read(std::uint64_t bytes) const;
    /// [offset, offset + size).
    [[nodiscard]] Result<ByteSpan> bytes(std::uint64_t offset, std::uint64_t size) const;

private:
    struct Map;
    std::shared_ptr<const Map> map_;
};

/// Does something that reads from views, and again when a map broke meanwhile: what belongs to the broken one then has its error, and
/// everything else is right.
template <typename Read>
[[nodiscard]] auto unless_broken(const Read& read) {
    for (int again = 0;; ++again) {
        const auto before = FileView::breaks();
        auto result = read();
        if (FileView::breaks() == before || again == 8) return result;
    }
}

}  // namespace skivet

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

/// A read-only memory map; copies share it. The map is checked against the file before each `bytes`, because touching a page
/// that another program cut off would end the process.
class FileView {
public:
    [[nodiscard]] static Result<FileView> open(const std::filesystem::path& path);
    /// Bytes that are already in memory, e.g. an archive inside an archive.
    [[nodiscard]] static FileView of(Bytes bytes, std::filesystem::path name = {});

    [[nodiscard]] const std::filesystem::path& path() const;
    [[nodiscard]] std::uint64_t size() const;
    [[nodiscard]] const FileStamp& stamp() const;
    [[nodiscard]] bool in_memory() const;
    /// The whole file. Error `stale` when it is no longer as large as when it was opened.
    [[nodiscard]] Result<ByteSpan> bytes() const;
    /// [offset, offset + size).
    [[nodiscard]] Result<ByteSpan> bytes(std::uint64_t offset, std::uint64_t size) const;

private:
    struct Map;
    std::shared_ptr<const Map> map_;
};

}  // namespace skivet

#pragma once
// The few file operations delivery is made of, behind an interface so that tests can let any of them fail or lose power.
#include <filesystem>

#include "base/bytes.h"
#include "base/file_lock.h"

namespace skivet {

class Files {
public:
    virtual ~Files() = default;
    /// Exactly `size` bytes at `at`; fewer is an error.
    [[nodiscard]] virtual Result<Bytes> read(const std::filesystem::path& file, std::uint64_t at, std::uint64_t size) = 0;
    [[nodiscard]] virtual Result<std::uint64_t> size(const std::filesystem::path& file) = 0;
    /// Over existing bytes or behind the end of an existing file.
    [[nodiscard]] virtual Status write(const std::filesystem::path& file, std::uint64_t at, ByteSpan data) = 0;
    [[nodiscard]] virtual Status resize(const std::filesystem::path& file, std::uint64_t size) = 0;
    /// A new file. Error `io` when there is something at the path, a link included: nothing that is not ours is written over.
    [[nodiscard]] virtual Status create(const std::filesystem::path& file, ByteSpan data) = 0;
    /// A new empty file with the mode and, where we may, the owner of `like`. Nothing may be at the path.
    [[nodiscard]] virtual Status create_like(const std::filesystem::path& file, const std::filesystem::path& like) = 0;
    /// Makes a file's bytes and size durable.
    [[nodiscard]] virtual Status sync(const std::filesystem::path& file) = 0;
    /// Makes creations, renames and removals in a folder durable.
    [[nodiscard]] virtual Status sync_folder(const std::filesystem::path& folder) = 0;
    [[nodiscard]] virtual Status rename(const std::filesystem::path& from, const std::filesystem::path& to) = 0;
    [[nodiscard]] virtual Status remove(const std::filesystem::path& file) = 0;
    /// A file's permissions, as chmod has them.
    [[nodiscard]] virtual Status set_mode(const std::filesystem::path& file, std::uint32_t mode) = 0;
    /// Copies `size` bytes into an existing file, at `to_at`, without passing them through us where the system can (a shared extent on
    /// file systems that have them).
    [[nodiscard]] virtual Status copy(const std::filesystem::path& from, std::uint64_t from_at, const std::filesystem::path& to,
                                      std::uint64_t to_at, std::uint64_t size) = 0;
    /// A new folder (its parent exists), or one that is there already.
    [[nodiscard]] virtual Status make_folder(const std::filesystem::path& folder) = 0;
    /// An empty folder.
    [[nodiscard]] virtual Status remove_folder(const std::filesystem::path& folder) = 0;
};

class PosixFiles : public Files {
public:
    Result<Bytes> read(const std::filesystem::path& file, std::uint64_t at, std::uint64_t size) override;
    Result<std::uint64_t> size(const std::filesystem::path& file) override;
    Status write(const std::filesystem::path& file, std::uint64_t at, ByteSpan data) override;
    Status resize(const std::filesystem::path& file, std::uint64_t size) override;
    Status create(const std::filesystem::path& file, ByteSpan data) override;
    Status create_like(const std::filesystem::path& file, const std::filesystem::path& like) override;
    Status sync(const std::filesystem::path& file) override;
    Status sync_folder(const std::filesystem::path& folder) override;
    Status rename(const std::filesystem::path& from, const std::filesystem::path& to) override;
    Status remove(const std::filesystem::path& file) override;
    Status set_mode(const std::filesystem::path& file, std::uint32_t mode) override;
    Status copy(const std::filesystem::path& from, std::uint64_t from_at, const std::filesystem::path& to, std::uint64_t to_at,
                std::uint64_t size) override;
    Status make_folder(const std::filesystem::path& folder) override;
    Status remove_folder(const std::filesystem::path& folder) override;
};

}  // namespace skivet

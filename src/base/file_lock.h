#pragma once
#include <chrono>
#include <filesystem>
#include <string>
#include <utility>

#include "base/result.h"

namespace skivet {

/// An exclusive advisory lock (flock) on a file for as long as the object lives; the system releases it when the process dies.
class FileLock {
public:
    /// Error `busy` when another process holds it.
    [[nodiscard]] static Result<FileLock> take(const std::filesystem::path& file, bool create = false);
    /// The same, but tries for so long: another program may be just done with it. Makes the file.
    [[nodiscard]] static Result<FileLock> take_within(const std::filesystem::path& file, std::chrono::milliseconds patience);
    /// Writes a text into the file for others to read while it is held.
    void note(const std::string& text) const;
    FileLock(FileLock&& other) noexcept : descriptor_(std::exchange(other.descriptor_, -1)) {}
    FileLock& operator=(FileLock&& other) noexcept {
        std::swap(descriptor_, other.descriptor_);
        return *this;
    }
    ~FileLock();

private:
    explicit FileLock(int descriptor) : descriptor_(descriptor) {}
    int descriptor_ = -1;
};

}  // namespace skivet

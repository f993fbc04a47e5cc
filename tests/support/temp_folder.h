#pragma once
#include <filesystem>

#include "base/bytes.h"

namespace skivet::test {

/// A folder that is removed with all it holds.
class TempFolder {
public:
    TempFolder();
    ~TempFolder();
    TempFolder(const TempFolder&) = delete;
    TempFolder& operator=(const TempFolder&) = delete;
    [[nodiscard]] const std::filesystem::path& path() const { return path_; }
    [[nodiscard]] std::filesystem::path operator/(const std::string& name) const { return path_ / name; }

private:
    std::filesystem::path path_;
};

void put_file(const std::filesystem::path& path, ByteSpan data);
[[nodiscard]] Bytes get_file(const std::filesystem::path& path);
[[nodiscard]] std::string hash_of_file(const std::filesystem::path& path);
[[nodiscard]] inline Bytes bytes_of(std::string_view text) { return {as_bytes(text).begin(), as_bytes(text).end()}; }

}  // namespace skivet::test

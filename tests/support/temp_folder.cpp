#include "support/temp_folder.h"

#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <string>

#include "base/hash.h"

namespace skivet::test {

TempFolder::TempFolder() {
    std::string name = (std::filesystem::temp_directory_path() / "skivet-test-XXXXXX").string();
    path_ = ::mkdtemp(name.data());
}

TempFolder::~TempFolder() {
    std::error_code code;
    std::filesystem::remove_all(path_, code);
}

void put_file(const std::filesystem::path& path, ByteSpan data) {
    std::filesystem::create_directories(path.parent_path());
    std::ofstream out(path, std::ios::binary | std::ios::trunc);
    out.write(reinterpret_cast<const char*>(data.data()), static_cast<std::streamsize>(data.size()));
}

Bytes get_file(const std::filesystem::path& path) {
    std::ifstream in(path, std::ios::binary);
    const std::string text((std::istreambuf_iterator<char>(in)), std::istreambuf_iterator<char>());
    return bytes_of(text);
}

std::string hash_of_file(const std::filesystem::path& path) { return to_hex(sha256(get_file(path))); }

}  // namespace skivet::test

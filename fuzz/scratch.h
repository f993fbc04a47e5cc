#pragma once
// A folder in memory for readers that take a file; it goes with the process.
#include <unistd.h>
#include <cstdlib>
#include <filesystem>
#include <fstream>

#include "base/bytes.h"

namespace skivet::fuzz {

inline const std::filesystem::path& scratch_folder() {
    static const auto place = [] {
        auto path = std::filesystem::path(std::filesystem::exists("/dev/shm") ? "/dev/shm" : "/tmp") /
                    ("skivet-fuzz-" + std::to_string(::getpid()));
        std::filesystem::create_directories(path);
        return path;
    }();
    static const int registered = std::atexit([] {
        std::error_code code;
        std::filesystem::remove_all(place, code);
    });
    (void)registered;
    return place;
}

inline void write(const std::filesystem::path& file, ByteSpan bytes) {
    std::ofstream(file, std::ios::binary).write(reinterpret_cast<const char*>(bytes.data()), static_cast<std::streamsize>(bytes.size()));
}

}  // namespace skivet::fuzz

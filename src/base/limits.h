#pragma once
#include <cstdint>

namespace skivet {

/// What a file may claim before we refuse it. The defaults are generous: no real game comes near.
struct ReadLimits {
    std::uint64_t entries = 4'000'000;           ///< directory entries in one container
    unsigned depth = 8;                          ///< containers inside containers
    std::uint64_t inflated_bytes = 2ull << 30;   ///< one entry, unpacked
    std::uint64_t ratio = 1100;                  ///< unpacked / packed; deflate cannot exceed 1032:1
    std::uint32_t image_side = 16384;            ///< texels
    std::uint64_t image_texels = 1ull << 28;     ///< texels of one decoded level
    std::uint32_t layers = 4096;                 ///< array layers × faces
    std::uint64_t name_bytes = 4096;             ///< one entry's path
    std::uint64_t directory_bytes = 1ull << 30;  ///< one container's tables
};

}  // namespace skivet

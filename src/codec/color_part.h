#pragma once
// The grid and the palette of the color part of BC1 to BC3.
#include <array>
#include <cstdint>

namespace skivet::color_part {

/// Bit replication, as the decoders of the graphics APIs do it (Khronos Data Format Specification 1.3, section 18.1).
constexpr int expand5(int step) { return step << 3 | step >> 2; }
constexpr int expand6(int step) { return step << 2 | step >> 4; }

struct Endpoint {
    std::array<int, 3> rgb;  ///< 0…255
};
constexpr Endpoint unpack(std::uint16_t v) { return {{expand5(v >> 11), expand6(v >> 5 & 63), expand5(v & 31)}}; }

}  // namespace skivet::color_part

#pragma once
// The fourteen modes of BC6H. Khronos Data Format Specification 1.3, section 20.2; ARB_texture_compression_bptc, table "block formats".
#include <array>
#include <cstdint>
#include <string_view>
#include <vector>

namespace skivet::bc6h {

struct Mode {
    std::uint8_t code, code_bits;
    bool two_regions, deltas;
    std::uint8_t endpoint_bits;
    std::array<std::uint8_t, 3> delta_bits;  ///< R, G, B
    /// Fields behind the mode in the order of their bits: channel, endpoint (w x y z), first and last bit. "rw0-9", "gy4"; "rw11-10" runs
    /// down.
    std::string_view fields;
};

// clang-format off
inline constexpr std::array<Mode, 14> modes = {{
    {0x00, 2, true, true, 10, {5, 5, 5}, "gy4 by4 bz4 rw0-9 gw0-9 bw0-9 rx0-4 gz4 gy0-3 gx0-4 bz0 gz0-3 bx0-4 bz1 by0-3 ry0-4 bz2 rz0-4 bz3"},
    {0x01, 2, true, true, 7, {6, 6, 6}, "gy5 gz4 gz5 rw0-6 bz0 bz1 by4 gw0-6 by5 bz2 gy4 bw0-6 bz3 bz5 bz4 rx0-5 gy0-3 gx0-5 gz0-3 bx0-5 by0-3 ry0-5 rz0-5"},
    {0x02, 5, true, true, 11, {5, 4, 4}, "rw0-9 gw0-9 bw0-9 rx0-4 rw10 gy0-3 gx0-3 gw10 bz0 gz0-3 bx0-3 bw10 bz1 by0-3 ry0-4 bz2 rz0-4 bz3"},
    {0x06, 5, true, true, 11, {4, 5, 4}, "rw0-9 gw0-9 bw0-9 rx0-3 rw10 gz4 gy0-3 gx0-4 gw10 gz0-3 bx0-3 bw10 bz1 by0-3 ry0-3 bz0 bz2 rz0-3 gy4 bz3"},
    {0x0A, 5, true, true, 11, {4, 4, 5}, "rw0-9 gw0-9 bw0-9 rx0-3 rw10 by4 gy0-3 gx0-3 gw10 bz0 gz0-3 bx0-4 bw10 by0-3 ry0-3 bz1 bz2 rz0-3 bz4 bz3"},
    {0x0E, 5, true, true, 9, {5, 5, 5}, "rw0-8 by4 gw0-8 gy4 bw0-8 bz4 rx0-4 gz4 gy0-3 gx0-4 bz0 gz0-3 bx0-4 bz1 by0-3 ry0-4 bz2 rz0-4 bz3"},
    {0x12, 5, true, true, 8, {6, 5, 5}, "rw0-7 gz4 by4 gw0-7 bz2 gy4 bw0-7 bz3 bz4 rx0-5 gy0-3 gx0-4 bz0 gz0-3 bx0-4 bz1 by0-3 ry0-5 rz0-5"},
    {0x16, 5, true, true, 8, {5, 6, 5}, "rw0-7 bz0 by4 gw0-7 gy5 gy4 bw0-7 gz5 bz4 rx0-4 gz4 gy0-3 gx0-5 gz0-3 bx0-4 bz1 by0-3 ry0-4 bz2 rz0-4 bz3"},
    {0x1A, 5, true, true, 8, {5, 5, 6}, "rw0-7 bz1 by4 gw0-7 by5 gy4 bw0-7 bz5 bz4 rx0-4 gz4 gy0-3 gx0-4 bz0 gz0-3 bx0-5 by0-3 ry0-4 bz2 rz0-4 bz3"},
    {0x1E, 5, true, false, 6, {6, 6, 6}, "rw0-5 gz4 bz0 bz1 by4 gw0-5 gy5 by5 bz2 gy4 bw0-5 gz5 bz3 bz5 bz4 rx0-5 gy0-3 gx0-5 gz0-3 bx0-5 by0-3 ry0-5 rz0-5"},
    {0x03, 5, false, false, 10, {10, 10, 10}, "rw0-9 gw0-9 bw0-9 rx0-9 gx0-9 bx0-9"},
    {0x07, 5, false, true, 11, {9, 9, 9}, "rw0-9 gw0-9 bw0-9 rx0-8 rw10 gx0-8 gw10 bx0-8 bw10"},
    {0x0B, 5, false, true, 12, {8, 8, 8}, "rw0-9 gw0-9 bw0-9 rx0-7 rw11-10 gx0-7 gw11-10 bx0-7 bw11-10"},
    {0x0F, 5, false, true, 16, {4, 4, 4}, "rw0-9 gw0-9 bw0-9 rx0-3 rw15-10 gx0-3 gw15-10 bx0-3 bw15-10"},
}};
// clang-format on

/// One bit behind the mode: which bit of which endpoint's channel.
struct BitPlace {
    std::uint8_t endpoint, channel, bit;
};
/// The places of a mode's endpoint bits, in the order of the block's bits.
[[nodiscard]] const std::vector<BitPlace>& places(std::size_t mode);
/// Index into modes by the block's five lowest bits; -1 for the reserved codes.
[[nodiscard]] int mode_of(unsigned low_bits);

/// From a quantized endpoint to the 17-bit scale on which interpolation happens.
[[nodiscard]] int unquantize(int value, unsigned bits, bool is_signed);
/// From that scale to the bits of a half.
[[nodiscard]] std::uint16_t finish(int value, bool is_signed);

}  // namespace skivet::bc6h

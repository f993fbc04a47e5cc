// Decoding the 8-byte single-channel part of BC3 (alpha), BC4 and BC5: two 8-bit endpoints and sixteen 3-bit indices.
// first > second: eight values on the line between them. Otherwise: six values, plus the lowest and the highest there are.
// In 8 bits interpolated values are cut off, not rounded: that is what libsquish, ffmpeg and Mesa's softpipe agree on, to the bit.
#include "codec/blocks.h"

namespace skivet {
namespace {

struct Line {
    std::array<int, 8> sum{};  ///< value × divisor
    int divisor = 1;
};

Line make_line(int a, int b, bool eight, int lowest, int highest) {
    Line line;
    line.divisor = eight ? 7 : 5;
    line.sum[0] = a * line.divisor;
    line.sum[1] = b * line.divisor;
    const int steps = line.divisor;
    for (int k = 1; k < steps; ++k) line.sum[static_cast<std::size_t>(k) + 1] = (steps - k) * a + k * b;
    if (!eight) line.sum[6] = lowest * 5, line.sum[7] = highest * 5;
    return line;
}

Line line_of(const std::byte* bytes, bool is_signed) {
    if (!is_signed) {
        const auto a = static_cast<int>(bytes[0]), b = static_cast<int>(bytes[1]);
        return make_line(a, b, a > b, 0, 255);
    }
    const int a = static_cast<std::int8_t>(bytes[0]), b = static_cast<std::int8_t>(bytes[1]);
    return make_line(std::max(a, -127), std::max(b, -127), a > b, -127, 127);
}

std::uint64_t indices_of(const std::byte* bytes) { return load_le<std::uint64_t>(bytes) >> 16; }

}  // namespace

void decode_channel_part(const std::byte* bytes, Texel* out, std::size_t pitch, std::size_t channel, bool is_signed) {
    const auto line = line_of(bytes, is_signed);
    std::array<std::uint8_t, 8> value;
    for (std::size_t k = 0; k < 8; ++k) value[k] = static_cast<std::uint8_t>(line.sum[k] / line.divisor + (is_signed ? 128 : 0));
    auto indices = indices_of(bytes);
    for (std::size_t y = 0; y < 4; ++y)
        for (std::size_t x = 0; x < 4; ++x, indices >>= 3) out[y * pitch + x][channel] = value[indices & 7];
}

void decode_channel_part_wide(const std::byte* bytes, TexelF* out, std::size_t pitch, std::size_t channel, bool is_signed) {
    const auto line = line_of(bytes, is_signed);
    auto indices = indices_of(bytes);
    const auto whole = static_cast<float>(line.divisor * (is_signed ? 127 : 255));
    for (std::size_t y = 0; y < 4; ++y)
        for (std::size_t x = 0; x < 4; ++x, indices >>= 3) out[y * pitch + x][channel] = static_cast<float>(line.sum[indices & 7]) / whole;
}

}  // namespace skivet

// Decoding the 8-byte color part of BC1, BC2 and BC3: two 5:6:5 endpoints and sixteen 2-bit indices.
// Interpolated values are cut off, not rounded: that is what Mesa's softpipe, ffmpeg and libsquish agree on, to the bit.
#include "codec/color_part.h"
#include "codec/blocks.h"

namespace skivet {

void decode_color_part(const std::byte* bytes, Texel* out, std::size_t pitch, bool four_colors) {
    const auto first = load_le<std::uint16_t>(bytes), second = load_le<std::uint16_t>(bytes + 2);
    const bool four = four_colors || first > second;
    const auto a = color_part::unpack(first), b = color_part::unpack(second);
    std::array<Texel, 4> palette;
    for (std::size_t c = 0; c < 3; ++c) {
        const auto x = static_cast<unsigned>(a.rgb[c]), y = static_cast<unsigned>(b.rgb[c]);
        palette[0][c] = static_cast<std::uint8_t>(x);
        palette[1][c] = static_cast<std::uint8_t>(y);
        palette[2][c] = static_cast<std::uint8_t>(four ? (2 * x + y) / 3 : (x + y) / 2);
        palette[3][c] = static_cast<std::uint8_t>(four ? (x + 2 * y) / 3 : 0);
    }
    for (auto& t : palette) t[3] = 255;
    if (!four) palette[3][3] = 0;
    const auto indices = load_le<std::uint32_t>(bytes + 4);
    for (std::size_t y = 0; y < 4; ++y) {
        const auto row = indices >> (8 * y);
        Texel* texel = out + y * pitch;
        texel[0] = palette[row & 3];
        texel[1] = palette[row >> 2 & 3];
        texel[2] = palette[row >> 4 & 3];
        texel[3] = palette[row >> 6 & 3];
    }
}

}  // namespace skivet

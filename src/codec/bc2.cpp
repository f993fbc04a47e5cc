// BC2: sixteen 4-bit alphas, then a color part that always has four colors.
#include "codec/codec.h"

namespace skivet {

void decode_bc2(const std::byte* bytes, BlockTexels& out) {
    decode_color_part(bytes + 8, out, true);
    auto alpha = load_le<std::uint64_t>(bytes);
    for (auto& texel : out) {
        texel[3] = static_cast<std::uint8_t>((alpha & 15) * 17);
        alpha >>= 4;
    }
}

void encode_bc2(const BlockTexels& in, std::byte* bytes) {
    std::uint64_t alpha = 0;
    for (std::size_t i = 0; i < 16; ++i) alpha |= static_cast<std::uint64_t>((in[i][3] + 8) / 17) << (4 * i);
    store_le(bytes, alpha);
    encode_color_part(in, bytes + 8, false);
}

}  // namespace skivet

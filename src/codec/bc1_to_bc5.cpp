// BC1 to BC5 are put together from two parts: a color part and a single-channel part (Khronos Data Format Specification 1.3,
// chapters 18 and 19). BC2's alpha is sixteen plain 4-bit values.
#include "codec/blocks.h"

namespace skivet {
namespace {

void decode_bc1(const std::byte* bytes, Texel* out, std::size_t pitch) { decode_color_part(bytes, out, pitch, false); }

void decode_bc2(const std::byte* bytes, Texel* out, std::size_t pitch) {
    decode_color_part(bytes + 8, out, pitch, true);
    auto alpha = load_le<std::uint64_t>(bytes);
    for (std::size_t i = 0; i < 16; ++i, alpha >>= 4) out[i / 4 * pitch + i % 4][3] = static_cast<std::uint8_t>((alpha & 15) * 17);
}

void decode_bc3(const std::byte* bytes, Texel* out, std::size_t pitch) {
    decode_color_part(bytes + 8, out, pitch, true);
    decode_channel_part(bytes, out, pitch, 3, false);
}

template <bool is_signed, std::size_t channels>
void decode_channels(const std::byte* bytes, Texel* out, std::size_t pitch) {
    fill_block(out, pitch, Texel{0, 0, 0, 255});
    for (std::size_t c = 0; c < channels; ++c) decode_channel_part(bytes + c * 8, out, pitch, c, is_signed);
}

template <bool is_signed, std::size_t channels>
void decode_channels_wide(const std::byte* bytes, TexelF* out, std::size_t pitch) {
    fill_block(out, pitch, TexelF{0, 0, 0, 1});
    for (std::size_t c = 0; c < channels; ++c) decode_channel_part_wide(bytes + c * 8, out, pitch, c, is_signed);
}

/// Whole vectors first, then block by block.
template <int kind, std::size_t bytes, void (*one)(const std::byte*, Texel*, std::size_t)>
void decode_all(const std::byte* blocks, std::size_t count, Texel* out, std::size_t pitch) {
    const auto done = decode_whole_groups(kind, blocks, count, out, pitch);
    decode_each<bytes, Texel, one>(blocks + done * bytes, count - done, out + done * 4, pitch);
}

void encode_bc1(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    encode_color_parts(blocks, count, out, 8, true, options);
}

void encode_bc2(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    for (std::size_t i = 0; i < count; ++i) {
        std::uint64_t alpha = 0;
        for (std::size_t k = 0; k < 16; ++k) alpha |= static_cast<std::uint64_t>((blocks[i * 16 + k][3] + 8) / 17) << (4 * k);
        store_le(out + i * 16, alpha);
    }
    encode_color_parts(blocks, count, out + 8, 16, false, options);
}

void encode_bc3(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    encode_channel_parts(blocks, count, out, 16, 3, false, options);
    encode_color_parts(blocks, count, out + 8, 16, false, options);
}

template <bool is_signed, std::size_t channels>
void encode_channels(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    for (std::size_t c = 0; c < channels; ++c) encode_channel_parts(blocks, count, out + c * 8, channels * 8, c, is_signed, options);
}

template <bool is_signed, std::size_t channels>
constexpr BlockCodec channel_codec{
    decode_all<(is_signed ? -1 : 1) * static_cast<int>(channels + 3), channels * 8, decode_channels<is_signed, channels>>,
    decode_each<channels * 8, TexelF, decode_channels_wide<is_signed, channels>>, encode_channels<is_signed, channels>, nullptr};

}  // namespace

/// The larger color first, at byte `At` of a block: in BC1 that means four colors; in BC2 and BC3 it means nothing, but encoders keep it.
template <std::size_t At>
static bool larger_first(const std::byte* block) {
    return load_le<std::uint16_t>(block + At) >= load_le<std::uint16_t>(block + At + 2);
}

const BlockCodec bc1_codec{decode_all<1, 8, decode_bc1>, nullptr, encode_bc1, nullptr, larger_first<0>};
const BlockCodec bc2_codec{decode_all<2, 16, decode_bc2>, nullptr, encode_bc2, nullptr, larger_first<8>};
const BlockCodec bc3_codec{decode_all<3, 16, decode_bc3>, nullptr, encode_bc3, nullptr, larger_first<8>};
const BlockCodec bc4_codec = channel_codec<false, 1>;
const BlockCodec bc4_snorm_codec = channel_codec<true, 1>;
const BlockCodec bc5_codec = channel_codec<false, 2>;
const BlockCodec bc5_snorm_codec = channel_codec<true, 2>;

}  // namespace skivet

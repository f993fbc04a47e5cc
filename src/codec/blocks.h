#pragma once
// The block codecs, one file each, and what they share.
#include "codec/codec.h"

namespace skivet {

extern const BlockCodec bc1_codec, bc2_codec, bc3_codec, bc4_codec, bc4_snorm_codec, bc5_codec, bc5_snorm_codec, bc6h_codec,
    bc6h_sf16_codec, bc7_codec, etc1_codec, etc2_rgb_codec, etc2_rgba1_codec, etc2_rgba_codec, eac_r_codec, eac_r_snorm_codec, eac_rg_codec,
    eac_rg_snorm_codec;
/// The footprints in the order of the Format enumerators, low dynamic range first, then high.
extern const std::array<BlockCodec, 28> astc_codecs;

/// The 8-byte color part of BC1 to BC3, one block. `four_colors`: always four colors, as BC2 and BC3 have it.
void decode_color_part(const std::byte* bytes, Texel* out, std::size_t pitch, bool four_colors);
/// Color parts of `count` blocks, `stride` bytes from one to the next. `punch_through`: texels with alpha below 128 become transparent
/// (BC1); otherwise alpha is not looked at, but for options.alpha_is_transparency.
void encode_color_parts(const Texel* blocks, std::size_t count, std::byte* out, std::size_t stride, bool punch_through,
                        const EncodeOptions& options);

/// The 8-byte single-channel part of BC3 to BC5, written to `channel` of the texels. Signed values have 128 for zero.
void decode_channel_part(const std::byte* bytes, Texel* out, std::size_t pitch, std::size_t channel, bool is_signed);
/// The same with the full precision of the interpolation, 0…1 or -1…1.
void decode_channel_part_wide(const std::byte* bytes, TexelF* out, std::size_t pitch, std::size_t channel, bool is_signed);
void encode_channel_parts(const Texel* blocks, std::size_t count, std::byte* out, std::size_t stride, std::size_t channel, bool is_signed,
                          const EncodeOptions& options);

/// Decodes as many of the blocks of BC1 to BC5 (`kind` 1 to 5; -4 and -5: signed) as fill whole vectors, and says how many those are.
[[nodiscard]] std::size_t decode_whole_groups(int kind, const std::byte* blocks, std::size_t count, Texel* out, std::size_t pitch);

/// 4×4 texels with one value.
template <class T>
void fill_block(T* out, std::size_t pitch, const T& value) {
    for (std::size_t y = 0; y < 4; ++y)
        for (std::size_t x = 0; x < 4; ++x) out[y * pitch + x] = value;
}

/// Makes the many-blocks function out of one that decodes a block.
template <std::size_t bytes, class T, void (*one)(const std::byte*, T*, std::size_t)>
void decode_each(const std::byte* blocks, std::size_t count, T* out, std::size_t pitch) {
    for (std::size_t i = 0; i < count; ++i) one(blocks + i * bytes, out + i * 4, pitch);
}

/// Reads a block's fields from its lowest bit upwards; 128 bits at most.
class BitReader {
public:
    BitReader(std::uint64_t low, std::uint64_t high) : low_(low), high_(high) {}
    [[nodiscard]] std::uint32_t take(unsigned count) {
        const auto value = static_cast<std::uint32_t>(low_ & ((1ull << count) - 1));
        if (count > 0) low_ = low_ >> count | high_ << (64 - count);
        high_ >>= count;
        return value;
    }

private:
    std::uint64_t low_, high_;
};

/// Writes fields from the lowest bit upwards.
class BitWriter {
public:
    void put(std::uint64_t value, unsigned count) {
        if (at_ < 64) low_ |= value << at_;
        if (at_ + count > 64) high_ |= at_ >= 64 ? value << (at_ - 64) : value >> (64 - at_);
        at_ += count;
    }
    [[nodiscard]] unsigned position() const { return at_; }
    void store(std::byte* bytes) const {
        store_le(bytes, low_);
        store_le(bytes + 8, high_);
    }

private:
    std::uint64_t low_ = 0, high_ = 0;
    unsigned at_ = 0;
};

}  // namespace skivet

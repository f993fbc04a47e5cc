// BC7: eight modes of one to three subsets, each subset a line in color space. Khronos Data Format Specification 1.3, chapter 20.
#include <algorithm>
#include <bit>

#include "codec/bc7_encode.h"
#include "codec/bc7_tables.h"
#include "codec/blocks.h"

namespace skivet {
namespace {

void decode_bc7(const std::byte* bytes, Texel* out, std::size_t pitch) {
    const auto low = load_le<std::uint64_t>(bytes);
    const auto number = static_cast<unsigned>(std::countr_zero(static_cast<std::uint32_t>(low & 0xFF) | 0x100u));
    if (number == 8) return fill_block(out, pitch, Texel{0, 0, 0, 0});  // reserved: all zero, by the specification
    const auto& mode = bptc::modes[number];
    BitReader bits(low, load_le<std::uint64_t>(bytes + 8));
    (void)bits.take(number + 1);
    const auto partition = bits.take(mode.partition_bits);
    const auto rotation = bits.take(mode.rotation_bits);
    const auto selector = bits.take(mode.selector_bits);

    const unsigned ends = mode.subsets * 2;
    std::array<std::array<std::uint32_t, 4>, 6> end{};
    for (std::size_t c = 0; c < 3; ++c)
        for (std::size_t e = 0; e < ends; ++e) end[e][c] = bits.take(mode.color_bits);
    for (std::size_t e = 0; e < ends && mode.alpha_bits; ++e) end[e][3] = bits.take(mode.alpha_bits);
    unsigned color_bits = mode.color_bits, alpha_bits = mode.alpha_bits;
    if (mode.own_p_bits || mode.shared_p_bits) {
        std::array<std::uint32_t, 6> p{};
        for (std::size_t i = 0; i < (mode.own_p_bits ? ends : mode.subsets); ++i) p[i] = bits.take(1);
        for (std::size_t e = 0; e < ends; ++e)
            for (auto& value : end[e]) value = value << 1 | p[mode.own_p_bits ? e : e / 2];
        ++color_bits;
        if (alpha_bits) ++alpha_bits;
    }
    for (std::size_t e = 0; e < ends; ++e) {
        const auto expand = [](std::uint32_t value, unsigned n) {
            value <<= 8 - n;
            return value | value >> n;
        };
        for (std::size_t c = 0; c < 3; ++c) end[e][c] = expand(end[e][c], color_bits);
        end[e][3] = alpha_bits ? expand(end[e][3], alpha_bits) : 255;
    }

    const auto* subset_of = mode.subsets == 2   ? bptc::partitions2[partition].data()
                            : mode.subsets == 3 ? bptc::partitions3[partition].data()
                                                : nullptr;
    const auto is_anchor = [&](std::size_t i) {
        if (i == 0) return true;
        if (mode.subsets == 2) return i == bptc::anchor2[partition];
        return mode.subsets == 3 && (i == bptc::anchor3_second[partition] || i == bptc::anchor3_third[partition]);
    };
    std::array<std::uint8_t, 16> index{}, second{};
    for (std::size_t i = 0; i < 16; ++i) index[i] = static_cast<std::uint8_t>(bits.take(mode.index_bits - is_anchor(i)));
    for (std::size_t i = 0; i < 16 && mode.second_index_bits; ++i)
        second[i] = static_cast<std::uint8_t>(bits.take(mode.second_index_bits - (i == 0)));

    const auto* color_weights = bptc::weights(selector ? mode.second_index_bits : mode.index_bits);
    const auto* alpha_weights = bptc::weights(mode.second_index_bits && !selector ? mode.second_index_bits : mode.index_bits);
    for (std::size_t i = 0; i < 16; ++i) {
        const auto s = subset_of ? std::size_t{subset_of[i]} * 2 : 0;
        const std::uint32_t cw = color_weights[selector ? second[i] : index[i]];
        const std::uint32_t aw = alpha_weights[mode.second_index_bits && !selector ? second[i] : index[i]];
        Texel t;
        for (std::size_t c = 0; c < 4; ++c) {
            const auto w = c == 3 ? aw : cw;
            t[c] = static_cast<std::uint8_t>(((64 - w) * end[s][c] + w * end[s + 1][c] + 32) >> 6);
        }
        if (rotation) std::swap(t[3], t[rotation - 1]);
        out[i / 4 * pitch + i % 4] = t;
    }
}

}  // namespace

/// A block without a mode (Khronos Data Format Specification 1.3, section 20) is written by nobody.
static bool has_mode(const std::byte* block) { return block[0] != std::byte{0}; }

/// Where blocks of few colors do not tell, whether BC1 held them: then nothing is said, and exact values are worth looking for.
static HeldBlocks held_by_bc7_or_bc1(const Texel* blocks, std::size_t count) {
    const auto held = held_bc7(blocks, count);
    if (held.telling > 0) return held;
    Bytes bytes(8 * count);
    bc1_codec.encode(blocks, count, bytes.data(), {Effort::fast});  // which gives back what it held
    std::size_t exact = 0;
    for (std::size_t b = 0; b < count; ++b) {
        BlockTexels decoded;
        bc1_codec.decode(bytes.data() + 8 * b, 1, decoded.data(), 4);
        exact += std::equal(decoded.begin(), decoded.end(), blocks + 16 * b);
    }
    return 8 * exact >= 7 * count ? HeldBlocks{} : HeldBlocks{0, count};
}

const BlockCodec bc7_codec{decode_each<16, Texel, decode_bc7>, nullptr, encode_bc7, nullptr, has_mode, held_by_bc7_or_bc1};

}  // namespace skivet

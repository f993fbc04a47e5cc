#include "codec/bc7_pack.h"

#include <algorithm>

#include "codec/bc7_tables.h"
#include "codec/blocks.h"
#include "codec/weights.h"

namespace skivet::bptc {
namespace {

int expand(unsigned code, unsigned bits) {
    const unsigned value = code << (8 - bits);
    return static_cast<int>(bits < 8 ? value | value >> bits : value);
}

/// The nearest index: by projection, then the decoder's exact values around it. Channel `alpha` keeps 0 and 255 where it can.
unsigned nearest(const int* texel, const int* share, const int* a, const int* b, std::size_t channels, unsigned index_bits,
                 std::size_t alpha) {
    std::int64_t along = 0, size = 0;
    for (std::size_t c = 0; c < channels; ++c) {
        const auto length = std::int64_t{share[c]} * (b[c] - a[c]);
        along += length * (texel[c] - a[c]), size += length * (b[c] - a[c]);
    }
    const int top = (1 << index_bits) - 1;
    const int middle = size > 0 ? static_cast<int>(std::clamp<std::int64_t>((along * top * 2 + size) / (size * 2), 0, top)) : 0;
    const auto* w = weights(index_bits);
    std::int64_t best_error = std::int64_t{1} << 60;
    unsigned best = 0;
    for (int k = std::max(0, middle - 1); k <= std::min(top, middle + 1); ++k) {
        std::int64_t error = 0;
        for (std::size_t c = 0; c < channels; ++c) {
            const int value = ((64 - w[k]) * a[c] + w[k] * b[c] + 32) >> 6;
            const std::int64_t away = value - texel[c];
            error += share[c] * away * away;
            if (c == alpha && value != texel[c] && (texel[c] == 0 || texel[c] == 255)) error += std::int64_t{1} << 40;
        }
        if (error < best_error) best_error = error, best = static_cast<unsigned>(k);
    }
    return best;
}

}  // namespace

void pack(Choice choice, const Texel* texels, std::byte* out, const EncodeOptions& options) {
    const bool weighted = counts_by_channel(options);
    const auto& mode = modes[choice.mode];
    const unsigned p = mode.own_p_bits || mode.shared_p_bits ? 1 : 0;
    const unsigned color_bits = mode.color_bits + p, alpha_bits = mode.alpha_bits ? mode.alpha_bits + p : 0;
    const std::size_t ends = std::size_t{mode.subsets} * 2;
    std::array<std::array<int, 4>, 6> value{};
    for (std::size_t e = 0; e < ends; ++e)
        for (std::size_t c = 0; c < 4; ++c)
            value[e][c] = c < 3 ? expand(choice.code[e][c], color_bits) : alpha_bits ? expand(choice.code[e][c], alpha_bits) : 255;

    const bool separate = mode.second_index_bits > 0;
    const unsigned color_index_bits = separate && choice.selector ? mode.second_index_bits : mode.index_bits;
    const unsigned alpha_index_bits = separate ? (choice.selector ? mode.index_bits : mode.second_index_bits) : mode.index_bits;
    const auto* subset_of = mode.subsets == 2   ? partitions2[choice.partition].data()
                            : mode.subsets == 3 ? partitions3[choice.partition].data()
                                                : nullptr;
    std::array<unsigned, 16> color_index{}, alpha_index{};
    for (std::size_t i = 0; i < 16; ++i) {
        std::array<int, 4> t = {texels[i][0], texels[i][1], texels[i][2], texels[i][3]};
        std::array<int, 4> share = {1, 1, 1, 1};
        if (weighted) std::ranges::copy(channel_weights(options, texels[i]), share.begin());
        if (choice.rotation) std::swap(t[3], t[choice.rotation - 1]), std::swap(share[3], share[choice.rotation - 1]);
        const std::size_t s = subset_of ? subset_of[i] * 2u : 0u;
        color_index[i] = nearest(t.data(), share.data(), value[s].data(), value[s + 1].data(), separate || !alpha_bits ? 3 : 4,
                                 color_index_bits, choice.rotation ? choice.rotation - 1 : 3);
        if (separate) alpha_index[i] = nearest(&t[3], &share[3], &value[0][3], &value[1][3], 1, alpha_index_bits, choice.rotation ? 1 : 0);
    }

    const auto swap_channels = [&](std::size_t s, std::size_t from, std::size_t to) {
        for (std::size_t c = from; c < to; ++c) std::swap(choice.code[2 * s][c], choice.code[2 * s + 1][c]);
    };
    std::array<std::size_t, 3> anchor = {0, 0, 0};
    if (mode.subsets == 2) anchor[1] = anchor2[choice.partition];
    if (mode.subsets == 3) anchor[1] = anchor3_second[choice.partition], anchor[2] = anchor3_third[choice.partition];
    for (std::size_t s = 0; s < mode.subsets; ++s) {
        if (!(color_index[anchor[s]] >> (color_index_bits - 1))) continue;
        swap_channels(s, 0, separate ? 3 : 4);
        for (std::size_t i = 0; i < 16; ++i)
            if (!subset_of || subset_of[i] == s) color_index[i] = (1u << color_index_bits) - 1 - color_index[i];
    }
    if (separate && alpha_index[0] >> (alpha_index_bits - 1)) {
        swap_channels(0, 3, 4);
        for (auto& k : alpha_index) k = (1u << alpha_index_bits) - 1 - k;
    }

    BitWriter bits;
    bits.put(1u << choice.mode, choice.mode + 1);
    bits.put(choice.partition, mode.partition_bits);
    bits.put(choice.rotation, mode.rotation_bits);
    bits.put(choice.selector, mode.selector_bits);
    for (std::size_t c = 0; c < 3; ++c)
        for (std::size_t e = 0; e < ends; ++e) bits.put(static_cast<unsigned>(choice.code[e][c]) >> p, mode.color_bits);
    for (std::size_t e = 0; e < ends && mode.alpha_bits; ++e) bits.put(static_cast<unsigned>(choice.code[e][3]) >> p, mode.alpha_bits);
    if (mode.own_p_bits)
        for (std::size_t e = 0; e < ends; ++e) bits.put(choice.code[e][0] & 1u, 1);
    if (mode.shared_p_bits)
        for (std::size_t s = 0; s < mode.subsets; ++s) bits.put(choice.code[2 * s][0] & 1u, 1);
    // The first set of indices in the block is the one with index_bits, whichever channels it serves.
    const auto& first = separate && choice.selector ? alpha_index : color_index;
    const auto& second = separate && choice.selector ? color_index : alpha_index;
    for (std::size_t i = 0; i < 16; ++i) {
        const bool is_anchor = i == 0 || (mode.subsets > 1 && i == anchor[1]) || (mode.subsets > 2 && i == anchor[2]);
        bits.put(first[i], mode.index_bits - is_anchor);
    }
    for (std::size_t i = 0; i < 16 && separate; ++i) bits.put(second[i], mode.second_index_bits - (i == 0));
    bits.store(out);
}

}  // namespace skivet::bptc

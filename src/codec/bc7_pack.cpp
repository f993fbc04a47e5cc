#include "codec/bc7_pack.h"

#include "codec/bc7_tables.h"
#include "codec/blocks.h"

namespace skivet::bptc {
void pack(Choice choice, std::byte* out) {
    const auto& mode = modes[choice.mode];
    const unsigned p = mode.own_p_bits || mode.shared_p_bits ? 1 : 0;
    const std::size_t ends = std::size_t{mode.subsets} * 2;
    const bool separate = mode.second_index_bits > 0;
    const unsigned color_index_bits = separate && choice.selector ? mode.second_index_bits : mode.index_bits;
    const unsigned alpha_index_bits = separate && choice.selector ? mode.index_bits : mode.second_index_bits;
    const auto* subset_of = mode.subsets == 2   ? partitions2[choice.partition].data()
                            : mode.subsets == 3 ? partitions3[choice.partition].data()
                                                : nullptr;
    auto& color_index = choice.color_index;
    auto& alpha_index = choice.alpha_index;
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
            if (!subset_of || subset_of[i] == s) color_index[i] = static_cast<std::uint8_t>((1u << color_index_bits) - 1 - color_index[i]);
    }
    if (separate && alpha_index[0] >> (alpha_index_bits - 1)) {
        swap_channels(0, 3, 4);
        for (auto& k : alpha_index) k = static_cast<std::uint8_t>((1u << alpha_index_bits) - 1 - k);
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

#pragma once
// Shared by BC6H and BC7. Khronos Data Format Specification 1.3, sections 20.1 and 20.2 (tables of partitions, anchor texels and weights);
// the same tables are in ARB_texture_compression_bptc.
#include <array>
#include <cstdint>

namespace skivet::bptc {

/// Subset of each texel, one digit a texel, row by row.
extern const std::array<std::array<std::uint8_t, 16>, 64> partitions2, partitions3;
/// The texel whose index has one bit less: of the second subset of two, and of the second and third of three. The first subset's is 0.
extern const std::array<std::uint8_t, 64> anchor2, anchor3_second, anchor3_third;
/// Weights in 64ths for 2, 3 and 4 bits of index.
inline constexpr std::array<std::uint8_t, 4> weights2 = {0, 21, 43, 64};
inline constexpr std::array<std::uint8_t, 8> weights3 = {0, 9, 18, 27, 37, 46, 55, 64};
inline constexpr std::array<std::uint8_t, 16> weights4 = {0, 4, 9, 13, 17, 21, 26, 30, 34, 38, 43, 47, 51, 55, 60, 64};
inline constexpr const std::uint8_t* weights(unsigned index_bits) {
    return index_bits == 2 ? weights2.data() : index_bits == 3 ? weights3.data() : weights4.data();
}

/// How the 128 bits of a BC7 mode are used, by the specification's columns.
struct Mode {
    unsigned subsets, partition_bits, rotation_bits, selector_bits, color_bits, alpha_bits, own_p_bits, shared_p_bits, index_bits,
        second_index_bits;
};
inline constexpr std::array<Mode, 8> modes = {{{3, 4, 0, 0, 4, 0, 1, 0, 3, 0},
                                               {2, 6, 0, 0, 6, 0, 0, 1, 3, 0},
                                               {3, 6, 0, 0, 5, 0, 0, 0, 2, 0},
                                               {2, 6, 0, 0, 7, 0, 1, 0, 2, 0},
                                               {1, 0, 2, 1, 5, 6, 0, 0, 2, 3},
                                               {1, 0, 2, 0, 7, 8, 0, 0, 2, 2},
                                               {1, 0, 0, 0, 7, 7, 1, 0, 4, 0},
                                               {2, 6, 0, 0, 5, 5, 1, 0, 2, 0}}};

}  // namespace skivet::bptc

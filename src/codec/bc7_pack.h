#pragma once
// From a choice of mode and endpoints to the bits of a BC7 block.
#include "codec/codec.h"

namespace skivet::bptc {

struct Choice {
    unsigned mode = 6, partition = 0, rotation = 0, selector = 0;
    /// Endpoint 2s and 2s + 1 of subset s; codes with their p-bit as the lowest bit where the mode has one.
    std::array<std::array<std::uint8_t, 4>, 6> code{};
    /// By texel; `alpha_index` in modes 4 and 5 only, for the channel that has a line of its own.
    std::array<std::uint8_t, 16> color_index{}, alpha_index{};
};

/// Puts the anchors' highest bit to 0 by swapping endpoints, and writes 16 bytes.
void pack(Choice choice, std::byte* out);

}  // namespace skivet::bptc

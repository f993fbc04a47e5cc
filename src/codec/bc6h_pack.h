#pragma once
#include <array>
#include <cstddef>
#include <cstdint>

namespace skivet::bc6h {

/// Halves as integers of the scale that the decoder ends on: their bits, negative ones below zero.
using Texels = std::array<std::array<int, 3>, 16>;
[[nodiscard]] constexpr int as_integer(std::uint16_t half) { return half & 0x8000 ? -(half & 0x7FFF) : half; }

/// What a block's lines are. What each texel takes of them follows.
struct Ends {
    std::size_t mode = 10;  ///< index into modes
    unsigned partition = 0;
    std::array<std::array<int, 3>, 4> end{};  ///< quantized: both ends of the first region, both of the second
};

/// Writes the 16 bytes of a block. The first texel, and the second region's anchor, must lie in their lines' first halves. `polish`: every
/// end's channels are moved by single steps, as long as that helps.
void write_block(const Ends& ends, const Texels& texels, bool is_signed, bool polish, std::byte* out);

}  // namespace skivet::bc6h

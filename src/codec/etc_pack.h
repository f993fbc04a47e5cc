#pragma once
#include <array>
#include <cstdint>

#include "codec/codec.h"

namespace skivet::etc {

/// Which of the formats' color blocks: without ETC2's modes, with all, with all but two coarse bases and with holes.
enum class Variant : std::uint8_t { etc1, rgb, punch_through };

enum class Mode : std::uint8_t { differential, differential_flipped, individual, individual_flipped, planar, t, h };
/// Flipped halves lie one above the other, others side by side.
constexpr bool is_flipped(Mode mode) { return mode == Mode::differential_flipped || mode == Mode::individual_flipped; }

/// What the colors of a block are made of. What each texel takes of them follows.
struct Colors {
    Mode mode = Mode::differential;
    /// Red, green and blue as they are stored: the halves' bases in 5 bits (differential) or 4; planar O, H and V in 6, 7 and 6; of T and H
    /// the two colors in 4.
    std::array<std::array<int, 3>, 3> color{};
    /// The halves' tables; of T and H the distance comes first.
    std::array<int, 2> table{};
};

/// The 64 bits of the colors of 4×4 texels, row by row. `punch_through`: texels with alpha below 128 are holes; only for the
/// differential modes.
[[nodiscard]] std::uint64_t pack_colors(const Colors& colors, const Texel* texels, bool punch_through);

}  // namespace skivet::etc

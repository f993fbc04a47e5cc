#pragma once
// Pictures whose texels are numbers of palette entries.
#include <span>

#include "pixel/image.h"

namespace skivet {

struct PaletteFit {
    std::vector<Texel> palette;         ///< as long as the original's, or longer up to the capacity
    std::vector<std::uint8_t> indices;  ///< one a texel
    std::uint64_t inexact = 0;          ///< texels whose color is only near what was wanted
};

/// Brings an edit into a palette. Texels that did not change keep their index, even where an entry occurs twice; colors the palette has are
/// used; new colors go to entries no texel uses any more, or behind the last one up to `capacity` (at most 256). Only when there are more
/// new colors than room are they reduced: median cut (Heckbert 1982), then means of what is nearest to each entry. `before` and `wanted`
/// have the same length; indices beyond the palette count as entry 0.
[[nodiscard]] PaletteFit fit_palette(std::span<const std::uint8_t> before, std::span<const Texel> palette, std::span<const Texel> wanted,
                                     std::size_t capacity);

/// Brings an edit into a palette that stays as it is, for palettes that other pictures use, too. Texels that did not change keep their
/// index; others take the first entry of their color, or the nearest one by the squares of the differences of all four channels;
/// `dithered`: what they are off by goes on to their neighbors that changed, too (R. W. Floyd, L. Steinberg, "An Adaptive Algorithm for
/// Spatial Grey Scale", 1976). `before` and `wanted` are rows of `width`.
[[nodiscard]] PaletteFit hold_palette(std::span<const std::uint8_t> before, std::span<const Texel> palette, std::span<const Texel> wanted,
                                      std::size_t width, bool dithered);

}  // namespace skivet

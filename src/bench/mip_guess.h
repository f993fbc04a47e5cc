#pragma once
// How a texture's levels were made, found by making them again in every way we know.
#include "pixel/normals.h"
#include "texture/texture.h"

namespace skivet {

struct MipGuess {
    MipRecipe recipe;
    std::optional<MipRecipe> second;        ///< with another filter, not twenty times less likely
    std::optional<NormalChannels> normals;  ///< when the texture is a normal map
    double rms = 0;                         ///< of the best recipe against the levels, in steps of 1/255 of the range
    double confidence = 0;                  ///< 0…1: how much likelier the filter and light are than the others tried
    bool known = false;                     ///< false for textures of one level, or when no recipe comes close (made by hand)
    bool light_matters = false;             ///< color, for which both lights were tried
    std::vector<std::uint32_t> painted;     ///< levels that do not come from the level above though the others do
    std::uint32_t levels = 1, full = 1;     ///< there, and down to 1×1
    std::uint32_t smallest_width = 0, smallest_height = 0;
};

/// Each level is compared with what every recipe makes of the level above it, so that a painted level spoils one comparison only.
/// The likelihood of a recipe follows from its squared errors, taken as Gaussian and independent from block to block.
[[nodiscard]] Result<MipGuess> guess_mips(const TextureFile& original);
/// "Kaiser filter in linear light (99 % sure) · 8 levels down to 1×1".
[[nodiscard]] std::string describe(const MipGuess& guess);
/// "normals in alpha and green", "one value, in red"; empty for color.
[[nodiscard]] std::string use_of(const TextureFile& original, const MipGuess& guess);

}  // namespace skivet

#pragma once
// What a texture's alpha is for, told from the pixels.
#include <string>

#include "pixel/image.h"

namespace skivet {

enum class AlphaUse : std::uint8_t {
    none,      ///< 255 everywhere, or no alpha stored
    empty,     ///< 0 everywhere: no transparency, or nothing would be seen
    cut_out,   ///< 0 or 255 with little between
    gradient,  ///< partly transparent
    mask,      ///< colors go on under it: alpha stands for something else
};
[[nodiscard]] std::string_view name_of(AlphaUse use);

struct AlphaFacts {
    AlphaUse use = AlphaUse::none;
    bool hidden_colors = false;   ///< texels with zero alpha have more than one color
};

/// Counts the extremes (at least 95 % of the texels: a cut-out). Where the colors under zero (or low) alpha vary at least half as much as
/// those above, alpha is taken for a mask. Thresholds are ours; the distinction itself is common practice.
[[nodiscard]] AlphaFacts alpha_facts(const Image& image);
/// "cut-out, colors hide under zero alpha".
[[nodiscard]] std::string describe(const AlphaFacts& facts);

}  // namespace skivet

#pragma once
// What a texture's alpha is for, told from the pixels.
#include <optional>
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
    bool hidden_colors = false;  ///< texels with zero alpha have more than one color
    bool premultiplied = false;  ///< colors are already multiplied by alpha
};

[[nodiscard]] bool all_opaque(const Image& image);
[[nodiscard]] bool all_clear(const Image& image);

/// Counts the extremes (at least 95 % of the texels: a cut-out). Where the colors under zero (or low) alpha vary at least half as much as
/// those above, alpha is taken for a mask. Colors count as premultiplied where (nearly) none is brighter than its alpha, though at least a
/// hundredth of the texels is partly transparent and another nearly clear, and a tenth of the former come within half of their alpha
/// (Porter and Duff 1984: c <= alpha). Thresholds are ours; the distinctions themselves are common practice.
[[nodiscard]] AlphaFacts alpha_facts(const Image& image);
/// "cut-out, colors hide under zero alpha".
[[nodiscard]] std::string describe(const AlphaFacts& facts);
/// A color that premultiplied textures do not have: brighter than its alpha by more than compression makes of it.
[[nodiscard]] bool brighter_than_alpha(const Texel& texel);
/// The only channel of a colored picture that is not the same everywhere, as where a brightness is kept in red alone; nothing when there
/// are more, or none.
[[nodiscard]] std::optional<std::size_t> lone_channel(const Image& image);

}  // namespace skivet

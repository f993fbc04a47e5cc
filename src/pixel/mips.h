#pragma once
// Halving pictures for mip chains.
#include <string>

#include "pixel/image.h"

namespace skivet {

enum class MipFilter : std::uint8_t { box, kaiser };
[[nodiscard]] std::string_view name_of(MipFilter filter);

struct MipRecipe {
    MipFilter filter = MipFilter::box;
    bool linear_light = false;   ///< filter sRGB color in linear light
    bool operator==(const MipRecipe&) const = default;
};

/// Source texels [first, first + weights.size()) and their weights (sum 1) for one output texel on one axis.
struct Taps {
    std::int64_t first = 0;
    std::vector<float> weights;
};

/// Taps for reducing `source` texels to `target` texels (source >= target >= 1). Box: area coverage, exact for odd sizes.
/// Kaiser: sinc windowed with a Kaiser window (alpha 4, 3 lobes), cut off at the target's Nyquist frequency; edges clamp.
[[nodiscard]] std::vector<Taps> make_taps(std::uint32_t source, std::uint32_t target, MipFilter filter);

/// Resamples to the size of the next mip level, max(1, floor(side / 2)) a side.
[[nodiscard]] ImageF next_mip(const ImageF& image, MipFilter filter);
/// Resamples to any smaller or equal size with the same filters; larger sizes are interpolated linearly.
[[nodiscard]] ImageF resize(const ImageF& image, std::uint32_t width, std::uint32_t height, MipFilter filter);

/// Which texels of the next level depend on a marked texel: `dirty` is one flag a texel, width × height.
[[nodiscard]] std::vector<std::uint8_t> next_dirty(const std::vector<std::uint8_t>& dirty, std::uint32_t width,
                                                    std::uint32_t height, MipFilter filter);

}  // namespace skivet

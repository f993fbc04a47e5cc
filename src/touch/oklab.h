#pragma once
// Oklab: lightness, and two axes of color in which hue and chroma can be changed without it (B. Ottosson, "A perceptual color space for
// image processing", 2020; W3C, CSS Color Module Level 4, section 9.2 and its sample code).
#include "pixel/image.h"

namespace skivet {

struct Oklab {
    float lightness = 0, a = 0, b = 0;
};
/// Of R, G, B in linear light with sRGB's primaries, 0…1.
[[nodiscard]] Oklab to_oklab(const std::array<float, 3>& light);
[[nodiscard]] std::array<float, 3> from_oklab(const Oklab& color);
/// Of encoded values.
[[nodiscard]] Oklab oklab_of(const TexelF& encoded);
/// The color of that lightness and hue whose chroma is as near to `chroma` as sRGB holds, encoded; alpha from `like`.
[[nodiscard]] TexelF with_hue(float lightness, float chroma, float hue_radians, const TexelF& like);

}  // namespace skivet

#include "touch/oklab.h"

#include <algorithm>
#include <cmath>

namespace skivet {

Oklab to_oklab(const std::array<float, 3>& c) {
    const float l = std::cbrt(0.4122214708f * c[0] + 0.5363325363f * c[1] + 0.0514459929f * c[2]);
    const float m = std::cbrt(0.2119034982f * c[0] + 0.6806995451f * c[1] + 0.1073969566f * c[2]);
    const float s = std::cbrt(0.0883024619f * c[0] + 0.2817188376f * c[1] + 0.6299787005f * c[2]);
    return {0.2104542553f * l + 0.7936177850f * m - 0.0040720468f * s, 1.9779984951f * l - 2.4285922050f * m + 0.4505937099f * s,
            0.0259040371f * l + 0.7827717662f * m - 0.8086757660f * s};
}

std::array<float, 3> from_oklab(const Oklab& c) {
    const auto cubed = [](float v) { return v * v * v; };
    const float l = cubed(c.lightness + 0.3963377774f * c.a + 0.2158037573f * c.b);
    const float m = cubed(c.lightness - 0.1055613458f * c.a - 0.0638541728f * c.b);
    const float s = cubed(c.lightness - 0.0894841775f * c.a - 1.2914855480f * c.b);
    return {4.0767416621f * l - 3.3077115913f * m + 0.2309699292f * s, -1.2684380046f * l + 2.6097574011f * m - 0.3413193965f * s,
            -0.0041960863f * l - 0.7034186147f * m + 1.7076147010f * s};
}

Oklab oklab_of(const TexelF& t) { return to_oklab({srgb_to_linear(t[0]), srgb_to_linear(t[1]), srgb_to_linear(t[2])}); }

TexelF with_hue(float lightness, float chroma, float hue, const TexelF& like) {
    const float x = std::cos(hue), y = std::sin(hue);
    const auto at = [&](float c) { return from_oklab({lightness, c * x, c * y}); };
    const auto held = [](const std::array<float, 3>& c) {
        constexpr float slack = 1e-4f;
        return std::all_of(c.begin(), c.end(), [](float v) { return v >= -slack && v <= 1 + slack; });
    };
    auto color = at(chroma);
    if (!held(color)) {
        float low = 0, high = chroma;
        for (int i = 0; i < 12; ++i) {
            const float middle = (low + high) / 2;
            (held(at(middle)) ? low : high) = middle;
        }
        color = at(low);
    }
    TexelF out = like;
    for (std::size_t c = 0; c < 3; ++c) out[c] = linear_to_srgb(std::clamp(color[c], 0.0f, 1.0f));
    return out;
}

}  // namespace skivet

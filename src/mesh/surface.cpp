#include "mesh/surface.h"

#include <algorithm>
#include <cmath>

namespace skivet {
namespace {

struct Tables {
    std::array<float, 256> linear, encoded;
    Tables() {
        for (std::size_t i = 0; i < 256; ++i) {
            encoded[i] = static_cast<float>(i) / 255;
            linear[i] = srgb_to_linear(encoded[i]);
        }
    }
};
const Tables tables;

TexelF between_four(const Image& image, const std::array<float, 256>& color, const Vec2& uv) {
    const auto place = [](float at, std::uint32_t n, std::uint32_t& low, std::uint32_t& high) {
        // A coordinate far out has no fraction left; it is taken for 0.
        float x = (at - std::floor(at)) * static_cast<float>(n) - 0.5f;
        if (!(x >= -0.5f)) x = -0.5f;
        const float whole = std::floor(x);
        const auto i = static_cast<std::int64_t>(whole);
        low = static_cast<std::uint32_t>(i < 0 ? n - 1 : std::min<std::int64_t>(i, n - 1));
        high = low + 1 == n ? 0 : low + 1;
        return x - whole;
    };
    std::uint32_t x0 = 0, x1 = 0, y0 = 0, y1 = 0;
    const float fx = place(uv[0], image.width, x0, x1), fy = place(uv[1], image.height, y0, y1);
    const Texel* texels[] = {&image.at(x0, y0), &image.at(x1, y0), &image.at(x0, y1), &image.at(x1, y1)};
    const float shares[] = {(1 - fx) * (1 - fy), fx * (1 - fy), (1 - fx) * fy, fx * fy};
    TexelF out = {0, 0, 0, 0};
    for (std::size_t i = 0; i < 4; ++i) {
        const auto& t = *texels[i];
        for (std::size_t c = 0; c < 3; ++c) out[c] += shares[i] * color[t[c]];
        out[3] += shares[i] * tables.encoded[t[3]];
    }
    return out;
}

}  // namespace

float level_for(std::uint32_t width, std::uint32_t height, const Vec2& right, const Vec2& down) {
    const float w = static_cast<float>(width), h = static_cast<float>(height);
    const float longer = std::max(std::hypot(right[0] * w, right[1] * h), std::hypot(down[0] * w, down[1] * h));
    return longer > 0 ? std::log2(longer) : -1;
}

float used_level(const SurfaceMap& map, const LevelRule& rule, float wanted) {
    const auto last = static_cast<float>(map.levels.size() - 1);
    const auto above = static_cast<float>(map.above);
    const auto first = std::clamp(static_cast<float>(rule.start) - above, 0.0f, last);
    return std::clamp(rule.forced >= 0 ? rule.forced - above : wanted, first, last);
}

TexelF sampled(const SurfaceMap& map, const Vec2& uv, float level) {
    const auto& color = map.srgb ? tables.linear : tables.encoded;
    level = std::clamp(level, 0.0f, static_cast<float>(map.levels.size() - 1));
    const auto low = static_cast<std::size_t>(level);
    const float share = level - static_cast<float>(low);
    auto out = between_four(map.levels[low], color, uv);
    if (share > 0) {
        const auto other = between_four(map.levels[low + 1], color, uv);
        for (std::size_t c = 0; c < 4; ++c) out[c] += (other[c] - out[c]) * share;
    }
    return out;
}

}  // namespace skivet

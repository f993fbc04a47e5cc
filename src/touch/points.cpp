// Touch-ups of each texel by itself.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "touch/oklab.h"
#include "touch/rows.h"

namespace skivet::touches {
namespace {

TexelF between(const TexelF& from, const TexelF& to, float share) {
    TexelF out;
    for (std::size_t c = 0; c < 4; ++c) out[c] = from[c] + (to[c] - from[c]) * share;
    return out;
}
float radians(double degrees) { return static_cast<float>(degrees * std::numbers::pi / 180); }

/// R, G, B in linear light through `change`, and encoded again.
template <class Change>
TexelF in_light(const TexelF& t, const Change& change) {
    const auto light = change(std::array<float, 3>{srgb_to_linear(t[0]), srgb_to_linear(t[1]), srgb_to_linear(t[2])});
    TexelF out = t;
    for (std::size_t c = 0; c < 3; ++c) out[c] = linear_to_srgb(std::clamp(light[c], 0.0f, 1.0f));
    return out;
}
float luminance(const std::array<float, 3>& light) { return 0.2126f * light[0] + 0.7152f * light[1] + 0.0722f * light[2]; }

}  // namespace

float gray_of(const TexelF& t) {
    if (t[0] == t[1] && t[1] == t[2]) return t[0];
    return linear_to_srgb(luminance({srgb_to_linear(t[0]), srgb_to_linear(t[1]), srgb_to_linear(t[2])}));
}

TexelF recolor(const TexelF& t, std::size_t, const TouchArgs& args) {
    const auto c = oklab_of(t);
    return between(t, with_hue(c.lightness, std::hypot(c.a, c.b), radians(args.number(0)), t), args.factor(1));
}

TexelF tint(const TexelF& t, std::size_t, const TouchArgs& args) {
    const auto c = oklab_of(t), wanted = oklab_of(args.values[0].color);
    return between(t, with_hue(c.lightness, std::hypot(wanted.a, wanted.b), std::atan2(wanted.b, wanted.a), t), args.factor(1));
}

TexelF turn(const TexelF& t, std::size_t, const TouchArgs& args) {
    const auto c = oklab_of(t);
    return with_hue(c.lightness, std::hypot(c.a, c.b), std::atan2(c.b, c.a) + radians(args.number(0)), t);
}

TexelF brighten(const TexelF& t, std::size_t, const TouchArgs& args) {
    const auto times = std::exp2(args.factor(0));
    return in_light(t, [&](std::array<float, 3> light) {
        for (auto& v : light) v *= times;
        return light;
    });
}

TexelF contrast(const TexelF& t, std::size_t, const TouchArgs& args) {
    TexelF out = t;
    for (std::size_t c = 0; c < 3; ++c) out[c] = std::clamp(0.5f + (t[c] - 0.5f) * args.factor(0), 0.0f, 1.0f);
    return out;
}

TexelF saturate(const TexelF& t, std::size_t, const TouchArgs& args) {
    return in_light(t, [&](std::array<float, 3> light) {
        const auto y = luminance(light);
        for (auto& v : light) v = y + (v - y) * args.factor(0);
        return light;
    });
}

TexelF gray(const TexelF& t, std::size_t, const TouchArgs&) {
    const auto y = gray_of(t);
    return {y, y, y, t[3]};
}

TexelF alpha(const TexelF& t, std::size_t, const TouchArgs& args) { return {t[0], t[1], t[2], args.factor(0) / 255}; }
TexelF alpha_gray(const TexelF& t, std::size_t, const TouchArgs&) { return {t[0], t[1], t[2], gray_of(t)}; }
TexelF alpha_file(const TexelF& t, std::size_t at, const TouchArgs& args) { return {t[0], t[1], t[2], gray_of(args.other->texels[at])}; }
TexelF alpha_invert(const TexelF& t, std::size_t, const TouchArgs&) { return {t[0], t[1], t[2], 1 - t[3]}; }
TexelF alpha_cut(const TexelF& t, std::size_t, const TouchArgs& args) {
    // Alpha of 8 bits that is the limit passes it.
    return {t[0], t[1], t[2], t[3] * 255 >= args.factor(0) - 1e-3f ? 1.0f : 0.0f};
}

TexelF flip_green(const TexelF& t, std::size_t, const TouchArgs&) { return {t[0], 1 - t[1], t[2], t[3]}; }

TexelF rebuild_z(const TexelF& t, std::size_t, const TouchArgs&) {
    const float x = 2 * t[0] - 1, y = 2 * t[1] - 1;
    return {t[0], t[1], (std::sqrt(std::max(0.0f, 1 - x * x - y * y)) + 1) / 2, t[3]};
}

TexelF channel(const TexelF& t, std::size_t at, const TouchArgs& args) {
    const auto& from = args.other ? args.other->texels[at] : t;
    const auto which = args.choice(1);
    TexelF out = t;
    out[args.choice(0)] = which < 4 ? from[which] : gray_of(from);
    return out;
}

}  // namespace skivet::touches

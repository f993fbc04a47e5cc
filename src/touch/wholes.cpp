// Touch-ups of a picture as a whole.
#include <tbb/parallel_for.h>
#include <algorithm>
#include <cmath>
#include <deque>

#include "pixel/mips.h"
#include "touch/rows.h"

namespace skivet::touches {
namespace {

/// The texel beside an edge: the edge's own, or the one at the other side.
std::uint32_t at_edge(std::int64_t i, std::uint32_t side, bool wrapped) {
    const auto n = static_cast<std::int64_t>(side);
    return static_cast<std::uint32_t>(wrapped ? ((i % n) + n) % n : std::clamp<std::int64_t>(i, 0, n - 1));
}

ImageF mapped(const ImageF& picture, TexelF (*change)(const TexelF&)) {
    ImageF out(picture.width, picture.height);
    tbb::parallel_for(0u, picture.height, [&](std::uint32_t y) {
        for (std::uint32_t x = 0; x < picture.width; ++x) out.at(x, y) = change(picture.at(x, y));
    });
    return out;
}
/// Color in linear light, multiplied by alpha, so that what cannot be seen does not count.
ImageF in_light(const ImageF& picture) {
    return mapped(picture, [](const TexelF& t) -> TexelF {
        return {srgb_to_linear(t[0]) * t[3], srgb_to_linear(t[1]) * t[3], srgb_to_linear(t[2]) * t[3], t[3]};
    });
}
ImageF encoded(const ImageF& light) {
    return mapped(light, [](const TexelF& t) -> TexelF {
        const float by = t[3] > 1e-6f ? 1 / t[3] : 0;
        const auto one = [&](std::size_t c) { return linear_to_srgb(std::clamp(t[c] * by, 0.0f, 1.0f)); };
        return {one(0), one(1), one(2), std::clamp(t[3], 0.0f, 1.0f)};
    });
}

/// Gaussian of deviation `radius` texels, cut off at three of them, one axis after the other.
ImageF blurred(const ImageF& picture, double radius, bool wrapped, const TouchArgs& args) {
    const auto reach = static_cast<std::int64_t>(std::ceil(3 * radius));
    std::vector<float> weights;
    double sum = 0;
    for (auto i = -reach; i <= reach; ++i) {
        weights.push_back(static_cast<float>(std::exp(-0.5 * static_cast<double>(i * i) / (radius * radius))));
        sum += static_cast<double>(weights.back());
    }
    for (auto& w : weights) w = static_cast<float>(static_cast<double>(w) / sum);
    const auto pass = [&](const ImageF& from, bool down) {
        ImageF out(from.width, from.height);
        tbb::parallel_for(0u, from.height, [&](std::uint32_t y) {
            if (args.canceled()) return;
            for (std::uint32_t x = 0; x < from.width; ++x) {
                TexelF all{};
                for (auto i = -reach; i <= reach; ++i) {
                    const auto& t = down ? from.at(x, at_edge(std::int64_t{y} + i, from.height, wrapped))
                                         : from.at(at_edge(std::int64_t{x} + i, from.width, wrapped), y);
                    for (std::size_t c = 0; c < 4; ++c) all[c] += weights[static_cast<std::size_t>(i + reach)] * t[c];
                }
                out.at(x, y) = all;
            }
        });
        return out;
    };
    return pass(pass(picture, false), true);
}

/// What of the picture is seen as height or brightness.
std::vector<float> grays(const ImageF& picture) {
    std::vector<float> out(picture.texels.size());
    tbb::parallel_for(0u, picture.height, [&](std::uint32_t y) {
        for (std::uint32_t x = 0; x < picture.width; ++x) out[std::size_t{y} * picture.width + x] = gray_of(picture.at(x, y));
    });
    return out;
}

ImageF part_of(const ImageF& picture, std::uint32_t width, std::uint32_t height) {
    ImageF out(width, height);
    for (std::uint32_t y = 0; y < height; ++y)
        for (std::uint32_t x = 0; x < width; ++x)
            out.at(x, y) = picture.at(std::min(x, picture.width - 1), std::min(y, picture.height - 1));
    return out;
}

}  // namespace

ImageF normals(const ImageF& picture, const TouchArgs& args) {
    const auto height = grays(picture);
    const auto strength = args.factor(0);
    const bool wrapped = args.choice(1) == 1, down = args.choice(2) == 1;
    ImageF out(picture.width, picture.height);
    tbb::parallel_for(0u, picture.height, [&](std::uint32_t y) {
        for (std::uint32_t x = 0; x < picture.width; ++x) {
            const auto at = [&](std::int64_t dx, std::int64_t dy) {
                return height[std::size_t{at_edge(y + dy, picture.height, wrapped)} * picture.width +
                              at_edge(x + dx, picture.width, wrapped)];
            };
            // Central differences; a row further down is further from the top, where green up points to.
            const float p = (at(1, 0) - at(-1, 0)) / 2 * strength, q = (at(0, 1) - at(0, -1)) / 2 * strength;
            const float length = std::sqrt(p * p + q * q + 1);
            out.at(x, y) = {(1 - p / length) / 2, (1 + (down ? -q : q) / length) / 2, (1 + 1 / length) / 2, picture.at(x, y)[3]};
        }
    });
    return out;
}

ImageF edges(const ImageF& picture, const TouchArgs& args) {
    const auto g = grays(picture);
    ImageF out(picture.width, picture.height);
    tbb::parallel_for(0u, picture.height, [&](std::uint32_t y) {
        for (std::uint32_t x = 0; x < picture.width; ++x) {
            const auto at = [&](std::int64_t dx, std::int64_t dy) {
                return g[std::size_t{at_edge(y + dy, picture.height, args.choice(2) == 1)} * picture.width +
                         at_edge(x + dx, picture.width, args.choice(2) == 1)];
            };
            // I. Sobel and G. Feldman's operator, 1968; four times a step is what it gives.
            const float across = at(1, -1) + 2 * at(1, 0) + at(1, 1) - at(-1, -1) - 2 * at(-1, 0) - at(-1, 1);
            const float along = at(-1, 1) + 2 * at(0, 1) + at(1, 1) - at(-1, -1) - 2 * at(0, -1) - at(1, -1);
            const float line = std::min(1.0f, args.factor(0) * std::hypot(across, along) / 4);
            const float v = args.choice(1) == 1 ? 1 - line : line;
            out.at(x, y) = {v, v, v, picture.at(x, y)[3]};
        }
    });
    return out;
}

ImageF soften(const ImageF& picture, const TouchArgs& args) {
    const bool wrapped = args.choice(1) == 1, data = args.choice(2) == 1;
    if (data) return blurred(picture, args.number(0), wrapped, args);
    auto out = encoded(blurred(in_light(picture), args.number(0), wrapped, args));
    // Where nothing can be seen the color stays.
    for (std::size_t i = 0; i < out.texels.size(); ++i)
        if (out.texels[i][3] <= 1e-6f) std::copy_n(picture.texels[i].begin(), 3, out.texels[i].begin());
    return out;
}

ImageF sharpen(const ImageF& picture, const TouchArgs& args) {
    // Of encoded values, whose steps are about equally visible; in light, dark lines would sharpen more than bright ones.
    auto out = blurred(picture, args.number(1), args.choice(2) == 1, args);
    for (std::size_t i = 0; i < out.texels.size(); ++i) {
        const auto& t = picture.texels[i];
        for (std::size_t c = 0; c < 3; ++c) out.texels[i][c] = std::clamp(t[c] + args.factor(0) * (t[c] - out.texels[i][c]), 0.0f, 1.0f);
        out.texels[i][3] = t[3];
    }
    return out;
}

ImageF bleed(const ImageF& picture, const TouchArgs& args) {
    // From the visible texels outward, ring by ring: a texel takes the mean of its neighbors that have a color already.
    const auto least = args.factor(0) / 255;
    const auto most = args.number(1) > 0 ? static_cast<std::uint32_t>(args.number(1)) : ~0u;
    auto out = picture;
    const auto w = static_cast<std::int64_t>(picture.width), h = static_cast<std::int64_t>(picture.height);
    std::vector<std::uint32_t> ring(picture.texels.size(), ~0u);
    std::vector<std::uint32_t> now, next;
    for (std::size_t i = 0; i < ring.size(); ++i)
        if (picture.texels[i][3] >= least - 1e-4f) ring[i] = 0, now.push_back(static_cast<std::uint32_t>(i));
    const auto around = [&](std::uint32_t i, const auto& use) {
        const auto x = i % w, y = i / w;
        for (auto ny = std::max<std::int64_t>(0, y - 1); ny <= std::min(h - 1, y + 1); ++ny)
            for (auto nx = std::max<std::int64_t>(0, x - 1); nx <= std::min(w - 1, x + 1); ++nx)
                use(static_cast<std::uint32_t>(ny * w + nx));
    };
    for (std::uint32_t step = 1; !now.empty() && step <= most && !args.canceled(); ++step) {
        for (const auto i : now)
            around(i, [&](std::uint32_t n) {
                if (ring[n] == ~0u) ring[n] = step, next.push_back(n);
            });
        for (const auto i : next) {
            std::array<float, 3> sum{};
            float count = 0;
            around(i, [&](std::uint32_t n) {
                if (ring[n] >= step) return;
                for (std::size_t c = 0; c < 3; ++c) sum[c] += out.texels[n][c];
                ++count;
            });
            for (std::size_t c = 0; c < 3; ++c) out.texels[i][c] = sum[c] / count;
        }
        now.swap(next);
        next.clear();
    }
    return out;
}

ImageF resized(const ImageF& picture, const TouchArgs& args) {
    const auto width = static_cast<std::uint32_t>(args.number(0)), height = static_cast<std::uint32_t>(args.number(1));
    const auto filter = all_mip_filters[args.choice(2)];
    if (args.choice(3) == 1) return resize(picture, width, height, filter);
    auto out = encoded(resize(in_light(picture), width, height, filter));
    // Color that cannot be seen has been multiplied away: it comes from the picture without alpha.
    if (std::any_of(out.texels.begin(), out.texels.end(), [](const TexelF& t) { return t[3] < 1.0f / 512; })) {
        const auto bare = resize(picture, width, height, filter);
        for (std::size_t i = 0; i < out.texels.size(); ++i)
            if (out.texels[i][3] < 1.0f / 512)
                for (std::size_t c = 0; c < 3; ++c) out.texels[i][c] = std::clamp(bare.texels[i][c], 0.0f, 1.0f);
    }
    return out;
}

ImageF padded(const ImageF& picture, const TouchArgs& args) {
    const auto n = static_cast<std::uint32_t>(args.number(0));
    return part_of(picture, (picture.width + n - 1) / n * n, (picture.height + n - 1) / n * n);
}

ImageF cropped(const ImageF& picture, const TouchArgs& args) {
    const auto n = static_cast<std::uint32_t>(args.number(0));
    return part_of(picture, std::max(n, picture.width / n * n), std::max(n, picture.height / n * n));
}

}  // namespace skivet::touches

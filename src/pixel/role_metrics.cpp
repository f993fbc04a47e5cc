#include "pixel/role_metrics.h"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <vector>

#include "pixel/normals.h"

namespace skivet {
namespace {

constexpr std::size_t strips = 16;  // always as many, added in order: the same figures on any number of threads

/// Counts errors in steps of 1/64 up to 256.
struct Counted {
    static constexpr double per_unit = 64;
    std::vector<std::uint64_t> bins = std::vector<std::uint64_t>(256 * 64 + 1);
    double sum = 0;
    std::uint64_t count = 0;
    void add(double error) {
        sum += error;
        ++count;
        ++bins[static_cast<std::size_t>(std::min(std::ceil(error * per_unit), static_cast<double>(bins.size() - 1)))];
    }
};

bool counts(Counting counting, std::size_t texel) { return counting.empty() || counting[texel] != 0; }

/// count(strip's first texel, behind its last, where to).
template <class Count>
ErrorSpread spread_of(std::size_t texels, const Count& count) {
    std::vector<Counted> parts(strips);
    tbb::parallel_for(std::size_t{0}, strips, [&](std::size_t s) { count(texels * s / strips, texels * (s + 1) / strips, parts[s]); });
    for (std::size_t s = 1; s < strips; ++s) {
        for (std::size_t i = 0; i < parts[0].bins.size(); ++i) parts[0].bins[i] += parts[s].bins[i];
        parts[0].sum += parts[s].sum;
        parts[0].count += parts[s].count;
    }
    const auto& all = parts[0];
    if (all.count == 0) return {};
    std::uint64_t within = 0;
    std::size_t bin = 0;
    for (; bin + 1 < all.bins.size(); ++bin)
        if ((within += all.bins[bin]) * 100 >= all.count * 99) break;
    return {all.sum / static_cast<double>(all.count), static_cast<double>(bin) / Counted::per_unit};
}

}  // namespace

ErrorSpread angles_between(const NormalChannels& channels, const Image& a, const Image& b, Counting counting) {
    return spread_of(a.texels.size(), [&](std::size_t from, std::size_t to, Counted& out) {
        for (auto i = from; i < to; ++i) {
            if (!counts(counting, i)) continue;
            if (a.texels[i] == b.texels[i]) {
                out.add(0);
                continue;
            }
            std::array<TexelF, 2> t;
            to_float(&a.texels[i], 1, false, &t[0]);
            to_float(&b.texels[i], 1, false, &t[1]);
            out.add(angle_between(channels, t[0], t[1]));
        }
    });
}

ErrorSpread stops_between(const ImageF& a, const ImageF& b, float darkest, Counting counting) {
    return spread_of(a.texels.size(), [&](std::size_t from, std::size_t to, Counted& out) {
        const auto light = [&](float v) { return std::log2(double{std::isfinite(v) ? std::max(v, darkest) : v > 0 ? 65504.0f : darkest}); };
        for (auto i = from; i < to; ++i)
            for (std::size_t c = 0; counts(counting, i) && c < 3; ++c) out.add(std::abs(light(a.texels[i][c]) - light(b.texels[i][c])));
    });
}

std::array<double, 4> psnr_by_channel(const Image& a, const Image& b) {
    std::vector<std::array<std::uint64_t, 4>> parts(strips);
    tbb::parallel_for(std::size_t{0}, strips, [&](std::size_t s) {
        std::array<std::uint64_t, 4> sum{};
        for (auto i = a.texels.size() * s / strips; i < a.texels.size() * (s + 1) / strips; ++i)
            for (std::size_t c = 0; c < 4; ++c) {
                const int d = a.texels[i][c] - b.texels[i][c];
                sum[c] += static_cast<std::uint64_t>(d * d);
            }
        parts[s] = sum;
    });
    std::array<std::uint64_t, 4> squared{};
    for (const auto& part : parts)
        for (std::size_t c = 0; c < 4; ++c) squared[c] += part[c];
    std::array<double, 4> out{};
    for (std::size_t c = 0; c < 4; ++c)
        out[c] = squared[c] == 0 ? std::numeric_limits<double>::infinity()
                                 : 10 * std::log10(255.0 * 255.0 * static_cast<double>(a.texels.size()) / static_cast<double>(squared[c]));
    return out;
}

}  // namespace skivet

#include "pixel/mips.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "pixel/format.h"

namespace skivet {
namespace {

constexpr double kaiser_alpha = 4.0;
constexpr double kaiser_lobes = 3.0;

// Modified Bessel function of the first kind, order 0: sum over k of ((x/2)^k / k!)^2 (Abramowitz & Stegun 9.6.12).
double bessel_i0(double x) {
    double sum = 1, term = 1;
    for (int k = 1; k < 30; ++k) {
        term *= (x / (2.0 * k)) * (x / (2.0 * k));
        sum += term;
    }
    return sum;
}

double kaiser_sinc(double x) {
    const double t = x / kaiser_lobes;
    if (std::abs(t) >= 1) return 0;
    const double window = bessel_i0(kaiser_alpha * std::sqrt(1 - t * t)) / bessel_i0(kaiser_alpha);
    const double px = std::numbers::pi * x;
    return window * (std::abs(px) < 1e-9 ? 1 : std::sin(px) / px);
}

// One pass along x; the caller transposes by swapping strides.
void resample_axis(const ImageF& in, ImageF& out, const std::vector<Taps>& taps, bool horizontal) {
    for (std::uint32_t y = 0; y < out.height; ++y) {
        for (std::uint32_t x = 0; x < out.width; ++x) {
            const auto& tap = taps[horizontal ? x : y];
            std::array<float, 4> sum{};
            for (std::size_t k = 0; k < tap.weights.size(); ++k) {
                const auto from = static_cast<std::size_t>(tap.first) + k;
                const auto& texel = horizontal ? in.texels[std::size_t{y} * in.width + from] : in.texels[from * in.width + x];
                for (std::size_t c = 0; c < 4; ++c) sum[c] += tap.weights[k] * texel[c];
            }
            out.texels[std::size_t{y} * out.width + x] = sum;
        }
    }
}

}  // namespace

std::string_view name_of(MipFilter filter) { return filter == MipFilter::box ? "box" : "Kaiser"; }

std::vector<Taps> make_taps(std::uint32_t source, std::uint32_t target, MipFilter filter) {
    std::vector<Taps> all(target);
    const double scale = static_cast<double>(source) / target;
    const auto last = static_cast<std::int64_t>(source) - 1;
    for (std::uint32_t i = 0; i < target; ++i) {
        const double low = i * scale, high = (i + 1) * scale, center = (low + high) / 2;
        const bool enlarge = scale < 1;
        const double reach = enlarge ? 1.0 : filter == MipFilter::box ? scale / 2 : kaiser_lobes * scale;
        const auto from = static_cast<std::int64_t>(std::floor(center - reach - 0.5));
        const auto to = static_cast<std::int64_t>(std::ceil(center + reach + 0.5));
        auto& tap = all[i];
        tap.first = std::clamp<std::int64_t>(from, 0, last);
        tap.weights.assign(static_cast<std::size_t>(std::clamp<std::int64_t>(to, 0, last) - tap.first + 1), 0.0f);
        double sum = 0;
        std::vector<double> raw(tap.weights.size(), 0.0);
        for (std::int64_t s = from; s <= to; ++s) {
            double weight = 0;
            if (enlarge) weight = std::max(0.0, 1 - std::abs(static_cast<double>(s) + 0.5 - center));
            else if (filter == MipFilter::box)
                weight = std::max(0.0, std::min(high, static_cast<double>(s + 1)) - std::max(low, static_cast<double>(s)));
            else
                weight = kaiser_sinc((static_cast<double>(s) + 0.5 - center) / scale);
            raw[static_cast<std::size_t>(std::clamp<std::int64_t>(s, 0, last) - tap.first)] += weight;  // edges clamp
            sum += weight;
        }
        for (std::size_t k = 0; k < raw.size(); ++k) tap.weights[k] = static_cast<float>(raw[k] / sum);
        // Drop taps of weight zero at both ends: they would mark texels as touched that are not.
        while (tap.weights.size() > 1 && std::abs(tap.weights.back()) < 1e-7f) tap.weights.pop_back();
        std::size_t lead = 0;
        while (lead + 1 < tap.weights.size() && std::abs(tap.weights[lead]) < 1e-7f) ++lead;
        tap.weights.erase(tap.weights.begin(), tap.weights.begin() + static_cast<std::ptrdiff_t>(lead));
        tap.first += static_cast<std::int64_t>(lead);
    }
    return all;
}

ImageF resize(const ImageF& image, std::uint32_t width, std::uint32_t height, MipFilter filter) {
    ImageF across(width, image.height);
    resample_axis(image, across, make_taps(image.width, width, filter), true);
    ImageF out(width, height);
    resample_axis(across, out, make_taps(image.height, height, filter), false);
    return out;
}

ImageF next_mip(const ImageF& image, MipFilter filter) {
    return resize(image, mip_side(image.width, 1), mip_side(image.height, 1), filter);
}

std::vector<std::uint8_t> next_dirty(const std::vector<std::uint8_t>& dirty, std::uint32_t width, std::uint32_t height,
                                     MipFilter filter) {
    const auto out_width = mip_side(width, 1), out_height = mip_side(height, 1);
    const auto across = make_taps(width, out_width, filter);
    const auto down = make_taps(height, out_height, filter);
    std::vector<std::uint8_t> rows(std::size_t{out_width} * height);
    for (std::uint32_t y = 0; y < height; ++y)
        for (std::uint32_t x = 0; x < out_width; ++x)
            for (std::size_t k = 0; k < across[x].weights.size(); ++k)
                rows[std::size_t{y} * out_width + x] |= dirty[std::size_t{y} * width + static_cast<std::size_t>(across[x].first) + k];
    std::vector<std::uint8_t> out(std::size_t{out_width} * out_height);
    for (std::uint32_t y = 0; y < out_height; ++y)
        for (std::uint32_t x = 0; x < out_width; ++x)
            for (std::size_t k = 0; k < down[y].weights.size(); ++k)
                out[std::size_t{y} * out_width + x] |= rows[(static_cast<std::size_t>(down[y].first) + k) * out_width + x];
    return out;
}

}  // namespace skivet

#include "pixel/metrics.h"

#include <tbb/parallel_for.h>
#include <algorithm>
#include <cmath>
#include <cstring>
#include <limits>

#include "pixel/bands.h"

namespace skivet {
namespace {

double psnr(double squared_sum, double samples, double peak = 255) {
    if (squared_sum <= 0) return std::numeric_limits<double>::infinity();
    return 10 * std::log10(peak * peak / (squared_sum / samples));
}

// Rec. 709 luma of the encoded values, as SSIM is usually taken.
double luma(const Texel& t) { return 0.2126 * t[0] + 0.7152 * t[1] + 0.0722 * t[2]; }

double ssim_window(const Image& a, const Image& b, std::uint32_t x0, std::uint32_t y0, std::uint32_t w, std::uint32_t h) {
    constexpr double c1 = 0.01 * 255 * 0.01 * 255, c2 = 0.03 * 255 * 0.03 * 255;
    double sa = 0, sb = 0, saa = 0, sbb = 0, sab = 0;
    for (std::uint32_t y = y0; y < y0 + h; ++y)
        for (std::uint32_t x = x0; x < x0 + w; ++x) {
            const double la = luma(a.at(x, y)), lb = luma(b.at(x, y));
            sa += la, sb += lb, saa += la * la, sbb += lb * lb, sab += la * lb;
        }
    const double n = static_cast<double>(w) * h;
    const double ma = sa / n, mb = sb / n;
    const double va = saa / n - ma * ma, vb = sbb / n - mb * mb, cov = sab / n - ma * mb;
    return (2 * ma * mb + c1) * (2 * cov + c2) / ((ma * ma + mb * mb + c1) * (va + vb + c2));
}

}  // namespace

namespace {

/// What a band of rows adds up to; whole numbers but for light, whose bands are always the same and added in order.
struct Sums {
    std::uint64_t rgb = 0, alpha = 0, changed = 0;
    double light = 0, ssim = 0;
    std::uint32_t max_error = 0;
};

Sums difference_of_band(const Image& a, const Image& b, std::uint32_t y0, std::uint32_t rows) {
    Sums out;
    const auto* first = &a.at(0, y0);
    const auto* second = &b.at(0, y0);
    const auto windows = (a.width + 7) / 8;
    if (std::memcmp(first, second, std::size_t{rows} * a.width * sizeof(Texel)) == 0) {
        out.ssim = windows;
        return out;
    }
    for (std::size_t i = 0; i < std::size_t{rows} * a.width; ++i) {
        if (first[i] == second[i]) continue;
        ++out.changed;
        for (std::size_t c = 0; c < 4; ++c) {
            const int d = first[i][c] - second[i][c];
            out.max_error = std::max(out.max_error, static_cast<std::uint32_t>(std::abs(d)));
            (c < 3 ? out.rgb : out.alpha) += static_cast<std::uint64_t>(d * d);
        }
        std::array<TexelF, 2> lit;
        to_float(&first[i], 1, true, &lit[0]);
        to_float(&second[i], 1, true, &lit[1]);
        for (std::size_t c = 0; c < 3; ++c) out.light += (double{lit[0][c]} - lit[1][c]) * (double{lit[0][c]} - lit[1][c]);
    }
    for (std::uint32_t x = 0; x < a.width; x += 8) {
        const auto w = std::min(8u, a.width - x);
        bool same = true;  // then it is 1
        for (std::uint32_t y = y0; y < y0 + rows && same; ++y) same = std::equal(&a.at(x, y), &a.at(x, y) + w, &b.at(x, y));
        out.ssim += same ? 1 : ssim_window(a, b, x, y0, w, rows);
    }
    return out;
}

}  // namespace

namespace {
template <class Picture>
std::vector<std::uint8_t> compare_rows(const Picture& a, const Picture& b) {
    std::vector<std::uint8_t> out(a.height);
    const auto bytes = std::size_t{a.width} * sizeof(a.texels[0]);
    each_band(a.height, [&](std::uint32_t from, std::uint32_t to) {
        for (auto y = from; y < to; ++y) out[y] = std::memcmp(&a.at(0, y), &b.at(0, y), bytes) != 0;
    });
    return out;
}
}  // namespace

std::vector<std::uint8_t> rows_that_differ(const Image& a, const Image& b) { return compare_rows(a, b); }
std::vector<std::uint8_t> rows_that_differ(const ImageF& a, const ImageF& b) { return compare_rows(a, b); }

Difference difference(const Image& a, const Image& b) {
    Difference out;
    const auto bands = (a.height + 7) / 8;
    std::vector<Sums> sums(bands);
    tbb::parallel_for(0u, bands, [&](std::uint32_t k) { sums[k] = difference_of_band(a, b, k * 8, std::min(8u, a.height - k * 8)); });
    Sums all;
    for (const auto& s : sums) {
        all.rgb += s.rgb;
        all.alpha += s.alpha;
        all.light += s.light;
        all.ssim += s.ssim;
        all.max_error = std::max(all.max_error, s.max_error);
        out.changed_texels += s.changed;
    }
    const auto count = static_cast<double>(a.texels.size());
    out.max_error = all.max_error;
    out.psnr_rgb = psnr(static_cast<double>(all.rgb), count * 3);
    out.psnr_light = psnr(all.light, count * 3, 1);
    out.psnr_alpha = psnr(static_cast<double>(all.alpha), count);
    if (out.changed_texels > 0) out.ssim = all.ssim / (static_cast<double>(bands) * ((a.width + 7) / 8));
    return out;
}

}  // namespace skivet

#include "pixel/metrics.h"

#include <algorithm>
#include <cmath>
#include <limits>

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

Difference difference(const Image& a, const Image& b) {
    Difference out;
    double rgb = 0, light = 0, alpha = 0;
    for (std::size_t i = 0; i < a.texels.size(); ++i) {
        if (a.texels[i] == b.texels[i]) continue;
        ++out.changed_texels;
        for (std::size_t c = 0; c < 4; ++c) {
            const int d = a.texels[i][c] - b.texels[i][c];
            out.max_error = std::max(out.max_error, static_cast<std::uint32_t>(std::abs(d)));
            (c < 3 ? rgb : alpha) += static_cast<double>(d) * d;
        }
        std::array<TexelF, 2> lit;
        to_float(&a.texels[i], 1, true, &lit[0]);
        to_float(&b.texels[i], 1, true, &lit[1]);
        for (std::size_t c = 0; c < 3; ++c) light += (double{lit[0][c]} - lit[1][c]) * (double{lit[0][c]} - lit[1][c]);
    }
    const auto count = static_cast<double>(a.texels.size());
    out.psnr_rgb = psnr(rgb, count * 3);
    out.psnr_light = psnr(light, count * 3, 1);
    out.psnr_alpha = psnr(alpha, count);
    if (out.changed_texels > 0) {
        double sum = 0;
        std::uint64_t windows = 0;
        for (std::uint32_t y = 0; y < a.height; y += 8)
            for (std::uint32_t x = 0; x < a.width; x += 8, ++windows)
                sum += ssim_window(a, b, x, y, std::min(8u, a.width - x), std::min(8u, a.height - y));
        out.ssim = sum / static_cast<double>(windows);
    }
    return out;
}

}  // namespace skivet

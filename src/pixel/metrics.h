#pragma once
#include <cstdint>
#include <vector>

#include "pixel/image.h"

namespace skivet {

struct Difference {
    double psnr_rgb = 0;          ///< dB, 10 log10(255² / MSE) over red, green, blue; infinity when equal
    double psnr_light = 0;        ///< dB, the same in linear light, for sRGB-encoded pictures: 10 log10(1 / MSE)
    double psnr_alpha = 0;        ///< dB, the same over alpha
    double ssim = 1;              ///< mean SSIM of luma, 8×8 windows, Wang et al. 2004 eq. 13
    std::uint32_t max_error = 0;  ///< largest difference of any channel, 0…255
    std::uint64_t changed_texels = 0;
};

/// Both pictures must have the same size.
[[nodiscard]] Difference difference(const Image& a, const Image& b);

/// For each row whether a bit of it differs: 1 or 0. Same size required. Most edits leave most rows, and this costs one look at the memory.
[[nodiscard]] std::vector<std::uint8_t> rows_that_differ(const Image& a, const Image& b);
[[nodiscard]] std::vector<std::uint8_t> rows_that_differ(const ImageF& a, const ImageF& b);

}  // namespace skivet

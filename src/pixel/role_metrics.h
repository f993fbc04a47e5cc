#pragma once
// Errors as they count for what a texture is used for: normals by the angle, light by the ratio, masks by channel.
#include <array>

#include "pixel/image.h"
#include "pixel/normal_channels.h"

namespace skivet {

/// Over all texels: the mean, and what 99 of 100 of them stay within (rounded up to 1/64).
struct ErrorSpread {
    double mean = 0, most = 0;
};

/// Degrees between the normals of two pictures in stored form. Both pictures must have the same size, here and below.
[[nodiscard]] ErrorSpread angles_between(const NormalChannels& channels, const Image& a, const Image& b);
/// Stops, |log2(a / b)|, between the light of two pictures, over red, green and blue. What is darker than `darkest` counts as that: nobody
/// sees how much darker.
[[nodiscard]] ErrorSpread stops_between(const ImageF& a, const ImageF& b, float darkest = 1.0f / 16384);
/// dB, 10 log10(255² / MSE), by channel; infinite where nothing differs.
[[nodiscard]] std::array<double, 4> psnr_by_channel(const Image& a, const Image& b);

}  // namespace skivet

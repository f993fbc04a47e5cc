#pragma once
// Errors as they count for what a texture is used for: normals by the angle, light by the ratio, masks by channel.
#include <array>
#include <cstdint>
#include <span>

#include "pixel/image.h"
#include "pixel/normal_channels.h"

namespace skivet {

/// Over all texels: the mean, and what 99 of 100 of them stay within (rounded up to 1/64).
struct ErrorSpread {
    double mean = 0, most = 0;
};
/// One value a texel, row by row: those that are not 0 count, all where it is empty.
using Counting = std::span<const std::uint8_t>;

/// Degrees between the normals of two pictures in stored form. Both pictures must have the same size, here and below.
[[nodiscard]] ErrorSpread angles_between(const NormalChannels& channels, const Image& a, const Image& b, Counting counting = {});
/// What is darker counts as that below: nobody sees how much darker.
constexpr float darkest_light = 1.0f / 16384;
/// Stops, |log2(a / b)|, between the light of two pictures, over red, green and blue.
[[nodiscard]] ErrorSpread stops_between(const ImageF& a, const ImageF& b, float darkest = darkest_light, Counting counting = {});
/// dB, 10 log10(255² / MSE), by channel; infinite where nothing differs.
[[nodiscard]] std::array<double, 4> psnr_by_channel(const Image& a, const Image& b);

}  // namespace skivet

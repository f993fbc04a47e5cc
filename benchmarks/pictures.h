#pragma once
#include <cmath>
#include <random>

#include "pixel/image.h"

namespace skivet {

/// Gradients, edges and noise, 512 × 512, from a seed.
inline Image bench_picture(unsigned seed) {
    std::mt19937 random(seed);
    Image image(512, 512);
    for (std::uint32_t y = 0; y < 512; ++y)
        for (std::uint32_t x = 0; x < 512; ++x) {
            const double u = x / 512.0, v = y / 512.0;
            const auto wave = [&](double a) {
                return static_cast<std::uint8_t>(std::clamp(127 + 110 * std::sin(a) + static_cast<double>(random() % 17) - 8, 0.0, 255.0));
            };
            image.at(x, y) = {wave(9 * u + v), wave(7 * v), wave((u + v) * 11), wave(5 * u)};
            if (static_cast<int>(u * 12 + v * 3) % 5 == 0) image.at(x, y) = {230, 210, 160, 255};
        }
    return image;
}

}  // namespace skivet

#include "pixel/half.h"

#include <half.h>
#include <algorithm>
#include <bit>
#include <cmath>

namespace skivet {

float half_to_float(std::uint16_t half) { return imath_half_to_float(half); }

std::uint16_t float_to_half(float value) { return imath_float_to_half(value); }

float small_to_float(std::uint32_t bits, unsigned mantissa_bits) {
    return half_to_float(static_cast<std::uint16_t>(bits << (10 - mantissa_bits)));
}

std::uint32_t float_to_small(float value, unsigned mantissa_bits) {
    if (!(value > 0)) return 0;
    const std::uint32_t largest = (31u << mantissa_bits) - 1;
    // Rounded straight from single precision, so that there is no second rounding by way of half.
    const auto bits = std::bit_cast<std::uint32_t>(value);
    if (bits >= 0x47800000u) return largest;
    if (bits < 0x38800000u) return static_cast<std::uint32_t>(std::nearbyint(std::ldexp(value, 14 + static_cast<int>(mantissa_bits))));
    const unsigned drop = 23 - mantissa_bits;
    const std::uint32_t moved = bits - (112u << 23);
    return std::min(largest, (moved + (1u << (drop - 1)) - 1 + (moved >> drop & 1u)) >> drop);
}

std::array<float, 3> rgb9e5_to_float(std::uint32_t bits) {
    const float scale = std::ldexp(1.0f, static_cast<int>(bits >> 27) - 15 - 9);
    return {static_cast<float>(bits & 0x1FFu) * scale, static_cast<float>(bits >> 9 & 0x1FFu) * scale,
            static_cast<float>(bits >> 18 & 0x1FFu) * scale};
}

// EXT_texture_shared_exponent, "3.8.x Shared Exponent Texture Color Conversion": N = 9, B = 15, Emax = 31.
std::uint32_t float_to_rgb9e5(const std::array<float, 3>& rgb) {
    constexpr float largest = 65408.0f;  // (2^9 - 1) / 2^9 × 2^(31 - 15)
    std::array<float, 3> c{};
    for (std::size_t i = 0; i < 3; ++i) c[i] = rgb[i] > 0 ? std::min(rgb[i], largest) : 0.0f;
    const float top = std::max({c[0], c[1], c[2]});
    int exponent = std::max(-16, top > 0 ? std::ilogb(top) : -16) + 1 + 15;
    if (std::floor(std::ldexp(top, 15 + 9 - exponent) + 0.5f) >= 512) ++exponent;
    std::uint32_t out = static_cast<std::uint32_t>(exponent) << 27;
    for (std::size_t i = 0; i < 3; ++i)
        out |= static_cast<std::uint32_t>(std::floor(std::ldexp(c[i], 15 + 9 - exponent) + 0.5f)) << (9 * i);
    return out;
}

}  // namespace skivet

#pragma once
// Small floats. IEEE 754 binary16; the 11- and 10-bit floats and the shared exponent of Khronos Data Format Specification 1.3,
// sections 10.2 to 10.4 and 13.5 (RGB9E5: EXT_texture_shared_exponent).
#include <array>
#include <cstdint>

namespace skivet {

[[nodiscard]] float half_to_float(std::uint16_t half);
/// Rounded to nearest, ties to even; too large becomes infinity; NaN stays NaN.
[[nodiscard]] std::uint16_t float_to_half(float value);
/// 5 bits of exponent (bias 15) over `mantissa_bits` (6 or 5), no sign.
[[nodiscard]] float small_to_float(std::uint32_t bits, unsigned mantissa_bits);
/// Negative values and NaN become 0; too large becomes the largest finite value; rounded to nearest.
[[nodiscard]] std::uint32_t float_to_small(float value, unsigned mantissa_bits);
[[nodiscard]] std::array<float, 3> rgb9e5_to_float(std::uint32_t bits);
[[nodiscard]] std::uint32_t float_to_rgb9e5(const std::array<float, 3>& rgb);

}  // namespace skivet

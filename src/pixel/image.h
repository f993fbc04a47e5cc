#pragma once
#include <array>
#include <cstdint>
#include <vector>

namespace skivet {

using Texel = std::array<std::uint8_t, 4>;  ///< R, G, B, A

/// 8-bit RGBA picture, rows top to bottom, no padding (row pitch = width × 4 bytes).
struct Image {
    std::uint32_t width = 0;
    std::uint32_t height = 0;
    std::vector<Texel> texels;

    Image() = default;
    Image(std::uint32_t w, std::uint32_t h, Texel fill = {0, 0, 0, 255})
        : width(w), height(h), texels(static_cast<std::size_t>(w) * h, fill) {}
    [[nodiscard]] const Texel& at(std::uint32_t x, std::uint32_t y) const { return texels[std::size_t{y} * width + x]; }
    [[nodiscard]] Texel& at(std::uint32_t x, std::uint32_t y) { return texels[std::size_t{y} * width + x]; }
    bool operator==(const Image&) const = default;
};

using TexelF = std::array<float, 4>;  ///< R, G, B, A

/// Float RGBA, same layout: pictures while they are filtered, and the true values of formats that 8 bits do not hold. Normalized
/// formats are 0…1 or -1…1, floats themselves, integers their value (exact up to 2^24).
struct ImageF {
    std::uint32_t width = 0;
    std::uint32_t height = 0;
    std::vector<TexelF> texels;

    ImageF() = default;
    ImageF(std::uint32_t w, std::uint32_t h) : width(w), height(h), texels(static_cast<std::size_t>(w) * h) {}
    [[nodiscard]] const TexelF& at(std::uint32_t x, std::uint32_t y) const { return texels[std::size_t{y} * width + x]; }
    [[nodiscard]] TexelF& at(std::uint32_t x, std::uint32_t y) { return texels[std::size_t{y} * width + x]; }
    bool operator==(const ImageF&) const = default;
};

/// sRGB decoding, IEC 61966-2-1 section 5.2: encoded 0…1 to linear 0…1.
[[nodiscard]] float srgb_to_linear(float encoded);
/// sRGB encoding, IEC 61966-2-1 section 5.2.
[[nodiscard]] float linear_to_srgb(float linear);

/// 0…255 to 0…1; color channels go to linear light when `srgb`, alpha never.
[[nodiscard]] ImageF to_float(const Image& image, bool srgb);
void to_float(const Texel* texels, std::size_t count, bool srgb, TexelF* out);
/// Inverse of to_float, rounded to nearest and clamped.
[[nodiscard]] Image to_bytes(const ImageF& image, bool srgb);
void to_bytes(const TexelF* texels, std::size_t count, bool srgb, Texel* out);

}  // namespace skivet

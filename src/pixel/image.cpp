#include "pixel/image.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <limits>

namespace skivet {
namespace {

/// For the colors, and behind it for alpha.
std::array<float, 512> make_table(bool srgb) {
    std::array<float, 512> table{};
    for (std::size_t i = 0; i < 256; ++i) {
        const auto value = static_cast<float>(i) / 255.0f;
        table[i] = srgb ? srgb_to_linear(value) : value;
        table[256 + i] = value;
    }
    return table;
}

/// The nearest sRGB byte of a linear value without a power: the float's exponent and ten bits of mantissa give a byte; in so small
/// a range lies at most one limit between bytes, and one comparison tells the rest. The limits are the values that linear_to_srgb puts half
/// a step above each byte. (Vector gathers are no faster: tried.)
class SrgbBytes {
public:
    SrgbBytes() {
        for (std::size_t i = 0; i < 255; ++i) limit_[i] = static_cast<float>(decoded((static_cast<double>(i) + 0.5) / 255));
        limit_[255] = std::numeric_limits<float>::infinity();
        for (std::size_t i = 0; i < below_.size(); ++i) {
            const auto low = std::bit_cast<float>(static_cast<std::uint32_t>(i + first_) << shift);
            below_[i] = static_cast<std::uint8_t>(std::upper_bound(limit_.begin(), limit_.end() - 1, low) - limit_.begin());
        }
    }
    /// Without alpha.
    Texel operator()(const TexelF& texel) const {
        // Together and without branches: what overshoots, as sharp filters do, is not foreseen by the processor.
        const auto linear = std::bit_cast<Floats>(texel);
        const auto above = linear > lowest ? linear : lowest + Floats{};  // NaN too
        const auto within = above < highest ? above : highest + Floats{};
        const auto at = (std::bit_cast<Words>(within) >> shift) - first_;
        const auto byte = [&](std::size_t c) {
            const auto below = below_[at[c]];
            return static_cast<std::uint8_t>(below + (within[c] >= limit_[below]));
        };
        return {byte(0), byte(1), byte(2), 0};
    }

private:
    using Floats = float __attribute__((vector_size(16)));
    using Words = std::uint32_t __attribute__((vector_size(16)));
    static double decoded(double v) { return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); }
    static constexpr unsigned shift = 13;                                ///< 10 bits of mantissa are left
    static constexpr std::uint32_t first_ = (127u - 13u) << 10;          ///< 2^-13, below limit_[0]
    static constexpr float lowest = 1.0f / 8192, highest = 0.99999994f;  ///< bytes 0 and 255
    std::array<float, 256> limit_{};                                     ///< where byte i ends
    std::array<std::uint8_t, (13u << 10)> below_{};
};

std::uint8_t round_byte(float value) { return static_cast<std::uint8_t>((value > 0 ? std::min(value, 1.0f) : 0.0f) * 255.0f + 0.5f); }

}  // namespace

float srgb_to_linear(float encoded) { return encoded <= 0.04045f ? encoded / 12.92f : std::pow((encoded + 0.055f) / 1.055f, 2.4f); }

float linear_to_srgb(float linear) { return linear <= 0.0031308f ? linear * 12.92f : 1.055f * std::pow(linear, 1.0f / 2.4f) - 0.055f; }

void to_float(const Texel* texels, std::size_t count, bool srgb, TexelF* out) {
    static const auto encoded = make_table(true);
    static const auto plain = make_table(false);
    const auto* table = (srgb ? encoded : plain).data();
    for (std::size_t i = 0; i < count; ++i)
        out[i] = {table[texels[i][0]], table[texels[i][1]], table[texels[i][2]], table[256 + texels[i][3]]};
}

ImageF to_float(const Image& image, bool srgb) {
    ImageF out(image.width, image.height);
    to_float(image.texels.data(), image.texels.size(), srgb, out.texels.data());
    return out;
}

void to_bytes(const TexelF* texels, std::size_t count, bool srgb, Texel* out) {
    static const SrgbBytes encoded;
    for (std::size_t i = 0; i < count; ++i) {
        const auto& t = texels[i];
        if (srgb) out[i] = encoded(t), out[i][3] = round_byte(t[3]);
        else out[i] = {round_byte(t[0]), round_byte(t[1]), round_byte(t[2]), round_byte(t[3])};
    }
}

Image to_bytes(const ImageF& image, bool srgb) {
    Image out(image.width, image.height);
    to_bytes(image.texels.data(), image.texels.size(), srgb, out.texels.data());
    return out;
}

}  // namespace skivet

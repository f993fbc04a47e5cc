#include "pixel/image.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <limits>

namespace skivet {
namespace {

std::array<float, 256> make_table(bool srgb) {
    std::array<float, 256> table{};
    for (std::size_t i = 0; i < 256; ++i) {
        const auto value = static_cast<float>(i) / 255.0f;
        table[i] = srgb ? srgb_to_linear(value) : value;
    }
    return table;
}

/// The nearest sRGB byte of a linear value without a power: the float's exponent and upper mantissa bits give a byte at or just below,
/// the limits between bytes the rest. The limits are the values that linear_to_srgb puts half a step above each byte.
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
    std::uint8_t operator()(float linear) const {
        if (!(linear >= limit_[0])) return 0;  // NaN too
        if (linear >= 1) return 255;
        auto byte = below_[(std::bit_cast<std::uint32_t>(linear) >> shift) - first_];
        while (linear >= limit_[byte]) ++byte;
        return byte;
    }

private:
    static double decoded(double v) { return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); }
    static constexpr unsigned shift = 16;                                  ///< 7 bits of mantissa are left
    static constexpr std::uint32_t first_ = (127u - 13u) << 7;             ///< 2^-13, below limit_[0]
    std::array<float, 256> limit_{};                                       ///< where byte i ends
    std::array<std::uint8_t, (13u << 7)> below_{};
};

std::uint8_t round_byte(float value) { return static_cast<std::uint8_t>(std::clamp(value, 0.0f, 1.0f) * 255.0f + 0.5f); }

}  // namespace

float srgb_to_linear(float encoded) {
    return encoded <= 0.04045f ? encoded / 12.92f : std::pow((encoded + 0.055f) / 1.055f, 2.4f);
}

float linear_to_srgb(float linear) {
    return linear <= 0.0031308f ? linear * 12.92f : 1.055f * std::pow(linear, 1.0f / 2.4f) - 0.055f;
}

void to_float(const Texel* texels, std::size_t count, bool srgb, TexelF* out) {
    static const auto encoded = make_table(true);
    static const auto plain = make_table(false);
    const auto& table = srgb ? encoded : plain;
    for (std::size_t i = 0; i < count; ++i) {
        const auto& t = texels[i];
        out[i] = {table[t[0]], table[t[1]], table[t[2]], plain[t[3]]};
    }
}

ImageF to_float(const Image& image, bool srgb) {
    ImageF out(image.width, image.height);
    to_float(image.texels.data(), image.texels.size(), srgb, out.texels.data());
    return out;
}

void to_bytes(const TexelF* texels, std::size_t count, bool srgb, Texel* out) {
    static const SrgbBytes encode;
    for (std::size_t i = 0; i < count; ++i) {
        const auto& t = texels[i];
        for (std::size_t c = 0; c < 3; ++c) out[i][c] = srgb ? encode(t[c]) : round_byte(t[c]);
        out[i][3] = round_byte(t[3]);
    }
}

Image to_bytes(const ImageF& image, bool srgb) {
    Image out(image.width, image.height);
    to_bytes(image.texels.data(), image.texels.size(), srgb, out.texels.data());
    return out;
}

}  // namespace skivet

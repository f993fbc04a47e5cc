#include "pixel/image.h"

#include <algorithm>
#include <cmath>

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

std::uint8_t round_byte(float value) { return static_cast<std::uint8_t>(std::clamp(value, 0.0f, 1.0f) * 255.0f + 0.5f); }

}  // namespace

float srgb_to_linear(float encoded) {
    return encoded <= 0.04045f ? encoded / 12.92f : std::pow((encoded + 0.055f) / 1.055f, 2.4f);
}

float linear_to_srgb(float linear) {
    return linear <= 0.0031308f ? linear * 12.92f : 1.055f * std::pow(linear, 1.0f / 2.4f) - 0.055f;
}

ImageF to_float(const Image& image, bool srgb) {
    static const auto encoded = make_table(true);
    static const auto plain = make_table(false);
    const auto& table = srgb ? encoded : plain;
    ImageF out(image.width, image.height);
    for (std::size_t i = 0; i < image.texels.size(); ++i) {
        const auto& t = image.texels[i];
        out.texels[i] = {table[t[0]], table[t[1]], table[t[2]], plain[t[3]]};
    }
    return out;
}

Image to_bytes(const ImageF& image, bool srgb) {
    Image out(image.width, image.height);
    for (std::size_t i = 0; i < image.texels.size(); ++i) {
        const auto& t = image.texels[i];
        for (std::size_t c = 0; c < 3; ++c) out.texels[i][c] = round_byte(srgb ? linear_to_srgb(std::max(t[c], 0.0f)) : t[c]);
        out.texels[i][3] = round_byte(t[3]);
    }
    return out;
}

}  // namespace skivet

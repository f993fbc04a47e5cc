// Between the two forms of a picture: true values and their 8-bit view.
#include <cmath>

#include "base/chunks.h"
#include "codec/codec.h"

namespace skivet {
namespace {

/// Lowest and highest value of a channel of `bits` bits, as far as a view shows it.
std::array<float, 2> range_of(const FormatInfo& f, std::size_t channel) {
    const std::array<ChannelBits, 4> layout = {f.red, f.green, f.blue, f.alpha};
    const unsigned bits = layout[channel].bits ? layout[channel].bits : f.red.bits ? f.red.bits : 8u;
    switch (f.numeric) {
        case Numeric::snorm: return {-1, 1};
        case Numeric::uint: return {0, static_cast<float>(std::ldexp(1.0, static_cast<int>(bits)) - 1)};
        case Numeric::sint:
            return {static_cast<float>(-std::ldexp(1.0, static_cast<int>(bits) - 1)),
                    static_cast<float>(std::ldexp(1.0, static_cast<int>(bits) - 1) - 1)};
        default: return {0, 1};
    }
}

std::uint8_t to_byte(float value) {
    return static_cast<std::uint8_t>(std::isnan(value) ? 0.0f : std::clamp(value, 0.0f, 1.0f) * 255.0f + 0.5f);
}

std::uint8_t signed_byte(float value, float low, float high) {
    if (std::isnan(value)) return 128;
    // -1…1 over 1…255, so that zero is exactly 128; integers over the whole byte.
    const bool snorm = low == -1 && high == 1;
    const float scaled = snorm ? value * 127 : value * 127 / high;
    return static_cast<std::uint8_t>(std::clamp(std::floor(scaled + 128.5f), snorm ? 1.0f : 0.0f, 255.0f));
}

}  // namespace

Image view_of(Format format, const ImageF& image, float exposure) {
    const auto& f = info(format);
    Image out(image.width, image.height);
    std::array<std::array<float, 2>, 4> range;
    for (std::size_t c = 0; c < 4; ++c) range[c] = range_of(f, c);
    const auto gain = std::exp2(exposure);
    in_chunks(image.texels.size(), [&](std::size_t begin, std::size_t end) {
        if (f.is_float()) {
            std::array<TexelF, chunk_size> lit;
            for (auto i = begin; i < end; ++i) {
                const auto& t = image.texels[i];
                lit[i - begin] = {t[0] * gain, t[1] * gain, t[2] * gain, t[3]};
            }
            to_bytes(lit.data(), end - begin, true, &out.texels[begin]);
        } else {
            for (auto i = begin; i < end; ++i)
                for (std::size_t c = 0; c < 4; ++c) {
                    const auto v = image.texels[i][c];
                    out.texels[i][c] = f.is_signed() ? signed_byte(v, range[c][0], range[c][1]) : to_byte(v / range[c][1]);
                }
        }
        // What is not stored.
        for (std::size_t c = f.luminance ? 3 : f.channels; c < 4; ++c)
            if (c < 3 || !f.has_alpha)
                for (auto i = begin; i < end; ++i) out.texels[i][c] = c == 3 ? 255 : 0;
    });
    return out;
}

ImageF from_view(Format format, const Image& image) {
    const auto& f = info(format);
    ImageF out(image.width, image.height);
    for (std::size_t c = 0; c < 4; ++c) {
        const auto range = range_of(f, c);
        std::array<float, 256> value{};
        for (std::size_t v = 0; v < 256; ++v) {
            const auto unit = static_cast<float>(v) / 255.0f;
            const auto centered = (static_cast<float>(v) - 128) / 127;
            if (c == 3 && !f.has_alpha) value[v] = 1;
            else if (c < 3 && c >= f.channels && !f.luminance) value[v] = 0;
            else if (f.is_float()) value[v] = c == 3 ? unit : srgb_to_linear(unit);
            else if (f.numeric == Numeric::snorm) value[v] = std::max(-1.0f, centered);
            else if (f.numeric == Numeric::sint) value[v] = std::clamp(std::floor(centered * range[1] + 0.5f), range[0], range[1]);
            else if (f.numeric == Numeric::uint) value[v] = std::floor(unit * range[1] + 0.5f);
            else value[v] = unit;
        }
        for (std::size_t i = 0; i < image.texels.size(); ++i) out.texels[i][c] = value[image.texels[i][c]];
    }
    return out;
}

bool same_texel(const TexelF& a, const TexelF& b) { return std::memcmp(a.data(), b.data(), sizeof a) == 0; }

}  // namespace skivet

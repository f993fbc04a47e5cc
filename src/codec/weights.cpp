#include "codec/weights.h"

#include <algorithm>

namespace skivet {

std::array<std::uint16_t, 4> channel_weights(const EncodeOptions& options, const Texel& texel) {
    std::array<std::uint16_t, 4> out = {32, 32, 32, 32};
    if (options.normals) {
        const auto& n = *options.normals;
        // In 255ths, zero between 127 and 128; whole numbers are the same on every machine.
        const auto square = [&](std::size_t c) {
            const int v = std::clamp(2 * texel[c] - 255, -255, 255);
            return v * v;
        };
        constexpr int one = 255 * 255;
        out = {1, 1, 1, static_cast<std::uint16_t>(n.z >= 0 ? 32 : 1)};
        if (n.z >= 0) {
            const auto z = static_cast<std::size_t>(n.z);
            const int length = std::max(1, square(n.x) + square(n.y) + square(z));
            for (const std::size_t c : {std::size_t{n.x}, std::size_t{n.y}, z})
                out[c] = static_cast<std::uint16_t>(std::max(4, 32 * (length - square(c)) / length));
        } else {
            const int z = std::max(one / 16, one - square(n.x) - square(n.y));
            for (const std::size_t c : {std::size_t{n.x}, std::size_t{n.y}}) out[c] = static_cast<std::uint16_t>(32 + 32 * square(c) / z);
        }
    } else if (options.alpha_is_transparency) {
        out[0] = out[1] = out[2] = static_cast<std::uint16_t>(std::max(1, (texel[3] * 32 + 127) / 255));
    }
    return out;
}

AngleMetric angle_metric(const EncodeOptions& options, const Texel& texel) {
    AngleMetric out;
    out.square.fill(1.0f / 32);
    const auto& n = *options.normals;
    float squared = 0;
    const auto use = [&](std::size_t c) {
        if (c > 2) return;
        out.square[c] = 1;
        out.along[c] = static_cast<float>(std::clamp(2 * texel[c] - 255, -255, 255));
        squared += out.along[c] * out.along[c];
    };
    use(n.x);
    use(n.y);
    if (n.z >= 0) use(static_cast<std::size_t>(n.z));
    constexpr float one = 255.0f * 255.0f;
    out.mixed = n.z >= 0 ? -0.875f / std::max(squared, 1.0f) : 1 / std::max(one / 16, one - squared);
    return out;
}

}  // namespace skivet

#include "pixel/normals.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace skivet {
namespace {

std::array<float, 3> vector_of(const NormalChannels& n, const TexelF& t) {
    const float x = t[n.x] * n.scale + n.offset, y = t[n.y] * n.scale + n.offset;
    const float z = n.z < 0 ? std::sqrt(std::max(0.0f, 1 - x * x - y * y)) : t[static_cast<std::size_t>(n.z)] * n.scale + n.offset;
    return {x, y, z};
}

bool fits(const NormalChannels& n, const Image& image) {
    std::size_t sound = 0;
    std::array<double, 3> sum{};
    double spread = 0;
    const auto step = std::max<std::size_t>(1, image.texels.size() / 65536);
    std::size_t count = 0;
    for (std::size_t i = 0; i < image.texels.size(); i += step, ++count) {
        TexelF t;
        to_float(&image.texels[i], 1, false, &t);
        const auto v = vector_of(n, t);
        const float length = std::sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]);
        sound += n.z < 0 ? length < 1.15f : std::abs(length - 1) < 0.15f && v[2] > -0.1f;
        for (std::size_t c = 0; c < 3; ++c) sum[c] += v[c];
        spread += v[0] * v[0] + v[1] * v[1];
    }
    const auto all = static_cast<double>(count);
    const bool front = std::abs(sum[0]) < 0.25 * all && std::abs(sum[1]) < 0.25 * all && sum[2] > 0.5 * all;
    return front && spread > 1e-4 * all && static_cast<double>(sound) >= 0.95 * all;
}

}  // namespace

std::optional<NormalChannels> guess_normals(Format format, const Image& image) {
    const auto& f = info(format);
    if (image.texels.empty() || f.luminance || f.is_float()) return std::nullopt;
    NormalChannels n;
    if (f.numeric == Numeric::snorm) n.scale = 255.0f / 127, n.offset = -128.0f / 127;
    if (f.channels == 2 && !f.has_alpha) {
        n.z = -1;
        return fits(n, image) ? std::optional(n) : std::nullopt;
    }
    if (f.channels < 3) return std::nullopt;
    if (fits(n, image)) return n;
    if (!f.has_alpha) return std::nullopt;
    // X in alpha: red and blue repeat another channel or say nothing.
    n = {3, 1, -1, n.scale, n.offset};
    const auto& first = image.texels.front();
    const auto idle = [&](std::size_t c) {
        bool constant = true, copy = true;
        for (const auto& t : image.texels) {
            constant = constant && std::abs(t[c] - first[c]) <= 8;
            copy = copy && std::abs(t[c] - t[1]) <= 12;
        }
        return constant || copy;
    };
    return idle(0) && idle(2) && fits(n, image) ? std::optional(n) : std::nullopt;
}

std::string_view describe(const NormalChannels& n) {
    return n.x == 3 ? "normals in alpha and green" : n.z < 0 ? "normals in red and green" : "normals in red, green and blue";
}

Image with_z(const std::optional<NormalChannels>& normals, Image image) {
    if (!normals || normals->z >= 0) return image;
    for (auto& t : image.texels) {
        const auto part = [&](std::size_t c) { return static_cast<float>(t[c] - 128) / 127; };
        const float x = part(normals->x), y = part(normals->y);
        const auto z = std::lround(128 + 127 * std::sqrt(std::max(0.0f, 1 - x * x - y * y)));
        t = {t[normals->x], t[normals->y], static_cast<std::uint8_t>(z), 255};
    }
    return image;
}

double angle_between(const NormalChannels& n, const TexelF& a, const TexelF& b) {
    const auto p = vector_of(n, a), q = vector_of(n, b);
    double dot = 0, pp = 0, qq = 0;
    for (std::size_t c = 0; c < 3; ++c) dot += double{p[c]} * q[c], pp += double{p[c]} * p[c], qq += double{q[c]} * q[c];
    if (pp <= 0 || qq <= 0) return 0;
    return std::acos(std::clamp(dot / std::sqrt(pp * qq), -1.0, 1.0)) * 180 / std::numbers::pi;
}

}  // namespace skivet

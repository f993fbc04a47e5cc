#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <iterator>

#include "mesh/uv.h"

namespace skivet {
namespace {

constexpr float reach = 0.75f;  ///< half a line's width, in pixels

const Texel& color_of(const UvLayout& layout, const UvLine& line, const UvInk& ink) {
    const auto& island = layout.islands[line.island];
    if (!line.border) return ink.inner;
    return island.mirrored ? ink.mirrored : island.shared ? ink.shared : ink.border;
}

void blend(Texel& under, const Texel& over, float share) {
    const float a = share * static_cast<float>(over[3]) / 255, below = static_cast<float>(under[3]) / 255 * (1 - a), sum = a + below;
    if (sum <= 0) return;
    for (std::size_t c = 0; c < 3; ++c)
        under[c] = static_cast<std::uint8_t>(std::lround((static_cast<float>(over[c]) * a + static_cast<float>(under[c]) * below) / sum));
    under[3] = static_cast<std::uint8_t>(std::lround(sum * 255));
}

/// Of the line only what lies on the picture (Liang and Barsky 1984), with a margin of its width.
bool clip(std::array<double, 2>& a, std::array<double, 2>& b, double width, double height) {
    double from = 0, to = 1;
    const double dx = b[0] - a[0], dy = b[1] - a[1];
    for (const auto& [p, q] : {std::pair{-dx, a[0] + 1}, {dx, width + 1 - a[0]}, {-dy, a[1] + 1}, {dy, height + 1 - a[1]}}) {
        if (p == 0 && q < 0) return false;
        if (p < 0) from = std::max(from, q / p);
        if (p > 0) to = std::min(to, q / p);
    }
    if (from > to) return false;
    b = {a[0] + dx * to, a[1] + dy * to};
    a = {a[0] + dx * from, a[1] + dy * from};
    return true;
}

void draw_line(Image& on, std::array<double, 2> a, std::array<double, 2> b, const Texel& color) {
    if (!clip(a, b, on.width, on.height)) return;
    // Along the longer direction: three pixels or so across at each step.
    const bool steep = std::abs(b[1] - a[1]) > std::abs(b[0] - a[0]);
    const std::size_t along = steep ? 1 : 0, across = steep ? 0 : 1;
    if (a[along] > b[along]) std::swap(a, b);
    const double length = std::hypot(b[0] - a[0], b[1] - a[1]);
    if (length == 0) return;
    const double ux = (b[0] - a[0]) / length, uy = (b[1] - a[1]) / length;
    const auto most = static_cast<std::int64_t>(steep ? on.height : on.width),
               most_across = static_cast<std::int64_t>(steep ? on.width : on.height);
    const double slope = (b[across] - a[across]) / std::max(1e-12, b[along] - a[along]);
    for (auto i = std::max<std::int64_t>(0, static_cast<std::int64_t>(std::floor(a[along] - 1)));
         i <= std::min(most - 1, static_cast<std::int64_t>(std::floor(b[along] + 1))); ++i) {
        const double middle = a[across] + slope * (std::clamp(static_cast<double>(i) + 0.5, a[along], b[along]) - a[along]);
        for (auto j = static_cast<std::int64_t>(std::floor(middle)) - 2; j <= static_cast<std::int64_t>(std::floor(middle)) + 2; ++j) {
            if (j < 0 || j >= most_across) continue;
            const double x = static_cast<double>(steep ? j : i) + 0.5 - a[0], y = static_cast<double>(steep ? i : j) + 0.5 - a[1];
            const double t = std::clamp(x * ux + y * uy, 0.0, length);
            const auto away = static_cast<float>(std::hypot(x - ux * t, y - uy * t));
            const float share = std::clamp(reach + 0.5f - away, 0.0f, 1.0f);
            if (share > 0) blend(on.at(static_cast<std::uint32_t>(steep ? j : i), static_cast<std::uint32_t>(steep ? i : j)), color, share);
        }
    }
}

}  // namespace

void draw_uv(Image& on, const UvLayout& layout, const UvInk& ink) {
    const auto lines = uv_lines(layout);
    for (const bool border : {false, true})  // borders over what lies inside
        for (const auto& line : lines) {
            if (line.border != border || (!border && !ink.inside_lines)) continue;
            draw_line(on, {double{line.from[0]} * on.width, double{line.from[1]} * on.height},
                      {double{line.to[0]} * on.width, double{line.to[1]} * on.height}, color_of(layout, line, ink));
        }
}

std::string uv_svg(const UvLayout& layout, const UvInk& ink, std::string_view picture) {
    std::string out = fmt::format(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" version=\"1.1\" width=\"{0}\" "
        "height=\"{1}\" "
        "viewBox=\"0 0 {0} {1}\">\n",
        layout.width, layout.height);
    if (!picture.empty())
        out +=
            fmt::format(" <image x=\"0\" y=\"0\" width=\"{}\" height=\"{}\" xlink:href=\"{}\"/>\n", layout.width, layout.height, picture);
    const auto lines = uv_lines(layout);
    std::vector<std::array<std::string, 2>> paths(layout.islands.size());
    for (const auto& line : lines)
        fmt::format_to(std::back_inserter(paths[line.island][line.border]), "M{:.3f} {:.3f}L{:.3f} {:.3f}",
                       line.from[0] * static_cast<float>(layout.width), line.from[1] * static_cast<float>(layout.height),
                       line.to[0] * static_cast<float>(layout.width), line.to[1] * static_cast<float>(layout.height));
    const auto path = [&](const std::string& d, const Texel& color) {
        if (d.empty()) return;
        out +=
            fmt::format("  <path fill=\"none\" stroke=\"#{:02x}{:02x}{:02x}\" stroke-opacity=\"{:.3f}\" stroke-width=\"1.5\" d=\"{}\"/>\n",
                        color[0], color[1], color[2], color[3] / 255.0, d);
    };
    for (std::uint32_t i = 0; i < paths.size(); ++i) {
        const auto& island = layout.islands[i];
        out += fmt::format(" <g id=\"island-{}\"{}{}>\n", i + 1, island.mirrored ? " class=\"mirrored\"" : "",
                           island.shared && !island.mirrored ? " class=\"shared\"" : "");
        if (ink.inside_lines) path(paths[i][0], ink.inner);
        path(paths[i][1], color_of(layout, {{0, 0}, {0, 0}, i, true}, ink));
        out += " </g>\n";
    }
    return out + "</svg>\n";
}

}  // namespace skivet

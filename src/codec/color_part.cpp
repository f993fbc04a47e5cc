// The 8-byte color part of BC1, BC2 and BC3: two 5:6:5 endpoints and sixteen 2-bit indices.
//
// Encoding is a cluster fit. Colors are ordered along the block's principal axis; every way to cut that order into runs that share an
// index gives a small least-squares problem for the two endpoints, whose sums come from prefix sums. The best cut is refined along
// the axis it found, and then by a walk over neighboring 5:6:5 endpoints with the exact integer error of the decoder, which also pays for
// the rounding the least-squares step cannot see. Sound, not yet fast.
#include <cmath>
#include <limits>

#include "codec/codec.h"

namespace skivet {
namespace {

using Vec = std::array<float, 3>;

Vec operator+(const Vec& a, const Vec& b) { return {a[0] + b[0], a[1] + b[1], a[2] + b[2]}; }
Vec operator-(const Vec& a, const Vec& b) { return {a[0] - b[0], a[1] - b[1], a[2] - b[2]}; }
Vec operator*(const Vec& a, float s) { return {a[0] * s, a[1] * s, a[2] * s}; }
float dot(const Vec& a, const Vec& b) { return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]; }

/// Endpoint in 5:6:5 steps.
using Steps = std::array<int, 3>;
constexpr Steps top_step = {31, 63, 31};

// Bit replication, as the BC1 decoders of the graphics APIs do it (Khronos Data Format Specification 1.3, section 18.1).
int expand(int step, std::size_t channel) { return channel == 1 ? step << 2 | step >> 4 : step << 3 | step >> 2; }

std::uint16_t pack(const Steps& s) { return static_cast<std::uint16_t>(s[0] << 11 | s[1] << 5 | s[2]); }
Steps unpack(std::uint16_t value) { return {value >> 11, value >> 5 & 63, value & 31}; }

struct Palette {
    std::array<std::array<int, 3>, 4> color{};
};

Palette make_palette(const Steps& a, const Steps& b, bool four_colors) {
    Palette p;
    for (std::size_t c = 0; c < 3; ++c) {
        const int x = expand(a[c], c), y = expand(b[c], c);
        p.color[0][c] = x;
        p.color[1][c] = y;
        p.color[2][c] = four_colors ? (2 * x + y) / 3 : (x + y) / 2;
        p.color[3][c] = four_colors ? (x + 2 * y) / 3 : 0;
    }
    return p;
}

/// The distinct colors of a block, how often each occurs, and for every texel which one it is (-1: transparent).
struct Colors {
    std::array<std::array<int, 3>, 16> value{};
    std::array<int, 16> weight{};
    std::array<int, 16> of_texel{};
    int count = 0;
};

Colors distinct(const BlockTexels& in, bool punch_through) {
    Colors out;
    for (std::size_t i = 0; i < 16; ++i) {
        if (punch_through && in[i][3] < 128) {
            out.of_texel[i] = -1;
            continue;
        }
        const std::array<int, 3> color = {in[i][0], in[i][1], in[i][2]};
        int at = 0;
        while (at < out.count && out.value[static_cast<std::size_t>(at)] != color) ++at;
        if (at == out.count) out.value[static_cast<std::size_t>(out.count++)] = color;
        ++out.weight[static_cast<std::size_t>(at)];
        out.of_texel[i] = at;
    }
    return out;
}

struct Fit {
    Steps a{}, b{};
    int error = std::numeric_limits<int>::max();
};

int block_error(const Colors& colors, const Steps& a, const Steps& b, bool four_colors, int stop_at) {
    const auto palette = make_palette(a, b, four_colors);
    const std::size_t usable = four_colors ? 4 : 3;
    int sum = 0;
    for (std::size_t i = 0; i < static_cast<std::size_t>(colors.count) && sum < stop_at; ++i) {
        int best = std::numeric_limits<int>::max();
        for (std::size_t k = 0; k < usable; ++k) {
            int d = 0;
            for (std::size_t c = 0; c < 3; ++c) {
                const int e = palette.color[k][c] - colors.value[i][c];
                d += e * e;
            }
            best = std::min(best, d);
        }
        sum += best * colors.weight[i];
    }
    return sum;
}

void keep_better(Fit& fit, const Colors& colors, const Steps& a, const Steps& b, bool four_colors) {
    const int error = block_error(colors, a, b, four_colors, fit.error);
    if (error < fit.error) fit = {a, b, error};
}

Vec principal_axis(const Colors& colors) {
    Vec mean{};
    float total = 0;
    for (std::size_t i = 0; i < static_cast<std::size_t>(colors.count); ++i) {
        const auto w = static_cast<float>(colors.weight[i]);
        for (std::size_t c = 0; c < 3; ++c) mean[c] += w * static_cast<float>(colors.value[i][c]);
        total += w;
    }
    mean = mean * (1 / total);
    std::array<Vec, 3> cov{};
    for (std::size_t i = 0; i < static_cast<std::size_t>(colors.count); ++i) {
        Vec d{};
        for (std::size_t c = 0; c < 3; ++c) d[c] = static_cast<float>(colors.value[i][c]) - mean[c];
        for (std::size_t r = 0; r < 3; ++r) cov[r] = cov[r] + d * (d[r] * static_cast<float>(colors.weight[i]));
    }
    // Power iteration from the row with the largest diagonal, which cannot be orthogonal to the axis.
    std::size_t start = 0;
    for (std::size_t r = 1; r < 3; ++r)
        if (cov[r][r] > cov[start][start]) start = r;
    Vec axis = cov[start];
    for (int step = 0; step < 8; ++step) {
        const Vec next = {dot(cov[0], axis), dot(cov[1], axis), dot(cov[2], axis)};
        const float length = std::sqrt(dot(next, next));
        if (length < 1e-6f) break;
        axis = next * (1 / length);
    }
    return axis;
}

Steps to_steps(const Vec& color) {
    Steps s{};
    for (std::size_t c = 0; c < 3; ++c) {
        const float scaled = color[c] * static_cast<float>(top_step[c]) / 255.0f;
        s[c] = std::clamp(static_cast<int>(std::lround(scaled)), 0, top_step[c]);
    }
    return s;
}

/// Best cut of the colors ordered along `axis`; returns endpoints before rounding and their rounded fit.
void cluster_fit(Fit& fit, const Colors& colors, Vec axis, bool four_colors) {
    for (int round = 0; round < 4; ++round) {
        const auto count = static_cast<std::size_t>(colors.count);
        std::array<std::size_t, 16> order{};
        std::array<float, 16> along{};
        for (std::size_t i = 0; i < count; ++i) {
            order[i] = i;
            along[i] = dot(axis, {static_cast<float>(colors.value[i][0]), static_cast<float>(colors.value[i][1]),
                                  static_cast<float>(colors.value[i][2])});
        }
        std::stable_sort(order.begin(), order.begin() + static_cast<std::ptrdiff_t>(count),
                         [&](std::size_t l, std::size_t r) { return along[l] < along[r]; });
        // prefix[i]: weight and weighted color of the first i colors
        std::array<float, 17> weight{};
        std::array<Vec, 17> sum{};
        for (std::size_t i = 0; i < count; ++i) {
            const auto w = static_cast<float>(colors.weight[order[i]]);
            const auto& v = colors.value[order[i]];
            weight[i + 1] = weight[i] + w;
            sum[i + 1] = sum[i] + Vec{static_cast<float>(v[0]), static_cast<float>(v[1]), static_cast<float>(v[2])} * w;
        }
        float best = std::numeric_limits<float>::max();
        Vec best_a{}, best_b{};
        // Runs: [0,i) at a, [i,j) one step on, [j,k) two steps on, [k,count) at b. With three colors the third run is empty.
        const float t1 = four_colors ? 1.0f / 3 : 0.5f, t2 = 2.0f / 3;
        for (std::size_t i = 0; i <= count; ++i)
            for (std::size_t j = i; j <= count; ++j)
                for (std::size_t k = j; k <= (four_colors ? count : j); ++k) {
                    const float w0 = weight[i], w1 = weight[j] - weight[i], w2 = weight[k] - weight[j], w3 = weight[count] - weight[k];
                    const float aa = w0 + w1 * (1 - t1) * (1 - t1) + w2 * (1 - t2) * (1 - t2);
                    const float bb = w3 + w1 * t1 * t1 + w2 * t2 * t2;
                    const float ab = w1 * t1 * (1 - t1) + w2 * t2 * (1 - t2);
                    const float det = aa * bb - ab * ab;
                    if (det < 1e-4f) continue;
                    const Vec s1 = sum[j] - sum[i], s2 = sum[k] - sum[j];
                    const Vec ax = sum[i] + s1 * (1 - t1) + s2 * (1 - t2);
                    const Vec bx = (sum[count] - sum[k]) + s1 * t1 + s2 * t2;
                    Vec a = (ax * bb - bx * ab) * (1 / det), b = (bx * aa - ax * ab) * (1 / det);
                    for (std::size_t c = 0; c < 3; ++c) {  // onto the 5:6:5 grid before the error is taken
                        const auto top = static_cast<float>(top_step[c]);
                        a[c] = std::floor(std::clamp(a[c], 0.0f, 255.0f) * top / 255 + 0.5f) * 255 / top;
                        b[c] = std::floor(std::clamp(b[c], 0.0f, 255.0f) * top / 255 + 0.5f) * 255 / top;
                    }
                    const float error = dot(a, a) * aa + dot(b, b) * bb + 2 * (dot(a, b) * ab - dot(a, ax) - dot(b, bx));
                    if (error < best) best = error, best_a = a, best_b = b;
                }
        if (best == std::numeric_limits<float>::max()) return;
        const int before = fit.error;
        keep_better(fit, colors, to_steps(best_a), to_steps(best_b), four_colors);
        if (fit.error >= before) return;
        axis = best_b - best_a;
    }
}

void walk_neighbors(Fit& fit, const Colors& colors, bool four_colors) {
    for (bool moved = true; moved && fit.error > 0;) {
        moved = false;
        const Fit from = fit;
        for (std::size_t c = 0; c < 3; ++c)
            for (int da = -1; da <= 1; ++da)
                for (int db = -1; db <= 1; ++db) {
                    Steps a = from.a, b = from.b;
                    a[c] += da, b[c] += db;
                    if (a[c] < 0 || a[c] > top_step[c] || b[c] < 0 || b[c] > top_step[c]) continue;
                    keep_better(fit, colors, a, b, four_colors);
                }
        moved = fit.error < from.error;
    }
}

/// For one color: per channel the endpoints whose first third comes closest, over all pairs.
Fit single_color(const std::array<int, 3>& color, bool four_colors) {
    Fit fit{{}, {}, 0};
    for (std::size_t c = 0; c < 3; ++c) {
        int best = std::numeric_limits<int>::max();
        for (int a = 0; a <= top_step[c]; ++a)
            for (int b = 0; b <= top_step[c]; ++b) {
                const int mixed = four_colors ? (2 * expand(a, c) + expand(b, c)) / 3 : (expand(a, c) + expand(b, c)) / 2;
                // Close endpoints are preferred among equals: decoders differ in rounding, and less so over a short distance.
                const int score = std::abs(mixed - color[c]) * 256 + std::abs(a - b);
                if (score < best) best = score, fit.a[c] = a, fit.b[c] = b;
            }
    }
    return fit;
}

}  // namespace

void decode_color_part(const std::byte* bytes, BlockTexels& out, bool four_colors) {
    const auto first = load_le<std::uint16_t>(bytes), second = load_le<std::uint16_t>(bytes + 2);
    const bool four = four_colors || first > second;
    const auto palette = make_palette(unpack(first), unpack(second), four);
    auto indices = load_le<std::uint32_t>(bytes + 4);
    for (auto& texel : out) {
        const auto k = indices & 3;
        indices >>= 2;
        const auto& color = palette.color[k];
        texel = {static_cast<std::uint8_t>(color[0]), static_cast<std::uint8_t>(color[1]), static_cast<std::uint8_t>(color[2]),
                 static_cast<std::uint8_t>(!four && k == 3 ? 0 : 255)};
    }
}

void encode_color_part(const BlockTexels& in, std::byte* bytes, bool punch_through) {
    const auto colors = distinct(in, punch_through);
    const bool transparent = std::find(colors.of_texel.begin(), colors.of_texel.end(), -1) != colors.of_texel.end();
    const bool four_colors = !transparent;
    Fit fit{{}, {}, std::numeric_limits<int>::max()};
    if (colors.count == 0) {
        fit = {{}, {}, 0};
    } else if (colors.count == 1) {
        fit = single_color(colors.value[0], four_colors);
    } else {
        cluster_fit(fit, colors, principal_axis(colors), four_colors);
        if (fit.error == std::numeric_limits<int>::max()) fit = single_color(colors.value[0], four_colors);
        walk_neighbors(fit, colors, four_colors);
    }
    // The order of the endpoints says which mode it is: first > second means four colors.
    auto first = pack(fit.a), second = pack(fit.b);
    if (four_colors ? first < second : first > second) std::swap(first, second);
    const bool flat = four_colors && first == second;  // would read as three colors in BC1: then only index 0 may be used
    const auto palette = make_palette(unpack(first), unpack(second), four_colors);
    std::uint32_t indices = 0;
    for (std::size_t i = 0; i < 16; ++i) {
        std::uint32_t best_index = 0;
        if (colors.of_texel[i] < 0) {
            best_index = 3;
        } else if (!flat) {
            const auto& color = colors.value[static_cast<std::size_t>(colors.of_texel[i])];
            int best = std::numeric_limits<int>::max();
            for (std::uint32_t k = 0; k < (four_colors ? 4u : 3u); ++k) {
                int d = 0;
                for (std::size_t c = 0; c < 3; ++c) d += (palette.color[k][c] - color[c]) * (palette.color[k][c] - color[c]);
                if (d < best) best = d, best_index = k;
            }
        }
        indices |= best_index << (2 * i);
    }
    store_le(bytes, first);
    store_le(bytes + 2, second);
    store_le(bytes + 4, indices);
}

}  // namespace skivet

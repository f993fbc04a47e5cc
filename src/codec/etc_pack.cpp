// Writing ETC1 and ETC2 color blocks.
#include "codec/etc_pack.h"

#include <limits>

#include "codec/etc_tables.h"

namespace skivet::etc {
namespace {

using Rgb = std::array<int, 3>;

int square(int v) { return v * v; }
int to_byte(int v) { return std::clamp(v, 0, 255); }
int from4(int v) { return v << 4 | v; }
int from5(int v) { return v << 3 | v >> 2; }

/// Texel i of the format's own order, which goes down the columns.
const Texel& texel_of(const Texel* texels, std::size_t i) { return texels[i % 4 * 4 + i / 4]; }

using Indices = std::array<std::uint8_t, 16>;

void put(std::uint64_t& bits, unsigned high, unsigned count, int value) {
    bits |= static_cast<std::uint64_t>(value & ((1 << count) - 1)) << (high + 1 - count);
}

void put_indices(std::uint64_t& bits, const std::array<std::uint8_t, 16>& index) {
    for (unsigned i = 0; i < 16; ++i) {
        bits |= static_cast<std::uint64_t>(index[i] >> 1) << (16 + i);
        bits |= static_cast<std::uint64_t>(index[i] & 1) << i;
    }
}

/// Fills free bits so that a base plus its difference leaves 0…31: `base_low` and `difference_low` are the two low bits of each.
void overflow(std::uint64_t& bits, unsigned high, int base_low, int difference_low) {
    const bool under = base_low + difference_low < 4;
    put(bits, high, 3, under ? 0 : 7);
    put(bits, high - 5, 1, under);
}
/// The free highest bit of a base, so that the sum stays inside.
void no_overflow(std::uint64_t& bits, unsigned high) {
    const int base = static_cast<int>(bits >> (high - 4) & 15), difference = (static_cast<int>(bits >> (high - 7) & 7) ^ 4) - 4;
    if (base + difference < 0) put(bits, high, 1, 1);
}

/// The nearest of the colors that are there, the first of equals.
std::uint8_t nearest(const std::array<Rgb, 4>& colors, const Texel& t, bool holes = false) {
    std::uint8_t best = 0;
    int least = std::numeric_limits<int>::max();
    for (std::uint8_t k = 0; k < 4; ++k) {
        if (holes && k == 2) continue;
        const int d = square(colors[k][0] - t[0]) + square(colors[k][1] - t[1]) + square(colors[k][2] - t[2]);
        if (d < least) least = d, best = k;
    }
    return best;
}

std::uint64_t pack_halves(const Colors& colors, const Texel* texels, bool punch_through) {
    const bool differential = colors.mode == Mode::differential || colors.mode == Mode::differential_flipped,
               flip = is_flipped(colors.mode);
    const bool holes = punch_through && std::any_of(texels, texels + 16, [](const Texel& t) { return t[3] < 128; });
    std::array<std::array<Rgb, 4>, 2> steps;
    for (std::size_t h = 0; h < 2; ++h) {
        const auto& m = modifiers[static_cast<std::size_t>(colors.table[h])];
        // Blocks with holes have no small steps, and index 2 is the hole.
        const std::array<int, 4> by = holes ? std::array<int, 4>{0, m[1], 0, -m[1]} : std::array<int, 4>{m[0], m[1], -m[0], -m[1]};
        for (std::size_t k = 0; k < 4; ++k)
            for (std::size_t c = 0; c < 3; ++c)
                steps[h][k][c] = to_byte((differential ? from5(colors.color[h][c]) : from4(colors.color[h][c])) + by[k]);
    }
    std::uint64_t bits = 0;
    for (std::size_t c = 0; c < 3; ++c) {
        const auto at = static_cast<unsigned>(63 - 8 * c);
        if (differential) {
            put(bits, at, 5, colors.color[0][c]);
            put(bits, at - 5, 3, colors.color[1][c] - colors.color[0][c]);
        } else {
            put(bits, at, 4, colors.color[0][c]);
            put(bits, at - 4, 4, colors.color[1][c]);
        }
    }
    put(bits, 39, 3, colors.table[0]);
    put(bits, 36, 3, colors.table[1]);
    put(bits, 33, 1, differential && !holes);
    put(bits, 32, 1, flip);
    Indices index{};
    for (std::size_t i = 0; i < 16; ++i) {
        const auto& t = texel_of(texels, i);
        index[i] = holes && t[3] < 128 ? std::uint8_t{2} : nearest(steps[(flip ? i % 4 : i / 4) / 2], t, holes);
    }
    put_indices(bits, index);
    return bits;
}

std::uint64_t pack_planar(const std::array<Rgb, 3>& q) {
    std::uint64_t b = 0;
    put(b, 62, 6, q[0][0]);
    put(b, 56, 1, q[0][1] >> 6);
    put(b, 54, 6, q[0][1]);
    put(b, 48, 1, q[0][2] >> 5);
    put(b, 44, 2, q[0][2] >> 3);
    put(b, 41, 3, q[0][2]);
    put(b, 38, 5, q[1][0] >> 1);
    put(b, 33, 1, 1);
    put(b, 32, 1, q[1][0]);
    put(b, 31, 7, q[1][1]);
    put(b, 24, 6, q[1][2]);
    put(b, 18, 6, q[2][0]);
    put(b, 12, 7, q[2][1]);
    put(b, 5, 6, q[2][2]);
    no_overflow(b, 63);
    no_overflow(b, 55);
    overflow(b, 47, q[0][2] >> 3 & 3, q[0][2] >> 1 & 3);
    return b;
}

std::array<Rgb, 4> painted(const Rgb& a4, const Rgb& b4, int d, bool h_mode) {
    std::array<Rgb, 4> out;
    for (std::size_t c = 0; c < 3; ++c) {
        const int a = from4(a4[c]), b = from4(b4[c]);
        if (h_mode) out[0][c] = to_byte(a + d), out[1][c] = to_byte(a - d), out[2][c] = to_byte(b + d), out[3][c] = to_byte(b - d);
        else out[0][c] = a, out[1][c] = to_byte(b + d), out[2][c] = b, out[3][c] = to_byte(b - d);
    }
    return out;
}

std::uint64_t pack_painted(const Colors& colors, const Texel* texels) {
    const bool h_mode = colors.mode == Mode::h;
    auto pa = colors.color[0], pb = colors.color[1];
    const int distance = colors.table[0];
    // The colors' order is the lowest bit of H's distance.
    const auto number = [](const Rgb& c) { return c[0] << 8 | c[1] << 4 | c[2]; };
    if (h_mode && (number(pa) >= number(pb)) != ((distance & 1) != 0)) std::swap(pa, pb);
    const auto made = painted(pa, pb, distances[static_cast<std::size_t>(distance)], h_mode);
    std::uint64_t b = 0;
    Indices index{};
    for (std::size_t i = 0; i < 16; ++i) index[i] = nearest(made, texel_of(texels, i));
    put_indices(b, index);
    put(b, 33, 1, 1);
    if (!h_mode) {
        put(b, 60, 2, pa[0] >> 2);
        put(b, 57, 2, pa[0]);
        put(b, 55, 4, pa[1]);
        put(b, 51, 4, pa[2]);
        put(b, 47, 4, pb[0]);
        put(b, 43, 4, pb[1]);
        put(b, 39, 4, pb[2]);
        put(b, 35, 2, distance >> 1);
        put(b, 32, 1, distance);
        overflow(b, 63, pa[0] >> 2, pa[0] & 3);
        return b;
    }
    put(b, 62, 4, pa[0]);
    put(b, 58, 3, pa[1] >> 1);
    put(b, 52, 1, pa[1]);
    put(b, 51, 1, pa[2] >> 3);
    put(b, 49, 3, pa[2]);
    put(b, 46, 4, pb[0]);
    put(b, 42, 4, pb[1]);
    put(b, 38, 4, pb[2]);
    put(b, 34, 1, distance >> 2);
    put(b, 32, 1, distance >> 1);
    no_overflow(b, 63);
    overflow(b, 55, (pa[1] & 1) << 1 | pa[2] >> 3, pa[2] >> 1 & 3);
    return b;
}

}  // namespace

std::uint64_t pack_colors(const Colors& colors, const Texel* texels, bool punch_through) {
    switch (colors.mode) {
        case Mode::planar: return pack_planar(colors.color);
        case Mode::t:
        case Mode::h: return pack_painted(colors, texels);
        default: return pack_halves(colors, texels, punch_through);
    }
}

}  // namespace skivet::etc

// Encoding ETC1, ETC2 and EAC.
//
// A half block is one base color and a table of four brightness steps that move all channels alike. What a step does to a texel depends
// only on the sum of its differences to the base, so choosing the steps is cheap; the base is then the mean of what the steps leave, and
// the two alternate. Both ways to halve the block and both ways to store the bases are tried. ETC2's planar mode is a least-squares plane;
// its T and H modes start from two clusters along the principal axis.
#include "codec/etc_encode.h"

#include <cmath>

#include "codec/etc_tables.h"

namespace skivet {
namespace {

using Rgb = std::array<int, 3>;
constexpr int none_yet = 1 << 30;

int square(int v) { return v * v; }
int to_byte(int v) { return std::clamp(v, 0, 255); }
int from4(int v) { return v << 4 | v; }
int from5(int v) { return v << 3 | v >> 2; }

/// Texels in the format's own order: down the columns.
struct Block {
    std::array<Rgb, 16> color{};
    std::array<bool, 16> clear{};  ///< transparent in the punch-through format
    bool any_clear = false;
};

int distance(const Rgb& a, const Rgb& b) { return square(a[0] - b[0]) + square(a[1] - b[1]) + square(a[2] - b[2]); }

std::size_t half_of(unsigned i, bool flip) { return (flip ? i % 4 : i / 4) / 2; }

struct Half {
    Rgb base{};  ///< quantized
    int table = 0;
    int error = none_yet;
    std::array<std::uint8_t, 16> index{};
};

/// The four steps in the order of their index; punch-through blocks have no small steps and index 2 is the hole.
std::array<int, 4> steps_of(int table, bool holes) {
    const auto& m = etc::modifiers[static_cast<std::size_t>(table)];
    return holes ? std::array<int, 4>{0, m[1], 0, -m[1]} : std::array<int, 4>{m[0], m[1], -m[0], -m[1]};
}

/// Exact error of a half block with this base and table; `half` takes it when it is better.
void try_half(const Block& block, bool flip, std::size_t which, const Rgb& quantized, const Rgb& base, int table, Half& half) {
    const auto steps = steps_of(table, block.any_clear);
    std::array<Rgb, 4> colors;
    for (std::size_t k = 0; k < 4; ++k)
        for (std::size_t c = 0; c < 3; ++c) colors[k][c] = to_byte(base[c] + steps[k]);
    int sum = 0;
    std::array<std::uint8_t, 16> index{};
    for (unsigned i = 0; i < 16 && sum < half.error; ++i) {
        if (half_of(i, flip) != which) continue;
        if (block.clear[i]) {
            index[i] = 2;
            continue;
        }
        int best = none_yet;
        for (std::uint8_t k = 0; k < 4; ++k) {
            if (block.any_clear && k == 2) continue;
            const int d = distance(colors[k], block.color[i]);
            if (d < best) best = d, index[i] = k;
        }
        sum += best;
    }
    if (sum < half.error) half = {quantized, table, sum, index};
}

Rgb quantize(const std::array<double, 3>& color, int top) {
    Rgb out;
    for (std::size_t c = 0; c < 3; ++c) out[c] = std::clamp(static_cast<int>(color[c] * top / 255 + 0.5), 0, top);
    return out;
}

/// The best base (4 or 5 bits a channel) and table of one half.
Half fit_half(const Block& block, bool flip, std::size_t which, int bits, Effort effort) {
    const int top = (1 << bits) - 1;
    const auto expand = [&](const Rgb& q) {
        return bits == 4 ? Rgb{from4(q[0]), from4(q[1]), from4(q[2])} : Rgb{from5(q[0]), from5(q[1]), from5(q[2])};
    };
    std::array<double, 3> mean{};
    int count = 0;
    for (unsigned i = 0; i < 16; ++i) {
        if (half_of(i, flip) != which || block.clear[i]) continue;
        ++count;
        for (std::size_t c = 0; c < 3; ++c) mean[c] += block.color[i][c];
    }
    for (auto& m : mean) m = count ? m / count : 0;
    Half best;
    for (int table = 0; table < 8; ++table) {
        auto wanted = mean;
        const auto steps = steps_of(table, block.any_clear);
        Rgb last = {-1, -1, -1};
        for (int round = 0; round < (effort == Effort::fast ? 1 : 3); ++round) {
            const auto q = quantize(wanted, top);
            if (q == last) break;
            last = q;
            const auto base = expand(q);
            try_half(block, flip, which, q, base, table, best);
            // The mean of what the steps leave, for the next round.
            std::array<double, 3> sum{};
            for (unsigned i = 0; i < 16; ++i) {
                if (half_of(i, flip) != which || block.clear[i]) continue;
                int s = 0;
                for (std::size_t c = 0; c < 3; ++c) s += block.color[i][c] - base[c];
                int step = steps[0];
                for (const int m : steps)
                    if (std::abs(3 * m - s) < std::abs(3 * step - s)) step = m;
                for (std::size_t c = 0; c < 3; ++c) sum[c] += block.color[i][c] - step;
            }
            for (std::size_t c = 0; c < 3; ++c) wanted[c] = count ? sum[c] / count : 0;
        }
    }
    if (effort == Effort::fast || best.error == 0) return best;
    for (bool moved = true; moved;) {  // neighbors of the base, and of the table
        moved = false;
        const auto from = best;
        for (int dr = -1; dr <= 1; ++dr)
            for (int dg = -1; dg <= 1; ++dg)
                for (int db = -1; db <= 1; ++db) {
                    if (effort == Effort::normal && std::abs(dr) + std::abs(dg) + std::abs(db) > 1 && !(dr == dg && dg == db)) continue;
                    const Rgb q = {from.base[0] + dr, from.base[1] + dg, from.base[2] + db};
                    if (std::any_of(q.begin(), q.end(), [&](int v) { return v < 0 || v > top; })) continue;
                    for (int table = std::max(0, from.table - 1); table <= std::min(7, from.table + 1); ++table)
                        try_half(block, flip, which, q, expand(q), table, best);
                }
        moved = best.error < from.error;
    }
    return best;
}

/// A finished block and its error.
struct Coded {
    std::uint64_t bits = 0;
    int error = none_yet;
};
void keep_better(Coded& best, const Coded& next) {
    if (next.error < best.error) best = next;
}

void put(std::uint64_t& bits, unsigned high, unsigned count, int value) {
    bits |= static_cast<std::uint64_t>(value & ((1 << count) - 1)) << (high + 1 - count);
}

void put_indices(std::uint64_t& bits, const std::array<std::uint8_t, 16>& index) {
    for (unsigned i = 0; i < 16; ++i) {
        bits |= static_cast<std::uint64_t>(index[i] >> 1) << (16 + i);
        bits |= static_cast<std::uint64_t>(index[i] & 1) << i;
    }
}

Coded code_halves(const std::array<Half, 2>& half, bool flip, bool differential, bool bit33) {
    Coded out;
    out.error = half[0].error + half[1].error;
    for (std::size_t c = 0; c < 3; ++c) {
        const auto at = static_cast<unsigned>(63 - 8 * c);
        if (differential) {
            put(out.bits, at, 5, half[0].base[c]);
            put(out.bits, at - 5, 3, half[1].base[c] - half[0].base[c]);
        } else {
            put(out.bits, at, 4, half[0].base[c]);
            put(out.bits, at - 4, 4, half[1].base[c]);
        }
    }
    put(out.bits, 39, 3, half[0].table);
    put(out.bits, 36, 3, half[1].table);
    put(out.bits, 33, 1, bit33);
    put(out.bits, 32, 1, flip);
    std::array<std::uint8_t, 16> index{};
    for (unsigned i = 0; i < 16; ++i) index[i] = half[half_of(i, flip)].index[i];
    put_indices(out.bits, index);
    return out;
}

bool close_bases(const Rgb& a, const Rgb& b) {
    for (std::size_t c = 0; c < 3; ++c)
        if (b[c] - a[c] < -4 || b[c] - a[c] > 3) return false;
    return true;
}

/// The modes ETC1 has. `individual`: two bases of 4 bits are allowed (not in the punch-through format).
Coded fit_halves(const Block& block, bool individual, Effort effort) {
    Coded best;
    for (const bool flip : {false, true}) {
        std::array<Half, 2> half = {fit_half(block, flip, 0, 5, effort), fit_half(block, flip, 1, 5, effort)};
        const bool bit33 = individual || !block.any_clear;
        if (close_bases(half[0].base, half[1].base)) {
            keep_better(best, code_halves(half, flip, true, bit33));
        } else {  // one base is pulled to where the other can reach it
            for (const std::size_t fixed : {0u, 1u}) {
                auto pulled = half;
                auto& moved = pulled[1 - fixed];
                const Rgb& anchor = half[fixed].base;
                Rgb q = moved.base;
                for (std::size_t c = 0; c < 3; ++c)
                    q[c] = std::clamp(
                        fixed == 0 ? std::clamp(q[c], anchor[c] - 4, anchor[c] + 3) : std::clamp(q[c], anchor[c] - 3, anchor[c] + 4), 0,
                        31);
                moved.error = none_yet;
                for (int table = 0; table < 8; ++table)
                    try_half(block, flip, 1 - fixed, q, {from5(q[0]), from5(q[1]), from5(q[2])}, table, moved);
                keep_better(best, code_halves(pulled, flip, true, bit33));
            }
        }
        if (individual)
            keep_better(best, code_halves({fit_half(block, flip, 0, 4, effort), fit_half(block, flip, 1, 4, effort)}, flip, false, false));
    }
    return best;
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

Coded fit_planar(const Block& block, Effort effort) {
    // Least squares for O + x (H - O) / 4 + y (V - O) / 4 over x, y = 0…3; texel i is at x = i / 4, y = i % 4.
    constexpr std::array<int, 3> top = {63, 127, 63};
    std::array<Rgb, 3> q{};  // O, H, V
    const auto value = [&](int code, std::size_t c) { return c == 1 ? code << 1 | code >> 6 : code << 2 | code >> 4; };
    const auto channel_error = [&](std::size_t c, int o, int h, int v) {
        const int eo = value(o, c), eh = value(h, c), ev = value(v, c);
        int sum = 0;
        for (int i = 0; i < 16; ++i) {
            const int x = i / 4, y = i % 4;
            sum += square(to_byte((x * (eh - eo) + y * (ev - eo) + 4 * eo + 2) >> 2) - block.color[static_cast<std::size_t>(i)][c]);
        }
        return sum;
    };
    Coded out;
    out.error = 0;
    for (std::size_t c = 0; c < 3; ++c) {
        double mean = 0, sx = 0, sy = 0;
        for (std::size_t i = 0; i < 16; ++i) {
            const double v = block.color[i][c];
            mean += v / 16;
            sx += (static_cast<double>(i / 4) - 1.5) * v;
            sy += (static_cast<double>(i % 4) - 1.5) * v;
        }
        const double slope_x = sx / 20, slope_y = sy / 20;  // Σ(x - 1.5)² over the block is 20
        const double o = mean - 1.5 * (slope_x + slope_y);
        const auto code = [&](double v) { return std::clamp(static_cast<int>(std::floor(v * top[c] / 255 + 0.5)), 0, top[c]); };
        Rgb best = {code(o), code(o + 4 * slope_x), code(o + 4 * slope_y)};
        int error = channel_error(c, best[0], best[1], best[2]);
        for (bool moved = effort != Effort::fast; moved;) {
            moved = false;
            const auto from = best;
            for (int d0 = -1; d0 <= 1; ++d0)
                for (int d1 = -1; d1 <= 1; ++d1)
                    for (int d2 = -1; d2 <= 1; ++d2) {
                        const Rgb next = {from[0] + d0, from[1] + d1, from[2] + d2};
                        if (std::any_of(next.begin(), next.end(), [&](int v) { return v < 0 || v > top[c]; })) continue;
                        const int e = channel_error(c, next[0], next[1], next[2]);
                        if (e < error) error = e, best = next, moved = true;
                    }
        }
        for (std::size_t k = 0; k < 3; ++k) q[k][c] = best[k];
        out.error += error;
    }
    auto& b = out.bits;
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
    return out;
}

struct Paint {
    Rgb a{}, b{};  ///< 4 bits a channel
    int distance = 0;
    int error = none_yet;
    std::array<std::uint8_t, 16> index{};
};

std::array<Rgb, 4> paint_colors(const Rgb& a4, const Rgb& b4, int d, bool h_mode) {
    std::array<Rgb, 4> out;
    for (std::size_t c = 0; c < 3; ++c) {
        const int a = from4(a4[c]), b = from4(b4[c]);
        if (h_mode) out[0][c] = to_byte(a + d), out[1][c] = to_byte(a - d), out[2][c] = to_byte(b + d), out[3][c] = to_byte(b - d);
        else out[0][c] = a, out[1][c] = to_byte(b + d), out[2][c] = b, out[3][c] = to_byte(b - d);
    }
    return out;
}

void try_paint(const Block& block, const Rgb& a, const Rgb& b, int distance_index, bool h_mode, Paint& best) {
    if (h_mode && a == b && !(distance_index & 1)) return;  // the colors' order is the lowest bit of the distance
    const auto colors = paint_colors(a, b, etc::distances[static_cast<std::size_t>(distance_index)], h_mode);
    int sum = 0;
    std::array<std::uint8_t, 16> index{};
    for (std::size_t i = 0; i < 16 && sum < best.error; ++i) {
        int nearest = none_yet;
        for (std::uint8_t k = 0; k < 4; ++k) {
            const int d = distance(colors[k], block.color[i]);
            if (d < nearest) nearest = d, index[i] = k;
        }
        sum += nearest;
    }
    if (sum < best.error) best = {a, b, distance_index, sum, index};
}

Coded code_t(const Paint& p) {
    Coded out{0, p.error};
    auto& b = out.bits;
    put(b, 60, 2, p.a[0] >> 2);
    put(b, 57, 2, p.a[0]);
    put(b, 55, 4, p.a[1]);
    put(b, 51, 4, p.a[2]);
    put(b, 47, 4, p.b[0]);
    put(b, 43, 4, p.b[1]);
    put(b, 39, 4, p.b[2]);
    put(b, 35, 2, p.distance >> 1);
    put(b, 33, 1, 1);
    put(b, 32, 1, p.distance);
    put_indices(b, p.index);
    overflow(b, 63, p.a[0] >> 2, p.a[0] & 3);
    return out;
}

Coded code_h(Paint p) {
    const auto number = [](const Rgb& c) { return c[0] << 8 | c[1] << 4 | c[2]; };
    if ((number(p.a) >= number(p.b)) != ((p.distance & 1) != 0)) {
        std::swap(p.a, p.b);
        for (auto& k : p.index) k ^= 2;
    }
    Coded out{0, p.error};
    auto& b = out.bits;
    put(b, 62, 4, p.a[0]);
    put(b, 58, 3, p.a[1] >> 1);
    put(b, 52, 1, p.a[1]);
    put(b, 51, 1, p.a[2] >> 3);
    put(b, 49, 3, p.a[2]);
    put(b, 46, 4, p.b[0]);
    put(b, 42, 4, p.b[1]);
    put(b, 38, 4, p.b[2]);
    put(b, 34, 1, p.distance >> 2);
    put(b, 33, 1, 1);
    put(b, 32, 1, p.distance >> 1);
    put_indices(b, p.index);
    no_overflow(b, 63);
    overflow(b, 55, (p.a[1] & 1) << 1 | p.a[2] >> 3, p.a[2] >> 1 & 3);
    return out;
}

/// T and H from cuts of the texels' order along their principal axis.
Coded fit_paint(const Block& block, Effort effort, int good_enough) {
    std::array<double, 3> mean{}, axis{};
    for (const auto& c : block.color)
        for (std::size_t k = 0; k < 3; ++k) mean[k] += c[k] / 16.0;
    std::array<std::array<double, 3>, 3> cov{};
    for (const auto& c : block.color)
        for (std::size_t p = 0; p < 3; ++p)
            for (std::size_t q = 0; q < 3; ++q) cov[p][q] += (c[p] - mean[p]) * (c[q] - mean[q]);
    const std::size_t largest = cov[0][0] >= cov[1][1] && cov[0][0] >= cov[2][2] ? 0 : cov[1][1] >= cov[2][2] ? 1 : 2;
    axis = cov[largest];
    for (int round = 0; round < 4; ++round) {
        std::array<double, 3> next{};
        double size = 0;
        for (std::size_t p = 0; p < 3; ++p) {
            for (std::size_t q = 0; q < 3; ++q) next[p] += cov[p][q] * axis[q];
            size = std::max(size, std::abs(next[p]));
        }
        if (size < 1e-9) return {};
        for (std::size_t p = 0; p < 3; ++p) axis[p] = next[p] / size;
    }
    std::array<std::pair<double, std::size_t>, 16> order;
    for (std::size_t i = 0; i < 16; ++i) {
        double t = 0;
        for (std::size_t c = 0; c < 3; ++c) t += axis[c] * (block.color[i][c] - mean[c]);
        order[i] = {t, i};
    }
    std::sort(order.begin(), order.end());
    // Cuts by what two means leave, best first.
    std::array<std::pair<double, std::size_t>, 15> cuts;
    for (std::size_t cut = 1; cut < 16; ++cut) {
        double low = 0, high = 0;
        for (std::size_t i = 0; i < 16; ++i) (i < cut ? low : high) += order[i].first;
        cuts[cut - 1] = {-(low * low / static_cast<double>(cut) + high * high / static_cast<double>(16 - cut)), cut};
    }
    std::sort(cuts.begin(), cuts.end());
    Paint best_t, best_h;
    best_t.error = best_h.error = good_enough;
    for (std::size_t n = 0; n < (effort == Effort::best ? 4u : 1u); ++n) {
        std::array<std::array<double, 3>, 2> sum{};
        for (std::size_t i = 0; i < 16; ++i)
            for (std::size_t c = 0; c < 3; ++c)
                sum[i >= cuts[n].second][c] +=
                    block.color[order[i].second][c] / static_cast<double>(i < cuts[n].second ? cuts[n].second : 16 - cuts[n].second);
        const auto low = quantize(sum[0], 15), high = quantize(sum[1], 15);
        for (int d = 0; d < 8; ++d) {
            try_paint(block, low, high, d, false, best_t);
            try_paint(block, high, low, d, false, best_t);
            try_paint(block, low, high, d, true, best_h);
        }
    }
    const auto walk = [&](Paint& best, bool h_mode) {
        if (best.error >= good_enough) return;
        for (bool moved = true; moved;) {
            const auto from = best;
            for (std::size_t k = 0; k < 6; ++k)
                for (const int by : {-1, 1}) {
                    auto a = from.a, b = from.b;
                    auto& v = k < 3 ? a[k] : b[k - 3];
                    v += by;
                    if (v < 0 || v > 15) continue;
                    for (int d = std::max(0, from.distance - 1); d <= std::min(7, from.distance + 1); ++d)
                        try_paint(block, a, b, d, h_mode, best);
                }
            moved = best.error < from.error;
        }
    };
    if (effort != Effort::fast) walk(best_t, false), walk(best_h, true);
    Coded out;
    if (best_t.error < good_enough) keep_better(out, code_t(best_t));
    if (best_h.error < good_enough) keep_better(out, code_h(best_h));
    return out;
}

enum class Variant { etc1, rgb, punch_through };

template <Variant variant>
void encode_block(const Texel* texels, std::byte* out, Effort effort) {
    Block block;
    for (std::size_t i = 0; i < 16; ++i) {
        const auto& t = texels[i % 4 * 4 + i / 4];
        block.color[i] = {t[0], t[1], t[2]};
        block.clear[i] = variant == Variant::punch_through && t[3] < 128;
        block.any_clear = block.any_clear || block.clear[i];
    }
    auto best = fit_halves(block, variant != Variant::punch_through, effort);
    if (variant != Variant::etc1 && !block.any_clear && best.error > 0) {
        keep_better(best, fit_planar(block, effort));
        if (effort != Effort::fast && best.error > 0) keep_better(best, fit_paint(block, effort, best.error));
    }
    store_uint(out, best.bits, 8, ByteOrder::big);
}

template <Variant variant, std::size_t stride, std::size_t offset>
void encode_colors(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    for (std::size_t i = 0; i < count; ++i) encode_block<variant>(blocks + i * 16, out + i * stride + offset, options.effort);
}

/// An EAC channel: values between `low` and `high`, a base every `unit` (plus `shift`), modifiers times multiplier times unit.
struct EacScale {
    int low, high, unit, shift;
    int base_low, base_high;
    bool fine_zero;  ///< a multiplier of 0 stands for modifiers in the values' own steps
};

void encode_eac(const std::array<double, 16>& values, const EacScale& scale, std::byte* out, Effort effort) {
    const auto [low_it, high_it] = std::minmax_element(values.begin(), values.end());
    const double low = *low_it, high = *high_it;
    double best = 1e30;
    int best_base = 0, best_multiplier = 1, best_table = 0;
    std::array<std::uint8_t, 16> best_index{};
    const auto attempt = [&](int base, int multiplier, int table) {
        if (base < scale.base_low || base > scale.base_high || multiplier < 0 || multiplier > 15) return;
        const int per_step = multiplier ? multiplier * scale.unit : scale.fine_zero ? 1 : 0;
        std::array<int, 8> decoded;
        for (std::size_t k = 0; k < 8; ++k)
            decoded[k] = std::clamp(base * scale.unit + scale.shift + etc::eac_modifiers[static_cast<std::size_t>(table)][k] * per_step,
                                    scale.low, scale.high);
        double sum = 0;
        std::array<std::uint8_t, 16> index{};
        for (std::size_t i = 0; i < 16 && sum < best; ++i) {
            double nearest = 1e30;
            for (std::uint8_t k = 0; k < 8; ++k) {
                const double d = (decoded[k] - values[i]) * (decoded[k] - values[i]);
                if (d < nearest) nearest = d, index[i] = k;
            }
            sum += nearest;
        }
        if (sum < best) best = sum, best_base = base, best_multiplier = multiplier, best_table = table, best_index = index;
    };
    const int reach = effort == Effort::fast ? 0 : effort == Effort::normal ? 1 : 2;
    for (int table = 0; table < 16; ++table) {
        const auto& m = etc::eac_modifiers[static_cast<std::size_t>(table)];
        const double bottom = m[3], top = m[7];
        const double exact = (high - low) / ((top - bottom) * scale.unit);
        for (int dm = -(reach > 0); dm <= (reach > 0); ++dm) {
            const int multiplier = std::clamp(static_cast<int>(std::floor(exact + 0.5)) + dm, 0, 15);
            const double step = multiplier ? multiplier * scale.unit : scale.fine_zero ? 1 : 0;
            // The modifiers' ends over the values' ends.
            const int base = static_cast<int>(std::floor(((low + high - (top + bottom) * step) / 2 - scale.shift) / scale.unit + 0.5));
            for (int db = -reach; db <= reach; ++db) attempt(std::clamp(base + db, scale.base_low, scale.base_high), multiplier, table);
        }
    }
    std::uint64_t bits = static_cast<std::uint64_t>(best_base & 255) << 56 | static_cast<std::uint64_t>(best_multiplier) << 52 |
                         static_cast<std::uint64_t>(best_table) << 48;
    for (unsigned i = 0; i < 16; ++i) bits |= static_cast<std::uint64_t>(best_index[i]) << (45 - 3 * i);
    store_uint(out, bits, 8, ByteOrder::big);
}

constexpr EacScale alpha_scale{0, 255, 1, 0, 0, 255, false}, unsigned_scale{0, 2047, 8, 4, 0, 255, true},
    signed_scale{-1023, 1023, 8, 0, -127, 127, true};

template <bool is_signed, std::size_t channels>
void encode_channels(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    for (std::size_t b = 0; b < count; ++b)
        for (std::size_t c = 0; c < channels; ++c) {
            std::array<double, 16> values;
            for (std::size_t i = 0; i < 16; ++i) {
                const float v = blocks[b * 16 + i % 4 * 4 + i / 4][c];
                values[i] = std::isnan(v) ? 0.0
                            : is_signed   ? std::clamp(static_cast<double>(v), -1.0, 1.0) * 1023
                                          : std::clamp(static_cast<double>(v), 0.0, 1.0) * 2047;
            }
            encode_eac(values, is_signed ? signed_scale : unsigned_scale, out + (b * channels + c) * 8, options.effort);
        }
}

}  // namespace

void encode_etc1(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    encode_colors<Variant::etc1, 8, 0>(blocks, count, out, options);
}
void encode_etc2_rgb(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    encode_colors<Variant::rgb, 8, 0>(blocks, count, out, options);
}
void encode_etc2_rgba1(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    encode_colors<Variant::punch_through, 8, 0>(blocks, count, out, options);
}
void encode_etc2_rgba(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    encode_colors<Variant::rgb, 16, 8>(blocks, count, out, options);
    for (std::size_t b = 0; b < count; ++b) {
        std::array<double, 16> values;
        for (std::size_t i = 0; i < 16; ++i) values[i] = blocks[b * 16 + i % 4 * 4 + i / 4][3];
        encode_eac(values, alpha_scale, out + b * 16, options.effort);
    }
}
void encode_eac_r(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    encode_channels<false, 1>(blocks, count, out, options);
}
void encode_eac_r_snorm(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    encode_channels<true, 1>(blocks, count, out, options);
}
void encode_eac_rg(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    encode_channels<false, 2>(blocks, count, out, options);
}
void encode_eac_rg_snorm(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    encode_channels<true, 2>(blocks, count, out, options);
}

}  // namespace skivet

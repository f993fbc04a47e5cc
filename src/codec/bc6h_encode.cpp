// Encoding BC6H. A lane is a block (see lanes-inl.h).
//
// Everything happens on the bits of the halves taken as integers, where the decoder interpolates too; equal steps there are about equal
// ratios of light, so a plain squared error is close to an error of the logarithm. A line (or two, by the 32 partitions that suit best)
// is fitted, its ends are quantized for every mode whose deltas can hold them, texels take the nearest decoded value, and ends are solved
// again. Lines are turned so that the anchor texel lies in their first half: then its index never needs the missing bit.
//
// Values, ends and interpolation are whole numbers below 2^24, which floats hold exactly.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "codec/bc6h_encode.cpp"
#include <hwy/foreach_target.h>
//
#include <cmath>

#include "codec/bc6h_encode.h"
#include "codec/bc6h_pack.h"
#include "codec/bc6h_tables.h"
#include "codec/bc7_tables.h"
#include "codec/lanes-inl.h"
#include "pixel/half.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

constexpr float no_error = 1e30f;
using Planes = std::array<Plane, 3>;

HWY_INLINE V3 texel(const Planes& p, std::size_t i) { return {get(p[0], i), get(p[1], i), get(p[2], i)}; }
HWY_INLINE V3 sub3(const V3& a, const V3& b) { return {hn::Sub(a[0], b[0]), hn::Sub(a[1], b[1]), hn::Sub(a[2], b[2])}; }
HWY_INLINE VF whole_below(VF x, float factor) { return hn::Floor(hn::Mul(x, set(factor))); }

/// Two regions, which may be another two in each lane; of one region the second is empty.
struct Regions {
    Plane second;     ///< 1 where a texel is in the second
    Plane is_anchor;  ///< 1 where its index has one bit less
    std::array<V3, 2> anchor;
    std::size_t count = 1;
    [[nodiscard]] HWY_INLINE VF weight(std::size_t region, std::size_t i) const {
        const auto s = get(second, i);
        return region == 0 ? hn::Sub(set(1), s) : s;
    }
};
struct Line {
    V3 a, b;
};

/// Least squares' axis and largest eigenvalue of a region's spread {xx, xy, xz, yy, yz, zz}.
HWY_INLINE VF eigenvalue(const std::array<VF, 6>& m, const V3& axis) {
    const V3 w = {dot3({m[0], m[1], m[2]}, axis), dot3({m[1], m[3], m[4]}, axis), dot3({m[2], m[4], m[5]}, axis)};
    return hn::Div(dot3(w, axis), most(dot3(axis, axis), set(1e-20f)));
}

/// The axis through a region's mean, as far as its texels go, the anchor in its first half.
Line spread_of(const Planes& texels, const Regions& regions, std::size_t region) {
    V3 mean = {zero(), zero(), zero()};
    auto count = zero();
    for (std::size_t i = 0; i < 16; ++i) {
        const auto w = regions.weight(region, i);
        const auto t = texel(texels, i);
        for (std::size_t c = 0; c < 3; ++c) mean[c] = hn::Add(mean[c], hn::Mul(t[c], w));
        count = hn::Add(count, w);
    }
    for (auto& m : mean) m = hn::Div(m, most(count, set(1)));
    std::array<VF, 6> m;
    m.fill(zero());
    for (std::size_t i = 0; i < 16; ++i) {
        const auto d = sub3(texel(texels, i), mean);
        const auto w = regions.weight(region, i);
        for (std::size_t p = 0, n = 0; p < 3; ++p)
            for (std::size_t q = p; q < 3; ++q, ++n) m[n] = hn::Add(m[n], hn::Mul(hn::Mul(d[p], d[q]), w));
    }
    const auto axis = principal_axis(m);
    const auto size = most(dot3(axis, axis), set(1e-20f));
    auto low = zero(), high = zero();
    for (std::size_t i = 0; i < 16; ++i) {
        const auto t = hn::Mul(hn::Div(dot3(sub3(texel(texels, i), mean), axis), size), regions.weight(region, i));
        low = least(low, t);
        high = most(high, t);
    }
    Line line;
    for (std::size_t c = 0; c < 3; ++c) {
        line.a[c] = hn::Add(mean[c], hn::Mul(axis[c], low));
        line.b[c] = hn::Add(mean[c], hn::Mul(axis[c], high));
    }
    const auto d = sub3(line.b, line.a), from = sub3(regions.anchor[region], line.a);
    const auto turned = hn::Gt(hn::Mul(dot3(from, d), set(2)), dot3(d, d));
    for (std::size_t c = 0; c < 3; ++c) {
        const auto a = line.a[c];
        line.a[c] = select(turned, line.b[c], a);
        line.b[c] = select(turned, a, line.b[c]);
    }
    return line;
}

/// See bc6h::unquantize.
template <bool is_signed>
HWY_INLINE VF unquantized(VF q, unsigned bits) {
    if (bits >= (is_signed ? 16u : 15u)) return q;
    const auto size = is_signed ? hn::Abs(q) : q;
    const auto top = static_cast<float>((1 << (is_signed ? bits - 1 : bits)) - 1);
    const auto between = whole_below(hn::Add(hn::Mul(size, set(32768)), set(16384)), 1 / static_cast<float>(1 << (bits - 1)));
    auto out = select(hn::Ge(size, set(top)), set(is_signed ? 32767 : 65535), between);
    out = select(hn::Eq(size, zero()), zero(), out);
    return is_signed ? hn::CopySign(out, q) : out;
}
/// bc6h::finish, as an integer.
template <bool is_signed>
HWY_INLINE VF finished(VF v) {
    if constexpr (is_signed) return hn::CopySign(whole_below(hn::Abs(v), 31.0f / 32), v);
    else return whole_below(v, 31.0f / 64);
}
template <bool is_signed>
HWY_INLINE VF quantized(VF value, unsigned bits) {
    const float low = is_signed ? static_cast<float>(-(1 << (bits - 1)) + 1) : 0;
    const auto high = static_cast<float>((1 << (is_signed ? bits - 1 : bits)) - 1);
    const float factor =
        is_signed ? 32 / 31.0f * static_cast<float>(1 << (bits - 1)) / 32768 : 64 / 31.0f * static_cast<float>(1 << bits) / 65536;
    const auto guess = whole_below(value, factor);
    auto best = zero(), error = set(no_error);
    for (const float by : {-1.0f, 0.0f, 1.0f}) {
        const auto q = clamp(hn::Add(guess, set(by)), low, high);
        const auto e = hn::Abs(hn::Sub(finished<is_signed>(unquantized<is_signed>(q, bits)), value));
        const auto better = hn::Lt(e, error);
        best = select(better, q, best);
        error = select(better, e, error);
    }
    return best;
}

struct Choice {
    VF error, mode, partition;
    std::array<V3, 4> end;
    Choice() : error(set(no_error)), mode(set(10)), partition(zero()) { end.fill({zero(), zero(), zero()}); }
};

/// The error where texels take the nearest value of their lines; the lines solved for what they took.
template <bool is_signed>
VF assigned(const Planes& texels, const Regions& regions, const std::array<V3, 4>& end, unsigned endpoint_bits,
            std::array<Line, 2>& solved) {
    const unsigned index_bits = regions.count == 2 ? 3 : 4, count = 1u << index_bits;
    const auto* w = bptc::weights(index_bits);
    std::array<V3, 4> ends;
    for (std::size_t e = 0; e < 2 * regions.count; ++e)
        for (std::size_t c = 0; c < 3; ++c) ends[e][c] = unquantized<is_signed>(end[e][c], endpoint_bits);
    Plane best, taken;
    for (unsigned k = 0; k < count; ++k) {
        const auto weight = set(static_cast<float>(w[k])), other = set(static_cast<float>(64 - w[k]));
        std::array<V3, 2> color;
        for (std::size_t r = 0; r < regions.count; ++r)
            for (std::size_t c = 0; c < 3; ++c) {
                const auto mixed = hn::Add(hn::Add(hn::Mul(ends[2 * r][c], other), hn::Mul(ends[2 * r + 1][c], weight)), set(32));
                color[r][c] = finished<is_signed>(whole_below(mixed, 1.0f / 64));
            }
        for (std::size_t i = 0; i < 16; ++i) {
            auto mine = color[0];
            if (regions.count == 2) {
                const auto second = hn::Gt(get(regions.second, i), zero());
                for (std::size_t c = 0; c < 3; ++c) mine[c] = select(second, color[1][c], mine[c]);
            }
            const auto off = sub3(mine, texel(texels, i));
            auto d = dot3(off, off);
            if (k == 0) {
                put(best, i, d);
                put(taken, i, zero());
                continue;
            }
            if (k >= count / 2) d = select(hn::Gt(get(regions.is_anchor, i), zero()), set(no_error), d);
            const auto before = get(best, i);
            const auto better = hn::Lt(d, before);
            put(best, i, select(better, d, before));
            put(taken, i, select(better, weight, get(taken, i)));
        }
    }
    auto sum = zero();
    for (std::size_t i = 0; i < 16; ++i) sum = hn::Add(sum, get(best, i));
    for (std::size_t r = 0; r < regions.count; ++r) {
        auto aa = zero(), ab = zero(), bb = zero();
        V3 ax = {zero(), zero(), zero()}, bx = ax;
        for (std::size_t i = 0; i < 16; ++i) {
            const auto in = regions.weight(r, i);
            const auto beta = hn::Mul(hn::Mul(get(taken, i), set(1.0f / 64)), in), alpha = hn::Sub(in, beta);
            aa = hn::Add(aa, hn::Mul(alpha, alpha));
            ab = hn::Add(ab, hn::Mul(alpha, beta));
            bb = hn::Add(bb, hn::Mul(beta, beta));
            const auto t = texel(texels, i);
            for (std::size_t c = 0; c < 3; ++c) {
                ax[c] = hn::Add(ax[c], hn::Mul(alpha, t[c]));
                bx[c] = hn::Add(bx[c], hn::Mul(beta, t[c]));
            }
        }
        const auto det = hn::Sub(hn::Mul(aa, bb), hn::Mul(ab, ab));
        const auto solvable = hn::Gt(det, set(1e-4f));
        const auto scale = hn::Div(set(1), select(solvable, det, set(1)));
        for (std::size_t c = 0; c < 3; ++c) {
            const auto a = hn::Mul(hn::Sub(hn::Mul(ax[c], bb), hn::Mul(bx[c], ab)), scale);
            const auto b = hn::Mul(hn::Sub(hn::Mul(bx[c], aa), hn::Mul(ax[c], ab)), scale);
            solved[r].a[c] = select(solvable, a, solved[r].a[c]);
            solved[r].b[c] = select(solvable, b, solved[r].b[c]);
        }
    }
    return sum;
}

template <bool is_signed>
void try_mode(const Planes& texels, std::size_t number, VF partition, const Regions& regions, std::array<Line, 2> lines, int rounds,
              MF active, Choice& best) {
    const auto& mode = bc6h::modes[number];
    for (int round = 0; round <= rounds; ++round) {
        std::array<V3, 4> end;
        end.fill({zero(), zero(), zero()});
        for (std::size_t r = 0; r < regions.count; ++r)
            for (std::size_t c = 0; c < 3; ++c) {
                end[2 * r][c] = quantized<is_signed>(lines[r].a[c], mode.endpoint_bits);
                end[2 * r + 1][c] = quantized<is_signed>(lines[r].b[c], mode.endpoint_bits);
            }
        for (std::size_t e = 1; e < 2 * regions.count && mode.deltas; ++e)
            for (std::size_t c = 0; c < 3; ++c) {
                const auto limit = static_cast<float>(1 << (mode.delta_bits[c] - 1));
                const auto d = hn::Sub(end[e][c], end[0][c]);
                active = hn::And(active, hn::And(hn::Ge(d, set(-limit)), hn::Lt(d, set(limit))));
            }
        if (hn::AllFalse(DF(), active)) return;
        const auto error = select(active, assigned<is_signed>(texels, regions, end, mode.endpoint_bits, lines), set(no_error));
        const auto better = hn::Lt(error, best.error);
        best.error = select(better, error, best.error);
        best.mode = select(better, set(static_cast<float>(number)), best.mode);
        best.partition = select(better, partition, best.partition);
        for (std::size_t e = 0; e < 4; ++e)
            for (std::size_t c = 0; c < 3; ++c) best.end[e][c] = select(better, end[e][c], best.end[e][c]);
        // A line that was solved and is no better is not solved again.
        if (round > 0) active = hn::And(active, better);
    }
}

constexpr std::size_t most_partitions = 8;

/// The partitions whose regions are most like lines, best first.
std::array<VF, most_partitions> ranked(const Planes& texels, std::size_t wanted) {
    V3 mean = {zero(), zero(), zero()};
    for (std::size_t i = 0; i < 16; ++i) {
        const auto t = texel(texels, i);
        for (std::size_t c = 0; c < 3; ++c) mean[c] = hn::Add(mean[c], hn::Mul(t[c], set(1.0f / 16)));
    }
    // Each texel's part of the sums: itself and its products, about the mean, so that little is lost to rounding.
    std::array<Plane, 9> parts;
    std::array<VF, 9> all;
    all.fill(zero());
    for (std::size_t i = 0; i < 16; ++i) {
        const auto d = sub3(texel(texels, i), mean);
        for (std::size_t c = 0; c < 3; ++c) put(parts[c], i, d[c]);
        for (std::size_t p = 0, n = 3; p < 3; ++p)
            for (std::size_t q = p; q < 3; ++q, ++n) put(parts[n], i, hn::Mul(d[p], d[q]));
        for (std::size_t n = 0; n < 9; ++n) all[n] = hn::Add(all[n], get(parts[n], i));
    }
    std::array<VF, most_partitions> score, best;
    score.fill(set(no_error));
    best.fill(zero());
    for (std::size_t p = 0; p < 32; ++p) {
        std::array<std::array<VF, 9>, 2> sums;
        sums[1].fill(zero());
        float count = 0;
        for (std::size_t i = 0; i < 16; ++i) {
            if (!bptc::partitions2[p][i]) continue;
            ++count;
            for (std::size_t n = 0; n < 9; ++n) sums[1][n] = hn::Add(sums[1][n], get(parts[n], i));
        }
        for (std::size_t n = 0; n < 9; ++n) sums[0][n] = hn::Sub(all[n], sums[1][n]);
        auto off = zero();
        for (std::size_t r = 0; r < 2; ++r) {
            const auto& s = sums[r];
            const auto each = set(1 / (r == 0 ? 16 - count : count));
            std::array<VF, 6> m;
            for (std::size_t a = 0, n = 0; a < 3; ++a)
                for (std::size_t b = a; b < 3; ++b, ++n) m[n] = hn::Sub(s[3 + n], hn::Mul(hn::Mul(s[a], s[b]), each));
            const auto trace = hn::Add(hn::Add(m[0], m[3]), m[5]);
            off = hn::Add(off, hn::Sub(trace, hn::Mul(eigenvalue(m, principal_axis(m)), set(1 - 1.0f / 32))));
        }
        auto number = set(static_cast<float>(p));
        for (std::size_t k = 0; k < wanted; ++k) {
            const auto better = hn::Lt(off, score[k]);
            const auto down = score[k], down_number = best[k];
            score[k] = select(better, off, score[k]);
            best[k] = select(better, number, best[k]);
            off = select(better, down, off);
            number = select(better, down_number, number);
        }
    }
    return best;
}

Regions one_region(const Planes& texels) {
    Regions out;
    for (std::size_t i = 0; i < 16; ++i) put(out.second, i, zero()), put(out.is_anchor, i, set(i == 0 ? 1 : 0));
    out.anchor.fill(texel(texels, 0));
    return out;
}
Regions two_regions(const Planes& texels, VF partition) {
    Regions out = one_region(texels);
    out.count = 2;
    alignas(64) float number[max_lanes], anchor[3][max_lanes];
    hn::Store(partition, DF(), number);
    for (std::size_t lane = 0; lane < hn::Lanes(DF()); ++lane) {
        const auto p = static_cast<std::size_t>(number[lane]);
        for (std::size_t i = 0; i < 16; ++i) out.second.v[i][lane] = bptc::partitions2[p][i];
        const auto at = bptc::anchor2[p];
        out.is_anchor.v[at][lane] = 1;
        for (std::size_t c = 0; c < 3; ++c) anchor[c][lane] = texels[c].v[at][lane];
    }
    for (std::size_t c = 0; c < 3; ++c) out.anchor[1][c] = hn::Load(DF(), anchor[c]);
    return out;
}

template <bool is_signed>
Choice fitted(const Planes& texels, Effort effort) {
    const int rounds = effort == Effort::fast ? 1 : effort == Effort::normal ? 2 : 4;
    Choice best;
    const auto whole = one_region(texels);
    std::array<Line, 2> lines;
    lines[0] = lines[1] = spread_of(texels, whole, 0);
    const auto all = hn::Eq(zero(), zero());
    for (std::size_t mode = 10; mode < bc6h::modes.size(); ++mode)
        try_mode<is_signed>(texels, mode, zero(), whole, lines, rounds, all, best);
    const std::size_t wanted = effort == Effort::fast ? 1 : effort == Effort::normal ? 3 : most_partitions;
    const auto partitions = ranked(texels, wanted);
    for (std::size_t n = 0; n < wanted; ++n) {
        const auto open = hn::Gt(best.error, zero());
        if (hn::AllFalse(DF(), open)) break;
        const auto regions = two_regions(texels, partitions[n]);
        for (std::size_t r = 0; r < 2; ++r) lines[r] = spread_of(texels, regions, r);
        for (std::size_t mode = 0; mode < 10; ++mode) try_mode<is_signed>(texels, mode, partitions[n], regions, lines, rounds, open, best);
    }
    return best;
}

template <bool is_signed>
void run(const TexelF* blocks, std::size_t count, std::byte* out, Effort effort) {
    each_group(blocks, count, [&](const TexelF* group, std::size_t lanes, std::size_t first) {
        Planes texels;
        std::array<bc6h::Texels, max_lanes> integers;
        for (std::size_t lane = 0; lane < hn::Lanes(DF()); ++lane)
            for (std::size_t i = 0; i < 16; ++i)
                for (std::size_t c = 0; c < 3; ++c) {
                    const float value = group[lane * 16 + i][c];
                    const float v = std::isnan(value) ? 0.0f : std::clamp(value, is_signed ? -65504.0f : 0.0f, 65504.0f);
                    integers[lane][i][c] = bc6h::as_integer(float_to_half(v));
                    texels[c].v[i][lane] = static_cast<float>(integers[lane][i][c]);
                }
        const auto best = fitted<is_signed>(texels, effort);
        alignas(64) float mode[max_lanes], partition[max_lanes], end[4][3][max_lanes];
        hn::Store(best.mode, DF(), mode);
        hn::Store(best.partition, DF(), partition);
        for (std::size_t e = 0; e < 4; ++e)
            for (std::size_t c = 0; c < 3; ++c) hn::Store(best.end[e][c], DF(), end[e][c]);
        for (std::size_t lane = 0; lane < lanes; ++lane) {
            bc6h::Ends ends;
            ends.mode = static_cast<std::size_t>(mode[lane]);
            ends.partition = static_cast<unsigned>(partition[lane]);
            for (std::size_t e = 0; e < 4; ++e)
                for (std::size_t c = 0; c < 3; ++c) ends.end[e][c] = static_cast<int>(end[e][c][lane]);
            bc6h::write_block(ends, integers[lane], is_signed, effort == Effort::best, out + (first + lane) * 16);
        }
    });
}

}  // namespace

void encode_bc6h_simd(const TexelF* blocks, std::size_t count, std::byte* out, bool is_signed, Effort effort) {
    if (is_signed) run<true>(blocks, count, out, effort);
    else run<false>(blocks, count, out, effort);
}

}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace skivet {
HWY_EXPORT(encode_bc6h_simd);

void encode_bc6h(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    HWY_DYNAMIC_DISPATCH(encode_bc6h_simd)(blocks, count, out, false, options.effort);
}
void encode_bc6h_signed(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    HWY_DYNAMIC_DISPATCH(encode_bc6h_simd)(blocks, count, out, true, options.effort);
}

}  // namespace skivet
#endif

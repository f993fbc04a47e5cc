// Encoding BC7, N blocks at a time (see lanes-inl.h).
//
// A mode is a number of subsets, each a line in color space. Which of the 64 partitions suit a block is estimated without fitting: a
// subset whose colors lie on a line leaves nothing but its largest eigenvalue in the trace of their covariance, so the sum of
// trace - eigenvalue over the subsets ranks the partitions. The best few are fitted: endpoints from the principal axis, quantized with
// their p-bits, texels projected to indices, endpoints solved again for those indices. Modes without partitions are fitted with every
// rotation. What wins is packed block by block, with indices chosen once more by the decoder's exact values.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "codec/bc7_encode.cpp"
#include <hwy/foreach_target.h>
//
#include "codec/bc7_encode.h"
#include "codec/bc7_pack.h"
#include "codec/bc7_tables.h"
#include "codec/lanes-inl.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

constexpr float huge = 1e30f;
using V4 = std::array<VF, 4>;

enum class PBits { none, own, shared };

/// One mode's precision, p-bit included.
struct Spec {
    unsigned mode, color_bits, alpha_bits;
    PBits p_bits;
    unsigned index_bits;
};

struct Block {
    std::array<Plane, 4> texel;
    VF opaque;  ///< 1 where all alpha is 255
};

/// What was found so far, a lane a block. Codes include the p-bit.
struct Best {
    VF error, mode, partition, extra;
    std::array<V4, 6> code;
};

struct Ends {
    V4 a, b;
};

/// The texels' weights in one subset.
struct Member {
    Plane weight;
};

template <int channels>
HWY_INLINE VF dot(const V4& x, const V4& y) {
    VF sum = hn::Mul(x[0], y[0]);
    for (std::size_t c = 1; c < channels; ++c) sum = hn::Add(sum, hn::Mul(x[c], y[c]));
    return sum;
}

/// Symmetric matrix, upper triangle row by row.
template <int channels>
struct Covariance {
    std::array<VF, channels*(channels + 1) / 2> m;
};

template <int channels>
HWY_INLINE V4 times(const Covariance<channels>& k, const V4& v) {
    V4 out = {zero(), zero(), zero(), zero()};
    std::size_t at = 0;
    for (std::size_t i = 0; i < channels; ++i)
        for (std::size_t j = i; j < channels; ++j, ++at) {
            out[i] = hn::Add(out[i], hn::Mul(k.m[at], v[j]));
            if (j != i) out[j] = hn::Add(out[j], hn::Mul(k.m[at], v[i]));
        }
    return out;
}

/// Power iteration from the row with the largest diagonal.
template <int channels>
HWY_INLINE V4 axis_of(const Covariance<channels>& k, int rounds) {
    V4 v = {k.m[0], k.m[1], k.m[2], zero()};
    if constexpr (channels == 4) v[3] = k.m[3];
    VF largest = k.m[0];
    const auto try_row = [&](const V4& row, VF diagonal) {
        const auto better = hn::Gt(diagonal, largest);
        largest = select(better, diagonal, largest);
        for (std::size_t c = 0; c < channels; ++c) v[c] = select(better, row[c], v[c]);
    };
    if constexpr (channels == 3) {
        try_row({k.m[1], k.m[3], k.m[4], zero()}, k.m[3]);
        try_row({k.m[2], k.m[4], k.m[5], zero()}, k.m[5]);
    } else {
        try_row({k.m[1], k.m[4], k.m[5], k.m[6]}, k.m[4]);
        try_row({k.m[2], k.m[5], k.m[7], k.m[8]}, k.m[7]);
        try_row({k.m[3], k.m[6], k.m[8], k.m[9]}, k.m[9]);
    }
    for (int round = 0; round < rounds; ++round) {
        const auto w = times<channels>(k, v);
        VF size = hn::Abs(w[0]);
        for (std::size_t c = 1; c < channels; ++c) size = most(size, hn::Abs(w[c]));
        const auto scale = hn::Div(set(1), most(size, set(1e-20f)));
        for (std::size_t c = 0; c < channels; ++c) v[c] = hn::Mul(w[c], scale);
    }
    return v;
}

/// Endpoints at the ends of the members' spread along their principal axis.
template <int channels>
HWY_NOINLINE Ends spread_of(const std::array<Plane, 4>& texel, const Plane& weight) {
    VF total = zero();
    V4 mean = {zero(), zero(), zero(), zero()};
    for (std::size_t i = 0; i < 16; ++i) {
        const auto w = get(weight, i);
        total = hn::Add(total, w);
        for (std::size_t c = 0; c < channels; ++c) mean[c] = hn::Add(mean[c], hn::Mul(w, get(texel[c], i)));
    }
    const auto inverse = hn::Div(set(1), most(total, set(1)));
    for (std::size_t c = 0; c < channels; ++c) mean[c] = hn::Mul(mean[c], inverse);
    Covariance<channels> k;
    k.m.fill(zero());
    for (std::size_t i = 0; i < 16; ++i) {
        const auto w = get(weight, i);
        V4 d, wd;
        for (std::size_t c = 0; c < channels; ++c) d[c] = hn::Sub(get(texel[c], i), mean[c]), wd[c] = hn::Mul(w, d[c]);
        std::size_t at = 0;
        for (std::size_t p = 0; p < channels; ++p)
            for (std::size_t q = p; q < channels; ++q, ++at) k.m[at] = hn::Add(k.m[at], hn::Mul(wd[p], d[q]));
    }
    const auto axis = axis_of<channels>(k, 4);
    VF low = zero(), high = zero();  // the mean is always inside
    for (std::size_t i = 0; i < 16; ++i) {
        V4 d;
        for (std::size_t c = 0; c < channels; ++c) d[c] = hn::Sub(get(texel[c], i), mean[c]);
        const auto t = hn::Mul(dot<channels>(d, axis), get(weight, i));
        low = least(low, t);
        high = most(high, t);
    }
    const auto size = dot<channels>(axis, axis);
    const auto scale = select(hn::Gt(size, set(1e-12f)), hn::Div(set(1), most(size, set(1e-12f))), zero());
    Ends out;
    for (std::size_t c = 0; c < 4; ++c) {
        const auto unit = c < channels ? hn::Mul(axis[c], scale) : zero();
        const auto middle = c < channels ? mean[c] : set(255);
        out.a[c] = clamp(hn::Add(middle, hn::Mul(unit, low)), 0, 255);
        out.b[c] = clamp(hn::Add(middle, hn::Mul(unit, high)), 0, 255);
    }
    return out;
}

HWY_INLINE VF expand(VF code, unsigned bits) {
    if (bits >= 8) return code;
    return hn::Add(hn::Mul(code, set(static_cast<float>(1u << (8 - bits)))), hn::Floor(hn::Mul(code, set(1.0f / static_cast<float>(1u << (2 * bits - 8))))));
}

struct Quantized {
    Ends code, value;
};

/// Nearest codes of `bits` bits whose lowest bit is `p`; without p-bit where p < 0.
HWY_INLINE VF nearest_code(VF value, unsigned bits, int p) {
    const auto top = static_cast<float>((1u << bits) - 1);
    const auto scaled = hn::Mul(clamp(value, 0, 255), set(top / 255));
    if (p < 0) return nearest(scaled);
    const auto half = hn::Floor(hn::Add(hn::Mul(hn::Sub(scaled, set(static_cast<float>(p))), set(0.5f)), set(0.5f)));
    return hn::Add(hn::Mul(clamp(half, 0, static_cast<float>((1u << (bits - 1)) - 1)), set(2)), set(static_cast<float>(p)));
}

template <int channels>
HWY_INLINE Quantized quantize(const Spec& spec, const Ends& ends) {
    Quantized out;
    const auto bits = [&](std::size_t c) { return c == 3 ? spec.alpha_bits : spec.color_bits; };
    const auto one = [&](const V4& from, int p, V4& code, V4& value) {
        VF off = zero();
        for (std::size_t c = 0; c < channels; ++c) {
            code[c] = nearest_code(from[c], bits(c), p);
            value[c] = expand(code[c], bits(c));
            const auto d = hn::Sub(value[c], from[c]);
            off = hn::Add(off, hn::Mul(d, d));
        }
        for (std::size_t c = channels; c < 4; ++c) code[c] = zero(), value[c] = set(255);
        return off;
    };
    const auto take = [&](MF m, const V4& x, V4& into) {
        for (std::size_t c = 0; c < 4; ++c) into[c] = select(m, x[c], into[c]);
    };
    if (spec.p_bits == PBits::none) {
        (void)one(ends.a, -1, out.code.a, out.value.a);
        (void)one(ends.b, -1, out.code.b, out.value.b);
        return out;
    }
    Quantized with_one;
    auto a0 = one(ends.a, 0, out.code.a, out.value.a), b0 = one(ends.b, 0, out.code.b, out.value.b);
    auto a1 = one(ends.a, 1, with_one.code.a, with_one.value.a), b1 = one(ends.b, 1, with_one.code.b, with_one.value.b);
    auto a_odd = hn::Lt(a1, a0), b_odd = hn::Lt(b1, b0);
    if (spec.p_bits == PBits::shared) a_odd = b_odd = hn::Lt(hn::Add(a1, b1), hn::Add(a0, b0));
    take(a_odd, with_one.code.a, out.code.a);
    take(a_odd, with_one.value.a, out.value.a);
    take(b_odd, with_one.code.b, out.code.b);
    take(b_odd, with_one.value.b, out.value.b);
    return out;
}

/// Error of the line for the members with the decoder's own rounding, texels projected to the nearest of top + 1 indices; `solved` receives the
/// least-squares endpoints for those indices.
template <int channels, bool solve>
HWY_NOINLINE VF error_of(const std::array<Plane, 4>& texel, const Plane& weight, const Ends& value, VF top, Ends* solved) {
    V4 d;
    for (std::size_t c = 0; c < channels; ++c) d[c] = hn::Sub(value.b[c], value.a[c]);
    const auto size = dot<channels>(d, d);
    const auto per = select(hn::Gt(size, zero()), hn::Div(top, most(size, set(1e-6f))), zero());
    const auto weight_step = hn::Div(set(64), top);
    VF sum = zero(), aa = zero(), ab = zero(), bb = zero();
    V4 ax = {zero(), zero(), zero(), zero()}, bx = ax;
    for (std::size_t i = 0; i < 16; ++i) {
        V4 x, from;
        for (std::size_t c = 0; c < channels; ++c) x[c] = get(texel[c], i), from[c] = hn::Sub(x[c], value.a[c]);
        const auto index = hn::Floor(hn::Add(least(most(hn::Mul(dot<channels>(from, d), per), zero()), top), set(0.5f)));
        const auto t = hn::Mul(hn::Floor(hn::Add(hn::Mul(index, weight_step), set(0.5f))), set(1.0f / 64));  // the weights tables, rounded alike
        VF error = zero();
        for (std::size_t c = 0; c < channels; ++c) {
            const auto off = hn::Sub(hn::Floor(hn::Add(hn::Mul(t, d[c]), hn::Add(value.a[c], set(0.5f)))), x[c]);
            error = hn::Add(error, hn::Mul(off, off));
        }
        const auto w = get(weight, i);
        sum = hn::Add(sum, hn::Mul(w, error));
        if constexpr (solve) {
            const auto s = hn::Sub(set(1), t), wt = hn::Mul(w, t), ws = hn::Mul(w, s);
            aa = hn::Add(aa, hn::Mul(ws, s));
            ab = hn::Add(ab, hn::Mul(ws, t));
            bb = hn::Add(bb, hn::Mul(wt, t));
            for (std::size_t c = 0; c < channels; ++c) {
                ax[c] = hn::Add(ax[c], hn::Mul(ws, x[c]));
                bx[c] = hn::Add(bx[c], hn::Mul(wt, x[c]));
            }
        }
    }
    if constexpr (solve) {
        const auto det = hn::Sub(hn::Mul(aa, bb), hn::Mul(ab, ab));
        const auto sound = hn::Gt(det, set(1e-4f));
        const auto inverse = hn::Div(set(1), select(sound, det, set(1)));
        for (std::size_t c = 0; c < 4; ++c) {
            if (c >= channels) {
                solved->a[c] = solved->b[c] = set(255);
                continue;
            }
            const auto a = hn::Mul(hn::Sub(hn::Mul(ax[c], bb), hn::Mul(bx[c], ab)), inverse);
            const auto b = hn::Mul(hn::Sub(hn::Mul(bx[c], aa), hn::Mul(ax[c], ab)), inverse);
            solved->a[c] = select(sound, clamp(a, 0, 255), value.a[c]);
            solved->b[c] = select(sound, clamp(b, 0, 255), value.b[c]);
        }
    }
    return sum;
}

struct Fitted {
    VF error;
    Ends code;
};

/// Quantizes, evaluates and solves again, `rounds` times; the best of all rounds.
template <int channels>
HWY_NOINLINE Fitted fit_line(const std::array<Plane, 4>& texel, const Plane& weight, const Spec& spec, Ends ends, int rounds) {
    Fitted best;
    const auto top = set(static_cast<float>((1u << spec.index_bits) - 1));
    for (int round = 0; round <= rounds; ++round) {
        const auto q = quantize<channels>(spec, ends);
        VF error;
        if (round < rounds) error = error_of<channels, true>(texel, weight, q.value, top, &ends);
        else error = error_of<channels, false>(texel, weight, q.value, top, nullptr);
        if (round == 0) {
            best = {error, q.code};
            continue;
        }
        const auto better = hn::Lt(error, best.error);
        best.error = select(better, error, best.error);
        for (std::size_t c = 0; c < 4; ++c) {
            best.code.a[c] = select(better, q.code.a[c], best.code.a[c]);
            best.code.b[c] = select(better, q.code.b[c], best.code.b[c]);
        }
    }
    return best;
}

HWY_INLINE void offer(Best& best, VF error, unsigned mode, VF partition, float extra, const std::array<Ends, 3>& code, std::size_t subsets) {
    const auto better = hn::Lt(error, best.error);
    best.error = select(better, error, best.error);
    best.mode = select(better, set(static_cast<float>(mode)), best.mode);
    best.partition = select(better, partition, best.partition);
    best.extra = select(better, set(extra), best.extra);
    for (std::size_t s = 0; s < subsets; ++s)
        for (std::size_t c = 0; c < 4; ++c) {
            best.code[2 * s][c] = select(better, code[s].a[c], best.code[2 * s][c]);
            best.code[2 * s + 1][c] = select(better, code[s].b[c], best.code[2 * s + 1][c]);
        }
}

constexpr std::size_t max_choices = 6;

/// The best few partitions of each lane, best first.
struct Choices {
    std::array<VF, max_choices> score, partition;
};

HWY_INLINE void insert(Choices& list, std::size_t count, VF score, float partition) {
    auto s = score, p = set(partition);
    for (std::size_t k = 0; k < count; ++k) {
        const auto better = hn::Lt(s, list.score[k]);
        const auto old_s = list.score[k], old_p = list.partition[k];
        list.score[k] = select(better, s, old_s);
        list.partition[k] = select(better, p, old_p);
        s = select(better, old_s, s);
        p = select(better, old_p, p);
    }
}

/// Sums and products of the texels in a set: count, Σx, Σxxᵀ.
template <int channels>
struct Moments {
    VF count;
    V4 sum;
    std::array<VF, channels*(channels + 1) / 2> square;
};

/// trace - largest eigenvalue of the scatter: what a line through the mean leaves; and a share of the eigenvalue for the few steps the
/// line has, which decides where colors lie on lines anyway (gray pictures).
template <int channels>
HWY_INLINE VF residue(const Moments<channels>& m) {
    Covariance<channels> k;
    const auto inverse = hn::Div(set(1), most(m.count, set(1)));
    std::size_t at = 0;
    VF trace = zero();
    for (std::size_t p = 0; p < channels; ++p)
        for (std::size_t q = p; q < channels; ++q, ++at) {
            k.m[at] = hn::Sub(m.square[at], hn::Mul(hn::Mul(m.sum[p], m.sum[q]), inverse));
            if (p == q) trace = hn::Add(trace, k.m[at]);
        }
    const auto v = axis_of<channels>(k, 2);
    const auto kv = times<channels>(k, v);
    const auto size = dot<channels>(v, v);
    const auto eigenvalue = select(hn::Gt(size, set(1e-12f)), hn::Div(dot<channels>(v, kv), most(size, set(1e-12f))), zero());
    return hn::Add(most(hn::Sub(trace, eigenvalue), zero()), hn::Mul(eigenvalue, set(1.0f / 32)));
}

template <int channels>
HWY_NOINLINE Choices rank_partitions(const Block& block, std::size_t subsets, std::size_t partitions, std::size_t count) {
    constexpr std::size_t products = channels * (channels + 1) / 2;
    std::array<Plane, products> product;
    Moments<channels> all;
    all.count = set(16);
    all.sum = {zero(), zero(), zero(), zero()};
    all.square.fill(zero());
    for (std::size_t i = 0; i < 16; ++i) {
        std::size_t at = 0;
        for (std::size_t p = 0; p < channels; ++p) {
            all.sum[p] = hn::Add(all.sum[p], get(block.texel[p], i));
            for (std::size_t q = p; q < channels; ++q, ++at) {
                const auto x = hn::Mul(get(block.texel[p], i), get(block.texel[q], i));
                put(product[at], i, x);
                all.square[at] = hn::Add(all.square[at], x);
            }
        }
    }
    Choices out;
    out.score.fill(set(huge));
    out.partition.fill(zero());
    const auto& table = subsets == 2 ? bptc::partitions2 : bptc::partitions3;
    for (std::size_t partition = 0; partition < partitions; ++partition) {
        // All subsets but the first are summed up; the first is the rest.
        auto rest = all;
        VF score = zero();
        for (std::size_t s = 1; s < subsets; ++s) {
            Moments<channels> m;
            m.sum = {zero(), zero(), zero(), zero()};
            m.square.fill(zero());
            float members = 0;
            for (std::size_t i = 0; i < 16; ++i) {
                if (table[partition][i] != s) continue;
                ++members;
                for (std::size_t c = 0; c < channels; ++c) m.sum[c] = hn::Add(m.sum[c], get(block.texel[c], i));
                for (std::size_t at = 0; at < products; ++at) m.square[at] = hn::Add(m.square[at], get(product[at], i));
            }
            m.count = set(members);
            rest.count = hn::Sub(rest.count, m.count);
            for (std::size_t c = 0; c < channels; ++c) rest.sum[c] = hn::Sub(rest.sum[c], m.sum[c]);
            for (std::size_t at = 0; at < products; ++at) rest.square[at] = hn::Sub(rest.square[at], m.square[at]);
            score = hn::Add(score, residue<channels>(m));
        }
        insert(out, count, hn::Add(score, residue<channels>(rest)), static_cast<float>(partition));
    }
    return out;
}

/// 1 for the texels of subset `s` in each lane's own partition.
HWY_INLINE void members(VF partition, std::size_t subsets, std::size_t s, Plane& out) {
    const DF df;
    alignas(64) float number[max_lanes];
    hn::Store(partition, df, number);
    const auto& table = subsets == 2 ? bptc::partitions2 : bptc::partitions3;
    for (std::size_t lane = 0; lane < hn::Lanes(df); ++lane) {
        const auto& row = table[static_cast<std::size_t>(number[lane])];
        for (std::size_t i = 0; i < 16; ++i) out.v[i][lane] = row[i] == s ? 1.0f : 0.0f;
    }
}

/// Fits modes of the same number of subsets to each lane's partition.
template <int channels>
HWY_INLINE void try_partition(const Block& block, Best& best, VF forbidden, VF partition, std::size_t subsets, std::initializer_list<Spec> specs, int rounds) {
    std::array<Plane, 3> member;
    std::array<Ends, 3> ends;
    for (std::size_t s = 0; s < subsets; ++s) {
        members(partition, subsets, s, member[s]);
        ends[s] = spread_of<channels>(block.texel, member[s]);
    }
    for (const auto& spec : specs) {
        std::array<Ends, 3> code;
        VF error = forbidden;
        for (std::size_t s = 0; s < subsets; ++s) {
            // No lane can win any more: nothing changes by leaving.
            if (hn::AllFalse(DF(), hn::Lt(error, best.error))) break;
            const auto fitted = fit_line<channels>(block.texel, member[s], spec, ends[s], rounds);
            error = hn::Add(error, fitted.error);
            code[s] = fitted.code;
            if (s + 1 == subsets) offer(best, error, spec.mode, partition, 0, code, subsets);
        }
    }
}

/// Modes 4 and 5: color and alpha have lines and indices of their own; a rotation lets another channel take alpha's place.
HWY_INLINE void try_separate(const Block& block, Best& best, const Plane& all, unsigned rotation, bool mode4, int rounds) {
    std::array<Plane, 4> texel = block.texel;
    if (rotation) std::swap(texel[3], texel[rotation - 1]);
    const auto color = spread_of<3>(texel, all);
    std::array<Plane, 4> alone;
    alone[0] = texel[3];
    VF low = set(255), high = zero();
    for (std::size_t i = 0; i < 16; ++i) low = least(low, get(alone[0], i)), high = most(high, get(alone[0], i));
    Ends scalar;
    scalar.a = {low, zero(), zero(), zero()};
    scalar.b = {high, zero(), zero(), zero()};
    const auto run = [&](unsigned mode, unsigned color_bits, unsigned alpha_bits, unsigned color_index, unsigned alpha_index, float selector) {
        const auto rgb = fit_line<3>(texel, all, {mode, color_bits, 0, PBits::none, color_index}, color, rounds);
        if (hn::AllFalse(DF(), hn::Lt(rgb.error, best.error))) return;
        const auto a = fit_line<1>(alone, all, {mode, alpha_bits, 0, PBits::none, alpha_index}, scalar, rounds);
        std::array<Ends, 3> code;
        code[0] = rgb.code;
        code[0].a[3] = a.code.a[0];
        code[0].b[3] = a.code.b[0];
        offer(best, hn::Add(rgb.error, a.error), mode, zero(), static_cast<float>(rotation) + 4 * selector, code, 1);
    };
    run(5, 7, 8, 2, 2, 0);
    if (mode4) {
        run(4, 5, 6, 2, 3, 0);
        run(4, 5, 6, 3, 2, 1);
    }
}

/// One color: mode 5 reaches every 8-bit value exactly at index 1, where (43 a + 21 b + 32) / 64 of two 7-bit endpoints is all there is to hit.
struct SingleColor {
    std::array<std::array<std::uint8_t, 2>, 256> code{};
};
const SingleColor& single_color() {
    static const SingleColor table = [] {
        SingleColor out;
        std::array<bool, 256> found{};
        for (int spread = 0; spread < 128; ++spread)  // close endpoints first
            for (int a = 0; a < 128; ++a)
                for (const int b : {a + spread, a - spread}) {
                    if (b < 0 || b > 127) continue;
                    const int x = a << 1 | a >> 6, y = b << 1 | b >> 6, v = (43 * x + 21 * y + 32) >> 6;
                    if (!found[static_cast<std::size_t>(v)]) found[static_cast<std::size_t>(v)] = true, out.code[static_cast<std::size_t>(v)] = {static_cast<std::uint8_t>(a), static_cast<std::uint8_t>(b)};
                }
        return out;
    }();
    return table;
}

void try_single_color(const Block& block, Best& best) {
    const DF df;
    auto flat = hn::Ge(zero(), zero());
    for (std::size_t c = 0; c < 4; ++c)
        for (std::size_t i = 1; i < 16; ++i) flat = hn::And(flat, hn::Eq(get(block.texel[c], i), get(block.texel[c], 0)));
    if (hn::AllFalse(df, flat)) return;
    const auto& table = single_color();
    std::array<Ends, 3> code;
    alignas(64) float a[max_lanes], b[max_lanes];
    for (std::size_t c = 0; c < 3; ++c) {
        for (std::size_t lane = 0; lane < hn::Lanes(df); ++lane) {
            const auto& pair = table.code[static_cast<std::size_t>(block.texel[c].v[0][lane])];
            a[lane] = pair[0];
            b[lane] = pair[1];
        }
        code[0].a[c] = hn::Load(df, a);
        code[0].b[c] = hn::Load(df, b);
    }
    code[0].a[3] = code[0].b[3] = get(block.texel[3], 0);
    offer(best, select(flat, zero(), set(huge)), 5, zero(), 0, code, 1);
}

/// A code moved by whole steps: still inside, and not brought to the edge by a fraction of a step.
HWY_INLINE MF fits(VF moved, VF from, VF step) {
    const auto steps = hn::Div(hn::Sub(moved, from), step);
    return hn::Eq(steps, hn::Floor(steps));
}

/// The share of the second endpoint each texel gets, by its nearest index.
HWY_INLINE void shares_of(const std::array<Plane, 4>& texel, const Ends& value, VF top, std::array<VF, 16>& share) {
    V4 d;
    for (std::size_t c = 0; c < 4; ++c) d[c] = hn::Sub(value.b[c], value.a[c]);
    const auto size = dot<4>(d, d);
    const auto per = select(hn::Gt(size, zero()), hn::Div(top, most(size, set(1e-6f))), zero());
    const auto weight_step = hn::Div(set(64), top);
    for (std::size_t i = 0; i < 16; ++i) {
        V4 from;
        for (std::size_t c = 0; c < 4; ++c) from[c] = hn::Sub(get(texel[c], i), value.a[c]);
        const auto index = hn::Floor(hn::Add(least(most(hn::Mul(dot<4>(from, d), per), zero()), top), set(0.5f)));
        share[i] = hn::Mul(hn::Floor(hn::Add(hn::Mul(index, weight_step), set(0.5f))), set(1.0f / 64));
    }
}

/// What was found, moved by single codes as long as that helps. Lanes differ in mode, so the modes' numbers are vectors here.
void walk(const Block& block, Best& best, int rounds, bool singles) {
    const DF df;
    const std::size_t n = hn::Lanes(df);
    alignas(64) float mode[max_lanes], partition[max_lanes], extra[max_lanes];
    hn::Store(best.mode, df, mode);
    hn::Store(best.partition, df, partition);
    hn::Store(best.extra, df, extra);
    std::array<Member, 3> member;
    Plane every;
    std::array<Plane, 4> color = block.texel;
    std::array<Plane, 4> alone;
    alignas(64) float color_bits[max_lanes], alpha_bits[max_lanes], step[max_lanes], top[max_lanes], alone_top[max_lanes], lone[max_lanes], subsets[max_lanes], has_alpha[max_lanes];
    for (std::size_t lane = 0; lane < n; ++lane) {
        const auto& m = bptc::modes[static_cast<std::size_t>(mode[lane])];
        const auto rotation = static_cast<std::size_t>(extra[lane]) & 3, selector = static_cast<std::size_t>(extra[lane]) >> 2;
        const bool p = m.own_p_bits || m.shared_p_bits, separate = m.second_index_bits > 0;
        color_bits[lane] = static_cast<float>(m.color_bits + p);
        alpha_bits[lane] = static_cast<float>(m.alpha_bits ? m.alpha_bits + (p && !separate) : 8);
        step[lane] = p ? 2.0f : 1.0f;
        const unsigned first = separate && selector ? m.second_index_bits : m.index_bits, second = separate ? (selector ? m.index_bits : m.second_index_bits) : 1;
        top[lane] = static_cast<float>((1u << first) - 1);
        alone_top[lane] = static_cast<float>((1u << second) - 1);
        lone[lane] = separate ? 1.0f : 0.0f;
        subsets[lane] = static_cast<float>(m.subsets);
        has_alpha[lane] = m.alpha_bits && !separate ? 1.0f : 0.0f;
        for (std::size_t i = 0; i < 16; ++i) {
            if (rotation) std::swap(color[3].v[i][lane], color[rotation - 1].v[i][lane]);
            alone[0].v[i][lane] = color[3].v[i][lane];
            if (separate) color[3].v[i][lane] = 255;
            const auto number = static_cast<std::size_t>(partition[lane]);
            const std::size_t s = m.subsets == 2 ? bptc::partitions2[number][i] : m.subsets == 3 ? bptc::partitions3[number][i] : 0;
            for (std::size_t k = 0; k < 3; ++k) member[k].weight.v[i][lane] = s == k ? 1.0f : 0.0f;
            every.v[i][lane] = lone[lane];
        }
    }
    // value = code × 2^(8 - bits) + floor(code / 2^(2 bits - 8))
    const auto scales = [&](const float* bits, VF& up, VF& down, VF& highest) {
        alignas(64) float u[max_lanes], d[max_lanes], h[max_lanes];
        for (std::size_t lane = 0; lane < n; ++lane) {
            const auto b = static_cast<int>(bits[lane]);
            u[lane] = static_cast<float>(1 << (8 - b));
            d[lane] = b >= 8 ? 0.0f : 1.0f / static_cast<float>(1 << (2 * b - 8));
            h[lane] = static_cast<float>((1 << b) - 1);
        }
        up = hn::Load(df, u), down = hn::Load(df, d), highest = hn::Load(df, h);
    };
    VF up[2], down[2], highest[2];
    scales(color_bits, up[0], down[0], highest[0]);
    scales(alpha_bits, up[1], down[1], highest[1]);
    const auto expanded = [&](VF code, std::size_t kind) { return hn::Add(hn::Mul(code, up[kind]), hn::Floor(hn::Mul(code, down[kind]))); };
    const auto steps = hn::Load(df, step), tops = hn::Load(df, top), alone_tops = hn::Load(df, alone_top);
    const auto is_lone = hn::Gt(hn::Load(df, lone), zero()), alpha_moves = hn::Gt(hn::Load(df, has_alpha), zero());
    const auto count = hn::Load(df, subsets);

    const auto value_of = [&](std::size_t s) {
        Ends v;
        for (std::size_t c = 0; c < 3; ++c) v.a[c] = expanded(best.code[2 * s][c], 0), v.b[c] = expanded(best.code[2 * s + 1][c], 0);
        v.a[3] = select(alpha_moves, expanded(best.code[2 * s][3], 1), set(255));
        v.b[3] = select(alpha_moves, expanded(best.code[2 * s + 1][3], 1), set(255));
        return v;
    };
    // Indices held, each channel is a small problem of its own: of the nine pairs of codes around the present one the best, with exact rounding.
    const auto polish = [&](std::size_t s, Ends& value, VF& error) {
        std::array<VF, 16> share;
        shares_of(color, value, tops, share);
        Ends next = value, code;
        for (std::size_t c = 0; c < 4; ++c) {
            code.a[c] = best.code[2 * s][c];
            code.b[c] = best.code[2 * s + 1][c];
            if (c == 3 && hn::AllFalse(df, alpha_moves)) continue;
            const std::size_t kind = c == 3;
            VF least_error = set(huge);
            for (int da = -1; da <= 1; ++da) {
                const auto a = least(most(hn::Add(best.code[2 * s][c], hn::Mul(steps, set(static_cast<float>(da)))), hn::Sub(hn::Mul(steps, set(0.5f)), set(0.5f))), highest[kind]);
                for (int db = -1; db <= 1; ++db) {
                    const auto b = least(most(hn::Add(best.code[2 * s + 1][c], hn::Mul(steps, set(static_cast<float>(db)))), hn::Sub(hn::Mul(steps, set(0.5f)), set(0.5f))), highest[kind]);
                    // Codes with a p-bit keep it: a move past the end is no move.
                    const auto ca = select(fits(a, best.code[2 * s][c], steps), a, best.code[2 * s][c]);
                    const auto cb = select(fits(b, best.code[2 * s + 1][c], steps), b, best.code[2 * s + 1][c]);
                    const auto va = expanded(ca, kind), vb = expanded(cb, kind);
                    const auto d = hn::Sub(vb, va), base = hn::Add(va, set(0.5f));
                    VF sum = zero();
                    for (std::size_t i = 0; i < 16; ++i) {
                        const auto off = hn::Sub(hn::Floor(hn::Add(hn::Mul(share[i], d), base)), get(color[c], i));
                        sum = hn::Add(sum, hn::Mul(get(member[s].weight, i), hn::Mul(off, off)));
                    }
                    auto better = hn::Lt(sum, least_error);
                    if (c == 3) better = hn::And(better, alpha_moves);
                    least_error = select(better, sum, least_error);
                    code.a[c] = select(better, ca, code.a[c]);
                    code.b[c] = select(better, cb, code.b[c]);
                    next.a[c] = select(better, va, next.a[c]);
                    next.b[c] = select(better, vb, next.b[c]);
                }
            }
        }
        const auto next_error = error_of<4, false>(color, member[s].weight, next, tops, nullptr);
        const auto better = hn::Lt(next_error, error);
        error = select(better, next_error, error);
        for (std::size_t c = 0; c < 4; ++c) {
            best.code[2 * s][c] = select(better, code.a[c], best.code[2 * s][c]);
            best.code[2 * s + 1][c] = select(better, code.b[c], best.code[2 * s + 1][c]);
            value.a[c] = select(better, next.a[c], value.a[c]);
            value.b[c] = select(better, next.b[c], value.b[c]);
        }
    };
    for (std::size_t s = 0; s < 3; ++s) {
        if (hn::AllFalse(df, hn::Gt(count, set(static_cast<float>(s))))) break;
        auto value = value_of(s);
        auto error = error_of<4, false>(color, member[s].weight, value, tops, nullptr);
        for (int round = 0; round < rounds; ++round) {
            const auto before = error;
            polish(s, value, error);
            for (std::size_t c = 0; c < 4 && singles; ++c) {
                if (c == 3 && hn::AllFalse(df, alpha_moves)) continue;
                for (std::size_t end = 0; end < 2; ++end)
                    for (const float by : {1.0f, -1.0f}) {
                        auto& code = best.code[2 * s + end][c];
                        auto& place = end ? value.b[c] : value.a[c];
                        const auto moved = hn::Add(code, hn::Mul(steps, set(by)));
                        const std::size_t kind = c == 3;
                        auto allowed = hn::And(hn::Ge(moved, zero()), hn::Le(moved, highest[kind]));
                        if (c == 3) allowed = hn::And(allowed, alpha_moves);
                        const auto old = place;
                        place = select(allowed, expanded(moved, kind), old);
                        const auto next = error_of<4, false>(color, member[s].weight, value, tops, nullptr);
                        const auto better = hn::And(allowed, hn::Lt(next, error));
                        error = select(better, next, error);
                        code = select(better, moved, code);
                        place = select(better, place, old);
                    }
            }
            // A lane that did not move in a whole round would not move in the next: leaving early changes no lane's result.
            if (hn::AllFalse(df, hn::Lt(error, before))) break;
        }
    }
    if (hn::AllFalse(df, is_lone)) return;
    Ends value;
    value.a[0] = expanded(best.code[0][3], 1);
    value.b[0] = expanded(best.code[1][3], 1);
    auto error = error_of<1, false>(alone, every, value, alone_tops, nullptr);
    for (int round = 0; round < rounds; ++round)
        for (std::size_t end = 0; end < 2; ++end)
            for (const float by : {1.0f, -1.0f}) {
                auto& code = best.code[end][3];
                auto& place = end ? value.b[0] : value.a[0];
                const auto moved = hn::Add(code, set(by));
                const auto allowed = hn::And(is_lone, hn::And(hn::Ge(moved, zero()), hn::Le(moved, highest[1])));
                const auto old = place;
                place = select(allowed, expanded(moved, 1), old);
                const auto next = error_of<1, false>(alone, every, value, alone_tops, nullptr);
                const auto better = hn::And(allowed, hn::Lt(next, error));
                error = select(better, next, error);
                code = select(better, moved, code);
                place = select(better, place, old);
            }
}

void run(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    constexpr Spec mode0{0, 5, 0, PBits::own, 3}, mode1{1, 7, 0, PBits::shared, 3}, mode2{2, 5, 0, PBits::none, 2}, mode3{3, 8, 0, PBits::own, 2},
        mode6{6, 8, 8, PBits::own, 4}, mode7{7, 6, 6, PBits::own, 2};
    const bool fast = options.effort == Effort::fast, thorough = options.effort == Effort::best;
    const int rounds = thorough ? 2 : 1;
    each_group(blocks, count, [&](const Texel* texels, std::size_t lanes, std::size_t first) {
        const DF df;
        Block block;
        load_channels(texels, block.texel);
        auto opaque = hn::Ge(zero(), zero());
        for (std::size_t i = 0; i < 16; ++i) opaque = hn::And(opaque, hn::Ge(get(block.texel[3], i), set(255)));
        Plane all;
        for (std::size_t i = 0; i < 16; ++i) put(all, i, set(1));
        Best best;
        best.error = set(huge);
        best.mode = best.partition = best.extra = zero();
        for (auto& code : best.code) code.fill(zero());

        std::array<Ends, 3> code;
        // Wider endpoints leave the outermost indices unused and hit few, flat colors more exactly.
        const auto spread = spread_of<4>(block.texel, all);
        for (const float wider : {0.0f, 0.1f, 0.25f, 0.6f}) {
            if (wider > 0 && (fast || (!thorough && wider != 0.25f))) continue;
            Ends ends;
            for (std::size_t c = 0; c < 4; ++c) {
                const auto more = hn::Mul(hn::Sub(spread.b[c], spread.a[c]), set(wider));
                ends.a[c] = clamp(hn::Sub(spread.a[c], more), 0, 255);
                ends.b[c] = clamp(hn::Add(spread.b[c], more), 0, 255);
            }
            const auto whole = fit_line<4>(block.texel, all, mode6, ends, rounds + 1);
            code[0] = whole.code;
            offer(best, whole.error, 6, zero(), 0, code, 1);
        }
        if (!fast || !hn::AllTrue(df, opaque))
            for (unsigned rotation = 0; rotation < (fast ? 1u : 4u); ++rotation) try_separate(block, best, all, rotation, !fast, rounds);

        if (!hn::AllFalse(df, opaque)) {
            const auto forbidden = select(opaque, zero(), set(huge));
            const std::size_t two = fast ? 1 : thorough ? 6 : 2;
            const auto pairs = rank_partitions<3>(block, 2, 64, two);
            for (std::size_t k = 0; k < two; ++k) {
                if (fast) try_partition<3>(block, best, forbidden, pairs.partition[k], 2, {mode1}, rounds);
                else try_partition<3>(block, best, forbidden, pairs.partition[k], 2, {mode1, mode3}, rounds);
            }
            if (!fast) {
                const std::size_t three = thorough ? 3 : 1;
                const auto triples = rank_partitions<3>(block, 3, 64, three);
                for (std::size_t k = 0; k < three; ++k) try_partition<3>(block, best, forbidden, triples.partition[k], 3, {mode2}, rounds);
                const auto first16 = rank_partitions<3>(block, 3, 16, three);
                for (std::size_t k = 0; k < three; ++k) try_partition<3>(block, best, forbidden, first16.partition[k], 3, {mode0}, rounds);
            }
        }
        if (!hn::AllTrue(df, opaque)) {
            const auto forbidden = select(opaque, set(huge), zero());
            const std::size_t two = fast ? 1 : thorough ? 6 : 2;
            const auto pairs = rank_partitions<4>(block, 2, 64, two);
            for (std::size_t k = 0; k < two; ++k) try_partition<4>(block, best, forbidden, pairs.partition[k], 2, {mode7}, rounds);
        }

        try_single_color(block, best);
        if (!fast) walk(block, best, thorough ? 3 : 1, thorough);

        alignas(64) float mode[max_lanes], partition[max_lanes], extra[max_lanes], codes[6][4][max_lanes];
        hn::Store(best.mode, df, mode);
        hn::Store(best.partition, df, partition);
        hn::Store(best.extra, df, extra);
        for (std::size_t e = 0; e < 6; ++e)
            for (std::size_t c = 0; c < 4; ++c) hn::Store(best.code[e][c], df, codes[e][c]);
        for (std::size_t lane = 0; lane < lanes; ++lane) {
            bptc::Choice choice;
            choice.mode = static_cast<unsigned>(mode[lane]);
            choice.partition = static_cast<unsigned>(partition[lane]);
            choice.rotation = static_cast<unsigned>(extra[lane]) & 3;
            choice.selector = static_cast<unsigned>(extra[lane]) >> 2;
            for (std::size_t e = 0; e < 6; ++e)
                for (std::size_t c = 0; c < 4; ++c) choice.code[e][c] = static_cast<std::uint8_t>(codes[e][c][lane]);
            bptc::pack(choice, texels + lane * 16, out + (first + lane) * 16);
        }
    });
}

}  // namespace

void encode_bc7_simd(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) { run(blocks, count, out, options); }

}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace skivet {
HWY_EXPORT(encode_bc7_simd);

void encode_bc7(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    HWY_DYNAMIC_DISPATCH(encode_bc7_simd)(blocks, count, out, options);
}
}  // namespace skivet
#endif

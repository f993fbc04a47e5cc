// Encoding the color part of BC1 to BC3, N blocks at a time.
//
// The heart is a cluster fit. Colors are put in order along the block's principal axis; a way to cut that order into runs that share an
// index is a least-squares problem for the two endpoints. With colors taken relative to their mean its gain needs only one vector:
// let α be a texel's share of the first endpoint, w its weight, W = Σw, A = Σwα, s = Σwα(color - mean). Then Σw(1-α)(color - mean) = -s, and the
// error falls below that of the mean by |s|² W / (W Σwα² - A²). With runs of α = 1, ⅔, ⅓, 0 the sums are (Si + Sj + Sk) / 3 of prefix sums S, so
// each of the 969 ways costs about a dozen operations, and all of them are looked at. Endpoints are then brought to the 5:6:5 grid channel by
// channel, trying both neighbors of each, and texels get the nearest color of the decoder's own palette. Three-color blocks likewise.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "codec/color_part_encode.cpp"
#include <hwy/foreach_target.h>
//
#include "codec/blocks.h"
#include "codec/lanes-inl.h"
#include "codec/weights.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

constexpr float far = 1e30f;

struct Block {
    std::array<Plane, 4> color;  ///< and alpha
    Plane weight;
    MF flat;       ///< one color only
    VF total;      ///< sum of the weights
    V3 mean;
    bool uniform;  ///< all weights of all lanes are 1
    std::array<Plane, 3> square, along;  ///< for normals: AngleMetric of each texel
    Plane mixed;
    bool by_angle = false;
};

struct Fit {
    V3 a, b;          ///< endpoints on the grid, 0…255
    VF error;
    MF four;
};

HWY_INLINE VF expand(VF step, std::size_t c) {
    return c == 1 ? hn::Add(hn::Mul(step, set(4)), hn::Floor(hn::Mul(step, set(1.0f / 16)))) : hn::Add(hn::Mul(step, set(8)), hn::Floor(hn::Mul(step, set(0.25f))));
}
HWY_INLINE float top_step(std::size_t c) { return c == 1 ? 63.0f : 31.0f; }
/// The step whose value lies at or just below; expand(step) <= value holds up to one step of the grid's own unevenness.
HWY_INLINE VF step_below(VF value, std::size_t c) { return hn::Floor(hn::Mul(clamp(value, 0, 255), set(top_step(c) / 255))); }
HWY_INLINE VF on_grid(VF value, std::size_t c) { return expand(nearest(hn::Mul(clamp(value, 0, 255), set(top_step(c) / 255))), c); }

/// Takes the new fit in the lanes where it is better.
HWY_INLINE void keep_better(Fit& best, const Fit& next) {
    const auto better = hn::Lt(next.error, best.error);
    for (std::size_t c = 0; c < 3; ++c) best.a[c] = select(better, next.a[c], best.a[c]), best.b[c] = select(better, next.b[c], best.b[c]);
    best.four = hn::Or(hn::And(better, next.four), hn::AndNot(better, best.four));
    best.error = select(better, next.error, best.error);
}

/// The palette with the decoder's own rounding. For a texel t the nearest entry p is the one with the least |p|² - 2 t·p: whole numbers
/// below 2^24, so this is exact.
struct Palette {
    std::array<V3, 4> twice;
    std::array<VF, 4> square;
};
HWY_INLINE Palette palette_of(const Fit& fit) {
    std::array<V3, 4> p;
    for (std::size_t c = 0; c < 3; ++c) {
        const auto a = fit.a[c], b = fit.b[c], third = set(1.0f / 3);
        p[0][c] = a;
        p[1][c] = b;
        p[2][c] = hn::Floor(select(fit.four, hn::Mul(hn::Add(hn::Add(a, a), b), third), hn::Mul(hn::Add(a, b), set(0.5f))));
        p[3][c] = hn::Floor(hn::Mul(hn::Add(hn::Add(b, b), a), third));
    }
    Palette out;
    for (std::size_t k = 0; k < 4; ++k) {
        out.square[k] = dot3(p[k], p[k]);
        for (std::size_t c = 0; c < 3; ++c) out.twice[k][c] = hn::Add(p[k][c], p[k][c]);
    }
    out.square[3] = select(fit.four, out.square[3], set(far));
    return out;
}
HWY_INLINE VF closeness(const Palette& p, std::size_t k, const V3& t) { return hn::Sub(p.square[k], dot3(t, p.twice[k])); }
/// The squared angle between texel i and an entry, in the palette's units; see AngleMetric.
HWY_INLINE VF angle_error(const Block& block, const Palette& p, std::size_t k, std::size_t i) {
    VF sum = zero(), along = zero();
    for (std::size_t c = 0; c < 3; ++c) {
        const auto d = hn::Sub(hn::Mul(p.twice[k][c], set(0.5f)), get(block.color[c], i));
        sum = hn::Add(sum, hn::Mul(get(block.square[c], i), hn::Mul(d, d)));
        along = hn::Add(along, hn::Mul(get(block.along[c], i), d));
    }
    return hn::Add(sum, hn::Mul(get(block.mixed, i), hn::Mul(along, along)));
}
HWY_INLINE V3 texel(const Block& block, std::size_t i) { return {get(block.color[0], i), get(block.color[1], i), get(block.color[2], i)}; }

/// Error where angles count; `far` keeps the unused fourth color out, as in palette_of.
HWY_NOINLINE void evaluate_by_angle(const Block& block, Fit& fit) {
    const auto p = palette_of(fit);
    const auto no_fourth = select(fit.four, zero(), set(far));
    VF sum = zero();
    for (std::size_t i = 0; i < 16; ++i) {
        const auto best = least(least(angle_error(block, p, 0, i), angle_error(block, p, 1, i)),
                                least(angle_error(block, p, 2, i), hn::Add(angle_error(block, p, 3, i), no_fourth)));
        sum = hn::Add(sum, select(hn::Gt(get(block.weight, i), zero()), best, zero()));
    }
    fit.error = sum;
}

HWY_INLINE void evaluate(const Block& block, Fit& fit) {
    if (block.by_angle) return evaluate_by_angle(block, fit);
    const auto p = palette_of(fit);
    VF sum = zero();
    for (std::size_t i = 0; i < 16; ++i) {
        const auto t = texel(block, i);
        const auto best = least(least(closeness(p, 0, t), closeness(p, 1, t)), least(closeness(p, 2, t), closeness(p, 3, t)));
        sum = hn::Add(sum, hn::Mul(hn::Add(best, dot3(t, t)), get(block.weight, i)));
    }
    fit.error = sum;
}

/// 0: a, 1: b, 2 and 3 between; of equally close entries the first.
HWY_INLINE VF nearest_of(VF d0, VF d1, VF d2, VF d3) {
    const auto one = hn::Lt(d1, d0), three = hn::Lt(d3, d2);
    const auto low = least(d0, d1), high = least(d2, d3);
    return select(hn::Lt(high, low), select(three, set(3), set(2)), select(one, set(1), zero()));
}

HWY_INLINE VF nearest_index(const Block& block, const Palette& p, MF four, std::size_t i) {
    const auto t = texel(block, i);
    if (!block.by_angle) return nearest_of(closeness(p, 0, t), closeness(p, 1, t), closeness(p, 2, t), closeness(p, 3, t));
    const auto fourth = hn::Add(angle_error(block, p, 3, i), select(four, zero(), set(far)));
    return nearest_of(angle_error(block, p, 0, i), angle_error(block, p, 1, i), angle_error(block, p, 2, i), fourth);
}

/// Endpoints for given sums (aa = Σwα², A = Σwα, and ax = Σwα·color), on the grid: of the four neighbors of the least-squares solution in each
/// channel the one with the least error.
HWY_INLINE void solve(const Block& block, VF aa, VF share, const V3& ax, Fit& fit) {
    const auto ab = hn::Sub(share, aa);
    const auto rest = hn::Sub(block.total, share);
    const auto bb = hn::Sub(rest, ab);
    const auto det = hn::Sub(hn::Mul(aa, bb), hn::Mul(ab, ab));
    const auto sound = hn::Gt(det, set(1e-3f));
    const auto inverse = hn::Div(set(1), select(sound, det, set(1)));
    for (std::size_t c = 0; c < 3; ++c) {
        const auto bx = hn::Sub(hn::Mul(block.mean[c], block.total), ax[c]);
        auto a = hn::Mul(hn::Sub(hn::Mul(ax[c], bb), hn::Mul(bx, ab)), inverse);
        auto b = hn::Mul(hn::Sub(hn::Mul(bx, aa), hn::Mul(ax[c], ab)), inverse);
        a = select(sound, a, block.mean[c]);
        b = select(sound, b, block.mean[c]);
        const auto top = set(top_step(c));
        const auto a0 = step_below(a, c), b0 = step_below(b, c);
        const std::array<VF, 2> as = {expand(a0, c), expand(least(hn::Add(a0, set(1)), top), c)};
        const std::array<VF, 2> bs = {expand(b0, c), expand(least(hn::Add(b0, set(1)), top), c)};
        VF best = set(far);
        for (const auto& x : as)
            for (const auto& y : bs) {
                // Σw(αx + (1-α)y - color)² up to a constant
                const auto error = hn::Sub(hn::Add(hn::Add(hn::Mul(hn::Mul(x, x), aa), hn::Mul(hn::Mul(y, y), bb)), hn::Mul(hn::Mul(hn::Add(x, x), y), ab)),
                                           hn::Add(hn::Mul(hn::Add(x, x), ax[c]), hn::Mul(hn::Add(y, y), bx)));
                const auto better = hn::Lt(error, best);
                best = select(better, error, best);
                fit.a[c] = select(better, x, fit.a[c]);
                fit.b[c] = select(better, y, fit.b[c]);
            }
    }
}

/// New endpoints for the indices the fit has.
HWY_NOINLINE Fit refined(const Block& block, const Fit& from) {
    const auto p = palette_of(from);
    const auto between = select(from.four, set(2.0f / 3), set(0.5f));
    VF aa = zero(), share = zero();
    V3 ax = {zero(), zero(), zero()};
    for (std::size_t i = 0; i < 16; ++i) {
        const auto t = texel(block, i);
        const auto d0 = closeness(p, 0, t), d1 = closeness(p, 1, t), d2 = closeness(p, 2, t), d3 = closeness(p, 3, t);
        const auto ends = select(hn::Lt(d1, d0), zero(), set(1)), inner = select(hn::Lt(d3, d2), set(1.0f / 3), between);
        const auto alpha = select(hn::Lt(least(d2, d3), least(d0, d1)), inner, ends);
        const auto wa = hn::Mul(get(block.weight, i), alpha);
        aa = hn::Add(aa, hn::Mul(wa, alpha));
        share = hn::Add(share, wa);
        for (std::size_t c = 0; c < 3; ++c) ax[c] = hn::Add(ax[c], hn::Mul(wa, t[c]));
    }
    Fit fit = from;
    solve(block, aa, share, ax, fit);
    evaluate(block, fit);
    return fit;
}

/// Prefix sums along an axis, colors relative to the mean; [k] is the sum of the first k.
struct Ordered {
    alignas(64) float weight[17][max_lanes];
    alignas(64) float color[3][17][max_lanes];
};

HWY_NOINLINE void order_along(const Block& block, const V3& axis, Ordered& out) {
    const DI di;
    std::array<VF, 16> t;
    VF low = set(far), high = set(-far);
    for (std::size_t i = 0; i < 16; ++i) {
        t[i] = dot3(axis, {hn::Sub(get(block.color[0], i), block.mean[0]), hn::Sub(get(block.color[1], i), block.mean[1]), hn::Sub(get(block.color[2], i), block.mean[2])});
        low = least(t[i], low);
        high = most(t[i], high);
    }
    // The place on the axis in the high bits, the texel's number in the low four: sorting integers then carries the texel along.
    const auto scale = hn::Div(set(67108863.0f), most(hn::Sub(high, low), set(1e-20f)));
    std::array<VI, 16> key;
    for (std::size_t i = 0; i < 16; ++i) {
        const auto place = hn::ConvertTo(di, least(hn::Mul(hn::Sub(t[i], low), scale), set(67108863.0f)));
        key[i] = hn::Or(hn::ShiftLeft<4>(place), hn::Set(di, static_cast<std::int32_t>(i)));
    }
    // Batcher's odd-even merge sort for sixteen (Knuth, The Art of Computer Programming 3, section 5.3.4).
    for (std::size_t p = 1; p < 16; p += p)
        for (std::size_t k = p; k >= 1; k /= 2)
            for (std::size_t j = k % p; j + k < 16; j += k + k)
                for (std::size_t i = 0; i < k && i + j + k < 16; ++i)
                    if ((i + j) / (p + p) == (i + j + k) / (p + p)) {
                        const auto x = key[i + j], y = key[i + j + k];
                        key[i + j] = hn::Min(x, y);
                        key[i + j + k] = hn::Max(x, y);
                    }
    const DF df;
    VF weight = zero();
    V3 sum = {zero(), zero(), zero()};
    hn::Store(weight, df, out.weight[0]);
    for (std::size_t c = 0; c < 3; ++c) hn::Store(sum[c], df, out.color[c][0]);
    const auto lane = hn::Iota(di, 0);
    for (std::size_t i = 0; i < 16; ++i) {
        const auto from = hn::Add(hn::Mul(hn::And(key[i], hn::Set(di, 15)), hn::Set(di, static_cast<std::int32_t>(max_lanes))), lane);
        const auto w = hn::GatherIndex(df, &block.weight.v[0][0], from);
        weight = hn::Add(weight, w);
        hn::Store(weight, df, out.weight[i + 1]);
        for (std::size_t c = 0; c < 3; ++c) {
            sum[c] = hn::Add(sum[c], hn::Mul(w, hn::Sub(hn::GatherIndex(df, &block.color[c].v[0][0], from), block.mean[c])));
            hn::Store(sum[c], df, out.color[c][i + 1]);
        }
    }
}

/// What a cut's least-squares problem needs, from n times the shares (n = 3 for four colors, 2 for three): squares = Σw(nα)², share = Σwnα.
/// All but the two quotients are whole numbers where the weights are, so that tables and calculation agree to the bit.
struct Problem {
    VF to_a, to_b;                 ///< endpoint - mean = ± n s × this
    VF squares, mixed, rest;       ///< Σw(nα)², Σw(nα)(n(1-α)), Σw(n(1-α))²
};
HWY_INLINE Problem problem(VF squares, VF share, VF total, float n) {
    const auto all = hn::Mul(total, set(n));
    const auto det = hn::Sub(hn::Mul(squares, total), hn::Mul(share, share));
    const auto sound = hn::Gt(det, set(1e-3f));
    const auto safe = select(sound, det, set(1));
    const auto mixed = hn::Sub(hn::Mul(share, set(n)), squares);
    return {select(sound, hn::Div(hn::Sub(all, share), safe), zero()), select(sound, hn::Div(share, safe), zero()), squares, mixed,
            hn::Sub(hn::Mul(hn::Sub(all, share), set(n)), mixed)};
}

/// The same for sixteen equal weights, in the order the cuts are visited in.
struct Row {
    float to_a, to_b, squares, mixed, rest, gain;
};
constexpr Row make_row(int squares, int share, int n) {
    const int det = squares * 16 - share * share, mixed = share * n - squares;
    const auto safe = static_cast<float>(det > 0 ? det : 1);
    const auto row = [&](int v) { return det > 0 ? static_cast<float>(v) / safe : 0.0f; };
    return {row(16 * n - share), row(share), static_cast<float>(squares), static_cast<float>(mixed), static_cast<float>((16 * n - share) * n - mixed), row(16)};
}
struct Rows {
    std::array<Row, 969> four{};
    std::array<Row, 153> three{};
};
constexpr Rows make_rows() {
    Rows out;
    std::size_t four = 0, three = 0;
    for (int i = 0; i <= 16; ++i)
        for (int j = i; j <= 16; ++j) {
            out.three[three++] = make_row(3 * i + j, i + j, 2);
            for (int k = j; k <= 16; ++k) out.four[four++] = make_row(5 * i + 3 * j + k, i + j + k, 3);
        }
    return out;
}
constexpr Rows rows = make_rows();

HWY_INLINE VF at(const float (&sums)[17][max_lanes], VI row) {
    const DI di;
    return hn::GatherIndex(DF(), &sums[0][0], hn::Add(hn::Mul(row, hn::Set(di, static_cast<std::int32_t>(max_lanes))), hn::Iota(di, 0)));
}

/// One cut's numbers: n times the sums, and its name.
struct Cut {
    V3 s;                   ///< n Σwα(color - mean)
    VF squares, share;      ///< n² Σwα², n Σwα; not filled in for equal weights, whose table has them
    std::size_t number;     ///< in the order the cuts are visited in
    float name;             ///< i, j, k in base 32, exact in a float
};

template <bool uniform, class Visit>
HWY_INLINE void each_cut(const Ordered& order, bool four, const Visit& visit) {
    const DF df;
    std::size_t number = 0;
    for (std::size_t i = 0; i <= 16; ++i) {
        const V3 si = {hn::Load(df, order.color[0][i]), hn::Load(df, order.color[1][i]), hn::Load(df, order.color[2][i])};
        const auto wi = hn::Load(df, order.weight[i]);
        for (std::size_t j = i; j <= 16; ++j) {
            const V3 sij = {hn::Add(si[0], hn::Load(df, order.color[0][j])), hn::Add(si[1], hn::Load(df, order.color[1][j])), hn::Add(si[2], hn::Load(df, order.color[2][j]))};
            const auto wj = hn::Load(df, order.weight[j]);
            if (!four) {
                Cut cut{sij, zero(), zero(), number++, static_cast<float>(i * 1024 + j * 32)};
                if constexpr (!uniform) cut.squares = hn::Add(hn::Mul(wi, set(3)), wj), cut.share = hn::Add(wi, wj);
                visit(cut);
                continue;
            }
            for (std::size_t k = j; k <= 16; ++k) {
                const V3 s = {hn::Add(sij[0], hn::Load(df, order.color[0][k])), hn::Add(sij[1], hn::Load(df, order.color[1][k])), hn::Add(sij[2], hn::Load(df, order.color[2][k]))};
                Cut cut{s, zero(), zero(), number++, static_cast<float>(i * 1024 + j * 32 + k)};
                if constexpr (!uniform) {
                    const auto wk = hn::Load(df, order.weight[k]);
                    cut.squares = hn::Add(hn::Add(hn::Mul(wi, set(5)), hn::Mul(wj, set(3))), wk);
                    cut.share = hn::Add(hn::Add(wi, wj), wk);
                }
                visit(cut);
            }
        }
    }
}

/// How far the cut's error lies below that of the mean alone, with endpoints where they fall.
template <bool uniform>
HWY_INLINE VF gain_of(const Block& block, const Cut& cut, const Row& row) {
    VF factor = set(row.gain);
    if constexpr (!uniform) {
        const auto det = hn::Sub(hn::Mul(cut.squares, block.total), hn::Mul(cut.share, cut.share));
        const auto sound = hn::Gt(det, set(1e-3f));
        factor = select(sound, hn::Div(block.total, select(sound, det, set(1))), zero());
    }
    return hn::Mul(dot3(cut.s, cut.s), factor);
}

/// n² times the cut's error with its endpoints on the 5:6:5 grid, less a constant.
template <bool uniform>
HWY_INLINE VF error_on_grid(const Block& block, const V3& mean_step, const Cut& cut, const Row& row, float n) {
    const auto p = uniform ? Problem{set(row.to_a), set(row.to_b), set(row.squares), set(row.mixed), set(row.rest)} : problem(cut.squares, cut.share, block.total, n);
    VF error = zero();
    for (std::size_t c = 0; c < 3; ++c) {
        const float per_value = top_step(c) / 255, per_step = 255 / top_step(c);
        const auto in_steps = hn::Mul(cut.s[c], set(per_value));
        const auto middle = hn::Add(mean_step[c], set(0.5f));
        const auto step_a = hn::Floor(least(most(hn::Add(middle, hn::Mul(in_steps, p.to_a)), zero()), set(top_step(c) + 0.5f)));
        const auto step_b = hn::Floor(least(most(hn::Sub(middle, hn::Mul(in_steps, p.to_b)), zero()), set(top_step(c) + 0.5f)));
        const auto a = hn::Sub(step_a, mean_step[c]), b = hn::Sub(step_b, mean_step[c]);
        const auto pull = hn::Mul(in_steps, set(2 * n));
        const auto ea = hn::Mul(a, hn::Sub(hn::Add(hn::Mul(a, p.squares), hn::Mul(hn::Add(b, b), p.mixed)), pull));
        const auto eb = hn::Mul(b, hn::Add(hn::Mul(b, p.rest), pull));
        error = hn::Add(error, hn::Mul(hn::Add(ea, eb), set(per_step * per_step)));
    }
    return error;
}

/// The best cut for four (or three) colors, solved and evaluated. Cuts are judged by their endpoints on the grid, which tells apart the
/// many that fit flat art equally well: all of them when `thorough`, otherwise those that without the grid come close to the best.
template <bool uniform>
HWY_NOINLINE Fit cluster_fit(const Block& block, const Ordered& order, bool four, bool thorough) {
    const DF df;
    const DI di;
    const float n = four ? 3 : 2;
    V3 mean_step;
    for (std::size_t c = 0; c < 3; ++c) mean_step[c] = hn::Mul(block.mean[c], set(top_step(c) / 255));
    const Row* row = four ? rows.four.data() : rows.three.data();
    alignas(64) float gains[969][max_lanes];
    VF close_enough = set(-far);
    if (!thorough) {
        VF highest = zero();
        each_cut<uniform>(order, four, [&](const Cut& cut) {
            const auto gain = gain_of<uniform>(block, cut, row[cut.number]);
            hn::Store(gain, df, gains[cut.number]);
            highest = most(gain, highest);
        });
        // What the grid's rounding may cost a good cut, squared and summed. Blocks of one color have nothing to cut.
        close_enough = select(block.flat, set(far), hn::Sub(highest, least(set(32), hn::Mul(highest, set(1.0f / 16)))));
    }
    VF best = set(far), cut_name = zero();
    each_cut<uniform>(order, four, [&](const Cut& cut) {
        auto wanted = hn::Ge(zero(), zero());
        if (!thorough) {
            wanted = hn::Ge(hn::Load(df, gains[cut.number]), close_enough);
            if (hn::AllFalse(df, wanted)) return;
        }
        const auto error = error_on_grid<uniform>(block, mean_step, cut, row[cut.number], n);
        const auto better = hn::And(wanted, hn::Lt(error, best));
        best = select(better, error, best);
        cut_name = select(better, set(cut.name), cut_name);
    });
    const auto name = hn::ConvertTo(di, cut_name);
    const auto i = hn::ShiftRight<10>(name), j = hn::And(hn::ShiftRight<5>(name), hn::Set(di, 31)), k = hn::And(name, hn::Set(di, 31));
    const auto wi = at(order.weight, i), wj = at(order.weight, j), wk = at(order.weight, k);
    VF aa, share;
    if (four) {
        aa = hn::Mul(hn::Add(hn::Add(hn::Mul(wi, set(5)), hn::Mul(wj, set(3))), wk), set(1.0f / 9));
        share = hn::Mul(hn::Add(hn::Add(wi, wj), wk), set(1.0f / 3));
    } else {
        aa = hn::Mul(hn::Add(hn::Mul(wi, set(3)), wj), set(0.25f));
        share = hn::Mul(hn::Add(wi, wj), set(0.5f));
    }
    V3 ax;
    for (std::size_t c = 0; c < 3; ++c) {
        auto s = hn::Add(at(order.color[c], i), at(order.color[c], j));
        s = four ? hn::Mul(hn::Add(s, at(order.color[c], k)), set(1.0f / 3)) : hn::Mul(s, set(0.5f));
        ax[c] = hn::Add(s, hn::Mul(share, block.mean[c]));
    }
    Fit fit;
    for (std::size_t c = 0; c < 3; ++c) fit.a[c] = fit.b[c] = zero();
    fit.four = four ? hn::Ge(zero(), zero()) : hn::Lt(zero(), zero());
    solve(block, aa, share, ax, fit);
    evaluate(block, fit);
    return fit;
}

/// Endpoints at the ends of the colors' spread along the axis.
HWY_INLINE Fit range_fit(const Block& block, const V3& axis, MF four) {
    VF low = set(far), high = set(-far);
    for (std::size_t i = 0; i < 16; ++i) {
        const auto t = dot3(axis, {hn::Sub(get(block.color[0], i), block.mean[0]), hn::Sub(get(block.color[1], i), block.mean[1]), hn::Sub(get(block.color[2], i), block.mean[2])});
        const auto counts = hn::Gt(get(block.weight, i), zero());
        low = select(counts, least(t, low), low);
        high = select(counts, most(t, high), high);
    }
    const auto size = dot3(axis, axis);
    const auto scale = select(hn::Gt(size, set(1e-12f)), hn::Div(set(1), most(size, set(1e-12f))), zero());
    Fit fit;
    for (std::size_t c = 0; c < 3; ++c) {
        const auto unit = hn::Mul(axis[c], scale);
        fit.a[c] = on_grid(hn::Add(block.mean[c], hn::Mul(unit, high)), c);
        fit.b[c] = on_grid(hn::Add(block.mean[c], hn::Mul(unit, low)), c);
    }
    fit.four = four;
    evaluate(block, fit);
    return fit;
}

/// Steps of one grid place in every direction, as long as it helps.
HWY_NOINLINE void walk(const Block& block, Fit& best, int rounds) {
    for (int round = 0; round < rounds; ++round) {
        const auto before = best.error;
        for (std::size_t c = 0; c < 3; ++c) {
            constexpr std::array<std::array<int, 2>, 8> moves = {{{1, 0}, {-1, 0}, {0, 1}, {0, -1}, {1, 1}, {-1, -1}, {1, -1}, {-1, 1}}};
            for (const auto& move : moves) {
                Fit next = best;
                const auto moved = [&](VF value, int by) {
                    const auto step = nearest(hn::Mul(value, set(top_step(c) / 255)));
                    return expand(clamp(hn::Add(step, set(static_cast<float>(by))), 0, top_step(c)), c);
                };
                if (move[0]) next.a[c] = moved(best.a[c], move[0]);
                if (move[1]) next.b[c] = moved(best.b[c], move[1]);
                evaluate(block, next);
                keep_better(best, next);
            }
        }
        // A lane that did not move in a whole round would not move in the next: leaving early changes no lane's result.
        if (hn::AllFalse(DF(), hn::Lt(best.error, before))) break;
    }
}

/// Where all colors are one: per channel the endpoints whose mixture at index 2 comes closest, over all pairs.
struct SingleColors {
    struct Pair {
        std::uint8_t a, b;
    };
    std::array<std::array<Pair, 256>, 2> five{}, six{};  ///< [four colors][value]; values, not steps
};
const SingleColors& single_colors() {
    static const SingleColors table = [] {
        SingleColors out;
        for (const bool four : {false, true})
            for (const bool green : {false, true}) {
                auto& row = (green ? out.six : out.five)[four];
                std::array<int, 256> best;
                best.fill(1 << 30);
                const int top = green ? 63 : 31;
                for (int a = 0; a <= top; ++a)
                    for (int b = 0; b <= top; ++b) {
                        const int x = green ? a << 2 | a >> 4 : a << 3 | a >> 2, y = green ? b << 2 | b >> 4 : b << 3 | b >> 2;
                        const int mixed = four ? (2 * x + y) / 3 : (x + y) / 2;
                        for (int v = 0; v < 256; ++v) {
                            // Close endpoints are preferred among equals: decoders differ in rounding, and less so over a short distance.
                            const int score = std::abs(mixed - v) * 256 + std::abs(a - b);
                            if (score < best[static_cast<std::size_t>(v)]) {
                                best[static_cast<std::size_t>(v)] = score;
                                row[static_cast<std::size_t>(v)] = {static_cast<std::uint8_t>(x), static_cast<std::uint8_t>(y)};
                            }
                        }
                    }
            }
        return out;
    }();
    return table;
}

/// For blocks of one color; other lanes are left as they are.
HWY_INLINE void single_fit(const Block& block, MF four, Fit& best) {
    const DF df;
    if (hn::AllFalse(df, block.flat)) return;
    const auto& table = single_colors();
    Fit fit;
    fit.four = four;
    const std::size_t n = hn::Lanes(df);
    alignas(64) float is_four[max_lanes], mean[max_lanes], a[max_lanes], b[max_lanes];
    hn::Store(select(four, set(1), zero()), df, is_four);
    for (std::size_t c = 0; c < 3; ++c) {
        hn::Store(nearest(block.mean[c]), df, mean);
        for (std::size_t lane = 0; lane < n; ++lane) {
            const auto& row = (c == 1 ? table.six : table.five)[is_four[lane] > 0];
            const auto pair = row[static_cast<std::size_t>(std::min(mean[lane], 255.0f))];
            a[lane] = pair.a;
            b[lane] = pair.b;
        }
        fit.a[c] = hn::Load(df, a);
        fit.b[c] = hn::Load(df, b);
    }
    evaluate(block, fit);
    fit.error = select(block.flat, fit.error, set(far));
    keep_better(best, fit);
}

void store(const Block& block, const Fit& fit, bool punch_through, std::size_t lanes, std::size_t first, std::byte* out, std::size_t stride) {
    const DI di;
    const auto packed = [&](const V3& color) {
        const auto step = [&](std::size_t c) { return hn::ConvertTo(di, nearest(hn::Mul(color[c], set(top_step(c) / 255)))); };
        return hn::Or(hn::Or(hn::ShiftLeft<11>(step(0)), hn::ShiftLeft<5>(step(1))), step(2));
    };
    const auto a = packed(fit.a), b = packed(fit.b);
    const auto p = palette_of(fit);
    const auto three = hn::Set(di, 3);
    VI indices = hn::Zero(di), holes = hn::Zero(di);
    for (std::size_t i = 0; i < 16; ++i) {
        const auto shift = static_cast<int>(2 * i);
        indices = hn::Or(indices, hn::ShiftLeftSame(hn::ConvertTo(di, nearest_index(block, p, fit.four, i)), shift));
        if (punch_through) holes = hn::Or(holes, hn::ShiftLeftSame(hn::IfThenElseZero(hn::RebindMask(di, hn::Lt(get(block.color[3], i), set(128))), three), shift));
    }
    const auto four = hn::RebindMask(di, fit.four), equal = hn::Eq(a, b);
    // The order of the endpoints says which mode it is: first > second means four colors.
    const auto swap = hn::IfThenElse(four, hn::VecFromMask(di, hn::Lt(a, b)), hn::VecFromMask(di, hn::Gt(a, b)));
    // Swapped endpoints swap 0 with 1, and with four colors 2 with 3: the low bit of each, or of those without the high bit.
    const auto low_bits = hn::Set(di, 0x55555555);
    const auto of_three = hn::AndNot(hn::ShiftRight<1>(indices), low_bits);
    indices = hn::Xor(indices, hn::And(swap, hn::IfThenElse(four, low_bits, of_three)));
    // Equal endpoints read as three colors in BC1: then only index 0 may be used, and nothing is lost.
    indices = hn::IfThenElseZero(hn::Not(hn::And(four, equal)), indices);
    indices = hn::Or(indices, holes);
    const auto is_swapped = hn::MaskFromVec(swap);
    alignas(64) std::int32_t ends[max_lanes], words[max_lanes];
    hn::Store(hn::Or(hn::IfThenElse(is_swapped, b, a), hn::ShiftLeft<16>(hn::IfThenElse(is_swapped, a, b))), di, ends);
    hn::Store(indices, di, words);
    for (std::size_t lane = 0; lane < lanes; ++lane) {
        auto* bytes = out + (first + lane) * stride;
        store_le(bytes, static_cast<std::uint32_t>(ends[lane]));
        store_le(bytes + 4, static_cast<std::uint32_t>(words[lane]));
    }
}

void run(const Texel* blocks, std::size_t count, std::byte* out, std::size_t stride, bool punch_through, const EncodeOptions& options) {
    each_group(blocks, count, [&](const Texel* texels, std::size_t lanes, std::size_t first) {
        Block block;
        load_channels(texels, block.color);
        auto any_clear = hn::Lt(zero(), zero()), all_clear = hn::Ge(zero(), zero());
        block.total = zero();
        block.mean = {zero(), zero(), zero()};
        auto all_one = hn::Ge(zero(), zero());
        for (std::size_t i = 0; i < 16; ++i) {
            auto weight = set(1);
            const auto a = get(block.color[3], i);
            if (options.alpha_is_transparency) weight = most(hn::Mul(a, set(1.0f / 255)), set(1.0f / 32));  // what is filtered at an edge still shows it
            if (punch_through) {
                const auto clear = hn::Lt(a, set(128));
                any_clear = hn::Or(any_clear, clear);
                all_clear = hn::And(all_clear, clear);
                weight = select(clear, zero(), weight);
            }
            all_one = hn::And(all_one, hn::Eq(weight, set(1)));
            put(block.weight, i, weight);
            block.total = hn::Add(block.total, weight);
            for (std::size_t c = 0; c < 3; ++c) block.mean[c] = hn::Add(block.mean[c], hn::Mul(weight, get(block.color[c], i)));
        }
        block.uniform = hn::AllTrue(DF(), all_one);
        const auto inverse = hn::Div(set(1), most(block.total, set(1e-6f)));
        for (auto& m : block.mean) m = hn::Mul(m, inverse);

        std::array<VF, 6> covariance;
        covariance.fill(zero());
        for (std::size_t i = 0; i < 16; ++i) {
            const auto w = get(block.weight, i);
            const V3 d = {hn::Sub(get(block.color[0], i), block.mean[0]), hn::Sub(get(block.color[1], i), block.mean[1]), hn::Sub(get(block.color[2], i), block.mean[2])};
            const V3 wd = {hn::Mul(w, d[0]), hn::Mul(w, d[1]), hn::Mul(w, d[2])};
            covariance[0] = hn::Add(covariance[0], hn::Mul(wd[0], d[0]));
            covariance[1] = hn::Add(covariance[1], hn::Mul(wd[0], d[1]));
            covariance[2] = hn::Add(covariance[2], hn::Mul(wd[0], d[2]));
            covariance[3] = hn::Add(covariance[3], hn::Mul(wd[1], d[1]));
            covariance[4] = hn::Add(covariance[4], hn::Mul(wd[1], d[2]));
            covariance[5] = hn::Add(covariance[5], hn::Mul(wd[2], d[2]));
        }
        const auto axis = principal_axis(covariance);
        block.flat = hn::Eq(hn::Add(hn::Add(covariance[0], covariance[3]), covariance[5]), zero());
        // A block with transparent texels has three colors, index 3 being the transparent one.
        const auto four = hn::Not(any_clear);
        const auto usable = [&](Fit fit) {  // four colors only where they are allowed
            fit.error = select(hn::And(fit.four, any_clear), set(far), fit.error);
            return fit;
        };

        Fit best = range_fit(block, axis, four);
        single_fit(block, four, best);
        if (options.effort == Effort::fast) {
            keep_better(best, refined(block, best));
        } else {
            const bool three_too = punch_through;  // BC2 and BC3 always read four colors
            if (three_too) single_fit(block, hn::Lt(zero(), zero()), best);
            V3 along = axis;
            const bool thorough = options.effort == Effort::best;
            for (int round = 0; round < (thorough ? 2 : 1); ++round) {
                Ordered order;
                order_along(block, along, order);
                const auto clusters = [&](bool colors4) {
                    return block.uniform ? cluster_fit<true>(block, order, colors4, thorough) : cluster_fit<false>(block, order, colors4, thorough);
                };
                Fit fit = clusters(true);
                keep_better(fit, refined(block, fit));
                keep_better(best, usable(fit));
                if (three_too) {
                    fit = clusters(false);
                    keep_better(fit, refined(block, fit));
                    keep_better(best, fit);
                }
                for (std::size_t c = 0; c < 3; ++c) along[c] = hn::Sub(best.a[c], best.b[c]);
            }
            if (thorough) walk(block, best, 8);
        }
        if (options.normals) {
            block.by_angle = true;
            for (std::size_t lane = 0; lane < hn::Lanes(DF()); ++lane)
                for (std::size_t i = 0; i < 16; ++i) {
                    const auto metric = angle_metric(options, texels[lane * 16 + i]);
                    for (std::size_t c = 0; c < 3; ++c) block.square[c].v[i][lane] = metric.square[c], block.along[c].v[i][lane] = metric.along[c];
                    block.mixed.v[i][lane] = metric.mixed;
                }
            evaluate(block, best);
            if (options.effort != Effort::fast) walk(block, best, options.effort == Effort::best ? 8 : 3);
        }
        store(block, best, punch_through, lanes, first, out, stride);
    });
}

}  // namespace

void encode_color_parts_simd(const Texel* blocks, std::size_t count, std::byte* out, std::size_t stride, bool punch_through, const EncodeOptions& options) {
    run(blocks, count, out, stride, punch_through, options);
}

}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace skivet {
HWY_EXPORT(encode_color_parts_simd);

void encode_color_parts(const Texel* blocks, std::size_t count, std::byte* out, std::size_t stride, bool punch_through, const EncodeOptions& options) {
    HWY_DYNAMIC_DISPATCH(encode_color_parts_simd)(blocks, count, out, stride, punch_through, options);
}
}  // namespace skivet
#endif

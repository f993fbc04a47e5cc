// Included once for each SIMD target by color_part_encode.cpp (see lanes-inl.h).
// The cluster fit of a color part: all cuts of the order along an axis (see color_part_encode.cpp).
#if defined(SKIVET_COLOR_PART_CLUSTERS_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef SKIVET_COLOR_PART_CLUSTERS_INL_H
#undef SKIVET_COLOR_PART_CLUSTERS_INL_H
#else
#define SKIVET_COLOR_PART_CLUSTERS_INL_H
#endif

#include "codec/color_part_fit-inl.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

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
        t[i] = dot3(axis, {hn::Sub(get(block.color[0], i), block.mean[0]), hn::Sub(get(block.color[1], i), block.mean[1]),
                           hn::Sub(get(block.color[2], i), block.mean[2])});
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
    VF to_a, to_b;            ///< endpoint - mean = ± n s × this
    VF squares, mixed, rest;  ///< Σw(nα)², Σw(nα)(n(1-α)), Σw(n(1-α))²
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
    return {row(16 * n - share),
            row(share),
            static_cast<float>(squares),
            static_cast<float>(mixed),
            static_cast<float>((16 * n - share) * n - mixed),
            row(16)};
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
    V3 s;                ///< n Σwα(color - mean)
    VF squares, share;   ///< n² Σwα², n Σwα; not filled in for equal weights, whose table has them
    std::size_t number;  ///< in the order the cuts are visited in
    float name;          ///< i, j, k in base 32, exact in a float
};

template <bool uniform, class Visit>
HWY_INLINE void each_cut(const Ordered& order, bool four, const Visit& visit) {
    const DF df;
    std::size_t number = 0;
    for (std::size_t i = 0; i <= 16; ++i) {
        const V3 si = {hn::Load(df, order.color[0][i]), hn::Load(df, order.color[1][i]), hn::Load(df, order.color[2][i])};
        const auto wi = hn::Load(df, order.weight[i]);
        for (std::size_t j = i; j <= 16; ++j) {
            const V3 sij = {hn::Add(si[0], hn::Load(df, order.color[0][j])), hn::Add(si[1], hn::Load(df, order.color[1][j])),
                            hn::Add(si[2], hn::Load(df, order.color[2][j]))};
            const auto wj = hn::Load(df, order.weight[j]);
            if (!four) {
                Cut cut{sij, zero(), zero(), number++, static_cast<float>(i * 1024 + j * 32)};
                if constexpr (!uniform) cut.squares = hn::Add(hn::Mul(wi, set(3)), wj), cut.share = hn::Add(wi, wj);
                visit(cut);
                continue;
            }
            for (std::size_t k = j; k <= 16; ++k) {
                const V3 s = {hn::Add(sij[0], hn::Load(df, order.color[0][k])), hn::Add(sij[1], hn::Load(df, order.color[1][k])),
                              hn::Add(sij[2], hn::Load(df, order.color[2][k]))};
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
    const auto p = uniform ? Problem{set(row.to_a), set(row.to_b), set(row.squares), set(row.mixed), set(row.rest)}
                           : problem(cut.squares, cut.share, block.total, n);
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

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif

// Included once for each SIMD target. The modes that ETC2 adds, for N blocks at once: a least-squares plane, and T and H from two clusters
// along the principal axis.
#if defined(SKIVET_ETC_PAINT_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef SKIVET_ETC_PAINT_INL_H
#undef SKIVET_ETC_PAINT_INL_H
#else
#define SKIVET_ETC_PAINT_INL_H
#endif

#include "codec/etc_halves-inl.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

/// Least squares for O + x (H - O) / 4 + y (V - O) / 4 over x, y = 0…3.
inline void fit_planar(const EtcBlocks& blocks, Effort effort, MF allowed, EtcChoice& best) {
    constexpr std::array<float, 3> tops = {63, 127, 63};
    std::array<VF, 9> found;
    auto all = zero();
    for (std::size_t c = 0; c < 3; ++c) {
        const auto& values = blocks.texels[c];
        const float top = tops[c];
        const auto expanded_code = [&](VF q) {
            return c == 1 ? hn::Add(hn::Mul(q, set(2)), hn::Floor(hn::Mul(q, set(1.0f / 64))))
                          : hn::Add(hn::Mul(q, set(4)), hn::Floor(hn::Mul(q, set(1.0f / 16))));
        };
        const auto error = [&](const V3& q) {
            const auto o = expanded_code(q[0]), across = hn::Sub(expanded_code(q[1]), o), down = hn::Sub(expanded_code(q[2]), o);
            auto out = zero();
            auto row = hn::Add(hn::Mul(o, set(4)), set(2));
            for (std::size_t y = 0; y < 4; ++y, row = hn::Add(row, down)) {
                auto v = row;
                for (std::size_t x = 0; x < 4; ++x, v = hn::Add(v, across)) {
                    const auto d = hn::Sub(clamp(hn::Floor(hn::Mul(v, set(0.25f))), 0, 255), get(values, y * 4 + x));
                    out = hn::MulAdd(d, d, out);
                }
            }
            return out;
        };
        auto sum = zero(), along_x = zero(), along_y = zero();
        for (std::size_t i = 0; i < 16; ++i) {
            const auto v = get(values, i);
            sum = hn::Add(sum, v);
            along_x = hn::Add(along_x, hn::Mul(v, set(static_cast<float>(i % 4) - 1.5f)));
            along_y = hn::Add(along_y, hn::Mul(v, set(static_cast<float>(i / 4) - 1.5f)));
        }
        // Σ(x - 1.5)² over the block is 20.
        const auto slope_x = hn::Div(along_x, set(20)), slope_y = hn::Div(along_y, set(20));
        const auto o = hn::Sub(hn::Div(sum, set(16)), hn::Mul(hn::Add(slope_x, slope_y), set(1.5f)));
        const auto code = [&](VF v) { return clamp(nearest(hn::Mul(v, set(top / 255))), 0, top); };
        V3 q = {code(o), code(hn::Add(o, hn::Mul(slope_x, set(4)))), code(hn::Add(o, hn::Mul(slope_y, set(4))))};
        auto least_error = error(q);
        constexpr int most_passes = 16;
        for (int pass = 0; pass < most_passes && effort != Effort::fast; ++pass) {
            const auto from = q;
            const auto before = least_error;
            for (int n = 0; n < 27; ++n) {
                if (n == 13) continue;
                const V3 next = {hn::Add(from[0], set(static_cast<float>(n / 9 - 1))),
                                 hn::Add(from[1], set(static_cast<float>(n / 3 % 3 - 1))),
                                 hn::Add(from[2], set(static_cast<float>(n % 3 - 1)))};
                const auto fits = hn::And(hn::And(inside(next[0], top), inside(next[1], top)), inside(next[2], top));
                const auto e = select(fits, error(next), set(no_error));
                const auto better = hn::Lt(e, least_error);
                for (std::size_t k = 0; k < 3; ++k) q[k] = select(better, next[k], q[k]);
                least_error = select(better, e, least_error);
            }
            if (hn::AllFalse(DF(), hn::Lt(least_error, before))) break;
        }
        for (std::size_t k = 0; k < 3; ++k) found[k * 3 + c] = q[k];
        all = hn::Add(all, least_error);
    }
    best.keep(select(allowed, all, set(no_error)), etc::Mode::planar, found, zero(), zero());
}

struct EtcPaint {
    V3 a, b;  ///< 4 bits a channel
    VF distance, error;
    explicit EtcPaint(VF good_enough) : a{zero(), zero(), zero()}, b{zero(), zero(), zero()}, distance(zero()), error(good_enough) {}
    void keep(const V3& x, const V3& y, VF d, VF e) {
        const auto better = hn::Lt(e, error);
        for (std::size_t c = 0; c < 3; ++c) a[c] = select(better, x[c], a[c]), b[c] = select(better, y[c], b[c]);
        distance = select(better, d, distance);
        error = select(better, e, error);
    }
};

template <bool h_mode>
VF paint_error(const EtcBlocks& blocks, VF squares, const V3& a4, const V3& b4, VF by) {
    V3 a, b;
    for (std::size_t c = 0; c < 3; ++c) a[c] = hn::Mul(a4[c], set(17)), b[c] = hn::Mul(b4[c], set(17));
    Colors4 colors;
    colors.set_color(0, h_mode ? byte_of(each(a, by)) : a);
    colors.set_color(1, h_mode ? byte_of(each(a, hn::Neg(by))) : b);
    colors.set_color(2, byte_of(each(b, by)));
    colors.set_color(3, byte_of(each(b, hn::Neg(by))));
    for (std::size_t i = 0; i < 16; ++i) squares = hn::Add(squares, colors.least_of(texel(blocks, i)));
    return squares;
}

/// T and H from cuts of the texels' order along their principal axis.
inline void fit_paint(const EtcBlocks& blocks, Effort effort, MF allowed, EtcChoice& best) {
    const auto good_enough = select(allowed, best.error, zero());
    V3 mean = {zero(), zero(), zero()};
    auto squares = zero();
    for (std::size_t i = 0; i < 16; ++i) {
        const auto t = texel(blocks, i);
        squares = hn::Add(squares, dot3(t, t));
        for (std::size_t c = 0; c < 3; ++c) mean[c] = hn::Add(mean[c], hn::Mul(t[c], set(1.0f / 16)));
    }
    std::array<VF, 6> spread;
    spread.fill(zero());
    for (std::size_t i = 0; i < 16; ++i) {
        const auto t = texel(blocks, i);
        const V3 d = {hn::Sub(t[0], mean[0]), hn::Sub(t[1], mean[1]), hn::Sub(t[2], mean[2])};
        for (std::size_t p = 0, n = 0; p < 3; ++p)
            for (std::size_t q = p; q < 3; ++q, ++n) spread[n] = hn::Add(spread[n], hn::Mul(d[p], d[q]));
    }
    const auto axis = principal_axis(spread);
    Plane along;
    for (std::size_t i = 0; i < 16; ++i) {
        const auto t = texel(blocks, i);
        put(along, i, dot3(axis, {hn::Sub(t[0], mean[0]), hn::Sub(t[1], mean[1]), hn::Sub(t[2], mean[2])}));
    }
    // A cut is behind a texel's place on the axis; its worth is what two means take of the squares. Equal places are one cut.
    Plane worth;
    for (std::size_t j = 0; j < 16; ++j) {
        const auto place = get(along, j);
        auto sum = zero(), count = zero();
        auto repeats = hn::Lt(zero(), zero());
        for (std::size_t i = 0; i < 16; ++i) {
            const auto v = get(along, i);
            const auto low = hn::Le(v, place);
            sum = hn::Add(sum, select(low, v, zero()));
            count = hn::Add(count, select(low, set(1), zero()));
            if (i < j) repeats = hn::Or(repeats, hn::Eq(v, place));
        }
        const auto others = hn::Sub(set(16), count);
        const auto gain = hn::Div(hn::Mul(hn::Mul(sum, sum), set(16)), most(hn::Mul(count, others), set(1)));
        put(worth, j, select(hn::Or(repeats, hn::Lt(others, set(1))), set(-1), gain));
    }
    EtcPaint best_t(good_enough), best_h(good_enough);
    const auto attempt = [&](auto h_mode, EtcPaint& kept, const V3& a, const V3& b, VF d, VF by, MF valid) {
        auto e = paint_error<decltype(h_mode)::value>(blocks, squares, a, b, by);
        if constexpr (decltype(h_mode)::value) {
            // The colors' order is the lowest bit of the distance, so equal ones have odd distances only.
            const auto equal = hn::And(hn::And(hn::Eq(a[0], b[0]), hn::Eq(a[1], b[1])), hn::Eq(a[2], b[2]));
            const auto half = hn::Mul(d, set(0.5f));
            valid = hn::And(valid, hn::Not(hn::And(equal, hn::Eq(hn::Floor(half), half))));
        }
        kept.keep(a, b, d, select(valid, e, set(no_error)));
    };
    for (std::size_t n = 0; n < (effort == Effort::best ? 4u : 1u); ++n) {
        auto most_worth = set(-2), place = zero();
        for (std::size_t j = 0; j < 16; ++j) {
            const auto w = get(worth, j);
            const auto better = hn::Gt(w, most_worth);
            most_worth = select(better, w, most_worth);
            place = select(better, get(along, j), place);
        }
        V3 low_sum = {zero(), zero(), zero()}, high_sum = low_sum;
        auto count = zero();
        for (std::size_t i = 0; i < 16; ++i) {
            const auto is_low = hn::Le(get(along, i), place);
            const auto t = texel(blocks, i);
            for (std::size_t c = 0; c < 3; ++c) {
                low_sum[c] = hn::Add(low_sum[c], select(is_low, t[c], zero()));
                high_sum[c] = hn::Add(high_sum[c], select(is_low, zero(), t[c]));
            }
            count = hn::Add(count, select(is_low, set(1), zero()));
            // The next one takes another.
            put(worth, i, select(hn::Eq(get(along, i), place), set(-1), get(worth, i)));
        }
        const auto others = hn::Sub(set(16), count);
        V3 low, high;
        for (std::size_t c = 0; c < 3; ++c) {
            low[c] = quantized(hn::Div(low_sum[c], most(count, set(1))), 15);
            high[c] = quantized(hn::Div(high_sum[c], most(others, set(1))), 15);
        }
        const auto valid = hn::Ge(most_worth, zero());
        for (std::size_t d = 0; d < 8; ++d) {
            const auto index = set(static_cast<float>(d)), by = set(static_cast<float>(etc::distances[d]));
            attempt(std::false_type(), best_t, low, high, index, by, valid);
            attempt(std::false_type(), best_t, high, low, index, by, valid);
            attempt(std::true_type(), best_h, low, high, index, by, valid);
        }
    }
    const auto walk = [&](auto h_mode, EtcPaint& kept) {
        constexpr int most_passes = 16;
        const auto begun = hn::Lt(kept.error, good_enough);
        if (hn::AllFalse(DF(), begun)) return;
        for (int pass = 0; pass < most_passes; ++pass) {
            const auto from = kept;
            std::array<VF, 3> distances, by;
            std::array<MF, 3> there;
            for (std::size_t k = 0; k < 3; ++k) {
                distances[k] = hn::Add(from.distance, set(static_cast<float>(k) - 1));
                there[k] = hn::And(begun, inside(distances[k], 7));
                by[k] = looked_up(distances[k], [](std::size_t i) { return etc::distances[i]; });
            }
            for (std::size_t n = 0; n < 12; ++n) {
                auto a = from.a, b = from.b;
                auto& v = n / 2 < 3 ? a[n / 2] : b[n / 2 - 3];
                v = hn::Add(v, set(n % 2 ? 1 : -1));
                const auto fits = inside(v, 15);
                for (std::size_t k = 0; k < 3; ++k) attempt(h_mode, kept, a, b, distances[k], by[k], hn::And(fits, there[k]));
            }
            if (hn::AllFalse(DF(), hn::Lt(kept.error, from.error))) break;
        }
    };
    if (effort != Effort::fast) walk(std::false_type(), best_t), walk(std::true_type(), best_h);
    const auto keep = [&](const EtcPaint& p, etc::Mode mode) {
        best.keep(select(hn::Lt(p.error, good_enough), p.error, set(no_error)), mode,
                  {p.a[0], p.a[1], p.a[2], p.b[0], p.b[1], p.b[2], zero(), zero(), zero()}, p.distance, zero());
    };
    keep(best_t, etc::Mode::t);
    keep(best_h, etc::Mode::h);
}

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif

// Included once for each SIMD target by color_part_encode.cpp (see lanes-inl.h).
// A color part's endpoints: their palette, their error, and the best ones for given indices.
#if defined(SKIVET_COLOR_PART_FIT_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef SKIVET_COLOR_PART_FIT_INL_H
#undef SKIVET_COLOR_PART_FIT_INL_H
#else
#define SKIVET_COLOR_PART_FIT_INL_H
#endif

#include "codec/lanes-inl.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

constexpr float far = 1e30f;

struct Block {
    std::array<Plane, 4> color;  ///< and alpha
    Plane weight;
    MF flat;   ///< one color only
    VF total;  ///< sum of the weights
    V3 mean;
    bool uniform;                        ///< all weights of all lanes are 1
    std::array<Plane, 3> square, along;  ///< for normals: AngleMetric of each texel
    Plane mixed;
    bool by_angle = false;
};

struct Fit {
    V3 a, b;  ///< endpoints on the grid, 0…255
    VF error;
    MF four;
};

HWY_INLINE VF expand(VF step, std::size_t c) {
    return c == 1 ? hn::Add(hn::Mul(step, set(4)), hn::Floor(hn::Mul(step, set(1.0f / 16))))
                  : hn::Add(hn::Mul(step, set(8)), hn::Floor(hn::Mul(step, set(0.25f))));
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

/// Endpoints for given sums (aa = Σwα², A = Σwα, and ax = Σwα·color), on the grid: of the four neighbors of the least-squares solution in
/// each channel the one with the least error.
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
                const auto error = hn::Sub(
                    hn::Add(hn::Add(hn::Mul(hn::Mul(x, x), aa), hn::Mul(hn::Mul(y, y), bb)), hn::Mul(hn::Mul(hn::Add(x, x), y), ab)),
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

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif

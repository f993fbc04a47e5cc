// Included once for each SIMD target by color_part_encode.cpp (see lanes-inl.h).
// Blocks of few colors may be what a color part held before: the daily case, where a texture is decoded, touched and encoded again. Then
// the two colors furthest apart lie on two of the palette's places, and the endpoints follow from them.
#if defined(SKIVET_COLOR_PART_RECALL_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef SKIVET_COLOR_PART_RECALL_INL_H
#undef SKIVET_COLOR_PART_RECALL_INL_H
#else
#define SKIVET_COLOR_PART_RECALL_INL_H
#endif

#include "codec/color_part_fit-inl.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

/// Colors that a color part can show, the clear one among them.
constexpr float most_recalled = 4;

/// The colors at both ends of the axis.
struct Outermost {
    V3 high, low;
};
HWY_INLINE Outermost outermost(const Block& block, const V3& axis) {
    Outermost out{block.mean, block.mean};
    VF low = set(far), high = set(-far);
    for (std::size_t i = 0; i < 16; ++i) {
        const auto color = texel(block, i);
        const auto t = dot3(axis, color);
        const auto counts = hn::Gt(get(block.weight, i), zero());
        const auto is_low = hn::And(counts, hn::Lt(t, low)), is_high = hn::And(counts, hn::Gt(t, high));
        low = select(is_low, t, low);
        high = select(is_high, t, high);
        for (std::size_t c = 0; c < 3; ++c) {
            out.low[c] = select(is_low, color[c], out.low[c]);
            out.high[c] = select(is_high, color[c], out.high[c]);
        }
    }
    return out;
}

/// The palette of `parts` + 1 colors in the order they lie in, if the outermost ones of the block are at places i < j of it.
HWY_INLINE Fit placed(const Outermost& ends, int i, int j, int parts) {
    const auto n = static_cast<float>(parts);
    const auto level = [&](VF a, VF b, int k) {  // cut off, as the decoder does
        const auto sum = hn::Add(hn::Mul(a, set(static_cast<float>(parts - k))), hn::Mul(b, set(static_cast<float>(k))));
        return k == 0 ? a : k == parts ? b : hn::Floor(hn::Mul(sum, set(1 / n)));
    };
    const auto cut = [&](int k) { return set(k == 0 || k == parts ? 0 : (n - 1) / (2 * n)); };  // on average
    Fit out;
    out.four = parts == 3 ? hn::Ge(zero(), zero()) : hn::Lt(zero(), zero());
    for (std::size_t c = 0; c < 3; ++c) {
        const auto p = hn::Add(ends.high[c], cut(i)), q = hn::Add(ends.low[c], cut(j));
        const auto step = hn::Mul(hn::Sub(p, q), set(1 / static_cast<float>(j - i)));
        const auto middle = [&](VF end) { return nearest(hn::Mul(clamp(end, 0, 255), set(top_step(c) / 255))); };
        const auto a = middle(hn::Add(p, hn::Mul(step, set(static_cast<float>(i)))));
        const auto b = middle(hn::Sub(q, hn::Mul(step, set(static_cast<float>(parts - j)))));
        VF best = set(far);
        for (const float da : {0.0f, -1.0f, 1.0f})
            for (const float db : {0.0f, -1.0f, 1.0f}) {
                const auto x = expand(clamp(hn::Add(a, set(da)), 0, top_step(c)), c),
                           y = expand(clamp(hn::Add(b, set(db)), 0, top_step(c)), c);
                const auto dp = hn::Sub(level(x, y, i), ends.high[c]), dq = hn::Sub(level(x, y, j), ends.low[c]);
                const auto error = hn::Add(hn::Mul(dp, dp), hn::Mul(dq, dq));
                const auto better = hn::Lt(error, best);
                best = select(better, error, best);
                out.a[c] = select(better, x, out.a[c]);
                out.b[c] = select(better, y, out.b[c]);
            }
    }
    return out;
}

/// Offers every place the outermost colors may have: with four colors where `four_too`, with three where `three_too`, by lane.
HWY_NOINLINE void recall(const Block& block, const V3& axis, MF four_too, bool three_too, Fit& best) {
    const auto ends = outermost(block, axis);
    for (const int parts : {3, 2}) {
        if (parts == 2 && !three_too) break;
        for (int apart = parts; apart >= 1; --apart)
            for (int i = 0; i + apart <= parts; ++i) {
                auto fit = placed(ends, i, i + apart, parts);
                evaluate(block, fit);
                if (parts == 3) fit.error = select(four_too, fit.error, set(far));
                keep_better(best, fit);
                if (hn::AllFalse(DF(), hn::Gt(best.error, zero()))) return;
            }
    }
}

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif

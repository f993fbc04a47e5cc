// Encoding the single-channel part of BC3 to BC5, N blocks at a time (see lanes-inl.h). Both modes are fitted: a line of eight values, and
// a line of six with the lowest and the highest value beside it. Each starts at the extremes, is solved again by least squares for the
// indices it has, and then walks over neighboring endpoints with the decoder's exact values.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "codec/channel_part_encode.cpp"
#include <hwy/foreach_target.h>
//
#include "codec/blocks.h"
#include "codec/lanes-inl.h"
#include "codec/weights.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

constexpr float too_far = 1e30f;

struct Line {
    VF low, high, error;
    MF six;  ///< lanes with six values and the two extremes
};

struct Range {
    float lowest, highest;
};

/// Toward zero, as the decoder divides.
template <bool is_signed>
HWY_INLINE VF toward_zero(VF x) {
    if constexpr (!is_signed) return hn::Floor(x);
    else return select(hn::Lt(x, zero()), hn::Neg(hn::Floor(hn::Neg(x))), hn::Floor(x));
}

/// Error of the line; the steps from `low` each texel takes go to `steps` (6 and 7 for the extremes of six-value lanes).
/// A channel of N blocks, and what an error in each texel counts.
struct Values {
    Plane value, weight;
    bool weighted = false;
    bool exacting = false;  ///< alpha: its lowest and highest value must come out as they are
};
/// What it costs that they do not: more than any other error.
constexpr float lost_alpha = 4e6f;

template <bool is_signed>
HWY_INLINE VF evaluate(const Values& values, const Line& line, Range range, Plane* steps) {
    const auto count = select(line.six, set(5), set(7));
    const auto one = select(line.six, set(1.0f / 5), set(1.0f / 7));
    const auto span = hn::Sub(line.high, line.low);
    const auto per_value = select(hn::Gt(span, zero()), hn::Div(count, most(span, set(1))), zero());
    const auto start = hn::Mul(line.low, count);
    const auto extremes = select(line.six, zero(), set(too_far));
    VF sum = zero();
    for (std::size_t i = 0; i < 16; ++i) {
        const auto x = get(values.value, i);
        const auto below = least(most(hn::Floor(hn::Mul(hn::Sub(x, line.low), per_value)), zero()), count);
        const auto above = least(hn::Add(below, set(1)), count);
        const auto decoded = [&](VF m) { return toward_zero<is_signed>(hn::Mul(hn::Add(start, hn::Mul(m, span)), one)); };
        const auto d0 = hn::Sub(decoded(below), x), d1 = hn::Sub(decoded(above), x);
        const auto e0 = hn::Mul(d0, d0), e1 = hn::Mul(d1, d1);
        const auto up = hn::Lt(e1, e0);
        auto error = select(up, e1, e0);
        auto step = select(up, above, below);
        const auto d2 = hn::Sub(x, set(range.lowest)), d3 = hn::Sub(x, set(range.highest));
        const auto e2 = hn::Add(hn::Mul(d2, d2), extremes), e3 = hn::Add(hn::Mul(d3, d3), extremes);
        const auto to_low = hn::Lt(e2, error);
        error = select(to_low, e2, error);
        step = select(to_low, set(6), step);
        const auto to_high = hn::Lt(e3, error);
        error = select(to_high, e3, error);
        step = select(to_high, set(7), step);
        if (values.weighted) error = hn::Mul(error, get(values.weight, i));
        if (values.exacting) {
            const auto must = hn::Or(hn::Eq(x, set(range.lowest)), hn::Eq(x, set(range.highest)));
            error = hn::Add(error, select(hn::And(must, hn::Gt(error, zero())), set(lost_alpha), zero()));
        }
        sum = hn::Add(sum, error);
        if (steps) put(*steps, i, step);
    }
    return sum;
}

HWY_INLINE void keep_better(Line& best, const Line& next) {
    const auto better = hn::Lt(next.error, best.error);
    best.low = select(better, next.low, best.low);
    best.high = select(better, next.high, best.high);
    best.six = hn::Or(hn::And(better, next.six), hn::AndNot(better, best.six));
    best.error = select(better, next.error, best.error);
}

/// Endpoints by least squares for the steps the texels take now.
template <bool is_signed>
HWY_INLINE Line solved(const Values& values, const Line& from, Range range, const Plane& steps) {
    const auto one = select(from.six, set(1.0f / 5), set(1.0f / 7));
    VF aa = zero(), ab = zero(), bb = zero(), ax = zero(), bx = zero();
    for (std::size_t i = 0; i < 16; ++i) {
        const auto step = get(steps, i);
        const auto on_line = hn::Or(hn::Not(from.six), hn::Lt(step, set(5.5f)));
        const auto b = hn::Mul(step, one), a = hn::Sub(set(1), b);
        // What is cut off on the way costs half a step on average.
        const auto x = is_signed
                           ? get(values.value, i)
                           : hn::Add(get(values.value, i), select(hn::Or(hn::Eq(step, zero()), hn::Ge(b, set(1))), zero(), set(0.43f)));
        const auto w = values.weighted ? get(values.weight, i) : set(1);
        const auto wa = select(on_line, hn::Mul(a, w), zero()), wb = select(on_line, hn::Mul(b, w), zero());
        aa = hn::Add(aa, hn::Mul(wa, a));
        ab = hn::Add(ab, hn::Mul(wa, b));
        bb = hn::Add(bb, hn::Mul(wb, b));
        ax = hn::Add(ax, hn::Mul(wa, x));
        bx = hn::Add(bx, hn::Mul(wb, x));
    }
    const auto det = hn::Sub(hn::Mul(aa, bb), hn::Mul(ab, ab));
    const auto sound = hn::Gt(det, set(1e-3f));
    const auto inverse = hn::Div(set(1), select(sound, det, set(1)));
    const auto fitted = [&](VF value, VF old) {
        return clamp(select(sound, hn::Floor(hn::Add(value, set(0.5f))), old), range.lowest, range.highest);
    };
    Line next = from;
    const auto low = fitted(hn::Mul(hn::Sub(hn::Mul(ax, bb), hn::Mul(bx, ab)), inverse), from.low);
    const auto high = fitted(hn::Mul(hn::Sub(hn::Mul(bx, aa), hn::Mul(ax, ab)), inverse), from.high);
    next.low = least(low, high);
    next.high = most(low, high);
    next.error = evaluate<is_signed>(values, next, range, nullptr);
    return next;
}

template <bool is_signed>
HWY_INLINE void improve(const Values& values, Line& line, Range range, Effort effort) {
    Plane steps;
    line.error = evaluate<is_signed>(values, line, range, &steps);
    for (int round = 0; round < (effort == Effort::fast ? 1 : 2); ++round) {
        keep_better(line, solved<is_signed>(values, line, range, steps));
        if (effort != Effort::fast) (void)evaluate<is_signed>(values, line, range, &steps);
    }
    if (effort == Effort::fast) return;
    // Near moves first; the far ones cross the small ridges that rounding makes.
    constexpr std::array<std::array<int, 2>, 32> moves = {{{1, 0},  {-1, 0}, {0, 1},  {0, -1}, {1, 1}, {-1, -1}, {1, -1}, {-1, 1},
                                                           {2, 0},  {-2, 0}, {0, 2},  {0, -2}, {2, 1}, {-2, -1}, {1, 2},  {-1, -2},
                                                           {2, -1}, {-2, 1}, {-1, 2}, {1, -2}, {2, 2}, {-2, -2}, {2, -2}, {-2, 2},
                                                           {3, 0},  {-3, 0}, {0, 3},  {0, -3}, {4, 0}, {-4, 0},  {0, 4},  {0, -4}}};
    const bool best = effort == Effort::best;
    for (int round = 0; round < (best ? 6 : 1); ++round) {
        const auto before = line.error;
        for (std::size_t m = 0; m < (best ? moves.size() : 8u); ++m) {
            Line next = line;
            next.low = clamp(hn::Add(line.low, set(static_cast<float>(moves[m][0]))), range.lowest, range.highest);
            next.high = clamp(hn::Add(line.high, set(static_cast<float>(moves[m][1]))), range.lowest, range.highest);
            const auto crossed = hn::Lt(next.high, next.low);
            next.low = select(crossed, line.low, next.low);
            next.high = select(crossed, line.high, next.high);
            next.error = evaluate<is_signed>(values, next, range, nullptr);
            keep_better(line, next);
        }
        // A lane that did not move in a whole round would not move in the next: leaving early changes no lane's result.
        if (hn::AllFalse(DF(), hn::Lt(line.error, before))) break;
    }
}

template <bool is_signed>
void run(const Texel* blocks, std::size_t count, std::byte* out, std::size_t stride, std::size_t channel, const EncodeOptions& options) {
    const auto effort = options.effort;
    const Range range = is_signed ? Range{-127, 127} : Range{0, 255};
    each_group(blocks, count, [&](const Texel* texels, std::size_t lanes, std::size_t first) {
        std::array<Plane, 4> channels;
        load_channels(texels, channels);
        Values values{channels[channel], {}, options.normals.has_value(), channel == 3 && !is_signed};
        for (std::size_t lane = 0; lane < hn::Lanes(DF()) && values.weighted; ++lane)
            for (std::size_t i = 0; i < 16; ++i) values.weight.v[i][lane] = channel_weights(options, texels[lane * 16 + i])[channel];
        VF low = set(too_far), high = set(-too_far), inner_low = low, inner_high = high;
        for (std::size_t i = 0; i < 16; ++i) {
            auto x = get(values.value, i);
            if (is_signed) {
                x = most(hn::Sub(x, set(128)), set(-127));
                put(values.value, i, x);
            }
            low = least(x, low);
            high = most(x, high);
            const auto inner = hn::And(hn::Gt(x, set(range.lowest)), hn::Lt(x, set(range.highest)));
            inner_low = select(inner, least(x, inner_low), inner_low);
            inner_high = select(inner, most(x, inner_high), inner_high);
        }
        const auto none = hn::Gt(inner_low, inner_high);  // nothing between the extremes
        const auto no = hn::Lt(zero(), zero()), yes = hn::Ge(zero(), zero());
        Line best{low, high, zero(), no};
        improve<is_signed>(values, best, range, effort);
        Line six{select(none, low, inner_low), select(none, low, inner_high), zero(), yes};
        improve<is_signed>(values, six, range, effort);
        keep_better(best, six);
        if (effort == Effort::best) {
            // The same again from endpoints whose distance the steps divide without a rest: few values then meet the line exactly.
            const auto even = [&](Line line, float parts) {
                const auto span = hn::Sub(line.high, line.low);
                const auto wanted = hn::Mul(hn::Floor(hn::Add(hn::Mul(hn::Sub(span, set(0.5f)), set(1 / parts)), set(1))), set(parts));
                const auto top = hn::Add(line.low, most(wanted, set(parts)));
                const auto over = most(hn::Sub(top, set(range.highest)), zero());
                line.high = hn::Sub(top, over);
                line.low = most(hn::Sub(line.low, over), set(range.lowest));
                return line;
            };
            Line again = even({low, high, zero(), no}, 7);
            improve<is_signed>(values, again, range, effort);
            keep_better(best, again);
            again = even({select(none, low, inner_low), select(none, low, inner_high), zero(), yes}, 5);
            improve<is_signed>(values, again, range, effort);
            keep_better(best, again);
            // And from inside: few values at the ends may be given up for the many between them.
            for (const auto mode : {no, yes}) {
                again = {select(mode, select(none, low, inner_low), low), select(mode, select(none, low, inner_high), high), zero(), mode};
                const auto step = nearest(hn::Mul(hn::Sub(again.high, again.low), set(1.0f / 14)));
                again.low = hn::Add(again.low, step);
                again.high = most(hn::Sub(again.high, step), again.low);
                improve<is_signed>(values, again, range, effort);
                keep_better(best, again);
            }
            // At last every pair of endpoints near the best one.
            const auto center = best;
            for (int dl = -6; dl <= 6; ++dl)
                for (int dh = -6; dh <= 6; ++dh) {
                    Line next = center;
                    next.low = clamp(hn::Add(center.low, set(static_cast<float>(dl))), range.lowest, range.highest);
                    next.high = most(clamp(hn::Add(center.high, set(static_cast<float>(dh))), range.lowest, range.highest), next.low);
                    next.error = evaluate<is_signed>(values, next, range, nullptr);
                    keep_better(best, next);
                }
        }

        Plane steps;
        (void)evaluate<is_signed>(values, best, range, &steps);
        alignas(64) float lows[max_lanes], highs[max_lanes], sixes[max_lanes];
        hn::Store(best.low, DF(), lows);
        hn::Store(best.high, DF(), highs);
        hn::Store(select(best.six, set(1), zero()), DF(), sixes);
        for (std::size_t lane = 0; lane < lanes; ++lane) {
            const bool is_six = sixes[lane] > 0, flat = lows[lane] == highs[lane];
            std::uint64_t indices = 0;
            for (std::size_t i = 0; i < 16; ++i) {
                const auto m = static_cast<std::uint64_t>(steps.v[i][lane]);
                std::uint64_t k;
                if (is_six) k = m >= 6 ? m : flat || m == 0 ? 0 : m == 5 ? 1 : m + 1;
                else k = flat || m == 7 ? 0 : m == 0 ? 1 : 8 - m;
                indices |= k << (3 * i);
            }
            auto* bytes = out + (first + lane) * stride;
            const auto code = [](float v) { return static_cast<std::byte>(static_cast<int>(v)); };
            bytes[0] = code(is_six ? lows[lane] : highs[lane]);
            bytes[1] = code(is_six ? highs[lane] : lows[lane]);
            store_uint(bytes + 2, indices, 6, ByteOrder::little);
        }
    });
}

}  // namespace

void encode_channel_parts_simd(const Texel* blocks, std::size_t count, std::byte* out, std::size_t stride, std::size_t channel,
                               bool is_signed, const EncodeOptions& options) {
    if (is_signed) run<true>(blocks, count, out, stride, channel, options);
    else run<false>(blocks, count, out, stride, channel, options);
}

}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace skivet {
HWY_EXPORT(encode_channel_parts_simd);

void encode_channel_parts(const Texel* blocks, std::size_t count, std::byte* out, std::size_t stride, std::size_t channel, bool is_signed,
                          const EncodeOptions& options) {
    HWY_DYNAMIC_DISPATCH(encode_channel_parts_simd)(blocks, count, out, stride, channel, is_signed, options);
}
}  // namespace skivet
#endif

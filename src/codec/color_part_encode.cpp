// Encoding the color part of BC1 to BC3, N blocks at a time.
//
// The heart is a cluster fit. Colors are put in order along the block's principal axis; a way to cut that order into runs that share an
// index is a least-squares problem for the two endpoints. With colors taken relative to their mean its gain needs only one vector:
// let α be a texel's share of the first endpoint, w its weight, W = Σw, A = Σwα, s = Σwα(color - mean). Then Σw(1-α)(color - mean) = -s,
// and the error falls below that of the mean by |s|² W / (W Σwα² - A²). With runs of α = 1, ⅔, ⅓, 0 the sums are (Si + Sj + Sk) / 3 of
// prefix sums S, so each of the 969 ways costs about a dozen operations, and all of them are looked at. Endpoints are then brought to the
// 5:6:5 grid channel by channel, trying both neighbors of each, and texels get the nearest color of the decoder's own palette. Three-color
// blocks likewise.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "codec/color_part_encode.cpp"
#include <hwy/foreach_target.h>
//
#include <span>
#include <vector>

#include "codec/blocks.h"
#include "codec/color_part_clusters-inl.h"
#include "codec/color_part_recall-inl.h"
#include "codec/weights.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

/// Endpoints at the ends of the colors' spread along the axis.
HWY_INLINE Fit range_fit(const Block& block, const V3& axis, MF four) {
    VF low = set(far), high = set(-far);
    for (std::size_t i = 0; i < 16; ++i) {
        const auto t = dot3(axis, {hn::Sub(get(block.color[0], i), block.mean[0]), hn::Sub(get(block.color[1], i), block.mean[1]),
                                   hn::Sub(get(block.color[2], i), block.mean[2])});
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

/// A mean met as nearly as one color of the palette can, in some of the lanes; the others are left as they are.
HWY_INLINE void single_fit(const Block& block, MF which, MF four, Fit& best) {
    const DF df;
    if (hn::AllFalse(df, which)) return;
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
    fit.error = select(which, fit.error, set(far));
    keep_better(best, fit);
}

void store(const Block& block, const Fit& fit, bool punch_through, std::span<const std::uint32_t> numbers, std::byte* out,
           std::size_t stride) {
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
        if (punch_through)
            holes = hn::Or(
                holes, hn::ShiftLeftSame(hn::IfThenElseZero(hn::RebindMask(di, hn::Lt(get(block.color[3], i), set(128))), three), shift));
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
    for (std::size_t lane = 0; lane < numbers.size(); ++lane) {
        auto* bytes = out + numbers[lane] * stride;
        store_le(bytes, static_cast<std::uint32_t>(ends[lane]));
        store_le(bytes + 4, static_cast<std::uint32_t>(words[lane]));
    }
}

/// Sorts blocks by whether they show no more colors than a color part can.
void sort_by_colors(const Texel* blocks, std::size_t count, bool punch_through, std::vector<std::uint32_t>& few,
                    std::vector<std::uint32_t>& more) {
    each_group(blocks, count, [&](const Texel* texels, std::size_t lanes, std::size_t first) {
        std::array<Plane, 4> color;
        load_channels(texels, color);
        Plane value;
        for (std::size_t i = 0; i < 16; ++i) {
            auto v = color_value(get(color[0], i), get(color[1], i), get(color[2], i));
            if (punch_through) v = select(hn::Lt(get(color[3], i), set(128)), set(-1), v);
            put(value, i, v);
        }
        alignas(64) float distinct[max_lanes];
        hn::Store(distinct_values(value), DF(), distinct);
        for (std::size_t lane = 0; lane < lanes; ++lane)
            (distinct[lane] <= most_recalled ? few : more).push_back(static_cast<std::uint32_t>(first + lane));
    });
}

void run_some(const Texel* all_blocks, std::span<const std::uint32_t> which, bool few_colors, std::byte* out, std::size_t stride,
              bool punch_through, const EncodeOptions& options) {
    const std::size_t n = hn::Lanes(DF());
    std::array<Texel, 16 * max_lanes> texels;
    for (std::size_t first = 0; first < which.size(); first += n) {
        const auto numbers = which.subspan(first, std::min(n, which.size() - first));
        for (std::size_t lane = 0; lane < n; ++lane)
            std::copy_n(all_blocks + std::size_t{numbers[std::min(lane, numbers.size() - 1)]} * 16, 16, texels.data() + lane * 16);
        Block block;
        load_channels(texels.data(), block.color);
        auto any_clear = hn::Lt(zero(), zero()), all_clear = hn::Ge(zero(), zero());
        block.total = zero();
        block.mean = {zero(), zero(), zero()};
        auto all_one = hn::Ge(zero(), zero());
        for (std::size_t i = 0; i < 16; ++i) {
            auto weight = set(1);
            const auto a = get(block.color[3], i);
            if (options.alpha_is_transparency)
                weight = most(hn::Mul(a, set(1.0f / 255)), set(1.0f / 32));  // what is filtered at an edge still shows it
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
            const V3 d = {hn::Sub(get(block.color[0], i), block.mean[0]), hn::Sub(get(block.color[1], i), block.mean[1]),
                          hn::Sub(get(block.color[2], i), block.mean[2])};
            const V3 wd = {hn::Mul(w, d[0]), hn::Mul(w, d[1]), hn::Mul(w, d[2])};
            covariance[0] = hn::Add(covariance[0], hn::Mul(wd[0], d[0]));
            covariance[1] = hn::Add(covariance[1], hn::Mul(wd[0], d[1]));
            covariance[2] = hn::Add(covariance[2], hn::Mul(wd[0], d[2]));
            covariance[3] = hn::Add(covariance[3], hn::Mul(wd[1], d[1]));
            covariance[4] = hn::Add(covariance[4], hn::Mul(wd[1], d[2]));
            covariance[5] = hn::Add(covariance[5], hn::Mul(wd[2], d[2]));
        }
        const auto axis = principal_axis(covariance);
        const auto scatter = hn::Add(hn::Add(covariance[0], covariance[3]), covariance[5]);
        block.flat = hn::Eq(scatter, zero());
        // A block with transparent texels has three colors, index 3 being the transparent one.
        const auto four = hn::Not(any_clear);
        const auto usable = [&](Fit fit) {  // four colors only where they are allowed
            fit.error = select(hn::And(fit.four, any_clear), set(far), fit.error);
            return fit;
        };

        Fit best = range_fit(block, axis, four);
        single_fit(block, block.flat, four, best);
        if (few_colors) {
            if (punch_through) single_fit(block, block.flat, hn::Lt(zero(), zero()), best);
            recall(block, axis, four, punch_through, best);
        }
        const bool done = hn::AllFalse(DF(), hn::Gt(best.error, zero()));
        if (!done && options.effort == Effort::fast) {
            keep_better(best, refined(block, best));
        } else if (!done) {
            const bool three_too = punch_through;  // BC2 and BC3 always read four colors
            if (three_too) single_fit(block, block.flat, hn::Lt(zero(), zero()), best);
            V3 along = axis;
            const bool thorough = options.effort == Effort::best;
            for (int round = 0; round < (thorough ? 2 : 1); ++round) {
                Ordered order;
                order_along(block, along, order);
                const auto clusters = [&](bool colors4) {
                    return block.uniform ? cluster_fit<true>(block, order, colors4, thorough)
                                         : cluster_fit<false>(block, order, colors4, thorough);
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
        if (!done) {
            // Where colors hardly differ, the grid is coarser than they are: endpoints far apart may hit their mean between them.
            constexpr float gentle_scatter = 200;
            const auto gentle = hn::Lt(scatter, set(gentle_scatter));
            if (!hn::AllFalse(DF(), gentle)) {
                Fit other = best;
                other.error = set(far);
                single_fit(block, gentle, four, other);
                walk(block, other, options.effort == Effort::fast ? 0 : options.effort == Effort::normal ? 1 : 8);
                other.error = select(gentle, other.error, set(far));
                keep_better(best, other);
            }
        }
        if (options.normals) {
            block.by_angle = true;
            for (std::size_t lane = 0; lane < hn::Lanes(DF()); ++lane)
                for (std::size_t i = 0; i < 16; ++i) {
                    const auto metric = angle_metric(options, texels[lane * 16 + i]);
                    for (std::size_t c = 0; c < 3; ++c)
                        block.square[c].v[i][lane] = metric.square[c], block.along[c].v[i][lane] = metric.along[c];
                    block.mixed.v[i][lane] = metric.mixed;
                }
            evaluate(block, best);
            if (options.effort != Effort::fast) walk(block, best, options.effort == Effort::best ? 8 : 3);
        }
        store(block, best, punch_through, numbers, out, stride);
    }
}

void run(const Texel* blocks, std::size_t count, std::byte* out, std::size_t stride, bool punch_through, const EncodeOptions& options) {
    std::vector<std::uint32_t> few, more;
    sort_by_colors(blocks, count, punch_through, few, more);
    run_some(blocks, few, true, out, stride, punch_through, options);
    run_some(blocks, more, false, out, stride, punch_through, options);
}

}  // namespace

void encode_color_parts_simd(const Texel* blocks, std::size_t count, std::byte* out, std::size_t stride, bool punch_through,
                             const EncodeOptions& options) {
    run(blocks, count, out, stride, punch_through, options);
}

}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace skivet {
HWY_EXPORT(encode_color_parts_simd);

void encode_color_parts(const Texel* blocks, std::size_t count, std::byte* out, std::size_t stride, bool punch_through,
                        const EncodeOptions& options) {
    HWY_DYNAMIC_DISPATCH(encode_color_parts_simd)(blocks, count, out, stride, punch_through, options);
}
}  // namespace skivet
#endif

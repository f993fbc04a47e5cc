// Encoding the single-channel part of BC3 to BC5. Both modes are searched: a line of eight values, and a line of six with the lowest and
// the highest value beside it. A lane is a block, and everything is whole numbers in 8 and 16 bits: 64 blocks at a time where the machine
// has 512 bits. The decoder's exact values are compared for every pair of ends that is tried, so that nothing is left to rounding.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "codec/channel_part_encode.cpp"
#include <hwy/foreach_target.h>
//
#include <numeric>

#include "codec/blocks.h"
#include "codec/channel_lines-inl.h"
#include "codec/weights.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

/// How far a mode is searched. Pairs of ends lie on a grid first, then about the best of its pairs, with ever smaller steps.
struct Plan {
    int outside, inside;                ///< of the values, in steps
    int outside_of_six, inside_of_six;  ///< the same for lines of six: values that the extremes stand for leave more room inside
    int parts;                          ///< steps that the values' span has
    int skipped;                        ///< values may begin and end so many steps of the line from its ends
    int halvings;                       ///< rounds about the best pair, each with half the step of the one before
    int last;                           ///< rounds with a step of 1 after them
    int square;                         ///< at last every pair so near
    bool apart;                         ///< ends outside and inside of the values are searched by themselves
};
// By what the exhaustive search found (benchmarks/channel_exhaustive.cpp): a basin that was not looked at costs more than a coarse grid.
constexpr Plan plan_of(Effort effort) {
    switch (effort) {
        case Effort::fast: return {1, 1, 1, 2, 7, 1, 2, 1, 0, false};
        case Effort::normal: return {2, 2, 3, 7, 14, 2, 2, 0, 1, true};
        default: return {7, 7, 8, 20, 32, 3, 3, 1, 3, true};
    }
}

template <bool is_six, class Lines>
Pair searched(const Lines& lines, V8 low, V8 high, const Plan& plan) {
    std::array<Pair, 4> best;
    best.fill({low, high, lines.error(low, high)});
    const auto attempt = [&](Pair& kept, V8 l, V8 h) { lines.keep_better(kept, l, hn::Max(l, h)); };
    const auto span = hn::Sub(high, low);
    const auto step = hn::Max(
        each16(span, [&](V16 v) { return hn::MulHigh(hn::Add(v, set16(plan.parts - 1)), set16(65536 / plan.parts + 1)); }), set8(1));
    const auto kept_of = [&](bool low_outside, bool high_outside) -> Pair& {
        return best[plan.apart ? (low_outside ? 0u : 1u) + (high_outside ? 0u : 2u) : 0u];
    };
    const int out = is_six ? plan.outside_of_six : plan.outside, in = is_six ? plan.inside_of_six : plan.inside;
    for (int a = -out; a <= in; ++a)
        for (int b = -out; b <= in; ++b) {
            if (a == 0 && b == 0) continue;
            attempt(kept_of(a < 0, b < 0), lines.moved(low, step, a), lines.moved(high, step, -b));
        }
    // Where values begin and end on inner steps of the line, as few values often do.
    constexpr int last = is_six ? 5 : 7;
    for (int i = 0; i <= plan.skipped; ++i)
        for (int j = last; j >= last - plan.skipped; --j) {
            if ((i == 0 && j == last) || j - i < 2) continue;
            const auto part = [&](int times) {  // of what lies between two steps
                return each16(span, [&](V16 v) {
                    const auto all = hn::Add(hn::Mul(v, set16(times)), set16((j - i) / 2));
                    return hn::Min(hn::MulHigh(all, set16(65536 / (j - i) + 1)), set16(255));
                });
            };
            attempt(kept_of(i > 0, j < last), lines.moved(low, part(i), -1), lines.moved(high, part(last - j), 1));
        }
    const auto round = [&](Pair& kept, V8 by) {
        const auto l = kept.low, h = kept.high;
        for (const auto& [a, b] : {std::pair{1, 0}, {-1, 0}, {0, 1}, {0, -1}, {1, 1}, {-1, -1}, {1, -1}, {-1, 1}})
            attempt(kept, lines.moved(l, by, a), lines.moved(h, by, b));
    };
    for (std::size_t k = 0; k < (plan.apart ? best.size() : 1); ++k) {
        auto by = step;
        for (int i = 0; i < plan.halvings; ++i) {
            by = each16(by, [](V16 v) { return hn::ShiftRight<1>(hn::Add(v, set16(1))); });
            round(best[k], by);
        }
        for (int i = 0; i < plan.last; ++i) round(best[k], set8(1));
        if (k > 0) take_better(best[0], best[k]);
    }
    const auto l = best[0].low, h = best[0].high;
    for (int a = -plan.square; a <= plan.square; ++a)
        for (int b = -plan.square; b <= plan.square; ++b)
            if (a != 0 || b != 0) attempt(best[0], lines.moved(l, set8(1), a), lines.moved(h, set8(1), b));
    return best[0];
}

template <bool is_signed, bool weighted, bool exact>
void search(const Blocks& blocks, std::byte* out, std::size_t stride, std::size_t channel, const EncodeOptions& options) {
    const auto plan = plan_of(options.effort);
    Values values;
    load_values<is_signed>(blocks, channel, values);
    if constexpr (weighted) load_weights(blocks, channel, options, values);
    const Lines<is_signed, false, weighted, exact> eight(values);
    const Lines<is_signed, true, weighted, exact> six(values);
    const auto line = searched<false>(eight, values.low, values.high, plan);
    const auto inner = searched<true>(six, values.inner_low, values.inner_high, plan);
    const auto codes = better_of(eight, line, six, inner);
    for (std::size_t lane = 0; lane < blocks.count; ++lane) write_part<is_signed>(codes, lane, out + blocks.which[lane] * stride);
}

/// Writes the blocks whose values a line with a step of one meets, or one about all that are no extremes; says which are left.
template <bool is_signed>
std::size_t easy(const Blocks& blocks, std::byte* out, std::size_t stride, std::size_t channel, std::uint32_t* left) {
    Values values;
    load_values<is_signed>(blocks, channel, values);
    const Lines<is_signed, false, false, false> eight(values);
    const Lines<is_signed, true, false, false> six(values);
    const auto low = hn::Min(values.low, set8(255 - 7)), high = hn::Max(values.high, hn::Add(low, set8(7)));
    const auto inner_low = hn::Min(values.inner_low, set8(255 - 5)), inner_high = hn::Max(values.inner_high, hn::Add(inner_low, set8(5)));
    const Pair line{low, high, eight.error(low, high)}, inner{inner_low, inner_high, six.error(inner_low, inner_high)};
    const auto codes = better_of(eight, line, six, inner);
    const Wide error{hn::Min(line.error.even, inner.error.even), hn::Min(line.error.odd, inner.error.odd)};
    alignas(64) std::uint8_t done[most_blocks];
    hn::Store(less(error, {set16(1), set16(1)}), D8(), done);
    std::size_t rest = 0;
    for (std::size_t lane = 0; lane < blocks.count; ++lane) {
        if (done[lane]) write_part<is_signed>(codes, lane, out + blocks.which[lane] * stride);
        else left[rest++] = blocks.which[lane];
    }
    return rest;
}

template <bool is_signed, bool weighted, bool exact>
void run(const Texel* texels, std::size_t count, std::byte* out, std::size_t stride, std::size_t channel, const EncodeOptions& options) {
    const std::size_t n = hn::Lanes(D8());
    std::array<std::uint32_t, most_blocks> all{};
    std::array<std::uint32_t, 2 * most_blocks> left{};  // searched when they fill a vector
    std::size_t waiting = 0;
    for (std::size_t first = 0; first < count; first += n) {
        const auto lanes = std::min(n, count - first);
        std::iota(all.begin(), all.end(), static_cast<std::uint32_t>(first));
        waiting += easy<is_signed>({texels, all.data(), lanes}, out, stride, channel, left.data() + waiting);
        if (waiting < n) continue;
        search<is_signed, weighted, exact>({texels, left.data(), n}, out, stride, channel, options);
        waiting -= n;
        std::copy_n(left.data() + n, waiting, left.data());
    }
    if (waiting > 0) search<is_signed, weighted, exact>({texels, left.data(), waiting}, out, stride, channel, options);
}

}  // namespace

void encode_channel_parts_simd(const Texel* blocks, std::size_t count, std::byte* out, std::size_t stride, std::size_t channel,
                               bool is_signed, const EncodeOptions& options) {
    // Some textures have a normal's x in alpha; what is left of alpha then means how clear a texel is.
    const bool normals = options.normals && (options.normals->x == channel || options.normals->y == channel ||
                                             options.normals->z == static_cast<int>(channel));
    const auto with = [&](auto encode) { encode(blocks, count, out, stride, channel, options); };
    if (is_signed) with(normals ? run<true, true, false> : run<true, false, false>);
    else if (normals) with(run<false, true, false>);
    else with(channel == 3 ? run<false, false, true> : run<false, false, false>);
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

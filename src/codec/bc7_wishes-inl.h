// Included once for each SIMD target by bc7_encode.cpp (see lanes-inl.h).
// Which modes and partitions are worth fitting to a block: what each would leave is estimated from moments.
//
// A line through a subset leaves what of the texels' scatter is not its largest eigenvalue; along the line, k steps leave about eigenvalue
// / k²; and endpoints of few bits add their own error to every texel. The three together compare modes with each other, so the likeliest
// few are fitted, of whatever modes they are.
#if defined(SKIVET_BC7_WISHES_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef SKIVET_BC7_WISHES_INL_H
#undef SKIVET_BC7_WISHES_INL_H
#else
#define SKIVET_BC7_WISHES_INL_H
#endif

#include "codec/bc7_modes-inl.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

/// A mode with its partition, or its rotation and selector, that may suit a block.
struct Wish {
    float cost = huge;  ///< estimated error
    float off = huge;   ///< of it what the line, or the lines, cannot reach
    std::uint8_t mode = 0, partition = 0, extra = 0;
};

/// How many of each mode are kept for a block.
struct WishCounts {
    std::size_t mode1, mode3, mode0, mode2;
    std::size_t separate;  ///< of modes 4 and 5 each
};
constexpr std::size_t most_wishes = 32;
using Wishes = std::array<Wish, most_wishes>;
constexpr std::size_t most_separate = 4, most_pairs = 8, most_triples = 3;
static_assert(1 + 2 * (most_separate + most_pairs + most_triples) <= most_wishes);

/// What k steps leave of the eigenvalue, and what endpoints add to a texel: where colors are spread evenly 1 / k², and 2/3 of step² / 12 in
/// each channel; both scaled to the median of what fits left in blocks of four kinds of pictures (benchmarks/README.md).
constexpr float steps3 = 0.7f / 9, steps7 = 0.65f / 49, steps15 = 0.8f / 225;
constexpr float noise0 = 17, noise1 = 1.5f, noise2 = 8, noise3 = 0.4f, noise4 = 6, noise5 = 0.5f, noise6 = 0.7f;

/// Of a subset: how many texels, Σx, Σxxᵀ.
struct Sum {
    float count = 0;
    std::array<VF, 3> sum;
    std::array<VF, 6> square;
};

struct Scatter {
    VF off, along;  ///< of the line; its eigenvalue
};

/// With p = λ1 + λ2 + λ3 and q = λ1² + λ2² + λ3², (p + √(2 q - p²)) / 2 is λ1 where λ3 = 0, and off by about λ2 λ3 / λ1 elsewhere: enough
/// to rank, and one root instead of a power iteration.
HWY_INLINE Scatter scatter_of(const Sum& m) {
    const auto inverse = set(1 / m.count);
    std::size_t at = 0;
    VF trace = zero(), squares = zero(), mixed = zero();
    for (std::size_t p = 0; p < 3; ++p)
        for (std::size_t q = p; q < 3; ++q, ++at) {
            const auto k = hn::Sub(m.square[at], hn::Mul(hn::Mul(m.sum[p], m.sum[q]), inverse));
            if (p == q) trace = hn::Add(trace, k), squares = hn::Add(squares, hn::Mul(k, k));
            else mixed = hn::Add(mixed, hn::Mul(k, k));
        }
    squares = hn::Add(squares, hn::Add(mixed, mixed));
    const auto root = hn::Sqrt(most(hn::Sub(hn::Add(squares, squares), hn::Mul(trace, trace)), zero()));
    const auto eigenvalue = hn::Mul(hn::Add(trace, root), set(0.5f));
    return {most(hn::Sub(trace, eigenvalue), zero()), eigenvalue};
}

/// What is left of a subset: the texels off its line, the steps along it and the endpoints' error; but never more than endpoints at one
/// color leave, which few bits can hit well, because an index between two endpoints reaches more colors than endpoints do.
struct Estimate {
    VF noise = set(1);  ///< share of it: in gray blocks all channels have the same codes, and endpoints that suit one suit all
    HWY_INLINE VF left(const Scatter& s, float steps, float added) const {
        return hn::Add(s.off, least(hn::Add(hn::Mul(s.along, set(steps)), hn::Mul(set(added), noise)), hn::Mul(s.along, set(0.8f))));
    }
};

/// The cheapest of one mode, in each lane.
template <std::size_t most_count>
struct Cheapest {
    std::array<VF, most_count> cost, off, number;
    std::size_t count;
    explicit Cheapest(std::size_t n) : count(n) {
        cost.fill(set(huge));
        off.fill(set(huge));
        number.fill(zero());
    }
    HWY_INLINE void offer(VF c, VF o, float which) {
        auto n = set(which);
        for (std::size_t k = 0; k < count; ++k) {
            const auto better = hn::Lt(c, cost[k]);
            const auto old_c = cost[k], old_o = off[k], old_n = number[k];
            cost[k] = select(better, c, old_c);
            off[k] = select(better, o, old_o);
            number[k] = select(better, n, old_n);
            c = select(better, old_c, c);
            o = select(better, old_o, o);
            n = select(better, old_n, n);
        }
    }
    /// Behind the first `there` of each lane's.
    void give(std::uint8_t mode, Wishes* const* lanes, std::size_t lane_count, std::size_t& there) const {
        alignas(64) float c[max_lanes], o[max_lanes], n[max_lanes];
        for (std::size_t k = 0; k < count; ++k, ++there) {
            hn::Store(cost[k], DF(), c);
            hn::Store(off[k], DF(), o);
            hn::Store(number[k], DF(), n);
            for (std::size_t lane = 0; lane < lane_count; ++lane) {
                const auto which = static_cast<std::uint8_t>(n[lane]);
                const bool separate = mode == 4 || mode == 5;
                (*lanes[lane])[there] = {c[lane], o[lane], mode, separate ? std::uint8_t{0} : which, separate ? which : std::uint8_t{0}};
            }
        }
    }
};

/// All partitions of opaque blocks, and what has none.
HWY_NOINLINE void wish(const Block& block, const WishCounts& counts, Wishes* const* lanes, std::size_t lane_count) {
    std::array<Plane, 6> product;
    Sum all;
    all.count = 16;
    all.sum.fill(zero());
    all.square.fill(zero());
    for (std::size_t i = 0; i < 16; ++i) {
        std::size_t at = 0;
        for (std::size_t p = 0; p < 3; ++p) {
            all.sum[p] = hn::Add(all.sum[p], get(block.texel[p], i));
            for (std::size_t q = p; q < 3; ++q, ++at) {
                const auto x = hn::Mul(get(block.texel[p], i), get(block.texel[q], i));
                put(product[at], i, x);
                all.square[at] = hn::Add(all.square[at], x);
            }
        }
    }
    const auto moments = [&](const std::array<std::uint8_t, 16>& subset_of, std::size_t s) {
        Sum m;
        m.sum.fill(zero());
        m.square.fill(zero());
        for (std::size_t i = 0; i < 16; ++i) {
            if (subset_of[i] != s) continue;
            ++m.count;
            for (std::size_t c = 0; c < 3; ++c) m.sum[c] = hn::Add(m.sum[c], get(block.texel[c], i));
            for (std::size_t at = 0; at < 6; ++at) m.square[at] = hn::Add(m.square[at], get(product[at], i));
        }
        return m;
    };
    const auto take_out = [](Sum& from, const Sum& m) {
        from.count -= m.count;
        for (std::size_t c = 0; c < 3; ++c) from.sum[c] = hn::Sub(from.sum[c], m.sum[c]);
        for (std::size_t at = 0; at < 6; ++at) from.square[at] = hn::Sub(from.square[at], m.square[at]);
    };
    auto gray = hn::Ge(zero(), zero());
    for (std::size_t i = 0; i < 16; ++i)
        for (std::size_t c = 1; c < 3; ++c) gray = hn::And(gray, hn::Eq(get(block.texel[0], i), get(block.texel[c], i)));
    const Estimate estimate{select(gray, set(0.25f), set(1))};
    std::size_t there = 0;
    Cheapest<1> of6(1);
    const auto whole = scatter_of(all);
    of6.offer(estimate.left(whole, steps15, 16 * noise6), whole.off, 0);
    of6.give(6, lanes, lane_count, there);
    if (counts.separate > 0) {
        // One channel with a line and indices of its own: the scatter of the other two has its eigenvalues in closed form.
        Cheapest<most_separate> of5(counts.separate), of4(counts.separate);
        of5.offer(estimate.left(whole, steps3, 16 * noise5), whole.off, 0);
        of4.offer(estimate.left(whole, steps7, 16 * noise4), whole.off, 4);
        const auto entry = [&](std::size_t at, std::size_t p, std::size_t q) {
            return hn::Sub(all.square[at], hn::Mul(hn::Mul(all.sum[p], all.sum[q]), set(1.0f / 16)));
        };
        const std::array<VF, 3> variance = {entry(0, 0, 0), entry(3, 1, 1), entry(5, 2, 2)};
        const std::array<VF, 3> mixed = {entry(4, 1, 2), entry(2, 0, 2), entry(1, 0, 1)};  // of the two others
        for (std::size_t c = 0; c < 3; ++c) {
            const auto p = variance[c == 0 ? 1 : 0], q = variance[c == 2 ? 1 : 2];
            const auto half = hn::Mul(hn::Sub(p, q), set(0.5f)), middle = hn::Mul(hn::Add(p, q), set(0.5f));
            const auto root = hn::Sqrt(hn::Add(hn::Mul(half, half), hn::Mul(mixed[c], mixed[c])));
            const Scatter color{most(hn::Sub(middle, root), zero()), hn::Add(middle, root)}, alone{zero(), variance[c]};
            const auto with = [&](float color_steps, float alone_steps, float noise, float alone_noise) {
                return hn::Add(estimate.left(color, color_steps, 16 * noise), estimate.left(alone, alone_steps, 16 * alone_noise));
            };
            const auto rotation = static_cast<float>(c + 1);
            of5.offer(with(steps3, steps3, noise5, 0), color.off, rotation);
            of4.offer(with(steps3, steps7, noise4, 0.5f), color.off, rotation);
            of4.offer(with(steps7, steps3, noise4, 0.5f), color.off, rotation + 4);
        }
        of5.give(5, lanes, lane_count, there);
        of4.give(4, lanes, lane_count, there);
    }
    Cheapest<most_pairs> of1(counts.mode1), of3(counts.mode3);
    for (std::size_t partition = 0; partition < 64; ++partition) {
        const auto second = moments(bptc::partitions2[partition], 1);
        auto first = all;
        take_out(first, second);
        const auto a = scatter_of(first), b = scatter_of(second);
        const auto offer = [&](Cheapest<most_pairs>& of, float steps, float noise) {
            of.offer(hn::Add(estimate.left(a, steps, first.count * noise), estimate.left(b, steps, second.count * noise)),
                     hn::Add(a.off, b.off), static_cast<float>(partition));
        };
        offer(of1, steps7, noise1);
        if (counts.mode3 > 0) offer(of3, steps3, noise3);
    }
    of1.give(1, lanes, lane_count, there);
    of3.give(3, lanes, lane_count, there);
    if (counts.mode0 == 0 && counts.mode2 == 0) return;
    Cheapest<most_triples> of0(counts.mode0), of2(counts.mode2);
    const std::size_t partitions = counts.mode2 > 0 ? 64 : 16;
    for (std::size_t partition = 0; partition < partitions; ++partition) {
        const auto second = moments(bptc::partitions3[partition], 1), third = moments(bptc::partitions3[partition], 2);
        auto first = all;
        take_out(first, second);
        take_out(first, third);
        const auto a = scatter_of(first), b = scatter_of(second), c = scatter_of(third);
        const auto offer = [&](Cheapest<most_triples>& of, float steps, float noise) {
            of.offer(hn::Add(estimate.left(a, steps, first.count * noise),
                             hn::Add(estimate.left(b, steps, second.count * noise), estimate.left(c, steps, third.count * noise))),
                     hn::Add(a.off, hn::Add(b.off, c.off)), static_cast<float>(partition));
        };
        if (counts.mode2 > 0) offer(of2, steps3, noise2);
        if (partition < 16) offer(of0, steps7, noise0);
    }
    of0.give(0, lanes, lane_count, there);
    of2.give(2, lanes, lane_count, there);
}

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif

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
    std::size_t mode7;     ///< of blocks with alpha
};
constexpr std::size_t most_wishes = 32;
using Wishes = std::array<Wish, most_wishes>;
constexpr std::size_t most_separate = 4, most_pairs = 8, most_triples = 3;
static_assert(1 + 2 * (most_separate + most_pairs + most_triples) <= most_wishes);

/// What k steps leave of the eigenvalue, and what endpoints add to a texel: where colors are spread evenly 1 / k², and 2/3 of step² / 12 in
/// each channel; both scaled to the median of what fits left in blocks of four kinds of pictures (benchmarks/README.md).
constexpr float steps3 = 0.7f / 9, steps7 = 0.65f / 49, steps15 = 0.8f / 225;
constexpr float noise0 = 17, noise1 = 1.5f, noise2 = 8, noise3 = 0.4f, noise4 = 6, noise5 = 0.5f, noise6 = 0.7f, noise7 = 7;
constexpr float alone4 = 0.5f;  ///< the channel that mode 4 has alone

/// Of a subset: how many texels, Σx, Σxxᵀ (its upper triangle, row by row). Where colors count by the texel, `weight` of all, these are
/// Σwx and Σwxxᵀ, except for the square of alpha, which always counts the same, like `alpha`, its sum.
template <std::size_t channels = 3>
struct Sum {
    float count = 0;
    std::array<VF, channels> sum;
    std::array<VF, channels*(channels + 1) / 2> square;
    VF weight, alpha;
    template <class Each>
    HWY_INLINE void each(const Sum& other, bool weighted, const Each& run) {
        for (std::size_t c = 0; c < channels; ++c) sum[c] = run(sum[c], other.sum[c]);
        for (std::size_t at = 0; at < square.size(); ++at) square[at] = run(square[at], other.square[at]);
        if (weighted) weight = run(weight, other.weight), alpha = run(alpha, other.alpha);
    }
};

/// Entry p, q of the scatter: Σxxᵀ without what the mean makes.
template <std::size_t channels>
HWY_INLINE VF scatter_at(const Sum<channels>& m, std::size_t at, std::size_t p, std::size_t q, bool weighted) {
    if (!weighted) return hn::Sub(m.square[at], hn::Mul(hn::Mul(m.sum[p], m.sum[q]), set(1 / m.count)));
    if (p == 3) return hn::Sub(m.square[at], hn::Mul(hn::Mul(m.alpha, m.alpha), set(1 / m.count)));
    return hn::Sub(m.square[at], hn::Div(hn::Mul(m.sum[p], m.sum[q]), most(m.weight, set(1.0f / 64))));
}

struct Scatter {
    VF off, along;  ///< of the line; its eigenvalue
};

/// With p = λ1 + λ2 + λ3 and q = λ1² + λ2² + λ3², (p + √(2 q - p²)) / 2 is λ1 where λ3 = 0, and off by about λ2 λ3 / λ1 elsewhere: enough
/// to rank, and one root instead of a power iteration.
/// `without`: a channel that is left out.
template <std::size_t channels>
HWY_INLINE Scatter scatter_of(const Sum<channels>& m, bool weighted = false, std::size_t without = channels) {
    std::size_t at = 0;
    // Where colors count w and alpha 1, their product counts √w.
    auto with_alpha = set(1);
    if (weighted) with_alpha = hn::Sqrt(hn::Div(set(m.count), most(m.weight, set(1.0f / 64))));
    VF trace = zero(), squares = zero(), mixed = zero();
    for (std::size_t p = 0; p < channels; ++p)
        for (std::size_t q = p; q < channels; ++q, ++at) {
            if (p == without || q == without) continue;
            auto k = scatter_at(m, at, p, q, weighted);
            if (weighted && p < 3 && q == 3) k = hn::Mul(k, with_alpha);
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
    /// The same for so many colors and alphas where colors count `weight`.
    HWY_INLINE Estimate of(VF weight, float colors, float alphas) const {
        return {hn::Mul(noise, hn::Mul(hn::Add(hn::Mul(weight, set(colors)), set(alphas)), set(1 / (colors + alphas))))};
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

/// What a texel's colors count on average where that is not the same for all, 1 at most.
HWY_INLINE VF color_weight(const Texels& texel, std::size_t i) {
    if (!texel.weighted) return set(1);
    const auto sum = hn::Add(get(texel.share[0], i), hn::Add(get(texel.share[1], i), get(texel.share[2], i)));
    return hn::Mul(sum, set(1.0f / 96));
}

/// The sums of any subset of a block. `by_texel`: colors count as they are weighted (with alpha only).
template <std::size_t channels>
class SubsetSums {
public:
    explicit HWY_INLINE SubsetSums(const Texels& texel, bool by_texel = false) : by_texel_(by_texel), texel_(texel) {
        all = empty();
        for (std::size_t i = 0; i < 16; ++i) {
            const auto weight = by_texel ? color_weight(texel, i) : set(1);
            std::size_t at = 0;
            if (by_texel) put(weight_, i, weight);
            for (std::size_t p = 0; p < channels; ++p) {
                const auto x = by_texel ? hn::Mul(weight, get(texel[p], i)) : get(texel[p], i);
                put(weighted_[p], i, x);
                for (std::size_t q = p; q < channels; ++q, ++at)
                    put(product_[at], i, hn::Mul(p == 3 ? get(texel[p], i) : x, get(texel[q], i)));
            }
            add(all, i);
        }
    }
    HWY_INLINE Sum<channels> of(const std::array<std::uint8_t, 16>& subset_of, std::size_t s) const {
        auto m = empty();
        for (std::size_t i = 0; i < 16; ++i)
            if (subset_of[i] == s) add(m, i);
        return m;
    }
    Sum<channels> all;

private:
    static HWY_INLINE Sum<channels> empty() {
        Sum<channels> m;
        m.sum.fill(zero());
        m.square.fill(zero());
        m.weight = m.alpha = zero();
        return m;
    }
    HWY_INLINE void add(Sum<channels>& m, std::size_t i) const {
        ++m.count;
        for (std::size_t c = 0; c < channels; ++c) m.sum[c] = hn::Add(m.sum[c], get(weighted_[c], i));
        for (std::size_t at = 0; at < m.square.size(); ++at) m.square[at] = hn::Add(m.square[at], get(product_[at], i));
        if (!by_texel_) return;
        m.weight = hn::Add(m.weight, get(weight_, i));
        m.alpha = hn::Add(m.alpha, get(texel_[3], i));
    }
    bool by_texel_;
    const Texels& texel_;
    Plane weight_;
    std::array<Plane, channels> weighted_;
    std::array<Plane, channels*(channels + 1) / 2> product_;
};

template <std::size_t channels>
HWY_INLINE void take_out(Sum<channels>& from, const Sum<channels>& m, bool weighted = false) {
    from.count -= m.count;
    from.each(m, weighted, [](VF a, VF b) { return hn::Sub(a, b); });
}

/// Gray blocks have the same codes in all channels, so endpoints that suit one suit all.
HWY_INLINE Estimate estimate_for(const Texels& texel) {
    auto gray = hn::Ge(zero(), zero());
    for (std::size_t i = 0; i < 16; ++i)
        for (std::size_t c = 1; c < 3; ++c) gray = hn::And(gray, hn::Eq(get(texel[0], i), get(texel[c], i)));
    return {select(gray, set(0.25f), set(1))};
}

/// All partitions of opaque blocks, and what has none. Returns how many wishes each block has got.
HWY_NOINLINE std::size_t wish(const Block& block, const WishCounts& counts, Wishes* const* lanes, std::size_t lane_count) {
    const SubsetSums<3> sums(block.texel);
    const auto& all = sums.all;
    const auto estimate = estimate_for(block.texel);
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
            of4.offer(with(steps3, steps7, noise4, alone4), color.off, rotation);
            of4.offer(with(steps7, steps3, noise4, alone4), color.off, rotation + 4);
        }
        of5.give(5, lanes, lane_count, there);
        of4.give(4, lanes, lane_count, there);
    }
    Cheapest<most_pairs> of1(counts.mode1), of3(counts.mode3);
    for (std::size_t partition = 0; partition < 64; ++partition) {
        const auto second = sums.of(bptc::partitions2[partition], 1);
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
    if (counts.mode0 == 0 && counts.mode2 == 0) return there;
    Cheapest<most_triples> of0(counts.mode0), of2(counts.mode2);
    const std::size_t partitions = counts.mode2 > 0 ? 64 : 16;
    for (std::size_t partition = 0; partition < partitions; ++partition) {
        const auto second = sums.of(bptc::partitions3[partition], 1), third = sums.of(bptc::partitions3[partition], 2);
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
    return there;
}

/// Texels whose alpha must stay take an end of their line, all of one alpha the same: what their colors scatter is left; or, where only one
/// of 0 and 255 must stay, what all alpha is away from it (see held_of).
class EndScatter {
public:
    explicit HWY_INLINE EndScatter(const Block& block) : texel_(block.texel) {
        auto any = hn::Lt(zero(), zero());
        for (std::size_t i = 0; i < 16; ++i) {
            const auto alpha = get(block.texel[3], i), off = hn::Sub(set(255), alpha);
            const auto weight = color_weight(block.texel, i);
            put(at_end_[0], i, select(hn::Le(alpha, zero()), weight, zero()));
            put(at_end_[1], i, select(hn::Ge(alpha, set(255)), weight, zero()));
            put(away_[0], i, hn::Mul(alpha, alpha));
            put(away_[1], i, hn::Mul(off, off));
            any = hn::Or(any, hn::Gt(get(block.keep, i), zero()));
        }
        any_ = !hn::AllFalse(DF(), any);
    }
    struct Sums {
        std::array<VF, 2> count, away;
        std::array<std::array<VF, 3>, 2> sum, square;
    };
    /// Of a subset, or of all texels (nullptr).
    [[nodiscard]] HWY_INLINE Sums of(const std::array<std::uint8_t, 16>* subset_of, std::size_t s) const {
        Sums out;
        for (std::size_t e = 0; e < 2; ++e) {
            out.count[e] = out.away[e] = zero();
            out.sum[e].fill(zero());
            out.square[e].fill(zero());
            for (std::size_t i = 0; i < 16 && any_; ++i) {
                if (subset_of && (*subset_of)[i] != s) continue;
                const auto w = get(at_end_[e], i);
                out.count[e] = hn::Add(out.count[e], w);
                out.away[e] = hn::Add(out.away[e], get(away_[e], i));
                for (std::size_t c = 0; c < 3; ++c) {
                    const auto wx = hn::Mul(w, get(texel_[c], i));
                    out.sum[e][c] = hn::Add(out.sum[e][c], wx);
                    out.square[e][c] = hn::Add(out.square[e][c], hn::Mul(wx, get(texel_[c], i)));
                }
            }
        }
        return out;
    }
    /// `without`: a color that has a line of its own.
    [[nodiscard]] HWY_INLINE VF left(const Sums& sums, std::size_t without = 3) const {
        VF out = zero();
        for (std::size_t e = 0; e < 2 && any_; ++e) {
            const auto inverse = hn::Div(set(1), most(sums.count[e], set(1.0f / 64)));
            VF trace = zero();
            for (std::size_t c = 0; c < 3; ++c)
                if (c != without)
                    trace = hn::Add(trace, hn::Sub(sums.square[e][c], hn::Mul(hn::Mul(sums.sum[e][c], sums.sum[e][c]), inverse)));
            trace = most(trace, zero());
            out = hn::Add(out, select(hn::Gt(sums.count[1 - e], zero()), trace, least(trace, sums.away[e])));
        }
        return out;
    }

private:
    const Texels& texel_;
    std::array<Plane, 2> at_end_, away_;  ///< by 0 and 255: what colors count where alpha is that; its squared distance
    bool any_ = false;
};

/// The same of blocks with alpha: modes 6 and 7 with alpha on the line, 4 and 5 with any of the four channels alone.
HWY_NOINLINE std::size_t wish_with_alpha(const Block& block, const WishCounts& counts, Wishes* const* lanes, std::size_t lane_count) {
    const bool weighted = block.texel.weighted;
    const SubsetSums<4> sums(block.texel, weighted);
    const EndScatter ends(block);
    const auto& all = sums.all;
    auto weight = set(1);
    if (weighted) weight = hn::Mul(all.weight, set(1.0f / 16));
    const auto any = estimate_for(block.texel), on_line = any.of(weight, 3, 1);
    std::size_t there = 0;
    Cheapest<1> of6(1);
    const auto whole = scatter_of(all, weighted);
    const auto whole_ends = ends.of(nullptr, 0);
    of6.offer(most(on_line.left(whole, steps15, 16 * noise6), ends.left(whole_ends)), whole.off, 0);
    of6.give(6, lanes, lane_count, there);
    Cheapest<most_separate> of5(counts.separate), of4(counts.separate);
    constexpr std::array<std::size_t, 4> square = {0, 4, 7, 9};  // where Σx² of a channel is
    for (std::size_t rotation = 0; rotation < 4; ++rotation) {
        const std::size_t c = rotation == 0 ? 3 : rotation - 1;
        const auto color = scatter_of(all, weighted, c);
        const Scatter alone{zero(), scatter_at(all, square[c], c, c, weighted)};
        const auto with = [&](float color_steps, float alone_steps, float noise, float alone_noise) {
            auto line = any.of(weight, c < 3 ? 2 : 3, c < 3 ? 1 : 0).left(color, color_steps, 16 * noise);
            if (c < 3) line = most(line, ends.left(whole_ends, c));
            return hn::Add(line, any.of(weight, c < 3 ? 1 : 0, c < 3 ? 0 : 1).left(alone, alone_steps, 16 * alone_noise));
        };
        const auto number = static_cast<float>(rotation);
        of5.offer(with(steps3, steps3, noise5, 0), color.off, number);
        of4.offer(with(steps3, steps7, noise4, alone4), color.off, number);
        of4.offer(with(steps7, steps3, noise4, alone4), color.off, number + 4);
    }
    of5.give(5, lanes, lane_count, there);
    of4.give(4, lanes, lane_count, there);
    Cheapest<most_pairs> of7(counts.mode7);
    for (std::size_t partition = 0; partition < 64; ++partition) {
        const auto& subset_of = bptc::partitions2[partition];
        const auto second = sums.of(subset_of, 1);
        auto first = all;
        take_out(first, second, weighted);
        const auto a = scatter_of(first, weighted), b = scatter_of(second, weighted);
        const auto left = [&](const Scatter& scatter, float count, std::size_t s) {
            return most(on_line.left(scatter, steps3, count * noise7), ends.left(ends.of(&subset_of, s)));
        };
        of7.offer(hn::Add(left(a, first.count, 0), left(b, second.count, 1)), hn::Add(a.off, b.off), static_cast<float>(partition));
    }
    of7.give(7, lanes, lane_count, there);
    return there;
}

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif

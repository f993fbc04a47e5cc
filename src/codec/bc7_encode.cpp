// Encoding BC7, N blocks at a time (see lanes-inl.h).
//
// A mode is a number of subsets, each a line in color space. Which of the 64 partitions suit a block is estimated without fitting: a
// subset whose colors lie on a line leaves nothing but its largest eigenvalue in the trace of their covariance, so the sum of
// trace - eigenvalue over the subsets ranks the partitions. The best few are fitted: endpoints from the principal axis, quantized with
// their p-bits, texels projected to indices, endpoints solved again for those indices. Modes without partitions are fitted with every
// rotation. What wins is packed block by block, with indices chosen once more by the decoder's exact values.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "codec/bc7_encode.cpp"
#include <hwy/foreach_target.h>
//
#include "codec/bc7_encode.h"
#include "codec/bc7_few-inl.h"
#include "codec/bc7_pack.h"
#include "codec/bc7_walk-inl.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

constexpr Spec mode0{0, 5, 0, PBits::own, 3}, mode1{1, 7, 0, PBits::shared, 3}, mode2{2, 5, 0, PBits::none, 2},
    mode3{3, 8, 0, PBits::own, 2}, mode6{6, 8, 8, PBits::own, 4}, mode7{7, 6, 6, PBits::own, 2};

/// How far each effort searches.
struct Plan {
    std::size_t few = max_few;  ///< look for exact values in blocks of so many colors
    unsigned few_step = 1;      ///< see solve_few
    std::size_t few_partitions = 6;
    std::size_t two = 6, three = 3;  ///< partitions tried
    int rounds = 2;
    std::array<float, 4> wider = {0.0f, 0.1f, 0.25f, 0.6f};  ///< how far lines reach past the colors; 0 again ends the list
    unsigned rotations = 4;
    int walk = 3;
    bool singles = true;
};
constexpr Plan thorough{}, normal{4, 4, 1, 2, 1, 1, {0.0f, 0.25f, 0.0f, 0.0f}, 4, 1, false},
    fast{0, 1, 0, 1, 0, 1, {0.0f, 0.0f, 0.0f, 0.0f}, 1, 0, false};

/// What is known of one block between two passes.
struct Found {
    float error = huge, mode = 0, partition = 0, extra = 0;
    std::array<std::array<float, 4>, 6> code{};
};

HWY_INLINE VF gather(const Found* const* found, float Found::*member) {
    alignas(64) float v[max_lanes];
    for (std::size_t lane = 0; lane < hn::Lanes(DF()); ++lane) v[lane] = found[lane]->*member;
    return hn::Load(DF(), v);
}

HWY_INLINE void scatter(Found* const* found, std::size_t lanes, float Found::*member, VF x) {
    alignas(64) float v[max_lanes];
    hn::Store(x, DF(), v);
    for (std::size_t lane = 0; lane < lanes; ++lane) found[lane]->*member = v[lane];
}

struct Group {
    std::array<Texel, 16 * max_lanes> texels;
    std::array<Found*, max_lanes> found;
    std::size_t lanes;
};

/// All that is done to N blocks in one pass; what was found is kept in `found`.
template <class Run>
HWY_INLINE void with_best(Group& group, const EncodeOptions& options, const Run& run) {
    Block block;
    load_channels(group.texels.data(), block.texel.value);
    block.texel.weighted = counts_by_channel(options);
    for (std::size_t lane = 0; lane < hn::Lanes(DF()) && block.texel.weighted; ++lane)
        for (std::size_t i = 0; i < 16; ++i) {
            const auto weights = channel_weights(options, group.texels[lane * 16 + i]);
            for (std::size_t c = 0; c < 4; ++c) block.texel.share[c].v[i][lane] = weights[c];
        }
    auto opaque = hn::Ge(zero(), zero()), clear = opaque;
    for (std::size_t i = 0; i < 16; ++i) {
        const auto alpha = get(block.texel[3], i);
        const auto is_solid = hn::Ge(alpha, set(255)), is_clear = hn::Le(alpha, zero());
        opaque = hn::And(opaque, is_solid);
        clear = hn::And(clear, is_clear);
        put(block.keep, i, select(hn::Or(is_solid, is_clear), set(lost_alpha), zero()));
    }
    block.opaque = block.texel.opaque = select(opaque, set(1), zero());
    block.texel.clear = select(clear, set(1), zero());
    block.texel.exacting = !hn::AllTrue(DF(), opaque);
    if (block.texel.exacting) block.texel.keep[3] = &block.keep;
    Best best;
    best.error = gather(group.found.data(), &Found::error);
    best.mode = gather(group.found.data(), &Found::mode);
    best.partition = gather(group.found.data(), &Found::partition);
    best.extra = gather(group.found.data(), &Found::extra);
    alignas(64) float v[max_lanes];
    for (std::size_t e = 0; e < 6; ++e)
        for (std::size_t c = 0; c < 4; ++c) {
            for (std::size_t lane = 0; lane < hn::Lanes(DF()); ++lane) v[lane] = group.found[lane]->code[e][c];
            best.code[e][c] = hn::Load(DF(), v);
        }
    run(block, best);
    scatter(group.found.data(), group.lanes, &Found::error, best.error);
    scatter(group.found.data(), group.lanes, &Found::mode, best.mode);
    scatter(group.found.data(), group.lanes, &Found::partition, best.partition);
    scatter(group.found.data(), group.lanes, &Found::extra, best.extra);
    for (std::size_t e = 0; e < 6; ++e)
        for (std::size_t c = 0; c < 4; ++c) {
            hn::Store(best.code[e][c], DF(), v);
            for (std::size_t lane = 0; lane < group.lanes; ++lane) group.found[lane]->code[e][c] = v[lane];
        }
}

/// Modes without partitions.
HWY_INLINE void try_whole(const Block& block, Best& best, const Plan& plan) {
    Plane all;
    for (std::size_t i = 0; i < 16; ++i) put(all, i, set(1));
    std::array<Ends, 3> code;
    // Wider endpoints leave the outermost indices unused and hit few, flat colors more exactly.
    const auto spread = spread_of<4>(block.texel, all);
    for (std::size_t n = 0; n < plan.wider.size() && (n == 0 || plan.wider[n] > 0); ++n) {
        const float wider = plan.wider[n];
        Ends ends;
        for (std::size_t c = 0; c < 4; ++c) {
            const auto more = hn::Mul(hn::Sub(spread.b[c], spread.a[c]), set(wider));
            ends.a[c] = clamp(hn::Sub(spread.a[c], more), 0, 255);
            ends.b[c] = clamp(hn::Add(spread.b[c], more), 0, 255);
        }
        const auto whole = fit_line<4>(block.texel, all, mode6, ends, plan.rounds + 1);
        code[0] = whole.code;
        offer(best, whole.error, 6, zero(), 0, code, 1);
    }
    // With one rotation only for blocks with alpha. Opaque ones are kept out lane by lane: their bytes must not depend on who shares the
    // group.
    const auto forbidden = plan.rotations > 1 ? zero() : hn::Mul(block.opaque, set(huge));
    if (hn::AllFalse(DF(), hn::Lt(forbidden, best.error))) return;
    for (unsigned rotation = 0; rotation < plan.rotations; ++rotation)
        try_separate(block, best, forbidden, all, rotation, plan.rotations > 1, plan.rounds);
}

/// Modes with partitions, for the blocks allowed by `only` (0, elsewhere huge).
template <int channels>
HWY_INLINE void try_partitions(const Block& block, const Few* few, Best& best, VF only, const Plan& plan) {
    if (hn::AllFalse(DF(), hn::Lt(only, best.error))) return;
    const auto pairs = rank_partitions<channels>(block, 2, 64, plan.two);
    for (std::size_t k = 0; k < plan.two; ++k) {
        if (few && k < plan.few_partitions) {
            if constexpr (channels == 3) try_few_partition<3>(*few, best, only, pairs.partition[k], 2, {mode3, mode1});
            else try_few_partition<4>(*few, best, only, pairs.partition[k], 2, {mode7});
        }
        if constexpr (channels == 4) try_partition<4>(block, best, only, pairs.partition[k], 2, {mode7}, plan.rounds);
        else if (plan.three == 0) try_partition<3>(block, best, only, pairs.partition[k], 2, {mode1}, plan.rounds);
        else try_partition<3>(block, best, only, pairs.partition[k], 2, {mode1, mode3}, plan.rounds);
    }
    if (channels == 4 || plan.three == 0 || hn::AllFalse(DF(), hn::Lt(only, best.error))) return;
    const auto triples = rank_partitions<3>(block, 3, 64, plan.three);
    for (std::size_t k = 0; k < plan.three; ++k) {
        try_partition<3>(block, best, only, triples.partition[k], 3, {mode2}, plan.rounds);
        try_partition<3>(block, best, only, triples.first16[k], 3, {mode0}, plan.rounds);
    }
}

/// How many colors a block has; max_few + 1 where they are more.
std::size_t colors_of(const Texel* texel) {
    std::array<Texel, max_few> color;
    std::size_t count = 0;
    for (std::size_t i = 0; i < 16; ++i) {
        std::size_t k = 0;
        while (k < count && color[k] != texel[i]) ++k;
        if (k < count) continue;
        if (count == max_few) return max_few + 1;
        color[count++] = texel[i];
    }
    return count;
}

void run(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    const Plan& plan = options.effort == Effort::fast ? fast : options.effort == Effort::normal ? normal : thorough;
    std::vector<Found> found(count);
    // Blocks of as many colors share a group, and what is exact already leaves: lanes then wait for each other as little as can be. A
    // block's result does not depend on its neighbors in the group.
    // Opaque blocks and others do not share one either: only the others pay for what keeps their alpha.
    std::array<std::array<std::vector<std::uint32_t>, 2>, max_few + 2> order;
    for (std::size_t b = 0; b < count; ++b) {
        const auto colors = plan.few > 0 ? colors_of(blocks + b * 16) : max_few + 1;
        const bool opaque = std::all_of(blocks + b * 16, blocks + b * 16 + 16, [](const Texel& t) { return t[3] == 255; });
        order[colors <= plan.few ? colors : max_few + 1][opaque].push_back(static_cast<std::uint32_t>(b));
    }
    const auto each = [&](const std::vector<std::uint32_t>& which, const auto& work) {
        const std::size_t n = hn::Lanes(DF());
        for (std::size_t first = 0; first < which.size(); first += n) {
            Group group;
            group.lanes = std::min(n, which.size() - first);
            for (std::size_t lane = 0; lane < n; ++lane) {
                const auto b = which[first + std::min(lane, group.lanes - 1)];
                std::copy_n(blocks + std::size_t{b} * 16, 16, group.texels.data() + lane * 16);
                group.found[lane] = &found[b];
            }
            with_best(group, options, [&](const Block& block, Best& best) { work(group, block, best); });
        }
    };
    std::array<std::vector<std::uint32_t>, 2> few;
    for (std::size_t k = 1; k <= max_few; ++k)
        for (std::size_t opaque = 0; opaque < 2; ++opaque) {
            each(order[k][opaque], [&](const Group& group, const Block& block, Best& best) {
                if (k == 1) return try_single_color(block, best);
                Few colors = few_colors(group.texels.data(), options);
                colors.keep_alpha(block.texel.exacting);
                try_few_whole(colors, best, block.opaque, plan.few_step);
            });
            for (const auto b : order[k][opaque])
                if (found[b].error > 0) few[opaque].push_back(b);
        }
    const auto rest = [&](const Group& group, const Block& block, Best& best, bool is_few) {
        const auto opaque = hn::Gt(block.opaque, zero());
        const auto opaque_only = select(opaque, zero(), set(huge)), clear_only = select(opaque, set(huge), zero());
        Few colors;
        if (is_few) colors = few_colors(group.texels.data(), options), colors.keep_alpha(block.texel.exacting);
        try_whole(block, best, plan);
        try_partitions<3>(block, is_few ? &colors : nullptr, best, opaque_only, plan);
        try_partitions<4>(block, is_few ? &colors : nullptr, best, clear_only, plan);
        if (plan.few == 0) try_single_color(block, best);
        if (plan.walk) walk(block, best, plan.walk, plan.singles);
    };
    for (std::size_t opaque = 0; opaque < 2; ++opaque) {
        each(few[opaque], [&](const Group& group, const Block& block, Best& best) { rest(group, block, best, true); });
        each(order[max_few + 1][opaque], [&](const Group& group, const Block& block, Best& best) { rest(group, block, best, false); });
    }
    for (std::size_t b = 0; b < count; ++b) {
        bptc::Choice choice;
        choice.mode = static_cast<unsigned>(found[b].mode);
        choice.partition = static_cast<unsigned>(found[b].partition);
        choice.rotation = static_cast<unsigned>(found[b].extra) & 3;
        choice.selector = static_cast<unsigned>(found[b].extra) >> 2;
        for (std::size_t e = 0; e < 6; ++e)
            for (std::size_t c = 0; c < 4; ++c) choice.code[e][c] = static_cast<std::uint8_t>(found[b].code[e][c]);
        bptc::pack(choice, blocks + b * 16, out + b * 16, options);
    }
}

}  // namespace

void encode_bc7_simd(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    run(blocks, count, out, options);
}

}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace skivet {
HWY_EXPORT(encode_bc7_simd);

void encode_bc7(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    HWY_DYNAMIC_DISPATCH(encode_bc7_simd)(blocks, count, out, options);
}
}  // namespace skivet
#endif
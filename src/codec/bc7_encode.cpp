// Encoding BC7, N blocks at a time (see lanes-inl.h).
//
// A mode is a number of subsets, each a line in color space. Opaque blocks: what every mode and partition would leave is estimated without
// fitting, the likeliest are fitted, the lines by where on them the colors lie (bc7_dense-inl.h). Blocks with alpha: partitions ranked by
// what their subsets leave, the best few fitted, endpoints from the principal axis and solved again; modes without partitions with every
// rotation. Blocks of few colors are looked for exactly first (bc7_few-inl.h). What wins is polished (bc7_walk-inl.h), gets its indices by
// the decoder's exact values (bc7_indices-inl.h) and is packed block by block. What a block held before is looked for
// exactly (bc7_recall.h).
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "codec/bc7_encode.cpp"
#include <hwy/foreach_target.h>
//
#include "codec/bc7_dense-inl.h"
#include "codec/bc7_encode.h"
#include "codec/bc7_few-inl.h"
#include "codec/bc7_indices-inl.h"
#include "codec/bc7_pack.h"
#include "codec/bc7_recall.h"
#include "codec/bc7_walk-inl.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

/// How far each effort searches.
struct Plan {
    std::size_t few;    ///< look for exact values in blocks of so many colors
    unsigned few_step;  ///< see solve_few
    std::size_t few_partitions;
    DensePlan dense;
    int polish;  ///< rounds of walk behind that
    // Blocks with alpha:
    std::size_t two;  ///< partitions tried
    int rounds;
    std::array<float, 4> wider;  ///< how far lines reach past the colors; 0 again ends the list
    unsigned rotations;
    int walk;
    bool singles;
};
constexpr Plan thorough{
    max_few, 1, 6, {{8, 4, 3, 2, 3}, 16, 0.6f, {12, 0, 6}, {400, 8, 24, 200, true}}, 1, 6, 2, {0.0f, 0.1f, 0.25f, 0.6f}, 4, 3, true},
    normal{4, 4, 1, {{4, 3, 2, 0, 3}, 6, 0.7f, {6, 0, 4}, {400, 6, 8, 32}}, 1, 2, 1, {0.0f, 0.25f, 0.0f, 0.0f}, 4, 1, false},
    fast{0, 1, 0, {{2, 1, 0, 0, 1}, 2, 0.8f, {2, 0, 2}, {}}, 0, 1, 1, {0.0f, 0.0f, 0.0f, 0.0f}, 1, 0, false};

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
    load_shares(group.texels.data(), options, block.texel);
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
    for (unsigned rotation = 0; rotation < plan.rotations; ++rotation)
        try_separate(block, best, all, rotation, plan.rotations > 1, plan.rounds);
}

/// Mode 7, of blocks with alpha.
HWY_INLINE void try_partitions(const Block& block, const Few* few, Best& best, const Plan& plan) {
    if (hn::AllFalse(DF(), hn::Lt(zero(), best.error))) return;
    const auto partitions = rank_partitions<4>(block, plan.two);
    for (std::size_t k = 0; k < plan.two; ++k) {
        if (few && k < plan.few_partitions) try_few_partition<4>(*few, best, partitions[k], {mode7});
        try_partition<4>(block, best, partitions[k], mode7, plan.rounds);
    }
}

/// Modes 1 and 3, of opaque blocks of few colors.
HWY_INLINE void try_few_partitions(const Block& block, const Few& few, Best& best, const Plan& plan) {
    const auto partitions = rank_partitions<3>(block, plan.few_partitions);
    for (std::size_t k = 0; k < plan.few_partitions; ++k) try_few_partition<3>(few, best, partitions[k], {mode3, mode1});
}

/// What a block with alpha held before, in what won or without a partition.
void recall(const bptc::Recall& block, const RecallPlan& plan, Found& found) {
    if (recalled(block, static_cast<unsigned>(found.mode), static_cast<unsigned>(found.partition), static_cast<unsigned>(found.extra), plan,
                 found))
        return;
    if (found.mode != 6 && recalled(block, 6, 0, 0, plan, found)) return;
    if (plan.separate_too)
        for (const unsigned mode : {5u, 4u})
            for (unsigned extra = 0; extra < (mode == 5 ? 4u : 8u); ++extra)
                if (recalled(block, mode, 0, extra, plan, found)) return;
}

void run(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    const Plan& plan = options.effort == Effort::fast ? fast : options.effort == Effort::normal ? normal : thorough;
    std::vector<Found> found(count);
    // Blocks of as many colors share a group, and what is exact already leaves: lanes then wait for each other as little as can be. A
    // block's result does not depend on its neighbors in the group.
    // Opaque blocks and others do not share one either: only the others pay for what keeps their alpha.
    std::array<std::array<std::vector<std::uint32_t>, 2>, max_few + 2> order;
    for (std::size_t b = 0; b < count; ++b) {
        const auto colors = colors_of(blocks + b * 16, std::max<std::size_t>(plan.few, 1));
        const bool opaque = std::all_of(blocks + b * 16, blocks + b * 16 + 16, [](const Texel& t) { return t[3] == 255; });
        order[colors][opaque].push_back(static_cast<std::uint32_t>(b));
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
    // Blocks with alpha.
    const auto rest = [&](const Group& group, const Block& block, Best& best, bool is_few) {
        Few colors;
        if (is_few) colors = few_colors(group.texels.data(), options), colors.keep_alpha(block.texel.exacting);
        try_whole(block, best, plan);
        try_partitions(block, is_few ? &colors : nullptr, best, plan);
        if (plan.walk) walk(block, best, plan.walk, plan.singles);
    };
    each(few[0], [&](const Group& group, const Block& block, Best& best) { rest(group, block, best, true); });
    each(order[max_few + 1][0], [&](const Group& group, const Block& block, Best& best) { rest(group, block, best, false); });
    const auto& more = plan.dense.recall;
    for (const auto* which : {&few[0], &order[max_few + 1][0]})
        for (const auto b : *which)
            if (found[b].error > 0 && found[b].error <= more.most_error) recall(bptc::Recall(blocks + std::size_t{b} * 16), more, found[b]);
    // Opaque ones.
    each(few[1], [&](const Group& group, const Block& block, Best& best) {
        try_few_partitions(block, few_colors(group.texels.data(), options), best, plan);
    });
    auto& dense = order[max_few + 1][1];
    for (const auto b : few[1])
        if (found[b].error > 0) dense.push_back(b);
    Dense(blocks, dense, found, options, plan.dense).run();
    if (plan.polish) each(dense, [&](const Group&, const Block& block, Best& best) { walk(block, best, plan.polish, false); });
    std::vector<bptc::Choice> choices(count);
    for (std::size_t b = 0; b < count; ++b) {
        auto& choice = choices[b];
        choice.mode = static_cast<unsigned>(found[b].mode);
        choice.partition = static_cast<unsigned>(found[b].partition);
        choice.rotation = static_cast<unsigned>(found[b].extra) & 3;
        choice.selector = static_cast<unsigned>(found[b].extra) >> 2;
        for (std::size_t e = 0; e < 6; ++e)
            for (std::size_t c = 0; c < 4; ++c) choice.code[e][c] = static_cast<std::uint8_t>(found[b].code[e][c]);
    }
    choose_all_indices(blocks, choices, options);
    for (std::size_t b = 0; b < count; ++b) bptc::pack(choices[b], out + b * 16);
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
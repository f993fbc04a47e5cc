// Encoding BC7, N blocks at a time (see lanes-inl.h).
//
// A mode is a number of subsets, each a line in color space. What every mode and partition would leave is estimated without fitting, the
// likeliest are fitted, the lines by where on them the colors lie (bc7_dense-inl.h). Blocks of few colors are looked for exactly first
// (bc7_few-inl.h). What wins is polished (bc7_walk-inl.h), gets its indices by the decoder's exact values (bc7_indices-inl.h) and is packed
// block by block. Where a picture came from BC7, what a block held before is looked for first (bc7_held-inl.h).
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "codec/bc7_encode.cpp"
#include <hwy/foreach_target.h>
//
#include "codec/bc7_dense-inl.h"
#include "codec/bc7_encode.h"
#include "codec/bc7_few-inl.h"
#include "codec/bc7_held-inl.h"
#include "codec/bc7_indices-inl.h"
#include "codec/bc7_pack.h"
#include "codec/bc7_walk-inl.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

/// How far each effort searches.
struct Plan {
    std::size_t few, few_with_alpha;  ///< look for exact values in blocks of so many colors, opaque and others
    unsigned few_step;                ///< see solve_few
    std::size_t few_partitions;
    DensePlan opaque, with_alpha;
    int polish;  ///< rounds of walk behind that
};
constexpr Plan thorough{
    max_few, max_few, 1, 6, {{8, 4, 3, 2, 4, 0}, 12, 0.6f, {6, 0, 6}, 12}, {{0, 0, 0, 0, 4, 6}, 12, 0.4f, {6, 0, 6}, 12}, 1},
    normal{6, 4, 4, 1, {{4, 3, 2, 0, 4, 0}, 6, 0.7f, {4, 0, 4}, 6}, {{0, 0, 0, 0, 3, 2}, 4, 0.5f, {3, 0, 4}, 6}, 1},
    fast{0, 0, 1, 0, {{2, 2, 0, 0, 2, 0}, 3, 0.8f, {2, 0, 2}, 2}, {{0, 0, 0, 0, 2, 2}, 3, 0.6f, {2, 0, 2}, 2}, 0},
    // Blocks that a format of fewer colors held before (BC1) are exact in some mode, too, or nearly.
    fast_again{6, 4, 4, 1, fast.opaque, fast.with_alpha, 0};

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
    load_block(group.texels.data(), options, block);
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

/// Modes 1 and 3, with alpha 7, of blocks of few colors.
HWY_INLINE void try_few_partitions(const Block& block, Few& few, Best& best, const Plan& plan) {
    few.keep_alpha(block.texel.exacting);
    const auto partitions =
        block.texel.exacting ? rank_partitions<4>(block, plan.few_partitions) : rank_partitions<3>(block, plan.few_partitions);
    for (std::size_t k = 0; k < plan.few_partitions; ++k) {
        if (block.texel.exacting) try_few_partition<4>(few, best, partitions[k], {mode7});
        else try_few_partition<3>(few, best, partitions[k], {mode3, mode1});
    }
}

void run(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    const Plan& quick = options.held_before.value_or(true) ? fast_again : fast;
    const Plan& plan = options.effort == Effort::fast ? quick : options.effort == Effort::normal ? normal : thorough;
    std::vector<Found> found(count);
    // Blocks of as many colors share a group, and what is exact already leaves: lanes then wait for each other as little as can be. A
    // block's result does not depend on its neighbors in the group.
    // Opaque blocks and others do not share one either: only the others pay for what keeps their alpha, and modes differ.
    std::array<std::array<std::vector<std::uint32_t>, 2>, max_few + 2> order;
    for (std::size_t b = 0; b < count; ++b) {
        const bool opaque = std::all_of(blocks + b * 16, blocks + b * 16 + 16, [](const Texel& t) { return t[3] == 255; });
        const auto colors = colors_of(blocks + b * 16, std::max<std::size_t>(opaque ? plan.few : plan.few_with_alpha, 1));
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
    for (std::size_t opaque = 0; opaque < 2; ++opaque) {
        each(few[opaque], [&](const Group& group, const Block& block, Best& best) {
            auto colors = few_colors(group.texels.data(), options);
            try_few_partitions(block, colors, best, plan);
        });
        auto dense = order[max_few + 1][opaque];
        for (const auto b : few[opaque])
            if (found[b].error > 0) dense.push_back(b);
        if (options.held_before.value_or(false)) {
            recall_all(blocks, dense, opaque == 1, options, found);
        } else if (!options.held_before && options.effort == Effort::best) {
            recall(blocks, dense, opaque == 1, partitions_plan, options, found);
            std::erase_if(dense, [&](std::uint32_t b) { return found[b].error == 0; });
        }
        Dense(blocks, dense, opaque == 1, found, options, opaque ? plan.opaque : plan.with_alpha).run();
        if (plan.polish) each(dense, [&](const Group&, const Block& block, Best& best) { walk(block, best, plan.polish); });
    }
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

HeldBlocks held_bc7_simd(const Texel* blocks, std::size_t count) {
    // Blocks of fewer colors are often exact, wherever they come from. Where a picture has no others, nearly all of them must be: of what
    // BC1 held it is two thirds.
    constexpr std::size_t telling = 7, enough = 2;
    std::array<std::array<std::vector<std::uint32_t>, 2>, 2> which;
    for (std::size_t b = 0; b < count; ++b) {
        const auto* block = blocks + b * 16;
        const auto colors = colors_of(block, telling - 1);
        if (colors == 1) continue;
        const bool opaque = std::all_of(block, block + 16, [](const Texel& t) { return t[3] == 255; });
        which[colors >= telling][opaque].push_back(static_cast<std::uint32_t>(b));
    }
    const bool many = which[1][0].size() + which[1][1].size() >= enough;
    std::vector<Found> found(count);
    for (std::size_t opaque = 0; opaque < 2; ++opaque) recall(blocks, which[many][opaque], opaque == 1, telling_plan, {}, found);
    HeldBlocks out;
    out.telling = which[many][0].size() + which[many][1].size();
    for (const auto& one : found) out.exact += one.error == 0;
    if (!many && 8 * out.exact < 7 * out.telling) return {};
    return out;
}

}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace skivet {
HWY_EXPORT(encode_bc7_simd);
HWY_EXPORT(held_bc7_simd);

void encode_bc7(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    HWY_DYNAMIC_DISPATCH(encode_bc7_simd)(blocks, count, out, options);
}
HeldBlocks held_bc7(const Texel* blocks, std::size_t count) { return HWY_DYNAMIC_DISPATCH(held_bc7_simd)(blocks, count); }
}  // namespace skivet
#endif
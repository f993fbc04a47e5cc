// Included once for each SIMD target by bc7_encode.cpp (see lanes-inl.h).
// What a block held before: codes that give it exactly are looked for (bc7_recall.h) in the modes and partitions whose lines reach it.
#if defined(SKIVET_BC7_HELD_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef SKIVET_BC7_HELD_INL_H
#undef SKIVET_BC7_HELD_INL_H
#else
#define SKIVET_BC7_HELD_INL_H
#endif

#include "codec/bc7_dense-inl.h"
#include "codec/bc7_recall.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

/// How far is looked.
struct HeldPlan {
    WishCounts wishes;  ///< in so many modes and partitions
    unsigned budget6;   ///< see bptc::Recall; of mode 6, whose line has sixteen places
    unsigned budget = 50;
};
/// Where nearly all blocks of any picture are; then all modes.
constexpr std::array<HeldPlan, 2> held_plans = {{{{4, 4, 0, 0, 4, 3}, 1000}, {{8, 8, 3, 3, 4, 6}, 1000}}};
/// Of a sample, which a new picture pays for, too: some of each mode, where the codes of most blocks are, and they are soon found.
constexpr HeldPlan telling_plan{{2, 2, 2, 2, 2, 2}, 100, 24};
/// Of what another format may have held: what has no partitions was looked at already (bc7_few-inl.h).
constexpr HeldPlan partitions_plan{{8, 8, 0, 0, 0, 6}, 0};
/// What lines whose values were rounded leave, squared, of sixteen texels: with 4 a few are missed, with 16 no more are found than with 6.
constexpr float held_off = 6;

/// Whether the block is exactly what that mode and partition give.
inline bool recalled(const bptc::Recall& block, const Wish& wish, const HeldPlan& plan, Found& found) {
    bptc::Choice choice;
    choice.mode = wish.mode;
    choice.partition = wish.partition;
    choice.rotation = wish.extra & 3u;
    choice.selector = wish.extra >> 2;
    if (!block.solve(choice, wish.mode == 6 ? plan.budget6 : plan.budget)) return false;
    found.error = 0;
    found.mode = wish.mode;
    found.partition = wish.partition;
    found.extra = wish.extra;
    for (std::size_t e = 0; e < 6; ++e)
        for (std::size_t c = 0; c < 4; ++c) found.code[e][c] = choice.code[e][c];
    return true;
}

/// Of these blocks, all opaque or none, what they held before. Those that are not exactly anything stay as they are in `found`.
inline void recall(const Texel* blocks, std::span<const std::uint32_t> which, bool opaque, const HeldPlan& plan,
                   const EncodeOptions& options, std::vector<Found>& found) {
    const std::size_t n = hn::Lanes(DF());
    std::vector<Wishes> wishes(n);
    std::array<Wishes*, max_lanes> lanes{};
    for (std::size_t lane = 0; lane < n; ++lane) lanes[lane] = &wishes[lane];
    for (std::size_t first = 0; first < which.size(); first += n) {
        const auto count = std::min(n, which.size() - first);
        Block block;
        load_lanes(
            blocks, count, [&](std::size_t lane) { return which[first + lane]; }, options, block);
        const auto wished =
            opaque ? wish(block, plan.wishes, lanes.data(), count) : wish_with_alpha(block, plan.wishes, lanes.data(), count);
        for (std::size_t lane = 0; lane < count; ++lane) {
            const auto likely = std::span(wishes[lane]).first(wished);
            const auto end = std::partition(likely.begin(), likely.end(), [](const Wish& w) { return w.off <= held_off; });
            std::sort(likely.begin(), end, [](const Wish& a, const Wish& b) {
                return std::tie(a.cost, a.mode, a.partition, a.extra) < std::tie(b.cost, b.mode, b.partition, b.extra);
            });
            const bptc::Recall known(blocks + std::size_t{which[first + lane]} * 16);
            for (auto wish = likely.begin(); wish != end; ++wish)
                if (recalled(known, *wish, plan, found[which[first + lane]])) break;
        }
    }
}

/// The same wherever it may be; what is found leaves `which`.
inline void recall_all(const Texel* blocks, std::vector<std::uint32_t>& which, bool opaque, const EncodeOptions& options,
                       std::vector<Found>& found) {
    for (const auto& plan : held_plans) {
        recall(blocks, which, opaque, plan, options, found);
        std::erase_if(which, [&](std::uint32_t b) { return found[b].error == 0; });
    }
}

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif

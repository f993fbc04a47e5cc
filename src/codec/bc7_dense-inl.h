// Included once for each SIMD target by bc7_encode.cpp (see lanes-inl.h).
// For each block the likeliest modes and partitions (bc7_wishes-inl.h) in turn, their lines by ranges (bc7_ranges-inl.h).
#if defined(SKIVET_BC7_DENSE_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef SKIVET_BC7_DENSE_INL_H
#undef SKIVET_BC7_DENSE_INL_H
#else
#define SKIVET_BC7_DENSE_INL_H
#endif

#include "codec/bc7_few-inl.h"
#include "codec/bc7_ranges-inl.h"
#include "codec/bc7_wishes-inl.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

/// What is known of one block between two passes.
struct Found {
    float error = huge, mode = 0, partition = 0, extra = 0;
    std::array<std::array<float, 4>, 6> code{};
};

struct DensePlan {
    WishCounts wishes;
    std::size_t fitted = 0;  ///< wishes at most; of gray blocks and few colors three times as many
    float hope = 0;          ///< what of an estimate may come out: where that is more than what was found, it is not tried
    LineSearch line;
    unsigned gray_starts = 0;  ///< instead of line.starts, of gray blocks: their lines differ by little but where they start
};

struct Masks {
    std::array<std::array<std::int32_t, 3>, 64> two{}, three{};
};
/// Bit i: texel i is in the subset.
const Masks& masks() {
    static const Masks table = [] {
        Masks out;
        for (std::size_t p = 0; p < 64; ++p)
            for (std::size_t i = 0; i < 16; ++i) {
                out.two[p][bptc::partitions2[p][i]] |= 1 << i;
                out.three[p][bptc::partitions3[p][i]] |= 1 << i;
            }
        return out;
    }();
    return table;
}

/// Block number(lane) in each lane, behind the `count`th the last of them.
template <class Number>
void load_lanes(const Texel* blocks, std::size_t count, const Number& number, const EncodeOptions& options, Block& block) {
    std::array<Texel, 16 * max_lanes> texels;
    for (std::size_t lane = 0; lane < hn::Lanes(DF()); ++lane)
        std::copy_n(blocks + std::size_t{number(std::min(lane, count - 1))} * 16, 16, texels.data() + lane * 16);
    load_block(texels.data(), options, block);
}

/// The wishes of each block, likeliest first, as many blocks of a mode at a time as there are lanes. All are opaque, or none.
class Dense {
public:
    Dense(const Texel* blocks, std::span<const std::uint32_t> which, bool opaque, std::vector<Found>& found, const EncodeOptions& options,
          const DensePlan& plan)
        : opaque_(opaque),
          blocks_(blocks),
          which_(which),
          found_(found),
          options_(options),
          plan_(plan),
          unit_(counts_by_channel(options) ? 12.0f : 1.0f),
          wishes_(which.size()),
          colors_(which.size()),
          came_out_(which.size(), 1.0f),
          gray_(which.size()) {}
    void run() {
        const std::size_t n = hn::Lanes(DF());
        for (std::size_t first = 0; first < which_.size(); first += n) {
            std::array<Wishes*, max_lanes> lanes{};
            const auto count = std::min(n, which_.size() - first);
            Block block;
            load(block, count, [&](std::size_t lane) { return which_[first + lane]; });
            for (std::size_t lane = 0; lane < count; ++lane) lanes[lane] = &wishes_[first + lane];
            wished_ = opaque_ ? wish(block, plan_.wishes, lanes.data(), count) : wish_with_alpha(block, plan_.wishes, lanes.data(), count);
            alignas(64) float colors[max_lanes];
            hn::Store(distinct_colors(block.texel), DF(), colors);
            for (std::size_t lane = 0; lane < count; ++lane) colors_[first + lane] = colors[lane];
        }
        for (auto& wishes : wishes_) sort(std::span(wishes).first(wished_));
        // Gray blocks and few colors can be hit far better than an estimate knows, and so can clusters of colors on a long line: where one
        // estimate came out so, another may. There more is tried; where little is to be gained, in a gentle slope, it is not.
        constexpr float few_colors = 6, some_colors = 14, long_line = 50, hope_of_few = 0.25f, least_hope = 0.1f, as_much_better = 0.5f;
        for (std::size_t i = 0; i < which_.size(); ++i) {
            const auto* texel = blocks_ + std::size_t{which_[i]} * 16;
            gray_[i] = std::all_of(texel, texel + 16, [](const Texel& t) { return t[0] == t[1] && t[1] == t[2]; });
        }
        for (std::size_t rank = 0; rank < std::min(3 * plan_.fitted, wished_); ++rank) {
            for (auto& queue : queues_) queue.clear();
            for (std::uint32_t i = 0; i < which_.size(); ++i) {
                const auto& wish = wishes_[i][rank];
                const bool few = gray_[i] || colors_[i] <= few_colors;
                if (rank >= plan_.fitted && !few) continue;
                const bool some = colors_[i] <= some_colors && wishes_[i][0].cost > long_line;
                const float hope =
                    plan_.hope * std::min(few ? hope_of_few : 1, some ? std::max(least_hope, as_much_better * came_out_[i]) : 1);
                if (wish.cost >= huge || wish.cost * hope * unit_ >= found_[which_[i]].error) continue;
                queues_[std::size_t{wish.mode} + 8 * std::size_t{wish.extra} + (gray_[i] ? 64 : 0)].push_back(i);
            }
            for (std::size_t q = 0; q < queues_.size(); ++q)
                for (std::size_t first = 0; first < queues_[q].size(); first += n)
                    fit(q % 8, q / 8 % 8, q / 64 == 1, rank, std::span(queues_[q]).subspan(first, std::min(n, queues_[q].size() - first)));
        }
    }

private:
    /// They are few and many of them in order already: the cheapest of each mode come first.
    static void sort(std::span<Wish> wishes) {
        for (std::size_t i = 1; i < wishes.size(); ++i) {
            const auto wish = wishes[i];
            std::size_t at = i;
            for (; at > 0 && wish.cost < wishes[at - 1].cost; --at) wishes[at] = wishes[at - 1];
            wishes[at] = wish;
        }
    }
    static HWY_INLINE VF distinct_colors(const Texels& texel) {
        Plane color;
        for (std::size_t i = 0; i < 16; ++i) put(color, i, color_value(get(texel[0], i), get(texel[1], i), get(texel[2], i)));
        return most(distinct_values(color), distinct_values(texel[3]));
    }
    template <class Number>
    void load(Block& block, std::size_t count, const Number& number) const {
        load_lanes(blocks_, count, number, options_, block);
    }
    void fit(std::size_t mode, std::size_t extra, bool gray, std::size_t rank, std::span<const std::uint32_t> lanes) {
        Block block;
        load(block, lanes.size(), [&](std::size_t lane) { return which_[lanes[lane]]; });
        auto& texel = block.texel;
        alignas(64) std::int32_t mask[3][max_lanes] = {};
        alignas(64) float before[max_lanes];
        for (std::size_t lane = 0; lane < hn::Lanes(DF()); ++lane) {
            const auto i = lanes[std::min(lane, lanes.size() - 1)];
            before[lane] = found_[which_[i]].error;
            const auto partition = wishes_[i][rank].partition;
            for (std::size_t s = 0; s < bptc::modes[mode].subsets; ++s)
                mask[s][lane] = bptc::modes[mode].subsets == 1   ? 0xFFFF
                                : bptc::modes[mode].subsets == 2 ? masks().two[partition][s]
                                                                 : masks().three[partition][s];
        }
        const auto limit = hn::Load(DF(), before);
        std::array<Ends, 3> code;
        VF error = zero();
        const auto weight_of = [&](std::size_t s, Plane& weight) {
            const DI di;
            const auto bits = hn::Load(di, mask[s]), one = hn::Set(di, 1);
            for (std::size_t i = 0; i < 16; ++i) {
                const auto shifted = hn::ShiftRightSame(bits, static_cast<int>(i));
                put(weight, i, hn::ConvertTo(DF(), hn::And(shifted, one)));
            }
        };
        Plane weight;
        const auto line = [&](auto channels, const Spec& spec, Parity parity) {
            constexpr int n = channels;
            auto search = plan_.line;
            if (gray) search.starts = plan_.gray_starts;
            if (spec.index_bits == 4) search.reach = std::max(search.reach, 4u);
            if constexpr (n < 4)
                if (opaque_)
                    return texel.weighted ? fit_ranges<n, true, false>(texel, weight, spec, parity, search)
                                          : fit_ranges<n, false, false>(texel, weight, spec, parity, search);
            return texel.weighted ? fit_ranges<n, true, true>(texel, weight, spec, parity, search)
                                  : fit_ranges<n, false, true>(texel, weight, spec, parity, search);
        };
        constexpr std::integral_constant<int, 1> one_channel;
        constexpr std::integral_constant<int, 3> colors;
        constexpr std::integral_constant<int, 4> with_alpha;
        if (mode == 4 || mode == 5) {
            weight_of(0, weight);
            if (extra & 3) texel.swap_channels(3, (extra & 3) - 1);
            const unsigned color_index = mode == 4 && extra >> 2 ? 3 : 2, alone_index = mode == 4 && !(extra >> 2) ? 3 : 2;
            const auto rgb = line(colors, {static_cast<unsigned>(mode), mode == 4 ? 5u : 7u, 0, PBits::none, color_index}, Parity::any);
            error = rgb.error;
            code[0] = rgb.code;
            const Spec alone{static_cast<unsigned>(mode), mode == 4 ? 6u : 8u, 0, PBits::none, alone_index};
            texel.swap_channels(0, 3);
            const auto a = line(one_channel, alone, Parity::any);
            error = hn::Add(error, a.error);
            code[0].a[3] = a.code.a[0];
            code[0].b[3] = a.code.b[0];
        } else {
            const auto& spec = mode == 0 ? mode0 : mode == 1 ? mode1 : mode == 2 ? mode2 : mode == 3 ? mode3 : mode == 6 ? mode6 : mode7;
            for (std::size_t s = 0; s < bptc::modes[mode].subsets; ++s) {
                if (s > 0 && hn::AllFalse(DF(), hn::Lt(error, limit))) return;
                weight_of(s, weight);
                const auto fitted =
                    opaque_ ? line(colors, spec, mode == 6 ? Parity::odd : Parity::any) : line(with_alpha, spec, Parity::any);
                error = hn::Add(error, fitted.error);
                code[s] = fitted.code;
                if (opaque_ && mode == 6) code[s].a[3] = code[s].b[3] = set(255);
            }
        }
        alignas(64) float errors[max_lanes], codes[max_lanes];
        hn::Store(error, DF(), errors);
        std::array<bool, max_lanes> better{};
        for (std::size_t lane = 0; lane < lanes.size(); ++lane) {
            auto& found = found_[which_[lanes[lane]]];
            better[lane] = errors[lane] < found.error;
            if (!better[lane]) continue;
            // Of what is no better not all is known where the others in the vector are no better either, so nothing is learned from it.
            auto& came_out = came_out_[lanes[lane]];
            came_out = std::min(came_out, errors[lane] / (unit_ * std::max(wishes_[lanes[lane]][rank].cost, 1.0f)));
            found.error = errors[lane];
            found.mode = static_cast<float>(mode);
            found.partition = wishes_[lanes[lane]][rank].partition;
            found.extra = static_cast<float>(extra);
        }
        for (std::size_t s = 0; s < bptc::modes[mode].subsets; ++s)
            for (std::size_t end = 0; end < 2; ++end)
                for (std::size_t c = 0; c < 4; ++c) {
                    hn::Store(end ? code[s].b[c] : code[s].a[c], DF(), codes);
                    for (std::size_t lane = 0; lane < lanes.size(); ++lane)
                        if (better[lane]) found_[which_[lanes[lane]]].code[2 * s + end][c] = codes[lane];
                }
    }

    bool opaque_;
    const Texel* blocks_;
    std::span<const std::uint32_t> which_;
    std::vector<Found>& found_;
    const EncodeOptions& options_;
    const DensePlan& plan_;
    /// What an estimate's unit is in errors. Errors by texel are in 32nds (weights.h), which estimates follow only roughly (with alpha) or
    /// not at all: at 32 photographs cut out lose 0.2 dB at best, at 12 0.06, normals nothing.
    float unit_;
    std::vector<Wishes> wishes_;
    std::size_t wished_ = 0;       ///< of each block, so many
    std::vector<float> colors_;    ///< how many different ones
    std::vector<float> came_out_;  ///< the least share of an estimate that came out of what was the best so far
    std::vector<bool> gray_;
    std::array<std::vector<std::uint32_t>, 128> queues_;
};

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif

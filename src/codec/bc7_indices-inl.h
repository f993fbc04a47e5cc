// Included once for each SIMD target by bc7_encode.cpp (see lanes-inl.h).
// The last choice of a BC7 block: every texel's index, for N blocks of one mode.
#if defined(SKIVET_BC7_INDICES_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef SKIVET_BC7_INDICES_INL_H
#undef SKIVET_BC7_INDICES_INL_H
#else
#define SKIVET_BC7_INDICES_INL_H
#endif

#include "codec/bc7_lines-inl.h"
#include "codec/bc7_pack.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

/// For every texel the index whose decoded value is nearest: by projection, then the decoder's exact values around it. `subset_of`: 0, 1 or
/// 2 by texel; `ends` are their values. Alpha keeps 0 and 255 where it can (`texel.keep`).
template <std::size_t first, std::size_t last, bool weighted>
HWY_NOINLINE void nearest_indices(const Texels& texel, const Plane& subset_of, const std::array<Ends, 3>& ends, std::size_t subsets,
                                  unsigned bits, Plane& out) {
    const auto top = set(static_cast<float>((1u << bits) - 1)), weight_step = set(64.0f / static_cast<float>((1u << bits) - 1));
    std::array<V4, 3> lines;
    std::array<VF, 3> steps;
    for (std::size_t s = 0; s < subsets; ++s) {
        VF size = zero();
        for (std::size_t c = first; c < last; ++c) {
            lines[s][c] = hn::Sub(ends[s].b[c], ends[s].a[c]);
            size = hn::Add(size, hn::Mul(lines[s][c], lines[s][c]));
        }
        steps[s] = select(hn::Gt(size, zero()), hn::Div(top, most(size, set(1e-6f))), zero());
    }
    for (std::size_t i = 0; i < 16; ++i) {
        auto a = ends[0].a, d = lines[0];
        auto per = steps[0];
        for (std::size_t s = 1; s < subsets; ++s) {
            const auto mine = hn::Eq(get(subset_of, i), set(static_cast<float>(s)));
            for (std::size_t c = first; c < last; ++c) a[c] = select(mine, ends[s].a[c], a[c]), d[c] = select(mine, lines[s][c], d[c]);
            per = select(mine, steps[s], per);
        }
        VF along = zero(), size = zero();
        for (std::size_t c = first; c < last; ++c) {
            const auto length = weighted ? hn::Mul(d[c], get(texel.share[c], i)) : d[c];
            along = hn::Add(along, hn::Mul(length, hn::Sub(get(texel[c], i), a[c])));
            if (weighted) size = hn::Add(size, hn::Mul(length, d[c]));
        }
        if (weighted) per = select(hn::Gt(size, zero()), hn::Div(top, most(size, set(1e-6f))), zero());
        const auto middle = hn::Floor(hn::Add(least(most(hn::Mul(along, per), zero()), top), set(0.5f)));
        VF least_error = set(huge), nearest = middle;
        const auto try_index = [&](VF index, VF more) {
            const auto t = hn::Mul(hn::Floor(hn::Add(hn::Mul(index, weight_step), set(0.5f))), set(1.0f / 64));
            VF error = more;
            for (std::size_t c = first; c < last; ++c) {
                const auto off = hn::Sub(hn::Floor(hn::Add(hn::Mul(t, d[c]), hn::Add(a[c], set(0.5f)))), get(texel[c], i));
                const auto squared = hn::Mul(off, off);
                error = hn::Add(error, weighted ? hn::Mul(squared, get(texel.share[c], i)) : squared);
                if (texel.keep[c]) error = hn::Add(error, select(hn::Eq(off, zero()), zero(), get(*texel.keep[c], i)));
            }
            const auto better = hn::Lt(error, least_error);
            least_error = select(better, error, least_error);
            nearest = select(better, index, nearest);
        };
        for (const float step : {-1.0f, 0.0f, 1.0f}) try_index(least(most(hn::Add(middle, set(step)), zero()), top), zero());
        // Alpha that must stay may lie at an end only.
        for (std::size_t c = first; c < last; ++c) {
            if (!texel.keep[c]) continue;
            const auto others = select(hn::Gt(get(*texel.keep[c], i), zero()), zero(), set(huge));
            try_index(zero(), others);
            try_index(top, others);
        }
        put(out, i, nearest);
    }
}

/// Indices for N blocks of one mode and selector; their texels already turned by their rotations.
template <bool weighted>
HWY_NOINLINE void choose_indices(const Texels& texel, const Plane& subset_of, std::array<bptc::Choice*, max_lanes>& choices,
                                 std::size_t lanes) {
    const auto& sample = *choices[0];
    const auto& mode = bptc::modes[sample.mode];
    const unsigned p = mode.own_p_bits || mode.shared_p_bits ? 1 : 0;
    const unsigned color_bits = mode.color_bits + p, alpha_bits = mode.alpha_bits ? mode.alpha_bits + p : 0;
    const bool separate = mode.second_index_bits > 0;
    std::array<Ends, 3> ends;
    alignas(64) float v[max_lanes];
    for (std::size_t e = 0; e < std::size_t{mode.subsets} * 2; ++e)
        for (std::size_t c = 0; c < 4; ++c) {
            for (std::size_t lane = 0; lane < hn::Lanes(DF()); ++lane) v[lane] = choices[std::min(lane, lanes - 1)]->code[e][c];
            const auto code = hn::Load(DF(), v);
            (e % 2 ? ends[e / 2].b : ends[e / 2].a)[c] = c < 3        ? expand(code, color_bits)
                                                         : alpha_bits ? expand(code, alpha_bits)
                                                                      : set(255);
        }
    const unsigned first_bits = separate && sample.selector ? mode.second_index_bits : mode.index_bits,
                   second_bits = separate && sample.selector ? mode.index_bits : mode.second_index_bits;
    Plane index;
    const auto store = [&](std::array<std::uint8_t, 16> bptc::Choice::*member) {
        for (std::size_t i = 0; i < 16; ++i)
            for (std::size_t lane = 0; lane < lanes; ++lane) (choices[lane]->*member)[i] = static_cast<std::uint8_t>(index.v[i][lane]);
    };
    if (separate || !alpha_bits) nearest_indices<0, 3, weighted>(texel, subset_of, ends, mode.subsets, first_bits, index);
    else nearest_indices<0, 4, weighted>(texel, subset_of, ends, mode.subsets, first_bits, index);
    store(&bptc::Choice::color_index);
    if (!separate) return;
    nearest_indices<3, 4, weighted>(texel, subset_of, ends, mode.subsets, second_bits, index);
    store(&bptc::Choice::alpha_index);
}

/// Sorts the blocks by mode and gives each its indices.
void choose_all_indices(const Texel* blocks, std::span<bptc::Choice> choices, const EncodeOptions& options) {
    std::array<std::vector<std::uint32_t>, 9> queues;  // mode 4 with its other selector last
    for (std::uint32_t b = 0; b < choices.size(); ++b) queues[choices[b].selector ? 8 : choices[b].mode].push_back(b);
    const std::size_t n = hn::Lanes(DF());
    for (const auto& queue : queues)
        for (std::size_t first = 0; first < queue.size(); first += n) {
            const auto lanes = std::min(n, queue.size() - first);
            std::array<bptc::Choice*, max_lanes> group{};
            std::array<Texel, 16 * max_lanes> texels;
            Texels texel;
            Plane subset_of;
            std::array<Plane, 4> keep;
            bool opaque = true;
            std::array<bool, max_lanes> solid;
            for (std::size_t lane = 0; lane < n; ++lane) {
                const auto b = queue[first + std::min(lane, lanes - 1)];
                auto& choice = choices[b];
                if (lane < lanes) group[lane] = &choice;
                const auto& mode = bptc::modes[choice.mode];
                auto* mine = texels.data() + lane * 16;
                std::copy_n(blocks + std::size_t{b} * 16, 16, mine);
                solid[lane] = std::all_of(mine, mine + 16, [](const Texel& t) { return t[3] == 255; });
                opaque = opaque && solid[lane];
                for (std::size_t i = 0; i < 16; ++i) {
                    subset_of.v[i][lane] = mode.subsets == 2   ? bptc::partitions2[choice.partition][i]
                                           : mode.subsets == 3 ? bptc::partitions3[choice.partition][i]
                                                               : 0;
                }
            }
            load_shares(texels.data(), options, texel);
            for (std::size_t lane = 0; lane < n; ++lane) {
                const auto rotation = group[std::min(lane, lanes - 1)]->rotation;
                for (std::size_t i = 0; i < 16 && rotation; ++i) {
                    std::swap(texels[lane * 16 + i][3], texels[lane * 16 + i][rotation - 1]);
                    if (texel.weighted) std::swap(texel.share[3].v[i][lane], texel.share[rotation - 1].v[i][lane]);
                }
            }
            load_channels(texels.data(), texel.value);
            if (!opaque) {
                for (std::size_t c = 0; c < 4; ++c) texel.keep[c] = &keep[c];
                for (std::size_t lane = 0; lane < n; ++lane) {
                    const auto& choice = *group[std::min(lane, lanes - 1)];
                    for (std::size_t i = 0; i < 16; ++i)
                        for (std::size_t c = 0; c < 4; ++c) {
                            const auto value = texels[lane * 16 + i][c];
                            const bool alpha = c == (choice.rotation ? choice.rotation - 1 : 3);
                            // Opaque blocks keep it by their codes.
                            keep[c].v[i][lane] = alpha && !solid[lane] && (value == 0 || value == 255) ? lost_alpha : 0.0f;
                        }
                }
            }
            if (texel.weighted) choose_indices<true>(texel, subset_of, group, lanes);
            else choose_indices<false>(texel, subset_of, group, lanes);
        }
}

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif

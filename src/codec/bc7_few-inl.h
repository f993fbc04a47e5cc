// Included once for each SIMD target by bc7_encode.cpp (see lanes-inl.h).
// Blocks of few colors, as flat art, masks and gentle gradients have them. A photograph forgives a line that is nearly right; here a code
// off by one is off for half the block, and exact values can mostly be had. So the search is over where on the line of indices the
// colors lie: every first and last index in turn, endpoints solved for it (they may reach past the colors, which makes finer steps), every
// pair of p-bits, and for every channel the four pairs of codes around the solution by the decoder's rounding. It runs over the distinct
// colors instead of the texels.
#if defined(SKIVET_BC7_FEW_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef SKIVET_BC7_FEW_INL_H
#undef SKIVET_BC7_FEW_INL_H
#else
#define SKIVET_BC7_FEW_INL_H
#endif

#include "codec/bc7_modes-inl.h"
#include "codec/weights.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

constexpr std::size_t max_few = 8;

/// How many colors a block has; max_few + 1 where they are more than `most_colors`.
std::size_t colors_of(const Texel* texel, std::size_t most_colors) {
    std::array<Texel, max_few> color;
    std::size_t count = 0;
    for (std::size_t i = 0; i < 16; ++i) {
        std::size_t k = 0;
        while (k < count && color[k] != texel[i]) ++k;
        if (k < count) continue;
        if (count == most_colors) return max_few + 1;
        color[count++] = texel[i];
    }
    return count;
}

struct Few {
    Texels texel;           ///< the distinct colors, max_few of them, the unused ones 0
    Plane number;           ///< of each texel, its color's
    std::size_t count = 0;  ///< the most colors of any lane that has few
    VF dense;               ///< 0 where the colors are few, else `huge`
    Plane keep;             ///< what texel.keep points to
    /// Called once it lies where it stays.
    void keep_alpha(bool exacting) {
        texel.exacting = exacting;
        if (!exacting) return;
        for (std::size_t k = 0; k < 16; ++k) {
            const auto alpha = get(texel[3], k);
            put(keep, k, select(hn::Or(hn::Ge(alpha, set(255)), hn::Le(alpha, zero())), set(lost_alpha), zero()));
        }
        texel.keep[3] = &keep;
    }
};

/// Texels of each color in a subset; `member` is 1 for its texels.
HWY_INLINE void count_colors(const Few& few, const Plane& member, Plane& weight) {
    for (std::size_t k = 0; k < 16; ++k) put(weight, k, zero());
    for (std::size_t k = 0; k < few.count; ++k) {
        VF sum = zero();
        const auto number = set(static_cast<float>(k));
        for (std::size_t i = 0; i < 16; ++i) sum = hn::Add(sum, select(hn::Eq(get(few.number, i), number), get(member, i), zero()));
        put(weight, k, sum);
    }
}

Few few_colors(const Texel* texels, const EncodeOptions& options) {
    Few out;
    alignas(64) float dense[max_lanes];
    out.texel.weighted = counts_by_channel(options);
    out.texel.opaque = out.texel.clear = zero();
    for (std::size_t c = 0; c < 4; ++c)
        for (std::size_t k = 0; k < 16; ++k) put(out.texel.value[c], k, zero()), put(out.texel.share[c], k, zero());
    for (std::size_t lane = 0; lane < hn::Lanes(DF()); ++lane) {
        const Texel* texel = texels + lane * 16;
        std::array<Texel, max_few> color;
        std::size_t count = 0;
        bool few = true;
        for (std::size_t i = 0; i < 16 && few; ++i) {
            std::size_t k = 0;
            while (k < count && color[k] != texel[i]) ++k;
            if (k == count) {
                if (count == max_few) {
                    few = false;
                    break;
                }
                color[count++] = texel[i];
            }
            out.number.v[i][lane] = static_cast<float>(k);
        }
        dense[lane] = few ? 0.0f : huge;
        if (!few) {
            for (std::size_t i = 0; i < 16; ++i) out.number.v[i][lane] = max_few;
            continue;
        }
        out.count = std::max(out.count, count);
        for (std::size_t k = 0; k < count; ++k)
            for (std::size_t c = 0; c < 4; ++c) {
                out.texel[c].v[k][lane] = color[k][c];
                if (out.texel.weighted) out.texel.share[c].v[k][lane] = channel_weights(options, color[k])[c];
            }
    }
    out.dense = hn::Load(DF(), dense);
    return out;
}

/// The codes below and above one endpoint, and their values times the endpoint's share of each color.
struct Around {
    std::array<VF, 2> code;
    std::array<std::array<VF, max_few>, 2> value;
};

/// The best line of one subset with an error below `limit`, where there is none the error is `limit`; `spread` are the ends of its colors,
/// `step` leaves out first indices (1: none).
template <int channels>
HWY_NOINLINE Fitted solve_few(const Few& few, const Plane& weight, const Spec& spec, const Ends& spread, unsigned step, Parity parity,
                              VF limit) {
    const std::size_t n = few.count;
    const unsigned top = (1u << spec.index_bits) - 1;
    const auto weight_step = set(64.0f / static_cast<float>(top));
    const bool weighted = few.texel.weighted;
    std::array<VF, max_few> along, share;
    std::array<std::array<VF, max_few>, channels> w;
    V4 d;
    for (std::size_t c = 0; c < channels; ++c) d[c] = hn::Sub(spread.b[c], spread.a[c]);
    const auto size = dot<channels>(d, d);
    const auto per = select(hn::Gt(size, zero()), hn::Div(set(1), most(size, set(1e-6f))), zero());
    for (std::size_t k = 0; k < n; ++k) {
        V4 from;
        for (std::size_t c = 0; c < channels; ++c) from[c] = hn::Sub(get(few.texel[c], k), spread.a[c]);
        along[k] = clamp(hn::Mul(dot<channels>(from, d), per), 0, 1);
        for (std::size_t c = 0; c < channels; ++c)
            w[c][k] = weighted ? hn::Mul(get(weight, k), get(few.texel.share[c], k)) : get(weight, k);
    }
    Fitted best;
    best.error = limit;
    best.code.a = best.code.b = {zero(), zero(), zero(), zero()};
    const DF df;
    for (unsigned low = 0; low < top; low += step)
        for (unsigned high = low + 1; high <= top; ++high) {
            if (hn::AllFalse(df, hn::Gt(best.error, zero()))) return best;
            for (std::size_t k = 0; k < n; ++k) {
                const auto index =
                    hn::Floor(hn::Add(hn::Mul(along[k], set(static_cast<float>(high - low))), set(static_cast<float>(low) + 0.5f)));
                const auto t = hn::Mul(hn::Floor(hn::Add(hn::Mul(index, weight_step), set(0.5f))), set(1.0f / 64));
                share[k] = t;
            }
            Ends ends;
            VF aa, ab, bb, inverse;
            MF sound;
            for (std::size_t c = 0; c < channels; ++c) {
                if (c == 0 || weighted) {  // otherwise all channels have the same
                    aa = ab = bb = zero();
                    for (std::size_t k = 0; k < n; ++k) {
                        const auto t = share[k], s = hn::Sub(set(1), t), wt = hn::Mul(w[c][k], t), ws = hn::Mul(w[c][k], s);
                        aa = hn::Add(aa, hn::Mul(ws, s));
                        ab = hn::Add(ab, hn::Mul(ws, t));
                        bb = hn::Add(bb, hn::Mul(wt, t));
                    }
                    const auto det = hn::Sub(hn::Mul(aa, bb), hn::Mul(ab, ab));
                    sound = hn::Gt(det, set(1e-4f));
                    inverse = hn::Div(set(1), select(sound, det, set(1)));
                }
                VF ax = zero(), bx = zero();
                for (std::size_t k = 0; k < n; ++k) {
                    const auto wx = hn::Mul(w[c][k], get(few.texel[c], k));
                    bx = hn::Add(bx, hn::Mul(wx, share[k]));
                    ax = hn::Add(ax, hn::Mul(wx, hn::Sub(set(1), share[k])));
                }
                ends.a[c] = select(sound, clamp(hn::Mul(hn::Sub(hn::Mul(ax, bb), hn::Mul(bx, ab)), inverse), 0, 255), spread.a[c]);
                ends.b[c] = select(sound, clamp(hn::Mul(hn::Sub(hn::Mul(bx, aa), hn::Mul(ax, ab)), inverse), 0, 255), spread.b[c]);
            }
            each_pair(spec, parity, [&](int pa, int pb) {
                VF error = zero();
                Ends code;
                code.a = code.b = {zero(), zero(), zero(), zero()};
                for (std::size_t c = 0; c < channels; ++c) {
                    const unsigned depth = c == 3 ? spec.alpha_bits : spec.color_bits;
                    const auto around = [&](VF middle, int p, bool second) {
                        Around out;
                        const float least_code = p > 0 ? 1 : 0, step_code = p < 0 ? 1 : 2,
                                    last = static_cast<float>((1u << depth) - (p == 0 ? 2 : 1));
                        const auto scaled =
                            hn::Mul(hn::Sub(hn::Mul(middle, set(static_cast<float>((1u << depth) - 1) / 255)), set(least_code)),
                                    set(1 / step_code));
                        const auto below = hn::Add(hn::Mul(hn::Floor(scaled), set(step_code)), set(least_code));
                        for (std::size_t m = 0; m < 2; ++m) {
                            out.code[m] = clamp(hn::Add(below, set(step_code * static_cast<float>(m))), least_code, last);
                            const auto value = expand(out.code[m], depth);
                            for (std::size_t k = 0; k < n; ++k)
                                out.value[m][k] =
                                    second ? hn::Mul(value, share[k]) : hn::Add(hn::Mul(value, hn::Sub(set(1), share[k])), set(0.5f));
                        }
                        return out;
                    };
                    const auto a = around(ends.a[c], pa, false), b = around(ends.b[c], pb, true);
                    VF least_error = set(huge);
                    code.a[c] = code.b[c] = zero();
                    for (std::size_t i = 0; i < 2; ++i)
                        for (std::size_t j = 0; j < 2; ++j) {
                            VF sum = zero();
                            for (std::size_t k = 0; k < n; ++k) {
                                const auto off = hn::Sub(hn::Floor(hn::Add(a.value[i][k], b.value[j][k])), get(few.texel[c], k));
                                sum = hn::Add(sum, hn::Mul(w[c][k], hn::Mul(off, off)));
                                if (few.texel.keep[c])
                                    sum = hn::Add(sum,
                                                  hn::Mul(get(weight, k), select(hn::Eq(off, zero()), zero(), get(*few.texel.keep[c], k))));
                            }
                            const auto better = hn::Lt(sum, least_error);
                            least_error = select(better, sum, least_error);
                            code.a[c] = select(better, a.code[i], code.a[c]);
                            code.b[c] = select(better, b.code[j], code.b[c]);
                        }
                    error = hn::Add(error, least_error);
                    if (hn::AllFalse(df, hn::Lt(error, best.error))) break;
                }
                keep_better(best, error, code);
            });
        }
    return best;
}

/// Modes 4, 5 and 6 for blocks of few colors.
HWY_NOINLINE void try_few_whole(const Few& few, Best& best, VF opaque, unsigned step) {
    const DF df;
    const auto opaque_only = select(hn::Gt(opaque, zero()), zero(), set(huge)),
               clear_only = select(hn::Gt(opaque, zero()), set(huge), zero());
    Plane all, weight;
    for (std::size_t i = 0; i < 16; ++i) put(all, i, set(1));
    count_colors(few, all, weight);
    const auto hopeless = [&] { return hn::AllFalse(df, hn::And(hn::Gt(best.error, zero()), hn::Eq(few.dense, zero()))); };
    std::array<Ends, 3> code;
    for (unsigned rotation = 0; rotation < 4; ++rotation) {
        if (hopeless()) return;
        auto turned = few;
        if (rotation) turned.texel.swap_channels(3, rotation - 1);
        auto alone = turned;
        alone.texel.swap_channels(0, 3);
        const auto color = spread_of<3>(turned.texel, weight);
        VF low = set(255), high = zero();
        for (std::size_t k = 0; k < few.count; ++k) {
            const auto there = hn::Gt(get(weight, k), zero());
            low = least(low, select(there, get(alone.texel[0], k), set(255)));
            high = most(high, select(there, get(alone.texel[0], k), zero()));
        }
        const Ends scalar = {{low, zero(), zero(), zero()}, {high, zero(), zero(), zero()}};
        const auto run = [&](unsigned mode, unsigned color_bits, unsigned alpha_bits, unsigned color_index, unsigned alpha_index,
                             float selector) {
            // The single channel first: it is cheap and tells whether the others are worth it.
            const auto a = solve_few<1>(alone, weight, {mode, alpha_bits, 0, PBits::none, alpha_index}, scalar, 1, Parity::any, best.error);
            if (hn::AllFalse(df, hn::Lt(a.error, best.error))) return;
            const auto rgb = solve_few<3>(turned, weight, {mode, color_bits, 0, PBits::none, color_index}, color, 1, Parity::any,
                                          most(hn::Sub(best.error, a.error), zero()));
            code[0] = rgb.code;
            code[0].a[3] = a.code.a[0];
            code[0].b[3] = a.code.b[0];
            offer(best, hn::Add(rgb.error, a.error), mode, zero(), static_cast<float>(rotation) + 4 * selector, code, 1);
        };
        run(5, 7, 8, 2, 2, 0);
        run(4, 5, 6, 2, 3, 0);
        run(4, 5, 6, 3, 2, 1);
    }
    if (hopeless()) return;
    const auto spread = spread_of<4>(few.texel, weight);
    if (!hn::AllFalse(df, hn::And(hn::Eq(opaque_only, zero()), hn::Eq(few.dense, zero())))) {
        auto fitted = solve_few<3>(few, weight, mode6, spread, step, Parity::odd, best.error);
        fitted.code.a[3] = fitted.code.b[3] = set(255);
        code[0] = fitted.code;
        offer(best, hn::Add(hn::Add(fitted.error, few.dense), opaque_only), 6, zero(), 0, code, 1);
    }
    if (!hn::AllFalse(df, hn::And(hn::Eq(clear_only, zero()), hn::Eq(few.dense, zero())))) {
        const auto fitted = solve_few<4>(few, weight, mode6, spread, step, Parity::any, best.error);
        code[0] = fitted.code;
        offer(best, hn::Add(hn::Add(fitted.error, few.dense), clear_only), 6, zero(), 0, code, 1);
    }
}

/// Modes of two subsets for blocks of few colors.
template <int channels>
HWY_NOINLINE void try_few_partition(const Few& few, Best& best, VF partition, std::initializer_list<Spec> specs) {
    const DF df;
    std::array<Plane, 2> weight;
    std::array<Ends, 2> ends;
    if (hn::AllFalse(df, hn::Lt(few.dense, best.error))) return;
    for (std::size_t s = 0; s < 2; ++s) {
        Plane member;
        members(partition, s, member);
        count_colors(few, member, weight[s]);
        ends[s] = spread_of<channels>(few.texel, weight[s]);
    }
    for (const auto& spec : specs) {
        std::array<Ends, 3> code;
        VF error = few.dense;
        for (std::size_t s = 0; s < 2; ++s) {
            if (hn::AllFalse(df, hn::Lt(error, best.error))) break;
            const auto fitted =
                solve_few<channels>(few, weight[s], spec, ends[s], 1, Parity::any, most(hn::Sub(best.error, error), zero()));
            error = hn::Add(error, fitted.error);
            code[s] = fitted.code;
            for (std::size_t c = channels; c < 4; ++c) code[s].a[c] = code[s].b[c] = zero();
            if (s == 1) offer(best, error, spec.mode, partition, 0, code, 2);
        }
    }
}

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif

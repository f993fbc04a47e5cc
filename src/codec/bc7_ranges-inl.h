// Included once for each SIMD target by bc7_encode.cpp (see lanes-inl.h).
// Fitting one subset's line by where its first and last color lie on the line of indices.
//
// Endpoints at the ends of the spread use all indices, but are seldom the best: quantized colors lie between the steps, and endpoints that
// reach past them move the steps. Each first and last index is a start of its own. What it leaves along the axis follows from sums of one
// number a texel (linear regression of the place on the axis on the index), so all are ranked without quantizing any; only the best are
// followed: endpoints by least squares, codes by the quadratic form that is left around them, for each pair of p-bits.
#if defined(SKIVET_BC7_RANGES_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef SKIVET_BC7_RANGES_INL_H
#undef SKIVET_BC7_RANGES_INL_H
#else
#define SKIVET_BC7_RANGES_INL_H
#endif

#include "codec/bc7_lines-inl.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

constexpr unsigned most_starts = 16;

/// How far one line is searched for.
struct LineSearch {
    unsigned starts = 1;  ///< of the ranges the best so many, at most most_starts
    int rounds = 1;       ///< indices and endpoints solved again
    unsigned reach = 3;   ///< the first index is at most this, the last at least this far from the end
};

/// For indices that are held: least squares of channel c has aa a + ab b = ax, ab a + bb b = bx. Without weights by channel the first three
/// are the same for all, and only [0] is there.
struct Sums {
    V4 aa, ab, bb, ax, bx;
};

template <int channels, bool weighted>
HWY_INLINE void add_texel(const Texels& texel, VF w, std::size_t i, VF t, Sums& sums) {
    const auto s = hn::Sub(set(1), t);
    for (std::size_t c = 0; c < channels; ++c) {
        const auto share = weighted ? hn::Mul(w, get(texel.share[c], i)) : w;
        const auto ws = hn::Mul(share, s), wt = hn::Mul(share, t), x = get(texel[c], i);
        if (c == 0 || weighted) {
            sums.aa[c] = hn::Add(sums.aa[c], hn::Mul(ws, s));
            sums.ab[c] = hn::Add(sums.ab[c], hn::Mul(ws, t));
            sums.bb[c] = hn::Add(sums.bb[c], hn::Mul(wt, t));
        }
        sums.ax[c] = hn::Add(sums.ax[c], hn::Mul(ws, x));
        sums.bx[c] = hn::Add(sums.bx[c], hn::Mul(wt, x));
    }
}

HWY_INLINE void clear(Sums& sums) {
    for (auto* of : {&sums.aa, &sums.ab, &sums.bb, &sums.ax, &sums.bx}) of->fill(zero());
}

/// The decoder's share of the second endpoint, from an index.
HWY_INLINE VF share_of(VF index, VF weight_step) {
    return hn::Mul(hn::Floor(hn::Add(hn::Mul(index, weight_step), set(0.5f))), set(1.0f / 64));
}

/// The error with each texel at its nearest index, by projection and the decoder's rounding, and the sums for those indices.
template <int channels, bool weighted, bool exact>
HWY_NOINLINE VF project(const Texels& texel, const Plane& weight, const Ends& value, VF top, Sums& sums) {
    clear(sums);
    V4 d;
    for (std::size_t c = 0; c < channels; ++c) d[c] = hn::Sub(value.b[c], value.a[c]);
    const auto size = dot<channels>(d, d);
    const auto per = select(hn::Gt(size, zero()), hn::Div(top, most(size, set(1e-6f))), zero());
    const auto weight_step = hn::Div(set(64), top);
    VF sum = zero();
    for (std::size_t i = 0; i < 16; ++i) {
        VF along = zero(), length = zero();
        for (std::size_t c = 0; c < channels; ++c) {
            const auto from = hn::Mul(hn::Sub(get(texel[c], i), value.a[c]), d[c]);
            along = hn::Add(along, weighted ? hn::Mul(from, get(texel.share[c], i)) : from);
            if (weighted) length = hn::Add(length, hn::Mul(get(texel.share[c], i), hn::Mul(d[c], d[c])));
        }
        const auto step = weighted ? select(hn::Gt(length, zero()), hn::Div(top, most(length, set(1e-6f))), zero()) : per;
        auto index = hn::Floor(hn::Add(least(most(hn::Mul(along, step), zero()), top), set(0.5f)));
        if constexpr (exact) index = kept_index<channels>(texel, value, i, top, index);
        const auto t = share_of(index, weight_step), w = get(weight, i);
        VF error = zero();
        for (std::size_t c = 0; c < channels; ++c) {
            const auto off = hn::Sub(hn::Floor(hn::Add(hn::Mul(t, d[c]), hn::Add(value.a[c], set(0.5f)))), get(texel[c], i));
            const auto squared = hn::Mul(off, off);
            error = hn::Add(error, weighted ? hn::Mul(squared, get(texel.share[c], i)) : squared);
            if constexpr (exact)
                if (texel.keep[c]) error = hn::Add(error, select(hn::Eq(off, zero()), zero(), get(*texel.keep[c], i)));
        }
        sum = hn::Add(sum, hn::Mul(w, error));
        add_texel<channels, weighted>(texel, w, i, t, sums);
    }
    return sum;
}

/// What the ends of a line must be in a channel that is alpha, for its lower and its higher end: 0 or 255 where a texel's alpha must stay
/// that, -1 where the end is free.
struct Held {
    bool any = false;
    VF low, high;
};

template <int channels>
HWY_INLINE Held held_of(const Texels& texel, std::size_t c, const Plane& weight) {
    Held out;
    out.low = out.high = set(-1);
    out.any = texel.keep[c] != nullptr;
    if (!out.any) return out;
    VF low = set(255), high = zero(), from_zero = zero(), from_full = zero(), square = zero();
    V4 sum = {zero(), zero(), zero(), zero()}, kept = sum;
    for (std::size_t i = 0; i < 16; ++i) {
        const auto w = get(weight, i), x = get(texel[c], i), off = hn::Sub(set(255), x);
        const auto mine = hn::Gt(w, zero());
        low = least(low, select(mine, x, set(255)));
        high = most(high, select(mine, x, zero()));
        from_zero = hn::Add(from_zero, hn::Mul(w, hn::Mul(x, x)));
        from_full = hn::Add(from_full, hn::Mul(w, hn::Mul(off, off)));
        const auto k = select(hn::Gt(get(*texel.keep[c], i), zero()), w, zero());
        for (std::size_t other = 0; other < channels; ++other) {
            if (other == c) continue;
            const auto counts = texel.weighted ? hn::Mul(k, hn::Mul(get(texel.share[other], i), set(1.0f / 32))) : k;
            const auto y = hn::Mul(counts, get(texel[other], i));
            kept[other] = hn::Add(kept[other], counts);
            sum[other] = hn::Add(sum[other], y);
            square = hn::Add(square, hn::Mul(y, get(texel[other], i)));
        }
    }
    const auto ends = [](VF x, VF first, VF second) { return select(hn::Eq(x, first), first, select(hn::Eq(x, second), second, set(-1))); };
    out.low = ends(low, zero(), set(255));
    out.high = ends(high, set(255), zero());
    // Texels that must stay all take one end, and so one color. Where other alpha is near, all of it becomes theirs rather than that.
    for (std::size_t other = 0; other < channels; ++other)
        square = hn::Sub(square, hn::Div(hn::Mul(sum[other], sum[other]), most(kept[other], set(1.0f / 64))));
    const auto to_zero = hn::And(hn::Eq(out.low, zero()), hn::And(hn::Lt(out.high, zero()), hn::Lt(from_zero, square)));
    const auto to_full = hn::And(hn::Eq(out.high, set(255)), hn::And(hn::Lt(out.low, zero()), hn::Lt(from_full, square)));
    out.low = select(to_full, set(255), out.low);
    out.high = select(to_zero, zero(), out.high);
    return out;
}

/// Codes for the sums: what an endpoint off by da and db adds is aa da² + 2 ab da db + bb db². For each pair of p-bits both codes around
/// the first endpoint, and the second that goes best with it; ends that are held are not
/// looked for. `otherwise`: the endpoints where all texels have one index.
template <int channels, bool weighted, bool exact>
HWY_NOINLINE Quantized codes_for(const Spec& spec, Parity parity, const Sums& sums, const V4& otherwise, const std::array<Held, 4>& held) {
    Quantized best;  // any pair is better than none: what it begins with is never left
    for (auto* of : {&best.code.a, &best.code.b, &best.value.a, &best.value.b}) of->fill(zero());
    VF least_error = set(huge);
    Ends solved;
    V4 lean;  // how much b gives way for each step of a
    Ends must;
    for (std::size_t c = 0; c < channels; ++c) {
        const std::size_t k = weighted ? c : 0;
        const auto det = hn::Sub(hn::Mul(sums.aa[k], sums.bb[k]), hn::Mul(sums.ab[k], sums.ab[k]));
        const auto sound = hn::Gt(det, set(1e-3f));
        const auto inverse = hn::Div(set(1), select(sound, det, set(1)));
        const auto a = hn::Mul(hn::Sub(hn::Mul(sums.ax[c], sums.bb[k]), hn::Mul(sums.bx[c], sums.ab[k])), inverse);
        const auto b = hn::Mul(hn::Sub(hn::Mul(sums.bx[c], sums.aa[k]), hn::Mul(sums.ax[c], sums.ab[k])), inverse);
        solved.a[c] = select(sound, a, otherwise[c]);
        solved.b[c] = select(sound, b, otherwise[c]);
        lean[c] = hn::Div(sums.ab[k], most(sums.bb[k], set(1e-3f)));
        if constexpr (exact) {
            if (!held[c].any) continue;
            const auto rising = hn::Le(solved.a[c], solved.b[c]);
            must.a[c] = select(rising, held[c].low, held[c].high);
            must.b[c] = select(rising, held[c].high, held[c].low);
            const auto a_held = hn::Ge(must.a[c], zero()), b_held = hn::Ge(must.b[c], zero());
            // The other end alone, where one is held.
            const auto alone = [&](VF x, VF own, VF of_other, VF otherwise_here) {
                const auto free = hn::Div(hn::Sub(x, hn::Mul(sums.ab[k], of_other)), most(own, set(1e-3f)));
                return select(hn::Gt(own, set(1e-3f)), free, otherwise_here);
            };
            const auto a_alone = alone(sums.ax[c], sums.aa[k], must.b[c], solved.a[c]),
                       b_alone = alone(sums.bx[c], sums.bb[k], must.a[c], solved.b[c]);
            solved.a[c] = select(a_held, must.a[c], select(b_held, a_alone, solved.a[c]));
            solved.b[c] = select(b_held, must.b[c], select(a_held, b_alone, solved.b[c]));
            lean[c] = select(hn::Or(a_held, b_held), zero(), lean[c]);
        }
    }
    each_pair(spec, parity, [&](int pa, int pb) {
        VF error = zero();
        auto q = best;
        for (std::size_t c = 0; c < channels; ++c) {
            const std::size_t k = weighted ? c : 0;
            const unsigned depth = c == 3 ? spec.alpha_bits : spec.color_bits;
            const float step = pa < 0 ? 1 : 2, first = pa > 0 ? 1 : 0, last = static_cast<float>((1u << depth) - (pa == 0 ? 2 : 1));
            const auto scaled = hn::Mul(
                hn::Sub(hn::Mul(clamp(solved.a[c], 0, 255), set(static_cast<float>((1u << depth) - 1) / 255)), set(first)), set(1 / step));
            const auto below = hn::Add(hn::Mul(hn::Floor(scaled), set(step)), set(first));
            VF least_here = set(huge);
            for (const float up : {0.0f, step}) {
                const auto code_a = clamp(hn::Add(below, set(up)), first, last), value_a = expand(code_a, depth);
                const auto da = hn::Sub(value_a, solved.a[c]);
                const auto code_b = nearest_code(hn::Sub(solved.b[c], hn::Mul(lean[c], da)), depth, pb), value_b = expand(code_b, depth);
                const auto db = hn::Sub(value_b, solved.b[c]);
                auto adds = hn::Add(hn::Mul(hn::Mul(sums.aa[k], da), da),
                                    hn::Mul(db, hn::Add(hn::Mul(hn::Mul(set(2), sums.ab[k]), da), hn::Mul(sums.bb[k], db))));
                if constexpr (exact) {
                    if (held[c].any) {
                        const auto lost = [&](VF is, VF must_be) {
                            return select(hn::Or(hn::Lt(must_be, zero()), hn::Eq(is, must_be)), zero(), set(lost_alpha));
                        };
                        adds = hn::Add(adds, hn::Add(lost(value_a, must.a[c]), lost(value_b, must.b[c])));
                    }
                }
                const auto better = hn::Lt(adds, least_here);
                least_here = select(better, adds, least_here);
                q.code.a[c] = select(better, code_a, q.code.a[c]);
                q.code.b[c] = select(better, code_b, q.code.b[c]);
                q.value.a[c] = select(better, value_a, q.value.a[c]);
                q.value.b[c] = select(better, value_b, q.value.b[c]);
            }
            error = hn::Add(error, least_here);
        }
        const auto better = hn::Lt(error, least_error);
        least_error = select(better, error, least_error);
        for (std::size_t c = 0; c < channels; ++c) {
            best.code.a[c] = select(better, q.code.a[c], best.code.a[c]);
            best.code.b[c] = select(better, q.code.b[c], best.code.b[c]);
            best.value.a[c] = select(better, q.value.a[c], best.value.a[c]);
            best.value.b[c] = select(better, q.value.b[c], best.value.b[c]);
        }
    });
    for (std::size_t c = channels; c < 4; ++c) best.code.a[c] = best.code.b[c] = zero(), best.value.a[c] = best.value.b[c] = set(255);
    return best;
}

/// What a code off by a fraction of a step costs in one channel at one endpoint: step² / 12, less for the choice of p-bits.
HWY_INLINE float noise_of(const Spec& spec) {
    const float step = (spec.p_bits == PBits::none ? 255.0f : 510.0f) / static_cast<float>((1u << spec.color_bits) - 1);
    return step * step * (spec.p_bits == PBits::own ? 0.05f : spec.p_bits == PBits::shared ? 0.06f : 0.083f);
}

/// The best line of one subset that was found. `weight`: 1 for its texels, otherwise 0; of one channel all texels. `exact`: alpha of 0 and
/// 255 stays that.
template <int channels, bool weighted, bool exact>
HWY_NOINLINE Fitted fit_ranges(const Texels& texel, const Plane& weight, const Spec& spec, Parity parity, const LineSearch& search) {
    Ends spread;
    if constexpr (channels == 1) {
        spread.a[0] = set(255), spread.b[0] = zero();
        for (std::size_t i = 0; i < 16; ++i) {
            spread.a[0] = least(spread.a[0], get(texel[0], i));
            spread.b[0] = most(spread.b[0], get(texel[0], i));
        }
    } else {
        spread = spread_of<channels>(texel, weight);
    }
    V4 d, mean;
    for (std::size_t c = 0; c < channels; ++c) d[c] = hn::Sub(spread.b[c], spread.a[c]), mean[c] = zero();
    const auto size = dot<channels>(d, d);
    const auto per = select(hn::Gt(size, set(1e-6f)), hn::Div(set(1), most(size, set(1e-6f))), zero());
    Plane along, counted;  // place on the axis, 0 to 1; the same times the weight
    VF count = zero(), sum = zero();
    Plane counts = weight;
    if (weighted)
        for (std::size_t i = 0; i < 16; ++i) {
            VF share = zero();
            for (std::size_t c = 0; c < channels; ++c) share = hn::Add(share, get(texel.share[c], i));
            put(counts, i, hn::Mul(get(weight, i), hn::Mul(share, set(1.0f / (32 * channels)))));
        }
    for (std::size_t i = 0; i < 16; ++i) {
        V4 from;
        const auto w = get(counts, i);
        for (std::size_t c = 0; c < channels; ++c) {
            from[c] = hn::Sub(get(texel[c], i), spread.a[c]);
            mean[c] = hn::Add(mean[c], hn::Mul(w, get(texel[c], i)));
        }
        const auto y = clamp(hn::Mul(dot<channels>(from, d), per), 0, 1);
        put(along, i, y);
        put(counted, i, hn::Mul(w, y));
        count = hn::Add(count, w);
        sum = hn::Add(sum, hn::Mul(w, y));
    }
    const auto inverse = hn::Div(set(1), most(count, set(1.0f / 64)));
    for (std::size_t c = 0; c < channels; ++c) mean[c] = hn::Mul(mean[c], inverse);
    std::array<Held, 4> held;
    Plane at_end;  // 0 or 1 where a texel must take that end, otherwise -1
    if constexpr (exact) {
        for (std::size_t i = 0; i < 16; ++i) put(at_end, i, set(-1));
        for (std::size_t c = 0; c < channels; ++c) {
            held[c] = held_of<channels>(texel, c, weight);
            if (!held[c].any) continue;
            const auto rising = hn::Ge(d[c], zero()), varies = hn::Ne(held[c].low, held[c].high);
            for (std::size_t i = 0; i < 16; ++i) {
                const auto x = get(texel[c], i), kept = get(*texel.keep[c], i);
                const auto end = select(hn::Xor(hn::Gt(x, zero()), rising), zero(), set(1));
                put(at_end, i, select(hn::And(varies, hn::Gt(kept, zero())), end, get(at_end, i)));
            }
        }
    }
    const unsigned top = (1u << spec.index_bits) - 1;
    const auto tops = set(static_cast<float>(top)), weight_step = set(64.0f / static_cast<float>(top));
    const auto index_at = [&](std::size_t i, VF wide, VF start) {
        const auto index = hn::Floor(hn::Add(hn::Mul(get(along, i), wide), start));
        if constexpr (!exact) return index;
        else return select(hn::Ge(get(at_end, i), zero()), hn::Mul(get(at_end, i), tops), index);
    };
    const auto noise = set(noise_of(spec) * static_cast<float>(channels));
    // How far each end can reach past the colors, in lengths of the spread, before a channel leaves 0 to 255.
    VF room_a = set(huge), room_b = set(huge);
    for (std::size_t c = 0; c < channels; ++c) {
        const auto length = hn::Abs(d[c]), inverse_length = hn::Div(set(1), most(length, set(1e-3f)));
        const auto rising = hn::Gt(d[c], zero());
        const auto below = select(rising, spread.a[c], hn::Sub(set(255), spread.a[c]));
        const auto above = select(rising, hn::Sub(set(255), spread.b[c]), spread.b[c]);
        room_a = least(room_a, hn::Mul(below, inverse_length));
        room_b = least(room_b, hn::Mul(above, inverse_length));
    }
    std::array<VF, most_starts> score, low, high;
    for (unsigned m = 0; m < search.starts; ++m) score[m] = set(huge), low[m] = zero(), high[m] = set(static_cast<float>(top));
    for (unsigned l = 0; l < top && l <= search.reach; ++l)
        for (unsigned h = std::max(l + 1, top - std::min(top, search.reach)); h <= top; ++h) {
            const auto wide = set(static_cast<float>(h - l)), start = set(static_cast<float>(l) + 0.5f);
            VF k = zero(), kk = zero(), ky = zero();
            for (std::size_t i = 0; i < 16; ++i) {
                const auto index = index_at(i, wide, start), wk = hn::Mul(get(counts, i), index);
                k = hn::Add(k, wk);
                kk = hn::Add(kk, hn::Mul(wk, index));
                ky = hn::Add(ky, hn::Mul(index, get(counted, i)));
            }
            // Of Σ (y - mean)² the regression explains cov² / var; the rest is left. Endpoints' errors reach a texel at t by (1 - t)² + t².
            const auto cov = hn::Sub(hn::Mul(count, ky), hn::Mul(k, sum)), var = hn::Sub(hn::Mul(count, kk), hn::Mul(k, k));
            const auto explained = hn::Mul(hn::Mul(cov, cov), hn::Div(size, most(hn::Mul(var, count), set(1e-3f))));
            const float one = 1.0f / static_cast<float>(top);
            const auto of_b = hn::Mul(kk, set(one * one)), of_a = hn::Add(hn::Sub(count, hn::Mul(k, set(2 * one))), of_b);
            const float past = 1.0f / static_cast<float>(h - l);
            const auto out_a = most(hn::Sub(set(static_cast<float>(l) * past), room_a), zero()),
                       out_b = most(hn::Sub(set(static_cast<float>(top - h) * past), room_b), zero());
            const auto outside = hn::Mul(size, hn::Add(hn::Mul(of_a, hn::Mul(out_a, out_a)), hn::Mul(of_b, hn::Mul(out_b, out_b))));
            auto s = hn::Add(hn::Sub(hn::Mul(hn::Add(of_a, of_b), noise), explained), outside), from = set(static_cast<float>(l)),
                 to = set(static_cast<float>(h));
            for (unsigned m = 0; m < search.starts; ++m) {
                const auto better = hn::Lt(s, score[m]);
                const auto old_s = score[m], old_from = low[m], old_to = high[m];
                score[m] = select(better, s, old_s), low[m] = select(better, from, old_from), high[m] = select(better, to, old_to);
                s = select(better, old_s, s), from = select(better, old_from, from), to = select(better, old_to, to);
            }
        }
    Fitted best;
    for (unsigned m = 0; m < search.starts; ++m) {
        Sums sums;
        clear(sums);
        const auto wide = hn::Sub(high[m], low[m]), start = hn::Add(low[m], set(0.5f));
        for (std::size_t i = 0; i < 16; ++i) {
            add_texel<channels, weighted>(texel, get(weight, i), i, share_of(index_at(i, wide, start), weight_step), sums);
        }
        for (int round = 0; round <= search.rounds; ++round) {
            const auto q = codes_for<channels, weighted, exact>(spec, parity, sums, mean, held);
            const auto error = project<channels, weighted, exact>(texel, weight, q.value, tops, sums);
            if (m == 0 && round == 0) {
                best = {error, q.code};
                continue;
            }
            keep_better(best, error, q.code);
        }
    }
    return best;
}

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif

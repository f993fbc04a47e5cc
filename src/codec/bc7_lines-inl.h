// Included once for each SIMD target by bc7_encode.cpp (see lanes-inl.h).
// Fitting one subset of a BC7 block: its line in color space, quantized with its p-bits.
#if defined(SKIVET_BC7_LINES_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef SKIVET_BC7_LINES_INL_H
#undef SKIVET_BC7_LINES_INL_H
#else
#define SKIVET_BC7_LINES_INL_H
#endif

#include "codec/bc7_tables.h"
#include "codec/lanes-inl.h"
#include "codec/weights.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

constexpr float huge = 1e30f;
using V4 = std::array<VF, 4>;

enum class PBits { none, own, shared };
/// Which p-bits to try: all, or only 1 and 1 (mode 6, where opaque alpha needs it).
enum class Parity { any, odd };

/// One mode's precision, p-bit included.
struct Spec {
    unsigned mode, color_bits, alpha_bits;
    PBits p_bits;
    unsigned index_bits;
};

constexpr Spec mode0{0, 5, 0, PBits::own, 3}, mode1{1, 7, 0, PBits::shared, 3}, mode2{2, 5, 0, PBits::none, 2},
    mode3{3, 8, 0, PBits::own, 2}, mode6{6, 8, 8, PBits::own, 4}, mode7{7, 6, 6, PBits::own, 2};

/// What it costs that alpha of 0 or 255 does not come out as it was. More than any error of colors: a search that can keep it does, and
/// mode 5 always can.
constexpr float lost_alpha = 4e6f;

/// N blocks' texels, and what an error in each channel of each counts.
struct Texels {
    std::array<Plane, 4> value;
    std::array<Plane, 4> share;  ///< only where `weighted`
    bool weighted = false;
    /// `lost_alpha` where a texel's alpha must stay, in the channel that is alpha; nullptr for the others, and for all where no block of
    /// the group has such alpha beside other.
    std::array<const Plane*, 4> keep{};
    bool exacting = false;  ///< any of them is not null
    VF opaque, clear;       ///< 1 where all alpha is 255, 0; alpha is then exact by the choice of p-bits
    Plane& operator[](std::size_t c) { return value[c]; }
    const Plane& operator[](std::size_t c) const { return value[c]; }
    void swap_channels(std::size_t a, std::size_t b) {
        std::swap(value[a], value[b]);
        std::swap(keep[a], keep[b]);
        if (weighted) std::swap(share[a], share[b]);
    }
};

/// What an error counts, for 16 texels a lane; `weighted` says whether it is asked for.
HWY_INLINE void load_shares(const Texel* texels, const EncodeOptions& options, Texels& out) {
    out.weighted = counts_by_channel(options);
    for (std::size_t lane = 0; lane < hn::Lanes(DF()) && out.weighted; ++lane)
        for (std::size_t i = 0; i < 16; ++i) {
            const auto weights = channel_weights(options, texels[lane * 16 + i]);
            for (std::size_t c = 0; c < 4; ++c) out.share[c].v[i][lane] = weights[c];
        }
}

struct Block {
    Texels texel;
    VF opaque;   ///< 1 where all alpha is 255
    Plane keep;  ///< what texel.keep points to
};

/// N blocks, one after the other. `out` stays where it is: it points to itself.
HWY_INLINE void load_block(const Texel* texels, const EncodeOptions& options, Block& out) {
    load_channels(texels, out.texel.value);
    load_shares(texels, options, out.texel);
    auto opaque = hn::Ge(zero(), zero()), clear = opaque;
    for (std::size_t i = 0; i < 16; ++i) {
        const auto alpha = get(out.texel[3], i);
        const auto is_solid = hn::Ge(alpha, set(255)), is_clear = hn::Le(alpha, zero());
        opaque = hn::And(opaque, is_solid);
        clear = hn::And(clear, is_clear);
        put(out.keep, i, select(hn::Or(is_solid, is_clear), set(lost_alpha), zero()));
    }
    out.opaque = out.texel.opaque = select(opaque, set(1), zero());
    out.texel.clear = select(clear, set(1), zero());
    out.texel.exacting = !hn::AllTrue(DF(), opaque);
    if (out.texel.exacting) out.texel.keep[3] = &out.keep;
}

/// What was found so far, a lane a block. Codes include the p-bit.
struct Best {
    VF error, mode, partition, extra;
    std::array<V4, 6> code;
};

struct Ends {
    V4 a, b;
};

/// The texels' weights in one subset.
struct Member {
    Plane weight;
};

template <int channels>
HWY_INLINE VF dot(const V4& x, const V4& y) {
    VF sum = hn::Mul(x[0], y[0]);
    for (std::size_t c = 1; c < channels; ++c) sum = hn::Add(sum, hn::Mul(x[c], y[c]));
    return sum;
}

/// Symmetric matrix, upper triangle row by row.
template <int channels>
struct Covariance {
    std::array<VF, channels*(channels + 1) / 2> m;
};

template <int channels>
HWY_INLINE V4 times(const Covariance<channels>& k, const V4& v) {
    V4 out = {zero(), zero(), zero(), zero()};
    std::size_t at = 0;
    for (std::size_t i = 0; i < channels; ++i)
        for (std::size_t j = i; j < channels; ++j, ++at) {
            out[i] = hn::Add(out[i], hn::Mul(k.m[at], v[j]));
            if (j != i) out[j] = hn::Add(out[j], hn::Mul(k.m[at], v[i]));
        }
    return out;
}

/// Power iteration from the row with the largest diagonal.
template <int channels>
HWY_INLINE V4 axis_of(const Covariance<channels>& k, int rounds) {
    V4 v = {k.m[0], k.m[1], k.m[2], zero()};
    if constexpr (channels == 4) v[3] = k.m[3];
    VF largest = k.m[0];
    const auto try_row = [&](const V4& row, VF diagonal) {
        const auto better = hn::Gt(diagonal, largest);
        largest = select(better, diagonal, largest);
        for (std::size_t c = 0; c < channels; ++c) v[c] = select(better, row[c], v[c]);
    };
    if constexpr (channels == 3) {
        try_row({k.m[1], k.m[3], k.m[4], zero()}, k.m[3]);
        try_row({k.m[2], k.m[4], k.m[5], zero()}, k.m[5]);
    } else {
        try_row({k.m[1], k.m[4], k.m[5], k.m[6]}, k.m[4]);
        try_row({k.m[2], k.m[5], k.m[7], k.m[8]}, k.m[7]);
        try_row({k.m[3], k.m[6], k.m[8], k.m[9]}, k.m[9]);
    }
    for (int round = 0; round < rounds; ++round) {
        const auto w = times<channels>(k, v);
        VF size = hn::Abs(w[0]);
        for (std::size_t c = 1; c < channels; ++c) size = most(size, hn::Abs(w[c]));
        const auto scale = hn::Div(set(1), most(size, set(1e-20f)));
        for (std::size_t c = 0; c < channels; ++c) v[c] = hn::Mul(w[c], scale);
    }
    return v;
}

/// Endpoints at the ends of the members' spread along their principal axis.
template <int channels>
HWY_NOINLINE Ends spread_of(const Texels& texel, const Plane& member) {
    Plane weight = member;
    if (texel.weighted)
        for (std::size_t i = 0; i < 16; ++i) {
            VF sum = zero();
            for (std::size_t c = 0; c < channels; ++c) sum = hn::Add(sum, get(texel.share[c], i));
            put(weight, i, hn::Mul(get(member, i), hn::Mul(sum, set(1.0f / (32 * channels)))));
        }
    VF total = zero();
    V4 mean = {zero(), zero(), zero(), zero()};
    for (std::size_t i = 0; i < 16; ++i) {
        const auto w = get(weight, i);
        total = hn::Add(total, w);
        for (std::size_t c = 0; c < channels; ++c) mean[c] = hn::Add(mean[c], hn::Mul(w, get(texel[c], i)));
    }
    const auto inverse = hn::Div(set(1), most(total, set(1.0f / 64)));
    for (std::size_t c = 0; c < channels; ++c) mean[c] = hn::Mul(mean[c], inverse);
    Covariance<channels> k;
    k.m.fill(zero());
    for (std::size_t i = 0; i < 16; ++i) {
        const auto w = get(weight, i);
        V4 d, wd;
        for (std::size_t c = 0; c < channels; ++c) d[c] = hn::Sub(get(texel[c], i), mean[c]), wd[c] = hn::Mul(w, d[c]);
        std::size_t at = 0;
        for (std::size_t p = 0; p < channels; ++p)
            for (std::size_t q = p; q < channels; ++q, ++at) k.m[at] = hn::Add(k.m[at], hn::Mul(wd[p], d[q]));
    }
    const auto axis = axis_of<channels>(k, 4);
    VF low = zero(), high = zero();  // the mean is always inside
    for (std::size_t i = 0; i < 16; ++i) {
        V4 d;
        for (std::size_t c = 0; c < channels; ++c) d[c] = hn::Sub(get(texel[c], i), mean[c]);
        const auto t = select(hn::Gt(get(weight, i), zero()), dot<channels>(d, axis), zero());
        low = least(low, t);
        high = most(high, t);
    }
    const auto size = dot<channels>(axis, axis);
    const auto scale = select(hn::Gt(size, set(1e-12f)), hn::Div(set(1), most(size, set(1e-12f))), zero());
    Ends out;
    for (std::size_t c = 0; c < 4; ++c) {
        const auto unit = c < channels ? hn::Mul(axis[c], scale) : zero();
        const auto middle = c < channels ? mean[c] : set(255);
        out.a[c] = clamp(hn::Add(middle, hn::Mul(unit, low)), 0, 255);
        out.b[c] = clamp(hn::Add(middle, hn::Mul(unit, high)), 0, 255);
    }
    return out;
}

HWY_INLINE VF expand(VF code, unsigned bits) {
    if (bits >= 8) return code;
    return hn::Add(hn::Mul(code, set(static_cast<float>(1u << (8 - bits)))),
                   hn::Floor(hn::Mul(code, set(1.0f / static_cast<float>(1u << (2 * bits - 8))))));
}

struct Quantized {
    Ends code, value;
};

/// Nearest codes of `bits` bits whose lowest bit is `p`; without p-bit where p < 0.
HWY_INLINE VF nearest_code(VF value, unsigned bits, int p) {
    const auto top = static_cast<float>((1u << bits) - 1);
    const auto scaled = hn::Mul(clamp(value, 0, 255), set(top / 255));
    if (p < 0) return nearest(scaled);
    const auto half = hn::Floor(hn::Add(hn::Mul(hn::Sub(scaled, set(static_cast<float>(p))), set(0.5f)), set(0.5f)));
    return hn::Add(hn::Mul(clamp(half, 0, static_cast<float>((1u << (bits - 1)) - 1)), set(2)), set(static_cast<float>(p)));
}

/// A texel whose alpha must stay takes the end of the line that has it: by projection it might get an index beside that.
template <int channels>
HWY_INLINE VF kept_index(const Texels& texel, const Ends& value, std::size_t i, VF top, VF index) {
    for (std::size_t c = 0; c < channels; ++c) {
        if (!texel.keep[c]) continue;
        const auto x = get(texel[c], i);
        const auto stays = hn::And(hn::Gt(get(*texel.keep[c], i), zero()), hn::Ne(value.a[c], value.b[c]));
        index = select(hn::And(stays, hn::Eq(x, value.a[c])), zero(), index);
        index = select(hn::And(stays, hn::Eq(x, value.b[c])), top, index);
    }
    return index;
}

/// Error of the line for the members with the decoder's own rounding, texels projected to the nearest of top + 1 indices.
template <int channels, bool exact>
HWY_NOINLINE VF error_unweighted(const Texels& texel, const Plane& weight, const Ends& value, VF top) {
    V4 d;
    for (std::size_t c = 0; c < channels; ++c) d[c] = hn::Sub(value.b[c], value.a[c]);
    const auto size = dot<channels>(d, d);
    const auto per = select(hn::Gt(size, zero()), hn::Div(top, most(size, set(1e-6f))), zero());
    const auto weight_step = hn::Div(set(64), top);
    VF sum = zero();
    for (std::size_t i = 0; i < 16; ++i) {
        V4 x, from;
        for (std::size_t c = 0; c < channels; ++c) x[c] = get(texel[c], i), from[c] = hn::Sub(x[c], value.a[c]);
        auto index = hn::Floor(hn::Add(least(most(hn::Mul(dot<channels>(from, d), per), zero()), top), set(0.5f)));
        if constexpr (exact) index = kept_index<channels>(texel, value, i, top, index);
        const auto t =
            hn::Mul(hn::Floor(hn::Add(hn::Mul(index, weight_step), set(0.5f))), set(1.0f / 64));  // the weights tables, rounded alike
        VF error = zero();
        for (std::size_t c = 0; c < channels; ++c) {
            const auto off = hn::Sub(hn::Floor(hn::Add(hn::Mul(t, d[c]), hn::Add(value.a[c], set(0.5f)))), x[c]);
            error = hn::Add(error, hn::Mul(off, off));
            if constexpr (exact)
                if (texel.keep[c]) error = hn::Add(error, select(hn::Eq(off, zero()), zero(), get(*texel.keep[c], i)));
        }
        sum = hn::Add(sum, hn::Mul(get(weight, i), error));
    }
    return sum;
}

/// The same with errors counted by channel and texel.
template <int channels, bool exact>
HWY_NOINLINE VF error_weighted(const Texels& texel, const Plane& weight, const Ends& value, VF top) {
    V4 d;
    for (std::size_t c = 0; c < channels; ++c) d[c] = hn::Sub(value.b[c], value.a[c]);
    const auto weight_step = hn::Div(set(64), top);
    VF sum = zero();
    for (std::size_t i = 0; i < 16; ++i) {
        V4 x, share;
        VF along = zero(), size = zero();
        for (std::size_t c = 0; c < channels; ++c) {
            x[c] = get(texel[c], i);
            share[c] = get(texel.share[c], i);
            const auto shared = hn::Mul(share[c], d[c]);
            along = hn::Add(along, hn::Mul(shared, hn::Sub(x[c], value.a[c])));
            size = hn::Add(size, hn::Mul(shared, d[c]));
        }
        const auto per = select(hn::Gt(size, zero()), hn::Div(top, most(size, set(1e-6f))), zero());
        auto index = hn::Floor(hn::Add(least(most(hn::Mul(along, per), zero()), top), set(0.5f)));
        if constexpr (exact) index = kept_index<channels>(texel, value, i, top, index);
        const auto t = hn::Mul(hn::Floor(hn::Add(hn::Mul(index, weight_step), set(0.5f))), set(1.0f / 64));
        const auto w = get(weight, i);
        for (std::size_t c = 0; c < channels; ++c) {
            const auto off = hn::Sub(hn::Floor(hn::Add(hn::Mul(t, d[c]), hn::Add(value.a[c], set(0.5f)))), x[c]);
            sum = hn::Add(sum, hn::Mul(hn::Mul(w, share[c]), hn::Mul(off, off)));
            if constexpr (exact)
                if (texel.keep[c]) sum = hn::Add(sum, hn::Mul(w, select(hn::Eq(off, zero()), zero(), get(*texel.keep[c], i))));
        }
    }
    return sum;
}

template <int channels>
HWY_INLINE VF error_of(const Texels& texel, const Plane& weight, const Ends& value, VF top) {
    if (texel.exacting)
        return texel.weighted ? error_weighted<channels, true>(texel, weight, value, top)
                              : error_unweighted<channels, true>(texel, weight, value, top);
    return texel.weighted ? error_weighted<channels, false>(texel, weight, value, top)
                          : error_unweighted<channels, false>(texel, weight, value, top);
}

struct Fitted {
    VF error;
    Ends code;
};

HWY_INLINE void keep_better(Fitted& best, VF error, const Ends& code) {
    const auto better = hn::Lt(error, best.error);
    best.error = select(better, error, best.error);
    for (std::size_t c = 0; c < 4; ++c) {
        best.code.a[c] = select(better, code.a[c], best.code.a[c]);
        best.code.b[c] = select(better, code.b[c], best.code.b[c]);
    }
}

/// Calls run(first, second) for every pair of p-bits; once with -1 where the mode has none.
template <class Run>
HWY_INLINE void each_pair(const Spec& spec, Parity parity, const Run& run) {
    if (spec.p_bits == PBits::none) return run(-1, -1);
    for (int bits = parity == Parity::odd ? 3 : 0; bits < 4; ++bits) {
        const int a = bits & 1, b = bits >> 1;
        if (spec.p_bits == PBits::own || a == b) run(a, b);
    }
}

HWY_INLINE void offer(Best& best, VF error, unsigned mode, VF partition, float extra, const std::array<Ends, 3>& code,
                      std::size_t subsets) {
    const auto better = hn::Lt(error, best.error);
    best.error = select(better, error, best.error);
    best.mode = select(better, set(static_cast<float>(mode)), best.mode);
    best.partition = select(better, partition, best.partition);
    best.extra = select(better, set(extra), best.extra);
    for (std::size_t s = 0; s < subsets; ++s)
        for (std::size_t c = 0; c < 4; ++c) {
            best.code[2 * s][c] = select(better, code[s].a[c], best.code[2 * s][c]);
            best.code[2 * s + 1][c] = select(better, code[s].b[c], best.code[2 * s + 1][c]);
        }
}

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif

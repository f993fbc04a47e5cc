// Included once for each SIMD target by bc7_encode.cpp (see lanes-inl.h).
// Which partitions suit a block of few colors, and blocks of one color.
#if defined(SKIVET_BC7_MODES_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef SKIVET_BC7_MODES_INL_H
#undef SKIVET_BC7_MODES_INL_H
#else
#define SKIVET_BC7_MODES_INL_H
#endif

#include "codec/bc7_lines-inl.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

constexpr std::size_t max_choices = 6;

/// The best few partitions of two subsets of each lane, best first.
struct Ranks {
    std::array<VF, max_choices> score, partition;
};

HWY_INLINE void insert(Ranks& list, std::size_t count, VF score, float partition) {
    auto s = score, p = set(partition);
    for (std::size_t k = 0; k < count; ++k) {
        const auto better = hn::Lt(s, list.score[k]);
        const auto old_s = list.score[k], old_p = list.partition[k];
        list.score[k] = select(better, s, old_s);
        list.partition[k] = select(better, p, old_p);
        s = select(better, old_s, s);
        p = select(better, old_p, p);
    }
}

/// Sums and products of the texels in a set: count, Σx, Σxxᵀ.
template <int channels>
struct Moments {
    VF count;
    V4 sum;
    std::array<VF, channels*(channels + 1) / 2> square;
};

/// trace - largest eigenvalue of the scatter: what a line through the mean leaves; and a share of the eigenvalue for the few steps the
/// line has, which decides where colors lie on lines anyway (gray pictures).
template <int channels>
HWY_INLINE VF residue(const Moments<channels>& m) {
    Covariance<channels> k;
    const auto inverse = hn::Div(set(1), most(m.count, set(1)));
    std::size_t at = 0;
    VF trace = zero();
    for (std::size_t p = 0; p < channels; ++p)
        for (std::size_t q = p; q < channels; ++q, ++at) {
            k.m[at] = hn::Sub(m.square[at], hn::Mul(hn::Mul(m.sum[p], m.sum[q]), inverse));
            if (p == q) trace = hn::Add(trace, k.m[at]);
        }
    const auto v = axis_of<channels>(k, 2);
    const auto kv = times<channels>(k, v);
    const auto size = dot<channels>(v, v);
    const auto eigenvalue = select(hn::Gt(size, set(1e-12f)), hn::Div(dot<channels>(v, kv), most(size, set(1e-12f))), zero());
    return hn::Add(most(hn::Sub(trace, eigenvalue), zero()), hn::Mul(eigenvalue, set(1.0f / 32)));
}

template <int channels>
HWY_NOINLINE std::array<VF, max_choices> rank_partitions(const Block& block, std::size_t count) {
    constexpr std::size_t products = channels * (channels + 1) / 2;
    std::array<Plane, products> product;
    Moments<channels> all;
    all.count = set(16);
    all.sum = {zero(), zero(), zero(), zero()};
    all.square.fill(zero());
    for (std::size_t i = 0; i < 16; ++i) {
        std::size_t at = 0;
        for (std::size_t p = 0; p < channels; ++p) {
            all.sum[p] = hn::Add(all.sum[p], get(block.texel[p], i));
            for (std::size_t q = p; q < channels; ++q, ++at) {
                const auto x = hn::Mul(get(block.texel[p], i), get(block.texel[q], i));
                put(product[at], i, x);
                all.square[at] = hn::Add(all.square[at], x);
            }
        }
    }
    Ranks ranks;
    ranks.score.fill(set(huge));
    ranks.partition.fill(zero());
    for (std::size_t partition = 0; partition < 64; ++partition) {
        Moments<channels> second;
        second.sum = {zero(), zero(), zero(), zero()};
        second.square.fill(zero());
        float members = 0;
        for (std::size_t i = 0; i < 16; ++i) {
            if (bptc::partitions2[partition][i] == 0) continue;
            ++members;
            for (std::size_t c = 0; c < channels; ++c) second.sum[c] = hn::Add(second.sum[c], get(block.texel[c], i));
            for (std::size_t at = 0; at < products; ++at) second.square[at] = hn::Add(second.square[at], get(product[at], i));
        }
        second.count = set(members);
        auto first = all;
        first.count = hn::Sub(first.count, second.count);
        for (std::size_t c = 0; c < channels; ++c) first.sum[c] = hn::Sub(first.sum[c], second.sum[c]);
        for (std::size_t at = 0; at < products; ++at) first.square[at] = hn::Sub(first.square[at], second.square[at]);
        insert(ranks, count, hn::Add(residue<channels>(second), residue<channels>(first)), static_cast<float>(partition));
    }
    return ranks.partition;
}

/// 1 for the texels of subset `s` in each lane's own partition.
HWY_INLINE void members(VF partition, std::size_t s, Plane& out) {
    const DF df;
    alignas(64) float number[max_lanes];
    hn::Store(partition, df, number);
    for (std::size_t lane = 0; lane < hn::Lanes(df); ++lane) {
        const auto& row = bptc::partitions2[static_cast<std::size_t>(number[lane])];
        for (std::size_t i = 0; i < 16; ++i) out.v[i][lane] = row[i] == s ? 1.0f : 0.0f;
    }
}

/// One color: mode 5 reaches every 8-bit value exactly at index 1, where (43 a + 21 b + 32) / 64 of two 7-bit endpoints is all there is to
/// hit.
struct SingleColor {
    std::array<std::array<std::uint8_t, 2>, 256> code{};
};
const SingleColor& single_color() {
    static const SingleColor table = [] {
        SingleColor out;
        std::array<bool, 256> found{};
        for (int spread = 0; spread < 128; ++spread)  // close endpoints first
            for (int a = 0; a < 128; ++a)
                for (const int b : {a + spread, a - spread}) {
                    if (b < 0 || b > 127) continue;
                    const int x = a << 1 | a >> 6, y = b << 1 | b >> 6, v = (43 * x + 21 * y + 32) >> 6;
                    if (!found[static_cast<std::size_t>(v)])
                        found[static_cast<std::size_t>(v)] = true,
                        out.code[static_cast<std::size_t>(v)] = {static_cast<std::uint8_t>(a), static_cast<std::uint8_t>(b)};
                }
        return out;
    }();
    return table;
}

void try_single_color(const Block& block, Best& best) {
    const DF df;
    auto flat = hn::Ge(zero(), zero());
    for (std::size_t c = 0; c < 4; ++c)
        for (std::size_t i = 1; i < 16; ++i) flat = hn::And(flat, hn::Eq(get(block.texel[c], i), get(block.texel[c], 0)));
    if (hn::AllFalse(df, flat)) return;
    const auto& table = single_color();
    std::array<Ends, 3> code;
    alignas(64) float a[max_lanes], b[max_lanes];
    for (std::size_t c = 0; c < 3; ++c) {
        for (std::size_t lane = 0; lane < hn::Lanes(df); ++lane) {
            const auto& pair = table.code[static_cast<std::size_t>(block.texel[c].v[0][lane])];
            a[lane] = pair[0];
            b[lane] = pair[1];
        }
        code[0].a[c] = hn::Load(df, a);
        code[0].b[c] = hn::Load(df, b);
    }
    code[0].a[3] = code[0].b[3] = get(block.texel[3], 0);
    offer(best, select(flat, zero(), set(huge)), 5, zero(), 0, code, 1);
}

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif

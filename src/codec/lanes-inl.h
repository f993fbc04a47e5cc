// Included once for each SIMD target (see Highway's foreach_target.h). What the block encoders share.
//
// A lane is a block: one vector holds the same texel, or the same intermediate, of N blocks. There is then no shuffling, no waste at the
// block's edge, and every lane does exactly the same IEEE operations in the same order whatever N is; so the bytes do not depend on
// the vector width. Additions and multiplications are never fused (-ffp-contract=off), for the same reason.
#if defined(SKIVET_LANES_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef SKIVET_LANES_INL_H
#undef SKIVET_LANES_INL_H
#else
#define SKIVET_LANES_INL_H
#endif

#include <hwy/highway.h>

#include <cstring>

#include "codec/codec.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

constexpr std::size_t max_lanes = 16;
using DF = hn::CappedTag<float, max_lanes>;
using DI = hn::RebindToSigned<DF>;
using VF = hn::Vec<DF>;
using VI = hn::Vec<DI>;
using MF = hn::Mask<DF>;

/// One float for every texel of a block and every lane.
struct Plane {
    alignas(64) float v[16][max_lanes];
};
HWY_INLINE VF get(const Plane& p, std::size_t i) { return hn::Load(DF(), p.v[i]); }
HWY_INLINE void put(Plane& p, std::size_t i, VF x) { hn::Store(x, DF(), p.v[i]); }

HWY_INLINE VF set(float x) { return hn::Set(DF(), x); }
HWY_INLINE VF zero() { return hn::Zero(DF()); }
HWY_INLINE VF select(MF m, VF yes, VF no) { return hn::IfThenElse(m, yes, no); }
/// Targets differ in what these make of NaN, so no NaN may come here; every division is guarded.
HWY_INLINE VF least(VF a, VF b) { return hn::Min(a, b); }
HWY_INLINE VF most(VF a, VF b) { return hn::Max(a, b); }
HWY_INLINE VF clamp(VF x, float low, float high) { return least(most(x, set(low)), set(high)); }
/// Nearest integer of a value that is not negative.
HWY_INLINE VF nearest(VF x) { return hn::Floor(hn::Add(x, set(0.5f))); }

using V3 = std::array<VF, 3>;
HWY_INLINE VF dot3(const V3& a, const V3& b) { return hn::Add(hn::Add(hn::Mul(a[0], b[0]), hn::Mul(a[1], b[1])), hn::Mul(a[2], b[2])); }

/// N blocks' texels as floats 0…255, a plane a channel.
HWY_INLINE void load_channels(const Texel* blocks, std::array<Plane, 4>& out) {
    const DI di;
    const auto byte = hn::Set(di, 255);
    // Turned by hand: gathers are slow on many machines.
    alignas(64) std::int32_t words[16][max_lanes];
    for (std::size_t lane = 0; lane < hn::Lanes(di); ++lane) {
        std::array<std::int32_t, 16> block;
        std::memcpy(block.data(), blocks + lane * 16, sizeof block);
        for (std::size_t i = 0; i < 16; ++i) words[i][lane] = block[i];
    }
    for (std::size_t i = 0; i < 16; ++i) {
        const auto word = hn::Load(di, words[i]);
        put(out[0], i, hn::ConvertTo(DF(), hn::And(word, byte)));
        put(out[1], i, hn::ConvertTo(DF(), hn::And(hn::ShiftRight<8>(word), byte)));
        put(out[2], i, hn::ConvertTo(DF(), hn::And(hn::ShiftRight<16>(word), byte)));
        put(out[3], i, hn::ConvertTo(DF(), hn::And(hn::ShiftRight<24>(word), byte)));
    }
}

/// How many different ones there are among a block's values.
HWY_INLINE VF distinct_values(const Plane& values) {
    auto count = zero();
    for (std::size_t i = 0; i < 16; ++i) {
        auto seen = hn::Lt(zero(), zero());
        for (std::size_t j = 0; j < i; ++j) seen = hn::Or(seen, hn::Eq(get(values, i), get(values, j)));
        count = hn::Add(count, select(seen, zero(), set(1)));
    }
    return count;
}
/// A color as one value: 24 bits, which a float holds.
HWY_INLINE VF color_value(VF red, VF green, VF blue) { return hn::Add(hn::Mul(hn::Add(hn::Mul(red, set(256)), green), set(256)), blue); }

/// Direction of largest spread of the covariance {xx, xy, xz, yy, yz, zz}: power iteration from the row with the largest diagonal.
/// Not normalized; zero where there is no spread.
HWY_INLINE V3 principal_axis(const std::array<VF, 6>& m) {
    const auto red = hn::And(hn::Ge(m[0], m[3]), hn::Ge(m[0], m[5]));
    const auto green = hn::Ge(m[3], m[5]);
    V3 v = {select(red, m[0], select(green, m[1], m[2])), select(red, m[1], select(green, m[3], m[4])),
            select(red, m[2], select(green, m[4], m[5]))};
    for (int round = 0; round < 4; ++round) {
        const V3 w = {dot3({m[0], m[1], m[2]}, v), dot3({m[1], m[3], m[4]}, v), dot3({m[2], m[4], m[5]}, v)};
        const auto size = most(most(hn::Abs(w[0]), hn::Abs(w[1])), hn::Abs(w[2]));
        const auto scale = hn::Div(set(1), most(size, set(1e-20f)));
        for (std::size_t c = 0; c < 3; ++c) v[c] = hn::Mul(w[c], scale);
    }
    return v;
}

/// Calls run(texels, lanes, first) for groups of N blocks; the last group is filled up with copies of the last block.
template <class T, class Run>
void each_group(const T* blocks, std::size_t count, const Run& run) {
    const std::size_t n = hn::Lanes(DF());
    for (std::size_t first = 0; first < count; first += n) {
        if (count - first >= n) {
            run(blocks + first * 16, n, first);
            continue;
        }
        std::array<T, 16 * max_lanes> padded;
        for (std::size_t i = 0; i < n; ++i) std::copy_n(blocks + std::min(first + i, count - 1) * 16, 16, padded.data() + i * 16);
        run(padded.data(), count - first, first);
    }
}

}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif

// Included once for each SIMD target. The modes ETC1 has, for N blocks at once.
//
// A half block is one base color and a table of four brightness steps that move all channels alike. What a step does to a texel depends
// only on the sum of its differences to the base, so choosing the steps is cheap; the base is then the mean of what the steps leave, and
// the two alternate. Both ways to halve the block and both ways to store the bases are tried.
//
// All values are whole numbers below 2^24, which floats hold: fused or not, every target computes the same.
#if defined(SKIVET_ETC_HALVES_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef SKIVET_ETC_HALVES_INL_H
#undef SKIVET_ETC_HALVES_INL_H
#else
#define SKIVET_ETC_HALVES_INL_H
#endif

#include "codec/etc_pack.h"
#include "codec/etc_tables.h"
#include "codec/lanes-inl.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

constexpr float no_error = 1e9f;

/// Blocks to encode, row by row.
struct EtcBlocks {
    std::array<Plane, 4> texels;
    Plane weight;  ///< 0 for a hole, otherwise 1
    VF holes;      ///< 1 where a block has any
};

/// Four colors that texels take the nearest of: |c|² and -2c of each, so that a distance is three products less than nothing.
struct Colors4 {
    std::array<VF, 4> square;
    std::array<V3, 4> minus_two;
    void set_color(std::size_t k, const V3& c) {
        square[k] = dot3(c, c);
        for (std::size_t i = 0; i < 3; ++i) minus_two[k][i] = hn::Mul(c[i], set(-2));
    }
    /// The least |c - t|² less |t|².
    [[nodiscard]] HWY_INLINE VF least_of(const V3& t) const {
        VF out = zero();
        for (std::size_t k = 0; k < 4; ++k) {
            const auto d =
                hn::MulAdd(minus_two[k][0], t[0], hn::MulAdd(minus_two[k][1], t[1], hn::MulAdd(minus_two[k][2], t[2], square[k])));
            out = k == 0 ? d : least(out, d);
        }
        return out;
    }
};
HWY_INLINE V3 texel(const EtcBlocks& blocks, std::size_t i) {
    return {get(blocks.texels[0], i), get(blocks.texels[1], i), get(blocks.texels[2], i)};
}
HWY_INLINE V3 each(const V3& v, VF by) { return {hn::Add(v[0], by), hn::Add(v[1], by), hn::Add(v[2], by)}; }
HWY_INLINE V3 byte_of(const V3& v) { return {clamp(v[0], 0, 255), clamp(v[1], 0, 255), clamp(v[2], 0, 255)}; }
HWY_INLINE VF quantized(VF v, int top) {
    return clamp(nearest(hn::Mul(v, set(static_cast<float>(top) / 255))), 0, static_cast<float>(top));
}
HWY_INLINE VF expanded(VF q, int bits) {
    return bits == 4 ? hn::Mul(q, set(17)) : hn::Add(hn::Mul(q, set(8)), hn::Floor(hn::Mul(q, set(0.25f))));
}
HWY_INLINE MF inside(VF v, float top) { return hn::And(hn::Ge(v, zero()), hn::Le(v, set(top))); }
template <class Table>
HWY_INLINE VF looked_up(VF index, const Table& values) {
    auto out = set(static_cast<float>(values(0)));
    for (std::size_t i = 1; i < 8; ++i) out = select(hn::Ge(index, set(static_cast<float>(i))), set(static_cast<float>(values(i))), out);
    return out;
}

struct EtcHalf {
    V3 base;  ///< quantized
    VF table, error;
    EtcHalf() : base{zero(), zero(), zero()}, table(zero()), error(set(no_error)) {}
    void keep(const V3& q, VF t, VF e) {
        const auto better = hn::Lt(e, error);
        for (std::size_t c = 0; c < 3; ++c) base[c] = select(better, q[c], base[c]);
        table = select(better, t, table);
        error = select(better, e, error);
    }
};

template <bool holed>
class HalfFitter {
public:
    HalfFitter(const EtcBlocks& blocks, bool flip, std::size_t which) : blocks_(blocks), sum_{zero(), zero(), zero()} {
        squares_ = count_ = zero();
        for (std::size_t i = 0, n = 0; i < 16; ++i) {
            if ((flip ? i / 4 : i % 4) / 2 != which) continue;
            const auto t = texel(blocks, i);
            hn::Store(hn::Add(hn::Add(t[0], t[1]), t[2]), DF(), sums_[n]);
            at_[n++] = i;
            const auto w = holed ? get(blocks.weight, i) : set(1);
            for (std::size_t c = 0; c < 3; ++c) sum_[c] = hn::Add(sum_[c], hn::Mul(w, t[c]));
            squares_ = hn::Add(squares_, hn::Mul(w, dot3(t, t)));
            count_ = hn::Add(count_, w);
        }
        per_texel_ = hn::Div(set(1), most(count_, set(1)));
    }

    /// The best base (4 or 5 bits a channel) and table.
    [[nodiscard]] EtcHalf fit(int bits, Effort effort) const {
        const int top = (1 << bits) - 1;
        EtcHalf best;
        for (std::size_t table = 0; table < 8; ++table) {
            const auto [small, large] = steps(set(static_cast<float>(table)));
            V3 wanted;
            for (std::size_t c = 0; c < 3; ++c) wanted[c] = hn::Mul(sum_[c], per_texel_);
            const int rounds = effort == Effort::fast ? 1 : 3;
            V3 last = {set(-1), set(-1), set(-1)};
            for (int round = 0; round < rounds; ++round) {
                V3 q, base;
                for (std::size_t c = 0; c < 3; ++c) q[c] = quantized(wanted[c], top), base[c] = expanded(q[c], bits);
                const auto same = hn::And(hn::And(hn::Eq(q[0], last[0]), hn::Eq(q[1], last[1])), hn::Eq(q[2], last[2]));
                if (hn::AllTrue(DF(), same)) break;
                last = q;
                best.keep(q, set(static_cast<float>(table)), error(base, small, large));
                if (round + 1 == rounds) break;
                const auto moved = hn::Mul(steps_taken(base, small, large), per_texel_);
                for (std::size_t c = 0; c < 3; ++c) wanted[c] = most(hn::Sub(hn::Mul(sum_[c], per_texel_), moved), zero());
            }
        }
        if (effort != Effort::fast) walk(best, bits, effort);
        return best;
    }

    /// The best table for a base of 5 bits.
    [[nodiscard]] EtcHalf with_base(const V3& q) const {
        EtcHalf best;
        V3 base;
        for (std::size_t c = 0; c < 3; ++c) base[c] = expanded(q[c], 5);
        for (std::size_t table = 0; table < 8; ++table) {
            const auto t = set(static_cast<float>(table));
            const auto [small, large] = steps(t);
            best.keep(q, t, error(base, small, large));
        }
        return best;
    }

private:
    const EtcBlocks& blocks_;
    std::array<std::size_t, 8> at_{};
    alignas(64) float sums_[8][max_lanes];  ///< of the channels
    V3 sum_;
    VF squares_, count_, per_texel_;

    [[nodiscard]] HWY_INLINE std::pair<VF, VF> steps(VF table) const {
        const auto small = looked_up(table, [](std::size_t i) { return etc::modifiers[i][0]; });
        const auto large = looked_up(table, [](std::size_t i) { return etc::modifiers[i][1]; });
        // Blocks with holes have no small steps.
        if constexpr (holed) return {select(hn::Gt(blocks_.holes, zero()), zero(), small), large};
        return {small, large};
    }

    [[nodiscard]] VF error(const V3& base, VF small, VF large) const {
        const auto lowest = least(least(base[0], base[1]), base[2]), highest = most(most(base[0], base[1]), base[2]);
        if (hn::AllTrue(DF(), hn::And(hn::Ge(lowest, large), hn::Le(hn::Add(highest, large), set(255)))))
            return error_uncut(base, small, large);
        Colors4 colors;
        colors.set_color(0, byte_of(each(base, small)));
        colors.set_color(1, byte_of(each(base, large)));
        colors.set_color(2, byte_of(each(base, hn::Neg(small))));
        colors.set_color(3, byte_of(each(base, hn::Neg(large))));
        auto out = squares_;
        for (const auto i : at_) {
            const auto d = colors.least_of(texel(blocks_, i));
            out = hn::Add(out, holed ? hn::Mul(d, get(blocks_.weight, i)) : d);
        }
        return out;
    }

    /// The same where no color leaves 0…255: |t - base|² and, for a step of m and the sum s of t - base, 3 m² - 2 m s.
    [[nodiscard]] VF error_uncut(const V3& base, VF small, VF large) const {
        const auto sum = hn::Add(hn::Add(base[0], base[1]), base[2]);
        const auto small_square = hn::Mul(hn::Mul(small, small), set(3)), large_square = hn::Mul(hn::Mul(large, large), set(3));
        const auto twice_small = hn::Mul(small, set(-2)), twice_large = hn::Mul(large, set(-2));
        auto out = hn::MulAdd(count_, dot3(base, base), hn::MulAdd(set(-2), dot3(base, sum_), squares_));
        for (std::size_t n = 0; n < 8; ++n) {
            const auto s = hn::Abs(hn::Sub(hn::Load(DF(), sums_[n]), sum));
            const auto d = least(hn::MulAdd(twice_small, s, small_square), hn::MulAdd(twice_large, s, large_square));
            out = hn::Add(out, holed ? hn::Mul(d, get(blocks_.weight, at_[n])) : d);
        }
        return out;
    }

    /// The sum of the steps that come nearest to the texels, as if nothing were cut off.
    [[nodiscard]] VF steps_taken(const V3& base, VF small, VF large) const {
        const auto middle = hn::Mul(hn::Add(small, large), set(1.5f));  // of three channels' sums
        const auto sum = hn::Add(hn::Add(base[0], base[1]), base[2]);
        auto out = zero();
        for (std::size_t n = 0; n < 8; ++n) {
            const auto s = hn::Sub(hn::Load(DF(), sums_[n]), sum);
            const auto step = hn::CopySign(select(hn::Gt(hn::Abs(s), middle), large, small), s);
            out = hn::Add(out, holed ? hn::Mul(step, get(blocks_.weight, at_[n])) : step);
        }
        return out;
    }

    /// Neighbors of the base, and of the table, while they are better.
    void walk(EtcHalf& best, int bits, Effort effort) const {
        constexpr int most_passes = 16;  // a lane that goes on longer is a rare one, and holds all the others up
        const auto top = static_cast<float>((1 << bits) - 1);
        for (int pass = 0; pass < most_passes; ++pass) {
            const auto from = best;
            std::array<VF, 3> tables, small, large;
            std::array<MF, 3> there;
            for (std::size_t k = 0; k < 3; ++k) {
                tables[k] = hn::Add(from.table, set(static_cast<float>(k) - 1));
                there[k] = inside(tables[k], 7);
                std::tie(small[k], large[k]) = steps(tables[k]);
            }
            for (int dr = -1; dr <= 1; ++dr)
                for (int dg = -1; dg <= 1; ++dg)
                    for (int db = -1; db <= 1; ++db) {
                        if (effort == Effort::normal && std::abs(dr) + std::abs(dg) + std::abs(db) > 1 && !(dr == dg && dg == db)) continue;
                        const V3 q = {hn::Add(from.base[0], set(static_cast<float>(dr))),
                                      hn::Add(from.base[1], set(static_cast<float>(dg))),
                                      hn::Add(from.base[2], set(static_cast<float>(db)))};
                        const auto fits = hn::And(hn::And(inside(q[0], top), inside(q[1], top)), inside(q[2], top));
                        V3 base;
                        for (std::size_t c = 0; c < 3; ++c) base[c] = expanded(q[c], bits);
                        for (std::size_t k = 0; k < 3; ++k) {
                            if (k == 1 && dr == 0 && dg == 0 && db == 0) continue;
                            const auto e = error(base, small[k], large[k]);
                            best.keep(q, tables[k], select(hn::And(fits, there[k]), e, set(no_error)));
                        }
                    }
            if (hn::AllFalse(DF(), hn::Lt(best.error, from.error))) break;
        }
    }
};

/// What N blocks will be; see etc::Colors.
struct EtcChoice {
    VF error, mode;
    std::array<VF, 9> color;
    std::array<VF, 2> table;
    EtcChoice() : error(set(no_error)), mode(zero()), table{zero(), zero()} { color.fill(zero()); }
    void keep(VF e, etc::Mode m, const std::array<VF, 9>& c, VF t0, VF t1) {
        const auto better = hn::Lt(e, error);
        error = select(better, e, error);
        mode = select(better, set(static_cast<float>(m)), mode);
        for (std::size_t i = 0; i < 9; ++i) color[i] = select(better, c[i], color[i]);
        table[0] = select(better, t0, table[0]);
        table[1] = select(better, t1, table[1]);
    }
    void keep(VF e, etc::Mode m, const EtcHalf& a, const EtcHalf& b) {
        keep(e, m, {a.base[0], a.base[1], a.base[2], b.base[0], b.base[1], b.base[2], zero(), zero(), zero()}, a.table, b.table);
    }
};

/// `individual`: two bases of 4 bits are allowed (not in the punch-through format).
template <bool individual, bool holed>
void fit_halves(const EtcBlocks& blocks, Effort effort, EtcChoice& best) {
    for (const bool flip : {false, true}) {
        const std::array fitters = {HalfFitter<holed>(blocks, flip, 0), HalfFitter<holed>(blocks, flip, 1)};
        const std::array half = {fitters[0].fit(5, effort), fitters[1].fit(5, effort)};
        const auto differential = flip ? etc::Mode::differential_flipped : etc::Mode::differential;
        auto close = hn::Eq(zero(), zero());
        for (std::size_t c = 0; c < 3; ++c) {
            const auto d = hn::Sub(half[1].base[c], half[0].base[c]);
            close = hn::And(close, hn::And(hn::Ge(d, set(-4)), hn::Le(d, set(3))));
        }
        best.keep(select(close, hn::Add(half[0].error, half[1].error), set(no_error)), differential, half[0], half[1]);
        if (!hn::AllTrue(DF(), close)) {  // one base is pulled to where the other can reach it
            for (const std::size_t fixed : {0u, 1u}) {
                auto pulled = half;
                const auto& anchor = half[fixed].base;
                auto q = half[1 - fixed].base;
                for (std::size_t c = 0; c < 3; ++c) {
                    const auto low = hn::Add(anchor[c], set(fixed == 0 ? -4 : -3)), high = hn::Add(anchor[c], set(fixed == 0 ? 3 : 4));
                    q[c] = clamp(least(most(q[c], low), high), 0, 31);
                }
                pulled[1 - fixed] = fitters[1 - fixed].with_base(q);
                best.keep(select(close, set(no_error), hn::Add(pulled[0].error, pulled[1].error)), differential, pulled[0], pulled[1]);
            }
        }
        if constexpr (individual) {
            const std::array coarse = {fitters[0].fit(4, effort), fitters[1].fit(4, effort)};
            best.keep(hn::Add(coarse[0].error, coarse[1].error), flip ? etc::Mode::individual_flipped : etc::Mode::individual, coarse[0],
                      coarse[1]);
        }
    }
}

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif

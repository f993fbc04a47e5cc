// Included once for each SIMD target (see lanes-inl.h): blocks of one channel in bytes, a block a lane, and what a pair of ends makes of
// them. Signed values have 128 for zero here, as texels do.
#if defined(SKIVET_CHANNEL_LINES_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef SKIVET_CHANNEL_LINES_INL_H
#undef SKIVET_CHANNEL_LINES_INL_H
#else
#define SKIVET_CHANNEL_LINES_INL_H
#endif

#include <hwy/highway.h>

#include "codec/blocks.h"
#include "codec/weights.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

using D8 = hn::CappedTag<std::uint8_t, 64>;
#if HWY_TARGET == HWY_SCALAR
using D16 = hn::Rebind<std::uint16_t, D8>;  // of one lane no half can be taken
#else
using D16 = hn::RepartitionToWide<D8>;
#endif
using V8 = hn::Vec<D8>;
using V16 = hn::Vec<D16>;
constexpr std::size_t most_blocks = 64;

HWY_INLINE V8 set8(int v) { return hn::Set(D8(), static_cast<std::uint8_t>(v)); }
HWY_INLINE V16 set16(int v) { return hn::Set(D16(), static_cast<std::uint16_t>(v)); }

/// 16 bits for every lane: of the even ones and of the odd ones.
struct Wide {
    V16 even, odd;
};
#if HWY_TARGET == HWY_SCALAR
HWY_INLINE Wide widened(V8 v) { return {hn::PromoteTo(D16(), v), hn::Zero(D16())}; }
HWY_INLINE V8 narrowed(const Wide& w) { return set8(hn::GetLane(w.even)); }
HWY_INLINE V8 narrowed_mask(const Wide& m) { return narrowed(m); }
#else
HWY_INLINE Wide widened(V8 v) {
    const auto w = hn::BitCast(D16(), v);
    return {hn::And(w, set16(255)), hn::ShiftRight<8>(w)};
}
/// Of values up to 255.
HWY_INLINE V8 narrowed(const Wide& w) { return hn::BitCast(D8(), hn::Or(w.even, hn::ShiftLeft<8>(w.odd))); }
/// Lanes that are all ones or none, in both widths.
HWY_INLINE V8 narrowed_mask(const Wide& m) { return hn::BitCast(D8(), hn::Or(hn::And(m.even, set16(255)), hn::AndNot(set16(255), m.odd))); }
#endif
template <class F>
HWY_INLINE V8 each16(V8 v, const F& f) {
    const auto w = widened(v);
    return narrowed({f(w.even), f(w.odd)});
}
HWY_INLINE V8 select8(V8 mask, V8 yes, V8 no) { return hn::Or(hn::And(mask, yes), hn::AndNot(mask, no)); }
/// Ones where a < b.
HWY_INLINE V8 less(const Wide& a, const Wide& b) {
    const auto one = [](V16 x, V16 y) { return hn::VecFromMask(D16(), hn::Lt(x, y)); };
    return narrowed_mask({one(a.even, b.even), one(a.odd, b.odd)});
}

/// A channel of N blocks.
struct Values {
    alignas(64) std::uint8_t value[16][most_blocks];
    alignas(64) std::uint8_t beside[16][most_blocks];  ///< how far the lowest or the highest value is
    alignas(64) std::uint8_t must[16][most_blocks];    ///< ones where it is one of these
    alignas(64) std::uint16_t weight[16][2][most_blocks / 2];
    alignas(64) std::uint16_t scale[2][most_blocks / 2];
    alignas(64) std::uint8_t cap[most_blocks];
    V8 low, high;              ///< of all values
    V8 inner_low, inner_high;  ///< of those that are neither the lowest nor the highest there is
};
HWY_INLINE V8 get8(const std::uint8_t (&row)[most_blocks]) { return hn::Load(D8(), row); }

/// What is encoded: some of the blocks.
struct Blocks {
    const Texel* texels;
    const std::uint32_t* which;
    std::size_t count;
    [[nodiscard]] const Texel* at(std::size_t lane) const { return texels + std::size_t{which[std::min(lane, count - 1)]} * 16; }
};

template <bool is_signed>
void load_values(const Blocks& blocks, std::size_t channel, Values& out) {
    constexpr int lowest = is_signed ? 1 : 0;
    const std::size_t n = hn::Lanes(D8());
    for (std::size_t lane = 0; lane < n; ++lane) {
        const auto* texels = blocks.at(lane);
        for (std::size_t i = 0; i < 16; ++i) out.value[i][lane] = texels[i][channel];
    }
    auto low = set8(255), high = set8(0), inner_low = low, inner_high = high;
    for (std::size_t i = 0; i < 16; ++i) {
        const auto x = hn::Max(get8(out.value[i]), set8(lowest));
        hn::Store(x, D8(), out.value[i]);
        const auto beside = hn::Min(hn::Sub(x, set8(lowest)), hn::Sub(set8(255), x));
        const auto is_end = hn::VecFromMask(D8(), hn::Eq(beside, set8(0)));
        hn::Store(beside, D8(), out.beside[i]);
        hn::Store(is_end, D8(), out.must[i]);
        low = hn::Min(low, x);
        high = hn::Max(high, x);
        inner_low = hn::Min(inner_low, hn::Or(x, is_end));
        inner_high = hn::Max(inner_high, hn::AndNot(is_end, x));
    }
    out.low = low;
    out.high = high;
    const auto none = hn::VecFromMask(D8(), hn::Eq(inner_high, set8(0)));  // nothing between the extremes
    out.inner_low = select8(none, low, inner_low);
    out.inner_high = select8(none, low, inner_high);
}

/// Weights, the largest of a block 65,535, and what errors are scaled by so that 16 bits hold them as finely as they can.
inline void load_weights(const Blocks& blocks, std::size_t channel, const EncodeOptions& options, Values& out) {
    const std::size_t n = hn::Lanes(D8());
    for (std::size_t lane = 0; lane < n; ++lane) {
        const auto* texels = blocks.at(lane);
        std::array<std::uint32_t, 16> weights{};
        std::uint32_t most = 1;
        int low = 255, high = 0;
        for (std::size_t i = 0; i < 16; ++i) {
            weights[i] = channel_weights(options, texels[i])[channel];
            most = std::max(most, weights[i]);
            low = std::min<int>(low, texels[i][channel]);
            high = std::max<int>(high, texels[i][channel]);
        }
        for (std::size_t i = 0; i < 16; ++i) out.weight[i][lane % 2][lane / 2] = static_cast<std::uint16_t>(weights[i] * 65535 / most);
        const int step = (high - low) / 7 + 1;
        const int scale = std::clamp(65535 / (16 * step * step), 1, 1024);
        int cap = 255;
        while (cap * cap * scale > 65535) --cap;
        out.scale[lane % 2][lane / 2] = static_cast<std::uint16_t>(scale);
        out.cap[lane] = static_cast<std::uint8_t>(cap);
    }
}

/// A pair of ends and its squared error, 65,535 where it is more.
struct Pair {
    V8 low, high;
    Wide error;
};

HWY_INLINE void take_better(Pair& best, const Pair& other) {
    const auto better = less(other.error, best.error);
    best.low = select8(better, other.low, best.low);
    best.high = select8(better, other.high, best.high);
    best.error = {hn::Min(other.error.even, best.error.even), hn::Min(other.error.odd, best.error.odd)};
}

/// What of a block is written: ends, and the steps from the low one that each texel takes; 6 and 7 for the lowest and the highest value of
/// lines of six.
struct Codes {
    alignas(64) std::uint8_t step[16][most_blocks];
    alignas(64) std::uint8_t low[most_blocks], high[most_blocks], six[most_blocks];
};

/// Lines of eight values, or of six with the two extremes. `exact`: the lowest and the highest value there is must come out as they are.
template <bool is_signed, bool is_six, bool weighted, bool exact>
class Lines {
public:
    explicit Lines(const Values& values) : values_(values) {}

    HWY_INLINE Wide error(V8 low, V8 high) const {
        const auto levels = levels_of(low, high);
        Wide sum{hn::Zero(D16()), hn::Zero(D16())};
        for (std::size_t i = 0; i < 16; ++i) {
            const auto x = get8(values_.value[i]);
            auto off = is_six ? get8(values_.beside[i]) : set8(255);
            for (const auto& level : levels) off = hn::Min(off, apart(x, level));
            add(sum, off, i);
        }
        return sum;
    }
    HWY_INLINE void keep_better(Pair& best, V8 low, V8 high) const { take_better(best, {low, high, error(low, high)}); }
    /// An end so many steps further, within what there is.
    HWY_INLINE V8 moved(V8 end, V8 step, int times) const {
        for (int i = 0; i < times; ++i) end = hn::SaturatedAdd(end, step);
        for (int i = 0; i > times; --i) end = hn::SaturatedSub(end, step);
        return is_signed ? hn::Max(end, set8(1)) : end;
    }
    using Levels = std::array<V8, (is_six ? 5 : 7) + 1>;
    /// From low to high, as the decoder has them: cut off toward zero.
    static HWY_INLINE Levels levels_of(V8 low, V8 high) {
        const auto from = widened(low), to = widened(high);
        Levels out;
        out[0] = low;
        out[parts] = high;
        Wide sum{times_parts(from.even), times_parts(from.odd)};
        const Wide step{hn::Sub(to.even, from.even), hn::Sub(to.odd, from.odd)};
        for (std::size_t m = 1; m < parts; ++m) {
            sum = {hn::Add(sum.even, step.even), hn::Add(sum.odd, step.odd)};
            out[m] = narrowed({divided(sum.even), divided(sum.odd)});
        }
        return out;
    }
    /// The step texel i takes (see Codes).
    HWY_INLINE V8 step(const Levels& levels, std::size_t i) const {
        const auto x = get8(values_.value[i]);
        auto off = set8(255), out = set8(0);
        const auto take = [&](V8 distance, int number) {
            const auto nearer = hn::Min(distance, off);
            const auto stays = hn::VecFromMask(D8(), hn::Eq(nearer, off));
            out = select8(stays, out, set8(number));
            off = nearer;
        };
        for (std::size_t m = 0; m < levels.size(); ++m) take(apart(x, levels[m]), static_cast<int>(m));
        if constexpr (is_six) {
            take(hn::Sub(x, set8(is_signed ? 1 : 0)), 6);
            take(hn::Sub(set8(255), x), 7);
        }
        return out;
    }

private:
    static constexpr int parts = is_six ? 5 : 7;
    static HWY_INLINE V8 apart(V8 a, V8 b) { return hn::Or(hn::SaturatedSub(a, b), hn::SaturatedSub(b, a)); }

    static HWY_INLINE V16 times_parts(V16 v) {
        if constexpr (is_signed) v = hn::Sub(v, set16(128));
        return hn::Mul(v, set16(parts));
    }
    /// Exact for what 8 bits times 7 can be: 9363 / 65536 is above 1/7 by less than 1/7 of 1/1785, and so for 5.
    static HWY_INLINE V16 divided(V16 v) {
        const auto factor = set16(is_six ? 13108 : 9363);
        if constexpr (!is_signed) return hn::MulHigh(v, factor);
        const auto sign = hn::BitCast(D16(), hn::ShiftRight<15>(hn::BitCast(hn::RebindToSigned<D16>(), v)));
        const auto size = hn::MulHigh(hn::Sub(hn::Xor(v, sign), sign), factor);
        return hn::Add(hn::Sub(hn::Xor(size, sign), sign), set16(128));
    }
    HWY_INLINE void add(Wide& sum, V8 off, std::size_t i) const {
        if constexpr (exact) {
            const auto met = hn::VecFromMask(D8(), hn::Eq(off, set8(0)));
            off = hn::Or(off, hn::AndNot(met, get8(values_.must[i])));
        }
        if constexpr (weighted) off = hn::Min(off, get8(values_.cap));
        const auto w = widened(off);
        Wide square{hn::Mul(w.even, w.even), hn::Mul(w.odd, w.odd)};
        if constexpr (weighted) {
            square = {hn::MulHigh(hn::Mul(square.even, hn::Load(D16(), values_.scale[0])), hn::Load(D16(), values_.weight[i][0])),
                      hn::MulHigh(hn::Mul(square.odd, hn::Load(D16(), values_.scale[1])), hn::Load(D16(), values_.weight[i][1]))};
        }
        sum = {hn::SaturatedAdd(sum.even, square.even), hn::SaturatedAdd(sum.odd, square.odd)};
    }

    const Values& values_;
};

/// The better one of a line of eight and one of six.
template <class Eight, class Six>
Codes better_of(const Eight& eight, const Pair& line, const Six& six, const Pair& inner) {
    Codes out;
    const auto is_six = less(inner.error, line.error);
    const auto of_eight = Eight::levels_of(line.low, line.high);
    const auto of_six = Six::levels_of(inner.low, inner.high);
    for (std::size_t i = 0; i < 16; ++i) hn::Store(select8(is_six, six.step(of_six, i), eight.step(of_eight, i)), D8(), out.step[i]);
    hn::Store(select8(is_six, inner.low, line.low), D8(), out.low);
    hn::Store(select8(is_six, inner.high, line.high), D8(), out.high);
    hn::Store(is_six, D8(), out.six);
    return out;
}

template <bool is_signed>
void write_part(const Codes& codes, std::size_t lane, std::byte* out) {
    const bool is_six = codes.six[lane] != 0, flat = codes.low[lane] == codes.high[lane];
    // From steps to indices: the ends come first. A line of eight has the high one at 0.
    static constexpr std::array<std::uint8_t, 8> of_six = {0, 2, 3, 4, 5, 1, 6, 7}, of_eight = {1, 7, 6, 5, 4, 3, 2, 0},
                                                 of_flat = {0, 0, 0, 0, 0, 0, 6, 7};
    const auto& index = flat ? of_flat : is_six ? of_six : of_eight;
    std::uint64_t indices = 0;
    for (std::size_t i = 0; i < 16; ++i) indices |= std::uint64_t{index[codes.step[i][lane]]} << (3 * i);
    const auto code = [](std::uint8_t v) { return static_cast<std::byte>(is_signed ? v - 128 : v); };
    out[0] = code(is_six ? codes.low[lane] : codes.high[lane]);
    out[1] = code(is_six ? codes.high[lane] : codes.low[lane]);
    store_uint(out + 2, indices, 6, ByteOrder::little);
}

}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif

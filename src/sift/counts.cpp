// Counting through bytes, 16 at a time.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "sift/counts.cpp"
#include <hwy/foreach_target.h>
//
#include <hwy/highway.h>

#include <cstdlib>

#include "sift/cells.h"
#include "sift/windows.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;
namespace {

#if HWY_TARGET == HWY_SCALAR
using D8 = hn::FixedTag<std::uint8_t, 1>;
using D16 = hn::FixedTag<std::uint16_t, 1>;
#else
using D8 = hn::FixedTag<std::uint8_t, 16>;
using D16 = hn::FixedTag<std::uint16_t, 8>;
#endif
using D64 = hn::FixedTag<std::uint64_t, HWY_TARGET == HWY_SCALAR ? 1 : 2>;
using V8 = hn::Vec<D8>;

#if HWY_TARGET == HWY_SCALAR
// Where there are no vectors; no test comes here on a machine that has them.
std::uint64_t apart_simd(const std::uint8_t* a, const std::uint8_t* b, std::size_t count) {
    std::uint64_t sum = 0;
    for (std::size_t i = 0; i < count; ++i) sum += static_cast<unsigned>(std::abs(int{a[i]} - int{b[i]}));
    return sum;
}

WindowStats stats_simd(const std::byte* bytes) {
    WindowStats out;
    const auto* data = reinterpret_cast<const std::uint8_t*>(bytes);
    std::array<std::uint64_t, 4> step{};
    std::array<std::uint64_t, 2> step2{};
    for (std::size_t i = 0; i < window_bytes; ++i) {
        const auto lane = i % 16;
        const unsigned v = data[i];
        const auto to = [&](std::size_t lag) { return static_cast<unsigned>(std::abs(int{data[i]} - int{data[i + lag]})); };
        out.step8[lane] = static_cast<std::uint16_t>(out.step8[lane] + to(8));
        out.step16[lane] = static_cast<std::uint16_t>(out.step16[lane] + to(16));
        for (std::size_t lag = 1; lag <= 4; ++lag) step[lag - 1] += to(lag);
        step2[i % 2] += to(2);
        out.equal = static_cast<std::uint16_t>(out.equal + (data[i] == data[i + 1] && v > 0));
        out.equal8 = static_cast<std::uint16_t>(out.equal8 + (data[i] == data[i + 8] && v > 0));
        out.equal16 = static_cast<std::uint16_t>(out.equal16 + (data[i] == data[i + 16] && v > 0));
        out.zeros = static_cast<std::uint16_t>(out.zeros + (v == 0));
        out.no_text = static_cast<std::uint16_t>(out.no_text + (v < 9 || v >= 127));
        out.bc7_usual[lane] = static_cast<std::uint8_t>(
            out.bc7_usual[lane] + ((v & 3) == 2 || (v & 15) == 8 || (v & 31) == 16 || (v & 63) == 32 || (v & 127) == 64));
        out.bc7_rare[lane] = static_cast<std::uint8_t>(out.bc7_rare[lane] + ((v & 1) == 1 || (v & 127) == 0));
        out.bc6h_usual[lane] =
            static_cast<std::uint8_t>(out.bc6h_usual[lane] + ((v & 31) == 3 || (v & 31) == 7 || (v & 31) == 11 || (v & 31) == 15));
    }
    for (std::size_t i = 0; i < 4; ++i) out.step[i] = static_cast<std::uint16_t>(step[i] * 64 / window_bytes);
    for (std::size_t i = 0; i < 2; ++i) out.step2[i] = static_cast<std::uint16_t>(step2[i] * 128 / window_bytes);
    return out;
}

#else

HWY_INLINE V8 at(const std::byte* p) { return hn::LoadU(D8(), reinterpret_cast<const std::uint8_t*>(p)); }
HWY_INLINE V8 apart(V8 a, V8 b) { return hn::Sub(hn::Max(a, b), hn::Min(a, b)); }
HWY_INLINE V8 one_where(hn::Mask<D8> mask) { return hn::And(hn::VecFromMask(D8(), mask), hn::Set(D8(), 1)); }
HWY_INLINE hn::Mask<D8> is(V8 v, unsigned mask, unsigned value) {
    return hn::Eq(hn::And(v, hn::Set(D8(), static_cast<std::uint8_t>(mask))), hn::Set(D8(), static_cast<std::uint8_t>(value)));
}
HWY_INLINE std::uint64_t total(hn::Vec<D64> v) {
    alignas(16) std::uint64_t lanes[2];
    hn::Store(v, D64(), lanes);
    return lanes[0] + lanes[1];
}

std::uint64_t apart_simd(const std::uint8_t* a, const std::uint8_t* b, std::size_t count) {
    auto sum = hn::Zero(D64());
    std::size_t i = 0;
    for (; i + 16 <= count; i += 16) sum = hn::Add(sum, hn::SumsOf8(apart(hn::LoadU(D8(), a + i), hn::LoadU(D8(), b + i))));
    auto out = total(sum);
    for (; i < count; ++i) out += static_cast<unsigned>(std::abs(int{a[i]} - int{b[i]}));
    return out;
}

/// Adds bytes to sums lane by lane.
HWY_INLINE void add(hn::Vec<D16>& low, hn::Vec<D16>& high, V8 v) {
    low = hn::Add(low, hn::PromoteTo(D16(), hn::LowerHalf(v)));
    high = hn::Add(high, hn::PromoteTo(D16(), hn::UpperHalf(hn::Half<D8>(), v)));
}

WindowStats stats_simd(const std::byte* data) {
    WindowStats out;
    auto low8 = hn::Zero(D16()), high8 = low8, low16 = low8, high16 = low8;
    auto s1 = hn::Zero(D64()), s2 = s1, s2_even = s1, s3 = s1, s4 = s1;
    auto equal = hn::Zero(D8()), equal8 = equal, equal16 = equal, zeros = equal, no_text = equal, usual = equal, rare = equal,
         usual6 = equal;
    const auto even = hn::BitCast(D8(), hn::Set(D16(), 0x00FF));
    for (std::size_t i = 0; i < window_bytes; i += 16) {
        const auto v = at(data + i), next = at(data + i + 1);
        const auto next8 = at(data + i + 8), next16 = at(data + i + 16);
        add(low8, high8, apart(v, next8));
        add(low16, high16, apart(v, next16));
        s1 = hn::Add(s1, hn::SumsOf8(apart(v, next)));
        const auto two = apart(v, at(data + i + 2));
        s2 = hn::Add(s2, hn::SumsOf8(two));
        s2_even = hn::Add(s2_even, hn::SumsOf8(hn::And(two, even)));
        s3 = hn::Add(s3, hn::SumsOf8(apart(v, at(data + i + 3))));
        s4 = hn::Add(s4, hn::SumsOf8(apart(v, at(data + i + 4))));
        const auto zero = hn::Eq(v, hn::Zero(D8()));
        zeros = hn::Add(zeros, one_where(zero));
        equal8 = hn::Add(equal8, hn::IfThenZeroElse(zero, one_where(hn::Eq(v, next8))));
        equal16 = hn::Add(equal16, hn::IfThenZeroElse(zero, one_where(hn::Eq(v, next16))));
        equal = hn::Add(equal, hn::IfThenZeroElse(zero, one_where(hn::Eq(v, next))));
        // 9 to 126 are text; less 9 the others are 118 and more.
        no_text =
            hn::Add(no_text, one_where(hn::Eq(hn::Max(hn::Sub(v, hn::Set(D8(), 9)), hn::Set(D8(), 118)), hn::Sub(v, hn::Set(D8(), 9)))));
        // A BC7 block's mode is the number of zeros before its lowest one; modes 1, 3 to 6 are what encoders mostly write, mode 0 and no
        // mode at all make half of all other bytes.
        const auto mode = hn::Or(hn::Or(is(v, 3, 2), is(v, 15, 8)), hn::Or(is(v, 31, 16), hn::Or(is(v, 63, 32), is(v, 127, 64))));
        usual = hn::Add(usual, one_where(mode));
        rare = hn::Add(rare, one_where(hn::Or(is(v, 1, 1), is(v, 127, 0))));
        // BC6H: modes 00011, 00111, 01011, 01111 have one region.
        usual6 = hn::Add(usual6, one_where(is(v, 0x13, 3)));
    }
    hn::StoreU(low8, D16(), out.step8.data());
    hn::StoreU(high8, D16(), out.step8.data() + 8);
    hn::StoreU(low16, D16(), out.step16.data());
    hn::StoreU(high16, D16(), out.step16.data() + 8);
    const auto scaled = [](std::uint64_t sum, std::size_t count) { return static_cast<std::uint16_t>(sum * 64 / count); };
    const auto all2 = total(s2), even2 = total(s2_even);
    out.step = {scaled(total(s1), window_bytes), scaled(all2, window_bytes), scaled(total(s3), window_bytes),
                scaled(total(s4), window_bytes)};
    out.step2 = {scaled(even2, window_bytes / 2), scaled(all2 - even2, window_bytes / 2)};
    out.equal = static_cast<std::uint16_t>(total(hn::SumsOf8(equal)));
    out.equal8 = static_cast<std::uint16_t>(total(hn::SumsOf8(equal8)));
    out.equal16 = static_cast<std::uint16_t>(total(hn::SumsOf8(equal16)));
    out.zeros = static_cast<std::uint16_t>(total(hn::SumsOf8(zeros)));
    out.no_text = static_cast<std::uint16_t>(total(hn::SumsOf8(no_text)));
    hn::StoreU(usual, D8(), out.bc7_usual.data());
    hn::StoreU(rare, D8(), out.bc7_rare.data());
    hn::StoreU(usual6, D8(), out.bc6h_usual.data());
    return out;
}
#endif

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace skivet {
namespace {
HWY_EXPORT(apart_simd);
HWY_EXPORT(stats_simd);
}  // namespace

std::uint64_t apart(const std::uint8_t* a, const std::uint8_t* b, std::size_t count) {
    return HWY_DYNAMIC_DISPATCH(apart_simd)(a, b, count);
}
WindowStats window_stats(const std::byte* data) { return HWY_DYNAMIC_DISPATCH(stats_simd)(data); }
}  // namespace skivet
#endif

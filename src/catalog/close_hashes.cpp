// A lane is a hash. Whole numbers, so every instruction set gives the same result.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "catalog/close_hashes.cpp"
#include <hwy/foreach_target.h>
//
#include <hwy/highway.h>

#include "catalog/close_hashes.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;
namespace {

std::uint64_t close_hashes(std::uint64_t own_low, std::uint64_t own_high, const std::uint64_t* low, const std::uint64_t* high,
                           std::size_t count, unsigned most) {
    const hn::CappedTag<std::uint64_t, 8> d;
    const std::size_t n = hn::Lanes(d);
    const auto a = hn::Set(d, own_low), b = hn::Set(d, own_high), bound = hn::Set(d, std::uint64_t{most} + 1);
    std::uint64_t out = 0;
    std::size_t k = 0;
    for (; k + n <= count; k += n) {
        const auto differ =
            hn::Add(hn::PopulationCount(hn::Xor(a, hn::LoadU(d, low + k))), hn::PopulationCount(hn::Xor(b, hn::LoadU(d, high + k))));
        std::uint8_t bits[8] = {};
        hn::StoreMaskBits(d, hn::Lt(differ, bound), bits);
        out |= std::uint64_t{bits[0]} << k;  // those of lanes that are not there are zero
    }
    const hn::CappedTag<std::uint64_t, 1> one;
    for (; k < count; ++k) {
        const auto differ = hn::Add(hn::PopulationCount(hn::Xor(hn::Set(one, own_low), hn::LoadU(one, low + k))),
                                    hn::PopulationCount(hn::Xor(hn::Set(one, own_high), hn::LoadU(one, high + k))));
        out |= std::uint64_t{hn::GetLane(differ) <= most} << k;
    }
    return out;
}

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace skivet {
namespace {
HWY_EXPORT(close_hashes);
}  // namespace

std::uint64_t close_hashes(std::uint64_t own_low, std::uint64_t own_high, const std::uint64_t* low, const std::uint64_t* high,
                           std::size_t count, unsigned most) {
    return HWY_DYNAMIC_DISPATCH(close_hashes)(own_low, own_high, low, high, count, most);
}

}  // namespace skivet
#endif

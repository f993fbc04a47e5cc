// A lane is a window: products are added up without ever being shuffled, and only the last maximum goes across lanes. Whole numbers, so
// every instruction set gives the same result.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "catalog/window_scan.cpp"
#include <hwy/foreach_target.h>
//
#include <hwy/highway.h>

#include "catalog/window_scan.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;
namespace {

void scan(const std::int8_t* windows, std::size_t count, const std::int8_t* queries, std::int16_t* best) {
    const hn::CappedTag<std::int16_t, scan_windows> d;
    const hn::Rebind<std::int8_t, decltype(d)> narrow;
    const std::size_t n = hn::Lanes(d);
    for (std::size_t t = 0; t < count; ++t, windows += scan_windows * scan_cells) {
        auto most = hn::Zero(d);
        for (std::size_t w = 0; w < scan_windows; w += n)
            for (std::size_t turn = 0; turn < scan_turns; turn += 4) {
                const auto* q = queries + turn * scan_cells;
                auto a = hn::Zero(d), b = a, c = a, e = a;
                for (std::size_t k = 0; k < scan_cells; ++k) {
                    const auto v = hn::PromoteTo(d, hn::LoadU(narrow, windows + k * scan_windows + w));
                    a = hn::Add(a, hn::Mul(v, hn::Set(d, q[k])));
                    b = hn::Add(b, hn::Mul(v, hn::Set(d, q[scan_cells + k])));
                    c = hn::Add(c, hn::Mul(v, hn::Set(d, q[2 * scan_cells + k])));
                    e = hn::Add(e, hn::Mul(v, hn::Set(d, q[3 * scan_cells + k])));
                }
                most = hn::Max(most, hn::Max(hn::Max(a, b), hn::Max(c, e)));
            }
        best[t] = hn::GetLane(hn::MaxOfLanes(d, most));
    }
}

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace skivet {
namespace {
HWY_EXPORT(scan);
}  // namespace

void scan(const std::int8_t* windows, std::size_t count, const std::int8_t* queries, std::int16_t* best) {
    HWY_DYNAMIC_DISPATCH(scan)(windows, count, queries, best);
}

}  // namespace skivet
#endif

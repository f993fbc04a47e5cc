// Both loops do the same operations in the same order for every vector width: the first is element by element, the second works on one
// texel's four channels in a vector of just that size.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "pixel/resample_rows.cpp"
#include <hwy/foreach_target.h>
//
#include <cstring>
#include <hwy/highway.h>

#include "pixel/resample_rows.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;
namespace {

void mix_rows(const float* const* rows, const float* weights, std::size_t taps, float* out, std::size_t count) {
    const hn::CappedTag<float, 16> d;
    const std::size_t n = hn::Lanes(d);
    std::size_t i = 0;
    for (; i + 2 * n <= count; i += 2 * n) {
        auto w = hn::Set(d, weights[0]);
        auto a = hn::Mul(w, hn::LoadU(d, rows[0] + i)), b = hn::Mul(w, hn::LoadU(d, rows[0] + i + n));
        for (std::size_t k = 1; k < taps; ++k) {
            w = hn::Set(d, weights[k]);
            a = hn::Add(a, hn::Mul(w, hn::LoadU(d, rows[k] + i)));
            b = hn::Add(b, hn::Mul(w, hn::LoadU(d, rows[k] + i + n)));
        }
        hn::StoreU(a, d, out + i);
        hn::StoreU(b, d, out + i + n);
    }
    for (; i < count; ++i) {
        float sum = weights[0] * rows[0][i];
        for (std::size_t k = 1; k < taps; ++k) sum += weights[k] * rows[k][i];
        out[i] = sum;
    }
}

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace skivet {
namespace {
HWY_EXPORT(mix_rows);
}  // namespace

void mix_rows(const float* const* rows, const float* weights, std::size_t taps, float* out, std::size_t count) {
    HWY_DYNAMIC_DISPATCH(mix_rows)(rows, weights, taps, out, count);
}

void mix_texels(const TexelF* row, std::int64_t start, const Taps* taps, std::size_t count, TexelF* out) {
    using Four [[gnu::vector_size(16)]] = float;
    const auto load = [](const TexelF& t) {
        Four v;
        std::memcpy(&v, t.data(), sizeof v);
        return v;
    };
    const auto store = [](const Four& v, TexelF& t) { std::memcpy(t.data(), &v, sizeof v); };
    std::size_t i = 0;
    // Four sums at a time, so that additions need not wait for each other.
    for (; i + 4 <= count; i += 4) {
        const auto size = taps[i].weights.size();
        if (taps[i + 1].weights.size() != size || taps[i + 2].weights.size() != size || taps[i + 3].weights.size() != size) break;
        const float *wa = taps[i].weights.data(), *wb = taps[i + 1].weights.data(), *wc = taps[i + 2].weights.data(), *wd = taps[i + 3].weights.data();
        const TexelF *pa = row + (taps[i].first - start), *pb = row + (taps[i + 1].first - start), *pc = row + (taps[i + 2].first - start),
                     *pd = row + (taps[i + 3].first - start);
        Four a{}, b{}, c{}, d{};
        for (std::size_t k = 0; k < size; ++k) {
            a += wa[k] * load(pa[k]);
            b += wb[k] * load(pb[k]);
            c += wc[k] * load(pc[k]);
            d += wd[k] * load(pd[k]);
        }
        store(a, out[i]);
        store(b, out[i + 1]);
        store(c, out[i + 2]);
        store(d, out[i + 3]);
    }
    for (; i < count; ++i) {
        Four sum{};
        for (std::size_t k = 0; k < taps[i].weights.size(); ++k) sum += taps[i].weights[k] * load(row[static_cast<std::size_t>(taps[i].first - start) + k]);
        store(sum, out[i]);
    }
}
}  // namespace skivet
#endif

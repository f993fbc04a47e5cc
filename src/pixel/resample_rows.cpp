// Both loops do the same operations in the same order for every vector width: the first is element by element, the second works on one
// texel's four channels in a vector of just that size.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "pixel/resample_rows.cpp"
#include <hwy/foreach_target.h>
//
#include <hwy/highway.h>
#include <array>
#include <cstring>

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

void mix_texels(const TexelF* row, std::int64_t start, const Taps* taps, std::size_t count, bool same_weights, TexelF* out) {
    using Four [[gnu::vector_size(16)]] = float;
    const auto load = [](const TexelF& t) {
        Four v;
        std::memcpy(&v, t.data(), sizeof v);
        return v;
    };
    const auto store = [](const Four& v, TexelF& t) { std::memcpy(t.data(), &v, sizeof v); };
    std::size_t i = 0;
    // Eight sums at a time where all weights are the same, so that additions need not wait for each other and a weight is loaded once.
    for (; same_weights && i + 8 <= count; i += 8) {
        const auto& weights = taps[i].weights;
        std::array<const TexelF*, 8> from;
        for (std::size_t j = 0; j < 8; ++j) from[j] = row + (taps[i + j].first - start);
        std::array<Four, 8> sum{};
        for (std::size_t k = 0; k < weights.size(); ++k) {
            const Four w = weights[k] - Four{};
            for (std::size_t j = 0; j < 8; ++j) sum[j] += w * load(from[j][k]);
        }
        for (std::size_t j = 0; j < 8; ++j) store(sum[j], out[i + j]);
    }
    for (; i < count; ++i) {
        Four sum{};
        for (std::size_t k = 0; k < taps[i].weights.size(); ++k)
            sum += taps[i].weights[k] * load(row[static_cast<std::size_t>(taps[i].first - start) + k]);
        store(sum, out[i]);
    }
}
}  // namespace skivet
#endif

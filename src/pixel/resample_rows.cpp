// The same operations in the same order for every vector width: element by element.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "pixel/resample_rows.cpp"
#include <hwy/foreach_target.h>
//
#include <hwy/highway.h>
#include <array>
#include <vector>

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

void mix_texels(const TexelF* row, std::int64_t start, const Taps* taps, std::size_t count, bool same_weights, TexelF* out,
                TexelsApart& apart) {
    if (same_weights && count > 1 && taps[1].first - taps[0].first == 2) {
        // Halving with the same weights everywhere: every second texel apart, and it is rows that are mixed, as wide as vectors are.
        const auto& weights = taps[0].weights;
        const auto* from = row + (taps[0].first - start);
        const std::size_t half = count + weights.size() / 2, texels = 2 * (count - 1) + weights.size();
        for (auto& one : apart) one.resize(half + 1);
        for (std::size_t i = 0; i < texels; ++i) apart[i % 2][i / 2] = from[i];
        std::vector<const float*> rows;
        for (std::size_t k = 0; k < weights.size(); ++k) rows.push_back(apart[k % 2][k / 2].data());
        return mix_rows(rows.data(), weights.data(), rows.size(), out->data(), count * 4);
    }
    for (std::size_t i = 0; i < count; ++i) {
        TexelF sum{};
        for (std::size_t k = 0; k < taps[i].weights.size(); ++k) {
            const auto& t = row[static_cast<std::size_t>(taps[i].first - start) + k];
            for (std::size_t c = 0; c < 4; ++c) sum[c] += taps[i].weights[k] * t[c];
        }
        out[i] = sum;
    }
}
}  // namespace skivet
#endif

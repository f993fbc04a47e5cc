#pragma once
// The inner loops of resampling, one build for each SIMD target.
#include <cstddef>

#include "pixel/mips.h"

namespace skivet {

/// out[i] = Σ weights[k] rows[k][i], k from 0 up; `count` floats.
void mix_rows(const float* const* rows, const float* weights, std::size_t taps, float* out, std::size_t count);
/// Room that mix_texels uses from one row to the next.
using TexelsApart = std::array<std::vector<TexelF>, 2>;
/// out[i] = Σ weights[k] row[first + k - start], for the texels of `taps`. `same_weights`: all taps have the same.
void mix_texels(const TexelF* row, std::int64_t start, const Taps* taps, std::size_t count, bool same_weights, TexelF* out,
                TexelsApart& apart);

}  // namespace skivet

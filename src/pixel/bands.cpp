#include "pixel/bands.h"

#include <tbb/parallel_for.h>

namespace skivet {

void each_band(std::uint32_t rows, const std::function<void(std::uint32_t, std::uint32_t)>& work) {
    constexpr std::uint32_t enough = 64;  // a smaller one is not worth a task
    tbb::parallel_for(tbb::blocked_range<std::uint32_t>(0, rows, enough), [&](const auto& band) { work(band.begin(), band.end()); });
}

}  // namespace skivet

#pragma once
#include <cstdint>
#include <functional>

namespace skivet {

/// Calls `work(from, to)` for bands of rows that together are [0, rows), several at a time where there are cores for it.
void each_band(std::uint32_t rows, const std::function<void(std::uint32_t from, std::uint32_t to)>& work);

}  // namespace skivet

#pragma once
// The inner loop of the search by picture: 8 turned queries against 64 windows of one texture.
#include <cstddef>
#include <cstdint>

namespace skivet {

inline constexpr std::size_t scan_windows = 64, scan_cells = 16, scan_turns = 8;

/// For each of `count` textures the largest dot product of any query with any of its windows. `windows` holds scan_cells rows of
/// scan_windows values a texture (cell by cell, so that a lane is a window); `queries` scan_cells values a turn. Values lie within ±31, so
/// that 16 products fit 16 bits.
void scan(const std::int8_t* windows, std::size_t count, const std::int8_t* queries, std::int16_t* best);

}  // namespace skivet

#pragma once
// The inner loop of looking for twins: one hash of 128 bits against those that follow it.
#include <cstddef>
#include <cstdint>

namespace skivet {

inline constexpr std::size_t most_compared = 64;

/// Bit k of the result: the hash at k (of `count` ≤ most_compared; its halves are low[k] and high[k]) differs from the given one in at most
/// `most` bits.
[[nodiscard]] std::uint64_t close_hashes(std::uint64_t own_low, std::uint64_t own_high, const std::uint64_t* low, const std::uint64_t* high,
                                         std::size_t count, unsigned most);

}  // namespace skivet

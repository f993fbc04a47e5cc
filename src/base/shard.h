#pragma once
// Work that several machines share without speaking to each other: each takes its part of the same list.
#include <cstdint>
#include <span>
#include <string_view>
#include <vector>

#include "base/result.h"

namespace skivet {

/// The `number`-th of `of` parts, counted from 1.
struct Shard {
    std::uint32_t number = 1, of = 1;
    [[nodiscard]] bool is_all() const { return of == 1; }
};

/// "2/8". Error `usage` for anything else; at most 10,000 parts.
[[nodiscard]] Result<Shard> parse_shard(std::string_view text);

/// Which of the things that take so many bytes are in the part, rising. They depend on the sizes alone, so they are the same everywhere,
/// and each is in exactly one part. The largest goes first, to the part that has the fewest bytes so far; so the largest part has at most
/// 4/3 - 1/(3 of) times what it has at best (R. L. Graham, Bounds on Multiprocessing Timing Anomalies, SIAM J. Appl. Math. 17, 1969).
[[nodiscard]] std::vector<std::size_t> part_of(std::span<const std::uint64_t> bytes, const Shard& shard);

}  // namespace skivet

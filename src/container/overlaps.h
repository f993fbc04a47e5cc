#pragma once
#include <cstdint>
#include <span>
#include <vector>

#include "base/limits.h"
#include "base/result.h"

namespace skivet {

/// Where an entry lies, and what it says to unpack to. Bytes.
struct EntryClaim {
    static constexpr std::uint64_t most = 1ull << 40;  ///< what counts of `unpacked`
    std::uint64_t at = 0, stored = 0, unpacked = 0;
};

struct Overlaps {
    std::vector<std::size_t> over;  ///< entries that begin before one that stands further to the front ends, by where they lie
    bool too_much = false;          ///< together the entries say to unpack to more than a file of this size can hold
};
/// Whether a file of that size can hold what unpacks to so much: as much as deflate may make of it, where no byte serves twice.
[[nodiscard]] constexpr bool can_hold(std::uint64_t file_size, std::uint64_t unpacked, const ReadLimits& limits) {
    return unpacked <= limits.free_claim + limits.ratio * file_size;
}
/// Entries whose bytes are others', too: some programs write the same content once for several names. A small file can be made to unpack to
/// anything that way; where it does, only the first entry at a place may be read.
[[nodiscard]] Overlaps find_overlaps(std::span<const EntryClaim> entries, std::uint64_t file_size, const ReadLimits& limits);
/// `limit`, of one of the other entries at a place.
[[nodiscard]] tl::unexpected<Error> refuse_repeat(std::uint64_t at);

}  // namespace skivet

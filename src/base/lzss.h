#pragma once
// LZSS as a sheet describes it: flag bits tell single bytes from pairs of a place in a window and a length (J. A. Storer, T. G. Szymanski,
// Journal of the ACM 29, 1982). No two programs that use it agree on the numbers, so all of them are parameters.
#include <optional>
#include <vector>

#include "base/bytes.h"

namespace skivet {

struct LzssSpec {
    /// A stretch of bits of a pair: its lowest bit and how many.
    struct Bits {
        unsigned at = 0, count = 0;
    };
    std::uint32_t window = 4096;  ///< bytes; a power of two
    std::uint32_t shortest = 3;   ///< length that is stored as 0
    std::uint32_t start = 0;      ///< place in the window of the first byte; the usual one is window - longest
    std::byte fill{0};            ///< what the window holds before it
    bool back = false;            ///< a place counts back from the present one (1: the byte before); otherwise from the window's beginning
    bool literal = true;          ///< the flag bit of a single byte is 1
    bool lowest_first = true;     ///< flag bits are taken from the lowest on
    unsigned pair_bytes = 2;      ///< 1 to 4
    bool big = false;             ///< byte order of a pair
    std::vector<Bits> place = {{0, 8}, {12, 4}};  ///< of a pair, its lowest bits first
    std::vector<Bits> length = {{8, 4}};

    [[nodiscard]] std::uint32_t longest() const;
};

/// What does not hold of the numbers; empty when they can be worked with.
[[nodiscard]] std::string wrong_in(const LzssSpec& spec);

/// Unpacks to exactly `expected` bytes, or, without it, to the end of the input. Error `damaged` when the input ends before, `limit` for
/// more than `most` bytes.
[[nodiscard]] Result<Bytes> unpack_lzss(const LzssSpec& spec, ByteSpan packed, std::optional<std::uint64_t> expected, std::uint64_t most);
/// Packs with the longest match at each place.
[[nodiscard]] Bytes pack_lzss(const LzssSpec& spec, ByteSpan data);

}  // namespace skivet

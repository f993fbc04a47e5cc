#pragma once
// Run lengths as a sheet describes them: a control byte says, by the range it lies in, what follows.
#include <optional>
#include <vector>

#include "base/bytes.h"

namespace skivet {

struct RunsSpec {
    enum class Does {
        copy,     ///< so many elements follow as they are
        repeat,   ///< one element follows and stands so many times
        itself,   ///< the control byte is the element (of one byte)
        nothing,  ///< no element
    };
    /// Control bytes `from` to `to`. The count is `count` for the first of them and `step` more for each that follows.
    struct Range {
        unsigned from = 0, to = 0;
        Does does = Does::copy;
        std::uint32_t count = 1;
        int step = 1;  ///< 1, 0 or -1
    };
    unsigned unit = 1;  ///< bytes of an element, 1 to 16
    std::vector<Range> ranges;
};

/// What does not hold of the ranges; empty when every content can be written and read back with them.
[[nodiscard]] std::string wrong_in(const RunsSpec& spec);
/// Unpacks to exactly `expected` bytes, or, without it, to the end of the input. Errors as unpack_lzss.
[[nodiscard]] Result<Bytes> unpack_runs(const RunsSpec& spec, ByteSpan packed, std::optional<std::uint64_t> expected, std::uint64_t most);
/// Error `unfit` when the data is no whole number of elements.
[[nodiscard]] Result<Bytes> pack_runs(const RunsSpec& spec, ByteSpan data);

}  // namespace skivet

#pragma once
// Work on stretches of a file of which each depends on what was found in those before it that it meets: done at the same time wherever that
// makes no difference.
#include <cstdint>
#include <map>
#include <span>
#include <utility>
#include <vector>

namespace skivet {

/// Bytes [from, to).
struct Span {
    std::uint64_t from = 0, to = 0;
};

/// A set of bytes.
class Covered {
public:
    void add(Span span);
    /// The first position from `at` on that is not in it.
    [[nodiscard]] std::uint64_t next_free(std::uint64_t at) const;
    /// The first position from `at` on that is in it, `otherwise` where none is.
    [[nodiscard]] std::uint64_t next_covered(std::uint64_t at, std::uint64_t otherwise) const;

private:
    std::map<std::uint64_t, std::uint64_t> spans_;  ///< end by beginning; none touches another
};

/// Numbers of the spans in waves: whatever comes within `reach` bytes of another one is in a later wave than that if it comes later. Done
/// wave by wave, all of a wave at once, everybody meets what it would meet if they were done in their order. Takes about the logarithm of
/// their number for each.
[[nodiscard]] std::vector<std::vector<std::uint32_t>> waves_of(std::span<const Span> spans, std::uint64_t reach);

}  // namespace skivet

#include "container/overlaps.h"

#include <algorithm>
#include <numeric>

namespace skivet {

Overlaps find_overlaps(std::span<const EntryClaim> entries, std::uint64_t file_size, const ReadLimits& limits) {
    std::vector<std::size_t> order(entries.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    const auto before = [&](std::size_t a, std::size_t b) { return std::pair(entries[a].at, a) < std::pair(entries[b].at, b); };
    if (!std::is_sorted(order.begin(), order.end(), before)) std::sort(order.begin(), order.end(), before);
    Overlaps out;
    std::uint64_t end = 0, all = 0;  // of 4 million entries at most: no sum passes the 64 bits
    for (const auto i : order) {
        if (entries[i].at < end) out.over.push_back(i);
        end = std::max(end, entries[i].at + std::min(entries[i].stored, file_size));
        all += std::min(entries[i].unpacked, EntryClaim::most);
    }
    // Without those that lie over others the same bytes could not become so many.
    out.too_much = !out.over.empty() && !can_hold(file_size, all, limits);
    return out;
}

tl::unexpected<Error> refuse_repeat(std::uint64_t at) {
    return fail_at(ErrorCode::limit, at,
                   "it lies over bytes of other entries, and together they would unpack to more than the file can hold",
                   "The first entry there can be read");
}

}  // namespace skivet

#include "base/shard.h"

#include <algorithm>
#include <charconv>
#include <numeric>
#include <queue>
#include <tuple>

#include "base/phrase.h"

namespace skivet {

Result<Shard> parse_shard(std::string_view text) {
    Shard out;
    const auto slash = text.find('/');
    const auto number = [](std::string_view digits, std::uint32_t& value) {
        const auto [end, code] = std::from_chars(digits.data(), digits.data() + digits.size(), value);
        return code == std::errc() && end == digits.data() + digits.size();
    };
    if (slash == std::string_view::npos || !number(text.substr(0, slash), out.number) || !number(text.substr(slash + 1), out.of) ||
        out.number < 1 || out.number > out.of || out.of > 10'000)
        return fail(ErrorCode::usage, phrase("\"{}\" is no part of a whole", text), "Write K/N, from 1/N to N/N, with N of at most 10,000");
    return out;
}

std::vector<std::size_t> part_of(std::span<const std::uint64_t> bytes, const Shard& shard) {
    std::vector<std::size_t> order(bytes.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    if (shard.is_all()) return order;
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return bytes[a] > bytes[b]; });
    // The part with the fewest bytes; of equal ones that with the fewest things, then the first.
    struct Part {
        std::uint64_t bytes;
        std::size_t things;
        std::uint32_t number;
        bool operator>(const Part& other) const {
            return std::tie(bytes, things, number) > std::tie(other.bytes, other.things, other.number);
        }
    };
    std::priority_queue<Part, std::vector<Part>, std::greater<>> parts;
    for (std::uint32_t n = 1; n <= shard.of; ++n) parts.push({0, 0, n});
    std::vector<std::size_t> out;
    for (const auto i : order) {
        auto least = parts.top();
        parts.pop();
        if (least.number == shard.number) out.push_back(i);
        least.bytes += bytes[i];
        ++least.things;
        parts.push(least);
    }
    std::sort(out.begin(), out.end());
    return out;
}

}  // namespace skivet

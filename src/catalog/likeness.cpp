// How two textures belong together, and which of very many do.
#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>
#include <algorithm>
#include <atomic>
#include <bit>
#include <cmath>

#include "base/chunks.h"
#include "catalog/alike.h"
#include "catalog/close_hashes.h"

namespace skivet {

std::string_view name_of(Likeness likeness) {
    switch (likeness) {
        case Likeness::same: return "same picture";
        case Likeness::smaller: return "smaller copy";
        case Likeness::larger: return "larger copy";
        case Likeness::variant: return "other colors";
        default: return "";
    }
}

namespace {

constexpr std::size_t most_neighbors = 48;  // among many that share a hash, so that a thousand black pictures are not a million pairs
// Standard deviation over 32×32 means, in steps of 255, below which compression may have made a pattern: two textures are not called the
// same for it.
constexpr float plain = 1.5f;
constexpr float same_pattern = 0.975f, same_shape = 0.9f;

/// Patterns, which may lie on the disk, are asked for only where the numbers leave it open. `least`: agreements below do not matter.
template <class PatternA, class PatternB>
Likeness likeness_of(const Comparable& a, const Comparable& b, float least, const PatternA& pattern_a, const PatternB& pattern_b) {
    if (!a.facts || !b.facts) return Likeness::none;
    const auto& f = *a.facts;
    const auto& g = *b.facts;
    if (f.level0 != 0 && f.level0 == g.level0) return Likeness::same;
    if (f.contrast < plain || g.contrast < plain) return Likeness::none;
    // Sides in the same proportion, but for rounding of small ones.
    const double proportion = static_cast<double>(a.width) * b.height / std::max(1.0, static_cast<double>(a.height) * b.width);
    if (proportion < 0.94 || proportion > 1.07) return Likeness::none;
    if (most_agreement(f, g) < least) return Likeness::none;
    const PicturePattern& p = pattern_a();
    const PicturePattern& q = pattern_b();
    const float pattern = pattern_agreement(p, q), color = std::max(mean_distance(f, g), color_distance(p, q));
    const float contrast = f.contrast / g.contrast;
    if (pattern >= same_pattern && color <= 24 && contrast > 0.85f && contrast < 1.18f && std::abs(f.mean[3] - g.mean[3]) <= 24)
        return a.width == b.width && a.height == b.height                              ? Likeness::same
               : std::uint64_t{b.width} * b.height < std::uint64_t{a.width} * a.height ? Likeness::smaller
                                                                                       : Likeness::larger;
    if (pattern >= same_shape && f.normals == NormalsIn::none && g.normals == NormalsIn::none && color > 24) return Likeness::variant;
    return Likeness::none;
}

}  // namespace

Likeness likeness(const Comparable& a, const Comparable& b) {
    return likeness_of(
        a, b, same_shape, [&] { return a.facts->pattern(); }, [&] { return b.facts->pattern(); });
}

std::vector<AlikeTexture> alike_to(std::span<const Comparable> all, std::size_t one) {
    std::vector<AlikeTexture> out;
    if (one >= all.size() || !all[one].facts) return out;
    const auto pattern = all[one].facts->pattern();
    std::vector<Likeness> found(all.size(), Likeness::none);
    tbb::parallel_for(tbb::blocked_range<std::size_t>(0, all.size(), 4096), [&](const auto& range) {
        for (auto i = range.begin(); i != range.end(); ++i)
            if (i != one)
                found[i] = likeness_of(
                    all[one], all[i], same_shape, [&]() -> auto& { return pattern; }, [&] { return all[i].facts->pattern(); });
    });
    for (std::size_t i = 0; i < all.size(); ++i)
        if (found[i] != Likeness::none) out.push_back({i, found[i]});
    std::stable_sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.likeness < b.likeness; });
    return out;
}

namespace {

/// Signs of 128 differences: each of 8×8 means against its right and its lower neighbor (wrapping).
struct Hash {
    std::uint64_t low = 0, high = 0;
    /// One of eight parts of 16 bits.
    [[nodiscard]] std::uint16_t part(std::size_t at) const { return static_cast<std::uint16_t>((at < 4 ? low : high) >> 16 * (at % 4)); }
};

Hash hash_of(const PictureNumbers& facts) {
    const auto& means = facts.coarse;
    Hash out;
    for (std::size_t bit = 0; bit < 128; ++bit) {
        const auto cell = bit / 2, x = cell % 8, y = cell / 8;
        const auto other = bit % 2 ? y * 8 + (x + 1) % 8 : (y + 1) % 8 * 8 + x;
        // A clear margin, so that a plain area gives the same bits whatever compression did to it.
        (bit < 64 ? out.low : out.high) |= std::uint64_t{means[cell] > means[other] + 1} << bit % 64;
    }
    return out;
}

/// Which share their level 0 bit for bit: for each the number of others.
std::vector<std::uint32_t> count_equal(std::span<const Comparable> all) {
    std::vector<std::pair<std::uint64_t, std::uint32_t>> exact;
    for (std::uint32_t i = 0; i < all.size(); ++i)
        if (all[i].facts && all[i].facts->level0 != 0) exact.emplace_back(all[i].facts->level0, i);
    std::sort(exact.begin(), exact.end());
    std::vector<std::uint32_t> counts(all.size());
    for (std::size_t from = 0, to = 0; from < exact.size(); from = to) {
        while (to < exact.size() && exact[to].first == exact[from].first) ++to;
        for (auto i = from; i < to; ++i) counts[exact[i].second] = static_cast<std::uint32_t>(to - from - 1);
    }
    return counts;
}

/// Those of `members`, which ascend, by one part of their hashes, and among equals by their numbers.
std::vector<std::uint32_t> ordered_by_part(std::span<const std::uint32_t> members, std::span<const Hash> hashes, std::size_t part) {
    std::vector<std::uint32_t> at(65537), out(members.size());
    for (const auto i : members) ++at[hashes[i].part(part) + 1u];
    for (std::size_t k = 1; k < at.size(); ++k) at[k] += at[k - 1];
    for (const auto i : members) out[at[hashes[i].part(part)]++] = i;
    return out;
}

}  // namespace

std::vector<std::uint32_t> count_twins(std::span<const Comparable> all) {
    auto counts = count_equal(all);
    std::vector<Hash> hashes(all.size());
    in_chunks(all.size(), [&](std::size_t begin, std::size_t end) {
        for (auto i = begin; i != end; ++i)
            if (all[i].facts) hashes[i] = hash_of(*all[i].facts);
    });
    std::vector<std::uint32_t> members;
    for (std::uint32_t i = 0; i < all.size(); ++i)
        if (all[i].facts && all[i].facts->contrast >= plain) members.push_back(i);
    std::vector<std::atomic<std::uint32_t>> more(all.size());
    std::vector<std::uint64_t> low(members.size()), high(members.size());
    for (std::size_t part = 0; part < 8; ++part) {
        const auto order = ordered_by_part(members, hashes, part);
        for (std::size_t i = 0; i < order.size(); ++i) low[i] = hashes[order[i]].low, high[i] = hashes[order[i]].high;
        // By the parts before alone, so that the result is the same however many threads there are.
        const std::vector<std::uint32_t> found(more.begin(), more.end());
        in_chunks(order.size(), [&](std::size_t begin, std::size_t end) {
            // Each of those that follow one another is met up to `most_neighbors` times.
            std::vector<std::pair<std::size_t, PicturePattern>> recent;
            const auto pattern = [&](std::size_t place) -> const PicturePattern& {
                if (recent.empty()) recent.assign(most_neighbors + 1, {order.size(), {}});
                auto& [held, value] = recent[place % recent.size()];
                if (held != place) value = all[order[place]].facts->pattern(), held = place;
                return value;
            };
            std::size_t same = begin;  // one behind the last with this part
            for (auto i = begin; i != end; ++i) {
                // Thousands in one part are plain there; what they share with a few neighbors is all that is asked, so that time grows with
                // their number only.
                const auto own = hashes[order[i]].part(part);
                const auto last = std::min(order.size(), i + 1 + most_neighbors);
                while (same < last && hashes[order[same]].part(part) == own) ++same;
                if (same <= i + 1) {
                    same = i + 1;
                    continue;
                }
                for (auto close = close_hashes(low[i], high[i], low.data() + i + 1, high.data() + i + 1, same - i - 1, 7); close != 0;
                     close &= close - 1) {
                    const auto j = i + 1 + static_cast<std::size_t>(std::countr_zero(close));
                    const auto a = order[i], b = order[j];
                    if (found[a] >= most_neighbors && found[b] >= most_neighbors) continue;
                    bool before = false;  // met in an earlier part
                    for (std::size_t q = 0; q < part; ++q) before = before || hashes[a].part(q) == hashes[b].part(q);
                    if (before || (all[a].facts->level0 != 0 && all[a].facts->level0 == all[b].facts->level0)) continue;  // counted already
                    const auto kind = likeness_of(
                        all[a], all[b], same_pattern, [&]() -> auto& { return pattern(i); }, [&]() -> auto& { return pattern(j); });
                    if (kind != Likeness::none && kind != Likeness::variant) ++more[a], ++more[b];
                }
            }
        });
    }
    for (std::size_t i = 0; i < counts.size(); ++i) counts[i] += more[i];
    return counts;
}

}  // namespace skivet

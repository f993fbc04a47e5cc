// How two textures belong together, and which of very many do.
#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>
#include <algorithm>
#include <atomic>
#include <cmath>
#include <unordered_map>

#include "catalog/alike.h"

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

std::vector<std::uint32_t> count_twins(std::span<const Comparable> all) {
    std::vector<std::uint32_t> counts(all.size());
    // Signs of 128 differences: each of 8×8 means against its right and its lower neighbor (wrapping).
    struct Hash {
        std::array<std::uint64_t, 2> halves{};
        [[nodiscard]] std::uint16_t part(std::size_t at) const { return static_cast<std::uint16_t>(halves[at / 4] >> 16 * (at % 4)); }
    };
    std::vector<Hash> hashes(all.size());
    tbb::parallel_for(tbb::blocked_range<std::size_t>(0, all.size(), 256), [&](const auto& range) {
        for (auto i = range.begin(); i != range.end(); ++i) {
            if (!all[i].facts) continue;
            const auto& means = all[i].facts->coarse;
            for (std::size_t bit = 0; bit < 128; ++bit) {
                const auto cell = bit / 2, x = cell % 8, y = cell / 8;
                const auto other = bit % 2 ? y * 8 + (x + 1) % 8 : (y + 1) % 8 * 8 + x;
                // A clear margin, so that a plain area gives the same bits whatever compression did to it.
                if (means[cell] > means[other] + 1) hashes[i].halves[bit / 64] |= 1ull << bit % 64;
            }
        }
    });
    // Bits that differ (H. S. Warren, Hacker's Delight, 2nd edition, section 5-1): not every processor we run on counts them by itself.
    const auto distance = [](const Hash& a, const Hash& b) {
        const auto nibbles = [](std::uint64_t x) {
            x -= x >> 1 & 0x5555'5555'5555'5555;
            return (x & 0x3333'3333'3333'3333) + (x >> 2 & 0x3333'3333'3333'3333);
        };
        auto sum = nibbles(a.halves[0] ^ b.halves[0]) + nibbles(a.halves[1] ^ b.halves[1]);
        sum = (sum & 0x0F0F'0F0F'0F0F'0F0F) + (sum >> 4 & 0x0F0F'0F0F'0F0F'0F0F);
        return sum * 0x0101'0101'0101'0101 >> 56;
    };
    std::unordered_map<std::uint64_t, std::vector<std::uint32_t>> exact;
    for (std::size_t i = 0; i < all.size(); ++i)
        if (all[i].facts && all[i].facts->level0 != 0) exact[all[i].facts->level0].push_back(static_cast<std::uint32_t>(i));
    for (const auto& [hash, members] : exact)
        if (members.size() > 1)
            for (const auto m : members) counts[m] += static_cast<std::uint32_t>(members.size() - 1);
    std::vector<std::uint32_t> order;
    for (std::size_t i = 0; i < all.size(); ++i)
        if (all[i].facts && all[i].facts->contrast >= plain) order.push_back(static_cast<std::uint32_t>(i));
    std::vector<std::atomic<std::uint32_t>> more(all.size());
    for (std::size_t part = 0; part < 8; ++part) {
        std::sort(order.begin(), order.end(), [&](auto a, auto b) {
            return hashes[a].part(part) != hashes[b].part(part) ? hashes[a].part(part) < hashes[b].part(part) : a < b;
        });
        std::vector<Hash> ordered(order.size());
        for (std::size_t i = 0; i < order.size(); ++i) ordered[i] = hashes[order[i]];
        tbb::parallel_for(tbb::blocked_range<std::size_t>(0, order.size(), 256), [&](const auto& range) {
            // Each of those that follow one another is met up to `most_neighbors` times.
            std::vector<std::pair<std::size_t, PicturePattern>> recent;
            const auto pattern = [&](std::size_t place) -> const PicturePattern& {
                if (recent.empty()) recent.assign(most_neighbors + 1, {order.size(), {}});
                auto& [held, value] = recent[place % recent.size()];
                if (held != place) value = all[order[place]].facts->pattern(), held = place;
                return value;
            };
            for (auto i = range.begin(); i != range.end(); ++i)
                // Thousands in one part are plain there; what they share with a few neighbors is all that is asked, so that time grows with
                // their number only.
                for (auto j = i + 1; j < std::min(order.size(), i + 1 + most_neighbors) && ordered[j].part(part) == ordered[i].part(part);
                     ++j) {
                    if (distance(ordered[i], ordered[j]) > 7) continue;
                    const auto a = order[i], b = order[j];
                    bool before = false;  // met in an earlier part
                    for (std::size_t q = 0; q < part; ++q) before = before || hashes[a].part(q) == hashes[b].part(q);
                    if (before || (all[a].facts->level0 != 0 && all[a].facts->level0 == all[b].facts->level0)) continue;  // counted already
                    const auto kind = likeness_of(
                        all[a], all[b], same_pattern, [&]() -> auto& { return pattern(i); }, [&]() -> auto& { return pattern(j); });
                    if (kind != Likeness::none && kind != Likeness::variant) ++more[a], ++more[b];
                }
        });
    }
    for (std::size_t i = 0; i < counts.size(); ++i) counts[i] += more[i];
    return counts;
}

}  // namespace skivet

#include "codec/palette.h"

#include <algorithm>
#include <limits>
#include <map>

namespace skivet {
namespace {

struct Counted {
    Texel color;
    std::uint64_t count;
};

int distance(const Texel& a, const Texel& b) {
    int sum = 0;
    for (std::size_t c = 0; c < 4; ++c) sum += (a[c] - b[c]) * (a[c] - b[c]);
    return sum;
}

Texel mean_of(std::span<const Counted> colors) {
    std::array<std::uint64_t, 4> sum{};
    std::uint64_t count = 0;
    for (const auto& c : colors) {
        count += c.count;
        for (std::size_t k = 0; k < 4; ++k) sum[k] += c.color[k] * c.count;
    }
    Texel out{};
    for (std::size_t k = 0; k < 4; ++k) out[k] = static_cast<std::uint8_t>((sum[k] + count / 2) / std::max<std::uint64_t>(count, 1));
    return out;
}

/// `count` colors for these: the box with the largest spread times weight is cut at its median.
std::vector<Texel> median_cut(std::vector<Counted> colors, std::size_t count) {
    std::vector<std::span<Counted>> boxes = {colors};
    const auto spread = [](std::span<const Counted> box) {
        std::pair<int, std::size_t> widest{0, 0};
        for (std::size_t c = 0; c < 4; ++c) {
            int low = 255, high = 0;
            for (const auto& x : box) low = std::min<int>(low, x.color[c]), high = std::max<int>(high, x.color[c]);
            widest = std::max(widest, std::pair{high - low, c});
        }
        return widest;
    };
    while (boxes.size() < count) {
        std::size_t chosen = boxes.size();
        double most = 0;
        for (std::size_t i = 0; i < boxes.size(); ++i) {
            std::uint64_t weight = 0;
            for (const auto& x : boxes[i]) weight += x.count;
            const double worth = spread(boxes[i]).first * static_cast<double>(weight);
            if (boxes[i].size() > 1 && worth > most) most = worth, chosen = i;
        }
        if (chosen == boxes.size()) break;
        const auto box = boxes[chosen];
        const auto channel = spread(box).second;
        std::sort(box.begin(), box.end(), [&](const Counted& a, const Counted& b) {
            return a.color[channel] != b.color[channel] ? a.color[channel] < b.color[channel] : a.color < b.color;
        });
        std::uint64_t weight = 0, half = 0;
        for (const auto& x : box) weight += x.count;
        std::size_t at = 0;
        while (at + 1 < box.size() && (half + box[at].count) * 2 <= weight) half += box[at++].count;
        at = std::clamp<std::size_t>(at, 1, box.size() - 1);
        boxes[chosen] = box.first(at);
        boxes.push_back(box.subspan(at));
    }
    std::vector<Texel> out;
    for (const auto& box : boxes) out.push_back(mean_of(box));
    return out;
}

std::size_t nearest(std::span<const Texel> palette, const Texel& color) {
    std::size_t best = 0;
    int least = std::numeric_limits<int>::max();
    for (std::size_t i = 0; i < palette.size(); ++i)
        if (const int d = distance(palette[i], color); d < least) least = d, best = i;
    return best;
}

}  // namespace

PaletteFit fit_palette(std::span<const std::uint8_t> before, std::span<const Texel> palette, std::span<const Texel> wanted,
                       std::size_t capacity) {
    PaletteFit out;
    out.palette.assign(palette.begin(), palette.end());
    if (out.palette.empty()) out.palette.push_back({0, 0, 0, 255});
    out.indices.resize(wanted.size());
    // A table may be longer than an index reaches.
    const auto reached = std::min<std::size_t>(out.palette.size(), 256);
    std::map<Texel, std::uint8_t> known;  // the first entry of each color
    for (std::size_t i = reached; i-- > 0;) known[out.palette[i]] = static_cast<std::uint8_t>(i);
    std::vector<bool> used(256, false);
    std::map<Texel, std::uint64_t> fresh;
    std::vector<std::size_t> open;  // texels without an entry yet
    for (std::size_t i = 0; i < wanted.size(); ++i) {
        const std::size_t old = before[i] < out.palette.size() ? before[i] : 0;
        if (out.palette[old] == wanted[i]) {
            out.indices[i] = before[i];
            used[old] = true;
        } else if (const auto at = known.find(wanted[i]); at != known.end()) {
            out.indices[i] = at->second;
            used[at->second] = true;
        } else {
            ++fresh[wanted[i]];
            open.push_back(i);
        }
    }
    if (open.empty()) return out;
    std::vector<std::size_t> room;
    for (std::size_t i = 0; i < reached; ++i)
        if (!used[i]) room.push_back(i);
    for (std::size_t i = out.palette.size(); i < std::min<std::size_t>(capacity, 256); ++i) room.push_back(i);
    std::vector<Counted> colors;
    for (const auto& [color, count] : fresh) colors.push_back({color, count});
    std::vector<Texel> chosen;
    if (colors.size() <= room.size()) {
        for (const auto& c : colors) chosen.push_back(c.color);
    } else if (!room.empty()) {
        chosen = median_cut(colors, room.size());
        for (int round = 0; round < 4; ++round) {  // means of what is nearest, beside the entries that stay
            std::vector<std::vector<Counted>> near(chosen.size());
            for (const auto& c : colors) near[nearest(chosen, c.color)].push_back(c);
            for (std::size_t k = 0; k < chosen.size(); ++k)
                if (!near[k].empty()) chosen[k] = mean_of(near[k]);
        }
    }
    for (std::size_t k = 0; k < chosen.size(); ++k) {
        if (room[k] >= out.palette.size()) out.palette.resize(room[k] + 1, {0, 0, 0, 255});
        out.palette[room[k]] = chosen[k];
    }
    std::map<Texel, std::uint8_t> found;
    for (const auto i : open) {
        auto [at, is_new] = found.try_emplace(wanted[i], std::uint8_t{0});
        if (is_new)
            at->second = static_cast<std::uint8_t>(
                nearest(std::span<const Texel>(out.palette).first(std::min<std::size_t>(out.palette.size(), 256)), wanted[i]));
        out.indices[i] = at->second;
        out.inexact += out.palette[at->second] != wanted[i];
    }
    return out;
}

PaletteFit hold_palette(std::span<const std::uint8_t> before, std::span<const Texel> palette, std::span<const Texel> wanted,
                        std::size_t width, bool dithered) {
    PaletteFit out;
    out.palette.assign(palette.begin(), palette.end());
    out.indices.assign(before.begin(), before.end());
    if (palette.empty()) return out;
    std::map<Texel, std::uint8_t> known;  // the first entry of each color
    for (std::size_t i = std::min<std::size_t>(palette.size(), 256); i-- > 0;) known[palette[i]] = static_cast<std::uint8_t>(i);
    std::vector<bool> open(wanted.size());
    for (std::size_t i = 0; i < wanted.size(); ++i) {
        if (before[i] < palette.size() && palette[before[i]] == wanted[i]) continue;
        if (const auto at = known.find(wanted[i]); at != known.end()) out.indices[i] = at->second;
        else open[i] = true, ++out.inexact;
    }
    if (out.inexact == 0) return out;
    if (!dithered) {
        std::map<Texel, std::uint8_t> near;
        for (std::size_t i = 0; i < wanted.size(); ++i) {
            if (!open[i]) continue;
            const auto [at, fresh] = near.try_emplace(wanted[i]);
            if (fresh)
                at->second = static_cast<std::uint8_t>(nearest(palette.first(std::min<std::size_t>(palette.size(), 256)), wanted[i]));
            out.indices[i] = at->second;
        }
        return out;
    }
    std::vector<std::array<float, 4>> off(wanted.size());
    const auto give = [&](std::size_t to, const std::array<float, 4>& error, float part) {
        if (to < wanted.size() && open[to])
            for (std::size_t c = 0; c < 4; ++c) off[to][c] += error[c] * part;
    };
    for (std::size_t i = 0; i < wanted.size(); ++i) {
        if (!open[i]) continue;
        Texel aim{};
        for (std::size_t c = 0; c < 4; ++c)
            aim[c] = static_cast<std::uint8_t>(std::clamp(static_cast<float>(wanted[i][c]) + off[i][c] + 0.5f, 0.0f, 255.0f));
        const auto entry = nearest(palette, aim);
        out.indices[i] = static_cast<std::uint8_t>(entry);
        std::array<float, 4> error{};
        for (std::size_t c = 0; c < 4; ++c) error[c] = static_cast<float>(aim[c]) - static_cast<float>(palette[entry][c]);
        const auto x = i % width;
        if (x + 1 < width) give(i + 1, error, 7.0f / 16), give(i + width + 1, error, 1.0f / 16);
        if (x > 0) give(i + width - 1, error, 3.0f / 16);
        give(i + width, error, 5.0f / 16);
    }
    return out;
}

}  // namespace skivet

// What can be seen in a file in which no table was found.
#include <algorithm>
#include <cmath>

#include "base/phrase.h"
#include "base/text.h"
#include "container/draft_sheet.h"
#include "container/draft_table.h"

namespace skivet {
namespace {

constexpr std::size_t regions = 64;          // stretches the file is cut into, at least 256 bytes each
constexpr std::size_t most_lines = 8;        // of stretches, after equal neighbors are joined
constexpr std::size_t widest = 512;          // distances looked at
constexpr std::size_t looked_at = 64 << 10;  // bytes at the beginning in which distances are looked for

struct Region {
    std::string kind;
    double entropy = 0;
};

Region region_of(ByteSpan data) {
    std::array<double, 256> counts{};
    for (const auto b : data) ++counts[static_cast<unsigned>(b)];
    Region out;
    double letters = 0;
    for (unsigned c = 0; c < 256; ++c) {
        if (counts[c] == 0) continue;
        const auto p = counts[c] / static_cast<double>(data.size());
        out.entropy -= p * std::log2(p);
        if ((c >= ' ' && c < 127) || c == '\n' || c == '\r' || c == '\t') letters += p;
    }
    const auto zeros = counts[0] / static_cast<double>(data.size());
    // What is counted in a short stretch is a little less than the entropy there is: by about (values − 1) / (2 n ln 2) bits (G. A. Miller,
    // 1955).
    const auto values = std::count_if(counts.begin(), counts.end(), [](double c) { return c > 0; });
    out.entropy = std::min(8.0, out.entropy + static_cast<double>(values - 1) / (2 * std::log(2.0) * static_cast<double>(data.size())));
    constexpr double random = 7.85;  // packed data has 7.9 and more; in stretches of 256 bytes random bytes vary by 0.05
    out.kind = zeros > 0.98                     ? said("zeros")
               : letters > 0.9                  ? said("text")
               : out.entropy > random           ? said("packed or hidden bytes")
               : zeros > 0.2 && out.entropy < 6 ? said("numbers")
                                                : said("mixed bytes");
    return out;
}

}  // namespace

std::vector<std::string> seen_in(ByteSpan file) {
    std::vector<std::string> out;
    if (file.empty()) return out;
    const auto step = std::max<std::size_t>(256, (file.size() + regions - 1) / regions);
    struct Line {
        std::size_t from, to;
        Region region;
    };
    std::vector<Line> lines;
    for (std::size_t at = 0; at < file.size(); at += step) {
        const auto to = std::min(file.size(), at + step);
        auto region = region_of(file.subspan(at, to - at));
        if (!lines.empty() && lines.back().region.kind == region.kind) {
            lines.back().to = to;
            lines.back().region.entropy = std::max(lines.back().region.entropy, region.entropy);
        } else {
            lines.push_back({at, to, std::move(region)});
        }
    }
    // The longest, in the order they lie in.
    auto by_length = lines;
    std::stable_sort(by_length.begin(), by_length.end(), [](const Line& a, const Line& b) { return a.to - a.from > b.to - b.from; });
    if (by_length.size() > most_lines) by_length.resize(most_lines);
    std::sort(by_length.begin(), by_length.end(), [](const Line& a, const Line& b) { return a.from < b.from; });
    for (const auto& line : by_length)
        out.push_back(phrase("{} to {}: {}, {:.1f} bits a byte", hex(line.from), hex(line.to), line.region.kind, line.region.entropy));
    if (lines.size() > by_length.size()) out.push_back(phrase("{} shorter stretches between them", lines.size() - by_length.size()));

    const auto runs = draft::runs_of_names(file);
    if (!runs.empty()) {
        const auto& run = runs.front();
        const auto first = run.starts.front(), second = run.starts[1];
        out.push_back(phrase("{} names one after the other at {}, the first is \"{}\"", grouped(run.starts.size()), hex(run.at),
                             as_text(file.subspan(static_cast<std::size_t>(first), static_cast<std::size_t>(second - first - 1)))));
    }
    // How often a byte is the same as the one so far behind it, zeros apart.
    const auto look = file.first(std::min(file.size(), looked_at));
    std::vector<std::pair<double, std::size_t>> distances;
    for (std::size_t d = 4; d < std::min(widest, look.size() / 4); ++d) {
        std::size_t same = 0, all = 0;
        for (std::size_t i = 0; i + d < look.size(); ++i) {
            if (look[i] == std::byte{0}) continue;
            ++all;
            same += look[i] == look[i + d];
        }
        if (all > 256) distances.emplace_back(static_cast<double>(same) / static_cast<double>(all), d);
    }
    std::vector<double> shares;
    for (const auto& [share, d] : distances) shares.push_back(share);
    std::sort(shares.begin(), shares.end());
    std::stable_sort(distances.begin(), distances.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
    std::string said;
    for (std::size_t k = 0; k < std::min<std::size_t>(3, distances.size()); ++k)
        if (distances[k].first > 0.05 && distances[k].first > 2 * shares[shares.size() / 2])
            said += phrase("{}{} bytes ({:.0f} %)", said.empty() ? "" : ", ", distances[k].second, 100 * distances[k].first);
    if (!said.empty()) out.push_back(phrase("bytes are the same most often at distances of {}", said));
    return out;
}

}  // namespace skivet

#include "container/container.h"

namespace skivet {

std::optional<std::size_t> Container::find(std::string_view path) const {
    for (std::size_t i = entries_.size(); i-- > 0;)
        if (entries_[i].path == path) return i;
    return std::nullopt;
}

std::vector<Segment> with_gaps(std::vector<Segment> used, std::uint64_t file_size) {
    std::stable_sort(used.begin(), used.end(), [](const auto& a, const auto& b) { return a.at < b.at; });
    std::vector<Segment> out;
    std::uint64_t at = 0;
    for (auto segment : used) {
        const auto end = std::min(file_size, segment.at + segment.size);
        if (end <= at) continue;
        if (segment.at > at) out.push_back({Segment::What::gap, at, segment.at - at, 0});
        segment.at = std::max(segment.at, at);
        segment.size = end - segment.at;
        at = end;
        out.push_back(segment);
    }
    if (at < file_size) out.push_back({Segment::What::gap, at, file_size - at, 0});
    return out;
}

Error in_entry(const Container& container, std::size_t entry, Error error) {
    return std::move(error).within(container.entries()[entry].path);
}

}  // namespace skivet

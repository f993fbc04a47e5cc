#include "container/container.h"

namespace skivet {

std::optional<std::size_t> Container::find(std::string_view path) const {
    std::call_once(indexed_, [&] {
        index_.reserve(entries_.size());
        for (std::size_t i = 0; i < entries_.size(); ++i) index_[entries_[i].path] = i;
    });
    const auto found = index_.find(path);
    if (found == index_.end()) return std::nullopt;
    return found->second;
}

Result<FileView> Container::view(std::size_t entry, const ReadLimits& limits) const {
    SKIVET_TRY(auto bytes, read(entry, limits));
    return FileView::of(std::move(bytes), entries_[entry].path);
}

Result<WritePlan> Container::plan_compact(const ReadLimits&) const { return WritePlan{}; }

Result<Bytes> Container::patch_archive(std::span<const Replacement>, const ReadLimits&) const {
    return fail(ErrorCode::unsupported, "a patch archive of the kind " + kind() + " cannot be made", "Deliver into the archive itself or into an override folder");
}

tl::unexpected<Error> cannot_write(const Container& container) {
    return fail(ErrorCode::unsupported, container.read_only(), "Deliver into an override folder instead, if the game has one");
}

std::vector<Segment> with_gaps(std::vector<Segment> used, std::uint64_t file_size) {
    std::stable_sort(used.begin(), used.end(), [](const auto& a, const auto& b) { return a.at < b.at; });
    std::vector<Segment> out;
    std::uint64_t at = 0;
    for (auto segment : used) {
        if (segment.at >= file_size) continue;   // a claim beyond the end
        const auto end = segment.size > file_size - segment.at ? file_size : segment.at + segment.size;
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

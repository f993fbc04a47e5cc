#include "container/container.h"

#include <algorithm>

namespace skivet {

void Container::index() const {
    std::call_once(indexed_, [&] {
        index_.reserve(entries_.size());
        for (std::size_t i = 0; i < entries_.size(); ++i) {
            const auto [place, fresh] = index_.try_emplace(entries_[i].path, i);
            if (fresh) continue;
            place->second = i;
            ++doubles_.try_emplace(place->first, 1).first->second;
        }
    });
}

std::size_t Container::count(std::string_view path) const {
    index();
    const auto found = doubles_.find(path);
    return found != doubles_.end() ? found->second : index_.count(path);
}

std::vector<Error> Container::doubles() const {
    index();
    std::vector<Error> out;
    for (const auto& [path, count] : doubles_)
        out.push_back({ErrorCode::unsupported,
                       grouped(count) + " entries have this name, and only the last of them can be reached by it",
                       {std::string(path)},
                       {},
                       "Nothing can be put into them yet"});
    std::sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.where < b.where; });
    return out;
}

std::optional<std::size_t> Container::find(std::string_view path) const {
    index();
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
    return fail(ErrorCode::unsupported, "a patch archive of the kind " + kind() + " cannot be made",
                "Deliver into the archive itself or into an override folder");
}

tl::unexpected<Error> cannot_write(const Container& container) {
    return fail(ErrorCode::unsupported, container.read_only(), "Deliver into an override folder instead, if the game has one");
}

Status same_contents(const Container& before, const Container& after, const ReadLimits& limits, const CancelToken& cancel) {
    if (after.entries().size() != before.entries().size())
        return fail(ErrorCode::io, "the archive has another number of entries afterwards");
    for (std::size_t i = 0; i < before.entries().size(); ++i) {
        SKIVET_CHECK(cancel.check());
        const auto &old = before.entries()[i], &now = after.entries()[i];
        if (old.path != now.path || old.size != now.size || old.check != now.check)
            return fail(in_entry(before, i, Error{ErrorCode::io, "is another entry afterwards", {}, {}, {}}));
        if (const auto data = after.read(i, limits); !data && data.error().code != ErrorCode::key) return fail(data.error());
    }
    return {};
}

std::uint64_t shown_alignment(std::span<const std::uint64_t> positions) {
    if (positions.size() < 4) return 1;
    for (std::uint64_t step = 65536; step > 1; step /= 2) {
        const auto fit =
            static_cast<std::size_t>(std::count_if(positions.begin(), positions.end(), [&](auto at) { return at % step == 0; }));
        if (fit * 8 >= positions.size() * 7) return step;
    }
    return 1;
}

std::vector<Segment> with_gaps(std::vector<Segment> used, std::uint64_t file_size) {
    std::stable_sort(used.begin(), used.end(), [](const auto& a, const auto& b) { return a.at < b.at; });
    std::vector<Segment> out;
    std::uint64_t at = 0;
    for (auto segment : used) {
        if (segment.at >= file_size) continue;  // a claim beyond the end
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

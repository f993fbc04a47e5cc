#include "container/container.h"

#include <xxhash.h>
#include <algorithm>
#include <unordered_map>
#include <unordered_set>
#include <vector>

#include "base/phrase.h"
#include "base/text.h"

namespace skivet {

void Container::index() const {
    std::call_once(indexed_, [&] {
        index_.reserve(entries_.size());
        for (std::size_t i = 0; i < entries_.size(); ++i) index_.try_emplace(entries_[i].path, i);
    });
}

void Container::number_doubles() {
    // Hashes (XXH3, 64 bits) tell that there are none, as mostly, without a table of names.
    std::vector<std::uint64_t> hashes;
    hashes.reserve(entries_.size());
    for (const auto& e : entries_) hashes.push_back(XXH3_64bits(e.path.data(), e.path.size()));
    std::sort(hashes.begin(), hashes.end());
    if (std::adjacent_find(hashes.begin(), hashes.end()) == hashes.end()) return;
    std::unordered_map<std::string_view, std::size_t> first;
    first.reserve(entries_.size());
    std::vector<std::size_t> doubles;
    for (std::size_t i = 0; i < entries_.size(); ++i)
        if (!first.try_emplace(entries_[i].path, i).second) doubles.push_back(i);
    if (doubles.empty()) return;
    // Once there are any, names are kept as copies: those of the entries change.
    std::unordered_set<std::string> taken;
    for (const auto& e : entries_) taken.insert(e.path);
    std::unordered_map<std::string, std::size_t> next;
    for (const auto i : doubles) {
        auto& path = entries_[i].path;
        doubles_.insert(path);
        const auto slash = path.rfind('/') + 1, dot = path.rfind('.');
        const auto stem = dot != std::string::npos && dot > slash ? dot : path.size();
        auto& number = next.try_emplace(path, 2).first->second;
        std::string fresh;
        do fresh = path.substr(0, stem) + '#' + std::to_string(number++) + path.substr(stem);
        while (!taken.insert(fresh).second);
        path = std::move(fresh);
        doubles_.insert(path);
    }
}

std::optional<std::size_t> Container::find(std::string_view path) const {
    index();
    const auto found = index_.find(path);
    if (found == index_.end()) return std::nullopt;
    return found->second;
}

Result<Bytes> Container::read(std::size_t entry, const ReadLimits& limits) const {
    return unless_broken([&] { return unpack_entry(entry, limits); });
}
Result<Bytes> Container::read_stored(std::size_t entry, const ReadLimits& limits) const {
    return unless_broken([&] { return stored_entry(entry, limits); });
}
Result<Bytes> Container::read_head(std::size_t entry, std::size_t count) const {
    return unless_broken([&] { return head_of_entry(entry, count); });
}
Result<FileView> Container::view(std::size_t entry, const ReadLimits& limits) const {
    return unless_broken([&] { return view_of_entry(entry, limits); });
}

Result<Bytes> Container::stored_entry(std::size_t entry, const ReadLimits& limits) const {
    if (entries_[entry].method == "stored" && !entries_[entry].encrypted) return read(entry, limits);
    return fail(ErrorCode::unsupported, phrase("{}: a {} archive does not keep its entries apart", entries_[entry].path, kind()),
                "It can be taken out unpacked");
}

Result<FileView> Container::view_of_entry(std::size_t entry, const ReadLimits& limits) const {
    SKIVET_TRY(auto bytes, read(entry, limits));
    return FileView::of(std::move(bytes), entries_[entry].path);
}

std::string Container::fixed_entries() const {
    return read_only().empty() ? phrase("what a {} holds can be replaced, but nothing added, renamed or taken out", said(kind()))
                               : read_only();
}

Result<WritePlan> Container::plan_entries(const Changes& changes, const ReadLimits& limits) const { return plan(changes.replaced, limits); }

Result<WritePlan> Container::plan_changes(const Changes& changes, const ReadLimits& limits) const {
    if (changes.only_replaces()) return plan(changes.replaced, limits);
    if (const auto why = fixed_entries(); !why.empty())
        return fail(ErrorCode::unsupported, why, "Deliver into an override folder instead, if the game has one");
    std::unordered_set<std::size_t> leaving, removed, mentioned;
    const auto no_such = [&](std::size_t entry) { return entry >= entries_.size(); };
    const auto missing = [] { return fail(ErrorCode::usage, "there is no such entry"); };
    const auto twice = [&](std::size_t entry) {
        return fail(ErrorCode::usage, phrase("\"{}\" is changed in two ways at once", entries_[entry].path));
    };
    for (const auto entry : changes.removed) {
        if (no_such(entry)) return missing();
        if (!mentioned.insert(entry).second) return twice(entry);
        leaving.insert(entry);
        removed.insert(entry);
    }
    for (const auto& name : changes.renamed) {
        if (no_such(name.entry)) return missing();
        if (!mentioned.insert(name.entry).second) return twice(name.entry);
        leaving.insert(name.entry);
    }
    // One of them gone, the others would be counted anew, and what went could not be told from what stayed.
    for (const auto entry : leaving)
        if (doubles_.contains(entries_[entry].path))
            return fail(ErrorCode::unsupported, phrase("several entries have the name of \"{}\"", entries_[entry].path),
                        "Replace its content instead");
    std::unordered_set<std::size_t> replaced;
    for (const auto& r : changes.replaced) {
        if (no_such(r.entry)) return missing();
        if (removed.contains(r.entry) || !replaced.insert(r.entry).second) return twice(r.entry);
    }
    std::unordered_set<std::string_view> coming;
    const auto check_path = [&](const std::string& path) -> Status {
        if (path.empty() || safe_relative_path(path) != path)
            return fail(ErrorCode::usage, phrase("\"{}\" is no path inside an archive", path),
                        "Folders and a name, with / between them, such as textures/horse_blue.dds");
        const auto there = find(path);
        if ((there && !leaving.contains(*there)) || !coming.insert(path).second)
            return fail(ErrorCode::usage, phrase("there is an entry \"{}\" already", path), "Choose another name");
        return {};
    };
    for (const auto& name : changes.renamed) SKIVET_CHECK(check_path(name.path));
    for (const auto& entry : changes.added) {
        SKIVET_CHECK(check_path(entry.path));
        if (entry.like && no_such(*entry.like)) return missing();
    }
    return plan_entries(changes, limits);
}

Result<WritePlan> Container::plan_compact(const ReadLimits&) const { return WritePlan{}; }

Result<Bytes> Container::patch_archive(std::span<const Replacement>, const ReadLimits&) const {
    return fail(ErrorCode::unsupported, phrase("a patch archive of the kind {} cannot be made", kind()),
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

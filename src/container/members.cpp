#include "container/members.h"

#include "base/phrase.h"
#include "base/text.h"

namespace skivet {
namespace {

/// Bytes of a file that may be written over themselves: they are kept for the way back, where a copy of the rest costs only time.
std::uint64_t most_moved(std::uint64_t file_size) { return std::min<std::uint64_t>(file_size / 8, 64u << 20); }

}  // namespace

void Stretches::put(std::uint64_t at, std::uint64_t size, Content bytes) {
    moved_ = moved_ || bytes.size() != size;
    all_.push_back({at, size, std::move(bytes)});
}

void Stretches::put_last(std::uint64_t at, Bytes entries, ByteSpan mark, std::uint64_t record) {
    last_at_ = at;
    last_ = std::move(entries);
    mark_ = mark;
    record_ = record;
}

Result<WritePlan> Stretches::plan(const FileView& view) && {
    SKIVET_TRY(const auto file, view.bytes());
    FilePlan plan;
    if (!last_.empty() && last_at_ > file.size()) {
        // The zeros that pad the last entry are cut off. Where its content is new it has them.
        const bool whole = std::any_of(all_.begin(), all_.end(), [&](const auto& s) { return s.at + s.size == file.size(); });
        if (!whole) last_.insert(last_.begin(), static_cast<std::size_t>(last_at_ - file.size()), std::byte{0});
        last_at_ = file.size();
    }
    if (!moved_) {
        plan.way = Way::in_place;
        plan.new_size = file.size();
        for (auto& s : all_) plan.ranges.push_back({s.at, std::move(s.bytes), 0});
        if (!last_.empty()) {
            const auto tail = file.subspan(static_cast<std::size_t>(last_at_));
            const auto marked = std::min(mark_.size(), tail.size());
            const auto padding = tail.subspan(marked);
            if (std::equal(mark_.begin(), mark_.begin() + static_cast<std::ptrdiff_t>(marked), tail.begin()) &&
                std::all_of(padding.begin(), padding.end(), [](std::byte b) { return b == std::byte{0}; })) {
                last_.insert(last_.end(), mark_.begin(), mark_.end());
                const auto unit = file.size() % record_ == 0 ? record_ : 1;
                const auto end = (last_at_ + last_.size() + unit - 1) / unit * unit;
                last_.resize(static_cast<std::size_t>(std::max<std::uint64_t>(file.size(), end) - last_at_));
            } else {
                last_.insert(last_.end(), tail.begin(), tail.end());
            }
            plan.new_size = last_at_ + last_.size();
            if (plan.new_size > file.size()) plan.way = Way::append;
            plan.ranges.push_back({last_at_, std::move(last_), 0});
        }
        return finish_plan(view, std::move(plan));
    }
    if (!last_.empty()) all_.push_back({last_at_, 0, std::move(last_)});
    // What is put in between comes before what stands there: an empty entry's content before the next entry's header.
    std::stable_sort(all_.begin(), all_.end(),
                     [](const auto& a, const auto& b) { return std::pair(a.at, a.size > 0) < std::pair(b.at, b.size > 0); });
    const auto first = std::find_if(all_.begin(), all_.end(), [](const auto& s) { return s.bytes.size() != s.size; });
    if (file.size() - first->at <= most_moved(file.size())) {
        // Little has to move: it is written over itself.
        RangeWriter out(plan.ranges, first->at);
        auto at = first->at;
        for (auto s = first; s != all_.end(); ++s) {
            out.put(file.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(s->at - at)));
            out.put_content(s->bytes);
            at = s->at + s->size;
        }
        out.put(file.subspan(static_cast<std::size_t>(at)));
        out.finish();
        plan.new_size = out.at();
        plan.way = plan.new_size > file.size() ? Way::append : Way::in_place;
        for (auto s = all_.begin(); s != first; ++s) plan.ranges.push_back({s->at, std::move(s->bytes), 0});
        return finish_plan(view, std::move(plan));
    }
    std::uint64_t at = 0;
    for (auto& s : all_) {
        plan.pieces.push_back({at, s.at - at, {}});
        if (!s.bytes.empty()) plan.pieces.push_back({0, 0, std::move(s.bytes)});
        at = s.at + s.size;
    }
    plan.pieces.push_back({at, file.size() - at, {}});
    return finish_plan(view, std::move(plan));
}

Content padded(const Content& content, std::uint64_t unit) {
    const auto size = static_cast<std::size_t>((content.size() + unit - 1) / unit * unit);
    if (size == content.size()) return content;
    auto filled = content.copy();
    content.rest();
    filled.resize(size);
    return filled;
}

Result<WritePlan> MemberArchive::plan(std::span<const Replacement> replacements, const ReadLimits& limits) const {
    if (!read_only().empty()) return cannot_write(*this);
    for (const auto& r : replacements)
        if (r.entry >= entries_.size()) return fail(ErrorCode::usage, "there is no such entry");
    return plan_entries({{replacements.begin(), replacements.end()}, {}, {}, {}}, limits);
}

std::vector<Segment> MemberArchive::segments() const {
    std::vector<Segment> used;
    for (std::size_t i = 0; i < entries_.size(); ++i)
        used.push_back({Segment::What::entry, entries_[i].at, places_[i].end - entries_[i].at, i});
    const auto end = std::min(end_, file_.size());
    used.push_back({Segment::What::table, end, file_.size() - end, 0});
    return with_gaps(std::move(used), file_.size());
}

Result<ByteSpan> MemberArchive::bytes_of(std::size_t entry) const { return file_.bytes(places_[entry].data_at, places_[entry].size); }

tl::unexpected<Error> MemberArchive::is_linked(std::size_t entry) const {
    return fail(in_entry(
        *this, entry,
        Error{ErrorCode::unsupported, "another entry is a hard link to it", {}, entries_[entry].at, "Replace its content instead"}));
}

Result<Bytes> MemberArchive::unpack_entry(std::size_t entry, const ReadLimits& limits) const {
    if (entries_[entry].size > limits.inflated_bytes)
        return fail(in_entry(
            *this, entry,
            Error{ErrorCode::limit, phrase("{} are more than the limit", human_bytes(entries_[entry].size)), {}, entries_[entry].at, {}}));
    const auto data = bytes_of(entry);
    if (!data) return fail(in_entry(*this, entry, data.error()));
    file_.note_read(data->size());
    return Bytes(data->begin(), data->end());
}

Result<Bytes> MemberArchive::head_of_entry(std::size_t entry, std::size_t count) const {
    const auto data = bytes_of(entry);
    if (!data) return fail(in_entry(*this, entry, data.error()));
    const auto head = data->first(std::min(count, data->size()));
    return Bytes(head.begin(), head.end());
}

Result<FileView> MemberArchive::view_of_entry(std::size_t entry, const ReadLimits&) const {
    return file_.part(places_[entry].data_at, places_[entry].size, entries_[entry].path);
}

}  // namespace skivet

// The bytes of an archive between what its sheet explains: which of them are padding or were left behind, and which are the game's.
#include "container/sheet_gaps.h"

#include <algorithm>
#include <numeric>

namespace skivet {

using namespace sheet_gaps;

bool SheetContainer::is_blank(ByteSpan bytes) const {
    return std::all_of(bytes.begin(), bytes.end(), [&](std::byte b) { return b == std::byte{0} || b == sheet_->fill; });
}

bool SheetContainer::is_blank(std::uint32_t number, ByteSpan file, std::uint64_t at, std::uint64_t end) const {
    end = std::min<std::uint64_t>(end, file.size());
    while (at < end) {
        auto next = end;
        bool inside = false;
        for (const auto& d : deleted_) {
            if (d.file != number || d.size == 0 || d.at > file.size() || d.size > file.size() - d.at) continue;
            if (d.at <= at && d.at + d.size > at) next = std::min(next, d.at + d.size), inside = true;
            else if (d.at > at) next = std::min(next, d.at);
        }
        if (!inside && !is_blank(file.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(next - at)))) return false;
        at = next;
    }
    return true;
}

std::uint64_t SheetContainer::padding(ByteSpan file, std::uint64_t at, std::uint64_t end) const {
    const auto stop = std::min({end, aligned(at, sheet_->align), static_cast<std::uint64_t>(file.size())});
    if (stop <= at) return 0;
    return is_blank(file.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(stop - at))) ? stop - at : 0;
}

std::uint64_t SheetContainer::alignment(std::uint32_t number) const {
    std::vector<std::uint64_t> starts;
    for (const auto& item : items_)
        if (item.file == number && item.stored > 0) starts.push_back(item.data_at);
    return std::lcm(sheet_->align, shown_alignment(starts));
}

std::vector<std::uint32_t> SheetContainer::files_used() const {
    std::vector<std::uint32_t> out = {own_file};
    for (const auto& item : items_) out.push_back(item.file);
    std::sort(out.begin(), out.end());
    out.erase(std::unique(out.begin(), out.end()), out.end());
    return out;
}

Result<std::vector<SheetContainer::Gap>> SheetContainer::gaps(std::uint32_t number) const {
    SKIVET_TRY(const auto view, data_file(number));
    SKIVET_TRY(const auto file, view.bytes());
    std::vector<Segment> used;
    if (number == own_file)
        for (const auto& table : tables_) used.push_back({Segment::What::table, table.at, table.end - table.at, 0});
    const auto entries = entry_segments(number);
    used.insert(used.end(), entries.begin(), entries.end());
    // What is empty takes no place, so it cuts nothing in two: bytes beside the game's own would look like ones that can be given back.
    std::erase_if(used, [](const Segment& s) { return s.size == 0; });
    std::vector<Gap> out;
    bool front = true;
    for (const auto& segment : with_gaps(std::move(used), file.size())) {
        if (segment.what == Segment::What::entry && segment.size > 0) front = false;
        if (segment.what != Segment::What::gap) continue;
        const auto end = segment.at + segment.size;
        out.push_back({segment.at, end, is_blank(number, file, segment.at, end), front, end == file.size()});
    }
    return out;
}

Result<std::vector<Bytes>> SheetContainer::unexplained() const {
    std::vector<Bytes> out;
    if (sheet_->part_size > 0) return out;  // nothing there is ever moved, and only entries are written
    for (const auto number : files_used()) {
        SKIVET_TRY(const auto view, data_file(number));
        SKIVET_TRY(const auto file, view.bytes());
        SKIVET_TRY(const auto all, gaps(number));
        for (const auto& gap : all) {
            if (gap.blank) continue;
            auto bytes = file.subspan(static_cast<std::size_t>(gap.at), static_cast<std::size_t>(gap.end - gap.at));
            while (is_blank(bytes.first(1))) bytes = bytes.subspan(1);
            while (is_blank(bytes.last(1))) bytes = bytes.first(bytes.size() - 1);
            out.emplace_back(bytes.begin(), bytes.end());
        }
    }
    return out;
}

std::uint64_t SheetContainer::dead_bytes() const {
    // Parts of a fixed size give nothing back; where places follow from the order, nothing is left behind.
    if (sheet_->part_size > 0 || follows_order(*sheet_) || !chunks_.empty()) return 0;
    std::uint64_t sum = 0;
    for (const auto number : files_used()) {
        const auto all = gaps(number);
        if (!all) continue;
        const auto align = alignment(number);
        for (const auto& gap : *all) {
            const auto size = gap.end - gap.at;
            if (gap.blank && !gap.last && size >= (gap.front ? front_reserve : 0) + dead_from(align))
                sum += size - (gap.front ? aligned(gap.at, align) - gap.at : 0);
        }
    }
    return sum;
}

}  // namespace skivet

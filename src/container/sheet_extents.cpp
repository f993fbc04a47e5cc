// Where entries begin and end, and what they are: what follows from other entries, from the chunks they lie in, from the records that
// describe them.
#include <algorithm>
#include <map>

#include "base/phrase.h"
#include "base/text.h"
#include "container/overlaps.h"
#include "container/record_texture.h"
#include "container/sheet_gaps.h"
#include "container/sheet_lister.h"
#include "sheet/method.h"

namespace skivet {

using namespace sheet_gaps;

namespace {

/// The part of a text that stands for {folder} in a marker's pattern.
std::optional<std::string> folder_in(std::string_view pattern, std::string_view text) {
    const auto at = pattern.find("{folder}");
    const auto before = pattern.substr(0, at), behind = pattern.substr(at + 8);
    if (text.size() < before.size() + behind.size() || !text.starts_with(before) || !text.ends_with(behind)) return std::nullopt;
    return std::string(text.substr(before.size(), text.size() - before.size() - behind.size()));
}

}  // namespace

bool SheetContainer::Lister::is_marker(const std::string& path) {
    if (sheet_.markers.start.empty()) return false;
    if (const auto folder = folder_in(sheet_.markers.start, path)) {
        // No tree is so deep; beyond it markers are entries like others.
        if (open_folders_.size() >= 64) return false;
        open_folders_.push_back(*folder);
        return true;
    }
    const auto folder = folder_in(sheet_.markers.end, path);
    if (!folder || open_folders_.empty() || open_folders_.back() != *folder) return false;
    open_folders_.pop_back();
    return true;
}

void SheetContainer::Lister::settle(std::size_t entry, const RecordValues* record) {
    auto& e = out_.entries_[entry];
    auto& item = out_.items_[entry];
    if (record) e.size = record->number(Meaning::size);
    const bool sized = sheet_.record.with(Meaning::size) != nullptr;
    if (!sized) e.size = item.stored;
    const auto* stored = record ? record->with(Meaning::stored_size) : nullptr;
    // What is stored as it is says so by its sizes.
    if (item.method && item.method->packs())
        if ((sheet_.packed == Sheet::Packed::sizes_differ && item.stored == e.size) ||
            (sheet_.packed == Sheet::Packed::stored_not_zero && stored && stored->number == 0))
            item.method = Method{};
    item.states_size = sized || (item.method && !item.method->packs());
    item.size = e.size;
    e.stored = item.stored;
    e.at = item.data_at;
    e.method = item.method ? item.method->name() : "unknown";
    e.encrypted = item.encrypted;
}

Status SheetContainer::Lister::find_ends() {
    // The last data ends with the file, or where the tables behind it begin.
    const auto last = starts_.empty() ? 0 : *std::max_element(starts_.begin(), starts_.end());
    std::uint64_t end = out_.file_.size();
    for (const auto& table : out_.tables_)
        if (table.at >= last && table.end > table.at) end = std::min(end, table.at);
    if (out_.closing_) {
        end = out_.closing_->number + out_.base_of(*out_.closing_->field, out_.closing_->at);
        starts_.push_back(end);
    }
    const bool rising = std::is_sorted(starts_.begin(), starts_.end());
    if (sheet_.ends == Sheet::Ends::next_record && !rising) {
        const auto wrong = static_cast<std::size_t>(std::is_sorted_until(starts_.begin(), starts_.end()) - starts_.begin());
        return fail_at(ErrorCode::damaged, starts_[wrong], phrase("entry {} ends before it begins", wrong));
    }
    auto sorted = starts_;
    std::sort(sorted.begin(), sorted.end());
    for (std::size_t i = 0; i < out_.items_.size(); ++i) {
        auto& item = out_.items_[i];
        const auto at = starts_[record_of_[i]];
        if (rising) {
            item.stored = (record_of_[i] + 1 < starts_.size() ? starts_[record_of_[i] + 1] : std::max(end, at)) - at;
        } else {
            const auto next = std::upper_bound(sorted.begin(), sorted.end(), at);
            item.stored = (next == sorted.end() ? std::max(end, at) : *next) - at;
        }
        settle(i, nullptr);
    }
    return {};
}

Status SheetContainer::Lister::find_extents() {
    const auto* offset = sheet_.record.with(Meaning::data_offset);
    if (offset && offset->base_section) {
        const auto base = out_.end_of(*offset->base_section);
        for (auto& item : out_.items_) item.data_at += base;
        for (auto& extent : out_.deleted_) extent.at += base;
        for (auto& start : starts_) start += base;
    }
    if (sheet_.ends != Sheet::Ends::by_size) SKIVET_CHECK(find_ends());
    if (sheet_.data_at && sheet_.data_at->from != Place::From::behind_record) {
        records_end_ = out_.table_end_;
        SKIVET_TRY(auto at, place(*sheet_.data_at, "data"));
        const auto file_size = out_.file_.size();
        if (at >= file_size && out_.packed_end_ > 0) at = out_.packed_end_;
        for (auto& item : out_.items_) {
            item.data_at = aligned(at, sheet_.align);
            if (item.stored > file_size || item.data_at > file_size - item.stored)
                return fail_at(ErrorCode::damaged, item.data_at,
                               phrase("entry {} needs {} bytes, only {} are there", &item - out_.items_.data() + 1, grouped(item.stored),
                                      grouped(file_size - std::min<std::uint64_t>(item.data_at, file_size))));
            at = item.data_at + item.stored;
        }
    }
    for (std::size_t i = 0; i < out_.items_.size(); ++i) out_.entries_[i].at = out_.items_[i].data_at;
    for (std::size_t i = 0; i < out_.items_.size() && !out_.chunks_.empty(); ++i) {
        const auto chunk = std::upper_bound(out_.chunks_.begin(), out_.chunks_.end(), out_.items_[i].data_at,
                                            [](std::uint64_t at, const Chunk& c) { return at < c.start; });
        if (chunk != out_.chunks_.begin()) out_.entries_[i].at = std::prev(chunk)->at;
    }
    return sheet_.textures ? find_textures() : Status();
}

Status SheetContainer::Lister::find_textures() {
    auto sheet = *sheet_.textures;
    sheet.order = out_.header_.order;
    out_.textures_.emplace(std::move(sheet));
    RecordTexture::Sizes sizes;
    for (std::size_t i = 0; i < out_.items_.size(); ++i) {
        auto& e = out_.entries_[i];
        if (!out_.items_[i].states_size) continue;
        SKIVET_TRY(const auto record, out_.record_of(i));
        // Sides of 0 say that it is something else.
        if (record.number(Meaning::width, 1) == 0 || record.number(Meaning::height, 1) == 0) continue;
        auto shown = RecordTexture(*out_.textures_, record, image_).shown(out_.items_[i].size, limits_, sizes);
        if (!shown) {
            if (out_.problems_.size() < 1000) out_.problems_.push_back(std::move(shown).error().within(e.path));
            continue;
        }
        out_.items_[i].texture = true;
        e.size = shown->size;
        if (!lower(e.path).ends_with(shown->ending)) e.path += shown->ending;
    }
    return {};
}

Status SheetContainer::Lister::read_chunks() {
    const auto& spec = *sheet_.chunks;
    SKIVET_TRY(auto at, place(spec.table_at, "table of chunks"));
    SKIVET_TRY(const auto count, number_of(spec.table_count, "chunk"));
    SKIVET_TRY(const auto chunk_size, sheet_data::chunk_size(sheet_, out_.header_.values));
    const auto wrong = [&](std::uint64_t where, std::string what) {
        return fail(Error{ErrorCode::damaged, std::move(what), {phrase("chunk {}", out_.chunks_.size())}, where, {}});
    };
    out_.chunk_table_at_ = at;
    std::uint64_t next = 0, start = 0;
    if (spec.data_at) {
        // Behind the records and the table of chunks, where that follows them.
        const auto size = *spec.table.fixed_size();
        if (size > 0 && count > (image_.size() - at) / size) return wrong(at, "the table of chunks lies behind the end");
        if (spec.data_at->from == Place::From::after_record && spec.table_at.from == Place::From::after_record) next = at + count * size;
        else {
            SKIVET_TRY(next, place(*spec.data_at, "chunks"));
        }
    }
    // What the stream has to hold, for a last chunk whose size nothing says.
    std::uint64_t needed = 0;
    for (const auto& item : out_.items_) {
        if (item.size > limits_.inflated_bytes || item.data_at > ~0ull - item.size)
            return wrong(item.data_at, "an entry that ends nowhere");
        needed = std::max(needed, item.data_at + item.size);
    }
    for (std::uint64_t i = 0; i < count; ++i) {
        Chunk chunk;
        chunk.row_at = at;
        if (auto read = read_record(spec.table, out_.header_.order, image_, at, limits_, record_); !read)
            return fail(std::move(read).error().within(phrase("chunk {}", i + 1)));
        at = record_.end;
        const auto* offset = record_.with(Meaning::data_offset);
        chunk.at = offset ? offset->number + out_.base_of(*offset->field, offset->at) : next;
        if (const auto* stored = record_.with(Meaning::stored_size)) {
            chunk.stored = stored->number;
            if (spec.high_bit) {
                const auto bit = 1ull << (8 * stored->field->width - 1);
                chunk.raw = chunk.stored & bit;
                chunk.stored &= ~bit;
            }
        }
        const auto* size = record_.with(Meaning::size);
        chunk.size = size ? size->number : chunk_size;
        if (chunk.size == 0 || chunk.size > (64u << 20)) return wrong(chunk.row_at, phrase("a chunk of {} bytes", grouped(chunk.size)));
        chunk.start = start;
        start += chunk.size;
        next = chunk.at + chunk.stored;
        out_.chunks_.push_back(chunk);
    }
    out_.chunk_table_end_ = at;
    out_.tables_.push_back({"chunks", out_.chunk_table_at_, at});
    auto& chunks = out_.chunks_;
    if (!spec.table.with(Meaning::stored_size)) {
        // Each ends where the next one begins; the last one where a table begins, or the file ends.
        for (std::size_t i = 0; i < chunks.size(); ++i) {
            std::uint64_t end = i + 1 < chunks.size() ? chunks[i + 1].at : out_.file_.size();
            if (i + 1 == chunks.size())
                for (const auto& table : out_.tables_)
                    if (table.at > chunks[i].at) end = std::min(end, table.at);
            if (end < chunks[i].at) return wrong(chunks[i].at, "ends before it begins");
            chunks[i].stored = end - chunks[i].at;
        }
    }
    if (!chunks.empty() && !spec.table.with(Meaning::size)) {
        // How long the last one is, its stream says; where it cannot, what the entries need.
        auto& last = chunks.back();
        const auto method = *method_named(sheet_, sheet_.method);
        auto bounds = limits_;
        bounds.inflated_bytes = last.size;
        const auto stored = slice(image_, last.at, last.stored);
        const bool streams = method.described || (method.packs() && !needs_size(method.packing));
        const auto whole = stored && streams && !last.raw ? unpack_by(method, *stored, std::nullopt, bounds, *out_.packers_)
                                                          : Result<Bytes>(fail(ErrorCode::unsupported, ""));
        if (whole) last.size = whole->size();
        else if (last.raw || streams) last.size = std::min(last.size, last.stored);
        else if (needed > last.start && needed - last.start < last.size) last.size = needed - last.start;
    }
    for (auto& chunk : chunks) {
        if (!spec.high_bit) chunk.raw = chunk.stored == chunk.size;
        if (chunk.stored > out_.file_.size() || chunk.at > out_.file_.size() - chunk.stored)
            return wrong(chunk.at, phrase("needs {} bytes, has {}", grouped(chunk.stored),
                                          grouped(out_.file_.size() - std::min<std::uint64_t>(chunk.at, out_.file_.size()))));
    }
    return {};
}

void SheetContainer::note_repeats(const ReadLimits& limits) {
    const auto claim_of = [&](const Item& item) -> EntryClaim {
        if (item.states_size) return {item.data_at, item.stored, item.size};
        const bool grows = item.method && item.method->packs();
        return {item.data_at, item.stored, std::min(item.stored, EntryClaim::most) * (grows ? limits.nested_ratio : 1)};
    };
    std::map<std::uint32_t, std::uint64_t> all;  // by file
    for (const auto& item : items_) all[item.file] += std::min(claim_of(item).unpacked, EntryClaim::most);
    for (const auto& [file, unpacked] : all) {
        // Other files are looked at only when it matters: they may be on another disk, or gone.
        const bool beside = file != own_file || sheet_->part_size > 0;
        auto size = beside ? 0 : file_.size();
        if (can_hold(size, unpacked, limits)) continue;
        std::vector<std::size_t> members;
        std::vector<EntryClaim> claims;
        for (std::size_t i = 0; i < items_.size(); ++i)
            if (items_[i].file == file) members.push_back(i), claims.push_back(claim_of(items_[i]));
        const auto found = find_overlaps(claims, size, limits);
        if (found.over.empty()) continue;
        if (beside)
            for (const auto number : sheet_->part_size > 0 ? files_used() : std::vector{file})
                if (const auto data = data_file(number)) size += data->size();
        if (can_hold(size, unpacked, limits)) continue;
        for (const auto k : found.over) items_[members[k]].repeats = true;
    }
}

Status SheetContainer::may_grow(std::uint32_t file, std::uint64_t had, std::uint64_t has,
                                const std::function<bool(std::size_t)>& goes) const {
    if (has <= had) return {};
    for (std::size_t i = 0; i < items_.size(); ++i) {
        const auto& item = items_[i];
        // What is said to begin still further behind is not touched by it.
        if (item.file != file || item.data_at >= has || item.stored <= had - std::min(had, item.data_at) || goes(i)) continue;
        return fail(in_entry(*this, i,
                             Error{ErrorCode::damaged,
                                   phrase("needs {} bytes, has {}, and what is added would come to lie in it", grouped(item.stored),
                                          grouped(had - std::min(had, item.data_at))),
                                   {},
                                   item.data_at,
                                   "Remove that entry first, or get the archive whole"}));
    }
    return {};
}

}  // namespace skivet

// Writing by a sheet. Content goes over the old one while it fits, padding included. Otherwise it goes to the end of its file, before a
// table or header that stands there, which then moves along; or, where the sheet says that entries may not move or keep their order, the
// file is laid out anew from the first change on. Bytes the sheet does not explain are never written on, and move only whole. An entry that
// moves away leaves fill bytes, so that what compacting may give back can be told from what nobody explained. Fields with a meaning follow:
// offsets, sizes, checksums of entries, then of the table, then the header's own.
#include <numeric>

#include "base/phrase.h"
#include "container/record_texture.h"
#include "container/sheet_planner.h"

namespace skivet {

using namespace sheet_gaps;

SheetContainer::Planner::Planner(const SheetContainer& c, ByteSpan file, ByteSpan image)
    : c_(c), sheet_(*c.sheet_), file_(file), image_(image) {
    for (std::size_t i = 0; i < c.items_.size(); ++i) by_file_[c.sheet_->part_size > 0 ? 0 : c.items_[i].file].push_back(i);
    for (auto& [number, items] : by_file_)
        std::stable_sort(items.begin(), items.end(), [&](auto a, auto b) { return c.items_[a].data_at < c.items_[b].data_at; });
    // Tables in file order; those that lie in one another are one stretch.
    auto tables = c.tables_;
    std::erase_if(tables, [&](const auto& t) { return t.end <= t.at || t.at >= file.size(); });
    std::sort(tables.begin(), tables.end(), [](const auto& a, const auto& b) { return a.at < b.at; });
    for (const auto& t : tables) {
        if (!stretches_.empty() && t.at < stretches_.back().end) stretches_.back().end = std::max(stretches_.back().end, t.end);
        else stretches_.push_back(t);
    }
    // What stands behind all data can move with it: the header at the end, the table before it.
    tail_ = file.size();
    std::uint64_t data_end = c.header_.at < file.size() / 2 ? c.header_.values.end : 0;
    for (const auto& item : c.items_)
        if (item.file == own_file) data_end = std::max(data_end, item.data_at + item.stored);
    // So can a directory that ends the file and whose place the header says: a game may want it at the end.
    const bool said = sheet_.record_at.from == Place::From::field && sheet_.folders.fields.empty() && !has_stream(sheet_) &&
                      sheet_.table_method.empty() &&
                      (!sheet_.names || sheet_.names->at.from == Place::From::field || sheet_.names->at.from == Place::From::after_record);
    const bool ends = std::any_of(c.tables_.begin(), c.tables_.end(),
                                  [&](const auto& t) { return t.end == file.size() && t.at >= data_end && t.end > t.at; });
    if (sheet_.header_at < 0 || (said && ends))
        for (const auto& table : c_.tables_)
            if (table.at >= data_end) tail_ = std::min(tail_, table.at);
}

Status SheetContainer::Planner::add(const Replacement& r, const ReadLimits& limits) {
    if (r.entry >= c_.entries_.size()) return fail(ErrorCode::usage, "there is no such entry");
    if (auto done = add_entry(r, limits); !done) return fail(in_entry(c_, r.entry, std::move(done).error()));
    return {};
}

Result<WritePlan> SheetContainer::Planner::finish() {
    WritePlan out;
    if (has_stream(sheet_) && c_.chunks_.empty())
        return fail(ErrorCode::unsupported, "the archive has no chunk yet, so nothing says how a new one is written",
                    "Deliver into an override folder instead, if the game has one");
    for (const auto& [number, items] : by_file_) {
        if (number == own_file || sheet_.part_size > 0) continue;
        SKIVET_TRY(auto plan, lay_out(number, items));
        if (!plan) continue;
        SKIVET_TRY(const auto view, c_.data_file(number));
        SKIVET_TRY(auto done, finish_plan(view, std::move(*plan)));
        out.add(std::move(done));
    }
    if (sheet_.part_size > 0) {
        SKIVET_TRY(auto parts, plan_parts());
        out.add(std::move(parts));
    }
    const auto items = by_file_.count(own_file) && sheet_.part_size == 0 ? by_file_.at(own_file) : std::vector<std::size_t>{};
    const auto before = patches_;
    // What a packed directory becomes is known only when everything else is; if it needs more room, all is laid out once more.
    for (int attempt = 0; attempt < 12; ++attempt) {
        patches_ = before;
        moves_.clear();
        growth_ = 0;
        SKIVET_TRY(auto own, c_.chunks_.empty() ? lay_out(own_file, items) : lay_out_chunks());
        FilePlan plan = own ? std::move(*own) : FilePlan{};
        if (!own) plan.new_size = file_.size(), plan.way = Way::in_place;
        SKIVET_TRY(const bool done, write_tables(plan));
        if (!done) continue;
        SKIVET_TRY(auto finished, finish_plan(c_.file_, std::move(plan)));
        out.add(std::move(finished));
        return out;
    }
    return fail(ErrorCode::unsupported, "the packed directory changes its size with each try, and nothing says where it is",
                "Deliver into an override folder instead, if the game has one");
}
Status SheetContainer::Planner::add_entry(const Replacement& r, const ReadLimits& limits) {
    SKIVET_TRY(const auto old, c_.stored_bytes(r.entry));
    auto& fresh = fresh_[r.entry];
    fresh = Fresh{};
    fresh.content = r.bytes;
    const auto keep = [&] { fresh_.erase(r.entry); };
    auto now = c_.unpack_entry(old.bytes, r.entry, limits);
    if (now) {
        const bool sound = c_.check_sums(r.entry, old.bytes, *now).has_value();
        if (c_.items_[r.entry].texture) {
            SKIVET_TRY(const auto shown, c_.shown(r.entry, *now, limits));
            if (r.bytes == shown && sound) return keep(), Status();
            SKIVET_TRY(const auto record, c_.record_of(r.entry));
            SKIVET_TRY(auto put, RecordTexture(*c_.textures_, record, image_).put(*now, r.bytes.copy(), limits));
            fresh.content = std::move(put.data);
            for (const auto& [value, number] : put.fields) fresh.fields.emplace_back(*value, number);
        }
        if (fresh.content == *now && sound && fresh.fields.empty()) return keep(), Status();
    } else if (now.error().code != ErrorCode::damaged || c_.items_[r.entry].texture) {
        return fail(now.error());
    }
    SKIVET_TRY(auto packed, c_.pack_entry(fresh.content, r.entry, c_.items_[r.entry].data_at));
    fresh.stored = std::move(packed.stored);
    fresh.raw = packed.raw;
    r.bytes.rest();
    changed_ = true;
    return {};
}

std::vector<SheetContainer::Table>::const_iterator SheetContainer::Planner::table_from(std::uint64_t at) const {
    return std::partition_point(stretches_.begin(), stretches_.end(), [&](const auto& t) { return t.end <= at; });
}

bool SheetContainer::Planner::depends_on_place(std::size_t entry) const {
    return sheet_.crypt && sheet_.crypt->from_file && c_.items_[entry].encrypted;
}

Status SheetContainer::Planner::settle_at(std::size_t entry, Fresh& fresh, std::uint64_t at) {
    if (!depends_on_place(entry)) return {};
    SKIVET_TRY(auto packed, c_.pack_entry(fresh.content, entry, at));
    fresh.stored = std::move(packed.stored);
    return {};
}

std::uint64_t SheetContainer::Planner::room(ByteSpan file, const std::vector<std::size_t>& items, std::size_t place,
                                            std::uint64_t file_end) const {
    const auto& item = c_.items_[items[place]];
    auto next = file_end;
    for (std::size_t k = place + 1; k < items.size(); ++k) {
        const auto& other = c_.items_[items[k]];
        if (other.stored == 0) continue;  // what is empty takes no place, wherever it points
        if (other.data_at < item.data_at + std::max<std::uint64_t>(1, item.stored)) return 0;
        next = std::min(next, other.data_at);
        break;
    }
    for (auto k = place; k-- > 0 && place - k < 64;) {
        const auto& other = c_.items_[items[k]];
        if (other.stored > 0 && other.data_at + other.stored > item.data_at) return 0;
    }
    if (item.file == own_file && sheet_.part_size == 0)
        if (const auto table = table_from(item.data_at); table != stretches_.end()) {
            if (table->at < item.data_at) return 0;
            next = std::min(next, table->at);
        }
    const auto end = item.data_at + item.stored;
    return next < end ? 0 : item.stored + c_.padding(file, end, next);
}

bool SheetContainer::Planner::fits(const Item& item, std::uint64_t size, std::uint64_t space) const {
    if (sheet_.ends != Sheet::Ends::by_size) return size == item.stored;
    if (sheet_.data_at && aligned(item.data_at + size, sheet_.align) != aligned(item.data_at + item.stored, sheet_.align)) return false;
    return size <= space;
}

Result<std::optional<FilePlan>> SheetContainer::Planner::lay_out(std::uint32_t number, const std::vector<std::size_t>& items) {
    FileView view = c_.file_;
    if (number != own_file) {
        const bool any = compact_ || std::any_of(items.begin(), items.end(), [&](auto i) { return fresh_.count(i) > 0; });
        if (!any) return std::optional<FilePlan>();
        SKIVET_TRY(view, c_.data_file(number));
    }
    SKIVET_TRY(const auto file, view.bytes());
    const auto end = number == own_file ? tail_ : view.size();
    const auto align = c_.alignment(number);
    FilePlan plan;
    plan.new_size = view.size();
    plan.way = Way::in_place;
    if (compact_ || (number == own_file && relaid_)) return lay_out_anew(number, view, items);
    bool anew = false;
    auto append_at = end;
    std::vector<std::size_t> grown;
    bool any = false;
    for (std::size_t place = 0; place < items.size(); ++place) {
        const auto found = fresh_.find(items[place]);
        if (found == fresh_.end()) continue;
        any = true;
        const auto& item = c_.items_[items[place]];
        const auto& stored = found->second.stored;
        const auto space = room(file, items, place, end);
        const bool last = item.data_at + item.stored == end && space > 0;
        if (fits(item, stored.size(), space)) {
            plan.ranges.push_back({item.data_at, stored, 0});
            // Nothing of the old content stays behind, but for what other entries share: nothing at all fits there, too.
            if (stored.size() < item.stored && space > 0)
                plan.ranges.push_back(
                    {item.data_at + stored.size(), Bytes(static_cast<std::size_t>(item.stored - stored.size()), sheet_.fill), 0});
            SKIVET_CHECK(patch_record(items[place], item.data_at, &found->second));
        } else {
            if (last) append_at = std::min(append_at, item.data_at);
            else if (space > 0 && item.stored > 0)
                plan.ranges.push_back({item.data_at, Bytes(static_cast<std::size_t>(item.stored), sheet_.fill), 0});
            grown.push_back(items[place]);
            anew = anew || !sheet_.may_move || sheet_.keep_order || follows_order(sheet_);
        }
    }
    if (!any) return std::optional<FilePlan>();
    if (anew) return lay_out_anew(number, view, items);
    if (grown.empty()) return std::optional(std::move(plan));
    plan.way = Way::append;
    RangeWriter behind(plan.ranges, append_at);
    for (const auto i : grown) {
        auto& fresh = fresh_.at(i);
        const auto to = aligned(behind.at(), align);
        SKIVET_CHECK(settle_at(i, fresh, to));
        behind.fill(to - behind.at(), sheet_.fill);
        behind.put_content(fresh.stored);
        SKIVET_CHECK(patch_record(i, to, &fresh));
    }
    if (number == own_file && tail_ < file_.size()) {
        const auto to = aligned(behind.at(), sheet_.align);
        behind.fill(to - behind.at(), sheet_.fill);
        behind.finish();  // tables stay in one range: records are changed in it later
        moves_.emplace_back(tail_, to - tail_);
        behind.put(file_.subspan(static_cast<std::size_t>(tail_)));
    }
    behind.finish();
    plan.new_size = behind.at();
    SKIVET_CHECK(c_.may_grow(number, view.size(), plan.new_size, [&](std::size_t i) { return fresh_.contains(i); }));
    if (number == own_file) growth_ = plan.new_size - file_.size();
    return std::optional(std::move(plan));
}

Result<std::optional<FilePlan>> SheetContainer::Planner::lay_out_anew(std::uint32_t number, const FileView& view,
                                                                      const std::vector<std::size_t>& items) {
    SKIVET_TRY(const auto file, view.bytes());
    FilePlan plan;
    std::uint64_t from = 0, to = 0;  // done so far in the old and in the new file
    const auto align = follows_order(sheet_) ? sheet_.align : c_.alignment(number);
    const bool inlined = sheet_.data_at && sheet_.data_at->from == Place::From::behind_record;
    // Behind a packed directory that grows, places keep their step from its end.
    const auto shift = number == own_file ? table_growth_ : 0;
    const auto steps = static_cast<std::int64_t>(align);
    const auto origin = static_cast<std::uint64_t>((static_cast<std::int64_t>(shift) % steps + steps) % steps);
    std::map<std::uint64_t, std::uint64_t> placed;  // old position of a block to its new one
    const auto fill_to = [&](std::uint64_t start) {
        if (start > to) plan.pieces.push_back({0, 0, Bytes(static_cast<std::size_t>(start - to), sheet_.fill)});
        to = start;
    };
    const auto pad = [&] {
        if (!inlined) fill_to(to < origin ? origin : origin + aligned(to - origin, align));
    };
    // Padding is made anew from the first change on; all of it where a packed directory changes its size, so that another try changes
    // nothing.
    const auto differs = [&] { return to != from || (number == own_file && relaid_); };
    // From here on everything lies so much later.
    const auto note_move = [&] {
        if (number == own_file && (moves_.empty() ? 0 : moves_.back().second) != to - from) moves_.emplace_back(from, to - from);
    };
    // The new place of bytes that keep their position within a step.
    const auto in_step = [&](std::uint64_t step) { fill_to(to + (from % step + step - (to - shift) % step) % step); };
    // A table may have padding inside that counts from the beginning of the file.
    const auto pad_table = [&] {
        std::uint64_t step = sheet_.align;
        for (const auto* type : {&sheet_.record, &sheet_.folders})
            for (const auto& field : type->fields)
                if (field.type == FieldType::pad) step = std::lcm(step, field.size);
        in_step(step);
    };
    const auto copy = [&](std::uint64_t size) {
        if (size > 0) plan.pieces.push_back({from, size, {}});
        if (size > 0) note_move();
        to += size;
        from += size;
    };
    // What lies between entries. Only blank bytes are given up: padding where something moves, more only by compacting.
    bool stuck = false, between = true;  // entries are still to come
    const auto gap_to = [&](std::uint64_t next) {
        while (from < next && !stuck) {
            std::uint64_t end = next;
            bool table = false;
            if (const auto t = table_from(from); number == own_file && t != stretches_.end()) {
                table = t->at <= from;
                end = std::min(end, table ? t->end : t->at);
            }
            const auto gap = end - from;
            if (table) {
                if (differs()) pad_table();
                const auto shrunk =
                    end == c_.packed_end_ && table_growth_ > gap ? ~table_growth_ + 1 : 0;  // less than nothing, modulo 2^64
                copy(gap - shrunk);
                from += shrunk;
                if (end == c_.packed_end_ && shrunk == 0) fill_to(to + table_growth_);
                if (end == c_.packed_end_) note_move();
                continue;
            }
            const bool blank = c_.is_blank(number, file, from, end);
            if (compact_ && blank && gap >= (placed.empty() ? front_reserve : 0) + dead_from(align)) {
                if (placed.empty()) copy(aligned(from, align) - from);
                from = end;
                continue;
            }
            if (!differs()) {
                copy(gap);
                continue;
            }
            from += blank && gap < dead_from(align) ? gap : c_.padding(file, from, end);
            if (from == end) continue;
            // Where places follow from sizes, nothing may lie between that the sheet does not explain.
            stuck = follows_order(sheet_) && between;
            in_step(align);
            copy(end - from);
        }
    };
    std::map<std::size_t, std::uint64_t> placed_own;
    const bool alone = follows_order(sheet_) && std::is_sorted(items.begin(), items.end());
    for (std::size_t place = 0; place < items.size();) {
        // Entries that begin at the same place are one group: those that stay share one copy, a changed one gets a place of its own.
        // Where places follow from the order, each stands for itself.
        const auto at = c_.items_[items[place]].data_at;
        std::uint64_t kept = 0, old_size = 0;
        std::vector<std::size_t> changed;
        const auto first = items[place];
        for (; place < items.size() && c_.items_[items[place]].data_at == at; ++place) {
            if (alone && items[place] != first) break;
            const auto stored = c_.items_[items[place]].stored;
            old_size = std::max(old_size, stored);
            if (fresh_.count(items[place])) changed.push_back(items[place]);
            else kept = std::max(kept, stored);
        }
        if (alone && old_size == 0 && changed.empty()) {
            if (at > from) gap_to(at);
            if (differs()) pad();
            placed_own[first] = to;
            continue;
        }
        if (old_size == 0 && changed.empty()) continue;
        if (at > view.size() || old_size > view.size() - at)
            return fail(in_entry(
                c_, first,
                Error{ErrorCode::damaged,
                      phrase("needs {} bytes, has {}", grouped(old_size), grouped(view.size() - std::min<std::uint64_t>(at, view.size()))),
                      {},
                      at,
                      "An archive with a damaged entry cannot be laid out anew"}));
        if (at < from && old_size > 0)
            return fail(in_entry(
                c_, first, Error{ErrorCode::unsupported, "overlaps another entry, so the archive cannot be laid out anew", {}, at, {}}));
        if (at >= from) gap_to(at);
        if (stuck) return fail(in_entry(c_, first, unexplained_between(from)));
        if (differs()) pad();
        if (at == from) note_move();  // what is empty lies where its neighbor does
        if (kept > 0 || changed.empty()) {
            placed[at] = to;
            if (alone) placed_own[first] = to;
            if (to != at && depends_on_place(first)) {
                SKIVET_TRY(const auto old, c_.stored_bytes(first));
                SKIVET_TRY(const auto plain, c_.crypt_entry(old.bytes, first, at, false));
                SKIVET_TRY(auto again, c_.crypt_entry(plain, first, to, true));
                if (!again.empty()) plan.pieces.push_back({0, 0, std::move(again)});
            } else {
                plan.pieces.push_back({at, kept, {}});
            }
            to += kept;
        }
        for (const auto i : changed) {
            if (differs() || kept > 0) pad();
            placed_own[i] = to;
            auto& fresh = fresh_.at(i);
            SKIVET_CHECK(settle_at(i, fresh, to));
            if (!fresh.stored.empty()) plan.pieces.push_back({0, 0, fresh.stored});
            to += fresh.stored.size();
        }
        from = std::max(from, at + old_size);
    }
    between = false;
    if (number == own_file) {
        const bool table_behind = std::any_of(c_.tables_.begin(), c_.tables_.end(), [&](const auto& t) { return t.at >= from; });
        if (table_behind && (differs() || compact_)) {
            std::uint64_t next = file_.size();
            for (const auto& t : c_.tables_)
                if (t.at >= from) next = std::min(next, t.at);
            gap_to(next);
            if (differs()) pad_table();
        }
        note_move();
    }
    if (number != own_file && to != from && from < view.size()) in_step(align);
    if (from < view.size()) plan.pieces.push_back({from, view.size() - from, {}});
    plan.new_size = to + (view.size() - from);
    plan.way = Way::rebuild;
    if (number == own_file) growth_ = plan.new_size - file_.size();
    for (const auto i : items) {
        const auto old = c_.items_[i].data_at;
        if (const auto mine = placed_own.find(i); mine != placed_own.end()) {
            const auto fresh = fresh_.find(i);
            if (fresh != fresh_.end() || mine->second != old || relaid_)
                SKIVET_CHECK(patch_record(i, mine->second, fresh != fresh_.end() ? &fresh->second : nullptr));
            continue;
        }
        const auto known = placed.find(old);
        const auto now = known != placed.end() ? known->second : number == own_file ? moved(old) : old;
        if (now != old || relaid_) SKIVET_CHECK(patch_record(i, now, nullptr));
    }
    return std::optional(std::move(plan));
}

Error SheetContainer::Planner::unexplained_between(std::uint64_t at) {
    return Error{ErrorCode::unsupported,
                 "would have to move, but bytes the sheet does not explain lie before it",
                 {},
                 at,
                 "Say in the sheet what they are"};
}

Result<SheetContainer::Packed> SheetContainer::pack_entry(const Content& content, std::size_t entry, std::uint64_t at) const {
    const auto& item = items_[entry];
    Packed out;
    SKIVET_TRY(const auto chunk, sheet_data::chunk_size(*sheet_, header_.values));
    SKIVET_TRY(auto stored, sheet_data::pack(*sheet_, header_.order, *item.method, content, chunk, {}, *packers_));
    // Where the sizes tell what is packed, packing has to make it smaller.
    out.raw = !item.method->packs();
    if (sheet_->packed != Sheet::Packed::always && stored.size() >= content.size()) {
        out.raw = true;
        if (!item.encrypted) {
            out.stored = content;
            return out;
        }
        stored = content.copy();
    }
    if (!out.raw) {
        SKIVET_TRY(stored, sheet_data::with_own_start(*sheet_, std::move(stored)));
    }
    if (item.encrypted) {
        SKIVET_TRY(stored, crypt_entry(stored, entry, at, true));
    }
    out.stored = std::move(stored);
    return out;
}

Result<WritePlan> SheetContainer::plan(std::span<const Replacement> replacements, const ReadLimits& limits) const {
    SKIVET_TRY(const auto file, file_.bytes());
    SKIVET_TRY(const auto image, image_.bytes());
    Planner planner(*this, file, image);
    for (const auto& r : replacements) SKIVET_CHECK(planner.add(r, limits));
    if (!planner.changed()) return WritePlan{};
    return planner.finish();
}

Result<WritePlan> SheetContainer::plan_compact(const ReadLimits&) const {
    if (dead_bytes() == 0) return WritePlan{};
    SKIVET_TRY(const auto file, file_.bytes());
    SKIVET_TRY(const auto image, image_.bytes());
    Planner planner(*this, file, image);
    planner.compact();
    return planner.finish();
}

}  // namespace skivet

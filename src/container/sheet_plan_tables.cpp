// What a plan makes of the tables: fields with a meaning follow, then checksums and encryption.

#include "base/phrase.h"
#include "container/sheet_planner.h"
#include "sheet/method.h"

namespace skivet {

using namespace sheet_gaps;

std::uint64_t SheetContainer::Planner::moved(std::uint64_t at) const {
    const auto next = std::upper_bound(moves_.begin(), moves_.end(), at, [](std::uint64_t a, const auto& move) { return a < move.first; });
    return next == moves_.begin() ? at : at + std::prev(next)->second;
}

Status SheetContainer::Planner::patch(const FieldValue& value, std::uint64_t number) {
    const auto before = patches_.find(value.at);  // bit fields share their bytes
    const auto now = before != patches_.end() ? ByteSpan(before->second)
                                              : image_.subspan(static_cast<std::size_t>(value.at), static_cast<std::size_t>(value.size));
    SKIVET_TRY(auto bytes, field_bytes(*value.field, c_.header_.order, number, now));
    patches_[value.at] = std::move(bytes);
    return {};
}

Status SheetContainer::Planner::patch_record(std::size_t entry, std::uint64_t at, const Fresh* fresh) {
    SKIVET_TRY(const auto record, c_.record_of(entry));
    if (const auto* offset = record.with(Meaning::data_offset)) {
        const auto field_moved = offset->field->from_field ? moved(offset->at) - offset->at : 0;
        if (const auto* base = c_.header_.values.named(offset->field->base_field);
            base && is_place(*base->field) && moved(base->number) != base->number)
            return fail(ErrorCode::unsupported, phrase("its data is counted from \"{}\", which would have to move", base->field->name),
                        "Deliver into an override folder instead, if the game has one");
        auto section_moved = std::uint64_t{0};
        if (offset->field->base_section)
            if (const auto end = c_.end_of(*offset->field->base_section); end > 0)
                section_moved = moved(end - 1) - (end - 1) + (end == c_.packed_end_ ? table_growth_ : 0);
        const auto number = at - c_.base_of(*offset->field, offset->at) - field_moved - section_moved;
        SKIVET_CHECK(patch(*offset, number));
        if (const auto* end = record.with(Meaning::data_end))
            SKIVET_CHECK(patch(*end, number + (fresh ? fresh->stored.size() : c_.items_[entry].stored)));
    }
    if (!fresh) return {};
    for (const auto& [value, number] : fresh->fields) SKIVET_CHECK(patch(value, number));
    if (const auto* stored = record.with(Meaning::stored_size))
        SKIVET_CHECK(patch(*stored, fresh->raw && sheet_.packed == Sheet::Packed::stored_not_zero ? 0 : fresh->stored.size()));
    if (const auto* size = record.with(Meaning::size)) SKIVET_CHECK(patch(*size, fresh->content.size()));
    for (const auto& value : record.values) {
        if (value.field->means != Meaning::checksum) continue;
        SKIVET_TRY(auto bytes,
                   sum_field_bytes(*value.field, c_.header_.order, value.field->is_over(Over::stored) ? fresh->stored : fresh->content));
        patches_[value.at] = std::move(bytes);
    }
    return {};
}

Result<WritePlan> SheetContainer::Planner::plan_parts() {
    WritePlan out;
    std::map<std::uint32_t, FilePlan> plans;
    const auto& items = by_file_[0];
    for (std::size_t place = 0; place < items.size(); ++place) {
        const auto found = fresh_.find(items[place]);
        if (found == fresh_.end()) continue;
        const auto& item = c_.items_[items[place]];
        const auto& stored = found->second.stored;
        // Its padding may lie in another part; nobody asked for it yet. Entries that share data have none to themselves.
        const auto space = std::min(item.stored, room({}, items, place, ~0ull));
        if (stored.size() > space)
            return fail(in_entry(c_, items[place],
                                 Error{ErrorCode::unsupported,
                                       phrase("has room for {} bytes, needs {}", grouped(space), grouped(stored.size())),
                                       {},
                                       item.data_at,
                                       "Data cut into parts of a fixed size takes only content that fits where the old one is"}));
        for (std::uint64_t done = 0; done < stored.size();) {
            const auto at = item.data_at + done;
            const auto number = static_cast<std::uint32_t>(at / sheet_.part_size);
            const auto count = std::min<std::uint64_t>(stored.size() - done, sheet_.part_size - at % sheet_.part_size);
            plans[number].ranges.push_back(
                {at % sheet_.part_size, stored.part(static_cast<std::size_t>(done), static_cast<std::size_t>(count)), 0});
            done += count;
        }
        SKIVET_CHECK(patch_record(items[place], item.data_at, &found->second));
    }
    for (auto& [number, plan] : plans) {
        SKIVET_TRY(const auto view, c_.data_file(number));
        plan.new_size = view.size();
        plan.way = Way::in_place;
        SKIVET_TRY(auto done, finish_plan(view, std::move(plan)));
        out.add(std::move(done));
    }
    return out;
}

Result<bool> SheetContainer::Planner::write_tables(FilePlan& plan) {
    const auto& header = c_.header_.values;
    // Fields that say where a table is follow it: in the header, and in the records of folders.
    const auto follow = [&](const FieldValue& value) -> Status {
        const auto at = value.number + c_.base_of(*value.field, value.at);
        const auto field_moved = value.field->from_field ? moved(value.at) - value.at : 0;
        if (moved(at) == at && !field_moved) return {};
        return patch(value, value.number + (moved(at) - at) - field_moved);
    };
    for (const auto& value : header.values)
        if (is_place(*value.field)) SKIVET_CHECK(follow(value));
    for (const auto& value : c_.folder_offsets_) SKIVET_CHECK(follow(value));
    if (c_.closing_) SKIVET_CHECK(follow(*c_.closing_));
    SKIVET_CHECK(patch_sums([](Over over) { return over != Over::header && over != Over::file; }));
    plain_ = patches_;
    if (c_.packed_end_ > 0) {
        SKIVET_TRY(const bool placed, pack_table(plan));
        if (!placed) return false;
    }
    SKIVET_CHECK(patch_sizes());
    if (sheet_.table_crypt && c_.packed_end_ == 0) {
        const auto old = image_.subspan(static_cast<std::size_t>(c_.table_at_), static_cast<std::size_t>(c_.table_end_ - c_.table_at_));
        Bytes table(old.begin(), old.end());
        const auto first = patches_.lower_bound(c_.table_at_), last = patches_.lower_bound(c_.table_end_);
        for (auto p = first; p != last; ++p) overlay(table, c_.table_at_, p->first, p->second);
        SKIVET_TRY(const auto key, sheet_data::key_for(*sheet_.table_crypt, *c_.keys_, header, file_));
        SKIVET_TRY(auto stored, sheet_data::encrypt(*sheet_.table_crypt, {key, sheet_.table_crypt->iv, c_.table_at_}, table));
        patches_.erase(first, last);
        patches_[c_.table_at_] = std::move(stored);
    }
    SKIVET_CHECK(patch_sums([](Over over) { return over == Over::header; }));
    put_patches(plan);
    for (const auto& value : header.values) {
        if (value.field->means != Meaning::checksum || !value.field->is_over(Over::file)) continue;
        SKIVET_TRY(auto whole, planned_bytes(plan, file_));
        const auto at = moved(value.at);
        std::fill_n(whole.begin() + static_cast<std::ptrdiff_t>(at), value.size, std::byte{0});
        SKIVET_TRY(auto sum, sum_field_bytes(*value.field, c_.header_.order, whole));
        patches_.clear();
        patches_[value.at] = std::move(sum);
        put_patches(plan);
    }
    return true;
}

Status SheetContainer::Planner::patch_sizes() {
    const auto& header = c_.header_.values;
    if (const auto* size = header.with(Meaning::file_size)) SKIVET_CHECK(patch(*size, file_.size() + growth_));
    if (const auto* size = header.with(Meaning::data_size)) SKIVET_CHECK(patch(*size, size->number + growth_));
    return {};
}

Result<bool> SheetContainer::Planner::pack_table(FilePlan& plan) {
    const auto& header = c_.header_.values;
    const auto file_size = file_.size();
    const auto first = patches_.lower_bound(file_size);
    if (first == patches_.end() && !relaid_) return true;
    const auto old = image_.subspan(file_size);
    Bytes table(old.begin(), old.end());
    for (auto p = first; p != patches_.end(); ++p) overlay(table, file_size, p->first, p->second);
    patches_.erase(first, patches_.end());
    const auto at = c_.packed_at_, end = c_.packed_end_;
    SKIVET_TRY(auto stored, pack_by(*method_named(sheet_, sheet_.table_method), table, sheet_.table_level,
                                    file_.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(end - at)), *c_.packers_));
    const auto encrypted_at = [&](std::uint64_t place) -> Result<Bytes> {
        if (!sheet_.table_crypt) return stored;
        SKIVET_TRY(const auto key, sheet_data::key_for(*sheet_.table_crypt, *c_.keys_, header, file_));
        return sheet_data::encrypt(*sheet_.table_crypt, {key, sheet_.table_crypt->iv, place}, stored);
    };
    if (const auto* size = header.with(Meaning::table_stored_size)) SKIVET_CHECK(patch(*size, stored.size()));
    if (const auto* size = header.with(Meaning::table_size)) SKIVET_CHECK(patch(*size, table.size()));
    // Where data is counted from its end, it has to end where it ended, or all data moves as much.
    const auto* offset = sheet_.record.with(Meaning::data_offset);
    const bool counted_from = offset && offset->base_section && *offset->base_section != Place::From::after_header;
    const auto room = end - at + table_growth_;
    const bool at_end = end == file_size && plan.new_size == file_size && plan.pieces.empty() && !counted_from;
    const auto moved_to = moved(at);
    const auto* where = header.with(Meaning::table_offset);
    if (stored.size() <= room && (!counted_from || stored.size() == room)) {
        SKIVET_TRY(auto bytes, encrypted_at(moved_to));
        bytes.resize(static_cast<std::size_t>(room), sheet_.fill);
        patches_[at] = std::move(bytes);
        return true;
    }
    if (at_end) {
        SKIVET_TRY(auto bytes, encrypted_at(at));
        plan.new_size = at + bytes.size();
        growth_ = plan.new_size - file_size;
        plan.way = Way::append;
        plan.ranges.push_back({at, std::move(bytes), 0});
        return true;
    }
    if (where && !counted_from) {
        // To the end of the file; its old place is left blank.
        const auto to = aligned(plan.new_size, sheet_.align);
        SKIVET_TRY(auto bytes, encrypted_at(to));
        patches_[at] = Bytes(static_cast<std::size_t>(end - at), sheet_.fill);
        Bytes behind(static_cast<std::size_t>(to - plan.new_size), sheet_.fill);
        behind.insert(behind.end(), bytes.begin(), bytes.end());
        const auto start = plan.new_size;
        plan.new_size += behind.size();
        growth_ += behind.size();
        if (plan.pieces.empty()) {
            plan.way = Way::append;
            plan.ranges.push_back({start, std::move(behind), 0});
        } else {
            plan.pieces.push_back({0, 0, std::move(behind)});
        }
        SKIVET_CHECK(patch(*where, to - c_.base_of(*where->field, where->at)));
        return true;
    }
    if (!c_.chunks_.empty())
        return fail(ErrorCode::unsupported, "the packed directory has no room for more",
                    "Deliver into an override folder instead, if the game has one");
    table_growth_ = stored.size() - (end - at);
    relaid_ = true;
    return false;
}

Status SheetContainer::Planner::patch_sums(bool (*which)(Over)) {
    for (const auto& value : c_.header_.values.values) {
        const auto& field = *value.field;
        if (field.means != Meaning::checksum || field.is_over(Over::file)) continue;
        const bool header = std::find(field.over.begin(), field.over.end(), Over::header) != field.over.end();
        if (!which(header ? Over::header : field.over.front())) continue;
        Bytes all;
        const auto add = [&](ByteSpan from, const std::map<std::uint64_t, Bytes>& patches, std::uint64_t at, std::uint64_t end) {
            const auto old = from.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(end - at));
            Bytes bytes(old.begin(), old.end());
            auto p = patches.upper_bound(at);
            if (p != patches.begin()) --p;
            for (; p != patches.end() && p->first < end; ++p) overlay(bytes, at, p->first, p->second);
            if (value.at >= at && value.at < end)
                std::fill_n(bytes.begin() + static_cast<std::ptrdiff_t>(value.at - at), value.size, std::byte{0});
            all.insert(all.end(), bytes.begin(), bytes.end());
        };
        // By the time of the header's turn tables may be encrypted or packed; sums are of them as they are read.
        const auto& tables = header ? plain_ : patches_;
        for (const auto over : field.over) {
            if (over == Over::header) add(file_, patches_, c_.header_.at, c_.header_.values.end);
            if (over == Over::table) add(image_, tables, c_.table_at_, c_.table_end_);
            if (over == Over::names) add(image_, tables, c_.names_at_, c_.names_end_);
            if (over == Over::folders) add(image_, tables, c_.folders_at_, c_.folders_end_);
        }
        SKIVET_TRY(auto bytes, sum_field_bytes(field, c_.header_.order, all));
        patches_[value.at] = std::move(bytes);
    }
    return {};
}

bool SheetContainer::Planner::is_place(const Field& field) const {
    const auto says = [&](const Place& place) { return place.from == Place::From::field && place.field == field.name; };
    const auto says_some = [&](const std::optional<Place>& place) { return place && says(*place); };
    return field.means == Meaning::table_offset || says(sheet_.record_at) || says(sheet_.folders_at) || says_some(sheet_.data_at) ||
           (sheet_.names && says(sheet_.names->at)) || (sheet_.tree && says(sheet_.tree->at)) ||
           (has_stream(sheet_) && (says(sheet_.chunks->table_at) || says_some(sheet_.chunks->data_at)));
}

void SheetContainer::Planner::put_patches(FilePlan& plan) const {
    std::map<std::uint64_t, const Bytes*> at_place;
    for (const auto& [at, bytes] : patches_) at_place[moved(at)] = &bytes;
    if (plan.pieces.empty()) {
        std::sort(plan.ranges.begin(), plan.ranges.end(), [](const auto& a, const auto& b) { return a.at < b.at; });
        std::vector<WriteRange> more;
        auto changing = plan.ranges.end();  // the range whose bytes are in `changed`: many patches may lie in one
        Bytes changed;
        const auto put_back = [&] {
            if (changing != plan.ranges.end()) changing->bytes = std::move(changed);
        };
        for (const auto& [at, bytes] : at_place) {
            const auto next =
                std::upper_bound(plan.ranges.begin(), plan.ranges.end(), at, [](std::uint64_t a, const auto& r) { return a < r.at; });
            const auto range = next == plan.ranges.begin() ? plan.ranges.end() : std::prev(next);
            if (range != changing) {
                put_back();
                changing = plan.ranges.end();
            }
            if (range == plan.ranges.end() || at + bytes->size() > range->at + (range == changing ? changed.size() : range->bytes.size())) {
                more.push_back({at, *bytes, 0});
                continue;
            }
            if (range != changing) changing = range, changed = range->bytes.copy();
            overlay(changed, range->at, at, *bytes);
        }
        put_back();
        std::move(more.begin(), more.end(), std::back_inserter(plan.ranges));
        return;
    }
    std::vector<PlanPiece> out;
    std::uint64_t start = 0;
    for (auto& piece : plan.pieces) {
        const auto end = start + piece.length();
        auto patch = at_place.upper_bound(start);
        if (patch != at_place.begin() && std::prev(patch)->first + std::prev(patch)->second->size() > start) --patch;
        auto done = start;
        const bool any = patch != at_place.end() && patch->first < end;
        Bytes changed;
        if (any && !piece.is_copy()) changed = piece.bytes.copy();
        for (; patch != at_place.end() && patch->first < end; ++patch) {
            if (!piece.is_copy()) {
                overlay(changed, start, patch->first, *patch->second);
                continue;
            }
            const auto from = std::max(patch->first, start), to = std::min(patch->first + patch->second->size(), end);
            if (from > done) out.push_back({piece.from + (done - start), from - done, {}});
            if (from < to) {
                const auto first = patch->second->begin();
                out.push_back({0, 0,
                               Bytes(first + static_cast<std::ptrdiff_t>(from - patch->first),
                                     first + static_cast<std::ptrdiff_t>(to - patch->first))});
            }
            done = to;
        }
        if (!changed.empty()) piece.bytes = std::move(changed);
        if (!piece.is_copy()) out.push_back(std::move(piece));
        else if (done < end) out.push_back({piece.from + (done - start), end - done, {}});
        start = end;
    }
    plan.pieces = std::move(out);
}

}  // namespace skivet

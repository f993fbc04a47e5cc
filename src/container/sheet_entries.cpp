#include "container/sheet_entries.h"

#include <algorithm>
#include <unordered_set>

#include "base/phrase.h"
#include "base/text.h"
#include "container/sheet_gaps.h"

namespace skivet {

using namespace sheet_gaps;

namespace {

/// Bytes that a plan for other tables moves or blanks; it holds them in memory.
constexpr std::uint64_t most_moved = 256u << 20;

}  // namespace

std::string SheetContainer::Entries::why_fixed(const SheetContainer& c) {
    const auto& s = *c.sheet_;
    const auto* offset = s.record.with(Meaning::data_offset);
    const auto not_plain = [&]() -> std::string {
        if (c.file_.parts().size() > 1) return said("it is cut into parts");
        if (!s.table_method.empty()) return said("they are packed");
        if (s.table_crypt && s.names) return said("they are encrypted, and names are apart from the records");
        if (s.tree) return said("their names make a tree");
        if (!s.folders.fields.empty()) return said("their records lie in folders");
        if (has_stream(s) || s.part_size > 0) return said("the data of all entries is one stream");
        if (follows_order(s) || !offset) return said("where data lies follows from the order of the entries");
        if (s.record.arrays) return said("their records are columns");
        if (s.record_count.by == CountOf::By::number) return said("the number of entries is fixed");
        if (s.record_count.by == CountOf::By::folders) return said("folders count the entries");
        if (!s.markers.start.empty()) return said("entries between others make folders");
        if (offset->base_section) return said("data is counted from the end of a table");
        if (s.record.with(Meaning::name_index)) return said("names are counted");
        if (c.header_.values.with(Meaning::data_size)) return said("the header says how long all data is");
        if (std::any_of(s.record.fields.begin(), s.record.fields.end(), [](const auto& f) { return f.type == FieldType::pad; }))
            return said("padding in a record depends on its place");
        return {};
    }();
    return not_plain.empty() ? std::string() : phrase("the tables of a {} cannot be made longer or shorter: {}", s.name, not_plain);
}

SheetContainer::Entries::Entries(const SheetContainer& c, ByteSpan file, ByteSpan image, const Changes& changes, const ReadLimits& limits)
    : c_(c), sheet_(*c.sheet_), changes_(changes), limits_(limits), file_(file), image_(image), new_(file) {}

Result<std::uint64_t> SheetContainer::Entries::room_behind(std::uint64_t at) const {
    if (at >= file_.size()) return ~0ull - at;
    SKIVET_TRY(const auto gaps, c_.gaps(own_file));
    for (const auto& gap : gaps)
        if (gap.at == at && gap.blank) return gap.last ? ~0ull - at : gap.end - at;
    return std::uint64_t{0};
}

std::uint64_t SheetContainer::Entries::moved(std::uint64_t at) const {
    const auto next = std::upper_bound(moves_.begin(), moves_.end(), at, [](std::uint64_t a, const auto& move) { return a < move.first; });
    return next == moves_.begin() ? at : at + std::prev(next)->second;
}

Result<bool> SheetContainer::Entries::lay_out_tail(const std::vector<Section*>& sections) {
    const auto start = sections.front()->at;
    if (start > file_.size() || file_.size() - start > most_moved) return false;
    for (std::size_t i = 0; i < sections.size(); ++i)
        if (sections[i]->end > (i + 1 < sections.size() ? sections[i + 1]->at : file_.size())) return false;
    for (const auto& item : c_.items_)
        if (item.file == own_file && item.stored > 0 && item.data_at + item.stored > start) return false;
    SKIVET_TRY(const auto gaps, c_.gaps(own_file));
    if (std::any_of(gaps.begin(), gaps.end(), [&](const auto& g) { return g.end > start && !g.blank; })) return false;
    auto from = start, to = start;
    new_.resize(start);
    const auto copy_to = [&](std::uint64_t end) {
        new_.put(to, file_.subspan(static_cast<std::size_t>(from), static_cast<std::size_t>(end - from)));
        to += end - from;
        from = end;
    };
    for (auto* section : sections) {
        copy_to(section->at);
        section->to = to;
        from = section->end;
        to += section->size;
        moves_.emplace_back(from, to - from);
    }
    copy_to(file_.size());
    new_.resize(to);
    return true;
}

bool SheetContainer::Entries::may_go_to_end(const Section& section) const {
    return section.place->from == Place::From::field && sheet_.header_at >= 0;
}

void SheetContainer::Entries::move_to_end(Section& section) {
    const auto* value = c_.header_.values.named(section.place->field);
    section.to = aligned(new_.size(), sheet_.align);
    given_[value->field->name] = section.to - c_.base_of(*value->field, value->at);
    new_.put(section.at, Bytes(static_cast<std::size_t>(section.end - section.at), sheet_.fill));
    new_.put(new_.size(), Bytes(static_cast<std::size_t>(section.to - new_.size()), sheet_.fill));
    new_.resize(section.to + section.size);
}

Status SheetContainer::Entries::find_place(Section& section) {
    const auto old_size = section.end - section.at;
    if (section.size == old_size) return {};
    if (sheet_.record_count.by == CountOf::By::to_end && !c_.header_.values.with(Meaning::table_size) && &section != &names_)
        return fail(ErrorCode::unsupported, "the entries go on to where the data begins, which would have to move");
    if (section.size < old_size) return {};
    SKIVET_TRY(const auto room, room_behind(section.end));
    if (section.size - old_size <= room) return {};
    if (may_go_to_end(section)) {
        move_to_end(section);
        return {};
    }
    // Names that lie in the way may lie elsewhere.
    if (&section != &names_ && sheet_.names && names_.to == names_.at && may_go_to_end(names_) && names_.at >= section.end &&
        names_.at < section.at + section.size)
        move_to_end(names_);
    return clear_the_way(section);
}

Status SheetContainer::Entries::clear_the_way(const Section& section) {
    const auto until = section.at + section.size;
    const auto cannot = [&](const std::string& why) {
        return fail(ErrorCode::unsupported, phrase("its tables have no room for more: {}", said(why)),
                    "Deliver into an override folder instead, if the game has one");
    };
    if (!sheet_.may_move || sheet_.keep_order) return cannot("behind them lies data that may not move");
    if (sheet_.header_at < 0) return cannot("the header is at the file's end");
    for (const auto& table : c_.tables_)
        if (table.end > table.at && table.at >= section.end && table.at < until && !(names_.to != names_.at && table.at == names_.at))
            return cannot(phrase("behind them lie the {}", table.name));
    // All that begins in the way, and what shares its bytes.
    std::map<std::uint64_t, std::uint64_t> in_the_way;  // place to size
    auto end = until;
    for (bool more = true; more;) {
        more = false;
        for (const auto& item : c_.items_) {
            if (item.file != own_file || item.stored == 0 || item.data_at >= end || item.data_at + item.stored <= section.end) continue;
            auto& size = in_the_way[item.data_at];
            if (size >= item.stored) continue;
            size = item.stored;
            more = item.data_at + item.stored > end;
            end = std::max(end, item.data_at + item.stored);
        }
    }
    SKIVET_TRY(const auto gaps, c_.gaps(own_file));
    for (const auto& gap : gaps)
        if (!gap.blank && gap.end > section.end && gap.at < until) return cannot("behind them lie bytes the sheet does not explain");
    if (sheet_.crypt && sheet_.crypt->from_file) return cannot("data behind them is encrypted by its place");
    const auto align = c_.alignment(own_file);
    std::uint64_t all = 0;
    for (const auto& [at, size] : in_the_way) {
        if (at < section.end || at > file_.size() || size > file_.size() - at) return cannot("data behind them overlaps them");
        all += size;
        if (all > most_moved) return cannot("what lies behind them is too large to be moved");
        const auto to = aligned(new_.size(), align);
        new_.put(new_.size(), Bytes(static_cast<std::size_t>(to - new_.size()), sheet_.fill));
        new_.put(to, file_.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(size)));
        data_moved_[at] = to;
    }
    for (const auto& [at, size] : in_the_way) new_.put(at, Bytes(static_cast<std::size_t>(size), sheet_.fill));
    for (auto& record : records_)
        if (record.entry)
            if (const auto to = data_moved_.find(c_.items_[*record.entry].data_at);
                to != data_moved_.end() && c_.items_[*record.entry].file == own_file && c_.items_[*record.entry].stored > 0)
                record.data_at = to->second;
    return {};
}

Status SheetContainer::Entries::write_records() {
    Bytes all(sheet_.counted);
    if (sheet_.counted > 0) store_uint(all.data(), records_.size(), sheet_.counted, c_.header_.order);
    for (auto& record : records_) {
        const auto to = table_.to + all.size();
        if (record.entry) {
            SKIVET_TRY(const auto values, values_of(record));
            const auto& offset = *values.with(Meaning::data_offset);
            const auto& field = *offset.field;
            if (record.data_at || (field.from_field && to != record.old_at)) {
                const auto data = record.data_at.value_or(c_.items_[*record.entry].data_at);
                const auto number = data - c_.base_of(field, to + offset.at);
                SKIVET_CHECK(put_number(record, offset, number));
                if (const auto* end = values.with(Meaning::data_end))
                    SKIVET_CHECK(put_number(record, *end, number + c_.items_[*record.entry].stored));
            }
        }
        all.insert(all.end(), record.bytes.begin(), record.bytes.end());
    }
    all.insert(all.end(), closing_.begin(), closing_.end());
    if (sheet_.table_crypt) {
        plain_table_ = all;
        SKIVET_TRY(const auto key, sheet_data::key_for(*sheet_.table_crypt, *c_.keys_, c_.header_.values, file_));
        SKIVET_TRY(all, sheet_data::encrypt(*sheet_.table_crypt, {key, sheet_.table_crypt->iv, table_.to}, all));
    }
    // What is left of its old place is blank.
    const auto old_size = table_.end - table_.at;
    if (table_.to == table_.at && all.size() < old_size && moves_.empty()) all.resize(static_cast<std::size_t>(old_size), sheet_.fill);
    new_.put(table_.to, all);
    if (sheet_.names) {
        auto bytes = names_bytes_;
        const auto to = names_.to;
        if (names_.to == names_.at && bytes.size() < names_.end - names_.at && moves_.empty())
            bytes.resize(static_cast<std::size_t>(names_.end - names_.at), sheet_.fill);
        new_.put(to, bytes);
    }
    return {};
}

Status SheetContainer::Entries::write_header() {
    const auto& header = c_.header_.values;
    const auto number_of_records = static_cast<std::int64_t>(records_.size()) - static_cast<std::int64_t>(old_.size());
    if (sheet_.record_count.by == CountOf::By::field)
        given_[sheet_.record_count.field] = header.named(sheet_.record_count.field)->number + static_cast<std::uint64_t>(number_of_records);
    if (const auto* size = header.with(Meaning::table_size)) {
        const auto records = table_.size - (table_.end - table_.at);
        const bool with_names = sheet_.names && c_.table_at_ + size->number >= c_.names_end_ && c_.names_at_ >= c_.table_at_;
        given_[size->field->name] = size->number + records + (with_names ? names_.size - (names_.end - names_.at) : 0);
    }
    if (sheet_.names && !sheet_.names->size_field.empty()) given_[sheet_.names->size_field] = names_.size;
    if (const auto* size = header.with(Meaning::file_size)) given_[size->field->name] = new_.size();
    // What else the header says the place of moved along.
    for (const auto& value : header.values) {
        const auto& name = value.field->name;
        const auto says = [&](const Place& place) { return place.from == Place::From::field && place.field == name; };
        if (!given_.contains(name) &&
            (value.field->means == Meaning::table_offset || says(sheet_.record_at) || (sheet_.names && says(sheet_.names->at)))) {
            const auto at = value.number + c_.base_of(*value.field, value.at);
            const auto field_moved = value.field->from_field ? moved(value.at) - value.at : 0;
            if (moved(at) != at || field_moved != 0) given_[name] = value.number + (moved(at) - at) - field_moved;
        }
        const auto given = given_.find(name);
        if (given == given_.end()) continue;
        const auto at = moved(value.at);
        SKIVET_TRY(const auto bytes, field_bytes(*value.field, c_.header_.order, given->second, new_.read(at, value.size)));
        new_.put(at, bytes);
    }
    const auto* offset = sheet_.record.with(Meaning::data_offset);
    if (given_.contains(offset->base_field))
        return fail(ErrorCode::unsupported, phrase("its data is counted from \"{}\", which would have to change", offset->base_field));
    return {};
}

Status SheetContainer::Entries::write_sums() {
    const auto& header = c_.header_.values;
    const auto* stated = header.with(Meaning::table_size);
    const auto table_size = stated ? given_.at(stated->field->name) : table_.size;
    const auto with_header = [](const Field& field) {
        return std::find(field.over.begin(), field.over.end(), Over::header) != field.over.end();
    };
    // The tables' own, then the header's, which are over those, then the file's.
    for (const int turn : {0, 1, 2})
        for (const auto& value : header.values) {
            const auto& field = *value.field;
            if (field.means != Meaning::checksum) continue;
            if (turn != (field.is_over(Over::file) ? 2 : with_header(field) ? 1 : 0)) continue;
            Bytes over;
            const auto mine = moved(value.at);
            const auto add = [&](std::uint64_t at, std::uint64_t size) {
                const auto start = over.size();
                const auto bytes = new_.read(at, size);
                over.insert(over.end(), bytes.begin(), bytes.end());
                if (mine >= at && mine < at + size)
                    std::fill_n(over.begin() + static_cast<std::ptrdiff_t>(start + mine - at), value.size, std::byte{0});
            };
            for (const auto what : field.over) {
                if (what == Over::table && !sheet_.table_crypt) add(table_.to, table_size);
                if (what == Over::table && sheet_.table_crypt) {
                    over = plain_table_;
                    over.resize(static_cast<std::size_t>(table_size));
                }
                if (what == Over::names) add(names_.to, sheet_.names ? names_.size : 0);
                if (what == Over::header) add(moved(c_.header_.at), header.end - c_.header_.at);
                if (what == Over::file) add(0, new_.size());
            }
            SKIVET_TRY(const auto bytes, sum_field_bytes(field, c_.header_.order, over));
            new_.put(mine, bytes);
        }
    return {};
}

Status SheetContainer::Entries::blank_what_went() {
    // What is larger stays where it is, and nobody reads it any more.
    // What stays, by file and place, each with the furthest end up to it: data may lie in other data.
    std::map<std::uint32_t, std::vector<std::pair<std::uint64_t, std::uint64_t>>> stays;
    for (const auto& record : records_)
        if (record.entry)
            if (const auto& item = c_.items_[*record.entry]; item.stored > 0)
                stays[item.file].emplace_back(item.data_at, item.data_at + item.stored);
    for (auto& [file, places] : stays) {
        std::sort(places.begin(), places.end());
        for (std::size_t i = 1; i < places.size(); ++i) places[i].second = std::max(places[i].second, places[i - 1].second);
    }
    std::uint64_t all = 0;
    for (const auto entry : changes_.removed) {
        const auto& item = c_.items_[entry];
        if (item.stored == 0 || (item.file == own_file && data_moved_.contains(item.data_at))) continue;
        const auto& places = stays[item.file];
        const auto behind = std::lower_bound(places.begin(), places.end(), std::pair(item.data_at + item.stored, std::uint64_t{0}));
        if (behind != places.begin() && std::prev(behind)->second > item.data_at) continue;
        // A data file that is not there has nothing to be blanked; nor has what is said to lie outside.
        const auto view = c_.data_file(item.file);
        const auto bytes = view ? view->bytes() : Result<ByteSpan>(ByteSpan{});
        if (!bytes || item.data_at > bytes->size() || item.stored > bytes->size() - item.data_at || item.stored > most_moved - all)
            continue;
        all += item.stored;
        const Bytes blank(static_cast<std::size_t>(item.stored), sheet_.fill);
        if (item.file == own_file) new_.put(item.data_at, blank);
        else others_.try_emplace(view->path(), std::pair(*view, Patched(*bytes))).first->second.second.put(item.data_at, blank);
    }
    return {};
}

tl::unexpected<Error> SheetContainer::Entries::not_enough(const std::string& what) const {
    return fail(ErrorCode::unsupported, phrase("what the sheet {} says is not enough to change its entries: {}", sheet_.name, said(what)),
                "Deliver into an override folder instead, if the game has one");
}

Result<std::unique_ptr<SheetContainer>> SheetContainer::Entries::opened(const FileView& view) const {
    ReadContext context;
    context.keys = c_.keys_;
    context.packers = c_.packers_;
    context.past = c_.past_;
    context.known_paths = c_.known_paths_;
    context.limits = limits_;
    auto [after, wrong] = open_as_far(view, c_.sheet_, context);
    if (wrong) return not_enough(wrong->message());
    std::vector<std::string_view> wanted, there;
    for (const auto& record : records_)
        if (!record.shows.empty()) wanted.push_back(record.shows);
    for (const auto& entry : after->entries()) there.push_back(entry.path);
    std::sort(wanted.begin(), wanted.end());
    std::sort(there.begin(), there.end());
    if (wanted == there) return std::move(after);
    std::vector<std::string_view> missing;
    std::set_difference(wanted.begin(), wanted.end(), there.begin(), there.end(), std::back_inserter(missing));
    if (!missing.empty() && sheet_.record.with(Meaning::path_hash))
        return not_enough(phrase("\"{}\" would be known by its hash alone; let the program know the path first", missing.front()));
    return not_enough(missing.empty() ? "there would be entries nobody wanted" : phrase("\"{}\" would not be there", missing.front()));
}

Status SheetContainer::Entries::check_data(const SheetContainer& after) const {
    for (const auto& record : records_) {
        if (!record.entry || record.shows.empty()) continue;
        const auto now = after.find(record.shows);
        const auto &was = c_.items_[*record.entry], &is = after.items_[*now];
        const auto at = record.data_at.value_or(was.data_at);
        if (is.data_at != at || is.stored != was.stored || is.file != was.file || is.size != was.size)
            return not_enough(phrase("\"{}\" would have other data", record.shows));
    }
    if (!after.problems().empty() && c_.problems().empty()) return not_enough(after.problems().front().message());
    return {};
}

Result<WritePlan> SheetContainer::Entries::plan() {
    SKIVET_CHECK(read_records());
    SKIVET_CHECK(choose_records());
    SKIVET_CHECK(write_names());
    table_.size = sheet_.counted + closing_.size();
    for (const auto& record : records_) table_.size += record.bytes.size();
    const bool names_follow = sheet_.names && sheet_.names->at.from == Place::From::after_record;
    if (names_follow) {
        // They move with the records, as one table.
        if (names_.at != table_.end) return fail(ErrorCode::unsupported, "something lies between the records and their names");
        Section both{table_.at, names_.end, table_.at, table_.size + names_.size, table_.place};
        SKIVET_TRY(const bool done, lay_out_tail({&both}));
        if (!done) SKIVET_CHECK(find_place(both));
        table_.to = both.to;
        names_.to = both.to + table_.size;
        // What is left of their old place is blank.
        if (both.to == both.at && moves_.empty() && both.size < both.end - both.at)
            new_.put(both.at, Bytes(static_cast<std::size_t>(both.end - both.at), sheet_.fill));
    } else {
        std::vector<Section*> sections = {&table_};
        if (sheet_.names) sections.push_back(&names_);
        std::sort(sections.begin(), sections.end(), [](const auto* one, const auto* other) { return one->at < other->at; });
        // All of them at the file's end, or the last one; the others by themselves.
        for (; !sections.empty(); sections.erase(sections.begin())) {
            SKIVET_TRY(const bool done, lay_out_tail(sections));
            if (done) break;
        }
        for (auto* section : {&table_, &names_})
            if (section->end > section->at && std::find(sections.begin(), sections.end(), section) == sections.end())
                SKIVET_CHECK(find_place(*section));
    }
    SKIVET_CHECK(write_records());
    SKIVET_CHECK(blank_what_went());
    SKIVET_CHECK(write_header());
    SKIVET_CHECK(write_sums());

    const auto overlays = new_.overlays();
    SKIVET_TRY(const auto view, c_.file_.with(overlays, new_.size()));
    SKIVET_TRY(const auto after, opened(view));
    SKIVET_CHECK(check_data(*after));

    std::vector<Replacement> contents;
    for (const auto& added : changes_.added) contents.push_back({*after->find(added.path), added.bytes});
    for (const auto& replaced : changes_.replaced) {
        auto path = c_.entries_[replaced.entry].path;
        for (const auto& name : changes_.renamed)
            if (name.entry == replaced.entry) path = name.path;
        contents.push_back({*after->find(path), replaced.bytes});
    }
    SKIVET_TRY(auto filled, after->plan(contents, limits_));
    WritePlan out;
    FilePlan own;
    for (auto& file : filled.files) {
        if (file.file == view.path()) own = std::move(file);
        else if (const auto other = others_.find(file.file); other != others_.end()) {
            SKIVET_TRY(auto both, finish_plan(other->second.first, other->second.second.over_the_file(std::move(file))));
            out.add(std::move(both));
            others_.erase(other);
        } else {
            out.files.push_back(std::move(file));
        }
    }
    for (const auto& [path, other] : others_) {
        SKIVET_TRY(auto only, finish_plan(other.first, other.second.over_the_file({})));
        out.add(std::move(only));
    }
    SKIVET_TRY(auto finished, finish_plan(c_.file_, new_.over_the_file(std::move(own))));
    std::unordered_set<std::size_t> goes(changes_.removed.begin(), changes_.removed.end());
    for (const auto& replaced : changes_.replaced) goes.insert(replaced.entry);
    for (const auto& file : finished.files)
        SKIVET_CHECK(c_.may_grow(own_file, file_.size(), file.new_size, [&](std::size_t entry) { return goes.contains(entry); }));
    // Where entries overlap or lie in the tables, what goes into one may change another: the whole is looked at as well.
    const auto check_whole = [&](const FileView& whole) -> Status {
        SKIVET_TRY(const auto again, opened(whole));
        for (const auto& content : contents)
            if (const auto& path = after->entries_[content.entry].path; again->items_[*again->find(path)].repeats)
                return not_enough(phrase("\"{}\" would lie over bytes that other entries claim", path));
        return {};
    };
    constexpr std::uint64_t most_rebuilt = 64u << 20;  // bytes; larger ones are read back when they are delivered
    for (const auto& file : finished.files) {
        if (file.pieces.empty()) {
            std::vector<Overlay> over;
            for (const auto& range : file.ranges) over.push_back({range.at, range.bytes});
            SKIVET_TRY(const auto whole, c_.file_.with(over, file.new_size));
            SKIVET_CHECK(check_whole(whole));
        } else if (file.new_size <= most_rebuilt) {
            SKIVET_TRY(auto bytes, planned_bytes(file, file_));
            SKIVET_CHECK(check_whole(FileView::of(std::move(bytes), c_.file_.path())));
        }
    }
    out.add(std::move(finished));
    return out;
}

std::string SheetContainer::fixed_entries() const { return Entries::why_fixed(*this); }

Result<WritePlan> SheetContainer::plan_entries(const Changes& changes, const ReadLimits& limits) const {
    SKIVET_TRY(const auto file, file_.bytes());
    SKIVET_TRY(const auto image, image_.bytes());
    return Entries(*this, file, image, changes, limits).plan();
}

}  // namespace skivet

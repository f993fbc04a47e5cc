// The records and names there will be: those that stay, those with other names, and new ones like others.
#include <algorithm>

#include "base/phrase.h"
#include "base/text.h"
#include "container/sheet_entries.h"

namespace skivet {

Result<RecordValues> SheetContainer::Entries::values_of(const Record& record) const {
    RecordValues out;
    SKIVET_CHECK(read_record(sheet_.record, c_.header_.order, record.bytes, 0, limits_, out));
    return out;
}

Status SheetContainer::Entries::read_records() {
    std::unordered_map<std::uint64_t, std::size_t> entry_at;
    for (std::size_t i = 0; i < c_.items_.size(); ++i) entry_at.emplace(c_.items_[i].record_at, i);
    auto at = c_.table_at_ + sheet_.counted;
    auto count = ~0ull;
    if (sheet_.record_count.by == CountOf::By::field) count = c_.header_.values.named(sheet_.record_count.field)->number;
    if (sheet_.record_count.by == CountOf::By::counted) count = load_uint(image_.data() + c_.table_at_, sheet_.counted, c_.header_.order);
    RecordValues values;
    for (std::uint64_t i = 0; i < count && at < c_.table_end_; ++i) {
        SKIVET_CHECK(read_record(sheet_.record, c_.header_.order, image_, at, limits_, values));
        Record record;
        const auto bytes = image_.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(values.end - at));
        record.bytes.assign(bytes.begin(), bytes.end());
        record.old_at = at;
        record.name = old_.size();
        if (sheet_.record_count.by == CountOf::By::terminator) {
            const auto* value = values.named(sheet_.record_count.field);
            if (value->field->type == FieldType::text ? value->text.empty() : value->number == sheet_.record_count.number) {
                closing_ = record.bytes;
                at = values.end;
                break;
            }
        }
        if (const auto entry = entry_at.find(at); entry != entry_at.end()) {
            record.entry = entry->second;
            record.shows = c_.entries_[entry->second].path;
        }
        at = values.end;
        old_.push_back(std::move(record));
    }
    table_ = {c_.table_at_, at, c_.table_at_, 0, &sheet_.record_at};
    return {};
}

Status SheetContainer::Entries::put_number(Record& record, const FieldValue& value, std::uint64_t number) const {
    const auto old = ByteSpan(record.bytes).subspan(static_cast<std::size_t>(value.at), static_cast<std::size_t>(value.size));
    SKIVET_TRY(const auto bytes, field_bytes(*value.field, c_.header_.order, number, old));
    std::copy(bytes.begin(), bytes.end(), record.bytes.begin() + static_cast<std::ptrdiff_t>(value.at));
    return {};
}

Status SheetContainer::Entries::put_text(Record& record, Meaning meaning, const std::string& text) {
    SKIVET_TRY(const auto values, values_of(record));
    const auto* value = values.with(meaning);
    const auto& field = *value->field;
    const auto order = field.order.value_or(c_.header_.order);
    SKIVET_TRY(auto bytes, text_bytes(field.code, order, text));
    const std::size_t unit = field.code == TextCode::utf16 ? 2 : 1;
    const bool fixed = !field.prefixed && !field.terminated && field.length_field.empty();
    if (fixed && bytes.size() > field.size)
        return fail(ErrorCode::unfit, phrase("\"{}\" is longer than the {} bytes that names have in a {}", text, field.size, sheet_.name),
                    "Choose a shorter name");
    if (fixed) bytes.resize(static_cast<std::size_t>(field.size));
    if (field.terminated) bytes.resize(bytes.size() + unit);
    if (field.prefixed) {
        const auto length = bytes.size() / unit;
        if (field.width < 8 && length >> (8 * field.width) != 0)
            return fail(ErrorCode::unfit, phrase("\"{}\" is longer than a length of {} bytes can say", text, field.width));
        Bytes prefix(field.width);
        store_uint(prefix.data(), length, field.width, order);
        bytes.insert(bytes.begin(), prefix.begin(), prefix.end());
    }
    if (!field.length_field.empty()) SKIVET_CHECK(put_number(record, *values.named(field.length_field), bytes.size() / unit));
    const auto from = record.bytes.begin() + static_cast<std::ptrdiff_t>(value->at);
    const auto at = record.bytes.erase(from, from + static_cast<std::ptrdiff_t>(value->size));
    record.bytes.insert(at, bytes.begin(), bytes.end());
    if (const auto* size = values.with(Meaning::record_size)) {
        // Stands before or behind the text; where it is now is read again, its value not being looked at.
        const auto place = size->at > value->at ? size->at + bytes.size() - value->size : size->at;
        SKIVET_TRY(const auto number, field_bytes(*size->field, c_.header_.order, record.bytes.size(), {}));
        std::copy(number.begin(), number.end(), record.bytes.begin() + static_cast<std::ptrdiff_t>(place));
    }
    return {};
}

Status SheetContainer::Entries::give_path(Record& record, const std::string& path) {
    SKIVET_TRY(const auto values, values_of(record));
    record.path = record.shows = path;
    // As the other names here have their folders: with \ where they do.
    const auto as_here = [&](std::string text, const std::string& like) {
        if (like.find('\\') != std::string::npos && like.find('/') == std::string::npos) std::replace(text.begin(), text.end(), '/', '\\');
        return text;
    };
    if (const auto* hash = values.with(Meaning::path_hash)) {
        if (!sheet_.hash) return fail(ErrorCode::unsupported, "the sheet does not say how names are hashed", "Say it in the sheet");
        SKIVET_CHECK(put_number(record, *hash, path_hash(*sheet_.hash, hash->field->width, path)));
    }
    const auto* whole = values.with(Meaning::path);
    if (whole && sheet_.path_of.empty()) return put_text(record, Meaning::path, as_here(path, whole->text));
    // In parts, as far as the record has fields for them.
    auto rest = path;
    if (const auto* folder = values.with(Meaning::folder)) {
        const auto slash = rest.rfind('/');
        const auto text = slash == std::string::npos ? std::string() : rest.substr(0, slash);
        SKIVET_CHECK(put_text(record, Meaning::folder, as_here(text, folder->text)));
        if (slash != std::string::npos) rest = rest.substr(slash + 1);
    }
    if (values.with(Meaning::extension)) {
        const auto point = rest.rfind('.');
        SKIVET_CHECK(put_text(record, Meaning::extension, point == std::string::npos ? std::string() : rest.substr(point + 1)));
        rest = rest.substr(0, point);
    }
    if (sheet_.names) record.path = rest;
    else if (const auto* name = values.with(Meaning::name)) SKIVET_CHECK(put_text(record, Meaning::name, as_here(rest, name->text)));
    else if (whole) SKIVET_CHECK(put_text(record, Meaning::path, as_here(rest, whole->text)));
    return {};
}

SheetContainer::Entries::Key SheetContainer::Entries::key_of(const Record& record, Order order) const {
    if (order == Order::by_hash) {
        const auto values = values_of(record);
        const auto* hash = values ? values->with(Meaning::path_hash) : nullptr;
        return {hash ? hash->number : 0, {}};
    }
    return {0, order == Order::by_path ? record.shows : lower(record.shows)};
}

SheetContainer::Entries::Order SheetContainer::Entries::order_of() const {
    constexpr std::size_t enough = 3;  // two rise or fall by chance
    if (records_.size() < enough || std::any_of(records_.begin(), records_.end(), [](const auto& r) { return r.shows.empty(); }))
        return Order::none;
    for (const auto order : {Order::by_hash, Order::by_path, Order::by_lower_path}) {
        if (order == Order::by_hash && !sheet_.record.with(Meaning::path_hash)) continue;
        auto before = key_of(records_.front(), order);
        const bool rises = std::all_of(records_.begin() + 1, records_.end(), [&](const auto& record) {
            auto key = key_of(record, order);
            const bool up = before <= key;
            before = std::move(key);
            return up;
        });
        if (rises) return order;
    }
    return Order::none;
}

Status SheetContainer::Entries::choose_records() {
    const std::unordered_set<std::size_t> removed(changes_.removed.begin(), changes_.removed.end());
    std::unordered_map<std::size_t, const std::string*> renamed;
    for (const auto& name : changes_.renamed) renamed.emplace(name.entry, &name.path);
    std::unordered_map<std::size_t, std::size_t> record_of_entry;
    std::vector<Record> later;
    for (std::size_t i = 0; i < old_.size(); ++i) {
        const auto& old = old_[i];
        if (old.entry) record_of_entry.emplace(*old.entry, i);
        if (old.entry && removed.contains(*old.entry)) continue;
        const auto name = old.entry ? renamed.find(*old.entry) : renamed.end();
        if (name == renamed.end()) {
            records_.push_back(old);
            continue;
        }
        auto record = old;
        SKIVET_CHECK(give_path(record, *name->second));
        later.push_back(std::move(record));
    }
    for (const auto& added : changes_.added) {
        const auto found = record_of_entry.find(added.like.value_or(0));
        if (found == record_of_entry.end())
            return fail(ErrorCode::unsupported, "the archive has no entry yet, so nothing says how the record of a new one looks");
        auto record = old_[found->second];
        record.fresh = true;
        SKIVET_CHECK(give_path(record, added.path));
        later.push_back(std::move(record));
    }
    // The game may look for entries by halving: where all rise by something, the new ones come between them.
    const auto order = order_of();
    if (order != Order::none) {
        std::vector<std::pair<Key, Record>> sorted;
        for (auto& record : later) {
            auto key = key_of(record, order);
            sorted.emplace_back(std::move(key), std::move(record));
        }
        std::stable_sort(sorted.begin(), sorted.end(), [](const auto& one, const auto& other) { return one.first < other.first; });
        std::vector<Record> all;
        auto next = sorted.begin();
        for (auto& record : records_) {
            const auto key = key_of(record, order);
            for (; next != sorted.end() && next->first < key; ++next) all.push_back(std::move(next->second));
            all.push_back(std::move(record));
        }
        for (; next != sorted.end(); ++next) all.push_back(std::move(next->second));
        records_ = std::move(all);
    } else {
        // What got another name stays where it was.
        std::vector<Record> all;
        auto kept = records_.begin();
        for (auto& record : later) {
            for (; !record.fresh && kept != records_.end() && kept->old_at < record.old_at; ++kept) all.push_back(std::move(*kept));
            if (record.fresh)
                for (; kept != records_.end(); ++kept) all.push_back(std::move(*kept));
            all.push_back(std::move(record));
        }
        for (; kept != records_.end(); ++kept) all.push_back(std::move(*kept));
        records_ = std::move(all);
    }
    // A number of the entry hidden in its data's encryption would change with its place.
    if (sheet_.crypt && sheet_.crypt->iv_is_number)
        for (std::size_t i = 0; i < std::min(old_.size(), records_.size()); ++i)
            if (records_[i].old_at != old_[i].old_at)
                return fail(ErrorCode::unsupported, "data is encrypted with the number of its entry, which would become another");
    return {};
}

Result<Bytes> SheetContainer::Entries::name_bytes(const std::string& name) const {
    const auto& names = *sheet_.names;
    SKIVET_TRY(auto bytes, text_bytes(names.code, c_.header_.order, name));
    const std::size_t unit = names.code == TextCode::utf16 ? 2 : 1;
    if (names.prefix == 0) {
        bytes.resize(bytes.size() + unit);
        return bytes;
    }
    if (names.prefix < 8 && bytes.size() >> (8 * names.prefix) != 0)
        return fail(ErrorCode::unfit, phrase("\"{}\" is longer than a length of {} bytes can say", name, names.prefix));
    Bytes out(names.prefix);
    store_uint(out.data(), bytes.size(), names.prefix, c_.header_.order);
    out.insert(out.end(), bytes.begin(), bytes.end());
    return out;
}

std::uint64_t SheetContainer::Entries::name_end(ByteSpan names, std::uint64_t at) const {
    const auto prefix = sheet_.names->prefix;
    if (prefix > 0) {
        if (at > names.size() || names.size() - at < prefix) return names.size() + 1;
        return at + prefix + load_uint(names.data() + at, prefix, c_.header_.order);
    }
    const std::uint64_t unit = sheet_.names->code == TextCode::utf16 ? 2 : 1;
    const auto ends = [&](std::uint64_t i) {
        return names[static_cast<std::size_t>(i)] == std::byte{0} && (unit == 1 || names[static_cast<std::size_t>(i + 1)] == std::byte{0});
    };
    while (at + unit <= names.size() && !ends(at)) at += unit;
    return at + unit;
}

Status SheetContainer::Entries::write_names() {
    if (!sheet_.names) return {};
    const bool stated = !sheet_.names->size_field.empty();
    names_ = {c_.names_at_, c_.names_end_, c_.names_at_, 0, &sheet_.names->at};
    // Where no field says how long they are, they have to lie side by side; scattered ones are no table.
    if (!stated) {
        const auto table =
            std::find_if(c_.tables_.begin(), c_.tables_.end(), [](const auto& t) { return t.name == "names" && t.end > t.at; });
        if (table == c_.tables_.end())
            return fail(ErrorCode::unsupported, "nothing says where the names end", "Name the field that does in the sheet");
        names_.end = table->end;
    }
    if (names_.end <= names_.at || names_.end > image_.size()) return fail(ErrorCode::unsupported, "the archive has no names yet");
    const auto old = image_.subspan(static_cast<std::size_t>(names_.at), static_cast<std::size_t>(names_.end - names_.at));
    const auto put = [&](ByteSpan bytes) { names_bytes_.insert(names_bytes_.end(), bytes.begin(), bytes.end()); };
    const auto broken = [&] { return fail(ErrorCode::unsupported, "the names lie otherwise than the sheet says"); };
    if (sheet_.names->in_order) {
        std::vector<ByteSpan> each;
        std::uint64_t at = 0;
        while (at < old.size() && each.size() < old_.size()) {
            const auto end = name_end(old, at);
            if (end > old.size()) return broken();
            each.push_back(old.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(end - at)));
            at = end;
        }
        if (each.size() != old_.size()) return broken();
        for (const auto& record : records_) {
            if (!record.path) {
                put(each[record.name]);
                continue;
            }
            SKIVET_TRY(const auto bytes, name_bytes(*record.path));
            put(bytes);
        }
        put(old.subspan(static_cast<std::size_t>(at)));
    } else {
        // A table whose size is stated may hold more than names: what is there stays, new ones come behind. Otherwise it becomes the names
        // there are, side by side.
        std::map<std::uint64_t, std::uint64_t> again;  // old place in the table to the new one
        if (stated) put(old);
        for (auto& record : records_) {
            SKIVET_TRY(const auto values, values_of(record));
            const auto* offset = values.with(Meaning::name_offset);
            if (!offset) return fail(ErrorCode::unsupported, "the sheet does not say which name an entry has");
            if (record.path) {
                SKIVET_TRY(const auto bytes, name_bytes(*record.path));
                SKIVET_CHECK(put_number(record, *offset, names_bytes_.size()));
                put(bytes);
            } else if (!stated) {
                const auto [known, fresh] = again.emplace(offset->number, names_bytes_.size());
                if (fresh) {
                    const auto end = name_end(old, offset->number);
                    if (end > old.size()) return broken();
                    put(old.subspan(static_cast<std::size_t>(offset->number), static_cast<std::size_t>(end - offset->number)));
                }
                SKIVET_CHECK(put_number(record, *offset, known->second));
            }
        }
    }
    names_.size = names_bytes_.size();
    return {};
}

}  // namespace skivet

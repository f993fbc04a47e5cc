#include <fmt/ranges.h>

#include "base/phrase.h"
#include "sheet/parse_toml.h"

namespace skivet {
namespace {

struct MeaningName {
    Meaning meaning;
    std::string_view name;
};
// clang-format off
constexpr MeaningName meanings[] = {
    {Meaning::entry_count, "entry count"}, {Meaning::table_offset, "table offset"}, {Meaning::table_size, "table size"}, {Meaning::table_stored_size, "table stored size"}, {Meaning::file_size, "file size"},
    {Meaning::data_size, "data size"}, {Meaning::folder_count, "folder count"}, {Meaning::byte_order, "byte order"}, {Meaning::path, "path"},
    {Meaning::folder, "folder"}, {Meaning::name, "name"}, {Meaning::extension, "extension"}, {Meaning::name_offset, "name offset"},
    {Meaning::name_index, "name index"}, {Meaning::path_hash, "path hash"}, {Meaning::data_offset, "data offset"}, {Meaning::data_end, "data end"}, {Meaning::size, "size"},
    {Meaning::stored_size, "stored size"}, {Meaning::method, "method"}, {Meaning::file_number, "file number"}, {Meaning::deleted, "deleted"},
    {Meaning::encrypted, "encrypted"}, {Meaning::record_size, "record size"}, {Meaning::first_entry, "first entry"},
    {Meaning::entries_offset, "entries offset"}, {Meaning::checksum, "checksum"}, {Meaning::width, "width"}, {Meaning::height, "height"},
    {Meaning::depth, "depth"}, {Meaning::mips, "mips"}, {Meaning::layers, "layers"}, {Meaning::faces, "faces"}, {Meaning::format, "format"},
    {Meaning::color, "color"}, {Meaning::payload_size, "payload size"}, {Meaning::row_pitch, "row pitch"}, {Meaning::block_height, "block height"},
    {Meaning::gob_rows, "gob rows"}};
// clang-format on

constexpr std::pair<std::string_view, Over> overs[] = {{"unpacked", Over::unpacked}, {"stored", Over::stored},  {"table", Over::table},
                                                       {"header", Over::header},     {"file", Over::file},      {"payload", Over::payload},
                                                       {"names", Over::names},       {"folders", Over::folders}};

std::string format_names() {
    std::string out;
    for (const auto format : formats_by_use()) out += fmt::format("{}{}", out.empty() ? "" : ", ", info(format).name);
    return out;
}

/// What a checksum can be taken over in each place.
std::vector<std::string_view> ranges_in(sheet_parse::FieldsOf place) {
    using enum sheet_parse::FieldsOf;
    switch (place) {
        case container_header: return {"table", "header", "file", "names", "folders"};
        case record:
        case texture_record: return {"unpacked", "stored"};
        case texture_header: return {"payload"};
        case wrapper_header: return {"unpacked", "stored", "header", "file"};
        default: return {};
    }
}

/// The meanings that have an effect in each place; a checksum besides, where ranges_in has any.
std::vector<Meaning> meanings_in(sheet_parse::FieldsOf place) {
    using enum sheet_parse::FieldsOf;
    using M = Meaning;
    switch (place) {
        case container_header:
            return {M::entry_count, M::table_offset, M::table_size,   M::table_stored_size,
                    M::file_size,   M::data_size,    M::folder_count, M::byte_order};
        case record:
            return {M::path,     M::folder, M::name,        M::extension, M::name_offset, M::name_index, M::path_hash, M::data_offset,
                    M::data_end, M::size,   M::stored_size, M::method,    M::file_number, M::deleted,    M::encrypted, M::record_size};
        case texture_record: {
            auto out = meanings_in(record);
            for (const auto more :
                 {M::width, M::height, M::depth, M::mips, M::layers, M::faces, M::format, M::color, M::row_pitch, M::block_height})
                out.push_back(more);
            return out;
        }
        case chunk: return {M::data_offset, M::size, M::stored_size};
        case folders: return {M::folder, M::name_offset, M::entry_count, M::first_entry, M::entries_offset, M::record_size};
        case texture_header:
            return {M::width, M::height,       M::depth,     M::mips,         M::layers,   M::faces,      M::format,
                    M::color, M::payload_size, M::row_pitch, M::block_height, M::gob_rows, M::byte_order, M::record_size};
        default: return {M::size, M::stored_size, M::method, M::file_size, M::byte_order, M::record_size};
    }
}

}  // namespace

std::string_view name_of(Meaning meaning) {
    for (const auto& m : meanings)
        if (m.meaning == meaning) return m.name;
    return "nothing";
}

std::optional<std::pair<Format, ColorSpace>> format_and_color(std::string_view text) {
    auto color = ColorSpace::unknown;
    for (const auto& [word, meant] :
         {std::pair{std::string_view(" srgb"), ColorSpace::srgb}, std::pair{std::string_view(" linear"), ColorSpace::linear}})
        if (text.ends_with(word)) text.remove_suffix(word.size()), color = meant;
    const auto format = format_named(text);
    if (!format) return std::nullopt;
    return std::pair{*format, color};
}

namespace sheet_parse {
namespace {

/// `length` of text or bytes: the type of a number before them, "until zero" (text), or the field of the record that holds it.
Status parse_length(const Reader& r, const std::string& length, const RecordType& record, Field& field) {
    if (length == "until zero" && field.type == FieldType::text) {
        field.terminated = true;
        return {};
    }
    if (const auto* other = record.named(length)) {
        if (other->type != FieldType::uint) return r.wrong(field.line, phrase("the field \"{}\" is no length", length));
        field.length_field = length;
        return {};
    }
    field.width = width_named(length);
    field.prefixed = true;
    if (field.width == 0 || length[0] != 'u')
        return r.wrong(field.line, phrase("length \"{}\" is not known; u8, u16, u32{}, or a field before it", length,
                                          field.type == FieldType::text ? ", \"until zero\"" : ""));
    return {};
}

/// Words that a field's type gives no effect.
Status check_words(const Reader& r, const toml::table& entry, const Field& field, std::string_view type) {
    std::vector<std::string_view> allowed = {"name", "type"};
    const auto allow = [&](std::initializer_list<std::string_view> words) { allowed.insert(allowed.end(), words); };
    if (field.type == FieldType::uint) allow({"order", "means", "unit", "add", "power", "base", "from", "values", "of", "kind", "bits"});
    if (field.type == FieldType::real) allow({"order"});
    if (field.type == FieldType::text) allow({"size", "length", "encoding", "means", "order"});
    if (field.type == FieldType::bytes) allow({"size", "length", "means", "of", "kind", "order"});
    if (field.type == FieldType::pad) allow({"align"});
    for (const auto& [key, node] : entry)
        if (std::find(allowed.begin(), allowed.end(), key.str()) == allowed.end())
            return r.wrong(Reader::line_of(node), phrase("\"{}\" has no effect on a field of the type {}", key.str(), type));
    if (entry.contains("size") && entry.contains("length")) return r.wrong(field.line, "size and length both say how long it is");
    if (field.width <= 1 && field.code != TextCode::utf16 && entry.contains("order"))
        return r.wrong(r.line_of(entry, "order"), "\"order\" has no effect on single bytes");
    return {};
}

Status parse_type(const Reader& r, const toml::table& entry, const RecordType& record, Field& field) {
    SKIVET_TRY(const auto type, r.text(entry, "type", true));
    SKIVET_TRY(field.size, r.number(entry, "size", 0));
    SKIVET_TRY(const auto length, r.text(entry, "length"));
    SKIVET_TRY(field.code, r.text_code(entry));
    if (entry.contains("order")) {
        SKIVET_TRY(const auto big, r.word(entry, "order", {"little", "big"}));
        field.order = big ? ByteOrder::big : ByteOrder::little;
    }
    field.width = width_named(type);
    if (field.width > 0) {
        field.is_signed = type[0] == 'i';
    } else if (type == "f32" || type == "f64") {
        field.type = FieldType::real;
        field.width = type == "f32" ? 4 : 8;
    } else if (type == "text" || type == "bytes") {
        field.type = type == "text" ? FieldType::text : FieldType::bytes;
        if (!length.empty()) SKIVET_CHECK(parse_length(r, length, record, field));
        else if (field.size == 0) return r.wrong(field.line, phrase("{} a size or a length", type == "text" ? "text needs" : "bytes need"));
    } else if (type == "pad") {
        field.type = FieldType::pad;
        SKIVET_TRY(field.size, r.number(entry, "align", 0));
        if (field.size == 0 || field.size > 1u << 20) return r.wrong(field.line, "a pad needs align, 1 to 1048576");
    } else {
        return r.wrong(
            field.line,
            phrase("the type \"{}\" is not known; u8, u16, u24, u32, u40, u48, u64 (or i for signed), f32, f64, text, bytes or pad", type));
    }
    return check_words(r, entry, field, type);
}

Status parse_values(const Reader& r, const toml::table& entry, Field& field) {
    const auto* values = entry["values"].as_table();
    if (!values) {
        if (entry.contains("values")) return r.wrong(field.line, "values are written { 0 = \"name\", 1 = \"name\" }");
        return {};
    }
    for (const auto& [key, node] : *values) {
        const std::string digits(key.str());
        char* end = nullptr;
        const auto value = std::strtoull(digits.c_str(), &end, 0);
        const auto name = node.value_exact<std::string>();
        const int line = Reader::line_of(node);
        if (digits.empty() || *end != '\0' || !name) return r.wrong(line, "values are written { 0 = \"name\", 1 = \"name\" }");
        if (field.means == Meaning::format && !format_and_color(*name))
            return r.wrong(line, phrase("the format \"{}\" is not known; one of {}, with srgb or linear behind it where that is sure",
                                        *name, format_names()));
        if (field.means == Meaning::color && *name != "linear" && *name != "srgb") return r.wrong(line, "color is \"linear\" or \"srgb\"");
        if (field.means == Meaning::byte_order && *name != "little" && *name != "big")
            return r.wrong(line, "a byte order is \"little\" or \"big\"");
        field.values[value] = *name;
    }
    return {};
}

/// What a checksum is of: one range, or a list of them.
Status parse_ranges(const Reader& r, const toml::table& entry, FieldsOf place, Field& field) {
    const auto allowed = ranges_in(place);
    const auto one = [&](const toml::node& node) -> Status {
        const auto of = node.value_exact<std::string>();
        const auto* over = std::find_if(std::begin(overs), std::end(overs), [&](const auto& o) { return of && o.first == *of; });
        if (over == std::end(overs) || std::find(allowed.begin(), allowed.end(), over->first) == allowed.end())
            return r.wrong(Reader::line_of(node), phrase("a checksum here is of {}", fmt::join(allowed, ", ")));
        field.over.push_back(over->second);
        return {};
    };
    field.over.clear();
    const auto node = entry["of"];
    if (!node) return r.wrong(field.line, phrase("\"of\" is missing: a checksum here is of {}", fmt::join(allowed, ", ")));
    if (const auto* list = node.as_array()) {
        for (const auto& item : *list) SKIVET_CHECK(one(item));
        if (list->empty() || list->size() > 8) return r.wrong(field.line, "of is a range, or a list of some");
        if (field.over.size() > 1 && place != FieldsOf::container_header)
            return r.wrong(field.line, "only a container's header has checksums of several ranges");
        if (field.over.size() > 1 && std::find(field.over.begin(), field.over.end(), Over::file) != field.over.end())
            return r.wrong(field.line, "a checksum of the file is of all of it");
        return {};
    }
    return one(*node.node());
}

/// The words of a checksum, the older ones in which the meaning says kind and extent together among them.
Status parse_sum(const Reader& r, const toml::table& entry, std::string_view means, FieldsOf place, Field& field) {
    field.means = Meaning::checksum;
    if (ranges_in(place).empty()) return r.wrong(field.line, "a checksum has no effect here");
    if (means != "checksum") {
        const auto over = means == "table crc32" ? Over::table : means == "payload crc32" ? Over::payload : Over::unpacked;
        field.over = {over};
        if (entry.contains("kind")) return r.wrong(field.line, phrase("\"{}\" says its kind", means));
        if (entry.contains("of")) {
            if (means != "data crc32") return r.wrong(field.line, phrase("\"{}\" says what it is of", means));
            SKIVET_CHECK(parse_ranges(r, entry, place, field));
        } else if (const auto name = means.substr(0, means.find(' ')); name != "data") {
            const auto allowed = ranges_in(place);
            if (std::find(allowed.begin(), allowed.end(), name) == allowed.end())
                return r.wrong(field.line, phrase("\"{}\" has no effect here", means));
        }
    } else {
        SKIVET_TRY(const auto kind, r.text(entry, "kind"));
        const auto named = sum_named(kind);
        if (!named) return r.wrong(field.line, "kind of a checksum is crc32, adler32, fnv1a32, fnv1a64, xxh32, xxh64, sha1, sha256 or sum");
        field.sum = *named;
        SKIVET_CHECK(parse_ranges(r, entry, place, field));
    }
    const bool digest = field.sum == SumKind::sha1 || field.sum == SumKind::sha256;
    if (digest != (field.type == FieldType::bytes))
        return r.wrong(field.line, digest ? "sha1 and sha256 are fields of the type bytes" : "a checksum is a number");
    if (digest && (field.prefixed || field.size != sum_bytes(field.sum)))
        return r.wrong(field.line, phrase("this digest has {} bytes", sum_bytes(field.sum)));
    return {};
}

Status parse_means(const Reader& r, const toml::table& entry, FieldsOf place, Field& field, const RecordType& record) {
    SKIVET_TRY(const auto means, r.text(entry, "means"));
    const bool sum = means == "checksum" || means == "table crc32" || means == "payload crc32" || means == "data crc32";
    for (const auto* word : {"kind", "of"})
        if (!sum && entry.contains(word))
            return r.wrong(r.line_of(entry, word), phrase("\"{}\" has no effect on a field that means no checksum", word));
    if (means.empty()) return {};
    if (sum) return parse_sum(r, entry, means, place, field);
    const auto allowed = meanings_in(place);
    const auto* found = std::find_if(std::begin(meanings), std::end(meanings), [&](const auto& m) { return m.name == means; });
    if (found == std::end(meanings) || std::find(allowed.begin(), allowed.end(), found->meaning) == allowed.end()) {
        std::string list;
        for (const auto meaning : allowed) list += fmt::format("{}{}", list.empty() ? "" : ", ", name_of(meaning));
        if (!ranges_in(place).empty()) list += ", checksum";
        return r.wrong(field.line, phrase("the meaning \"{}\" {}; one of {}", means,
                                          found == std::end(meanings) ? "is not known" : "has no effect here", list));
    }
    field.means = found->meaning;
    if (record.with(field.means)) return r.wrong(field.line, phrase("two fields mean \"{}\"", means));
    const bool wants_text =
        field.means == Meaning::path || field.means == Meaning::folder || field.means == Meaning::name || field.means == Meaning::extension;
    if (wants_text != (field.type == FieldType::text) || (!wants_text && field.type != FieldType::uint))
        return r.wrong(field.line, phrase("\"{}\" cannot be a field of this type", means));
    return {};
}

Status parse_bits(const Reader& r, const toml::table& entry, FieldsOf place, const Field& whole, RecordType& record) {
    const auto* parts = entry["bits"].as_array();
    if (!parts) return entry.contains("bits") ? Status(r.wrong(whole.line, "bits are a list of parts")) : Status();
    if (whole.type != FieldType::uint) return r.wrong(whole.line, "only a whole number has bits");
    for (const auto& node : *parts) {
        const auto* table = node.as_table();
        Field part;
        part.line = Reader::line_of(node);
        if (!table) return r.wrong(part.line, "a part is written { name = …, at = 0, count = 4 }");
        SKIVET_CHECK(r.known_keys(*table, {"name", "at", "count", "means", "unit", "add", "power", "values"}));
        SKIVET_TRY(part.name, r.text(*table, "name", true));
        SKIVET_TRY(const auto at, r.number(*table, "at", 0));
        SKIVET_TRY(const auto count, r.number(*table, "count", 1));
        if (count == 0 || at > 63 || count > 64 || at + count > 8ull * whole.width)
            return r.wrong(part.line, phrase("bits {} to {} of {} bytes", at, at + count - 1, whole.width));
        part.bit_at = static_cast<unsigned>(at);
        part.bit_count = static_cast<unsigned>(count);
        part.width = whole.width;
        SKIVET_TRY(part.unit, r.number(*table, "unit", 1));
        SKIVET_TRY(part.add, r.whole(*table, "add", 0));
        SKIVET_TRY(part.power, r.flag(*table, "power", false));
        if (part.unit == 0) return r.wrong(part.line, "a unit of 0 bytes");
        SKIVET_CHECK(parse_means(r, *table, place, part, record));
        SKIVET_CHECK(parse_values(r, *table, part));
        record.fields.push_back(std::move(part));
    }
    return {};
}

}  // namespace

unsigned width_named(std::string_view type) {
    if (type.size() < 2 || (type[0] != 'u' && type[0] != 'i')) return 0;
    const auto bits = type.substr(1);
    return bits == "8"    ? 1
           : bits == "16" ? 2
           : bits == "24" ? 3
           : bits == "32" ? 4
           : bits == "40" ? 5
           : bits == "48" ? 6
           : bits == "64" ? 8
                          : 0;
}

Status parse_fields(const Reader& r, const toml::table& table, FieldsOf place, RecordType& record) {
    const auto* fields = table["fields"].as_array();
    if (!fields || fields->empty()) return r.wrong(Reader::line_of(table), "\"fields\" must be a list of fields");
    for (const auto& node : *fields) {
        const auto* entry = node.as_table();
        if (!entry) return r.wrong(Reader::line_of(node), "a field is written { name = …, type = … }");
        SKIVET_CHECK(r.known_keys(*entry, {"name", "type", "size", "length", "encoding", "order", "means", "unit", "add", "power", "base",
                                           "from", "values", "of", "kind", "bits", "align"}));
        Field field;
        field.line = Reader::line_of(node);
        SKIVET_TRY(field.name, r.text(*entry, "name", true));
        if (record.named(field.name)) return r.wrong(field.line, phrase("two fields are called \"{}\"", field.name));
        SKIVET_CHECK(parse_type(r, *entry, record, field));
        SKIVET_TRY(field.unit, r.number(*entry, "unit", 1));
        if (field.unit == 0) return r.wrong(field.line, "a unit of 0 bytes");
        SKIVET_TRY(field.add, r.whole(*entry, "add", 0));
        SKIVET_TRY(field.power, r.flag(*entry, "power", false));
        SKIVET_TRY(const auto from, r.word(*entry, "from", {"start", "field"}));
        field.from_field = from == 1;
        if (const auto base = (*entry)["base"]; base && base.is_string()) {
            SKIVET_TRY(const auto word, r.text(*entry, "base"));
            constexpr std::pair<std::string_view, Place::From> sections[] = {{"after header", Place::From::after_header},
                                                                             {"after record", Place::From::after_record},
                                                                             {"after folders", Place::From::after_folders},
                                                                             {"after names", Place::From::after_names}};
            for (const auto& [name, section] : sections)
                if (word == name) field.base_section = section;
            if (!field.base_section) field.base_field = word;
        } else {
            SKIVET_TRY(field.base, r.number(*entry, "base", 0));
        }
        SKIVET_CHECK(parse_means(r, *entry, place, field, record));
        SKIVET_CHECK(parse_values(r, *entry, field));
        const bool counts =
            place == FieldsOf::container_header || field.means == Meaning::data_offset || field.means == Meaning::entries_offset;
        for (const auto* word : {"base", "from"})
            if (!counts && entry->contains(word))
                return r.wrong(r.line_of(*entry, word), phrase("\"{}\" has no effect on a field that means no offset", word));
        if (field.base_section && place != FieldsOf::record && place != FieldsOf::texture_record)
            return r.wrong(r.line_of(*entry, "base"), "where a section ends is a base for the data offset of a record");
        record.fields.push_back(field);
        SKIVET_CHECK(parse_bits(r, *entry, place, field, record));
    }
    return {};
}

}  // namespace sheet_parse
}  // namespace skivet

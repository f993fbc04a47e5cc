#include "sheet/parse_toml.h"

namespace skivet {
namespace {

struct MeaningName {
    Meaning meaning;
    std::string_view name;
};
// clang-format off
constexpr MeaningName meanings[] = {
    {Meaning::entry_count, "entry count"}, {Meaning::table_offset, "table offset"}, {Meaning::table_size, "table size"}, {Meaning::file_size, "file size"},
    {Meaning::data_size, "data size"}, {Meaning::folder_count, "folder count"}, {Meaning::byte_order, "byte order"}, {Meaning::path, "path"},
    {Meaning::folder, "folder"}, {Meaning::name, "name"}, {Meaning::extension, "extension"}, {Meaning::name_offset, "name offset"},
    {Meaning::name_index, "name index"}, {Meaning::path_hash, "path hash"}, {Meaning::data_offset, "data offset"}, {Meaning::size, "size"},
    {Meaning::stored_size, "stored size"}, {Meaning::method, "method"}, {Meaning::file_number, "file number"}, {Meaning::deleted, "deleted"},
    {Meaning::encrypted, "encrypted"}, {Meaning::record_size, "record size"}, {Meaning::first_entry, "first entry"},
    {Meaning::entries_offset, "entries offset"}, {Meaning::checksum, "checksum"}, {Meaning::width, "width"}, {Meaning::height, "height"},
    {Meaning::depth, "depth"}, {Meaning::mips, "mips"}, {Meaning::layers, "layers"}, {Meaning::faces, "faces"}, {Meaning::format, "format"},
    {Meaning::color, "color"}, {Meaning::payload_size, "payload size"}, {Meaning::row_pitch, "row pitch"}, {Meaning::block_height, "block height"},
    {Meaning::gob_rows, "gob rows"}};
// clang-format on

constexpr std::pair<std::string_view, Over> overs[] = {{"unpacked", Over::unpacked}, {"stored", Over::stored}, {"table", Over::table},
                                                       {"header", Over::header},     {"file", Over::file},     {"payload", Over::payload}};

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

Status parse_type(const Reader& r, const toml::table& entry, Field& field) {
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
        return {};
    }
    if (type == "f32" || type == "f64") {
        field.type = FieldType::real;
        field.width = type == "f32" ? 4 : 8;
    } else if (type == "text") {
        field.type = FieldType::text;
        if (length == "until zero") {
            field.terminated = true;
        } else if (!length.empty()) {
            field.width = width_named(length);
            field.prefixed = true;
            if (field.width == 0 || length[0] != 'u')
                return r.wrong(field.line, fmt::format("length \"{}\" is not known; u8, u16, u32 or \"until zero\"", length));
        } else if (field.size == 0) {
            return r.wrong(field.line, "text needs a size or a length");
        }
    } else if (type == "bytes") {
        field.type = FieldType::bytes;
        if (!length.empty()) {
            field.width = width_named(length);
            field.prefixed = true;
            if (field.width == 0 || length[0] != 'u')
                return r.wrong(field.line, fmt::format("length \"{}\" is not known; u8, u16 or u32", length));
        } else if (field.size == 0) {
            return r.wrong(field.line, "bytes need a size");
        }
    } else if (type == "pad") {
        field.type = FieldType::pad;
        SKIVET_TRY(field.size, r.number(entry, "align", 0));
        if (field.size == 0 || field.size > 1u << 20) return r.wrong(field.line, "a pad needs align, 1 to 1048576");
    } else {
        return r.wrong(
            field.line,
            fmt::format("the type \"{}\" is not known; u8, u16, u24, u32, u64 (or i for signed), f32, f64, text, bytes or pad", type));
    }
    return {};
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
            return r.wrong(line, fmt::format("the format \"{}\" is not known; a name such as BC1, or \"BC1 srgb\"", *name));
        if (field.means == Meaning::method && !packing_named(*name))
            return r.wrong(
                line, fmt::format(
                          "the method \"{}\" is not known; stored, deflate, zlib, gzip, zstd, lz4, lz4 block, lzma, lzma raw, xz or bzip2",
                          *name));
        if (field.means == Meaning::color && *name != "linear" && *name != "srgb") return r.wrong(line, "color is \"linear\" or \"srgb\"");
        if (field.means == Meaning::byte_order && *name != "little" && *name != "big")
            return r.wrong(line, "a byte order is \"little\" or \"big\"");
        field.values[value] = *name;
    }
    return {};
}

/// The words of a checksum, the older ones in which the meaning says kind and extent together among them.
Status parse_sum(const Reader& r, const toml::table& entry, std::string_view means, Field& field) {
    SKIVET_TRY(const auto kind, r.text(entry, "kind"));
    SKIVET_TRY(const auto of, r.text(entry, "of"));
    if (means == "table crc32" || means == "payload crc32" || means == "data crc32") {
        field.means = Meaning::checksum;
        field.over = means == "table crc32"     ? Over::table
                     : means == "payload crc32" ? Over::payload
                     : of == "stored"           ? Over::stored
                                                : Over::unpacked;
        if (!of.empty() && (means != "data crc32" || (of != "stored" && of != "unpacked")))
            return r.wrong(field.line, "of is \"unpacked\" or \"stored\"");
    } else {
        const auto named = sum_named(kind);
        if (!named) return r.wrong(field.line, "kind of a checksum is crc32, adler32, fnv1a32, fnv1a64, xxh32, xxh64, sha1, sha256 or sum");
        field.sum = *named;
        const auto* over = std::find_if(std::begin(overs), std::end(overs), [&](const auto& o) { return o.first == of; });
        if (over == std::end(overs))
            return r.wrong(field.line, "a checksum is of \"unpacked\", \"stored\", \"table\", \"header\", \"file\" or \"payload\"");
        field.over = over->second;
    }
    const bool digest = field.sum == SumKind::sha1 || field.sum == SumKind::sha256;
    if (digest != (field.type == FieldType::bytes))
        return r.wrong(field.line, digest ? "sha1 and sha256 are fields of the type bytes" : "a checksum is a number");
    if (digest && (field.prefixed || field.size != sum_bytes(field.sum)))
        return r.wrong(field.line, fmt::format("this digest has {} bytes", sum_bytes(field.sum)));
    return {};
}

Status parse_means(const Reader& r, const toml::table& entry, Field& field, const RecordType& record) {
    SKIVET_TRY(const auto means, r.text(entry, "means"));
    if (means.empty()) return {};
    if (means == "checksum" || means == "table crc32" || means == "payload crc32" || means == "data crc32") {
        field.means = Meaning::checksum;
        return parse_sum(r, entry, means, field);
    }
    const auto* found = std::find_if(std::begin(meanings), std::end(meanings), [&](const auto& m) { return m.name == means; });
    if (found == std::end(meanings)) return r.wrong(field.line, fmt::format("the meaning \"{}\" is not known", means));
    field.means = found->meaning;
    if (record.with(field.means)) return r.wrong(field.line, fmt::format("two fields mean \"{}\"", means));
    const bool wants_text =
        field.means == Meaning::path || field.means == Meaning::folder || field.means == Meaning::name || field.means == Meaning::extension;
    if (wants_text != (field.type == FieldType::text) || (!wants_text && field.type != FieldType::uint))
        return r.wrong(field.line, fmt::format("\"{}\" cannot be a field of this type", means));
    return {};
}

Status parse_bits(const Reader& r, const toml::table& entry, const Field& whole, RecordType& record) {
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
            return r.wrong(part.line, fmt::format("bits {} to {} of {} bytes", at, at + count - 1, whole.width));
        part.bit_at = static_cast<unsigned>(at);
        part.bit_count = static_cast<unsigned>(count);
        part.width = whole.width;
        SKIVET_TRY(part.unit, r.number(*table, "unit", 1));
        SKIVET_TRY(part.add, r.whole(*table, "add", 0));
        SKIVET_TRY(part.power, r.flag(*table, "power", false));
        if (part.unit == 0) return r.wrong(part.line, "a unit of 0 bytes");
        SKIVET_CHECK(parse_means(r, *table, part, record));
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

Status parse_fields(const Reader& r, const toml::table& table, RecordType& record) {
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
        if (record.named(field.name)) return r.wrong(field.line, fmt::format("two fields are called \"{}\"", field.name));
        SKIVET_CHECK(parse_type(r, *entry, field));
        SKIVET_TRY(field.unit, r.number(*entry, "unit", 1));
        if (field.unit == 0) return r.wrong(field.line, "a unit of 0 bytes");
        SKIVET_TRY(field.add, r.whole(*entry, "add", 0));
        SKIVET_TRY(field.power, r.flag(*entry, "power", false));
        SKIVET_TRY(const auto from, r.word(*entry, "from", {"start", "field"}));
        field.from_field = from == 1;
        if (const auto base = (*entry)["base"]; base && base.is_string()) {
            SKIVET_TRY(field.base_field, r.text(*entry, "base"));
        } else {
            SKIVET_TRY(field.base, r.number(*entry, "base", 0));
        }
        SKIVET_CHECK(parse_means(r, *entry, field, record));
        SKIVET_CHECK(parse_values(r, *entry, field));
        record.fields.push_back(field);
        SKIVET_CHECK(parse_bits(r, *entry, field, record));
    }
    return {};
}

}  // namespace sheet_parse
}  // namespace skivet

#include <bit>
#include <fmt/format.h>

#include <toml++/toml.h>

#include "sheet/sheet.h"


namespace skivet {
namespace {

struct MeaningName {
    Meaning meaning;
    std::string_view name;
};
constexpr MeaningName meanings[] = {
    {Meaning::entry_count, "entry count"}, {Meaning::table_offset, "table offset"}, {Meaning::table_size, "table size"},
    {Meaning::table_crc32, "table crc32"}, {Meaning::file_size, "file size"}, {Meaning::path, "path"},
    {Meaning::data_offset, "data offset"}, {Meaning::size, "size"}, {Meaning::stored_size, "stored size"}, {Meaning::method, "method"},
    {Meaning::data_crc32, "data crc32"}, {Meaning::width, "width"}, {Meaning::height, "height"}, {Meaning::depth, "depth"},
    {Meaning::mips, "mips"}, {Meaning::layers, "layers"}, {Meaning::faces, "faces"}, {Meaning::format, "format"},
    {Meaning::color, "color"}, {Meaning::payload_size, "payload size"}, {Meaning::payload_crc32, "payload crc32"}};

class Parser {
public:
    explicit Parser(std::string_view file) : file_(file) {}

    Result<Sheet> parse(const toml::table& root) {
        Sheet sheet;
        SKIVET_CHECK(known_keys(root, {"sheet", "name", "byte_order", "recognize", "header", "record", "data", "payload"}));
        SKIVET_TRY(const auto kind, text(root, "sheet", true));
        if (kind == "container") sheet.kind = SheetKind::container;
        else if (kind == "texture") sheet.kind = SheetKind::texture;
        else return wrong(line_of(root["sheet"].node()), fmt::format("sheet = \"{}\" is not known; write \"container\" or \"texture\"", kind));
        SKIVET_TRY(sheet.name, text(root, "name", true));
        SKIVET_TRY(const auto order, text(root, "byte_order", false));
        if (order == "big") sheet.order = ByteOrder::big;
        else if (!order.empty() && order != "little") return wrong(line_of(root["byte_order"].node()), "byte_order is \"little\" or \"big\"");
        SKIVET_CHECK(parse_recognize(root, sheet));
        const auto* header = root["header"].as_table();
        if (!header) return wrong(1, "a sheet needs a [header] with fields");
        SKIVET_CHECK(known_keys(*header, {"at", "fields"}));
        SKIVET_TRY(sheet.header_at, number(*header, "at", 0));
        SKIVET_CHECK(parse_fields(*header, sheet.header));
        if (sheet.kind == SheetKind::container) SKIVET_CHECK(parse_container(root, sheet));
        else SKIVET_CHECK(parse_texture(root, sheet));
        for (const auto& rule : sheet.recognize)
            if (!rule.field.empty() &&
                std::none_of(sheet.header.fields.begin(), sheet.header.fields.end(), [&](const Field& f) { return f.name == rule.field; }))
                return wrong(1, fmt::format("recognize names the header field \"{}\", which is not there", rule.field));
        return sheet;
    }

private:
    std::string file_;

    [[nodiscard]] tl::unexpected<Error> wrong(int line, std::string what) const {
        auto error = Error{ErrorCode::unsupported, std::move(what), {file_, fmt::format("line {}", line)}, std::nullopt, {}};
        return fail(std::move(error));
    }
    static int line_of(const toml::node* node) { return node ? static_cast<int>(node->source().begin.line) : 1; }
    static int line_of(const toml::node& node) { return static_cast<int>(node.source().begin.line); }

    Status known_keys(const toml::table& table, std::initializer_list<std::string_view> keys) const {
        for (const auto& [key, node] : table)
            if (std::find(keys.begin(), keys.end(), key.str()) == keys.end())
                return wrong(line_of(node), fmt::format("the word \"{}\" is not known here", key.str()));
        return {};
    }

    Result<std::string> text(const toml::table& table, std::string_view key, bool needed) const {
        const auto node = table[key];
        if (!node) {
            if (needed) return wrong(line_of(table), fmt::format("\"{}\" is missing", key));
            return std::string();
        }
        if (const auto value = node.value_exact<std::string>()) return *value;
        return wrong(line_of(node.node()), fmt::format("\"{}\" must be text", key));
    }

    Result<std::uint64_t> number(const toml::table& table, std::string_view key, std::uint64_t otherwise) const {
        const auto node = table[key];
        if (!node) return otherwise;
        const auto value = node.value_exact<std::int64_t>();
        if (!value || *value < 0) return wrong(line_of(node.node()), fmt::format("\"{}\" must be a whole number, 0 or more", key));
        return static_cast<std::uint64_t>(*value);
    }

    Status parse_recognize(const toml::table& root, Sheet& sheet) const {
        const auto* rules = root["recognize"].as_array();
        if (!rules || rules->empty()) return wrong(1, "a sheet needs at least one [[recognize]]");
        for (const auto& node : *rules) {
            const auto* table = node.as_table();
            if (!table) return wrong(line_of(node), "[[recognize]] must be a table");
            SKIVET_CHECK(known_keys(*table, {"at", "bytes", "text", "name", "file_size"}));
            Recognition rule;
            SKIVET_TRY(rule.name_pattern, text(*table, "name", false));
            SKIVET_TRY(rule.field, text(*table, "file_size", false));
            SKIVET_TRY(const auto plain, text(*table, "text", false));
            SKIVET_TRY(const auto digits, text(*table, "bytes", false));
            if (!plain.empty()) rule.bytes.assign(as_bytes(plain).begin(), as_bytes(plain).end());
            int half = -1;
            for (char c : digits) {
                if (c == ' ') continue;
                const int value = c >= '0' && c <= '9' ? c - '0' : c >= 'a' && c <= 'f' ? c - 'a' + 10 : c >= 'A' && c <= 'F' ? c - 'A' + 10 : -1;
                if (value < 0) return wrong(line_of(node), "bytes are pairs of hexadecimal digits, such as \"46 43\"");
                if (half < 0) half = value;
                else rule.bytes.push_back(static_cast<std::byte>(half * 16 + value)), half = -1;
            }
            if (half >= 0) return wrong(line_of(node), "bytes are pairs of hexadecimal digits; one digit is left over");
            if (!rule.bytes.empty()) {
                SKIVET_TRY(const auto at, number(*table, "at", 0));
                rule.at = at;
            }
            if (rule.bytes.empty() && rule.name_pattern.empty() && rule.field.empty())
                return wrong(line_of(node), "a [[recognize]] says text or bytes, a name, or file_size");
            sheet.recognize.push_back(std::move(rule));
        }
        return {};
    }

    Status parse_fields(const toml::table& table, RecordType& record) const {
        const auto* fields = table["fields"].as_array();
        if (!fields || fields->empty()) return wrong(line_of(table), "\"fields\" must be a list of fields");
        for (const auto& node : *fields) {
            const auto* entry = node.as_table();
            if (!entry) return wrong(line_of(node), "a field is written { name = …, type = … }");
            SKIVET_CHECK(known_keys(*entry, {"name", "type", "size", "length", "means", "unit", "values", "of"}));
            Field field;
            field.line = line_of(node);
            SKIVET_TRY(field.name, text(*entry, "name", true));
            SKIVET_CHECK(parse_type(*entry, field));
            SKIVET_TRY(field.unit, number(*entry, "unit", 1));
            if (field.unit == 0) return wrong(field.line, "a unit of 0 bytes");
            SKIVET_TRY(const auto means, text(*entry, "means", false));
            if (!means.empty()) {
                const auto* found = std::find_if(std::begin(meanings), std::end(meanings), [&](const auto& m) { return m.name == means; });
                if (found == std::end(meanings)) return wrong(field.line, fmt::format("the meaning \"{}\" is not known", means));
                field.means = found->meaning;
                if (record.with(field.means)) return wrong(field.line, fmt::format("two fields mean \"{}\"", means));
                if ((field.means == Meaning::path) != (field.type == FieldType::text))
                    return wrong(field.line, fmt::format("\"{}\" cannot be a field of this type", means));
            }
            SKIVET_TRY(const auto of, text(*entry, "of", false));
            if (of == "stored") field.of_stored = true;
            else if (!of.empty() && of != "unpacked") return wrong(field.line, "of is \"unpacked\" or \"stored\"");
            SKIVET_CHECK(parse_values(*entry, field));
            record.fields.push_back(std::move(field));
        }
        return {};
    }

    Status parse_type(const toml::table& entry, Field& field) const {
        SKIVET_TRY(const auto type, text(entry, "type", true));
        SKIVET_TRY(field.size, number(entry, "size", 0));
        SKIVET_TRY(const auto length, text(entry, "length", false));
        const auto width_of = [](std::string_view name) -> unsigned {
            return name == "u8" ? 1 : name == "u16" ? 2 : name == "u24" ? 3 : name == "u32" ? 4 : name == "u64" ? 8 : 0;
        };
        field.width = width_of(type);
        if (field.width > 0) return {};
        if (type == "text") {
            field.type = FieldType::text;
            if (length == "until zero") field.terminated = true;
            else if (!length.empty()) {
                field.width = width_of(length);
                field.prefixed = true;
                if (field.width == 0) return wrong(field.line, fmt::format("length \"{}\" is not known; u8, u16, u32 or \"until zero\"", length));
            } else if (field.size == 0) {
                return wrong(field.line, "text needs a size or a length");
            }
            return {};
        }
        if (type == "bytes") {
            field.type = FieldType::bytes;
            if (field.size == 0) return wrong(field.line, "bytes need a size");
            return {};
        }
        return wrong(field.line, fmt::format("the type \"{}\" is not known; u8, u16, u24, u32, u64, text or bytes", type));
    }

    Status parse_values(const toml::table& entry, Field& field) const {
        const auto* values = entry["values"].as_table();
        if (!values) return {};
        for (const auto& [key, node] : *values) {
            const std::string digits(key.str());
            char* end = nullptr;
            const auto value = std::strtoull(digits.c_str(), &end, 0);
            const auto name = node.value_exact<std::string>();
            if (digits.empty() || *end != '\0' || !name) return wrong(line_of(node), "values are written { 0 = \"name\", 1 = \"name\" }");
            if (field.means == Meaning::format && !format_named(*name)) return wrong(line_of(node), fmt::format("the format \"{}\" is not known", *name));
            if (field.means == Meaning::method && *name != "stored" && *name != "deflate")
                return wrong(line_of(node), fmt::format("the method \"{}\" is not known; \"stored\" or \"deflate\"", *name));
            if (field.means == Meaning::color && *name != "linear" && *name != "srgb")
                return wrong(line_of(node), "color is \"linear\" or \"srgb\"");
            field.values[value] = *name;
        }
        return {};
    }

    Status parse_container(const toml::table& root, Sheet& sheet) const {
        const auto* record = root["record"].as_table();
        if (!record) return wrong(1, "a container sheet needs a [record] with the fields of one entry");
        SKIVET_CHECK(known_keys(*record, {"fields"}));
        SKIVET_CHECK(parse_fields(*record, sheet.record));
        for (auto needed : {Meaning::path, Meaning::data_offset, Meaning::stored_size})
            if (!sheet.record.with(needed)) return wrong(line_of(*record), fmt::format("no field of [record] means \"{}\"", name_of(needed)));
        for (auto needed : {Meaning::entry_count, Meaning::table_offset})
            if (!sheet.header.with(needed)) return wrong(1, fmt::format("no field of [header] means \"{}\"", name_of(needed)));
        if (const auto* method = sheet.record.with(Meaning::method); method && method->values.empty())
            return wrong(method->line, "a field that means \"method\" needs values");
        if (sheet.record.with(Meaning::method) && !sheet.record.with(Meaning::size))
            return wrong(line_of(*record), "entries that may be compressed need a field that means \"size\"");
        if (const auto* data = root["data"].as_table()) {
            SKIVET_CHECK(known_keys(*data, {"align", "fill"}));
            SKIVET_TRY(sheet.align, number(*data, "align", 1));
            SKIVET_TRY(const auto fill, number(*data, "fill", 0));
            if (sheet.align == 0 || sheet.align > 1u << 20 || fill > 255) return wrong(line_of(*data), "align is 1 to 1048576, fill is 0 to 255");
            sheet.fill = static_cast<std::byte>(fill);
        }
        return {};
    }

    Status parse_texture(const toml::table& root, Sheet& sheet) const {
        for (auto needed : {Meaning::width, Meaning::height, Meaning::format})
            if (!sheet.header.with(needed)) return wrong(1, fmt::format("no field of [header] means \"{}\"", name_of(needed)));
        if (const auto* format = sheet.header.with(Meaning::format); format->values.empty())
            return wrong(format->line, "a field that means \"format\" needs values");
        if (const auto* payload = root["payload"].as_table()) {
            SKIVET_CHECK(known_keys(*payload, {"at", "mip_order", "align", "tiling", "block_height"}));
            SKIVET_TRY(sheet.align, number(*payload, "align", 1));
            if (sheet.align == 0 || sheet.align > 1u << 20) return wrong(line_of(*payload), "align is 1 to 1048576");
            if (payload->contains("at")) {
                SKIVET_TRY(const auto at, number(*payload, "at", 0));
                sheet.payload_at = at;
            }
            SKIVET_TRY(const auto tiling, text(*payload, "tiling", false));
            if (!tiling.empty()) {
                const auto named = tiling_named(tiling);
                if (!named) return wrong(line_of(*payload), "tiling is \"linear\", \"morton\" or \"block-linear\"");
                sheet.tiling.tiling = *named;
            }
            SKIVET_TRY(const auto block_height, number(*payload, "block_height", 16));
            if (!std::has_single_bit(block_height) || block_height > 32) return wrong(line_of(*payload), "block_height is 1, 2, 4, 8, 16 or 32");
            sheet.tiling.block_height = static_cast<std::uint32_t>(block_height);
            SKIVET_TRY(const auto order, text(*payload, "mip_order", false));
            if (order == "smallest first") sheet.smallest_first = true;
            else if (!order.empty() && order != "largest first") return wrong(line_of(*payload), "mip_order is \"largest first\" or \"smallest first\"");
        }
        return {};
    }
};

}  // namespace

std::string_view name_of(Meaning meaning) {
    for (const auto& m : meanings)
        if (m.meaning == meaning) return m.name;
    return "nothing";
}

Result<Sheet> parse_sheet(std::string_view source, std::string_view file_name) {
    if (source.size() > 1u << 20) return fail(ErrorCode::limit, fmt::format("{}: a sheet of more than 1 MB", file_name));
    try {
        return Parser(file_name).parse(toml::parse(source));
    } catch (const toml::parse_error& error) {  // the library's only way to report; it ends here
        return fail(Error{ErrorCode::unsupported, std::string(error.description()),
                          {std::string(file_name), fmt::format("line {}", error.source().begin.line)}, std::nullopt, "The file is no valid TOML"});
    }
}

}  // namespace skivet

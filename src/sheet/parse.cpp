#include "base/phrase.h"
#include "sheet/parser.h"

namespace skivet {

namespace sheet_parse {

Result<Sheet> Parser::parse(const toml::table& root) {
    Sheet sheet;
    SKIVET_TRY(const auto kind, text(root, "sheet", true));
    if (kind == "container") sheet.kind = SheetKind::container;
    else if (kind == "texture") sheet.kind = SheetKind::texture;
    else if (kind == "wrapper") sheet.kind = SheetKind::wrapper;
    else return wrong(line_of(root, "sheet"), phrase("sheet = \"{}\" is not known; write \"container\", \"texture\" or \"wrapper\"", kind));
    switch (sheet.kind) {
        case SheetKind::container:
            SKIVET_CHECK(known_keys(root, {"sheet", "name",    "byte_order", "recognize",  "header",           "record", "folders",
                                           "names", "tree",    "hash",       "encryption", "table_encryption", "chunks", "data",
                                           "table", "markers", "packer",     "texture",    "payload",          "palette"}));
            break;
        case SheetKind::texture:
            SKIVET_CHECK(known_keys(
                root, {"sheet", "name", "byte_order", "recognize", "header", "texture", "payload", "sibling", "packer", "palette"}));
            break;
        case SheetKind::wrapper:
            SKIVET_CHECK(
                known_keys(root, {"sheet", "name", "byte_order", "recognize", "header", "encryption", "chunks", "data", "packer"}));
            break;
    }
    SKIVET_TRY(sheet.name, text(root, "name", true));
    SKIVET_TRY(const auto big, word(root, "byte_order", {"little", "big"}));
    if (big) sheet.order = ByteOrder::big;
    SKIVET_CHECK(parse_recognize(root, sheet));
    SKIVET_CHECK(parse_packers(root, sheet));
    if (const auto* header = root["header"].as_table()) {
        SKIVET_CHECK(known_keys(*header, {"at", "fields"}));
        SKIVET_TRY(sheet.header_at, whole(*header, "at", 0));
        const auto place = sheet.kind == SheetKind::container ? FieldsOf::container_header
                           : sheet.kind == SheetKind::texture ? FieldsOf::texture_header
                                                              : FieldsOf::wrapper_header;
        SKIVET_CHECK(parse_fields(*this, *header, place, sheet.header));
    } else if (root.contains("header")) {
        return wrong(line_of(root, "header"), "[header] must be a table");
    } else if (sheet.kind == SheetKind::texture && !root["texture"].is_table()) {
        return wrong(1, "a texture sheet needs a [header] with fields, or a [texture] that says everything");
    }
    if (const auto* order = sheet.header.with(Meaning::byte_order); order && order->values.empty())
        return wrong(order->line, "a field that means \"byte order\" needs values");
    switch (sheet.kind) {
        case SheetKind::container: SKIVET_CHECK(parse_container(root, sheet)); break;
        case SheetKind::texture: SKIVET_CHECK(parse_texture(root, sheet)); break;
        case SheetKind::wrapper: SKIVET_CHECK(parse_wrapper(root, sheet)); break;
    }
    for (const auto& rule : sheet.recognize) SKIVET_CHECK(check_condition(sheet, rule));
    return sheet;
}

Result<std::pair<std::uint64_t, std::uint64_t>> Parser::range(const toml::table& table, std::string_view key) const {
    const auto node = table[key];
    if (const auto one = node.value_exact<std::int64_t>(); one && *one >= 0)
        return std::pair{static_cast<std::uint64_t>(*one), static_cast<std::uint64_t>(*one)};
    const auto both = two(node.node());
    if (!both || both->first < 0 || both->second < both->first)
        return wrong(line_of(table, key), phrase("\"{}\" is a number, or two that follow one another: [from, to]", key));
    return std::pair{static_cast<std::uint64_t>(both->first), static_cast<std::uint64_t>(both->second)};
}

Result<Recognition> Parser::condition(const toml::node& node, SheetKind kind, bool inner) const {
    const auto* table = node.as_table();
    if (!table) return wrong(line_of(node), "[[recognize]] must be a table");
    SKIVET_CHECK(known_keys(*table, {"at", "bytes", "text", "name", "file_size", "field", "equals", "between", "size", "tables", "any"}));
    Recognition rule;
    SKIVET_TRY(rule.name_pattern, text(*table, "name"));
    SKIVET_TRY(rule.field, text(*table, "file_size"));
    SKIVET_TRY(const auto plain, text(*table, "text"));
    SKIVET_TRY(rule.bytes, hex(*table, "bytes"));
    rule.bytes.insert(rule.bytes.begin(), as_bytes(plain).begin(), as_bytes(plain).end());
    if (!rule.bytes.empty()) {
        SKIVET_TRY(const auto at, whole(*table, "at", 0));
        rule.at = at;
    } else if (table->contains("at")) {
        return wrong(line_of(*table, "at"), "at goes with text or bytes");
    }
    if (table->contains("field")) {
        if (!rule.field.empty()) return wrong(line_of(*table, "field"), "field and file_size are two conditions; write two [[recognize]]");
        SKIVET_TRY(rule.field, text(*table, "field"));
        if (table->contains("equals") == table->contains("between"))
            return wrong(line_of(node), "field needs equals, the number it must have, or between, the two it lies between");
        SKIVET_TRY(rule.range, range(*table, table->contains("equals") ? "equals" : "between"));
    } else if (table->contains("equals") || table->contains("between")) {
        return wrong(line_of(node), "equals and between go with field");
    }
    if (table->contains("size")) {
        SKIVET_TRY(rule.size, range(*table, "size"));
    }
    if (table->contains("tables")) {
        SKIVET_TRY(const auto tables, text(*table, "tables"));
        if (tables != "hold" || kind != SheetKind::container || inner)
            return wrong(line_of(*table, "tables"), "tables = \"hold\" is a condition of a container's own [[recognize]]");
        rule.tables_hold = true;
    }
    if (const auto* any = (*table)["any"].as_array()) {
        if (inner || any->empty()) return wrong(line_of(*any), "any is a list of conditions, and not within another any");
        for (const auto& one : *any) {
            SKIVET_TRY(auto parsed, condition(one, kind, true));
            rule.any.push_back(std::move(parsed));
        }
    } else if (table->contains("any")) {
        return wrong(line_of(*table, "any"), "any is a list of conditions: [ { text = \"AB\" }, { text = \"CD\" } ]");
    }
    if (rule.bytes.empty() && rule.name_pattern.empty() && rule.field.empty() && !rule.size && !rule.tables_hold && rule.any.empty())
        return wrong(line_of(node),
                     "a [[recognize]] says text or bytes, a name, a size, a field with equals or between, file_size, tables or any");
    return rule;
}

Status Parser::parse_recognize(const toml::table& root, Sheet& sheet) const {
    const auto* rules = root["recognize"].as_array();
    if (!rules || rules->empty()) return wrong(1, "a sheet needs at least one [[recognize]]");
    for (const auto& node : *rules) {
        SKIVET_TRY(auto rule, condition(node, sheet.kind, false));
        sheet.recognize.push_back(std::move(rule));
    }
    return {};
}

Status Parser::check_condition(const Sheet& sheet, const Recognition& rule) const {
    if (!rule.field.empty() && !sheet.header.named(rule.field))
        return wrong(1, phrase("recognize names the header field \"{}\", which is not there", rule.field));
    for (const auto& one : rule.any) SKIVET_CHECK(check_condition(sheet, one));
    return {};
}

}  // namespace sheet_parse

namespace {

/// The library reads nested values and dotted keys by calling itself, so their depth is looked at before: a file must not decide how much
/// stack is taken. Strings and comments are stepped over as TOML 1.0 has them.
Status check_depth(std::string_view text, std::string_view file_name) {
    constexpr int most = 32;  // no sheet needs five
    int line = 1, depth = 0, parts = 1;
    const auto too_deep = [&](const char* what) {
        return fail(Error{ErrorCode::limit,
                          phrase("{} more than {} deep", said(what), most),
                          {std::string(file_name), phrase("line {}", line)},
                          {},
                          "No sheet needs that"});
    };
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        if (c == '\n') ++line, parts = 1;
        else if (c == '#') i = std::min(text.find('\n', i), text.size()) - 1;
        else if (c == '"' || c == '\'') {
            const std::string three(3, c);
            const bool many = text.substr(i, 3) == three;
            i += many ? 3 : 1;
            for (; i < text.size(); ++i) {
                if (text[i] == '\n') {
                    ++line;
                    if (!many) break;
                }
                if (text[i] == '\\' && c == '"') ++i;
                else if (many ? text.substr(i, 3) == three : text[i] == c) {
                    i += many ? 2 : 0;
                    break;
                }
            }
        } else if (c == '[' || c == '{') {
            if (++depth > most) return too_deep("values are nested");
            parts = 1;
        } else if (c == ']' || c == '}') {
            depth = std::max(0, depth - 1);
            parts = 1;
        } else if (c == '.') {
            if (++parts > most) return too_deep("a name has parts");
        } else if (c == ',' || c == '=') {
            parts = 1;
        }
    }
    return {};
}

}  // namespace

Result<Sheet> parse_sheet(std::string_view source, std::string_view file_name) {
    if (source.size() > 1u << 20) return fail(ErrorCode::limit, phrase("{}: a sheet of more than 1 MB", file_name));
    SKIVET_CHECK(check_depth(source, file_name));
    try {
        return sheet_parse::Parser(file_name).parse(toml::parse(source));
    } catch (const toml::parse_error& error) {  // the library's only way to report; it ends here
        return fail(Error{ErrorCode::unsupported,
                          std::string(error.description()),
                          {std::string(file_name), phrase("line {}", error.source().begin.line)},
                          std::nullopt,
                          "The file is no valid TOML"});
    }
}

}  // namespace skivet

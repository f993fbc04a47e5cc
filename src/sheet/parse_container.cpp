#include "base/phrase.h"
#include "sheet/parser.h"

namespace skivet::sheet_parse {

Result<Place> Parser::place(const toml::table& table, const Sheet& sheet, Place otherwise) const {
    const auto node = table["at"];
    if (!node) return otherwise;
    Place out;
    if (node.is_integer()) {
        SKIVET_TRY(const auto at, whole(table, "at", 0));
        out.from = at < 0 ? Place::From::end : Place::From::start;
        out.offset = static_cast<std::uint64_t>(at < 0 ? -at : at);
        return out;
    }
    SKIVET_TRY(out.field, text(table, "at"));
    const std::pair<std::string_view, Place::From> words[] = {
        {"after header", Place::From::after_header},   {"after record", Place::From::after_record},
        {"after folders", Place::From::after_folders}, {"after names", Place::From::after_names},
        {"in folder", Place::From::in_folder},         {"behind record", Place::From::behind_record}};
    for (const auto& [w, from] : words)
        if (w == out.field) {
            out.from = from;
            return out;
        }
    out.from = Place::From::field;
    if (!sheet.header.named(out.field))
        return wrong(line_of(node.node()), phrase("at names the header field \"{}\", which is not there", out.field));
    return out;
}

Result<CountOf> Parser::count(const toml::table& table, const Sheet& sheet, const RecordType& record, Meaning by_default) const {
    CountOf out;
    if (const auto* until = table["until"].as_table()) {
        SKIVET_CHECK(known_keys(*until, {"field", "is"}));
        out.by = CountOf::By::terminator;
        SKIVET_TRY(out.field, text(*until, "field", true));
        SKIVET_TRY(out.number, number(*until, "is", 0));
        if (!record.named(out.field))
            return wrong(line_of(*until), phrase("until names the field \"{}\", which is not in the record", out.field));
        return out;
    }
    const auto node = table["count"];
    if (!node) {
        if (const auto* field = sheet.header.with(by_default)) {
            out.field = field->name;
            return out;
        }
        out.by = CountOf::By::folders;
        return out;
    }
    if (node.is_integer()) {
        out.by = CountOf::By::number;
        SKIVET_TRY(out.number, number(table, "count", 0));
        return out;
    }
    SKIVET_TRY(out.field, text(table, "count"));
    if (out.field == "until end") out.by = CountOf::By::to_end;
    else if (!sheet.header.named(out.field))
        return wrong(line_of(node.node()), phrase("count names the header field \"{}\", which is not there", out.field));
    return out;
}

Status Parser::parse_container(const toml::table& root, Sheet& sheet) const {
    const auto* record = root["record"].as_table();
    if (!record) return wrong(1, "a container sheet needs a [record] with the fields of one entry");
    SKIVET_CHECK(known_keys(*record, {"at", "count", "until", "path", "fields", "counted", "arrays", "ends"}));
    SKIVET_CHECK(parse_fields(*this, *record, root["texture"].is_table() ? FieldsOf::texture_record : FieldsOf::record, sheet.record));
    SKIVET_TRY(sheet.path_of, text(*record, "path"));
    SKIVET_TRY(sheet.record.arrays, flag(*record, "arrays", false));
    SKIVET_TRY(const auto ends, word(*record, "ends", {"by size", "next record", "next offset"}));
    sheet.ends = static_cast<Sheet::Ends>(ends);
    SKIVET_TRY(const auto counted, text(*record, "counted"));
    if (!counted.empty()) {
        sheet.counted = sheet_parse::width_named(counted);
        if (sheet.counted == 0 || counted[0] != 'u')
            return wrong(line_of(*record, "counted"),
                         "counted is the type of the number that stands before the records: u8, u16, u24, u32 or u64");
        if (record->contains("count") || record->contains("until"))
            return wrong(line_of(*record, "counted"), "counted says how many records there are; count and until say it, too");
    }
    if (const auto* markers = root["markers"].as_table()) {
        SKIVET_CHECK(known_keys(*markers, {"start", "end"}));
        SKIVET_TRY(sheet.markers.start, text(*markers, "start", true));
        SKIVET_TRY(sheet.markers.end, text(*markers, "end", true));
        for (const auto& [key, pattern] : {std::pair{"start", sheet.markers.start}, std::pair{"end", sheet.markers.end}})
            if (pattern.find("{folder}") == std::string::npos)
                return wrong(line_of(*markers, key), "a marker is a name with {folder} in it, such as \"{folder}_START\"");
    }
    if (const auto* folders = root["folders"].as_table()) {
        SKIVET_CHECK(known_keys(*folders, {"at", "count", "until", "fields"}));
        SKIVET_CHECK(parse_fields(*this, *folders, FieldsOf::folders, sheet.folders));
        SKIVET_TRY(sheet.folders_at, place(*folders, sheet, {Place::From::after_header, 0, {}}));
        SKIVET_TRY(sheet.folders_count, count(*folders, sheet, sheet.folders, Meaning::folder_count));
        if (sheet.folders_count.by == CountOf::By::folders)
            return wrong(line_of(*folders), "[folders] needs a count, or a header field that means \"folder count\"");
        if (!sheet.folders.with(Meaning::entry_count)) return wrong(line_of(*folders), "no field of [folders] means \"entry count\"");
    }
    const auto* at_field = sheet.header.with(Meaning::table_offset);
    Place standard{sheet.folders.fields.empty() ? Place::From::after_header : Place::From::after_folders, 0, {}};
    if (at_field) standard = {Place::From::field, 0, at_field->name};
    SKIVET_TRY(sheet.record_at, place(*record, sheet, standard));
    if (sheet.record_at.from == Place::From::in_folder && sheet.folders.fields.empty())
        return wrong(line_of(*record, "at"), "records lie \"in folder\", and there is no [folders]");
    SKIVET_TRY(sheet.record_count, count(*record, sheet, sheet.record, Meaning::entry_count));
    if (sheet.counted > 0) sheet.record_count = {CountOf::By::counted, 0, {}};
    if (const auto* tree = root["tree"].as_table()) SKIVET_CHECK(parse_tree(*tree, sheet));
    if (sheet.record_count.by == CountOf::By::folders && sheet.folders.fields.empty() && !sheet.tree)
        return wrong(1, "no field of [header] means \"entry count\", and [record] says neither count nor until");
    if (const auto* names = root["names"].as_table()) SKIVET_CHECK(parse_names(*names, sheet));
    if (const auto* hash = root["hash"].as_table()) SKIVET_CHECK(parse_hash(*hash, sheet));
    SKIVET_CHECK(parse_packing(root, sheet));
    if (const auto* data = root["data"].as_table()) SKIVET_CHECK(parse_data(*data, sheet));
    SKIVET_CHECK(parse_record_texture(root, sheet));
    return check_container(*record, sheet);
}

Status Parser::check_container(const toml::table& record, const Sheet& sheet) const {
    const auto& r = sheet.record;
    const bool by_pattern = !sheet.path_of.empty();
    if (!sheet.tree && !r.with(Meaning::path) && !r.with(Meaning::name) && !r.with(Meaning::name_offset) && !r.with(Meaning::name_index) &&
        !r.with(Meaning::path_hash) && !by_pattern && !(sheet.names && sheet.names->in_order))
        return wrong(line_of(record),
                     "no field of [record] means \"path\" (or name, name offset, name index, path hash), and [record] says no "
                     "path such as \"{number:4}\"");
    const bool sized = r.with(Meaning::stored_size) || r.with(Meaning::data_end) || r.with(Meaning::size);
    if (sheet.ends == Sheet::Ends::by_size && !sized)
        return wrong(line_of(record), "no field of [record] means \"stored size\", and [record] does not say where data ends");
    if (sheet.ends != Sheet::Ends::by_size && r.with(Meaning::stored_size))
        return wrong(line_of(record, "ends"), "a field means \"stored size\" and says where data ends");
    if (const auto* end = r.with(Meaning::data_end)) {
        if (!r.with(Meaning::data_offset))
            return wrong(end->line, "where data ends counts as where it begins does: a field has to mean \"data offset\"");
        if (r.with(Meaning::stored_size)) return wrong(end->line, "a field means \"stored size\"; where data ends follows from it");
        if (sheet.ends != Sheet::Ends::by_size)
            return wrong(line_of(record, "ends"), "a field means \"data end\" and says where data ends");
    }
    if (!r.with(Meaning::data_offset) && !sheet.data_at)
        return wrong(line_of(record), "no field of [record] means \"data offset\", and [data] at does not say where data begins");
    if (sheet.data_at && r.with(Meaning::data_offset))
        return wrong(line_of(record), "a field means \"data offset\"; [data] at says where data begins, too");
    if (sheet.data_at && sheet.ends != Sheet::Ends::by_size)
        return wrong(line_of(record, "ends"), "where data ends by the next one's offset, a field says the offsets");
    const bool alone = sheet.folders.fields.empty() && !sheet.tree;
    if (sheet.ends == Sheet::Ends::next_record && (!alone || sheet.record_count.by == CountOf::By::terminator))
        return wrong(line_of(record, "ends"), "a last record that only says where data ends goes with a plain table of records");
    if (r.arrays) {
        if (!alone || sheet.record_count.by == CountOf::By::terminator || sheet.record_count.by == CountOf::By::to_end)
            return wrong(line_of(record, "arrays"), "arrays go with a count and without [folders] and [tree]");
        if (!r.fixed_size()) return wrong(line_of(record, "arrays"), "arrays have values of a fixed size");
    }
    if (follows_order(sheet) && (!sheet.data_file.empty() || sheet.part_size > 0))
        return wrong(line_of(record), "data whose place follows from its order lies in the archive itself");
    if (sheet.data_at && sheet.data_at->from == Place::From::behind_record && !alone)
        return wrong(line_of(record), "data behind its record goes without [folders] and [tree]");
    if (sheet.packed != Sheet::Packed::always && (!r.with(Meaning::size) || sheet.method.empty()))
        return wrong(line_of(record), "[data] packed needs a method and a field that means \"size\"");
    if (sheet.packed == Sheet::Packed::stored_not_zero && !r.with(Meaning::stored_size))
        return wrong(line_of(record), "packed = \"stored size not 0\" needs a field that means \"stored size\"");
    if ((r.with(Meaning::name_offset) || r.with(Meaning::name_index)) && !sheet.names)
        return wrong(line_of(record), "names by offset or index need [names]");
    if (r.with(Meaning::path_hash) && !sheet.hash) return wrong(line_of(record), "a path hash needs [hash]");
    const bool any_method = r.with(Meaning::method) || !sheet.method.empty();
    if (sheet.chunks && !any_method) return wrong(line_of(record), "[chunks] have no effect without a method");
    if ((sheet.level != 0 || !sheet.starts_as.empty()) && !any_method)
        return wrong(line_of(record), "[data] level and starts_as have no effect without a method");
    const bool by_field = r.with(Meaning::name_offset) || r.with(Meaning::name_index);
    if (sheet.names && !by_field && !sheet.names->in_order && !sheet.folders.with(Meaning::name_offset))
        return wrong(line_of(record),
                     "[names] have no effect: no field means \"name offset\" or \"name index\", and they are not in_order");
    if (sheet.names && sheet.names->in_order && (by_field || r.with(Meaning::path) || r.with(Meaning::name)))
        return wrong(line_of(record), "[names] in_order: a field says the name, too");
    if (sheet.hash && !r.with(Meaning::path_hash)) return wrong(line_of(record), "[hash] has no effect: no field means \"path hash\"");
    SKIVET_CHECK(check_methods(sheet, sheet.record));
    if (has_stream(sheet)) {
        if (r.with(Meaning::method) || r.with(Meaning::stored_size) || r.with(Meaning::data_end) || !r.with(Meaning::size) ||
            !r.with(Meaning::data_offset) || sheet.crypt || !sheet.data_file.empty())
            return wrong(line_of(record),
                         "entries in a stream of chunks have a \"data offset\" and a \"size\" in it, and no method, stored size, "
                         "encryption or data file of their own");
        if (sheet.method.empty()) return wrong(line_of(record), "chunks are packed by [data] method");
        return {};
    }
    const auto* method = r.with(Meaning::method);
    const bool packs = method || (!sheet.method.empty() && sheet.method != "stored");
    const bool stored = r.with(Meaning::stored_size) || r.with(Meaning::data_end) || sheet.ends != Sheet::Ends::by_size;
    if (packs && !stored) return wrong(line_of(record), "entries that may be compressed need a field that means \"stored size\"");
    const auto one = method_named(sheet, sheet.method);
    if (packs && !r.with(Meaning::size) && (method || sheet.chunks || (one && needs_size(one->packing))))
        return wrong(line_of(record), "entries that may be compressed need a field that means \"size\"");
    if (r.with(Meaning::file_number) && sheet.data_file.find("{number") == std::string::npos)
        return wrong(line_of(record), "a file number needs [data] file = \"…{number}…\"");
    for (const auto* type : {&sheet.record, &sheet.folders, &sheet.header})
        for (const auto& f : type->fields)
            if (!f.base_field.empty() && !sheet.header.named(f.base_field))
                return wrong(f.line, phrase("base names the header field \"{}\", which is not there", f.base_field));
    return {};
}

Status Parser::parse_tree(const toml::table& tree, Sheet& sheet) const {
    SKIVET_CHECK(known_keys(tree, {"at", "levels", "empty"}));
    TreeSpec spec;
    SKIVET_TRY(spec.at, place(tree, sheet, sheet.record_at));
    SKIVET_TRY(spec.empty, text(tree, "empty"));
    const auto* levels = tree["levels"].as_array();
    if (!levels || levels->empty() || levels->size() > 8) return wrong(line_of(tree), "levels are a list such as [\"folder\", \"name\"]");
    for (const auto& node : *levels) {
        const auto level = node.value_exact<std::string>();
        if (!level || (*level != "folder" && *level != "name" && *level != "extension"))
            return wrong(line_of(node), "a level is \"folder\", \"name\" or \"extension\"");
        spec.levels.push_back(*level);
    }
    sheet.tree = std::move(spec);
    return {};
}

Status Parser::parse_names(const toml::table& names, Sheet& sheet) const {
    SKIVET_CHECK(known_keys(names, {"at", "size", "encoding", "length", "in_order"}));
    NameTable table;
    SKIVET_TRY(table.at, place(names, sheet, {Place::From::after_record, 0, {}}));
    SKIVET_TRY(table.size_field, text(names, "size"));
    if (!table.size_field.empty() && !sheet.header.named(table.size_field))
        return wrong(line_of(names, "size"), phrase("size names the header field \"{}\", which is not there", table.size_field));
    SKIVET_TRY(table.code, text_code(names));
    SKIVET_TRY(const auto length, text(names, "length"));
    if (!length.empty() && length != "until zero") {
        table.prefix = sheet_parse::width_named(length);
        if (table.prefix == 0) return wrong(line_of(names, "length"), "length is \"until zero\", u8, u16 or u32");
    }
    SKIVET_TRY(table.in_order, flag(names, "in_order", false));
    sheet.names = std::move(table);
    return {};
}

Status Parser::parse_hash(const toml::table& table, Sheet& sheet) const {
    SKIVET_CHECK(known_keys(table, {"kind", "seed", "multiplier", "lower", "slash", "prefix", "dictionary"}));
    HashSpec spec;
    SKIVET_TRY(const auto kind, text(table, "kind", true));
    const auto named = hash_named(kind);
    if (!named) return wrong(line_of(table, "kind"), "kind of a path hash is crc32, fnv1a32, fnv1a64, xxh32, xxh64 or \"multiply add\"");
    spec.kind = *named;
    SKIVET_TRY(spec.seed, number(table, "seed", 0));
    SKIVET_TRY(spec.multiplier, number(table, "multiplier", 0));
    if (spec.kind == HashKind::multiply_add && spec.multiplier == 0) return wrong(line_of(table), "multiply add needs a multiplier");
    SKIVET_TRY(spec.lower, flag(table, "lower", false));
    SKIVET_TRY(const auto slash, text(table, "slash"));
    if (!slash.empty() && slash != "/" && slash != "\\") return wrong(line_of(table, "slash"), "slash is \"/\" or \"\\\\\"");
    if (!slash.empty()) spec.slash = slash[0];
    SKIVET_TRY(spec.prefix, text(table, "prefix"));
    SKIVET_TRY(spec.dictionary, text(table, "dictionary"));
    if (spec.dictionary.find('/') != std::string::npos)
        return wrong(line_of(table, "dictionary"), "the dictionary is a file beside the sheet, named without a folder");
    sheet.hash = std::move(spec);
    return {};
}

}  // namespace skivet::sheet_parse

#include "base/phrase.h"
#include "sheet/parser.h"

namespace skivet::sheet_parse {

Result<CryptSpec> Parser::cipher(const toml::table& table, const Sheet& sheet) const {
    CryptSpec spec;
    SKIVET_TRY(const auto name, text(table, "cipher", true));
    using Cipher = CryptSpec::Cipher;
    constexpr std::pair<std::string_view, Cipher> plain[] = {
        {"xor", Cipher::xor_key},   {"xor rolling", Cipher::xor_rolling},   {"swap 2", Cipher::swap_2},
        {"swap 4", Cipher::swap_4}, {"reverse bits", Cipher::reverse_bits}, {"invert", Cipher::invert}};
    bool known = false;
    for (const auto& [word, cipher] : plain)
        if (name == word) spec.cipher = cipher, known = true;
    for (const std::size_t bits : {128u, 192u, 256u})
        for (const auto& [mode, mode_name] :
             {std::pair{CipherMode::ecb, "ecb"}, std::pair{CipherMode::cbc, "cbc"}, std::pair{CipherMode::ctr, "ctr"}})
            if (name == fmt::format("aes-{}-{}", bits, mode_name)) spec.mode = mode, spec.key_bytes = bits / 8, known = true;
    if (!known)
        return wrong(line_of(table, "cipher"),
                     "cipher is aes-128-ecb, -cbc, -ctr (or 192, 256), xor, \"xor rolling\", \"swap 2\", \"swap 4\", "
                     "\"reverse bits\" or \"invert\"");
    if (wants_key(spec)) {
        SKIVET_TRY(spec.key, text(table, "key"));
        SKIVET_TRY(spec.key_field, text(table, "key_field"));
        if (spec.key.empty() == spec.key_field.empty())
            return wrong(line_of(table), "key is the key's name in the key ring; key_field the header field that holds the key");
        const auto* field = sheet.header.named(spec.key_field);
        if (!spec.key_field.empty() && (!field || (field->type != FieldType::bytes && field->type != FieldType::uint)))
            return wrong(line_of(table, "key_field"),
                         phrase("key_field names the header field \"{}\", which is no bytes or number", spec.key_field));
    } else {
        for (const auto* key : {"key", "key_field", "iv"})
            if (table.contains(key)) return wrong(line_of(table, key), phrase("\"{}\" has no effect on the cipher \"{}\"", key, name));
    }
    SKIVET_TRY(const auto counted, word(table, "counted", {"from entry", "from file"}));
    spec.from_file = counted == 1;
    if (spec.from_file && spec.cipher != Cipher::xor_key) return wrong(line_of(table, "counted"), "counted goes with the cipher xor");
    if (table.contains("iv") && (spec.cipher != Cipher::aes || spec.mode == CipherMode::ecb))
        return wrong(line_of(table, "iv"), phrase("\"iv\" has no effect on the cipher \"{}\"", name));
    SKIVET_TRY(const auto iv, text(table, "iv"));
    if (iv == "entry number") spec.iv_is_number = true;
    else if (const auto* field = sheet.record.named(iv); !iv.empty() && field) {
        if (field->type != FieldType::bytes || field->size != 16) return wrong(line_of(table, "iv"), "an IV from a field is 16 bytes");
        spec.iv_field = iv;
    } else if (!iv.empty()) {
        SKIVET_TRY(spec.iv, hex(table, "iv"));
        if (spec.iv.size() != 16) return wrong(line_of(table, "iv"), "an IV has 16 bytes");
    } else if (spec.cipher == CryptSpec::Cipher::aes && spec.mode != CipherMode::ecb) {
        spec.iv.resize(16);
    }
    return spec;
}

Status Parser::parse_packing(const toml::table& root, Sheet& sheet) const {
    if (const auto* table = root["encryption"].as_table()) {
        SKIVET_CHECK(known_keys(*table, {"cipher", "key", "key_field", "counted", "iv", "of"}));
        SKIVET_TRY(auto spec, cipher(*table, sheet));
        SKIVET_TRY(const auto of, word(*table, "of", {"data", "table", "both"}));
        if (of != 0) sheet.table_crypt = spec;
        if (of != 1) sheet.crypt = std::move(spec);
    }
    if (const auto* table = root["table_encryption"].as_table()) {
        SKIVET_CHECK(known_keys(*table, {"cipher", "key", "key_field", "counted", "iv"}));
        SKIVET_TRY(auto spec, cipher(*table, sheet));
        sheet.table_crypt = std::move(spec);
    }
    if (sheet.table_crypt && (sheet.table_crypt->iv_is_number || !sheet.table_crypt->iv_field.empty()))
        return wrong(1, "the IV of a table is fixed");
    if (const auto* table = root["chunks"].as_table()) SKIVET_CHECK(parse_chunks(*table, sheet));
    if (const auto* table = root["table"].as_table()) {
        SKIVET_CHECK(known_keys(*table, {"method", "level"}));
        SKIVET_TRY(sheet.table_method, method(*table, sheet));
        if (sheet.table_method.empty()) return wrong(line_of(*table), "[table] says the method the directory is packed with");
        SKIVET_TRY(const auto level, whole(*table, "level", 0));
        if (level < 0 || level > 22) return wrong(line_of(*table, "level"), "level is 0 to 22");
        sheet.table_level = static_cast<int>(level);
        const auto one = *method_named(sheet, sheet.table_method);
        const bool ends_itself =
            !one.described && one.packing != Packing::none && one.packing != Packing::snappy && !needs_size(one.packing);
        if (!ends_itself && (!sheet.header.with(Meaning::table_stored_size) || !sheet.header.with(Meaning::table_size)))
            return wrong(
                line_of(*table),
                phrase("a directory packed with {} needs header fields that mean \"table size\" and \"table stored size\"", one.name()));
    } else if (const auto* field = sheet.header.with(Meaning::table_stored_size)) {
        return wrong(field->line, "\"table stored size\" goes with [table] method; the size of a plain directory is \"table size\"");
    }
    return {};
}

Result<std::string> Parser::method(const toml::table& table, const Sheet& sheet) const {
    SKIVET_TRY(const auto name, text(table, "method"));
    if (!name.empty() && !method_named(sheet, name))
        return wrong(line_of(table, "method"),
                     phrase("the method \"{}\" is not known; {}, or the name of a [[packer]]", name, packing_names()));
    return name;
}

Status Parser::check_methods(const Sheet& sheet, const RecordType& type) const {
    const auto* field = type.with(Meaning::method);
    if (!field) return {};
    if (field->values.empty()) return wrong(field->line, "a field that means \"method\" needs values");
    for (const auto& [number, name] : field->values)
        if (!method_named(sheet, name))
            return wrong(field->line, phrase("the method \"{}\" is not known; {}, or the name of a [[packer]]", name, packing_names()));
    return {};
}

Status Parser::parse_packers(const toml::table& root, Sheet& sheet) const {
    const auto* list = root["packer"].as_array();
    if (!list) return root.contains("packer") ? Status(wrong(line_of(root, "packer"), "write [[packer]]")) : Status();
    for (const auto& node : *list) {
        const auto* table = node.as_table();
        if (!table) return wrong(line_of(node), "[[packer]] must be a table");
        PackerSpec spec;
        SKIVET_TRY(spec.name, text(*table, "name", true));
        if (method_named(sheet, spec.name)) return wrong(line_of(*table, "name"), phrase("two methods are called \"{}\"", spec.name));
        SKIVET_TRY(const auto kind, word(*table, "kind", {"lzss", "runs", "program"}));
        spec.kind = static_cast<PackerSpec::Kind>(kind);
        if (spec.kind == PackerSpec::Kind::program) {
            SKIVET_CHECK(known_keys(*table, {"name", "kind"}));
            if (sheet.kind == SheetKind::texture)
                return wrong(line_of(node), "programs pack what is in archives and wrappers, not parts of a texture");
        } else {
            SKIVET_CHECK(kind == 0 ? parse_lzss(*table, spec.lzss) : parse_runs(*table, spec.runs));
        }
        if (sheet.packers.size() >= 32) return wrong(line_of(node), "more than 32 [[packer]]");
        sheet.packers.push_back(std::move(spec));
    }
    return {};
}

Status Parser::parse_lzss(const toml::table& table, LzssSpec& spec) const {
    SKIVET_CHECK(
        known_keys(table, {"name", "kind", "window", "shortest", "start", "fill", "places", "single", "flags", "pair", "place", "length"}));
    const auto small = [&](std::string_view key, std::uint64_t otherwise, std::uint64_t most) -> Result<std::uint32_t> {
        SKIVET_TRY(const auto value, number(table, key, otherwise));
        if (value > most) return wrong(line_of(table, key), phrase("\"{}\" is at most {}", key, most));
        return static_cast<std::uint32_t>(value);
    };
    SKIVET_TRY(spec.window, small("window", 4096, 1u << 20));
    SKIVET_TRY(spec.shortest, small("shortest", 3, 255));
    SKIVET_TRY(spec.start, small("start", 0, 1u << 20));
    SKIVET_TRY(const auto fill, small("fill", 0, 255));
    spec.fill = static_cast<std::byte>(fill);
    SKIVET_TRY(const auto places, word(table, "places", {"in the window", "back"}));
    spec.back = places == 1;
    SKIVET_TRY(const auto single, small("single", 1, 1));
    spec.literal = single == 1;
    SKIVET_TRY(const auto flags, word(table, "flags", {"lowest first", "highest first"}));
    spec.lowest_first = flags == 0;
    SKIVET_TRY(const auto pair, word(table, "pair", {"u16", "u8", "u24", "u32", "u16 big", "u24 big", "u32 big"}));
    constexpr unsigned widths[] = {2, 1, 3, 4, 2, 3, 4};
    spec.pair_bytes = widths[pair];
    spec.big = pair > 3;
    for (const auto& [key, parts] : {std::pair{"place", &spec.place}, std::pair{"length", &spec.length}}) {
        if (!table.contains(key)) continue;
        const auto says = phrase("{} is a list of [lowest bit, how many], such as [[0, 8], [12, 4]]", key);
        const auto* list = table[key].as_array();
        if (!list || list->empty() || list->size() > 8) return wrong(line_of(table, key), says);
        parts->clear();
        for (const auto& node : *list) {
            const auto bits = two(&node);
            if (!bits || bits->first < 0 || bits->first > 31 || bits->second < 1 || bits->second > 24) return wrong(line_of(node), says);
            parts->push_back({static_cast<unsigned>(bits->first), static_cast<unsigned>(bits->second)});
        }
    }
    if (const auto why = wrong_in(spec); !why.empty()) return wrong(line_of(table), why);
    return {};
}

Status Parser::parse_runs(const toml::table& table, RunsSpec& spec) const {
    SKIVET_CHECK(known_keys(table, {"name", "kind", "unit", "ranges"}));
    SKIVET_TRY(const auto unit, number(table, "unit", 1));
    spec.unit = static_cast<unsigned>(std::min<std::uint64_t>(unit, 99));
    const auto* list = table["ranges"].as_array();
    if (!list) return wrong(line_of(table), "ranges are a list of { control = [0, 127], does = \"copy\", count = 1 }");
    for (const auto& node : *list) {
        const auto* entry = node.as_table();
        if (!entry) return wrong(line_of(node), "ranges are a list of { control = [0, 127], does = \"copy\", count = 1 }");
        SKIVET_CHECK(known_keys(*entry, {"control", "does", "count", "step"}));
        RunsSpec::Range r;
        SKIVET_TRY(const auto control, range(*entry, "control"));
        if (control.second > 255) return wrong(line_of(*entry, "control"), "a control byte is 0 to 255");
        r.from = static_cast<unsigned>(control.first);
        r.to = static_cast<unsigned>(control.second);
        SKIVET_TRY(const auto does, word(*entry, "does", {"copy", "repeat", "itself", "nothing"}));
        r.does = static_cast<RunsSpec::Does>(does);
        SKIVET_TRY(const auto count, number(*entry, "count", 1));
        SKIVET_TRY(const auto step, whole(*entry, "step", 1));
        if (count > 65536 || step < -1 || step > 1) return wrong(line_of(node), "count is at most 65536, step is 1, 0 or -1");
        if (does > 1 && (entry->contains("count") || entry->contains("step")))
            return wrong(line_of(node), "count and step go with \"copy\" and \"repeat\"");
        r.count = static_cast<std::uint32_t>(count);
        r.step = static_cast<int>(step);
        spec.ranges.push_back(r);
        if (spec.ranges.size() > 256) return wrong(line_of(node), "more than 256 ranges");
    }
    if (const auto why = wrong_in(spec); !why.empty()) return wrong(line_of(table), why);
    return {};
}

Status Parser::parse_chunks(const toml::table& table, Sheet& sheet) const {
    SKIVET_CHECK(known_keys(table, {"size", "sizes", "raw", "fields", "at", "count", "data"}));
    ChunkSpec spec;
    if (table.contains("size") && table["size"].is_string()) {
        SKIVET_TRY(spec.size_field, text(table, "size"));
        if (!sheet.header.named(spec.size_field))
            return wrong(line_of(table, "size"), phrase("size names the header field \"{}\", which is not there", spec.size_field));
    } else {
        SKIVET_TRY(spec.size, number(table, "size", 0));
        if (spec.size == 0 || spec.size > 64u << 20) return wrong(line_of(table), "a chunk has 1 byte to 64 MB");
    }
    SKIVET_TRY(const auto sizes, text(table, "sizes"));
    if (!sizes.empty()) spec.width = sheet_parse::width_named(sizes);
    if (spec.width == 0) return wrong(line_of(table, "sizes"), "sizes are u8, u16, u24, u32 or u64");
    SKIVET_TRY(const auto raw, word(table, "raw", {"same size", "high bit"}));
    spec.high_bit = raw == 1;
    if (table.contains("fields")) {
        if (sheet.kind != SheetKind::container) return wrong(line_of(table, "fields"), "a table of chunks belongs to a container");
        if (table.contains("sizes"))
            return wrong(line_of(table, "sizes"), "sizes stand before the chunks, or in the fields of their table");
        SKIVET_CHECK(parse_fields(*this, table, FieldsOf::chunk, spec.table));
        SKIVET_TRY(spec.table_at, place(table, sheet, {Place::From::after_record, 0, {}}));
        SKIVET_TRY(spec.table_count, count(table, sheet, spec.table, Meaning::none));
        if (spec.table_count.by != CountOf::By::field && spec.table_count.by != CountOf::By::number)
            return wrong(line_of(table), "a table of chunks has a count: a number, or a header field");
        if (table.contains("data")) {
            const toml::table as_at{{"at", *table["data"].node()}};
            SKIVET_TRY(spec.data_at, place(as_at, sheet, {}));
        }
        if (!spec.table.with(Meaning::data_offset) && !spec.data_at)
            return wrong(line_of(table), "no field of [chunks] means \"data offset\", and data does not say where the first chunk lies");
        if (!spec.table.with(Meaning::stored_size) && !spec.table.with(Meaning::data_offset))
            return wrong(line_of(table), "no field of [chunks] means \"stored size\" or \"data offset\"");
        if (!spec.table.fixed_size()) return wrong(line_of(table), "the table of chunks has fields of a fixed size");
    } else {
        for (const auto* key : {"at", "count", "data"})
            if (table.contains(key)) return wrong(line_of(table, key), phrase("\"{}\" goes with the fields of a table of chunks", key));
    }
    sheet.chunks = std::move(spec);
    return {};
}

Status Parser::parse_data(const toml::table& data, Sheet& sheet) const {
    SKIVET_CHECK(known_keys(
        data, {"at", "align", "fill", "file", "part_size", "method", "level", "move", "order", "packed", "starts_with", "starts_as"}));
    SKIVET_TRY(sheet.align, number(data, "align", 1));
    SKIVET_TRY(const auto fill, number(data, "fill", 0));
    if (sheet.align == 0 || sheet.align > 1u << 20 || fill > 255) return wrong(line_of(data), "align is 1 to 1048576, fill is 0 to 255");
    sheet.fill = static_cast<std::byte>(fill);
    SKIVET_TRY(sheet.method, method(data, sheet));
    SKIVET_TRY(sheet.starts_with, hex(data, "starts_with"));
    SKIVET_TRY(sheet.starts_as, hex(data, "starts_as"));
    if (sheet.starts_with.size() != sheet.starts_as.size())
        return wrong(line_of(data), "starts_with are the bytes streams begin with, starts_as those they stand for; both have as many");
    SKIVET_TRY(const auto packed, word(data, "packed", {"always", "sizes differ", "stored size not 0"}));
    sheet.packed = static_cast<Sheet::Packed>(packed);
    SKIVET_TRY(const auto level, whole(data, "level", 0));
    if (level < 0 || level > 22) return wrong(line_of(data, "level"), "level is 0 to 22");
    sheet.level = static_cast<int>(level);
    if (!sheet.starts_as.empty() && sheet.chunks)
        return wrong(line_of(data, "starts_as"), "data in chunks begins with their sizes, or has a table of them; starts_as has no effect");
    if (data.contains("at") && sheet.kind == SheetKind::wrapper) {
        SKIVET_TRY(const auto at, number(data, "at", 0));
        sheet.payload_at = at;
    } else if (data.contains("at")) {
        SKIVET_TRY(sheet.data_at, place(data, sheet, {}));
        if (sheet.data_at->from == Place::From::in_folder) return wrong(line_of(data, "at"), "data does not lie \"in folder\"");
    }
    SKIVET_TRY(sheet.data_file, text(data, "file"));
    SKIVET_TRY(sheet.part_size, number(data, "part_size", 0));
    if (sheet.data_file.find('/') != std::string::npos)
        return wrong(line_of(data, "file"), "data files lie beside the archive; the name has no folder");
    if (sheet.part_size > 0 && sheet.data_file.find("{number") == std::string::npos)
        return wrong(line_of(data), "parts need file = \"…{number}…\"");
    SKIVET_TRY(sheet.may_move, flag(data, "move", true));
    SKIVET_TRY(const auto order, word(data, "order", {"any", "kept"}));
    sheet.keep_order = order == 1;
    return {};
}

Status Parser::parse_wrapper(const toml::table& root, Sheet& sheet) const {
    SKIVET_CHECK(parse_packing(root, sheet));
    if (const auto* data = root["data"].as_table()) {
        SKIVET_CHECK(known_keys(*data, {"at", "method", "level", "starts_with", "starts_as"}));
        SKIVET_CHECK(parse_data(*data, sheet));
    }
    SKIVET_CHECK(check_methods(sheet, sheet.header));
    const auto* by_field = sheet.header.with(Meaning::method);
    if (!by_field && sheet.method.empty() && !sheet.crypt)
        return wrong(1, "a wrapper says how it is packed: a field that means \"method\", [data] method, or [encryption]");
    const auto one = method_named(sheet, sheet.method);
    if ((sheet.chunks || (one && needs_size(one->packing))) && !sheet.header.with(Meaning::size))
        return wrong(1, "no field of [header] means \"size\"");
    return {};
}

}  // namespace skivet::sheet_parse

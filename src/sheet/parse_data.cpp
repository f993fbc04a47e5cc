#include "sheet/parser.h"

namespace skivet::sheet_parse {

Result<CryptSpec> Parser::cipher(const toml::table& table, const Sheet& sheet) const {
    CryptSpec spec;
    SKIVET_TRY(const auto name, text(table, "cipher", true));
    if (name == "xor") spec.cipher = CryptSpec::Cipher::xor_key;
    else if (name == "xor rolling") spec.cipher = CryptSpec::Cipher::xor_rolling;
    else {
        bool known = false;
        for (const std::size_t bits : {128u, 192u, 256u})
            for (const auto& [mode, mode_name] :
                 {std::pair{CipherMode::ecb, "ecb"}, std::pair{CipherMode::cbc, "cbc"}, std::pair{CipherMode::ctr, "ctr"}})
                if (name == fmt::format("aes-{}-{}", bits, mode_name)) spec.mode = mode, spec.key_bytes = bits / 8, known = true;
        if (!known) return wrong(line_of(table, "cipher"), "cipher is aes-128-ecb, -cbc, -ctr (or 192, 256), xor or \"xor rolling\"");
    }
    SKIVET_TRY(spec.key, text(table, "key", true));
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
        SKIVET_CHECK(known_keys(*table, {"cipher", "key", "iv", "of"}));
        SKIVET_TRY(auto spec, cipher(*table, sheet));
        SKIVET_TRY(const auto of, word(*table, "of", {"data", "table", "both"}));
        if (of != 0) sheet.table_crypt = spec;
        if (of != 1) sheet.crypt = std::move(spec);
    }
    if (const auto* table = root["table_encryption"].as_table()) {
        SKIVET_CHECK(known_keys(*table, {"cipher", "key", "iv"}));
        SKIVET_TRY(auto spec, cipher(*table, sheet));
        sheet.table_crypt = std::move(spec);
    }
    if (sheet.table_crypt && (sheet.table_crypt->iv_is_number || !sheet.table_crypt->iv_field.empty()))
        return wrong(1, "the IV of a table is fixed");
    if (const auto* table = root["chunks"].as_table()) {
        SKIVET_CHECK(known_keys(*table, {"size", "sizes", "raw"}));
        ChunkSpec spec;
        if (table->contains("size") && (*table)["size"].is_string()) {
            SKIVET_TRY(spec.size_field, text(*table, "size"));
            if (!sheet.header.named(spec.size_field))
                return wrong(line_of(*table, "size"),
                             fmt::format("size names the header field \"{}\", which is not there", spec.size_field));
        } else {
            SKIVET_TRY(spec.size, number(*table, "size", 0));
            if (spec.size == 0 || spec.size > 64u << 20) return wrong(line_of(*table), "a chunk has 1 byte to 64 MB");
        }
        SKIVET_TRY(const auto sizes, text(*table, "sizes"));
        if (!sizes.empty()) spec.width = sheet_parse::width_named(sizes);
        if (spec.width == 0) return wrong(line_of(*table, "sizes"), "sizes are u8, u16, u24, u32 or u64");
        SKIVET_TRY(const auto raw, word(*table, "raw", {"same size", "high bit"}));
        spec.high_bit = raw == 1;
        sheet.chunks = std::move(spec);
    }
    return {};
}

Status Parser::parse_data(const toml::table& data, Sheet& sheet) const {
    SKIVET_CHECK(known_keys(data, {"at", "align", "fill", "file", "part_size", "method", "level", "move", "order"}));
    SKIVET_TRY(sheet.align, number(data, "align", 1));
    SKIVET_TRY(const auto fill, number(data, "fill", 0));
    if (sheet.align == 0 || sheet.align > 1u << 20 || fill > 255) return wrong(line_of(data), "align is 1 to 1048576, fill is 0 to 255");
    sheet.fill = static_cast<std::byte>(fill);
    SKIVET_TRY(sheet.method, text(data, "method"));
    if (!sheet.method.empty() && !packing_named(sheet.method))
        return wrong(line_of(data, "method"), fmt::format("the method \"{}\" is not known", sheet.method));
    SKIVET_TRY(const auto level, whole(data, "level", 0));
    if (level < 0 || level > 22) return wrong(line_of(data, "level"), "level is 0 to 22");
    sheet.level = static_cast<int>(level);
    if (data.contains("at")) {
        SKIVET_TRY(const auto at, number(data, "at", 0));
        sheet.payload_at = at;
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
        SKIVET_CHECK(known_keys(*data, {"at", "method", "level"}));
        SKIVET_CHECK(parse_data(*data, sheet));
    }
    const auto* method = sheet.header.with(Meaning::method);
    if (!method && sheet.method.empty() && !sheet.crypt)
        return wrong(1, "a wrapper says how it is packed: a field that means \"method\", [data] method, or [encryption]");
    if (method && method->values.empty()) return wrong(method->line, "a field that means \"method\" needs values");
    const bool needs_size = sheet.chunks || sheet.method == "lz4 block" || sheet.method == "lzma raw";
    if (needs_size && !sheet.header.with(Meaning::size)) return wrong(1, "no field of [header] means \"size\"");
    return {};
}

}  // namespace skivet::sheet_parse

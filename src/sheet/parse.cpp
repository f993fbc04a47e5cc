#include <bit>

#include "sheet/parse_toml.h"

namespace skivet {

using sheet_parse::Reader;

namespace {

class Parser : private Reader {
public:
    explicit Parser(std::string_view file) : Reader(file) {}

    Result<Sheet> parse(const toml::table& root) {
        Sheet sheet;
        SKIVET_TRY(const auto kind, text(root, "sheet", true));
        if (kind == "container") sheet.kind = SheetKind::container;
        else if (kind == "texture") sheet.kind = SheetKind::texture;
        else if (kind == "wrapper") sheet.kind = SheetKind::wrapper;
        else
            return wrong(line_of(root, "sheet"),
                         fmt::format("sheet = \"{}\" is not known; write \"container\", \"texture\" or \"wrapper\"", kind));
        switch (sheet.kind) {
            case SheetKind::container:
                SKIVET_CHECK(known_keys(root, {"sheet", "name", "byte_order", "recognize", "header", "record", "folders", "names", "tree",
                                               "hash", "encryption", "table_encryption", "chunks", "data"}));
                break;
            case SheetKind::texture:
                SKIVET_CHECK(known_keys(root, {"sheet", "name", "byte_order", "recognize", "header", "texture", "payload", "sibling"}));
                break;
            case SheetKind::wrapper:
                SKIVET_CHECK(known_keys(root, {"sheet", "name", "byte_order", "recognize", "header", "encryption", "chunks", "data"}));
                break;
        }
        SKIVET_TRY(sheet.name, text(root, "name", true));
        SKIVET_TRY(const auto big, word(root, "byte_order", {"little", "big"}));
        if (big) sheet.order = ByteOrder::big;
        SKIVET_CHECK(parse_recognize(root, sheet));
        if (const auto* header = root["header"].as_table()) {
            SKIVET_CHECK(known_keys(*header, {"at", "fields"}));
            SKIVET_TRY(sheet.header_at, whole(*header, "at", 0));
            SKIVET_CHECK(sheet_parse::parse_fields(*this, *header, sheet.header));
        } else if (sheet.kind != SheetKind::texture || !root["texture"].is_table()) {
            return wrong(1, "a sheet needs a [header] with fields");
        }
        if (const auto* order = sheet.header.with(Meaning::byte_order); order && order->values.empty())
            return wrong(order->line, "a field that means \"byte order\" needs values");
        switch (sheet.kind) {
            case SheetKind::container: SKIVET_CHECK(parse_container(root, sheet)); break;
            case SheetKind::texture: SKIVET_CHECK(parse_texture(root, sheet)); break;
            case SheetKind::wrapper: SKIVET_CHECK(parse_wrapper(root, sheet)); break;
        }
        for (const auto& rule : sheet.recognize)
            if (!rule.field.empty() && !sheet.header.named(rule.field))
                return wrong(1, fmt::format("recognize names the header field \"{}\", which is not there", rule.field));
        return sheet;
    }

private:
    Status parse_recognize(const toml::table& root, Sheet& sheet) const {
        const auto* rules = root["recognize"].as_array();
        if (!rules || rules->empty()) return wrong(1, "a sheet needs at least one [[recognize]]");
        for (const auto& node : *rules) {
            const auto* table = node.as_table();
            if (!table) return wrong(line_of(node), "[[recognize]] must be a table");
            SKIVET_CHECK(known_keys(*table, {"at", "bytes", "text", "name", "file_size", "field", "equals"}));
            Recognition rule;
            SKIVET_TRY(rule.name_pattern, text(*table, "name"));
            SKIVET_TRY(rule.field, text(*table, "file_size"));
            SKIVET_TRY(const auto plain, text(*table, "text"));
            SKIVET_TRY(rule.bytes, hex(*table, "bytes"));
            rule.bytes.insert(rule.bytes.begin(), as_bytes(plain).begin(), as_bytes(plain).end());
            if (!rule.bytes.empty()) {
                SKIVET_TRY(const auto at, whole(*table, "at", 0));
                rule.at = at;
            }
            if (table->contains("field")) {
                SKIVET_TRY(rule.field, text(*table, "field"));
                if (!table->contains("equals")) return wrong(line_of(node), "field needs equals, the number it must have");
                SKIVET_TRY(const auto equals, number(*table, "equals", 0));
                rule.equals = equals;
            }
            if (rule.bytes.empty() && rule.name_pattern.empty() && rule.field.empty())
                return wrong(line_of(node), "a [[recognize]] says text or bytes, a name, a field with equals, or file_size");
            sheet.recognize.push_back(std::move(rule));
        }
        return {};
    }

    /// `at`: a number, one counted back from the end, a header field, or "after …".
    Result<Place> place(const toml::table& table, const Sheet& sheet, Place otherwise) const {
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
        const std::pair<std::string_view, Place::From> words[] = {{"after header", Place::From::after_header},
                                                                  {"after record", Place::From::after_record},
                                                                  {"after folders", Place::From::after_folders},
                                                                  {"after names", Place::From::after_names},
                                                                  {"in folder", Place::From::in_folder}};
        for (const auto& [w, from] : words)
            if (w == out.field) {
                out.from = from;
                return out;
            }
        out.from = Place::From::field;
        if (!sheet.header.named(out.field))
            return wrong(line_of(node.node()), fmt::format("at names the header field \"{}\", which is not there", out.field));
        return out;
    }

    /// `count`: a number, a header field or "until end"; or `until = { field = …, is = 0 }`.
    Result<CountOf> count(const toml::table& table, const Sheet& sheet, const RecordType& record, Meaning by_default) const {
        CountOf out;
        if (const auto* until = table["until"].as_table()) {
            SKIVET_CHECK(known_keys(*until, {"field", "is"}));
            out.by = CountOf::By::terminator;
            SKIVET_TRY(out.field, text(*until, "field", true));
            SKIVET_TRY(out.number, number(*until, "is", 0));
            if (!record.named(out.field))
                return wrong(line_of(*until), fmt::format("until names the field \"{}\", which is not in the record", out.field));
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
            return wrong(line_of(node.node()), fmt::format("count names the header field \"{}\", which is not there", out.field));
        return out;
    }

    Status parse_container(const toml::table& root, Sheet& sheet) const {
        const auto* record = root["record"].as_table();
        if (!record) return wrong(1, "a container sheet needs a [record] with the fields of one entry");
        SKIVET_CHECK(known_keys(*record, {"at", "count", "until", "path", "fields"}));
        SKIVET_CHECK(sheet_parse::parse_fields(*this, *record, sheet.record));
        SKIVET_TRY(sheet.path_of, text(*record, "path"));
        if (const auto* folders = root["folders"].as_table()) {
            SKIVET_CHECK(known_keys(*folders, {"at", "count", "until", "fields"}));
            SKIVET_CHECK(sheet_parse::parse_fields(*this, *folders, sheet.folders));
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
        SKIVET_TRY(sheet.record_count, count(*record, sheet, sheet.record, Meaning::entry_count));
        if (const auto* tree = root["tree"].as_table()) SKIVET_CHECK(parse_tree(*tree, sheet));
        if (sheet.record_count.by == CountOf::By::folders && sheet.folders.fields.empty() && !sheet.tree)
            return wrong(1, "no field of [header] means \"entry count\", and [record] says neither count nor until");
        if (const auto* names = root["names"].as_table()) SKIVET_CHECK(parse_names(*names, sheet));
        if (const auto* hash = root["hash"].as_table()) SKIVET_CHECK(parse_hash(*hash, sheet));
        SKIVET_CHECK(parse_packing(root, sheet));
        if (const auto* data = root["data"].as_table()) SKIVET_CHECK(parse_data(*data, sheet));
        return check_container(*record, sheet);
    }

    Status check_container(const toml::table& record, const Sheet& sheet) const {
        const auto& r = sheet.record;
        if (!sheet.tree && !r.with(Meaning::path) && !r.with(Meaning::name) && !r.with(Meaning::name_offset) &&
            !r.with(Meaning::name_index) && !r.with(Meaning::path_hash))
            return wrong(line_of(record), "no field of [record] means \"path\" (or name, name offset, name index, path hash)");
        for (auto needed : {Meaning::data_offset, Meaning::stored_size}) {
            if (needed == Meaning::stored_size && r.with(Meaning::size)) continue;
            if (!r.with(needed)) return wrong(line_of(record), fmt::format("no field of [record] means \"{}\"", name_of(needed)));
        }
        if ((r.with(Meaning::name_offset) || r.with(Meaning::name_index)) && !sheet.names)
            return wrong(line_of(record), "names by offset or index need [names]");
        if (r.with(Meaning::path_hash) && !sheet.hash) return wrong(line_of(record), "a path hash needs [hash]");
        const auto* method = r.with(Meaning::method);
        if (method && method->values.empty()) return wrong(method->line, "a field that means \"method\" needs values");
        const bool packs = method || (!sheet.method.empty() && sheet.method != "stored");
        if (packs && !r.with(Meaning::stored_size))
            return wrong(line_of(record), "entries that may be compressed need a field that means \"stored size\"");
        if (packs && !r.with(Meaning::size) && (method || sheet.chunks || sheet.method == "lz4 block" || sheet.method == "lzma raw"))
            return wrong(line_of(record), "entries that may be compressed need a field that means \"size\"");
        if (r.with(Meaning::file_number) && sheet.data_file.find("{number") == std::string::npos)
            return wrong(line_of(record), "a file number needs [data] file = \"…{number}…\"");
        for (const auto* type : {&sheet.record, &sheet.folders, &sheet.header})
            for (const auto& f : type->fields)
                if (!f.base_field.empty() && !sheet.header.named(f.base_field))
                    return wrong(f.line, fmt::format("base names the header field \"{}\", which is not there", f.base_field));
        return {};
    }

    Status parse_tree(const toml::table& tree, Sheet& sheet) const {
        SKIVET_CHECK(known_keys(tree, {"at", "levels", "empty"}));
        TreeSpec spec;
        SKIVET_TRY(spec.at, place(tree, sheet, sheet.record_at));
        SKIVET_TRY(spec.empty, text(tree, "empty"));
        const auto* levels = tree["levels"].as_array();
        if (!levels || levels->empty() || levels->size() > 8)
            return wrong(line_of(tree), "levels are a list such as [\"folder\", \"name\"]");
        for (const auto& node : *levels) {
            const auto level = node.value_exact<std::string>();
            if (!level || (*level != "folder" && *level != "name" && *level != "extension"))
                return wrong(line_of(node), "a level is \"folder\", \"name\" or \"extension\"");
            spec.levels.push_back(*level);
        }
        sheet.tree = std::move(spec);
        return {};
    }

    Status parse_names(const toml::table& names, Sheet& sheet) const {
        SKIVET_CHECK(known_keys(names, {"at", "size", "encoding", "length"}));
        NameTable table;
        SKIVET_TRY(table.at, place(names, sheet, {Place::From::after_record, 0, {}}));
        SKIVET_TRY(table.size_field, text(names, "size"));
        if (!table.size_field.empty() && !sheet.header.named(table.size_field))
            return wrong(line_of(names, "size"), fmt::format("size names the header field \"{}\", which is not there", table.size_field));
        SKIVET_TRY(table.code, text_code(names));
        SKIVET_TRY(const auto length, text(names, "length"));
        if (!length.empty() && length != "until zero") {
            table.prefix = sheet_parse::width_named(length);
            if (table.prefix == 0) return wrong(line_of(names, "length"), "length is \"until zero\", u8, u16 or u32");
        }
        sheet.names = std::move(table);
        return {};
    }

    Status parse_hash(const toml::table& table, Sheet& sheet) const {
        SKIVET_CHECK(known_keys(table, {"kind", "seed", "multiplier", "lower", "slash", "prefix", "dictionary"}));
        HashSpec spec;
        SKIVET_TRY(const auto kind, text(table, "kind", true));
        const auto named = hash_named(kind);
        if (!named)
            return wrong(line_of(table, "kind"), "kind of a path hash is crc32, fnv1a32, fnv1a64, xxh32, xxh64 or \"multiply add\"");
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

    Result<CryptSpec> cipher(const toml::table& table, const Sheet& sheet) const {
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

    Status parse_packing(const toml::table& root, Sheet& sheet) const {
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

    Status parse_data(const toml::table& data, Sheet& sheet) const {
        SKIVET_CHECK(known_keys(data, {"at", "align", "fill", "file", "part_size", "method", "level", "move", "order"}));
        SKIVET_TRY(sheet.align, number(data, "align", 1));
        SKIVET_TRY(const auto fill, number(data, "fill", 0));
        if (sheet.align == 0 || sheet.align > 1u << 20 || fill > 255)
            return wrong(line_of(data), "align is 1 to 1048576, fill is 0 to 255");
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

    Status parse_wrapper(const toml::table& root, Sheet& sheet) const {
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

    /// [texture]: what is the same for all files of the kind.
    Status parse_constants(const toml::table& table, Sheet& sheet) const {
        SKIVET_CHECK(known_keys(table, {"width", "height", "depth", "mips", "layers", "faces", "format", "color"}));
        const std::pair<std::string_view, Meaning> numbers[] = {{"width", Meaning::width},   {"height", Meaning::height},
                                                                {"depth", Meaning::depth},   {"mips", Meaning::mips},
                                                                {"layers", Meaning::layers}, {"faces", Meaning::faces}};
        for (const auto& [key, meaning] : numbers) {
            if (!table.contains(key)) continue;
            if (sheet.header.with(meaning)) return wrong(line_of(table, key), fmt::format("{} is said by a field and by [texture]", key));
            if (meaning == Meaning::mips && table[key].is_string()) {
                SKIVET_TRY(const auto all, text(table, key));
                if (all != "all") return wrong(line_of(table, key), "mips is a number, or \"all\" for levels down to one texel");
                sheet.all_mips = true;
                continue;
            }
            SKIVET_TRY(const auto value, number(table, key, 1));
            if (value == 0) return wrong(line_of(table, key), fmt::format("{} is at least 1", key));
            sheet.constants[meaning] = value;
        }
        SKIVET_TRY(sheet.constant_format, text(table, "format"));
        if (!sheet.constant_format.empty()) {
            if (sheet.header.with(Meaning::format)) return wrong(line_of(table, "format"), "format is said by a field and by [texture]");
            if (!format_and_color(sheet.constant_format))
                return wrong(line_of(table, "format"), fmt::format("the format \"{}\" is not known", sheet.constant_format));
        }
        SKIVET_TRY(sheet.constant_color, text(table, "color"));
        if (!sheet.constant_color.empty()) {
            if (sheet.header.with(Meaning::color)) return wrong(line_of(table, "color"), "color is said by a field and by [texture]");
            if (sheet.constant_color != "srgb" && sheet.constant_color != "linear")
                return wrong(line_of(table, "color"), "color is \"linear\" or \"srgb\"");
        }
        return {};
    }

    Status parse_payload(const toml::table& payload, Sheet& sheet) const {
        SKIVET_CHECK(known_keys(payload, {"at", "mip_order", "align", "row_align", "row_pitch", "smallest", "together", "channels",
                                          "tiling", "block_height", "gob_rows"}));
        SKIVET_TRY(sheet.align, number(payload, "align", 1));
        if (sheet.align == 0 || sheet.align > 1u << 20) return wrong(line_of(payload, "align"), "align is 1 to 1048576");
        SKIVET_TRY(sheet.row_align, number(payload, "row_align", 1));
        if (sheet.row_align == 0 || sheet.row_align > 1u << 16) return wrong(line_of(payload, "row_align"), "row_align is 1 to 65536");
        SKIVET_TRY(sheet.row_pitch, number(payload, "row_pitch", 0));
        if (sheet.row_pitch > 1u << 20) return wrong(line_of(payload, "row_pitch"), "row_pitch is at most 1048576");
        SKIVET_TRY(const auto smallest_level, number(payload, "smallest", 1));
        SKIVET_TRY(const auto together, number(payload, "together", 0));
        if (smallest_level == 0 || smallest_level > 65536 || together > 65536)
            return wrong(line_of(payload), "smallest and together are sides in texels");
        sheet.smallest_level = static_cast<std::uint32_t>(smallest_level);
        sheet.together = static_cast<std::uint32_t>(together);
        if (payload.contains("at")) {
            SKIVET_TRY(const auto at, number(payload, "at", 0));
            sheet.payload_at = at;
        }
        SKIVET_TRY(sheet.channels, text(payload, "channels"));
        auto sorted = sheet.channels;
        std::sort(sorted.begin(), sorted.end());
        if (!sheet.channels.empty() && sorted != "abgr" && sorted != "bgr" && sorted != "gr")
            return wrong(line_of(payload, "channels"),
                         "channels are the letters r, g, b, a in the order they are stored, such as \"argb\"");
        SKIVET_TRY(const auto tiling, text(payload, "tiling"));
        if (!tiling.empty()) {
            const auto named = tiling_named(tiling);
            if (!named) return wrong(line_of(payload, "tiling"), "tiling is \"linear\", \"morton\" or \"block-linear\"");
            sheet.tiling.tiling = *named;
        }
        SKIVET_TRY(const auto block_height, number(payload, "block_height", 16));
        if (!std::has_single_bit(block_height) || block_height > 32)
            return wrong(line_of(payload, "block_height"), "block_height is 1, 2, 4, 8, 16 or 32");
        sheet.tiling.block_height = static_cast<std::uint32_t>(block_height);
        SKIVET_TRY(const auto gob_rows, number(payload, "gob_rows", 8));
        if (gob_rows != 4 && gob_rows != 8) return wrong(line_of(payload, "gob_rows"), "gob_rows is 4 or 8");
        sheet.tiling.gob_rows = static_cast<std::uint32_t>(gob_rows);
        SKIVET_TRY(const auto smallest, word(payload, "mip_order", {"largest first", "smallest first"}));
        sheet.smallest_first = smallest == 1;
        return {};
    }

    Status parse_siblings(const toml::table& root, Sheet& sheet) const {
        const auto* list = root["sibling"].as_array();
        if (!list) return root.contains("sibling") ? Status(wrong(line_of(root, "sibling"), "write [[sibling]]")) : Status();
        for (const auto& node : *list) {
            const auto* table = node.as_table();
            if (!table) return wrong(line_of(node), "[[sibling]] must be a table");
            SKIVET_CHECK(known_keys(*table, {"file", "levels", "method", "level"}));
            SiblingSpec spec;
            SKIVET_TRY(spec.file, text(*table, "file", true));
            if (spec.file.find('/') != std::string::npos ||
                (spec.file.find("{stem}") == std::string::npos && spec.file.find("{name}") == std::string::npos))
                return wrong(line_of(*table, "file"),
                             "file is a name in the same folder with {stem} or {name} in it, such as \"{stem}.{mip}\"");
            if ((*table)["levels"].is_string()) {
                SKIVET_TRY(spec.levels_field, text(*table, "levels"));
                if (!sheet.header.named(spec.levels_field))
                    return wrong(line_of(*table, "levels"),
                                 fmt::format("levels names the header field \"{}\", which is not there", spec.levels_field));
            } else {
                SKIVET_TRY(spec.levels, number(*table, "levels", 1));
            }
            SKIVET_TRY(spec.method, text(*table, "method"));
            if (!spec.method.empty() && !packing_named(spec.method))
                return wrong(line_of(*table, "method"), fmt::format("the method \"{}\" is not known", spec.method));
            SKIVET_TRY(const auto level, whole(*table, "level", 0));
            spec.level = static_cast<int>(std::clamp<std::int64_t>(level, 0, 22));
            sheet.siblings.push_back(std::move(spec));
            if (sheet.siblings.size() > 16) return wrong(line_of(node), "more than 16 [[sibling]]");
        }
        return {};
    }

    Status parse_texture(const toml::table& root, Sheet& sheet) const {
        if (sheet.header_at < 0) return wrong(line_of(*root["header"].as_table()), "the header of a texture cannot count from the end");
        if (const auto* constants = root["texture"].as_table()) SKIVET_CHECK(parse_constants(*constants, sheet));
        for (auto needed : {Meaning::width, Meaning::height})
            if (!sheet.header.with(needed) && !sheet.constants.contains(needed))
                return wrong(1, fmt::format("no field of [header] means \"{}\", and [texture] does not say it", name_of(needed)));
        const auto* format = sheet.header.with(Meaning::format);
        if (!format && sheet.constant_format.empty())
            return wrong(1, "no field of [header] means \"format\", and [texture] does not say it");
        if (format && format->values.empty()) return wrong(format->line, "a field that means \"format\" needs values");
        if (const auto* payload = root["payload"].as_table()) SKIVET_CHECK(parse_payload(*payload, sheet));
        return parse_siblings(root, sheet);
    }
};

/// The library reads nested values and dotted keys by calling itself, so their depth is looked at before: a file must not decide how much
/// stack is taken. Strings and comments are stepped over as TOML 1.0 has them.
Status check_depth(std::string_view text, std::string_view file_name) {
    constexpr int most = 32;  // no sheet needs five
    int line = 1, depth = 0, parts = 1;
    const auto too_deep = [&](const char* what) {
        return fail(Error{ErrorCode::limit,
                          fmt::format("{} more than {} deep", what, most),
                          {std::string(file_name), fmt::format("line {}", line)},
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
    if (source.size() > 1u << 20) return fail(ErrorCode::limit, fmt::format("{}: a sheet of more than 1 MB", file_name));
    SKIVET_CHECK(check_depth(source, file_name));
    try {
        return Parser(file_name).parse(toml::parse(source));
    } catch (const toml::parse_error& error) {  // the library's only way to report; it ends here
        return fail(Error{ErrorCode::unsupported,
                          std::string(error.description()),
                          {std::string(file_name), fmt::format("line {}", error.source().begin.line)},
                          std::nullopt,
                          "The file is no valid TOML"});
    }
}

}  // namespace skivet

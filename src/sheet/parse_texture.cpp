#include <fmt/format.h>
#include <bit>

#include "base/phrase.h"
#include "sheet/parser.h"

namespace skivet::sheet_parse {

Status Parser::parse_constants(const toml::table& table, Sheet& sheet) const {
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
        if (value == 0) return wrong(line_of(table, key), phrase("{} is at least 1", key));
        sheet.constants[meaning] = value;
    }
    SKIVET_TRY(sheet.constant_format, text(table, "format"));
    if (!sheet.constant_format.empty()) {
        if (sheet.header.with(Meaning::format)) return wrong(line_of(table, "format"), "format is said by a field and by [texture]");
        if (!format_and_color(sheet.constant_format))
            return wrong(line_of(table, "format"), phrase("the format \"{}\" is not known", sheet.constant_format));
    }
    SKIVET_TRY(sheet.constant_color, text(table, "color"));
    if (!sheet.constant_color.empty()) {
        if (sheet.header.with(Meaning::color)) return wrong(line_of(table, "color"), "color is said by a field and by [texture]");
        if (sheet.constant_color != "srgb" && sheet.constant_color != "linear")
            return wrong(line_of(table, "color"), "color is \"linear\" or \"srgb\"");
    }
    return {};
}

Status Parser::parse_tiling(const toml::table& payload, Sheet& sheet) const {
    SKIVET_TRY(const auto tiling, text(payload, "tiling"));
    if (!tiling.empty()) {
        const auto named = tiling_named(tiling);
        if (!named) return wrong(line_of(payload, "tiling"), "tiling is \"linear\", \"morton\", \"block-linear\" or \"tiles\"");
        sheet.tiling.tiling = *named;
    }
    SKIVET_TRY(const auto block_height, number(payload, "block_height", 16));
    if (!std::has_single_bit(block_height) || block_height > 32)
        return wrong(line_of(payload, "block_height"), "block_height is 1, 2, 4, 8, 16 or 32");
    sheet.tiling.block_height = static_cast<std::uint32_t>(block_height);
    SKIVET_TRY(const auto gob_rows, number(payload, "gob_rows", 8));
    if (gob_rows != 4 && gob_rows != 8) return wrong(line_of(payload, "gob_rows"), "gob_rows is 4 or 8");
    sheet.tiling.gob_rows = static_cast<std::uint32_t>(gob_rows);
    const auto goes_with = [&](std::string_view key, Tiling with, std::string_view what) -> Status {
        if (!payload.contains(key) || sheet.tiling.tiling == with) return {};
        return wrong(line_of(payload, key), phrase("{} goes with tiling = \"{}\"", key, what));
    };
    for (const auto* key : {"block_height", "gob_rows"}) SKIVET_CHECK(goes_with(key, Tiling::block_linear, "block-linear"));
    for (const auto* key : {"tile", "bits"}) SKIVET_CHECK(goes_with(key, Tiling::tiles, "tiles"));
    if (sheet.tiling.tiling != Tiling::tiles) return {};
    if (payload.contains("tile") == payload.contains("bits"))
        return wrong(line_of(payload, "tiling"), "tiles need tile = [width, height], or bits = \"xyxyxy\"");
    if (payload.contains("bits")) {
        SKIVET_TRY(const auto bits, text(payload, "bits"));
        if (const auto why = take_bits(sheet.tiling, bits); !why.empty()) return wrong(line_of(payload, "bits"), why);
        return {};
    }
    const auto sides = two(payload["tile"].node());
    if (!sides || sides->first < 1 || sides->second < 1 || sides->first > 4096 || sides->second > 4096)
        return wrong(line_of(payload, "tile"), "tile is [width, height] in texels, or in blocks of block formats");
    sheet.tiling.tile_width = static_cast<std::uint32_t>(sides->first);
    sheet.tiling.tile_height = static_cast<std::uint32_t>(sides->second);
    return {};
}

/// [palette]: texels are numbers of its entries.
Status Parser::parse_palette(const toml::table& table, Sheet& sheet) const {
    SKIVET_CHECK(known_keys(table, {"bits", "first", "format", "entries", "at", "file", "edits"}));
    PaletteSpec spec;
    SKIVET_TRY(const auto bits, number(table, "bits", 8));
    if (bits != 1 && bits != 2 && bits != 4 && bits != 8) return wrong(line_of(table, "bits"), "bits of a number are 1, 2, 4 or 8");
    spec.bits = static_cast<unsigned>(bits);
    SKIVET_TRY(const auto first, word(table, "first", {"lowest bits", "highest bits"}));
    if (bits == 8 && table.contains("first")) return wrong(line_of(table, "first"), "\"first\" has no effect on numbers of 8 bits");
    spec.high_first = first == 1;
    SKIVET_TRY(const auto format, text(table, "format"));
    if (!format.empty()) {
        const auto named = format_and_color(format);
        if (!named || info(named->first).block_width != 1 || info(named->first).block_height != 1 || info(named->first).block_bytes > 4)
            return wrong(line_of(table, "format"),
                         phrase("a palette's entries are of a format such as RGBA8, RGB8 or B5G6R5, not \"{}\"", format));
        spec.format = named->first;
    }
    spec.entries = std::uint64_t{1} << bits;
    if (table["entries"].is_string()) {
        SKIVET_TRY(spec.entries_field, text(table, "entries"));
        if (!sheet.header.named(spec.entries_field))
            return wrong(line_of(table, "entries"),
                         phrase("entries names the header field \"{}\", which is not there", spec.entries_field));
    } else {
        SKIVET_TRY(spec.entries, number(table, "entries", spec.entries));
    }
    if (spec.entries == 0 || spec.entries > std::uint64_t{1} << bits)
        return wrong(line_of(table, "entries"), phrase("numbers of {} bits have 1 to {} entries", bits, 1u << bits));
    SKIVET_TRY(spec.file, text(table, "file"));
    if (spec.file.find('/') != std::string::npos) return wrong(line_of(table, "file"), "the palette's file lies in the same folder");
    SKIVET_TRY(spec.at, place(table, sheet, {spec.file.empty() ? Place::From::after_header : Place::From::start, 0, {}}));
    using From = Place::From;
    if (spec.at.from != From::start && spec.at.from != From::end && spec.at.from != From::field && spec.at.from != From::after_header)
        return wrong(line_of(table, "at"), "a palette is at a number of bytes, at what a header field says, or \"after header\"");
    if (!spec.file.empty() && spec.at.from != From::start)
        return wrong(line_of(table, "at"), "in another file a palette is at a number of bytes");
    SKIVET_TRY(const auto edits, word(table, "edits", {"nearest", "dithered", "exact"}));
    spec.edits = static_cast<PaletteSpec::Edits>(edits);
    sheet.palette = std::move(spec);
    return {};
}

Status Parser::parse_payload(const toml::table& payload, Sheet& sheet) const {
    SKIVET_CHECK(known_keys(payload, {"at", "mip_order", "align", "row_align", "row_pitch", "smallest", "together", "channels", "tiling",
                                      "block_height", "gob_rows", "tile", "bits", "rows", "lines", "planes", "method", "level"}));
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
        return wrong(line_of(payload, "channels"), "channels are the letters r, g, b, a in the order they are stored, such as \"argb\"");
    SKIVET_CHECK(parse_tiling(payload, sheet));
    SKIVET_TRY(const auto rows, word(payload, "rows", {"top down", "bottom up"}));
    SKIVET_TRY(const auto lines, word(payload, "lines", {"rows", "columns"}));
    SKIVET_TRY(sheet.level_order.planes, flag(payload, "planes", false));
    sheet.level_order.bottom_up = rows == 1;
    sheet.level_order.columns = lines == 1;
    if (!sheet.level_order.plain() && sheet.tiling.tiling != Tiling::linear)
        return wrong(line_of(payload, "tiling"), "rows, lines and planes go with linear levels");
    SKIVET_TRY(sheet.method, method(payload, sheet));
    SKIVET_TRY(const auto level, whole(payload, "level", 0));
    if (level < 0 || level > 22) return wrong(line_of(payload, "level"), "level is 0 to 22");
    if (payload.contains("level") && sheet.method.empty()) return wrong(line_of(payload, "level"), "level goes with a method");
    sheet.level = static_cast<int>(level);
    SKIVET_TRY(const auto smallest, word(payload, "mip_order", {"largest first", "smallest first"}));
    sheet.smallest_first = smallest == 1;
    return {};
}

Status Parser::parse_siblings(const toml::table& root, Sheet& sheet) const {
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
                             phrase("levels names the header field \"{}\", which is not there", spec.levels_field));
        } else {
            SKIVET_TRY(spec.levels, number(*table, "levels", 1));
        }
        SKIVET_TRY(spec.method, text(*table, "method"));
        if (!spec.method.empty() && !packing_named(spec.method))
            return wrong(line_of(*table, "method"), phrase("the method \"{}\" is not known", spec.method));
        SKIVET_TRY(const auto level, whole(*table, "level", 0));
        spec.level = static_cast<int>(std::clamp<std::int64_t>(level, 0, 22));
        sheet.siblings.push_back(std::move(spec));
        if (sheet.siblings.size() > 16) return wrong(line_of(node), "more than 16 [[sibling]]");
    }
    return {};
}

Status Parser::parse_texture(const toml::table& root, Sheet& sheet) const {
    if (sheet.header_at < 0) return wrong(line_of(*root["header"].as_table()), "the header of a texture cannot count from the end");
    SKIVET_CHECK(parse_texture_parts(root, "[header]", sheet));
    SKIVET_CHECK(parse_siblings(root, sheet));
    if (!sheet.method.empty() && !sheet.siblings.empty()) return wrong(line_of(root, "sibling"), "a packed payload is in one file");
    return {};
}

Status Parser::parse_record_texture(const toml::table& root, Sheet& sheet) const {
    if (!root["texture"].is_table())
        return root.contains("payload") || root.contains("palette") ? Status(wrong(1, "[payload] and [palette] go with [texture]"))
                                                                    : Status();
    auto textures = std::make_shared<Sheet>();
    textures->kind = SheetKind::texture;
    textures->name = sheet.name;
    textures->order = sheet.order;
    for (auto field : sheet.record.fields) {
        // The record's bytes are looked at by themselves, without what depends on where they stand.
        if (field.type == FieldType::pad) continue;
        if (field.means == Meaning::record_size || field.means == Meaning::checksum) field.means = Meaning::none;
        textures->header.fields.push_back(std::move(field));
    }
    SKIVET_CHECK(parse_texture_parts(root, "[record]", *textures));
    if (textures->payload_at) return wrong(line_of(root, "payload"), "the levels begin where the entry's data does; \"at\" has no effect");
    if (!textures->method.empty()) return wrong(line_of(root, "payload"), "how data is packed is said by [data] method");
    if (const auto& p = textures->palette;
        p && (!p->file.empty() || !p->entries_field.empty() || (p->at.from != Place::From::after_header && p->at.from != Place::From::end)))
        return wrong(line_of(root, "palette"),
                     "a palette here stands before the levels, or so many bytes before the data's end (a negative at)");
    sheet.textures = std::move(textures);
    return {};
}

Status Parser::parse_texture_parts(const toml::table& root, std::string_view fields, Sheet& sheet) const {
    if (const auto* constants = root["texture"].as_table()) SKIVET_CHECK(parse_constants(*constants, sheet));
    for (auto needed : {Meaning::width, Meaning::height})
        if (!sheet.header.with(needed) && !sheet.constants.contains(needed))
            return wrong(1, fmt::format("no field of {} means \"{}\", and [texture] does not say it", fields, name_of(needed)));
    const auto* format = sheet.header.with(Meaning::format);
    if (const auto* palette = root["palette"].as_table()) {
        SKIVET_CHECK(parse_palette(*palette, sheet));
        if (format || !sheet.constant_format.empty())
            return wrong(line_of(*palette), "[palette] says how texels are stored; its entries' format is said there, too");
    }
    if (!sheet.palette && !format && sheet.constant_format.empty())
        return wrong(1, fmt::format("no field of {} means \"format\", and [texture] does not say it", fields));
    if (format && format->values.empty()) return wrong(format->line, "a field that means \"format\" needs values");
    if (const auto* payload = root["payload"].as_table()) SKIVET_CHECK(parse_payload(*payload, sheet));
    if (sheet.palette && !sheet.palette->file.empty() && !sheet.method.empty() && !sheet.header.with(Meaning::payload_size))
        return wrong(line_of(root, "palette"),
                     "a packed payload with its palette in another file needs a field that means \"payload size\"");
    if (sheet.palette && (!sheet.channels.empty() || sheet.level_order.planes))
        return wrong(1, "channels and planes have no effect on numbers of palette entries");
    return {};
}

}  // namespace skivet::sheet_parse

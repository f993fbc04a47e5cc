#include "sheet/texture_sheet.h"

#include <fmt/format.h>
#include <filesystem>
#include <numeric>

#include "base/hash.h"
#include "base/phrase.h"
#include "base/text.h"
#include "codec/codec.h"
#include "codec/palette.h"
#include "sheet/method.h"

namespace skivet {
namespace {

constexpr std::uint64_t widest_pitch = 1u << 22;

std::uint64_t up_to(std::uint64_t value, std::uint64_t step) { return (value + step - 1) / step * step; }

/// "{stem}.{mip:2}" for a file's name and a level.
std::string sibling_name(std::string_view pattern, std::string_view path, std::uint32_t mip) {
    const auto file = std::filesystem::path(path).filename();
    std::string out;
    for (std::size_t at = 0; at < pattern.size();) {
        const auto rest = pattern.substr(at);
        const auto close = rest.find('}');
        if (rest.front() != '{' || close == std::string_view::npos) {
            out += rest.front();
            ++at;
            continue;
        }
        const auto word = rest.substr(1, close - 1);
        if (word == "stem") out += file.stem().string();
        else if (word == "name") out += file.string();
        else if (word == "mip") out += std::to_string(mip);
        else if (word.starts_with("mip:") && word.size() == 5 && word[4] >= '1' && word[4] <= '9')
            out += fmt::format("{:0{}}", mip, word[4] - '0');
        else out += rest.substr(0, close + 1);
        at += close + 1;
    }
    return out;
}

/// The numbers an edit becomes in a palette that stays.
Result<Bytes> numbers_for(PaletteSpec::Edits edits, ByteSpan before, const std::vector<Texel>& palette, const Image& wanted) {
    const std::span old(reinterpret_cast<const std::uint8_t*>(before.data()), before.size());
    const auto fit = hold_palette(old, palette, wanted.texels, wanted.width, edits == PaletteSpec::Edits::dithered);
    if (edits == PaletteSpec::Edits::exact && fit.inexact > 0)
        return fail(ErrorCode::unfit, phrase("{} texels have colors the palette does not have", grouped(fit.inexact)),
                    "Paint with the palette's colors only, or let the sheet say edits = \"nearest\"");
    Bytes out(fit.indices.size());
    std::memcpy(out.data(), fit.indices.data(), out.size());
    return out;
}

}  // namespace

bool SheetTextureKind::recognize(ByteSpan head, std::string_view path) const {
    // A size field cannot be checked here, where the file's size is not known; layout() checks the payload against it.
    for (const auto& rule : sheet_.recognize)
        if (!rule.field.empty() && !rule.range) return false;
    return skivet::recognize(sheet_, head, unknown_size, path).has_value();
}

bool SheetTextureKind::fits_size(std::uint64_t size) const {
    if (!sheet_.siblings.empty() || (sheet_.palette && !sheet_.palette->file.empty())) return true;
    return std::all_of(sheet_.recognize.begin(), sheet_.recognize.end(),
                       [&](const auto& rule) { return !rule.size || (size >= rule.size->first && size <= rule.size->second); });
}

Result<TextureDesc> SheetTextureKind::describe(const RecordValues& header, const ReadLimits& limits) const {
    TextureDesc d;
    const std::pair<Meaning, std::uint32_t*> numbers[] = {{Meaning::width, &d.width},   {Meaning::height, &d.height},
                                                          {Meaning::depth, &d.depth},   {Meaning::mips, &d.mips},
                                                          {Meaning::layers, &d.layers}, {Meaning::faces, &d.faces}};
    for (const auto& [meaning, into] : numbers) {
        const auto constant = sheet_.constants.find(meaning);
        const auto value = header.number(meaning, constant != sheet_.constants.end() ? constant->second : 1);
        if (value > 0xFFFFFFFFull) return fail(ErrorCode::limit, phrase("{} of {}", name_of(meaning), grouped(value)));
        *into = static_cast<std::uint32_t>(value);
    }
    auto format = sheet_.constant_format;
    if (const auto* field = header.with(Meaning::format)) {
        SKIVET_TRY(format, named_value(*field));
    }
    if (sheet_.palette) d.format = info(sheet_.palette->format).alpha.bits > 0 ? Format::RGBA8 : Format::RGB8;
    else if (const auto named = format_and_color(format)) std::tie(d.format, d.color) = *named;
    auto color = sheet_.constant_color;
    if (const auto* field = header.with(Meaning::color)) {
        SKIVET_TRY(color, named_value(*field));
    }
    if (!color.empty()) d.color = color == "srgb" ? ColorSpace::srgb : ColorSpace::linear;
    if (sheet_.all_mips && d.width > 0 && d.height > 0) d.mips = full_mip_count(d.width, d.height, std::max(1u, d.depth));
    const auto stated = d.mips;
    SKIVET_CHECK(check_desc(d, limits));
    // Levels that are too small to be stored count in the header's number, if it counts them, but are not there.
    d.mips = 1;
    while (d.mips < stated && std::max(mip_side(d.width, d.mips), mip_side(d.height, d.mips)) >= sheet_.smallest_level) ++d.mips;
    return d;
}

LevelStorage SheetTextureKind::storage_of(const Plan& plan, const Surface& s) const {
    auto out = plan.storage;
    out.row_pitch = s.mip == 0 ? plan.row_pitch : 0;
    return out;
}

std::uint64_t SheetTextureKind::stored_bytes(const Plan& plan, const Surface& s) const {
    return storage_of(plan, s).bytes(s.width, s.height);
}

Status SheetTextureKind::lay_out_level(Plan& plan, std::uint32_t mip, std::uint32_t layer, std::uint32_t face, std::uint64_t start,
                                       bool aligned, std::uint64_t& end) const {
    const auto& d = plan.desc;
    const auto w = mip_side(d.width, mip), h = mip_side(d.height, mip);
    for (std::uint32_t slice = 0; slice < mip_side(d.depth, mip); ++slice) {
        const auto step =
            std::lcm(tiled_alignment(plan.storage.tiling, plan.storage.format, w, h), aligned && slice == 0 ? sheet_.align : 1);
        end = start + up_to(end - start, step);
        plan.surfaces.push_back({mip, layer, face, slice, w, h, end, level_bytes(d.format, w, h)});
        end += stored_bytes(plan, plan.surfaces.back());
        if (end >= absent) return fail(ErrorCode::limit, "the levels take more bytes than any file has");
    }
    return {};
}

/// Levels first … last - 1 of all layers and faces, from `start` on.
Status SheetTextureKind::lay_out_run(Plan& plan, std::uint32_t first, std::uint32_t last, std::uint64_t start, std::uint64_t& end) const {
    const auto& d = plan.desc;
    end = start;
    const auto small = [&](std::uint32_t mip) { return std::max(mip_side(d.width, mip), mip_side(d.height, mip)) <= sheet_.together; };
    for (std::uint32_t layer = 0; layer < d.layers; ++layer)
        for (std::uint32_t face = 0; face < d.faces; ++face)
            for (std::uint32_t i = first; i < last; ++i) {
                const auto mip = sheet_.smallest_first ? last - 1 - (i - first) : i;
                const auto before = sheet_.smallest_first ? mip + 1 : mip - 1;
                const bool goes_on = i > first && small(mip) && small(before);
                SKIVET_CHECK(lay_out_level(plan, mip, layer, face, start, !goes_on, end));
            }
    return {};
}

Result<SheetTextureKind::Plan> SheetTextureKind::plan(ByteSpan data, std::string_view path, const ReadLimits& limits) const {
    Plan out;
    SKIVET_TRY(out.header, read_header(sheet_, data, limits));
    const auto& header = out.header.values;
    SKIVET_TRY(out.desc, describe(header, limits));
    out.storage.format = sheet_.palette ? Format::R8 : out.desc.format;
    out.storage.tiling = sheet_.tiling;
    out.storage.order = sheet_.level_order;
    out.storage.row_align = sheet_.row_align;
    if (sheet_.palette) out.storage.bits = sheet_.palette->bits, out.storage.high_first = sheet_.palette->high_first;
    if (const auto* height = header.with(Meaning::block_height)) {
        if (height->number == 0 || height->number > 32 || !std::has_single_bit(height->number))
            return fail_at(ErrorCode::damaged, height->at,
                           phrase("field {}: a block height of {}", height->field->name, grouped(height->number)));
        out.storage.tiling.block_height = static_cast<std::uint32_t>(height->number);
    }
    if (const auto* rows = header.with(Meaning::gob_rows)) {
        if (rows->number != 4 && rows->number != 8)
            return fail_at(ErrorCode::damaged, rows->at, phrase("field {}: groups of {} rows", rows->field->name, grouped(rows->number)));
        out.storage.tiling.gob_rows = static_cast<std::uint32_t>(rows->number);
    }
    out.row_pitch = header.number(Meaning::row_pitch, sheet_.row_pitch);
    const auto level_0 = out.storage.bytes(out.desc.width, 1);
    if (out.row_pitch != 0 && (out.row_pitch < level_0 || out.row_pitch > widest_pitch))
        return fail(ErrorCode::damaged, phrase("a row pitch of {} bytes, a row takes {}", grouped(out.row_pitch), grouped(level_0)));
    const auto& f = info(out.desc.format);
    if (!sheet_.channels.empty() && (f.block_compressed() || f.block_bytes % f.channels != 0 || sheet_.channels.size() != f.channels ||
                                     (f.red.bits != 0 && f.red.bits % 8 != 0)))
        return fail(ErrorCode::unsupported, phrase("channels = \"{}\" does not go with {}", sheet_.channels, f.name),
                    "The order of channels is for formats whose channels are whole bytes");
    if (sheet_.level_order.planes && (f.block_compressed() || f.block_bytes % f.channels != 0 || (f.red.bits != 0 && f.red.bits % 8 != 0)))
        return fail(ErrorCode::unsupported, phrase("planes do not go with {}", f.name),
                    "Planes are for formats whose channels are whole bytes");
    if (out.storage.tiling.tiling != Tiling::linear && !sheet_.level_order.plain()) return fail(ErrorCode::unsupported, "tiles of columns");
    out.plain = sheet_.tiling.tiling == Tiling::linear && sheet_.level_order.plain() && sheet_.row_align == 1 && out.row_pitch <= level_0 &&
                sheet_.channels.empty() && !sheet_.palette && sheet_.method.empty();

    // The largest levels are in other files, as many as the sheet or the header says.
    struct Other {
        std::uint32_t first, last;
        SiblingFile file;
    };
    std::vector<Other> others;
    std::uint32_t next = 0;
    for (const auto& spec : sheet_.siblings) {
        auto levels = spec.levels;
        if (!spec.levels_field.empty()) levels = header.named(spec.levels_field)->number;
        const auto count = static_cast<std::uint32_t>(std::min<std::uint64_t>(levels, out.desc.mips - next));
        const bool each = spec.file.find("{mip") != std::string::npos;
        for (std::uint32_t i = 0; i < count;) {
            const auto n = each ? 1 : count;
            SiblingFile file;
            file.name = sibling_name(spec.file, path, next);
            file.packing = packing_named(spec.method).value_or(Packing::none);
            file.level = spec.level;
            others.push_back({next, next + n, std::move(file)});
            next += n;
            i += n;
        }
    }
    out.start = sheet_.payload_at.value_or(header.end);
    std::uint64_t palette_bytes = 0;
    if (sheet_.palette) {
        const auto& p = *sheet_.palette;
        out.palette_entries = p.entries;
        if (!p.entries_field.empty()) out.palette_entries = header.named(p.entries_field)->number;
        if (out.palette_entries == 0 || out.palette_entries > (1u << p.bits))
            return fail(ErrorCode::damaged, phrase("a palette of {} entries for numbers of {} bits", grouped(out.palette_entries), p.bits));
        palette_bytes = out.palette_entries * info(p.format).block_bytes;
        if (p.at.from == Place::From::field) out.palette_at = header.named(p.at.field)->number;
        else if (p.at.from == Place::From::after_header) out.palette_at = header.end;
        else out.palette_at = p.at.offset;  // from the end, or in another file: below
        if (p.at.from == Place::From::after_header && !sheet_.payload_at) out.start = header.end + palette_bytes;
    }
    SKIVET_CHECK(lay_out_run(out, next, out.desc.mips, out.start, out.end));
    auto at = others.empty() ? out.end : std::max(out.end, header.end);
    if (!others.empty()) out.end = at;
    for (auto& other : others) {
        std::uint64_t end = 0;
        SKIVET_CHECK(lay_out_run(out, other.first, other.last, at, end));
        other.file.size = end - at;
        at = end;
        out.siblings.push_back(std::move(other.file));
    }
    if (sheet_.palette && !sheet_.palette->file.empty()) {
        SiblingFile file;
        file.name = sibling_name(sheet_.palette->file, path, 0);
        file.size = sheet_.palette->at.offset + palette_bytes;
        file.only_read = true;
        if (out.siblings.empty()) out.end = std::max(out.end, header.end);
        if (!sheet_.method.empty()) out.end = out.start + header.number(Meaning::payload_size);
        out.palette_at = (out.siblings.empty() ? out.end : at) + sheet_.palette->at.offset;
        out.siblings.push_back(std::move(file));
    }
    return out;
}

Result<std::uint64_t> SheetTextureKind::needed(ByteSpan header, const ReadLimits& limits) const {
    SKIVET_TRY(const auto made, plan(header, {}, limits));
    auto end = made.end - made.header.values.end;
    if (end > limits.inflated_bytes) return fail(ErrorCode::limit, phrase("{} of levels are more than the limit", human_bytes(end)));
    if (sheet_.palette && sheet_.palette->at.from == Place::From::end) end += sheet_.palette->at.offset;
    return end;
}

KindTraits SheetTextureKind::traits() const {
    KindTraits out;
    for (const auto& rule : sheet_.recognize)
        if (rule.at == 0 && rule.bytes.size() >= 2) out.marks.push_back(as_text(rule.bytes));
    return out;
}

std::optional<std::uint64_t> SheetTextureKind::stated_size(ByteSpan data, const ReadLimits& limits) const {
    if (!sheet_.method.empty()) return std::nullopt;
    const auto made = plan(data, {}, limits);
    return made && !made->surfaces.empty() && made->end > 0 && made->end <= data.size() ? std::optional(made->end) : std::nullopt;
}

Result<TextureLayout> SheetTextureKind::layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const {
    SKIVET_TRY(auto made, plan(data, {}, limits));
    TextureLayout out;
    out.desc = made.desc;
    out.surfaces = std::move(made.surfaces);
    out.direct = made.plain;
    if (!sheet_.method.empty()) return out;  // what is missing shows when it is unpacked
    if (made.siblings.empty()) SKIVET_CHECK(accept_cut_off(out, made.start, made.end, file_size));
    else if (file_size < made.end)
        return fail_at(ErrorCode::damaged, made.start,
                       phrase("mip chain: needs {} bytes, has {}", grouped(made.end - made.start),
                              grouped(file_size - std::min(made.start, file_size))),
                       "The file is cut off or its header is damaged");
    if (const auto* size = made.header.values.with(Meaning::payload_size); size && size->number != made.end - made.start)
        return fail_at(ErrorCode::damaged, size->at,
                       phrase("field {}: says {} bytes, the levels take {}", size->field->name, grouped(size->number),
                              grouped(made.end - made.start)));
    return out;
}

Result<Spread> SheetTextureKind::spread(ByteSpan data, std::string_view path, const ReadLimits& limits) const {
    if (sheet_.siblings.empty() && !(sheet_.palette && !sheet_.palette->file.empty())) return Spread{};
    SKIVET_TRY(auto made, plan(data, path, limits));
    return Spread{made.end, std::move(made.siblings)};
}

/// Channels in the order of the format, or the inverse.
Bytes SheetTextureKind::reordered(Bytes texels, Format format, bool to_format) const {
    if (sheet_.channels.empty()) return texels;
    const auto& f = info(format);
    const std::size_t size = f.block_bytes, one = size / f.channels;
    // In a format's own texel channels follow from the lowest bits; BGRA8 and the like have blue first.
    const auto place = [&](char letter) -> std::size_t {
        const auto& bits = letter == 'r' ? f.red : letter == 'g' ? f.green : letter == 'b' ? f.blue : f.alpha;
        return bits.bits != 0 ? bits.shift / 8u : std::string_view("rgba").find(letter) * one;
    };
    Bytes texel(size);
    for (std::size_t at = 0; at + size <= texels.size(); at += size) {
        for (std::size_t i = 0; i < f.channels; ++i) {
            const auto home = place(sheet_.channels[i]), stored = i * one;
            std::copy_n(texels.begin() + static_cast<std::ptrdiff_t>(at + (to_format ? stored : home)), one,
                        texel.begin() + static_cast<std::ptrdiff_t>(to_format ? home : stored));
        }
        std::copy(texel.begin(), texel.end(), texels.begin() + static_cast<std::ptrdiff_t>(at));
    }
    return texels;
}

Result<std::uint64_t> SheetTextureKind::packed_size(const Plan& made, ByteSpan file) const {
    // The payload ends where a field says, before a palette that counts from the end, or with the file.
    auto end = static_cast<std::uint64_t>(file.size());
    if (sheet_.palette && sheet_.palette->file.empty() && sheet_.palette->at.from == Place::From::end)
        end -= std::min(end, sheet_.palette->at.offset);
    if (sheet_.palette && !sheet_.palette->file.empty()) end = std::min(end, made.palette_at - sheet_.palette->at.offset);
    if (const auto* size = made.header.values.with(Meaning::payload_size); size && made.start <= end) {
        if (size->number > end - made.start)
            return fail_at(
                ErrorCode::damaged, size->at,
                phrase("field {}: says {} bytes, only {} are there", size->field->name, grouped(size->number), grouped(end - made.start)));
        return size->number;
    }
    if (made.start > end) return fail_at(ErrorCode::damaged, made.start, "the levels begin behind the end of the file");
    return end - made.start;
}

Result<SheetTextureKind::Payload> SheetTextureKind::payload_of(const Plan& made, ByteSpan file) const {
    Payload out;
    if (sheet_.method.empty()) {
        out.bytes = file;
        return out;
    }
    SKIVET_TRY(const auto size, packed_size(made, file));
    SKIVET_TRY(const auto packed, slice(file, made.start, size));
    auto unpacked = unpack_by(*method_named(sheet_, sheet_.method), packed, unpacked_end(made) - made.start, ReadLimits{});
    if (!unpacked) return fail(std::move(unpacked).error().within("mip chain"));
    out.owned = std::move(*unpacked);
    out.bytes = out.owned;
    out.at = made.start;
    return out;
}

std::uint64_t SheetTextureKind::unpacked_end(const Plan& made) const {
    auto end = made.start;
    for (const auto& s : made.surfaces) end = std::max(end, s.offset + stored_bytes(made, s));
    return end;
}

Result<std::vector<Texel>> SheetTextureKind::palette_of(const Plan& made, ByteSpan file) const {
    const auto& p = *sheet_.palette;
    const auto bytes = made.palette_entries * info(p.format).block_bytes;
    auto at = made.palette_at;
    if (p.file.empty() && p.at.from == Place::From::end) {
        if (p.at.offset > file.size())
            return fail(ErrorCode::damaged, phrase("palette: {} bytes before the end of {}", p.at.offset, grouped(file.size())));
        at = file.size() - p.at.offset;
    }
    const auto stored = slice(file, at, bytes);
    if (!stored) return fail(Error(stored.error()).within("palette"));
    SKIVET_TRY(auto image, skivet::decode(p.format, *stored, static_cast<std::uint32_t>(made.palette_entries), 1));
    return std::move(image.texels);
}

Result<Bytes> SheetTextureKind::bytes(ByteSpan file, const TextureLayout& layout, const Surface& s) const {
    if (layout.direct || s.offset >= absent) return TextureKind::bytes(file, layout, s);
    SKIVET_TRY(const auto made, plan(file, {}, ReadLimits{}));
    SKIVET_TRY(const auto payload, payload_of(made, file));
    const auto stored = slice(payload.bytes, s.offset - payload.at, stored_bytes(made, s));
    if (!stored) return fail(stored.error().within(phrase("mip {}", s.mip)));
    SKIVET_TRY(auto rows, storage_of(made, s).rows(s.width, s.height, *stored));
    if (!sheet_.palette) return reordered(std::move(rows), layout.desc.format, true);
    SKIVET_TRY(const auto palette, palette_of(made, file));
    Image image(s.width, s.height);
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const auto number = static_cast<std::size_t>(rows[i]);
        if (number < palette.size()) image.texels[i] = palette[number];
    }
    return skivet::encode(layout.desc.format, image);
}

Result<std::optional<IndexedPicture>> SheetTextureKind::indexed(ByteSpan file, const TextureLayout&, const Surface& s) const {
    if (!sheet_.palette || s.offset >= absent) return std::optional<IndexedPicture>();
    SKIVET_TRY(const auto made, plan(file, {}, ReadLimits{}));
    SKIVET_TRY(const auto payload, payload_of(made, file));
    const auto stored = slice(payload.bytes, s.offset - payload.at, stored_bytes(made, s));
    if (!stored) return fail(stored.error().within(phrase("mip {}", s.mip)));
    SKIVET_TRY(const auto rows, storage_of(made, s).rows(s.width, s.height, *stored));
    IndexedPicture out{s.width, s.height, {}, {}};
    SKIVET_TRY(out.palette, palette_of(made, file));
    out.numbers.reserve(rows.size());
    for (const auto n : rows) {
        // A number without an entry shows as nothing; a picture file could not say it.
        if (static_cast<std::size_t>(n) >= out.palette.size()) return std::optional<IndexedPicture>();
        out.numbers.push_back(static_cast<std::uint8_t>(n));
    }
    return std::optional(std::move(out));
}

Result<Bytes> SheetTextureKind::put_back(const Plan& made, ByteSpan file, Bytes payload) const {
    if (sheet_.method.empty()) return payload;
    SKIVET_TRY(const auto size, packed_size(made, file));
    SKIVET_TRY(const auto packed,
               pack_by(*method_named(sheet_, sheet_.method), payload, sheet_.level, file.subspan(static_cast<std::size_t>(made.start))));
    const auto begin = file.begin() + static_cast<std::ptrdiff_t>(made.start);
    Bytes out(file.begin(), begin);
    out.insert(out.end(), packed.begin(), packed.end());
    out.insert(out.end(), begin + static_cast<std::ptrdiff_t>(size), file.end());
    if (const auto* field = made.header.values.with(Meaning::payload_size))
        SKIVET_CHECK(put_number(out, made.header, *field, packed.size()));
    return out;
}

Result<Bytes> SheetTextureKind::replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const {
    SKIVET_TRY(const auto made, plan(file, {}, ReadLimits{}));
    Bytes out(file.begin(), file.end());
    if (edits.empty()) return out;
    if (layout.direct) {
        SKIVET_TRY(out, TextureKind::replace(file, layout, edits));
    } else {
        std::vector<Texel> palette;
        if (sheet_.palette) {
            SKIVET_TRY(palette, palette_of(made, file));
        }
        SKIVET_TRY(auto payload, payload_of(made, file));
        const Bytes before(payload.bytes.begin(), payload.bytes.end());
        auto now = before;
        for (const auto& edit : edits) {
            if (edit.surface >= layout.surfaces.size()) return fail(ErrorCode::usage, "there is no such surface");
            const auto& s = layout.surfaces[edit.surface];
            const auto in_mip = [&](Error error) { return fail(std::move(error).within(phrase("mip {}", s.mip))); };
            if (edit.bytes.size() != s.size)
                return in_mip(
                    Error{ErrorCode::unfit, phrase("needs {} bytes, has {}", grouped(s.size), grouped(edit.bytes.size())), {}, {}, {}});
            const auto storage = storage_of(made, s);
            const auto old = slice(before, s.offset - payload.at, stored_bytes(made, s));
            if (!old) return in_mip(old.error());
            Bytes rows;
            if (sheet_.palette) {
                SKIVET_TRY(const auto numbers, storage.rows(s.width, s.height, *old));
                SKIVET_TRY(const auto wanted, skivet::decode(layout.desc.format, edit.bytes, s.width, s.height));
                auto fitted = numbers_for(sheet_.palette->edits, numbers, palette, wanted);
                if (!fitted) return in_mip(std::move(fitted).error());
                rows = std::move(*fitted);
            } else {
                rows = reordered(edit.bytes, layout.desc.format, false);
            }
            SKIVET_TRY(const auto level, storage.stored(s.width, s.height, rows, *old));
            std::copy(level.begin(), level.end(), now.begin() + static_cast<std::ptrdiff_t>(s.offset - payload.at));
        }
        if (now == before) return out;
        SKIVET_TRY(out, put_back(made, file, std::move(now)));
    }
    SKIVET_CHECK(sum_payload(made, out));
    return out;
}

Status SheetTextureKind::put_number(Bytes& file, const HeaderRead& header, const FieldValue& field, std::uint64_t number) const {
    SKIVET_TRY(const auto old, slice(file, field.at, field.size));
    auto bytes = field_bytes(*field.field, header.order, number, old);
    if (!bytes) return fail(std::move(bytes).error().within(phrase("field {}", field.field->name)));
    std::copy(bytes->begin(), bytes->end(), file.begin() + static_cast<std::ptrdiff_t>(field.at));
    return {};
}

Status SheetTextureKind::sum_payload(const Plan& made, Bytes& out) const {
    for (const auto& sum : made.header.values.values) {
        if (sum.field->means != Meaning::checksum || !sum.field->is_over(Over::payload)) continue;
        auto size = made.end - made.start;
        if (!sheet_.method.empty()) {
            SKIVET_TRY(const auto again, plan(out, {}, ReadLimits{}));
            SKIVET_TRY(size, packed_size(again, out));
        }
        SKIVET_TRY(const auto payload, slice(out, made.start, size));
        SKIVET_TRY(const auto bytes, sum_field_bytes(*sum.field, made.header.order, payload));
        std::copy(bytes.begin(), bytes.end(), out.begin() + static_cast<std::ptrdiff_t>(sum.at));
    }
    return {};
}

}  // namespace skivet

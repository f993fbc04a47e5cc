#include "sheet/texture_sheet.h"

#include <fmt/format.h>
#include <filesystem>
#include <numeric>

#include "base/hash.h"
#include "base/text.h"

namespace skivet {
namespace {

constexpr std::uint64_t widest_pitch = 1u << 22;

std::uint64_t up_to(std::uint64_t value, std::uint64_t step) { return (value + step - 1) / step * step; }

struct Rows {
    std::uint64_t tight;  ///< bytes of a row of blocks
    std::uint64_t count;
};
Rows rows_of(Format format, const Surface& s) {
    const auto& f = info(format);
    return {std::uint64_t{(s.width + f.block_width - 1u) / f.block_width} * f.block_bytes,
            (s.height + f.block_height - 1u) / f.block_height};
}

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

}  // namespace

bool SheetTextureKind::recognize(ByteSpan head, std::string_view path) const {
    // A size field cannot be checked here, where the file's size is not known; layout() checks the payload against it.
    for (const auto& rule : sheet_.recognize)
        if (!rule.field.empty() && !rule.range) return false;
    return skivet::recognize(sheet_, head, 0, path).has_value();
}

Result<TextureDesc> SheetTextureKind::describe(const RecordValues& header, const ReadLimits& limits) const {
    TextureDesc d;
    const std::pair<Meaning, std::uint32_t*> numbers[] = {{Meaning::width, &d.width},   {Meaning::height, &d.height},
                                                          {Meaning::depth, &d.depth},   {Meaning::mips, &d.mips},
                                                          {Meaning::layers, &d.layers}, {Meaning::faces, &d.faces}};
    for (const auto& [meaning, into] : numbers) {
        const auto constant = sheet_.constants.find(meaning);
        const auto value = header.number(meaning, constant != sheet_.constants.end() ? constant->second : 1);
        if (value > 0xFFFFFFFFull) return fail(ErrorCode::limit, fmt::format("{} of {}", name_of(meaning), grouped(value)));
        *into = static_cast<std::uint32_t>(value);
    }
    auto format = sheet_.constant_format;
    if (const auto* field = header.with(Meaning::format)) {
        SKIVET_TRY(format, named_value(*field));
    }
    if (const auto named = format_and_color(format)) std::tie(d.format, d.color) = *named;
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

std::uint64_t SheetTextureKind::pitch_of(const Plan& plan, const Surface& s) const {
    const auto tight = rows_of(plan.desc.format, s).tight;
    return std::max(up_to(tight, sheet_.row_align), s.mip == 0 ? plan.row_pitch : 0);
}

std::uint64_t SheetTextureKind::stored_bytes(const Plan& plan, const Surface& s) const {
    if (plan.tiling.tiling != Tiling::linear) return tiled_bytes(plan.tiling, plan.desc.format, s.width, s.height);
    return pitch_of(plan, s) * rows_of(plan.desc.format, s).count;
}

Status SheetTextureKind::lay_out_level(Plan& plan, std::uint32_t mip, std::uint32_t layer, std::uint32_t face, std::uint64_t start,
                                       bool aligned, std::uint64_t& end) const {
    const auto& d = plan.desc;
    const auto w = mip_side(d.width, mip), h = mip_side(d.height, mip);
    for (std::uint32_t slice = 0; slice < mip_side(d.depth, mip); ++slice) {
        const auto step = std::lcm(tiled_alignment(plan.tiling, d.format, w, h), aligned && slice == 0 ? sheet_.align : 1);
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
    out.tiling = sheet_.tiling;
    if (const auto* height = header.with(Meaning::block_height)) {
        if (height->number == 0 || height->number > 32 || !std::has_single_bit(height->number))
            return fail_at(ErrorCode::damaged, height->at,
                           fmt::format("field {}: a block height of {}", height->field->name, grouped(height->number)));
        out.tiling.block_height = static_cast<std::uint32_t>(height->number);
    }
    if (const auto* rows = header.with(Meaning::gob_rows)) {
        if (rows->number != 4 && rows->number != 8)
            return fail_at(ErrorCode::damaged, rows->at,
                           fmt::format("field {}: groups of {} rows", rows->field->name, grouped(rows->number)));
        out.tiling.gob_rows = static_cast<std::uint32_t>(rows->number);
    }
    out.row_pitch = header.number(Meaning::row_pitch, sheet_.row_pitch);
    const auto level_0 = rows_of(out.desc.format, {0, 0, 0, 0, out.desc.width, out.desc.height, 0, 0}).tight;
    if (out.row_pitch != 0 && (out.row_pitch < level_0 || out.row_pitch > widest_pitch))
        return fail(ErrorCode::damaged, fmt::format("a row pitch of {} bytes, a row takes {}", grouped(out.row_pitch), grouped(level_0)));
    const auto& f = info(out.desc.format);
    if (!sheet_.channels.empty() && (f.block_compressed() || f.block_bytes % f.channels != 0 || sheet_.channels.size() != f.channels ||
                                     (f.red.bits != 0 && f.red.bits % 8 != 0)))
        return fail(ErrorCode::unsupported, fmt::format("channels = \"{}\" does not go with {}", sheet_.channels, f.name),
                    "The order of channels is for formats whose channels are whole bytes");
    out.plain = out.tiling.tiling == Tiling::linear && sheet_.row_align == 1 && out.row_pitch <= level_0 && sheet_.channels.empty();

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
    return out;
}

KindTraits SheetTextureKind::traits() const {
    KindTraits out;
    for (const auto& rule : sheet_.recognize)
        if (rule.at == 0 && rule.bytes.size() >= 2) out.marks.push_back(as_text(rule.bytes));
    return out;
}

std::optional<std::uint64_t> SheetTextureKind::stated_size(ByteSpan data, const ReadLimits& limits) const {
    const auto made = plan(data, {}, limits);
    return made && !made->surfaces.empty() && made->end > 0 && made->end <= data.size() ? std::optional(made->end) : std::nullopt;
}

Result<TextureLayout> SheetTextureKind::layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const {
    SKIVET_TRY(auto made, plan(data, {}, limits));
    TextureLayout out;
    out.desc = made.desc;
    out.surfaces = std::move(made.surfaces);
    out.direct = made.plain;
    if (made.siblings.empty()) SKIVET_CHECK(accept_cut_off(out, made.start, made.end, file_size));
    else if (file_size < made.end)
        return fail_at(ErrorCode::damaged, made.start,
                       fmt::format("mip chain: needs {} bytes, has {}", grouped(made.end - made.start),
                                   grouped(file_size - std::min(made.start, file_size))),
                       "The file is cut off or its header is damaged");
    if (const auto* size = made.header.values.with(Meaning::payload_size); size && size->number != made.end - made.start)
        return fail_at(ErrorCode::damaged, size->at,
                       fmt::format("field {}: says {} bytes, the levels take {}", size->field->name, grouped(size->number),
                                   grouped(made.end - made.start)));
    return out;
}

Result<Spread> SheetTextureKind::spread(ByteSpan data, std::string_view path, const ReadLimits& limits) const {
    if (sheet_.siblings.empty()) return Spread{};
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

Result<Bytes> SheetTextureKind::bytes(ByteSpan file, const TextureLayout& layout, const Surface& s) const {
    if (layout.direct || s.offset >= absent) return TextureKind::bytes(file, layout, s);
    SKIVET_TRY(const auto made, plan(file, {}, ReadLimits{}));
    const auto stored = slice(file, s.offset, stored_bytes(made, s));
    if (!stored) return fail(stored.error().within(fmt::format("mip {}", s.mip)));
    Bytes out;
    if (made.tiling.tiling != Tiling::linear) {
        SKIVET_TRY(out, untile(made.tiling, layout.desc.format, s.width, s.height, *stored));
    } else {
        const auto rows = rows_of(layout.desc.format, s);
        const auto pitch = pitch_of(made, s);
        out.reserve(static_cast<std::size_t>(s.size));
        for (std::uint64_t y = 0; y < rows.count; ++y) {
            const auto row = stored->subspan(static_cast<std::size_t>(y * pitch), static_cast<std::size_t>(rows.tight));
            out.insert(out.end(), row.begin(), row.end());
        }
    }
    return reordered(std::move(out), layout.desc.format, true);
}

Result<Bytes> SheetTextureKind::replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const {
    SKIVET_TRY(const auto made, plan(file, {}, ReadLimits{}));
    Bytes out(file.begin(), file.end());
    if (layout.direct) {
        SKIVET_TRY(out, TextureKind::replace(file, layout, edits));
    } else {
        for (const auto& edit : edits) {
            if (edit.surface >= layout.surfaces.size()) return fail(ErrorCode::usage, "there is no such surface");
            const auto& s = layout.surfaces[edit.surface];
            if (edit.bytes.size() != s.size)
                return fail(ErrorCode::unfit,
                            fmt::format("mip {}: needs {} bytes, has {}", s.mip, grouped(s.size), grouped(edit.bytes.size())));
            SKIVET_TRY(const auto before, slice(file, s.offset, stored_bytes(made, s)));
            const auto level = reordered(edit.bytes, layout.desc.format, false);
            const auto to = out.begin() + static_cast<std::ptrdiff_t>(s.offset);
            if (made.tiling.tiling != Tiling::linear) {
                SKIVET_TRY(const auto tiled, tile(made.tiling, layout.desc.format, s.width, s.height, level, before));
                std::copy(tiled.begin(), tiled.end(), to);
                continue;
            }
            const auto rows = rows_of(layout.desc.format, s);
            const auto pitch = pitch_of(made, s);
            for (std::uint64_t y = 0; y < rows.count; ++y)  // what lies between the rows stays
                std::copy_n(level.begin() + static_cast<std::ptrdiff_t>(y * rows.tight), rows.tight,
                            to + static_cast<std::ptrdiff_t>(y * pitch));
        }
    }
    for (const auto& sum : made.header.values.values) {
        if (sum.field->means != Meaning::checksum || !sum.field->is_over(Over::payload) || edits.empty()) continue;
        SKIVET_TRY(const auto payload, slice(out, made.start, made.end - made.start));
        SKIVET_TRY(const auto bytes, sum_field_bytes(*sum.field, made.header.order, payload));
        std::copy(bytes.begin(), bytes.end(), out.begin() + static_cast<std::ptrdiff_t>(sum.at));
    }
    return out;
}

}  // namespace skivet

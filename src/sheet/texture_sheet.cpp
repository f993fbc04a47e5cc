#include "sheet/texture_sheet.h"

#include <fmt/format.h>
#include <numeric>

#include "base/hash.h"

namespace skivet {

bool SheetTextureKind::recognize(ByteSpan head, std::string_view path) const {
    // A size field cannot be checked here, where the file's size is not known; layout() checks the payload against it.
    for (const auto& rule : sheet_.recognize)
        if (!rule.field.empty()) return false;
    return skivet::recognize(sheet_, head, 0, path).has_value();
}

Result<TextureLayout> SheetTextureKind::layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const {
    if (sheet_.header_at < 0) return fail(ErrorCode::unsupported, "a texture's header at its end is not supported");
    SKIVET_TRY(const auto read, read_header(sheet_, data, limits));
    const auto& header = read.values;
    TextureLayout out;
    auto& d = out.desc;
    const auto small = [&](Meaning meaning, std::uint32_t& into) -> Status {
        const auto value = header.number(meaning, 1);
        if (value > 0xFFFFFFFFull) return fail(ErrorCode::limit, fmt::format("{} of {}", name_of(meaning), grouped(value)));
        into = static_cast<std::uint32_t>(value);
        return {};
    };
    SKIVET_CHECK(small(Meaning::width, d.width));
    SKIVET_CHECK(small(Meaning::height, d.height));
    SKIVET_CHECK(small(Meaning::depth, d.depth));
    SKIVET_CHECK(small(Meaning::mips, d.mips));
    SKIVET_CHECK(small(Meaning::layers, d.layers));
    SKIVET_CHECK(small(Meaning::faces, d.faces));
    SKIVET_TRY(const auto format, named_value(*header.with(Meaning::format)));
    d.format = format_named(format).value_or(Format::unknown);
    if (const auto* color = header.with(Meaning::color)) {
        SKIVET_TRY(const auto name, named_value(*color));
        d.color = name == "srgb" ? ColorSpace::srgb : ColorSpace::linear;
    }
    SKIVET_CHECK(check_desc(d, limits));
    const auto start = sheet_.payload_at.value_or(header.end);
    std::uint64_t end = 0;
    out.surfaces = lay_out(d, start, sheet_.smallest_first ? MipOrder::smallest_first : MipOrder::largest_first, sheet_.align, end);
    if (sheet_.tiling.tiling != Tiling::linear) {
        // The same order, but each level takes and starts where its tiling wants.
        out.direct = false;
        end = start;
        for (auto& s : out.surfaces) {
            const auto align = std::lcm(tiled_alignment(sheet_.tiling, d.format, s.width, s.height), s.slice == 0 ? sheet_.align : 1);
            end = start + (end - start + align - 1) / align * align;
            s.offset = end;
            end += tiled_bytes(sheet_.tiling, d.format, s.width, s.height);
        }
    }
    SKIVET_CHECK(accept_cut_off(out, start, end, file_size));
    if (const auto* size = header.with(Meaning::payload_size); size && size->number != end - start)
        return fail_at(ErrorCode::damaged, size->at, fmt::format("field {}: says {} bytes, the levels take {}", size->field->name,
                                                                 grouped(size->number), grouped(end - start)));
    return out;
}

Result<Bytes> SheetTextureKind::bytes(ByteSpan file, const TextureLayout& layout, const Surface& s) const {
    const auto& spec = sheet_.tiling;
    if (spec.tiling == Tiling::linear) return TextureKind::bytes(file, layout, s);
    const auto tiled = slice(file, s.offset, tiled_bytes(spec, layout.desc.format, s.width, s.height));
    if (!tiled) return fail(tiled.error().within(fmt::format("mip {}", s.mip)));
    return untile(spec, layout.desc.format, s.width, s.height, *tiled);
}

Result<Bytes> SheetTextureKind::replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const {
    const auto& spec = sheet_.tiling;
    const bool tiled = spec.tiling != Tiling::linear;
    Bytes out(file.begin(), file.end());
    for (const auto& edit : edits) {
        if (!tiled) break;
        if (edit.surface >= layout.surfaces.size()) return fail(ErrorCode::usage, "there is no such surface");
        const auto& s = layout.surfaces[edit.surface];
        SKIVET_TRY(const auto before, slice(file, s.offset, tiled_bytes(spec, layout.desc.format, s.width, s.height)));
        SKIVET_TRY(const auto level, tile(spec, layout.desc.format, s.width, s.height, edit.bytes, before));
        std::copy(level.begin(), level.end(), out.begin() + static_cast<std::ptrdiff_t>(s.offset));
    }
    if (!tiled) {
        SKIVET_TRY(out, TextureKind::replace(file, layout, edits));
    }
    SKIVET_TRY(const auto read, read_header(sheet_, out, ReadLimits{}));
    const auto& header = read.values;
    for (const auto& sum : header.values) {
        if (sum.field->means != Meaning::checksum || sum.field->over != Over::payload || edits.empty()) continue;
        const auto start = sheet_.payload_at.value_or(header.end);
        std::uint64_t end = start;
        for (const auto& s : layout.surfaces) end = std::max(end, s.offset + tiled_bytes(spec, layout.desc.format, s.width, s.height));
        SKIVET_TRY(const auto payload, slice(out, start, end - start));
        SKIVET_TRY(const auto bytes, sum_field_bytes(*sum.field, read.order, payload));
        std::copy(bytes.begin(), bytes.end(), out.begin() + static_cast<std::ptrdiff_t>(sum.at));
    }
    return out;
}

}  // namespace skivet

// A texture that a sheet describes, of another size.
#include <fmt/format.h>

#include "base/phrase.h"
#include "base/text.h"
#include "sheet/method.h"
#include "sheet/texture_sheet.h"

namespace skivet {

bool SheetTextureKind::can_resize(const TextureLayout& layout) const {
    if (layout.surfaces.empty() || layout.damage || sheet_.palette || !sheet_.siblings.empty() || sheet_.row_pitch != 0 ||
        sheet_.header_at < 0)
        return false;
    const auto& header = sheet_.header;
    const auto follows = [&](const Field& field) {
        return field.means != Meaning::row_pitch && field.means != Meaning::block_height && field.means != Meaning::gob_rows &&
               (field.means != Meaning::checksum || field.is_over(Over::payload));
    };
    return header.with(Meaning::width) && header.with(Meaning::height) && std::all_of(header.fields.begin(), header.fields.end(), follows);
}

Result<Bytes> SheetTextureKind::resized(ByteSpan file, const TextureLayout& layout, const TextureDesc& d, ByteSpan payload) const {
    const auto unsupported = [&](const std::string& why) {
        return fail(ErrorCode::unsupported, fmt::format("{}: {}", sheet_.name, said(why)), "Bring the edit back to the game's size");
    };
    if (!can_resize(layout)) return unsupported("its sheet does not say all that follows from a size");
    if (d.format != layout.desc.format) return unsupported("its format stays");
    SKIVET_TRY(const auto old, plan(file, {}, ReadLimits{}));
    if (const auto* stated = old.header.values.with(Meaning::mips); stated && stated->number != layout.desc.mips)
        return unsupported("its header counts levels that are not there");
    auto old_end = std::min<std::uint64_t>(old.end, file.size());
    if (!sheet_.method.empty()) {
        SKIVET_TRY(const auto packed, packed_size(old, file));
        old_end = old.start + packed;
    }
    SKIVET_TRY(const auto head, slice(file, 0, old.start));
    Bytes out(head.begin(), head.end());
    for (const auto& [meaning, number] :
         {std::pair{Meaning::width, d.width}, std::pair{Meaning::height, d.height}, std::pair{Meaning::mips, d.mips}})
        if (const auto* field = old.header.values.with(meaning)) SKIVET_CHECK(put_number(out, old.header, *field, number));
    SKIVET_TRY(const auto made, plan(out, {}, ReadLimits{}));
    if (made.desc.width != d.width || made.desc.height != d.height || made.desc.mips != d.mips || made.start != old.start)
        return unsupported(phrase("its header cannot say {}×{} with {} levels", d.width, d.height, d.mips));

    std::uint64_t end = 0;
    const auto given = lay_out(d, 0, MipOrder::largest_first, 1, end);
    if (payload.size() < end) return fail(ErrorCode::usage, phrase("needs {} bytes, has {}", grouped(end), grouped(payload.size())));
    Bytes levels(static_cast<std::size_t>(unpacked_end(made) - made.start));
    for (const auto& s : made.surfaces) {
        const auto from = std::find_if(given.begin(), given.end(), [&](const Surface& g) {
            return g.mip == s.mip && g.layer == s.layer && g.face == s.face && g.slice == s.slice;
        });
        if (from == given.end()) return fail(ErrorCode::usage, phrase("mip {} is missing", s.mip));
        SKIVET_TRY(const auto texels, slice(payload, from->offset, from->size));
        const auto storage = storage_of(made, s);
        const Bytes nothing(static_cast<std::size_t>(stored_bytes(made, s)));
        SKIVET_TRY(const auto level,
                   storage.stored(s.width, s.height, reordered(Bytes(texels.begin(), texels.end()), d.format, false), nothing));
        std::copy(level.begin(), level.end(), levels.begin() + static_cast<std::ptrdiff_t>(s.offset - made.start));
    }
    if (!sheet_.method.empty()) {
        SKIVET_TRY(levels,
                   pack_by(*method_named(sheet_, sheet_.method), levels, sheet_.level, file.subspan(static_cast<std::size_t>(old.start))));
    }
    out.insert(out.end(), levels.begin(), levels.end());
    if (const auto* field = made.header.values.with(Meaning::payload_size))
        SKIVET_CHECK(put_number(out, made.header, *field, levels.size()));
    // What stands behind the levels is nobody's that we know; it stays behind them.
    out.insert(out.end(), file.begin() + static_cast<std::ptrdiff_t>(old_end), file.end());
    SKIVET_CHECK(sum_payload(made, out));
    return out;
}

}  // namespace skivet

#include "container/bare_file.h"

#include <cstring>

#include "base/phrase.h"
#include "texture/dds.h"
#include "texture/ktx2.h"

namespace skivet {
namespace {

constexpr std::size_t palette_header = 128, palette_entries = 256;

/// The header of a DDS file with a palette (DDPF_PALETTEINDEXED8 of the DirectDraw surface description), and the palette as R, G, B, A.
Result<Bytes> palette_head(const BareTexture& t, ByteSpan data) {
    const std::size_t entry = t.desc.format == Format::RGB8 ? 3 : 4;
    SKIVET_TRY(const auto palette, slice(data, t.palette_at, palette_entries * entry));
    TextureDesc gray = t.desc;
    gray.format = Format::L8;
    SKIVET_TRY(auto head, write_dds(gray, {}));
    head.resize(palette_header);
    const bool alpha = entry == 4;
    store_le<std::uint32_t>(head.data() + 80, 0x20 | (alpha ? 1u : 0u));
    store_le<std::uint32_t>(head.data() + 88, 8);
    for (std::size_t i = 92; i < 108; i += 4) store_le<std::uint32_t>(head.data() + i, 0);
    for (std::size_t i = 0; i < palette_entries; ++i)
        for (std::size_t c = 0; c < 4; ++c) head.push_back(c < entry ? palette[i * entry + c] : std::byte{255});
    return head;
}

/// Levels as they lie as those of a file with the largest one first, or `back`.
Bytes turned(const BareTexture& t, ByteSpan levels, bool back) {
    Bytes out(levels.begin(), levels.end());
    if (!t.smallest_first) return out;
    std::size_t large = 0, small = levels.size();
    for (std::uint32_t m = 0; m < t.desc.mips; ++m) {
        const auto size = static_cast<std::size_t>(level_bytes(t.desc.format, mip_side(t.desc.width, m), mip_side(t.desc.height, m)));
        small -= size;
        std::memcpy(out.data() + (back ? small : large), levels.data() + (back ? large : small), size);
        large += size;
    }
    return out;
}

/// A DDS file's header, where there is one for the format.
std::optional<Bytes> dds_head(const BareTexture& t) {
    auto head = write_dds(t.desc, {});
    return head ? std::optional<Bytes>(std::move(*head)) : std::nullopt;
}

}  // namespace

const char* bare_ending(const BareTexture& texture) { return texture.palette_bits || dds_head(texture) ? ".dds" : ".ktx2"; }

std::uint64_t bare_file_size(const BareTexture& texture) {
    if (texture.palette_bits) return palette_header + palette_entries * 4 + texture.size;
    if (const auto head = dds_head(texture)) return head->size() + texture.size;
    const auto whole = write_ktx2(texture.desc, Bytes(static_cast<std::size_t>(texture.size)));
    return whole ? whole->size() : 0;
}

Result<Bytes> bare_file(const BareTexture& texture, ByteSpan data) {
    SKIVET_TRY(const auto own, slice(data, texture.at, texture.size));
    if (texture.palette_bits) {
        SKIVET_TRY(auto out, palette_head(texture, data));
        out.insert(out.end(), own.begin(), own.end());
        return out;
    }
    const auto levels = turned(texture, own, false);
    if (auto out = dds_head(texture)) {
        out->insert(out->end(), levels.begin(), levels.end());
        return std::move(*out);
    }
    return write_ktx2(texture.desc, levels);
}

Result<Bytes> bare_levels(const BareTexture& texture, ByteSpan data, ByteSpan file, const ReadLimits& limits) {
    const auto other = [](std::string what) {
        return fail(ErrorCode::unsupported, std::move(what),
                    "A texture without a header keeps format, size, mips and palette: nothing in the file says others");
    };
    if (texture.palette_bits) {
        SKIVET_TRY(const auto head, palette_head(texture, data));
        if (file.size() != head.size() + texture.size ||
            !std::equal(head.begin() + palette_header, head.end(), file.begin() + palette_header) ||
            !std::equal(head.begin() + 76, head.begin() + 92, file.begin() + 76))
            return other("it is no DDS file with the same palette");
        return Bytes(file.begin() + static_cast<std::ptrdiff_t>(head.size()), file.end());
    }
    SKIVET_TRY(const auto edited, TextureFile::open(TextureKinds::standard(), Bytes(file.begin(), file.end()), {}, limits));
    const auto &was = texture.desc, &is = edited.layout.desc;
    if (is.format != was.format || is.width != was.width || is.height != was.height || is.mips != was.mips || is.depth != 1 ||
        is.layers != 1 || is.faces != 1)
        return other(phrase("it is {} {} with {} mips, the original {} {} with {}", info(is.format).name, size_text(is), is.mips,
                            info(was.format).name, size_text(was), was.mips));
    SKIVET_TRY(const auto levels, payload_of(edited));
    if (levels.size() != texture.size)
        return other(phrase("its levels take {} bytes, the original's {}", grouped(levels.size()), grouped(texture.size)));
    return turned(texture, levels, true);
}

}  // namespace skivet

#include "texture/dds_palette.h"

#include "base/phrase.h"
#include "codec/codec.h"
#include "codec/palette.h"
#include "texture/dds.h"

namespace skivet {
namespace {

constexpr std::size_t header_bytes = 128, flags_at = 80, bits_at = 88;
constexpr std::uint32_t palette_8 = 0x20, palette_4 = 0x8, alpha_pixels = 0x1, luminance = 0x20000;

struct Palette {
    bool four = false, alpha = false;
    [[nodiscard]] std::size_t entries() const { return four ? 16 : 256; }
    [[nodiscard]] std::uint64_t levels_at() const { return header_bytes + entries() * 4; }
    /// Bytes of a level of numbers; 4-bit rows end at whole bytes.
    [[nodiscard]] std::uint64_t level_bytes(const Surface& s) const { return std::uint64_t{four ? (s.width + 1) / 2 : s.width} * s.height; }
};

Palette palette_of(ByteSpan file) {
    const auto flags = load_le<std::uint32_t>(file.data() + flags_at);
    return {(flags & palette_8) == 0, (flags & alpha_pixels) != 0};
}

std::vector<Texel> colors_of(ByteSpan file, const Palette& p) {
    std::vector<Texel> out;
    for (std::size_t i = 0; i < p.entries(); ++i) {
        Texel t;
        std::memcpy(t.data(), file.data() + header_bytes + i * 4, 4);
        if (!p.alpha) t[3] = 255;
        out.push_back(t);
    }
    return out;
}

Result<std::vector<std::uint8_t>> numbers_of(ByteSpan file, const Palette& p, const Surface& s) {
    auto data = slice(file, s.offset, p.level_bytes(s));
    if (!data) return fail(data.error().within(phrase("mip {}", s.mip)));
    std::vector<std::uint8_t> out;
    out.reserve(std::size_t{s.width} * s.height);
    const std::size_t row = p.four ? (s.width + 1) / 2 : s.width;
    for (std::size_t y = 0; y < s.height; ++y)
        for (std::size_t x = 0; x < s.width; ++x) {
            const auto byte = static_cast<unsigned>((*data)[y * row + (p.four ? x / 2 : x)]);
            out.push_back(static_cast<std::uint8_t>(p.four ? byte >> (x % 2 * 4) & 15 : byte));
        }
    return out;
}

}  // namespace

KindTraits DdsPaletteKind::traits() const { return {.extensions = {"dds"}, .marks = {"DDS "}}; }

bool DdsPaletteKind::recognize(ByteSpan head, std::string_view path) const {
    if (head.size() < header_bytes || !DdsKind().recognize(head, path)) return false;
    const auto flags = load_le<std::uint32_t>(head.data() + flags_at), bits = load_le<std::uint32_t>(head.data() + bits_at);
    return ((flags & palette_8) && bits == 8) || ((flags & palette_4) && bits == 4);
}

Result<TextureLayout> DdsPaletteKind::layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const {
    if (data.size() < header_bytes)
        return fail_at(ErrorCode::damaged, data.size(), phrase("header: needs {} bytes, has {}", header_bytes, data.size()));
    const auto p = palette_of(data);
    // The header says everything else as for a picture of one byte a texel.
    Bytes header(data.begin(), data.begin() + header_bytes);
    store_le(header.data() + flags_at, luminance);
    store_le<std::uint32_t>(header.data() + bits_at, 8);
    store_le<std::uint32_t>(header.data() + bits_at + 4, 0xFF);
    for (std::size_t i = 8; i < 20; i += 4) store_le<std::uint32_t>(header.data() + bits_at + i, 0);
    SKIVET_TRY(auto out, DdsKind().layout(header, ~std::uint64_t{0} >> 1, limits));
    out.direct = false;
    out.desc.format = p.alpha ? Format::RGBA8 : Format::RGB8;
    std::uint64_t end = p.levels_at();
    for (auto& s : out.surfaces) {
        s.offset = end;
        s.size = level_bytes(out.desc.format, s.width, s.height);
        end += p.level_bytes(s);
    }
    if (end > file_size)
        return fail_at(ErrorCode::damaged, header_bytes,
                       phrase("palette and mip chain: need {} bytes, have {}", grouped(end - header_bytes),
                              grouped(file_size - std::min<std::uint64_t>(file_size, header_bytes))),
                       "The file is cut off or its header is damaged");
    out.end = end;
    return out;
}

Result<Bytes> DdsPaletteKind::bytes(ByteSpan file, const TextureLayout& layout, const Surface& s) const {
    const auto p = palette_of(file);
    SKIVET_TRY(const auto numbers, numbers_of(file, p, s));
    const auto colors = colors_of(file, p);
    Image image(s.width, s.height);
    for (std::size_t i = 0; i < numbers.size(); ++i) image.texels[i] = colors[numbers[i]];
    return encode(layout.desc.format, image);
}

Result<std::optional<IndexedPicture>> DdsPaletteKind::indexed(ByteSpan file, const TextureLayout&, const Surface& s) const {
    const auto p = palette_of(file);
    SKIVET_TRY(auto numbers, numbers_of(file, p, s));
    return std::optional(IndexedPicture{s.width, s.height, colors_of(file, p), std::move(numbers)});
}

Result<Bytes> DdsPaletteKind::replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const {
    Bytes out(file.begin(), file.end());
    if (edits.empty()) return out;
    const auto p = palette_of(file);
    const auto colors = colors_of(file, p);
    // All levels one after the other: what the unchanged ones use must not be given away.
    std::vector<std::uint8_t> before;
    std::vector<Texel> wanted;
    for (std::size_t i = 0; i < layout.surfaces.size(); ++i) {
        const auto& s = layout.surfaces[i];
        SKIVET_TRY(const auto numbers, numbers_of(file, p, s));
        before.insert(before.end(), numbers.begin(), numbers.end());
        const auto edit = std::find_if(edits.begin(), edits.end(), [&](const SurfaceEdit& e) { return e.surface == i; });
        if (edit == edits.end()) {
            for (const auto n : numbers) wanted.push_back(colors[n]);
        } else {
            SKIVET_TRY(const auto image, skivet::decode(layout.desc.format, edit->bytes, s.width, s.height));
            wanted.insert(wanted.end(), image.texels.begin(), image.texels.end());
        }
    }
    const auto fitted = fit_palette(before, colors, wanted, p.entries());
    for (std::size_t i = 0; i < colors.size(); ++i)
        if (fitted.palette[i] != colors[i]) std::memcpy(out.data() + header_bytes + i * 4, fitted.palette[i].data(), p.alpha ? 4 : 3);
    std::size_t at = 0;
    for (const auto& s : layout.surfaces) {
        const std::size_t row = p.four ? (s.width + 1) / 2 : s.width;
        for (std::size_t y = 0; y < s.height; ++y)
            for (std::size_t x = 0; x < s.width; ++x, ++at) {
                auto& byte = out[static_cast<std::size_t>(s.offset) + y * row + (p.four ? x / 2 : x)];
                const auto number = static_cast<unsigned>(fitted.indices[at]);
                byte = p.four ? static_cast<std::byte>((static_cast<unsigned>(byte) & (x % 2 ? 0x0Fu : 0xF0u)) | number << (x % 2 * 4))
                              : static_cast<std::byte>(number);
            }
    }
    return out;
}

}  // namespace skivet

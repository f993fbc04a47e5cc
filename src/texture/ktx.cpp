// KTX 1: a header with OpenGL's numbers, key/value data, then the levels, largest first, each behind its size. Inside a level: layers,
// faces, slices, rows padded to 4 bytes; faces and levels padded to 4 bytes too.
#include "texture/ktx.h"

#include "base/phrase.h"
#include "codec/codec.h"

namespace skivet {
namespace {

constexpr std::array<std::uint8_t, 12> identifier = {0xAB, 'K', 'T', 'X', ' ', '1', '1', 0xBB, '\r', '\n', 0x1A, '\n'};
constexpr std::size_t header_bytes = 64;
constexpr std::uint32_t same_order = 0x04030201u;

struct Gl {
    Format format;
    std::uint32_t internal, srgb;           ///< glInternalFormat; 0: there is none
    std::uint32_t type, type_size, layout;  ///< glType, glTypeSize, glFormat; 0, 1, 0 for compressed formats
};
// OpenGL 4.6, tables 8.2, 8.3, 8.12 and 8.14; OES_compressed_ETC1_RGB8_texture; KHR_texture_compression_astc_ldr.
constexpr std::uint32_t byte_type = 0x1401, short_type = 0x1403, half_type = 0x140B, float_type = 0x1406, red = 0x1903, rg = 0x8227,
                        rgb = 0x1907, rgba = 0x1908, bgr = 0x80E0, bgra = 0x80E1, alpha = 0x1906, luminance = 0x1909,
                        luminance_alpha = 0x190A;
// clang-format off
constexpr Gl table[] = {
    {Format::BC1, 0x83F1, 0x8C4D, 0, 1, 0}, {Format::BC2, 0x83F2, 0x8C4E, 0, 1, 0}, {Format::BC3, 0x83F3, 0x8C4F, 0, 1, 0}, {Format::BC4, 0x8DBB, 0, 0, 1, 0},
    {Format::BC4_SNORM, 0x8DBC, 0, 0, 1, 0}, {Format::BC5, 0x8DBD, 0, 0, 1, 0}, {Format::BC5_SNORM, 0x8DBE, 0, 0, 1, 0}, {Format::BC7, 0x8E8C, 0x8E8D, 0, 1, 0},
    {Format::BC6H_SF16, 0x8E8E, 0, 0, 1, 0}, {Format::BC6H, 0x8E8F, 0, 0, 1, 0}, {Format::ETC1, 0x8D64, 0, 0, 1, 0}, {Format::EAC_R, 0x9270, 0, 0, 1, 0},
    {Format::EAC_R_SNORM, 0x9271, 0, 0, 1, 0}, {Format::EAC_RG, 0x9272, 0, 0, 1, 0}, {Format::EAC_RG_SNORM, 0x9273, 0, 0, 1, 0},
    {Format::ETC2_RGB, 0x9274, 0x9275, 0, 1, 0}, {Format::ETC2_RGBA1, 0x9276, 0x9277, 0, 1, 0}, {Format::ETC2_RGBA, 0x9278, 0x9279, 0, 1, 0},
    {Format::RGBA8, 0x8058, 0x8C43, byte_type, 1, rgba}, {Format::BGRA8, 0x8058, 0x8C43, byte_type, 1, bgra}, {Format::RGB8, 0x8051, 0x8C41, byte_type, 1, rgb},
    {Format::BGR8, 0x8051, 0x8C41, byte_type, 1, bgr}, {Format::R8, 0x8229, 0, byte_type, 1, red}, {Format::RG8, 0x822B, 0, byte_type, 1, rg},
    {Format::A8, 0x803C, 0, byte_type, 1, alpha}, {Format::L8, 0x8040, 0, byte_type, 1, luminance}, {Format::LA8, 0x8045, 0, byte_type, 1, luminance_alpha},
    {Format::B5G6R5, 0x8D62, 0, 0x8363, 2, rgb}, {Format::ABGR4, 0x8056, 0, 0x8033, 2, rgba}, {Format::A1B5G5R5, 0x8057, 0, 0x8034, 2, rgba},
    {Format::R16, 0x822A, 0, short_type, 2, red}, {Format::RG16, 0x822C, 0, short_type, 2, rg}, {Format::RGB16, 0x8054, 0, short_type, 2, rgb},
    {Format::RGBA16, 0x805B, 0, short_type, 2, rgba}, {Format::R16F, 0x822D, 0, half_type, 2, red}, {Format::RG16F, 0x822F, 0, half_type, 2, rg},
    {Format::RGB16F, 0x881B, 0, half_type, 2, rgb}, {Format::RGBA16F, 0x881A, 0, half_type, 2, rgba}, {Format::R32F, 0x822E, 0, float_type, 4, red},
    {Format::RG32F, 0x8230, 0, float_type, 4, rg}, {Format::RGB32F, 0x8815, 0, float_type, 4, rgb}, {Format::RGBA32F, 0x8814, 0, float_type, 4, rgba},
    {Format::RGB10A2, 0x8059, 0, 0x8368, 4, rgba}, {Format::R11G11B10F, 0x8C3A, 0, 0x8C3B, 4, rgb}, {Format::RGB9E5, 0x8C3D, 0, 0x8C3E, 4, rgb}};
// clang-format on
constexpr std::uint32_t first_astc = 0x93B0, first_astc_srgb = 0x93D0;

std::optional<Gl> gl_of(Format format) {
    for (const auto& g : table)
        if (g.format == format) return g;
    if (is_astc(format) && !is_astc_hdr(format)) {
        const auto i = static_cast<std::uint32_t>(format) - static_cast<std::uint32_t>(Format::ASTC_4x4);
        return Gl{format, first_astc + i, first_astc_srgb + i, 0, 1, 0};
    }
    return std::nullopt;
}

std::pair<Format, ColorSpace> from_gl(std::uint32_t internal, std::uint32_t type, std::uint32_t layout) {
    for (const auto& g : table) {
        if (g.internal != internal && (g.srgb == 0 || g.srgb != internal)) continue;
        if (g.type != type || (g.type != 0 && g.layout != layout)) continue;
        return {g.format, g.srgb == internal ? ColorSpace::srgb : g.srgb ? ColorSpace::linear : ColorSpace::unknown};
    }
    if (internal == 0x83F0) return {Format::BC1, ColorSpace::linear};  // BC1 without alpha: the same blocks
    if (internal == 0x8C4C) return {Format::BC1, ColorSpace::srgb};
    for (const auto& [first, color] : {std::pair{first_astc, ColorSpace::linear}, {first_astc_srgb, ColorSpace::srgb}})
        if (internal >= first && internal < first + 14)
            return {static_cast<Format>(static_cast<std::uint32_t>(Format::ASTC_4x4) + internal - first), color};
    // Older writers put the unsized format in glInternalFormat.
    if (type != 0 && internal == layout)
        for (const auto& g : table)
            if (g.type == type && g.layout == layout) return {g.format, ColorSpace::unknown};
    return {Format::unknown, ColorSpace::unknown};
}

std::uint64_t padded(std::uint64_t size) { return (size + 3) & ~std::uint64_t{3}; }
std::uint64_t row_bytes(Format format, std::uint32_t width) { return level_bytes(format, width, 1); }
/// Bytes a surface takes in the file.
std::uint64_t stored_size(Format format, std::uint32_t width, std::uint32_t height) {
    return info(format).block_compressed() ? level_bytes(format, width, height) : padded(row_bytes(format, width)) * height;
}

}  // namespace

KindTraits KtxKind::traits() const { return {.keeps_levels = true, .extensions = {"ktx"}, .marks = {"\xABKTX"}}; }

bool KtxKind::recognize(ByteSpan head, std::string_view) const {
    return head.size() >= 12 && std::memcmp(head.data(), identifier.data(), 12) == 0;
}

Result<TextureLayout> KtxKind::layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const {
    if (data.size() < header_bytes)
        return fail_at(ErrorCode::damaged, data.size(), phrase("header: needs {} bytes, has {}", header_bytes, data.size()));
    const auto order = load_le<std::uint32_t>(data.data() + 12) == same_order ? ByteOrder::little : ByteOrder::big;
    const auto word = [&](std::size_t at) { return static_cast<std::uint32_t>(load_uint(data.data() + at, 4, order)); };
    if (word(12) != same_order) return fail_at(ErrorCode::damaged, 12, "the byte order mark is neither 04030201 nor its reverse");
    TextureLayout out;
    auto& d = out.desc;
    std::tie(d.format, d.color) = from_gl(word(28), word(16), word(24));
    if (d.format == Format::unknown)
        return fail_at(ErrorCode::unsupported, 28, phrase("OpenGL format {:#x} with type {:#x}", word(28), word(16)),
                       "This pixel format is not supported yet");
    if (order == ByteOrder::big && word(20) > 1)
        return fail_at(ErrorCode::unsupported, 12, phrase("big-endian texels of {} bytes", word(20)),
                       "Only single bytes and compressed blocks are read from big-endian files");
    d.width = word(36);
    d.height = std::max(1u, word(40));
    d.depth = std::max(1u, word(44));
    d.layers = std::max(1u, word(48));
    d.faces = word(52);
    d.mips = std::max(1u, word(56));
    if (d.faces != 1 && d.faces != 6) return fail_at(ErrorCode::damaged, 52, phrase("{} faces; a texture has 1, a cubemap 6", d.faces));
    SKIVET_CHECK(check_desc(d, limits));
    out.direct = false;
    std::uint64_t at = header_bytes + std::uint64_t{word(60)};
    // Levels come first in the file, but layers and faces first in our order.
    std::vector<std::vector<Surface>> levels(d.mips);
    for (std::uint32_t mip = 0; mip < d.mips; ++mip) {
        const auto w = mip_side(d.width, mip), h = mip_side(d.height, mip), slices = mip_side(d.depth, mip);
        at += 4;  // imageSize: follows from the rest, and writers differ in what it counts for cubemaps
        for (std::uint32_t layer = 0; layer < d.layers; ++layer)
            for (std::uint32_t face = 0; face < d.faces; ++face) {
                for (std::uint32_t s = 0; s < slices; ++s) {
                    levels[mip].push_back({mip, layer, face, s, w, h, at, level_bytes(d.format, w, h)});
                    at += stored_size(d.format, w, h);
                }
                at = padded(at);
            }
        at = padded(at);
    }
    for (std::size_t of_layer = 0; of_layer < std::size_t{d.layers} * d.faces; ++of_layer)
        for (std::uint32_t mip = 0; mip < d.mips; ++mip) {
            const auto slices = mip_side(d.depth, mip);
            const auto first = levels[mip].begin() + static_cast<std::ptrdiff_t>(of_layer * slices);
            out.surfaces.insert(out.surfaces.end(), first, first + slices);
        }
    out.end = at;
    const auto& last = levels.back().back();
    SKIVET_CHECK(accept_cut_off(out, header_bytes + std::uint64_t{word(60)}, last.offset + stored_size(d.format, last.width, last.height),
                                file_size));
    return out;
}

Result<Bytes> KtxKind::bytes(ByteSpan file, const TextureLayout& layout, const Surface& s) const {
    const auto format = layout.desc.format;
    SKIVET_TRY(const auto stored, slice(file, s.offset, stored_size(format, s.width, s.height)));
    if (info(format).block_compressed()) return Bytes(stored.begin(), stored.end());
    const auto row = static_cast<std::size_t>(row_bytes(format, s.width)), pitch = static_cast<std::size_t>(padded(row));
    Bytes out;
    out.reserve(row * s.height);
    for (std::uint32_t y = 0; y < s.height; ++y) {
        const auto line = stored.subspan(y * pitch, row);
        out.insert(out.end(), line.begin(), line.end());
    }
    return out;
}

Result<Image> KtxKind::decode(ByteSpan file, const TextureLayout& layout, const Surface& s) const {
    const auto stored = stored_size(layout.desc.format, s.width, s.height);
    if (!layout.damage || s.offset >= file.size() || file.size() - s.offset >= stored || file.size() - s.offset <= stored / 8)
        return TextureKind::decode(file, layout, s);
    Bytes filled(file.begin(), file.end());
    filled.resize(static_cast<std::size_t>(s.offset + stored));
    SKIVET_TRY(const auto data, bytes(filled, layout, s));
    return skivet::decode(layout.desc.format, data, s.width, s.height);
}

Result<Bytes> KtxKind::replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const {
    Bytes out(file.begin(), file.end());
    const auto format = layout.desc.format;
    for (const auto& edit : edits) {
        if (edit.surface >= layout.surfaces.size()) return fail(ErrorCode::usage, "there is no such surface");
        const auto& s = layout.surfaces[edit.surface];
        if (edit.bytes.size() != s.size || s.offset + stored_size(format, s.width, s.height) > out.size())
            return fail(ErrorCode::unfit, phrase("mip {}: needs {} bytes, has {}", s.mip, grouped(s.size), grouped(edit.bytes.size())));
        const auto& f = info(format);
        const auto row = f.block_compressed() ? edit.bytes.size() : static_cast<std::size_t>(row_bytes(format, s.width));
        const auto pitch = f.block_compressed() ? row : static_cast<std::size_t>(padded(row));
        for (std::size_t y = 0; y * row < edit.bytes.size(); ++y)
            std::copy_n(edit.bytes.begin() + static_cast<std::ptrdiff_t>(y * row), row,
                        out.begin() + static_cast<std::ptrdiff_t>(s.offset + y * pitch));
    }
    return out;
}

namespace {

/// Each level with its size before it, rows padded to 4 bytes.
Status append_levels(Bytes& out, const TextureDesc& d, ByteSpan payload, ByteOrder order) {
    std::uint64_t end = 0;
    const auto surfaces = lay_out(d, 0, MipOrder::largest_first, 1, end);
    if (payload.size() < end) return fail(ErrorCode::usage, phrase("needs {} bytes, has {}", grouped(end), grouped(payload.size())));
    for (std::uint32_t mip = 0; mip < d.mips; ++mip) {
        const auto size_at = out.size();
        out.resize(size_at + 4);
        for (const auto& s : surfaces) {
            if (s.mip != mip) continue;
            const auto& f = info(d.format);
            const auto rows = f.block_compressed() ? 1u : s.height;
            const auto row = static_cast<std::size_t>(s.size / rows);
            for (std::uint32_t y = 0; y < rows; ++y) {
                const auto texels = payload.subspan(static_cast<std::size_t>(s.offset) + y * row, row);
                out.insert(out.end(), texels.begin(), texels.end());
                out.resize(static_cast<std::size_t>(padded(out.size())));
            }
        }
        // For a cubemap without layers the field counts one face (section 2.16).
        const auto whole = out.size() - size_at - 4;
        store_uint(out.data() + size_at, d.faces == 6 && d.layers == 1 ? whole / 6 : whole, 4, order);
    }
    return {};
}

}  // namespace

Result<Bytes> KtxKind::resized(ByteSpan file, const TextureLayout& layout, const TextureDesc& d, ByteSpan payload) const {
    if (d.format != layout.desc.format)
        return fail(ErrorCode::unsupported, phrase("a KTX file's format stays; {} was asked for", info(d.format).name));
    const auto order = load_le<std::uint32_t>(file.data() + 12) == same_order ? ByteOrder::little : ByteOrder::big;
    const auto keys = static_cast<std::uint32_t>(load_uint(file.data() + 60, 4, order));
    SKIVET_TRY(const auto head, slice(file, 0, header_bytes + std::uint64_t{keys}));
    Bytes out(head.begin(), head.end());
    const auto put = [&](std::size_t at, std::uint32_t value) { store_uint(out.data() + at, value, 4, order); };
    put(36, d.width);
    if (load_uint(file.data() + 40, 4, order) != 0 || d.height > 1) put(40, d.height);
    // 0 asks the game to make the smaller levels.
    if (load_uint(file.data() + 56, 4, order) != 0 || d.mips > 1) put(56, d.mips);
    SKIVET_CHECK(append_levels(out, d, payload, order));
    const auto behind = file.subspan(static_cast<std::size_t>(std::min<std::uint64_t>(layout.end, file.size())));
    out.insert(out.end(), behind.begin(), behind.end());
    return out;
}

Result<Bytes> write_ktx(const TextureDesc& d, ByteSpan payload) {
    const auto gl = gl_of(d.format);
    if (!gl) return fail(ErrorCode::unsupported, phrase("a KTX file cannot hold {}", info(d.format).name), "DDS or KTX2 can");
    const auto internal = d.color == ColorSpace::srgb && gl->srgb ? gl->srgb : gl->internal;
    const std::uint32_t base = gl->layout                     ? gl->layout
                               : info(d.format).channels == 1 ? red
                               : info(d.format).channels == 2 ? rg
                               : info(d.format).channels == 3 ? rgb
                                                              : rgba;
    ByteWriter out;
    for (const auto b : identifier) out.le(b);
    for (const std::uint32_t v : {same_order, gl->type, gl->type_size, gl->layout, internal, base, d.width, d.height,
                                  d.depth > 1 ? d.depth : 0u, d.layers > 1 ? d.layers : 0u, d.faces, d.mips, 0u})
        out.le(v);
    SKIVET_CHECK(append_levels(out.bytes, d, payload, ByteOrder::little));
    return std::move(out.bytes);
}

}  // namespace skivet

#include "texture/dds.h"

#include "base/phrase.h"

namespace skivet {
namespace {

constexpr std::uint32_t four(const char (&text)[5]) {
    return static_cast<std::uint32_t>(static_cast<unsigned char>(text[0])) |
           static_cast<std::uint32_t>(static_cast<unsigned char>(text[1])) << 8 |
           static_cast<std::uint32_t>(static_cast<unsigned char>(text[2])) << 16 |
           static_cast<std::uint32_t>(static_cast<unsigned char>(text[3])) << 24;
}

constexpr std::size_t legacy_header = 128;  // magic and DDS_HEADER
constexpr std::size_t dx10_header = 148;    // and DDS_HEADER_DXT10
constexpr std::uint32_t pf_alpha_pixels = 0x1, pf_alpha = 0x2, pf_four_cc = 0x4, pf_rgb = 0x40, pf_luminance = 0x20000, pf_bump = 0x80000;
constexpr std::uint32_t caps2_cube = 0x200, caps2_faces = 0xFC00, caps2_volume = 0x200000;

struct FourCc {
    std::uint32_t code;
    Format format;
};
// Where several codes mean one format the last one is written. "ATI2" is BC5 in the DDS programming guide; some readers (ffmpeg among them)
// take its two channels in the other order, so it is read but "BC5U", which all read alike, is written. Small numbers are D3DFORMAT.
constexpr FourCc four_ccs[] = {{four("DXT1"), Format::BC1}, {four("DXT2"), Format::BC2}, {four("DXT3"), Format::BC2},
                               {four("DXT4"), Format::BC3}, {four("RXGB"), Format::BC3}, {four("DXT5"), Format::BC3},
                               {four("ATI1"), Format::BC4}, {four("BC4U"), Format::BC4}, {four("BC4S"), Format::BC4_SNORM},
                               {four("ATI2"), Format::BC5}, {four("BC5U"), Format::BC5}, {four("BC5S"), Format::BC5_SNORM},
                               {36, Format::RGBA16},        {110, Format::RGBA16_SNORM}, {111, Format::R16F},
                               {112, Format::RG16F},        {113, Format::RGBA16F},      {114, Format::R32F},
                               {115, Format::RG32F},        {116, Format::RGBA32F}};

struct Dxgi {
    Format format;
    std::uint32_t plain, srgb, typeless;  ///< DXGI_FORMAT numbers (Direct3D documentation); 0: there is none
};
constexpr Dxgi dxgi_formats[] = {
    {Format::RGBA32F, 2, 0, 1},      {Format::RGBA32_UINT, 3, 0, 0},   {Format::RGBA32_SINT, 4, 0, 0},  {Format::RGB32F, 6, 0, 5},
    {Format::RGB32_UINT, 7, 0, 0},   {Format::RGB32_SINT, 8, 0, 0},    {Format::RGBA16F, 10, 0, 9},     {Format::RGBA16, 11, 0, 0},
    {Format::RGBA16_UINT, 12, 0, 0}, {Format::RGBA16_SNORM, 13, 0, 0}, {Format::RGBA16_SINT, 14, 0, 0}, {Format::RG32F, 16, 0, 15},
    {Format::RG32_UINT, 17, 0, 0},   {Format::RG32_SINT, 18, 0, 0},    {Format::RGB10A2, 24, 0, 23},    {Format::RGB10A2_UINT, 25, 0, 0},
    {Format::R11G11B10F, 26, 0, 0},  {Format::RGBA8, 28, 29, 27},      {Format::RGBA8_UINT, 30, 0, 0},  {Format::RGBA8_SNORM, 31, 0, 0},
    {Format::RGBA8_SINT, 32, 0, 0},  {Format::RG16F, 34, 0, 33},       {Format::RG16, 35, 0, 0},        {Format::RG16_UINT, 36, 0, 0},
    {Format::RG16_SNORM, 37, 0, 0},  {Format::RG16_SINT, 38, 0, 0},    {Format::R32F, 41, 0, 39},       {Format::R32_UINT, 42, 0, 0},
    {Format::R32_SINT, 43, 0, 0},    {Format::RG8, 49, 0, 48},         {Format::RG8_UINT, 50, 0, 0},    {Format::RG8_SNORM, 51, 0, 0},
    {Format::RG8_SINT, 52, 0, 0},    {Format::R16F, 54, 0, 53},        {Format::R16, 56, 0, 0},         {Format::R16_UINT, 57, 0, 0},
    {Format::R16_SNORM, 58, 0, 0},   {Format::R16_SINT, 59, 0, 0},     {Format::R8, 61, 0, 60},         {Format::R8_UINT, 62, 0, 0},
    {Format::R8_SNORM, 63, 0, 0},    {Format::R8_SINT, 64, 0, 0},      {Format::A8, 65, 0, 0},          {Format::RGB9E5, 67, 0, 0},
    {Format::BC1, 71, 72, 70},       {Format::BC2, 74, 75, 73},        {Format::BC3, 77, 78, 76},       {Format::BC4, 80, 0, 79},
    {Format::BC4_SNORM, 81, 0, 0},   {Format::BC5, 83, 0, 82},         {Format::BC5_SNORM, 84, 0, 0},   {Format::B5G6R5, 85, 0, 0},
    {Format::B5G5R5A1, 86, 0, 0},    {Format::BGRA8, 87, 91, 90},      {Format::BGRX8, 88, 93, 92},     {Format::BC6H, 95, 0, 94},
    {Format::BC6H_SF16, 96, 0, 0},   {Format::BC7, 98, 99, 97},        {Format::BGRA4, 115, 0, 0}};

const Dxgi* dxgi_of(Format format) {
    for (const auto& known : dxgi_formats)
        if (known.format == format) return &known;
    return nullptr;
}

std::uint32_t four_cc_of(Format format) {
    std::uint32_t code = 0;
    for (const auto& known : four_ccs)
        if (known.format == format) code = known.code;
    return code;
}

std::uint32_t mask_of(ChannelBits c) { return c.bits ? ((c.bits == 32 ? 0u : 1u << c.bits) - 1) << c.shift : 0; }

/// Formats a legacy header says by masks.
bool has_masks(const FormatInfo& f) {
    return !f.block_compressed() && f.block_bytes <= 4 && (f.numeric == Numeric::unorm || (f.numeric == Numeric::snorm && f.channels > 1));
}

Result<Format> format_of_masks(std::uint32_t flags, std::uint32_t bits, const std::array<std::uint32_t, 4>& masks) {
    const bool luminance = (flags & pf_luminance) != 0, is_signed = (flags & pf_bump) != 0;
    const bool only_alpha = (flags & pf_alpha) != 0 && !(flags & (pf_rgb | pf_luminance));
    const auto alpha = flags & (pf_alpha_pixels | pf_alpha) || is_signed ? masks[3] : 0u;
    for (const auto& f : all_formats()) {
        if (!has_masks(f) || f.block_bytes * 8u != bits || is_signed != f.is_signed()) continue;
        if (only_alpha) {
            if (f.format == Format::A8) return f.format;
            continue;
        }
        if (luminance != f.luminance) continue;
        // Files by some writers state no green and blue mask for luminance, others repeat the red one.
        if (mask_of(f.red) == masks[0] && mask_of(f.alpha) == alpha &&
            (luminance || (mask_of(f.green) == masks[1] && mask_of(f.blue) == masks[2])))
            return f.format;
    }
    // Unused bits in the place of alpha: the same texels, alpha not stated.
    if (bits == 16 && masks[0] == 0x7C00 && masks[1] == 0x3E0 && masks[2] == 0x1F) return Format::B5G5R5A1;
    if (bits == 16 && masks[0] == 0xF00 && masks[1] == 0xF0 && masks[2] == 0xF) return Format::BGRA4;
    return fail_at(ErrorCode::unsupported, 76,
                   phrase("pixel format: {} bits with masks {:08x} {:08x} {:08x} {:08x}", bits, masks[0], masks[1], masks[2], masks[3]),
                   "This layout is not supported yet");
}

std::string readable(std::uint32_t code) {
    std::string text;
    for (int i = 0; i < 4; ++i) {
        const auto c = static_cast<char>(code >> (8 * i) & 0xFF);
        text += c >= 32 && c < 127 ? c : '?';
    }
    return text;
}

}  // namespace

KindTraits DdsKind::traits() const { return {.keeps_levels = true, .extensions = {"dds"}, .marks = {"DDS "}}; }

bool DdsKind::recognize(ByteSpan head, std::string_view) const {
    return head.size() >= 4 && load_le<std::uint32_t>(head.data()) == four("DDS ");
}

Result<TextureLayout> DdsKind::layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const {
    if (data.size() < legacy_header)
        return fail_at(ErrorCode::damaged, data.size(), phrase("header: needs {} bytes, has {}", legacy_header, data.size()));
    const auto word = [&](std::size_t at) { return load_le<std::uint32_t>(data.data() + at); };
    if (word(4) != 124 || word(76) != 32)
        return fail_at(ErrorCode::damaged, word(4) != 124 ? 4 : 76, "header: its size fields must be 124 and 32",
                       "The file is damaged, or no DDS file");
    TextureLayout out;
    auto& d = out.desc;
    d.height = word(12);
    d.width = word(16);
    d.mips = std::max(1u, word(28));
    const auto pf_flags = word(80), code = word(84), caps2 = word(112);
    std::uint64_t payload = legacy_header;
    if (pf_flags & pf_four_cc && code == four("DX10")) {
        if (data.size() < dx10_header)
            return fail_at(ErrorCode::damaged, legacy_header, phrase("DX10 header: needs 20 bytes, has {}", data.size() - legacy_header));
        payload = dx10_header;
        const auto dxgi = word(128), dimension = word(132), misc = word(136);
        for (const auto& known : dxgi_formats) {
            if (dxgi != 0 && known.plain == dxgi) d.format = known.format, d.color = known.srgb ? ColorSpace::linear : ColorSpace::unknown;
            if (dxgi != 0 && known.srgb == dxgi) d.format = known.format, d.color = ColorSpace::srgb;
            if (dxgi != 0 && known.typeless == dxgi) d.format = known.format;
        }
        if (d.format == Format::unknown)
            return fail_at(ErrorCode::unsupported, 128, phrase("DXGI format {}", dxgi), "This pixel format is not supported yet");
        d.layers = word(140);
        if (misc & 4) d.faces = 6;
        if (dimension == 4) d.depth = word(24);
    } else if (pf_flags & pf_four_cc) {
        for (const auto& known : four_ccs)
            if (known.code == code) d.format = known.format;
        if (d.format == Format::unknown)
            return fail_at(ErrorCode::unsupported, 84, phrase("pixel format \"{}\" ({})", readable(code), code),
                           "This pixel format is not supported yet");
    } else {
        SKIVET_TRY(d.format, format_of_masks(pf_flags, word(88), {word(92), word(96), word(100), word(104)}));
    }
    if (payload == legacy_header && caps2 & caps2_cube) {
        d.faces = 0;
        for (std::uint32_t bit = 0x400; bit <= 0x8000; bit <<= 1)
            if (caps2 & caps2_faces & bit) ++d.faces;
        if (d.faces == 0) d.faces = 6;
    }
    if (payload == legacy_header && caps2 & caps2_volume) d.depth = std::max(1u, word(24));
    SKIVET_CHECK(check_desc(d, limits));
    std::uint64_t end = 0;
    out.surfaces = lay_out(d, payload, MipOrder::largest_first, 1, end);
    SKIVET_CHECK(accept_cut_off(out, payload, end, file_size));
    return out;
}

bool DdsKind::can_reformat(const TextureLayout& layout, Format format) const {
    auto d = layout.desc;
    d.format = format;
    return can_resize(layout) && write_dds(d, {}).has_value();
}

Result<Bytes> DdsKind::resized(ByteSpan file, const TextureLayout& layout, const TextureDesc& d, ByteSpan payload) const {
    // What stands behind the levels is nobody's that we know; it stays behind them.
    std::uint64_t end = 0;
    for (const auto& surface : layout.surfaces) end = std::max(end, surface.offset + surface.size);
    const auto behind = file.subspan(static_cast<std::size_t>(std::min<std::uint64_t>(end, file.size())));
    if (d.format != layout.desc.format) {
        SKIVET_TRY(auto out, write_dds(d, payload));
        // The reserved words: tools leave marks of theirs in them.
        constexpr std::size_t reserved = 32, reserved_bytes = 44;
        std::copy_n(file.begin() + reserved, reserved_bytes, out.begin() + reserved);
        out.insert(out.end(), behind.begin(), behind.end());
        return out;
    }
    const auto start = layout.surfaces.front().offset;
    SKIVET_TRY(const auto head, slice(file, 0, start));
    Bytes out(head.begin(), head.end());
    const auto word = [&](std::size_t at) { return load_le<std::uint32_t>(out.data() + at); };
    const auto put = [&](std::size_t at, std::uint32_t value) { store_le(out.data() + at, value); };
    put(12, d.height);
    put(16, d.width);
    // Many writers leave the pitch or the size of level 0 at 0; then it stays so.
    constexpr std::uint32_t linear_size = 0x80000, mip_count = 0x20000, mipmap_caps = 0x400000;
    if (word(20) != 0)
        put(20, word(8) & linear_size ? static_cast<std::uint32_t>(level_bytes(d.format, d.width, d.height))
                                      : static_cast<std::uint32_t>(level_bytes(d.format, d.width, 1)));
    if (d.mips != layout.desc.mips) {
        put(28, d.mips);
        put(8, d.mips > 1 ? word(8) | mip_count : word(8));
        put(108, d.mips > 1 ? word(108) | mipmap_caps | 8u : word(108));
    }
    out.insert(out.end(), payload.begin(), payload.end());
    out.insert(out.end(), behind.begin(), behind.end());
    return out;
}

Result<Bytes> write_dds(const TextureDesc& d, ByteSpan payload) {
    const auto& f = info(d.format);
    if (d.format == Format::unknown) return fail(ErrorCode::unsupported, "the pixel format is unknown");
    const auto* dxgi = dxgi_of(d.format);
    const auto code = four_cc_of(d.format);
    const bool says_color = dxgi && dxgi->srgb && d.color != ColorSpace::unknown;
    const bool legacy = d.layers == 1 && !says_color && (code != 0 || has_masks(f));
    if (!legacy && !dxgi)
        return fail(ErrorCode::unsupported,
                    d.layers > 1 ? phrase("a DDS file cannot hold an array of {}", f.name) : phrase("a DDS file cannot hold {}", f.name),
                    "KTX2 can");
    const bool dx10 = !legacy;
    Bytes out(dx10 ? dx10_header : legacy_header);
    const auto put = [&](std::size_t at, std::uint32_t value) { store_le(out.data() + at, value); };
    put(0, four("DDS "));
    put(4, 124);
    const bool blocks = f.block_compressed();
    put(8, 0x1007u | (d.mips > 1 ? 0x20000u : 0u) | (blocks ? 0x80000u : 0x8u) | (d.depth > 1 ? 0x800000u : 0u));
    put(12, d.height);
    put(16, d.width);
    put(20, blocks ? static_cast<std::uint32_t>(level_bytes(d.format, d.width, d.height)) : d.width * f.block_bytes);
    put(24, d.depth > 1 ? d.depth : 0);
    put(28, d.mips);
    put(76, 32);
    if (dx10) {
        put(80, pf_four_cc);
        put(84, four("DX10"));
    } else if (code) {
        put(80, pf_four_cc);
        put(84, code);
    } else {
        const bool only_alpha = d.format == Format::A8;
        put(80, f.is_signed() ? pf_bump
                : only_alpha  ? pf_alpha
                              : (f.luminance ? pf_luminance : pf_rgb) | (f.alpha.bits ? pf_alpha_pixels : 0u));
        put(88, f.block_bytes * 8u);
        put(92, mask_of(f.red));
        put(96, mask_of(f.green));
        put(100, mask_of(f.blue));
        put(104, mask_of(f.alpha));
    }
    put(108, 0x1000u | (d.mips > 1 ? 0x400008u : 0u) | (d.faces > 1 || d.depth > 1 ? 0x8u : 0u));
    if (d.faces > 1) put(112, caps2_cube | (0xFC00u & ((0x400u << d.faces) - 0x400u)));
    if (d.depth > 1) put(112, caps2_volume);
    if (dx10) {
        put(128, d.color == ColorSpace::srgb && dxgi->srgb ? dxgi->srgb : dxgi->plain);
        put(132, d.depth > 1 ? 4 : 3);
        put(136, d.faces == 6 ? 4 : 0);
        put(140, d.layers);
    }
    out.insert(out.end(), payload.begin(), payload.end());
    return out;
}

}  // namespace skivet

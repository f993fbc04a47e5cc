#include "texture/dds.h"

#include <fmt/format.h>

namespace skivet {
namespace {

constexpr std::uint32_t four(const char (&text)[5]) {
    return static_cast<std::uint32_t>(static_cast<unsigned char>(text[0])) | static_cast<std::uint32_t>(static_cast<unsigned char>(text[1])) << 8 |
           static_cast<std::uint32_t>(static_cast<unsigned char>(text[2])) << 16 | static_cast<std::uint32_t>(static_cast<unsigned char>(text[3])) << 24;
}

constexpr std::size_t legacy_header = 128;   // magic and DDS_HEADER
constexpr std::size_t dx10_header = 148;     // and DDS_HEADER_DXT10
constexpr std::uint32_t pf_alpha_pixels = 0x1, pf_alpha = 0x2, pf_four_cc = 0x4, pf_rgb = 0x40, pf_luminance = 0x20000;
constexpr std::uint32_t caps2_cube = 0x200, caps2_faces = 0xFC00, caps2_volume = 0x200000;

struct FourCc {
    std::uint32_t code;
    Format format;
};
// Where several codes mean one format the last one is written. "ATI2" is BC5 in the DDS programming guide; some readers (ffmpeg among them)
// take its two channels in the other order, so it is read but "BC5U", which all read alike, is written.
constexpr FourCc four_ccs[] = {{four("DXT1"), Format::BC1}, {four("DXT2"), Format::BC2}, {four("DXT3"), Format::BC2},
                               {four("DXT4"), Format::BC3}, {four("DXT5"), Format::BC3}, {four("ATI1"), Format::BC4},
                               {four("BC4U"), Format::BC4}, {four("ATI2"), Format::BC5}, {four("BC5U"), Format::BC5}};

std::uint32_t mask_of(ChannelBits c) { return c.bits ? ((c.bits == 32 ? 0u : 1u << c.bits) - 1) << c.shift : 0; }

Result<Format> format_of_masks(std::uint32_t flags, std::uint32_t bits, const std::array<std::uint32_t, 4>& masks) {
    for (const auto& f : all_formats()) {
        if (f.block_compressed() || f.block_bytes * 8u != bits) continue;
        const bool luminance = (flags & pf_luminance) != 0;
        const bool only_alpha = (flags & pf_alpha) != 0 && !(flags & (pf_rgb | pf_luminance));
        if (only_alpha) {
            if (f.format == Format::A8) return f.format;
            continue;
        }
        if (luminance != f.luminance) {
            continue;
        }
        const auto alpha = flags & (pf_alpha_pixels | pf_alpha) ? masks[3] : 0u;
        // Files by some writers state no green and blue mask for luminance, others repeat the red one.
        if (mask_of(f.red) == masks[0] && mask_of(f.alpha) == alpha &&
            (luminance || (mask_of(f.green) == masks[1] && mask_of(f.blue) == masks[2])))
            return f.format;
    }
    // RGBX with unused bits: the same texels, alpha not stated.
    if (bits == 32 && masks[0] == 0xFF && masks[1] == 0xFF00 && masks[2] == 0xFF0000) return Format::RGBA8;
    if (bits == 16 && masks[0] == 0x7C00 && masks[1] == 0x3E0 && masks[2] == 0x1F) return Format::B5G5R5A1;
    if (bits == 16 && masks[0] == 0xF00 && masks[1] == 0xF0 && masks[2] == 0xF) return Format::BGRA4;
    return fail_at(ErrorCode::unsupported, 76,
                   fmt::format("pixel format: {} bits with masks {:08x} {:08x} {:08x} {:08x}", bits, masks[0], masks[1], masks[2], masks[3]),
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

bool DdsKind::recognize(ByteSpan head, std::string_view) const {
    return head.size() >= 4 && load_le<std::uint32_t>(head.data()) == four("DDS ");
}

Result<TextureLayout> DdsKind::layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const {
    if (data.size() < legacy_header)
        return fail_at(ErrorCode::damaged, data.size(), fmt::format("header: needs {} bytes, has {}", legacy_header, data.size()));
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
            return fail_at(ErrorCode::damaged, legacy_header, fmt::format("DX10 header: needs 20 bytes, has {}", data.size() - legacy_header));
        payload = dx10_header;
        const auto dxgi = word(128), dimension = word(132), misc = word(136);
        for (const auto& f : all_formats()) {
            if (f.dxgi && f.dxgi == dxgi) d.format = f.format, d.color = f.may_be_srgb ? ColorSpace::linear : ColorSpace::unknown;
            if (f.dxgi_srgb && f.dxgi_srgb == dxgi) d.format = f.format, d.color = ColorSpace::srgb;
        }
        if (d.format == Format::unknown)
            return fail_at(ErrorCode::unsupported, 128, fmt::format("DXGI format {}", dxgi), "This pixel format is not supported yet");
        d.layers = word(140);
        if (misc & 4) d.faces = 6;
        if (dimension == 4) d.depth = word(24);
    } else if (pf_flags & pf_four_cc) {
        for (const auto& known : four_ccs)
            if (known.code == code) d.format = known.format;
        if (d.format == Format::unknown)
            return fail_at(ErrorCode::unsupported, 84, fmt::format("pixel format \"{}\" ({})", readable(code), code),
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
    if (end > file_size)
        return fail_at(ErrorCode::damaged, payload,
                       fmt::format("mip chain: needs {} bytes, has {}", grouped(end - payload), grouped(file_size - std::min(payload, file_size))),
                       "The file is cut off or its header is damaged");
    return out;
}

Result<Bytes> write_dds(const TextureDesc& d, ByteSpan payload) {
    const auto& f = info(d.format);
    if (d.format == Format::unknown) return fail(ErrorCode::unsupported, "the pixel format is unknown");
    const bool dx10 = d.layers > 1 || (d.color == ColorSpace::srgb && f.dxgi_srgb) || (d.color == ColorSpace::linear && f.may_be_srgb && f.dxgi);
    if (dx10 && !f.dxgi) return fail(ErrorCode::unsupported, fmt::format("a DDS file cannot hold an array of {}", f.name));
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
    } else if (blocks) {
        std::uint32_t code = 0;
        for (const auto& known : four_ccs)
            if (known.format == d.format) code = known.code;
        put(80, pf_four_cc);
        put(84, code);
    } else {
        const bool only_alpha = d.format == Format::A8;
        put(80, only_alpha ? pf_alpha : (f.luminance ? pf_luminance : pf_rgb) | (f.alpha.bits ? pf_alpha_pixels : 0u));
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
        put(128, d.color == ColorSpace::srgb && f.dxgi_srgb ? f.dxgi_srgb : f.dxgi);
        put(132, d.depth > 1 ? 4 : 3);
        put(136, d.faces == 6 ? 4 : 0);
        put(140, d.layers);
    }
    out.insert(out.end(), payload.begin(), payload.end());
    return out;
}

}  // namespace skivet

#include "pixel/format.h"

#include <algorithm>
#include <array>
#include <bit>

namespace skivet {
namespace {

using enum Numeric;
constexpr ChannelBits none{};

constexpr FormatInfo block(Format f, std::string_view name, std::uint8_t width, std::uint8_t height, std::uint8_t bytes,
                           std::uint8_t channels, bool srgb, Numeric numeric = unorm, bool wide = false) {
    return {f, name, width, height, bytes, channels, channels == 4, srgb, false, wide, numeric, none, none, none, none};
}
#define SKIVET_BLOCK(NAME, ...) block(Format::NAME, #NAME, __VA_ARGS__)
#define SKIVET_ASTC(W, H) block(Format::ASTC_##W##x##H, "ASTC_" #W "x" #H, W, H, 16, 4, true)
#define SKIVET_ASTC_HDR(W, H) block(Format::ASTC_##W##x##H##_HDR, "ASTC_" #W "x" #H "_HDR", W, H, 16, 4, false, sfloat, true)

/// Channels one behind the other, `bits` each, the first in the lowest bits.
constexpr FormatInfo row(Format f, std::string_view name, std::uint8_t channels, std::uint8_t bits, Numeric numeric, bool srgb = false) {
    const auto at = [&](std::uint8_t i) { return i < channels ? ChannelBits{static_cast<std::uint8_t>(i * bits), bits} : none; };
    return {f,        name,          1,     1,     static_cast<std::uint8_t>(channels * bits / 8),
            channels, channels == 4, srgb,  false, bits > 8 || numeric == sfloat,
            numeric,  at(0),         at(1), at(2), at(3)};
}
#define SKIVET_ROW(NAME, ...) row(Format::NAME, #NAME, __VA_ARGS__)

/// Channels anywhere in the texel.
constexpr FormatInfo packed(Format f, std::string_view name, std::uint8_t bytes, ChannelBits r, ChannelBits g, ChannelBits b, ChannelBits a,
                            bool srgb = false, bool luminance = false, Numeric numeric = unorm) {
    const auto channels = static_cast<std::uint8_t>((r.bits > 0) + (g.bits > 0) + (b.bits > 0) + (a.bits > 0));
    const bool wide = std::max({r.bits, g.bits, b.bits, a.bits}) > 8;
    return {f, name, 1, 1, bytes, channels, a.bits > 0, srgb, luminance, wide, numeric, r, g, b, a};
}
#define SKIVET_PACKED(NAME, ...) packed(Format::NAME, #NAME, __VA_ARGS__)

// clang-format off
constexpr FormatInfo formats[] = {
    {Format::unknown, "unknown", 1, 1, 0, 0, false, false, false, false, unorm, none, none, none, none},
    SKIVET_BLOCK(BC1, 4, 4, 8, 4, true).ranked(1),
    SKIVET_BLOCK(BC2, 4, 4, 16, 4, true).ranked(10),
    SKIVET_BLOCK(BC3, 4, 4, 16, 4, true).ranked(2),
    SKIVET_BLOCK(BC4, 4, 4, 8, 1, false).ranked(7),
    SKIVET_BLOCK(BC4_SNORM, 4, 4, 8, 1, false, snorm),
    SKIVET_BLOCK(BC5, 4, 4, 16, 2, false).ranked(6),
    SKIVET_BLOCK(BC5_SNORM, 4, 4, 16, 2, false, snorm),
    SKIVET_BLOCK(BC6H, 4, 4, 16, 3, false, ufloat, true).ranked(16),
    SKIVET_BLOCK(BC6H_SF16, 4, 4, 16, 3, false, sfloat, true),
    SKIVET_BLOCK(BC7, 4, 4, 16, 4, true).ranked(3),
    SKIVET_BLOCK(ETC1, 4, 4, 8, 3, false),
    SKIVET_BLOCK(ETC2_RGB, 4, 4, 8, 3, true).ranked(17),
    SKIVET_BLOCK(ETC2_RGBA1, 4, 4, 8, 4, true),
    SKIVET_BLOCK(ETC2_RGBA, 4, 4, 16, 4, true).ranked(18),
    SKIVET_BLOCK(EAC_R, 4, 4, 8, 1, false, unorm, true),
    SKIVET_BLOCK(EAC_R_SNORM, 4, 4, 8, 1, false, snorm, true),
    SKIVET_BLOCK(EAC_RG, 4, 4, 16, 2, false, unorm, true),
    SKIVET_BLOCK(EAC_RG_SNORM, 4, 4, 16, 2, false, snorm, true),
    SKIVET_ASTC(4, 4).ranked(19), SKIVET_ASTC(5, 4), SKIVET_ASTC(5, 5), SKIVET_ASTC(6, 5), SKIVET_ASTC(6, 6), SKIVET_ASTC(8, 5), SKIVET_ASTC(8, 6),
    SKIVET_ASTC(8, 8), SKIVET_ASTC(10, 5), SKIVET_ASTC(10, 6), SKIVET_ASTC(10, 8), SKIVET_ASTC(10, 10), SKIVET_ASTC(12, 10), SKIVET_ASTC(12, 12),
    SKIVET_ASTC_HDR(4, 4), SKIVET_ASTC_HDR(5, 4), SKIVET_ASTC_HDR(5, 5), SKIVET_ASTC_HDR(6, 5), SKIVET_ASTC_HDR(6, 6), SKIVET_ASTC_HDR(8, 5),
    SKIVET_ASTC_HDR(8, 6), SKIVET_ASTC_HDR(8, 8), SKIVET_ASTC_HDR(10, 5), SKIVET_ASTC_HDR(10, 6), SKIVET_ASTC_HDR(10, 8),
    SKIVET_ASTC_HDR(10, 10), SKIVET_ASTC_HDR(12, 10), SKIVET_ASTC_HDR(12, 12),
    SKIVET_ROW(RGBA8, 4, 8, unorm, true).ranked(4),
    SKIVET_PACKED(BGRA8, 4, {16, 8}, {8, 8}, {0, 8}, {24, 8}, true).ranked(5),
    SKIVET_PACKED(RGBX8, 4, {0, 8}, {8, 8}, {16, 8}, none, true),
    SKIVET_PACKED(BGRX8, 4, {16, 8}, {8, 8}, {0, 8}, none, true),
    SKIVET_ROW(RGB8, 3, 8, unorm, true).ranked(8),
    SKIVET_PACKED(BGR8, 3, {16, 8}, {8, 8}, {0, 8}, none, true),
    SKIVET_ROW(R8, 1, 8, unorm).ranked(9),
    SKIVET_ROW(RG8, 2, 8, unorm).ranked(11),
    SKIVET_PACKED(A8, 1, none, none, none, {0, 8}),
    SKIVET_PACKED(L8, 1, {0, 8}, none, none, none, true, true),
    SKIVET_PACKED(LA8, 2, {0, 8}, none, none, {8, 8}, true, true),
    SKIVET_PACKED(LA4, 1, {0, 4}, none, none, {4, 4}, false, true),
    SKIVET_ROW(R8_SNORM, 1, 8, snorm),
    SKIVET_ROW(RG8_SNORM, 2, 8, snorm),
    SKIVET_ROW(RGBA8_SNORM, 4, 8, snorm),
    SKIVET_ROW(R8_UINT, 1, 8, uint),
    SKIVET_ROW(RG8_UINT, 2, 8, uint),
    SKIVET_ROW(RGBA8_UINT, 4, 8, uint),
    SKIVET_ROW(R8_SINT, 1, 8, sint),
    SKIVET_ROW(RG8_SINT, 2, 8, sint),
    SKIVET_ROW(RGBA8_SINT, 4, 8, sint),
    SKIVET_PACKED(R3G3B2, 1, {5, 3}, {2, 3}, {0, 2}, none),
    SKIVET_PACKED(B5G6R5, 2, {11, 5}, {5, 6}, {0, 5}, none).ranked(12),
    SKIVET_PACKED(B5G5R5A1, 2, {10, 5}, {5, 5}, {0, 5}, {15, 1}),
    SKIVET_PACKED(A1B5G5R5, 2, {11, 5}, {6, 5}, {1, 5}, {0, 1}),
    SKIVET_PACKED(BGRA4, 2, {8, 4}, {4, 4}, {0, 4}, {12, 4}).ranked(13),
    SKIVET_PACKED(ABGR4, 2, {12, 4}, {8, 4}, {4, 4}, {0, 4}),
    SKIVET_ROW(R16, 1, 16, unorm).ranked(15),
    SKIVET_ROW(RG16, 2, 16, unorm),
    SKIVET_ROW(RGB16, 3, 16, unorm),
    SKIVET_ROW(RGBA16, 4, 16, unorm).ranked(21),
    SKIVET_PACKED(L16, 2, {0, 16}, none, none, none, false, true),
    SKIVET_PACKED(LA16, 4, {0, 16}, none, none, {16, 16}, false, true),
    SKIVET_ROW(R16_SNORM, 1, 16, snorm),
    SKIVET_ROW(RG16_SNORM, 2, 16, snorm),
    SKIVET_ROW(RGBA16_SNORM, 4, 16, snorm),
    SKIVET_ROW(R16_UINT, 1, 16, uint),
    SKIVET_ROW(RG16_UINT, 2, 16, uint),
    SKIVET_ROW(RGBA16_UINT, 4, 16, uint),
    SKIVET_ROW(R16_SINT, 1, 16, sint),
    SKIVET_ROW(RG16_SINT, 2, 16, sint),
    SKIVET_ROW(RGBA16_SINT, 4, 16, sint),
    SKIVET_ROW(R16F, 1, 16, sfloat).ranked(20),
    SKIVET_ROW(RG16F, 2, 16, sfloat),
    SKIVET_ROW(RGB16F, 3, 16, sfloat),
    SKIVET_ROW(RGBA16F, 4, 16, sfloat).ranked(14),
    SKIVET_ROW(R32_UINT, 1, 32, uint),
    SKIVET_ROW(RG32_UINT, 2, 32, uint),
    SKIVET_ROW(RGB32_UINT, 3, 32, uint),
    SKIVET_ROW(RGBA32_UINT, 4, 32, uint),
    SKIVET_ROW(R32_SINT, 1, 32, sint),
    SKIVET_ROW(RG32_SINT, 2, 32, sint),
    SKIVET_ROW(RGB32_SINT, 3, 32, sint),
    SKIVET_ROW(RGBA32_SINT, 4, 32, sint),
    SKIVET_ROW(R32F, 1, 32, sfloat),
    SKIVET_ROW(RG32F, 2, 32, sfloat),
    SKIVET_ROW(RGB32F, 3, 32, sfloat),
    SKIVET_ROW(RGBA32F, 4, 32, sfloat),
    SKIVET_PACKED(RGB10A2, 4, {0, 10}, {10, 10}, {20, 10}, {30, 2}),
    SKIVET_PACKED(BGR10A2, 4, {20, 10}, {10, 10}, {0, 10}, {30, 2}),
    SKIVET_PACKED(RGB10A2_UINT, 4, {0, 10}, {10, 10}, {20, 10}, {30, 2}, false, false, uint),
    SKIVET_PACKED(R11G11B10F, 4, {0, 11}, {11, 11}, {22, 10}, none, false, false, ufloat),
    SKIVET_PACKED(RGB9E5, 4, {0, 9}, {9, 9}, {18, 9}, none, false, false, ufloat),
};
// clang-format on

// info() takes the enumerator as the index.
constexpr bool in_order() {
    for (std::size_t i = 0; i < std::size(formats); ++i)
        if (static_cast<std::size_t>(formats[i].format) != i) return false;
    return true;
}
static_assert(in_order());

// Other names in common use (common practice; DXGI's and the older four-character codes).
// clang-format off
constexpr std::pair<std::string_view, Format> spellings[] = {
    {"DXT1", Format::BC1}, {"DXT3", Format::BC2}, {"DXT5", Format::BC3}, {"ATI1", Format::BC4}, {"ATI2", Format::BC5},
    {"BC6H_UF16", Format::BC6H}, {"BC6H_SNORM", Format::BC6H_SF16}, {"B8G8R8A8", Format::BGRA8}, {"R8G8B8A8", Format::RGBA8},
};
// clang-format on

}  // namespace

std::span<const FormatInfo> all_formats() { return std::span(formats).subspan(1); }

const FormatInfo& info(Format format) {
    const auto index = static_cast<std::size_t>(format);
    return formats[index < std::size(formats) ? index : 0];
}

std::vector<Format> formats_by_use() {
    std::vector<const FormatInfo*> rows;
    for (const auto& f : all_formats())
        if (f.format != Format::unknown) rows.push_back(&f);
    std::stable_sort(rows.begin(), rows.end(), [](const FormatInfo* a, const FormatInfo* b) {
        const auto rank = [](const FormatInfo* f) { return f->common ? f->common : 256; };
        return rank(a) < rank(b);
    });
    std::vector<Format> out;
    for (const auto* f : rows) out.push_back(f->format);
    return out;
}

std::optional<Format> format_named(std::string_view name) {
    const auto same = [](char a, char b) { return (a >= 'a' && a <= 'z' ? a - 32 : a) == (b >= 'a' && b <= 'z' ? b - 32 : b); };
    for (const auto& entry : all_formats())
        if (std::equal(entry.name.begin(), entry.name.end(), name.begin(), name.end(), same)) return entry.format;
    for (const auto& [other, format] : spellings)
        if (std::equal(other.begin(), other.end(), name.begin(), name.end(), same)) return format;
    return std::nullopt;
}

std::uint64_t level_bytes(Format format, std::uint32_t width, std::uint32_t height) {
    const auto& f = info(format);
    const std::uint64_t across = (std::uint64_t{width} + f.block_width - 1) / f.block_width;
    const std::uint64_t down = (std::uint64_t{height} + f.block_height - 1) / f.block_height;
    return across * down * f.block_bytes;
}

std::uint32_t full_mip_count(std::uint32_t width, std::uint32_t height, std::uint32_t depth) {
    return static_cast<std::uint32_t>(std::bit_width(std::max({width, height, depth, 1u})));
}

std::string_view name_of(ColorSpace color) {
    return color == ColorSpace::srgb ? "srgb" : color == ColorSpace::linear ? "linear" : "unknown";
}

}  // namespace skivet

#pragma once
// One table of pixel formats. Names are those of the command line and the window.
#include <cstdint>
#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace skivet {

// clang-format off
enum class Format : std::uint8_t {
    unknown,
    BC1, BC2, BC3, BC4, BC4_SNORM, BC5, BC5_SNORM, BC6H, BC6H_SF16, BC7,
    ETC1, ETC2_RGB, ETC2_RGBA1, ETC2_RGBA, EAC_R, EAC_R_SNORM, EAC_RG, EAC_RG_SNORM,
    ASTC_4x4, ASTC_5x4, ASTC_5x5, ASTC_6x5, ASTC_6x6, ASTC_8x5, ASTC_8x6, ASTC_8x8, ASTC_10x5, ASTC_10x6, ASTC_10x8, ASTC_10x10,
    ASTC_12x10, ASTC_12x12,
    ASTC_4x4_HDR, ASTC_5x4_HDR, ASTC_5x5_HDR, ASTC_6x5_HDR, ASTC_6x6_HDR, ASTC_8x5_HDR, ASTC_8x6_HDR, ASTC_8x8_HDR, ASTC_10x5_HDR,
    ASTC_10x6_HDR, ASTC_10x8_HDR, ASTC_10x10_HDR, ASTC_12x10_HDR, ASTC_12x12_HDR,
    RGBA8, BGRA8, RGBX8, BGRX8, RGB8, BGR8, R8, RG8, A8, L8, LA8, LA4,
    R8_SNORM, RG8_SNORM, RGBA8_SNORM, R8_UINT, RG8_UINT, RGBA8_UINT, R8_SINT, RG8_SINT, RGBA8_SINT,
    R3G3B2, B5G6R5, B5G5R5A1, A1B5G5R5, BGRA4, ABGR4,
    R16, RG16, RGB16, RGBA16, L16, LA16, R16_SNORM, RG16_SNORM, RGBA16_SNORM,
    R16_UINT, RG16_UINT, RGBA16_UINT, R16_SINT, RG16_SINT, RGBA16_SINT,
    R16F, RG16F, RGB16F, RGBA16F,
    R32_UINT, RG32_UINT, RGB32_UINT, RGBA32_UINT, R32_SINT, RG32_SINT, RGB32_SINT, RGBA32_SINT,
    R32F, RG32F, RGB32F, RGBA32F,
    RGB10A2, BGR10A2, RGB10A2_UINT, R11G11B10F, RGB9E5,
};
// clang-format on

/// Where a channel's bits are inside a little-endian texel; bits == 0: the channel is not stored.
struct ChannelBits {
    std::uint8_t shift = 0;
    std::uint8_t bits = 0;
};

/// What a channel's stored value means (Khronos Data Format Specification 1.3, section 5; Vulkan "Identification of Formats").
enum class Numeric : std::uint8_t {
    unorm,  ///< 0…1 in steps of 1 / (2^bits - 1)
    snorm,  ///< -1…1; the most negative code means -1 too
    uint,   ///< the integer itself
    sint,
    ufloat,  ///< no sign: 5 bits of exponent, the rest mantissa; or the shared exponent of RGB9E5
    sfloat,  ///< half or single precision
};

struct FormatInfo {
    Format format;
    std::string_view name;
    std::uint8_t block_width;  ///< texels; 1 for uncompressed formats
    std::uint8_t block_height;
    std::uint8_t block_bytes;  ///< bytes of one block or texel
    std::uint8_t channels;     ///< stored: 1 R (or luminance, or A), 2 RG (or luminance and alpha), 3 RGB, 4 RGBA
    bool has_alpha;
    bool may_be_srgb;  ///< a color format that has an sRGB variant in the APIs
    bool luminance;    ///< the red bits stand for red, green and blue
    bool wide;         ///< 8 bits a channel do not hold it: decode_wide is the whole truth, decode a view of it
    Numeric numeric;
    ChannelBits red, green, blue, alpha;  ///< uncompressed only
    std::uint8_t common = 0;              ///< 1: what games use most, 2: next to it …; 0: rare. Lists begin with the common ones

    [[nodiscard]] constexpr bool block_compressed() const { return block_width > 1; }
    [[nodiscard]] constexpr bool is_float() const { return numeric == Numeric::ufloat || numeric == Numeric::sfloat; }
    [[nodiscard]] constexpr bool is_integer() const { return numeric == Numeric::uint || numeric == Numeric::sint; }
    /// The same row with a rank.
    [[nodiscard]] constexpr FormatInfo ranked(std::uint8_t rank) const {
        auto out = *this;
        out.common = rank;
        return out;
    }
    [[nodiscard]] constexpr bool is_signed() const {
        return numeric == Numeric::snorm || numeric == Numeric::sint || numeric == Numeric::sfloat;
    }
};

[[nodiscard]] std::span<const FormatInfo> all_formats();
[[nodiscard]] const FormatInfo& info(Format format);
/// All but `unknown`: the common ones by their rank, then the others in the order of the table.
[[nodiscard]] std::vector<Format> formats_by_use();
/// Case-insensitive; other common spellings are known too (DXT1, BC6H_UF16, …). nullopt when there is no such name.
[[nodiscard]] std::optional<Format> format_named(std::string_view name);
[[nodiscard]] constexpr bool is_astc(Format f) { return f >= Format::ASTC_4x4 && f <= Format::ASTC_12x12_HDR; }
[[nodiscard]] constexpr bool is_astc_hdr(Format f) { return f >= Format::ASTC_4x4_HDR && f <= Format::ASTC_12x12_HDR; }

/// Bytes of one level: ceil(w / block_width) × ceil(h / block_height) × block_bytes.
[[nodiscard]] std::uint64_t level_bytes(Format format, std::uint32_t width, std::uint32_t height);
[[nodiscard]] constexpr std::uint32_t mip_side(std::uint32_t side, std::uint32_t level) { return side >> level ? side >> level : 1u; }
/// Levels down to 1×1: floor(log2(max(w, h, d))) + 1.
[[nodiscard]] std::uint32_t full_mip_count(std::uint32_t width, std::uint32_t height, std::uint32_t depth = 1);

enum class ColorSpace : std::uint8_t { unknown, linear, srgb };
[[nodiscard]] std::string_view name_of(ColorSpace color);

}  // namespace skivet

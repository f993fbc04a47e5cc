#pragma once
// One table of pixel formats. Names are those of the command line and the window.
#include <cstdint>
#include <optional>
#include <span>
#include <string_view>

namespace skivet {

enum class Format : std::uint8_t {
    unknown,
    BC1, BC2, BC3, BC4, BC5,
    RGBA8, BGRA8, BGRX8, RGB8, BGR8, R8, RG8, A8, L8, LA8,
    B5G6R5, B5G5R5A1, BGRA4,
};

/// Where a channel's bits are inside a little-endian texel; bits == 0: the channel is not stored.
struct ChannelBits {
    std::uint8_t shift = 0;
    std::uint8_t bits = 0;
};

struct FormatInfo {
    Format format;
    std::string_view name;
    std::uint8_t block_width;    ///< texels; 1 for uncompressed formats
    std::uint8_t block_height;
    std::uint8_t block_bytes;    ///< bytes of one block or texel
    bool has_alpha;
    bool may_be_srgb;            ///< a color format that has an sRGB variant in the APIs
    bool luminance;              ///< the red bits stand for red, green and blue
    ChannelBits red, green, blue, alpha;  ///< uncompressed only
    std::uint32_t dxgi;          ///< DXGI_FORMAT (UNORM), 0: none
    std::uint32_t dxgi_srgb;     ///< DXGI_FORMAT (UNORM_SRGB), 0: none

    [[nodiscard]] constexpr bool block_compressed() const { return block_width > 1; }
};

[[nodiscard]] std::span<const FormatInfo> all_formats();
[[nodiscard]] const FormatInfo& info(Format format);
/// Case-insensitive; nullopt when there is no such name.
[[nodiscard]] std::optional<Format> format_named(std::string_view name);

/// Bytes of one level: ceil(w / block_width) × ceil(h / block_height) × block_bytes.
[[nodiscard]] std::uint64_t level_bytes(Format format, std::uint32_t width, std::uint32_t height);
[[nodiscard]] constexpr std::uint32_t mip_side(std::uint32_t side, std::uint32_t level) {
    return side >> level ? side >> level : 1u;
}
/// Levels down to 1×1: floor(log2(max(w, h, d))) + 1.
[[nodiscard]] std::uint32_t full_mip_count(std::uint32_t width, std::uint32_t height, std::uint32_t depth = 1);

enum class ColorSpace : std::uint8_t { unknown, linear, srgb };
[[nodiscard]] std::string_view name_of(ColorSpace color);

}  // namespace skivet

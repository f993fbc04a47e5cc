#pragma once
// What KTX2 says about pixels: a VkFormat and a data format descriptor.
#include "texture/texture.h"

namespace skivet::ktx2 {

struct VkNumber {
    Format format;
    std::uint32_t plain, srgb;  ///< VkFormat; 0: there is none
};
/// nullptr when Vulkan has no such format (luminance, 24-bit BGR and the like have none).
[[nodiscard]] const VkNumber* vk_number(Format format);
/// The format and its color space: sRGB, linear for those that could be sRGB, otherwise unknown. Format::unknown when we have none.
[[nodiscard]] std::pair<Format, ColorSpace> from_vk(std::uint32_t number);

/// typeSize of the header: bytes a big-endian machine would have to swap together (KTX 2.0, section 3.2).
[[nodiscard]] std::uint32_t type_size(Format format);
/// The whole dfd section with its size field (KTX 2.0, section 3.10; Khronos Data Format Specification 1.3, section 5 and, for compressed
/// formats, section 5.6 and table 5.9 ff.).
[[nodiscard]] Bytes descriptor(Format format, ColorSpace color);
/// "ETC1S" or "UASTC" when the descriptor's color model is one of Basis Universal's, otherwise nothing.
[[nodiscard]] std::string_view basis_name(ByteSpan dfd);

}  // namespace skivet::ktx2

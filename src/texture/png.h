#pragma once
#include "texture/texture.h"

namespace skivet {

/// PNG (ISO/IEC 15948) through libspng. One surface; its format is R8, LA8, RGB8 or RGBA8 after the file's color type.
class PngKind final : public TextureKind {
public:
    [[nodiscard]] std::string name() const override { return "PNG"; }
    [[nodiscard]] bool recognize(ByteSpan head, std::string_view path) const override;
    [[nodiscard]] Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Image> decode(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    /// Same color type, and every chunk but the picture data as it was. Error `unsupported` for palette, 16-bit and interlaced files.
    [[nodiscard]] Result<Bytes> replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const override;
};

/// Any PNG as 8-bit RGBA (16-bit samples are rounded).
[[nodiscard]] Result<Image> read_png(ByteSpan file, const ReadLimits& limits);
/// The smallest of gray, RGB and RGBA at 8 bits that holds the picture without loss. `srgb` adds an sRGB chunk.
[[nodiscard]] Result<Bytes> write_png(const Image& image, bool srgb = false);

}  // namespace skivet

#pragma once
#include "texture/texture.h"

namespace skivet {

/// PNG (ISO/IEC 15948) through libspng. One surface; its format is L, LA, RGB or RGBA of 8 or 16 bits after the file's color type, RGB8 or
/// RGBA8 for palettes.
class PngKind final : public TextureKind {
public:
    [[nodiscard]] std::string name() const override { return "PNG"; }
    [[nodiscard]] KindTraits traits() const override;
    [[nodiscard]] std::optional<std::uint64_t> stated_size(ByteSpan data, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Painted> painted(ByteSpan file, const TextureLayout& layout, const ReadLimits& limits) const override;
    [[nodiscard]] bool recognize(ByteSpan head, std::string_view path) const override;
    [[nodiscard]] Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    [[nodiscard]] Result<Image> decode(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    [[nodiscard]] std::optional<Reduced> decode_small(ByteSpan file, const TextureLayout& layout, const Surface& surface,
                                                      std::uint32_t side) const override;
    /// Same color type and bit depth, and every chunk but the picture data as it was; a palette keeps its entries where the edit allows
    /// (see fit_palette). Interlaced files come back without interlacing. Error `unsupported` where one color stands for transparency.
    /// Where samples are whole bytes; a palette would have to be made anew.
    [[nodiscard]] bool can_resize(const TextureLayout& layout) const override;
    [[nodiscard]] Result<Bytes> resized(ByteSpan file, const TextureLayout& layout, const TextureDesc& desc,
                                        ByteSpan payload) const override;
    [[nodiscard]] Result<Bytes> replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const override;
};

/// Any PNG as 8-bit RGBA (16-bit samples are rounded).
[[nodiscard]] Result<Image> read_png(ByteSpan file, const ReadLimits& limits);
/// The values of a 16-bit PNG, 0…1; nothing for one of fewer bits.
[[nodiscard]] Result<std::optional<ImageF>> read_png_wide(ByteSpan file, const ReadLimits& limits);
/// 16 bits a sample: values 0…1, the smallest of gray, RGB and RGBA.
[[nodiscard]] Result<Bytes> write_png16(const ImageF& image, bool srgb = false);
/// The smallest of gray, RGB and RGBA at 8 bits that holds the picture without loss. `srgb` adds an sRGB chunk.
[[nodiscard]] Result<Bytes> write_png(const Image& image, bool srgb = false);

/// Numbers of 8 bits with their palette, entry for entry. Error `unfit` for no or more than 256 entries.
[[nodiscard]] Result<Bytes> write_png(const IndexedPicture& picture, bool srgb = false);

/// What a PNG file states (PNG 3rd edition, section 11.3.2): nothing and sRGB mean the same here, since textures with color are sRGB.
[[nodiscard]] Result<PictureColor> color_of_png(ByteSpan file);

}  // namespace skivet

#pragma once
#include "texture/texture.h"

namespace skivet {

/// TIFF 6.0 through libtiff, first picture: gray, RGB and RGBA of 8 and 16 bits, floats of 16 and 32 bits, palettes; any compression the
/// library has; strips and tiles.
class TiffKind final : public TextureKind {
public:
    [[nodiscard]] std::string name() const override { return "TIFF"; }
    [[nodiscard]] KindTraits traits() const override;
    [[nodiscard]] bool recognize(ByteSpan head, std::string_view path) const override;
    [[nodiscard]] Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    [[nodiscard]] Result<bool> read_bands(ByteSpan file, const TextureLayout& layout, const Surface& surface,
                                          const std::function<Status(ByteSpan bytes, std::uint32_t height)>& band) const override;
    /// Strips or tiles with a changed texel are written anew with the file's own compression, every other byte and tag stays. Palettes are
    /// only read.
    [[nodiscard]] Result<Bytes> replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const override;
};

/// RGB, or RGBA (unassociated alpha) where a texel is not opaque, of 8 or 16 bits; deflate with horizontal differences. 16-bit values are
/// 0…1.
[[nodiscard]] Result<Bytes> write_tiff(const Image& image);
[[nodiscard]] Result<Bytes> write_tiff16(const ImageF& image);

}  // namespace skivet

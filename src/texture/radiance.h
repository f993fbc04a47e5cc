#pragma once
#include "texture/texture.h"

namespace skivet {

/// Radiance RGBE pictures (G. Ward, "Real Pixels", Graphics Gems II, 1991; file format after the Radiance reference manual): flat, old and
/// new run-length encoding, both row orders. Texels are RGB floats, mantissa × 2^(exponent - 136).
class RadianceKind final : public TextureKind {
public:
    [[nodiscard]] std::string name() const override { return "HDR"; }
    [[nodiscard]] KindTraits traits() const override;
    [[nodiscard]] bool recognize(ByteSpan head, std::string_view path) const override;
    [[nodiscard]] Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    /// The header stays; rows without a change keep their bytes, and so do the texels of others.
    [[nodiscard]] Result<Image> decode(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    [[nodiscard]] Result<ImageF> decode_wide(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    [[nodiscard]] Result<Bytes> replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const override;

private:
    [[nodiscard]] Result<ImageF> picture_of(ByteSpan file, bool what_is_there) const;
};

/// RGBE nearest to a color; negative values and NaN become 0, too large ones the largest.
[[nodiscard]] std::array<std::uint8_t, 4> to_rgbe(const std::array<float, 3>& rgb);
[[nodiscard]] std::array<float, 3> from_rgbe(const std::array<std::uint8_t, 4>& rgbe);

}  // namespace skivet

#pragma once
#include "texture/texture.h"

namespace skivet {

/// WebP (RFC 9649) through libwebp: still pictures, lossy and lossless.
class WebpKind final : public TextureKind {
public:
    [[nodiscard]] std::string name() const override { return "WebP"; }
    [[nodiscard]] KindTraits traits() const override;
    [[nodiscard]] std::optional<std::uint64_t> stated_size(ByteSpan data, const ReadLimits& limits) const override;
    [[nodiscard]] bool recognize(ByteSpan head, std::string_view path) const override;
    [[nodiscard]] Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    /// Lossless stays lossless (color under zero alpha too), lossy stays lossy, at high quality since every texel is compressed again.
    /// Color profile and metadata chunks stay.
    [[nodiscard]] Result<Bytes> replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const override;
};

}  // namespace skivet

#pragma once
#include "texture/texture.h"

namespace skivet {

/// OpenEXR 2 through its library: scan lines and tiles, any compression. Channels R, G, B and A, or Y; half or float. Others are kept.
class ExrKind final : public TextureKind {
public:
    [[nodiscard]] std::string name() const override { return "EXR"; }
    [[nodiscard]] KindTraits traits() const override;
    [[nodiscard]] bool recognize(ByteSpan head, std::string_view path) const override;
    [[nodiscard]] Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    /// Header attributes, compression and the other channels stay. Tiled files and those of several parts are only read.
    [[nodiscard]] Result<Bytes> replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const override;
};

/// Level 0 as an OpenEXR file with lossless ZIP compression: half where the format has no more, float otherwise. `gray`: one channel Y.
[[nodiscard]] Result<Bytes> write_exr(const ImageF& image, bool half, bool gray, bool alpha);

}  // namespace skivet

#pragma once
#include "texture/texture.h"

namespace skivet {

/// TGA ("Truevision TGA File Format Specification", version 2.0): true color of 15 to 32 bits, gray, gray with alpha, color-mapped; plain
/// and run-length encoded; any of the four origins. The format has no signature at its start: a name ending in .tga and a sound header
/// count.
class TgaKind final : public TextureKind {
public:
    [[nodiscard]] std::string name() const override { return "TGA"; }
    [[nodiscard]] KindTraits traits() const override;
    [[nodiscard]] bool recognize(ByteSpan head, std::string_view path) const override;
    [[nodiscard]] Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    /// Type, origin, palette (see fit_palette) and everything around the picture data stay; run-length encoded files stay so, a packet
    /// never crossing a row, and the offsets of a version 2.0 footer follow.
    [[nodiscard]] Result<Image> decode(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    [[nodiscard]] Result<Bytes> replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const override;

private:
    /// In desc.format; `what_is_there`: zeros for what a file that ends early lacks.
    [[nodiscard]] Result<Bytes> texels_of(ByteSpan file, const TextureLayout& layout, bool what_is_there) const;
};

/// True color of 24 bits, or 32 where a texel is not opaque; not compressed, first row on top, with the footer of version 2.0. At most
/// 65,535 texels a side.
[[nodiscard]] Result<Bytes> write_tga(const Image& image);

}  // namespace skivet

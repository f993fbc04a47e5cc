#pragma once
#include "texture/texture.h"

namespace skivet {

/// BMP (Microsoft, "Bitmap Storage" in the Windows GDI documentation): core, info, V4 and V5 headers; palettes of 1, 4 and 8 bits, plain
/// and run-length encoded; 16, 24 and 32 bits with any masks; both row orders. Shown with 8 bits a channel; alpha only where a mask for it
/// is given.
class BmpKind final : public TextureKind {
public:
    [[nodiscard]] std::string name() const override { return "BMP"; }
    [[nodiscard]] KindTraits traits() const override;
    [[nodiscard]] std::optional<std::uint64_t> stated_size(ByteSpan data, const ReadLimits& limits) const override;
    [[nodiscard]] bool recognize(ByteSpan head, std::string_view path) const override;
    [[nodiscard]] Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    /// Header, depth, masks, row order and compression stay; texels that did not change keep their very bits, and a palette is kept (see
    /// fit_palette). In a run-length encoded file the size fields follow.
    [[nodiscard]] Result<Image> decode(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    [[nodiscard]] Result<Bytes> replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const override;
};

}  // namespace skivet

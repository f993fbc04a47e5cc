#pragma once
#include "texture/texture.h"

namespace skivet {

/// DDS files whose texels are numbers of palette entries (DDPF_PALETTEINDEXED8 and 4 of the DirectDraw surface description): the palette
/// of 256 or 16 entries R, G, B, A stands between header and levels. Alpha counts where the header says so (DDPF_ALPHAPIXELS).
class DdsPaletteKind final : public TextureKind {
public:
    [[nodiscard]] std::string name() const override { return "DDS palette"; }
    [[nodiscard]] KindTraits traits() const override;
    [[nodiscard]] bool recognize(ByteSpan head, std::string_view path) const override;
    [[nodiscard]] Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    [[nodiscard]] Result<std::optional<IndexedPicture>> indexed(ByteSpan file, const TextureLayout& layout,
                                                                const Surface& surface) const override;
    /// One palette serves all levels: what did not change keeps its numbers in every one (see fit_palette).
    [[nodiscard]] Result<Bytes> replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const override;
};

}  // namespace skivet

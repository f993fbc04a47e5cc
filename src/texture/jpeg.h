#pragma once
#include "texture/texture.h"

namespace skivet {

/// JPEG (ITU-T T.81, JFIF) through libjpeg: gray and three-component color, baseline and progressive.
class JpegKind final : public TextureKind {
public:
    [[nodiscard]] std::string name() const override { return "JPEG"; }
    [[nodiscard]] KindTraits traits() const override;
    [[nodiscard]] std::optional<std::uint64_t> stated_size(ByteSpan data, const ReadLimits& limits) const override;
    [[nodiscard]] bool recognize(ByteSpan head, std::string_view path) const override;
    [[nodiscard]] Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override;
    /// Of a file that ends early, what is there, the rest gray.
    /// By computing fewer of each block's 8×8 samples from its coefficients: a half, a quarter or an eighth of the sides.
    [[nodiscard]] std::optional<Reduced> decode_small(ByteSpan file, const TextureLayout& layout, const Surface& surface,
                                                      std::uint32_t side) const override;
    [[nodiscard]] Result<Image> decode(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    [[nodiscard]] Result<Bytes> bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    /// The edit is compressed with the original's quantization tables and chroma subsampling. Units (an MCU each) without a changed texel
    /// keep their very coefficients, so nothing outside the edit loses quality. Progression, restart interval, markers and comments stay.
    [[nodiscard]] Result<Bytes> replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const override;
};

}  // namespace skivet

#pragma once
#include "texture/texture.h"

namespace skivet {

/// KTX 1 (Khronos, "KTX File Format Specification" version 1), either byte order read; rows of uncompressed levels are padded to 4 bytes.
class KtxKind final : public TextureKind {
public:
    [[nodiscard]] std::string name() const override { return "KTX"; }
    [[nodiscard]] KindTraits traits() const override;
    [[nodiscard]] bool recognize(ByteSpan head, std::string_view path) const override;
    [[nodiscard]] Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    [[nodiscard]] Result<Image> decode(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    [[nodiscard]] Result<Bytes> replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const override;
    [[nodiscard]] bool can_resize(const TextureLayout& layout) const override { return !layout.surfaces.empty(); }
    [[nodiscard]] Result<Bytes> resized(ByteSpan file, const TextureLayout& layout, const TextureDesc& desc,
                                        ByteSpan payload) const override;
};

/// A little-endian KTX file around `payload`, which must be in lay_out order, largest level first. Error `unsupported` for formats OpenGL
/// does not have.
[[nodiscard]] Result<Bytes> write_ktx(const TextureDesc& desc, ByteSpan payload);

}  // namespace skivet

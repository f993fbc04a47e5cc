#pragma once
#include "texture/texture.h"

namespace skivet {

enum class Supercompression : std::uint32_t { none = 0, zstd = 2, zlib = 3 };

/// KTX 2.0 (Khronos): levels without supercompression, or each packed with Zstandard or zlib. Basis Universal's variants are recognized
/// and refused by name.
class Ktx2Kind final : public TextureKind {
public:
    [[nodiscard]] std::string name() const override { return "KTX2"; }
    [[nodiscard]] KindTraits traits() const override;
    [[nodiscard]] bool recognize(ByteSpan head, std::string_view path) const override;
    [[nodiscard]] Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    /// Packed levels are unpacked as they are read.
    [[nodiscard]] Result<bool> read_bands(ByteSpan file, const TextureLayout& layout, const Surface& surface,
                                          const std::function<Status(ByteSpan bytes, std::uint32_t height)>& band) const override;
    /// Levels that do not change keep their packed bytes; the others are packed with the file's own scheme and the level index follows.
    [[nodiscard]] Result<Bytes> replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const override;
    [[nodiscard]] bool can_resize(const TextureLayout& layout) const override { return !layout.surfaces.empty(); }
    [[nodiscard]] bool can_reformat(const TextureLayout& layout, Format format) const override;
    /// Keys and values stay. Of another format the descriptor is that format's.
    [[nodiscard]] Result<Bytes> resized(ByteSpan file, const TextureLayout& layout, const TextureDesc& desc,
                                        ByteSpan payload) const override;
};

/// A KTX2 file around `payload`, which must be in lay_out order, largest level first. Error `unsupported` for formats Vulkan does not have.
[[nodiscard]] Result<Bytes> write_ktx2(const TextureDesc& desc, ByteSpan payload, Supercompression scheme = Supercompression::none);

}  // namespace skivet

#pragma once
#include "texture/texture.h"

namespace skivet {

/// DDS: "Programming Guide for DDS" and "DDS_HEADER" (Direct3D documentation). Legacy and DX10 headers.
class DdsKind final : public TextureKind {
public:
    [[nodiscard]] std::string name() const override { return "DDS"; }
    [[nodiscard]] KindTraits traits() const override;
    [[nodiscard]] bool recognize(ByteSpan head, std::string_view path) const override;
    [[nodiscard]] Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override;
    [[nodiscard]] bool can_resize(const TextureLayout& layout) const override { return layout.direct && !layout.surfaces.empty(); }
    [[nodiscard]] bool can_reformat(const TextureLayout& layout, Format format) const override;
    /// In another format the header is written anew, but for the words nobody has given a meaning.
    [[nodiscard]] Result<Bytes> resized(ByteSpan file, const TextureLayout& layout, const TextureDesc& desc,
                                        ByteSpan payload) const override;
};

/// A DDS file around `payload`, which must be in lay_out order, largest level first. A legacy header where it can say everything,
/// otherwise a DX10 header. Error `unsupported` when neither can.
[[nodiscard]] Result<Bytes> write_dds(const TextureDesc& desc, ByteSpan payload);

}  // namespace skivet

#pragma once
// Taking a texture out as a file a paint program opens, and reading the edit back in the form that was exported.
#include "texture/texture.h"

namespace skivet {

enum class ExportAs { png, dds, ktx2 };
[[nodiscard]] std::string_view extension_of(ExportAs as);

/// Level 0 (or `mip`) of the first layer and face as PNG: 16 bits where a normalized format has more than 8, otherwise 8. Floats and
/// integers lose what 8 bits do not hold; unchanged texels get it back on the way in.
[[nodiscard]] Result<Bytes> export_png(const TextureFile& texture, std::uint32_t mip = 0);
/// The compressed bytes, untouched, in a DDS file; a DDS file comes out as it is.
[[nodiscard]] Result<Bytes> export_dds(const TextureFile& texture);
/// The same in a KTX2 file, which can also hold ETC2, EAC and ASTC.
[[nodiscard]] Result<Bytes> export_ktx2(const TextureFile& texture);
[[nodiscard]] Result<Bytes> export_as(const TextureFile& texture, ExportAs as);

}  // namespace skivet

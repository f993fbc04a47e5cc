#pragma once
// Taking a texture out as a file a paint program opens.
#include "texture/texture.h"

namespace skivet {

enum class ExportAs {
    picture,  ///< PNG, or OpenEXR for floats
    png,
    png16,  ///< PNG with 16 bits a sample
    exr,
    dds,
    ktx2,
    tga,   ///< 8 bits a sample, not compressed
    tiff,  ///< 8 bits a sample, or 16 where a normalized format has more
    raw,   ///< the texture file as it lies in the archive
};
[[nodiscard]] std::string_view name_of(ExportAs as);
[[nodiscard]] std::optional<ExportAs> export_named(std::string_view name);
[[nodiscard]] std::string_view extension_of(ExportAs as);
/// `picture` decided for the format; others as they are.
[[nodiscard]] ExportAs decided(ExportAs as, Format format);
/// The smallest file that loses nothing of a texture and that an edit comes back by, and why, in a few words for a person.
struct ProposedExport {
    ExportAs as = ExportAs::png;
    std::string why;
};
[[nodiscard]] ProposedExport propose_export(const TextureDesc& desc);

/// What of a texture goes into one picture.
struct Shown {
    std::uint32_t mip = 0, layer = 0, face = 0, slice = 0;
    bool whole = false;  ///< all faces of a cubemap, or layers of an array, in one picture; see cube.h
};
/// As PNG: 16 bits where a normalized format has more than 8 or when asked, otherwise 8. Floats and integers lose what that does not hold;
/// unchanged texels get it back on the way in.
[[nodiscard]] Result<Bytes> export_png(const TextureFile& texture, Shown what = {}, bool deep = false);
/// As OpenEXR: half precision where that holds everything. True values, but those of color in light, as every reader of the format expects.
[[nodiscard]] Result<Bytes> export_exr(const TextureFile& texture, Shown what = {});
/// The compressed bytes, untouched, in a DDS file; a DDS file comes out as it is.
[[nodiscard]] Result<Bytes> export_dds(const TextureFile& texture);
/// The same in a KTX2 file, which can also hold ETC2, EAC and ASTC.
[[nodiscard]] Result<Bytes> export_ktx2(const TextureFile& texture);
/// A part of a texture in one of the picture ways (not dds, ktx2, raw).
[[nodiscard]] Result<Bytes> export_picture(const TextureFile& texture, ExportAs as, Shown what = {});
/// 8-bit texels in one of the picture ways other than OpenEXR.
[[nodiscard]] Result<Bytes> picture_file(const Image& image, ExportAs as, bool srgb);
/// Level 0 in the way named; a cubemap's picture is its cross.
[[nodiscard]] Result<Bytes> export_as(const TextureFile& texture, ExportAs as);

/// Whether the texture's values are sRGB-encoded color, as far as anybody knows.
[[nodiscard]] bool is_encoded_color(const TextureDesc& desc);
/// Values of a 16-bit picture, 0…1, for true values of a normalized format: signed ones have 128 / 255 for zero and 1 for
/// one, so that reduced to 8 bits they are the 8-bit picture; and back.
[[nodiscard]] ImageF to_16_bit_form(Format format, ImageF values);
[[nodiscard]] ImageF from_16_bit_form(Format format, ImageF values);
/// Whether a 16-bit picture holds more of the format than one of 8 bits.
[[nodiscard]] bool gains_from_16_bits(Format format);

}  // namespace skivet

#include "bench/export.h"

#include <fmt/format.h>

#include "codec/paint_form.h"
#include "texture/dds.h"
#include "texture/png.h"

namespace skivet {
std::string_view extension_of(ExportAs as) { return as == ExportAs::png ? ".png" : ".dds"; }

Result<Bytes> export_png(const TextureFile& texture, std::uint32_t mip) {
    const auto& d = texture.layout.desc;
    SKIVET_TRY(const auto image, texture.decode(mip));
    return write_png(paint_form(d.format, image), d.color == ColorSpace::srgb);
}

Result<Bytes> export_dds(const TextureFile& texture) {
    if (texture.kind->name() == "DDS") return texture.file;
    const auto& d = texture.layout.desc;
    Bytes payload;
    for (std::uint32_t layer = 0; layer < d.layers; ++layer)
        for (std::uint32_t face = 0; face < d.faces; ++face)
            for (std::uint32_t mip = 0; mip < d.mips; ++mip)
                for (std::uint32_t s = 0; s < mip_side(d.depth, mip); ++s) {
                    const auto* surface = texture.layout.find(mip, layer, face, s);
                    if (!surface) return fail(ErrorCode::damaged, fmt::format("mip {} is missing", mip));
                    SKIVET_TRY(const auto bytes, texture.surface_bytes(*surface));
                    payload.insert(payload.end(), bytes.begin(), bytes.end());
                }
    return write_dds(d, payload);
}

Result<Bytes> export_as(const TextureFile& texture, ExportAs as) { return as == ExportAs::png ? export_png(texture) : export_dds(texture); }

}  // namespace skivet

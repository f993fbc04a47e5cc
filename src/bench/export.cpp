#include "bench/export.h"

#include <fmt/format.h>

#include "codec/paint_form.h"
#include "texture/dds.h"
#include "texture/ktx2.h"
#include "texture/png.h"

namespace skivet {
std::string_view extension_of(ExportAs as) {
    return as == ExportAs::png ? ".png" : as == ExportAs::dds ? ".dds" : ".ktx2";
}


Result<Bytes> export_png(const TextureFile& texture, std::uint32_t mip) {
    const auto& d = texture.layout.desc;
    if (const auto& f = info(d.format); f.wide && f.numeric == Numeric::unorm) {  // 8 bits would lose what the texture has
        SKIVET_TRY(const auto wide, texture.decode_wide(mip));
        return write_png16(paint_form(d.format, wide), d.color == ColorSpace::srgb);
    }
    SKIVET_TRY(const auto image, texture.decode(mip));
    return write_png(paint_form(d.format, image), d.color == ColorSpace::srgb);
}

Result<Bytes> export_dds(const TextureFile& texture) {
    if (texture.kind->name() == "DDS") return texture.file;
    SKIVET_TRY(const auto payload, payload_of(texture));
    return write_dds(texture.layout.desc, payload);
}

Result<Bytes> export_ktx2(const TextureFile& texture) {
    if (texture.kind->name() == "KTX2") return texture.file;
    SKIVET_TRY(const auto payload, payload_of(texture));
    return write_ktx2(texture.layout.desc, payload);
}

Result<Bytes> export_as(const TextureFile& texture, ExportAs as) {
    return as == ExportAs::png ? export_png(texture) : as == ExportAs::dds ? export_dds(texture) : export_ktx2(texture);
}

}  // namespace skivet

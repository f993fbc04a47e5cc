#include "bench/color_match.h"
#include "bench/export.h"
#include "bench/fitting.h"
#include "codec/paint_form.h"
#include "texture/png.h"

namespace skivet {

Result<EditedFile> read_edited(Bytes file, const ReadLimits& limits, std::string_view name) {
    EditedFile out;
    const auto kinds = TextureKinds::standard();
    const auto kind = kinds.recognize(file, name);
    if (!kind)
        return fail(ErrorCode::unsupported, "this is neither a picture nor a texture file we know",
                    "Save it as PNG, TIFF or OpenEXR, or as a texture file (DDS, KTX2)");
    if (kind->name() == "PNG") {
        SKIVET_TRY(out.image, read_png(file, limits));
        SKIVET_TRY(out.wide, read_png_wide(file, limits));
        SKIVET_TRY(out.color, color_of_png(file));
        return out;
    }
    SKIVET_TRY(auto texture, TextureFile::open(kinds, std::move(file), name, limits));
    // It can be looked at, but what is not there must not get into a game.
    if (texture.layout.damage) {
        auto damage = *texture.layout.damage;
        damage.advice = "The file is not whole. Save it again, or wait until it is saved";
        return fail(std::move(damage));
    }
    const auto format = texture.layout.desc.format;
    const auto& f = info(format);
    SKIVET_TRY(const auto image, texture.decode(0));
    out.image = paint_form(format, image);
    const bool has_levels = kind->name() == "DDS" || kind->name() == "KTX" || kind->name() == "KTX2";
    if (!has_levels && f.wide) {
        SKIVET_TRY(const auto values, texture.decode_wide(0));
        (f.is_float() ? out.values : out.wide) = paint_form(format, values);
    }
    if (has_levels) out.texture = std::move(texture);
    return out;
}

}  // namespace skivet

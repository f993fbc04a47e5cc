#include "bench/fitting.h"
#include "codec/paint_form.h"
#include "texture/png.h"

namespace skivet {

Result<EditedFile> read_edited(Bytes file, const ReadLimits& limits) {
    EditedFile out;
    const auto kinds = TextureKinds::standard();
    const auto kind = kinds.recognize(file, "");
    if (!kind)
        return fail(ErrorCode::unsupported, "this is no PNG, DDS, KTX or KTX2 file", "Save the picture as PNG, or as a texture file");
    if (kind->name() == "PNG") {
        SKIVET_TRY(out.image, read_png(file, limits));
        SKIVET_TRY(out.wide, read_png_wide(file, limits));
        return out;
    }
    SKIVET_TRY(auto texture, TextureFile::open(kinds, std::move(file), "", limits));
    SKIVET_TRY(const auto image, texture.decode(0));
    out.image = paint_form(texture.layout.desc.format, image);
    out.texture = std::move(texture);
    return out;
}

}  // namespace skivet

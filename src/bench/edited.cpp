#include "bench/fitting.h"
#include "bench/open_raster.h"

namespace skivet {

namespace {

Result<EditedFile> read_flat(Bytes file, const ReadLimits& limits, std::string_view name) {
    EditedFile out;
    const auto kinds = TextureKinds::standard();
    const auto kind = kinds.recognize(file, name);
    if (!kind)
        return fail(ErrorCode::unsupported, "this is neither a picture nor a texture file we know",
                    "Save it as PNG, TIFF or OpenEXR, or as a texture file (DDS, KTX2)");
    SKIVET_TRY(auto texture, TextureFile::open(kinds, std::move(file), name, limits));
    // It can be looked at, but what is not there must not get into a game.
    if (texture.layout.damage) {
        auto damage = *texture.layout.damage;
        damage.advice = "The file is not whole. Save it again, or wait until it is saved";
        return fail(std::move(damage));
    }
    SKIVET_TRY(static_cast<Painted&>(out), kind->painted(texture.file, texture.layout, limits));
    if (kind->traits().keeps_levels) out.texture = std::move(texture);
    return out;
}

}  // namespace

Result<EditedFile> read_edited(Bytes file, const ReadLimits& limits, std::string_view name) {
    if (!is_open_raster(file)) return read_flat(std::move(file), limits, name);
    // An archive that holds itself is no picture, so what comes out is not looked into again.
    SKIVET_TRY(auto merged, merged_picture(file, limits));
    auto edited = read_flat(std::move(merged), limits, "mergedimage.png");
    if (!edited) return fail(std::move(edited).error().within("mergedimage.png"));
    return edited;
}

}  // namespace skivet

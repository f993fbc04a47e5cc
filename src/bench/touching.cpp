#include "bench/touching.h"

#include "base/file_write.h"

namespace skivet {

TouchPictures touch_pictures_in(std::filesystem::path folder, const ReadLimits& limits) {
    return [folder = std::move(folder), limits](const std::string& name) -> Result<ImageF> {
        const auto path = folder / name;
        const auto within = [&](Error error) { return fail(std::move(error).within(name)); };
        auto bytes = read_file(path, limits.inflated_bytes);
        if (!bytes) return within(std::move(bytes).error());
        auto picture = read_edited(std::move(*bytes), limits, name);
        if (!picture) return within(std::move(picture).error());
        if (picture->wide) return std::move(*picture->wide);
        return to_float(picture->image, false);
    };
}

Status touch(EditedFile& edited, std::span<const TouchUp> touches, const TouchPictures& pictures, const CancelToken& cancel) {
    if (touches.empty()) return {};
    if (edited.values)
        return fail(ErrorCode::unsupported, "touch-ups are not made on true values", "Save it with 8 or 16 bits, as PNG or TIFF");
    auto image = edited.image;
    SKIVET_CHECK(touch(image, touches, pictures, cancel));
    if (edited.wide) SKIVET_CHECK(touch(*edited.wide, touches, pictures, cancel));
    edited.image = std::move(image);
    edited.texture.reset();
    return {};
}

}  // namespace skivet

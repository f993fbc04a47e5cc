#include "bench/alpha_way.h"

#include <cmath>

#include "base/phrase.h"
#include "bench/cube.h"
#include "codec/paint_form.h"
#include "texture/png.h"
#include "texture/tiff.h"

namespace skivet {
namespace {

constexpr std::string_view names[] = {"keep", "split", "drop"};

float gray_of(const TexelF& t) { return 0.299f * t[0] + 0.587f * t[1] + 0.114f * t[2]; }  // Rec. 601, as elsewhere

std::uint8_t gray_of(const Texel& t) {
    if (t[0] == t[1] && t[1] == t[2]) return t[0];
    return static_cast<std::uint8_t>(std::lround(gray_of(TexelF{float(t[0]), float(t[1]), float(t[2]), 0})));
}

/// Takes alpha out of a picture of either precision.
template <class Picture, class Value>
Picture take_alpha(Picture& picture, Value opaque) {
    Picture gray(picture.width, picture.height);
    for (std::size_t i = 0; i < picture.texels.size(); ++i) {
        const auto a = std::exchange(picture.texels[i][3], opaque);
        gray.texels[i] = {a, a, a, opaque};
    }
    return gray;
}

bool is_deep(ExportAs as, Format format) {
    if (as == ExportAs::tga) return false;
    return gains_from_16_bits(format) && (as == ExportAs::png16 || info(format).wide);
}

}  // namespace

std::string_view name_of(AlphaWay way) { return names[static_cast<std::size_t>(way)]; }

std::optional<AlphaWay> alpha_way_named(std::string_view name) {
    for (std::size_t i = 0; i < std::size(names); ++i)
        if (names[i] == name) return static_cast<AlphaWay>(i);
    return std::nullopt;
}

bool can_split_alpha(ExportAs as, const TextureDesc& desc) {
    as = decided(as, desc.format);
    return info(desc.format).has_alpha && (as == ExportAs::png || as == ExportAs::png16 || as == ExportAs::tiff || as == ExportAs::tga);
}

Result<AlphaApart> export_alpha_apart(const TextureFile& texture, ExportAs as, Shown what) {
    const auto& d = texture.layout.desc;
    as = decided(as, d.format);
    if (!can_split_alpha(as, d))
        return fail(ErrorCode::usage, phrase("alpha stays where it is in {} as {}", info(d.format).name, name_of(as)));
    const bool srgb = d.color == ColorSpace::srgb;
    AlphaApart out;
    if (is_deep(as, d.format)) {
        SKIVET_TRY(auto wide, decode_shown<ImageF>(texture, what.mip, what.whole, what.layer, what.face, what.slice));
        wide = to_16_bit_form(d.format, paint_form(d.format, wide));
        const auto gray = take_alpha(wide, 1.0f);
        const auto file = [&](const ImageF& picture, bool color) {
            return as == ExportAs::tiff ? write_tiff16(picture) : write_png16(picture, color);
        };
        SKIVET_TRY(out.picture, file(wide, srgb));
        SKIVET_TRY(out.alpha, file(gray, false));
        return out;
    }
    SKIVET_TRY(const auto stored, decode_shown<Image>(texture, what.mip, what.whole, what.layer, what.face, what.slice));
    auto image = paint_form(d.format, stored);
    const auto gray = take_alpha(image, std::uint8_t{255});
    SKIVET_TRY(out.picture, picture_file(image, as, srgb));
    SKIVET_TRY(out.alpha, picture_file(gray, as, false));
    return out;
}

Status put_alpha(EditedFile& edited, const TextureFile& original, const EditedFile* gray) {
    const auto& d = original.layout.desc;
    if (!info(d.format).has_alpha || edited.values) return {};
    const auto width = edited.image.width, height = edited.image.height;
    if (gray && (gray->image.width != width || gray->image.height != height))
        return fail(ErrorCode::unfit, phrase("alpha is {}×{}, the picture {}×{}", gray->image.width, gray->image.height, width, height),
                    "Save both in the same size");
    const bool whole = !edited.texture && is_whole(d, width, height);
    SKIVET_TRY(const auto stored, decode_shown<Image>(original, 0, whole));
    auto own = paint_form(d.format, stored);
    const bool fits = own.width == width && own.height == height;
    // A box would leave steps when it is made larger.
    const auto filter = width > own.width ? MipFilter::triangle : MipFilter::box;
    if (!fits) own = to_bytes(resize(to_float(own, false), width, height, filter), false);
    for (std::size_t i = 0; i < own.texels.size(); ++i)
        edited.image.texels[i][3] = gray ? gray_of(gray->image.texels[i]) : own.texels[i][3];
    edited.texture.reset();  // its levels have another alpha
    if (!edited.wide) return {};
    std::optional<ImageF> deep;
    if (fits && gains_from_16_bits(d.format)) {
        SKIVET_TRY(const auto wide, decode_shown<ImageF>(original, 0, whole));
        deep = to_16_bit_form(d.format, paint_form(d.format, wide));
    }
    for (std::size_t i = 0; i < own.texels.size(); ++i) {
        auto& alpha = edited.wide->texels[i][3];
        if (gray && gray->wide) alpha = gray_of(gray->wide->texels[i]);
        else if (deep && edited.image.texels[i][3] == own.texels[i][3]) alpha = deep->texels[i][3];
        else alpha = static_cast<float>(edited.image.texels[i][3]) / 255;
    }
    return {};
}

}  // namespace skivet

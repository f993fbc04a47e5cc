#include "bench/export.h"

#include "base/phrase.h"
#include "bench/cube.h"
#include "codec/codec.h"
#include "codec/paint_form.h"
#include "texture/dds.h"
#include "texture/exr.h"
#include "texture/ktx2.h"
#include "texture/png.h"
#include "texture/tga.h"
#include "texture/tiff.h"

namespace skivet {
namespace {

struct ExportForm {
    ExportAs as;
    std::string_view name, extension;
};
constexpr ExportForm export_forms[] = {
    {ExportAs::picture, "picture", ".png"}, {ExportAs::png, "png", ".png"},    {ExportAs::png16, "png16", ".png"},
    {ExportAs::exr, "exr", ".exr"},         {ExportAs::dds, "dds", ".dds"},    {ExportAs::ktx2, "ktx2", ".ktx2"},
    {ExportAs::tga, "tga", ".tga"},         {ExportAs::tiff, "tiff", ".tiff"}, {ExportAs::raw, "raw", ""}};

ImageF scaled(Format format, ImageF values, float scale, float offset) {
    if (info(format).numeric != Numeric::snorm) return values;
    for (auto& t : values.texels)
        for (std::size_t c = 0; c < (info(format).has_alpha ? 4u : 3u); ++c) t[c] = t[c] * scale + offset;
    return values;
}

}  // namespace

std::string_view name_of(ExportAs as) { return export_forms[static_cast<std::size_t>(as)].name; }
std::string_view extension_of(ExportAs as) { return export_forms[static_cast<std::size_t>(as)].extension; }
std::optional<ExportAs> export_named(std::string_view name) {
    for (const auto& way : export_forms)
        if (way.name == name) return way.as;
    return std::nullopt;
}

ExportAs decided(ExportAs as, Format format) {
    return as != ExportAs::picture ? as : info(format).is_float() ? ExportAs::exr : ExportAs::png;
}

ProposedExport propose_export(const TextureDesc& d) {
    const auto& f = info(d.format);
    // KTX2 where DDS has no number for the format.
    const auto as_it_is = write_dds(d, {}) ? ExportAs::dds : ExportAs::ktx2;
    if (d.depth > 1) return {as_it_is, phrase("a picture has one slice, this texture {}", d.depth)};
    if (d.layers > 1) return {as_it_is, phrase("a picture has one layer, this texture {}", d.layers)};
    if (!can_encode(d.format)) return {ExportAs::ktx2, phrase("{} goes back only as it is", f.name)};
    if (f.is_float()) return {ExportAs::exr, "true values, brighter than white too"};
    if (f.is_integer()) return {as_it_is, "whole numbers, which no picture file keeps"};
    if (f.wide) return {ExportAs::png16, "more than 8 bits a channel"};
    return {ExportAs::png, "8 bits a channel hold all of it"};
}

ImageF to_16_bit_form(Format format, ImageF values) { return scaled(format, std::move(values), 127.0f / 255, 128.0f / 255); }
ImageF from_16_bit_form(Format format, ImageF values) { return scaled(format, std::move(values), 255.0f / 127, -128.0f / 127); }

bool is_encoded_color(const TextureDesc& d) {
    return info(d.format).may_be_srgb && info(d.format).numeric == Numeric::unorm && d.color != ColorSpace::linear;
}

bool gains_from_16_bits(Format format) {
    const auto& f = info(format);
    const auto* codec = block_codec(format);
    return !f.is_float() && !f.is_integer() && (f.wide || (codec && codec->decode_wide));
}

Result<Bytes> export_png(const TextureFile& texture, Shown what, bool deep) {
    const auto& d = texture.layout.desc;
    const auto& f = info(d.format);
    if (gains_from_16_bits(d.format) && (deep || f.wide)) {  // 8 bits would lose what the texture has
        SKIVET_TRY(auto wide, decode_shown<ImageF>(texture, what.mip, what.whole, what.layer, what.face, what.slice));
        return write_png16(to_16_bit_form(d.format, paint_form(d.format, std::move(wide))), d.color == ColorSpace::srgb);
    }
    if (const auto* surface = what.whole ? nullptr : texture.layout.find(what.mip, what.layer, what.face, what.slice)) {
        SKIVET_TRY(const auto indexed, texture.kind->indexed(texture.file, texture.layout, *surface));
        if (indexed) return write_png(*indexed, d.color == ColorSpace::srgb);
    }
    SKIVET_TRY(auto image, decode_shown<Image>(texture, what.mip, what.whole, what.layer, what.face, what.slice));
    return write_png(paint_form(d.format, std::move(image)), d.color == ColorSpace::srgb);
}

Result<Bytes> export_exr(const TextureFile& texture, Shown what) {
    const auto& d = texture.layout.desc;
    const auto& f = info(d.format);
    SKIVET_TRY(auto wide, decode_shown<ImageF>(texture, what.mip, what.whole, what.layer, what.face, what.slice));
    wide = paint_form(d.format, std::move(wide));
    if (is_encoded_color(d))
        for (auto& t : wide.texels)
            for (std::size_t c = 0; c < 3; ++c) t[c] = srgb_to_linear(t[c]);
    // All small floats are halves; of the others only 8-bit fractions are sure to be told apart in one.
    const bool bytes = f.block_compressed() ? !gains_from_16_bits(d.format) : std::max(f.red.bits, f.alpha.bits) == 8 && !f.is_integer();
    const bool half = f.is_float() ? f.block_compressed() || f.red.bits <= 16 : bytes;
    const bool gray = f.channels == 1 && !f.has_alpha;
    return write_exr(wide, half, gray, f.has_alpha);
}

Result<Bytes> export_dds(const TextureFile& texture) {
    if (dynamic_cast<const DdsKind*>(texture.kind.get())) return texture.file;
    SKIVET_TRY(const auto payload, payload_of(texture));
    return write_dds(texture.layout.desc, payload);
}

Result<Bytes> export_ktx2(const TextureFile& texture) {
    if (dynamic_cast<const Ktx2Kind*>(texture.kind.get())) return texture.file;
    SKIVET_TRY(const auto payload, payload_of(texture));
    return write_ktx2(texture.layout.desc, payload);
}

Result<Bytes> picture_file(const Image& image, ExportAs as, bool srgb) {
    if (as == ExportAs::tga) return write_tga(image);
    if (as == ExportAs::tiff) return write_tiff(image);
    return write_png(image, srgb);
}

Result<Bytes> export_picture(const TextureFile& texture, ExportAs as, Shown what) {
    const auto& d = texture.layout.desc;
    as = decided(as, d.format);
    if (as == ExportAs::exr) return export_exr(texture, what);
    if (as == ExportAs::tga || as == ExportAs::tiff) {
        if (as == ExportAs::tiff && gains_from_16_bits(d.format) && info(d.format).wide) {  // 8 bits would lose what the texture has
            SKIVET_TRY(auto wide, decode_shown<ImageF>(texture, what.mip, what.whole, what.layer, what.face, what.slice));
            return write_tiff16(to_16_bit_form(d.format, paint_form(d.format, std::move(wide))));
        }
        SKIVET_TRY(auto image, decode_shown<Image>(texture, what.mip, what.whole, what.layer, what.face, what.slice));
        return picture_file(paint_form(d.format, std::move(image)), as, d.color == ColorSpace::srgb);
    }
    return export_png(texture, what, as == ExportAs::png16);
}

Result<Bytes> export_as(const TextureFile& texture, ExportAs as) {
    switch (as) {
        case ExportAs::dds: return export_dds(texture);
        case ExportAs::ktx2: return export_ktx2(texture);
        case ExportAs::raw: return texture.file;
        default: return export_picture(texture, as, {.whole = has_cross(texture.layout.desc)});
    }
}

}  // namespace skivet

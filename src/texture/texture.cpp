#include "texture/texture.h"

#include <fmt/format.h>

#include "base/phrase.h"
#include "base/text.h"
#include "codec/codec.h"
#include "codec/paint_form.h"
#include "texture/bands.h"
#include "texture/bmp.h"
#include "texture/dds.h"
#include "texture/dds_palette.h"
#include "texture/exr.h"
#include "texture/jpeg.h"
#include "texture/ktx.h"
#include "texture/ktx2.h"
#include "texture/png.h"
#include "texture/radiance.h"
#include "texture/tga.h"
#include "texture/tiff.h"
#include "texture/webp.h"

namespace skivet {

const Surface* TextureLayout::find(std::uint32_t mip, std::uint32_t layer, std::uint32_t face, std::uint32_t slice) const {
    const auto is = [&](const Surface& s) { return s.mip == mip && s.layer == layer && s.face == face && s.slice == slice; };
    // Nearly all layouts have the surfaces in one of two orders; with thousands of layers nobody looks through all of them for each.
    const auto each = surfaces.size() / std::max<std::size_t>(1, std::size_t{desc.layers} * desc.faces);
    for (const bool largest_first : {true, false}) {
        auto at = (std::size_t{layer} * desc.faces + face) * each + slice;
        for (std::uint32_t m = largest_first ? 0 : mip + 1; m < (largest_first ? mip : desc.mips); ++m) at += mip_side(desc.depth, m);
        if (at < surfaces.size() && is(surfaces[at])) return &surfaces[at];
    }
    const auto found = std::find_if(surfaces.begin(), surfaces.end(), is);
    return found == surfaces.end() ? nullptr : &*found;
}

namespace {

/// A surface in a file that is not there: the layout's damage says which.
std::optional<Error> absence(const TextureLayout& layout, const Surface& surface) {
    if (surface.offset < absent) return std::nullopt;
    auto error = layout.damage.value_or(Error{ErrorCode::missing, "lies in a file that is not there", {}, {}, {}});
    return std::move(error).within(phrase("mip {}", surface.mip));
}

}  // namespace

Result<Spread> TextureKind::spread(ByteSpan, std::string_view, const ReadLimits&) const { return Spread{}; }

std::optional<std::uint64_t> TextureKind::stated_size(ByteSpan data, const ReadLimits& limits) const {
    const auto found = layout(data, data.size(), limits);
    if (!found || found->damage || found->surfaces.empty()) return std::nullopt;
    auto size = found->end;
    if (size == 0 && !found->direct) return std::nullopt;
    for (const auto& s : found->surfaces)
        if (found->end == 0) size = std::max(size, s.offset + s.size);
    return size > 0 && size <= data.size() ? std::optional(size) : std::nullopt;
}

Result<Painted> TextureKind::painted(ByteSpan file, const TextureLayout& layout, const ReadLimits&) const {
    const auto* top = layout.find(0);
    if (!top) return fail(ErrorCode::damaged, "there is no level 0");
    const auto format = layout.desc.format;
    Painted out;
    SKIVET_TRY(const auto image, decode(file, layout, *top));
    out.image = paint_form(format, image);
    if (!traits().keeps_levels && info(format).wide) {
        SKIVET_TRY(const auto values, decode_wide(file, layout, *top));
        (info(format).is_float() ? out.values : out.wide) = paint_form(format, values);
    }
    return out;
}

Result<Bytes> TextureKind::bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const {
    if (auto missing = absence(layout, surface)) return fail(std::move(*missing));
    if (layout.direct) {
        auto data = slice(file, surface.offset, surface.size);
        if (!data) return fail(data.error().within(phrase("mip {}", surface.mip)));
        return Bytes(data->begin(), data->end());
    }
    SKIVET_TRY(const auto image, decode(file, layout, surface));
    return encode(layout.desc.format, image);
}

Result<Image> TextureKind::decode(ByteSpan file, const TextureLayout& layout, const Surface& surface) const {
    if (auto missing = absence(layout, surface)) return fail(std::move(*missing));
    if (!layout.direct) {
        SKIVET_TRY(const auto data, bytes(file, layout, surface));
        return skivet::decode(layout.desc.format, data, surface.width, surface.height);
    }
    auto data = slice(file, surface.offset, surface.size);
    if (!data && layout.damage && surface.offset < file.size() && file.size() - surface.offset > surface.size / 8) {
        Bytes filled(file.begin() + static_cast<std::ptrdiff_t>(surface.offset), file.end());
        filled.resize(static_cast<std::size_t>(surface.size));
        return skivet::decode(layout.desc.format, filled, surface.width, surface.height);
    }
    if (!data) return fail(data.error().within(phrase("mip {}", surface.mip)));
    return skivet::decode(layout.desc.format, *data, surface.width, surface.height);
}

Result<std::optional<IndexedPicture>> TextureKind::indexed(ByteSpan, const TextureLayout&, const Surface&) const {
    return std::optional<IndexedPicture>();
}

Result<bool> TextureKind::read_bands(ByteSpan file, const TextureLayout& layout, const Surface& surface,
                                     const std::function<Status(ByteSpan bytes, std::uint32_t height)>& band) const {
    if (!layout.direct || surface.offset >= absent || surface.offset > file.size() || surface.size > file.size() - surface.offset)
        return false;
    const auto data = file.subspan(static_cast<std::size_t>(surface.offset), static_cast<std::size_t>(surface.size));
    const BandRows rows(layout.desc.format, surface.width, surface.height);
    for (std::uint32_t y = 0; y < surface.height; y += rows.height)
        SKIVET_CHECK(band(data.subspan(rows.at(y), rows.bytes_from(y)), rows.height_from(y)));
    return true;
}

std::optional<Reduced> TextureKind::decode_small(ByteSpan file, const TextureLayout& layout, const Surface& surface,
                                                 std::uint32_t side) const {
    const auto step = std::max(surface.width, surface.height) / side;
    if (step < 2) return std::nullopt;
    RowReducer reducer(surface.width, surface.height, step);
    const auto read = read_bands(file, layout, surface, [&](ByteSpan bytes, std::uint32_t height) -> Status {
        SKIVET_TRY(const auto rows, skivet::decode(layout.desc.format, bytes, surface.width, height));
        for (std::uint32_t y = 0; y < height; ++y) reducer.add(&rows.texels[std::size_t{y} * surface.width]);
        return {};
    });
    if (!read || !*read) return std::nullopt;  // decoding the whole says why
    return reducer.take();
}

Result<ImageF> TextureKind::decode_wide(ByteSpan file, const TextureLayout& layout, const Surface& surface) const {
    SKIVET_TRY(const auto data, bytes(file, layout, surface));
    return skivet::decode_wide(layout.desc.format, data, surface.width, surface.height);
}

Result<Bytes> TextureKind::replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const {
    Bytes out(file.begin(), file.end());
    for (const auto& edit : edits) {
        if (edit.surface >= layout.surfaces.size()) return fail(ErrorCode::usage, "there is no such surface");
        const auto& s = layout.surfaces[edit.surface];
        if (edit.bytes.size() != s.size || s.offset + s.size > out.size())
            return fail(ErrorCode::unfit, phrase("mip {}: needs {} bytes, has {}", s.mip, grouped(s.size), grouped(edit.bytes.size())));
        if (s.offset >= absent || s.offset + s.size > out.size())
            return fail(ErrorCode::damaged, phrase("mip {} is not there to be replaced", s.mip));
        std::copy(edit.bytes.begin(), edit.bytes.end(), out.begin() + static_cast<std::ptrdiff_t>(s.offset));
    }
    return out;
}

Result<Bytes> TextureKind::resized(ByteSpan, const TextureLayout&, const TextureDesc&, ByteSpan) const {
    return fail(ErrorCode::unsupported, phrase("{} textures keep their size", name()));
}

TextureKinds TextureKinds::standard() {
    TextureKinds kinds;
    kinds.add(std::make_shared<DdsPaletteKind>());
    kinds.add(std::make_shared<DdsKind>());
    kinds.add(std::make_shared<PngKind>());
    kinds.add(std::make_shared<Ktx2Kind>());
    kinds.add(std::make_shared<KtxKind>());
    kinds.add(std::make_shared<JpegKind>());
    kinds.add(std::make_shared<WebpKind>());
    kinds.add(std::make_shared<TiffKind>());
    kinds.add(std::make_shared<ExrKind>());
    kinds.add(std::make_shared<RadianceKind>());
    kinds.add(std::make_shared<BmpKind>());
    kinds.add(std::make_shared<TgaKind>());
    return kinds;
}

void TextureKinds::add(std::shared_ptr<const TextureKind> kind) {
    for (const auto& extension : kind->traits().extensions) by_extension_.emplace(extension, kind);
    kinds_.push_back(std::move(kind));
}

std::shared_ptr<const TextureKind> TextureKinds::recognize(ByteSpan head, std::string_view path, std::optional<std::uint64_t> size) const {
    for (const auto& kind : kinds_)
        if ((!size || kind->fits_size(*size)) && kind->recognize(head, path)) return kind;
    return nullptr;
}

std::shared_ptr<const TextureKind> TextureKinds::by_extension(std::string_view path) const {
    const auto dot = path.rfind('.');
    if (dot == std::string_view::npos) return nullptr;
    const auto ending = lower(path.substr(dot + 1));
    const auto found = by_extension_.find(ending);
    return found == by_extension_.end() ? nullptr : found->second;
}

namespace {

/// The kinds by name, once each, and that sheets describe more.
std::string what_is_read(const TextureKinds& kinds) {
    std::string files, pictures;
    std::vector<std::string> named;
    for (const auto& kind : kinds.all()) {
        const auto traits = kind->traits();
        // Of two kinds for one sort of file the name of one is enough; sheets have no extensions.
        if (traits.extensions.empty() || std::find(named.begin(), named.end(), traits.extensions.front()) != named.end()) continue;
        named.push_back(traits.extensions.front());
        auto& list = traits.picture ? pictures : files;
        auto name = traits.extensions.front();
        std::transform(name.begin(), name.end(), name.begin(), [](unsigned char c) { return static_cast<char>(std::toupper(c)); });
        list += fmt::format("{}{}", list.empty() ? "" : ", ", name);
    }
    return phrase("Texture files ({}), pictures ({}) and what a texture sheet describes are read", files, pictures);
}

}  // namespace

Result<TextureFile> TextureFile::open(const TextureKinds& kinds, Bytes file, std::string_view path, const ReadLimits& limits) {
    TextureFile out;
    out.kind = kinds.recognize(file, path, file.size());
    if (!out.kind) return fail(ErrorCode::unsupported, "this is no texture we know", what_is_read(kinds));
    auto layout = out.kind->layout(file, file.size(), limits);
    if (!layout) return fail(std::move(layout).error().within(out.kind->name()));
    out.layout = std::move(*layout);
    out.file = std::move(file);
    return out;
}

Result<Image> TextureFile::decode(std::uint32_t mip, std::uint32_t layer, std::uint32_t face, std::uint32_t slice) const {
    const auto* surface = layout.find(mip, layer, face, slice);
    if (!surface) return fail(ErrorCode::missing, phrase("there is no mip {}, layer {}, face {}, slice {}", mip, layer, face, slice));
    return kind->decode(file, layout, *surface);
}

Result<ImageF> TextureFile::decode_wide(std::uint32_t mip, std::uint32_t layer, std::uint32_t face, std::uint32_t slice) const {
    const auto* surface = layout.find(mip, layer, face, slice);
    if (!surface) return fail(ErrorCode::missing, phrase("there is no mip {}, layer {}, face {}, slice {}", mip, layer, face, slice));
    return kind->decode_wide(file, layout, *surface);
}

Result<Bytes> TextureFile::surface_bytes(const Surface& surface) const { return kind->bytes(file, layout, surface); }

Result<Bytes> payload_of(const TextureFile& texture) {
    const auto& d = texture.layout.desc;
    Bytes payload;
    for (std::uint32_t layer = 0; layer < d.layers; ++layer)
        for (std::uint32_t face = 0; face < d.faces; ++face)
            for (std::uint32_t mip = 0; mip < d.mips; ++mip)
                for (std::uint32_t s = 0; s < mip_side(d.depth, mip); ++s) {
                    const auto* surface = texture.layout.find(mip, layer, face, s);
                    if (!surface) return fail(ErrorCode::damaged, phrase("mip {} is missing", mip));
                    SKIVET_TRY(const auto bytes, texture.surface_bytes(*surface));
                    payload.insert(payload.end(), bytes.begin(), bytes.end());
                }
    return payload;
}

Status accept_cut_off(TextureLayout& layout, std::uint64_t start, std::uint64_t end, std::uint64_t file_size) {
    if (end <= file_size) return {};
    const auto have = file_size - std::min(start, file_size);
    auto missing = fail_at(ErrorCode::damaged, start, phrase("mip chain: needs {} bytes, has {}", grouped(end - start), grouped(have)),
                           "The file is cut off or its header is damaged");
    if (layout.surfaces.empty() || have < layout.surfaces.front().size / 8 + 1) return missing;
    layout.damage = std::move(missing).value();
    return {};
}

Status check_desc(const TextureDesc& d, const ReadLimits& limits) {
    if (d.width == 0 || d.height == 0 || d.depth == 0)
        return fail(ErrorCode::damaged, phrase("a size of {}×{}×{} texels", d.width, d.height, d.depth));
    if (d.width > limits.image_side || d.height > limits.image_side || d.depth > limits.image_side ||
        std::uint64_t{d.width} * d.height * d.depth > limits.image_texels)
        return fail(ErrorCode::limit,
                    phrase("{}×{}×{} texels are more than the limit", grouped(d.width), grouped(d.height), grouped(d.depth)));
    if (d.layers == 0 || d.faces == 0 || d.faces > 6 || d.layers > limits.layers)
        return fail(ErrorCode::limit, phrase("{} layers with {} faces", grouped(d.layers), d.faces));
    if (d.mips == 0 || d.mips > full_mip_count(d.width, d.height, d.depth))
        return fail(ErrorCode::damaged, phrase("mip chain: {} levels stated, {}×{} can have at most {}", grouped(d.mips), d.width, d.height,
                                               full_mip_count(d.width, d.height, d.depth)));
    // Slices of every level are surfaces of their own, so their number is bounded like the layers.
    if (d.depth > 1 && (d.layers > 1 || d.faces > 1)) return fail(ErrorCode::unsupported, "an array or cubemap of volumes");
    return {};
}

Status check_claim(const TextureDesc& desc, std::uint64_t stored, const ReadLimits& limits) {
    const auto bytes = level_bytes(desc.format, desc.width, desc.height);
    if (limits.may_claim(bytes, stored)) return {};
    return fail(ErrorCode::limit,
                phrase("claims {}×{} texels, {}, in a file of {} bytes", grouped(desc.width), grouped(desc.height), human_bytes(bytes),
                       grouped(stored)),
                "No picture packs so well; the header is damaged or made to do harm");
}

std::vector<Surface> lay_out(const TextureDesc& d, std::uint64_t offset, MipOrder order, std::uint64_t align, std::uint64_t& end) {
    std::vector<Surface> out;
    const std::uint64_t start = offset;
    for (std::uint32_t layer = 0; layer < d.layers; ++layer)
        for (std::uint32_t face = 0; face < d.faces; ++face)
            for (std::uint32_t i = 0; i < d.mips; ++i) {
                const auto mip = order == MipOrder::largest_first ? i : d.mips - 1 - i;
                const auto w = mip_side(d.width, mip), h = mip_side(d.height, mip);
                offset = start + (offset - start + align - 1) / align * align;
                for (std::uint32_t s = 0; s < mip_side(d.depth, mip); ++s) {
                    const auto size = level_bytes(d.format, w, h);
                    out.push_back({mip, layer, face, s, w, h, offset, size});
                    offset += size;
                }
            }
    end = offset;
    return out;
}

std::string mips_text(std::uint32_t mips) { return mips == 1 ? said("1 level") : phrase("{} mips", mips); }

std::string size_text(const TextureDesc& d) {
    auto text = fmt::format("{}×{}", d.width, d.height);
    if (d.depth > 1) text += phrase("×{} slices", d.depth);
    if (d.faces > 1) text += phrase(" · {} faces", d.faces);
    if (d.layers > 1) text += phrase(" · {} layers", d.layers);
    return text;
}

}  // namespace skivet

#include "texture/png.h"

#include <fmt/format.h>
#include <spng.h>
#include <cstdlib>

#include "base/hash.h"
#include "base/phrase.h"
#include "codec/codec.h"
#include "codec/palette.h"
#include "texture/png_format.h"

namespace skivet {
namespace {

using Context = std::unique_ptr<spng_ctx, decltype(&spng_ctx_free)>;
constexpr unsigned char signature[8] = {0x89, 'P', 'N', 'G', '\r', '\n', 0x1A, '\n'};

using png::Header;

Result<Header> header_of(ByteSpan data) {
    if (data.size() < 33) return fail_at(ErrorCode::damaged, data.size(), phrase("header: needs 33 bytes, has {}", data.size()));
    if (std::memcmp(data.data() + 12, "IHDR", 4) != 0) return fail_at(ErrorCode::damaged, 12, "the first chunk must be IHDR");
    Header h;
    h.width = static_cast<std::uint32_t>(load_uint(data.data() + 16, 4, ByteOrder::big));
    h.height = static_cast<std::uint32_t>(load_uint(data.data() + 20, 4, ByteOrder::big));
    h.depth = static_cast<std::uint8_t>(data[24]);
    h.color_type = static_cast<std::uint8_t>(data[25]);
    h.interlace = static_cast<std::uint8_t>(data[28]);
    for (std::uint64_t at = 33; at + 8 <= data.size();) {
        const auto type = as_text(data.subspan(static_cast<std::size_t>(at) + 4, 4));
        if (type == "tRNS") h.extra_alpha = true;
        if (type == "IDAT") break;
        at += load_uint(data.data() + at, 4, ByteOrder::big) + 12;
    }
    return h;
}

bool recognized(ByteSpan head) { return head.size() >= 8 && std::memcmp(head.data(), signature, 8) == 0; }

tl::unexpected<Error> png_error(int code, std::string_view doing) {
    return fail(code == SPNG_EMEM ? ErrorCode::io : ErrorCode::damaged, fmt::format("{}: {}", said(doing), spng_strerror(code)));
}

/// A context that has read the header and found it within the limits.
Result<Context> open_png(ByteSpan file, const ReadLimits& limits, spng_ihdr& header) {
    Context context(spng_ctx_new(0), &spng_ctx_free);
    if (!context) return fail(ErrorCode::io, "out of memory");
    spng_set_image_limits(context.get(), limits.image_side, limits.image_side);
    spng_set_chunk_limits(context.get(), 16u << 20, 64u << 20);
    if (int code = spng_set_png_buffer(context.get(), file.data(), file.size())) return png_error(code, "PNG");
    if (int code = spng_get_ihdr(context.get(), &header)) return png_error(code, "PNG header");
    if (std::uint64_t{header.width} * header.height > limits.image_texels)
        return fail(ErrorCode::limit, phrase("PNG header: {}×{} texels are more than the limit", header.width, header.height));
    return context;
}

/// The file's own samples: 16 bits in the machine's order, fewer than 8 packed.
Result<Bytes> samples_of(ByteSpan file, const ReadLimits& limits) {
    spng_ihdr header{};
    SKIVET_TRY(const auto context, open_png(file, limits, header));
    std::size_t size = 0;
    if (int code = spng_decoded_image_size(context.get(), SPNG_FMT_PNG, &size)) return png_error(code, "PNG header");
    Bytes out(size);
    if (int code = spng_decode_image(context.get(), out.data(), size, SPNG_FMT_PNG, 0)) return png_error(code, "PNG picture data");
    return out;
}

/// Samples of fewer than 8 bits, one a byte; and back.
std::vector<std::uint8_t> unpack_samples(ByteSpan packed, const Header& h) {
    const std::size_t row = (std::size_t{h.width} * h.depth + 7) / 8;
    std::vector<std::uint8_t> out;
    out.reserve(std::size_t{h.width} * h.height);
    for (std::size_t y = 0; y < h.height; ++y)
        for (std::size_t x = 0; x < h.width; ++x) {
            const auto byte = static_cast<unsigned>(packed[y * row + x * h.depth / 8]);
            out.push_back(static_cast<std::uint8_t>(byte >> (8 - h.depth - x * h.depth % 8) & ((1u << h.depth) - 1)));
        }
    return out;
}
std::vector<std::uint8_t> pack_samples(std::span<const std::uint8_t> samples, const Header& h) {
    const std::size_t row = (std::size_t{h.width} * h.depth + 7) / 8;
    std::vector<std::uint8_t> out(row * h.height);
    for (std::size_t y = 0; y < h.height; ++y)
        for (std::size_t x = 0; x < h.width; ++x) {
            auto& byte = out[y * row + x * h.depth / 8];
            byte = static_cast<std::uint8_t>(byte | samples[y * h.width + x] << (8 - h.depth - x * h.depth % 8));
        }
    return out;
}

template <class Visit>
Status for_each_chunk(ByteSpan png, const Visit& visit) {
    ByteReader reader(png);
    SKIVET_CHECK(reader.skip(8));
    while (reader.remaining() > 0) {
        const auto start = reader.position();
        SKIVET_TRY(const auto length, reader.uint(4, ByteOrder::big));
        SKIVET_TRY(const auto type, reader.take(4));
        SKIVET_CHECK(reader.skip(length + 4));
        visit(as_text(type), png.subspan(start, reader.position() - start));
    }
    return {};
}

}  // namespace

KindTraits PngKind::traits() const { return {.picture = true, .extensions = {"png"}, .marks = {"\x89PNG"}, .certainty = 1}; }

std::optional<std::uint64_t> PngKind::stated_size(ByteSpan d, const ReadLimits&) const {
    // Chunks up to IEND; the first one's CRC is checked.
    if (d.size() < 33 || load_uint(d.data() + 29, 4, ByteOrder::big) != crc32(d.subspan(12, 17))) return std::nullopt;
    for (std::size_t at = 8; at + 12 <= d.size();) {
        const auto length = load_uint(d.data() + at, 4, ByteOrder::big);
        if (length > d.size() - at - 12) return std::nullopt;
        const bool end = as_text(d.subspan(at + 4, 4)) == "IEND";
        at += 12 + static_cast<std::size_t>(length);
        if (end) return at;
    }
    return std::nullopt;
}

Result<Painted> PngKind::painted(ByteSpan file, const TextureLayout&, const ReadLimits& limits) const {
    // Read as a picture, whatever its color type: palettes and transparent colors are what they look like.
    Painted out;
    SKIVET_TRY(out.image, read_png(file, limits));
    SKIVET_TRY(out.wide, read_png_wide(file, limits));
    SKIVET_TRY(out.color, color_of_png(file));
    return out;
}

bool PngKind::recognize(ByteSpan head, std::string_view) const { return recognized(head); }

Result<TextureLayout> PngKind::layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const {
    SKIVET_TRY(const auto h, header_of(data));
    TextureLayout out;
    out.direct = false;
    out.desc.width = h.width;
    out.desc.height = h.height;
    out.desc.format = h.format();
    // The chunks before the picture data that speak of color lie right behind the header.
    for (std::uint64_t at = 33; at + 8 <= data.size();) {
        const auto type = as_text(data.subspan(static_cast<std::size_t>(at) + 4, 4));
        if (type == "sRGB") out.desc.color = ColorSpace::srgb;
        // gAMA holds 100,000 / gamma: 45455 is 1/2.2, which stands for sRGB; 100000 is linear (PNG, section 11.3.3.2).
        if (type == "gAMA" && at + 12 <= data.size() && out.desc.color == ColorSpace::unknown) {
            const auto gamma = load_uint(data.data() + at + 8, 4, ByteOrder::big);
            if (gamma >= 45000 && gamma <= 46000) out.desc.color = ColorSpace::srgb;
            if (gamma == 100000) out.desc.color = ColorSpace::linear;
        }
        if (type == "IDAT") break;
        at += load_uint(data.data() + at, 4, ByteOrder::big) + 12;
    }
    SKIVET_CHECK(check_desc(out.desc, limits));
    SKIVET_CHECK(check_claim(out.desc, file_size, limits));
    out.surfaces.push_back({0, 0, 0, 0, out.desc.width, out.desc.height, 0, level_bytes(out.desc.format, out.desc.width, out.desc.height)});
    if (data.size() == file_size) {
        bool ends = false;
        std::uint64_t at = 8;
        for (; !ends && at + 12 <= file_size; at += load_uint(data.data() + at, 4, ByteOrder::big) + 12)
            ends = as_text(data.subspan(static_cast<std::size_t>(at) + 4, 4)) == "IEND";
        if (!ends || at > file_size)
            out.damage = Error{
                ErrorCode::damaged,
                at > file_size ? phrase("the last chunk: needs {} bytes more", grouped(at - file_size)) : "the end chunk (IEND) is missing",
                {},
                file_size,
                "The file is cut off; what is there is shown"};
    }
    return out;
}

Result<Image> read_png(ByteSpan file, const ReadLimits& limits) {
    // An index outside the palette, or a palette that is none, are the library's to judge.
    if (const auto h = header_of(file); h && h->width <= limits.image_side && h->height <= limits.image_side && recognized(file))
        if (auto usual = png::read_usual(file, *h, limits)) return std::move(*usual);
    spng_ihdr header{};
    SKIVET_TRY(const auto context, open_png(file, limits, header));
    const bool deep = header.bit_depth == 16;
    const auto format = deep ? SPNG_FMT_RGBA16 : SPNG_FMT_RGBA8;
    std::size_t size = 0;
    if (int code = spng_decoded_image_size(context.get(), format, &size)) return png_error(code, "PNG header");
    Image image(header.width, header.height);
    if (!deep) {
        if (int code = spng_decode_image(context.get(), image.texels.data(), image.texels.size() * 4, format, SPNG_DECODE_TRNS))
            return png_error(code, "PNG picture data");
        return image;
    }
    std::vector<std::uint16_t> wide(size / 2);
    if (int code = spng_decode_image(context.get(), wide.data(), size, format, SPNG_DECODE_TRNS))
        return png_error(code, "PNG picture data");
    for (std::size_t i = 0; i < wide.size(); ++i) image.texels[i / 4][i % 4] = static_cast<std::uint8_t>((wide[i] + 128u) / 257u);
    return image;
}

Result<std::optional<ImageF>> read_png_wide(ByteSpan file, const ReadLimits& limits) {
    spng_ihdr header{};
    SKIVET_TRY(const auto context, open_png(file, limits, header));
    if (header.bit_depth != 16) return std::nullopt;
    std::size_t size = 0;
    if (int code = spng_decoded_image_size(context.get(), SPNG_FMT_RGBA16, &size)) return png_error(code, "PNG header");
    std::vector<std::uint16_t> wide(size / 2);
    if (int code = spng_decode_image(context.get(), wide.data(), size, SPNG_FMT_RGBA16, SPNG_DECODE_TRNS))
        return png_error(code, "PNG picture data");
    ImageF image(header.width, header.height);
    for (std::size_t i = 0; i < wide.size(); ++i) image.texels[i / 4][i % 4] = static_cast<float>(wide[i] / 65535.0);
    return image;
}

Result<PictureColor> color_of_png(ByteSpan file) {
    PictureColor out;
    const std::unique_ptr<spng_ctx, decltype(&spng_ctx_free)> context(spng_ctx_new(0), &spng_ctx_free);
    if (!context) return fail(ErrorCode::io, "out of memory");
    spng_set_chunk_limits(context.get(), 16u << 20, 64u << 20);
    if (spng_set_png_buffer(context.get(), file.data(), file.size())) return fail(ErrorCode::damaged, "PNG");
    std::uint8_t intent = 0;
    if (spng_get_srgb(context.get(), &intent) == 0) return out;  // overrides the others
    spng_iccp profile{};
    if (spng_get_iccp(context.get(), &profile) == 0) {
        const auto* begin = reinterpret_cast<const std::byte*>(profile.profile);
        out.profile.assign(begin, begin + profile.profile_len);
        return out;
    }
    double gamma = 0;
    if (spng_get_gama(context.get(), &gamma) == 0 && gamma > 0.01 && gamma < 100 && std::abs(gamma - 1 / 2.2) > 0.004) out.gamma = gamma;
    return out;
}

Result<Bytes> PngKind::bytes(ByteSpan file, const TextureLayout& layout, const Surface&) const {
    if (layout.damage) return fail(*layout.damage);
    SKIVET_TRY(const auto h, header_of(file));
    if (h.plain()) return samples_of(file, ReadLimits{});
    SKIVET_TRY(const auto image, read_png(file, ReadLimits{}));
    return encode(layout.desc.format, image);
}

Result<Bytes> write_png16(const ImageF& image, bool srgb) {
    bool gray = true, opaque = true;
    for (const auto& t : image.texels) {
        gray = gray && t[0] == t[1] && t[1] == t[2];
        opaque = opaque && t[3] >= 1;
    }
    const std::size_t channels = !opaque ? 4 : gray ? 1 : 3;
    const auto rows = [&](std::uint32_t y, std::uint8_t* to) {
        const auto* from = image.texels.data() + std::size_t{y} * image.width;
        for (std::uint32_t x = 0; x < image.width; ++x)
            for (std::size_t c = 0; c < channels; ++c, to += 2) {
                const auto v = static_cast<std::uint16_t>(std::clamp(static_cast<double>(from[x][c]), 0.0, 1.0) * 65535 + 0.5);
                std::memcpy(to, &v, 2);
            }
    };
    const auto type = channels == 4 ? png::true_color_alpha : channels == 3 ? png::true_color : png::gray;
    return png::write(rows, {image.width, image.height, 16, static_cast<std::uint8_t>(type), 0, false}, srgb);
}

Result<Image> PngKind::decode(ByteSpan file, const TextureLayout& layout, const Surface&) const {
    if (!layout.damage) return read_png(file, ReadLimits{});
    // The library wants whole chunks: the one that is cut off is closed where it ends. Then row by row, for as long as there are rows.
    Bytes closed;
    std::uint64_t at = 8;
    while (at + 12 <= file.size() && at + load_uint(file.data() + at, 4, ByteOrder::big) + 12 <= file.size())
        at += load_uint(file.data() + at, 4, ByteOrder::big) + 12;
    closed.assign(file.begin(), file.begin() + static_cast<std::ptrdiff_t>(at));
    const auto append = [&](const Bytes& chunk) { closed.insert(closed.end(), chunk.begin(), chunk.end()); };
    if (at + 8 < file.size())
        append(png::make_chunk(as_text(file.subspan(static_cast<std::size_t>(at) + 4, 4)), file.subspan(static_cast<std::size_t>(at) + 8)));
    append(png::make_chunk("IEND", {}));
    spng_ihdr header{};
    SKIVET_TRY(const auto context, open_png(closed, ReadLimits{}, header));
    Image image(header.width, header.height, {0, 0, 0, 0});
    int code = spng_decode_image(context.get(), nullptr, 0, SPNG_FMT_RGBA8, SPNG_DECODE_PROGRESSIVE | SPNG_DECODE_TRNS);
    std::size_t rows = 0;
    while (code == 0) {
        spng_row_info row{};
        if (spng_get_row_info(context.get(), &row) != 0 || row.row_num >= header.height) break;
        code = spng_decode_row(context.get(), &image.texels[std::size_t{row.row_num} * header.width], std::size_t{header.width} * 4);
        if (code == 0 || code == SPNG_EOI) ++rows;
    }
    if (rows == 0) return fail(*layout.damage);
    return image;
}

std::optional<Reduced> PngKind::decode_small(ByteSpan file, const TextureLayout& layout, const Surface&, std::uint32_t side) const {
    const auto h = header_of(file);
    const auto step = std::max(layout.desc.width, layout.desc.height) / side;
    if (!h || layout.damage || step < 2) return std::nullopt;
    // Unpacked at once, which is faster, or row by row by the library.
    constexpr std::uint64_t at_once = 64u << 20;
    if ((h->row_bytes() + 1) * std::uint64_t{h->height} <= at_once) return png::read_usual_reduced(file, *h, step, ReadLimits{});
    spng_ihdr header{};
    const auto context = open_png(file, ReadLimits{}, header);
    if (!context || header.interlace_method != 0) return std::nullopt;
    if (spng_decode_image(context->get(), nullptr, 0, SPNG_FMT_RGBA8, SPNG_DECODE_PROGRESSIVE | SPNG_DECODE_TRNS) != 0) return std::nullopt;
    RowReducer reducer(header.width, header.height, step);
    std::vector<Texel> row(header.width);
    for (std::uint32_t y = 0; y < header.height; ++y) {
        const int code = spng_decode_row(context->get(), row.data(), row.size() * sizeof(Texel));
        if (code != 0 && code != SPNG_EOI) return std::nullopt;
        reducer.add(row.data());
    }
    return reducer.take();
}

Result<Bytes> write_png(const IndexedPicture& picture, bool srgb) {
    if (picture.palette.empty() || picture.palette.size() > 256)
        return fail(ErrorCode::unfit, phrase("a palette of {} entries", picture.palette.size()));
    SKIVET_TRY(auto out, png::write(picture.numbers, {picture.width, picture.height, 8, png::indexed, 0, false}, srgb));
    // Sections 11.2.3 and 11.3.1.1: the palette stands before the data, the alpha of its entries behind it, up to the last one below 255.
    Bytes colors, alphas;
    for (const auto& t : picture.palette) {
        for (std::size_t c = 0; c < 3; ++c) colors.push_back(static_cast<std::byte>(t[c]));
        alphas.push_back(static_cast<std::byte>(t[3]));
    }
    while (!alphas.empty() && alphas.back() == std::byte{255}) alphas.pop_back();
    auto chunks = png::make_chunk("PLTE", colors);
    if (!alphas.empty()) {
        const auto more = png::make_chunk("tRNS", alphas);
        chunks.insert(chunks.end(), more.begin(), more.end());
    }
    const std::ptrdiff_t behind_header = 8 + 25 + (srgb ? 13 : 0);
    out.insert(out.begin() + behind_header, chunks.begin(), chunks.end());
    return out;
}

Result<Bytes> write_png(const Image& image, bool srgb) {
    bool gray = true, opaque = true;
    for (const auto& t : image.texels) {
        gray = gray && t[0] == t[1] && t[1] == t[2];
        opaque = opaque && t[3] == 255;
    }
    const std::size_t channels = !opaque ? 4 : gray ? 1 : 3;
    const auto rows = [&](std::uint32_t y, std::uint8_t* to) {
        const auto* from = image.texels.data() + std::size_t{y} * image.width;
        if (channels == 4) std::memcpy(to, from, std::size_t{image.width} * 4);
        else if (channels == 3)
            for (std::uint32_t x = 0; x < image.width; ++x, to += 3) std::memcpy(to, from[x].data(), 3);
        else
            for (std::uint32_t x = 0; x < image.width; ++x) to[x] = from[x][0];
    };
    const auto type = channels == 4 ? png::true_color_alpha : channels == 3 ? png::true_color : png::gray;
    return png::write(rows, {image.width, image.height, 8, static_cast<std::uint8_t>(type), 0, false}, srgb);
}

bool PngKind::can_resize(const TextureLayout& layout) const { return !layout.surfaces.empty(); }

Result<Bytes> PngKind::resized(ByteSpan file, const TextureLayout& layout, const TextureDesc& d, ByteSpan payload) const {
    SKIVET_TRY(const auto h, header_of(file));
    if (!h.plain())
        return fail(ErrorCode::unsupported, "a PNG with a palette or less than 8 bits a sample keeps its size",
                    "Save the original with whole bytes a sample");
    // The same file as if it had that size; then it is an edit like any other.
    Bytes head(file.begin() + 16, file.begin() + 29);  // the content of IHDR
    for (std::size_t i = 0; i < 4; ++i) {
        head[i] = static_cast<std::byte>(d.width >> (24 - 8 * i));
        head[4 + i] = static_cast<std::byte>(d.height >> (24 - 8 * i));
    }
    const auto chunk = png::make_chunk("IHDR", head);
    Bytes as_if(file.begin(), file.end());
    std::copy(chunk.begin(), chunk.end(), as_if.begin() + 8);
    auto other = layout;
    other.desc = d;
    other.surfaces = {Surface{0, 0, 0, 0, d.width, d.height, 0, payload.size()}};
    return replace(as_if, other, std::array{SurfaceEdit{0, Bytes(payload.begin(), payload.end())}});
}

Result<Bytes> PngKind::replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const {
    if (edits.empty()) return Bytes(file.begin(), file.end());
    SKIVET_TRY(auto h, header_of(file));
    if (!h.indexed() && h.extra_alpha)
        return fail(ErrorCode::unsupported, "a PNG whose transparency is one color (tRNS) cannot be written back",
                    "Save the original with an alpha channel, or without transparency");
    const auto& bytes = edits.front().bytes;
    if (bytes.size() != layout.surfaces.front().size) return fail(ErrorCode::unfit, "the picture has another size");
    Bytes fresh, new_palette, new_alpha;
    if (h.plain()) {
        SKIVET_TRY(fresh, png::write({reinterpret_cast<const std::uint8_t*>(bytes.data()), bytes.size()}, h, false));
    } else {
        SKIVET_TRY(const auto wanted, skivet::decode(layout.desc.format, bytes, h.width, h.height));
        SKIVET_TRY(const auto old, samples_of(file, ReadLimits{}));
        auto samples = unpack_samples(old, h);
        if (!h.indexed()) {  // gray of 1, 2 or 4 bits
            const unsigned top = (1u << h.depth) - 1;
            for (std::size_t i = 0; i < samples.size(); ++i)
                if (samples[i] * 255u / top != wanted.texels[i][0])
                    samples[i] = static_cast<std::uint8_t>((wanted.texels[i][0] * top + 127) / 255);
            SKIVET_TRY(fresh, png::write(pack_samples(samples, h), h, false));
        } else {
            std::vector<Texel> palette;
            SKIVET_CHECK(for_each_chunk(file, [&](const std::string& type, ByteSpan chunk) {
                const auto* data = chunk.data() + 8;
                const auto size = chunk.size() - 12;
                if (type == "PLTE")
                    for (std::size_t i = 0; i + 3 <= size; i += 3)
                        palette.push_back({static_cast<std::uint8_t>(data[i]), static_cast<std::uint8_t>(data[i + 1]),
                                           static_cast<std::uint8_t>(data[i + 2]), 255});
                if (type == "tRNS")
                    for (std::size_t i = 0; i < std::min(size, palette.size()); ++i) palette[i][3] = static_cast<std::uint8_t>(data[i]);
            }));
            const auto fitted = fit_palette(samples, palette, wanted.texels, std::size_t{1} << h.depth);
            if (fitted.palette != palette) {
                for (const auto& t : fitted.palette) {
                    for (std::size_t c = 0; c < 3; ++c) new_palette.push_back(static_cast<std::byte>(t[c]));
                    new_alpha.push_back(static_cast<std::byte>(t[3]));
                }
                while (!new_alpha.empty() && new_alpha.back() == std::byte{255}) new_alpha.pop_back();
            }
            SKIVET_TRY(fresh, png::write(h.depth == 8 ? fitted.indices : pack_samples(fitted.indices, h), h, false));
        }
    }
    // All chunks stay but the picture data, which is replaced where the first of it stood; and the palette, where it took new colors.
    ByteWriter data, out;
    SKIVET_CHECK(for_each_chunk(fresh, [&](const std::string& type, ByteSpan chunk) {
        if (type == "IDAT") data.put(chunk);
    }));
    out.put(file.first(8));
    bool placed = false;
    SKIVET_CHECK(for_each_chunk(file, [&](const std::string& type, ByteSpan chunk) {
        if (type == "IHDR" && h.interlace) {  // the new picture data is not interlaced; no reader shows a difference
            Bytes plain(chunk.begin() + 8, chunk.end() - 4);
            plain[12] = std::byte{0};
            out.put(png::make_chunk("IHDR", plain));
        } else if (type == "PLTE" && !new_palette.empty()) {
            out.put(png::make_chunk("PLTE", new_palette));
            if (!new_alpha.empty()) out.put(png::make_chunk("tRNS", new_alpha));
        } else if (type == "tRNS" && !new_palette.empty()) {
            return;  // written with the palette
        } else if (type != "IDAT") {
            out.put(chunk);
        } else if (!std::exchange(placed, true)) {
            out.put(data.bytes);
        }
    }));
    return std::move(out.bytes);
}

}  // namespace skivet

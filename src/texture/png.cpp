#include "texture/png.h"

#include <cstdlib>
#include <fmt/format.h>
#include <spng.h>

#include "codec/codec.h"

namespace skivet {
namespace {

using Context = std::unique_ptr<spng_ctx, decltype(&spng_ctx_free)>;
constexpr unsigned char signature[8] = {0x89, 'P', 'N', 'G', '\r', '\n', 0x1A, '\n'};

Format format_of(std::uint8_t color_type) {
    switch (color_type) {
        case SPNG_COLOR_TYPE_GRAYSCALE: return Format::L8;
        case SPNG_COLOR_TYPE_GRAYSCALE_ALPHA: return Format::LA8;
        case SPNG_COLOR_TYPE_TRUECOLOR: return Format::RGB8;
        default: return Format::RGBA8;
    }
}

tl::unexpected<Error> png_error(int code, std::string_view doing) {
    return fail(code == SPNG_EMEM ? ErrorCode::io : ErrorCode::damaged, fmt::format("{}: {}", doing, spng_strerror(code)));
}

Result<Bytes> encode_rows(std::span<const std::uint8_t> rows, std::uint32_t width, std::uint32_t height, std::uint8_t color_type, bool srgb) {
    Context context(spng_ctx_new(SPNG_CTX_ENCODER), &spng_ctx_free);
    if (!context) return fail(ErrorCode::io, "out of memory");
    spng_set_option(context.get(), SPNG_ENCODE_TO_BUFFER, 1);
    spng_set_option(context.get(), SPNG_IMG_COMPRESSION_LEVEL, 6);
    spng_ihdr header{width, height, 8, color_type, 0, 0, 0};
    if (int code = spng_set_ihdr(context.get(), &header)) return png_error(code, "header");
    if (srgb) spng_set_srgb(context.get(), 0);
    if (int code = spng_encode_image(context.get(), rows.data(), rows.size(), SPNG_FMT_PNG, SPNG_ENCODE_FINALIZE))
        return png_error(code, "encoding");
    std::size_t size = 0;
    int code = 0;
    std::unique_ptr<void, decltype(&std::free)> buffer(spng_get_png_buffer(context.get(), &size, &code), &std::free);
    if (!buffer) return png_error(code, "encoding");
    Bytes out(size);
    std::memcpy(out.data(), buffer.get(), size);
    return out;
}

}  // namespace

bool PngKind::recognize(ByteSpan head, std::string_view) const {
    return head.size() >= 8 && std::memcmp(head.data(), signature, 8) == 0;
}

Result<TextureLayout> PngKind::layout(ByteSpan data, std::uint64_t, const ReadLimits& limits) const {
    if (data.size() < 33) return fail_at(ErrorCode::damaged, data.size(), fmt::format("header: needs 33 bytes, has {}", data.size()));
    if (std::memcmp(data.data() + 12, "IHDR", 4) != 0) return fail_at(ErrorCode::damaged, 12, "the first chunk must be IHDR");
    TextureLayout out;
    out.direct = false;
    out.desc.width = static_cast<std::uint32_t>(load_uint(data.data() + 16, 4, ByteOrder::big));
    out.desc.height = static_cast<std::uint32_t>(load_uint(data.data() + 20, 4, ByteOrder::big));
    out.desc.format = format_of(static_cast<std::uint8_t>(data[25]));
    // The chunks before the picture data that speak of color lie right behind the header.
    for (std::uint64_t at = 33; at + 8 <= data.size();) {
        const auto type = as_text(data.subspan(static_cast<std::size_t>(at) + 4, 4));
        if (type == "sRGB") out.desc.color = ColorSpace::srgb;
        if (type == "IDAT") break;
        at += load_uint(data.data() + at, 4, ByteOrder::big) + 12;
    }
    SKIVET_CHECK(check_desc(out.desc, limits));
    out.surfaces.push_back({0, 0, 0, 0, out.desc.width, out.desc.height, 0, level_bytes(out.desc.format, out.desc.width, out.desc.height)});
    return out;
}

Result<Image> read_png(ByteSpan file, const ReadLimits& limits) {
    Context context(spng_ctx_new(0), &spng_ctx_free);
    if (!context) return fail(ErrorCode::io, "out of memory");
    spng_set_image_limits(context.get(), limits.image_side, limits.image_side);
    spng_set_chunk_limits(context.get(), 16u << 20, 64u << 20);
    if (int code = spng_set_png_buffer(context.get(), file.data(), file.size())) return png_error(code, "PNG");
    spng_ihdr header{};
    if (int code = spng_get_ihdr(context.get(), &header)) return png_error(code, "PNG header");
    if (std::uint64_t{header.width} * header.height > limits.image_texels)
        return fail(ErrorCode::limit, fmt::format("PNG header: {}×{} texels are more than the limit", header.width, header.height));
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
    if (int code = spng_decode_image(context.get(), wide.data(), size, format, SPNG_DECODE_TRNS)) return png_error(code, "PNG picture data");
    for (std::size_t i = 0; i < wide.size(); ++i) image.texels[i / 4][i % 4] = static_cast<std::uint8_t>((wide[i] + 128u) / 257u);
    return image;
}

Result<Image> PngKind::decode(ByteSpan file, const TextureLayout&, const Surface&) const { return read_png(file, ReadLimits{}); }

Result<Bytes> write_png(const Image& image, bool srgb) {
    bool gray = true, opaque = true;
    for (const auto& t : image.texels) {
        gray = gray && t[0] == t[1] && t[1] == t[2];
        opaque = opaque && t[3] == 255;
    }
    const std::size_t channels = !opaque ? 4 : gray ? 1 : 3;
    std::vector<std::uint8_t> rows(image.texels.size() * channels);
    for (std::size_t i = 0; i < image.texels.size(); ++i)
        for (std::size_t c = 0; c < channels; ++c) rows[i * channels + c] = image.texels[i][c];
    return encode_rows(rows, image.width, image.height,
                       static_cast<std::uint8_t>(channels == 4   ? SPNG_COLOR_TYPE_TRUECOLOR_ALPHA
                                                 : channels == 3 ? SPNG_COLOR_TYPE_TRUECOLOR
                                                                 : SPNG_COLOR_TYPE_GRAYSCALE),
                       srgb);
}

Result<Bytes> PngKind::replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const {
    if (edits.empty()) return Bytes(file.begin(), file.end());
    const auto depth = static_cast<unsigned>(file[24]), color_type = static_cast<unsigned>(file[25]), interlace = static_cast<unsigned>(file[28]);
    if (color_type == SPNG_COLOR_TYPE_INDEXED || depth != 8 || interlace != 0)
        return fail(ErrorCode::unsupported, fmt::format("a PNG with {} bits{}{} cannot be written back yet", depth,
                                                        color_type == SPNG_COLOR_TYPE_INDEXED ? ", a palette" : "", interlace ? ", interlaced" : ""),
                    "Only 8-bit gray, RGB and RGBA without interlacing can");
    const auto& bytes = edits.front().bytes;
    if (bytes.size() != layout.surfaces.front().size) return fail(ErrorCode::unfit, "the picture has another size");
    SKIVET_TRY(const auto fresh, encode_rows({reinterpret_cast<const std::uint8_t*>(bytes.data()), bytes.size()}, layout.desc.width,
                                             layout.desc.height, static_cast<std::uint8_t>(color_type), false));
    // All chunks stay but the picture data, which is replaced where the first of it stood.
    const auto for_each_chunk = [](ByteSpan png, auto&& visit) -> Status {
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
    };
    ByteWriter data, out;
    SKIVET_CHECK(for_each_chunk(fresh, [&](const std::string& type, ByteSpan chunk) {
        if (type == "IDAT") data.put(chunk);
    }));
    out.put(file.first(8));
    bool placed = false;
    SKIVET_CHECK(for_each_chunk(file, [&](const std::string& type, ByteSpan chunk) {
        if (type != "IDAT") out.put(chunk);
        else if (!std::exchange(placed, true)) out.put(data.bytes);
    }));
    return std::move(out.bytes);
}

}  // namespace skivet

#include <tbb/parallel_for.h>
#include <atomic>
#include <cstring>
#include <memory>

#include "base/phrase.h"
#include "codec/blocks.h"
#include "pixel/metrics.h"

namespace skivet {
namespace {

// clang-format off
constexpr std::pair<Format, const BlockCodec*> codecs[] = {
    {Format::BC1, &bc1_codec}, {Format::BC2, &bc2_codec}, {Format::BC3, &bc3_codec}, {Format::BC4, &bc4_codec},
    {Format::BC4_SNORM, &bc4_snorm_codec}, {Format::BC5, &bc5_codec}, {Format::BC5_SNORM, &bc5_snorm_codec},
    {Format::BC6H, &bc6h_codec}, {Format::BC6H_SF16, &bc6h_sf16_codec}, {Format::BC7, &bc7_codec},
    {Format::ETC1, &etc1_codec}, {Format::ETC2_RGB, &etc2_rgb_codec}, {Format::ETC2_RGBA1, &etc2_rgba1_codec}, {Format::ETC2_RGBA, &etc2_rgba_codec},
    {Format::EAC_R, &eac_r_codec}, {Format::EAC_R_SNORM, &eac_r_snorm_codec}, {Format::EAC_RG, &eac_rg_codec}, {Format::EAC_RG_SNORM, &eac_rg_snorm_codec},
};
// clang-format on

constexpr std::size_t batch = 512;  ///< blocks handed to an encoder at once

Status check_level(Format format, ByteSpan data, std::uint32_t width, std::uint32_t height) {
    if (format == Format::unknown) return fail(ErrorCode::unsupported, "the pixel format is unknown");
    const auto need = level_bytes(format, width, height);
    if (data.size() < need)
        return fail(ErrorCode::damaged,
                    phrase("{} {}×{}: needs {} bytes, has {}", info(format).name, width, height, grouped(need), grouped(data.size())));
    return {};
}

/// The block's texels; outside the picture the nearest one inside.
template <class Picture, class T>
void gather(const FormatInfo& f, const Picture& image, std::uint32_t bx, std::uint32_t by, T* out) {
    const std::uint32_t left = bx * f.block_width, top = by * f.block_height;
    if (left + f.block_width <= image.width && top + f.block_height <= image.height) {
        const T* row = &image.at(left, top);
        if (f.block_width == 4) {  // a known width copies in one step
            for (std::uint32_t y = 0; y < f.block_height; ++y, row += image.width, out += 4) std::copy_n(row, 4, out);
            return;
        }
        for (std::uint32_t y = 0; y < f.block_height; ++y, row += image.width, out += f.block_width) std::copy_n(row, f.block_width, out);
        return;
    }
    for (std::uint32_t y = 0; y < f.block_height; ++y)
        for (std::uint32_t x = 0; x < f.block_width; ++x)
            *out++ = image.at(std::min(left + x, image.width - 1), std::min(top + y, image.height - 1));
}

template <class Picture>
bool same_block(const FormatInfo& f, const Picture& a, const Picture& b, std::uint32_t bx, std::uint32_t by) {
    const auto x_end = std::min((bx + 1) * f.block_width, a.width), y_end = std::min((by + 1) * f.block_height, a.height);
    for (std::uint32_t y = by * f.block_height; y < y_end; ++y)
        for (std::uint32_t x = bx * f.block_width; x < x_end; ++x)
            if (!same_texel(a.at(x, y), b.at(x, y))) return false;
    return true;
}

/// Rows of blocks in parallel; blocks do not depend on each other, so the result is the same for any number of threads.
template <class Work>
void each_row(std::uint32_t rows, std::uint32_t worth_it, const Work& work) {
    if (rows < worth_it) {
        for (std::uint32_t by = 0; by < rows; ++by) work(by);
    } else {
        tbb::parallel_for(0u, rows, work);
    }
}

template <class Picture, class T>
void decode_blocks(const FormatInfo& f, void (*run)(const std::byte*, std::size_t, T*, std::size_t), ByteSpan data, Picture& image) {
    const auto width = image.width, height = image.height;
    const std::uint32_t across = (width + f.block_width - 1u) / f.block_width, down = (height + f.block_height - 1u) / f.block_height;
    const std::uint32_t whole = width / f.block_width;
    each_row(down, 8, [&](std::uint32_t by) {
        const auto* row = data.data() + std::size_t{by} * across * f.block_bytes;
        const auto rows = std::min<std::uint32_t>(f.block_height, height - by * f.block_height);
        T* out = &image.texels[std::size_t{by} * f.block_height * width];
        std::uint32_t done = 0;
        if (rows == f.block_height) run(row, done = whole, out, width);
        std::array<T, 144> edge;  // a border block is decoded whole and cut
        for (std::uint32_t bx = done; bx < across; ++bx) {
            run(row + std::size_t{bx} * f.block_bytes, 1, edge.data(), f.block_width);
            const auto columns = std::min<std::uint32_t>(f.block_width, width - bx * f.block_width);
            for (std::uint32_t y = 0; y < rows; ++y)
                for (std::uint32_t x = 0; x < columns; ++x)
                    out[std::size_t{y} * width + bx * f.block_width + x] = edge[y * f.block_width + x];
        }
    });
}

/// EncodeOptions::held_before by some of the picture's blocks; of its whole, whatever is encoded of it. None where they do not tell.
std::optional<bool> was_held(const FormatInfo& f, const BlockCodec& codec, const Image& image) {
    constexpr std::uint64_t least_samples = 8, most_samples = 64, blocks_each = 64;
    const std::uint64_t across = (image.width + f.block_width - 1u) / f.block_width,
                        total = across * ((image.height + f.block_height - 1u) / f.block_height);
    if (total <= least_samples) return true;  // all are soon looked at
    const auto count = std::clamp(total / blocks_each, least_samples, most_samples);
    std::vector<Texel> texels(count * f.block_width * f.block_height);
    for (std::uint64_t k = 0; k < count; ++k) {
        // One in each of as many stretches, at no regular distance: pictures are regular themselves.
        const auto at = total * k / count + k * 0x9E3779B1u % (total / count);
        gather(f, image, static_cast<std::uint32_t>(at % across), static_cast<std::uint32_t>(at / across),
               texels.data() + k * f.block_width * f.block_height);
    }
    const auto held = codec.held(texels.data(), count);
    return held.telling == 0 ? std::nullopt : std::optional(4 * held.exact >= held.telling);
}

EncodeOptions with_held(const FormatInfo& f, const BlockCodec* codec, const Image& image, EncodeOptions options) {
    if (codec && codec->held && !options.held_before) options.held_before = was_held(f, *codec, image);
    return options;
}

/// Encodes the blocks for which `wanted(bx, by)` says yes, many at a time: encoders sort them by kind. How many it said yes to.
template <class Picture, class T, class Wanted>
std::uint64_t encode_blocks(const FormatInfo& f, void (*run)(const T*, std::size_t, std::byte*, const EncodeOptions&), const Picture& image,
                            std::byte* out, const EncodeOptions& options, const Wanted& wanted) {
    const std::size_t across = (image.width + f.block_width - 1u) / f.block_width,
                      down = (image.height + f.block_height - 1u) / f.block_height;
    const std::size_t block_texels = std::size_t{f.block_width} * f.block_height, total = across * down;
    std::atomic<std::uint64_t> encoded = 0;
    each_row(static_cast<std::uint32_t>((total + batch - 1) / batch), 2, [&](std::uint32_t part) {
        const std::size_t first = std::size_t{part} * batch, end = std::min(total, first + batch);
        std::vector<std::size_t> which;
        which.reserve(end - first);
        // Not cleared first: every texel is written.
        const auto texels = std::make_unique_for_overwrite<T[]>((end - first) * block_texels);
        auto* next = texels.get();
        auto bx = static_cast<std::uint32_t>(first % across), by = static_cast<std::uint32_t>(first / across);
        for (std::size_t b = first; b < end; ++b) {
            if (wanted(bx, by)) {
                gather(f, image, bx, by, next);
                next += block_texels;
                which.push_back(b);
            }
            if (++bx == across) bx = 0, ++by;
        }
        encoded += which.size();
        if (which.empty()) return;
        if (which.size() == end - first) return run(texels.get(), which.size(), out + first * f.block_bytes, options);
        Bytes bytes(which.size() * f.block_bytes);
        run(texels.get(), which.size(), bytes.data(), options);
        for (std::size_t i = 0; i < which.size(); ++i)
            std::copy_n(bytes.data() + i * f.block_bytes, f.block_bytes, out + which[i] * f.block_bytes);
    });
    return encoded;
}

template <class Picture, class T, class Run, class Packed>
Result<Bytes> encode_level(const FormatInfo& f, Run run, Packed packed, const Picture& image, const EncodeOptions& options) {
    Bytes out(static_cast<std::size_t>(level_bytes(f.format, image.width, image.height)));
    if (!f.block_compressed()) {
        packed(f, image.texels.data(), image.texels.size(), out.data());
        return out;
    }
    encode_blocks<Picture, T>(f, run, image, out.data(), options, [](std::uint32_t, std::uint32_t) { return true; });
    return out;
}

template <class Picture, class T, class Run, class Packed>
Result<Bytes> encode_changed_level(const FormatInfo& f, Run run, Packed packed, const Picture& image, const Picture& before,
                                   ByteSpan original, std::uint64_t* kept, const EncodeOptions& options) {
    const auto size = static_cast<std::size_t>(level_bytes(f.format, image.width, image.height));
    Bytes out(original.begin(), original.begin() + static_cast<std::ptrdiff_t>(size));
    std::uint64_t same = 0;
    const auto rows = rows_that_differ(image, before);
    if (f.block_compressed()) {
        const auto any = [&](std::uint32_t by) {
            const auto first = rows.begin() + std::ptrdiff_t{by} * f.block_height;
            const auto end = first + std::min<std::ptrdiff_t>(f.block_height, rows.end() - first);
            return std::find(first, end, 1) != end;
        };
        const auto encoded = encode_blocks<Picture, T>(f, run, image, out.data(), options, [&](std::uint32_t bx, std::uint32_t by) {
            return any(by) && !same_block(f, image, before, bx, by);
        });
        same = size / f.block_bytes - encoded;
    } else {
        for (std::uint32_t y = 0; y < image.height; ++y) {
            if (!rows[y]) {
                same += image.width;
                continue;
            }
            for (auto i = std::size_t{y} * image.width; i < std::size_t{y + 1} * image.width; ++i) {
                if (same_texel(image.texels[i], before.texels[i])) ++same;
                else packed(f, &image.texels[i], 1, out.data() + i * f.block_bytes);
            }
        }
    }
    if (kept) *kept = same;
    return out;
}

Status check_encode(Format format) {
    if (format == Format::unknown) return fail(ErrorCode::unsupported, "the pixel format is unknown");
    if (!can_encode(format))
        return fail(ErrorCode::unsupported, phrase("{} is only read", info(format).name),
                    "Textures of this format can be shown and exported, not written");
    return {};
}

template <class Picture>
Status check_changed(Format format, const Picture& image, const Picture& before, ByteSpan original) {
    if (image.width != before.width || image.height != before.height) return fail(ErrorCode::usage, "the pictures differ in size");
    return check_level(format, original, image.width, image.height);
}

/// Byte formats from true values.
Image to_byte_form(Format format, const ImageF& image) { return view_of(format, image); }

}  // namespace

std::string_view name_of(Effort effort) { return effort == Effort::fast ? "fast" : effort == Effort::normal ? "normal" : "best"; }

std::optional<Effort> effort_named(std::string_view name) {
    for (const auto effort : {Effort::fast, Effort::normal, Effort::best})
        if (name_of(effort) == name) return effort;
    return std::nullopt;
}

const BlockCodec* block_codec(Format format) {
    if (is_astc(format)) return &astc_codecs[static_cast<std::size_t>(format) - static_cast<std::size_t>(Format::ASTC_4x4)];
    for (const auto& [known, codec] : codecs)
        if (known == format) return codec;
    return nullptr;
}

bool can_encode(Format format) {
    const auto* codec = block_codec(format);
    return format != Format::unknown && (!codec || codec->encode || codec->encode_wide);
}

Status decode_into(Format format, ByteSpan data, Image& out) {
    SKIVET_CHECK(check_level(format, data, out.width, out.height));
    const auto& f = info(format);
    const auto* codec = block_codec(format);
    if (codec && codec->decode) decode_blocks<Image, Texel>(f, codec->decode, data, out);
    else if (f.wide) return fail(ErrorCode::usage, "8 bits do not hold this format");
    else decode_packed(f, data.data(), out.texels.size(), out.texels.data());
    return {};
}

Result<Image> decode(Format format, ByteSpan data, std::uint32_t width, std::uint32_t height) {
    SKIVET_CHECK(check_level(format, data, width, height));
    const auto* codec = block_codec(format);
    if (info(format).wide && !(codec && codec->decode)) {
        SKIVET_TRY(const auto wide, decode_wide(format, data, width, height));
        return view_of(format, wide);
    }
    Image image(width, height);
    SKIVET_CHECK(decode_into(format, data, image));
    return image;
}

Status decode_changed(Format format, ByteSpan before, ByteSpan now, Image& image) {
    SKIVET_CHECK(check_level(format, before, image.width, image.height));
    SKIVET_CHECK(check_level(format, now, image.width, image.height));
    const auto& f = info(format);
    const auto* codec = block_codec(format);
    if (!codec || !codec->decode) {
        SKIVET_TRY(image, decode(format, now, image.width, image.height));
        return {};
    }
    const std::uint32_t across = (image.width + f.block_width - 1u) / f.block_width,
                        down = (image.height + f.block_height - 1u) / f.block_height;
    each_row(down, 8, [&](std::uint32_t by) {
        const auto* old_row = before.data() + std::size_t{by} * across * f.block_bytes;
        const auto* row = now.data() + std::size_t{by} * across * f.block_bytes;
        if (std::memcmp(old_row, row, std::size_t{across} * f.block_bytes) == 0) return;
        const auto rows = std::min<std::uint32_t>(f.block_height, image.height - by * f.block_height);
        std::array<Texel, 144> block;
        for (std::uint32_t bx = 0; bx < across; ++bx) {
            const auto at = std::size_t{bx} * f.block_bytes;
            if (std::memcmp(old_row + at, row + at, f.block_bytes) == 0) continue;
            codec->decode(row + at, 1, block.data(), f.block_width);
            const auto columns = std::min<std::uint32_t>(f.block_width, image.width - bx * f.block_width);
            for (std::uint32_t y = 0; y < rows; ++y)
                std::copy_n(&block[std::size_t{y} * f.block_width], columns, &image.at(bx * f.block_width, by * f.block_height + y));
        }
    });
    return {};
}

Result<ImageF> decode_wide(Format format, ByteSpan data, std::uint32_t width, std::uint32_t height) {
    SKIVET_CHECK(check_level(format, data, width, height));
    const auto& f = info(format);
    const auto* codec = block_codec(format);
    if (codec && codec->decode_wide) {
        ImageF image(width, height);
        decode_blocks<ImageF, TexelF>(f, codec->decode_wide, data, image);
        return image;
    }
    if (codec) {
        SKIVET_TRY(const auto image, decode(format, data, width, height));
        return from_view(format, image);
    }
    ImageF image(width, height);
    decode_packed_wide(f, data.data(), image.texels.size(), image.texels.data());
    return image;
}

Result<Bytes> encode(Format format, const Image& image, const EncodeOptions& options) {
    SKIVET_CHECK(check_encode(format));
    const auto& f = info(format);
    if (f.wide) return encode(format, from_view(format, image), options);
    const auto* codec = block_codec(format);
    return encode_level<Image, Texel>(f, codec ? codec->encode : nullptr, encode_packed, image, with_held(f, codec, image, options));
}

Result<Bytes> encode(Format format, const ImageF& image, const EncodeOptions& options) {
    SKIVET_CHECK(check_encode(format));
    const auto& f = info(format);
    if (!f.wide) return encode(format, to_byte_form(format, image), options);
    const auto* codec = block_codec(format);
    return encode_level<ImageF, TexelF>(f, codec ? codec->encode_wide : nullptr, encode_packed_wide, image, options);
}

Result<Bytes> encode_changed(Format format, const Image& image, const Image& before, ByteSpan original, std::uint64_t* kept,
                             const EncodeOptions& options) {
    SKIVET_CHECK(check_encode(format));
    SKIVET_CHECK(check_changed(format, image, before, original));
    const auto& f = info(format);
    if (f.wide) {
        // Where the view did not change neither did the value; elsewhere the view is all there is.
        SKIVET_TRY(const auto true_before, decode_wide(format, original, image.width, image.height));
        auto true_image = from_view(format, image);
        for (std::size_t i = 0; i < image.texels.size(); ++i)
            if (same_texel(image.texels[i], before.texels[i])) true_image.texels[i] = true_before.texels[i];
        return encode_changed(format, true_image, true_before, original, kept, options);
    }
    const auto* codec = block_codec(format);
    return encode_changed_level<Image, Texel>(f, codec ? codec->encode : nullptr, encode_packed, image, before, original, kept,
                                              with_held(f, codec, image, options));
}

Result<Bytes> encode_changed(Format format, const ImageF& image, const ImageF& before, ByteSpan original, std::uint64_t* kept,
                             const EncodeOptions& options) {
    SKIVET_CHECK(check_encode(format));
    SKIVET_CHECK(check_changed(format, image, before, original));
    const auto& f = info(format);
    if (!f.wide) {
        SKIVET_TRY(const auto byte_before, decode(format, original, image.width, image.height));
        auto byte_image = to_byte_form(format, image);
        for (std::size_t i = 0; i < image.texels.size(); ++i)
            if (same_texel(image.texels[i], before.texels[i])) byte_image.texels[i] = byte_before.texels[i];
        return encode_changed(format, byte_image, byte_before, original, kept, options);
    }
    const auto* codec = block_codec(format);
    return encode_changed_level<ImageF, TexelF>(f, codec ? codec->encode_wide : nullptr, encode_packed_wide, image, before, original, kept,
                                                options);
}

}  // namespace skivet

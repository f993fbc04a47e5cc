#include <atomic>
#include <fmt/format.h>
#include <tbb/parallel_for.h>

#include "codec/codec.h"

namespace skivet {
namespace {

constexpr std::pair<Format, Codec> codecs[] = {
    {Format::BC1, {decode_bc1, encode_bc1}},
    {Format::BC2, {decode_bc2, encode_bc2}},
    {Format::BC3, {decode_bc3, encode_bc3}},
    {Format::BC4, {decode_bc4, encode_bc4}},
    {Format::BC5, {decode_bc5, encode_bc5}},
};

Status check_level(Format format, ByteSpan data, std::uint32_t width, std::uint32_t height) {
    if (format == Format::unknown) return fail(ErrorCode::unsupported, "the pixel format is unknown");
    const auto need = level_bytes(format, width, height);
    if (data.size() < need)
        return fail(ErrorCode::damaged, fmt::format("{} {}×{}: needs {} bytes, has {}", info(format).name, width, height, grouped(need),
                                                    grouped(data.size())));
    return {};
}

BlockTexels gather(const Image& image, std::uint32_t bx, std::uint32_t by) {
    BlockTexels block;
    for (std::uint32_t y = 0; y < 4; ++y)
        for (std::uint32_t x = 0; x < 4; ++x)
            block[y * 4 + x] = image.at(std::min(bx * 4 + x, image.width - 1), std::min(by * 4 + y, image.height - 1));
    return block;
}

bool same_block(const Image& a, const Image& b, std::uint32_t bx, std::uint32_t by) {
    const auto x_end = std::min(bx * 4 + 4, a.width), y_end = std::min(by * 4 + 4, a.height);
    for (std::uint32_t y = by * 4; y < y_end; ++y)
        for (std::uint32_t x = bx * 4; x < x_end; ++x)
            if (a.at(x, y) != b.at(x, y)) return false;
    return true;
}

}  // namespace

const Codec* block_codec(Format format) {
    for (const auto& [known, codec] : codecs)
        if (known == format) return &codec;
    return nullptr;
}

Result<Image> decode(Format format, ByteSpan data, std::uint32_t width, std::uint32_t height) {
    SKIVET_CHECK(check_level(format, data, width, height));
    Image image(width, height);
    const auto& f = info(format);
    const auto* codec = block_codec(format);
    if (!codec) {
        decode_packed(f, data.data(), image.texels.size(), image.texels.data());
        return image;
    }
    const auto across = (width + 3) / 4, down = (height + 3) / 4;
    BlockTexels block;
    for (std::uint32_t by = 0; by < down; ++by) {
        for (std::uint32_t bx = 0; bx < across; ++bx) {
            codec->decode_block(data.data() + (std::size_t{by} * across + bx) * f.block_bytes, block);
            const auto columns = std::min(4u, width - bx * 4), rows = std::min(4u, height - by * 4);
            for (std::uint32_t y = 0; y < rows; ++y)
                for (std::uint32_t x = 0; x < columns; ++x) image.at(bx * 4 + x, by * 4 + y) = block[y * 4 + x];
        }
    }
    return image;
}

Result<Bytes> encode(Format format, const Image& image) {
    if (format == Format::unknown) return fail(ErrorCode::unsupported, "the pixel format is unknown");
    const auto& f = info(format);
    Bytes out(static_cast<std::size_t>(level_bytes(format, image.width, image.height)));
    const auto* codec = block_codec(format);
    if (!codec) {
        encode_packed(f, image.texels.data(), image.texels.size(), out.data());
        return out;
    }
    const auto across = (image.width + 3) / 4, down = (image.height + 3) / 4;
    // Blocks do not depend on each other, so the bytes are the same for any number of threads.
    tbb::parallel_for(0u, down, [&](std::uint32_t by) {
        for (std::uint32_t bx = 0; bx < across; ++bx)
            codec->encode_block(gather(image, bx, by), out.data() + (std::size_t{by} * across + bx) * f.block_bytes);
    });
    return out;
}

Result<Bytes> encode_changed(Format format, const Image& image, const Image& before, ByteSpan original, std::uint64_t* kept) {
    if (image.width != before.width || image.height != before.height)
        return fail(ErrorCode::usage, "the pictures differ in size");
    SKIVET_CHECK(check_level(format, original, image.width, image.height));
    const auto& f = info(format);
    const auto size = static_cast<std::size_t>(level_bytes(format, image.width, image.height));
    Bytes out(original.begin(), original.begin() + static_cast<std::ptrdiff_t>(size));
    std::atomic<std::uint64_t> same = 0;
    if (const auto* codec = block_codec(format)) {
        const auto across = (image.width + 3) / 4, down = (image.height + 3) / 4;
        tbb::parallel_for(0u, down, [&](std::uint32_t by) {
            std::uint64_t here = 0;
            for (std::uint32_t bx = 0; bx < across; ++bx) {
                if (same_block(image, before, bx, by)) ++here;
                else codec->encode_block(gather(image, bx, by), out.data() + (std::size_t{by} * across + bx) * f.block_bytes);
            }
            same += here;
        });
    } else {
        for (std::size_t i = 0; i < image.texels.size(); ++i) {
            if (image.texels[i] == before.texels[i]) ++same;
            else encode_packed(f, &image.texels[i], 1, out.data() + i * f.block_bytes);
        }
    }
    if (kept) *kept = same;
    return out;
}

}  // namespace skivet

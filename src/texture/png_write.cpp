// Writing PNG (W3C Recommendation "Portable Network Graphics", third edition). The picture data is filtered here and packed by libdeflate,
// which is several times faster than zlib at the same size.
#include <libdeflate.h>
#include <tbb/parallel_for.h>

#include "base/hash.h"
#include "texture/png_format.h"

// The loops below are worth full vectorization, which -O2 does not give.
#if defined(__GNUC__) && !defined(__clang__)
#pragma GCC optimize("O3")
#endif

namespace skivet::png {
namespace {

constexpr int packing_level = 3;  ///< measured: less than a percent larger than zlib's default on textures, several times faster

std::uint8_t paeth(int a, int b, int c) {
    const int pa = std::abs(b - c), pb = std::abs(a - c), pc = std::abs(a + b - 2 * c);
    return static_cast<std::uint8_t>(pa <= pb && pa <= pc ? a : pb <= pc ? b : c);
}

/// Section 9.2: what a filter leaves of a row. `above` is the row before, zeros for the first; both have `step` zeros in front.
void filter_row(int type, const std::uint8_t* row, const std::uint8_t* above, std::size_t size, std::size_t step, std::uint8_t* out) {
    const auto* left = row - step;
    const auto* corner = above - step;
    const auto byte = [](int v) { return static_cast<std::uint8_t>(v); };
    switch (type) {
        case 1:
            for (std::size_t i = 0; i < size; ++i) out[i] = byte(row[i] - left[i]);
            break;
        case 2:
            for (std::size_t i = 0; i < size; ++i) out[i] = byte(row[i] - above[i]);
            break;
        case 3:
            for (std::size_t i = 0; i < size; ++i) out[i] = byte(row[i] - ((left[i] + above[i]) >> 1));
            break;
        case 4:
            for (std::size_t i = 0; i < size; ++i) out[i] = byte(row[i] - paeth(left[i], above[i], corner[i]));
            break;
        default: std::memcpy(out, row, size);
    }
}

/// Section 12.7: the sum of the absolute values, taken as signed, tells well which filter packs best.
std::uint32_t weight_of(const std::uint8_t* row, std::size_t size) {
    std::uint32_t sum = 0;
    for (std::size_t i = 0; i < size; ++i) sum += static_cast<std::uint32_t>(std::abs(static_cast<int>(static_cast<std::int8_t>(row[i]))));
    return sum;
}

/// The filtered rows, a type byte before each.
struct Filtered {
    std::unique_ptr<std::uint8_t[]> bytes;  // not set to zero before: all of them are written
    std::size_t size = 0;
};
Filtered filtered(const RowSource& rows, const Header& h) {
    const std::size_t row = h.row_bytes(), step = std::max<std::size_t>(1, h.texel_bits() / 8);
    Filtered out{nullptr, (row + 1) * h.height};
    out.bytes = std::make_unique_for_overwrite<std::uint8_t[]>(out.size);
    const bool unfiltered = h.indexed() || h.depth < 8;  // section 12.7: filters do not help there
    const auto fetch = [&](std::uint32_t y, std::uint8_t* to) {
        rows(y, to);
        if (h.depth == 16)  // samples are in network order in the file
            for (std::size_t i = 0; i + 1 < row; i += 2) std::swap(to[i], to[i + 1]);
    };
    constexpr std::uint32_t band = 32;
    tbb::parallel_for(0u, (h.height + band - 1) / band, [&](std::uint32_t b) {
        std::vector<std::uint8_t> padded((row + step) * 2), tried(row), best(row);
        auto *here = padded.data() + step, *above = padded.data() + row + 2 * step;
        if (b > 0) fetch(b * band - 1, above);
        for (auto y = b * band; y < std::min(h.height, (b + 1) * band); ++y) {
            fetch(y, here);
            auto* to = out.bytes.get() + y * (row + 1);
            if (unfiltered) {
                *to = 0;
                std::memcpy(to + 1, here, row);
            } else {
                std::uint32_t least = ~0u;
                for (int type = 0; type < 5; ++type) {
                    filter_row(type, here, above, row, step, tried.data());
                    if (const auto weight = weight_of(tried.data(), row); weight < least) {
                        least = weight;
                        *to = static_cast<std::uint8_t>(type);
                        best.swap(tried);
                    }
                }
                std::memcpy(to + 1, best.data(), row);
            }
            std::swap(here, above);
        }
    });
    return out;
}

}  // namespace

namespace {

/// Length, type, data and CRC, behind what is there.
void put_chunk(ByteWriter& out, std::string_view type, ByteSpan data) {
    std::array<std::byte, 4> length{};
    store_uint(length.data(), data.size(), 4, ByteOrder::big);
    out.put(length);
    out.put(type);
    out.put(data);
    store_uint(length.data(), crc32(data, crc32(as_bytes(type))), 4, ByteOrder::big);
    out.put(length);
}

}  // namespace

Bytes make_chunk(std::string_view type, ByteSpan data) {
    ByteWriter out;
    put_chunk(out, type, data);
    return std::move(out.bytes);
}

Result<Bytes> write(std::span<const std::uint8_t> rows, const Header& h, bool srgb) {
    const auto row = h.row_bytes();
    return write([&](std::uint32_t y, std::uint8_t* to) { std::memcpy(to, rows.data() + std::size_t{y} * row, row); }, h, srgb);
}

Result<Bytes> write(const RowSource& rows, const Header& given, bool srgb) {
    auto h = given;
    h.interlace = 0;
    auto data = filtered(rows, h);
    const std::unique_ptr<libdeflate_compressor, decltype(&libdeflate_free_compressor)> packer(libdeflate_alloc_compressor(packing_level),
                                                                                               &libdeflate_free_compressor);
    if (!packer) throw std::bad_alloc();
    // Pages of it that the packed data does not reach are never taken.
    const auto room = libdeflate_zlib_compress_bound(packer.get(), data.size);
    const auto packed = std::make_unique_for_overwrite<std::byte[]>(room);
    const auto size = libdeflate_zlib_compress(packer.get(), data.bytes.get(), data.size, packed.get(), room);
    data.bytes.reset();
    ByteWriter out;
    out.bytes.reserve(size + 200);
    out.put(std::string_view("\x89PNG\r\n\x1A\n", 8));
    Bytes header(13);
    store_uint(header.data(), h.width, 4, ByteOrder::big);
    store_uint(header.data() + 4, h.height, 4, ByteOrder::big);
    header[8] = static_cast<std::byte>(h.depth);
    header[9] = static_cast<std::byte>(h.color_type);
    put_chunk(out, "IHDR", header);
    if (srgb) put_chunk(out, "sRGB", Bytes(1));
    // A chunk's length has 31 bits.
    for (std::size_t at = 0; at < size; at += std::size_t{1} << 30)
        put_chunk(out, "IDAT", ByteSpan(packed.get(), size).subspan(at, std::min(size - at, std::size_t{1} << 30)));
    put_chunk(out, "IEND", {});
    return std::move(out.bytes);
}

}  // namespace skivet::png

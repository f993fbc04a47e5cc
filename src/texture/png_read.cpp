// The usual kinds of PNG (at most 8 bits a sample, not interlaced) read in two steps instead of row by row: the picture data is unpacked at
// once by the faster of our inflaters, which wants to know the size, and then four rows at a time become texels. That takes a third of the
// time that a reader takes which unpacks a row at a time. Whatever is unusual or wrong goes to the library, whose errors say more.
#include <cstring>
#include <memory>

#include "base/deflate.h"
#include "base/hash.h"
#include "texture/png_filters.h"
#include "texture/png_format.h"

namespace skivet::png {
namespace {

/// What undo_four may read behind the last row.
constexpr std::size_t behind = 3;

/// The picture data of all IDAT chunks, whose checksums hold, one after the other; `palette` gets what PLTE and tRNS say. Nothing for a
/// file that is not whole.
bool gather(ByteSpan file, Bytes& joined, ByteSpan& data, std::array<Texel, 256>& palette) {
    bool ended = false;
    std::size_t parts = 0;
    for (std::size_t at = 8; at + 12 <= file.size() && !ended;) {
        const auto length = static_cast<std::size_t>(load_uint(file.data() + at, 4, ByteOrder::big));
        if (length > file.size() - at - 12) return false;
        const auto type = as_text(file.subspan(at + 4, 4));
        const auto content = file.subspan(at + 8, length);
        if (type == "IDAT" || type == "PLTE" || type == "tRNS") {
            if (crc32(file.subspan(at + 4, length + 4)) != load_uint(file.data() + at + 8 + length, 4, ByteOrder::big)) return false;
            if (type == "PLTE")
                for (std::size_t i = 0; i + 3 <= length && i < 768; i += 3)
                    for (std::size_t c = 0; c < 3; ++c) palette[i / 3][c] = static_cast<std::uint8_t>(content[i + c]);
            if (type == "tRNS")
                for (std::size_t i = 0; i < std::min<std::size_t>(length, 256); ++i) palette[i][3] = static_cast<std::uint8_t>(content[i]);
            if (type == "IDAT" && parts++ == 0) data = content;
            else if (type == "IDAT") {
                if (joined.empty()) {
                    joined.reserve(file.size());
                    joined.assign(data.begin(), data.end());
                }
                joined.insert(joined.end(), content.begin(), content.end());
            }
        }
        ended = type == "IEND";
        at += 12 + length;
    }
    if (!joined.empty()) data = joined;
    return ended && parts > 0;
}

/// The rows as the file has them, and its palette.
struct PackedRows {
    std::unique_ptr<std::uint8_t[]> bytes;  // not set to zero before: they are as many as the picture's texels
    std::size_t size = 0;
    std::array<Texel, 256> palette;
};

/// A row's texels, from what undo_four made of its bytes.
void expand(const Header& h, const std::array<Texel, 256>& palette, const Texel* from, Texel* to) {
    if (h.depth < 8) {
        const unsigned top = (1u << h.depth) - 1;
        for (std::size_t x = 0; x < h.width; ++x) {  // the first in the highest bits
            const auto sample = from[x * h.depth / 8][0] >> (8 - h.depth - x * h.depth % 8) & top;
            const auto v = static_cast<std::uint8_t>(sample * 255u / top);
            to[x] = h.indexed() ? palette[sample] : Texel{v, v, v, 255};
        }
    } else if (h.indexed()) {
        for (std::size_t x = 0; x < h.width; ++x) to[x] = palette[from[x][0]];
    } else {
        const bool alpha = h.color_type == gray_alpha;
        for (std::size_t x = 0; x < h.width; ++x) to[x] = {from[x][0], from[x][0], from[x][0], alpha ? from[x][1] : std::uint8_t{255}};
    }
}

/// Writes each row's texels where `row(y)` says, from the top to the bottom, and then calls `done(y)`. What a row was written to may be
/// used again for the fifth row after it. template <class Row, class Done>
template <class Row, class Done>
bool read_rows(const PackedRows& packed, const Header& h, const Row& row, const Done& done) {
    const auto bits = h.texel_bits();
    // Samples of less than a byte: a filter works on whole bytes.
    const std::size_t texel = std::max<std::size_t>(1, bits / 8), across = bits < 8 ? h.row_bytes() : h.width;
    const std::size_t pitch = h.row_bytes() + 1;
    const bool direct = texel >= 3;
    // The last rows of one group and all of the next; for the rows that the last group lacks, an empty one.
    std::vector<Texel> kept((direct ? 2 : 2 * rows_at_once + 1) * across);
    std::vector<std::uint8_t> lacking(pitch + behind);
    const Texel* above = kept.data();  // zeros
    Texel* const spare = kept.data() + across;
    for (std::size_t y = 0; y < h.height; y += rows_at_once) {
        const auto count = std::min<std::size_t>(rows_at_once, h.height - y);
        const std::uint8_t* from[rows_at_once];
        Texel* to[rows_at_once];
        for (std::size_t r = 0; r < rows_at_once; ++r) {
            from[r] = r < count ? packed.bytes.get() + (y + r) * pitch : lacking.data();
            to[r] = !direct ? kept.data() + (1 + (y + r) % (2 * rows_at_once)) * across : r < count ? row(y + r) : spare;
        }
        if (!undo_four(texel, from, above, to, across)) return false;
        above = to[count - 1];
        for (std::size_t r = 0; r < count; ++r) {
            if (!direct) expand(h, packed.palette, to[r], row(y + r));
            done(y + r);
        }
    }
    return true;
}

/// Nothing for a file that is unusual or does not hold what it says.
std::optional<PackedRows> packed_rows(ByteSpan file, const Header& h, const ReadLimits& limits) {
    const bool packed = (h.depth == 1 || h.depth == 2 || h.depth == 4) && (h.color_type == gray || h.indexed());
    if ((h.depth != 8 && !packed) || h.interlace != 0 || (h.extra_alpha && !h.indexed())) return std::nullopt;
    if (h.width == 0 || h.height == 0 || std::uint64_t{h.width} * h.height > limits.image_texels) return std::nullopt;
    PackedRows out;
    out.palette.fill({0, 0, 0, 255});
    Bytes joined;
    ByteSpan data;
    if (!gather(file, joined, data, out.palette)) return std::nullopt;
    const std::size_t size = (h.row_bytes() + 1) * h.height;
    if (!may_inflate(data, size, limits)) return std::nullopt;
    out.size = size + behind;
    out.bytes = std::make_unique_for_overwrite<std::uint8_t[]>(out.size);
    if (!inflate_zlib(data, {reinterpret_cast<std::byte*>(out.bytes.get()), size})) return std::nullopt;
    std::memset(out.bytes.get() + size, 0, behind);
    return out;
}

}  // namespace

std::optional<Image> read_usual(ByteSpan file, const Header& h, const ReadLimits& limits) {
    const auto packed = packed_rows(file, h, limits);
    if (!packed) return std::nullopt;
    Image out(h.width, h.height);
    const auto row = [&](std::size_t y) { return &out.texels[y * h.width]; };
    if (!read_rows(*packed, h, row, [](std::size_t) {})) return std::nullopt;
    return out;
}

std::optional<Reduced> read_usual_reduced(ByteSpan file, const Header& h, std::uint32_t step, const ReadLimits& limits) {
    const auto packed = packed_rows(file, h, limits);
    if (!packed) return std::nullopt;
    RowReducer reducer(h.width, h.height, step);
    std::vector<Texel> some((rows_at_once + 1) * std::size_t{h.width});
    const auto row = [&](std::size_t y) { return &some[y % (rows_at_once + 1) * h.width]; };
    if (!read_rows(*packed, h, row, [&](std::size_t y) { reducer.add(row(y)); })) return std::nullopt;
    return reducer.take();
}

}  // namespace skivet::png

// The usual kinds of PNG (at most 8 bits a sample, not interlaced) read in two steps instead of row by row: the picture data is unpacked at
// once by the faster of our inflaters, which wants to know the size, and then each row's filter is undone where it lies. That takes half of
// the time that a reader takes which unpacks a row at a time. Whatever is unusual or wrong goes to the library, whose errors say more.
#include "base/deflate.h"
#include "base/hash.h"
#include "texture/png_format.h"

namespace skivet::png {
namespace {

std::uint8_t paeth(int left, int up, int corner) {
    const int to_left = std::abs(up - corner), to_up = std::abs(left - corner), to_corner = std::abs(left + up - 2 * corner);
    return static_cast<std::uint8_t>(to_left <= to_up && to_left <= to_corner ? left : to_up <= to_corner ? up : corner);
}

/// The filters that look left wait for the texel before, so a vector is one texel: its three or four bytes in the low lanes. Of just that
/// size whatever the machine can, as in resample_rows.cpp.
using Lanes [[gnu::vector_size(16)]] = std::int16_t;
using Bytes8 [[gnu::vector_size(8)]] = std::uint8_t;

Lanes load_texel(const std::uint8_t* four) {
    Bytes8 v{};
    std::memcpy(&v, four, 4);
    return __builtin_convertvector(v, Lanes);
}

struct Average {
    static std::uint8_t one(int left, int up, int) { return static_cast<std::uint8_t>((left + up) / 2); }
    static Lanes all(Lanes left, Lanes up, Lanes) { return (left + up) >> 1; }
};
struct Paeth {
    static std::uint8_t one(int left, int up, int corner) { return paeth(left, up, corner); }
    static Lanes all(Lanes left, Lanes up, Lanes corner) {
        const auto size = [](Lanes v) { return v < 0 ? -v : v; };
        const auto p = up - corner, q = left - corner;
        const auto to_left = size(p), to_up = size(q), to_corner = size(p + q);
        const auto not_left = (to_left > to_up) | (to_left > to_corner);
        return not_left ? (to_up > to_corner ? corner : up) : left;
    }
};

template <class Filter, std::size_t texel>
void undo_left(std::uint8_t* row, const std::uint8_t* above, std::size_t bytes) {
    std::size_t at = 0;
    if constexpr (texel >= 3) {
        Lanes left{}, corner{};
        // Four bytes are read and three written where a texel has three: what stands behind is the next one's, not yet undone.
        for (; at + 4 <= bytes; at += texel) {
            const auto up = load_texel(above + at);
            left = (load_texel(row + at) + Filter::all(left, up, corner)) & 255;
            corner = up;
            const auto narrow = __builtin_convertvector(left, Bytes8);
            std::memcpy(row + at, &narrow, texel);
        }
    }
    for (; at < bytes; ++at) {
        const int before = at >= texel ? row[at - texel] : 0, corner = at >= texel ? above[at - texel] : 0;
        row[at] = static_cast<std::uint8_t>(row[at] + Filter::one(before, above[at], corner));
    }
}

/// Undoes a row's filter (PNG, third edition, section 9.2). `texel`: bytes of a whole texel, which is how far left a filter looks. `above`:
/// the row above, undone, or zeros.
template <std::size_t texel>
bool undo_filter(std::uint8_t filter, std::uint8_t* row, const std::uint8_t* above, std::size_t bytes) {
    switch (filter) {
        case 0: return true;
        case 1:
            for (std::size_t i = texel; i < bytes; ++i) row[i] = static_cast<std::uint8_t>(row[i] + row[i - texel]);
            return true;
        case 2:
            for (std::size_t i = 0; i < bytes; ++i) row[i] = static_cast<std::uint8_t>(row[i] + above[i]);
            return true;
        case 3: undo_left<Average, texel>(row, above, bytes); return true;
        case 4: undo_left<Paeth, texel>(row, above, bytes); return true;
        default: return false;
    }
}

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
                if (joined.empty()) joined.assign(data.begin(), data.end());
                joined.insert(joined.end(), content.begin(), content.end());
            }
        }
        ended = type == "IEND";
        at += 12 + length;
    }
    if (!joined.empty()) data = joined;
    return ended && parts > 0;
}

template <std::size_t texel, class Expand>
bool read_rows(Bytes& packed_rows, const Header& h, Image& image, const Expand& expand) {
    const std::size_t bytes = std::size_t{h.width} * texel;
    const std::vector<std::uint8_t> zeros(bytes);
    auto* rows = reinterpret_cast<std::uint8_t*>(packed_rows.data());
    const std::uint8_t* above = zeros.data();
    for (std::size_t y = 0; y < h.height; ++y) {
        auto* row = rows + y * (bytes + 1) + 1;
        if (!undo_filter<texel>(row[-1], row, above, bytes)) return false;
        auto* out = &image.texels[y * h.width];
        for (std::size_t x = 0; x < h.width; ++x) out[x] = expand(row + x * texel);
        above = row;
    }
    return true;
}

/// Samples of 1, 2 or 4 bits, the first in the highest; a filter works on whole bytes then.
template <class Expand>
bool read_packed_rows(Bytes& packed_rows, const Header& h, Image& image, const Expand& expand) {
    const std::size_t bytes = h.row_bytes();
    const unsigned top = (1u << h.depth) - 1;
    const std::vector<std::uint8_t> zeros(bytes);
    auto* rows = reinterpret_cast<std::uint8_t*>(packed_rows.data());
    const std::uint8_t* above = zeros.data();
    for (std::size_t y = 0; y < h.height; ++y) {
        auto* row = rows + y * (bytes + 1) + 1;
        if (!undo_filter<1>(row[-1], row, above, bytes)) return false;
        auto* out = &image.texels[y * h.width];
        for (std::size_t x = 0; x < h.width; ++x)
            out[x] = expand(static_cast<std::uint8_t>(row[x * h.depth / 8] >> (8 - h.depth - x * h.depth % 8) & top));
        above = row;
    }
    return true;
}

}  // namespace

std::optional<Image> read_usual(ByteSpan file, const Header& h, const ReadLimits& limits) {
    const bool packed = (h.depth == 1 || h.depth == 2 || h.depth == 4) && (h.color_type == gray || h.indexed());
    if ((h.depth != 8 && !packed) || h.interlace != 0 || (h.extra_alpha && !h.indexed())) return std::nullopt;
    if (h.width == 0 || h.height == 0 || std::uint64_t{h.width} * h.height > limits.image_texels) return std::nullopt;
    std::array<Texel, 256> palette;
    palette.fill({0, 0, 0, 255});
    Bytes joined;
    ByteSpan data;
    if (!gather(file, joined, data, palette)) return std::nullopt;
    auto rows = inflate_zlib(data, (h.row_bytes() + 1) * h.height, limits);
    if (!rows) return std::nullopt;
    Image out(h.width, h.height);
    bool whole = false;
    if (packed) {
        const unsigned top = (1u << h.depth) - 1;
        whole = read_packed_rows(*rows, h, out, [&](std::uint8_t sample) {
            if (h.indexed()) return palette[sample];
            const auto v = static_cast<std::uint8_t>(sample * 255u / top);
            return Texel{v, v, v, 255};
        });
        return whole ? std::optional(std::move(out)) : std::nullopt;
    }
    switch (h.color_type) {
        case gray: whole = read_rows<1>(*rows, h, out, [](const std::uint8_t* t) { return Texel{t[0], t[0], t[0], 255}; }); break;
        case gray_alpha: whole = read_rows<2>(*rows, h, out, [](const std::uint8_t* t) { return Texel{t[0], t[0], t[0], t[1]}; }); break;
        case true_color: whole = read_rows<3>(*rows, h, out, [](const std::uint8_t* t) { return Texel{t[0], t[1], t[2], 255}; }); break;
        case true_color_alpha:
            whole = read_rows<4>(*rows, h, out, [](const std::uint8_t* t) { return Texel{t[0], t[1], t[2], t[3]}; });
            break;
        case indexed: whole = read_rows<1>(*rows, h, out, [&](const std::uint8_t* t) { return palette[t[0]]; }); break;
        default: break;
    }
    if (!whole) return std::nullopt;
    return out;
}

}  // namespace skivet::png

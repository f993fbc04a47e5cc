#include "texture/bmp.h"

#include <bit>

#include "base/phrase.h"
#include "codec/codec.h"
#include "codec/palette.h"

namespace skivet {
namespace {

enum Compression : std::uint32_t { rgb = 0, rle8 = 1, rle4 = 2, bit_fields = 3, alpha_bit_fields = 6 };

struct Header {
    std::uint32_t data_at = 0, header_bytes = 0, width = 0, height = 0, bits = 0, compression = rgb, palette_entries = 0;
    bool from_top = false;
    std::array<std::uint32_t, 4> masks{};

    [[nodiscard]] bool indexed() const { return bits <= 8; }
    [[nodiscard]] bool packed() const { return compression == rle8 || compression == rle4; }
    [[nodiscard]] std::size_t row_bytes() const { return (std::size_t{bits} * width + 31) / 32 * 4; }
    [[nodiscard]] std::size_t palette_at() const {
        return 14 + std::size_t{header_bytes} + (header_bytes == 40 && compression == bit_fields ? 12 : 0);
    }
    [[nodiscard]] std::size_t entry_bytes() const { return header_bytes == 12 ? 3 : 4; }
    [[nodiscard]] Format format() const { return !indexed() && masks[3] ? Format::RGBA8 : Format::RGB8; }
};

Result<Header> header_of(ByteSpan data) {
    if (data.size() < 26) return fail_at(ErrorCode::damaged, data.size(), phrase("header: needs 26 bytes, has {}", data.size()));
    const auto word = [&](std::size_t at) { return load_le<std::uint16_t>(data.data() + at); };
    const auto quad = [&](std::size_t at) { return load_le<std::uint32_t>(data.data() + at); };
    Header h;
    h.data_at = quad(10);
    h.header_bytes = quad(14);
    if (h.header_bytes == 12) {
        h.width = word(18), h.height = word(20), h.bits = word(24);
    } else {
        if (h.header_bytes < 40 || h.header_bytes > 1024 || data.size() < 54)
            return fail_at(ErrorCode::damaged, 14, phrase("a header of {} bytes", grouped(h.header_bytes)));
        const auto height = static_cast<std::int32_t>(quad(22));
        h.width = quad(18);
        h.from_top = height < 0;
        h.height = h.from_top ? 0u - static_cast<std::uint32_t>(height) : static_cast<std::uint32_t>(height);
        h.bits = word(28);
        h.compression = quad(30);
        h.palette_entries = quad(46);
    }
    if (h.data_at < 14ull + h.header_bytes)
        return fail_at(ErrorCode::damaged, 10,
                       phrase("the picture is said to begin at {}, in the header of {} bytes", h.data_at, 14ull + h.header_bytes));
    const bool sound = h.compression == rgb    ? h.bits == 1 || h.bits == 4 || h.bits == 8 || h.bits == 16 || h.bits == 24 || h.bits == 32
                       : h.compression == rle8 ? h.bits == 8 && !h.from_top
                       : h.compression == rle4
                           ? h.bits == 4 && !h.from_top
                           : (h.compression == bit_fields || h.compression == alpha_bit_fields) && (h.bits == 16 || h.bits == 32);
    if (!sound)
        return fail_at(ErrorCode::unsupported, 28, phrase("{} bits with compression {}", h.bits, h.compression),
                       "Save it as an uncompressed BMP");
    if (h.indexed()) {
        if (h.palette_entries == 0 || h.palette_entries > (1u << h.bits)) h.palette_entries = 1u << h.bits;
        // Some writers state more colors than stand before the picture data.
        const auto room = h.data_at > h.palette_at() ? (h.data_at - h.palette_at()) / h.entry_bytes() : 0;
        h.palette_entries = static_cast<std::uint32_t>(std::min<std::size_t>(h.palette_entries, room));
    } else if (h.compression == rgb) {
        h.masks =
            h.bits == 16 ? std::array<std::uint32_t, 4>{0x7C00, 0x3E0, 0x1F, 0} : std::array<std::uint32_t, 4>{0xFF0000, 0xFF00, 0xFF, 0};
    } else {
        const bool alpha = h.header_bytes >= 56 || h.compression == alpha_bit_fields;
        if (data.size() < 66u + (alpha ? 4 : 0)) return fail_at(ErrorCode::damaged, data.size(), "the channel masks are missing");
        for (std::size_t c = 0; c < (alpha ? 4u : 3u); ++c) h.masks[c] = quad(54 + c * 4);
        std::uint32_t taken = 0;
        for (const auto mask : h.masks) {
            const auto run = mask ? mask >> std::countr_zero(mask) : 0;
            if ((run & (run + 1)) != 0 || (taken & mask) != 0 || (h.bits == 16 && mask > 0xFFFF))
                return fail_at(ErrorCode::damaged, 54, "the channel masks overlap or have gaps");
            taken |= mask;
        }
    }
    return h;
}

std::uint8_t widened(std::uint32_t raw, std::uint32_t mask, std::uint8_t absent) {
    if (!mask) return absent;
    const std::uint64_t top = mask >> std::countr_zero(mask), value = (raw & mask) >> std::countr_zero(mask);
    return static_cast<std::uint8_t>((value * 255 + top / 2) / top);
}
std::uint32_t narrowed(std::uint8_t value, std::uint32_t mask) {
    if (!mask) return 0;
    const std::uint64_t top = mask >> std::countr_zero(mask);
    return static_cast<std::uint32_t>((value * top + 127) / 255) << std::countr_zero(mask);
}

/// Indices, bottom row first as in the file; what deltas and early ends leave out stays 0. `end`: behind the end mark.
Result<std::vector<std::uint8_t>> unpacked(ByteSpan file, const Header& h, std::uint64_t* end) {
    std::vector<std::uint8_t> out(std::size_t{h.width} * h.height);
    ByteReader reader(file);
    SKIVET_CHECK(reader.seek(h.data_at));
    std::uint64_t x = 0, y = 0;
    const bool four = h.compression == rle4;
    const auto put = [&](unsigned index) {
        if (x < h.width && y < h.height) out[static_cast<std::size_t>(y * h.width + x)] = static_cast<std::uint8_t>(index);
        ++x;
    };
    while (true) {
        SKIVET_TRY(const auto count, reader.uint(1));
        SKIVET_TRY(const auto value, reader.uint(1));
        if (count > 0) {
            for (unsigned i = 0; i < count; ++i) put(static_cast<unsigned>(four ? (i % 2 ? value & 15 : value >> 4) : value));
        } else if (value == 0) {
            x = 0, ++y;
        } else if (value == 1) {
            break;
        } else if (value == 2) {
            SKIVET_TRY(const auto right, reader.uint(1));
            SKIVET_TRY(const auto up, reader.uint(1));
            x += right, y += up;
        } else {
            const auto bytes = four ? (value + 1) / 2 : value;
            SKIVET_TRY(const auto data, reader.take(bytes));
            for (unsigned i = 0; i < value; ++i) {
                const auto byte = static_cast<unsigned>(data[four ? i / 2 : i]);
                put(four ? (i % 2 ? byte & 15 : byte >> 4) : byte);
            }
            if (bytes % 2) SKIVET_CHECK(reader.skip(1));
        }
    }
    if (end) *end = reader.position();
    return out;
}

/// Runs only: never larger than twice the indices, and every reader has them.
Bytes packed(const std::vector<std::uint8_t>& indices, const Header& h) {
    Bytes out;
    const auto byte = [&](std::size_t v) { out.push_back(static_cast<std::byte>(v)); };
    for (std::size_t y = 0; y < h.height; ++y) {
        const auto* row = indices.data() + y * h.width;
        for (std::size_t x = 0; x < h.width;) {
            std::size_t run = 1;
            while (run < 255 && x + run < h.width && row[x + run] == row[x]) ++run;
            byte(run);
            byte(h.compression == rle4 ? std::size_t{row[x]} << 4 | row[x] : row[x]);
            x += run;
        }
        byte(0);
        byte(y + 1 == h.height ? 1 : 0);
    }
    return out;
}

/// Indices from the top row, or back; its own inverse.
std::vector<std::uint8_t> turned(const std::vector<std::uint8_t>& indices, const Header& h) {
    if (h.from_top) return indices;
    std::vector<std::uint8_t> out;
    out.reserve(indices.size());
    for (std::size_t y = h.height; y-- > 0;)
        out.insert(out.end(), indices.begin() + static_cast<std::ptrdiff_t>(y * h.width),
                   indices.begin() + static_cast<std::ptrdiff_t>((y + 1) * h.width));
    return out;
}

Result<std::vector<std::uint8_t>> indices_of(ByteSpan file, const Header& h, std::uint64_t* end = nullptr) {
    if (h.packed()) {
        SKIVET_TRY(const auto stored, unpacked(file, h, end));
        return turned(stored, h);
    }
    SKIVET_TRY(const auto data, slice(file, h.data_at, std::uint64_t{h.row_bytes()} * h.height));
    std::vector<std::uint8_t> out;
    out.reserve(std::size_t{h.width} * h.height);
    for (std::size_t y = 0; y < h.height; ++y) {
        const auto row = data.subspan((h.from_top ? y : h.height - 1 - y) * h.row_bytes());
        for (std::size_t x = 0; x < h.width; ++x)
            out.push_back(static_cast<std::uint8_t>(static_cast<unsigned>(row[x * h.bits / 8]) >> (8 - h.bits - x * h.bits % 8) &
                                                    ((1u << h.bits) - 1)));
    }
    return out;
}

Result<std::vector<Texel>> palette_of(ByteSpan file, const Header& h) {
    SKIVET_TRY(const auto data, slice(file, h.palette_at(), std::uint64_t{h.palette_entries} * h.entry_bytes()));
    std::vector<Texel> out;
    for (std::size_t i = 0; i < h.palette_entries; ++i) {
        const auto* e = data.data() + i * h.entry_bytes();
        out.push_back({static_cast<std::uint8_t>(e[2]), static_cast<std::uint8_t>(e[1]), static_cast<std::uint8_t>(e[0]), 255});
    }
    return out;
}

/// Where texel (x, y) of a file without palette lies.
std::size_t texel_at(const Header& h, std::size_t x, std::size_t y) {
    return h.data_at + (h.from_top ? y : h.height - 1 - y) * h.row_bytes() + x * (h.bits / 8);
}

Result<Image> picture_of(ByteSpan file, const Header& h) {
    Image image(h.width, h.height);
    if (h.indexed()) {
        SKIVET_TRY(const auto indices, indices_of(file, h));
        SKIVET_TRY(const auto palette, palette_of(file, h));
        for (std::size_t i = 0; i < indices.size(); ++i)
            if (indices[i] < palette.size()) image.texels[i] = palette[indices[i]];
        return image;
    }
    SKIVET_CHECK(slice(file, h.data_at, std::uint64_t{h.row_bytes()} * h.height));
    for (std::uint32_t y = 0; y < h.height; ++y)
        for (std::uint32_t x = 0; x < h.width; ++x) {
            const auto raw = static_cast<std::uint32_t>(load_uint(file.data() + texel_at(h, x, y), h.bits / 8, ByteOrder::little));
            for (std::size_t c = 0; c < 4; ++c) image.at(x, y)[c] = widened(raw, h.masks[c], c == 3 ? 255 : 0);
        }
    return image;
}

}  // namespace

KindTraits BmpKind::traits() const { return {.picture = true, .extensions = {"bmp"}, .marks = {"BM"}, .certainty = 0.6}; }

std::optional<std::uint64_t> BmpKind::stated_size(ByteSpan d, const ReadLimits&) const {
    if (d.size() < 26) return std::nullopt;
    const auto size = load_le<std::uint32_t>(d.data() + 2), pixels = load_le<std::uint32_t>(d.data() + 10),
               header = load_le<std::uint32_t>(d.data() + 14);
    const bool known = header == 12 || header == 40 || header == 52 || header == 56 || header == 64 || header == 108 || header == 124;
    if (known && size <= d.size() && pixels >= 14 + header && pixels < size && load_le<std::uint32_t>(d.data() + 6) == 0) return size;
    return std::nullopt;
}

bool BmpKind::recognize(ByteSpan head, std::string_view) const {
    // Two letters are little to go by, so the header's size and the planes must be right too.
    if (head.size() < 30 || head[0] != std::byte{'B'} || head[1] != std::byte{'M'}) return false;
    const auto size = load_le<std::uint32_t>(head.data() + 14);
    return (size == 12 && load_le<std::uint16_t>(head.data() + 22) == 1) ||
           (size >= 40 && size <= 124 && load_le<std::uint16_t>(head.data() + 26) == 1);
}

Result<TextureLayout> BmpKind::layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const {
    SKIVET_TRY(const auto h, header_of(data));
    TextureLayout out;
    out.direct = false;
    out.desc.format = h.format();
    out.desc.width = h.width;
    out.desc.height = h.height;
    SKIVET_CHECK(check_desc(out.desc, limits));
    if (h.packed()) SKIVET_CHECK(check_claim(out.desc, file_size, limits));
    const auto need = std::uint64_t{h.row_bytes()} * h.height, have = file_size - std::min<std::uint64_t>(file_size, h.data_at);
    out.surfaces.push_back({0, 0, 0, 0, h.width, h.height, 0, level_bytes(out.desc.format, h.width, h.height)});
    if (!h.packed() && have < need) {
        auto missing = fail_at(ErrorCode::damaged, h.data_at, phrase("picture data: needs {} bytes, has {}", grouped(need), grouped(have)),
                               "The file is cut off or its header is damaged");
        if (have < need / 8) return missing;
        out.damage = std::move(missing).value();
    }
    return out;
}

Result<Image> BmpKind::decode(ByteSpan file, const TextureLayout& layout, const Surface& surface) const {
    if (!layout.damage) return TextureKind::decode(file, layout, surface);
    SKIVET_TRY(const auto h, header_of(file));
    Bytes filled(file.begin(), file.end());
    filled.resize(static_cast<std::size_t>(h.data_at + std::uint64_t{h.row_bytes()} * h.height));
    return picture_of(filled, h);
}

Result<Bytes> BmpKind::bytes(ByteSpan file, const TextureLayout& layout, const Surface&) const {
    if (layout.damage) return fail(*layout.damage);
    SKIVET_TRY(const auto h, header_of(file));
    SKIVET_TRY(const auto image, picture_of(file, h));
    return encode(layout.desc.format, image);
}

Result<Bytes> BmpKind::replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const {
    Bytes out(file.begin(), file.end());
    if (edits.empty()) return out;
    SKIVET_TRY(const auto h, header_of(file));
    SKIVET_TRY(const auto wanted, skivet::decode(layout.desc.format, edits.front().bytes, h.width, h.height));
    if (!h.indexed()) {
        SKIVET_TRY(const auto before, picture_of(file, h));
        for (std::uint32_t y = 0; y < h.height; ++y)
            for (std::uint32_t x = 0; x < h.width; ++x) {
                if (wanted.at(x, y) == before.at(x, y)) continue;
                auto* texel = out.data() + texel_at(h, x, y);
                auto raw = static_cast<std::uint32_t>(load_uint(texel, h.bits / 8, ByteOrder::little));
                for (std::size_t c = 0; c < 4; ++c) raw = (raw & ~h.masks[c]) | narrowed(wanted.at(x, y)[c], h.masks[c]);
                store_uint(texel, raw, h.bits / 8, ByteOrder::little);
            }
        return out;
    }
    std::uint64_t end = 0;
    SKIVET_TRY(const auto indices, indices_of(file, h, &end));
    SKIVET_TRY(const auto palette, palette_of(file, h));
    const auto fitted = fit_palette(indices, palette, wanted.texels, palette.size());
    for (std::size_t i = 0; i < palette.size(); ++i) {
        if (fitted.palette[i] == palette[i]) continue;
        auto* e = out.data() + h.palette_at() + i * h.entry_bytes();
        for (std::size_t c = 0; c < 3; ++c) e[c] = static_cast<std::byte>(fitted.palette[i][2 - c]);
    }
    if (h.packed()) {
        const auto fresh = packed(turned(fitted.indices, h), h);
        Bytes whole(out.begin(), out.begin() + h.data_at);
        whole.insert(whole.end(), fresh.begin(), fresh.end());
        whole.insert(whole.end(), out.begin() + static_cast<std::ptrdiff_t>(end), out.end());
        store_le(whole.data() + 2, static_cast<std::uint32_t>(whole.size()));
        store_le(whole.data() + 34, static_cast<std::uint32_t>(fresh.size()));
        // A V5 header may point to a color profile behind the picture.
        if (h.header_bytes >= 124 && file.size() >= 138) {
            const auto profile = load_le<std::uint32_t>(file.data() + 126);
            if (profile && profile + 14ull >= end)
                store_le(whole.data() + 126, static_cast<std::uint32_t>(profile + fresh.size() - (end - h.data_at)));
        }
        return whole;
    }
    for (std::size_t y = 0; y < h.height; ++y)
        for (std::size_t x = 0; x < h.width; ++x) {
            auto& byte = out[h.data_at + (h.from_top ? y : h.height - 1 - y) * h.row_bytes() + x * h.bits / 8];
            const auto shift = static_cast<unsigned>(8 - h.bits - x * h.bits % 8), mask = ((1u << h.bits) - 1) << shift;
            byte = static_cast<std::byte>((static_cast<unsigned>(byte) & ~mask) | static_cast<unsigned>(fitted.indices[y * h.width + x])
                                                                                      << shift);
        }
    return out;
}

}  // namespace skivet

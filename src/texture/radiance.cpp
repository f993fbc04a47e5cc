#include "texture/radiance.h"

#include <charconv>
#include <cmath>

#include "base/phrase.h"
#include "codec/codec.h"

namespace skivet {
namespace {

using Rgbe = std::array<std::uint8_t, 4>;

struct Header {
    std::uint32_t width = 0, height = 0;
    bool from_bottom = false;
    std::size_t data_at = 0;
};

Result<Header> header_of(ByteSpan data) {
    const auto text = as_text(data.first(std::min<std::size_t>(data.size(), 64u << 10)));
    std::size_t at = 0;
    std::string format = "32-bit_rle_rgbe";
    while (true) {  // lines up to an empty one
        const auto end = text.find('\n', at);
        if (end == std::string::npos) return fail_at(ErrorCode::damaged, at, "the header does not end");
        const auto line = text.substr(at, end - at);
        at = end + 1;
        if (line.empty()) break;
        if (line.starts_with("FORMAT=")) format = line.substr(7);
    }
    if (format != "32-bit_rle_rgbe")
        return fail(ErrorCode::unsupported, phrase("colors as \"{}\"", format.substr(0, 40)), "RGBE is read; XYZE is not");
    const auto end = text.find('\n', at);
    if (end == std::string::npos) return fail_at(ErrorCode::damaged, at, "the size is missing");
    const auto line = text.substr(at, end - at);
    // "-Y height +X width": rows from the top; with +Y from the bottom. Turned pictures have X first.
    Header h;
    const bool sound = line.size() > 4 && (line.starts_with("-Y ") || line.starts_with("+Y "));
    const auto middle = line.find(" +X ");
    if (!sound || middle == std::string::npos || middle < 3)
        return fail_at(ErrorCode::unsupported, at, phrase("the orientation \"{}\"", line.substr(0, 40)),
                       "Rows from the top or the bottom are read");
    h.from_bottom = line[0] == '+';
    const auto number = [&](std::size_t from, std::size_t to, std::uint32_t& out) {
        const auto [last, code] = std::from_chars(line.data() + from, line.data() + to, out);
        return code == std::errc() && last == line.data() + to;
    };
    if (!number(3, middle, h.height) || !number(middle + 4, line.size(), h.width))
        return fail_at(ErrorCode::damaged, at, phrase("the size \"{}\"", line.substr(0, 40)));
    h.data_at = end + 1;
    return h;
}

/// A row of the file; the reader stands behind it afterwards.
Result<std::vector<Rgbe>> read_row(ByteReader& reader, std::uint32_t width) {
    std::vector<Rgbe> row(width);
    SKIVET_TRY(const auto start, reader.take(4));
    const auto byte = [](std::byte b) { return static_cast<std::uint8_t>(b); };
    if (width >= 8 && width < 32768 && byte(start[0]) == 2 && byte(start[1]) == 2 &&
        (unsigned{byte(start[2])} << 8 | byte(start[3])) == width) {
        for (std::size_t c = 0; c < 4; ++c)  // one channel after the other
            for (std::uint32_t x = 0; x < width;) {
                SKIVET_TRY(const auto count, reader.uint(1));
                const bool run = count > 128;
                const auto length = static_cast<std::uint32_t>(run ? count - 128 : count);
                if (length == 0 || length > width - x) return fail_at(ErrorCode::damaged, reader.position(), "a run goes beyond its row");
                SKIVET_TRY(const auto values, reader.take(run ? 1 : length));
                for (std::uint32_t i = 0; i < length; ++i) row[x++][c] = byte(values[run ? 0 : i]);
            }
        return row;
    }
    unsigned shift = 0;
    ByteSpan texel = start;
    for (std::uint32_t x = 0; x < width;) {
        const Rgbe t = {byte(texel[0]), byte(texel[1]), byte(texel[2]), byte(texel[3])};
        if (t[0] == 1 && t[1] == 1 && t[2] == 1 && x > 0) {  // old runs: the last texel again, counts of several runs are one number
            const auto length = shift < 32 ? std::uint64_t{t[3]} << shift : ~std::uint64_t{0};
            if (length > width - x) return fail_at(ErrorCode::damaged, reader.position(), "a run goes beyond its row");
            std::fill_n(row.begin() + x, length, row[x - 1]);
            x += static_cast<std::uint32_t>(length);
            shift += 8;
        } else {
            row[x++] = t;
            shift = 0;
        }
        if (x < width) {
            SKIVET_TRY(texel, reader.take(4));
        }
    }
    return row;
}

Bytes packed_row(const std::vector<Rgbe>& row) {
    Bytes out;
    const auto put = [&](std::size_t v) { out.push_back(static_cast<std::byte>(v)); };
    if (row.size() < 8 || row.size() >= 32768) {
        for (const auto& t : row)
            for (const auto v : t) put(v);
        return out;
    }
    put(2), put(2), put(row.size() >> 8), put(row.size() & 255);
    for (std::size_t c = 0; c < 4; ++c)
        for (std::size_t x = 0; x < row.size();) {
            const auto run_at = [&](std::size_t from) {
                std::size_t n = 1;
                while (n < 127 && from + n < row.size() && row[from + n][c] == row[from][c]) ++n;
                return n;
            };
            if (const auto run = run_at(x); run >= 3) {
                put(128 + run), put(row[x][c]);
                x += run;
                continue;
            }
            std::size_t count = 1;
            while (count < 128 && x + count < row.size() && run_at(x + count) < 3) ++count;
            put(count);
            for (std::size_t i = 0; i < count; ++i) put(row[x + i][c]);
            x += count;
        }
    return out;
}

}  // namespace

std::array<float, 3> from_rgbe(const Rgbe& t) {
    if (t[3] == 0) return {0, 0, 0};
    return {std::ldexp(static_cast<float>(t[0]), t[3] - 136), std::ldexp(static_cast<float>(t[1]), t[3] - 136),
            std::ldexp(static_cast<float>(t[2]), t[3] - 136)};
}

Rgbe to_rgbe(const std::array<float, 3>& rgb) {
    std::array<float, 3> v{};
    const float largest = std::ldexp(255.0f, 255 - 136);
    for (std::size_t c = 0; c < 3; ++c) v[c] = rgb[c] > 0 ? std::min(rgb[c], largest) : 0.0f;
    const float top = std::max({v[0], v[1], v[2]});
    if (top <= 0) return {};
    int exponent = 0;
    (void)std::frexp(top, &exponent);
    const auto mantissas = [&] {
        Rgbe out{};
        bool fits = true;
        for (std::size_t c = 0; c < 3; ++c) {
            const float m = std::floor(std::ldexp(v[c], 8 - exponent) + 0.5f);
            fits = fits && m < 256;
            out[c] = static_cast<std::uint8_t>(std::min(m, 255.0f));
        }
        return std::pair(out, fits);
    };
    auto [out, fits] = mantissas();
    if (!fits && exponent + 128 < 255) ++exponent, out = mantissas().first;
    if (exponent + 128 < 1) return {};
    out[3] = static_cast<std::uint8_t>(exponent + 128);
    return out;
}

KindTraits RadianceKind::traits() const { return {.picture = true, .extensions = {"hdr"}}; }

bool RadianceKind::recognize(ByteSpan head, std::string_view) const {
    const auto text = as_text(head.first(std::min<std::size_t>(head.size(), 11)));
    return text.starts_with("#?RADIANCE\n") || text.starts_with("#?RGBE\n");
}

Result<TextureLayout> RadianceKind::layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const {
    SKIVET_TRY(const auto h, header_of(data));
    TextureLayout out;
    out.direct = false;
    out.desc.format = Format::RGB32F;
    out.desc.width = h.width;
    out.desc.height = h.height;
    out.desc.color = ColorSpace::linear;
    SKIVET_CHECK(check_desc(out.desc, limits));
    // Each row takes some bytes even when packed: sizes that cannot be true take no memory.
    const auto have = file_size - std::min<std::uint64_t>(file_size, h.data_at), need = std::uint64_t{h.height} * (4 + h.width / 32);
    if (have < std::min(need, std::uint64_t{h.height} * h.width / 8))
        return fail_at(ErrorCode::damaged, h.data_at, phrase("picture data: needs {} bytes at least, has {}", grouped(need), grouped(have)),
                       "The file is cut off or its header is damaged");
    out.surfaces.push_back({0, 0, 0, 0, h.width, h.height, 0, level_bytes(out.desc.format, h.width, h.height)});
    if (data.size() < file_size) return out;
    ByteReader reader(data);
    SKIVET_CHECK(reader.seek(h.data_at));
    for (std::uint32_t y = 0; y < h.height; ++y)
        if (auto row = read_row(reader, h.width); !row) {
            auto broken = std::move(row).error().within(phrase("row {}", y));
            if (y == 0) return fail(std::move(broken));
            out.damage = std::move(broken);
            break;
        }
    return out;
}

Result<ImageF> RadianceKind::decode_wide(ByteSpan file, const TextureLayout& layout, const Surface&) const {
    return picture_of(file, layout.damage.has_value());
}
Result<Image> RadianceKind::decode(ByteSpan file, const TextureLayout& layout, const Surface&) const {
    SKIVET_TRY(const auto image, picture_of(file, layout.damage.has_value()));
    return view_of(layout.desc.format, image);
}

Result<Bytes> RadianceKind::bytes(ByteSpan file, const TextureLayout& layout, const Surface&) const {
    if (layout.damage) return fail(*layout.damage);
    SKIVET_TRY(const auto image, picture_of(file, false));
    return encode(layout.desc.format, image);
}

/// `what_is_there`: rows up to the first broken one, the others black.
Result<ImageF> RadianceKind::picture_of(ByteSpan file, bool what_is_there) const {
    SKIVET_TRY(const auto h, header_of(file));
    ImageF image(h.width, h.height);
    ByteReader reader(file);
    SKIVET_CHECK(reader.seek(h.data_at));
    for (std::uint32_t y = 0; y < h.height; ++y) {
        auto row = read_row(reader, h.width);
        if (!row && what_is_there) break;
        if (!row) return fail(std::move(row).error().within(phrase("row {}", y)));
        for (std::uint32_t x = 0; x < h.width; ++x) {
            const auto rgb = from_rgbe((*row)[x]);
            image.at(x, h.from_bottom ? h.height - 1 - y : y) = {rgb[0], rgb[1], rgb[2], 1};
        }
    }
    return image;
}

Result<Bytes> RadianceKind::replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const {
    if (edits.empty()) return Bytes(file.begin(), file.end());
    SKIVET_TRY(const auto h, header_of(file));
    SKIVET_TRY(const auto wanted, skivet::decode_wide(layout.desc.format, edits.front().bytes, h.width, h.height));
    Bytes out(file.begin(), file.begin() + static_cast<std::ptrdiff_t>(h.data_at));
    ByteReader reader(file);
    SKIVET_CHECK(reader.seek(h.data_at));
    for (std::uint32_t y = 0; y < h.height; ++y) {
        const auto start = reader.position();
        SKIVET_TRY(auto row, read_row(reader, h.width));
        bool changed = false;
        for (std::uint32_t x = 0; x < h.width; ++x) {
            const auto& t = wanted.at(x, h.from_bottom ? h.height - 1 - y : y);
            const std::array<float, 3> rgb = {t[0], t[1], t[2]};
            if (from_rgbe(row[x]) == rgb) continue;
            row[x] = to_rgbe(rgb);
            changed = true;
        }
        const auto fresh = changed ? packed_row(row) : Bytes();
        if (changed) out.insert(out.end(), fresh.begin(), fresh.end());
        else
            out.insert(out.end(), file.begin() + static_cast<std::ptrdiff_t>(start),
                       file.begin() + static_cast<std::ptrdiff_t>(reader.position()));
    }
    out.insert(out.end(), file.begin() + static_cast<std::ptrdiff_t>(reader.position()), file.end());
    return out;
}

}  // namespace skivet

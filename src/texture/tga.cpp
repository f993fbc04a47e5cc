#include "texture/tga.h"

#include "base/phrase.h"
#include "codec/codec.h"
#include "codec/palette.h"

namespace skivet {
namespace {

constexpr std::size_t header_bytes = 18, footer_bytes = 26;
constexpr std::string_view footer_signature{"TRUEVISION-XFILE.\0", 18};

struct Header {
    unsigned id = 0, map_type = 0, type = 0, map_first = 0, map_length = 0, map_bits = 0, width = 0, height = 0, depth = 0, descriptor = 0;

    [[nodiscard]] bool packed() const { return type >= 9; }
    [[nodiscard]] unsigned kind() const { return type & 7; }  ///< 1 color-mapped, 2 true color, 3 gray
    [[nodiscard]] std::size_t texel_bytes() const { return (depth + 7) / 8; }
    [[nodiscard]] std::size_t map_entry() const { return (map_bits + 7) / 8; }
    [[nodiscard]] std::uint64_t map_at() const { return header_bytes + id; }
    [[nodiscard]] std::uint64_t data_at() const { return map_at() + (map_type ? std::uint64_t{map_length} * map_entry() : 0); }
    /// Texels in the file, or Format::unknown for combinations that do not exist.
    [[nodiscard]] Format stored() const {
        if (kind() == 1)
            return depth == 8 && map_type == 1 && color(map_bits) != Format::unknown && map_length > 0 ? Format::R8 : Format::unknown;
        if (kind() == 3) return depth == 8 ? Format::L8 : depth == 16 ? Format::LA8 : Format::unknown;
        return kind() == 2 ? color(depth) : Format::unknown;
    }
    /// What stored() stands for.
    [[nodiscard]] Format format() const { return kind() == 1 ? (map_bits == 32 ? Format::RGBA8 : Format::RGB8) : stored(); }
    static Format color(unsigned bits) {
        return bits == 15 || bits == 16 ? Format::B5G5R5A1 : bits == 24 ? Format::BGR8 : bits == 32 ? Format::BGRA8 : Format::unknown;
    }
};

Header header_of(ByteSpan data) {
    const auto byte = [&](std::size_t at) { return static_cast<unsigned>(data[at]); };
    const auto word = [&](std::size_t at) { return byte(at) | byte(at + 1) << 8; };
    return {byte(0), byte(1), byte(2), word(3), word(5), byte(7), word(12), word(14), byte(16), byte(17)};
}

/// The texels in the file's own order, runs unpacked. Error `damaged` when they end early, or, where `what_is_there`, zeros for the rest.
Result<Bytes> unpacked(ByteSpan file, const Header& h, std::uint64_t* end = nullptr, bool what_is_there = false) {
    const auto texel = h.texel_bytes();
    const auto need = std::size_t{h.width} * h.height * texel;
    if (!h.packed()) {
        if (what_is_there && file.size() < h.data_at() + need) {
            const auto rest = file.subspan(static_cast<std::size_t>(std::min<std::uint64_t>(h.data_at(), file.size())));
            Bytes out(rest.begin(), rest.end());
            out.resize(need);
            return out;
        }
        SKIVET_TRY(const auto data, slice(file, h.data_at(), need));
        if (end) *end = h.data_at() + need;
        return Bytes(data.begin(), data.end());
    }
    Bytes out;
    // A run of 128 texels takes one texel and a byte: memory is taken only for what the file can hold.
    out.reserve(std::min<std::size_t>(need, file.size() * 128));
    ByteReader reader(file);
    SKIVET_CHECK(reader.seek(h.data_at()));
    while (out.size() < need) {
        const auto left = reader.remaining();
        const auto next = left > 0 ? static_cast<unsigned>(file[static_cast<std::size_t>(reader.position())]) : 0u;
        if (what_is_there && left < 1 + (next & 128 ? texel : texel * ((next & 127) + 1))) break;
        SKIVET_TRY(const auto packet, reader.uint(1));
        const auto count = static_cast<std::size_t>(packet & 127) + 1;
        const bool run = packet & 128;
        SKIVET_TRY(const auto data, reader.take(run ? texel : texel * count));
        for (std::size_t i = 0; i < (run ? count : 1); ++i) out.insert(out.end(), data.begin(), data.end());
    }
    out.resize(need);  // a last packet may say more than the picture has
    if (end) *end = reader.position();
    return out;
}

/// Texels whose runs are whole, without unpacking them.
std::uint64_t whole_texels(ByteSpan file, const Header& h) {
    const std::uint64_t texel = h.texel_bytes();
    std::uint64_t count = 0;
    for (auto at = h.data_at(); at < file.size();) {
        const auto packet = static_cast<unsigned>(file[static_cast<std::size_t>(at)]);
        at += 1 + (packet & 128 ? texel : texel * ((packet & 127) + 1));
        if (at > file.size()) break;
        count += (packet & 127) + 1;
    }
    return count;
}

Bytes packed(ByteSpan texels, const Header& h) {
    const auto texel = h.texel_bytes(), row = h.width * texel;
    Bytes out;
    const auto same = [&](const std::byte* a, const std::byte* b) { return std::equal(a, a + texel, b); };
    for (std::size_t y = 0; y < h.height; ++y) {
        const auto* line = texels.data() + y * row;
        for (std::size_t x = 0; x < h.width;) {
            std::size_t run = 1;
            while (run < 128 && x + run < h.width && same(line + x * texel, line + (x + run) * texel)) ++run;
            if (run > 1) {
                out.push_back(static_cast<std::byte>(0x80 | (run - 1)));
                out.insert(out.end(), line + x * texel, line + (x + 1) * texel);
                x += run;
                continue;
            }
            std::size_t count = 1;
            while (count < 128 && x + count < h.width &&
                   !(x + count + 1 < h.width && same(line + (x + count) * texel, line + (x + count + 1) * texel)))
                ++count;
            out.push_back(static_cast<std::byte>(count - 1));
            out.insert(out.end(), line + x * texel, line + (x + count) * texel);
            x += count;
        }
    }
    return out;
}

/// Between the file's order and rows from the top left; its own inverse.
Bytes turned(ByteSpan texels, const Header& h) {
    const bool from_top = h.descriptor & 0x20, from_right = h.descriptor & 0x10;
    const auto texel = h.texel_bytes(), row = h.width * texel;
    Bytes out(texels.size());
    for (std::size_t y = 0; y < h.height; ++y) {
        const auto* from = texels.data() + (from_top ? y : h.height - 1 - y) * row;
        auto* to = out.data() + y * row;
        if (!from_right) std::copy_n(from, row, to);
        else
            for (std::size_t x = 0; x < h.width; ++x) std::copy_n(from + (h.width - 1 - x) * texel, texel, to + x * texel);
    }
    return out;
}

/// The color map; entry i stands for index map_first + i.
Result<std::vector<Texel>> palette_of(ByteSpan file, const Header& h) {
    SKIVET_TRY(const auto data, slice(file, h.map_at(), std::uint64_t{h.map_length} * h.map_entry()));
    SKIVET_TRY(auto image, skivet::decode(Header::color(h.map_bits), data, h.map_length, 1));
    if (h.map_bits != 32)
        for (auto& t : image.texels) t[3] = 255;
    return std::move(image.texels);
}

}  // namespace

KindTraits TgaKind::traits() const { return {.picture = true, .extensions = {"tga"}}; }

bool TgaKind::recognize(ByteSpan head, std::string_view path) const {
    const auto ending = path.size() >= 4 ? path.substr(path.size() - 4) : std::string_view{};
    const bool named =
        ending.size() == 4 && ending[0] == '.' && (ending[1] | 32) == 't' && (ending[2] | 32) == 'g' && (ending[3] | 32) == 'a';
    return named && head.size() >= header_bytes && header_of(head).stored() != Format::unknown;
}

Result<TextureLayout> TgaKind::layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const {
    if (data.size() < header_bytes)
        return fail_at(ErrorCode::damaged, data.size(), phrase("header: needs {} bytes, has {}", header_bytes, data.size()));
    const auto h = header_of(data);
    if (h.stored() == Format::unknown || (h.type > 3 && (h.type < 9 || h.type > 11)))
        return fail_at(ErrorCode::unsupported, 2, phrase("image type {} with {} bits", h.type, h.depth), "This layout is not supported");
    TextureLayout out;
    out.direct = false;
    out.desc.format = h.format();
    out.desc.width = h.width;
    out.desc.height = h.height;
    SKIVET_CHECK(check_desc(out.desc, limits));
    if (h.packed()) SKIVET_CHECK(check_claim(out.desc, file_size, limits));
    const auto need = std::uint64_t{h.width} * h.height * h.texel_bytes();
    const auto have = file_size - std::min(file_size, h.data_at());
    out.surfaces.push_back({0, 0, 0, 0, h.width, h.height, 0, level_bytes(out.desc.format, h.width, h.height)});
    auto missing = fail_at(ErrorCode::damaged, h.data_at(), phrase("picture data: needs {} bytes, has {}", grouped(need), grouped(have)),
                           "The file is cut off or its header is damaged");
    if (h.packed() ? have * 128 < need : have < need / 8) return missing;
    if (!h.packed() && have < need) out.damage = std::move(missing).value();
    if (h.packed() && data.size() == file_size)
        if (const auto texels = whole_texels(data, h), all = std::uint64_t{h.width} * h.height; texels < all)
            out.damage = Error{ErrorCode::damaged,
                               phrase("picture data: needs {} texels, has {}", grouped(all), grouped(texels)),
                               {},
                               h.data_at(),
                               "The file is cut off; what is there is shown"};
    return out;
}

Result<Image> TgaKind::decode(ByteSpan file, const TextureLayout& layout, const Surface& surface) const {
    SKIVET_TRY(const auto data, texels_of(file, layout, layout.damage.has_value()));
    return skivet::decode(layout.desc.format, data, surface.width, surface.height);
}

Result<Bytes> TgaKind::bytes(ByteSpan file, const TextureLayout& layout, const Surface&) const {
    if (layout.damage) return fail(*layout.damage);
    return texels_of(file, layout, false);
}

Result<Bytes> TgaKind::texels_of(ByteSpan file, const TextureLayout& layout, bool what_is_there) const {
    const auto h = header_of(file);
    SKIVET_TRY(const auto stored, unpacked(file, h, nullptr, what_is_there));
    auto texels = turned(stored, h);
    if (h.kind() != 1) return texels;
    SKIVET_TRY(const auto palette, palette_of(file, h));
    Image image(h.width, h.height);
    for (std::size_t i = 0; i < image.texels.size(); ++i) {
        const auto index = static_cast<unsigned>(texels[i]);
        if (index >= h.map_first && index - h.map_first < palette.size()) image.texels[i] = palette[index - h.map_first];
    }
    return encode(layout.desc.format, image);
}

Result<Bytes> TgaKind::replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const {
    if (edits.empty()) return Bytes(file.begin(), file.end());
    const auto h = header_of(file);
    if (edits.front().bytes.size() != layout.surfaces.front().size) return fail(ErrorCode::unfit, "the picture has another size");
    std::uint64_t end = 0;
    SKIVET_TRY(const auto stored, unpacked(file, h, &end));
    Bytes texels = edits.front().bytes;
    Bytes map;
    if (h.kind() == 1) {
        SKIVET_TRY(const auto palette, palette_of(file, h));
        SKIVET_TRY(const auto wanted, skivet::decode(layout.desc.format, texels, h.width, h.height));
        auto old = turned(stored, h);
        std::vector<std::uint8_t> indices;
        for (const auto b : old) indices.push_back(static_cast<std::uint8_t>(static_cast<unsigned>(b) - h.map_first));
        const auto fitted = fit_palette(indices, palette, wanted.texels, palette.size());  // the map keeps its length
        texels.clear();
        for (const auto i : fitted.indices) texels.push_back(static_cast<std::byte>(i + h.map_first));
        if (fitted.palette != palette) {
            Image colors(h.map_length, 1);
            colors.texels = fitted.palette;
            SKIVET_TRY(map, encode(Header::color(h.map_bits), colors));
        }
    }
    texels = turned(texels, h);
    const auto fresh = h.packed() ? packed(texels, h) : texels;
    Bytes out(file.begin(), file.begin() + static_cast<std::ptrdiff_t>(h.data_at()));
    std::copy(map.begin(), map.end(), out.begin() + static_cast<std::ptrdiff_t>(h.map_at()));
    out.insert(out.end(), fresh.begin(), fresh.end());
    out.insert(out.end(), file.begin() + static_cast<std::ptrdiff_t>(end), file.end());
    // Version 2.0: a footer with offsets of what lies behind the picture data; the extension area holds three more.
    const auto moved = static_cast<std::int64_t>(fresh.size()) - static_cast<std::int64_t>(end - h.data_at());
    const auto shift = [&](std::uint64_t at) -> std::uint64_t {
        if (at + 4 > out.size()) return 0;
        const auto offset = load_le<std::uint32_t>(out.data() + at);
        if (offset < end) return offset;
        const auto now = static_cast<std::uint32_t>(offset + moved);
        store_le(out.data() + at, now);
        return now;
    };
    if (moved != 0 && out.size() >= footer_bytes && as_text(ByteSpan(out).last(18)) == footer_signature) {
        const auto extension = shift(out.size() - footer_bytes);
        (void)shift(out.size() - footer_bytes + 4);
        if (extension > h.data_at())
            for (const std::uint64_t field : {482u, 486u, 490u}) (void)shift(extension + field);
    }
    return out;
}

Result<Bytes> write_tga(const Image& image) {
    if (image.width > 0xFFFF || image.height > 0xFFFF) return fail(ErrorCode::unsupported, "TGA holds at most 65,535 texels a side");
    const bool alpha = std::any_of(image.texels.begin(), image.texels.end(), [](const Texel& t) { return t[3] != 255; });
    const std::size_t size = alpha ? 4 : 3;
    constexpr std::size_t header = 18;
    constexpr std::string_view signature = "TRUEVISION-XFILE.";  // with its final zero the 18 bytes of the footer's mark
    Bytes out(header + image.texels.size() * size + 26);
    out[2] = std::byte{2};  // true color, not compressed
    store_uint(out.data() + 12, image.width, 2, ByteOrder::little);
    store_uint(out.data() + 14, image.height, 2, ByteOrder::little);
    out[16] = static_cast<std::byte>(8 * size);
    out[17] = static_cast<std::byte>(0x20 | (alpha ? 8 : 0));  // first row on top; bits of alpha
    auto* to = out.data() + header;
    for (const auto& t : image.texels) {
        to[0] = std::byte{t[2]}, to[1] = std::byte{t[1]}, to[2] = std::byte{t[0]};
        if (alpha) to[3] = std::byte{t[3]};
        to += size;
    }
    std::memcpy(to + 8, signature.data(), signature.size());
    return out;
}

}  // namespace skivet

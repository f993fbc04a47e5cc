// KTX 2.0: a header, an index of the levels, a data format descriptor, key/value data, and the levels, smallest first. Inside a level:
// layers, faces, slices, rows without padding.
#include "texture/ktx2.h"

#include <zlib.h>
#include <zstd.h>
#include <numeric>

#include "base/phrase.h"
#include "texture/bands.h"
#include "texture/ktx2_format.h"

namespace skivet {
namespace {

constexpr std::array<std::uint8_t, 12> identifier = {0xAB, 'K', 'T', 'X', ' ', '2', '0', 0xBB, '\r', '\n', 0x1A, '\n'};
constexpr std::size_t header_bytes = 80, index_entry = 24;

struct Level {
    std::uint64_t offset = 0, packed = 0, unpacked = 0;
};

Supercompression scheme_of(ByteSpan file) { return static_cast<Supercompression>(load_le<std::uint32_t>(file.data() + 44)); }

Level level_at(ByteSpan file, std::uint32_t mip) {
    const auto* entry = file.data() + header_bytes + mip * index_entry;
    return {load_le<std::uint64_t>(entry), load_le<std::uint64_t>(entry + 8), load_le<std::uint64_t>(entry + 16)};
}

/// Bytes of one level of all layers, faces and slices.
std::uint64_t whole_level(const TextureDesc& d, std::uint32_t mip) {
    return level_bytes(d.format, mip_side(d.width, mip), mip_side(d.height, mip)) * mip_side(d.depth, mip) * d.layers * d.faces;
}

Result<Bytes> unpack(ByteSpan packed, std::uint64_t size, Supercompression scheme) {
    Bytes out(static_cast<std::size_t>(size));
    if (scheme == Supercompression::zstd) {
        const auto got = ZSTD_decompress(out.data(), out.size(), packed.data(), packed.size());
        if (ZSTD_isError(got)) return fail(ErrorCode::damaged, phrase("Zstandard: {}", ZSTD_getErrorName(got)));
        if (got != size) return fail(ErrorCode::damaged, phrase("unpacks to {} bytes, needs {}", grouped(got), grouped(size)));
        return out;
    }
    auto got = static_cast<uLongf>(out.size());
    if (::uncompress(reinterpret_cast<Bytef*>(out.data()), &got, reinterpret_cast<const Bytef*>(packed.data()),
                     static_cast<uLong>(packed.size())) != Z_OK)
        return fail(ErrorCode::damaged, "the zlib stream is damaged");
    if (got != size) return fail(ErrorCode::damaged, phrase("unpacks to {} bytes, needs {}", grouped(got), grouped(size)));
    return out;
}

/// Unpacks a level piece by piece.
class LevelStream {
public:
    LevelStream(ByteSpan packed, Supercompression scheme) : in_{packed.data(), packed.size(), 0}, zstd_(nullptr, &ZSTD_freeDStream) {
        if (scheme == Supercompression::zstd) {
            zstd_.reset(ZSTD_createDStream());
            if (!zstd_) throw std::bad_alloc();
        } else {
            zlib_.next_in = reinterpret_cast<Bytef*>(const_cast<std::byte*>(packed.data()));
            zlib_.avail_in = static_cast<uInt>(std::min<std::size_t>(packed.size(), 0xFFFFFFFFu));
            if (::inflateInit(&zlib_) != Z_OK) throw std::bad_alloc();
            inflating_ = true;
        }
    }
    LevelStream(const LevelStream&) = delete;
    LevelStream& operator=(const LevelStream&) = delete;
    ~LevelStream() {
        if (inflating_) ::inflateEnd(&zlib_);
    }
    /// The next bytes, as many as `out` has. Error `damaged` when the stream does not have them.
    Status read(std::span<std::byte> out) {
        if (inflating_) {
            zlib_.next_out = reinterpret_cast<Bytef*>(out.data());
            zlib_.avail_out = static_cast<uInt>(out.size());  // a band, or less
            while (zlib_.avail_out > 0)
                if (::inflate(&zlib_, Z_NO_FLUSH) != Z_OK && zlib_.avail_out > 0)
                    return fail(ErrorCode::damaged, "the zlib stream is damaged");
            return {};
        }
        ZSTD_outBuffer buffer{out.data(), out.size(), 0};
        while (buffer.pos < buffer.size) {
            const auto before = std::pair(buffer.pos, in_.pos);
            const auto left = ZSTD_decompressStream(zstd_.get(), &buffer, &in_);
            if (ZSTD_isError(left)) return fail(ErrorCode::damaged, phrase("Zstandard: {}", ZSTD_getErrorName(left)));
            if (before == std::pair(buffer.pos, in_.pos)) return fail(ErrorCode::damaged, "the Zstandard stream ends early");
        }
        return {};
    }

private:
    ZSTD_inBuffer in_;
    std::unique_ptr<ZSTD_DStream, decltype(&ZSTD_freeDStream)> zstd_;
    z_stream zlib_{};
    bool inflating_ = false;
};

Result<Bytes> pack(ByteSpan data, Supercompression scheme) {
    if (scheme == Supercompression::none) return Bytes(data.begin(), data.end());
    if (scheme == Supercompression::zstd) {
        Bytes out(ZSTD_compressBound(data.size()));
        const auto got = ZSTD_compress(out.data(), out.size(), data.data(), data.size(), 12);
        if (ZSTD_isError(got)) return fail(ErrorCode::io, phrase("Zstandard: {}", ZSTD_getErrorName(got)));
        out.resize(got);
        return out;
    }
    auto got = ::compressBound(static_cast<uLong>(data.size()));
    Bytes out(got);
    if (::compress2(reinterpret_cast<Bytef*>(out.data()), &got, reinterpret_cast<const Bytef*>(data.data()),
                    static_cast<uLong>(data.size()), 9) != Z_OK)
        return fail(ErrorCode::io, "zlib: out of memory");
    out.resize(got);
    return out;
}

/// KTX 2.0 section 3.7 "mip padding": a multiple of the block's size and of 4; packed levels need none.
std::uint64_t alignment(Format format, Supercompression scheme) {
    return scheme == Supercompression::none ? std::lcm(std::uint64_t{info(format).block_bytes}, std::uint64_t{4}) : 1;
}

}  // namespace

KindTraits Ktx2Kind::traits() const { return {.keeps_levels = true, .extensions = {"ktx2"}, .marks = {"\xABKTX"}}; }

bool Ktx2Kind::recognize(ByteSpan head, std::string_view) const {
    return head.size() >= 12 && std::memcmp(head.data(), identifier.data(), 12) == 0;
}

Result<TextureLayout> Ktx2Kind::layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const {
    if (data.size() < header_bytes)
        return fail_at(ErrorCode::damaged, data.size(), phrase("header: needs {} bytes, has {}", header_bytes, data.size()));
    const auto word = [&](std::size_t at) { return load_le<std::uint32_t>(data.data() + at); };
    TextureLayout out;
    auto& d = out.desc;
    const auto vk = word(12), scheme = word(44);
    const std::uint64_t dfd_at = word(48), dfd_size = word(52);
    if (scheme == 1)
        return fail_at(ErrorCode::unsupported, 44, "Basis Universal (ETC1S with BasisLZ)",
                       "This supercompression is not read; store the texture as plain KTX2 or DDS");
    if (dfd_at + dfd_size <= data.size()) {
        const auto basis = ktx2::basis_name(data.subspan(static_cast<std::size_t>(dfd_at), static_cast<std::size_t>(dfd_size)));
        if (!basis.empty())
            return fail_at(ErrorCode::unsupported, dfd_at, phrase("Basis Universal ({})", basis),
                           "This format is not read; store the texture as plain KTX2 or DDS");
    }
    if (scheme != 0 && scheme != 2 && scheme != 3)
        return fail_at(ErrorCode::unsupported, 44, phrase("supercompression scheme {}", scheme),
                       "None, Zstandard (2) and zlib (3) are read");
    std::tie(d.format, d.color) = ktx2::from_vk(vk);
    if (d.format == Format::unknown)
        return fail_at(ErrorCode::unsupported, 12, phrase("VkFormat {}", vk), "This pixel format is not supported yet");
    d.width = word(20);
    d.height = std::max(1u, word(24));
    d.depth = std::max(1u, word(28));
    d.layers = std::max(1u, word(32));
    d.faces = word(36);
    d.mips = std::max(1u, word(40));
    if (d.faces != 1 && d.faces != 6) return fail_at(ErrorCode::damaged, 36, phrase("{} faces; a texture has 1, a cubemap 6", d.faces));
    SKIVET_CHECK(check_desc(d, limits));
    if (data.size() < header_bytes + d.mips * index_entry)
        return fail_at(ErrorCode::damaged, data.size(),
                       phrase("level index: needs {} bytes, has {}", d.mips * index_entry, data.size() - header_bytes));
    out.direct = scheme == 0;
    std::uint32_t cut_off = 0;
    // Descriptor, keys and values, supercompression global data (KTX 2.0 section 3.1, "Index").
    for (const auto end : {dfd_at + dfd_size, std::uint64_t{word(56)} + word(60),
                           load_le<std::uint64_t>(data.data() + 64) + load_le<std::uint64_t>(data.data() + 72)})
        if (end <= file_size) out.end = std::max(out.end, end);
    for (std::uint32_t mip = 0; mip < d.mips; ++mip) {
        const auto level = level_at(data, mip);
        const auto need = whole_level(d, mip), at = header_bytes + mip * index_entry;
        if (level.offset > file_size || level.packed > file_size - level.offset) {
            auto missing = fail_at(ErrorCode::damaged, at,
                                   phrase("mip {}: needs {} bytes at {}, the file has {}", mip, grouped(level.packed),
                                          grouped(level.offset), grouped(file_size)),
                                   "The file is cut off or its index is damaged");
            // The levels stand smallest first: what a cut takes away are the large ones.
            if (++cut_off == d.mips && level.offset + need / 8 >= file_size) return missing;
            if (!out.damage) out.damage = std::move(missing).value();
        }
        if (level.offset <= file_size && level.packed <= file_size - level.offset) out.end = std::max(out.end, level.offset + level.packed);
        if (out.direct ? level.packed < need : level.unpacked != need)
            return fail_at(
                ErrorCode::damaged, at,
                phrase("mip {}: needs {} bytes, has {}", mip, grouped(need), grouped(out.direct ? level.packed : level.unpacked)));
        if (!out.direct && !limits.may_claim(need, level.packed))
            return fail_at(ErrorCode::limit, at,
                           phrase("mip {}: {} bytes are said to unpack to {}", mip, grouped(level.packed), human_bytes(need)),
                           "No picture packs so well; the index is damaged or made to do harm");
        if (need > limits.inflated_bytes) return fail(ErrorCode::limit, phrase("mip {} would unpack to {}", mip, human_bytes(need)));
    }
    for (std::uint32_t layer = 0; layer < d.layers; ++layer)
        for (std::uint32_t face = 0; face < d.faces; ++face)
            for (std::uint32_t mip = 0; mip < d.mips; ++mip) {
                const auto w = mip_side(d.width, mip), h = mip_side(d.height, mip), slices = mip_side(d.depth, mip);
                const auto size = level_bytes(d.format, w, h);
                for (std::uint32_t s = 0; s < slices; ++s) {
                    const auto inside = ((std::uint64_t{layer} * d.faces + face) * slices + s) * size;
                    out.surfaces.push_back({mip, layer, face, s, w, h, (out.direct ? level_at(data, mip).offset : 0) + inside, size});
                }
            }
    return out;
}

Result<Bytes> Ktx2Kind::bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const {
    if (layout.direct) return TextureKind::bytes(file, layout, surface);
    const auto level = level_at(file, surface.mip);
    SKIVET_TRY(const auto packed, slice(file, level.offset, level.packed));
    auto whole = unpack(packed, whole_level(layout.desc, surface.mip), scheme_of(file));
    if (!whole) return fail(std::move(whole).error().within(phrase("mip {}", surface.mip)));
    SKIVET_TRY(const auto part, slice(*whole, surface.offset, surface.size));
    return Bytes(part.begin(), part.end());
}

Result<bool> Ktx2Kind::read_bands(ByteSpan file, const TextureLayout& layout, const Surface& surface,
                                  const std::function<Status(ByteSpan bytes, std::uint32_t height)>& band) const {
    if (layout.direct) return TextureKind::read_bands(file, layout, surface, band);
    const auto level = level_at(file, surface.mip);
    const auto packed = slice(file, level.offset, level.packed);
    if (!packed) return false;
    LevelStream stream(*packed, scheme_of(file));
    const auto within = [&](Error error) { return fail(std::move(error).within(phrase("mip {}", surface.mip))); };
    const BandRows rows(layout.desc.format, surface.width, surface.height);
    Bytes buffer(std::max<std::size_t>(rows.bytes_from(0), 64u << 10));
    for (std::uint64_t left = surface.offset; left > 0;) {  // other layers, faces and slices of the level
        const auto some = std::min<std::uint64_t>(left, buffer.size());
        if (auto read = stream.read(std::span(buffer).first(static_cast<std::size_t>(some))); !read) return within(std::move(read).error());
        left -= some;
    }
    for (std::uint32_t y = 0; y < surface.height; y += rows.height) {
        const auto some = std::span(buffer).first(rows.bytes_from(y));
        if (auto read = stream.read(some); !read) return within(std::move(read).error());
        SKIVET_CHECK(band(some, rows.height_from(y)));
    }
    return true;
}

Result<Bytes> Ktx2Kind::replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const {
    if (layout.direct || edits.empty()) return TextureKind::replace(file, layout, edits);
    const auto scheme = scheme_of(file);
    const auto& d = layout.desc;
    std::vector<std::optional<Bytes>> changed(d.mips);  // unpacked
    for (const auto& edit : edits) {
        if (edit.surface >= layout.surfaces.size()) return fail(ErrorCode::usage, "there is no such surface");
        const auto& s = layout.surfaces[edit.surface];
        if (edit.bytes.size() != s.size)
            return fail(ErrorCode::unfit, phrase("mip {}: needs {} bytes, has {}", s.mip, grouped(s.size), grouped(edit.bytes.size())));
        if (!changed[s.mip]) {
            const auto level = level_at(file, s.mip);
            SKIVET_TRY(const auto packed, slice(file, level.offset, level.packed));
            SKIVET_TRY(changed[s.mip], unpack(packed, whole_level(d, s.mip), scheme));
        }
        std::copy(edit.bytes.begin(), edit.bytes.end(), changed[s.mip]->begin() + static_cast<std::ptrdiff_t>(s.offset));
    }
    // Everything before the first level stays; levels follow smallest first, as the specification has them.
    std::uint64_t first = file.size();
    for (std::uint32_t mip = 0; mip < d.mips; ++mip) first = std::min(first, level_at(file, mip).offset);
    Bytes out(file.begin(), file.begin() + static_cast<std::ptrdiff_t>(first));
    for (std::uint32_t i = 0; i < d.mips; ++i) {
        const auto mip = d.mips - 1 - i;
        const auto level = level_at(file, mip);
        SKIVET_TRY(const auto old, slice(file, level.offset, level.packed));
        Bytes fresh(old.begin(), old.end());
        if (changed[mip]) {
            SKIVET_TRY(fresh, pack(*changed[mip], scheme));
        }
        auto* entry = out.data() + header_bytes + mip * index_entry;
        store_le(entry, static_cast<std::uint64_t>(out.size()));
        store_le(entry + 8, static_cast<std::uint64_t>(fresh.size()));
        out.insert(out.end(), fresh.begin(), fresh.end());
    }
    return out;
}

namespace {

/// Puts the levels behind what is there, smallest first as the specification has them, and says in the index where they are.
Status append_levels(Bytes& out, const TextureDesc& d, ByteSpan payload, Supercompression scheme) {
    std::uint64_t end = 0;
    const auto surfaces = lay_out(d, 0, MipOrder::largest_first, 1, end);
    if (payload.size() < end) return fail(ErrorCode::usage, phrase("needs {} bytes, has {}", grouped(end), grouped(payload.size())));
    for (std::uint32_t i = 0; i < d.mips; ++i) {
        const auto mip = d.mips - 1 - i;
        Bytes level;
        for (const auto& s : surfaces)
            if (s.mip == mip)
                level.insert(level.end(), payload.begin() + static_cast<std::ptrdiff_t>(s.offset),
                             payload.begin() + static_cast<std::ptrdiff_t>(s.offset + s.size));
        SKIVET_TRY(const auto packed, pack(level, scheme));
        const auto align = alignment(d.format, scheme);
        out.resize(static_cast<std::size_t>((out.size() + align - 1) / align * align));
        auto* entry = out.data() + header_bytes + mip * index_entry;
        store_le(entry, static_cast<std::uint64_t>(out.size()));
        store_le(entry + 8, static_cast<std::uint64_t>(packed.size()));
        store_le(entry + 16, static_cast<std::uint64_t>(level.size()));
        out.insert(out.end(), packed.begin(), packed.end());
    }
    return {};
}

}  // namespace

bool Ktx2Kind::can_reformat(const TextureLayout& layout, Format format) const {
    return can_resize(layout) && ktx2::vk_number(format) != nullptr;
}

Result<Bytes> Ktx2Kind::resized(ByteSpan file, const TextureLayout& layout, const TextureDesc& d, ByteSpan payload) const {
    const auto* vk = ktx2::vk_number(d.format);
    if (!vk) return fail(ErrorCode::unsupported, phrase("a KTX2 file cannot hold {}", info(d.format).name), "DDS or PNG can");
    const auto word = [&](std::size_t at) { return load_le<std::uint32_t>(file.data() + at); };
    const bool same = d.format == layout.desc.format, srgb = d.color == ColorSpace::srgb && vk->srgb;
    // Header and index, then the descriptor and the keys; whatever else lies before the levels has no place of its own.
    SKIVET_TRY(const auto old_descriptor, slice(file, word(48), word(52)));
    SKIVET_TRY(const auto keys, slice(file, word(56), word(60)));
    const auto descriptor = same ? Bytes(old_descriptor.begin(), old_descriptor.end())
                                 : ktx2::descriptor(d.format, srgb ? ColorSpace::srgb : ColorSpace::linear);
    Bytes out(file.begin(), file.begin() + header_bytes);
    const auto put = [&](std::size_t at, std::size_t value) { store_le(out.data() + at, static_cast<std::uint32_t>(value)); };
    if (!same) put(12, srgb ? vk->srgb : vk->plain), put(16, ktx2::type_size(d.format));
    put(20, d.width);
    put(24, d.height);
    if (word(40) != 0 || d.mips > 1) put(40, d.mips);  // 0 asks the game to make the smaller levels
    out.resize(header_bytes + d.mips * index_entry);
    put(48, out.size());
    put(52, descriptor.size());
    out.insert(out.end(), descriptor.begin(), descriptor.end());
    put(56, keys.empty() ? 0 : out.size());
    out.insert(out.end(), keys.begin(), keys.end());
    // The data of a supercompression scheme as a whole belongs to schemes that are refused.
    store_le(out.data() + 64, std::uint64_t{0});
    store_le(out.data() + 72, std::uint64_t{0});
    SKIVET_CHECK(append_levels(out, d, payload, scheme_of(file)));
    return out;
}

Result<Bytes> write_ktx2(const TextureDesc& d, ByteSpan payload, Supercompression scheme) {
    const auto* vk = ktx2::vk_number(d.format);
    if (!vk) return fail(ErrorCode::unsupported, phrase("a KTX2 file cannot hold {}", info(d.format).name), "DDS or PNG can");
    const bool srgb = d.color == ColorSpace::srgb && vk->srgb;
    const auto dfd = ktx2::descriptor(d.format, srgb ? ColorSpace::srgb : ColorSpace::linear);
    ByteWriter out;
    for (const auto b : identifier) out.le(b);
    const bool flat = d.depth == 1;
    for (const std::uint32_t v : {srgb ? vk->srgb : vk->plain, ktx2::type_size(d.format), d.width, d.height, flat ? 0u : d.depth,
                                  d.layers > 1 ? d.layers : 0u, d.faces, d.mips, static_cast<std::uint32_t>(scheme)})
        out.le(v);
    const auto dfd_at = static_cast<std::uint32_t>(header_bytes + d.mips * index_entry);
    out.le(dfd_at);
    out.le(static_cast<std::uint32_t>(dfd.size()));
    // Who wrote the file is the one key the specification asks for.
    constexpr std::string_view writer{"KTXwriter\0Skivet\0", 17};
    out.le(static_cast<std::uint32_t>(dfd_at + dfd.size()));
    out.le(static_cast<std::uint32_t>(4 + writer.size() + 3));  // padded to 4
    out.le(std::uint64_t{0});
    out.le(std::uint64_t{0});
    out.bytes.resize(dfd_at);
    out.put(dfd);
    out.le(static_cast<std::uint32_t>(writer.size()));
    out.put(writer);
    for (int i = 0; i < 3; ++i) out.le(std::uint8_t{0});
    SKIVET_CHECK(append_levels(out.bytes, d, payload, scheme));
    return std::move(out.bytes);
}

}  // namespace skivet

#include "base/pack.h"

#include <brotli/encode.h>
#include <bzlib.h>
#include <fmt/format.h>
#include <libdeflate.h>
#include <lz4.h>
#include <lz4frame.h>
#include <lzma.h>
#include <lzo/lzo1x.h>
#include <snappy-c.h>
#include <zstd.h>

#include "base/deflate.h"
#include "base/pack_decoders.h"
#include "base/phrase.h"

namespace skivet {

using namespace pack_streams;

namespace {

struct PackingName {
    Packing packing;
    std::string_view name;
};
constexpr PackingName names[] = {{Packing::none, "stored"},   {Packing::deflate, "deflate"}, {Packing::zlib, "zlib"},
                                 {Packing::gzip, "gzip"},     {Packing::zstd, "zstd"},       {Packing::lz4_block, "lz4 block"},
                                 {Packing::lz4_frame, "lz4"}, {Packing::lzma_alone, "lzma"}, {Packing::lzma_raw, "lzma raw"},
                                 {Packing::xz, "xz"},         {Packing::bzip2, "bzip2"},     {Packing::lzo1x, "lzo1x"},
                                 {Packing::snappy, "snappy"}, {Packing::brotli, "brotli"}};

/// Beyond this many bytes the ratio limit counts; below it a few kilobytes may well be a texture of one color.
constexpr std::uint64_t ratio_from = 64ull << 20;
/// Beyond it nothing a game ships packs this well; deflate itself could go on to 1032.
constexpr std::uint64_t most_ratio = 250;

tl::unexpected<Error> too_much(std::uint64_t most) {
    return fail(ErrorCode::limit, phrase("unpacks to more than the limit of {}", human_bytes(most)),
                "The stream is damaged or made to fill memory");
}

/// Reads to the end, in pieces that grow with what has been seen, so that memory follows the data and not a claim.
/// `stop`: the stream does not say where it ends, so that asking for a byte more could invent one.
Result<Bytes> read_all(Decoder& decoder, std::uint64_t packed, std::uint64_t most, std::uint64_t ratio,
                       std::optional<std::uint64_t> expected, bool stop = false) {
    Bytes out;
    std::size_t done = 0;
    for (;;) {
        std::uint64_t room = std::max<std::uint64_t>(64 << 10, done);
        if (expected) room = std::min<std::uint64_t>(room, *expected - done + (stop ? 0 : 1));
        room = std::min<std::uint64_t>(room, most + 1 - std::min<std::uint64_t>(done, most));
        out.resize(done + static_cast<std::size_t>(room));
        SKIVET_TRY(const auto got, decoder.read(out.data() + done, static_cast<std::size_t>(room)));
        done += got;
        if (expected && done > *expected)
            return fail(ErrorCode::damaged, phrase("unpacks to more than the stated {} bytes", grouped(*expected)));
        if (done > most || (done > ratio_from && done / ratio > packed)) return too_much(most);
        if (got < room || (stop && expected && done == *expected)) break;
    }
    out.resize(done);
    if (expected && done != *expected)
        return fail(ErrorCode::damaged, phrase("unpacks to {} bytes, should be {}", grouped(done), grouped(*expected)));
    return out;
}

Result<Bytes> unpack_lz4_block(ByteSpan packed, std::uint64_t expected) {
    // A block cannot expand beyond 255:1 (one literal-length or match-length byte stands for at most 255 bytes).
    if (expected / 256 > packed.size())
        return fail(ErrorCode::limit,
                    phrase("claims {} bytes from {} packed, more than LZ4 can give", grouped(expected), grouped(packed.size())));
    if (expected > LZ4_MAX_INPUT_SIZE || packed.size() > LZ4_MAX_INPUT_SIZE)
        return fail(ErrorCode::limit, "an LZ4 block of more than 2 GB");
    Bytes out(static_cast<std::size_t>(expected));
    if (out.empty()) return out;
    const int got = LZ4_decompress_safe(reinterpret_cast<const char*>(packed.data()), reinterpret_cast<char*>(out.data()),
                                        static_cast<int>(packed.size()), static_cast<int>(out.size()));
    if (got < 0) return fail(ErrorCode::damaged, "the lz4 block is damaged");
    if (static_cast<std::size_t>(got) != out.size())
        return fail(ErrorCode::damaged, phrase("the lz4 block unpacks to {} bytes, should be {}", got, grouped(expected)));
    return out;
}

Status known_size(Packing packing, std::optional<std::uint64_t> expected) {
    if (expected) return {};
    return fail(ErrorCode::usage, phrase("{} needs its unpacked size", name_of(packing)));
}

Result<Bytes> unpack_lzo(ByteSpan packed, std::uint64_t expected) {
    // A length byte of 0 stands for 255 more bytes: no LZO1X stream expands beyond that.
    if (expected / 256 > packed.size())
        return fail(ErrorCode::limit,
                    phrase("claims {} bytes from {} packed, more than LZO can give", grouped(expected), grouped(packed.size())));
    Bytes out(static_cast<std::size_t>(expected));
    lzo_uint got = out.size();
    std::byte none{};
    const auto code = lzo1x_decompress_safe(reinterpret_cast<const unsigned char*>(packed.data()), packed.size(),
                                            reinterpret_cast<unsigned char*>(out.empty() ? &none : out.data()), &got, nullptr);
    if (code == LZO_E_OUTPUT_OVERRUN)
        return fail(ErrorCode::damaged, phrase("unpacks to more than the stated {} bytes", grouped(expected)));
    if (code != LZO_E_OK) return fail(ErrorCode::damaged, "the lzo1x block is damaged");
    if (got != out.size()) return fail(ErrorCode::damaged, phrase("unpacks to {} bytes, should be {}", grouped(got), grouped(expected)));
    return out;
}

Result<Bytes> unpack_snappy(ByteSpan packed, std::optional<std::uint64_t> expected, std::uint64_t most) {
    std::size_t size = 0;
    const auto* in = reinterpret_cast<const char*>(packed.data());
    if (snappy_uncompressed_length(in, packed.size(), &size) != SNAPPY_OK) return broken(Packing::snappy, 0);
    if (expected && size != *expected)
        return fail(ErrorCode::damaged, phrase("unpacks to {} bytes, should be {}", grouped(size), grouped(*expected)));
    // Three bytes copy at most 64: nothing expands beyond 22 to 1.
    if (size > most || size / 32 > packed.size())
        return fail(ErrorCode::limit, phrase("claims {}, more than it can hold or the limit", human_bytes(size)));
    Bytes out(size);
    std::byte none{};
    if (snappy_uncompress(in, packed.size(), reinterpret_cast<char*>(out.empty() ? &none : out.data()), &size) != SNAPPY_OK)
        return broken(Packing::snappy, 0);
    return out;
}

Result<Bytes> pack_lzo(ByteSpan data) {
    Bytes memory(LZO1X_999_MEM_COMPRESS);
    Bytes out(data.size() + data.size() / 16 + 64 + 3);  // the library's own bound
    lzo_uint size = out.size();
    std::byte none{};
    if (lzo_init() != LZO_E_OK ||
        lzo1x_999_compress(reinterpret_cast<const unsigned char*>(data.empty() ? &none : data.data()), data.size(),
                           reinterpret_cast<unsigned char*>(out.data()), &size, memory.data()) != LZO_E_OK)
        return fail(ErrorCode::unfit, "LZO could not pack the data");
    out.resize(size);
    return out;
}

Result<Bytes> pack_snappy(ByteSpan data) {
    Bytes out(snappy_max_compressed_length(data.size()));
    std::size_t size = out.size();
    if (snappy_compress(reinterpret_cast<const char*>(data.data()), data.size(), reinterpret_cast<char*>(out.data()), &size) != SNAPPY_OK)
        return fail(ErrorCode::unfit, "Snappy could not pack the data");
    out.resize(size);
    return out;
}

Result<Bytes> pack_brotli(ByteSpan data, int level) {
    Bytes out(std::max<std::size_t>(64, BrotliEncoderMaxCompressedSize(data.size())));
    std::size_t size = out.size();
    if (!BrotliEncoderCompress(level > 0 ? std::min(level, BROTLI_MAX_QUALITY) : 9, BROTLI_DEFAULT_WINDOW, BROTLI_MODE_GENERIC, data.size(),
                               reinterpret_cast<const std::uint8_t*>(data.data()), &size, reinterpret_cast<std::uint8_t*>(out.data())))
        return fail(ErrorCode::unfit, "Brotli could not pack the data");
    out.resize(size);
    return out;
}

Result<Bytes> pack_lzma(Packing packing, ByteSpan data, int level, ByteSpan like) {
    lzma_options_lzma options;
    if (lzma_lzma_preset(&options, level > 0 ? static_cast<std::uint32_t>(std::min(level, 9)) : 6))
        return fail(ErrorCode::unfit, "liblzma refuses the level");
    lzma_check check = LZMA_CHECK_CRC64;
    const auto* old = reinterpret_cast<const std::uint8_t*>(like.data());
    if (packing == Packing::xz && like.size() >= LZMA_STREAM_HEADER_SIZE) {
        lzma_stream_flags flags{};
        if (lzma_stream_header_decode(&flags, old) == LZMA_OK && lzma_check_is_supported(flags.check)) check = flags.check;
    } else if (packing != Packing::xz && like.size() >= 5) {  // properties: lc + 9 (lp + 5 pb), then the dictionary's size
        const auto p = static_cast<unsigned>(like[0]);
        const auto dictionary = load_le<std::uint32_t>(like.data() + 1);
        if (p < 225 && dictionary >= LZMA_DICT_SIZE_MIN && dictionary <= (64u << 20)) {
            options.lc = p % 9;
            options.lp = p / 9 % 5;
            options.pb = p / 45;
            options.dict_size = dictionary;
            if (options.lc + options.lp > LZMA_LCLP_MAX) options.lc = 3, options.lp = 0;
        }
    }
    lzma_stream z = LZMA_STREAM_INIT;
    lzma_filter filters[2] = {{packing == Packing::xz ? LZMA_FILTER_LZMA2 : LZMA_FILTER_LZMA1, &options}, {LZMA_VLI_UNKNOWN, nullptr}};
    lzma_ret state;
    Bytes out;
    if (packing == Packing::xz) {
        state = lzma_stream_encoder(&z, filters, check);
    } else if (packing == Packing::lzma_alone) {
        state = lzma_alone_encoder(&z, &options);
    } else {
        out.resize(5);
        state = lzma_properties_encode(filters, reinterpret_cast<std::uint8_t*>(out.data()));
        if (state == LZMA_OK) state = lzma_raw_encoder(&z, filters);
    }
    if (state != LZMA_OK) {
        lzma_end(&z);
        return fail(ErrorCode::unfit, "liblzma refuses the settings");
    }
    z.next_in = reinterpret_cast<const std::uint8_t*>(data.data());
    z.avail_in = data.size();
    while (state == LZMA_OK) {
        const auto start = out.size();
        const auto room = std::max<std::size_t>(64 << 10, data.size() / 4);
        out.resize(start + room);
        z.next_out = reinterpret_cast<std::uint8_t*>(out.data() + start);
        z.avail_out = room;
        state = lzma_code(&z, LZMA_FINISH);
        out.resize(start + room - z.avail_out);
    }
    lzma_end(&z);
    if (state != LZMA_STREAM_END) return fail(ErrorCode::unfit, "liblzma could not pack the data");
    return out;
}

Result<Bytes> pack_zlib_family(Packing packing, ByteSpan data, int level) {
    const int how = level > 0 ? std::min(level, 12) : 6;
    if (packing == Packing::deflate) return deflate(data, how);
    std::unique_ptr<libdeflate_compressor, decltype(&libdeflate_free_compressor)> engine(libdeflate_alloc_compressor(how),
                                                                                         &libdeflate_free_compressor);
    if (!engine) return fail(ErrorCode::io, "out of memory");
    Bytes out(packing == Packing::zlib ? libdeflate_zlib_compress_bound(engine.get(), data.size())
                                       : libdeflate_gzip_compress_bound(engine.get(), data.size()));
    out.resize(packing == Packing::zlib ? libdeflate_zlib_compress(engine.get(), data.data(), data.size(), out.data(), out.size())
                                        : libdeflate_gzip_compress(engine.get(), data.data(), data.size(), out.data(), out.size()));
    return out;
}

/// The new member gets the old one's optional header fields (file name, comment, time): RFC 1952 section 2.3.
Bytes with_gzip_header_of(Bytes packed, ByteSpan like) {
    if (like.size() < 10 || like[0] != std::byte{0x1F} || like[1] != std::byte{0x8B}) return packed;
    const auto flags = static_cast<unsigned>(like[3]);
    std::size_t end = 10;
    if (flags & 4) end += 2 + (end + 2 <= like.size() ? load_le<std::uint16_t>(like.data() + end) : like.size());
    for (const unsigned bit : {8u, 16u})
        if (flags & bit) {
            while (end < like.size() && like[end] != std::byte{0}) ++end;
            ++end;
        }
    if (flags & 2) end += 2;
    if (end > like.size()) return packed;
    Bytes out(like.begin(), like.begin() + static_cast<std::ptrdiff_t>(end));
    out.insert(out.end(), packed.begin() + 10, packed.end());
    return out;
}

Result<Bytes> pack_zstd(ByteSpan data, int level, ByteSpan like) {
    const std::unique_ptr<ZSTD_CCtx, decltype(&ZSTD_freeCCtx)> engine(ZSTD_createCCtx(), &ZSTD_freeCCtx);
    if (!engine) return fail(ErrorCode::io, "out of memory");
    ZSTD_CCtx_setParameter(engine.get(), ZSTD_c_compressionLevel, level != 0 ? level : 9);
    if (like.size() >= 5) {  // RFC 8878 section 3.1.1.1.1: bit 2 of the frame header descriptor
        const auto descriptor = static_cast<unsigned>(like[4]);
        ZSTD_CCtx_setParameter(engine.get(), ZSTD_c_checksumFlag, descriptor >> 2 & 1);
        ZSTD_CCtx_setParameter(engine.get(), ZSTD_c_contentSizeFlag, (descriptor >> 6) != 0 || (descriptor >> 5 & 1) != 0);
    }
    Bytes out(ZSTD_compressBound(data.size()));
    const auto size = ZSTD_compress2(engine.get(), out.data(), out.size(), data.data(), data.size());
    if (ZSTD_isError(size)) return fail(ErrorCode::unfit, phrase("zstd: {}", ZSTD_getErrorName(size)));
    out.resize(size);
    return out;
}

Result<Bytes> pack_lz4_frame(ByteSpan data, int level, ByteSpan like) {
    LZ4F_preferences_t how{};
    how.compressionLevel = level > 0 ? level : 9;
    how.frameInfo.contentSize = data.size();
    if (like.size() >= 7) {  // frame descriptor: FLG and BD
        const auto flags = static_cast<unsigned>(like[4]);
        how.frameInfo.blockSizeID = static_cast<LZ4F_blockSizeID_t>(static_cast<unsigned>(like[5]) >> 4 & 7);
        how.frameInfo.blockMode = flags >> 5 & 1 ? LZ4F_blockIndependent : LZ4F_blockLinked;
        how.frameInfo.blockChecksumFlag = flags >> 4 & 1 ? LZ4F_blockChecksumEnabled : LZ4F_noBlockChecksum;
        how.frameInfo.contentChecksumFlag = flags >> 2 & 1 ? LZ4F_contentChecksumEnabled : LZ4F_noContentChecksum;
        if (!(flags >> 3 & 1)) how.frameInfo.contentSize = 0;
    }
    Bytes out(LZ4F_compressFrameBound(data.size(), &how));
    const auto size = LZ4F_compressFrame(out.data(), out.size(), data.data(), data.size(), &how);
    if (LZ4F_isError(size)) return fail(ErrorCode::unfit, phrase("lz4: {}", LZ4F_getErrorName(size)));
    out.resize(size);
    return out;
}

Result<Bytes> pack_bzip2(ByteSpan data, int level, ByteSpan like) {
    int blocks = level > 0 ? std::min(level, 9) : 9;
    if (level == 0 && like.size() >= 4 && like[3] >= std::byte{'1'} && like[3] <= std::byte{'9'}) blocks = static_cast<int>(like[3]) - '0';
    if (data.size() > (3ull << 30)) return fail(ErrorCode::limit, "more than 3 GB for one bzip2 stream");
    Bytes out(data.size() + data.size() / 100 + 600);
    auto size = static_cast<unsigned>(out.size());
    std::byte none{};
    auto* from = const_cast<char*>(reinterpret_cast<const char*>(data.empty() ? &none : data.data()));
    if (BZ2_bzBuffToBuffCompress(reinterpret_cast<char*>(out.data()), &size, from, static_cast<unsigned>(data.size()), blocks, 0, 0) !=
        BZ_OK)
        return fail(ErrorCode::unfit, "bzip2 could not pack the data");
    out.resize(size);
    return out;
}

}  // namespace

std::string_view name_of(Packing packing) { return names[static_cast<std::size_t>(packing)].name; }

std::optional<Packing> packing_named(std::string_view name) {
    for (const auto& n : names)
        if (n.name == name) return n.packing;
    return std::nullopt;
}

const std::string& packing_names() {
    static const std::string all = [] {
        std::string out;
        for (const auto& n : names) out += fmt::format("{}{}", out.empty() ? "" : &n == std::end(names) - 1 ? said(" and ") : ", ", n.name);
        return out;
    }();
    return all;
}

Result<Bytes> unpack(Packing packing, ByteSpan packed, std::optional<std::uint64_t> expected, const ReadLimits& limits) {
    if (expected && *expected > limits.inflated_bytes)
        return fail(ErrorCode::limit,
                    phrase("would unpack to {}, more than the limit of {}", human_bytes(*expected), human_bytes(limits.inflated_bytes)));
    if (packing == Packing::none) {
        if (expected && *expected != packed.size())
            return fail(ErrorCode::damaged, phrase("stored, but {} bytes became {}", grouped(*expected), grouped(packed.size())));
        if (packed.size() > limits.inflated_bytes)
            return fail(ErrorCode::limit, phrase("{} are more than the limit", human_bytes(packed.size())));
        return Bytes(packed.begin(), packed.end());
    }
    if (packing == Packing::deflate && expected) return inflate(packed, *expected, limits);  // libdeflate: whole streams of known size
    if (packing == Packing::lz4_block) {
        SKIVET_CHECK(known_size(packing, expected));
        return unpack_lz4_block(packed, *expected);
    }
    if (packing == Packing::lzo1x) {
        SKIVET_CHECK(known_size(packing, expected));
        return unpack_lzo(packed, *expected);
    }
    if (packing == Packing::snappy) return unpack_snappy(packed, expected, limits.inflated_bytes);
    const auto decoder = decoder_for(packing, packed, true);
    return read_all(*decoder, packed.size(), limits.inflated_bytes, expected ? limits.ratio : std::min(limits.ratio, most_ratio), expected,
                    packing == Packing::lzma_raw);
}

Result<Bytes> unpack_prefix(Packing packing, ByteSpan packed, std::size_t count) {
    if (packing == Packing::none) {
        const auto head = packed.first(std::min(count, packed.size()));
        return Bytes(head.begin(), head.end());
    }
    if (packing == Packing::snappy) {
        SKIVET_TRY(auto all, unpack_snappy(packed, std::nullopt, ReadLimits{}.inflated_bytes));
        all.resize(std::min(count, all.size()));
        return all;
    }
    Bytes out(count);
    if (packing == Packing::lzo1x) {  // what does not fit whole is not begun, so that the room has to be larger than what is asked for
        for (auto room = std::max<std::size_t>(64 << 10, 2 * count);; room *= 4) {
            out.resize(room);
            lzo_uint got = out.size();
            const auto code = lzo1x_decompress_safe(reinterpret_cast<const unsigned char*>(packed.data()), packed.size(),
                                                    reinterpret_cast<unsigned char*>(out.data()), &got, nullptr);
            if (code == LZO_E_OUTPUT_OVERRUN && got < count && room / 256 <= packed.size()) continue;
            if (code != LZO_E_OK && code != LZO_E_OUTPUT_OVERRUN) return fail(ErrorCode::damaged, "the lzo1x block is damaged");
            out.resize(std::min<std::size_t>(got, count));
            return out;
        }
    }
    if (packing == Packing::lz4_block) {
        const auto target = static_cast<int>(std::min<std::size_t>(count, LZ4_MAX_INPUT_SIZE));
        const auto size = static_cast<int>(std::min<std::size_t>(packed.size(), LZ4_MAX_INPUT_SIZE));
        const int got = LZ4_decompress_safe_partial(reinterpret_cast<const char*>(packed.data()), reinterpret_cast<char*>(out.data()), size,
                                                    target, target);
        if (got < 0) return fail(ErrorCode::damaged, "the lz4 block is damaged");
        out.resize(static_cast<std::size_t>(got));
        return out;
    }
    SKIVET_TRY(const auto got, decoder_for(packing, packed, true)->read(out.data(), count));
    out.resize(got);
    return out;
}

Result<UnpackedStream> unpack_stream(Packing packing, ByteSpan from, std::uint64_t most) {
    const auto decoder = decoder_for(packing, from, false);
    if (!decoder) return fail(ErrorCode::usage, phrase("{} does not say where it ends", name_of(packing)));
    UnpackedStream out;
    SKIVET_TRY(out.bytes, read_all(*decoder, from.size(), most, ~std::uint64_t{0}, std::nullopt));
    out.packed_size = decoder->taken();
    return out;
}

Result<Bytes> pack(Packing packing, ByteSpan data, int level, ByteSpan like) {
    switch (packing) {
        case Packing::none: return Bytes(data.begin(), data.end());
        case Packing::deflate:
        case Packing::zlib: return pack_zlib_family(packing, data, level);
        case Packing::gzip: {
            SKIVET_TRY(auto packed, pack_zlib_family(packing, data, level));
            return with_gzip_header_of(std::move(packed), like);
        }
        case Packing::zstd: return pack_zstd(data, level, like);
        case Packing::lz4_block: {
            if (data.size() > LZ4_MAX_INPUT_SIZE) return fail(ErrorCode::limit, "more than 2 GB for one LZ4 block");
            Bytes out(static_cast<std::size_t>(LZ4_compressBound(static_cast<int>(data.size()))));
            const int size = LZ4_compress_default(reinterpret_cast<const char*>(data.data()), reinterpret_cast<char*>(out.data()),
                                                  static_cast<int>(data.size()), static_cast<int>(out.size()));
            if (size <= 0) return fail(ErrorCode::unfit, "LZ4 could not pack the data");
            out.resize(static_cast<std::size_t>(size));
            return out;
        }
        case Packing::lz4_frame: return pack_lz4_frame(data, level, like);
        case Packing::lzma_alone:
        case Packing::lzma_raw:
        case Packing::xz: return pack_lzma(packing, data, level, like);
        case Packing::bzip2: return pack_bzip2(data, level, like);
        case Packing::lzo1x: return pack_lzo(data);
        case Packing::snappy: return pack_snappy(data);
        case Packing::brotli: return pack_brotli(data, level);
    }
    return fail(ErrorCode::usage, "no such packing");
}

std::optional<Packing> packing_at(ByteSpan d) {
    const auto starts = [&](std::initializer_list<unsigned> bytes) {
        if (d.size() < bytes.size()) return false;
        std::size_t i = 0;
        for (const auto b : bytes)
            if (d[i++] != static_cast<std::byte>(b)) return false;
        return true;
    };
    if (starts({0x1F, 0x8B, 0x08}) && d.size() >= 18 && (d[3] & std::byte{0xE0}) == std::byte{0}) return Packing::gzip;
    if (starts({0x28, 0xB5, 0x2F, 0xFD})) return Packing::zstd;
    if (starts({0x04, 0x22, 0x4D, 0x18})) return Packing::lz4_frame;
    if (starts({0xFD, '7', 'z', 'X', 'Z', 0x00})) return Packing::xz;
    if (starts({'B', 'Z', 'h'}) && d.size() >= 10 && d[3] >= std::byte{'1'} && d[3] <= std::byte{'9'} &&
        starts({'B', 'Z', 'h', static_cast<unsigned>(d[3]), 0x31, 0x41, 0x59, 0x26, 0x53, 0x59}))
        return Packing::bzip2;
    // RFC 1950 section 2.2: method 8, a window of 32 KB or less, and the first two bytes a multiple of 31; the preset dictionary bit off.
    if (d.size() >= 8 && (d[0] & std::byte{0x8F}) == std::byte{0x08} && (d[1] & std::byte{0x20}) == std::byte{0} &&
        (static_cast<unsigned>(d[0]) * 256 + static_cast<unsigned>(d[1])) % 31 == 0)
        return Packing::zlib;
    // .lzma: usual properties, a dictionary of 2^n or 2^n + 2^(n-1) bytes, a size that is unknown or below 256 GB (as its own tools check).
    if (d.size() >= 14 && d[0] == std::byte{0x5D} && d[13] == std::byte{0}) {
        const auto dictionary = load_le<std::uint32_t>(d.data() + 1);
        const auto size = load_le<std::uint64_t>(d.data() + 5);
        const bool even =
            dictionary >= 4096 && (std::has_single_bit(dictionary) || (dictionary % 3 == 0 && std::has_single_bit(dictionary / 3)));
        if (even && (size == ~0ull || size < (1ull << 38))) return Packing::lzma_alone;
    }
    return std::nullopt;
}

}  // namespace skivet

#include "base/deflate.h"

#include <libdeflate.h>
#include <zlib.h>

#include "base/phrase.h"

namespace skivet {

namespace {

/// By the library's function for raw streams or for zlib's.
template <class Decompress>
Status inflate_into(Decompress decompress, ByteSpan packed, std::span<std::byte> out) {
    std::unique_ptr<libdeflate_decompressor, decltype(&libdeflate_free_decompressor)> engine(libdeflate_alloc_decompressor(),
                                                                                             &libdeflate_free_decompressor);
    if (!engine) return fail(ErrorCode::io, "out of memory");
    std::size_t used = 0;
    std::size_t got = 0;
    std::byte none{};
    const auto result = decompress(engine.get(), packed.data(), packed.size(), out.empty() ? &none : out.data(), out.size(), &used, &got);
    if (result == LIBDEFLATE_BAD_DATA) return fail(ErrorCode::damaged, "the deflate stream is damaged");
    if (result == LIBDEFLATE_INSUFFICIENT_SPACE)
        return fail(ErrorCode::damaged, phrase("unpacks to more than the stated {} bytes", grouped(out.size())));
    if (got != out.size())
        return fail(ErrorCode::damaged, phrase("unpacks to {} bytes, the directory says {}", grouped(got), grouped(out.size())));
    return {};
}

}  // namespace

Status may_inflate(ByteSpan packed, std::uint64_t expected, const ReadLimits& limits) {
    if (expected > limits.inflated_bytes)
        return fail(ErrorCode::limit,
                    phrase("would unpack to {}, more than the limit of {}", human_bytes(expected), human_bytes(limits.inflated_bytes)));
    if (expected / limits.ratio > packed.size())
        return fail(ErrorCode::limit,
                    phrase("claims {} bytes from {} packed, more than deflate can give", grouped(expected), grouped(packed.size())),
                    "The size field is damaged");
    return {};
}

Result<Bytes> inflate(ByteSpan packed, std::uint64_t expected, const ReadLimits& limits) {
    SKIVET_CHECK(may_inflate(packed, expected, limits));
    Bytes out(static_cast<std::size_t>(expected));
    SKIVET_CHECK(inflate_into(libdeflate_deflate_decompress_ex, packed, out));
    return out;
}

Status inflate_zlib(ByteSpan packed, std::span<std::byte> out) { return inflate_into(libdeflate_zlib_decompress_ex, packed, out); }

Result<Bytes> inflate_prefix(ByteSpan packed, std::size_t count) {
    // libdeflate only works on whole streams; zlib can stop early.
    z_stream stream{};
    if (inflateInit2(&stream, -MAX_WBITS) != Z_OK) return fail(ErrorCode::io, "out of memory");
    Bytes out(count);
    stream.next_in = const_cast<Bytef*>(reinterpret_cast<const Bytef*>(packed.data()));
    stream.avail_in = static_cast<uInt>(std::min<std::size_t>(packed.size(), 1u << 20));
    stream.next_out = reinterpret_cast<Bytef*>(out.data());
    stream.avail_out = static_cast<uInt>(count);
    const int result = ::inflate(&stream, Z_SYNC_FLUSH);
    out.resize(count - stream.avail_out);
    inflateEnd(&stream);
    if (result != Z_OK && result != Z_STREAM_END && result != Z_BUF_ERROR) return fail(ErrorCode::damaged, "the deflate stream is damaged");
    return out;
}

Bytes deflate(ByteSpan data, int level) {
    std::unique_ptr<libdeflate_compressor, decltype(&libdeflate_free_compressor)> engine(libdeflate_alloc_compressor(level),
                                                                                         &libdeflate_free_compressor);
    Bytes out(libdeflate_deflate_compress_bound(engine.get(), data.size()));
    out.resize(libdeflate_deflate_compress(engine.get(), data.data(), data.size(), out.data(), out.size()));
    return out;
}

}  // namespace skivet

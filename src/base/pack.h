#pragma once
// Compressed streams of every kind that archives and wrappers use, behind two functions. The libraries do the work; here are the bounds:
// no stream can make us take more memory than the limits allow, whatever it claims.
#include "base/bytes.h"
#include "base/limits.h"

namespace skivet {

enum class Packing {
    none,
    deflate,     ///< RFC 1951, bare
    zlib,        ///< RFC 1950
    gzip,        ///< RFC 1952; several members one after the other are one stream
    zstd,        ///< RFC 8878
    lz4_block,   ///< bare block; its unpacked size must be known
    lz4_frame,   ///< LZ4 frame format 1.6
    lzma_alone,  ///< 13-byte header: properties, dictionary, size
    lzma_raw,    ///< 5 bytes of properties, then the bare stream (as ZIP method 14 has it behind its own 4 bytes)
    xz,          ///< the .xz file format 1.1
    bzip2,
    lzo1x,   ///< LZO1X bare block; its unpacked size must be known
    snappy,  ///< Snappy's raw format, which states its unpacked size
    brotli,  ///< RFC 7932
};
[[nodiscard]] std::string_view name_of(Packing packing);
[[nodiscard]] std::optional<Packing> packing_named(std::string_view name);
/// All names, for messages: "stored, deflate, … and brotli".
[[nodiscard]] const std::string& packing_names();
/// Whether its unpacked size must be known from elsewhere.
[[nodiscard]] constexpr bool needs_size(Packing packing) {
    return packing == Packing::lz4_block || packing == Packing::lzma_raw || packing == Packing::lzo1x;
}

/// Unpacks a whole stream. With `expected` the result has exactly that many bytes or it is an error `damaged`; lz4_block and lzo1x need it.
/// More than limits.inflated_bytes, or, without `expected`, more than 250 times the packed bytes beyond the first 64 MB, is an error
/// `limit`.
[[nodiscard]] Result<Bytes> unpack(Packing packing, ByteSpan packed, std::optional<std::uint64_t> expected, const ReadLimits& limits);

/// The first `count` bytes, or fewer when the stream has fewer; damage behind them is not noticed.
[[nodiscard]] Result<Bytes> unpack_prefix(Packing packing, ByteSpan packed, std::size_t count);

struct UnpackedStream {
    Bytes bytes;
    std::uint64_t packed_size = 0;  ///< bytes of the input the stream took
};
/// Unpacks a stream whose end is not known beforehand; what follows it is left alone. Not for lz4_block, lzo1x, snappy and none.
/// gzip: one member. At most `most` bytes; more is an error `limit`.
[[nodiscard]] Result<UnpackedStream> unpack_stream(Packing packing, ByteSpan from, std::uint64_t most);

/// Packs. `level` as the library counts it; 0: the library's usual one. Error `unfit` only when the library refuses.
/// xz and lzma keep the check and dictionary of `like`, an older stream of the same kind, when it is given; zstd its checksum and
/// whether it states its size; lz4_frame its block size and checksums.
[[nodiscard]] Result<Bytes> pack(Packing packing, ByteSpan data, int level = 0, ByteSpan like = {});

/// Which stream begins here, by its magic number; nothing for kinds without one (deflate, lz4_block, lzma_raw, lzo1x, snappy, brotli), and
/// for zlib and lzma_alone only when their headers are consistent.
[[nodiscard]] std::optional<Packing> packing_at(ByteSpan data);

}  // namespace skivet

#pragma once
#include "base/bytes.h"
#include "base/limits.h"

namespace skivet {

/// RFC 1951 raw deflate. `expected` is the size the file claims; anything else is an error.
[[nodiscard]] Result<Bytes> inflate(ByteSpan packed, std::uint64_t expected, const ReadLimits& limits);
/// Error `limit` where `expected` bytes are more than the limits allow, or than deflate can have made `packed` of: to be asked before
/// memory is taken, so that a small file cannot make us take gigabytes.
[[nodiscard]] Status may_inflate(ByteSpan packed, std::uint64_t expected, const ReadLimits& limits);
/// A stream in zlib's form (RFC 1950), whose checksum must hold, into `out`, whose size is the one the file claims and whose content before
/// does not matter.
[[nodiscard]] Status inflate_zlib(ByteSpan packed, std::span<std::byte> out);
/// The first `count` bytes of what `packed` holds, or fewer when it ends before; for recognizing without unpacking all.
[[nodiscard]] Result<Bytes> inflate_prefix(ByteSpan packed, std::size_t count);
/// Level 1 to 12 (libdeflate's scale).
[[nodiscard]] Bytes deflate(ByteSpan data, int level = 9);

}  // namespace skivet

#pragma once
// Checksums and name hashes that sheets can name.
#include "base/bytes.h"

namespace skivet {

enum class SumKind { crc32, adler32, fnv1a32, fnv1a64, xxh32, xxh64, sha1, sha256, sum };
[[nodiscard]] std::optional<SumKind> sum_named(std::string_view name);
/// Bytes a checksum has; 0 for `sum`, which is as wide as its field.
[[nodiscard]] std::size_t sum_bytes(SumKind kind);
/// The checksum as a number (the low `width` bytes count), for all but the SHAs. CRC-32 ISO-HDLC; Adler-32 RFC 1950; FNV-1a with the
/// offset bases and primes of its authors (draft-eastlake-fnv); xxHash with seed 0; `sum` adds all bytes.
[[nodiscard]] std::uint64_t sum_number(SumKind kind, ByteSpan data);
/// The digest of SHA-1 or SHA-256 (FIPS 180-4).
[[nodiscard]] Bytes sum_digest(SumKind kind, ByteSpan data);

enum class HashKind { crc32, fnv1a32, fnv1a64, xxh32, xxh64, multiply_add };
[[nodiscard]] std::optional<HashKind> hash_named(std::string_view name);
/// Hash of a path's bytes. multiply_add: h = seed, then h = h × multiplier + byte for each byte, modulo 2^64 (the field cuts it).
/// xxh32 and xxh64 take `seed`; the others ignore it.
[[nodiscard]] std::uint64_t hash_number(HashKind kind, std::uint64_t seed, std::uint64_t multiplier, std::string_view text);

}  // namespace skivet

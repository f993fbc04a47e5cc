#pragma once
// Streams without a magic number, and textures whose header is hidden by a short key, in bytes nobody describes.
#include <optional>

#include "base/pack.h"

namespace skivet {

struct BareStream {
    Packing packing = Packing::deflate;
    std::uint64_t size = 0;      ///< bytes it takes
    std::uint64_t unpacked = 0;  ///< bytes
    double confidence = 0;
};

/// A raw deflate stream that begins here (RFC 1951) with a block of codes of its own, which are complete; or an LZ4 block whose packed size
/// stands in the four bytes before it, which unpacks to its end. `at` counts from the start of `data`. At least 512 bytes, unpacked. What
/// looked like one and is none counts into `wasted`, in bytes.
[[nodiscard]] std::optional<BareStream> bare_stream_at(ByteSpan data, std::size_t at, std::uint64_t most, std::uint64_t& wasted);

/// The first position of [from, to) at which any of the three that follow or a TGA header may begin, or `to`. 32 bytes behind each position
/// must be there.
[[nodiscard]] std::uint64_t next_without_mark(ByteSpan data, std::uint64_t from, std::uint64_t to,
                                              std::span<const std::array<std::byte, 8>> beginnings);

/// The key of one to five bytes that, repeated, makes one of these beginnings (of eight bytes) out of what lies here; empty when none does.
[[nodiscard]] Bytes hiding_key(ByteSpan eight_bytes, std::span<const std::array<std::byte, 8>> beginnings);

}  // namespace skivet

#pragma once
// Streams unpacked piece by piece; used by pack.cpp only.
#include <memory>

#include "base/pack.h"

namespace skivet::pack_streams {

/// One stream being unpacked piece by piece.
class Decoder {
public:
    virtual ~Decoder() = default;
    /// Fills `out` as far as the stream goes. Fewer bytes than asked for: the stream has ended.
    virtual Result<std::size_t> read(std::byte* out, std::size_t room) = 0;
    /// Bytes of the input taken so far.
    [[nodiscard]] virtual std::uint64_t taken() const = 0;
};

/// `all`: streams that follow one another are one. nullptr for packings that are no streams.
[[nodiscard]] std::unique_ptr<Decoder> decoder_for(Packing packing, ByteSpan in, bool all);
[[nodiscard]] tl::unexpected<Error> broken(Packing packing, std::uint64_t at);

}  // namespace skivet::pack_streams

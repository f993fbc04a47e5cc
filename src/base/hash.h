#pragma once
#include <array>

#include "base/bytes.h"

namespace skivet {

using Sha256 = std::array<std::byte, 32>;

/// FIPS 180-4 SHA-256.
[[nodiscard]] Sha256 sha256(ByteSpan data);
/// The same of data that comes in pieces.
class Sha256Stream {
public:
    Sha256Stream();
    ~Sha256Stream();
    Sha256Stream(const Sha256Stream&) = delete;
    Sha256Stream& operator=(const Sha256Stream&) = delete;
    void add(ByteSpan data);
    /// The digest of everything added; the stream is done then.
    [[nodiscard]] Sha256 finish();

private:
    void* state_;
};
[[nodiscard]] std::string to_hex(ByteSpan data);
/// CRC-32 (ISO-HDLC: polynomial 0xEDB88320, check value of "123456789" is 0xCBF43926), as ZIP and PNG use it.
[[nodiscard]] std::uint32_t crc32(ByteSpan data, std::uint32_t start = 0);

}  // namespace skivet

#include "base/hash.h"

#include <fmt/format.h>
#include <libdeflate.h>
#include <openssl/sha.h>

namespace skivet {

Sha256 sha256(ByteSpan data) {
    Sha256 digest;
    SHA256(reinterpret_cast<const unsigned char*>(data.data()), data.size(), reinterpret_cast<unsigned char*>(digest.data()));
    return digest;
}

std::string to_hex(ByteSpan data) {
    std::string text;
    for (auto byte : data) text += fmt::format("{:02x}", static_cast<unsigned>(byte));
    return text;
}

std::uint32_t crc32(ByteSpan data, std::uint32_t start) {
    return libdeflate_crc32(start, data.data(), data.size());
}

}  // namespace skivet

#include "base/hash.h"

#include <fmt/format.h>
#include <libdeflate.h>
#include <openssl/evp.h>
#include <openssl/sha.h>

namespace skivet {

Sha256 sha256(ByteSpan data) {
    Sha256 digest;
    SHA256(reinterpret_cast<const unsigned char*>(data.data()), data.size(), reinterpret_cast<unsigned char*>(digest.data()));
    return digest;
}

Sha256Stream::Sha256Stream() : state_(EVP_MD_CTX_new()) { EVP_DigestInit_ex(static_cast<EVP_MD_CTX*>(state_), EVP_sha256(), nullptr); }
Sha256Stream::~Sha256Stream() { EVP_MD_CTX_free(static_cast<EVP_MD_CTX*>(state_)); }
void Sha256Stream::add(ByteSpan data) { EVP_DigestUpdate(static_cast<EVP_MD_CTX*>(state_), data.data(), data.size()); }
Sha256 Sha256Stream::finish() {
    Sha256 digest;
    unsigned size = 0;
    EVP_DigestFinal_ex(static_cast<EVP_MD_CTX*>(state_), reinterpret_cast<unsigned char*>(digest.data()), &size);
    return digest;
}

std::string to_hex(ByteSpan data) {
    std::string text;
    for (auto byte : data) text += fmt::format("{:02x}", static_cast<unsigned>(byte));
    return text;
}

std::uint32_t crc32(ByteSpan data, std::uint32_t start) {
    // Without a place the library begins anew.
    return data.empty() ? start : libdeflate_crc32(start, data.data(), data.size());
}

}  // namespace skivet

#pragma once
// Ciphers that archives use. AES is OpenSSL's; the traditional ZIP cipher and XOR are a few lines each.
#include "base/bytes.h"

namespace skivet {

enum class CipherMode { ecb, cbc, ctr };

/// AES (FIPS 197) with a key of 16, 24 or 32 bytes in a mode of NIST SP 800-38A, without padding: ECB and CBC want whole blocks of 16
/// bytes (error `damaged` otherwise); bytes beyond the last whole block are the caller's business. `iv` has 16 bytes for CBC and CTR.
/// CTR counts big-endian over the whole block, as SP 800-38A's examples do. Error `key` for a key of another length.
[[nodiscard]] Result<Bytes> aes_decrypt(CipherMode mode, ByteSpan key, ByteSpan iv, ByteSpan data);
[[nodiscard]] Result<Bytes> aes_encrypt(CipherMode mode, ByteSpan key, ByteSpan iv, ByteSpan data);

/// data[i] ^ key[(i + start) % key.size()]; its own inverse.
[[nodiscard]] Bytes xor_with(ByteSpan key, ByteSpan data, std::uint64_t start = 0);

/// The cipher of ZIP's traditional encryption (APPNOTE 6.3.10, section 6.1).
class ZipCipher {
public:
    explicit ZipCipher(ByteSpan password);
    std::byte decrypt(std::byte c);
    std::byte encrypt(std::byte p);

private:
    std::uint32_t key0_ = 0x12345678, key1_ = 0x23456789, key2_ = 0x34567890;
    void update(std::byte plain);
    [[nodiscard]] std::byte stream() const;
};

/// PBKDF2 with HMAC-SHA-1 (RFC 8018, RFC 6070 has test vectors); `size` bytes.
[[nodiscard]] Bytes pbkdf2_sha1(ByteSpan password, ByteSpan salt, unsigned rounds, std::size_t size);
/// HMAC-SHA-1 (RFC 2104), 20 bytes.
[[nodiscard]] Bytes hmac_sha1(ByteSpan key, ByteSpan data);
/// Bytes from the system's random source.
[[nodiscard]] Bytes random_salt(std::size_t size);

}  // namespace skivet

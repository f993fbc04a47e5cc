#include "base/cipher.h"

#include <openssl/evp.h>
#include <openssl/hmac.h>
#include <openssl/rand.h>

#include "base/phrase.h"

namespace skivet {
namespace {

const unsigned char* raw(ByteSpan data) { return reinterpret_cast<const unsigned char*>(data.data()); }
unsigned char* raw(Bytes& data) { return reinterpret_cast<unsigned char*>(data.data()); }

const EVP_CIPHER* cipher_for(CipherMode mode, std::size_t key_bytes) {
    switch (mode) {
        case CipherMode::ecb: return key_bytes == 16 ? EVP_aes_128_ecb() : key_bytes == 24 ? EVP_aes_192_ecb() : EVP_aes_256_ecb();
        case CipherMode::cbc: return key_bytes == 16 ? EVP_aes_128_cbc() : key_bytes == 24 ? EVP_aes_192_cbc() : EVP_aes_256_cbc();
        default: return key_bytes == 16 ? EVP_aes_128_ctr() : key_bytes == 24 ? EVP_aes_192_ctr() : EVP_aes_256_ctr();
    }
}

Result<Bytes> aes(CipherMode mode, ByteSpan key, ByteSpan iv, ByteSpan data, bool encrypt) {
    if (key.size() != 16 && key.size() != 24 && key.size() != 32)
        return fail(ErrorCode::key, phrase("an AES key has 16, 24 or 32 bytes, this one has {}", key.size()));
    if (mode != CipherMode::ecb && iv.size() != 16)
        return fail(ErrorCode::usage, phrase("an AES IV has 16 bytes, this one has {}", iv.size()));
    if (mode != CipherMode::ctr && data.size() % 16 != 0)
        return fail(ErrorCode::damaged, phrase("{} bytes are no whole number of AES blocks", grouped(data.size())));
    const std::unique_ptr<EVP_CIPHER_CTX, decltype(&EVP_CIPHER_CTX_free)> engine(EVP_CIPHER_CTX_new(), &EVP_CIPHER_CTX_free);
    if (!engine || EVP_CipherInit_ex(engine.get(), cipher_for(mode, key.size()), nullptr, raw(key), iv.empty() ? nullptr : raw(iv),
                                     encrypt ? 1 : 0) != 1)
        return fail(ErrorCode::io, "the AES engine could not be started");
    EVP_CIPHER_CTX_set_padding(engine.get(), 0);
    Bytes out(data.size());
    for (std::size_t at = 0; at < data.size();) {  // OpenSSL counts in int
        const auto step = static_cast<int>(std::min<std::size_t>(data.size() - at, 1u << 30));
        int got = 0;
        if (EVP_CipherUpdate(engine.get(), raw(out) + at, &got, raw(data) + at, step) != 1 || got != step)
            return fail(ErrorCode::io, "AES failed");
        at += static_cast<std::size_t>(step);
    }
    return out;
}

/// One step of CRC-32 without inversions, as APPNOTE 6.1.5 uses it.
std::uint32_t crc_step(std::uint32_t crc, std::uint8_t byte) {
    static const auto table = [] {
        std::array<std::uint32_t, 256> t{};
        for (std::uint32_t i = 0; i < 256; ++i) {
            auto c = i;
            for (int k = 0; k < 8; ++k) c = c & 1 ? 0xEDB88320u ^ c >> 1 : c >> 1;
            t[i] = c;
        }
        return t;
    }();
    return table[(crc ^ byte) & 0xFF] ^ crc >> 8;
}

}  // namespace

Result<Bytes> aes_decrypt(CipherMode mode, ByteSpan key, ByteSpan iv, ByteSpan data) { return aes(mode, key, iv, data, false); }
Result<Bytes> aes_encrypt(CipherMode mode, ByteSpan key, ByteSpan iv, ByteSpan data) { return aes(mode, key, iv, data, true); }

Bytes xor_with(ByteSpan key, ByteSpan data, std::uint64_t start) {
    Bytes out(data.begin(), data.end());
    if (key.empty()) return out;
    auto k = static_cast<std::size_t>(start % key.size());
    for (auto& b : out) {
        b ^= key[k];
        if (++k == key.size()) k = 0;
    }
    return out;
}

ZipCipher::ZipCipher(ByteSpan password) {
    for (const auto b : password) update(b);
}

void ZipCipher::update(std::byte plain) {
    key0_ = crc_step(key0_, static_cast<std::uint8_t>(plain));
    key1_ = (key1_ + (key0_ & 0xFF)) * 134775813u + 1;
    key2_ = crc_step(key2_, static_cast<std::uint8_t>(key1_ >> 24));
}

std::byte ZipCipher::stream() const {
    const auto t = static_cast<std::uint32_t>((key2_ | 2) & 0xFFFF);
    return static_cast<std::byte>((t * (t ^ 1)) >> 8 & 0xFF);
}

std::byte ZipCipher::decrypt(std::byte c) {
    const auto plain = c ^ stream();
    update(plain);
    return plain;
}

std::byte ZipCipher::encrypt(std::byte p) {
    const auto c = p ^ stream();
    update(p);
    return c;
}

Bytes pbkdf2_sha1(ByteSpan password, ByteSpan salt, unsigned rounds, std::size_t size) {
    Bytes out(size);
    PKCS5_PBKDF2_HMAC_SHA1(reinterpret_cast<const char*>(password.data()), static_cast<int>(password.size()), raw(salt),
                           static_cast<int>(salt.size()), static_cast<int>(rounds), static_cast<int>(size), raw(out));
    return out;
}

Bytes hmac_sha1(ByteSpan key, ByteSpan data) {
    Bytes out(20);
    unsigned size = 20;
    HMAC(EVP_sha1(), key.data(), static_cast<int>(key.size()), raw(data), data.size(), raw(out), &size);
    return out;
}

Bytes random_salt(std::size_t size) {
    Bytes out(size);
    RAND_bytes(raw(out), static_cast<int>(size));
    return out;
}

}  // namespace skivet

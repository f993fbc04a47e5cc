// Ciphers and key derivation against published vectors.
#include <gtest/gtest.h>

#include <sys/stat.h>
#include <string>

#include "base/cipher.h"
#include "base/hash.h"
#include "base/keys.h"
#include "support/temp_folder.h"

using namespace skivet;
using namespace skivet::test;

namespace {

Bytes hex_bytes(std::string_view digits) { return bytes_of_hex(digits).value(); }

}  // namespace

TEST(Aes, Fips197AppendixC) {
    const auto plain = hex_bytes("00112233445566778899aabbccddeeff");
    const std::pair<const char*, const char*> cases[] = {
        {"000102030405060708090a0b0c0d0e0f", "69c4e0d86a7b0430d8cdb78070b4c55a"},
        {"000102030405060708090a0b0c0d0e0f1011121314151617", "dda97ca4864cdfe06eaf70a0ec0d7191"},
        {"000102030405060708090a0b0c0d0e0f101112131415161718191a1b1c1d1e1f", "8ea2b7ca516745bfeafc49904b496089"}};
    for (const auto& [key, cipher] : cases) {
        EXPECT_EQ(to_hex(*aes_encrypt(CipherMode::ecb, hex_bytes(key), {}, plain)), cipher);
        EXPECT_EQ(*aes_decrypt(CipherMode::ecb, hex_bytes(key), {}, hex_bytes(cipher)), plain);
    }
}

TEST(Aes, Sp80038aAppendixF) {
    const auto plain = hex_bytes(
        "6bc1bee22e409f96e93d7e117393172a ae2d8a571e03ac9c9eb76fac45af8e51 30c81c46a35ce411e5fbc1191a0a52ef "
        "f69f2445df4f9b17ad2b417be66c3710");
    const auto key128 = hex_bytes("2b7e151628aed2a6abf7158809cf4f3c");
    const auto key256 = hex_bytes("603deb1015ca71be2b73aef0857d77811f352c073b6108d72d9810a30914dff4");
    const auto iv = hex_bytes("000102030405060708090a0b0c0d0e0f"), counter = hex_bytes("f0f1f2f3f4f5f6f7f8f9fafbfcfdfeff");
    // F.2.1 CBC-AES128.Encrypt
    EXPECT_EQ(
        to_hex(*aes_encrypt(CipherMode::cbc, key128, iv, plain)),
        "7649abac8119b246cee98e9b12e9197d5086cb9b507219ee95db113a917678b273bed6b8e3c1743b7116e69e222295163ff1caa1681fac09120eca307586e1a7");
    // F.5.1 CTR-AES128.Encrypt
    EXPECT_EQ(
        to_hex(*aes_encrypt(CipherMode::ctr, key128, counter, plain)),
        "874d6191b620e3261bef6864990db6ce9806f66b7970fdff8617187bb9fffdff5ae4df3edbd5d35e5b4f09020db03eab1e031dda2fbe03d1792170a0f3009cee");
    // F.5.5 CTR-AES256.Encrypt, first block
    EXPECT_EQ(to_hex(*aes_encrypt(CipherMode::ctr, key256, counter, ByteSpan(plain).first(16))), "601ec313775789a5b7a7f504bbf3d228");
    for (const auto mode : {CipherMode::ecb, CipherMode::cbc, CipherMode::ctr})
        EXPECT_EQ(*aes_decrypt(mode, key256, iv, *aes_encrypt(mode, key256, iv, plain)), plain);
    EXPECT_EQ(aes_decrypt(CipherMode::cbc, key128, iv, ByteSpan(plain).first(17)).error().code, ErrorCode::damaged);
    EXPECT_EQ(aes_decrypt(CipherMode::cbc, ByteSpan(key128).first(15), iv, plain).error().code, ErrorCode::key);
}

TEST(Derivation, Rfc6070AndRfc2202) {
    EXPECT_EQ(to_hex(pbkdf2_sha1(bytes_of("password"), bytes_of("salt"), 2, 20)), "ea6c014dc72d6f8ccd1ed92ace1d41f0d8de8957")
        << "RFC 6070, case 2";
    EXPECT_EQ(to_hex(pbkdf2_sha1(bytes_of("passwordPASSWORDpassword"), bytes_of("saltSALTsaltSALTsaltSALTsaltSALTsalt"), 4096, 25)),
              "3d2eec4fe41c849b80c8d83662c0e44a8b291a964cf2f07038")
        << "RFC 6070, case 5";
    EXPECT_EQ(to_hex(hmac_sha1(bytes_of("Jefe"), bytes_of("what do ya want for nothing?"))), "effcdf6ae5eb2fa2d27416d5f184df9c259a7c79")
        << "RFC 2202, case 2";
}

TEST(Sha256Stream, Fips180InPieces) {
    Sha256Stream stream;  // FIPS 180-4 example: one million times "a"
    const auto piece = bytes_of(std::string(1000, 'a'));
    for (int i = 0; i < 1000; ++i) stream.add(piece);
    EXPECT_EQ(to_hex(stream.finish()), "cdc76e5c9914fb9281a1c7e284d73e67f1809a48a497200e046d39ccc7112cd0");
}

TEST(Xor, IsItsOwnInverseFromAnyStart) {
    const auto data = bytes_of("a striped booth beside the carousel"), key = bytes_of("tin");
    EXPECT_EQ(xor_with(key, xor_with(key, data, 7), 7), data);
    const auto whole = xor_with(key, data);
    EXPECT_EQ(xor_with(key, ByteSpan(data).subspan(5), 5), Bytes(whole.begin() + 5, whole.end()));
}

TEST(KeyRing, ReadsWordsDigitsAndFilesAndKeepsThemPrivate) {
    TempFolder folder;
    EXPECT_EQ(parse_key("lock=00ff 10")->bytes, (Bytes{std::byte{0}, std::byte{0xFF}, std::byte{0x10}}));
    EXPECT_EQ(parse_key("door=text:open sesame")->bytes, bytes_of("open sesame"));
    put_file(folder / "key.txt", bytes_of("0a 0b\n0c\n"));
    put_file(folder / "key.bin", bytes_of("\x01zz"));
    EXPECT_EQ(parse_key("f=@" + (folder / "key.txt").string())->bytes.size(), 3u);
    EXPECT_EQ(parse_key("f=@" + (folder / "key.bin").string())->bytes, bytes_of("\x01zz"));
    for (const char* wrong : {"", "=00", "name", "name=0", "name=xyz", "name=", "name=@/no/such/file"}) {
        const auto key = parse_key(wrong);
        ASSERT_FALSE(key) << wrong;
        EXPECT_EQ(key.error().message().find("xyz"), std::string::npos) << "a value is never in a message";
    }
    KeyRing ring;
    ring.add(*parse_key("lock=00ff"));
    ring.add(*parse_key("lock=00fe"));
    ring.add(*parse_key("door=text:open sesame"));
    ASSERT_EQ(ring.all().size(), 2u);
    const auto file = folder / "keys";
    const auto old_mask = ::umask(0);
    ASSERT_TRUE(save_keys(ring, file));
    ::umask(old_mask);
    struct stat info {};
    ASSERT_EQ(::stat(file.c_str(), &info), 0);
    EXPECT_EQ(info.st_mode & 0777, 0600u);
    const auto back = load_keys(file);
    ASSERT_TRUE(back);
    EXPECT_EQ(back->find("lock")->bytes, (Bytes{std::byte{0}, std::byte{0xFE}}));
    EXPECT_EQ(back->find("door")->bytes, bytes_of("open sesame"));
    EXPECT_TRUE(load_keys(folder / "nothing")->empty());
    put_file(file, bytes_of("lock=00\nwhat is this\n"));
    EXPECT_EQ(load_keys(file).error().message(), "keys ▸ line 2: no key is written here. Each line is NAME=HEX");
}

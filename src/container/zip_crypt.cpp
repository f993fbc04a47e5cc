// Encrypted ZIP entries: the traditional cipher (APPNOTE 6.3.10, section 6.1) and AES with the extra field 0x9901 (APPNOTE 4.6 lists its
// number; the layout is common practice of many programs): salt, two bytes that check the password, AES-CTR counting little-endian from 1,
// and the first ten bytes of an HMAC-SHA-1 of the encrypted bytes. Keys are derived with PBKDF2-HMAC-SHA-1, 1000 rounds.

#include "base/cipher.h"
#include "base/phrase.h"
#include "container/zip.h"
#include "container/zip_format.h"

namespace skivet {

using namespace zip;

namespace {

constexpr std::size_t traditional_header = 12, aes_check = 2, aes_code = 10;

struct AesKeys {
    Bytes cipher, code, check;
};

std::size_t aes_key_bytes(std::uint8_t strength) { return 8u * (strength + 1u); }
std::size_t aes_salt_bytes(std::uint8_t strength) { return 4u * (strength + 1u); }

AesKeys derive(ByteSpan password, ByteSpan salt, std::uint8_t strength) {
    const auto size = aes_key_bytes(strength);
    const auto all = pbkdf2_sha1(password, salt, 1000, 2 * size + aes_check);
    const auto at = [&](std::size_t from, std::size_t count) {
        return Bytes(all.begin() + static_cast<std::ptrdiff_t>(from), all.begin() + static_cast<std::ptrdiff_t>(from + count));
    };
    return {at(0, size), at(size, size), at(2 * size, aes_check)};
}

/// The keystream of counters 1, 2, 3 … written little-endian, over the data. Its own inverse.
Result<Bytes> aes_little_endian_counter(ByteSpan key, ByteSpan data) {
    constexpr std::size_t step = 4096;  // blocks at a time
    Bytes out(data.begin(), data.end());
    Bytes counters(step * 16);
    std::uint64_t counter = 1;
    for (std::size_t at = 0; at < out.size(); at += step * 16) {
        for (std::size_t b = 0; b < step; ++b) store_le(counters.data() + b * 16, counter++);
        SKIVET_TRY(const auto stream, aes_encrypt(CipherMode::ecb, key, {}, counters));
        for (std::size_t i = 0; i < step * 16 && at + i < out.size(); ++i) out[at + i] ^= stream[i];
    }
    return out;
}

}  // namespace

Result<Bytes> ZipContainer::decrypted(ByteSpan data, std::size_t entry, const std::function<Result<Bytes>(ByteSpan)>& use,
                                      std::size_t* key) const {
    const auto& record = records_[entry];
    const auto at = entries_[entry].at;
    if (record.flags & (flag_strong | flag_masked))
        return fail_at(ErrorCode::unsupported, at, "the entry has certificate-based encryption",
                       "Traditional and AES encryption with a password can be read");
    if (record.aes > 3 || (record.aes == 0 && record.method == method_aes))
        return fail_at(ErrorCode::damaged, at, "its AES field does not hold");
    const auto& keys = keys_->all();
    if (keys.empty())
        return fail_at(ErrorCode::key, at, "the entry is encrypted and there is no key", "Add the archive's password to the key ring");
    const auto lead = record.aes ? aes_salt_bytes(record.aes) + aes_check : traditional_header;
    if (data.size() < lead + (record.aes ? aes_code : 0)) return fail_at(ErrorCode::damaged, at, "too short for an encrypted entry");
    std::optional<Error> failed;
    const auto start = last_key_.load(std::memory_order_relaxed);
    for (std::size_t n = 0; n < keys.size(); ++n) {
        const auto k = (start + n) % keys.size();
        Bytes packed;
        if (record.aes) {
            const auto salt = data.first(aes_salt_bytes(record.aes));
            const auto derived = derive(keys[k].bytes, salt, record.aes);
            if (!std::equal(derived.check.begin(), derived.check.end(), data.begin() + static_cast<std::ptrdiff_t>(salt.size()))) continue;
            const auto body = data.subspan(lead, data.size() - lead - aes_code);
            const auto code = hmac_sha1(derived.code, body);
            if (!std::equal(code.begin(), code.begin() + aes_code, data.end() - aes_code)) {
                // The two check bytes let one wrong password in 65,536 through.
                failed = Error{ErrorCode::damaged,
                               "its authentication code does not hold",
                               {},
                               at,
                               "The entry is damaged, or the key is wrong; other entries can still be used"};
                continue;
            }
            SKIVET_TRY(packed, aes_little_endian_counter(derived.cipher, body));
        } else {
            ZipCipher cipher(keys[k].bytes);
            std::byte last{};
            for (std::size_t i = 0; i < traditional_header; ++i) last = cipher.decrypt(data[i]);
            // 6.1.6: the last byte is the CRC's highest, or the time's when the CRC was not known yet.
            const auto check = record.flags & flag_descriptor ? record.time >> 8 : record.crc >> 24;
            if (static_cast<unsigned>(last) != check) continue;
            packed.assign(data.begin() + traditional_header, data.end());
            for (auto& b : packed) b = cipher.decrypt(b);
        }
        auto out = use(packed);
        if (out) {
            last_key_.store(k, std::memory_order_relaxed);
            if (key) *key = k;
            return out;
        }
        failed = std::move(out).error();  // one wrong password in 256 passes the traditional check
    }
    // With a checksum over what was decrypted (AES) the password was right and the data is not.
    if (failed && record.aes) return fail(std::move(*failed));
    const auto none = keys.size() == 1 ? phrase("the key \"{}\" does not open the entry", keys[0].name)
                                       : phrase("none of the {} keys opens the entry", keys.size());
    if (failed)
        return fail_at(failed->code, at, phrase("{}, or it is damaged: {}", none, said(failed->what)),
                       "Add the right password to the key ring");
    return fail_at(ErrorCode::key, at, none, "Add the right password to the key ring");
}

Result<Bytes> ZipContainer::encrypted(ByteSpan packed, std::size_t entry, std::uint32_t crc) const {
    const auto& record = records_[entry];
    SKIVET_TRY(const auto file, file_.bytes());
    SKIVET_TRY(const auto old, stored_bytes(file, entry));
    // The key that opens the old content encrypts the new one.
    std::size_t key = 0;
    if (auto opened = decrypted(
            old, entry, [&](ByteSpan bytes) { return unpack_entry(bytes, entry, ReadLimits{}); }, &key);
        !opened)
        return opened;
    const auto& password = keys_->all()[key].bytes;
    if (!record.aes) {
        ZipCipher cipher(password);
        auto header = random_salt(traditional_header);
        header.back() = static_cast<std::byte>(crc >> 24);
        Bytes out;
        out.reserve(header.size() + packed.size());
        for (const auto b : header) out.push_back(cipher.encrypt(b));
        for (const auto b : packed) out.push_back(cipher.encrypt(b));
        return out;
    }
    // A new salt: the old one would use the same keystream for different content.
    auto out = random_salt(aes_salt_bytes(record.aes));
    const auto derived = derive(password, out, record.aes);
    out.insert(out.end(), derived.check.begin(), derived.check.end());
    SKIVET_TRY(const auto body, aes_little_endian_counter(derived.cipher, packed));
    const auto code = hmac_sha1(derived.code, body);
    out.insert(out.end(), body.begin(), body.end());
    out.insert(out.end(), code.begin(), code.begin() + aes_code);
    return out;
}

}  // namespace skivet

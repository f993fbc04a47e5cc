// How a sheet's data is packed, cut into chunks and encrypted, in the order in which a reader undoes it: decrypt, join chunks, unpack.
#include <algorithm>

#include "base/hash.h"
#include "base/phrase.h"
#include "container/sheet_container.h"
#include "sheet/method.h"

namespace skivet::sheet_data {
namespace {

/// ECB and CBC work on whole blocks; what is left behind the last one stays as it is.
std::size_t whole_blocks(const CryptSpec& spec, std::size_t size) {
    return spec.cipher == CryptSpec::Cipher::aes && spec.mode != CipherMode::ctr ? size / 16 * 16 : size;
}

Bytes swapped(ByteSpan data, std::size_t group) {
    Bytes out(data.begin(), data.end());
    for (std::size_t at = 0; at + group <= out.size(); at += group)
        std::reverse(out.begin() + static_cast<std::ptrdiff_t>(at), out.begin() + static_cast<std::ptrdiff_t>(at + group));
    return out;
}

std::byte reversed_bits(std::byte b) {
    auto v = static_cast<unsigned>(b);
    v = (v & 0xF0) >> 4 | (v & 0x0F) << 4;
    v = (v & 0xCC) >> 2 | (v & 0x33) << 2;
    v = (v & 0xAA) >> 1 | (v & 0x55) << 1;
    return static_cast<std::byte>(v);
}

Result<Bytes> crypt(const CryptSpec& spec, const CipherInput& input, ByteSpan data, bool encrypt) {
    using Cipher = CryptSpec::Cipher;
    switch (spec.cipher) {
        case Cipher::swap_2: return swapped(data, 2);
        case Cipher::swap_4: return swapped(data, 4);
        case Cipher::reverse_bits:
        case Cipher::invert: {
            Bytes out(data.begin(), data.end());
            for (auto& b : out) b = spec.cipher == Cipher::invert ? ~b : reversed_bits(b);
            return out;
        }
        case Cipher::xor_key: return xor_with(input.key, data, spec.from_file ? input.at : 0);
        case Cipher::xor_rolling: {
            // Each byte goes with the key's byte and with the stored byte before it.
            auto out = xor_with(input.key, data);
            for (std::size_t i = 1; i < out.size(); ++i) out[i] ^= encrypt ? out[i - 1] : data[i - 1];
            return out;
        }
        default: break;
    }
    const auto whole = whole_blocks(spec, data.size());
    auto out = encrypt ? aes_encrypt(spec.mode, input.key, input.iv, data.first(whole))
                       : aes_decrypt(spec.mode, input.key, input.iv, data.first(whole));
    if (out) out->insert(out->end(), data.begin() + static_cast<std::ptrdiff_t>(whole), data.end());
    return out;
}

constexpr std::uint64_t high_bit_of(unsigned width) { return 1ull << (8 * width - 1); }

}  // namespace

Result<Bytes> key_for(const CryptSpec& spec, const KeyRing& keys, const RecordValues& header, ByteSpan file) {
    if (!wants_key(spec)) return Bytes{};
    if (!spec.key_field.empty()) {
        const auto* value = header.named(spec.key_field);
        const auto bytes =
            value->field->type == FieldType::bytes ? Result<ByteSpan>(as_bytes(value->text)) : slice(file, value->at, value->size);
        if (!bytes) return fail(bytes.error());
        if (bytes->empty() || (spec.cipher == CryptSpec::Cipher::aes && bytes->size() != spec.key_bytes))
            return fail_at(ErrorCode::damaged, value->at, phrase("the key in field {} has {} bytes", spec.key_field, bytes->size()));
        return Bytes(bytes->begin(), bytes->end());
    }
    const auto* key = keys.find(spec.key);
    if (!key)
        return fail(ErrorCode::key, phrase("is encrypted; the key \"{}\" is not in the key ring", spec.key),
                    "Add it to the key ring under this name");
    if (spec.cipher == CryptSpec::Cipher::aes && key->bytes.size() != spec.key_bytes)
        return fail(ErrorCode::key,
                    phrase("the key \"{}\" has {} bytes, the cipher wants {}", spec.key, key->bytes.size(), spec.key_bytes));
    return key->bytes;
}

Result<Bytes> decrypt(const CryptSpec& spec, const CipherInput& input, ByteSpan data) { return crypt(spec, input, data, false); }
Result<Bytes> encrypt(const CryptSpec& spec, const CipherInput& input, ByteSpan data) { return crypt(spec, input, data, true); }

namespace {

Result<Bytes> restarted(ByteSpan stream, ByteSpan is, ByteSpan becomes, ErrorCode code) {
    if (stream.size() < is.size() || !std::equal(is.begin(), is.end(), stream.begin()))
        return fail(code, phrase("the stream does not begin with {}", to_hex(is)));
    Bytes out(stream.begin(), stream.end());
    std::copy(becomes.begin(), becomes.end(), out.begin());
    return out;
}

}  // namespace

Result<Bytes> with_known_start(const Sheet& sheet, ByteSpan stream) {
    return restarted(stream, sheet.starts_with, sheet.starts_as, ErrorCode::damaged);
}

Result<Bytes> with_own_start(const Sheet& sheet, Bytes stream) {
    if (sheet.starts_as.empty()) return stream;
    return restarted(stream, sheet.starts_as, sheet.starts_with, ErrorCode::unfit);
}

Result<std::uint64_t> chunk_size(const Sheet& sheet, const RecordValues& header) {
    if (!sheet.chunks) return std::uint64_t{0};
    if (sheet.chunks->size_field.empty()) return sheet.chunks->size;
    const auto* value = header.named(sheet.chunks->size_field);
    if (value->number == 0 || value->number > (64u << 20))
        return fail_at(ErrorCode::damaged, value->at, phrase("field {}: chunks of {} bytes", value->field->name, grouped(value->number)));
    return value->number;
}

Result<Bytes> unpack(const Sheet& sheet, ByteOrder order, const Method& method, ByteSpan data, std::optional<std::uint64_t> size,
                     std::uint64_t chunk, const ReadLimits& limits, const PackerPrograms& programs) {
    if (chunk == 0 || !method.packs()) return unpack_by(method, data, size, limits, programs);
    if (!size) return fail(ErrorCode::unsupported, "data in chunks needs its unpacked size");
    if (*size > limits.inflated_bytes) return fail(ErrorCode::limit, phrase("would unpack to {}, more than the limit", human_bytes(*size)));
    const auto width = sheet.chunks->width;
    const auto count = (*size + chunk - 1) / chunk;
    if (count > data.size() / width)
        return fail(ErrorCode::damaged, phrase("{} chunk sizes do not lie in {} bytes", grouped(count), grouped(data.size())));
    Bytes out;
    std::uint64_t at = count * width;
    for (std::uint64_t i = 0; i < count; ++i) {
        auto stored = load_uint(data.data() + i * width, width, order);
        const auto plain = std::min(chunk, *size - i * chunk);
        bool raw = stored == plain;
        if (sheet.chunks->high_bit) raw = stored & high_bit_of(width), stored &= ~high_bit_of(width);
        const auto part = slice(data, at, stored);
        if (!part) return fail(Error(part.error()).within(phrase("chunk {}", i + 1)));
        auto bytes = unpack_by(raw ? Method{} : method, *part, plain, limits, programs);
        if (!bytes) return fail(std::move(bytes).error().within(phrase("chunk {}", i + 1)));
        out.insert(out.end(), bytes->begin(), bytes->end());
        at += stored;
    }
    return out;
}

Result<Bytes> pack(const Sheet& sheet, ByteOrder order, const Method& method, ByteSpan content, std::uint64_t chunk, ByteSpan like,
                   const PackerPrograms& programs) {
    if (chunk == 0 || !method.packs()) return pack_by(method, content, sheet.level, like, programs);
    const auto width = sheet.chunks->width;
    const auto count = (content.size() + chunk - 1) / chunk;
    Bytes out(static_cast<std::size_t>(count) * width);
    for (std::size_t i = 0; i < count; ++i) {
        const auto from = static_cast<std::size_t>(i * chunk);
        const auto part = content.subspan(from, static_cast<std::size_t>(std::min<std::uint64_t>(chunk, content.size() - from)));
        SKIVET_TRY(auto packed, pack_by(method, part, sheet.level, {}, programs));
        const bool raw = packed.size() >= part.size();  // never larger than the content
        if (raw) packed.assign(part.begin(), part.end());
        const auto size = static_cast<std::uint64_t>(packed.size()) | (raw && sheet.chunks->high_bit ? high_bit_of(width) : 0);
        if (width < 8 && size >> (8 * width) != 0)
            return fail(ErrorCode::unfit, phrase("a chunk of {} bytes does not fit its size field", packed.size()));
        store_uint(out.data() + i * width, size, width, order);
        out.insert(out.end(), packed.begin(), packed.end());
    }
    return out;
}

}  // namespace skivet::sheet_data

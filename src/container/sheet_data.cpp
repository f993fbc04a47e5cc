// How a sheet's data is packed, cut into chunks and encrypted, in the order in which a reader undoes it: decrypt, join chunks, unpack.
#include <fmt/format.h>

#include "container/sheet_container.h"

namespace skivet::sheet_data {
namespace {

Result<const Key*> key_for(const CryptSpec& spec, const KeyRing& keys) {
    const auto* key = keys.find(spec.key);
    if (!key)
        return fail(ErrorCode::key, fmt::format("is encrypted; the key \"{}\" is not in the key ring", spec.key),
                    "Add it to the key ring under this name");
    if (spec.cipher == CryptSpec::Cipher::aes && key->bytes.size() != spec.key_bytes)
        return fail(ErrorCode::key,
                    fmt::format("the key \"{}\" has {} bytes, the cipher wants {}", spec.key, key->bytes.size(), spec.key_bytes));
    return key;
}

/// ECB and CBC work on whole blocks; what is left behind the last one stays as it is.
std::size_t whole_blocks(const CryptSpec& spec, std::size_t size) {
    return spec.cipher == CryptSpec::Cipher::aes && spec.mode != CipherMode::ctr ? size / 16 * 16 : size;
}

Result<Bytes> crypt(const CryptSpec& spec, const KeyRing& keys, ByteSpan iv, ByteSpan data, bool encrypt) {
    SKIVET_TRY(const auto* key, key_for(spec, keys));
    if (spec.cipher == CryptSpec::Cipher::xor_key) return xor_with(key->bytes, data);
    if (spec.cipher == CryptSpec::Cipher::xor_rolling) {
        // Each byte goes with the key's byte and with the stored byte before it.
        auto out = xor_with(key->bytes, data);
        for (std::size_t i = 1; i < out.size(); ++i) out[i] ^= encrypt ? out[i - 1] : data[i - 1];
        return out;
    }
    const auto whole = whole_blocks(spec, data.size());
    auto out =
        encrypt ? aes_encrypt(spec.mode, key->bytes, iv, data.first(whole)) : aes_decrypt(spec.mode, key->bytes, iv, data.first(whole));
    if (out) out->insert(out->end(), data.begin() + static_cast<std::ptrdiff_t>(whole), data.end());
    return out;
}

constexpr std::uint64_t high_bit_of(unsigned width) { return 1ull << (8 * width - 1); }

}  // namespace

Result<Bytes> decrypt(const CryptSpec& spec, const KeyRing& keys, ByteSpan iv, ByteSpan data) { return crypt(spec, keys, iv, data, false); }
Result<Bytes> encrypt(const CryptSpec& spec, const KeyRing& keys, ByteSpan iv, ByteSpan data) { return crypt(spec, keys, iv, data, true); }

Result<std::uint64_t> chunk_size(const Sheet& sheet, const RecordValues& header) {
    if (!sheet.chunks) return std::uint64_t{0};
    if (sheet.chunks->size_field.empty()) return sheet.chunks->size;
    const auto* value = header.named(sheet.chunks->size_field);
    if (value->number == 0 || value->number > (64u << 20))
        return fail_at(ErrorCode::damaged, value->at,
                       fmt::format("field {}: chunks of {} bytes", value->field->name, grouped(value->number)));
    return value->number;
}

Result<Bytes> unpack(const Sheet& sheet, ByteOrder order, Packing packing, ByteSpan data, std::optional<std::uint64_t> size,
                     std::uint64_t chunk, const ReadLimits& limits) {
    if (chunk == 0 || packing == Packing::none) return skivet::unpack(packing, data, size, limits);
    if (!size) return fail(ErrorCode::unsupported, "data in chunks needs its unpacked size");
    if (*size > limits.inflated_bytes)
        return fail(ErrorCode::limit, fmt::format("would unpack to {}, more than the limit", human_bytes(*size)));
    const auto width = sheet.chunks->width;
    const auto count = (*size + chunk - 1) / chunk;
    if (count > data.size() / width)
        return fail(ErrorCode::damaged, fmt::format("{} chunk sizes do not lie in {} bytes", grouped(count), grouped(data.size())));
    Bytes out;
    std::uint64_t at = count * width;
    for (std::uint64_t i = 0; i < count; ++i) {
        auto stored = load_uint(data.data() + i * width, width, order);
        const auto plain = std::min(chunk, *size - i * chunk);
        bool raw = stored == plain;
        if (sheet.chunks->high_bit) raw = stored & high_bit_of(width), stored &= ~high_bit_of(width);
        const auto part = slice(data, at, stored);
        if (!part) return fail(Error(part.error()).within(fmt::format("chunk {}", i + 1)));
        auto bytes = skivet::unpack(raw ? Packing::none : packing, *part, plain, limits);
        if (!bytes) return fail(std::move(bytes).error().within(fmt::format("chunk {}", i + 1)));
        out.insert(out.end(), bytes->begin(), bytes->end());
        at += stored;
    }
    return out;
}

Result<Bytes> pack(const Sheet& sheet, ByteOrder order, Packing packing, ByteSpan content, std::uint64_t chunk, ByteSpan like) {
    if (chunk == 0 || packing == Packing::none) return skivet::pack(packing, content, sheet.level, like);
    const auto width = sheet.chunks->width;
    const auto count = (content.size() + chunk - 1) / chunk;
    Bytes out(static_cast<std::size_t>(count) * width);
    for (std::size_t i = 0; i < count; ++i) {
        const auto from = static_cast<std::size_t>(i * chunk);
        const auto part = content.subspan(from, static_cast<std::size_t>(std::min<std::uint64_t>(chunk, content.size() - from)));
        SKIVET_TRY(auto packed, skivet::pack(packing, part, sheet.level));
        const bool raw = packed.size() >= part.size();  // never larger than the content
        if (raw) packed.assign(part.begin(), part.end());
        const auto size = static_cast<std::uint64_t>(packed.size()) | (raw && sheet.chunks->high_bit ? high_bit_of(width) : 0);
        if (width < 8 && size >> (8 * width) != 0)
            return fail(ErrorCode::unfit, fmt::format("a chunk of {} bytes does not fit its size field", packed.size()));
        store_uint(out.data() + i * width, size, width, order);
        out.insert(out.end(), packed.begin(), packed.end());
    }
    return out;
}

}  // namespace skivet::sheet_data

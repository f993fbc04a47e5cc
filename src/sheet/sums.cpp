#include "sheet/sums.h"

#include <libdeflate.h>
#include <openssl/sha.h>
#include <xxhash.h>

#include "base/hash.h"

namespace skivet {
namespace {

struct SumName {
    SumKind kind;
    std::string_view name;
    std::size_t bytes;
};
constexpr SumName sums[] = {{SumKind::crc32, "crc32", 4},     {SumKind::adler32, "adler32", 4}, {SumKind::fnv1a32, "fnv1a32", 4},
                            {SumKind::fnv1a64, "fnv1a64", 8}, {SumKind::xxh32, "xxh32", 4},     {SumKind::xxh64, "xxh64", 8},
                            {SumKind::sha1, "sha1", 20},      {SumKind::sha256, "sha256", 32},  {SumKind::sum, "sum", 0}};
constexpr std::pair<HashKind, std::string_view> hashes[] = {{HashKind::crc32, "crc32"},     {HashKind::fnv1a32, "fnv1a32"},
                                                            {HashKind::fnv1a64, "fnv1a64"}, {HashKind::xxh32, "xxh32"},
                                                            {HashKind::xxh64, "xxh64"},     {HashKind::multiply_add, "multiply add"}};

std::uint64_t fnv1a(ByteSpan data, std::uint64_t basis, std::uint64_t prime, std::uint64_t mask) {
    auto h = basis;
    for (const auto b : data) h = ((h ^ static_cast<std::uint64_t>(b)) * prime) & mask;
    return h;
}
std::uint64_t fnv1a32(ByteSpan data) { return fnv1a(data, 0x811C9DC5u, 0x01000193u, 0xFFFFFFFFu); }
std::uint64_t fnv1a64(ByteSpan data) { return fnv1a(data, 0xCBF29CE484222325u, 0x100000001B3u, ~0ull); }

}  // namespace

std::optional<SumKind> sum_named(std::string_view name) {
    for (const auto& s : sums)
        if (s.name == name) return s.kind;
    return std::nullopt;
}

std::size_t sum_bytes(SumKind kind) { return sums[static_cast<std::size_t>(kind)].bytes; }

std::uint64_t sum_number(SumKind kind, ByteSpan data) {
    switch (kind) {
        case SumKind::crc32: return crc32(data);
        case SumKind::adler32: return libdeflate_adler32(1, data.data(), data.size());
        case SumKind::fnv1a32: return fnv1a32(data);
        case SumKind::fnv1a64: return fnv1a64(data);
        case SumKind::xxh32: return XXH32(data.data(), data.size(), 0);
        case SumKind::xxh64: return XXH64(data.data(), data.size(), 0);
        case SumKind::sum: {
            std::uint64_t total = 0;
            for (const auto b : data) total += static_cast<std::uint64_t>(b);
            return total;
        }
        default: return 0;
    }
}

Bytes sum_digest(SumKind kind, ByteSpan data) {
    const auto* from = reinterpret_cast<const unsigned char*>(data.data());
    Bytes out(sum_bytes(kind));
    auto* to = reinterpret_cast<unsigned char*>(out.data());
    if (kind == SumKind::sha1) SHA1(from, data.size(), to);
    if (kind == SumKind::sha256) SHA256(from, data.size(), to);
    return out;
}

std::optional<HashKind> hash_named(std::string_view name) {
    for (const auto& [kind, n] : hashes)
        if (n == name) return kind;
    return std::nullopt;
}

std::uint64_t hash_number(HashKind kind, std::uint64_t seed, std::uint64_t multiplier, std::string_view text) {
    const auto data = as_bytes(text);
    switch (kind) {
        case HashKind::crc32: return crc32(data);
        case HashKind::fnv1a32: return fnv1a32(data);
        case HashKind::fnv1a64: return fnv1a64(data);
        case HashKind::xxh32: return XXH32(data.data(), data.size(), static_cast<XXH32_hash_t>(seed));
        case HashKind::xxh64: return XXH64(data.data(), data.size(), seed);
        case HashKind::multiply_add: {
            auto h = seed;
            for (const auto b : data) h = h * multiplier + static_cast<std::uint64_t>(b);
            return h;
        }
    }
    return 0;
}

}  // namespace skivet

#include "container/sift_streams.h"

#include <array>
#include <cstring>

namespace skivet {
namespace {

constexpr std::uint64_t least_unpacked = 512;

/// The bits of a deflate block from its first byte on (RFC 1951, section 3.1.1).
class Bits {
public:
    explicit Bits(ByteSpan data) : data_(data) {}
    [[nodiscard]] unsigned take(unsigned count) {
        while (have_ < count) {
            bits_ |= static_cast<std::uint64_t>(at_ < data_.size() ? static_cast<unsigned>(data_[at_]) : 0u) << have_;
            ++at_;
            have_ += 8;
        }
        const auto out = static_cast<unsigned>(bits_ & ((1u << count) - 1));
        bits_ >>= count;
        have_ -= count;
        return out;
    }
    [[nodiscard]] bool beyond() const { return at_ > data_.size(); }

private:
    ByteSpan data_;
    std::size_t at_ = 0;
    std::uint64_t bits_ = 0;
    unsigned have_ = 0;
};

/// Lengths of codes leave no code unused (the Kraft sum is one).
template <std::size_t n>
bool complete(const std::array<std::uint8_t, n>& lengths, std::size_t from, std::size_t count, unsigned longest) {
    std::uint64_t sum = 0;
    for (std::size_t i = from; i < from + count; ++i)
        if (lengths[i]) sum += 1ull << (longest - lengths[i]);
    return sum == 1ull << longest;
}

/// Sums of 2^(7 - length) over four lengths of three bits each.
constexpr auto kraft_of_four = [] {
    std::array<std::uint16_t, 4096> out{};
    for (unsigned i = 0; i < 4096; ++i)
        for (unsigned k = 0; k < 4; ++k)
            if (const auto length = i >> 3 * k & 7) out[i] = static_cast<std::uint16_t>(out[i] + (128u >> length));
    return out;
}();

/// The quickest of the conditions below: counts in range, and the codes for the codes complete. One position in about 800 of random bytes
/// passes. Sixteen bytes must be there.
inline bool deflate_may_begin(const std::byte* p) {
    const auto head = load_le<std::uint32_t>(p);
    if ((head & 6) != 4 || (head >> 3 & 31) > 29 || (head >> 8 & 31) > 29) return false;
    const auto codes = (head >> 13 & 15) + 4;
    const auto lengths = load_le<std::uint64_t>(p + 2) >> 1 & ((1ull << 3 * codes) - 1);
    const auto& sums = kraft_of_four;
    return sums[lengths & 4095] + sums[lengths >> 12 & 4095] + sums[lengths >> 24 & 4095] + sums[lengths >> 36 & 4095] +
               sums[lengths >> 48] ==
           128;
}

/// Whether a block with codes of its own begins here (RFC 1951, section 3.2.7): the codes for the codes, for lengths and literals and for
/// distances are complete, and the end of the block has one.
bool deflate_begins(ByteSpan data) {
    Bits bits(data);
    static_cast<void>(bits.take(1));
    if (bits.take(2) != 2) return false;
    const auto literals = bits.take(5) + 257, distances = bits.take(5) + 1, codes = bits.take(4) + 4;
    if (literals > 286 || distances > 30) return false;
    constexpr std::array<std::uint8_t, 19> order = {16, 17, 18, 0, 8, 7, 9, 6, 10, 5, 11, 4, 12, 3, 13, 2, 14, 1, 15};
    std::array<std::uint8_t, 19> code_lengths{};
    for (unsigned i = 0; i < codes; ++i) code_lengths[order[i]] = static_cast<std::uint8_t>(bits.take(3));
    if (!complete(code_lengths, 0, 19, 7)) return false;
    // Codes of a length follow each other (section 3.2.2).
    std::array<unsigned, 8> count{}, first{};
    for (const auto l : code_lengths) ++count[l];
    count[0] = 0;
    for (unsigned l = 1; l < 8; ++l) first[l] = (first[l - 1] + count[l - 1]) << 1;
    std::array<std::uint8_t, 320> lengths{};
    for (unsigned i = 0; i < literals + distances;) {
        unsigned code = 0, symbol = 19;
        for (unsigned l = 1; l < 8 && symbol == 19; ++l) {
            code = code << 1 | bits.take(1);
            if (code < first[l] || code - first[l] >= count[l]) continue;
            unsigned nth = code - first[l];
            for (unsigned s = 0; s < 19; ++s)
                if (code_lengths[s] == l && nth-- == 0) {
                    symbol = s;
                    break;
                }
        }
        if (symbol == 19 || bits.beyond()) return false;
        unsigned repeat = 1;
        std::uint8_t value = static_cast<std::uint8_t>(symbol);
        if (symbol == 16) {
            if (i == 0) return false;
            value = lengths[i - 1];
            repeat = 3 + bits.take(2);
        } else if (symbol >= 17) {
            value = 0;
            repeat = symbol == 17 ? 3 + bits.take(3) : 11 + bits.take(7);
        }
        if (i + repeat > literals + distances) return false;
        while (repeat-- > 0) lengths[i++] = value;
    }
    if (lengths[256] == 0 || !complete(lengths, 0, literals, 15)) return false;
    std::size_t used = 0;
    for (unsigned i = 0; i < distances; ++i) used += lengths[literals + i] > 0;
    return used <= 1 || complete(lengths, literals, distances, 15);
}

/// Bytes a whole LZ4 block (LZ4 block format 1.6) unpacks to; 0 when it is none. Its last five bytes are literals. `at`: how far it was
/// read.
std::uint64_t lz4_unpacked(ByteSpan block, std::size_t& at) {
    std::uint64_t out = 0;
    const auto more = [&](std::uint64_t length) -> std::optional<std::uint64_t> {
        if (length != 15) return length;
        for (unsigned byte = 255; byte == 255;) {
            if (at >= block.size()) return std::nullopt;
            byte = static_cast<unsigned>(block[at++]);
            length += byte;
        }
        return length;
    };
    while (at < block.size()) {
        const auto token = static_cast<unsigned>(block[at++]);
        const auto literals = more(token >> 4);
        if (!literals || *literals > block.size() - at) return 0;
        at += static_cast<std::size_t>(*literals);
        out += *literals;
        if (at == block.size()) return *literals >= 5 && (token & 15) == 0 ? out : 0;
        if (block.size() - at < 2) return 0;
        const auto back = load_le<std::uint16_t>(block.data() + at);
        at += 2;
        if (back == 0 || back > out) return 0;
        const auto match = more(token & 15);
        if (!match) return 0;
        out += *match + 4;
    }
    return 0;
}

}  // namespace

std::optional<BareStream> bare_stream_at(ByteSpan data, std::size_t at, std::uint64_t most, std::uint64_t& wasted) {
    const auto rest = data.subspan(at);
    if (rest.size() < 32) return std::nullopt;
    if (deflate_may_begin(rest.data()) && deflate_begins(rest.first(std::min<std::size_t>(rest.size(), 512)))) {
        // A little first, so that a stream that is cut off, or none, costs no more than what of it is there.
        bool whole = true;
        for (const std::size_t size : {64u << 10, 1u << 20, 16u << 20}) {
            const auto some = unpack_prefix(Packing::deflate, rest, size);
            if (!some) wasted += size;
            if (!some || some->size() < size) {
                whole = some.has_value();
                break;
            }
        }
        if (whole) {
            const auto stream = unpack_stream(Packing::deflate, rest, most);
            if (stream && stream->bytes.size() >= least_unpacked && stream->packed_size >= 64)
                return BareStream{Packing::deflate, stream->packed_size, stream->bytes.size(), 0.9};
            wasted += stream ? stream->bytes.size() : std::min<std::uint64_t>(most, rest.size() * 4);
        }
    }
    if (at < 4) return std::nullopt;
    const auto little = load_le<std::uint32_t>(data.data() + at - 4);
    const auto big = __builtin_bswap32(little);
    for (const std::uint64_t size : {little, big}) {
        if (size < 64 || size > rest.size()) continue;
        const auto block = rest.first(static_cast<std::size_t>(size));
        std::size_t read = 0;
        const auto unpacked = lz4_unpacked(block, read);
        if (unpacked < least_unpacked || unpacked < size || unpacked > most) {
            wasted += read;
            continue;
        }
        // With its unpacked size before it it is no chance.
        bool stated = false;
        for (std::size_t back = 8; back <= 16 && back <= at; back += 4) {
            const auto before = load_le<std::uint32_t>(data.data() + at - back);
            stated = stated || before == unpacked || __builtin_bswap32(before) == unpacked;
        }
        return BareStream{Packing::lz4_block, size, unpacked, stated ? 0.97 : 0.85};
    }
    return std::nullopt;
}

namespace {

/// How long the key is that makes `beginning` out of `here`; 0: none does. The bytes beyond the key repeat it; one and two bytes are four,
/// too.
unsigned key_length(std::uint64_t key) {
    if (static_cast<std::uint32_t>(key) == key >> 32) {
        if (key == 0) return 0;
        if ((key >> 16 & 0xFFFF) != (key & 0xFFFF)) return 4;
        return (key >> 8 & 0xFF) == (key & 0xFF) ? 1 : 2;
    }
    if (((key ^ key >> 24) & 0xFF'FFFF'FFFF) == 0) return 3;
    return ((key ^ key >> 40) & 0xFF'FFFF) == 0 ? 5 : 0;
}

}  // namespace

std::uint64_t next_without_mark(ByteSpan data, std::uint64_t from, std::uint64_t to, std::span<const std::array<std::byte, 8>> beginnings) {
    // A byte and the one four (three, five) further on differ as they do in the beginning, whatever the key is.
    std::array<std::uint8_t, 256> wanted{};
    for (const auto& beginning : beginnings) {
        const auto mark = load_le<std::uint64_t>(beginning.data());
        wanted[(mark ^ mark >> 32) & 0xFF] |= 1;
        wanted[(mark ^ mark >> 24) & 0xFF] |= 2;
        wanted[(mark ^ mark >> 40) & 0xFF] |= 4;
    }
    for (auto at = from; at < to; ++at) {
        const auto* p = data.data() + at;
        const auto here = load_le<std::uint64_t>(p);
        if ((wanted[(here ^ here >> 32) & 0xFF] & 1) | (wanted[(here ^ here >> 24) & 0xFF] & 2) | (wanted[(here ^ here >> 40) & 0xFF] & 4))
            for (const auto& beginning : beginnings)
                if (key_length(here ^ load_le<std::uint64_t>(beginning.data()))) return at;
        if (deflate_may_begin(p)) return at;
        if (at >= 4) {
            const auto size = load_le<std::uint32_t>(p - 4);
            const auto rest = data.size() - at;
            // A packed size that fits, and a first token whose distance reaches back no further than the literals before it.
            const std::uint64_t big = __builtin_bswap32(size);
            if ((size >= 64 && size <= rest) || (big >= 64 && big <= rest)) {
                const auto literals = here >> 4 & 15;
                const auto back = literals < 6 ? here >> 8 * (1 + literals) & 0xFFFF : 1;
                if (back > 0 && (literals >= 6 || back <= literals)) return at;
            }
        }
        // A TGA header: a color map or none, one of six types.
        if ((here >> 8 & 0xFF) <= 1 && (here >> 16 & 0xFF) - 1 <= 10 && (here >> 16 & 4) == 0 && (here >> 16 & 3) != 0) return at;
    }
    return to;
}

Bytes hiding_key(ByteSpan eight_bytes, std::span<const std::array<std::byte, 8>> beginnings) {
    const auto here = load_le<std::uint64_t>(eight_bytes.data());
    for (const auto& beginning : beginnings) {
        const auto key = here ^ load_le<std::uint64_t>(beginning.data());
        const auto length = key_length(key);
        if (length == 0) continue;
        Bytes out;
        for (unsigned i = 0; i < length; ++i) out.push_back(static_cast<std::byte>(key >> 8 * i));
        return out;
    }
    return {};
}

}  // namespace skivet

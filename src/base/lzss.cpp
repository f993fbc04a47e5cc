#include "base/lzss.h"

#include <algorithm>
#include <bit>

#include "base/phrase.h"

namespace skivet {
namespace {

unsigned bits_of(const std::vector<LzssSpec::Bits>& parts) {
    unsigned sum = 0;
    for (const auto& part : parts) sum += part.count;
    return sum;
}

std::uint32_t gather(const std::vector<LzssSpec::Bits>& parts, std::uint32_t pair) {
    std::uint32_t out = 0;
    unsigned at = 0;
    for (const auto& part : parts) {
        out |= (pair >> part.at & ((1u << part.count) - 1)) << at;
        at += part.count;
    }
    return out;
}

std::uint32_t scatter(const std::vector<LzssSpec::Bits>& parts, std::uint32_t value) {
    std::uint32_t out = 0;
    for (const auto& part : parts) {
        out |= (value & ((1u << part.count) - 1)) << part.at;
        value >>= part.count;
    }
    return out;
}

}  // namespace

std::uint32_t LzssSpec::longest() const { return shortest + (1u << bits_of(length)) - 1; }

std::string wrong_in(const LzssSpec& spec) {
    if (!std::has_single_bit(spec.window) || spec.window < 16 || spec.window > 1u << 20)
        return said("window is a power of two, 16 to 1048576");
    if (spec.pair_bytes == 0 || spec.pair_bytes > 4) return said("a pair has 1 to 4 bytes");
    std::uint32_t used = 0;
    for (const auto* parts : {&spec.place, &spec.length})
        for (const auto& part : *parts) {
            if (part.count == 0 || part.count > 24 || part.at + part.count > 8 * spec.pair_bytes)
                return phrase("bits {} to {} of a pair of {} bytes", part.at, part.at + part.count - 1, spec.pair_bytes);
            const auto mask = ((1u << part.count) - 1) << part.at;
            if (used & mask) return said("bits of a pair are used twice");
            used |= mask;
        }
    if (bits_of(spec.length) == 0 || bits_of(spec.length) > 16) return said("length has 1 to 16 bits");
    if (1u << std::min(31u, bits_of(spec.place)) != spec.window)
        return phrase("place has {} bits, a window of {} needs {}", bits_of(spec.place), spec.window, std::countr_zero(spec.window));
    if (spec.shortest == 0 || spec.shortest > 255) return said("shortest is 1 to 255");
    if (spec.start >= spec.window) return said("start lies in the window");
    return {};
}

Result<Bytes> unpack_lzss(const LzssSpec& spec, ByteSpan packed, std::optional<std::uint64_t> expected, std::uint64_t most) {
    // A pair gives at most `longest` bytes.
    const auto widest = packed.size() / spec.pair_bytes * spec.longest() + packed.size() + 1;
    if (expected && (*expected > most || *expected > widest))
        return fail(ErrorCode::limit, phrase("claims {} bytes from {} packed, more than they can give or the limit", grouped(*expected),
                                             grouped(packed.size())));
    Bytes out;
    if (expected) out.reserve(static_cast<std::size_t>(*expected));
    std::vector<std::byte> window(spec.window, spec.fill);
    const auto mask = spec.window - 1;
    auto at = spec.start;
    const auto put = [&](std::byte b) {
        out.push_back(b);
        window[at] = b;
        at = (at + 1) & mask;
    };
    const auto done = [&] { return expected && out.size() >= *expected; };
    std::size_t in = 0;
    unsigned flags = 0, left = 0;
    while (!done()) {
        if (left == 0) {
            if (in >= packed.size()) break;
            flags = static_cast<unsigned>(packed[in++]);
            left = 8;
        }
        const bool bit = spec.lowest_first ? flags & 1 : flags & 0x80;
        flags = spec.lowest_first ? flags >> 1 : flags << 1;
        --left;
        if (bit == spec.literal) {
            if (in >= packed.size()) break;
            put(packed[in++]);
        } else {
            if (packed.size() - in < spec.pair_bytes) {
                in = packed.size();
                break;
            }
            const auto pair =
                static_cast<std::uint32_t>(load_uint(packed.data() + in, spec.pair_bytes, spec.big ? ByteOrder::big : ByteOrder::little));
            in += spec.pair_bytes;
            const auto place = gather(spec.place, pair);
            auto from = spec.back ? at - place : place;
            const auto count = gather(spec.length, pair) + spec.shortest;
            for (std::uint32_t i = 0; i < count && !done(); ++i) put(window[from++ & mask]);
        }
        if (out.size() > most) return fail(ErrorCode::limit, phrase("unpacks to more than the limit of {}", human_bytes(most)));
    }
    if (expected && out.size() != *expected)
        return fail_at(ErrorCode::damaged, in, phrase("unpacks to {} bytes, should be {}", grouped(out.size()), grouped(*expected)));
    return out;
}

Bytes pack_lzss(const LzssSpec& spec, ByteSpan data) {
    Bytes out;
    const auto mask = spec.window - 1;
    // What lies so far back that the match itself would write over it is left alone.
    const auto longest = std::min<std::size_t>(spec.longest(), spec.window / 2);
    const auto farthest = spec.window - longest;
    constexpr std::size_t none = ~std::size_t{0}, tries = 64;
    std::vector<std::size_t> head(1 << 14, none), before(spec.window, none);
    const auto hash = [&](std::size_t i) {
        return (static_cast<std::size_t>(data[i]) * 2654435761u ^ static_cast<std::size_t>(data[i + 1]) * 40503u) & (head.size() - 1);
    };
    const auto enter = [&](std::size_t i) {
        if (i + 1 >= data.size()) return;
        auto& first = head[hash(i)];
        before[i & mask] = first;
        first = i;
    };
    std::size_t flag_at = 0;
    unsigned count = 8;
    const auto flag = [&](bool literal) {
        if (count == 8) {
            flag_at = out.size();
            out.push_back(std::byte{0});
            count = 0;
        }
        if (literal == spec.literal) out[flag_at] |= static_cast<std::byte>(1u << (spec.lowest_first ? count : 7 - count));
        ++count;
    };
    for (std::size_t i = 0; i < data.size();) {
        std::size_t best = 0, best_at = 0;
        if (i + 1 < data.size()) {
            auto candidate = head[hash(i)];
            for (std::size_t t = 0; t < tries && candidate != none && i - candidate <= farthest; ++t) {
                std::size_t n = 0;
                while (n < longest && i + n < data.size() && data[candidate + n] == data[i + n]) ++n;
                if (n > best) best = n, best_at = candidate;
                const auto next = before[candidate & mask];
                if (next == none || next >= candidate) break;
                candidate = next;
            }
        }
        // A pair that is no longer than what it stands for does not pay.
        if (best >= spec.shortest && best > spec.pair_bytes) {
            flag(false);
            const auto place =
                spec.back ? static_cast<std::uint32_t>(i - best_at) & mask : static_cast<std::uint32_t>((spec.start + best_at) & mask);
            const auto pair = scatter(spec.place, place) | scatter(spec.length, static_cast<std::uint32_t>(best) - spec.shortest);
            const auto at = out.size();
            out.resize(at + spec.pair_bytes);
            store_uint(out.data() + at, pair, spec.pair_bytes, spec.big ? ByteOrder::big : ByteOrder::little);
            for (std::size_t k = 0; k < best; ++k) enter(i + k);
            i += best;
        } else {
            flag(true);
            out.push_back(data[i]);
            enter(i++);
        }
    }
    return out;
}

}  // namespace skivet

// BC6H: half floats without alpha, interpolated as integers. Khronos Data Format Specification 1.3, section 20.2.
#include "codec/bc6h_encode.h"
#include "codec/bc6h_tables.h"
#include "codec/bc7_tables.h"
#include "codec/blocks.h"
#include "pixel/half.h"

namespace skivet {
namespace bc6h {
namespace {

std::vector<BitPlace> parse(std::string_view fields) {
    std::vector<BitPlace> out;
    constexpr std::string_view ends = "wxyz", channels = "rgb";
    for (std::size_t at = 0; at < fields.size();) {
        const auto channel = static_cast<std::uint8_t>(channels.find(fields[at])),
                   endpoint = static_cast<std::uint8_t>(ends.find(fields[at + 1]));
        at += 2;
        const auto number = [&] {
            int value = 0;
            for (; at < fields.size() && fields[at] >= '0' && fields[at] <= '9'; ++at) value = value * 10 + (fields[at] - '0');
            return value;
        };
        const int first = number();
        int last = first;
        if (at < fields.size() && fields[at] == '-') ++at, last = number();
        for (int bit = first;; bit += first <= last ? 1 : -1) {
            out.push_back({endpoint, channel, static_cast<std::uint8_t>(bit)});
            if (bit == last) break;
        }
        ++at;
    }
    return out;
}

}  // namespace

const std::vector<BitPlace>& places(std::size_t mode) {
    static const auto all = [] {
        std::array<std::vector<BitPlace>, modes.size()> table;
        for (std::size_t i = 0; i < modes.size(); ++i) table[i] = parse(modes[i].fields);
        return table;
    }();
    return all[mode];
}

int mode_of(unsigned low_bits) {
    for (std::size_t i = 0; i < modes.size(); ++i)
        if ((low_bits & ((1u << modes[i].code_bits) - 1)) == modes[i].code) return static_cast<int>(i);
    return -1;
}

int unquantize(int value, unsigned bits, bool is_signed) {
    if (!is_signed) {
        if (bits >= 15 || value == 0) return value;
        return value == (1 << bits) - 1 ? 0xFFFF : ((value << 15) + 0x4000) >> (bits - 1);
    }
    if (bits >= 16) return value;
    const int size = std::abs(value);
    const int out = size == 0 ? 0 : size >= (1 << (bits - 1)) - 1 ? 0x7FFF : ((size << 15) + 0x4000) >> (bits - 1);
    return value < 0 ? -out : out;
}

std::uint16_t finish(int value, bool is_signed) {
    if (!is_signed) return static_cast<std::uint16_t>(value * 31 >> 6);
    return static_cast<std::uint16_t>(value < 0 ? 0x8000 | (-value * 31 >> 5) : value * 31 >> 5);
}

}  // namespace bc6h

namespace {

int sign_extend(int value, unsigned bits) {
    const int sign = 1 << (bits - 1);
    return ((value & ((sign << 1) - 1)) ^ sign) - sign;
}

template <bool is_signed>
void decode_bc6h(const std::byte* bytes, TexelF* out, std::size_t pitch) {
    const auto low = load_le<std::uint64_t>(bytes);
    const int number = bc6h::mode_of(static_cast<unsigned>(low & 31));
    if (number < 0) return fill_block(out, pitch, TexelF{0, 0, 0, 1});  // reserved: black, by the specification
    const auto& mode = bc6h::modes[static_cast<std::size_t>(number)];
    BitReader bits(low, load_le<std::uint64_t>(bytes + 8));
    (void)bits.take(mode.code_bits);
    std::array<std::array<int, 3>, 4> end{};
    for (const auto& place : bc6h::places(static_cast<std::size_t>(number)))
        end[place.endpoint][place.channel] |= static_cast<int>(bits.take(1)) << place.bit;
    const auto partition = mode.two_regions ? bits.take(5) : 0;
    const std::size_t ends = mode.two_regions ? 4 : 2;
    for (std::size_t c = 0; c < 3; ++c) {
        if (is_signed) end[0][c] = sign_extend(end[0][c], mode.endpoint_bits);
        for (std::size_t e = 1; e < ends; ++e) {
            if (mode.deltas) {
                end[e][c] = (end[0][c] + sign_extend(end[e][c], mode.delta_bits[c])) & ((1 << mode.endpoint_bits) - 1);
            }
            if (is_signed) end[e][c] = sign_extend(end[e][c], mode.endpoint_bits);
        }
        for (std::size_t e = 0; e < ends; ++e) end[e][c] = bc6h::unquantize(end[e][c], mode.endpoint_bits, is_signed);
    }
    const unsigned index_bits = mode.two_regions ? 3 : 4;
    const auto* weights = bptc::weights(index_bits);
    for (std::size_t i = 0; i < 16; ++i) {
        const bool anchor = i == 0 || (mode.two_regions && i == bptc::anchor2[partition]);
        const int w = weights[bits.take(index_bits - anchor)];
        const std::size_t s = mode.two_regions ? bptc::partitions2[partition][i] * 2u : 0u;
        TexelF t{0, 0, 0, 1};
        for (std::size_t c = 0; c < 3; ++c)
            t[c] = half_to_float(bc6h::finish((end[s][c] * (64 - w) + end[s + 1][c] * w + 32) >> 6, is_signed));
        out[i / 4 * pitch + i % 4] = t;
    }
}

}  // namespace

const BlockCodec bc6h_codec{nullptr, decode_each<16, TexelF, decode_bc6h<false>>, nullptr, encode_bc6h};
const BlockCodec bc6h_sf16_codec{nullptr, decode_each<16, TexelF, decode_bc6h<true>>, nullptr, encode_bc6h_signed};

}  // namespace skivet

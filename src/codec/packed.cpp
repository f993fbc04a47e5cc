// Every uncompressed format up to 32 bits a texel is a bit layout in the format table; one pair of functions serves all.
#include "codec/codec.h"

namespace skivet {
namespace {

// UNORM conversion: c / (2^bits - 1), rounded to nearest (Khronos Data Format Specification 1.3, section 5.4.6).
std::uint8_t widen(std::uint32_t value, unsigned bits) {
    const std::uint32_t top = (1u << bits) - 1;
    return static_cast<std::uint8_t>((value * 255 + top / 2) / top);
}

std::uint32_t narrow(std::uint8_t value, unsigned bits) {
    const std::uint32_t top = (1u << bits) - 1;
    return (std::uint32_t{value} * top + 127) / 255;
}

}  // namespace

void decode_packed(const FormatInfo& f, const std::byte* bytes, std::size_t count, Texel* out) {
    const auto channel = [](std::uint32_t raw, ChannelBits at, std::uint8_t absent) {
        return at.bits ? widen(raw >> at.shift & ((1u << at.bits) - 1), at.bits) : absent;
    };
    const auto whole = [](ChannelBits at) { return at.bits == 8; };
    if (whole(f.red) && whole(f.green) && whole(f.blue) && (whole(f.alpha) || f.alpha.bits == 0)) {  // bytes only change places
        const std::size_t r = f.red.shift / 8u, g = f.green.shift / 8u, b = f.blue.shift / 8u, a = f.alpha.shift / 8u;
        for (std::size_t i = 0; i < count; ++i, bytes += f.block_bytes)
            out[i] = {static_cast<std::uint8_t>(bytes[r]), static_cast<std::uint8_t>(bytes[g]), static_cast<std::uint8_t>(bytes[b]),
                      f.alpha.bits ? static_cast<std::uint8_t>(bytes[a]) : std::uint8_t{255}};
        return;
    }
    for (std::size_t i = 0; i < count; ++i) {
        const auto raw = static_cast<std::uint32_t>(load_uint(bytes + i * f.block_bytes, f.block_bytes, ByteOrder::little));
        auto& texel = out[i];
        texel[0] = channel(raw, f.red, 0);
        texel[1] = f.luminance ? texel[0] : channel(raw, f.green, 0);
        texel[2] = f.luminance ? texel[0] : channel(raw, f.blue, 0);
        texel[3] = channel(raw, f.alpha, 255);
    }
}

void encode_packed(const FormatInfo& f, const Texel* in, std::size_t count, std::byte* bytes) {
    const auto channel = [](std::uint8_t value, ChannelBits at) { return at.bits ? narrow(value, at.bits) << at.shift : 0u; };
    for (std::size_t i = 0; i < count; ++i) {
        const auto& t = in[i];
        // Rec. 709 weights when a colored picture goes into a luminance format; gray stays exactly what it was.
        const auto red = f.luminance && (t[0] != t[1] || t[1] != t[2])
                             ? static_cast<std::uint8_t>((2126u * t[0] + 7152u * t[1] + 722u * t[2] + 5000) / 10000)
                             : t[0];
        const auto raw = channel(red, f.red) | channel(t[1], f.green) | channel(t[2], f.blue) | channel(t[3], f.alpha);
        store_uint(bytes + i * f.block_bytes, raw, f.block_bytes, ByteOrder::little);
    }
}

}  // namespace skivet

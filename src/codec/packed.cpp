// Every uncompressed format is a bit layout in the format table; one pair of functions serves all, for each of the two forms of a picture.
#include <bit>
#include <cmath>

#include "codec/codec.h"
#include "pixel/half.h"

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

std::uint32_t mask(unsigned bits) { return bits >= 32 ? ~0u : (1u << bits) - 1; }

std::uint32_t field(const std::byte* texel, ChannelBits at, unsigned texel_bytes) {
    const unsigned from = at.shift / 8u;
    const auto raw = load_uint(texel + from, std::min(8u, texel_bytes - from), ByteOrder::little);
    return static_cast<std::uint32_t>(raw >> (at.shift - from * 8u)) & mask(at.bits);
}

void put_field(std::byte* texel, ChannelBits at, unsigned texel_bytes, std::uint32_t value) {
    const unsigned from = at.shift / 8u, width = std::min(8u, texel_bytes - from), shift = at.shift - from * 8u;
    const auto raw = load_uint(texel + from, width, ByteOrder::little) & ~(std::uint64_t{mask(at.bits)} << shift);
    store_uint(texel + from, raw | std::uint64_t{value & mask(at.bits)} << shift, width, ByteOrder::little);
}

float to_value(std::uint32_t raw, unsigned bits, Numeric numeric) {
    const auto extended = static_cast<std::int32_t>(bits >= 32 ? raw : raw << (32 - bits)) >> (bits >= 32 ? 0 : 32 - bits);
    switch (numeric) {
        case Numeric::unorm: return static_cast<float>(static_cast<double>(raw) / mask(bits));
        case Numeric::snorm: return std::max(-1.0f, static_cast<float>(static_cast<double>(extended) / mask(bits - 1)));
        case Numeric::uint: return static_cast<float>(raw);
        case Numeric::sint: return static_cast<float>(extended);
        case Numeric::ufloat: return small_to_float(raw, bits - 5);
        case Numeric::sfloat: return bits == 16 ? half_to_float(static_cast<std::uint16_t>(raw)) : std::bit_cast<float>(raw);
    }
    return 0;
}

/// Rounded to nearest and clamped to what the channel can hold; NaN becomes 0 where there is none.
std::uint32_t to_raw(float value, unsigned bits, Numeric numeric) {
    const auto rounded = [&](double low, double high, double scale) {
        const double v = std::isnan(value) ? 0.0 : std::clamp(static_cast<double>(value) * scale, low, high);
        return static_cast<std::uint32_t>(static_cast<std::int64_t>(std::floor(v + 0.5)));
    };
    const double top = mask(bits), signed_top = mask(bits - 1);
    switch (numeric) {
        case Numeric::unorm: return rounded(0, top, top);
        case Numeric::snorm: return rounded(-signed_top, signed_top, signed_top) & mask(bits);
        case Numeric::uint: return rounded(0, top, 1);
        case Numeric::sint: return rounded(-signed_top - 1, signed_top, 1) & mask(bits);
        case Numeric::ufloat: return float_to_small(value, bits - 5);
        case Numeric::sfloat: return bits == 16 ? float_to_half(value) : std::bit_cast<std::uint32_t>(value);
    }
    return 0;
}

bool whole(ChannelBits at) { return at.bits == 8; }

/// A signed byte as the 8-bit form has it: 128 is zero.
std::uint8_t biased(std::uint32_t raw, bool snorm) {
    const auto value = static_cast<std::int8_t>(raw);
    return static_cast<std::uint8_t>((snorm && value == -128 ? -127 : value) + 128);
}

}  // namespace

void decode_packed(const FormatInfo& f, const std::byte* bytes, std::size_t count, Texel* out) {
    const bool is_signed = f.is_signed(), snorm = f.numeric == Numeric::snorm;
    if (!is_signed && whole(f.red) && whole(f.green) && whole(f.blue) &&
        (whole(f.alpha) || f.alpha.bits == 0)) {  // bytes only change places
        const std::size_t r = f.red.shift / 8u, g = f.green.shift / 8u, b = f.blue.shift / 8u, a = f.alpha.shift / 8u;
        for (std::size_t i = 0; i < count; ++i, bytes += f.block_bytes)
            out[i] = {static_cast<std::uint8_t>(bytes[r]), static_cast<std::uint8_t>(bytes[g]), static_cast<std::uint8_t>(bytes[b]),
                      f.alpha.bits ? static_cast<std::uint8_t>(bytes[a]) : std::uint8_t{255}};
        return;
    }
    const auto channel = [&](std::uint32_t raw, ChannelBits at, std::uint8_t absent) {
        if (at.bits == 0) return absent;
        const auto value = raw >> at.shift & mask(at.bits);
        return is_signed ? biased(value, snorm) : widen(value, at.bits);
    };
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
    const auto channel = [&](std::uint8_t value, ChannelBits at) {
        if (at.bits == 0) return 0u;
        if (!f.is_signed()) return narrow(value, at.bits) << at.shift;
        const int code = f.numeric == Numeric::snorm ? std::max(-127, value - 128) : value - 128;
        return (static_cast<std::uint32_t>(code) & 0xFFu) << at.shift;
    };
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

void decode_packed_wide(const FormatInfo& f, const std::byte* bytes, std::size_t count, TexelF* out) {
    for (std::size_t i = 0; i < count; ++i, bytes += f.block_bytes) {
        auto& texel = out[i];
        if (f.format == Format::RGB9E5) {
            const auto rgb = rgb9e5_to_float(load_le<std::uint32_t>(bytes));
            texel = {rgb[0], rgb[1], rgb[2], 1};
            continue;
        }
        const auto channel = [&](ChannelBits at, float absent) {
            return at.bits ? to_value(field(bytes, at, f.block_bytes), at.bits, f.numeric) : absent;
        };
        texel[0] = channel(f.red, 0);
        texel[1] = f.luminance ? texel[0] : channel(f.green, 0);
        texel[2] = f.luminance ? texel[0] : channel(f.blue, 0);
        texel[3] = channel(f.alpha, 1);
    }
}

void encode_packed_wide(const FormatInfo& f, const TexelF* in, std::size_t count, std::byte* bytes) {
    for (std::size_t i = 0; i < count; ++i, bytes += f.block_bytes) {
        const auto& t = in[i];
        if (f.format == Format::RGB9E5) {
            store_le(bytes, float_to_rgb9e5({t[0], t[1], t[2]}));
            continue;
        }
        std::fill_n(bytes, f.block_bytes, std::byte{0});
        const auto channel = [&](ChannelBits at, float value) {
            if (at.bits) put_field(bytes, at, f.block_bytes, to_raw(value, at.bits, f.numeric));
        };
        const bool colored = f.luminance && (t[0] != t[1] || t[1] != t[2]);
        channel(f.red, colored ? 0.2126f * t[0] + 0.7152f * t[1] + 0.0722f * t[2] : t[0]);
        channel(f.green, t[1]);
        channel(f.blue, t[2]);
        channel(f.alpha, t[3]);
    }
}

}  // namespace skivet

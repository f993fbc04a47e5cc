// ETC1 and ETC2: two half blocks of one base color and four brightnesses each; ETC2 adds three modes in the bit patterns ETC1 leaves over
// (a base color plus difference that would leave 0…31): T and H with paint colors of their own, and planar, a gradient.
// Texels are numbered down the columns, and the block is one big-endian 64-bit number.
#include "codec/blocks.h"
#include "codec/etc2_decode.h"
#include "codec/etc_encode.h"
#include "codec/etc_tables.h"

namespace skivet {
namespace {

using Rgb = std::array<int, 3>;

std::uint8_t clamp_byte(int v) { return static_cast<std::uint8_t>(std::clamp(v, 0, 255)); }
Texel opaque(const Rgb& c) { return {clamp_byte(c[0]), clamp_byte(c[1]), clamp_byte(c[2]), 255}; }
int field(std::uint64_t bits, unsigned high, unsigned count) { return static_cast<int>(bits >> (high + 1 - count) & ((1u << count) - 1)); }
int from4(int v) { return v << 4 | v; }
int from5(int v) { return v << 3 | v >> 2; }
int from6(int v) { return v << 2 | v >> 4; }
int from7(int v) { return v << 1 | v >> 6; }

/// The texel's 2-bit index: high bit, then low bit.
unsigned index_of(std::uint64_t bits, unsigned texel) {
    return static_cast<unsigned>(bits >> (16 + texel) & 1) << 1 | static_cast<unsigned>(bits >> texel & 1);
}

void paint(std::uint64_t bits, const std::array<Texel, 4>& colors, Texel* out, std::size_t pitch) {
    for (unsigned i = 0; i < 16; ++i) out[i % 4 * pitch + i / 4] = colors[index_of(bits, i)];
}

void decode_planar(std::uint64_t bits, Texel* out, std::size_t pitch) {
    const Rgb o = {from6(field(bits, 62, 6)), from7(field(bits, 56, 1) << 6 | field(bits, 54, 6)),
                   from6(field(bits, 48, 1) << 5 | field(bits, 44, 2) << 3 | field(bits, 41, 3))};
    const Rgb h = {from6(field(bits, 38, 5) << 1 | field(bits, 32, 1)), from7(field(bits, 31, 7)), from6(field(bits, 24, 6))};
    const Rgb v = {from6(field(bits, 18, 6)), from7(field(bits, 12, 7)), from6(field(bits, 5, 6))};
    for (int y = 0; y < 4; ++y)
        for (int x = 0; x < 4; ++x) {
            Rgb c{};
            for (std::size_t k = 0; k < 3; ++k) c[k] = (x * (h[k] - o[k]) + y * (v[k] - o[k]) + 4 * o[k] + 2) >> 2;
            out[static_cast<std::size_t>(y) * pitch + static_cast<std::size_t>(x)] = opaque(c);
        }
}

Rgb plus(const Rgb& c, int d) { return {c[0] + d, c[1] + d, c[2] + d}; }

using Variant = EtcVariant;

template <Variant variant>
void decode_etc(const std::byte* bytes, Texel* out, std::size_t pitch) {
    const auto bits = load_uint(bytes, 8, ByteOrder::big);
    const bool bit33 = field(bits, 33, 1) != 0;
    const bool see_through = variant == Variant::punch_through && !bit33;  // this bit then says that index 2 is transparent
    std::array<Rgb, 2> base{};
    if (bit33 || variant == Variant::punch_through) {
        const std::array<unsigned, 3> at = {63, 55, 47};
        for (std::size_t c = 0; c < 3; ++c) {
            const int first = field(bits, at[c], 5);
            const int difference = (field(bits, at[c] - 5, 3) ^ 4) - 4;
            const int second = first + difference;
            if (variant != Variant::etc1 && (second < 0 || second > 31)) {
                if (c == 0) {  // T: one color alone, one with a brighter and a darker form
                    const Rgb a = {from4(field(bits, 60, 2) << 2 | field(bits, 57, 2)), from4(field(bits, 55, 4)),
                                   from4(field(bits, 51, 4))};
                    const Rgb b = {from4(field(bits, 47, 4)), from4(field(bits, 43, 4)), from4(field(bits, 39, 4))};
                    const int d = etc::distances[static_cast<std::size_t>(field(bits, 35, 2) << 1 | field(bits, 32, 1))];
                    std::array<Texel, 4> colors = {opaque(a), opaque(plus(b, d)), opaque(b), opaque(plus(b, -d))};
                    if (see_through) colors[2] = {0, 0, 0, 0};
                    return paint(bits, colors, out, pitch);
                }
                if (c == 1) {  // H: two colors, both brighter and darker
                    const int ra = field(bits, 62, 4), ga = field(bits, 58, 3) << 1 | field(bits, 52, 1),
                              ba = field(bits, 51, 1) << 3 | field(bits, 49, 3);
                    const int rb = field(bits, 46, 4), gb = field(bits, 42, 4), bb = field(bits, 38, 4);
                    const Rgb a = {from4(ra), from4(ga), from4(ba)}, b = {from4(rb), from4(gb), from4(bb)};
                    const int order = (ra << 8 | ga << 4 | ba) >= (rb << 8 | gb << 4 | bb);
                    const int d = etc::distances[static_cast<std::size_t>(field(bits, 34, 1) << 2 | field(bits, 32, 1) << 1 | order)];
                    std::array<Texel, 4> colors = {opaque(plus(a, d)), opaque(plus(a, -d)), opaque(plus(b, d)), opaque(plus(b, -d))};
                    if (see_through) colors[2] = {0, 0, 0, 0};
                    return paint(bits, colors, out, pitch);
                }
                return decode_planar(bits, out, pitch);
            }
            base[0][c] = from5(first);
            base[1][c] = from5(second & 31);
        }
    } else {
        const std::array<unsigned, 3> at = {63, 55, 47};
        for (std::size_t c = 0; c < 3; ++c) base[0][c] = from4(field(bits, at[c], 4)), base[1][c] = from4(field(bits, at[c] - 4, 4));
    }
    std::array<std::array<Texel, 4>, 2> colors{};
    for (std::size_t half = 0; half < 2; ++half) {
        const auto& m = etc::modifiers[static_cast<std::size_t>(field(bits, half ? 36 : 39, 3))];
        const int small = see_through ? 0 : m[0];
        colors[half] = {opaque(plus(base[half], small)), opaque(plus(base[half], m[1])), opaque(plus(base[half], -small)),
                        opaque(plus(base[half], -m[1]))};
        if (see_through) colors[half][2] = {0, 0, 0, 0};
    }
    const bool flip = field(bits, 32, 1) != 0;
    const auto low = static_cast<std::uint32_t>(bits & 0xFFFF), high = static_cast<std::uint32_t>(bits >> 16 & 0xFFFF);
    for (unsigned y = 0; y < 4; ++y) {
        const auto &left = colors[flip ? y / 2 : 0], &right = colors[flip ? y / 2 : 1];
        const auto index = [&](unsigned x) { return (high >> (4 * x + y) & 1) << 1 | (low >> (4 * x + y) & 1); };
        Texel* row = out + y * pitch;
        row[0] = left[index(0)];
        row[1] = left[index(1)];
        row[2] = right[index(2)];
        row[3] = right[index(3)];
    }
}

void decode_eac_alpha(const std::byte* bytes, Texel* out, std::size_t pitch) {
    const auto bits = load_uint(bytes, 8, ByteOrder::big);
    const int base = field(bits, 63, 8), multiplier = field(bits, 55, 4);
    const auto& table = etc::eac_modifiers[static_cast<std::size_t>(field(bits, 51, 4))];
    std::array<std::uint8_t, 8> value;
    for (std::size_t k = 0; k < 8; ++k) value[k] = clamp_byte(base + table[k] * multiplier);
    for (unsigned y = 0; y < 4; ++y)
        for (unsigned x = 0; x < 4; ++x) out[y * pitch + x][3] = value[bits >> (45 - 3 * (4 * x + y)) & 7];
}

template <Variant variant>
void decode_color(const std::byte* blocks, std::size_t count, Texel* out, std::size_t pitch) {
    const auto done = decode_half_blocks(variant, blocks, 8, count, out, pitch, decode_etc<variant>);
    decode_each<8, Texel, decode_etc<variant>>(blocks + done * 8, count - done, out + done * 4, pitch);
}

void decode_rgba(const std::byte* blocks, std::size_t count, Texel* out, std::size_t pitch) {
    const auto done = decode_half_blocks(Variant::rgb, blocks, 16, count, out, pitch, decode_etc<Variant::rgb>);
    for (std::size_t i = 0; i < count; ++i) {
        if (i >= done) decode_etc<Variant::rgb>(blocks + i * 16 + 8, out + i * 4, pitch);
        decode_eac_alpha(blocks + i * 16, out + i * 4, pitch);
    }
}

template <bool is_signed>
void decode_eac_channel(const std::byte* bytes, TexelF* out, std::size_t pitch, std::size_t channel) {
    const auto bits = load_uint(bytes, 8, ByteOrder::big);
    int base = field(bits, 63, 8);
    if (is_signed) base = std::max(-127, static_cast<int>(static_cast<std::int8_t>(base)));
    const int multiplier = field(bits, 55, 4);
    const auto& table = etc::eac_modifiers[static_cast<std::size_t>(field(bits, 51, 4))];
    for (unsigned i = 0; i < 16; ++i) {
        const int step = table[bits >> (45 - 3 * i) & 7] * (multiplier ? multiplier * 8 : 1);
        const int value = is_signed ? std::clamp(base * 8 + step, -1023, 1023) : std::clamp(base * 8 + 4 + step, 0, 2047);
        out[i % 4 * pitch + i / 4][channel] = static_cast<float>(value) / (is_signed ? 1023.0f : 2047.0f);
    }
}

template <bool is_signed, std::size_t channels>
void decode_eac(const std::byte* bytes, TexelF* out, std::size_t pitch) {
    fill_block(out, pitch, TexelF{0, 0, 0, 1});
    for (std::size_t c = 0; c < channels; ++c) decode_eac_channel<is_signed>(bytes + c * 8, out, pitch, c);
}

}  // namespace

const BlockCodec etc1_codec{decode_color<Variant::etc1>, nullptr, encode_etc1, nullptr};
const BlockCodec etc2_rgb_codec{decode_color<Variant::rgb>, nullptr, encode_etc2_rgb, nullptr};
const BlockCodec etc2_rgba1_codec{decode_color<Variant::punch_through>, nullptr, encode_etc2_rgba1, nullptr};
const BlockCodec etc2_rgba_codec{decode_rgba, nullptr, encode_etc2_rgba, nullptr};
const BlockCodec eac_r_codec{nullptr, decode_each<8, TexelF, decode_eac<false, 1>>, nullptr, encode_eac_r};
const BlockCodec eac_r_snorm_codec{nullptr, decode_each<8, TexelF, decode_eac<true, 1>>, nullptr, encode_eac_r_snorm};
const BlockCodec eac_rg_codec{nullptr, decode_each<16, TexelF, decode_eac<false, 2>>, nullptr, encode_eac_rg};
const BlockCodec eac_rg_snorm_codec{nullptr, decode_each<16, TexelF, decode_eac<true, 2>>, nullptr, encode_eac_rg_snorm};

}  // namespace skivet

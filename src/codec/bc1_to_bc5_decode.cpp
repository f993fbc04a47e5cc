// Decoding BC1 to BC5, N blocks at a time: a lane is a block. A row of four texels of N neighboring blocks is then four vectors, which
// an interleaving store puts side by side. All arithmetic is in whole numbers and is that of the scalar functions, which do the blocks left
// over.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "codec/bc1_to_bc5_decode.cpp"
#include <hwy/foreach_target.h>
//
#include <hwy/highway.h>

#include "codec/blocks.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;
namespace {

using D = hn::CappedTag<std::uint32_t, 16>;
using V = hn::Vec<D>;

HWY_INLINE V set(std::uint32_t v) { return hn::Set(D(), v); }
HWY_INLINE V masked(V v, std::uint32_t bits) { return hn::And(v, set(bits)); }

/// v / n, cut off, for v below 2^11 (checked for every value by the tests).
HWY_INLINE V divided_by_3(V v) { return hn::ShiftRight<17>(hn::Mul(v, set(43691))); }
HWY_INLINE V divided_by_7(V v) { return hn::ShiftRight<20>(hn::Mul(v, set(149797))); }
HWY_INLINE V divided_by_5(V v) { return hn::ShiftRight<20>(hn::Mul(v, set(209716))); }

/// Four colors, alpha in the top byte where `alpha` says so, and the indices.
struct Colors {
    std::array<V, 4> palette;
    V indices;
    [[nodiscard]] HWY_INLINE V texel(std::size_t i) const {
        const auto index = hn::ShiftRightSame(indices, static_cast<int>(2 * i));
        const auto low = hn::Ne(masked(index, 1), hn::Zero(D())), high = hn::Ne(masked(index, 2), hn::Zero(D()));
        return hn::IfThenElse(high, hn::IfThenElse(low, palette[3], palette[2]), hn::IfThenElse(low, palette[1], palette[0]));
    }
};

template <bool always_four, std::uint32_t alpha>
HWY_INLINE Colors colors_of(V ends, V indices) {
    const auto first = masked(ends, 0xFFFF), second = hn::ShiftRight<16>(ends);
    const auto channel = [](V v, std::size_t c) {
        if (c == 1) {
            const auto six = masked(hn::ShiftRight<5>(v), 63);
            return hn::Or(hn::ShiftLeft<2>(six), hn::ShiftRight<4>(six));
        }
        const auto five = c == 0 ? hn::ShiftRight<11>(v) : masked(v, 31);
        return hn::Or(hn::ShiftLeft<3>(five), hn::ShiftRight<2>(five));
    };
    const auto four = hn::Gt(first, second);
    Colors out;
    out.indices = indices;
    out.palette.fill(set(alpha));
    for (std::size_t c = 0; c < 3; ++c) {
        const auto a = channel(first, c), b = channel(second, c), sum = hn::Add(a, b);
        auto p2 = divided_by_3(hn::Add(sum, a)), p3 = divided_by_3(hn::Add(sum, b));
        if (!always_four) p2 = hn::IfThenElse(four, p2, hn::ShiftRight<1>(sum)), p3 = hn::IfThenElseZero(four, p3);
        const auto place = [c](V v) { return hn::ShiftLeftSame(v, static_cast<int>(8 * c)); };
        out.palette[0] = hn::Or(out.palette[0], place(a));
        out.palette[1] = hn::Or(out.palette[1], place(b));
        out.palette[2] = hn::Or(out.palette[2], place(p2));
        out.palette[3] = hn::Or(out.palette[3], place(p3));
    }
    if (!always_four) out.palette[3] = hn::IfThenElseZero(four, out.palette[3]);
    return out;
}

/// Eight values of a byte each in two words, and 3-bit indices, eight texels a word.
struct Values {
    std::array<V, 2> value, indices;
    [[nodiscard]] HWY_INLINE V texel(std::size_t i) const {
        const auto index = masked(hn::ShiftRightSame(indices[i / 8], static_cast<int>(i % 8 * 3)), 7);
        const auto word = hn::IfThenElse(hn::Gt(index, set(3)), value[1], value[0]);
        return masked(hn::Shr(word, hn::ShiftLeft<3>(masked(index, 3))), 255);
    }
};

template <bool is_signed>
HWY_INLINE Values values_of(V low, V high) {
    Values out;
    out.indices = {hn::Or(hn::ShiftRight<16>(low), hn::ShiftLeft<16>(masked(high, 0xFF))), hn::ShiftRight<8>(high)};
    // Signed values are moved up by 128 before they are mixed: a mix of moved values is the moved mix. Cutting off goes toward zero,
    // so below zero it is the upper neighbor: n - 1 is added to those sums.
    const auto byte = [](V v) {
        v = masked(v, 255);
        return is_signed ? hn::Max(hn::Xor(v, set(128)), set(1)) : v;
    };
    const auto a = byte(low), b = byte(hn::ShiftRight<8>(low));
    // Whether there are eight is told by the stored values, where -128 is below -127.
    const auto stored = [](V v) { return is_signed ? hn::Xor(masked(v, 255), set(128)) : masked(v, 255); };
    const auto eight = hn::Gt(stored(low), stored(hn::ShiftRight<8>(low)));
    const auto mix = [&](std::uint32_t wa, std::uint32_t wb, std::uint32_t n, auto divide) {
        auto sum = hn::Add(hn::Mul(a, set(wa)), hn::Mul(b, set(wb)));
        if (is_signed) sum = hn::Add(sum, hn::IfThenElseZero(hn::Lt(sum, set(128 * n)), set(n - 1)));
        return divide(sum);
    };
    std::array<V, 8> v{};
    v[0] = a;
    v[1] = b;
    for (std::uint32_t k = 2; k < 8; ++k) {
        const auto of_eight = mix(8 - k, k - 1, 7, [](V s) { return divided_by_7(s); });
        const auto of_six = k == 6 ? set(is_signed ? 1 : 0) : k == 7 ? set(255) : mix(6 - k, k - 1, 5, [](V s) { return divided_by_5(s); });
        v[k] = hn::IfThenElse(eight, of_eight, of_six);
    }
    for (std::size_t w = 0; w < 2; ++w)
        out.value[w] = hn::Or(hn::Or(v[w * 4], hn::ShiftLeft<8>(v[w * 4 + 1])),
                              hn::Or(hn::ShiftLeft<16>(v[w * 4 + 2]), hn::ShiftLeft<24>(v[w * 4 + 3])));
    return out;
}

template <class Make>
HWY_INLINE void store_rows(Texel* out, std::size_t pitch, const Make& texel) {
    const D d;
    for (std::size_t y = 0; y < 4; ++y)
        hn::StoreInterleaved4(texel(y * 4), texel(y * 4 + 1), texel(y * 4 + 2), texel(y * 4 + 3), d,
                              reinterpret_cast<std::uint32_t*>(out + y * pitch));
}

/// The number of blocks done: all whole groups.
std::size_t decode_simd(int kind, const std::byte* blocks, std::size_t count, Texel* out, std::size_t pitch) {
    const D d;
    const std::size_t n = hn::Lanes(d);
    constexpr std::uint32_t opaque = 0xFF000000;
    std::size_t done = 0;
    for (; done + n <= count; done += n, out += 4 * n) {
        V w0, w1, w2, w3;
        if (kind == 1 || kind == 4 || kind == -4)
            hn::LoadInterleaved2(d, reinterpret_cast<const std::uint32_t*>(blocks + done * 8), w0, w1);
        else hn::LoadInterleaved4(d, reinterpret_cast<const std::uint32_t*>(blocks + done * 16), w0, w1, w2, w3);
        if (kind == 1) {
            const auto colors = colors_of<false, opaque>(w0, w1);
            store_rows(out, pitch, [&](std::size_t i) HWY_ATTR { return colors.texel(i); });
        } else if (kind == 2) {
            const auto colors = colors_of<true, 0>(w2, w3);
            store_rows(out, pitch, [&](std::size_t i) HWY_ATTR {
                const auto four = masked(hn::ShiftRightSame(i < 8 ? w0 : w1, static_cast<int>(i % 8 * 4)), 15);
                return hn::Or(colors.texel(i), hn::ShiftLeft<24>(hn::Or(four, hn::ShiftLeft<4>(four))));
            });
        } else if (kind == 3) {
            const auto colors = colors_of<true, 0>(w2, w3);
            const auto alpha = values_of<false>(w0, w1);
            store_rows(out, pitch, [&](std::size_t i) HWY_ATTR { return hn::Or(colors.texel(i), hn::ShiftLeft<24>(alpha.texel(i))); });
        } else if (kind == 4 || kind == -4) {
            const auto red = kind > 0 ? values_of<false>(w0, w1) : values_of<true>(w0, w1);
            store_rows(out, pitch, [&](std::size_t i) HWY_ATTR { return hn::Or(red.texel(i), set(opaque)); });
        } else {
            const auto red = kind > 0 ? values_of<false>(w0, w1) : values_of<true>(w0, w1);
            const auto green = kind > 0 ? values_of<false>(w2, w3) : values_of<true>(w2, w3);
            store_rows(out, pitch,
                       [&](std::size_t i) HWY_ATTR { return hn::Or(hn::Or(red.texel(i), hn::ShiftLeft<8>(green.texel(i))), set(opaque)); });
        }
    }
    return done;
}

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace skivet {
namespace {
HWY_EXPORT(decode_simd);
}

std::size_t decode_whole_groups(int kind, const std::byte* blocks, std::size_t count, Texel* out, std::size_t pitch) {
    if constexpr (std::endian::native != std::endian::little) return 0;
    return HWY_DYNAMIC_DISPATCH(decode_simd)(kind, blocks, count, out, pitch);
}
}  // namespace skivet
#endif

// Decoding ETC1 and ETC2 color, N blocks at a time: a lane is a block. The vectors do the two half-block modes and the gradients
// (planar); blocks in the T and H modes are done one by one afterwards.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "codec/etc2_decode.cpp"
#include <hwy/foreach_target.h>
//
#include <hwy/highway.h>

#include "codec/etc2_decode.h"
#include "codec/etc_tables.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;
namespace {

using D = hn::CappedTag<std::int32_t, 16>;
using V = hn::Vec<D>;
using M = hn::Mask<D>;

HWY_INLINE V set(int v) { return hn::Set(D(), v); }
HWY_INLINE V bits_of(V v, int low, int count) { return hn::And(hn::ShiftRightSame(v, low), set((1 << count) - 1)); }
HWY_INLINE M flag(V v, int bit) { return hn::Ne(hn::And(v, set(static_cast<int>(1u << bit))), hn::Zero(D())); }

/// A word of big-endian bytes.
HWY_INLINE V turned(V v) {
    return hn::Or(hn::Or(hn::ShiftLeft<24>(v), hn::And(hn::ShiftLeft<8>(v), set(0xFF0000))),
                  hn::Or(hn::And(hn::ShiftRight<8>(v), set(0xFF00)), hn::And(hn::ShiftRight<24>(v), set(0xFF))));
}

HWY_INLINE V from_table(V index, const std::array<int, 8>& table) { return hn::GatherIndex(D(), table.data(), index); }

constexpr std::array<int, 8> modifiers_of(std::size_t which) {
    std::array<int, 8> out{};
    for (std::size_t i = 0; i < 8; ++i) out[i] = etc::modifiers[i][which];
    return out;
}
constexpr auto small_modifiers = modifiers_of(0), large_modifiers = modifiers_of(1);

/// Four colors for each half; `alpha` in the top byte.
std::size_t decode_simd(EtcVariant variant, const std::byte* blocks, std::size_t stride, std::size_t count, Texel* out, std::size_t pitch,
                        std::uint32_t* special) {
    const D d;
    const std::size_t n = hn::Lanes(d);
    const bool punch_through = variant == EtcVariant::punch_through;
    std::size_t done = 0;
    for (; done + n <= count; done += n, out += 4 * n, ++special) {
        V high, low, skipped;
        if (stride == 8) {
            hn::LoadInterleaved2(d, reinterpret_cast<const std::int32_t*>(blocks + done * 8), high, low);
        } else {
            V other;
            hn::LoadInterleaved4(d, reinterpret_cast<const std::int32_t*>(blocks + done * 16), skipped, other, high, low);
        }
        high = turned(high);
        low = turned(low);
        const auto differential = punch_through ? hn::Eq(high, high) : flag(high, 1);
        const auto see_through = punch_through ? hn::Not(flag(high, 1)) : hn::Ne(high, high);
        const auto flip = flag(high, 0);
        const auto never = hn::Ne(high, high);
        std::array<M, 3> outside = {never, never, never};
        std::array<std::array<V, 3>, 2> base;
        for (std::size_t c = 0; c < 3; ++c) {
            const int at = 27 - static_cast<int>(c) * 8;  // the lower end of the 5-bit field
            const auto first = bits_of(high, at, 5), step = hn::Sub(hn::Xor(bits_of(high, at - 3, 3), set(4)), set(4)),
                       second = hn::Add(first, step);
            if (variant != EtcVariant::etc1)
                outside[c] = hn::And(differential, hn::Or(hn::Lt(second, hn::Zero(d)), hn::Gt(second, set(31))));
            const auto from5 = [](V v) { return hn::Or(hn::ShiftLeft<3>(v), hn::ShiftRight<2>(v)); };
            const auto from4 = [](V v) { return hn::Or(hn::ShiftLeft<4>(v), v); };
            base[0][c] = hn::IfThenElse(differential, from5(first), from4(bits_of(high, at + 1, 4)));
            base[1][c] = hn::IfThenElse(differential, from5(hn::And(second, set(31))), from4(bits_of(high, at - 3, 4)));
        }
        const auto painted = hn::Or(outside[0], outside[1]);  // T and H
        const auto planar = hn::AndNot(painted, outside[2]);
        const bool any_planar = !hn::AllFalse(d, planar);
        std::array<std::array<V, 4>, 2> colors;
        for (std::size_t half = 0; half < 2; ++half) {
            const auto table = bits_of(high, half ? 2 : 5, 3);
            const auto small = hn::IfThenZeroElse(see_through, from_table(table, small_modifiers)),
                       large = from_table(table, large_modifiers);
            const std::array<V, 4> change = {small, large, hn::Neg(small), hn::Neg(large)};
            for (std::size_t k = 0; k < 4; ++k) {
                const auto byte = [&](std::size_t c)
                                      HWY_ATTR { return hn::Min(hn::Max(hn::Add(base[half][c], change[k]), hn::Zero(d)), set(255)); };
                auto color = hn::Or(hn::Or(byte(0), hn::ShiftLeft<8>(byte(1))),
                                    hn::Or(hn::ShiftLeft<16>(byte(2)), set(static_cast<int>(0xFF000000u))));
                if (k == 2) color = hn::IfThenZeroElse(see_through, color);
                colors[half][k] = color;
            }
        }
        // Upper right and lower left belong to either half.
        std::array<std::array<V, 4>, 2> right, left;
        for (std::size_t k = 0; k < 4; ++k) {
            left[0][k] = colors[0][k];
            right[1][k] = colors[1][k];
            right[0][k] = hn::IfThenElse(flip, colors[0][k], colors[1][k]);
            left[1][k] = hn::IfThenElse(flip, colors[1][k], colors[0][k]);
        }
        const auto texel = [&](const std::array<V, 4>& p, int i) HWY_ATTR {
            const auto one = flag(low, i), two = flag(low, i + 16);
            return hn::IfThenElse(two, hn::IfThenElse(one, p[3], p[2]), hn::IfThenElse(one, p[1], p[0]));
        };
        // Planar: the color at the origin and the steps along both sides, four times as fine as a byte.
        std::array<V, 3> origin, right_step, down_step;
        if (any_planar) {
            const auto from6 = [](V v) HWY_ATTR { return hn::Or(hn::ShiftLeft<2>(v), hn::ShiftRight<4>(v)); };
            const auto from7 = [](V v) HWY_ATTR { return hn::Or(hn::ShiftLeft<1>(v), hn::ShiftRight<6>(v)); };
            const std::array<V, 3> o = {
                from6(bits_of(high, 25, 6)), from7(hn::Or(hn::ShiftLeft<6>(bits_of(high, 24, 1)), bits_of(high, 17, 6))),
                from6(hn::Or(hn::Or(hn::ShiftLeft<5>(bits_of(high, 16, 1)), hn::ShiftLeft<3>(bits_of(high, 11, 2))), bits_of(high, 7, 3)))};
            const std::array<V, 3> h = {from6(hn::Or(hn::ShiftLeft<1>(bits_of(high, 2, 5)), bits_of(high, 0, 1))),
                                        from7(bits_of(low, 25, 7)), from6(bits_of(low, 19, 6))};
            const std::array<V, 3> v = {from6(bits_of(low, 13, 6)), from7(bits_of(low, 6, 7)), from6(bits_of(low, 0, 6))};
            for (std::size_t c = 0; c < 3; ++c) {
                origin[c] = hn::Add(hn::ShiftLeft<2>(o[c]), set(2));
                right_step[c] = hn::Sub(h[c], o[c]);
                down_step[c] = hn::Sub(v[c], o[c]);
            }
        }
        const auto with_planar = [&](V half_block, int x, int y) HWY_ATTR {
            if (!any_planar) return half_block;
            const auto byte = [&](std::size_t c) HWY_ATTR {
                const auto sum = hn::Add(origin[c], hn::Add(hn::Mul(right_step[c], set(x)), hn::Mul(down_step[c], set(y))));
                return hn::Min(hn::Max(hn::ShiftRight<2>(sum), hn::Zero(d)), set(255));
            };
            const auto color =
                hn::Or(hn::Or(byte(0), hn::ShiftLeft<8>(byte(1))), hn::Or(hn::ShiftLeft<16>(byte(2)), set(static_cast<int>(0xFF000000u))));
            return hn::IfThenElse(planar, color, half_block);
        };
        for (int y = 0; y < 4; ++y) {
            const auto &l = left[static_cast<std::size_t>(y / 2)], &r = right[static_cast<std::size_t>(y / 2)];
            hn::StoreInterleaved4(with_planar(texel(l, y), 0, y), with_planar(texel(l, 4 + y), 1, y), with_planar(texel(r, 8 + y), 2, y),
                                  with_planar(texel(r, 12 + y), 3, y), d,
                                  reinterpret_cast<std::int32_t*>(out + static_cast<std::size_t>(y) * pitch));
        }
        std::array<std::uint8_t, 8> mask{};
        (void)hn::StoreMaskBits(d, painted, mask.data());
        *special = static_cast<std::uint32_t>(mask[0]) | static_cast<std::uint32_t>(mask[1]) << 8;
        if (n < 8) *special &= (1u << n) - 1;
    }
    return done;
}

std::size_t lanes() { return hn::Lanes(D()); }

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace skivet {
namespace {
HWY_EXPORT(decode_simd);
HWY_EXPORT(lanes);
}  // namespace

std::size_t decode_half_blocks(EtcVariant variant, const std::byte* blocks, std::size_t stride, std::size_t count, Texel* out,
                               std::size_t pitch, void (*one)(const std::byte*, Texel*, std::size_t)) {
    if constexpr (std::endian::native != std::endian::little) return 0;
    const std::size_t n = HWY_DYNAMIC_DISPATCH(lanes)(), at_once = n * 16, offset = stride - 8;
    std::array<std::uint32_t, 16> special;
    std::size_t done = 0;
    while (count - done >= n) {
        const auto part = std::min(at_once, (count - done) / n * n);
        (void)HWY_DYNAMIC_DISPATCH(decode_simd)(variant, blocks + done * stride, stride, part, out + done * 4, pitch, special.data());
        for (std::size_t g = 0; g < part / n; ++g)
            for (auto rest = special[g]; rest != 0; rest &= rest - 1) {
                const auto i = done + g * n + static_cast<std::size_t>(std::countr_zero(rest));
                one(blocks + i * stride + offset, out + i * 4, pitch);
            }
        done += part;
    }
    return done;
}
}  // namespace skivet
#endif

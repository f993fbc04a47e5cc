// Encoding EAC channels: ETC2's alpha, and the formats of one and two channels. A lane is a block (see lanes-inl.h).
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "codec/eac_encode.cpp"
#include <hwy/foreach_target.h>
//
#include <cmath>

#include "codec/etc_encode.h"
#include "codec/etc_tables.h"
#include "codec/lanes-inl.h"

#ifndef SKIVET_EAC_SCALE
#define SKIVET_EAC_SCALE
namespace skivet {
/// An EAC channel: values between `low` and `high`, a base every `unit` (plus `shift`), modifiers times multiplier times unit.
struct EacScale {
    int low, high, unit, shift;
    int base_low, base_high;
    bool fine_zero;  ///< a multiplier of 0 stands for modifiers in the values' own steps
    [[nodiscard]] int step(int multiplier) const { return multiplier ? multiplier * unit : fine_zero ? 1 : 0; }
};
inline constexpr EacScale eac_alpha{0, 255, 1, 0, 0, 255, false}, eac_unsigned{0, 2047, 8, 4, 0, 255, true},
    eac_signed{-1023, 1023, 8, 0, -127, 127, true};
/// What a block of a channel is made of.
struct EacCodes {
    int base = 0, multiplier = 1, table = 0;
};
}  // namespace skivet
#endif

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

/// Of N blocks; `values` in the scale's steps, any fraction.
void fit_eac(const Plane& values, const EacScale& scale, Effort effort, EacCodes* out) {
    auto low = get(values, 0), high = low;
    for (std::size_t i = 1; i < 16; ++i) low = least(low, get(values, i)), high = most(high, get(values, i));
    auto best = set(std::numeric_limits<float>::max()), best_base = zero(), best_multiplier = set(1), best_table = zero();
    const auto unit = static_cast<float>(scale.unit), shift = static_cast<float>(scale.shift);
    const int reach = effort == Effort::fast ? 0 : effort == Effort::normal ? 1 : 2, around = reach > 0;
    for (std::size_t table = 0; table < 16; ++table) {
        const auto& m = etc::eac_modifiers[table];
        const auto bottom = static_cast<float>(m[3]), top = static_cast<float>(m[7]);
        const auto exact = nearest(hn::Div(hn::Sub(high, low), set((top - bottom) * unit)));
        for (int dm = -around; dm <= around; ++dm) {
            const auto multiplier = clamp(hn::Add(exact, set(static_cast<float>(dm))), 0, 15);
            const auto step = select(hn::Gt(multiplier, zero()), hn::Mul(multiplier, set(unit)), set(scale.fine_zero ? 1 : 0));
            // The modifiers' ends over the values' ends.
            const auto middle = hn::Mul(hn::Sub(hn::Add(low, high), hn::Mul(step, set(top + bottom))), set(0.5f));
            const auto about = hn::Floor(hn::Add(hn::Div(hn::Sub(middle, set(shift)), set(unit)), set(0.5f)));
            for (int db = -reach; db <= reach; ++db) {
                const auto base = clamp(hn::Add(about, set(static_cast<float>(db))), static_cast<float>(scale.base_low),
                                        static_cast<float>(scale.base_high));
                const auto from = hn::Add(hn::Mul(base, set(unit)), set(shift));
                std::array<VF, 8> decoded;
                for (std::size_t k = 0; k < 8; ++k)
                    decoded[k] = clamp(hn::Add(from, hn::Mul(step, set(static_cast<float>(m[k])))), static_cast<float>(scale.low),
                                       static_cast<float>(scale.high));
                auto sum = zero();
                for (std::size_t i = 0; i < 16; ++i) {
                    const auto v = get(values, i);
                    auto off = hn::Abs(hn::Sub(decoded[0], v));
                    for (std::size_t k = 1; k < 8; ++k) off = least(off, hn::Abs(hn::Sub(decoded[k], v)));
                    sum = hn::Add(sum, hn::Mul(off, off));
                }
                const auto better = hn::Lt(sum, best);
                best = select(better, sum, best);
                best_base = select(better, base, best_base);
                best_multiplier = select(better, multiplier, best_multiplier);
                best_table = select(better, set(static_cast<float>(table)), best_table);
            }
        }
    }
    alignas(64) float base[max_lanes], multiplier[max_lanes], table[max_lanes];
    hn::Store(best_base, DF(), base);
    hn::Store(best_multiplier, DF(), multiplier);
    hn::Store(best_table, DF(), table);
    for (std::size_t lane = 0; lane < hn::Lanes(DF()); ++lane)
        out[lane] = {static_cast<int>(base[lane]), static_cast<int>(multiplier[lane]), static_cast<int>(table[lane])};
}

}  // namespace

/// `texels`: 16 for each block; `value` of one of them in the scale's steps. `stride` bytes from one block to the next.
template <class T, class Value>
void encode_eac_blocks(const T* texels, std::size_t count, std::byte* out, std::size_t stride, const EacScale& scale, Effort effort,
                       const Value& value) {
    each_group(texels, count, [&](const T* group, std::size_t lanes, std::size_t first) {
        Plane values;
        for (std::size_t lane = 0; lane < hn::Lanes(DF()); ++lane)
            for (std::size_t i = 0; i < 16; ++i) values.v[i][lane] = value(group[lane * 16 + i]);
        std::array<EacCodes, max_lanes> codes;
        fit_eac(values, scale, effort, codes.data());
        for (std::size_t lane = 0; lane < lanes; ++lane) {
            const auto& c = codes[lane];
            std::uint64_t bits = static_cast<std::uint64_t>(c.base & 255) << 56 | static_cast<std::uint64_t>(c.multiplier) << 52 |
                                 static_cast<std::uint64_t>(c.table) << 48;
            for (std::size_t i = 0; i < 16; ++i) {
                const float v = values.v[i % 4 * 4 + i / 4][lane];  // down the columns
                std::uint64_t index = 0;
                float least_off = std::numeric_limits<float>::max();
                for (std::size_t k = 0; k < 8; ++k) {
                    const int decoded = std::clamp(c.base * scale.unit + scale.shift +
                                                       etc::eac_modifiers[static_cast<std::size_t>(c.table)][k] * scale.step(c.multiplier),
                                                   scale.low, scale.high);
                    const float off = std::abs(static_cast<float>(decoded) - v);
                    if (off < least_off) least_off = off, index = k;
                }
                bits |= index << (45 - 3 * i);
            }
            store_uint(out + (first + lane) * stride, bits, 8, ByteOrder::big);
        }
    });
}

void encode_eac_alpha_simd(const Texel* blocks, std::size_t count, std::byte* out, std::size_t stride, Effort effort) {
    encode_eac_blocks(blocks, count, out, stride, eac_alpha, effort, [](const Texel& t) { return static_cast<float>(t[3]); });
}

void encode_eac_channels_simd(const TexelF* blocks, std::size_t count, std::byte* out, std::size_t channels, bool is_signed,
                              Effort effort) {
    for (std::size_t c = 0; c < channels; ++c) {
        const auto put = [&](const EacScale& scale, float most_value) {
            encode_eac_blocks(blocks, count, out + c * 8, channels * 8, scale, effort, [&](const TexelF& t) {
                const float v = t[c];
                return std::isnan(v) ? 0.0f : std::clamp(v, is_signed ? -1.0f : 0.0f, 1.0f) * most_value;
            });
        };
        if (is_signed) put(eac_signed, 1023);
        else put(eac_unsigned, 2047);
    }
}

}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace skivet {
HWY_EXPORT(encode_eac_alpha_simd);
HWY_EXPORT(encode_eac_channels_simd);

void encode_eac_alpha(const Texel* blocks, std::size_t count, std::byte* out, std::size_t stride, Effort effort) {
    HWY_DYNAMIC_DISPATCH(encode_eac_alpha_simd)(blocks, count, out, stride, effort);
}
void encode_eac_r(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    HWY_DYNAMIC_DISPATCH(encode_eac_channels_simd)(blocks, count, out, 1, false, options.effort);
}
void encode_eac_r_snorm(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    HWY_DYNAMIC_DISPATCH(encode_eac_channels_simd)(blocks, count, out, 1, true, options.effort);
}
void encode_eac_rg(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    HWY_DYNAMIC_DISPATCH(encode_eac_channels_simd)(blocks, count, out, 2, false, options.effort);
}
void encode_eac_rg_snorm(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    HWY_DYNAMIC_DISPATCH(encode_eac_channels_simd)(blocks, count, out, 2, true, options.effort);
}

}  // namespace skivet
#endif

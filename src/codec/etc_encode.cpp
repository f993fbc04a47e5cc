// Encoding the colors of ETC1 and ETC2. A lane is a block (see lanes-inl.h).
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "codec/etc_encode.cpp"
#include <hwy/foreach_target.h>
//
#include "codec/etc_encode.h"
#include "codec/etc_paint-inl.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

using etc::Variant;

template <Variant variant>
EtcChoice fitted(const EtcBlocks& blocks, Effort effort) {
    constexpr bool holed = variant == Variant::punch_through;
    EtcChoice best;
    fit_halves<!holed, holed>(blocks, effort, best);
    if constexpr (variant != Variant::etc1) {
        const auto allowed = hn::And(hn::Gt(best.error, zero()), hn::Eq(blocks.holes, zero()));
        if (hn::AllFalse(DF(), allowed)) return best;
        fit_planar(blocks, effort, allowed, best);
        if (effort != Effort::fast) fit_paint(blocks, effort, allowed, best);
    }
    return best;
}

template <Variant variant>
void run(const Texel* texels, std::size_t count, std::byte* out, std::size_t stride, Effort effort) {
    constexpr bool holed = variant == Variant::punch_through;
    each_group(texels, count, [&](const Texel* group, std::size_t lanes, std::size_t first) {
        EtcBlocks blocks;
        load_channels(group, blocks.texels);
        blocks.holes = zero();
        for (std::size_t i = 0; i < 16 && holed; ++i) {
            const auto hole = hn::Lt(get(blocks.texels[3], i), set(128));
            put(blocks.weight, i, select(hole, zero(), set(1)));
            blocks.holes = select(hole, set(1), blocks.holes);
        }
        const auto best = fitted<variant>(blocks, effort);
        alignas(64) float mode[max_lanes], color[9][max_lanes], table[2][max_lanes];
        hn::Store(best.mode, DF(), mode);
        for (std::size_t i = 0; i < 9; ++i) hn::Store(best.color[i], DF(), color[i]);
        for (std::size_t i = 0; i < 2; ++i) hn::Store(best.table[i], DF(), table[i]);
        for (std::size_t lane = 0; lane < lanes; ++lane) {
            etc::Colors colors;
            colors.mode = static_cast<etc::Mode>(static_cast<int>(mode[lane]));
            for (std::size_t i = 0; i < 9; ++i) colors.color[i / 3][i % 3] = static_cast<int>(color[i][lane]);
            for (std::size_t i = 0; i < 2; ++i) colors.table[i] = static_cast<int>(table[i][lane]);
            store_uint(out + (first + lane) * stride, etc::pack_colors(colors, group + lane * 16, holed), 8, ByteOrder::big);
        }
    });
}

}  // namespace

void encode_etc_colors(const Texel* texels, std::size_t count, std::byte* out, std::size_t stride, etc::Variant variant, Effort effort) {
    switch (variant) {
        case Variant::etc1: return run<Variant::etc1>(texels, count, out, stride, effort);
        case Variant::rgb: return run<Variant::rgb>(texels, count, out, stride, effort);
        default: return run<Variant::punch_through>(texels, count, out, stride, effort);
    }
}

}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace skivet {
HWY_EXPORT(encode_etc_colors);

void encode_etc1(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    HWY_DYNAMIC_DISPATCH(encode_etc_colors)(blocks, count, out, 8, etc::Variant::etc1, options.effort);
}
void encode_etc2_rgb(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    HWY_DYNAMIC_DISPATCH(encode_etc_colors)(blocks, count, out, 8, etc::Variant::rgb, options.effort);
}
void encode_etc2_rgba1(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    HWY_DYNAMIC_DISPATCH(encode_etc_colors)(blocks, count, out, 8, etc::Variant::punch_through, options.effort);
}
void encode_etc2_rgba(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    HWY_DYNAMIC_DISPATCH(encode_etc_colors)(blocks, count, out + 8, 16, etc::Variant::rgb, options.effort);
    encode_eac_alpha(blocks, count, out, 16, options.effort);
}

}  // namespace skivet
#endif

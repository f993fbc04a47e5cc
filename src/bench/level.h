#pragma once
// One decoded level in whichever form holds it, and the values filters work on.
#include "codec/codec.h"
#include "pixel/mips.h"
#include "texture/texture.h"

namespace skivet {

/// 8-bit formats: 0…1, color in linear light when `linear`. Wide formats: true values, likewise.
inline ByteRows rows_of(const Image& level, bool linear) { return {level, linear}; }
inline FloatRows rows_of(const ImageF& level, bool linear) { return FloatRows(level, linear); }
inline Texel from_work(const TexelF& t, bool linear, const Texel&) {
    Texel out;
    to_bytes(&t, 1, linear, &out);
    return out;
}
inline TexelF from_work(TexelF t, bool linear, const TexelF&) {
    for (std::size_t c = 0; c < 3 && linear; ++c) t[c] = linear_to_srgb(t[c]);
    return t;
}

template <class Picture>
Result<Picture> decode_level(const TextureFile& texture, std::uint32_t mip, std::uint32_t layer, std::uint32_t face,
                             std::uint32_t slice = 0) {
    if constexpr (std::is_same_v<Picture, Image>) return texture.decode(mip, layer, face, slice);
    else return texture.decode_wide(mip, layer, face, slice);
}

/// The next level with everything the recipe says; `coverage` is level 0's.
inline ImageF whole_next_level(const RowSource& source, const MipRecipe& recipe, const NormalChannels& normals, double coverage) {
    auto level = next_level(source, recipe, normals, next_rect(source.width(), source.height()));
    if (recipe.coverage) keep_coverage(level, recipe.coverage, coverage);
    return level;
}

}  // namespace skivet

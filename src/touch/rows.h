#pragma once
// What the table's touch-ups do, by the kind of thing they work on.
#include "touch/touch_up.h"

namespace skivet::touches {

/// The luminance of encoded color, encoded: of linear light by Rec. ITU-R BT.709, item 3.2, which are sRGB's primaries.
[[nodiscard]] float gray_of(const TexelF& texel);

TexelF recolor(const TexelF& t, std::size_t, const TouchArgs& args);
TexelF tint(const TexelF& t, std::size_t, const TouchArgs& args);
TexelF turn(const TexelF& t, std::size_t, const TouchArgs& args);
TexelF brighten(const TexelF& t, std::size_t, const TouchArgs& args);
TexelF contrast(const TexelF& t, std::size_t, const TouchArgs& args);
TexelF saturate(const TexelF& t, std::size_t, const TouchArgs& args);
TexelF gray(const TexelF& t, std::size_t, const TouchArgs& args);
TexelF alpha(const TexelF& t, std::size_t, const TouchArgs& args);
TexelF alpha_gray(const TexelF& t, std::size_t, const TouchArgs& args);
TexelF alpha_file(const TexelF& t, std::size_t at, const TouchArgs& args);
TexelF alpha_invert(const TexelF& t, std::size_t, const TouchArgs& args);
TexelF alpha_cut(const TexelF& t, std::size_t, const TouchArgs& args);
TexelF flip_green(const TexelF& t, std::size_t, const TouchArgs& args);
TexelF rebuild_z(const TexelF& t, std::size_t, const TouchArgs& args);
TexelF channel(const TexelF& t, std::size_t at, const TouchArgs& args);

ImageF normals(const ImageF& picture, const TouchArgs& args);
ImageF edges(const ImageF& picture, const TouchArgs& args);
ImageF soften(const ImageF& picture, const TouchArgs& args);
ImageF sharpen(const ImageF& picture, const TouchArgs& args);
ImageF bleed(const ImageF& picture, const TouchArgs& args);
ImageF resized(const ImageF& picture, const TouchArgs& args);
ImageF padded(const ImageF& picture, const TouchArgs& args);
ImageF cropped(const ImageF& picture, const TouchArgs& args);

}  // namespace skivet::touches

#pragma once
// Textures without a header: what bytes say of themselves. Windows of the file are counted through for the traits of block formats and of
// rows of texels; where they show, the width is the distance at which rows fit under each other (the average magnitude difference function,
// M. J. Ross et al., IEEE Trans. ASSP 22, 1974); beginning and end are where they stop fitting, at sizes and places textures usually have;
// levels are there when what follows is the picture halved.
#include <functional>

#include "base/progress.h"
#include "texture/texture.h"

namespace skivet {

struct BareTexture {
    std::uint64_t at = 0, size = 0;  ///< bytes of all levels
    TextureDesc desc;                ///< of paletted ones the format of the palette's entries
    bool smallest_first = false;     ///< the order of the levels
    unsigned palette_bits = 0;       ///< 8: texels are numbers of palette entries
    std::uint64_t palette_at = 0;    ///< bytes
    double confidence = 0;           ///< 0…1
    double roughness = 1;            ///< of neighboring texels, beside any two: 0 smooth, 1 random
};

/// Those of at least 64×64 texels or as many, in the order in which they lie; none overlaps another. Red and blue cannot be told apart for
/// certain where a format has both orders. `looked_at` is called with so many bytes more that are done with, data.size() in total. Error
/// `canceled`.
[[nodiscard]] Result<std::vector<BareTexture>> find_bare_textures(ByteSpan data, const CancelToken& cancel,
                                                                  const std::function<void(std::uint64_t)>& looked_at = {});

}  // namespace skivet

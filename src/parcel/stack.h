#pragma once
// Several changes of one texture, one above the other. What comes out depends on the original and on the layers alone, never on how it came
// about: so any of them can go again, in any order.
#include "parcel/change.h"

namespace skivet {

/// What one parcel, or one's own work, does to a texture.
struct TextureLayer {
    TextureChange change;  ///< of the original; used when `whole` is empty
    Bytes whole;           ///< the whole file it becomes: another size, format or kind, or one that nobody knows as a change
};

struct Composed {
    Bytes file;
    std::vector<std::size_t> left_out;  ///< layers that change what one above them changes, too; in order
    bool mended_levels = false;         ///< smaller levels in which several layers meet were made of all of them
};

/// Layers from the lowest to the uppermost. Two meet where they give the same unit of a largest level (or of what is no level) different
/// content: then the upper one stays, the other is left out as a whole; `preferred` counts as the uppermost of all. Layers that meet in
/// smaller levels alone both stay: such a unit gets original + Σ (layer - original), texel by texel, encoded anew (the uppermost's
/// content in formats that are only read). A whole file meets every other layer. All changes must fit the original. Errors: those of the
/// codec and of the file's kind.
[[nodiscard]] Result<Composed> compose(const TextureFile& original, std::span<const TextureLayer> layers,
                                       std::optional<std::size_t> preferred = std::nullopt);

/// A whole file as a change where it is one of this original; otherwise as it is.
[[nodiscard]] TextureLayer as_layer(const TextureFile& original, Bytes file, std::string_view path, const TextureKinds& kinds,
                                    const ReadLimits& limits);

}  // namespace skivet

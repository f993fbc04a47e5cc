#pragma once
// A change on another version of its texture.
#include "parcel/change.h"

namespace skivet {

/// The change as one of `base`, where that holds what the change was made for: itself, where every run fits; with its smaller levels made
/// anew from the largest, as base's are, where every run of the largest fits. Nothing where one does not. Errors are those of decoding.
[[nodiscard]] Result<std::optional<TextureChange>> rebased(const TextureFile& base, const TextureChange& change);

}  // namespace skivet

#pragma once
// Maps of a set that are made of another one by a rule: outlines, the alpha as a gray picture, gray, normals from height. Where a pair of
// the game's own textures shows such a rule, an edit of the one tells what becomes of the other.
#include <optional>

#include "base/progress.h"
#include "texture/texture.h"
#include "touch/touch_up.h"

namespace skivet {

struct Derivation {
    std::vector<std::string> way;  ///< touch-ups (touch_up.h) that make the map's colors of the base's picture; alpha becomes 255
    double explained = 0;          ///< share of the map's variance that they explain: 1 - mean squared difference / variance
};

/// The rule that explains the map best, when it explains at least nineteen twentieths; nothing for a map that hardly varies (a standard
/// deviation below 6 of 255). Both are looked at with sides of at most 1,024 texels and compared as 128×128 by box filters. Errors are
/// those of decoding, and `canceled`.
[[nodiscard]] Result<std::optional<Derivation>> find_derivation(const TextureFile& base, const TextureFile& map,
                                                                const CancelToken& cancel = {});

/// The touch-ups of a way.
[[nodiscard]] Result<std::vector<TouchUp>> parse_way(std::span<const std::string> way);
/// "its outlines", "its alpha" …, for "made of": what the way takes of the picture.
[[nodiscard]] std::string describe_way(std::span<const std::string> way);

}  // namespace skivet

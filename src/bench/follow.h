#pragma once
// One edit serves several textures: the same picture elsewhere, in other formats and sizes.
#include "bench/fitting.h"

namespace skivet {

/// What the edit of `leader` makes of `follower`, a copy of the same picture at any size: where nothing was painted the follower's own
/// texels, where all texels under a follower's texel were painted the edit brought to its size (box filter), in between the follower plus
/// its share of the change. So what was not edited keeps its blocks, whatever compression made of either. Both in paint form, 8 bits.
/// Errors are those of decoding.
[[nodiscard]] Result<EditedFile> follow_edit(const TextureFile& leader, const EditedFile& edited, const TextureFile& follower);

}  // namespace skivet

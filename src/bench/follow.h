#pragma once
// One edit serves several textures: the same picture elsewhere, in other formats and sizes.
#include "bench/fitting.h"

namespace skivet {

/// An edit as the game's texture would get it, mends made but not encoded, and what was there before; both in paint form and of one size.
struct MendedEdit {
    SharedImage before, after;
};
/// Error `unfit` when the edit's size is not the game's and no mend was pressed for that, and for what is taken out in one picture of
/// several faces or layers; others are those of the original.
[[nodiscard]] Result<MendedEdit> mended_edit(const TextureFile& original, EditedFile edited, const FitOptions& options);

/// What an edit of another picture makes of `follower`, a copy of `before` at any size: where `after` is as before the follower's own
/// texels, where all texels under a follower's texel were painted the edit brought to its size (box filter), in between the follower plus
/// its share of the change. So what was not edited keeps its blocks, whatever compression made of either. All in paint form, 8 bits.
/// Errors: `unfit` when `after` has another size than `before`, and those of decoding.
[[nodiscard]] Result<EditedFile> follow_edit(const Image& before, const Image& after, const TextureFile& follower);

}  // namespace skivet

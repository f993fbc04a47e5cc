#pragma once
// The levels of one layer and face after an edit of its largest level.
#include "bench/fitting.h"

namespace skivet {

struct RebuiltLevels {
    std::vector<SurfaceEdit> edits;
    std::vector<LevelFit> levels;
};

/// `before`: our decode of level 0; `after`: what it becomes, in stored form, same size. Texels that nothing under their filter's
/// footprint changed keep their values, and blocks of such texels their bytes. A touched texel is the filtered edit plus what the original
/// level had beyond the filter of the level above, by how much of its footprint is untouched. `smaller`: the original's levels below it,
/// decoded, where they are known already.
[[nodiscard]] Result<RebuiltLevels> rebuild_levels(const TextureFile& original, const MipGuess& mips, const EncodeOptions& options,
                                                   const Image& before, const Image& after, std::uint32_t layer = 0, std::uint32_t face = 0,
                                                   std::span<const Image> smaller = {});
/// The same with true values, for formats 8 bits do not hold.
[[nodiscard]] Result<RebuiltLevels> rebuild_levels(const TextureFile& original, const MipGuess& mips, const EncodeOptions& options,
                                                   const ImageF& before, const ImageF& after, std::uint32_t layer = 0,
                                                   std::uint32_t face = 0, std::span<const Image> smaller = {});

}  // namespace skivet

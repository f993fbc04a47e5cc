#pragma once
// Alpha on the way out and back: in the picture, as a gray picture beside it, or left in the game. Paint programs take alpha for
// transparency; where it is a mask, or must not change, it is safer apart.
#include "bench/export.h"
#include "bench/fitting.h"

namespace skivet {

enum class AlphaWay : std::uint8_t {
    kept,      ///< in the picture
    apart,     ///< as a gray picture beside an opaque one
    left_out,  ///< an opaque picture; on the way back the original's alpha returns
};
[[nodiscard]] std::string_view name_of(AlphaWay way);  ///< keep, split, drop
[[nodiscard]] std::optional<AlphaWay> alpha_way_named(std::string_view name);
/// Whether alpha can be taken out of what is exported so: PNG, TIFF and TGA of a format that has alpha.
[[nodiscard]] bool can_split_alpha(ExportAs as, const TextureDesc& desc);

/// One picture as two of the same size and precision.
struct AlphaApart {
    Bytes picture;  ///< opaque
    Bytes alpha;    ///< gray
};
/// Where can_split_alpha; otherwise error `usage`. Colors under zero alpha stay.
[[nodiscard]] Result<AlphaApart> export_alpha_apart(const TextureFile& texture, ExportAs as, Shown what = {});

/// Gives an edit that came without it its alpha: that of `gray`, or, when null, the original's, brought to the edit's size (box filter;
/// triangle where it becomes larger). Where `gray` is what was exported the original's alpha goes in, with all the precision it has.
/// Nothing happens where the format has no alpha, and for true values (OpenEXR), which keep theirs. Error `unfit` when `gray` has another
/// size than the edit.
[[nodiscard]] Status put_alpha(EditedFile& edited, const TextureFile& original, const EditedFile* gray);

}  // namespace skivet

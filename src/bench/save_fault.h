#pragma once
// What a program does to a whole picture while it saves, without anybody having painted it: told by comparing with the original, for what
// was not painted shows it texel by texel.
#include <optional>
#include <string_view>

#include "pixel/image.h"

namespace skivet {

enum class SaveFault : std::uint8_t {
    linear,         ///< sRGB values were decoded to linear light (IEC 61966-2-1): too dark
    encoded,        ///< values were sRGB-encoded once more: too bright
    upside_down,    ///< rows from bottom to top
    red_blue,       ///< red and blue changed places
    premultiplied,  ///< color is multiplied by the original's alpha
    on_white,       ///< laid on white by the original's alpha
    green,          ///< green the other way round, of normal maps
};

struct SaveFaultRow {
    SaveFault fault;
    std::string_view headline;  ///< for a person, with what it means in the game
    std::string_view detail;
};
[[nodiscard]] const SaveFaultRow& info(SaveFault fault);

/// The fault that explains the edit; both pictures in paint form and of one size. Of up to 16,384 texels spread over the picture those
/// count that the fault would change by more than 8 of 255 in some channel: at least 64 of them, two fifths as the fault makes them (within
/// 2), and at most a tenth as they were. The thresholds are ours: a repaint of half the picture must not hide the fault, and a faulty copy
/// of nothing must not be seen in a repaint.
[[nodiscard]] std::optional<SaveFault> find_save_fault(const Image& before, const Image& edited, bool normals);

/// Texels that are what the fault made of the original become the original's again, others go through the inverse where there is one (what
/// was painted on white stays). Alpha stays as it is. `before` and `own` are the original, `deep` is the edit with 16 bits (0…1), or null
/// together with `own`.
void undo_save_fault(SaveFault fault, const Image& before, Image& edited, const ImageF* own, ImageF* deep);

}  // namespace skivet

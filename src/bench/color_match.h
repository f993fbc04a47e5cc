#pragma once
// What an edited picture says about its colors, brought to sRGB.
#include "bench/fitting.h"

namespace skivet {

/// Brings the pictures of an edit from its own color space to sRGB, in 16 bits where it has them. Returns what was done, in plain words;
/// empty when nothing had to be. A gamma of 1/2.2 counts as sRGB: that is how programs write it.
[[nodiscard]] std::string match_color(EditedFile& edited);

}  // namespace skivet

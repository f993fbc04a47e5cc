#pragma once
// Touch-ups on what was read from an edited file.
#include <filesystem>

#include "bench/fitting.h"
#include "touch/touch_up.h"

namespace skivet {

/// The pictures that touch-ups name, read from files; names that are no whole paths lie in `folder`.
[[nodiscard]] TouchPictures touch_pictures_in(std::filesystem::path folder, const ReadLimits& limits);
/// Makes the touch-ups in every form of the picture that is there. The levels of an edit that is a texture file are then its own no longer.
/// Error `unsupported` for true values (OpenEXR, floats): touch-ups are made for encoded ones.
[[nodiscard]] Status touch(EditedFile& edited, std::span<const TouchUp> touches, const TouchPictures& pictures,
                           const CancelToken& cancel = {});

}  // namespace skivet

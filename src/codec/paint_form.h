#pragma once
#include "pixel/format.h"
#include "pixel/shared_image.h"

namespace skivet {

/// What a person looks at and paints on: formats with one channel become gray; channels the format does not store have their neutral
/// value.
[[nodiscard]] Image paint_form(Format format, Image decoded);
[[nodiscard]] ImageF paint_form(Format format, ImageF decoded);
/// The same picture where that is what a person paints on.
[[nodiscard]] SharedImage paint_form(Format format, const SharedImage& decoded);
/// The inverse: reduces an edit to what the format stores, in the form `decode` gives. Colored edits of one-channel formats become
/// Rec. 709 luma.
[[nodiscard]] Image stored_form(Format format, Image painted);
[[nodiscard]] ImageF stored_form(Format format, ImageF painted);

}  // namespace skivet

#pragma once
// PNG's row filters (PNG, third edition, section 9.2), undone.
#include <cstddef>
#include <cstdint>

#include "pixel/image.h"

namespace skivet::png {

/// How many rows undo_four takes at once.
inline constexpr std::size_t rows_at_once = 4;
/// Undoes four rows of `width` texels of `texel` bytes (1 to 4) while it copies each into the first bytes of a Texel; behind three bytes
/// comes 255, behind one or two whatever. `rows`: each begins with its filter; three bytes behind each must be readable. `above`: the row
/// above as it was written here, zeros for the first. False for a filter that there is not.
[[nodiscard]] bool undo_four(std::size_t texel, const std::uint8_t* const (&rows)[rows_at_once], const Texel* above,
                             Texel* const (&out)[rows_at_once], std::size_t width);

}  // namespace skivet::png

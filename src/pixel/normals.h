#pragma once
// Normal maps, told from the pixels.
#include <optional>

#include "pixel/format.h"
#include "pixel/mips.h"

namespace skivet {

/// Whether the picture (in stored form) is a tangent-space normal map, and where its parts are: in red, green and blue with length one; in
/// red and green; or in alpha and green, with nothing of its own in red and blue. Common practice, no source; the thresholds are ours: 95 %
/// of the vectors fit within 0.15, they point to the front in the mean, and they are not all the same.
[[nodiscard]] std::optional<NormalChannels> guess_normals(Format format, const Image& image);
/// "normals in red and green".
[[nodiscard]] std::string_view describe(const NormalChannels& channels);

/// What people know as a normal map, of one that does not store Z: X in red, Y in green, Z rebuilt in blue (128 for zero), opaque. Any
/// other picture as it is.
[[nodiscard]] Image with_z(const std::optional<NormalChannels>& normals, Image image);

/// Angle between two normals in degrees, Z rebuilt where it is not stored.
[[nodiscard]] double angle_between(const NormalChannels& channels, const TexelF& a, const TexelF& b);

}  // namespace skivet

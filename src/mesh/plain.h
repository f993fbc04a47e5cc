#pragma once
#include <optional>

#include "mesh/mesh.h"

namespace skivet {

/// Simple bodies for where there is no mesh, each with the whole texture on it once.
enum class PlainMesh : std::uint8_t { plate, cylinder, ball };
[[nodiscard]] std::string_view name_of(PlainMesh plain);
[[nodiscard]] std::optional<PlainMesh> plain_named(std::string_view name);
/// About 2 units high, upright along y, around the origin. `shape`: width by height of the texture. The plate has its shape and faces +z;
/// of the cylinder the texture goes round the mantle, as high as it has to be to keep its shape; of the ball it goes round by angles.
[[nodiscard]] Mesh plain_mesh(PlainMesh plain, float shape);

}  // namespace skivet

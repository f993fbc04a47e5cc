#pragma once
// Where one stands to look at a mesh.
#include <optional>

#include "mesh/mesh.h"

namespace skivet {

/// A pinhole camera; right-handed, as the mesh is.
struct Camera {
    Vec3 eye = {0, 0, 1}, target = {0, 0, 0}, up = {0, 1, 0};
    float field = 0.7f;  ///< of view from top to bottom, radians
    bool operator==(const Camera&) const = default;
};

/// A camera on a ball around a point.
struct Orbit {
    Vec3 target = {0, 0, 0};
    float turn = 0;          ///< radians around the upright axis; 0 looks along -z, at what faces +z
    float rise = 0;          ///< radians above the horizon
    float distance = 1;      ///< in the mesh's unit
    bool upright_z = false;  ///< z is up, not y
    bool operator==(const Orbit&) const = default;
};
[[nodiscard]] Camera camera_of(const Orbit& orbit);
/// All of a box in a picture of this shape, seen a little from the side and above.
[[nodiscard]] Orbit whole(const Box3& box, float width_by_height, float field = Camera{}.field);
/// `orbit` so that its target moves with a pointer that goes by a share of the picture's height, right and down.
[[nodiscard]] Orbit panned(const Orbit& orbit, float right, float down, float field = Camera{}.field);

/// The camera's axes, each of length one, and half the picture's height at distance 1.
struct CameraAxes {
    Vec3 right, up, forward;
    float half_height = 1;
};
[[nodiscard]] CameraAxes axes_of(const Camera& camera);
/// Where a point stands in a picture of `width` × `height` pixels, x right, y down; nothing when it lies behind the camera.
[[nodiscard]] std::optional<Vec2> projected(const Camera& camera, const Vec3& point, std::uint32_t width, std::uint32_t height);

}  // namespace skivet

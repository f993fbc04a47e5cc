#include "mesh/view.h"

#include <algorithm>

#include "mesh/vectors.h"

namespace skivet {

CameraAxes axes_of(const Camera& camera) {
    CameraAxes out;
    out.forward = normalized(camera.target - camera.eye);
    out.right = cross(out.forward, camera.up);
    if (length(out.right) < 1e-6f) out.right = cross(out.forward, std::abs(out.forward[2]) < 0.9f ? Vec3{0, 0, -1} : Vec3{1, 0, 0});
    out.right = normalized(out.right);
    out.up = cross(out.right, out.forward);
    out.half_height = std::tan(camera.field / 2);
    return out;
}

std::optional<Vec2> projected(const Camera& camera, const Vec3& point, std::uint32_t width, std::uint32_t height) {
    const auto axes = axes_of(camera);
    const auto away = point - camera.eye;
    const float depth = dot(away, axes.forward);
    if (depth <= 0) return std::nullopt;
    const float scale = static_cast<float>(height) / 2 / (axes.half_height * depth);
    return Vec2{static_cast<float>(width) / 2 + dot(away, axes.right) * scale, static_cast<float>(height) / 2 - dot(away, axes.up) * scale};
}

Camera camera_of(const Orbit& orbit) {
    const float level = std::cos(orbit.rise);
    const Vec3 away = {std::sin(orbit.turn) * level, std::sin(orbit.rise), std::cos(orbit.turn) * level};
    const auto placed = [&](const Vec3& v) { return orbit.upright_z ? Vec3{v[0], -v[2], v[1]} : v; };
    Camera out;
    out.target = orbit.target;
    out.eye = orbit.target + placed(away) * orbit.distance;
    out.up = placed({0, 1, 0});
    return out;
}

Orbit whole(const Box3& box, float width_by_height, float field) {
    Orbit out;
    out.target = box.middle();
    out.turn = 0.5f;
    out.rise = 0.25f;
    const float radius = std::max(box.radius(), 1e-6f), narrow = std::min(1.0f, std::max(width_by_height, 0.1f));
    out.distance = radius / std::sin(std::atan(std::tan(field / 2) * narrow));
    return out;
}

Orbit panned(const Orbit& orbit, float right, float down, float field) {
    const auto axes = axes_of(camera_of(orbit));
    const float unit = 2 * std::tan(field / 2) * orbit.distance;
    auto out = orbit;
    out.target = orbit.target - axes.right * (right * unit) + axes.up * (down * unit);
    return out;
}

}  // namespace skivet

#include "mesh/plain.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace skivet {
namespace {

constexpr int around = 96;
constexpr std::array<std::string_view, 3> names = {"plate", "cylinder", "ball"};

/// A grid of `across` × `down` quadrilaterals, the texture once over it from its upper left; `at(u, v)` says place and normal.
template <class At>
MeshPart grid(int across, int down, const At& at) {
    MeshPart part;
    part.uvs.emplace_back();
    for (int j = 0; j <= down; ++j)
        for (int i = 0; i <= across; ++i) {
            const float u = static_cast<float>(i) / static_cast<float>(across), v = static_cast<float>(j) / static_cast<float>(down);
            const auto [place, normal] = at(u, v);
            part.places.push_back(place);
            part.normals.push_back(normal);
            part.uvs[0].push_back({u, v});
        }
    for (int j = 0; j < down; ++j)
        for (int i = 0; i < across; ++i) {
            const auto a = static_cast<std::uint32_t>(j * (across + 1) + i), b = a + 1, c = a + static_cast<std::uint32_t>(across) + 1,
                       d = c + 1;
            for (const auto k : {a, c, d, a, d, b}) part.corners.push_back(k);
        }
    return part;
}

}  // namespace

std::string_view name_of(PlainMesh plain) { return names[static_cast<std::size_t>(plain)]; }

std::optional<PlainMesh> plain_named(std::string_view name) {
    const auto found = std::find(names.begin(), names.end(), name);
    return found == names.end() ? std::nullopt : std::optional(static_cast<PlainMesh>(found - names.begin()));
}

Mesh plain_mesh(PlainMesh plain, float shape) {
    constexpr float pi = std::numbers::pi_v<float>;
    shape = std::clamp(shape, 0.05f, 20.0f);
    Mesh out;
    switch (plain) {
        case PlainMesh::plate:
            out.parts.push_back(grid(1, 1, [&](float u, float v) {
                const float side = 2 / std::max(shape, 1.0f);
                return std::pair(Vec3{(u - 0.5f) * side * shape, (0.5f - v) * side, 0}, Vec3{0, 0, 1});
            }));
            break;
        case PlainMesh::cylinder:
            out.parts.push_back(grid(around, 1, [&](float u, float v) {
                const float height = std::min(2 * pi / shape, 6.0f), turn = u * 2 * pi - pi;  // the middle of the texture in front
                const Vec3 out_from = {std::sin(turn), 0, std::cos(turn)};
                return std::pair(Vec3{out_from[0], (0.5f - v) * height, out_from[2]}, out_from);
            }));
            break;
        case PlainMesh::ball:
            out.parts.push_back(grid(around, around / 2, [&](float u, float v) {
                const float turn = u * 2 * pi - pi, down = v * pi;
                const Vec3 p = {std::sin(down) * std::sin(turn), std::cos(down), std::sin(down) * std::cos(turn)};
                return std::pair(p, p);
            }));
            break;
    }
    out.parts[0].name = name_of(plain);
    return out;
}

}  // namespace skivet

#pragma once
// Meshes of things: what a texture is laid on.
#include <array>
#include <cstdint>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace skivet {

using Vec2 = std::array<float, 2>;
using Vec3 = std::array<float, 3>;
using Color4 = std::array<float, 4>;

/// What a material wants a map for.
enum class MapUse : std::uint8_t { base_color, normal, roughness, gloss, metalness, occlusion, emission, specular, opacity, rough_metal };
inline constexpr std::size_t map_use_count = 10;

struct MapName {
    MapUse use = MapUse::base_color;
    std::string path;  ///< as the file has it
    bool operator==(const MapName&) const = default;
};

/// Triangles with one material. Every vertex has a place; normals and each set of UVs are empty or have one for every vertex.
struct MeshPart {
    std::string name;                    ///< of the object it belongs to
    std::string material;                ///< may be empty
    std::vector<MapName> maps;           ///< pictures the material names
    std::vector<Vec3> places;            ///< in the file's unit, right-handed
    std::vector<Vec3> normals;           ///< empty: faces are flat
    std::vector<std::vector<Vec2>> uvs;  ///< sets of texture coordinates; u runs right, v down, the whole texture from 0 to 1
    std::vector<std::uint32_t> corners;  ///< indices of vertices, three a triangle, counterclockwise seen from outside
    std::vector<Color4>
        colors;  ///< R, G, B, A from 0 to 1 in linear light, by which the base color is multiplied (glTF 2.0, 3.9.2); may be empty
    [[nodiscard]] std::size_t triangles() const { return corners.size() / 3; }
    bool operator==(const MeshPart&) const = default;
};

struct Box3 {
    Vec3 low = {0, 0, 0}, high = {0, 0, 0};
    [[nodiscard]] Vec3 middle() const { return {(low[0] + high[0]) / 2, (low[1] + high[1]) / 2, (low[2] + high[2]) / 2}; }
    /// Half the diagonal.
    [[nodiscard]] float radius() const;
};

struct Mesh {
    std::vector<MeshPart> parts;
    std::vector<std::string> notes;  ///< what was left out of the file, in words
    [[nodiscard]] std::size_t triangles() const;
    /// Of all corners of the named parts (all where there are none named); a point at the origin where there is none.
    [[nodiscard]] Box3 box(std::span<const std::size_t> parts_named = {}) const;
    bool operator==(const Mesh&) const = default;
};

/// What a part is called in lists: its name, its material, or both.
[[nodiscard]] std::string part_title(const MeshPart& part);
/// Parts of several meshes as one.
[[nodiscard]] Mesh joined(std::vector<Mesh> meshes);

struct MeshLimits {
    std::uint64_t file_bytes = 1ull << 30;
    std::uint64_t triangles = 8'000'000;
    std::uint64_t vertices = 24'000'000;
    std::uint32_t parts = 65'536;
    std::uint32_t uv_sets = 4;  ///< further ones are left out
    std::uint32_t name_bytes = 4096;
};

/// Parts of one thing at one distance.
struct DetailLevel {
    int number = 0;                  ///< as the names have it, 0 the finest; where none has one, 0
    std::vector<std::size_t> parts;  ///< indices into Mesh::parts; those without a number belong to every level
};
/// By names that end in "lod" and a number ("horse_lod1", "horse.LOD2"; common practice, no source), the finest first.
[[nodiscard]] std::vector<DetailLevel> levels_of_detail(const Mesh& mesh);
/// The number of a level of detail in a name; -1: none.
[[nodiscard]] int detail_number(std::string_view name);

}  // namespace skivet

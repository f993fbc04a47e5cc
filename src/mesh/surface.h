#pragma once
// The textures that lie on a mesh, and how they are looked up.
#include <memory>
#include <vector>

#include "mesh/mesh.h"
#include "pixel/image.h"

namespace skivet {

/// A texture's levels, the largest first.
struct SurfaceMap {
    std::vector<Image> levels;
    int above = 0;              ///< the texture\'s larger levels that are not here
    bool srgb = false;          ///< its color channels are encoded
    bool two_channels = false;  ///< a normal map whose blue is made from red and green
    [[nodiscard]] bool is_there() const { return !levels.empty() && levels.front().width > 0; }
};
using SharedMap = std::shared_ptr<const SurfaceMap>;

enum class AlphaMode : std::uint8_t { opaque, cut_out, blend };

/// What is laid on triangles; every map may be null. Values of maps count from 0 to 1, by the channel named.
struct MeshSurface {
    SharedMap base_color;  ///< and its alpha
    SharedMap normal;      ///< red along u, green up the picture (OpenGL's way), blue out
    SharedMap roughness;   ///< red
    SharedMap metalness;   ///< red
    SharedMap occlusion;   ///< red
    SharedMap emission;
    SharedMap specular;       ///< what is reflected looking straight at it, instead of what metalness says
    bool is_gloss = false;    ///< `roughness` is its opposite
    bool green_down = false;  ///< of `normal`: green runs down the picture (DirectX' way)
    AlphaMode alpha = AlphaMode::opaque;
    float cut_at = 0.5f;  ///< alpha below it is a hole
};

/// Which levels of textures are used.
struct LevelRule {
    float forced = -1;  ///< this level everywhere, between two for a fraction; below 0: by distance
    int start = 0;      ///< the first level the game has, as low texture quality starts further down the chain
    bool operator==(const LevelRule&) const = default;
};
/// The level for a texture of this size whose coordinates change so much from one pixel to the next, right and down; below 0 where it is
/// enlarged. log2 of the longer of the two in texels (Vulkan 1.3, section 16.5.7 "Scale Factor Operation", without anisotropy).
[[nodiscard]] float level_for(std::uint32_t width, std::uint32_t height, const Vec2& right, const Vec2& down);
/// The level that is really used, as an index into `levels`: within what is there. A rule counts the texture's levels, `wanted` those of
/// the map.
[[nodiscard]] float used_level(const SurfaceMap& map, const LevelRule& rule, float wanted);

/// R, G, B, A from 0 to 1, color in linear light: between the four nearest texels (repeating at the edges) and between two levels.
[[nodiscard]] TexelF sampled(const SurfaceMap& map, const Vec2& uv, float level);

}  // namespace skivet

#pragma once
// How a mesh lays its texture out: islands, what is mirrored or shared, how dense it is, and how near islands come to each other.
#include <optional>

#include "mesh/mesh.h"
#include "pixel/image.h"

namespace skivet {

struct UvTriangle {
    std::array<Vec2, 3> at = {};  ///< u right, v down
    std::uint32_t part = 0;       ///< index into Mesh::parts
    std::uint32_t triangle = 0;   ///< of that part
    std::uint32_t island = 0;
};

/// Triangles that hang together on the texture and on the thing alike.
struct UvIsland {
    std::vector<std::uint32_t> triangles;  ///< indices into UvLayout::triangles
    Vec2 low = {0, 0}, high = {0, 0};
    double area = 0;           ///< of the texture, 1 the whole (shoelace formula over its triangles)
    double surface = 0;        ///< of the thing, in the file's unit squared
    bool mirrored = false;     ///< seen from outside, the texture is the wrong way round: lettering comes out reversed
    bool outside = false;      ///< reaches beyond 0…1, where most games repeat the texture
    bool shared = false;       ///< another island lies on the same texels
    std::optional<float> gap;  ///< texels between it and the nearest other island that it shares none with; none where it is the only one
    /// Texels on a unit of length, for a texture of this size: √(area · width · height / surface).
    [[nodiscard]] double density(std::uint32_t width, std::uint32_t height) const;
};

struct UvLayout {
    std::uint32_t width = 0, height = 0;  ///< of the texture
    std::vector<UvTriangle> triangles;    ///< by part, then by its triangles
    std::vector<UvIsland> islands;        ///< the largest first
    double used = 0;                      ///< share of the texture that some island covers, 0…1
    double twice = 0;                     ///< share that two or more do
    bool complete = true;                 ///< false: the islands reach so far that who shares what was not looked at to the end
    std::size_t without_uv = 0;           ///< triangles of parts that have no coordinates of this set
    /// Islands at a point from 0 to 1, the largest first; those that reach beyond count where the texture repeats.
    [[nodiscard]] std::vector<std::uint32_t> at(Vec2 uv) const;
    /// The island of a part's triangle; nothing where it is not of this layout.
    [[nodiscard]] std::optional<std::uint32_t> island_of(std::uint32_t part, std::uint32_t triangle) const;
};
/// Of the named parts (all where there are none), for a texture of `width` × `height` texels. Which texels an island covers is looked at on
/// a grid of at most 1,024 on a side, by their middles.
[[nodiscard]] UvLayout uv_layout(const Mesh& mesh, std::span<const std::size_t> parts, std::uint32_t set, std::uint32_t width,
                                 std::uint32_t height);

/// The first level whose texels are wider than the gap, so that one of them may have colors of both islands: the smallest m with 2^m > gap.
[[nodiscard]] std::uint32_t bleeding_level(float gap);

struct UvLine {
    Vec2 from = {0, 0}, to = {0, 0};
    std::uint32_t island = 0;
    bool border = false;  ///< of the island; others lie inside it
};
/// Islands that lie wholly beyond 0…1 are brought to where their texels are.
[[nodiscard]] std::vector<UvLine> uv_lines(const UvLayout& layout);

struct UvInk {
    Texel border = {20, 20, 20, 255}, inner = {20, 20, 20, 110}, mirrored = {204, 112, 0, 255}, shared = {30, 110, 110, 255};
    bool inside_lines = true;
};
/// Draws the lines over a picture of any size, a pixel and a half wide.
void draw_uv(Image& on, const UvLayout& layout, const UvInk& ink = {});
/// The same as SVG 1.1, one path an island; `width` and `height` of the layout are its user units.
/// `picture`: where the texture's picture is, laid under them (an address, as "data:image/png;base64,…"); empty: none.
[[nodiscard]] std::string uv_svg(const UvLayout& layout, const UvInk& ink = {}, std::string_view picture = {});

}  // namespace skivet

#include "mesh/uv.h"

#include <gtest/gtest.h>
#include <cmath>
#include <string>
#include <vector>

namespace skivet {
namespace {

/// A quadrilateral standing at z, counterclockwise seen from +z, with its texture at [u0, u1] × [v0, v1], v down.
void add_quad(MeshPart& part, float z, Vec2 low, Vec2 high, bool mirrored = false, float x = 0) {
    if (part.uvs.empty()) part.uvs.emplace_back();
    const auto first = static_cast<std::uint32_t>(part.places.size());
    for (const auto& p : {Vec3{x, 0, z}, Vec3{x + 1, 0, z}, Vec3{x + 1, 1, z}, Vec3{x, 1, z}}) part.places.push_back(p);
    const float left = mirrored ? high[0] : low[0], right = mirrored ? low[0] : high[0];
    for (const auto& t : {Vec2{left, high[1]}, Vec2{right, high[1]}, Vec2{right, low[1]}, Vec2{left, low[1]}}) part.uvs[0].push_back(t);
    for (const auto k : {0u, 1u, 2u, 0u, 2u, 3u}) part.corners.push_back(first + k);
}

Mesh mesh_of(MeshPart part) {
    Mesh out;
    out.parts.push_back(std::move(part));
    return out;
}

TEST(Uv, AreasByTheShoelaceFormula) {  // A = ½ |Σ (xᵢ yᵢ₊₁ - xᵢ₊₁ yᵢ)|
    MeshPart part;
    part.places = {{0, 0, 0}, {2, 0, 0}, {0, 3, 0}};
    part.uvs = {{{0.1f, 0.9f}, {0.7f, 0.8f}, {0.2f, 0.3f}}};
    part.corners = {0, 1, 2};
    const auto layout = uv_layout(mesh_of(part), {}, 0, 256, 128);
    ASSERT_EQ(layout.islands.size(), 1u);
    // ½ |0.1·0.8 - 0.7·0.9 + 0.7·0.3 - 0.2·0.8 + 0.2·0.9 - 0.1·0.3| = 0.175
    EXPECT_NEAR(layout.islands[0].area, 0.175, 1e-6);
    EXPECT_NEAR(layout.islands[0].surface, 3, 1e-6);
    EXPECT_NEAR(layout.islands[0].density(256, 128), std::sqrt(0.175 * 256 * 128 / 3), 1e-3);
    EXPECT_NEAR(layout.used, 0.175, 0.002);
    EXPECT_FALSE(layout.islands[0].mirrored);
}

TEST(Uv, ASquareOfTexelsIsCoveredExactly) {
    MeshPart part;
    add_quad(part, 0, {0.25f, 0.5f}, {0.75f, 1});
    const auto layout = uv_layout(mesh_of(part), {}, 0, 64, 64);
    EXPECT_EQ(layout.islands.size(), 1u);
    EXPECT_DOUBLE_EQ(layout.used, 0.25);  // no cell twice along the diagonal, none lost
    EXPECT_EQ(layout.twice, 0);
    EXPECT_FALSE(layout.islands[0].shared);
}

TEST(Uv, BothSidesOnOnePlaceAreSharedAndOneIsMirrored) {
    MeshPart part;
    add_quad(part, 0, {0, 0}, {1, 1});
    // Seen from behind: the same quadrilateral turned round, so that its outside is -z, with the picture as it shines through.
    const auto first = static_cast<std::uint32_t>(part.places.size());
    for (const auto& p : {Vec3{1, 0, -0.1f}, Vec3{0, 0, -0.1f}, Vec3{0, 1, -0.1f}, Vec3{1, 1, -0.1f}}) part.places.push_back(p);
    for (const auto& t : {Vec2{1, 1}, Vec2{0, 1}, Vec2{0, 0}, Vec2{1, 0}}) part.uvs[0].push_back(t);
    for (const auto k : {0u, 1u, 2u, 0u, 2u, 3u}) part.corners.push_back(first + k);
    const auto layout = uv_layout(mesh_of(part), {}, 0, 128, 128);
    ASSERT_EQ(layout.islands.size(), 2u);
    EXPECT_NE(layout.islands[0].mirrored, layout.islands[1].mirrored);
    EXPECT_TRUE(layout.islands[0].shared);
    EXPECT_TRUE(layout.islands[1].shared);
    EXPECT_DOUBLE_EQ(layout.twice, 1);
    EXPECT_FALSE(layout.islands[0].gap);
    EXPECT_EQ(layout.at({0.5f, 0.25f}).size(), 2u);
}

TEST(Uv, FacesThatRunTheWrongWayAreToldByTheirNormals) {
    MeshPart part;
    add_quad(part, 0, {0, 0}, {1, 1});
    for (std::size_t i = 0; i < part.corners.size(); i += 3) std::swap(part.corners[i], part.corners[i + 1]);
    EXPECT_TRUE(uv_layout(mesh_of(part), {}, 0, 16, 16).islands[0].mirrored);
    part.normals.assign(4, {0, 0, 1});
    EXPECT_FALSE(uv_layout(mesh_of(part), {}, 0, 16, 16).islands[0].mirrored);
}

TEST(Uv, TheGapBetweenIslandsInTexels) {
    for (const std::uint32_t side : {64u, 256u, 1024u}) {
        MeshPart part;
        const float texel = 1.0f / static_cast<float>(side);
        add_quad(part, 0, {0, 0}, {20 * texel, 20 * texel});
        add_quad(part, 0, {28 * texel, 0}, {48 * texel, 20 * texel}, false, 3);
        const auto layout = uv_layout(mesh_of(part), {}, 0, side, side);
        ASSERT_EQ(layout.islands.size(), 2u);
        for (const auto& island : layout.islands) {
            ASSERT_TRUE(island.gap);
            EXPECT_NEAR(*island.gap, 8, 1e-3) << side;
        }
    }
    EXPECT_EQ(bleeding_level(8), 4u);
    EXPECT_EQ(bleeding_level(7.9f), 3u);
    EXPECT_EQ(bleeding_level(0), 0u);
}

TEST(Uv, WhatRepeatsIsOutsideAndWrapsAround) {
    MeshPart part;
    add_quad(part, 0, {0.5f, 0}, {1.5f, 1});
    auto layout = uv_layout(mesh_of(part), {}, 0, 32, 32);
    EXPECT_TRUE(layout.islands[0].outside);
    EXPECT_DOUBLE_EQ(layout.used, 1);
    part = {};
    add_quad(part, 0, {0, 0}, {1e6f, 1e6f});
    layout = uv_layout(mesh_of(part), {}, 0, 4096, 4096);
    EXPECT_FALSE(layout.complete);  // and it came back
}

TEST(Uv, LongIslandsWithoutACellEndThereToo) {
    // Each is 0.001 texels wide and thirty million rows high: none covers the middle of a cell, and every row has to be looked at to know.
    MeshPart part;
    for (int i = 0; i < 4; ++i) add_quad(part, static_cast<float>(i), {0.25f, 0}, {0.250001f, 30000});
    const auto layout = uv_layout(mesh_of(part), {}, 0, 1024, 1024);
    EXPECT_EQ(layout.used, 0);
    EXPECT_FALSE(layout.complete);
}

TEST(Uv, SeamsPartIslandsAndPartsWithoutCoordinatesAreCounted) {
    MeshPart part;
    add_quad(part, 0, {0, 0}, {0.5f, 0.5f});
    add_quad(part, 0, {0.5f, 0.5f}, {1, 1}, false, 1);  // joined on the thing, not on the texture
    auto mesh = mesh_of(part);
    mesh.parts.push_back({"bare", "", {}, part.places, {}, {}, part.corners});
    const auto layout = uv_layout(mesh, {}, 0, 64, 64);
    EXPECT_EQ(layout.islands.size(), 2u);
    EXPECT_EQ(layout.without_uv, 4u);
    const std::vector<std::size_t> only = {1};
    EXPECT_TRUE(uv_layout(mesh, only, 0, 64, 64).islands.empty());
}

TEST(Uv, LinesOfASquareAreFourBordersAndADiagonal) {
    MeshPart part;
    add_quad(part, 0, {0.25f, 0.25f}, {0.75f, 0.75f});
    const auto layout = uv_layout(mesh_of(part), {}, 0, 64, 64);
    const auto lines = uv_lines(layout);
    EXPECT_EQ(std::count_if(lines.begin(), lines.end(), [](const auto& l) { return l.border; }), 4);
    EXPECT_EQ(std::count_if(lines.begin(), lines.end(), [](const auto& l) { return !l.border; }), 1);
    Image picture(64, 64, {0, 0, 0, 0});
    draw_uv(picture, layout);
    EXPECT_EQ(picture.at(15, 32)[3], 191);  // the left border, at x = 16: a pixel and a half wide
    EXPECT_EQ(picture.at(16, 32)[3], 191);
    EXPECT_EQ(picture.at(40, 30)[3], 0);
    EXPECT_EQ(picture.at(4, 4)[3], 0);
    EXPECT_EQ(picture.at(15, 32)[0], UvInk{}.border[0]);
    const auto svg = uv_svg(layout);
    EXPECT_NE(svg.find("viewBox=\"0 0 64 64\""), std::string::npos);
    EXPECT_NE(svg.find("M16.000 16.000L48.000 16.000"), std::string::npos) << svg;
}

TEST(Uv, LinesFarOutsideThePictureCostNothing) {
    MeshPart part;
    add_quad(part, 0, {-1e7f, -1e7f}, {1e7f, 1e7f});
    UvLayout layout;
    layout.width = layout.height = 32;
    layout.islands.emplace_back();
    for (std::uint32_t t = 0; t < 2; ++t) {
        UvTriangle triangle;
        for (std::size_t k = 0; k < 3; ++k) triangle.at[k] = part.uvs[0][part.corners[t * 3 + k]];
        layout.triangles.push_back(triangle);
    }
    Image picture(32, 32, {0, 0, 0, 0});
    draw_uv(picture, layout);
    EXPECT_EQ(picture.at(3, 20)[3], 0);
}

}  // namespace
}  // namespace skivet

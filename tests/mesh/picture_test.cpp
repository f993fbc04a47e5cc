// Pictures against what can be worked out by hand.
#include <gtest/gtest.h>
#include <tbb/global_control.h>
#include <cmath>
#include <numbers>
#include <vector>

#include "mesh/mesh_picture.h"
#include "mesh/vectors.h"

namespace skivet {
namespace {

constexpr float pi = std::numbers::pi_v<float>;

/// A square from -1 to 1 in the plane z, facing +z, the texture upright on it.
Mesh square(float z = 0, float repeat = 1) {
    MeshPart part;
    part.places = {{-1, -1, z}, {1, -1, z}, {1, 1, z}, {-1, 1, z}};
    part.uvs = {{{0, repeat}, {repeat, repeat}, {repeat, 0}, {0, 0}}};
    part.corners = {0, 1, 2, 0, 2, 3};
    Mesh out;
    out.parts.push_back(std::move(part));
    return out;
}

Mesh ball(int n) {
    MeshPart part;
    part.uvs.emplace_back();
    for (int j = 0; j <= n; ++j)
        for (int i = 0; i <= n; ++i) {
            const float a = 2 * pi * static_cast<float>(i) / static_cast<float>(n), b = pi * static_cast<float>(j) / static_cast<float>(n);
            const Vec3 p = {std::sin(b) * std::sin(a), std::cos(b), std::sin(b) * std::cos(a)};
            part.places.push_back(p);
            part.normals.push_back(p);
            part.uvs[0].push_back({static_cast<float>(i) / static_cast<float>(n), static_cast<float>(j) / static_cast<float>(n)});
        }
    for (int j = 0; j < n; ++j)
        for (int i = 0; i < n; ++i) {
            const auto a = static_cast<std::uint32_t>(j * (n + 1) + i), b = a + 1, c = a + static_cast<std::uint32_t>(n) + 1, d = c + 1;
            for (const auto v : {a, c, d, a, d, b}) part.corners.push_back(v);
        }
    Mesh out;
    out.parts.push_back(std::move(part));
    return out;
}

/// Straight before the square, so that it fills the picture exactly.
Camera before(float z = 0) {
    Camera out;
    out.field = 2 * std::atan(0.5f);
    out.eye = {0, 0, z + 2};
    out.target = {0, 0, z};
    return out;
}

SharedMap map_of(std::vector<Image> levels, bool srgb = false) {
    auto out = std::make_shared<SurfaceMap>();
    out->levels = std::move(levels);
    out->srgb = srgb;
    return out;
}

Image numbered(std::uint32_t side, std::uint8_t blue) {
    Image out(side, side);
    for (std::uint32_t y = 0; y < side; ++y)
        for (std::uint32_t x = 0; x < side; ++x)
            out.at(x, y) = {static_cast<std::uint8_t>(x * 255 / std::max(1u, side - 1)),
                            static_cast<std::uint8_t>(y * 255 / std::max(1u, side - 1)), blue, 255};
    return out;
}

MeshRays rays_of(Mesh mesh) {
    auto out = MeshRays::make(std::make_shared<const Mesh>(std::move(mesh)));
    EXPECT_TRUE(out);
    return std::move(*out);
}

Image drawn(const MeshRays& rays, const Camera& camera, std::uint32_t side, const std::vector<MeshSurface>& surfaces,
            const PictureLook& look) {
    auto out = rays.picture(camera, side, side, surfaces, look);
    EXPECT_TRUE(out);
    return std::move(*out);
}

PictureLook bare() {
    PictureLook look;
    look.shown = PictureLook::Shown::base_color;
    return look;
}

TEST(MeshPicture, ATexelAPixelIsThatTexel) {
    MeshSurface surface;
    surface.base_color = map_of({numbered(64, 0), numbered(32, 50), numbered(16, 100), numbered(8, 150)}, true);
    const auto rays = rays_of(square());
    // The square fills 64 pixels: level 0 exactly. At 16 pixels it is level 2, at 8 level 3.
    for (const auto& [side, level] : {std::pair{64u, 0u}, {32u, 1u}, {16u, 2u}, {8u, 3u}}) {
        const auto picture = drawn(rays, before(), side, {surface}, bare());
        EXPECT_EQ(picture, surface.base_color->levels[level]) << side;
    }
}

TEST(MeshPicture, LevelsByDistanceAsTheyAreDefined) {
    // Vulkan 1.3, section 16.5.7: λ = log2 of the longer step in texels.
    EXPECT_FLOAT_EQ(level_for(256, 256, {1.0f / 256, 0}, {0, 1.0f / 256}), 0);
    EXPECT_FLOAT_EQ(level_for(256, 256, {4.0f / 256, 0}, {0, 1.0f / 256}), 2);
    EXPECT_FLOAT_EQ(level_for(512, 256, {3.0f / 512, 4.0f / 256}, {0, 0}), std::log2(5.0f));
    EXPECT_LT(level_for(256, 256, {0.5f / 256, 0}, {0, 0}), 0);
    SurfaceMap map;
    map.levels.resize(5);
    EXPECT_EQ(used_level(map, {}, 2.5f), 2.5f);
    EXPECT_EQ(used_level(map, {}, -3), 0);
    EXPECT_EQ(used_level(map, {}, 9), 4);
    EXPECT_EQ(used_level(map, {3, 0}, 0), 3);
    EXPECT_EQ(used_level(map, {-1, 2}, 0), 2);  // low texture quality
    EXPECT_EQ(used_level(map, {-1, 9}, 0), 4);
}

TEST(MeshPicture, TwiceAsFarIsOneLevelFurther) {
    std::vector<Image> levels;
    for (std::uint32_t side = 256, i = 0; side > 0; side /= 2, ++i)
        levels.emplace_back(side, side, Texel{static_cast<std::uint8_t>(i * 20), 0, 0, 255});
    MeshSurface surface;
    surface.base_color = map_of(std::move(levels));
    const auto rays = rays_of(square());
    for (int i = 0; i < 5; ++i) {
        auto camera = before();
        camera.eye[2] = 2 * std::ldexp(1.0f, i);
        // Of 256 pixels the square takes 256 / 2^i. The value is linear, the picture encoded.
        const auto picture = drawn(rays, camera, 256, {surface}, bare());
        EXPECT_NEAR(srgb_to_linear(static_cast<float>(picture.at(128, 128)[0]) / 255) * 255, i * 20, 1) << i;
    }
}

TEST(MeshPicture, PerspectiveAsWorkedOutByHand) {
    // Eye at (0, 0, 4), half the field's tangent 0.5, picture 200 × 100: half the height is 50 pixels = 0.5 · depth.
    Camera camera;
    camera.eye = {0, 0, 4};
    camera.field = 2 * std::atan(0.5f);
    auto at = projected(camera, {0, 0, 0}, 200, 100);
    ASSERT_TRUE(at);
    EXPECT_NEAR((*at)[0], 100, 1e-4);
    EXPECT_NEAR((*at)[1], 50, 1e-4);
    at = projected(camera, {1, 0.5f, 0}, 200, 100);  // x: 1 / (0.5 · 4) · 50 = 25
    EXPECT_NEAR((*at)[0], 125, 1e-4);
    EXPECT_NEAR((*at)[1], 37.5, 1e-4);
    at = projected(camera, {1, 0.5f, 2}, 200, 100);  // half as far away, twice as large
    EXPECT_NEAR((*at)[0], 150, 1e-4);
    EXPECT_NEAR((*at)[1], 25, 1e-4);
    EXPECT_FALSE(projected(camera, {0, 0, 5}, 200, 100));
}

TEST(MeshPicture, APickedPointIsWhereItIsDrawn) {
    const auto mesh = std::make_shared<const Mesh>(ball(40));
    const auto rays = MeshRays::make(mesh);
    ASSERT_TRUE(rays);
    auto orbit = whole(mesh->box(), 1.6f);
    std::size_t hits = 0;
    for (float turn = 0; turn < 6; turn += 0.7f) {
        orbit.turn = turn;
        const auto camera = camera_of(orbit);
        for (float x = 20; x < 320; x += 37)
            for (float y = 10; y < 200; y += 31) {
                const auto hit = rays->hit(camera, 320, 200, {x, y});
                if (!hit) continue;
                ++hits;
                const auto at = projected(camera, hit->place, 320, 200);
                ASSERT_TRUE(at);
                EXPECT_NEAR((*at)[0], x, 0.01);
                EXPECT_NEAR((*at)[1], y, 0.01);
                EXPECT_NEAR(length(hit->place), 1, 0.01);
                // The ball's texture is laid by its angles.
                const float u = std::atan2(hit->place[0], hit->place[2]) / (2 * pi), v = std::acos(hit->place[1] / length(hit->place)) / pi;
                if (v > 0.1f && v < 0.9f) {
                    EXPECT_NEAR(std::remainder(hit->uv[0] - u, 1.0f), 0, 0.01);
                    EXPECT_NEAR(hit->uv[1], v, 0.01);
                }
            }
    }
    EXPECT_GT(hits, 60u);
}

TEST(MeshPicture, ABallIsLitAsLambertSays) {
    // The light beside the camera; matt and white. glTF 2.0, B.3 with α = 1 and h = v: F = 0.04, D = 1 / π, V = 1 / (4 cos), so of a light
    // of 0.9 π there is 0.9 (0.96 cos + 0.04 / 4).
    auto mesh = ball(160);
    PictureLook look;
    look.light.towards = {0, 0, 1};
    look.light.around = 0;
    look.light.direct = 0.9f;
    MeshSurface surface;
    surface.base_color = map_of({Image(1, 1, {255, 255, 255, 255})});
    surface.roughness = map_of({Image(1, 1, {255, 255, 255, 255})});
    Camera camera;
    camera.eye = {0, 0, 100};
    camera.field = 2 * std::atan(0.0125f);  // a square of 2.5 at distance 100, nearly parallel
    const auto picture = drawn(rays_of(std::move(mesh)), camera, 200, {surface}, look);
    for (int x = 30; x < 170; x += 10) {
        const float at = (static_cast<float>(x) + 0.5f - 100) / 100 * 1.25f, cosine = std::sqrt(std::max(0.0f, 1 - at * at));
        const float seen = srgb_to_linear(static_cast<float>(picture.at(static_cast<std::uint32_t>(x), 100)[0]) / 255);
        EXPECT_NEAR(seen, 0.9f * (0.96f * cosine + 0.01f), 0.01) << x;
    }
}

TEST(MeshPicture, AHighlightIsWhatTheModelSays) {
    // Straight on, light and eye at the normal: n·l = n·v = n·h = v·h = 1. D = 1 / (π α²), V = 1 / 4, F = f0. Of light of π:
    // f0 / (4 α²) + (1 - f0) base. With roughness 0.5 (α = 0.25), f0 = 0.04, base 0.2, light 0.3: 0.3 · (0.04 / 0.25 + 0.96 · 0.2) =
    // 0.1056.
    Material material;
    material.base = {0.2f, 0.2f, 0.2f};
    material.roughness = 0.5f;
    Lighting light;
    light.towards = {0, 0, 2};
    light.direct = 0.3f;
    light.around = 0;
    EXPECT_NEAR(shaded(material, {0, 0, 1}, {0, 0, 1}, light)[0], 0.1056f, 1e-5);
    // A metal of the same base: 0.3 · 0.2 / 0.25 = 0.24, nothing diffuse.
    material.metalness = 1;
    EXPECT_NEAR(shaded(material, {0, 0, 1}, {0, 0, 1}, light)[0], 0.24f, 1e-5);
    // From behind there is nothing.
    light.towards = {0, 0, -1};
    EXPECT_EQ(shaded(material, {0, 0, 1}, {0, 0, 1}, light)[0], 0);
    // Emission is added as it is; occlusion dims only what comes from everywhere.
    material.emission = {0.5f, 0, 0};
    EXPECT_NEAR(shaded(material, {0, 0, 1}, {0, 0, 1}, light)[0], 0.5f, 1e-6);
    light.around = 0.5f;
    const float open = shaded(material, {0, 0, 1}, {0, 0, 1}, light)[1];
    material.occlusion = 0.25f;
    EXPECT_NEAR(shaded(material, {0, 0, 1}, {0, 0, 1}, light)[1], open / 4, 1e-6);
    EXPECT_GT(open, 0);
}

TEST(MeshPicture, NothingGivesBackMoreThanItGets) {
    // The furnace test of the diffuse part (common practice): with roughness 1 no direction of eye or light gives more than falls in.
    Lighting light;
    light.around = 0;
    light.direct = 1;
    Material white;
    white.base = {1, 1, 1};
    white.roughness = 1;
    for (float a = 0; a < 1.5f; a += 0.1f)
        for (float b = -1.5f; b < 1.5f; b += 0.1f) {
            light.towards = {std::sin(a), 0, std::cos(a)};
            EXPECT_LE(shaded(white, {0, 0, 1}, {std::sin(b), 0, std::cos(b)}, light)[0], 1.13f) << a << " " << b;
        }
}

TEST(MeshPicture, NormalsOfBothConventions) {
    // A normal that leans up (+y of the picture): in OpenGL's way green is above the middle, in DirectX' way below.
    const auto look = [] {
        PictureLook out;
        out.shown = PictureLook::Shown::normals;
        return out;
    }();
    const auto leaning = [](std::uint8_t green) { return map_of({Image(1, 1, {128, green, 218, 255})}); };
    for (const bool mirrored : {false, true}) {
        auto mesh = square();
        if (mirrored)
            for (auto& uv : mesh.parts[0].uvs[0]) uv[0] = 1 - uv[0];
        const auto rays = rays_of(mesh);
        for (const bool down : {false, true}) {
            MeshSurface surface;
            surface.normal = leaning(down ? 38 : 218);
            surface.green_down = down;
            const auto texel = drawn(rays, before(), 8, {surface}, look).at(4, 4);
            EXPECT_NEAR(texel[0], 128, 2) << mirrored << down;
            EXPECT_NEAR(texel[1], 218, 3) << mirrored << down;
            surface.green_down = !down;
            EXPECT_NEAR(drawn(rays, before(), 8, {surface}, look).at(4, 4)[1], 37, 3);
        }
    }
    // A lean to the right of the texture is one to the left where it is laid on mirrored.
    MeshSurface surface;
    surface.normal = map_of({Image(1, 1, {218, 128, 218, 255})});
    EXPECT_NEAR(drawn(rays_of(square()), before(), 8, {surface}, look).at(4, 4)[0], 218, 3);
    auto mesh = square();
    for (auto& uv : mesh.parts[0].uvs[0]) uv[0] = 1 - uv[0];
    EXPECT_NEAR(drawn(rays_of(std::move(mesh)), before(), 8, {surface}, look).at(4, 4)[0], 37, 3);
    // Two channels: blue is made.
    auto two = std::make_shared<SurfaceMap>(*surface.normal);
    two->levels[0].at(0, 0) = {218, 128, 0, 255};
    two->two_channels = true;
    surface.normal = two;
    EXPECT_NEAR(drawn(rays_of(square()), before(), 8, {surface}, look).at(4, 4)[2], 218, 3);
}

TEST(MeshPicture, MirroredLetteringComesOutReversed) {
    MeshSurface surface;
    Image letter(2, 1);
    letter.at(0, 0) = {255, 0, 0, 255};
    letter.at(1, 0) = {0, 255, 0, 255};
    surface.base_color = map_of({letter});
    auto mesh = square();
    EXPECT_EQ(drawn(rays_of(mesh), before(), 4, {surface}, bare()).at(0, 0)[0] > 200, true);
    for (auto& uv : mesh.parts[0].uvs[0]) uv[0] = 1 - uv[0];
    EXPECT_EQ(drawn(rays_of(mesh), before(), 4, {surface}, bare()).at(0, 0)[1] > 200, true);
}

TEST(MeshPicture, HolesAndWhatBlendsShowWhatIsBehind) {
    auto mesh = square(1);
    mesh.parts.push_back(square(0).parts[0]);
    const auto rays = rays_of(mesh);
    MeshSurface front, back;
    front.base_color = map_of({Image(1, 1, {255, 0, 0, 128})});
    back.base_color = map_of({Image(1, 1, {0, 255, 0, 255})});
    const auto camera = before(1);
    front.alpha = AlphaMode::opaque;
    EXPECT_EQ(drawn(rays, camera, 4, {front, back}, bare()).at(2, 2), (Texel{255, 0, 0, 255}));
    front.alpha = AlphaMode::cut_out;  // 128 of 255 is above a half
    EXPECT_EQ(drawn(rays, camera, 4, {front, back}, bare()).at(2, 2), (Texel{255, 0, 0, 255}));
    front.cut_at = 0.6f;
    EXPECT_EQ(drawn(rays, camera, 4, {front, back}, bare()).at(2, 2), (Texel{0, 255, 0, 255}));
    front.alpha = AlphaMode::blend;
    const auto texel = drawn(rays, camera, 4, {front, back}, bare()).at(2, 2);
    EXPECT_NEAR(srgb_to_linear(static_cast<float>(texel[0]) / 255), 128.0f / 255, 0.01);
    EXPECT_NEAR(srgb_to_linear(static_cast<float>(texel[1]) / 255), 127.0f / 255, 0.01);
    // Beside the mesh there is what lies behind.
    auto far = camera;
    far.eye[2] = 9;
    EXPECT_EQ(drawn(rays, far, 16, {front, back}, bare()).at(0, 0), PictureLook{}.behind);
}

TEST(MeshPicture, MarksAndWires) {
    const auto rays = rays_of(square());
    auto look = bare();
    look.marked = {{true, false}};
    MeshSurface gray;
    gray.base_color = map_of({Image(1, 1, {128, 128, 128, 255})});
    const auto picture = drawn(rays, before(), 32, {gray}, look);
    // Triangle 0 is the one at the lower right.
    EXPECT_GT(picture.at(30, 24)[0], picture.at(30, 24)[1] + 20);
    EXPECT_EQ(picture.at(2, 8)[0], picture.at(2, 8)[1]);
    look = bare();
    look.wires = true;
    const auto wired = drawn(rays, before(), 32, {gray}, look);
    EXPECT_LT(wired.at(16, 15)[0], wired.at(24, 16)[0]);  // the diagonal
}

TEST(MeshPicture, WhatGlowsIsSeenWithoutLight) {
    // glTF 2.0, 3.9.3: emission is added as it is, whatever light there is.
    MeshSurface surface;
    surface.base_color = map_of({Image(4, 4, {200, 200, 200, 255})}, true);
    surface.emission = map_of({Image(4, 4, {10, 128, 250, 255})}, true);
    PictureLook look;
    look.light.direct = look.light.around = 0;
    const auto rays = rays_of(square());
    EXPECT_EQ(drawn(rays, before(), 8, {surface}, look).at(4, 4), (Texel{10, 128, 250, 255}));
    surface.emission.reset();
    EXPECT_EQ(drawn(rays, before(), 8, {surface}, look).at(4, 4), (Texel{0, 0, 0, 255}));
}

TEST(MeshPicture, ColorsOfVerticesMultiplyTheBaseColor) {
    // glTF 2.0, 3.9.2: in linear light. Half of white is 188 of 255 (IEC 61966-2-1: 1.055 · 0.5^(1/2.4) - 0.055 = 0.7354).
    auto mesh = square();
    mesh.parts[0].colors.assign(mesh.parts[0].places.size(), {0.5f, 1, 0, 1});
    MeshSurface surface;
    surface.base_color = map_of({Image(4, 4, {255, 255, 255, 255})}, true);
    const auto rays = rays_of(mesh);
    EXPECT_EQ(drawn(rays, before(), 8, {surface}, bare()).at(4, 4), (Texel{188, 255, 0, 255}));
    auto look = bare();
    look.vertex_colors = false;
    EXPECT_EQ(drawn(rays, before(), 8, {surface}, look).at(4, 4), (Texel{255, 255, 255, 255}));
}

TEST(MeshPicture, TheSameOnAnyNumberOfThreads) {
    const auto mesh = ball(30);
    MeshSurface surface;
    surface.base_color = map_of({numbered(64, 9), numbered(32, 80)}, true);
    surface.normal = map_of({numbered(32, 255)});
    const auto rays = rays_of(mesh);
    const auto camera = camera_of(whole(mesh.box(), 1));
    const std::vector<MeshSurface> surfaces = {surface};
    const auto many = rays.fine_picture(camera, 160, 160, surfaces, {});
    const tbb::global_control one(tbb::global_control::max_allowed_parallelism, 1);
    const auto single = rays.fine_picture(camera, 160, 160, surfaces, {});
    ASSERT_TRUE(many && single);
    EXPECT_EQ(*many, *single);
    CancelToken cancel;
    cancel.cancel();
    EXPECT_EQ(rays.picture(camera, 160, 160, surfaces, {}, cancel).error().code, ErrorCode::canceled);
}

TEST(MeshPicture, AllOfABoxIsInThePicture) {
    for (const float shape : {0.5f, 1.0f, 1.6f, 3.0f})
        for (const bool z : {false, true}) {
            const Box3 box{{-3, 1, 2}, {5, 2, 9}};
            auto orbit = whole(box, shape);
            orbit.upright_z = z;
            for (orbit.turn = 0; orbit.turn < 6; orbit.turn += 0.5f) {
                const auto camera = camera_of(orbit);
                for (int k = 0; k < 8; ++k) {
                    const Vec3 corner = {k & 1 ? box.low[0] : box.high[0], k & 2 ? box.low[1] : box.high[1],
                                         k & 4 ? box.low[2] : box.high[2]};
                    const auto at = projected(camera, corner, static_cast<std::uint32_t>(200 * shape), 200);
                    ASSERT_TRUE(at);
                    EXPECT_GE((*at)[0], -0.5f);
                    EXPECT_LE((*at)[0], 200 * shape + 0.5f);
                    EXPECT_GE((*at)[1], -0.5f);
                    EXPECT_LE((*at)[1], 200.5f);
                }
            }
        }
}

TEST(MeshPicture, DraggingGoesWithThePointer) {
    const Box3 box{{-1, -1, -1}, {1, 1, 1}};
    const auto before_it = whole(box, 1);
    const auto after = panned(before_it, 0.25f, -0.1f);
    const auto at = projected(camera_of(after), before_it.target, 400, 400);
    ASSERT_TRUE(at);
    EXPECT_NEAR((*at)[0], 300, 0.1);
    EXPECT_NEAR((*at)[1], 160, 0.1);
}

}  // namespace
}  // namespace skivet

// Files of meshes as their published descriptions have them.
#include <fmt/format.h>
#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "mesh/read_mesh.h"
#include "support/places.h"

namespace skivet {
namespace {

std::filesystem::path program() { return std::filesystem::path(skivet::test::programs_folder) / "skivet-mesh"; }

Result<Mesh> read(std::string name, std::string_view text, std::map<std::string, Bytes> beside = {}) {
    const auto bytes = as_bytes(text);
    return read_mesh(program(),
                     {std::move(name), Bytes(bytes.begin(), bytes.end()), [beside](const std::string& path) -> std::optional<Bytes> {
                          const auto found = beside.find(path);
                          return found == beside.end() ? std::nullopt : std::optional(found->second);
                      }});
}

void put_floats(Bytes& to, std::initializer_list<float> values) {
    ByteWriter writer;
    for (const float v : values) writer.le(std::bit_cast<std::uint32_t>(v));
    to.insert(to.end(), writer.bytes.begin(), writer.bytes.end());
}

/// Khronos glTF 2.0 specification: 3.6 (buffers, little endian; accessors), 3.7.2.1 (TEXCOORD_0; attributes), 3.5.2 (matrices column by
/// column), 3.9.2 (textures), 3.7.2.2 (front faces are counterclockwise). The upper left of a texture is (0, 0) (3.8.2). A right triangle,
/// written by hand.
struct HandMade {
    Bytes buffer;
    HandMade() {
        put_floats(buffer, {0, 0, 0, 2, 0, 0, 0, 1, 0});            // POSITION
        put_floats(buffer, {0, 0, 1, 0, 0, 1, 0, 0, 1});            // NORMAL
        put_floats(buffer, {0.25f, 0.75f, 1.5f, 0.75f, 0.25f, 0});  // TEXCOORD_0
        for (const unsigned v : {0u, 0u, 1u, 0u, 2u, 0u, 0u, 0u})
            buffer.push_back(static_cast<Byte>(v));  // indices, two bytes each, padded
    }
    [[nodiscard]] std::string json(std::string_view node, std::string_view uri) const {
        return fmt::format(R"({{"asset":{{"version":"2.0"}},"scene":0,"scenes":[{{"nodes":[0]}}],"nodes":[{{"name":"flag","mesh":0{}}}],
"meshes":[{{"primitives":[{{"attributes":{{"POSITION":0,"NORMAL":1,"TEXCOORD_0":2}},"indices":3,"material":0}}]}}],
"materials":[{{"name":"cloth","pbrMetallicRoughness":{{"baseColorTexture":{{"index":0}},"metallicRoughnessTexture":{{"index":1}}}},
"normalTexture":{{"index":2}},"occlusionTexture":{{"index":3}},"emissiveTexture":{{"index":4}}}}],
"textures":[{{"source":0}},{{"source":1}},{{"source":2}},{{"source":3}},{{"source":4}}],
"images":[{{"uri":"tint.png"}},{{"uri":"rm.png"}},{{"uri":"bump.png"}},{{"uri":"shade.png"}},{{"uri":"glow.png"}}],
"buffers":[{{"byteLength":{}{}}}],
"bufferViews":[{{"buffer":0,"byteOffset":0,"byteLength":36}},{{"buffer":0,"byteOffset":36,"byteLength":36}},{{"buffer":0,"byteOffset":72,"byteLength":24}},
{{"buffer":0,"byteOffset":96,"byteLength":6}}],
"accessors":[{{"bufferView":0,"componentType":5126,"count":3,"type":"VEC3","min":[0,0,0],"max":[2,1,0]}},
{{"bufferView":1,"componentType":5126,"count":3,"type":"VEC3"}},{{"bufferView":2,"componentType":5126,"count":3,"type":"VEC2"}},
{{"bufferView":3,"componentType":5123,"count":3,"type":"SCALAR"}}]}})",
                           node, buffer.size(), uri);
    }
};

void expect_the_flag(const Mesh& mesh) {
    ASSERT_EQ(mesh.parts.size(), 1u);
    const auto& part = mesh.parts[0];
    EXPECT_EQ(part.name, "flag");
    EXPECT_EQ(part.material, "cloth");
    ASSERT_EQ(part.triangles(), 1u);
    ASSERT_EQ(part.uvs.size(), 1u);
    const std::vector<Vec3> places = {{0, 0, 0}, {2, 0, 0}, {0, 1, 0}};
    const std::vector<Vec2> uvs = {{0.25f, 0.75f}, {1.5f, 0.75f}, {0.25f, 0}};
    for (std::size_t k = 0; k < 3; ++k) {
        EXPECT_EQ(part.places[part.corners[k]], places[k]);
        for (std::size_t c = 0; c < 2; ++c) EXPECT_NEAR(part.uvs[0][part.corners[k]][c], uvs[k][c], 1e-6);
        EXPECT_EQ(part.normals[part.corners[k]], (Vec3{0, 0, 1}));
    }
    const auto has = [&](MapUse use, const char* path) {
        return std::find(part.maps.begin(), part.maps.end(), MapName{use, path}) != part.maps.end();
    };
    EXPECT_TRUE(has(MapUse::base_color, "tint.png"));
    EXPECT_TRUE(has(MapUse::normal, "bump.png"));
    EXPECT_TRUE(has(MapUse::occlusion, "shade.png"));
    EXPECT_TRUE(has(MapUse::emission, "glow.png"));
    EXPECT_TRUE(has(MapUse::rough_metal, "rm.png") || has(MapUse::metalness, "rm.png"));
}

TEST(GltfFiles, WithTheirBufferBeside) {
    const HandMade made;
    const auto mesh = read("flag.gltf", made.json("", R"(,"uri":"flag.bin")"), {{"flag.bin", made.buffer}});
    ASSERT_TRUE(mesh) << mesh.error().message();
    expect_the_flag(*mesh);
    EXPECT_FALSE(read("flag.gltf", made.json("", R"(,"uri":"flag.bin")")));  // not there
}

TEST(GltfFiles, Binary) {  // 4.4: header, a chunk of JSON padded with blanks, a chunk of binary data
    const HandMade made;
    auto json = made.json("", "");
    while (json.size() % 4) json += ' ';
    ByteWriter file;
    file.put("glTF");
    file.le<std::uint32_t>(2);
    file.le(static_cast<std::uint32_t>(12 + 8 + json.size() + 8 + made.buffer.size()));
    file.le(static_cast<std::uint32_t>(json.size()));
    file.put("JSON");
    file.put(json);
    file.le(static_cast<std::uint32_t>(made.buffer.size()));
    file.put(std::string_view("BIN\0", 4));
    file.put(made.buffer);
    const auto mesh = read("flag.glb", as_text(file.bytes));
    ASSERT_TRUE(mesh) << mesh.error().message();
    expect_the_flag(*mesh);
}

TEST(GltfFiles, NodesPlaceTheirMeshes) {  // 3.5.3: T · R · S; a matrix's elements stand column by column
    const HandMade made;
    const std::map<std::string, Bytes> beside = {{"flag.bin", made.buffer}};
    auto mesh = read("flag.gltf", made.json(R"(,"translation":[1,2,3],"scale":[2,2,2])", R"(,"uri":"flag.bin")"), beside);
    ASSERT_TRUE(mesh) << mesh.error().message();
    const auto corner = [&](std::size_t k) { return mesh->parts[0].places[mesh->parts[0].corners[k]]; };
    EXPECT_EQ(corner(0), (Vec3{1, 2, 3}));
    EXPECT_EQ(corner(1), (Vec3{5, 2, 3}));
    mesh = read("flag.gltf", made.json(R"(,"matrix":[-1,0,0,0,0,1,0,0,0,0,1,0,7,0,0,1])", R"(,"uri":"flag.bin")"), beside);
    ASSERT_TRUE(mesh) << mesh.error().message();
    // Mirrored: "the winding order is reversed" (3.7.4), so that outside stays outside.
    EXPECT_EQ(corner(0), (Vec3{7, 0, 0}));
    EXPECT_EQ(corner(1), (Vec3{7, 1, 0}));
    EXPECT_EQ(corner(2), (Vec3{5, 0, 0}));
}

/// The OBJ format as described in "Object Files (.obj)", the appendix to the modeling program's manual that is its specification:
/// statements v, vt, vn, f with indices from 1 and from the end (negative), faces of more than three corners; (0, 0) of vt is the lower
/// left.
TEST(ObjFiles, AsTheyAreDescribed) {
    const auto mesh =
        read("sign.obj",
             "# a sign\no board\nv 0 0 0\nv 4 0 0\nv 4 2 0\nv 0 2 0\nvt 0 0\nvt 1 0\nvt 1 1\nvt 0 1\nvn 0 0 1\nusemtl enamel\n"
             "f 1/1/1 2/2/1 3/3/1 4/4/1\no back\nf -4/-4/-1 -1/-1/-1 -2/-2/-1\n");
    ASSERT_TRUE(mesh) << mesh.error().message();
    ASSERT_EQ(mesh->parts.size(), 2u);
    EXPECT_EQ(mesh->parts[0].name, "board");
    EXPECT_EQ(mesh->parts[0].triangles(), 2u);
    EXPECT_EQ(mesh->parts[1].triangles(), 1u);
    const auto& part = mesh->parts[0];
    std::map<Vec3, Vec2> at;
    for (const auto c : part.corners) at[part.places[c]] = part.uvs[0][c];
    EXPECT_EQ(at.size(), 4u);
    EXPECT_EQ((at[{0, 0, 0}]), (Vec2{0, 1}));  // below, as v runs down here
    EXPECT_EQ((at[{4, 2, 0}]), (Vec2{1, 0}));
    for (const auto& n : part.normals) EXPECT_EQ(n, (Vec3{0, 0, 1}));
    const auto& back = mesh->parts[1];
    EXPECT_EQ(back.places[back.corners[1]], (Vec3{0, 2, 0}));
}

/// The header and elements of "The PLY Polygon File Format" (Turk 1994).
TEST(PlyFiles, AsTheyAreDescribed) {
    const auto mesh = read("ramp.ply",
                           "ply\nformat ascii 1.0\ncomment a ramp\nelement vertex 4\nproperty float x\nproperty float y\nproperty float z\n"
                           "element face 1\nproperty list uchar int vertex_indices\nend_header\n0 0 0\n1 0 0\n1 1 0\n0 1 0\n4 0 1 2 3\n");
    ASSERT_TRUE(mesh) << mesh.error().message();
    EXPECT_EQ(mesh->triangles(), 2u);
    EXPECT_EQ(mesh->box().high, (Vec3{1, 1, 0}));
}

}  // namespace
}  // namespace skivet

#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "mesh/mesh.h"

#include "mesh/mesh_wire.h"
#include "mesh/read_mesh.h"
#include "mesh/vectors.h"
#include "support/places.h"
#include "support/temp_folder.h"

namespace skivet {
namespace {

Bytes answer_bytes(const MeshAnswer& answer) {
    Bytes out;
    write_mesh_answer(answer, [&](ByteSpan part) { out.insert(out.end(), part.begin(), part.end()); });
    return out;
}

MeshAnswer two_parts() {
    MeshAnswer out;
    MeshPart a;
    a.name = "horse";
    a.material = "paint";
    a.maps = {{MapUse::base_color, "horse_tint.dds"}, {MapUse::normal, "horse_bump.dds"}};
    a.places = {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}};
    a.normals = {{0, 0, 1}, {0, 0, 1}, {0, 0, 1}};
    a.uvs = {{{0, 1}, {1, 1}, {0, 0}}, {{0, 0}, {0, 0}, {1, 1}}};
    a.corners = {0, 1, 2, 2, 1, 0};
    auto b = a;
    b.name = "pole";
    b.normals.clear();
    b.uvs.clear();
    out.mesh.parts = {a, b};
    out.mesh.notes = {"a note"};
    return out;
}

TEST(MeshWire, GivesBackWhatWentIn) {
    const auto in = two_parts();
    const auto out = read_mesh_answer(answer_bytes(in), {});
    ASSERT_TRUE(out) << out.error().message();
    EXPECT_EQ(out->mesh, in.mesh);
    EXPECT_EQ(out->mesh.triangles(), 4u);
}

TEST(MeshWire, AnyCutIsAnError) {
    const auto whole = answer_bytes(two_parts());
    for (std::size_t n = 0; n < whole.size(); ++n) EXPECT_FALSE(read_mesh_answer(ByteSpan(whole).first(n), {})) << n;
}

TEST(MeshWire, ChangedBytesNeverLeaveTheMeshUnsound) {
    const auto whole = answer_bytes(two_parts());
    for (std::size_t at = 0; at < whole.size(); ++at)
        for (const unsigned value : {0u, 1u, 0x7Fu, 0xFFu}) {
            auto changed = whole;
            changed[at] = static_cast<Byte>(value);
            const auto out = read_mesh_answer(changed, {});
            if (!out) continue;
            for (const auto& part : out->mesh.parts) {
                for (const auto corner : part.corners) ASSERT_LT(corner, part.places.size());
                for (const auto& place : part.places)
                    for (const float v : place) ASSERT_TRUE(std::isfinite(v));
                for (const auto& uv : part.uvs) ASSERT_EQ(uv.size(), part.places.size());
            }
        }
}

TEST(MeshWire, LimitsAreAskedBeforeMemoryIsTaken) {
    const auto whole = answer_bytes(two_parts());
    MeshLimits limits;
    limits.triangles = 3;
    const auto out = read_mesh_answer(whole, limits);
    ASSERT_FALSE(out);
    EXPECT_EQ(out.error().code, ErrorCode::limit);
    limits = {};
    limits.parts = 1;
    EXPECT_EQ(read_mesh_answer(whole, limits).error().code, ErrorCode::limit);
}

TEST(MeshWire, NumbersThatAreNoneBecomeZero) {
    auto in = two_parts();
    in.mesh.parts[0].places[1][2] = std::nanf("");
    in.mesh.parts[1].places[0][0] = INFINITY;
    const auto out = read_mesh_answer(answer_bytes(in), {});
    ASSERT_TRUE(out);
    EXPECT_EQ(out->mesh.parts[0].places[1][2], 0);
    EXPECT_EQ(out->mesh.parts[1].places[0][0], 0);
    EXPECT_EQ(out->mesh.notes.back(), "2 numbers that are none stand as 0");
}

TEST(MeshPaths, OfWhatAMeshNamesStayInside) {
    EXPECT_EQ(path_from("models", "horse.mtl"), "models/horse.mtl");
    EXPECT_EQ(path_from("models/animals", "..\\paint\\horse.png"), "models/paint/horse.png");
    EXPECT_EQ(path_from("", "./a.bin"), "a.bin");
    EXPECT_EQ(path_from("models", "../../x"), std::nullopt);
    EXPECT_EQ(path_from("", "../x"), std::nullopt);
    EXPECT_EQ(path_from("models", "/etc/passwd"), std::nullopt);
    EXPECT_EQ(path_from("models", "C:\\x"), std::nullopt);
    EXPECT_TRUE(is_mesh_path("a/b.GLB"));
    EXPECT_FALSE(is_mesh_path("a/obj"));
}

TEST(MeshDetail, ByTheNumberInNames) {  // common practice
    EXPECT_EQ(detail_number("horse_lod0"), 0);
    EXPECT_EQ(detail_number("horse.LOD12"), 12);
    EXPECT_EQ(detail_number("horseLod_3"), 3);
    EXPECT_EQ(detail_number("lod1"), 1);
    EXPECT_EQ(detail_number("melod1"), -1);
    EXPECT_EQ(detail_number("horse_2"), -1);
    Mesh mesh;
    for (const auto* name : {"horse_lod1", "pole", "horse_lod0", "saddle_lod1"}) mesh.parts.push_back({name, "", {}, {}, {}, {}, {}});
    const auto levels = levels_of_detail(mesh);
    ASSERT_EQ(levels.size(), 2u);
    EXPECT_EQ(levels[0].parts, (std::vector<std::size_t>{1, 2}));
    EXPECT_EQ(levels[1].parts, (std::vector<std::size_t>{0, 1, 3}));
    EXPECT_EQ(levels[1].number, 1);
}

std::filesystem::path program() { return std::filesystem::path(skivet::test::programs_folder) / "skivet-mesh"; }

using test::bytes_of;

TEST(ReadMesh, AFileItNamesIsAskedFor) {
    std::vector<std::string> asked;
    MeshSource source{"horse.obj", bytes_of("mtllib paint/horse.mtl\nv 0 0 0\nv 1 0 0\nv 0 1 0\nusemtl wood\nf 1 2 3\n"), {}};
    source.beside = [&](const std::string& path) -> std::optional<Bytes> {
        asked.push_back(path);
        if (path != "paint/horse.mtl") return std::nullopt;
        return bytes_of("newmtl wood\nKd 1 1 1\nmap_Kd horse_tint.png\n");
    };
    const auto mesh = read_mesh(program(), source);
    ASSERT_TRUE(mesh) << mesh.error().message();
    ASSERT_EQ(mesh->parts.size(), 1u);
    EXPECT_EQ(mesh->parts[0].material, "wood");
    EXPECT_EQ(mesh->parts[0].maps, (std::vector<MapName>{{MapUse::base_color, "horse_tint.png"}}));
    ASSERT_FALSE(asked.empty());
    EXPECT_EQ(asked[0], "paint/horse.mtl");
}

TEST(ReadMesh, WithoutWhatItNamesItIsStillThere) {
    const auto mesh = read_mesh(program(), {"horse.obj", bytes_of("mtllib lost.mtl\nv 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n"), {}});
    ASSERT_TRUE(mesh) << mesh.error().message();
    EXPECT_EQ(mesh->triangles(), 1u);
}

TEST(ReadMesh, SaysWhatIsWrong) {
    auto mesh = read_mesh(program(), {"horse.obj", bytes_of("hello"), {}});
    EXPECT_FALSE(mesh);
    mesh = read_mesh(program(), {"horse.glb", bytes_of("glTF"), {}});
    ASSERT_FALSE(mesh);
    EXPECT_FALSE(mesh.error().what.empty());
    EXPECT_FALSE(mesh.error().advice.empty());
    mesh = read_mesh({}, {"horse.obj", bytes_of("v 0 0 0\n"), {}});
    ASSERT_FALSE(mesh);
    EXPECT_EQ(mesh.error().code, ErrorCode::missing);
    // A program that is another one is no reader of meshes.
    mesh = read_mesh("/bin/cat", {"horse.obj", bytes_of("v 0 0 0\n"), {}});
    EXPECT_FALSE(mesh);
    mesh = read_mesh("/bin/false", {"horse.obj", bytes_of("v 0 0 0\n"), {}});
    EXPECT_FALSE(mesh);
}

/// Whatever stands in a file: an answer or an error, and this process goes on.
TEST(ReadMesh, HostileFilesEndNothing) {
    const std::string obj = "o horse\nv 0 0 0\nv 1 0 0\nv 0 1 0\nvt 0 0\nvt 1 0\nvt 0 1\nf 1/1 2/2 3/3\nf -1/-1 -2/-2 -3/-3\n";
    const std::string ply =
        "ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nelement face 1\nproperty list "
        "uchar int "
        "vertex_indices\nend_header\n0 0 0\n1 0 0\n0 1 0\n3 0 1 2\n";
    std::uint32_t state = 3;
    const auto random = [&](std::size_t n) { return (state = state * 1664525 + 1013904223) / 65536 % n; };
    std::size_t read = 0;
    for (int i = 0; i < 12; ++i)
        for (const auto& [name, text] : {std::pair{"a.obj", obj}, {"a.ply", ply}, {"a.stl", ply}, {"a.fbx", obj}}) {
            auto bytes = bytes_of(text);
            for (std::size_t k = 0; k < 1 + random(4); ++k) bytes[random(bytes.size())] = static_cast<Byte>(random(256));
            if (i % 5 == 0) bytes.resize(random(bytes.size()));
            read += read_mesh(program(), {name, bytes, {}}).has_value();
        }
    EXPECT_GT(read, 0u);
}

TEST(ReadMesh, FromDiskWithItsMaterials) {
    const test::TempFolder folder;
    test::put_file(folder / "models/horse.obj", bytes_of("mtllib horse.mtl\nv 0 0 0\nv 1 0 0\nv 0 1 0\nusemtl wood\nf 1 2 3\n"));
    test::put_file(folder / "models/horse.mtl", bytes_of("newmtl wood\nmap_Kd wood.png\n"));
    const auto mesh = read_mesh_file(program(), folder / "models/horse.obj");
    ASSERT_TRUE(mesh) << mesh.error().message();
    EXPECT_EQ(mesh->parts[0].maps.size(), 1u);
    const auto none = read_mesh_file(program(), folder / "models/none.obj");
    ASSERT_FALSE(none);
    EXPECT_EQ(none.error().where.front(), "none.obj");
}

}  // namespace
}  // namespace skivet

// Tables of vertices as text. Names of columns are common practice, with no source; quoting is RFC 4180's.
#include "mesh/vertex_table.h"

#include <gtest/gtest.h>
#include <string>
#include <vector>

using namespace skivet;

namespace {

Result<VertexTable> read(const std::string& text, const MeshLimits& limits = {}) {
    return read_vertex_table(std::as_bytes(std::span(text)), limits);
}

std::vector<std::string> meanings(const std::string& header) {
    std::string row;
    const auto names = 1 + std::count(header.begin(), header.end(), ',');
    for (long i = 0; i < names; ++i) row += i ? ",0.5" : "0.5";
    const auto table = read(header + "\n" + row + "\n");
    EXPECT_TRUE(table) << header;
    std::vector<std::string> out;
    for (const auto& column : proposed_reading(*table).columns)
        out.push_back(std::string(name_of(column.field)) + (column.set ? std::to_string(column.set) : ""));
    return out;
}

using Words = std::vector<std::string>;

}  // namespace

TEST(VertexTable, ColumnsAreProposedFromTheirNames) {
    EXPECT_EQ(meanings("x,y,z,nx,ny,nz,u,v"), (Words{"x", "y", "z", "normal x", "normal y", "normal z", "u", "v"}));
    EXPECT_EQ(meanings("POSITION.x,POSITION.y,POSITION.z,POSITION.w,TEXCOORD0.x,TEXCOORD0.y,TEXCOORD1.x,TEXCOORD1.y"),
              (Words{"x", "y", "z", "-", "u", "v", "u1", "v1"}));
    EXPECT_EQ(meanings("row, index, in_Position[0], in_Position[1], in_Position[2], in_Color.r, in_Color.g, in_Color.b, in_Color.a"),
              (Words{"-", "number", "x", "y", "z", "red", "green", "blue", "alpha"}));
    EXPECT_EQ(meanings("posX,posY,posZ,uv_s,uv_t"), (Words{"x", "y", "z", "u", "v"}));
    // What a bone or a tangent is called with x, y and z behind it is no position; of two positions the first counts.
    EXPECT_EQ(meanings("Position.x,Position.y,Position.z,Tangent.x,Tangent.y,BlendWeight.x,PreviousPosition.x"),
              (Words{"x", "y", "z", "-", "-", "-", "-"}));
}

TEST(VertexTable, BlueFirstIsNoticed) {
    EXPECT_EQ(meanings("x,y,z,color_bgra[0],color_bgra[1],color_bgra[2],color_bgra[3]"),
              (Words{"x", "y", "z", "blue", "green", "red", "alpha"}));
    EXPECT_EQ(meanings("x,y,z,color.b,color.g,color.r"), (Words{"x", "y", "z", "blue", "green", "red"}));
    EXPECT_EQ(meanings("x,y,z,color.x,color.y,color.z"), (Words{"x", "y", "z", "red", "green", "blue"}));
}

TEST(VertexTable, ATableBecomesAMeshByItsReading) {
    // Two triangles of a square, drawn corner by corner with the numbers of their vertices.
    const auto table = read(
        "index;x;y;z;u;v;color.b;color.g;color.r;mark\n"
        "0;0;0;0;0;1;255;0;0;nan\n1;1;0;0;1;1;0;255;0;1\n2;1;1;0;1;0;0;0;255;1\n"
        "0;0;0;0;0;1;255;0;0;1\n2;1;1;0;1;0;0;0;255;1\n3;0;1,5;0;0;0;0;0;51;1\n");
    ASSERT_TRUE(table) << table.error().message();
    auto reading = proposed_reading(*table);
    const auto mesh = mesh_of(*table, reading, "square");
    ASSERT_TRUE(mesh) << mesh.error().message();
    const auto& part = mesh->parts.at(0);
    EXPECT_EQ(part.places.size(), 4u);
    EXPECT_EQ(part.corners, (std::vector<std::uint32_t>{0, 1, 2, 0, 2, 3}));
    EXPECT_EQ(part.places[3], (Vec3{0, 1.5f, 0}));  // a comma in the number
    EXPECT_EQ(part.uvs.at(0)[2], (Vec2{1, 0}));
    EXPECT_EQ(part.colors[0], (Color4{0, 0, 1, 1}));
    EXPECT_FLOAT_EQ(part.colors[3][0], 0.2f);  // 51 of 255
    ASSERT_EQ(mesh->notes.size(), 2u);
    EXPECT_EQ(mesh->notes[0], "column mark is left out: row 1 has \"nan\" there, which is no number");
    EXPECT_EQ(mesh->notes[1], "colors run to 255 and are divided by 255");
    // Corrected by hand: v runs up, and the texture lies the other way.
    reading.v_up = true;
    EXPECT_EQ(mesh_of(*table, reading, "")->parts[0].uvs[0][2], (Vec2{1, 1}));
    std::swap(reading.columns[4], reading.columns[5]);
    EXPECT_EQ(mesh_of(*table, reading, "")->parts[0].uvs[0][0], (Vec2{1, 1}));
    reading.columns[5] = {VertexField::x, 0};
    EXPECT_EQ(mesh_of(*table, reading, "").error().code, ErrorCode::usage);
    reading.columns.assign(10, {});
    EXPECT_EQ(mesh_of(*table, reading, "").error().code, ErrorCode::usage);
}

TEST(VertexTable, AStripTurnsEverySecondTriangle) {
    const auto table = read("x,y,z\n0,0,0\n1,0,0\n0,1,0\n1,1,0\n1,1,0\n");
    auto reading = proposed_reading(*table);
    reading.strip = true;
    const auto mesh = mesh_of(*table, reading, "");
    ASSERT_TRUE(mesh);
    EXPECT_EQ(mesh->parts[0].corners, (std::vector<std::uint32_t>{0, 1, 2, 2, 1, 3, 2, 3, 4}));
    reading.strip = false;
    EXPECT_EQ(mesh_of(*table, reading, "")->notes.back(), "the last 2 rows make no triangle");
}

TEST(VertexTable, NormalsOfBytesRunFromMinusOneToOne) {
    const auto table = read("x,y,z,nx,ny,nz\n0,0,0,255,127.5,0\n1,0,0,255,127.5,0\n0,1,0,255,127.5,0\n");
    const auto mesh = mesh_of(*table, proposed_reading(*table), "");
    ASSERT_TRUE(mesh);
    EXPECT_EQ(mesh->parts[0].normals[0], (Vec3{1, 0, -1}));
}

TEST(VertexTable, WhatIsNoTableSaysSo) {
    EXPECT_EQ(read("").error().code, ErrorCode::unsupported);
    EXPECT_EQ(read("1,2,3\n4,5,6\n").error().code, ErrorCode::unsupported);  // no names
    EXPECT_EQ(read("x,y,z\n").error().code, ErrorCode::unsupported);
    const auto cut = read("x,y,z\n1,2,3\n1,2\n");
    ASSERT_FALSE(cut);
    EXPECT_EQ(cut.error().code, ErrorCode::damaged);
    EXPECT_NE(cut.error().message().find("row 2"), std::string::npos) << cut.error().message();
    MeshLimits few;
    few.vertices = 2;
    EXPECT_EQ(read("x,y,z\n1,2,3\n1,2,3\n1,2,3\n", few).error().code, ErrorCode::limit);
    // Quoted names may hold the separator.
    const auto quoted = read("\"x\",\"y\",\"z\",\"a, b\"\n1,2,3,\"4\"\n");
    ASSERT_TRUE(quoted);
    EXPECT_EQ(quoted->columns[3].name, "a, b");
    EXPECT_EQ(quoted->columns[3].values[0], 4);
}

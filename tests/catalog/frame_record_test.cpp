// Records of frames, against docs/frame-record.md.
#include "catalog/frame_record.h"

#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "support/pictures.h"
#include "support/temp_folder.h"

using namespace skivet;
using namespace skivet::test;

namespace {

const std::string record =
    "{\"frame\": 1, \"width\": 4, \"height\": 2, \"picture\": \"frame.png\", \"draws\": \"draws.png\"}\n"
    "{\"texture\": 1, \"file\": \"sky.png\", \"width\": 64, \"height\": 32}\n"
    "{\"draw\": 1, \"mesh\": 7, \"textures\": [1, 2], \"triangles\": 2}\n"  // named before it is there: lines stand in any order
    "{\"texture\": 2, \"file\": \"horse.png\", \"more\": {\"of\": \"others\"}}\n"
    "{\"mesh\": 7, \"file\": \"mesh.csv\"}\n"
    "{\"draw\": 2, \"mesh\": 7, \"textures\": [1, 2], \"triangles\": 2}\n"
    "{\"draw\": 3, \"mesh\": 7, \"textures\": [1]}\n"
    "{\"draw\": 300, \"mesh\": 7, \"textures\": [1, 2], \"triangles\": 2}\n";

}  // namespace

TEST(FrameRecords, DrawsThatRepeatAreOneThingAndWhatAllHaveStandsLast) {
    const auto read = frame_record_of(record, "/records/one");
    ASSERT_TRUE(read) << read.error().message();
    EXPECT_EQ(read->width, 4u);
    EXPECT_EQ(read->picture, "/records/one/frame.png");
    EXPECT_EQ(read->textures.size(), 2u);
    EXPECT_EQ(read->draws.size(), 4u);
    ASSERT_EQ(read->things.size(), 2u);
    EXPECT_EQ(read->things[0].draws, (std::vector<std::size_t>{0, 1, 3}));
    EXPECT_EQ(read->textures[0].things, 2u);
    EXPECT_EQ(read->textures[1].things, 1u);
    EXPECT_EQ(read->things[0].textures, (std::vector<std::size_t>{1, 0}));  // the horse's own, then the sky
    EXPECT_EQ(read->draws[2].mesh, "/records/one/mesh.csv");
    EXPECT_TRUE(read->notes.empty());
}

TEST(FrameRecords, APixelsColorIsItsDrawsNumber) {
    const auto read = frame_record_of(record, "/records/one");
    Image draws(4, 2, {0, 0, 0, 255});
    draws.at(0, 0) = {1, 0, 0, 255};
    draws.at(1, 0) = {3, 0, 0, 255};
    draws.at(2, 1) = {300 & 255, 300 >> 8, 0, 255};
    draws.at(3, 1) = {9, 9, 9, 255};  // no draw of this record
    const auto map = thing_map(*read, draws);
    EXPECT_EQ(map.at(0, 0), 0);
    EXPECT_EQ(map.at(1, 0), 1);
    EXPECT_EQ(map.at(2, 1), 0);
    EXPECT_EQ(map.at(3, 1), -1);
    EXPECT_EQ(map.at(0, 1), -1);
    EXPECT_EQ(map.at(4, 0), -1);
    // Of half the size it is stretched.
    Image half(2, 1, {1, 0, 0, 255});
    half.at(1, 0) = {3, 0, 0, 255};
    const auto stretched = thing_map(*read, half);
    EXPECT_EQ(stretched.at(1, 1), 0);
    EXPECT_EQ(stretched.at(2, 0), 1);
}

TEST(FrameRecords, WhatIsWrongIsSaidWithItsLine) {
    const auto none = frame_record_of("{\"texture\": 1}\n", "/r");
    ASSERT_FALSE(none);
    EXPECT_EQ(none.error().code, ErrorCode::damaged);
    const auto newer = frame_record_of("{\"frame\": 2}\n", "/r");
    ASSERT_FALSE(newer);
    EXPECT_EQ(newer.error().code, ErrorCode::unsupported);
    const auto odd = frame_record_of(
        "{\"frame\": 1, \"picture\": \"../../outside.png\"}\nnonsense\n{\"texture\": 1}\n{\"texture\": 1}\n{\"draw\": 0}\n" +
            std::string(100'000, '[') + "\n",
        "/r");
    ASSERT_TRUE(odd);
    EXPECT_TRUE(odd->picture.empty());
    ASSERT_EQ(odd->notes.size(), 5u);
    EXPECT_EQ(odd->notes[0], "line 1: ../../outside.png is outside of the record's folder");
    EXPECT_EQ(odd->notes[1], "line 2: this is no line of a frame record");
    EXPECT_EQ(odd->notes[2], "line 4: there are two textures 1");
    EXPECT_EQ(odd->notes[4], "line 6: this is no line of a frame record");
}

TEST(FrameRecords, TheNewestOfSeveralFoldersIsFound) {
    TempFolder folder;
    EXPECT_FALSE(newest_frame_record({folder / "none"}));
    for (const auto* name : {"a/1", "a/2", "b/3"}) {
        std::filesystem::create_directories(folder / name);
        put_file(folder / name / "frame.jsonl", {});
    }
    std::filesystem::create_directories(folder / "a/not a record");
    const auto now = std::filesystem::file_time_type::clock::now();
    std::filesystem::last_write_time(folder / "a/1/frame.jsonl", now - std::chrono::hours(2));
    std::filesystem::last_write_time(folder / "a/2/frame.jsonl", now - std::chrono::hours(1));
    std::filesystem::last_write_time(folder / "b/3/frame.jsonl", now - std::chrono::hours(3));
    EXPECT_EQ(newest_frame_record({folder / "a", folder / "b"}), folder / "a/2");
}

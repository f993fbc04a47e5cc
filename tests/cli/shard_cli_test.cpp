// Several machines share one piece of work: the parts together are what one run makes, byte for byte.
#include <gtest/gtest.h>
#include <filesystem>
#include <map>
#include <string>
#include <vector>

#include "base/hash.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"
#include "texture/dds.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;
namespace fs = std::filesystem;

namespace {

/// What lies in a folder, without what exports keep for themselves.
std::map<std::string, std::string> contents_of(const fs::path& folder) {
    std::map<std::string, std::string> out;
    for (const auto& one : fs::recursive_directory_iterator(folder))
        if (one.is_regular_file() && !one.path().filename().string().starts_with("exported."))
            out[one.path().lexically_relative(folder).string()] = to_hex(sha256(get_file(one.path())));
    return out;
}

std::multiset<std::string> lines_of(const std::string& text) {
    std::multiset<std::string> out;
    std::istringstream in(text);
    for (std::string line; std::getline(in, line);) out.insert(line);
    return out;
}

struct ShardCli : testing::Test {
    TempFolder folder;
    std::string zip;
    void SetUp() override {
        zip = at("game.zip");
        std::vector<ZipItem> items;
        for (int i = 0; i < 30; ++i)
            items.push_back(
                {(i % 3 ? "rides/" : "tents/") + std::to_string(i) + ".dds", make_dds(Format::BC1, 16u << (i % 4), 16, 0, unsigned(i))});
        // These two meet in one file when they are flat: which one gets a number must not depend on the part it is in.
        items.push_back({"tents/1.dds", make_dds(Format::BC3, 16, 16, 0, 77)});
        put_file(zip, make_zip(items));
        for (int i = 0; i < 7; ++i)
            put_file(folder / "pictures" / (i % 2 ? "a" : "b") / (std::to_string(i) + ".png"),
                     *write_png(smooth_picture(16u << (i % 3), 16, unsigned(i))));
    }
    [[nodiscard]] std::string at(const char* name) const { return (folder / name).string(); }
    void run_parts(std::vector<std::string> words, int of, std::string* out = nullptr) {
        for (int n = 1; n <= of; ++n) {
            auto all = words;
            all.insert(all.end(), {"--shard", std::to_string(n) + "/" + std::to_string(of)});
            const auto ran = run_cli(all);
            EXPECT_EQ(ran.code, 0) << ran.err;
            if (out) *out += ran.out;
        }
    }
};

}  // namespace

TEST_F(ShardCli, ExportsOfAllPartsAreOneExport) {
    for (const std::string shape : {"--sets", "--flat"}) {
        const auto whole = at(("whole" + shape).c_str()), parts = at(("parts" + shape).c_str());
        ASSERT_EQ(run_cli({"export", zip, "--to", whole, shape}).code, 0);
        run_parts({"export", zip, "--to", parts, shape}, 4);
        const auto expected = contents_of(whole);
        EXPECT_EQ(expected.size(), 31u);
        EXPECT_EQ(contents_of(parts), expected) << shape;
        // Again: what is there is left out, and nothing is an error.
        run_parts({"export", zip, "--to", parts, shape, "--resume"}, 4);
        EXPECT_EQ(contents_of(parts), expected);
    }
}

TEST_F(ShardCli, EditsOfPartsFindTheirWayBack) {
    run_parts({"export", zip, "--to", at("parts"), "--flat"}, 3);
    EXPECT_FALSE(fs::exists(folder / "parts/exported.jsonl"));
    EXPECT_TRUE(fs::exists(folder / "parts/exported.2-of-3.jsonl"));
    put_file(folder / "parts/4.png", *write_png(smooth_picture(16, 16, 99)));
    const auto ran = run_cli({"apply", at("parts"), "--into", zip, "--vault", at("vault")});
    EXPECT_EQ(ran.code, 0) << ran.err;
    ASSERT_EQ(run_cli({"export", zip, "--to", at("after"), "--flat"}).code, 0);
    ASSERT_EQ(run_cli({"restore", zip, "--vault", at("vault")}).code, 0);
    ASSERT_EQ(run_cli({"export", zip, "--to", at("before"), "--flat"}).code, 0);
    auto after = contents_of(folder / "after"), before = contents_of(folder / "before");
    EXPECT_NE(after["4.png"], before["4.png"]);
    after.erase("4.png"), before.erase("4.png");
    EXPECT_EQ(after, before);
}

TEST_F(ShardCli, AFolderIsEncodedInParts) {
    ASSERT_EQ(run_cli({"encode", at("pictures"), "--out", at("whole"), "--format", "BC1"}).code, 0);
    run_parts({"encode", at("pictures"), "--out", at("parts"), "--format", "BC1"}, 3);
    const auto expected = contents_of(folder / "whole");
    EXPECT_EQ(expected.size(), 7u);
    EXPECT_TRUE(expected.contains("a/1.dds"));
    EXPECT_EQ(contents_of(folder / "parts"), expected);
    // A single one is encoded to the same bytes.
    ASSERT_EQ(run_cli({"encode", at("pictures/a/1.png"), "--out", at("one.dds"), "--format", "BC1"}).code, 0);
    EXPECT_EQ(get_file(folder / "one.dds"), get_file(folder / "whole/a/1.dds"));
    // One that is gone is made again, the others are left.
    fs::remove(folder / "parts/b/0.dds");
    const auto again = run_cli({"encode", at("pictures"), "--out", at("parts"), "--format", "BC1", "--resume"});
    EXPECT_EQ(again.code, 0);
    EXPECT_NE(again.err.find("1 made, 0 failed, 6 there already"), std::string::npos) << again.err;
    EXPECT_EQ(contents_of(folder / "parts"), expected);
}

TEST_F(ShardCli, FoldersAreRefusedWhereTheyMakeNoSense) {
    EXPECT_EQ(run_cli({"encode", at("pictures"), "--out", at("x"), "--like", zip + "::rides/1.dds"}).code, 2);
    EXPECT_EQ(run_cli({"encode", at("pictures/a/1.png"), "--out", at("x.dds"), "--format", "BC1", "--shard", "1/2"}).code, 2);
    EXPECT_EQ(run_cli({"touch", at("pictures/a/1.png"), "--do", "brightness=0.1", "--shard", "1/2"}).code, 2) << "would change it in place";
    EXPECT_EQ(run_cli({"roles", zip, "--shard", "1/2"}).code, 2);
    EXPECT_EQ(run_cli({"export", zip, "--to", at("x"), "--shard", "3/2"}).code, 2);
    fs::create_directories(folder / "empty");
    EXPECT_EQ(run_cli({"encode", at("empty"), "--out", at("x"), "--format", "BC1"}).code, 1);
    // Two that would be one texture.
    put_file(folder / "pictures/a/1.tga", get_file(folder / "pictures/a/1.png"));
    const auto ran = run_cli({"encode", at("pictures"), "--out", at("y"), "--format", "BC1"});
    EXPECT_EQ(ran.code, 2);
    EXPECT_FALSE(fs::exists(folder / "y"));
}

TEST_F(ShardCli, TouchUpsAndRolesInParts) {
    std::vector<std::string> touch = {"touch"};
    for (int i = 0; i < 7; ++i) touch.push_back((folder / "pictures" / (i % 2 ? "a" : "b") / (std::to_string(i) + ".png")).string());
    auto whole = touch, parts = touch;
    whole.insert(whole.end(), {"--do", "gray", "--to", at("whole")});
    parts.insert(parts.end(), {"--do", "gray", "--to", at("parts")});
    ASSERT_EQ(run_cli(whole).code, 0) << run_cli(whole).err;
    run_parts(parts, 3);
    EXPECT_EQ(contents_of(folder / "whole").size(), 7u);
    EXPECT_EQ(contents_of(folder / "parts"), contents_of(folder / "whole"));
    parts.push_back("--resume");
    run_parts(parts, 3);

    const auto all = run_cli({"roles", zip, "--by-picture", "--json"});
    ASSERT_EQ(all.code, 0) << all.err;
    std::string together;
    run_parts({"roles", zip, "--by-picture", "--json"}, 4, &together);
    EXPECT_EQ(lines_of(together), lines_of(all.out));
    EXPECT_EQ(lines_of(together).size(), 31u);
}

// GNU parallel (package parallel) starts the parts, as docs/batch.md shows it; over ssh it does the same elsewhere.
TEST_F(ShardCli, GnuParallelRunsTheParts) {
    const auto cli = our_program("skivet-cli");
    const auto ran =
        run_program({"parallel", "--jobs", "3", "--halt", "now,fail=1",
                     cli + " export " + zip + " --to " + at("parts") + " --quiet --jobs 1 --shard {}/5", ":::", "1", "2", "3", "4", "5"});
    ASSERT_EQ(ran.code, 0) << ran.output;
    ASSERT_EQ(run_cli({"export", zip, "--to", at("whole")}).code, 0);
    EXPECT_EQ(contents_of(folder / "parts"), contents_of(folder / "whole"));
    EXPECT_EQ(contents_of(folder / "parts").size(), 31u);
}

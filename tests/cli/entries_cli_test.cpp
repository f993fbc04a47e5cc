// Entries that come, go and get other names, by command line.
#include <gtest/gtest.h>
#include <filesystem>
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "cli/run.h"
#include "support/pictures.h"
#include "support/run_program.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct EntriesCli : testing::Test {
    TempFolder folder;
    std::string zip, vault;
    Bytes horse = make_dds(Format::BC1, 32, 32, 0, 3);
    std::string before;

    void SetUp() override {
        zip = (folder / "game.zip").string();
        vault = (folder / "vault").string();
        put_file(zip, make_zip({{"rides/horse.dds", horse}, {"rides/cow.dds", horse, true}, {"note.txt", bytes_of("hello")}}));
        before = hash_of_file(zip);
    }
    auto run(std::vector<std::string> arguments) const {
        arguments.insert(arguments.end(), {"--vault", vault});
        return run_cli(arguments);
    }
    std::string listed() const { return run_program({"bsdtar", "-tf", zip}).output; }
    Bytes entry(const std::string& path) const {
        std::filesystem::remove(folder / "out");
        EXPECT_EQ(run_cli({"extract", zip + "::" + path, "--out", (folder / "out").string()}).code, 0);
        return get_file(folder / "out");
    }
};

}  // namespace

TEST_F(EntriesCli, AVariantIsAddedAndAPictureIsFittedToIt) {
    const auto dry = run({"add", zip + "::rides/blue.dds", "--like", "rides/horse.dds", "--dry-run"});
    EXPECT_EQ(dry.code, 0) << dry.err;
    EXPECT_EQ(hash_of_file(zip), before);
    ASSERT_EQ(run({"add", zip + "::rides/blue.dds", "--like", "rides/horse.dds"}).code, 0);
    EXPECT_EQ(entry("rides/blue.dds"), horse);

    auto picture = *TextureFile::open(TextureKinds::standard(), horse, "a.dds", ReadLimits{})->decode(0);
    picture.at(3, 3) = {0, 0, 250, 255};
    put_file(folder / "red.png", *write_png(picture));
    const auto fitted = run({"add", zip + "::rides/red.dds", "--like", "rides/horse.dds", "--with", (folder / "red.png").string()});
    ASSERT_EQ(fitted.code, 0) << fitted.err;
    const auto red = entry("rides/red.dds");
    ASSERT_EQ(red.size(), horse.size());
    EXPECT_NE(red, horse);
    EXPECT_TRUE(std::equal(red.begin(), red.begin() + 128, horse.begin())) << "the header";
    EXPECT_EQ(listed(), "rides/horse.dds\nrides/cow.dds\nnote.txt\nrides/blue.dds\nrides/red.dds\n");
    ASSERT_EQ(run({"restore", zip}).code, 0);
    EXPECT_EQ(hash_of_file(zip), before);
}

TEST_F(EntriesCli, AFileIsAddedLikeTheOthersThere) {
    put_file(folder / "n.dds", horse);
    ASSERT_EQ(run({"add", zip + "::rides/n.dds", "--with", (folder / "n.dds").string()}).code, 0);
    const auto line = run_cli({"list", zip, "--match", "*n.dds", "--json"});
    EXPECT_EQ(nlohmann::json::parse(line.out)["method"], "stored") << "as the textures beside it are";
    EXPECT_EQ(run({"add", zip + "::x.bin", "--with", (folder / "n.dds").string()}).code, 0);
    EXPECT_EQ(entry("x.bin"), horse);
}

TEST_F(EntriesCli, RenamedTakenOutAndPutBack) {
    ASSERT_EQ(run({"rename", zip + "::note.txt", "docs/read me.txt"}).code, 0);
    ASSERT_EQ(run({"remove", zip + "::rides/cow.dds", zip + "::rides/horse.dds"}).code, 0);
    EXPECT_EQ(listed(), "docs/read me.txt\n");
    const auto undone = run({"restore", zip});
    ASSERT_EQ(undone.code, 0) << undone.err;
    EXPECT_EQ(hash_of_file(zip), before);
}

TEST_F(EntriesCli, WhatIsWrongIsSaid) {
    const auto refused = [&](std::vector<std::string> arguments, int code, const std::string& why) {
        const auto ran = run(std::move(arguments));
        EXPECT_EQ(ran.code, code) << ran.err;
        EXPECT_NE(ran.err.find(why), std::string::npos) << ran.err;
    };
    refused({"add", zip + "::new.dds"}, 2, "--like or --with is needed");
    refused({"add", zip, "--like", "note.txt"}, 2, "names no entry");
    refused({"add", zip + "::note.txt", "--like", "rides/cow.dds"}, 2, "there is an entry \"note.txt\" already");
    refused({"add", zip + "::new.dds", "--like", "none"}, 3, "there is no entry \"none\"");
    refused({"add", zip + "::../new.dds", "--like", "note.txt"}, 2, "is no path inside an archive");
    refused({"rename", zip + "::note.txt", "rides/cow.dds"}, 2, "already");
    refused({"remove", zip + "::note.txt", (folder / "other.zip").string() + "::a"}, 2, "several sources");
    refused({"remove", zip + "::none"}, 3, "there is no entry");
    EXPECT_EQ(hash_of_file(zip), before);
}

TEST_F(EntriesCli, AProjectTakesAVariant) {
    const auto project = (folder / "p").string();
    ASSERT_EQ(run_cli({"project", "new", project}).code, 0);
    ASSERT_EQ(run_cli({"project", "add", project, zip}).code, 0);
    const auto taken = run_cli({"project", "take", project, zip + "::rides/horse.dds", "--variant", "rides/blue.dds"});
    ASSERT_EQ(taken.code, 0) << taken.err;
    EXPECT_EQ(run_cli({"project", "take", project, zip + "::rides/horse.dds", "--variant", "rides/cow.dds"}).code, 2);
    ASSERT_EQ(run_cli({"project", "deliver", project}).code, 0);
    EXPECT_EQ(entry("rides/blue.dds"), horse);
    ASSERT_EQ(run_cli({"project", "undo", project}).code, 0);
    EXPECT_EQ(hash_of_file(zip), before);
}

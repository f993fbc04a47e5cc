// Parcels by command line, on the fair's kind of archive: made by one person, put in by another.
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <fcntl.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>
#include <csignal>
#include <random>
#include <string>
#include <thread>
#include <vector>

#include "cli/run.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct ParcelCli : testing::Test {
    TempFolder folder;
    std::string theirs, mine, project, parcel;
    Bytes horse = make_dds(Format::BC1, 64, 64, 0, 3), cow = make_dds(Format::BC7, 64, 64, 0, 4);

    void SetUp() override {
        const auto zip = make_zip({{"rides/horse.dds", horse}, {"rides/cow.dds", cow, true}, {"note.txt", bytes_of("hello")}});
        theirs = (folder / "theirs/midway.zip").string();
        mine = (folder / "mine/midway.zip").string();
        put_file(theirs, zip);
        put_file(mine, zip);
        project = (folder / "project").string();
        parcel = (folder / "warm.parcel").string();
        ASSERT_EQ(run_cli({"project", "new", project, mine}).code, 0);
    }
    /// A parcel of somebody who painted a square.
    void make(const std::string& file, const std::string& title, const std::string& entry, std::uint32_t at, Texel color,
              const std::vector<std::string>& more = {}) {
        const auto other = (folder / ("project of " + title)).string();
        ASSERT_EQ(run_cli({"project", "new", other, theirs}).code, 0);
        const auto taken = run_cli({"project", "take", other, theirs + "::" + entry, "--json"});
        ASSERT_EQ(taken.code, 0) << taken.err;
        const std::string picture = nlohmann::json::parse(taken.out).at("file");
        auto image = *read_png(get_file(picture), ReadLimits{});
        for (std::uint32_t y = at; y < at + 8; ++y)
            for (std::uint32_t x = at; x < at + 8; ++x) image.at(x, y) = color;
        put_file(picture, *write_png(image));
        std::vector<std::string> words{"parcel", "make", other, "--out", file, "--title", title};
        words.insert(words.end(), more.begin(), more.end());
        const auto made = run_cli(words);
        ASSERT_EQ(made.code, 0) << made.err;
    }
    std::vector<nlohmann::json> lines(const CliRan& ran) const {
        std::vector<nlohmann::json> out;
        std::istringstream in(ran.out);
        for (std::string line; std::getline(in, line);) out.push_back(nlohmann::json::parse(line));
        return out;
    }
};

}  // namespace

TEST_F(ParcelCli, IsMadeShownInstalledAndTakenOut) {
    make(parcel, "Warm lights", "rides/horse.dds", 8, {240, 180, 20, 255},
         {"--author", "E. Wick", "--set-version", "1.1", "--license", "CC0-1.0", "--notes", "For the evening."});
    EXPECT_EQ(run_cli({"parcel", "check", parcel}).out, "Warm lights is sound: 1 texture\n");
    const auto shown = run_cli({"parcel", "show", parcel});
    EXPECT_EQ(shown.code, 0) << shown.err;
    EXPECT_NE(shown.out.find("Warm lights 1.1 (warm-lights)\nby E. Wick\nlicense CC0-1.0\n"), std::string::npos) << shown.out;
    const auto fits = run_cli({"parcel", "show", parcel, "--in", project, "--json"});
    EXPECT_EQ(fits.code, 0) << fits.err;
    EXPECT_EQ(lines(fits).back().at("match"), "fits");

    const auto before = hash_of_file(mine);
    const auto dry = run_cli({"parcel", "install", project, parcel, "--dry-run"});
    EXPECT_EQ(dry.code, 0) << dry.err;
    EXPECT_EQ(hash_of_file(mine), before);
    const auto installed = run_cli({"parcel", "install", project, parcel});
    EXPECT_EQ(installed.code, 0) << installed.err;
    EXPECT_NE(hash_of_file(mine), before);
    EXPECT_NE(run_cli({"project", "history", project}).out.find("Warm lights installed"), std::string::npos);
    EXPECT_EQ(run_cli({"parcel", "list", project}).out, "  2  your own work\n  1  warm-lights              Warm lights 1.1 (1 texture)\n");
    EXPECT_EQ(run_cli({"verify", mine}).code, 0);
    const auto removed = run_cli({"parcel", "remove", project, "warm-lights"});
    EXPECT_EQ(removed.code, 0) << removed.err;
    EXPECT_EQ(hash_of_file(mine), before);
    EXPECT_EQ(run_cli({"parcel", "list", project}).out, "");
    // By the history, too.
    ASSERT_EQ(run_cli({"parcel", "install", project, parcel}).code, 0);
    ASSERT_EQ(run_cli({"project", "undo", project}).code, 0);
    EXPECT_EQ(hash_of_file(mine), before);
    EXPECT_EQ(run_cli({"parcel", "list", project}).out, "");
}

TEST_F(ParcelCli, WhereTwoMeetOneStaysAndAnotherCanBeChosen) {
    make(parcel, "warm", "rides/horse.dds", 8, {240, 180, 20, 255});
    const auto cold = (folder / "cold.parcel").string();
    make(cold, "cold", "rides/horse.dds", 12, {20, 60, 240, 255});
    ASSERT_EQ(run_cli({"parcel", "install", project, parcel}).code, 0);
    const auto second = run_cli({"parcel", "install", project, cold, "--json"});
    ASSERT_EQ(second.code, 0) << second.err;
    bool told = false;
    for (const auto& line : lines(second))
        if (line.contains("left_out")) told = line.at("left_out") == nlohmann::json::array({"warm"});
    EXPECT_TRUE(told) << second.out;
    const auto cold_stays = hash_of_file(mine);
    const auto chosen = run_cli({"parcel", "prefer", project, mine + "::rides/horse.dds", "warm"});
    ASSERT_EQ(chosen.code, 0) << chosen.err;
    EXPECT_NE(hash_of_file(mine), cold_stays);
    ASSERT_EQ(run_cli({"parcel", "prefer", project, mine + "::rides/horse.dds", "cold"}).code, 0);
    EXPECT_EQ(hash_of_file(mine), cold_stays);
    EXPECT_EQ(run_cli({"parcel", "prefer", project, mine + "::rides/horse.dds", "nobody"}).code, 3);
    ASSERT_EQ(run_cli({"parcel", "order", project, "cold", "1"}).code, 0);
    EXPECT_EQ(lines(run_cli({"parcel", "list", project, "--json"})).back().at("id"), "cold");
}

TEST_F(ParcelCli, AFolderOfAnotherModGoesInByItsPaths) {
    put_file(folder / "mod/rides/horse.dds", make_dds(Format::BC1, 64, 64, 0, 55));
    put_file(folder / "mod/rides/unknown.dds", cow);
    const auto before = hash_of_file(mine);
    const auto installed = run_cli({"parcel", "install", project, (folder / "mod").string()});
    EXPECT_EQ(installed.code, 0) << installed.err;
    EXPECT_NE(installed.err.find("rides/unknown.dds has no counterpart"), std::string::npos) << installed.err;
    EXPECT_NE(hash_of_file(mine), before);
    ASSERT_EQ(run_cli({"parcel", "remove", project, "mod"}).code, 0);
    EXPECT_EQ(hash_of_file(mine), before);
}

TEST_F(ParcelCli, WhatDoesNotFitIsToldAndNothingIsWritten) {
    make(parcel, "warm", "rides/horse.dds", 8, {240, 180, 20, 255});
    put_file(mine, make_zip({{"rides/horse.dds", cow}, {"note.txt", bytes_of("x")}}));
    const auto before = hash_of_file(mine);
    const auto shown = run_cli({"parcel", "show", parcel, "--in", project});
    EXPECT_EQ(shown.code, 1);
    EXPECT_NE(shown.out.find("does not fit, 64×64 BC7 with 7 mips here, 64×64 BC1 with 7 there"), std::string::npos) << shown.out;
    const auto installed = run_cli({"parcel", "install", project, parcel});
    EXPECT_EQ(installed.code, 3) << installed.err;
    EXPECT_EQ(hash_of_file(mine), before);
    put_file(folder / "broken.parcel", bytes_of("PK\3\4 not really"));
    EXPECT_EQ(run_cli({"parcel", "check", (folder / "broken.parcel").string()}).code, 3);
    EXPECT_EQ(run_cli({"parcel", "remove", project, "nobody"}).code, 3);
}

TEST_F(ParcelCli, KilledAtAnyMomentTheGameAndTheListAgree) {
    make(parcel, "warm", "rides/horse.dds", 8, {240, 180, 20, 255});
    const auto without = hash_of_file(mine);
    ASSERT_EQ(run_cli({"parcel", "install", project, parcel}).code, 0);
    const auto with = hash_of_file(mine);
    std::mt19937 random(3);
    int killed = 0;
    bool is_in = true;
    for (int i = 0; i < 60; ++i) {
        const std::string program = our_program("skivet-cli");
        std::vector<std::string> words = is_in ? std::vector<std::string>{program, "parcel", "remove", project, "warm"}
                                               : std::vector<std::string>{program, "parcel", "install", project, parcel};
        std::vector<char*> argv;
        for (auto& word : words) argv.push_back(word.data());
        argv.push_back(nullptr);
        posix_spawn_file_actions_t quiet;
        posix_spawn_file_actions_init(&quiet);
        for (const int out : {1, 2}) posix_spawn_file_actions_addopen(&quiet, out, "/dev/null", O_WRONLY, 0);
        pid_t child = 0;
        ASSERT_EQ(::posix_spawn(&child, program.c_str(), &quiet, nullptr, argv.data(), environ), 0);
        posix_spawn_file_actions_destroy(&quiet);
        std::this_thread::sleep_for(std::chrono::microseconds(random() % 60'000));
        ::kill(child, SIGKILL);
        int status = 0;
        ::waitpid(child, &status, 0);
        killed += WIFSIGNALED(status);
        // The next start puts right what is half done; what the list says is what the game has.
        const auto listed = run_cli({"parcel", "list", project});
        ASSERT_EQ(listed.code, 0) << listed.err;
        is_in = listed.out.find("warm") != std::string::npos;
        ASSERT_EQ(hash_of_file(mine), is_in ? with : without) << "after " << i;
    }
    EXPECT_GT(killed, 5);
    std::printf("killed %d times\n", killed);
}

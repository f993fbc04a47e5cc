#include "catalog/game_survey.h"

#include <gtest/gtest.h>

#include <filesystem>
#include <map>
#include <random>
#include <string>
#include <vector>

#include "catalog/leftovers.h"
#include "support/pictures.h"
#include "support/temp_folder.h"
#include "texture/png.h"

namespace skivet::test {
namespace {

namespace fs = std::filesystem;

struct Survey : testing::Test {
    TempFolder folder;
    ReadContext context;
    Progress progress;

    fs::path put(const std::string& name, const Bytes& bytes) {
        const auto path = folder / name;
        fs::create_directories(path.parent_path());
        put_file(path, bytes);
        return path;
    }
    static Bytes dds() { return make_dds(Format::BC1, 16, 16); }
    static Bytes png(unsigned seed = 1) { return *write_png(smooth_picture(8, 8, seed)); }
    static Bytes zip(const std::vector<std::string>& names) {
        std::vector<ZipItem> items;
        for (const auto& name : names) items.push_back({name, name.ends_with(".dds") ? dds() : bytes_of("no picture")});
        return make_zip(items);
    }
    GameSurvey look(bool inside = true) {
        auto out = *survey_game(context, folder.path(), progress);
        if (inside)
            for (auto& found : out.found) look_inside(context, found);
        return out;
    }
    static const Found* at(const GameSurvey& survey, const fs::path& path) {
        for (const auto& found : survey.found)
            if (found.path == path) return &found;
        return nullptr;
    }
    std::vector<std::string> order(const GameSurvey& survey) {
        std::vector<std::string> out;
        for (const auto& source : propose_order(survey).sources)
            out.push_back(survey.found[source.found].path.lexically_relative(folder.path()).generic_string());
        return out;
    }
    void age(const fs::path& path, int days) {
        fs::last_write_time(path, fs::file_time_type::clock::now() - std::chrono::hours(24 * days));
    }
};

TEST_F(Survey, ArchivesAreFoundByContentHoweverDeepAndWhateverTheirNames) {
    put("data/win/common/archive.dat", zip({"a.dds", "b.dds", "readme"}));
    put("bin/game", bytes_of("\x7F"
                             "ELF and so on"));
    put("data/readme.txt", bytes_of("words"));
    const auto survey = look();
    ASSERT_EQ(survey.found.size(), 1u);
    const auto& found = survey.found[0];
    EXPECT_EQ(found.path, folder / "data/win/common/archive.dat");
    EXPECT_EQ(found.what, Found::What::archive);
    EXPECT_EQ(found.kind, "ZIP");
    EXPECT_EQ(found.textures, 2u);
    EXPECT_EQ(found.entries, 3u);
    EXPECT_EQ(found.samples.size(), 2u);
    EXPECT_TRUE(found.wanted);
    EXPECT_EQ(survey.files, 3u);
}

TEST_F(Survey, LooseTexturesAreOneSourceWhereTheyMeet) {
    for (int i = 0; i < 9; ++i)
        put("share/data/" + std::string(i % 3 == 0 ? "karts/" : i % 3 == 1 ? "tracks/old/" : "gui/") + std::to_string(i) + ".png", png());
    put("share/readme.txt", bytes_of("words"));
    const auto survey = look();
    ASSERT_EQ(survey.found.size(), 1u);
    EXPECT_EQ(survey.found[0].path, folder / "share/data");
    EXPECT_EQ(survey.found[0].what, Found::What::loose);
    EXPECT_EQ(survey.found[0].textures, 9u);
    EXPECT_EQ(survey.found[0].samples.size(), 4u);
    EXPECT_TRUE(survey.found[0].wanted);
    for (const auto& sample : survey.found[0].samples) EXPECT_TRUE(read_address(context, sample)) << sample.text();
}

TEST_F(Survey, AnIconAloneIsNoSourceButOneTextureFileIs) {
    put("icon.png", png());
    put("splash/title.png", png());
    auto survey = look();
    ASSERT_EQ(survey.found.size(), 1u);
    EXPECT_FALSE(survey.found[0].wanted);
    EXPECT_EQ(survey.found[0].why, "only two pictures here");
    put("sky.dds", dds());
    survey = look();
    EXPECT_TRUE(survey.found[0].wanted);
}

TEST_F(Survey, FoldersWhoseNamesSpeakAreSourcesOfTheirOwn) {
    for (const auto* name :
         {"base", "mods/Red Roofs/textures", "mods/Night/textures", "override/walls", "dlc_2/things", "docs/pictures", "backup/walls"})
        for (int i = 0; i < 4; ++i) put(std::string(name) + "/p" + std::to_string(i) + ".png", png());
    const auto survey = look();
    ASSERT_EQ(survey.found.size(), 7u);
    EXPECT_EQ(at(survey, folder / "base")->group, SourceGroup::base);
    EXPECT_EQ(at(survey, folder / "mods/Red Roofs")->group, SourceGroup::mods);
    EXPECT_EQ(at(survey, folder / "mods/Night")->group, SourceGroup::mods);
    EXPECT_EQ(at(survey, folder / "override")->group, SourceGroup::over) << "its paths are as the game's are: it is not entered";
    EXPECT_EQ(at(survey, folder / "dlc_2")->group, SourceGroup::extra);
    EXPECT_EQ(at(survey, folder / "docs")->what, Found::What::documents);
    EXPECT_EQ(at(survey, folder / "backup")->what, Found::What::backup);
    EXPECT_FALSE(at(survey, folder / "docs")->wanted);
    EXPECT_FALSE(at(survey, folder / "backup")->wanted);
    EXPECT_EQ(order(survey), (std::vector<std::string>{"base", "dlc_2", "mods/Night", "mods/Red Roofs", "override"}));
}

TEST_F(Survey, CopiesInstallersAndArchivesWithoutTexturesAreShownButNotWanted) {
    put("base.zip", zip({"a.dds"}));
    put("base - Copy.zip", zip({"a.dds"}));
    put("base.zip.bak", zip({"a.dds"}));
    put("music.zip", zip({"a.txt", "b.txt"}));
    put("setup_2.exe", zip({"a.dds"}));
    const auto survey = look();
    EXPECT_EQ(survey.found.size(), 5u);
    EXPECT_EQ(order(survey), (std::vector<std::string>{"base.zip"}));
    EXPECT_EQ(at(survey, folder / "base - Copy.zip")->what, Found::What::backup);
    EXPECT_EQ(at(survey, folder / "base.zip.bak")->what, Found::What::backup);
    EXPECT_EQ(at(survey, folder / "setup_2.exe")->what, Found::What::installer);
    EXPECT_EQ(at(survey, folder / "music.zip")->why, "no texture among its 2 entries");
}

TEST_F(Survey, LinksAndHiddenFoldersAreCountedNotFollowed) {
    put("base.zip", zip({"a.dds"}));
    put(".cache/other.zip", zip({"a.dds"}));
    fs::create_directory_symlink(folder.path(), folder / "loop");
    fs::create_symlink(folder / "base.zip", folder / "again.zip");
    const auto survey = look();
    EXPECT_EQ(survey.found.size(), 1u);
    EXPECT_EQ(survey.linked, 2u);
    EXPECT_EQ(survey.hidden, 1u);
    EXPECT_TRUE(survey.whole);
}

TEST_F(Survey, PartsAndCompanionsStandTogether) {
    const auto whole = zip({"a.dds", "b.dds"});
    for (std::size_t i = 0; i < 3; ++i)
        put("big.zip.00" + std::to_string(i), Bytes(whole.begin() + static_cast<std::ptrdiff_t>(i * whole.size() / 3),
                                                    whole.begin() + static_cast<std::ptrdiff_t>((i + 1) * whole.size() / 3)));
    put("world.idx", random_bytes(1'200'000, 1));
    put("world_0.bin", random_bytes(2'000'000, 2));
    put("world_1.bin", random_bytes(2'000'000, 3));
    put("level.bin", random_bytes(2'000'000, 4));
    const auto survey = look();
    ASSERT_EQ(survey.found.size(), 3u);
    EXPECT_EQ(at(survey, folder / "big.zip.000")->files(), 3u);
    EXPECT_EQ(at(survey, folder / "big.zip.000")->textures, 2u);
    const auto* world = at(survey, folder / "world.idx");
    ASSERT_TRUE(world);
    EXPECT_EQ(world->what, Found::What::undescribed);
    EXPECT_EQ(world->files(), 3u);
    EXPECT_EQ(world->bytes, 5'200'000u);
    EXPECT_FALSE(world->wanted);
    EXPECT_EQ(at(survey, folder / "level.bin")->files(), 1u);
}

TEST_F(Survey, DataThatBeginsWithATextureIsNoTexture) {
    auto data = dds();
    const auto more = random_bytes(3000, 1);
    data.insert(data.end(), more.begin(), more.end());
    put("lamps-0.stock", data);
    put("renamed.asset", dds());
    const auto survey = look();
    ASSERT_EQ(survey.found.size(), 1u);
    EXPECT_EQ(survey.found[0].what, Found::What::loose);
    EXPECT_EQ(survey.found[0].textures, 1u);
}

TEST_F(Survey, ManyFilesOfOneEndingAreOneLine) {
    for (int i = 0; i < 7; ++i) put("levels/" + std::to_string(i) + "/shape.mdl", random_bytes(1'100'000, static_cast<unsigned>(i)));
    put("doc/notes.zip", zip({"a.dds"}));
    const auto survey = look();
    ASSERT_EQ(survey.found.size(), 2u);
    ASSERT_TRUE(at(survey, folder / "levels/0/shape.mdl"));
    EXPECT_EQ(at(survey, folder / "levels/0/shape.mdl")->files(), 7u);
    EXPECT_EQ(at(survey, folder / "levels/0/shape.mdl")->why, "7 files named *.mdl, which nothing describes yet");
    EXPECT_EQ(at(survey, folder / "doc/notes.zip")->what, Found::What::documents);
    EXPECT_FALSE(at(survey, folder / "doc/notes.zip")->wanted);
}

TEST_F(Survey, TheGamesOwnListGivesTheOrderWhateverItIsCalled) {
    for (const auto* name : {"a.zip", "b.zip", "c.zip", "d.zip"}) put("data/" + std::string(name), zip({"x.dds"}));
    put("data/readme.txt", bytes_of("a.zip holds the base\nThis game was made\nby people\nand so on\n"));
    put("config/unrelated.txt", bytes_of("b.zip\na.zip\n"));
    put("data/packages.xml", bytes_of("<packages>\n <package file=\"data/C.zip\"/>\n <package file=\"data/A.zip\"/>\n <package "
                                      "file=\"data/b.zip\"/>\n</packages>\n"));
    auto survey = look();
    const auto listed = propose_order(survey);
    EXPECT_EQ(listed.list, folder / "data/packages.xml");
    EXPECT_EQ(order(survey), (std::vector<std::string>{"data/d.zip", "data/c.zip", "data/a.zip", "data/b.zip"}));
    EXPECT_FALSE(listed.sources[0].sure) << "the list does not name it";
    EXPECT_TRUE(listed.sources[1].sure);
    EXPECT_EQ(listed.sources[3].reason, "number 3 in packages.xml");
}

TEST_F(Survey, NumbersGroupsAndDatesOrderAndWhatIsUnsureIsSaid) {
    for (const auto* name : {"data10.zip", "data9.zip", "patch_1.zip", "data_dlc1.zip"}) put(name, zip({"x.dds"}));
    put("late.zip", zip({"y.dds"}));
    put("early.zip", zip({"y.dds"}));
    put("alone.zip", zip({"z.dds"}));
    age(folder / "late.zip", 1);
    age(folder / "early.zip", 30);
    const auto survey = look();
    EXPECT_EQ(order(survey),
              (std::vector<std::string>{"alone.zip", "data9.zip", "data10.zip", "early.zip", "late.zip", "data_dlc1.zip", "patch_1.zip"}));
    for (const auto& source : propose_order(survey).sources) {
        const auto name = survey.found[source.found].path.filename().string();
        EXPECT_EQ(source.sure, name != "early.zip" && name != "late.zip") << name << ": " << source.reason;
        if (name == "late.zip") EXPECT_EQ(source.reason, "shares paths with early.zip and is 29 days newer");
        if (name == "data10.zip") EXPECT_EQ(source.reason, "its number, after data9.zip");
        if (name == "patch_1.zip") EXPECT_EQ(source.reason, "update, by its name");
    }
}

TEST_F(Survey, NaturalOrder) {
    EXPECT_TRUE(natural_less("pack9", "pack10"));
    EXPECT_TRUE(natural_less("Pack2", "pack10"));
    EXPECT_FALSE(natural_less("pack10", "pack9"));
    EXPECT_TRUE(natural_less("a", "b"));
    EXPECT_TRUE(natural_less("pack007x", "pack8"));
    EXPECT_FALSE(natural_less("same", "same"));
    EXPECT_TRUE(natural_less("pack01", "pack1") != natural_less("pack1", "pack01")) << "a total order";
}

TEST_F(Survey, CancelAndMissingFolders) {
    EXPECT_EQ(survey_game(context, folder / "nowhere", progress).error().code, ErrorCode::missing);
    put("a.zip", zip({"a.dds"}));
    progress.cancel.cancel();
    EXPECT_EQ(survey_game(context, folder.path(), progress).error().code, ErrorCode::canceled);
}

TEST_F(Survey, LimitsHold) {
    for (int i = 0; i < 20; ++i) put("p" + std::to_string(i) + ".png", png());
    context.limits.entries = 10;
    const auto survey = look();
    EXPECT_FALSE(survey.whole);
    EXPECT_EQ(survey.files, 10u);
}

/// Installations made at random: the textures of each lie at known places among files of other kinds, and every place must be found.
TEST_F(Survey, RandomInstallationsAreFoundWhole) {
    for (unsigned seed = 1; seed <= 12; ++seed) {
        std::mt19937 random(seed);
        TempFolder game;
        const auto put_in = [&](const fs::path& path, const Bytes& bytes) {
            fs::create_directories((game / path.string()).parent_path());
            put_file(game / path.string(), bytes);
        };
        const auto word = [&] {
            std::string out;
            for (std::mt19937::result_type i = 0, n = 3 + random() % 6; i < n; ++i) out += static_cast<char>('a' + random() % 26);
            return out + "q";  // no word of any table
        };
        fs::path deep;
        for (std::mt19937::result_type i = 0, n = random() % 4; i < n; ++i) deep /= word();
        std::set<fs::path> wanted;
        const auto inside = deep / word();
        for (std::mt19937::result_type i = 0, n = 3 + random() % 20; i < n; ++i) {
            const auto file = inside / word() / (word() + (random() % 2 ? ".png" : ".dds"));
            put_in(file, file.extension() == ".png" ? png(static_cast<unsigned>(i)) : dds());
        }
        // Where they meet; by chance all of them can lie further inside.
        for (std::mt19937::result_type i = 0, n = random() % 4; i < n; ++i) {
            const auto file = deep / (word() + (random() % 2 ? ".pak" : ".bin"));
            put_in(file, zip({word() + ".dds", word() + ".txt"}));
            wanted.insert(game / file.string());
        }
        for (std::mt19937::result_type i = 0, n = random() % 10; i < n; ++i)
            put_in(deep / word() / (word() + ".ogg"), bytes_of("OggS and so on"));
        auto survey = *survey_game(context, game.path(), progress);
        for (auto& found : survey.found) look_inside(context, found);
        std::set<fs::path> have;
        std::size_t loose = 0;
        for (const auto& found : survey.found) {
            if (!found.wanted) continue;
            if (found.what == Found::What::archive) {
                have.insert(found.path);
            } else {
                ++loose;
                EXPECT_TRUE(found.path.string().starts_with((game / inside.string()).string())) << seed;
            }
        }
        EXPECT_EQ(have, wanted) << seed;
        EXPECT_EQ(loose, 1u) << seed;
    }
}

TEST_F(Survey, WhatOtherToolsLeftIsToldAndNothingElse) {
    for (const char* name : {"base.pak", "rides.pak", "update.pak", "zz_old_mod.pak"}) put(std::string("data/") + name, zip({"a.dds"}));
    put("data/load.txt", bytes_of("base.pak\nrides.pak\nupdate.pak\n"));
    put("data/base.pak.bak", zip({"a.dds"}));
    put("data/lonely.bak", bytes_of("nothing beside it is called lonely"));
    put("bin/Game.exe", bytes_of("MZ"));
    put("bin/D3D9.dll", bytes_of("MZ"));
    put("bin/sound.dll", bytes_of("MZ"));
    put("tools/d3d9.dll", bytes_of("no program lies here"));
    const auto survey = look();
    const auto order = propose_order(survey);
    ASSERT_EQ(order.list.filename(), "load.txt");
    const auto left = find_leftovers(survey, order);
    ASSERT_TRUE(left);
    std::map<std::string, Leftover::What> told;
    for (const auto& one : *left) told[one.path.lexically_relative(folder.path()).generic_string()] = one.what;
    const std::map<std::string, Leftover::What> wanted{{"bin/D3D9.dll", Leftover::What::wrapper},
                                                       {"data/base.pak.bak", Leftover::What::copy},
                                                       {"data/zz_old_mod.pak", Leftover::What::unlisted}};
    for (const auto& [path, what] : wanted) {
        ASSERT_TRUE(told.contains(path)) << path;
        EXPECT_EQ(told[path], what) << path;
    }
    told.erase("data/base.pak.bak");
    for (const auto& [path, what] : told) EXPECT_TRUE(wanted.contains(path)) << path;
    CancelToken canceled;
    canceled.cancel();
    EXPECT_FALSE(find_leftovers(survey, order, canceled));
}
}  // namespace
}  // namespace skivet::test

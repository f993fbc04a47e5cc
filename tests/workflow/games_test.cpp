// The list of projects, what a card says of one, projects for files in passing, and the settings of the program.
#include "workflow/games.h"

#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <thread>
#include <vector>

#include "base/file_write.h"
#include "workflow/pieces.h"
#include "workflow/settings.h"
#include "workflow/workflow_fixture.h"

using namespace skivet;
using namespace skivet::test;

namespace fs = std::filesystem;

namespace {

struct Games : Workflow {
    GameList list{folder / "data/games", folder / "data/projects"};
    GameCard card() { return *look_at_game({folder / "project", 5}, {}); }
};

}  // namespace

TEST_F(Games, TheLastOpenedComesFirst) {
    EXPECT_TRUE(list.all().empty());
    // A path may hold any byte but zero.
    const fs::path odd = folder / "odd \n\xff name";
    for (const auto& name : {folder / "one", odd, folder / "three"}) fs::create_directories(name);
    ASSERT_TRUE(list.opened(folder / "one", 10));
    ASSERT_TRUE(list.opened(odd, 20));
    ASSERT_TRUE(list.opened(folder / "three/", 15));
    EXPECT_EQ(list.all(), (std::vector<KnownGame>{{odd, 20}, {folder / "three", 15}, {folder / "one", 10}}));
    ASSERT_TRUE(list.opened(folder / "one", 30));
    ASSERT_TRUE(list.forget(folder / "three"));
    EXPECT_EQ(list.all(), (std::vector<KnownGame>{{folder / "one", 30}, {odd, 20}}));
    EXPECT_TRUE(fs::exists(folder / "three")) << "off the list is not off the disk";
}

TEST_F(Games, ProjectsFromBeforeThereWasAListAreInIt) {
    for (const char* name : {"a", "b", "passing one"}) put_file(list.projects() / name / "project.json", as_bytes("{}"));
    put_file(list.projects() / "passing one/passing", {});
    fs::create_directories(list.projects() / "no project");
    EXPECT_EQ(list.all().size(), 2u);
    ASSERT_TRUE(list.opened(folder / "c", 1));
    EXPECT_EQ(list.all().size(), 3u);
    ASSERT_TRUE(list.forget(list.projects() / "a"));
    EXPECT_EQ(list.all().size(), 2u) << "what was taken off does not come back";
}

TEST_F(Games, AListThatCannotBeReadIsSetAsideAndSaid) {
    put_file(folder / "data/games", as_bytes("12 zz\n"));
    put_file(list.projects() / "a/project.json", as_bytes("{}"));
    std::optional<Error> aside;
    EXPECT_EQ(list.all(&aside).size(), 1u);
    ASSERT_TRUE(aside);
    const auto damaged = get_file(folder / "data/games.damaged");
    EXPECT_EQ(as_text(damaged), "12 zz\n");
    std::optional<Error> again;
    (void)list.all(&again);
    EXPECT_FALSE(again) << "said once";
}

TEST_F(Games, TwoProgramsMayChangeTheListAtOnce) {
    std::vector<std::thread> threads;
    for (int t = 0; t < 4; ++t)
        threads.emplace_back([&, t] {
            for (int i = 0; i < 10; ++i) EXPECT_TRUE(list.opened(folder / ("p" + std::to_string(t * 10 + i)), t * 10 + i));
        });
    for (auto& thread : threads) thread.join();
    EXPECT_EQ(list.all().size(), 40u);
}

TEST_F(Games, ACardSaysWhatIsOutWhatWaitsAndWhetherSourcesChanged) {
    {
        auto o = open();
        const auto ids = take(o, {{zip, {"a/one.dds"}}, {zip, {"a/two.dds"}}, {crate, {"b/three.dds"}}});
        paint(o.project, ids[0], {200, 30, 30, 255});
        o.project.name = "Fair";
        ASSERT_TRUE(save_project(o.project));
        EXPECT_FALSE(card().changed) << "nothing was noted yet";
        ASSERT_TRUE(note_sources_seen(o.project));
    }
    auto seen = card();
    EXPECT_EQ(seen.name, "Fair");
    EXPECT_EQ(seen.game, game);
    EXPECT_EQ(seen.out, 2u);
    EXPECT_EQ(seen.waiting, 1u);
    EXPECT_EQ(seen.in_game, 0u);
    EXPECT_TRUE(seen.game_there);
    EXPECT_FALSE(seen.changed);
    put_file(zip, make_zip({{"a/one.dds", make_dds(Format::BC1, 32, 32, 0, 7)}}));
    EXPECT_TRUE(card().changed);
    fs::rename(game, folder / "elsewhere");
    EXPECT_FALSE(card().game_there);
    CancelToken cancel;
    cancel.cancel();
    fs::rename(folder / "elsewhere", game);
    EXPECT_EQ(look_at_game({folder / "project", 5}, cancel).error().code, ErrorCode::canceled);
}

TEST_F(Games, ACardOfWhatCannotBeReadSaysSo) {
    EXPECT_EQ(look_at_game({folder / "gone", 5}, {})->error->code, ErrorCode::missing);
    put_file(folder / "bad/project.json", as_bytes("{"));
    EXPECT_EQ(look_at_game({folder / "bad", 5}, {})->error->code, ErrorCode::damaged);
}

TEST_F(Games, AProjectIsMeantByItsFolderOrAFileInIt) {
    put_file(folder / "p/project.json", as_bytes("{}"));
    put_file(folder / "p/work/deep/a.png", {});
    put_file(folder / "q/a.zip", {});
    EXPECT_EQ(project_at(folder / "p"), folder / "p");
    EXPECT_EQ(project_at(folder / "p/project.json"), folder / "p");
    EXPECT_FALSE(project_at(folder / "p/work/deep/a.png"));
    EXPECT_FALSE(project_at(folder / "p/missing"));
    EXPECT_FALSE(project_at(folder / "q/a.zip"));
    EXPECT_FALSE(project_at(folder / "q"));
}

TEST_F(Games, AnOpenProjectIsNotRenamed) {
    {
        auto o = open();
        ASSERT_TRUE(save_project(o.project));
        EXPECT_EQ(rename_game(folder / "project", "New").error().code, ErrorCode::busy);
    }
    EXPECT_EQ(rename_game(folder / "project", "").error().code, ErrorCode::usage);
    ASSERT_TRUE(rename_game(folder / "project", "New"));
    EXPECT_EQ(open_project(folder / "project")->name, "New");
    EXPECT_EQ(open_project(folder / "project")->sources.size(), 2u);
}

TEST_F(Games, ThePiecesTellAGameFirstThenItsLargestPictures) {
    auto o = open();
    Progress progress;
    const auto catalog = *read_sources(*o.context, {o.project, nullptr, {}}, *o.index, progress);
    const auto paths = [&](std::size_t most) {
        std::vector<std::string> out;
        for (const auto i : telling_items(*catalog, o.project, most)) out.push_back(catalog->snapshot->catalog.items[i].path());
        return out;
    };
    EXPECT_EQ(paths(5).size(), 3u);
    take(o, {{crate, {"b/three.dds"}}, {zip, {"a/two.dds"}}});
    EXPECT_EQ(paths(5), (std::vector<std::string>{"a/two.dds", "b/three.dds", "a/one.dds"}));
    EXPECT_EQ(paths(1), (std::vector<std::string>{"a/two.dds"}));
}

TEST_F(Games, APassingProjectGoesWhenNothingWasDoneInIt) {
    const auto one = *make_passing(list.projects(), "/x/horse.dds"), two = *make_passing(list.projects(), "/y/horse.dds");
    EXPECT_NE(one, two);
    EXPECT_TRUE(is_passing(one));
    for (const auto& place : {one, two}) {
        auto opened = open_for_work(shipped, {place, {}, {zip}, {}}, files, 1);
        ASSERT_TRUE(opened);
        ASSERT_TRUE(save_project(opened->project));
        EXPECT_FALSE(let_passing_go(place)) << "it is open";
        if (place == two) take(*opened, {{zip, {"a/one.dds"}}});
        ASSERT_TRUE(save_project(opened->project));
    }
    const auto crashed = *make_passing(list.projects(), "/z/swan.dds");
    {
        const auto open = lock_project(one);
        clear_passing(list.projects());
        EXPECT_TRUE(fs::exists(crashed)) << "it may be just being opened";
        for (const auto& place : {one, crashed})
            fs::last_write_time(place / "passing", fs::file_time_type::clock::now() - std::chrono::hours(1));
        clear_passing(list.projects());
        EXPECT_FALSE(fs::exists(crashed));
        EXPECT_TRUE(fs::exists(one)) << "somebody has it open";
    }
    put_file(two / "passing", {});
    EXPECT_TRUE(let_passing_go(one));
    EXPECT_FALSE(fs::exists(one));
    EXPECT_FALSE(let_passing_go(two));
    EXPECT_TRUE(fs::exists(two / "project.json"));
    EXPECT_FALSE(is_passing(two)) << "something was done in it, so it stays";
    EXPECT_TRUE(fs::exists(zip));
    // A project of the person's own is never removed.
    ASSERT_TRUE(save_project(*open_project(folder / "own")));
    EXPECT_FALSE(let_passing_go(folder / "own"));
    EXPECT_TRUE(fs::exists(folder / "own/project.json"));
}

TEST_F(Games, SettingsComeBackAndKeepWhatAnotherVersionWrote) {
    const auto file = folder / "config/settings.json";
    EXPECT_EQ(load_settings(file), Settings());
    Settings wanted;
    wanted.look = Settings::Look::night;
    wanted.text_percent = 150;
    wanted.menu_bar = false;
    wanted.language = "de";
    wanted.thumbnail_bytes = 64u << 20;
    wanted.keys = {{"catalog/export", "Ctrl+Shift+E"}, {"bench/open", ""}};
    wanted.recent_commands = {"catalog/export"};
    put_file(file, as_bytes(R"({"of_a_later_version": [1, 2]})"));
    ASSERT_TRUE(save_settings(wanted, file));
    EXPECT_EQ(load_settings(file), wanted);
    const auto bytes = get_file(file);
    EXPECT_NE(as_text(bytes).find("of_a_later_version"), std::string_view::npos);
}

TEST_F(Games, SettingsThatMakeNoSenseAreLeftOutAndADamagedFileIsSetAside) {
    const auto file = folder / "settings.json";
    put_file(file,
             as_bytes(R"({"look": "pink", "text_percent": 5000, "menu_bar": "no", "language": 3, "keys": [1], "thumbnail_bytes": 1})"));
    std::optional<Error> aside;
    const auto read = load_settings(file, &aside);
    EXPECT_FALSE(aside);
    EXPECT_EQ(read.look, Settings::Look::system);
    EXPECT_EQ(read.text_percent, 200);
    EXPECT_TRUE(read.menu_bar);
    EXPECT_TRUE(read.keys.empty());
    EXPECT_EQ(read.thumbnail_bytes, 16u << 20);
    for (const char* text : {"{\"look\": ", "[]", ""}) {
        put_file(file, as_bytes(text));
        aside.reset();
        EXPECT_EQ(load_settings(file, &aside), Settings());
        ASSERT_TRUE(aside) << text;
        EXPECT_NE(aside->message().find("settings.damaged"), std::string::npos);
        EXPECT_FALSE(fs::exists(file));
    }
    EXPECT_TRUE(fs::exists(folder / "settings.damaged.3.json")) << "an earlier one is not written over";
}

TEST(UserFolders, FollowTheBaseDirectorySpecification) {
    // https://specifications.freedesktop.org/basedir-spec/: paths that are not absolute are ignored; the defaults below $HOME.
    const char* names[] = {"XDG_CONFIG_HOME", "XDG_CACHE_HOME", "XDG_STATE_HOME", "HOME"};
    std::map<std::string, std::string> before;
    for (const char* name : names)
        if (const char* value = std::getenv(name)) before[name] = value;
    ::setenv("HOME", "/home/fair", 1);
    for (const char* name : {"XDG_CONFIG_HOME", "XDG_CACHE_HOME", "XDG_STATE_HOME"}) ::unsetenv(name);
    EXPECT_EQ(user_config_folder(), "/home/fair/.config/skivet");
    EXPECT_EQ(user_cache_folder(), "/home/fair/.cache/skivet");
    EXPECT_EQ(user_state_folder(), "/home/fair/.local/state/skivet");
    ::setenv("XDG_CONFIG_HOME", "relative", 1);
    ::setenv("XDG_CACHE_HOME", "/c", 1);
    ::setenv("XDG_STATE_HOME", "", 1);
    EXPECT_EQ(user_config_folder(), "/home/fair/.config/skivet");
    EXPECT_EQ(user_cache_folder(), "/c/skivet");
    EXPECT_EQ(user_state_folder(), "/home/fair/.local/state/skivet");
    for (const char* name : names) {
        if (before.contains(name)) ::setenv(name, before[name].c_str(), 1);
        else ::unsetenv(name);
    }
}

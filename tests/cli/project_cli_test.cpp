// The trip in a project by command line.
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <filesystem>
#include <sstream>
#include <string>
#include <vector>

#include "cli/run.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"
#include "texture/png.h"
#include "workflow/project.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct ProjectCli : testing::Test {
    TempFolder folder;
    std::string game, zip, project;

    void SetUp() override {
        game = (folder / "game").string();
        zip = game + "/base.zip";
        project = (folder / "project").string();
        std::filesystem::create_directories(game);
        put_file(zip, make_zip({{"a/one.dds", make_dds(Format::BC1, 32, 32, 0, 1)},
                                {"a/two.dds", make_dds(Format::BC3, 32, 32, 0, 2), true},
                                {"note.txt", bytes_of("hello")}}));
        ASSERT_EQ(run({"new", project, "--game", game}).code, 0);
    }
    static CliRan run(std::vector<std::string> words) {
        words.insert(words.begin(), "project");
        return run_cli(words);
    }
    static std::vector<nlohmann::json> lines(const std::string& text) {
        std::vector<nlohmann::json> out;
        std::istringstream in(text);
        for (std::string line; std::getline(in, line);) out.push_back(nlohmann::json::parse(line));
        return out;
    }
    void take(const std::string& entry) { ASSERT_EQ(run({"take", project, zip + "::" + entry}).code, 0); }
    /// The state of a piece as `status` has it.
    std::string state(PieceId id) {
        for (const auto& line : lines(run({"status", project, "--json"}).out))
            if (line.value("piece", PieceId{0}) == id) return line["state"];
        return "none";
    }
    std::filesystem::path file_of(PieceId id) {
        const auto p = *open_project(project);
        return p.work() / p.piece(id)->file;
    }
    void paint(PieceId id) {
        auto image = *read_png(get_file(file_of(id)), ReadLimits{});
        for (std::uint32_t i = 0; i < 8; ++i) image.at(i, i) = {250, 0, 0, 255};
        put_file(file_of(id), *write_png(image));
    }
};

}  // namespace

TEST_F(ProjectCli, TheWholeTripAndBack) {
    const auto before = hash_of_file(zip);
    take("a/one.dds");
    EXPECT_EQ(state(1), "out");
    paint(1);
    EXPECT_EQ(state(1), "changed") << "seen without anything being kept";
    const auto fitted = lines(run({"fit", project, "--json"}).out);
    ASSERT_EQ(fitted.size(), 1u);
    EXPECT_EQ(fitted[0]["state"], "fits");
    EXPECT_GT(fitted[0]["blocks_new"], 0);
    EXPECT_EQ(fitted[0]["changed_texels"], 8);
    const auto planned = lines(run({"plan", project, "--json"}).out);
    ASSERT_EQ(planned.size(), 1u);
    EXPECT_EQ(planned[0]["way"], "in-place");
    EXPECT_EQ(hash_of_file(zip), before) << "a plan writes nothing";
    const auto delivered = run({"deliver", project, "--json"});
    EXPECT_EQ(delivered.code, 0) << delivered.err;
    ASSERT_EQ(lines(delivered.out).size(), 2u);
    EXPECT_EQ(lines(delivered.out)[1]["title"], "one into base.zip");
    EXPECT_EQ(lines(delivered.out)[1]["bytes_written"], planned[0]["bytes_written"]);
    EXPECT_EQ(state(1), "delivered");
    EXPECT_NE(hash_of_file(zip), before);
    const auto history = lines(run({"history", project, "--json"}).out);
    ASSERT_EQ(history.size(), 1u);
    EXPECT_EQ(history[0]["sources"][0]["entries"], nlohmann::json({"a/one.dds"}));
    EXPECT_EQ(run({"undo", project, history[0]["delivery"]}).code, 0);
    EXPECT_EQ(hash_of_file(zip), before);
    EXPECT_EQ(state(1), "changed");
    EXPECT_EQ(run({"undo", project}).code, 3) << "nothing is left to undo";
}

TEST_F(ProjectCli, WhatDoesNotFitIsSaidAndMended) {
    take("a/two.dds");
    put_file(file_of(1), *write_png(smooth_picture(20, 20, 4, true)));
    auto ran = run({"fit", project});
    EXPECT_EQ(ran.code, 1);
    EXPECT_NE(ran.out.find("20×20 where the game has 32×32"), std::string::npos);
    EXPECT_NE(ran.out.find("--do resize"), std::string::npos);
    EXPECT_EQ(run({"plan", project}).code, 1);
    ran = run({"deliver", project});
    EXPECT_EQ(ran.code, 1);
    EXPECT_NE(ran.out.find("two stays on the bench"), std::string::npos);
    EXPECT_EQ(state(1), "needs a mend");
    EXPECT_EQ(run({"mend", project, "--do", "polish"}).code, 2);
    EXPECT_EQ(run({"mend", project, "two", "--do", "resize,alpha"}).code, 0);
    EXPECT_EQ(state(1), "fits");
    EXPECT_EQ(run({"deliver", project, "1"}).code, 0);
}

TEST_F(ProjectCli, PiecesAreNamedByNumberNameOrAddress) {
    take("a/one.dds");
    take("a/two.dds");
    paint(1);
    paint(2);
    for (const auto& name : {std::string("2"), std::string("two"), zip + "::a/two.dds"}) {
        const auto ran = lines(run({"plan", project, name, "--json"}).out);
        ASSERT_EQ(ran.size(), 1u) << name;
        EXPECT_EQ(ran[0]["pieces"].size(), 1u);
        EXPECT_EQ(ran[0]["pieces"][0]["piece"], 2);
    }
    const auto unknown = run({"plan", project, "three"});
    EXPECT_EQ(unknown.code, 2);
    EXPECT_NE(unknown.err.find("has no piece three"), std::string::npos);
}

TEST_F(ProjectCli, BesideTheGameAndAsAPatch) {
    const auto before = hash_of_file(zip);
    take("a/one.dds");
    paint(1);
    EXPECT_EQ(run({"deliver", project, "--to", "beside"}).code, 0);
    EXPECT_TRUE(std::filesystem::exists(game + "/override/a/one.dds"));
    EXPECT_EQ(lines(run({"status", project, "--json"}).out)[0]["to"], "beside") << "kept, as by the window";
    paint(1);
    auto image = *read_png(get_file(file_of(1)), ReadLimits{});
    image.at(20, 20) = {0, 250, 0, 255};
    put_file(file_of(1), *write_png(image));
    EXPECT_EQ(run({"deliver", project, "--to", "patch"}).code, 0);
    EXPECT_TRUE(std::filesystem::exists(game + "/zz_base_patch.zip"));
    EXPECT_EQ(run({"undo", project, "--all"}).code, 0);
    EXPECT_FALSE(std::filesystem::exists(game + "/zz_base_patch.zip"));
    EXPECT_FALSE(std::filesystem::exists(game + "/override/a/one.dds"));
    EXPECT_EQ(hash_of_file(zip), before);
}

TEST_F(ProjectCli, OntoACardAndIntoTheGamesList) {
    put_file(game + "/order.txt", bytes_of("base.zip\n"));
    take("a/one.dds");
    paint(1);
    const auto card = (folder / "card").string();
    std::filesystem::create_directories(card);
    const auto set =
        run({"set", project, "--to", "device", "--device", card, "--device-layout", "mods/{path}", "--device-files", "whole", "--json"});
    ASSERT_EQ(set.code, 0) << set.err;
    EXPECT_EQ(lines(set.out)[0]["device"], card);
    EXPECT_EQ(lines(set.out)[0]["to"], "device");
    const auto before = get_file(zip);
    ASSERT_EQ(run({"deliver", project}).code, 0);
    EXPECT_TRUE(std::filesystem::exists(card + "/mods/base.zip"));
    EXPECT_EQ(get_file(zip), before);
    ASSERT_EQ(run({"undo", project, "--all"}).code, 0);
    EXPECT_TRUE(std::filesystem::is_empty(card));

    ASSERT_EQ(run({"set", project, "--to", "patch", "--list", "order.txt"}).code, 0);
    const auto plan = run({"plan", project});
    EXPECT_NE(plan.out.find("zz_base_patch.zip"), std::string::npos);
    EXPECT_NE(plan.out.find("order.txt: lists zz_base_patch.zip\n"), std::string::npos) << plan.out;
    ASSERT_EQ(run({"deliver", project}).code, 0);
    EXPECT_EQ(as_text(get_file(game + "/order.txt")), "base.zip\nzz_base_patch.zip\n");

    for (const std::vector<std::string>& wrong : {std::vector<std::string>{"--device-layout", "../{path}"},
                                                  {"--device-largest", "7"},
                                                  {"--list", "/etc/passwd"},
                                                  {"--device-part", ".x"},
                                                  {"--play-environment", "nothing"},
                                                  {"--play-log", "../out.log"}}) {
        auto words = std::vector<std::string>{"set", project};
        words.insert(words.end(), wrong.begin(), wrong.end());
        EXPECT_EQ(run(words).code, 2) << wrong[0];
    }
    EXPECT_EQ(open_project(project)->places.device.layout, "mods/{path}") << "what is refused changes nothing";
}

TEST_F(ProjectCli, TheGameIsStartedInItsFolderWithItsEnvironment) {
    EXPECT_EQ(run({"play", project}).code, 2) << "nothing says how";
    ASSERT_EQ(
        run({"set", project, "--play", "sh -c 'echo $FLAG > where.txt; pwd >> where.txt; exit 7'", "--play-environment", "FLAG=tent"}).code,
        0);
    EXPECT_EQ(run_program({our_program("skivet-cli"), "project", "play", project}).code, 7) << "the game's code is this command's";
    EXPECT_EQ(as_text(get_file(game + "/where.txt")), "tent\n" + std::filesystem::canonical(game).string() + "\n");
    ASSERT_EQ(run({"set", project, "--play", "sh -c 'pwd > here.txt'", "--play-folder", project}).code, 0);
    EXPECT_EQ(run({"play", project}).code, 0);
    EXPECT_TRUE(std::filesystem::exists(project + "/here.txt"));
    ASSERT_EQ(run({"set", project, "--play", "/nowhere/at/all"}).code, 0);
    const auto gone = run({"play", project});
    EXPECT_NE(gone.code, 0);
    EXPECT_NE(gone.err.find("cannot start /nowhere/at/all"), std::string::npos) << gone.err;
}

TEST_F(ProjectCli, VersionsAreRecordedAndComparedWith) {
    EXPECT_NE(run({"shipped", project}).out.find("nothing is recorded"), std::string::npos);
    EXPECT_EQ(run({"shipped", project, "--changes"}).code, 2);
    ASSERT_EQ(run({"shipped", project, "--record", "1.0"}).code, 0);
    EXPECT_EQ(run({"shipped", project, "--changes"}).out, "");
    put_file(zip,
             make_zip({{"a/one.dds", make_dds(Format::BC1, 32, 32, 0, 11)}, {"b/two.dds", make_dds(Format::BC3, 32, 32, 0, 2), true}}));
    const auto changes = lines(run({"shipped", project, "--changes", "--json"}).out);
    ASSERT_EQ(changes.size(), 2u);
    EXPECT_EQ(changes[0]["how"], "changed");
    EXPECT_EQ(changes[1]["how"], "moved");
    EXPECT_EQ(changes[1]["from"], "base.zip::a/two.dds");
    ASSERT_EQ(run({"shipped", project, "--record", "1.1"}).code, 0);
    const auto versions = lines(run({"shipped", project, "--compare", "1.0", "--json"}).out);
    ASSERT_EQ(versions.size(), 2u);
    EXPECT_EQ(versions[0]["sources_as_in_it"], 0);
    EXPECT_EQ(versions[1]["sources_as_in_it"], 1);
    EXPECT_EQ(versions[0]["compared_with"], true);
    EXPECT_EQ(lines(run({"shipped", project, "--changes", "--json"}).out)[0]["as_in"], "1.1");
    EXPECT_EQ(run({"shipped", project, "--forget", "1.0"}).code, 2) << "it is compared with";
    EXPECT_EQ(run({"shipped", project, "--forget", "2.0"}).code, 2);
    EXPECT_EQ(run({"shipped", project, "--forget", "1.1"}).code, 0);
    EXPECT_EQ(lines(run({"shipped", project, "--json"}).out).size(), 1u);
}

TEST_F(ProjectCli, MistakesAreSaidAndChangeNothing) {
    const auto kept = get_file(project + "/project.json");
    EXPECT_EQ(run({"new", project}).code, 2) << "there is one already";
    EXPECT_EQ(run({"status", (folder / "none").string()}).code, 2);
    EXPECT_FALSE(std::filesystem::exists(folder / "none")) << "asking makes no folder";
    EXPECT_EQ(run({"take", project, zip}).code, 2) << "a whole archive is no texture";
    EXPECT_NE(run({"take", project, zip + "::a/none.dds"}).code, 0);
    EXPECT_NE(run({"take", project, zip + "::note.txt"}).code, 0);
    EXPECT_NE(run({"add", project, (folder / "none.zip").string()}).code, 0);
    EXPECT_EQ(run({"deliver", project}).code, 0) << "nothing to deliver is no mistake";
    EXPECT_EQ(get_file(project + "/project.json"), kept);
    const auto lock = lock_project(project);
    ASSERT_TRUE(lock);
    const auto busy = run({"take", project, zip + "::a/one.dds"});
    EXPECT_EQ(busy.code, 4);
    EXPECT_NE(busy.err.find("is open in another window"), std::string::npos);
    EXPECT_EQ(run({"status", project}).code, 0) << "looking needs no lock";
}

TEST_F(ProjectCli, EncodeAndReplaceMend) {
    const auto small = (folder / "small.png").string(), out = (folder / "out.dds").string(), vault = (folder / "v").string();
    put_file(small, *write_png(smooth_picture(16, 16, 3)));
    const auto address = zip + "::a/one.dds";
    const auto refused = run_cli({"replace", address, "--with", small, "--vault", vault});
    EXPECT_EQ(refused.code, 3);
    EXPECT_NE(refused.err.find("--mend resize"), std::string::npos) << refused.err;
    EXPECT_EQ(run_cli({"replace", address, "--with", small, "--vault", vault, "--mend", "all"}).code, 0);
    EXPECT_EQ(run_cli({"encode", small, "--like", address, "--out", out, "--mend", "size,alpha"}).code, 0);
    const auto texture = TextureFile::open(TextureKinds::standard(), get_file(out), "out.dds", ReadLimits{});
    ASSERT_TRUE(texture);
    EXPECT_EQ(texture->layout.desc.width, 32u);
    EXPECT_EQ(run_cli({"encode", small, "--format", "BC1", "--out", out, "--mend", "size"}).code, 2) << "there is nothing to be like";
    // Twice the size, delivered into the archive and read back.
    const auto large = (folder / "large.png").string(), two = zip + "::a/two.dds";
    put_file(large, *write_png(smooth_picture(64, 64, 3, true)));
    const auto other = run_cli({"replace", two, "--with", large, "--vault", vault});
    EXPECT_EQ(other.code, 3);
    EXPECT_NE(other.err.find("--resize-texture"), std::string::npos) << other.err;
    ASSERT_EQ(run_cli({"encode", large, "--like", two, "--out", out, "--resize-texture"}).code, 0);
    EXPECT_EQ(TextureFile::open(TextureKinds::standard(), get_file(out), "out.dds", ReadLimits{})->layout.desc.width, 64u);
    ASSERT_EQ(run_cli({"replace", two, "--with", large, "--vault", vault, "--resize-texture"}).code, 0);
    EXPECT_NE(run_cli({"show", two}).out.find("64×64"), std::string::npos);
}

TEST_F(ProjectCli, ASheetThatIsNotSoundIsSaidOnceAndHoldsNothingUp) {
    std::filesystem::create_directories(project + "/sheets");
    put_file(project + "/sheets/odd.toml", bytes_of("title = "));
    const auto ran = run({"take", project, zip + "::a/one.dds"});
    EXPECT_EQ(ran.code, 0);
    const auto first = ran.err.find("odd.toml");
    ASSERT_NE(first, std::string::npos) << ran.err;
    EXPECT_EQ(std::count(ran.err.begin(), ran.err.end(), '\n'), 1) << ran.err;
}

TEST_F(ProjectCli, WhatBelongsToATextureIsTakenAlongAndTold) {
    const auto more = game + "/more.zip";
    put_file(more, make_zip({{"cloth/awning_diff.dds", make_dds(Format::BC3, 64, 64, 0, 31)},
                             {"cloth/awning_norm.dds", make_dds(Format::BC5, 64, 64, 0, 32)},
                             {"far/stripes.dds", make_dds(Format::BC7, 64, 64, 0, 31)}}));
    ASSERT_EQ(run({"add", project, more}).code, 0);
    EXPECT_EQ(run({"take", project, more + "::cloth/awning_diff.dds", "--alpha", "beside"}).code, 2);
    const auto taken = run({"take", project, more + "::cloth/awning_diff.dds", "--sets", "--copies", "--alpha", "split", "--json"});
    ASSERT_EQ(taken.code, 0) << taken.err;
    const auto pieces = lines(taken.out);
    ASSERT_EQ(pieces.size(), 3u) << taken.out;
    EXPECT_EQ(pieces[0]["alpha"], "split");
    ASSERT_EQ(pieces[0]["more"].size(), 1u);
    EXPECT_TRUE(std::filesystem::exists(pieces[0]["more"][0]["file"].get<std::string>()));
    std::size_t following = 0;
    for (const auto& piece : pieces) following += piece["follows"].get<bool>();
    EXPECT_EQ(following, 1u);

    // By itself: what goes with it is said with its fit, once the game was looked at.
    take("a/one.dds");
    const auto last = lines(run({"status", project, "--json"}).out).back()["piece"].get<PieceId>();
    paint(last);
    const auto fit = run({"fit", project, std::to_string(last)});
    EXPECT_EQ(fit.out.find("stays unchanged"), std::string::npos) << fit.out;
    auto alone = *open_project(project);
    std::erase_if(alone.pieces, [](const Piece& p) { return p.follows(); });
    ASSERT_TRUE(save_project(alone));
    paint(pieces[0]["piece"]);
    const auto told = run({"fit", project, std::to_string(pieces[0]["piece"].get<PieceId>()), "--json"});
    EXPECT_NE(told.out.find("A twin stays unchanged"), std::string::npos) << told.out;
    EXPECT_NE(told.out.find("far/stripes.dds"), std::string::npos);
    for (const char* command : {"plan", "deliver"}) {
        const auto left = run({command, project});
        EXPECT_NE(left.out.find("far/stripes.dds shows the picture of awning_diff and stays as it is"), std::string::npos) << left.out;
        EXPECT_EQ(left.out.find("of one and"), std::string::npos);
    }
}

TEST_F(ProjectCli, AnotherFormatIsAChoiceThatStaysWithThePiece) {
    take("a/one.dds");
    paint(1);
    EXPECT_EQ(run({"mend", project, "1"}).code, 2) << "nothing is said";
    EXPECT_EQ(run({"mend", project, "1", "--format", "BC99"}).code, 2);
    const auto chosen = run({"mend", project, "1", "--format", "BC7"});
    ASSERT_EQ(chosen.code, 0) << chosen.err;
    EXPECT_NE(chosen.out.find("BC1 becomes BC7"), std::string::npos) << chosen.out;
    paint(1);
    auto image = *read_png(get_file(file_of(1)), ReadLimits{});
    image.at(20, 20) = {1, 2, 3, 255};
    put_file(file_of(1), *write_png(image));
    EXPECT_NE(run({"fit", project}).out.find("BC1 becomes BC7"), std::string::npos) << "also after the next save";
    ASSERT_EQ(run({"deliver", project}).code, 0);
    const auto shown = run_cli({"show", zip + "::a/one.dds", "--json"});
    EXPECT_NE(shown.out.find("\"BC7\""), std::string::npos) << shown.out;
    ASSERT_EQ(run({"mend", project, "1", "--format", "own"}).code, 0);
    EXPECT_EQ(open_project(project)->piece(1)->options.format, Format::unknown);
    ASSERT_EQ(run({"undo", project}).code, 0);
    // And without a project.
    put_file(folder / "a.png", *write_png(image));
    ASSERT_EQ(run_cli({"replace", zip + "::a/one.dds", "--with", (folder / "a.png").string(), "--format", "BC3"}).code, 0);
    EXPECT_NE(run_cli({"show", zip + "::a/one.dds", "--json"}).out.find("\"BC3\""), std::string::npos);
}

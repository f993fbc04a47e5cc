// Touch-ups by command line: on entries where they lie, on pictures, on the pieces of a project.
#include <fmt/format.h>
#include <gtest/gtest.h>
#include <filesystem>
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "base/hash.h"
#include "cli/run.h"
#include "support/pictures.h"
#include "support/run_program.h"
#include "texture/png.h"
#include "workflow/project.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct TouchCli : testing::Test {
    TempFolder folder;
    std::string zip, vault;
    Bytes horse = make_dds(Format::BC1, 64, 64, 0, 3);

    void SetUp() override {
        zip = (folder / "game.zip").string();
        vault = (folder / "vault").string();
        std::vector<ZipItem> items = {{"rides/horse.dds", horse}, {"note.txt", bytes_of("hello")}};
        for (int i = 0; i < 10; ++i)
            items.push_back(
                {fmt::format("awnings/{}.dds", i), make_dds(Format::BC3, 32, 32, 0, 20u + static_cast<unsigned>(i)), i % 2 == 0});
        put_file(zip, make_zip(items));
        // White at the left, black at the right.
        Image mask(64, 64, {0, 0, 0, 255});
        for (std::uint32_t y = 0; y < 64; ++y)
            for (std::uint32_t x = 0; x < 16; ++x) mask.at(x, y) = {255, 255, 255, 255};
        put_file(folder / "left.png", *write_png(mask));
    }
    std::string left() const { return "@" + (folder / "left.png").string(); }
    static TextureFile texture(const Bytes& file) { return *TextureFile::open(TextureKinds::standard(), file, "a.dds", ReadLimits{}); }
    Bytes entry(const std::string& path) const {
        std::filesystem::remove(folder / "out");
        EXPECT_EQ(run_cli({"extract", zip + "::" + path, "--out", (folder / "out").string()}).code, 0);
        return get_file(folder / "out");
    }
};

}  // namespace

TEST_F(TouchCli, ATintThroughAMaskChangesItsBlocksAndIsTakenBack) {
    const auto before = get_file(zip);
    const auto ran = run_cli({"touch", zip + "::rides/horse.dds", "--do", "tint=#2040c0", "--mask", left(), "--vault", vault});
    ASSERT_EQ(ran.code, 0) << ran.err;
    const auto after = entry("rides/horse.dds");
    ASSERT_EQ(after.size(), horse.size());
    // 16 rows of 16 blocks of 8 bytes behind the header of 128: only the first four of each row differ.
    std::size_t changed = 0;
    for (std::size_t block = 0; block < 256; ++block) {
        const bool same = std::equal(horse.begin() + static_cast<std::ptrdiff_t>(128 + block * 8),
                                     horse.begin() + static_cast<std::ptrdiff_t>(136 + block * 8),
                                     after.begin() + static_cast<std::ptrdiff_t>(128 + block * 8));
        if (block % 16 >= 4) EXPECT_TRUE(same) << block;
        changed += !same;
    }
    EXPECT_GT(changed, 40u) << "of 64";
    const auto colors = texture(after).decode(0);
    std::int64_t red = 0, blue = 0;
    for (std::uint32_t y = 0; y < 64; ++y) red += colors->at(4, y)[0], blue += colors->at(4, y)[2];
    EXPECT_GT(blue, red);
    ASSERT_EQ(run_cli({"restore", zip, "--vault", vault}).code, 0);
    EXPECT_EQ(get_file(zip), before);
}

TEST_F(TouchCli, ManyAtOnceAreOneDeliveryAndWhatCannotBeIsSaid) {
    std::vector<std::string> words = {"touch", zip + "::note.txt"};
    for (int i = 0; i < 10; ++i) words.push_back(fmt::format("{}::awnings/{}.dds", zip, i));
    words.insert(words.end(), {"--do", "turn=120", "--do", "brighten=0.5", "--vault", vault});
    const auto before = get_file(zip);
    auto dry = words;
    dry.push_back("--dry-run");
    EXPECT_EQ(run_cli(dry).code, 1);
    EXPECT_EQ(get_file(zip), before);
    const auto ran = run_cli(words);
    EXPECT_EQ(ran.code, 1) << "done in part";
    EXPECT_NE(ran.err.find("note.txt"), std::string::npos) << ran.err;
    for (int i = 0; i < 10; ++i)
        EXPECT_NE(entry(fmt::format("awnings/{}.dds", i)), make_dds(Format::BC3, 32, 32, 0, 20u + static_cast<unsigned>(i))) << i;
    // One press takes all of it back.
    ASSERT_EQ(run_cli({"restore", zip, "--vault", vault}).code, 0);
    EXPECT_EQ(get_file(zip), before);
}

TEST_F(TouchCli, PicturesGoIntoAFolder) {
    const auto to = (folder / "pictures").string();
    const auto before = get_file(zip);
    const std::vector<std::string> words = {"touch", zip + "::rides/horse.dds", "--do", "gray", "--do", "resize=32,16", "--to", to};
    const auto ran = run_cli(words);
    ASSERT_EQ(ran.code, 0) << ran.err;
    const auto picture = read_png(get_file(to + "/horse.png"), ReadLimits{});
    ASSERT_TRUE(picture);
    EXPECT_EQ(picture->width, 32u);
    EXPECT_EQ(picture->height, 16u);
    for (const auto& t : picture->texels) ASSERT_EQ(t[0], t[2]);
    EXPECT_EQ(get_file(zip), before);
    const auto again = run_cli(words);
    EXPECT_EQ(again.code, 2);
    EXPECT_NE(again.err.find("is there already"), std::string::npos) << again.err;
    auto forced = words;
    forced.push_back("--force");
    EXPECT_EQ(run_cli(forced).code, 0);
    // Never the picture itself: that goes without --to, and can be taken back.
    const auto itself = run_cli({"touch", (folder / "left.png").string(), "--do", "gray", "--to", folder.path().string(), "--force"});
    EXPECT_EQ(itself.code, 2);
    EXPECT_NE(itself.err.find("is the file itself"), std::string::npos) << itself.err;
    const auto twice = run_cli({"touch", zip + "::rides/horse.dds", zip + "::rides/horse.dds", "--do", "gray", "--dry-run"});
    EXPECT_EQ(twice.code, 1);
    EXPECT_NE(twice.err.find("is named twice"), std::string::npos) << twice.err;
    // A picture file is touched where it lies, and the vault has it.
    const auto own = (folder / "left.png").string();
    const auto white = get_file(own);
    ASSERT_EQ(run_cli({"touch", own, "--do", "brighten=-2", "--vault", vault}).code, 0);
    EXPECT_LT(read_png(get_file(own), ReadLimits{})->at(2, 2)[0], 140);
    ASSERT_EQ(run_cli({"restore", own, "--vault", vault}).code, 0);
    EXPECT_EQ(get_file(own), white);
}

TEST_F(TouchCli, ListsAreKeptUnderNamesAndUsedAgain) {
    ASSERT_EQ(setenv("XDG_DATA_HOME", (folder / "data").c_str(), 1), 0);
    const auto a = (folder / "a").string(), b = (folder / "b").string(), c = (folder / "c").string();
    const auto address = zip + "::rides/horse.dds";
    ASSERT_EQ(run_cli({"touch", address, "--do", "tint=#2040c0,mask:red", "--do", "contrast=1.2", "--keep-as", "evening", "--to", a}).code,
              0);
    ASSERT_EQ(run_cli({"touch", address, "--list", "evening", "--to", b}).code, 0);
    EXPECT_EQ(get_file(a + "/horse.png"), get_file(b + "/horse.png"));
    // A mask said with it is for those of the list that have none.
    const auto d = (folder / "d").string();
    ASSERT_EQ(run_cli({"touch", address, "--list", "evening", "--mask", left(), "--to", d}).code, 0);
    const auto whole = read_png(get_file(a + "/horse.png"), ReadLimits{}), part = read_png(get_file(d + "/horse.png"), ReadLimits{});
    EXPECT_EQ(part->at(5, 5), whole->at(5, 5));
    EXPECT_NE(*part, *whole);
    // Any file of such lines, and more behind it.
    put_file(folder / "mine.txt", bytes_of("# two steps\r\ntint=#2040c0,mask:red\n\ncontrast=1.2"));
    ASSERT_EQ(run_cli({"touch", address, "--list", (folder / "mine.txt").string(), "--do", "gray", "--to", c}).code, 0);
    EXPECT_EQ(read_png(get_file(c + "/horse.png"), ReadLimits{})->at(5, 5)[0],
              read_png(get_file(c + "/horse.png"), ReadLimits{})->at(5, 5)[2]);
    const auto unknown = run_cli({"touch", address, "--list", "morning", "--to", c});
    EXPECT_EQ(unknown.code, 2);
    EXPECT_NE(unknown.err.find("There are: evening"), std::string::npos) << unknown.err;
    put_file(folder / "bad.txt", bytes_of("gray\npaint=3\n"));
    EXPECT_NE(run_cli({"touch", address, "--list", (folder / "bad.txt").string(), "--to", c}).err.find("line 2"), std::string::npos);
    EXPECT_EQ(run_cli({"touch", address, "--do", "gray", "--keep-as", "../x", "--to", c}).code, 2);
    unsetenv("XDG_DATA_HOME");
}

TEST_F(TouchCli, WrongWordsAreSaid) {
    const auto address = zip + "::rides/horse.dds";
    const auto before = get_file(zip);
    const auto unknown = run_cli({"touch", address, "--do", "paint=3"});
    EXPECT_EQ(unknown.code, 2);
    EXPECT_NE(unknown.err.find("there is no touch-up \"paint\""), std::string::npos);
    EXPECT_NE(unknown.err.find("recolor: another hue"), std::string::npos) << "what there is";
    EXPECT_EQ(run_cli({"touch", address, "--do", "gray", "--mask", "often"}).code, 2);
    EXPECT_EQ(run_cli({"touch", address}).code, 2);
    const auto size = run_cli({"touch", address, "--do", "resize=32,32"});
    EXPECT_EQ(size.code, 3);
    EXPECT_NE(size.err.find("32×32 where the game has 64×64"), std::string::npos) << size.err;
    EXPECT_NE(run_cli({"touch", address, "--do", "alpha_file=" + (folder / "gone.png").string()}).err.find("gone.png"), std::string::npos);
    EXPECT_EQ(get_file(zip), before);
}

TEST_F(TouchCli, PiecesKeepTheirTouchUps) {
    const auto project = (folder / "project").string();
    const auto before = get_file(zip);
    const auto in_project = [&](std::vector<std::string> words) {
        words.insert(words.begin(), "project");
        return run_cli(words);
    };
    const auto piece = [&] { return open_project(project)->pieces.front(); };
    ASSERT_EQ(in_project({"new", project, zip}).code, 0);
    ASSERT_EQ(in_project({"take", project, zip + "::rides/horse.dds"}).code, 0);
    EXPECT_EQ(piece().state, PieceState::out);
    ASSERT_EQ(in_project({"touch", project, "horse", "--do", "tint=#2040c0,mask:" + left(), "--do", "contrast=1.1"}).code, 0);
    EXPECT_EQ(piece().state, PieceState::fits) << "changed without a paint program";
    EXPECT_EQ(piece().touches.size(), 2u);
    EXPECT_EQ(piece().touches[1], "contrast=factor:1.1");
    EXPECT_NE(in_project({"touch", project}).out.find("contrast=factor:1.1"), std::string::npos);
    // What is painted comes first, the touch-ups are made on it.
    const auto file = std::filesystem::path(project) / "work" / piece().file;
    auto painted = *read_png(get_file(file), ReadLimits{});
    painted.at(60, 60) = {255, 255, 255, 255};
    put_file(file, *write_png(painted));
    ASSERT_EQ(in_project({"deliver", project}).code, 0);
    EXPECT_EQ(piece().state, PieceState::delivered);
    const auto touched = entry("rides/horse.dds");
    EXPECT_GT(texture(touched).decode(0)->at(60, 60)[1], 200);
    // Another list is another edit.
    ASSERT_EQ(in_project({"touch", project, "--clear", "--do", "gray"}).code, 0);
    EXPECT_NE(piece().state, PieceState::delivered);
    ASSERT_EQ(in_project({"deliver", project}).code, 0);
    const auto gray = texture(entry("rides/horse.dds")).decode(0);
    EXPECT_LE(std::abs(gray->at(4, 4)[0] - gray->at(4, 4)[2]), 8);
    EXPECT_EQ(in_project({"touch", project, "--do", "paint"}).code, 2);
    EXPECT_EQ(piece().touches, std::vector<std::string>{"gray"});
    // Without touch-ups and paint nothing is left of it.
    put_file(file, *write_png(*texture(horse).decode(0)));
    ASSERT_EQ(in_project({"touch", project, "--clear"}).code, 0);
    ASSERT_EQ(in_project({"deliver", project}).code, 0);
    EXPECT_EQ(entry("rides/horse.dds"), horse);
    ASSERT_EQ(in_project({"undo", project, "--all"}).code, 0);
    EXPECT_EQ(get_file(zip), before);
}

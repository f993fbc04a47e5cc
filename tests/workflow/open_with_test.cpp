#include "workflow/open_with.h"

#include <gtest/gtest.h>
#include <string>
#include <vector>

#include "support/temp_folder.h"

using namespace skivet;

namespace {

Project project_with(const std::vector<std::string>& all, const std::map<std::string, std::vector<std::string>>& by_ending = {}) {
    Project out;
    out.folder = "/p";
    out.editor = all;
    out.editors = by_ending;
    return out;
}
Piece piece_in(const std::string& file, bool alpha = false) {
    Piece out;
    out.address = {"/game.zip", {"a/horse.dds"}};
    out.file = file;
    if (alpha) out.more.push_back({"alpha", "a/horse.dds.alpha.png", "", ""});
    return out;
}
using Words = std::vector<std::string>;

}  // namespace

TEST(OpenWith, TheFileComesLastUnlessItIsPlaced) {
    EXPECT_EQ(command_for(project_with({}), piece_in("a/horse.dds.png")), Words{}) << "the desktop decides";
    EXPECT_EQ(command_for(project_with({"paint"}), piece_in("a/horse.dds.png")), (Words{"paint", "/p/work/a/horse.dds.png"}));
    EXPECT_EQ(command_for(project_with({"paint", "--in={folder}", "{file}", "{name}"}), piece_in("a/horse.dds.png")),
              (Words{"paint", "--in=/p/work/a", "/p/work/a/horse.dds.png", "horse"}));
    EXPECT_EQ(command_for(project_with({"paint", "{{x}"}), piece_in("a/horse.dds.png")),
              (Words{"paint", "{x}", "/p/work/a/horse.dds.png"}));
}

TEST(OpenWith, AlphaIsLeftOutWhereThereIsNone) {
    const auto project = project_with({"paint", "{file}", "--mask={alpha}"});
    EXPECT_EQ(command_for(project, piece_in("a/horse.dds.png", true)),
              (Words{"paint", "/p/work/a/horse.dds.png", "--mask=/p/work/a/horse.dds.alpha.png"}));
    EXPECT_EQ(command_for(project, piece_in("a/horse.dds.png")), (Words{"paint", "/p/work/a/horse.dds.png"}));
}

TEST(OpenWith, ATypeHasItsOwnCommandWhateverItsCase) {
    const auto project = project_with({"paint"}, {{"exr", {"light", "{file}"}}, {"tiff", {"scan"}}, {"tga", {}}});
    EXPECT_EQ(command_for(project, piece_in("a/sky.dds.EXR"))[0], "light");
    EXPECT_EQ(command_for(project, piece_in("a/sky.tif"))[0], "scan");
    EXPECT_EQ(command_for(project, piece_in("a/sky.tga"))[0], "paint");
    EXPECT_EQ(command_for(project, piece_in("a/sky"))[0], "paint");
}

TEST(OpenWith, WhatIsNoPlaceholderIsSaid) {
    EXPECT_TRUE(check_command({"paint", "{file}", "{{", "{alpha}"}));
    const auto wrong = check_command({"paint", "{fille}"});
    ASSERT_FALSE(wrong);
    EXPECT_EQ(wrong.error().code, ErrorCode::usage);
    EXPECT_NE(wrong.error().message().find("{fille"), std::string::npos);
    EXPECT_FALSE(check_command({"paint", "{file"}));
}

TEST(OpenWith, TheProjectKeepsThem) {
    const test::TempFolder folder;
    auto project = project_with({"paint"}, {{"png", {"other", "{file}"}}});
    project.folder = folder / "project";
    ASSERT_TRUE(save_project(project));
    EXPECT_EQ(open_project(project.folder)->editors, project.editors);
}

#include "workflow/bring_in.h"

#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "base/file_write.h"
#include "pixel/mips.h"
#include "support/imagemagick.h"
#include "support/pictures.h"
#include "support/run_program.h"
#include "texture/dds.h"
#include "texture/png.h"
#include "workflow/saves.h"

using namespace skivet;
using namespace skivet::test;

namespace {

/// A picture nobody takes for another one: rings and bars by the seed.
Image sign(unsigned seed, std::uint32_t width = 64, std::uint32_t height = 64) {
    std::mt19937 random(seed);
    const auto pick = [&](unsigned count) { return static_cast<double>(random() % count); };
    const double cx = pick(100) / 100, cy = pick(100) / 100, ring = 3 + pick(4), bars = 2 + pick(4);
    const std::array<std::uint8_t, 3> a{std::uint8_t(160 + random() % 96), std::uint8_t(160 + random() % 96), std::uint8_t(random() % 96)};
    Image out(width, height);
    for (std::uint32_t y = 0; y < height; ++y)
        for (std::uint32_t x = 0; x < width; ++x) {
            const double u = double(x) / width, v = double(y) / height;
            const bool on = (int(std::hypot(u - cx, v - cy) * ring) + int((u + v * 0.3) * bars)) % 2 == 0;
            out.at(x, y) = on ? Texel{a[0], a[1], a[2], 255} : Texel{std::uint8_t(255 - a[0]), 40, 60, 255};
        }
    return out;
}

Bytes dds(const Image& picture, Format format = Format::BC1) {
    const TextureDesc d{format, picture.width, picture.height, 1, 1, 1, 1, ColorSpace::unknown};
    return *write_dds(d, *encode_levels(picture, d, {}));
}

struct BringIn : testing::Test {
    TempFolder folder;
    ReadContext context;
    Project project;
    std::shared_ptr<const AnalyzedCatalog> catalog;
    std::filesystem::path brought = folder / "from a friend";

    void SetUp() override {
        put_file(folder / "game.zip", make_zip({{"Data/Front/Signs/ride.dds", dds(sign(1))},
                                                {"Data/Back/Signs/ride.dds", dds(sign(2))},
                                                {"Data/Front/Cloth/awning_diff.dds", dds(sign(3))},
                                                {"Data/Front/Cloth/awning_norm.dds", dds(sign(4))},
                                                {"Data/Front/Booth/ticket.dds", dds(sign(5, 128, 64))},
                                                {"Data/Organ/pipes.dds", dds(sign(6))}}));
        project = *open_project(folder / "project");
        project.sources = {folder / "game.zip"};
        const auto index = *IndexStore::open(":memory:");
        Progress progress;
        std::optional<Error> problem;
        const AnalysisContext analysis{project, nullptr, {}};
        const auto read = *read_sources(context, analysis, *index, progress);
        catalog = measure_unseen(context, analysis, *read, *index, nullptr, progress, {}, problem);
    }
    void bring(const std::string& file, const Bytes& bytes) { ASSERT_TRUE(write_file(brought / file, bytes)); }
    void bring(const std::string& file, const Image& picture) { bring(file, *write_png(picture)); }
    BroughtFolder matched() {
        Progress progress;
        auto out = match_folder(*catalog, project, brought, ReadLimits{}, progress);
        EXPECT_TRUE(out) << out.error().message();
        return out ? *out : BroughtFolder{};
    }
    std::string path(const BroughtMatch& match) { return catalog->snapshot->catalog.items[match.item].path(); }
    Address address(const BroughtMatch& match) {
        const auto& item = catalog->snapshot->catalog.items[match.item];
        return address_of(catalog->snapshot->sources[item.source], item);
    }
};

const BroughtMatch* of(const BroughtFolder& folder, const std::string& file) {
    for (const auto& match : folder.matches)
        if (match.file == file) return &match;
    return nullptr;
}

}  // namespace

TEST_F(BringIn, ByPathWhateverItsCaseAndEnding) {
    bring("data/front/signs/RIDE.png", sign(21));
    bring("mod/Data/Organ/pipes.dds.png", sign(22));
    const auto found = matched();
    const auto* ride = of(found, "data/front/signs/RIDE.png");
    ASSERT_TRUE(ride);
    EXPECT_EQ(path(*ride), "Data/Front/Signs/ride.dds");
    EXPECT_EQ(ride->by, MatchedBy::path);
    EXPECT_EQ(ride->doubt, "");
    const auto* pipes = of(found, "mod/Data/Organ/pipes.dds.png");
    ASSERT_TRUE(pipes) << "an export of ours, in a folder of a mod";
    EXPECT_EQ(path(*pipes), "Data/Organ/pipes.dds");
    EXPECT_EQ(pipes->by, MatchedBy::path);
}

TEST_F(BringIn, ByNameAndASharedNameIsDoubtful) {
    bring("ticket.png", sign(23, 256, 128));
    bring("ride.png", sign(24));
    bring("back/signs/ride.tga", file_by_imagemagick(sign(25), {}, "TGA:.tga"));
    const auto found = matched();
    ASSERT_EQ(found.matches.size(), 3u);
    EXPECT_EQ(found.matches.front().file, "ride.png") << "the doubtful one first";
    EXPECT_EQ(found.matches.front().doubt, "another one fits as well");
    EXPECT_EQ(found.matches.front().others.size(), 1u);
    EXPECT_EQ(of(found, "ticket.png")->by, MatchedBy::name);
    EXPECT_EQ(of(found, "ticket.png")->doubt, "") << "twice the size is no doubt";
    EXPECT_EQ(path(*of(found, "back/signs/ride.tga")), "Data/Back/Signs/ride.dds") << "the folders that are there tell them apart";
}

TEST_F(BringIn, ByNameWithoutRoleHabits) {
    bring("awning_normal.png", sign(26));
    bring("awning_diffuse.png", sign(27));
    const auto found = matched();
    ASSERT_TRUE(of(found, "awning_normal.png") && of(found, "awning_diffuse.png"));
    EXPECT_EQ(path(*of(found, "awning_normal.png")), "Data/Front/Cloth/awning_norm.dds");
    EXPECT_EQ(path(*of(found, "awning_diffuse.png")), "Data/Front/Cloth/awning_diff.dds");
    EXPECT_EQ(of(found, "awning_normal.png")->by, MatchedBy::bare_name);
    EXPECT_NE(of(found, "awning_normal.png")->doubt, "");
}

TEST_F(BringIn, ByPictureWhenNothingElseFits) {
    auto edit = sign(6, 128, 128);  // larger, with a mark on it
    for (std::uint32_t y = 90; y < 110; ++y)
        for (std::uint32_t x = 90; x < 110; ++x) edit.at(x, y) = {255, 255, 255, 255};
    bring("IMG_2031.png", edit);
    bring("holiday.jpg", file_by_imagemagick(random_picture(64, 64, 99), {}, "JPEG:.jpg"));
    bring("notes.txt", bytes_of("not a picture"));
    bring("broken.png", bytes_of("not a picture either"));
    const auto found = matched();
    ASSERT_EQ(found.matches.size(), 1u);
    EXPECT_EQ(path(found.matches[0]), "Data/Organ/pipes.dds");
    EXPECT_EQ(found.matches[0].by, MatchedBy::picture);
    EXPECT_NE(found.matches[0].doubt, "");
    EXPECT_EQ(found.unmatched, (std::vector<std::filesystem::path>{"holiday.jpg"}));
    ASSERT_EQ(found.errors.size(), 1u);
    EXPECT_NE(found.errors[0].message().find("broken.png"), std::string::npos);
}

TEST_F(BringIn, WhatContradictsItselfIsDoubtful) {
    bring("pipes.png", sign(28, 64, 32));
    bring("a/ticket.png", sign(29, 128, 64));
    bring("b/ticket.png", sign(30, 128, 64));
    const auto found = matched();
    EXPECT_EQ(of(found, "pipes.png")->doubt, "its sides are 64×32, the texture's 64×64");
    EXPECT_EQ(of(found, "a/ticket.png")->doubt, "2 files are for this texture");
}

TEST_F(BringIn, AYesMakesItTheEditAndLosesNothing) {
    bring("data/organ/pipes.png", sign(31));
    bring("data/front/booth/ticket.tif", file_by_imagemagick(sign(32, 128, 64), {}, "TIFF:.tif"));
    const auto found = matched();
    for (const auto& match : found.matches) {
        const auto id = bring_in(context, project, address(match), brought / match.file, 7);
        ASSERT_TRUE(id) << id.error().message();
        EXPECT_EQ(project.piece(*id)->state, PieceState::changed);
        EXPECT_EQ(project.piece(*id)->file.extension(), match.file.extension());
    }
    ASSERT_EQ(project.pieces.size(), 2u);
    const auto& ticket = *project.piece_of({folder / "game.zip", {"Data/Front/Booth/ticket.dds"}});
    const auto fitted = fit_now(context, project, ticket);
    ASSERT_TRUE(fitted.deliverable()) << fitted.obstacle();
    EXPECT_EQ(fitted.fit->edited, sign(32, 128, 64));
    // Another one for the same texture: the edit before stays among the versions.
    bring("data/organ/pipes.png", sign(33));
    const auto again = matched();
    const auto& match = *of(again, "data/organ/pipes.png");
    EXPECT_EQ(match.doubt, "an edit of it is on the bench, and would become a version");
    ASSERT_TRUE(bring_in(context, project, address(match), brought / match.file, 8));
    ASSERT_EQ(project.pieces.size(), 2u);
    const auto& pipes = *project.piece_of(address(match));
    EXPECT_EQ(edited_piece(context, project, pipes)->image, sign(33));
    EXPECT_EQ(versions_of(project, pipes).size(), 2u);
    EXPECT_EQ(get_file(brought / "data/organ/pipes.png"), *write_png(sign(33))) << "the folder itself is not touched";
}

TEST_F(BringIn, ByCommandLine) {
    ASSERT_EQ(run_cli({"project", "new", (folder / "p").string(), (folder / "game.zip").string()}).code, 0);
    bring("data/organ/pipes.png", sign(34));
    bring("ride.png", sign(35));
    bring("holiday.png", random_picture(64, 64, 98));
    auto ran = run_cli({"project", "bring", (folder / "p").string(), brought.string()});
    ASSERT_EQ(ran.code, 0) << ran.err;
    EXPECT_NE(ran.out.find("? ride.png"), std::string::npos) << ran.out;
    EXPECT_NE(ran.out.find("- holiday.png: fits nothing"), std::string::npos) << ran.out;
    EXPECT_TRUE(open_project(folder / "p")->pieces.empty()) << "only listed";
    ran = run_cli({"project", "bring", (folder / "p").string(), brought.string(), "--take", "sure"});
    ASSERT_EQ(ran.code, 0) << ran.err;
    EXPECT_NE(ran.out.find("+ data/organ/pipes.png"), std::string::npos) << ran.out;
    const auto made = *open_project(folder / "p");
    ASSERT_EQ(made.pieces.size(), 1u);
    EXPECT_EQ(get_file(made.work() / made.pieces[0].file), *write_png(sign(34)));
    EXPECT_EQ(run_cli({"project", "fit", (folder / "p").string()}).code, 0);
    EXPECT_EQ(run_cli({"project", "bring", (folder / "p").string(), (folder / "nowhere").string()}).code, 2);
}

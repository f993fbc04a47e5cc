#include <gtest/gtest.h>

#include <fmt/format.h>
#include <unistd.h>
#include <algorithm>
#include <filesystem>
#include <string>

#include "base/file_write.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "texture/png.h"
#include "texture/tga.h"
#include "texture/tiff.h"
#include "workflow/pieces.h"
#include "workflow/steps.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Bench : testing::Test {
    TempFolder folder;
    ReadContext context;
    Project project;
    Address address;

    void SetUp() override {
        put_file(folder / "game.zip", make_zip({{"a/horse.dds", make_dds(Format::BC1, 32, 32)},
                                                {"a/horse.bin", make_dds(Format::BC3, 16, 16)},
                                                {"../../climb.dds", make_dds(Format::BC1, 16, 16)}}));
        project = *open_project(folder / "project");
        address = {folder / "game.zip", {"a/horse.dds"}};
    }
    std::filesystem::path file_of(const Piece& piece) { return project.work() / piece.file; }
};

TextureFile texture_of(const Image& picture, Format format) {
    const ReadContext context;
    TextureDesc d{format, picture.width, picture.height, 1, 1, 1, 1, ColorSpace::unknown};
    return *TextureFile::open(context.textures, *write_dds(d, *encode(format, picture)), "x.dds", context.limits);
}

}  // namespace

TEST_F(Bench, TakingWritesTheFileAndKeepsTheOriginal) {
    const auto piece = take_piece(context, project, address, ExportAs::png, 5);
    ASSERT_TRUE(piece) << piece.error().message();
    EXPECT_EQ(piece->state, PieceState::out);
    EXPECT_EQ(piece->file, "game/a/horse.dds.png");
    EXPECT_EQ(get_file(project.original_of(*piece)), make_dds(Format::BC1, 32, 32));
    EXPECT_TRUE(read_png(get_file(file_of(*piece)), ReadLimits{}));
}

TEST_F(Bench, NamesNeverCollideOrClimbOut) {
    project.pieces.push_back(*take_piece(context, project, address, ExportAs::png, 1));
    const auto other = take_piece(context, project, {folder / "game.zip", {"a/horse.bin"}}, ExportAs::png, 1);
    EXPECT_NE(other->file, project.pieces[0].file);
    const auto again = take_piece(context, project, address, ExportAs::png, 1);
    EXPECT_NE(again->file, project.pieces[0].file);
    const auto climbing = take_piece(context, project, {folder / "game.zip", {"../../climb.dds"}}, ExportAs::png, 1);
    ASSERT_TRUE(climbing);
    EXPECT_EQ(climbing->file, "game/climb.dds.png");
}

TEST_F(Bench, ASaveMakesAPieceChangedAndBackAgain) {
    auto piece = *take_piece(context, project, address, ExportAs::png, 1);
    EXPECT_EQ(refresh_piece(project, piece, 2).state, PieceState::out);
    const auto exported = get_file(file_of(piece));
    // A program that writes a new file and renames it over the old one.
    put_file(file_of(piece).string() + ".tmp", *write_png(smooth_picture(32, 32, 8)));
    std::filesystem::rename(file_of(piece).string() + ".tmp", file_of(piece));
    piece = refresh_piece(project, piece, 3);
    EXPECT_EQ(piece.state, PieceState::changed);
    EXPECT_EQ(piece.changed_at, 3);
    std::filesystem::remove(file_of(piece));
    EXPECT_EQ(refresh_piece(project, piece, 4).state, PieceState::changed) << "a file that is gone for a moment changes nothing";
    put_file(file_of(piece), exported);
    EXPECT_EQ(refresh_piece(project, piece, 5).state, PieceState::out);
}

TEST_F(Bench, AnUpdateOfTheGameMakesAPieceStale) {
    auto piece = *take_piece(context, project, address, ExportAs::png, 1);
    EXPECT_EQ(check_source(context, piece)->state, PieceState::out);
    put_file(folder / "game.zip", make_zip({{"a/horse.dds", make_dds(Format::BC1, 32, 32, 0, 9)}}));
    EXPECT_EQ(check_source(context, piece)->state, PieceState::gone_stale);
    piece.delivered_texture = to_hex(sha256(make_dds(Format::BC1, 32, 32, 0, 9)));
    piece.state = PieceState::delivered;
    EXPECT_EQ(check_source(context, piece)->state, PieceState::delivered) << "what we put there ourselves is no surprise";
}

TEST_F(Bench, FittingComparesWithTheOriginalEvenAfterDelivery) {
    auto piece = *take_piece(context, project, address, ExportAs::png, 1);
    put_file(folder / "game.zip", make_zip({{"a/horse.dds", make_dds(Format::BC1, 32, 32, 0, 9)}}));
    const auto fitted = fit_piece(context, project, piece);
    ASSERT_TRUE(fitted);
    EXPECT_EQ(fitted->file, make_dds(Format::BC1, 32, 32));
}

TEST_F(Bench, TheProjectIsSavedAndReadBack) {
    project.sources = {folder / "game.zip", "/somewhere/ä.zip"};
    project.play = {{"program", "with space"}, "/games/here", {"NAME=value"}, "logs/game.log"};
    project.pieces.push_back(*take_piece(context, project, address, ExportAs::dds, 1));
    project.pieces[0].options.mends.add(Mend::resize);
    project.pieces[0].state = PieceState::needs_mend;
    ASSERT_TRUE(save_project(project));
    const auto back = open_project(project.folder);
    ASSERT_TRUE(back) << back.error().message();
    EXPECT_EQ(back->sources, project.sources);
    EXPECT_EQ(back->play, project.play);
    ASSERT_EQ(back->pieces.size(), 1u);
    EXPECT_EQ(back->pieces[0].address, address);
    EXPECT_EQ(back->pieces[0].as, ExportAs::dds);
    EXPECT_EQ(back->pieces[0].state, PieceState::needs_mend);
    EXPECT_TRUE(back->pieces[0].options.mends.has(Mend::resize));
    EXPECT_EQ(back->pieces[0].original_hash, project.pieces[0].original_hash);
}

TEST_F(Bench, ADamagedProjectFileSaysSo) {
    put_file(project.folder / "project.json", bytes_of("{\"name\": 5}"));
    const auto back = open_project(project.folder);
    ASSERT_FALSE(back);
    EXPECT_NE(back.error().message().find("project.json"), std::string::npos);
    EXPECT_NE(back.error().message().find("Move the file away"), std::string::npos);
}

TEST_F(Bench, NumbersThatAProjectCannotHaveAreNotTurnedIntoOthers) {
    // Found by fuzzing: converting a fraction that no whole number can hold is whatever the processor does.
    const auto with = [&](const std::string& next) {
        put_file(project.folder / "project.json",
                 bytes_of(R"({"name": "a", "game": "b", "sources": [], "pieces": [], "next_piece": )" + next + "}"));
        return open_project(project.folder);
    };
    EXPECT_EQ(with("7")->next_piece, 7u);
    EXPECT_EQ(with("18446744073709551615")->next_piece, 18446744073709551615u);
    for (const auto* next : {"1.7e33", "-1", "2.5", "\"7\"", "99999999999999999999"}) {
        const auto back = with(next);
        ASSERT_FALSE(back) << next;
        EXPECT_NE(back.error().message().find("lacks what a project has"), std::string::npos) << next << ": " << back.error().message();
    }
}

TEST_F(Bench, PiecesAreFoundByIdAndByAddressWhateverOrderTheFileHas) {
    for (const auto* inner : {"a/horse.dds", "a/horse.bin", "../../climb.dds"})
        ASSERT_TRUE(project.add(*take_piece(context, project, {folder / "game.zip", {inner}}, ExportAs::png, 1)));
    EXPECT_FALSE(project.add(project.pieces[1])) << "it is there";
    std::reverse(project.pieces.begin(), project.pieces.end());  // by hand, say
    ASSERT_TRUE(save_project(project));
    const auto again = *open_project(project.folder);
    const PiecesByAddress by_address(again);
    for (const auto& piece : project.pieces) {
        ASSERT_TRUE(again.piece(piece.id)) << piece.id;
        EXPECT_TRUE(again.piece(piece.id)->address == piece.address);
        EXPECT_EQ(by_address.find(piece.address), std::optional(piece.id));
        EXPECT_EQ(again.piece_of(piece.address), again.piece(piece.id));
    }
    EXPECT_FALSE(again.piece(99));
    EXPECT_FALSE(by_address.find({folder / "game.zip", {"a/other.dds"}}));
    EXPECT_FALSE(by_address.find({folder / "other.zip", {"a/horse.dds"}}));
}

TEST_F(Bench, APieceThatComesBackStandsWhereItStood) {
    for (const auto* inner : {"a/horse.dds", "a/horse.bin", "../../climb.dds"})
        ASSERT_TRUE(project.add(*take_piece(context, project, {folder / "game.zip", {inner}}, ExportAs::png, 1)));
    const auto before = project;
    ASSERT_TRUE(project.put_away(before.pieces[1].id));
    const auto after = project;
    make_step(project, after, before);
    ASSERT_EQ(project.pieces.size(), 3u);
    for (std::size_t i = 0; i < 3; ++i) EXPECT_EQ(project.pieces[i].id, before.pieces[i].id);
}

TEST(Projects, OneProjectHasOneWriter) {
    TempFolder folder;
    auto first = lock_project(folder / "p");
    ASSERT_TRUE(first);
    const auto second = lock_project(folder / "p");
    ASSERT_FALSE(second);
    EXPECT_EQ(second.error().code, ErrorCode::busy);
    EXPECT_NE(second.error().message().find(fmt::format("process {}", ::getpid())), std::string::npos) << second.error().message();
    EXPECT_TRUE(lock_project(folder / "q"));
}

TEST(Projects, AProjectThatCannotBeReadHasItsLastGoodCopy) {
    TempFolder folder;
    Project project;
    project.folder = folder / "p";
    project.name = "fair";
    project.sources = {"/games/fair/midway.zip"};
    ASSERT_TRUE(save_project(project));
    EXPECT_FALSE(has_good_copy(project.folder));
    ASSERT_TRUE(keep_good_copy(project.folder));
    put_file(project.folder / "project.json", bytes_of("{ \"name\": "));
    EXPECT_FALSE(open_project(project.folder));
    ASSERT_TRUE(has_good_copy(project.folder));
    ASSERT_TRUE(use_good_copy(project.folder));
    EXPECT_EQ(open_project(project.folder)->sources, project.sources);
    EXPECT_EQ(get_file(project.folder / "project.damaged.json"), bytes_of("{ \"name\": "));
}

TEST(Projects, EachGameHasItsOwn) {
    TempFolder folder;
    std::filesystem::create_directories(folder / "games/fair");
    std::filesystem::create_directories(folder / "games/other/fair");
    const auto projects = folder / "projects";
    const auto mine = project_for_game(projects, folder / "games/fair");
    EXPECT_EQ(mine, projects / "fair");
    Project project;
    project.folder = mine;
    project.game = folder / "games/fair";
    ASSERT_TRUE(save_project(project));
    EXPECT_EQ(project_for_game(projects, folder / "games/fair/."), mine);
    EXPECT_EQ(project_for_game(projects, folder / "games/other/fair"), projects / "fair 2") << "of the same name, but another game";
}

TEST(Follow, APieceCanFollowAnother) {
    TempFolder folder;
    const ReadContext context;
    const auto picture = smooth_picture(64, 64, 9);
    const auto big = texture_of(picture, Format::BC1).file;
    Image halved(32, 32);
    for (std::uint32_t y = 0; y < 32; ++y)
        for (std::uint32_t x = 0; x < 32; ++x) halved.at(x, y) = picture.at(2 * x, 2 * y);
    put_file(folder / "g.zip", make_zip({{"a/big.dds", big}, {"a/small.dds", texture_of(halved, Format::BC1).file}}));
    auto project = *open_project(folder / "p");
    auto lead = *take_piece(context, project, {folder / "g.zip", {"a/big.dds"}}, ExportAs::png, 1);
    project.pieces.push_back(lead);
    auto follower = *take_follower(context, project, lead, {{folder / "g.zip", {"a/small.dds"}}}, 1);
    EXPECT_TRUE(follower.follows());
    EXPECT_EQ(follower.file, lead.file);
    EXPECT_EQ(follower.state, PieceState::out);
    project.pieces.push_back(follower);
    ASSERT_TRUE(save_project(project));
    EXPECT_TRUE(open_project(folder / "p")->pieces[1].follows());
    auto painted = *read_png(get_file(project.work() / lead.file), context.limits);
    for (std::uint32_t y = 0; y < 8; ++y)
        for (std::uint32_t x = 0; x < 8; ++x) painted.at(x, y) = {255, 0, 0, 255};
    ASSERT_TRUE(write_file(project.work() / lead.file, *write_png(painted)));
    follower = refresh_piece(project, follower, 2);
    EXPECT_EQ(follower.state, PieceState::changed) << "one save is seen by both";
    const auto fitted = fit_piece(context, project, follower);
    ASSERT_TRUE(fitted) << fitted.error().message();
    EXPECT_FALSE(fitted->blocked());
    EXPECT_EQ(fitted->levels[0].blocks - fitted->levels[0].kept, 1u);
    EXPECT_GT(fitted->result.at(1, 1)[0], 240);
}

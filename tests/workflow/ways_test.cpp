// Deliveries to other places than the archives themselves: loose files by a layout, patch archives in the game's list, a card.
#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "workflow/places.h"
#include "workflow/workflow_fixture.h"

using namespace skivet;
using namespace skivet::test;
namespace fs = std::filesystem;

namespace {

struct Ways : Workflow {
    Delivered deliver_as(OpenedProject& o, Destination destination, bool ok = true) {
        o.project.destination = destination;
        const auto plan = plan_delivery(*o.context, o.project);
        for (const auto& group : plan.groups) EXPECT_EQ(group.error.has_value(), !ok) << (group.error ? group.error->message() : "");
        auto done = deliver(*o.context, plan, vault_of(o.project, files), 5);
        EXPECT_EQ(done.error.has_value(), !ok) << (done.error ? done.error->message() : "");
        note_delivered(o.project, plan, done);
        return done;
    }
    void undo(OpenedProject& o, const std::string& id) {
        const auto undone = undo_delivery(*o.context, o.project, vault_of(o.project, files), id);
        EXPECT_TRUE(undone.status) << (undone.status ? "" : undone.status.error().message());
        note_undone(o.project, undone);
    }
    Bytes entry(const OpenedProject& o, const fs::path& archive, const std::string& path) {
        const auto source = open_source(*o.context, archive);
        EXPECT_TRUE(source) << (source ? "" : source.error().message());
        const auto bytes = source ? read_entry(*o.context, **source, {path}) : Result<Bytes>(Bytes{});
        EXPECT_TRUE(bytes) << (bytes ? "" : bytes.error().message());
        return bytes.value_or(Bytes{});
    }
    std::vector<fs::path> all_files(const fs::path& below) {
        std::vector<fs::path> out;
        for (const auto& item : fs::recursive_directory_iterator(below))
            if (item.is_regular_file()) out.push_back(item.path().lexically_relative(below));
        std::sort(out.begin(), out.end());
        return out;
    }
};

}  // namespace

TEST_F(Ways, LooseFilesLieAsTheLayoutSays) {
    auto o = open();
    two_edits(o);
    o.project.places.override_layout = "{group}/{archive}/{file}";
    o.project.source_settings[crate].group = "extra content";
    const auto done = deliver_as(o, Destination::beside_the_game);
    EXPECT_EQ(all_files(game / "override"), (std::vector<fs::path>{"base/base/one.dds", "extra/extra/three.dds"}));
    undo(o, done.id);
    EXPECT_FALSE(fs::exists(game / "override"));
    // A folder of an archive's name shows how the game has them.
    o.project.places.override_layout.clear();
    fs::create_directories(game / "override/base");
    EXPECT_EQ(proposed_layout(o.project), "{archive}/{path}");
    (void)deliver_as(o, Destination::beside_the_game);
    EXPECT_TRUE(fs::exists(game / "override/base/a/one.dds"));
}

TEST_F(Ways, PatchArchivesComeIntoTheListTheOrderWasReadFrom) {
    put_file(game / "order.txt", bytes_of("# later ones win\r\nbase.zip\r\nextra.zip\r\n"));
    auto o = open();
    EXPECT_EQ(o.project.load_list, game / "order.txt");
    two_edits(o);
    const auto before = get_file(game / "order.txt");
    o.project.destination = Destination::patch_archives;
    const auto plan = plan_delivery(*o.context, o.project);
    ASSERT_EQ(plan.groups.size(), 3u);
    EXPECT_EQ(plan.groups[2].source, game / "order.txt");
    EXPECT_EQ(plan.groups[2].lists, (std::vector<std::string>{"zz_base_patch.zip", "zz_extra_patch.zip"}));
    EXPECT_NE(plan.where.find("listed in order.txt"), std::string::npos) << plan.where;
    const auto done = deliver(*o.context, plan, vault_of(o.project, files), 5);
    ASSERT_FALSE(done.error) << done.error->message();
    note_delivered(o.project, plan, done);
    EXPECT_EQ(done.history.back().title, "2 pieces into 2 archives");
    EXPECT_EQ(as_text(get_file(game / "order.txt")),
              "# later ones win\r\nbase.zip\r\nextra.zip\r\nzz_base_patch.zip\r\nzz_extra_patch.zip\r\n");
    // One more edit is one more patch, behind the first.
    paint(o.project, o.project.pieces[0].id, {10, 200, 30, 255});
    const auto second = deliver_as(o, Destination::patch_archives);
    EXPECT_TRUE(as_text(get_file(game / "order.txt")).ends_with("zz_extra_patch.zip\r\nzz_base_patch_2.zip\r\n"));
    const auto too_early = undo_delivery(*o.context, o.project, vault_of(o.project, files), done.id);
    EXPECT_EQ(too_early.status.error().code, ErrorCode::usage) << "the list was changed again since";
    undo(o, second.id);
    undo(o, done.id);
    EXPECT_EQ(get_file(game / "order.txt"), before);
    EXPECT_FALSE(fs::exists(game / "zz_base_patch.zip"));

    o.project.places.list_file = "-";
    EXPECT_EQ(plan_delivery(*o.context, o.project).groups.size(), 2u) << "none, if one says so";
}

TEST_F(Ways, TwoPatchesOfOneDeliveryHaveTwoNames) {
    put_file(game / "order.txt", bytes_of("base.zip\nextra.zip\n"));
    auto o = open();
    two_edits(o);
    for (const auto* pattern : {"patch_{n}", "mine"}) {
        o.project.places.patch_name = pattern;
        const auto done = deliver_as(o, Destination::patch_archives);
        const std::string first = pattern == std::string("mine") ? "mine" : "patch_1",
                          second = pattern == std::string("mine") ? "mine_2" : "patch_2";
        EXPECT_TRUE(fs::exists(game / (first + ".zip")));
        EXPECT_TRUE(fs::exists(game / (second + ".zip")));
        EXPECT_EQ(as_text(get_file(game / "order.txt")), "base.zip\nextra.zip\n" + first + ".zip\n" + second + ".zip\n");
        undo(o, done.id);
    }
}

TEST_F(Ways, AListThatCannotTakeThemStopsThePatch) {
    auto o = open();
    two_edits(o);
    put_file(game / "credits.txt", bytes_of("made by all of us\n"));
    o.project.places.list_file = "credits.txt";
    (void)deliver_as(o, Destination::patch_archives, false);
    EXPECT_FALSE(fs::exists(game / "zz_base_patch.zip")) << "the game would not load it";
    o.project.places.list_file = "nowhere.txt";
    (void)deliver_as(o, Destination::patch_archives, false);
    EXPECT_EQ(as_text(get_file(game / "credits.txt")), "made by all of us\n");
}

TEST_F(Ways, ACardGetsTheGamesFilesWholeAndIsChangedThereAfterwards) {
    auto o = open();
    const auto ids = two_edits(o);
    const auto card = folder / "card", copy = card / "mods/base.zip";
    fs::create_directories(card);
    o.project.places.device = {card, "mods/{path}", false, fat32_largest, ""};
    ASSERT_TRUE(check_places(o.project.places));
    const auto base = get_file(zip), extra = get_file(crate);
    const auto first = deliver_as(o, Destination::device);
    EXPECT_EQ(all_files(card), (std::vector<fs::path>{"mods/base.zip", "mods/extra.zip"}));
    EXPECT_EQ(get_file(zip), base);
    EXPECT_EQ(get_file(crate), extra);
    const auto fitted = fit_now(*o.context, o.project, *o.project.piece(ids[0]));
    EXPECT_EQ(entry(o, copy, "a/one.dds"), fitted.fit->file);
    EXPECT_EQ(entry(o, copy, "a/two.dds"), entry(o, zip, "a/two.dds"));
    EXPECT_TRUE(plan_delivery(*o.context, o.project).groups.empty()) << "everything is there";
    const auto on_card = get_file(copy);

    // A second edit changes the card's copy in place.
    paint(o.project, ids[0], {10, 200, 30, 255});
    o.project.destination = Destination::device;
    const auto plan = plan_delivery(*o.context, o.project);
    ASSERT_EQ(plan.groups.size(), 1u);
    ASSERT_EQ(plan.groups[0].plan.files.size(), 1u);
    EXPECT_EQ(plan.groups[0].plan.files[0].file, copy);
    EXPECT_LT(plan.groups[0].plan.bytes_written(), 200u);
    const auto second = deliver_as(o, Destination::device);
    EXPECT_NE(get_file(copy), on_card);
    undo(o, second.id);
    EXPECT_EQ(get_file(copy), on_card);
    undo(o, first.id);
    EXPECT_TRUE(fs::is_empty(card));
    EXPECT_TRUE(o.project.piece(ids[0])->on_device.empty());
    EXPECT_EQ(o.project.piece(ids[0])->state, PieceState::changed);
}

TEST_F(Ways, WhatIsInTheGameGoesOntoTheCardToo) {
    auto o = open();
    const auto ids = two_edits(o);
    const auto card = folder / "card";
    fs::create_directories(card);
    o.project.places.device.folder = card;
    const auto into = deliver_as(o, Destination::into_archives);
    const auto onto = deliver_as(o, Destination::device);
    EXPECT_EQ(get_file(card / "base.zip"), get_file(zip)) << "the file as it became";
    EXPECT_EQ(o.project.piece(ids[0])->state, PieceState::delivered);
    ASSERT_TRUE(save_project(o.project));
    EXPECT_EQ(open_project(o.project.folder)->piece(ids[0])->on_device, o.project.piece(ids[0])->edit());
    EXPECT_EQ(open_project(o.project.folder)->places.device.folder, card);
    undo(o, onto.id);
    EXPECT_EQ(o.project.piece(ids[0])->state, PieceState::delivered) << "it is in the game still";
    EXPECT_EQ(plan_delivery(*o.context, o.project).piece_count(), 2u) << "and not on the card";
    undo(o, into.id);
    EXPECT_EQ(o.project.piece(ids[0])->state, PieceState::changed);
}

TEST_F(Ways, WhatIsOnTheCardAloneStillGoesIntoTheGame) {
    auto o = open();
    const auto ids = two_edits(o);
    const auto card = folder / "card";
    fs::create_directories(card);
    o.project.places.device.folder = card;
    const auto base = get_file(zip);
    const auto onto = deliver_as(o, Destination::device);
    EXPECT_EQ(o.project.piece(ids[0])->state, PieceState::delivered);
    EXPECT_TRUE(o.project.piece(ids[0])->delivered_hash.empty()) << "the game does not have it";
    EXPECT_EQ(state_by_edit(*o.project.piece(ids[0])), PieceState::delivered) << "nor is it changed by being looked at again";
    const auto into = deliver_as(o, Destination::into_archives);
    EXPECT_NE(get_file(zip), base);
    undo(o, into.id);
    EXPECT_EQ(get_file(zip), base);
    EXPECT_EQ(o.project.piece(ids[0])->state, PieceState::delivered) << "it is on the card";
    o.project.destination = Destination::device;
    EXPECT_TRUE(plan_delivery(*o.context, o.project).groups.empty());
    o.project.destination = Destination::into_archives;
    EXPECT_EQ(plan_delivery(*o.context, o.project).piece_count(), 2u) << "and not in the game";
    undo(o, onto.id);
    EXPECT_EQ(o.project.piece(ids[0])->state, PieceState::changed);
}

TEST_F(Ways, ACardMayTakeTexturesAsFiles) {
    auto o = open();
    two_edits(o);
    const auto card = folder / "card";
    fs::create_directories(card);
    o.project.places.device = {card, "mods/loose/{path}", true, fat32_largest, ""};
    const auto done = deliver_as(o, Destination::device);
    EXPECT_EQ(all_files(card), (std::vector<fs::path>{"mods/loose/a/one.dds", "mods/loose/b/three.dds"}));
    undo(o, done.id);
    EXPECT_TRUE(fs::is_empty(card));
}

TEST_F(Ways, AFileTooLargeForTheCardIsCutAndChangedInItsParts) {
    put_file(zip, make_zip({{"a/one.dds", make_dds(Format::BC1, 32, 32, 0, 1)}, {"rest", random_bytes(2'500'000, 4)}}));
    auto o = open();
    const auto ids = take(o, {{zip, {"a/one.dds"}}});
    paint(o.project, ids[0], {200, 30, 30, 255});
    const auto card = folder / "card";
    fs::create_directories(card);
    o.project.places.device = {card, "", false, 1u << 20, ""};
    const auto first = deliver_as(o, Destination::device);
    EXPECT_EQ(all_files(card), (std::vector<fs::path>{"base.zip.00", "base.zip.01", "base.zip.02"}));
    paint(o.project, ids[0], {10, 200, 30, 255});
    const auto second = deliver_as(o, Destination::device);
    const auto fitted = fit_now(*o.context, o.project, *o.project.piece(ids[0]));
    EXPECT_EQ(entry(o, card / "base.zip.00", "a/one.dds"), fitted.fit->file);
    const auto& changed = second.history.back().parts[0].files;
    EXPECT_EQ(changed.size(), 2u) << "the texture's part, and the directory's";
    EXPECT_TRUE(std::none_of(changed.begin(), changed.end(), [&](const auto& f) { return f.file.extension() == ".01"; }));
    undo(o, second.id);
    undo(o, first.id);
    EXPECT_TRUE(fs::is_empty(card));
}

TEST_F(Ways, FilesOfAFolderAndArchivesInItGoWhereTheyLie) {
    fs::create_directories(game / "data/tex");
    put_file(game / "data/tex/wall.dds", make_dds(Format::BC1, 32, 32, 0, 5));
    put_file(game / "data/inner.zip", make_zip({{"c/four.dds", make_dds(Format::BC1, 32, 32, 0, 6)}}));
    auto o = open();
    o.project.sources.assign({game / "data"});
    const auto ids = take(o, {{game / "data", {"tex/wall.dds"}}, {game / "data", {"inner.zip", "c/four.dds"}}});
    for (const auto id : ids) paint(o.project, id, {200, 30, 30, 255});
    const auto card = folder / "card";
    fs::create_directories(card);
    o.project.places.device.folder = card;
    const auto done = deliver_as(o, Destination::device);
    EXPECT_EQ(all_files(card), (std::vector<fs::path>{"data/inner.zip", "data/tex/wall.dds"}));
    EXPECT_EQ(get_file(card / "data/tex/wall.dds"), fit_now(*o.context, o.project, *o.project.piece(ids[0])).fit->file);
    EXPECT_EQ(entry(o, card / "data/inner.zip", "c/four.dds"), fit_now(*o.context, o.project, *o.project.piece(ids[1])).fit->file);
    undo(o, done.id);
    EXPECT_TRUE(fs::is_empty(card));
}

TEST_F(Ways, WithoutACardNothingIsWrittenAndTwoFilesGetNoOnePlace) {
    auto o = open();
    two_edits(o);
    (void)deliver_as(o, Destination::device, false);
    o.project.places.device.folder = folder / "not there";
    (void)deliver_as(o, Destination::device, false);
    const auto plan = plan_delivery(*o.context, o.project);
    ASSERT_EQ(plan.groups.size(), 1u);
    EXPECT_EQ(plan.groups[0].error->code, ErrorCode::missing);
    EXPECT_EQ(plan.groups[0].pieces.size(), 2u) << "what waits is shown all the same";

    // Two archives of one name in two folders, and a layout that keeps names alone.
    fs::create_directories(game / "dlc");
    put_file(game / "dlc/BASE.zip", make_zip({{"a/one.dds", make_dds(Format::BC1, 32, 32, 0, 8)}}));
    const auto ids = take(o, {{game / "dlc/BASE.zip", {"a/one.dds"}}});
    paint(o.project, ids[0], {1, 1, 200, 255});
    fs::create_directories(folder / "card");
    o.project.places.device = {folder / "card", "{file}", false, fat32_largest, ""};
    const auto clash = plan_delivery(*o.context, o.project);
    ASSERT_EQ(clash.groups.size(), 2u);
    EXPECT_EQ(clash.groups[0].error->code, ErrorCode::usage) << "names on a card have no case";
    EXPECT_FALSE(clash.groups[1].error);
}

TEST_F(Ways, ANameTheCardCannotHoldIsSaid) {
    put_file(game / "what?.zip", make_zip({{"a/one.dds", make_dds(Format::BC1, 32, 32, 0, 8)}}));
    auto o = open();
    const auto ids = take(o, {{game / "what?.zip", {"a/one.dds"}}});
    paint(o.project, ids[0], {1, 1, 200, 255});
    fs::create_directories(folder / "card");
    o.project.places.device.folder = folder / "card";
    (void)deliver_as(o, Destination::device, false);
    EXPECT_TRUE(fs::is_empty(folder / "card"));
}

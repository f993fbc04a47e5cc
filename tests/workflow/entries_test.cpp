// Variants, and entries that get other names or go: taken, planned, delivered, undone.
#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "base/hash.h"
#include "container/texture_files.h"
#include "support/pictures.h"
#include "support/run_program.h"
#include "texture/png.h"
#include "workflow/delivery_plan.h"
#include "workflow/opening.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Entries : testing::Test {
    TempFolder folder;
    PosixFiles files;
    ReadContext context;
    std::filesystem::path zip = folder / "game.zip", loose = folder / "loose";
    Project project;
    std::string before;
    Bytes horse = make_dds(Format::BC1, 32, 32, 6, 1);

    void SetUp() override {
        put_file(
            zip,
            make_zip({{"a/horse.dds", horse}, {"a/cow.dds", make_dds(Format::BC3, 32, 32, 0, 2)}, {"b/note.txt", random_bytes(60, 1)}}));
        put_file(loose / "x/sign.dds", make_dds(Format::BC1, 16, 16, 0, 3));
        project = *open_project(folder / "project");
        project.sources = {zip, loose};
        before = hash_of_file(zip);
    }
    Piece* vary(const std::string& like, const std::string& path) {
        auto piece = take_variant(context, project, {zip, {like}}, path, {}, 1);
        EXPECT_TRUE(piece) << (piece ? "" : piece.error().message());
        if (!piece) return nullptr;
        std::vector<Piece> taken;
        taken.push_back(std::move(*piece));
        return project.piece(keep_taken(project, std::move(taken)).front());
    }
    bool wait_for(const EntryChange& change) { return project.add(std::span(&change, 1)).empty(); }
    void paint(Piece& piece, Texel color) {
        auto image = *read_png(get_file(project.work() / piece.file), ReadLimits{});
        for (std::uint32_t y = 0; y < 4; ++y)
            for (std::uint32_t x = 0; x < 4; ++x) image.at(x, y) = color;
        put_file(project.work() / piece.file, *write_png(image));
        EXPECT_TRUE(note_refreshed(project, refresh_piece(project, piece, 3)));
    }
    Delivered deliver_all() {
        const auto plan = plan_delivery(context, project);
        for (const auto& group : plan.groups) EXPECT_FALSE(group.error) << group.error->message();
        auto done = deliver(context, plan, vault_of(project, files), 5);
        EXPECT_FALSE(done.error) << done.error->message();
        note_delivered(project, plan, done);
        return done;
    }
    void undo(const Delivered& done) {
        const auto undone = undo_delivery(context, project, vault_of(project, files), done.id);
        EXPECT_TRUE(undone.status) << undone.status.error().message();
        note_undone(project, undone);
    }
    /// Paths inside the archive, as bsdtar lists them.
    std::string listed() const { return run_program({"bsdtar", "-tf", zip.string()}).output; }
    Result<Bytes> entry(const std::string& path) const { return read_address(context, {zip, {path}}); }
};

}  // namespace

TEST_F(Entries, AVariantComesBesideWhatItIsLike) {
    auto* piece = vary("a/horse.dds", "a/horse_blue.dds");
    ASSERT_TRUE(piece);
    const auto id = piece->id;
    EXPECT_EQ(piece->name(), "horse_blue");
    EXPECT_EQ(piece->like, "a/horse.dds");
    EXPECT_EQ(piece->state, PieceState::changed) << "it is new to the game as it is";
    EXPECT_EQ(hash_of_file(zip), before) << "nothing is written before it is delivered";
    paint(*piece, {10, 20, 220, 255});
    ASSERT_TRUE(save_project(project));
    project = *open_project(project.folder);
    ASSERT_EQ(project.piece(id)->like, "a/horse.dds");

    const auto plan = plan_delivery(context, project);
    ASSERT_EQ(plan.groups.size(), 1u);
    EXPECT_EQ(plan.groups[0].pieces[0].like, "a/horse.dds");
    EXPECT_EQ(plan.groups[0].plan.way(), Way::append);
    const auto done = deliver_all();
    EXPECT_EQ(project.piece(id)->state, PieceState::delivered);
    EXPECT_EQ(listed(), "a/horse.dds\na/cow.dds\nb/note.txt\na/horse_blue.dds\n");
    EXPECT_EQ(*entry("a/horse.dds"), horse);
    // Same header, format and mips; one block of the largest level is another.
    const auto blue = *entry("a/horse_blue.dds");
    ASSERT_EQ(blue.size(), horse.size());
    std::size_t other = 0;
    for (std::size_t i = 128; i < 128 + 512; i += 8)
        other += !std::equal(blue.begin() + std::ptrdiff_t(i), blue.begin() + std::ptrdiff_t(i) + 8, horse.begin() + std::ptrdiff_t(i));
    EXPECT_EQ(other, 1u);
    EXPECT_TRUE(std::equal(blue.begin(), blue.begin() + 128, horse.begin()));

    // Once it is there it is replaced like others.
    paint(*project.piece(id), {220, 20, 10, 255});
    const auto again = plan_delivery(context, project);
    ASSERT_FALSE(again.groups[0].error);
    EXPECT_LT(again.groups[0].plan.bytes_written(), 900u);
    const auto second = deliver_all();
    EXPECT_EQ(listed(), "a/horse.dds\na/cow.dds\nb/note.txt\na/horse_blue.dds\n");
    EXPECT_TRUE(gone_stale(context, project.pieces).empty());
    undo(second);
    undo(done);
    EXPECT_EQ(hash_of_file(zip), before);
    EXPECT_EQ(project.piece(id)->state, PieceState::changed);
    EXPECT_TRUE(gone_stale(context, project.pieces).empty()) << "not there is as it should be";
    (void)deliver_all();
    EXPECT_TRUE(entry("a/horse_blue.dds"));
}

TEST_F(Entries, AVariantIsDeliveredAsItIsAndIntoAFolderToo) {
    ASSERT_TRUE(vary("a/cow.dds", "new/cow.dds"));
    auto sign = take_variant(context, project, {loose, {"x/sign.dds"}}, "y/sign_red.dds", {}, 1);
    ASSERT_TRUE(sign) << sign.error().message();
    std::vector<Piece> taken;
    taken.push_back(std::move(*sign));
    keep_taken(project, std::move(taken));
    const auto done = deliver_all();
    EXPECT_EQ(*entry("new/cow.dds"), *entry("a/cow.dds"));
    EXPECT_EQ(get_file(loose / "y/sign_red.dds"), get_file(loose / "x/sign.dds"));
    undo(done);
    EXPECT_EQ(hash_of_file(zip), before);
    EXPECT_FALSE(std::filesystem::exists(loose / "y"));
}

TEST_F(Entries, AVariantGoesBesideTheGameUnderItsOwnPath) {
    auto* piece = vary("a/horse.dds", "a/horse_blue.dds");
    paint(*piece, {10, 20, 220, 255});
    project.destination = Destination::beside_the_game;
    (void)deliver_all();
    std::size_t found = 0;
    for (const auto& item : std::filesystem::recursive_directory_iterator(folder.path()))
        found += item.path().filename() == "horse_blue.dds" && item.path().parent_path().filename() == "a";
    EXPECT_EQ(found, 1u);
    EXPECT_EQ(hash_of_file(zip), before);
    const auto looked = check_source(context, *piece);
    ASSERT_TRUE(looked);
    EXPECT_EQ(looked->state, PieceState::delivered) << "it is not in the archive, and need not be";
}

TEST_F(Entries, AVariantCannotGoIntoAPatchArchive) {
    ASSERT_TRUE(vary("a/horse.dds", "a/horse_blue.dds"));
    project.destination = Destination::patch_archives;
    const auto plan = plan_delivery(context, project);
    ASSERT_EQ(plan.groups.size(), 1u);
    ASSERT_TRUE(plan.groups[0].error);
    EXPECT_NE(plan.groups[0].error->message().find("a/horse_blue.dds is new to the game"), std::string::npos)
        << plan.groups[0].error->message();
}

TEST_F(Entries, WhatCannotBeAVariantIsSaidAtOnce) {
    const auto refused = [&](const Address& like, const std::string& path, const std::string& why) {
        const auto piece = take_variant(context, project, like, path, {}, 1);
        ASSERT_FALSE(piece) << why;
        EXPECT_NE(piece.error().message().find(why), std::string::npos) << piece.error().message();
    };
    refused({zip, {"a/horse.dds"}}, "a/cow.dds", "there is an entry \"a/cow.dds\" already");
    refused({zip, {"a/horse.dds"}}, "../cow.dds", "is no path inside an archive");
    refused({zip, {"a/none.dds"}}, "b.dds", "there is no entry");
    ASSERT_TRUE(vary("a/horse.dds", "a/blue.dds"));
    refused({zip, {"a/horse.dds"}}, "a/blue.dds", "is on the bench already");
    put_file(folder / "in/a.dds", horse);
    ASSERT_EQ(run_program({"bsdtar", "-cf", (folder / "g.7z").string(), "--format", "7zip", "a.dds"}, (folder / "in").string()).code, 0);
    refused({folder / "g.7z", {"a.dds"}}, "b.dds", "nothing added");
    refused({zip, {"b/note.txt"}}, "c.txt", "");
}

TEST_F(Entries, EntriesGetOtherNamesAndGoWithADelivery) {
    ASSERT_TRUE(wait_for(EntryChange{{zip, {"b/note.txt"}}, {}}));
    ASSERT_TRUE(wait_for(EntryChange{{zip, {"a/cow.dds"}}, "a/bull.dds"}));
    ASSERT_TRUE(wait_for(EntryChange{{zip, {"a/cow.dds"}}, "a/ox.dds"})) << "the newest word counts";
    ASSERT_TRUE(wait_for(EntryChange{{loose, {"x/sign.dds"}}, {}}));
    ASSERT_EQ(project.changes.size(), 3u);
    ASSERT_TRUE(save_project(project));
    project = *open_project(project.folder);
    ASSERT_EQ(project.changes.size(), 3u);
    auto* piece = vary("a/horse.dds", "a/horse_blue.dds");
    paint(*piece, {10, 20, 220, 255});

    const auto plan = plan_delivery(context, project);
    EXPECT_EQ(plan.piece_count(), 1u);
    EXPECT_EQ(plan.change_count(), 3u);
    const auto done = deliver_all();
    EXPECT_EQ(listed(), "a/horse.dds\na/horse_blue.dds\na/ox.dds\n");
    EXPECT_FALSE(std::filesystem::exists(loose / "x/sign.dds"));
    EXPECT_TRUE(project.changes.empty());
    EXPECT_EQ(done.history.size(), 1u);
    undo(done);
    EXPECT_EQ(hash_of_file(zip), before);
    EXPECT_EQ(get_file(loose / "x/sign.dds"), make_dds(Format::BC1, 16, 16, 0, 3));
}

TEST_F(Entries, ChangesAloneAreADelivery) {
    ASSERT_TRUE(wait_for(EntryChange{{zip, {"b/note.txt"}}, "b/read me.txt"}));
    const auto done = deliver_all();
    ASSERT_EQ(done.history.size(), 1u);
    EXPECT_EQ(done.history[0].title, "note.txt becomes read me.txt in game.zip");
    EXPECT_EQ(done.history[0].entries(), std::vector<std::string>{"b/note.txt"});
    undo(done);
    EXPECT_EQ(hash_of_file(zip), before);
}

TEST_F(Entries, ChangesWaitForTheArchivesAndKeepOffTheBench) {
    const auto taken = keep_taken(project, take_pieces(context, project, std::vector<Address>{{zip, {"a/horse.dds"}}}, {}, 1).pieces);
    const auto refused = project.add(std::vector{EntryChange{{zip, {"a/horse.dds"}}, {}}});
    ASSERT_EQ(refused.size(), 1u);
    EXPECT_NE(refused[0].message().find("is on the bench"), std::string::npos);
    ASSERT_TRUE(wait_for(EntryChange{{zip, {"a/cow.dds"}}, {}}));
    project.destination = Destination::patch_archives;
    const auto plan = plan_delivery(context, project);
    EXPECT_EQ(plan.change_count(), 0u);
    EXPECT_EQ(plan.waiting.size(), 1u);
    project.destination = Destination::into_archives;
    EXPECT_EQ(plan_delivery(context, project, std::vector<PieceId>{taken.front()}).change_count(), 0u) << "only that piece was asked for";
    // One that cannot be made stands in its way, and is said.
    ASSERT_TRUE(wait_for(EntryChange{{zip, {"a/cow.dds"}}, "a/horse.dds"}));
    const auto bad = plan_delivery(context, project);
    ASSERT_TRUE(bad.groups.at(0).error);
    EXPECT_NE(bad.groups[0].error->message().find("already"), std::string::npos);
    const std::vector<EntryChange> bad_one = {{{zip, {"a/cow.dds"}}, "a/horse.dds"}};
    EXPECT_EQ(project.drop(bad_one), 1u);
    EXPECT_EQ(project.drop(bad_one), 0u);
}

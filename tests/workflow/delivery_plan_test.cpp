// The whole trip without a window and without a command line: open, take, edit, fit, mend, plan, deliver, undo, by every destination.
#include <gtest/gtest.h>

#include <algorithm>
#include <filesystem>
#include <string>
#include <vector>

#include "workflow/catalog_snapshot.h"
#include "workflow/places.h"
#include "workflow/sources.h"
#include "workflow/workflow_fixture.h"

using namespace skivet;
using namespace skivet::test;

TEST_F(Workflow, AProjectOfAGameHasItsArchivesAndIsLocked) {
    const auto opened = open();
    EXPECT_EQ(opened.project.sources, (std::vector<std::filesystem::path>{zip, crate}));
    EXPECT_EQ(opened.project.name, "game");
    EXPECT_TRUE(opened.problems.empty());
    ASSERT_TRUE(opened.lock);
    const auto second = open_for_work(shipped, {folder / "project", {}, {}, {}}, files, 1);
    ASSERT_FALSE(second);
    EXPECT_EQ(second.error().code, ErrorCode::busy);
}

TEST_F(Workflow, AnotherGamesProjectIsRefused) {
    {
        auto opened = open();
        ASSERT_TRUE(save_project(opened.project));
    }
    std::filesystem::create_directories(folder / "other");
    const auto other = open_for_work(shipped, {folder / "project", folder / "other", {}, {}}, files, 1);
    ASSERT_FALSE(other);
    EXPECT_EQ(other.error().code, ErrorCode::usage);
    EXPECT_NE(other.error().message().find("is about the game in"), std::string::npos);
}

TEST_F(Workflow, WhatCannotBeUsedHoldsNothingUp) {
    std::filesystem::create_directories(folder / "project/sheets");
    put_file(folder / "project/sheets/odd.toml", bytes_of("title = "));
    put_file(folder / "project/baseline.sqlite", bytes_of("this is no baseline"));
    const auto opened = open();
    EXPECT_EQ(opened.project.sources.size(), 2u);
    ASSERT_EQ(opened.problems.size(), 2u);
    EXPECT_NE(opened.problems[0].message().find("odd.toml"), std::string::npos);
    EXPECT_NE(opened.problems[1].message().find("baseline.sqlite"), std::string::npos);
    EXPECT_FALSE(opened.baseline);
}

TEST_F(Workflow, IntoTheArchivesAndBack) {
    auto o = open();
    const auto before = hash_of_file(zip), before_crate = hash_of_file(crate);
    const auto ids = two_edits(o);
    ASSERT_EQ(ids, (std::vector<PieceId>{1, 2}));
    const auto plan = plan_delivery(*o.context, o.project);
    ASSERT_EQ(plan.groups.size(), 2u);
    EXPECT_EQ(plan.piece_count(), 2u);
    EXPECT_GT(plan.groups[0].pieces[0].new_blocks, 0u);
    EXPECT_EQ(plan.groups[0].archive_size, std::filesystem::file_size(zip));
    EXPECT_TRUE(note_planned(o.project, plan));
    EXPECT_EQ(o.project.piece(1)->state, PieceState::fits);
    EXPECT_FALSE(note_planned(o.project, plan)) << "nothing new the second time";

    const auto done = deliver(*o.context, plan, vault_of(o.project, files), 5);
    ASSERT_FALSE(done.error) << done.error->message();
    EXPECT_EQ(done.groups.size(), 2u);
    ASSERT_EQ(done.history.size(), 1u);
    EXPECT_EQ(done.history[0].id, done.id);
    EXPECT_EQ(done.history[0].title, "2 pieces into 2 archives");
    note_delivered(o.project, plan, done);
    for (const auto id : ids) EXPECT_EQ(o.project.piece(id)->state, PieceState::delivered);
    EXPECT_TRUE(plan_delivery(*o.context, o.project).groups.empty()) << "what is delivered does not wait";

    const auto undone = undo_delivery(*o.context, o.project, vault_of(o.project, files), done.id);
    ASSERT_TRUE(undone.status);
    EXPECT_TRUE(undone.history.empty());
    EXPECT_EQ(undone.changed_again, ids);
    note_undone(o.project, undone);
    EXPECT_EQ(o.project.piece(2)->state, PieceState::changed);
    EXPECT_EQ(hash_of_file(zip), before);
    EXPECT_EQ(hash_of_file(crate), before_crate);
}

TEST_F(Workflow, SomeOfThePiecesAlone) {
    auto o = open();
    const auto ids = two_edits(o);
    const auto plan = plan_delivery(*o.context, o.project, std::vector{ids[1]});
    ASSERT_EQ(plan.groups.size(), 1u);
    EXPECT_EQ(plan.groups[0].source, crate);
}

TEST_F(Workflow, APieceSavedWhileItWasDeliveredIsAChangedOne) {
    auto o = open();
    const auto ids = two_edits(o);
    const auto plan = plan_delivery(*o.context, o.project);
    const auto done = deliver(*o.context, plan, vault_of(o.project, files), 5);
    ASSERT_FALSE(done.error);
    paint(o.project, ids[0], {0, 0, 250, 255});
    note_delivered(o.project, plan, done);
    EXPECT_EQ(o.project.piece(ids[0])->state, PieceState::changed) << "what the game has is not what is on the disk";
    EXPECT_EQ(o.project.piece(ids[1])->state, PieceState::delivered);
}

TEST_F(Workflow, LooseFilesBesideTheGame) {
    auto o = open();
    const auto before = hash_of_file(zip);
    two_edits(o);
    o.project.destination = Destination::beside_the_game;
    const auto plan = plan_delivery(*o.context, o.project);
    ASSERT_EQ(plan.groups.size(), 1u) << "both go to one folder";
    EXPECT_EQ(plan.groups[0].source, game / "override");
    EXPECT_TRUE(plan.groups[0].beside);
    EXPECT_EQ(plan.piece_count(), 2u);
    const auto done = deliver(*o.context, plan, vault_of(o.project, files), 5);
    ASSERT_FALSE(done.error) << done.error->message();
    EXPECT_EQ(get_file(game / "override/a/one.dds"), plan.groups[0].contents[0].bytes);
    EXPECT_EQ(hash_of_file(zip), before);
    note_delivered(o.project, plan, done);
    const auto undone = undo_delivery(*o.context, o.project, vault_of(o.project, files), done.id);
    EXPECT_EQ(undone.changed_again.size(), 2u);
    EXPECT_FALSE(std::filesystem::exists(game / "override/a/one.dds"));
}

TEST_F(Workflow, PatchArchivesTakeNoNameThatIsThere) {
    auto o = open();
    two_edits(o);
    o.project.destination = Destination::patch_archives;
    put_file(game / "zz_base_patch.zip", bytes_of("another mod's"));
    const auto plan = plan_delivery(*o.context, o.project);
    ASSERT_EQ(plan.groups.size(), 2u);
    EXPECT_EQ(plan.groups[0].source, game / "zz_base_patch_2.zip");
    EXPECT_EQ(plan.groups[1].source, game / "zz_extra_patch.zip");
    const auto done = deliver(*o.context, plan, vault_of(o.project, files), 5);
    ASSERT_FALSE(done.error) << done.error->message();
    EXPECT_EQ((*open_source(*o.context, game / "zz_extra_patch.zip"))->entries().size(), 1u);
    EXPECT_EQ(get_file(game / "zz_base_patch.zip"), bytes_of("another mod's"));
}

TEST_F(Workflow, PlacesFollowTheInstallationAndTheProject) {
    auto o = open();
    std::filesystem::create_directories(game / "data/user/Loose");
    o.project.sources.push_back(game / "data/user/Loose");
    o.project.source_settings[game / "data/user/Loose"].group = "override";
    EXPECT_EQ(proposed_override(o.project), "data/user/Loose");
    o.project.places.override_folder = "data/mine";
    EXPECT_EQ(override_folder(o.project), game / "data/mine");

    // As the game's own updates are named, above those that are there, whether they are sources or not.
    put_file(game / "data/patch_07.pak", bytes_of("x"));
    put_file(game / "data/patch_9.pak", bytes_of("x"));
    o.project.sources.push_back(game / "data/patch_07.pak");
    o.project.source_settings[game / "data/patch_07.pak"].group = "update";
    EXPECT_EQ(patch_archive(o.project, game / "data/base.pak"), game / "data/patch_10.pak");
    EXPECT_EQ(patch_archive(o.project, game / "data/base.zip"), game / "data/zz_base_patch.zip") << "another kind has its own habits";
    o.project.places.patch_name = "{name}-mod{n}";
    EXPECT_EQ(patch_archive(o.project, game / "data/base.pak"), game / "data/base-mod1.pak");
    EXPECT_EQ(patch_archive(o.project, folder / "elsewhere/base.pak"), game / "base-mod1.pak");

    const auto said = [](const std::string& loose, const std::string& layout, const std::string& patch, const std::string& list) {
        return check_places({loose, layout, patch, list, {}});
    };
    EXPECT_TRUE(said("", "", "", ""));
    EXPECT_TRUE(said("data/override", "{archive}/{path}", "patch_{n}", "data/order.txt"));
    EXPECT_TRUE(said("", "", "", "-"));
    for (const auto* bad : {"/etc", "../other", "a/../../b"}) {
        EXPECT_EQ(said(bad, "", "", "").error().code, ErrorCode::usage) << bad;
        EXPECT_EQ(said("", "", "", bad).error().code, ErrorCode::usage) << bad;
    }
    for (const auto* bad : {"a/b", "..", "{number}", "x}"}) EXPECT_EQ(said("", "", bad, "").error().code, ErrorCode::usage) << bad;
    for (const auto* bad : {"/{path}", "../{path}", "mods", "{path}.x", "{name}/{path}"})
        EXPECT_EQ(said("", bad, "", "").error().code, ErrorCode::usage) << bad;
    ASSERT_TRUE(save_project(o.project));
    const auto again = open_project(o.project.folder);
    EXPECT_EQ(again->places.override_folder, "data/mine");
    EXPECT_EQ(again->places.patch_name, "{name}-mod{n}");
}

TEST_F(Workflow, WithoutAGamesFolderTheProjectsIsUsed) {
    auto o = open();
    two_edits(o);
    o.project.game.clear();
    o.project.destination = Destination::beside_the_game;
    const auto plan = plan_delivery(*o.context, o.project);
    ASSERT_EQ(plan.groups.size(), 1u);
    EXPECT_EQ(plan.groups[0].source, o.project.folder / "override");
}

TEST_F(Workflow, WhatDoesNotFitStaysAndAMendLetsItGo) {
    auto o = open();
    const auto ids = take(o, {{zip, {"a/one.dds"}}});
    paint(o.project, ids[0], {1, 2, 3, 255}, 20);
    auto plan = plan_delivery(*o.context, o.project);
    EXPECT_TRUE(plan.groups.empty());
    ASSERT_EQ(plan.left_out.size(), 1u);
    EXPECT_EQ(plan.left_out[0].why, "20×20 where the game has 32×32");
    note_planned(o.project, plan);
    EXPECT_EQ(o.project.piece(ids[0])->state, PieceState::needs_mend);
    const auto nothing = deliver(*o.context, plan, vault_of(o.project, files), 5);
    ASSERT_TRUE(nothing.error);
    EXPECT_EQ(nothing.error->code, ErrorCode::usage);

    o.project.piece(ids[0])->options.mends.press(*parse_mends("size,alpha"));
    const auto fitted = fit_now(*o.context, o.project, *o.project.piece(ids[0]));
    EXPECT_TRUE(fitted.deliverable());
    EXPECT_TRUE(fitted.obstacle().empty());
    EXPECT_TRUE(note_fit(o.project, fitted));
    EXPECT_EQ(o.project.piece(ids[0])->state, PieceState::fits);
    EXPECT_EQ(plan_delivery(*o.context, o.project).piece_count(), 1u);
    // A fit of a file that was saved again since says nothing.
    paint(o.project, ids[0], {9, 99, 9, 255});
    EXPECT_FALSE(note_fit(o.project, fitted));
    EXPECT_TRUE(o.project.piece(ids[0])->options.mends.empty()) << "a mend belongs to the file it was pressed for";
}

TEST_F(Workflow, AForeignChangeLeavesEverythingAsItIs) {
    auto o = open();
    const auto ids = two_edits(o);
    const auto plan = plan_delivery(*o.context, o.project);
    put_file(zip, make_zip({{"a/one.dds", make_dds(Format::BC1, 32, 32, 0, 77)}}));
    const auto changed = hash_of_file(zip), before_crate = hash_of_file(crate);
    const auto done = deliver(*o.context, plan, vault_of(o.project, files), 5);
    ASSERT_TRUE(done.error);
    EXPECT_EQ(done.error->code, ErrorCode::stale);
    EXPECT_TRUE(done.groups.empty());
    EXPECT_EQ(hash_of_file(zip), changed);
    EXPECT_EQ(hash_of_file(crate), before_crate) << "all of them or none";
    const auto stale = gone_stale(*o.context, o.project.pieces);
    EXPECT_EQ(stale, std::vector{ids[0]});
    // Taken again while the game was looked at: what was seen is of the old one.
    auto since = o.project;
    since.piece(ids[0])->original_hash = "another";
    EXPECT_FALSE(note_stale(since, stale, o.project));
    EXPECT_EQ(since.piece(ids[0])->state, o.project.piece(ids[0])->state);
    auto now_there = o.project;
    EXPECT_TRUE(note_stale(now_there, stale, o.project));
    EXPECT_EQ(now_there.piece(ids[0])->state, PieceState::gone_stale);
    EXPECT_FALSE(note_stale(now_there, stale, o.project)) << "known already";
}

TEST_F(Workflow, PiecesKeepTheirIds) {
    auto o = open();
    const auto ids = take(o, {{zip, {"a/one.dds"}}, {zip, {"a/two.dds"}}, {crate, {"b/three.dds"}}});
    EXPECT_TRUE(o.project.put_away(ids[0]));
    EXPECT_FALSE(o.project.put_away(ids[0]));
    EXPECT_EQ(o.project.piece(ids[2])->address.source, crate);
    EXPECT_TRUE(take(o, {{zip, {"a/two.dds"}}}).empty()) << "it is there already";
    const auto again = take(o, {{zip, {"a/one.dds"}}});
    ASSERT_EQ(again.size(), 1u);
    EXPECT_EQ(again[0], 4u) << "an id is never given twice";
    ASSERT_TRUE(save_project(o.project));
    const auto back = *open_project(o.project.folder);
    EXPECT_EQ(back.piece(again[0])->address, (Address{zip, {"a/one.dds"}}));
    EXPECT_EQ(back.next_piece, 5u);
    const auto anew = take_again(*o.context, o.project, *o.project.piece(ids[1]), 9);
    ASSERT_TRUE(anew);
    EXPECT_EQ(anew->id, ids[1]);
}

TEST_F(Workflow, TouchUpsStayWithTheirPieceAndThoseThatShareItsFile) {
    auto o = open();
    const auto ids = take(o, {{zip, {"a/one.dds"}}, {zip, {"a/two.dds"}}});
    auto follower = take_follower(*o.context, o.project, *o.project.piece(ids[0]), {{crate, {"b/three.dds"}}}, 3);
    ASSERT_TRUE(follower);
    const auto third = keep_taken(o.project, {*follower});
    ASSERT_EQ(third.size(), 1u);
    ASSERT_TRUE(set_touches(o.project, {{ids[0], {"gray", "contrast=1.5"}}}, 7));
    const std::vector<std::string> both = {"gray", "contrast=factor:1.5"};
    EXPECT_EQ(o.project.piece(ids[0])->touches, both);
    EXPECT_EQ(o.project.piece(ids[0])->state, PieceState::changed);
    EXPECT_EQ(o.project.piece(third[0])->touches, both) << "it follows the same file";
    EXPECT_TRUE(o.project.piece(ids[1])->touches.empty());
    EXPECT_NE(o.project.piece(ids[0])->edit(), o.project.piece(ids[0])->seen_hash);
    EXPECT_FALSE(set_touches(o.project, {{ids[0], {"gray", "paint"}}}, 8));
    EXPECT_FALSE(set_touches(o.project, {{ids[0], {"gray"}}, {9999, {"gray"}}}, 8)) << "no such piece";
    EXPECT_EQ(o.project.piece(ids[0])->touches, both) << "all of a list or nothing";
    ASSERT_TRUE(save_project(o.project));
    EXPECT_EQ(open_project(o.project.folder)->piece(ids[0])->touches, both);
    // A fit of the list before is not taken for one of this list.
    const auto stale = fit_now(*o.context, o.project, *o.project.piece(ids[0]));
    ASSERT_TRUE(set_touches(o.project, {{ids[0], {"gray"}}}, 9));
    EXPECT_FALSE(note_fit(o.project, stale));
    // A save of the file in between leaves the newer list.
    auto seen = *o.project.piece(ids[0]);
    seen.touches = both;
    seen.seen_hash = "another";
    EXPECT_TRUE(note_refreshed(o.project, seen));
    EXPECT_EQ(o.project.piece(ids[0])->touches, std::vector<std::string>{"gray"});
    // Taken anew after an update of the game they are made on its new picture.
    const auto anew = take_again(*o.context, o.project, *o.project.piece(ids[0]), 10);
    ASSERT_TRUE(anew);
    EXPECT_EQ(anew->touches, std::vector<std::string>{"gray"});
    EXPECT_EQ(anew->state, PieceState::changed);
    // Without them the piece is as it was written out.
    ASSERT_TRUE(set_touches(o.project, {{ids[1], {"gray"}}}, 11));
    ASSERT_TRUE(set_touches(o.project, {{ids[1], {}}}, 12));
    EXPECT_EQ(o.project.piece(ids[1])->state, PieceState::out);
}

TEST_F(Workflow, AProjectOfAnEarlierVersionGetsIdsAndKeepsItsMends) {
    put_file(folder / "old/project.json", bytes_of(R"({"name": "old", "game": "", "sources": [], "pieces": [
        {"source": "/g/a.zip", "inner": ["x.dds"], "as": "png", "file": "x.png", "original": "00", "exported": "1", "seen": "1", "delivered": "",
         "delivered_texture": "", "state": "out", "resize": true, "restore_alpha": false, "drop_alpha": true, "changed_at": 5},
        {"source": "/g/a.zip", "inner": ["y.dds"], "as": "png", "file": "y.png", "original": "00", "exported": "1", "seen": "1", "delivered": "",
         "delivered_texture": "", "state": "out", "resize": false, "restore_alpha": false, "drop_alpha": false, "changed_at": 5}]})"));
    const auto project = open_project(folder / "old");
    ASSERT_TRUE(project) << project.error().message();
    ASSERT_EQ(project->pieces.size(), 2u);
    EXPECT_EQ(project->pieces[0].id, 1u);
    EXPECT_EQ(project->pieces[1].id, 2u);
    EXPECT_EQ(project->pieces[0].options.mends, (MendSet{Mend::resize, Mend::drop_alpha}));
    EXPECT_TRUE(project->pieces[1].options.mends.empty());
}

TEST_F(Workflow, SourcesAreKeptInOrder) {
    Project p;
    p.folder = folder / "p";
    for (const auto* name : {"a", "b", "c"}) EXPECT_TRUE(add_source(p, name));
    EXPECT_FALSE(add_source(p, "b"));
    EXPECT_TRUE(place_source(p, 0, 2));
    EXPECT_EQ(p.sources, (std::vector<std::filesystem::path>{"b", "c", "a"}));
    EXPECT_TRUE(place_source(p, 2, 0));
    EXPECT_FALSE(place_source(p, 0, 3));
    EXPECT_FALSE(place_source(p, 1, 1));
    EXPECT_TRUE(remove_source(p, 1));
    EXPECT_FALSE(remove_source(p, 2));
    EXPECT_EQ(p.sources, (std::vector<std::filesystem::path>{"a", "c"}));
    choose_kind(p, "*.pak", "ZIP");
    choose_kind(p, "*.pak", "TAR");
    ASSERT_EQ(p.choices.size(), 1u);
    EXPECT_EQ(p.choices[0].kind, "TAR");
    choose_kind(p, "*.pak", "");
    EXPECT_TRUE(p.choices.empty());
    accept_paths(p, {"x/y.dds", "x/y.dds"});
    EXPECT_EQ(p.known_paths.size(), 1u);
    EXPECT_FALSE(keep_sheet(p, "bad", "title = "));
    EXPECT_FALSE(std::filesystem::exists(p.sheets()));
}

TEST_F(Workflow, TheCatalogIsLookedThroughLookedAtAndRemembered) {
    auto o = open();
    take(o, {{zip, {"a/one.dds"}}});
    Progress progress;
    const AnalysisContext analysis{o.project, nullptr, {}};
    const auto catalog = read_sources(*o.context, analysis, *o.index, progress);
    ASSERT_TRUE(catalog);
    const auto& first = **catalog;
    EXPECT_TRUE(first.snapshot->whole);
    EXPECT_EQ(first.snapshot->texture_counts, (std::vector<std::size_t>{2, 1}));
    EXPECT_EQ(first.unseen, 3u);
    EXPECT_EQ(states_of_items(analysis, *first.snapshot)[0], "out");
    std::optional<Error> problem;
    const auto seen = measure_unseen(*o.context, analysis, first, *o.index, nullptr, progress, {}, problem);
    EXPECT_FALSE(problem);
    EXPECT_EQ(seen->unseen, 0u);
    for (const auto& facts : seen->analysis.facts) EXPECT_TRUE(facts);
    EXPECT_TRUE(relations_of(*seen, 0).seen);
    EXPECT_FALSE(relations_of(*seen, 99).seen);
    const auto remembered = remembered_catalog(*o.context, o.project, *o.index);
    ASSERT_TRUE(remembered);
    EXPECT_FALSE(remembered->snapshot->whole);
    EXPECT_EQ(remembered->snapshot->catalog.items.size(), 3u);
    EXPECT_EQ(remembered->unseen, 0u);
    // A source that is switched off has no items, and the others keep their numbers.
    o.project.source_settings[zip].off = true;
    const auto without = read_sources(*o.context, {o.project, nullptr, {}}, *o.index, progress);
    ASSERT_EQ((*without)->snapshot->catalog.items.size(), 1u);
    EXPECT_EQ((*without)->snapshot->catalog.items[0].source, 1u);
    progress.cancel.cancel();
    const auto stopped = read_sources(*o.context, analysis, *o.index, progress);
    ASSERT_FALSE(stopped);
    EXPECT_EQ(stopped.error().code, ErrorCode::canceled);
}

TEST_F(Workflow, CompactingIsAPlanWithItsCheck) {
    auto o = open();
    // A longer entry leaves dead space behind.
    auto source = *open_source(*o.context, zip);
    const auto grown = plan_replacements(*o.context, *source, {{{"a/one.dds"}, random_bytes(20'000, 3)}});
    ASSERT_TRUE(grown);
    auto vault = vault_of(o.project, files);
    ASSERT_TRUE(vault.deliver(*grown, {"grown", zip, {}}, 1));
    source = *open_source(*o.context, zip);
    const auto size = std::filesystem::file_size(zip);
    const auto plan = plan_compacting(*o.context, zip, source);
    ASSERT_TRUE(plan);
    EXPECT_FALSE(plan->plan.empty());
    EXPECT_NE(plan->note.title.find("given back in base.zip"), std::string::npos);
    ASSERT_TRUE(vault.deliver(plan->plan, plan->note, 2, plan->check));
    EXPECT_LT(std::filesystem::file_size(zip), size);
    EXPECT_TRUE(plan_compacting(*o.context, zip, *open_source(*o.context, zip))->plan.empty());
}

TEST_F(Workflow, OpeningIsEndedBetweenTwoPieces) {
    {
        auto o = open();
        take(o, {{zip, {"a/one.dds"}}, {zip, {"a/two.dds"}}});
        ASSERT_TRUE(save_project(o.project));
    }
    OpenWish wish{folder / "project", game, {}, {}};
    wish.cancel.cancel();
    const auto opened = open_for_work(shipped, wish, files, 1);
    ASSERT_FALSE(opened);
    EXPECT_EQ(opened.error().code, ErrorCode::canceled);
    EXPECT_TRUE(lock_project(folder / "project")) << "and is free again";
}

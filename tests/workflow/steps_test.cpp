// Undo and redo of what a person decides, in a project that goes on by itself meanwhile.
#include "workflow/steps.h"

#include <gtest/gtest.h>
#include <filesystem>
#include <random>
#include <string>
#include <vector>

#include "workflow/pieces.h"
#include "workflow/sources.h"
#include "workflow/workflow_fixture.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Steps : Workflow {
    static bool same(const Project& a, const Project& b) { return !difference_of(a, b).any(); }
};

}  // namespace

TEST_F(Steps, APieceThatWasPutAwayComesBackWithItsChanges) {
    auto o = open();
    const auto ids = two_edits(o);
    ASSERT_TRUE(set_touches(o.project, {{ids[0], {"sharpen=0.5"}}}, 4));
    const auto before = o.project;
    o.project.put_away(ids[0]);
    const auto after = o.project;
    // Meanwhile the other one is saved again.
    paint(o.project, ids[1], {10, 200, 10, 255});
    const auto seen = o.project.piece(ids[1])->seen_hash;
    const auto effect = make_step(o.project, after, before);
    EXPECT_EQ(effect.pieces, (std::vector<PieceId>{ids[0]}));
    ASSERT_TRUE(o.project.piece(ids[0]));
    EXPECT_EQ(o.project.pieces[0].id, ids[0]) << "where it was";
    EXPECT_EQ(o.project.piece(ids[0])->touches, before.pieces[0].touches);
    EXPECT_EQ(before.pieces[0].touches.size(), 1u);
    EXPECT_EQ(o.project.piece(ids[1])->seen_hash, seen) << "what went on meanwhile stays";
    make_step(o.project, before, after);
    EXPECT_FALSE(o.project.piece(ids[0]));
    EXPECT_TRUE(std::filesystem::exists(o.project.work() / before.pieces[0].file)) << "its file is the person's";
}

TEST_F(Steps, WhatWasDeliveredMeanwhileStaysOnTheBench) {
    auto o = open();
    const auto before = o.project;
    const auto ids = two_edits(o);
    const auto after = o.project;
    o.project.piece(ids[0])->delivered_hash = o.project.piece(ids[0])->edit();
    const auto effect = make_step(o.project, after, before);
    EXPECT_EQ(effect.pieces, (std::vector<PieceId>{ids[1]}));
    EXPECT_TRUE(o.project.piece(ids[0])) << "the game has it";
    EXPECT_FALSE(o.project.piece(ids[1]));
}

TEST_F(Steps, AnotherPieceInItsPlaceIsNotCovered) {
    auto o = open();
    const auto ids = two_edits(o);
    const auto before = o.project;
    o.project.put_away(ids[0]);
    const auto after = o.project;
    const auto fresh = take(o, {before.pieces[0].address});
    EXPECT_TRUE(make_step(o.project, after, before).pieces.empty());
    EXPECT_TRUE(o.project.piece(fresh[0]));
    EXPECT_EQ(o.project.pieces.size(), 2u);
}

TEST_F(Steps, TouchedPiecesAreToBeFittedAgain) {
    auto o = open();
    const auto ids = two_edits(o);
    o.project.piece(ids[0])->state = PieceState::fits;
    const auto before = o.project;
    ASSERT_TRUE(set_touches(o.project, {{ids[0], {"sharpen=0.5"}}}, 4));
    const auto after = o.project;
    o.project.piece(ids[0])->state = PieceState::fits;
    make_step(o.project, after, before);
    EXPECT_TRUE(o.project.piece(ids[0])->touches.empty());
    EXPECT_EQ(o.project.piece(ids[0])->state, PieceState::changed);
}

TEST_F(Steps, ChangesThatWentWithADeliveryDoNotComeBack) {
    auto o = open();
    const std::vector<EntryChange> first = {{{zip, {"a/one.dds"}}, "a/uno.dds"}}, second = {{{zip, {"a/two.dds"}}, ""}};
    ASSERT_TRUE(o.project.add(first).empty());
    const auto before = o.project;
    ASSERT_TRUE(o.project.add(second).empty());
    const auto after = o.project;
    o.project.changes.clear();  // delivered
    make_step(o.project, after, before);
    EXPECT_TRUE(o.project.changes.empty());
    make_step(o.project, before, after);
    EXPECT_EQ(o.project.changes, second);
}

TEST_F(Steps, AnyNumberOfStepsLeadsBackAndForth) {
    auto o = open();
    const auto ids = two_edits(o);
    std::mt19937 random(18);
    for (int round = 0; round < 20; ++round) {
        std::vector<Project> states = {o.project};
        for (int i = 0; i < 12; ++i) {
            auto& p = o.project;
            switch (random() % 9) {
                case 0: p.roles.push_back({"a/" + std::to_string(random() % 5), "normal"}); break;
                case 1: p.habits.push_back({"suffix", std::to_string(random() % 50), "gloss"}); break;
                case 2: (void)place_source(p, 0, 1); break;
                case 3: p.source_settings[zip].off = !p.source_settings[zip].off; break;
                case 4: p.places.override_folder = std::to_string(random() % 9); break;
                case 5: p.choices.push_back({"*.x" + std::to_string(random() % 9), "zip"}); break;
                case 6: p.searches.push_back({std::to_string(random() % 99), "", {}, {}}); break;
                case 7:
                    if (auto* piece = p.piece(ids[random() % 2])) piece->touches.push_back("sharpen=0.1");
                    break;
                default: p.put_away(ids[random() % 2]); break;
            }
            states.push_back(p);
        }
        auto p = o.project;
        for (std::size_t i = states.size() - 1; i > 0; --i) {
            make_step(p, states[i], states[i - 1]);
            EXPECT_TRUE(same(p, states[i - 1])) << "back to " << i - 1 << " in round " << round;
        }
        for (std::size_t i = 0; i + 1 < states.size(); ++i) {
            make_step(p, states[i], states[i + 1]);
            EXPECT_TRUE(same(p, states[i + 1])) << "on to " << i + 1 << " in round " << round;
        }
        o.project = states.front();
    }
}

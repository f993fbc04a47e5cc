// Ctrl+Z and Ctrl+Shift+Z on what changes the project, and the command finder.
#include <gtest/gtest.h>
#include <filesystem>
#include <QApplication>
#include <QClipboard>
#include <QDialog>
#include <QLineEdit>
#include <QListWidget>
#include <string>
#include <vector>

#include "app/models/preferences.h"
#include "app/widgets/button.h"
#include "app/widgets/fuzzy.h"
#include "support/pictures.h"
#include "ui/window_test.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

struct Undo : WindowTest {
    std::filesystem::path archive(const char* name, unsigned seed) {
        const auto file = folder / name;
        put_file(file, make_zip({{"a/one.dds", make_dds(Format::BC1, 32, 32, 0, seed)},
                                 {"a/two.dds", make_dds(Format::BC1, 32, 32, 0, seed + 1)}}));
        return file;
    }
    void undo() { QTest::keyClick(window.get(), Qt::Key_Z, Qt::ControlModifier); }
    void redo() { QTest::keyClick(window.get(), Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier); }
    const Project& project() { return models.store.project(); }
    bool settled() {
        return wait([&] { return models.sources.ready() && !models.jobs.busy(); });
    }
};

}  // namespace

TEST_F(Undo, ARemovedSourceComesBack) {
    open({archive("one.zip", 1), archive("two.zip", 5)});
    const auto before = project().sources;
    press(Qt::Key_Delete);
    ASSERT_EQ(project().sources.size(), 1u);
    ASSERT_TRUE(settled());
    undo();
    EXPECT_EQ(project().sources, before);
    ASSERT_TRUE(settled());
    EXPECT_EQ(models.sources.snapshot()->sources.size(), 2u) << "it is looked through again";
    redo();
    EXPECT_EQ(project().sources.size(), 1u);
    undo();
    press(Qt::Key_Up);
    QTest::keyClick(window->findChild<QListView*>("sources"), Qt::Key_Down, Qt::AltModifier);
    ASSERT_NE(project().sources, before);
    undo();
    EXPECT_EQ(project().sources, before) << "the order too";
    ASSERT_TRUE(settled());
    EXPECT_EQ(open_project(folder / "project")->sources, before) << "and it is kept";
}

TEST_F(Undo, PutAwayTouchedAndMendedPieces) {
    open({archive("one.zip", 1)});
    models.catalog.take({0, 1}, ExportAs::png);
    ASSERT_TRUE(wait([&] { return project().pieces.size() == 2 && !models.jobs.busy(); }));
    const auto id = project().pieces[0].id;
    models.bench.touch({id}, {"sharpen=0.5"}, false);
    models.bench.put_away(id);
    ASSERT_EQ(project().pieces.size(), 1u);
    const auto* action = window->findChild<QAction*>("window/undo");
    EXPECT_EQ(action->text(), "Undo: Put away");
    undo();
    ASSERT_EQ(project().pieces.size(), 2u);
    EXPECT_EQ(project().pieces[0].id, id);
    EXPECT_EQ(project().pieces[0].touches.size(), 1u);
    undo();
    EXPECT_TRUE(project().piece(id)->touches.empty());
    EXPECT_EQ(action->text(), "Undo: Take to the bench");
    undo();
    EXPECT_TRUE(project().pieces.empty());
    EXPECT_FALSE(action->isEnabled());
    for (int i = 0; i < 3; ++i) redo();
    EXPECT_EQ(project().pieces.size(), 1u);
    ASSERT_TRUE(settled());
}

TEST_F(Undo, ARoleInTheCatalog) {
    open({archive("one.zip", 1)});
    models.catalog.set_role({0}, Role::normal);
    ASSERT_TRUE(wait([&] { return models.catalog.catalog()->analysis.roles[0] == Role::normal; }));
    undo();
    EXPECT_TRUE(wait([&] { return models.catalog.catalog()->analysis.roles[0] != Role::normal; }));
    redo();
    EXPECT_TRUE(wait([&] { return models.catalog.catalog()->analysis.roles[0] == Role::normal; }));
    // A new change: what was undone before it cannot come back.
    undo();
    models.catalog.set_role({1}, Role::mask);
    EXPECT_FALSE(window->findChild<QAction*>("window/redo")->isEnabled());
    ASSERT_TRUE(settled());
}

TEST_F(Undo, WhatGoesByItselfIsNoStep) {
    open({archive("one.zip", 1)});
    models.catalog.take({0}, ExportAs::png);
    ASSERT_TRUE(wait([&] { return project().pieces.size() == 1 && !models.jobs.busy(); }));
    models.delivery.refresh();
    ASSERT_TRUE(settled());
    EXPECT_EQ(models.store.undo_title(), "Take to the bench");
    models.delivery.set_destination(Destination::into_archives);
    EXPECT_EQ(models.store.undo_title(), "Take to the bench") << "nothing changed";
}

TEST_F(Undo, SettingsOfTheProjectAreTakenBack) {
    open({archive("one.zip", 1)});
    window->open_settings(SettingsPart::editors);
    auto* settings = window->findChild<QDialog*>("settings");
    ASSERT_TRUE(settings);
    settings->findChild<QLineEdit*>("editor")->setText("paint {file}");
    QTest::mouseClick(settings->findChild<QPushButton*>("keep_settings"), Qt::LeftButton);
    ASSERT_TRUE(wait([] { return QApplication::activeModalWidget() == nullptr; }));
    EXPECT_EQ(project().editor, (std::vector<std::string>{"paint", "{file}"}));
    EXPECT_EQ(models.store.undo_title(), "Settings of the project");
    undo();
    EXPECT_TRUE(project().editor.empty());
    redo();
    EXPECT_EQ(project().editor.size(), 2u);
}

TEST(Fuzzy, LettersInTheirOrderFindTheBestName) {
    const QStringList names = {
        "Take to the bench", "Take to the bench as DDS", "Take the whole set to the bench", "Take out of the game", "Touch up",
        "Next match"};
    const auto best = [&](const char* typed) {
        QString out;
        int most = -1'000'000;
        for (const auto& name : names)
            if (const auto score = fuzzy_score(name, QString::fromUtf8(typed)); score && *score > most) most = *score, out = name;
        return out;
    };
    EXPECT_EQ(best("ttb"), "Take to the bench");
    EXPECT_EQ(best("dds"), "Take to the bench as DDS");
    EXPECT_EQ(best("whole"), "Take the whole set to the bench");
    EXPECT_EQ(best("tu"), "Touch up");
    EXPECT_EQ(best("TOUCH"), "Touch up");
    EXPECT_EQ(best("take game"), "Take out of the game");
    EXPECT_EQ(best("zzz"), "");
    EXPECT_EQ(fuzzy_score("", "a"), std::nullopt);
    EXPECT_EQ(fuzzy_score("anything", ""), 0);
    // Letters in another order do not find it.
    EXPECT_EQ(fuzzy_score("bench", "hc"), std::nullopt);
}

TEST_F(Undo, TheFinderTakesLooseLettersAndRemembers) {
    open({archive("one.zip", 1)});
    const auto find = [&](const QString& typed) -> QDialog* {
        window->activateWindow();
        (void)wait([&] { return window->isActiveWindow(); });
        QTest::keyClick(window.get(), Qt::Key_K, Qt::ControlModifier);
        auto* finder = window->findChild<QDialog*>("finder");
        if (!finder) return nullptr;
        auto* field = finder->findChild<QLineEdit*>();
        EXPECT_TRUE(wait([&] { return field->hasFocus(); }));  // keys go to what is in front
        field->setText(typed);
        return finder;
    };
    auto* finder = find("gtbe");
    ASSERT_TRUE(finder);
    EXPECT_EQ(finder->findChild<QListWidget*>()->item(0)->text(), "Go to Bench");
    QTest::keyClick(finder->findChild<QLineEdit*>(), Qt::Key_Return);
    ASSERT_TRUE(wait([&] { return window->current() == PageId::bench && !window->findChild<QDialog*>("finder"); }));
    EXPECT_EQ(Preferences::the().settings().recent_commands, (std::vector<std::string>{"window/page-3"}));
    finder = find("");
    ASSERT_TRUE(finder);
    EXPECT_EQ(finder->findChild<QListWidget*>()->item(0)->text(), "Go to Bench") << "what was used last comes first";
    finder->reject();
    Preferences::the().change([](Settings& s) { s = {}; });
}

TEST_F(Undo, TheLogIsKeptAndWhatWentWrongIsCopiedByOnePress) {
    const auto file = folder / "state/log.txt";
    Messages::keep_in(file);
    open({archive("one.zip", 1)});
    const Error wrong{ErrorCode::damaged, "needs 5,592 bytes, has 4,096", {"crate", "entry 14"}, std::nullopt, "Look again"};
    models.messages.complain(wrong);
    Button* copy = nullptr;
    for (auto* button : window->findChildren<Button*>())
        if (button->text() == "Copy") copy = button;
    ASSERT_TRUE(copy);
    EXPECT_TRUE(copy->isVisible());
    const auto footer_says = [&](const QString& text) -> const QLabel* {
        for (const auto* label : window->findChildren<QLabel*>())
            if (label->isVisible() && label->text() == text) return label;
        return nullptr;
    };
    const auto* said = footer_says(QString::fromStdString(wrong.message()));
    ASSERT_TRUE(said);
    EXPECT_TRUE(said->property("wrong").toBool());
    copy->click();
    EXPECT_EQ(QApplication::clipboard()->text().toStdString(), wrong.message());
    // Good news is not in the color of what is wrong.
    models.messages.tell("All is well.");
    EXPECT_FALSE(copy->isVisible());
    EXPECT_EQ(footer_says("All is well."), said);
    EXPECT_FALSE(said->property("wrong").toBool());
    EXPECT_TRUE(said->property("news").toBool());
    models.messages.refuse("There is no such program.");
    EXPECT_TRUE(said->property("wrong").toBool());
    EXPECT_TRUE(copy->isVisible());
    EXPECT_TRUE(models.messages.log().back().endsWith("There is no such program."));
    Messages::flush();
    EXPECT_NE(std::string(as_text(get_file(file))).find("entry 14"), std::string::npos);
    QTest::keyClick(window.get(), Qt::Key_L, Qt::ControlModifier);
    auto* log = window->findChild<QDialog*>("log");
    ASSERT_TRUE(log);
    log->findChild<QPushButton*>("copy_log")->click();
    EXPECT_TRUE(QApplication::clipboard()->text().contains("entry 14"));
    log->reject();
    // It does not grow without bound.
    put_file(file, Bytes(std::size_t{2} << 20));
    models.messages.say("after a megabyte");
    Messages::flush();
    EXPECT_LT(std::filesystem::file_size(file), 1000u);
    EXPECT_TRUE(std::filesystem::exists(file.string() + ".1"));
    Messages::keep_in({});
}

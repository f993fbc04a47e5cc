// Other ways than into the archives, and the game beside: where a card is is said in the settings, its files are the game's, and a
// texture changes in the running game.
#include <gtest/gtest.h>
#include <filesystem>
#include <fstream>
#include <QComboBox>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>

#include "app/pages/delivery_page.h"
#include "base/hash.h"
#include "support/places.h"
#include "ui/trip.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

struct WaysPage : Trip {
    bool says(const QString& text) {
        for (const auto* label : window->findChildren<QLabel*>())
            if (label->isVisible() && label->text().contains(text)) return true;
        return false;
    }
    template <class Widget>
    Widget* in_settings(const char* name) {
        auto* dialog = window->findChild<QDialog*>("settings");
        return dialog ? dialog->findChild<Widget*>(name) : nullptr;
    }
    void keep_settings() {
        QTest::mouseClick(in_settings<QPushButton>("keep_settings"), Qt::LeftButton);
        ASSERT_TRUE(wait([&] { return !window->findChild<QDialog*>("settings"); }));
        window->activateWindow();
        ASSERT_TRUE(QTest::qWaitForWindowActive(window.get()));
    }
    bool planned() {
        return wait([&] { return models.delivery.plan() && !models.jobs.busy(); });
    }
};

}  // namespace

TEST_F(WaysPage, ACardIsNamedInTheSettingsAndGetsTheGamesFile) {
    const auto card = folder / "card";
    std::filesystem::create_directories(card);
    const auto before = hash_of_file(game / "midway.zip");
    paint_the_target();
    press(Qt::Key_5, Qt::ControlModifier);
    ASSERT_TRUE(planned());
    press(Qt::Key_D);
    ASSERT_TRUE(wait([&] { return says("No card or device is chosen yet"); }));
    ASSERT_TRUE(wait([&] { return says("no card or device is known"); }));
    press(Qt::Key_W);
    ASSERT_TRUE(wait([&] { return in_settings<QLineEdit>("device_folder") != nullptr; }));
    in_settings<QLineEdit>("device_folder")->setText("not/a/whole/path");
    in_settings<QLineEdit>("device_layout")->setText("mods/{path}");
    QTest::mouseClick(in_settings<QPushButton>("keep_settings"), Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return says("must be a whole path"); })) << "what is wrong is said where it is written";
    in_settings<QLineEdit>("device_folder")->setText(QString::fromStdString(card.string()));
    keep_settings();
    ASSERT_TRUE(wait([&] { return says("A new file of") && says("mods/midway.zip"); }));
    EXPECT_TRUE(says("the game's files, whole, as mods/{path}"));
    press(Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return piece().state == PieceState::delivered && !models.jobs.busy(); }));
    EXPECT_EQ(hash_of_file(game / "midway.zip"), before);
    const auto shot = [&] {
        const auto ran =
            run_program({our_program("fair-stall"), game.string(), "--card", card.string(), "--shot", (folder / "shot.png").string()});
        EXPECT_EQ(ran.code, 0) << ran.output;
        return *read_png(get_file(folder / "shot.png"), ReadLimits{});
    };
    EXPECT_TRUE(shows_the_line(shot())) << "the game finds it on the card";
    EXPECT_FALSE(shows_the_line(game_picture())) << "and not without the card";
    models.delivery.undo(models.store.history().back().id);
    ASSERT_TRUE(wait([&] { return waits(piece().state) && !models.jobs.busy(); }));
    EXPECT_TRUE(std::filesystem::is_empty(card));
}

TEST_F(WaysPage, TheRunningGameShowsADeliveryAndItsLogIsBeside) {
    paint_the_target();
    models.store.change([&](Project& p) {
        p.play.environment = {"QT_QPA_PLATFORM=offscreen"};
        p.play.log = "logs/game.log";
    });
    std::filesystem::create_directories(game / "logs");
    put_file(game / "logs/game.log", as_bytes("of yesterday\n"));
    press(Qt::Key_5, Qt::ControlModifier);
    ASSERT_TRUE(planned());
    auto* log = window->findChild<QPlainTextEdit*>("game_log");
    ASSERT_TRUE(log);
    EXPECT_FALSE(log->isVisible()) << "nothing to be seen of a game that was not started";
    press(Qt::Key_F5);
    ASSERT_TRUE(wait([&] { return log->isVisible() && log->toPlainText().contains("weathered/nail.dds is damaged"); }));
    EXPECT_TRUE(says("running since"));
    {
        std::ofstream out(game / "logs/game.log", std::ios::app);
        out << "\x1b[31mlow on lemonade\x1b[0m\n";
    }
    ASSERT_TRUE(wait([&] { return log->toPlainText().contains("low on lemonade"); }));
    EXPECT_FALSE(log->toPlainText().contains("of yesterday"));
    EXPECT_FALSE(log->toPlainText().contains("[31m"));
    press(Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return log->toPlainText().contains("the files changed; read again"); })) << log->toPlainText().toStdString();
    auto* stop = window->findChild<QPushButton*>("stop_game");
    QTest::mouseClick(stop, Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return !models.game.running(); }));
    EXPECT_TRUE(says("ended"));
    EXPECT_FALSE(stop->isVisible());
}

TEST_F(WaysPage, AGameThatPrintsWithoutEndHoldsNothingUp) {
    models.store.change([&](Project& p) {
        p.play = {{"sh", "-c", "i=0; while [ $i -lt 60000 ]; do echo line $i of many; i=$((i+1)); done"}, {}, {}, {}};
    });
    press(Qt::Key_5, Qt::ControlModifier);
    press(Qt::Key_F5);
    ASSERT_TRUE(wait([&] { return models.game.state() == "ended"; }));
    EXPECT_LE(models.game.lines().size(), 2000);
    EXPECT_EQ(models.game.lines().back(), "line 59999 of many");
    // One that is not there, and one that fails, say so.
    models.store.change([&](Project& p) { p.play.command = {"sh", "-c", "exit 3"}; });
    press(Qt::Key_F5);
    ASSERT_TRUE(wait([&] { return says("ended with code 3"); }));
    models.store.change([&](Project& p) { p.play.command.clear(); });
    press(Qt::Key_F5);
    ASSERT_TRUE(wait([&] { return in_settings<QLineEdit>("play") != nullptr; })) << "what is missing is asked for";
    window->findChild<QDialog*>("settings")->reject();
}

// The person's games: the start page, one process, projects in passing, and windows that change their project.
#include <QContextMenuEvent>
#include <QInputDialog>
#include <QLocalSocket>
#include <QMenuBar>
#include <QMessageBox>
#include <QStackedWidget>
#include <thread>

#include "app/models/left_state.h"
#include "app/models/models.h"
#include "app/models/preferences.h"
#include "app/open_windows.h"
#include "app/pages/page_list.h"
#include "app/start_page.h"
#include "app/workspace.h"
#include "base/file_write.h"
#include "support/pictures.h"
#include "support/temp_folder.h"

#include <gtest/gtest.h>
#include <filesystem>
#include <QtTest>
#include <vector>

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace fs = std::filesystem;

namespace {

struct Start : testing::Test {
    TempFolder folder;
    std::optional<GamesModel> games;
    std::optional<OpenWindows> windows;

    void SetUp() override {
        for (const char* name : {"XDG_DATA_HOME", "XDG_STATE_HOME", "XDG_CACHE_HOME"}) qputenv(name, (folder / "home").c_str());
        for (const char* name : {"one", "two"}) {
            const auto place = folder / "games" / name;
            put_file(place / "art.zip", make_zip({{"a/horse.dds", make_dds(Format::BC1, 64, 64, 0, name[0])},
                                                  {"a/swan.dds", make_dds(Format::BC1, 32, 32, 0, name[1])}}));
        }
        games.emplace(GameList(folder / "home/skivet/games", folder / "home/skivet/projects"));
        windows.emplace(*games);
        windows->size = {1100, 760};
    }
    void TearDown() override {
        windows.reset();
        games.reset();
        for (const char* name : {"XDG_DATA_HOME", "XDG_STATE_HOME", "XDG_CACHE_HOME"}) qunsetenv(name);
        Preferences::the().change([](Settings& s) { s = {}; });
    }
    static bool wait(const std::function<bool()>& until) { return QTest::qWaitFor(until, 30'000); }
    [[nodiscard]] fs::path game(const char* name) const { return folder / "games" / name; }
    /// Opens a game's project and waits for its catalog.
    MainWindow* open(const char* name) {
        auto* window = windows->answer({{}, game(name), {}, {}});
        EXPECT_TRUE(is_open(window));
        return window;
    }
    static bool is_open(MainWindow* window) {
        return wait([window] { return window->models() && window->models()->sources.ready() && !window->models()->jobs.busy(); });
    }
    /// Back to the start page, until the cards say what they know.
    static bool to_start(MainWindow* window) {
        QTest::keyClick(window->workspace(), Qt::Key_Home, Qt::AltModifier);
        return wait([window] { return !window->workspace(); });
    }
    /// Until the list shows games of these names, in this order.
    bool shows(MainWindow* window, const QStringList& names) {
        return wait([&] {
            QStringList there;
            auto* rows = window->start_page()->list()->model();
            for (int i = 0; i < rows->rowCount(); ++i) there << rows->index(i, 0).data().toString();
            return there == names;
        });
    }
    static QString card(MainWindow* window, int row) {
        return window->start_page()->list()->model()->index(row, 0).data(Qt::AccessibleTextRole).toString();
    }
};

/// Everything a person can do, with its key where it has one.
QStringList texts(const QMenu* menu) {
    QStringList out;
    for (auto* action : menu->actions()) {
        if (action->menu()) out << texts(action->menu());
        else if (!action->isSeparator()) out << action->text();
    }
    return out;
}

}  // namespace

TEST_F(Start, ASecondGameHasAProjectOfItsOwn) {
    auto* first = open("one");
    const auto project = first->project();
    const auto kept = get_file(project / "project.json");
    auto* second = windows->answer({{}, game("two"), {}, {}});
    EXPECT_NE(first, second) << "what is open stays open";
    ASSERT_TRUE(is_open(second));
    EXPECT_NE(second->project(), project);
    EXPECT_EQ(second->models()->store.project().sources, (std::vector<fs::path>{game("two") / "art.zip"}));
    EXPECT_EQ(first->models()->store.project().sources, (std::vector<fs::path>{game("one") / "art.zip"}));
    EXPECT_EQ(get_file(project / "project.json"), kept);
    EXPECT_EQ(windows->answer({{}, game("one"), {}, {}}), first) << "it is open already";
    EXPECT_EQ(windows->all().size(), 2u);
}

TEST_F(Start, GamesAreChangedInOneWindow) {
    auto* window = open("one");
    const auto one = window->project();
    ASSERT_TRUE(to_start(window));
    ASSERT_TRUE(shows(window, {"one"}));
    EXPECT_TRUE(window->start_page()->isVisible());
    ASSERT_EQ(windows->answer({{}, game("two"), {}, {}}), window) << "a window without a project takes it";
    ASSERT_TRUE(is_open(window));
    EXPECT_EQ(window->windowTitle(), "two");
    ASSERT_TRUE(to_start(window));
    ASSERT_TRUE(shows(window, {"two", "one"})) << "the last one first";
    QTest::keyClick(window->start_page()->list(), Qt::Key_Down);
    QTest::keyClick(window->start_page()->list(), Qt::Key_Right);
    QTest::keyClick(window->start_page()->list(), Qt::Key_Return);
    ASSERT_TRUE(is_open(window));
    EXPECT_EQ(window->project(), one);
    EXPECT_EQ(window->models()->store.project().name, "one");
}

TEST_F(Start, TheLastOneOpensByItself) {
    (void)open("one");
    (void)open("two");
    windows.reset();
    windows.emplace(*games);
    auto* window = windows->answer({}, true);
    ASSERT_TRUE(is_open(window));
    EXPECT_EQ(window->models()->store.project().name, "two");
    EXPECT_EQ(windows->answer({}), window) << "a later start brings it to the front";
}

TEST_F(Start, WithoutAGameThereIsAWayToOne) {
    auto* window = windows->answer({}, true);
    EXPECT_FALSE(window->workspace());
    ASSERT_TRUE(wait([&] { return games->known(); }));
    QStringList buttons;
    for (auto* button : window->start_page()->findChildren<Button*>())
        if (button->isVisible()) buttons << button->text();
    EXPECT_TRUE(buttons.contains("New game…"));
    EXPECT_TRUE(buttons.contains("Try the demo game"));
}

TEST_F(Start, ACardSaysWhatBecameOfTheGame) {
    auto* window = open("one");
    auto& models = *window->models();
    models.catalog.take({0}, ExportAs::png);
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 1 && models.bench.pieces()[0].state == PieceState::out; }));
    ASSERT_TRUE(to_start(window));
    ASSERT_TRUE(wait([&] { return card(window, 0).contains("1 out"); }));
    EXPECT_TRUE(card(window, 0).contains("today"));
    EXPECT_TRUE(wait([&] { return !games->games()[0].picture.isNull(); })) << "kept on leaving";
    EXPECT_FALSE(card(window, 0).contains("changed"));
    put_file(game("one") / "art.zip", make_zip({{"a/horse.dds", make_dds(Format::BC1, 64, 64, 0, 99)}}));
    games->refresh();
    EXPECT_TRUE(wait([&] { return card(window, 0).contains("the game's files changed"); }));
    fs::rename(game("one"), folder / "away");
    games->refresh();
    EXPECT_TRUE(wait([&] { return card(window, 0).contains("the game is not there"); }));
}

TEST_F(Start, RenamedAndTakenOffTheListByKeyboard) {
    auto* window = open("one");
    const auto project = window->project();
    ASSERT_TRUE(to_start(window));
    ASSERT_TRUE(shows(window, {"one"}));
    QTest::keyClick(window->start_page()->list(), Qt::Key_F2);
    auto* ask = window->start_page()->findChild<QInputDialog*>("rename_game");
    ASSERT_TRUE(ask);
    ask->setTextValue("  Carousel ");
    ask->accept();
    ASSERT_TRUE(shows(window, {"Carousel"}));
    window->activateWindow();
    ASSERT_TRUE(wait([&] { return window->isActiveWindow(); }));
    QTest::keyClick(window->start_page()->list(), Qt::Key_Delete);
    ASSERT_TRUE(shows(window, {}));
    EXPECT_TRUE(fs::exists(project / "project.json"));
    ASSERT_EQ(windows->answer({project, {}, {}, {}}), window);
    ASSERT_TRUE(is_open(window));
    EXPECT_EQ(window->models()->store.project().name, "Carousel");
    ASSERT_TRUE(to_start(window));
    EXPECT_TRUE(shows(window, {"Carousel"})) << "what is opened again is in the list again";
}

TEST_F(Start, AFileWithoutAProjectIsLookedAtInPassing) {
    const auto file = folder / "stray.dds";
    put_file(file, make_dds(Format::BC1, 64, 64));
    auto* window = windows->answer({{}, {}, {file}, {}}, true);
    ASSERT_TRUE(is_open(window));
    EXPECT_EQ(window->models()->store.project().sources, (std::vector<fs::path>{file}));
    const auto passing = window->project();
    EXPECT_TRUE(is_passing(passing));
    ASSERT_TRUE(to_start(window));
    EXPECT_TRUE(wait([&] { return !fs::exists(passing); })) << "nothing was done in it";
    EXPECT_TRUE(shows(window, {}));
    // The same again, and kept.
    ASSERT_EQ(windows->answer({{}, {}, {file}, {}}), window);
    ASSERT_TRUE(is_open(window));
    QTest::keyClick(window->workspace(), Qt::Key_S, Qt::ControlModifier);
    EXPECT_TRUE(wait([&] { return !is_passing(window->project()) && !window->models()->jobs.busy(); }));
    ASSERT_TRUE(to_start(window));
    EXPECT_TRUE(shows(window, {"stray"}));
}

TEST_F(Start, AFileOfAnOpenGameGoesToItsWindow) {
    auto* window = open("one");
    put_file(game("one") / "more.zip", make_zip({{"b.dds", make_dds(Format::BC1, 16, 16)}}));
    const auto stray = folder / "stray.zip";
    put_file(stray, make_zip({{"b.dds", make_dds(Format::BC1, 16, 16)}}));
    EXPECT_EQ(windows->answer({{}, {}, {game("one") / "more.zip"}, {}}), window);
    EXPECT_EQ(window->models()->store.project().sources.size(), 2u);
    auto* other = windows->answer({{}, {}, {stray}, {}});
    EXPECT_NE(other, window) << "a stray file is no source of the game";
    EXPECT_EQ(window->models()->store.project().sources.size(), 2u);
    ASSERT_TRUE(is_open(other));
}

TEST_F(Start, ADamagedProjectLeadsBackToTheGames) {
    put_file(folder / "bad/project.json", as_bytes("{"));
    auto* window = windows->answer({folder / "bad", {}, {}, {}});
    QMessageBox* box = nullptr;
    ASSERT_TRUE(wait([&] { return (box = window->findChild<QMessageBox*>("project_refused")) != nullptr; }));
    box->buttons().last()->click();
    EXPECT_TRUE(wait([&] { return !window->workspace(); }));
}

TEST_F(Start, LeavingWhileArchivesAreLookedThroughLeavesNothingBehind) {
    for (int i = 0; i < 5; ++i) {
        auto* window = windows->answer({{}, game(i % 2 ? "one" : "two"), {}, {}});
        QTest::qWait(i * 7);
        window->show_start();
    }
    ASSERT_EQ(windows->all().size(), 1u);
    // Each lock is free again, and what was left can be worked on.
    for (const auto& item : fs::directory_iterator(games->list().projects()))
        EXPECT_TRUE(wait([&] { return FileLock::take(item.path() / "project.lock", true).has_value(); })) << item.path();
    for (const char* name : {"one", "two"}) {
        auto* window = open(name);
        EXPECT_EQ(window->models()->store.project().sources.size(), 1u);
        window->show_start();
    }
}

TEST_F(Start, MenusHaveEveryActionOfThePage) {
    auto* window = open("one");
    for (const auto& row : page_list()) {
        window->workspace()->go_to(row.id);
        QMenu* menu = nullptr;
        for (auto* action : window->menuBar()->actions())
            if (action->text() == row.title_text()) menu = action->menu();
        ASSERT_TRUE(menu) << row.title;
        emit menu->aboutToShow();
        const auto there = texts(menu);
        for (const auto* action : window->workspace()->current_page()->actions())
            if (action->isVisible()) EXPECT_TRUE(there.contains(action->text())) << action->text().toStdString() << " on " << row.title;
    }
    QStringList all;
    for (auto* action : window->menuBar()->actions()) {
        emit action->menu()->aboutToShow();
        all << texts(action->menu());
    }
    for (const char* text : {"All games", "New game…", "Settings…", "Quit", "Try in game", "Go to Catalog", "Log", "About Skivet"})
        EXPECT_TRUE(all.contains(QString::fromUtf8(text))) << text;
}

TEST_F(Start, EveryActionHasANameAndNoTwoOfAPageShareAKey) {
    auto* window = open("one");
    std::set<QString> ids;
    for (auto* page : window->workspace()->all_pages()) {
        std::map<QString, QString> keys;
        QList<QAction*> all = page->actions();
        all += window->workspace()->actions();
        all += window->actions();
        for (const auto* action : all) {
            EXPECT_FALSE(action->objectName().isEmpty()) << action->text().toStdString();
            if (action->shortcut().isEmpty()) continue;
            const auto [there, fresh] = keys.emplace(action->shortcut().toString(), action->objectName());
            EXPECT_TRUE(fresh) << action->shortcut().toString().toStdString() << ": " << there->second.toStdString() << " and "
                               << action->objectName().toStdString();
        }
        for (const auto* action : page->actions())
            EXPECT_TRUE(ids.insert(action->objectName()).second) << action->objectName().toStdString();
    }
    // Common practice: these mean the same in every program, or nothing.
    const std::map<QString, QString> standard = {{"Ctrl+S", "window/save"},
                                                 {"Ctrl+N", "window/new-game"},
                                                 {"Ctrl+O", "window/open-a-project"},
                                                 {"Ctrl+Z", "window/undo"},
                                                 {"Ctrl+Shift+Z", "window/redo"}};
    for (auto* page : window->workspace()->all_pages()) {
        QList<QAction*> all = page->actions();
        all += window->workspace()->actions();
        all += window->actions();
        for (const char* key : {"Ctrl+S", "Ctrl+N", "Ctrl+O", "Ctrl+P", "Ctrl+Z", "Ctrl+Shift+Z", "Ctrl+H"})
            for (const auto* action : all) {
                if (action->shortcut() != QKeySequence(QLatin1String(key))) continue;
                const auto meant = standard.find(QLatin1String(key));
                EXPECT_TRUE(meant != standard.end() && meant->second == action->objectName())
                    << key << " is " << action->text().toStdString();
            }
    }
}

TEST_F(Start, KeysCanBeChanged) {
    auto* window = open("one");
    auto* action = window->workspace()->findChild<QAction*>("window/log");
    ASSERT_TRUE(action);
    EXPECT_EQ(action->shortcut(), QKeySequence("Ctrl+L"));
    Preferences::the().change([](Settings& s) { s.keys["window/log"] = "Ctrl+Shift+L"; });
    EXPECT_EQ(action->shortcut(), QKeySequence("Ctrl+Shift+L"));
    Preferences::the().change([](Settings& s) { s.keys["window/log"] = ""; });
    EXPECT_TRUE(action->shortcut().isEmpty());
    Preferences::the().change([](Settings& s) { s.keys.clear(); });
    EXPECT_EQ(action->shortcut(), QKeySequence("Ctrl+L"));
}

TEST_F(Start, TheMenuBarCanBeHiddenAndAltShowsIt) {
    auto* window = open("one");
    EXPECT_TRUE(window->menuBar()->isVisible());
    QTest::keyClick(window->workspace(), Qt::Key_M, Qt::ControlModifier);
    EXPECT_FALSE(window->menuBar()->isVisible());
    QTest::keyPress(window, Qt::Key_Alt);
    QTest::keyRelease(window, Qt::Key_Alt);
    EXPECT_TRUE(window->menuBar()->isVisible());
    QTest::keyPress(window, Qt::Key_Alt);
    QTest::keyRelease(window, Qt::Key_Alt);
    EXPECT_FALSE(window->menuBar()->isVisible());
    QTest::keyClick(window, Qt::Key_R, Qt::AltModifier);
    EXPECT_FALSE(window->menuBar()->isVisible()) << "Alt was for another key";
    QTest::keyClick(window, Qt::Key_F10);
    EXPECT_TRUE(window->menuBar()->isVisible());
    QTest::keyClick(window->menuBar(), Qt::Key_Escape);
}

TEST_F(Start, AContextMenuHasWhatCanBeDone) {
    auto* window = open("one");
    auto* page = window->workspace()->current_page();
    QContextMenuEvent event(QContextMenuEvent::Keyboard, QPoint(20, 20), page->mapToGlobal(QPoint(20, 20)));
    QApplication::sendEvent(page, &event);
    auto* menu = page->findChild<QMenu*>("page_menu");
    ASSERT_TRUE(menu && menu->isVisible());
    const auto there = texts(menu);
    for (const auto* action : page->actions())
        EXPECT_EQ(there.contains(action->text()), action->isEnabled() && action->isVisible()) << action->text().toStdString();
    menu->close();
}

TEST_F(Start, ALaterStartHandsOverWhatItWasAskedFor) {
    Instance instance(folder / "run");
    ASSERT_TRUE(instance.listens());
    EXPECT_FALSE(Instance(folder / "run").listens()) << "there is one already";
    std::vector<StartRequest> got;
    QObject::connect(&instance, &Instance::asked, [&](const StartRequest& request) { got.push_back(request); });
    const StartRequest asked{folder / "project", game("one"), {"/a b.zip", "/ü\n\xff.zip"}, {"game", "--fast"}};
    bool handed = false, none = true;
    std::thread later([&] {
        handed = Instance::hand_over(folder / "run", asked) && Instance::hand_over(folder / "run", {});
        none = Instance::hand_over(folder / "nobody", asked);
    });
    ASSERT_TRUE(wait([&] { return got.size() == 2; }));
    later.join();
    EXPECT_TRUE(handed);
    EXPECT_FALSE(none);
    EXPECT_EQ(got[0], asked);
    EXPECT_EQ(got[1], StartRequest());
}

TEST_F(Start, WhatIsNoRequestIsNotAnswered) {
    for (const QByteArray& bytes : {QByteArray(), QByteArray("\0\0\0\4abcd", 8), QByteArray(1000, '\xff'), QByteArray(1000, '\0')})
        EXPECT_FALSE(request_from(bytes));
    const auto whole = to_bytes({folder / "project", {}, {"/a"}, {"b"}});
    for (qsizetype cut = 0; cut < whole.size(); ++cut) EXPECT_FALSE(request_from(whole.left(cut)));
    Instance instance(folder / "run");
    int asked = 0;
    QObject::connect(&instance, &Instance::asked, [&] { ++asked; });
    QLocalSocket socket;
    socket.connectToServer(QString::fromStdString((folder / "run/skivet.socket").string()));
    ASSERT_TRUE(socket.waitForConnected(2000));
    socket.write(QByteArray(5 << 20, '\xff'));
    EXPECT_TRUE(wait([&] { return socket.state() == QLocalSocket::UnconnectedState; })) << "it does not collect without bound";
    EXPECT_EQ(asked, 0);
}

TEST_F(Start, OfSeveralGamesOneIsAskedForAParcel) {
    auto* one = open("one");
    auto* two = windows->answer({{}, game("two"), {}, {}});
    ASSERT_TRUE(is_open(two));
    if (one == two) GTEST_SKIP() << "one window was used again";
    // What makes it one is its first entry; whether it is sound is said once it is read.
    put_file(folder / "stars.parcel", make_zip({{"parcel.json", Bytes()}}));
    windows->answer({{}, {}, {folder / "stars.parcel"}, {}});
    QMessageBox* box = nullptr;
    for (auto* window : windows->all())
        if (auto* found = window->findChild<QMessageBox*>("which_game")) box = found;
    ASSERT_TRUE(box);
    ASSERT_EQ(box->buttons().size(), 3) << "two games, and not at all";
    for (auto* button : box->buttons())
        if (button->text() == QString::fromStdString(one->models()->store.project().name)) QTest::mouseClick(button, Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return one->findChild<QWidget*>("parcels") != nullptr; }));
    EXPECT_EQ(two->findChild<QWidget*>("parcels"), nullptr);
}

TEST_F(Start, TheWindowComesBackAsLargeAsItWas) {
    LeftState::the().load(folder / "left.json");
    windows->size = {};
    auto* window = windows->answer({}, true);
    const auto free = window->screen()->availableGeometry();
    EXPECT_TRUE(free.contains(window->geometry()))
        << free.width() << " x " << free.height() << window->width() << " x " << window->height() << " at " << window->x() << ", "
        << window->y() << ": footer and progress are on the screen";
    const auto wanted = QSize(1030, 705).boundedTo(window->size());
    window->resize(wanted);
    window->close();
    ASSERT_TRUE(wait([&] { return windows->all().empty(); }));
    EXPECT_EQ(windows->answer({})->size(), wanted);
    LeftState::the().load({});
}

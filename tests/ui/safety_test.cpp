// What a window must ask before it does it, and where it must write nothing.
#include <QMessageBox>
#include <QPushButton>
#include <QSignalSpy>
#include <QStackedWidget>

#include <fmt/format.h>
#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <thread>
#include <vector>

#include "app/pages/delivery_page.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"
#include "texture/png.h"
#include "tour/tour.h"
#include "ui/window_test.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

struct SafetyUi : WindowTest {
    std::filesystem::path archive() {
        const auto file = folder / "game.zip";
        put_file(file, make_zip({{"a/one.dds", make_dds(Format::BC1, 32, 32, 0, 1)}, {"a/two.dds", make_dds(Format::BC1, 32, 32, 0, 2)}}));
        return file;
    }
    /// A window that answers for itself; the models of the fixture stay what they are.
    struct Second {
        Models models;
        Workspace window{models};
        QString refused;
        bool good_copy = false;
        Second(const std::filesystem::path& project, const std::filesystem::path& game = {}) {
            QObject::connect(&models.store, &ProjectStore::refused,
                             [this](const QString& why, bool copy) { refused = why, good_copy = copy; });
            models.store.open({project, game, {}, {}});
            window.show();
        }
    };
    QMessageBox* box(const char* name) {
        QMessageBox* found = nullptr;
        (void)wait([&] {
            for (auto* widget : QApplication::topLevelWidgets())
                if (auto* one = qobject_cast<QMessageBox*>(widget); one && one->objectName() == QLatin1String(name) && one->isVisible())
                    found = one;
            return found != nullptr;
        });
        return found;
    }
    static void press_button(QMessageBox* box, const QString& text) {
        for (auto* button : box->buttons())
            if (button->text() == text) return button->click();
        FAIL() << text.toStdString();
    }
    void deliver_directly(const char* title) {
        PosixFiles files;
        Vault vault(models.store.project().vault(), files);
        const auto zip = models.store.project().sources[0];
        static unsigned seed = 40;
        const auto plan = plan_replacement(*models.store.context(), {zip, {"a/one.dds"}}, make_dds(Format::BC1, 32, 32, 0, ++seed));
        ASSERT_TRUE(vault.deliver(*plan, {title, zip, {"a/one.dds"}}, 1000 + seed));
    }
};

}  // namespace

TEST_F(SafetyUi, ASecondWindowOnTheProjectChangesNothing) {
    open({archive()});
    models.store.change([](Project& p) { p.editor = {"paint"}; });
    ASSERT_TRUE(
        wait([&] { return get_file(folder / "project/project.json").size() > 0 && open_project(folder / "project")->editor.size() == 1; }));
    const auto kept = get_file(folder / "project/project.json");
    Second second(folder / "project");
    ASSERT_TRUE(wait([&] { return !second.refused.isEmpty(); }));
    EXPECT_TRUE(second.refused.contains("is open in another window")) << second.refused.toStdString();
    EXPECT_FALSE(second.models.store.is_open());
    second.models.sources.add(folder / "game.zip");
    second.models.store.change([](Project& p) { p.editor = {"other"}; });
    QTest::qWait(50);  // nothing may come
    EXPECT_EQ(get_file(folder / "project/project.json"), kept);
    EXPECT_TRUE(second.models.store.project().sources.empty());
}

TEST_F(SafetyUi, AnotherGameDoesNotGetThisOnesProject) {
    std::filesystem::create_directories(folder / "one");
    std::filesystem::create_directories(folder / "two");
    put_file(folder / "one/a.zip", make_zip({{"x.dds", make_dds(Format::BC1, 16, 16)}}));
    put_file(folder / "two/b.zip", make_zip({{"y.dds", make_dds(Format::BC1, 16, 16)}}));
    models.store.open({folder / "project", folder / "one", {}, {}});
    ASSERT_TRUE(wait([&] { return models.sources.ready() && !models.jobs.busy(); }));
    models.store.close();
    Second second(folder / "project", folder / "two");
    ASSERT_TRUE(wait([&] { return !second.refused.isEmpty(); }));
    EXPECT_TRUE(second.refused.contains("is about the game in")) << second.refused.toStdString();
    EXPECT_EQ(open_project(folder / "project")->game, folder / "one");
    Second again(folder / "project", folder / "one");
    ASSERT_TRUE(wait([&] { return again.models.sources.ready(); }));
    EXPECT_EQ(again.models.store.project().sources.size(), 1u);
}

TEST_F(SafetyUi, AProjectThatCannotBeReadOffersItsLastGoodCopy) {
    open({archive()});
    models.store.close();
    ASSERT_TRUE(wait([&] { return !models.jobs.busy() && lock_project(folder / "project").has_value(); }));
    window.reset();
    {  // opened once more, so that there is a good copy with the source in it
        Second once(folder / "project");
        ASSERT_TRUE(wait([&] { return once.models.sources.ready() && !once.models.jobs.busy(); }));
        ASSERT_EQ(once.models.store.project().sources.size(), 1u);
    }
    const auto broken = bytes_of("{ \"name\": \"fa");
    put_file(folder / "project/project.json", broken);
    const auto here = std::filesystem::current_path();
    Second second(folder / "project");
    ASSERT_TRUE(wait([&] { return !second.refused.isEmpty(); }));
    EXPECT_TRUE(second.good_copy);
    second.models.sources.add(folder / "game.zip");
    QTest::qWait(50);
    EXPECT_EQ(get_file(folder / "project/project.json"), broken) << "nothing is written over it";
    EXPECT_FALSE(std::filesystem::exists(here / "project.json")) << "nor anywhere else";
    auto* ask = box("project_refused");
    ASSERT_TRUE(ask);
    press_button(ask, "Use the last good copy");
    ASSERT_TRUE(wait([&] { return second.models.sources.ready() && !second.models.jobs.busy(); }));
    EXPECT_EQ(second.models.store.project().sources.size(), 1u);
    EXPECT_EQ(get_file(folder / "project/project.damaged.json"), broken);
}

TEST_F(SafetyUi, PuttingEverythingBackAsksFirst) {
    open({archive()});
    const auto before = get_file(folder / "game.zip");
    deliver_directly("first");
    deliver_directly("second");
    models.delivery.refresh();
    models.store.close();
    window.reset();
    Second second(folder / "project");
    ASSERT_TRUE(
        wait([&] { return second.models.sources.ready() && !second.models.jobs.busy() && second.models.store.history().size() == 2; }));
    second.window.go_to(PageId::delivery);
    auto* page = second.window.findChild<DeliveryPage*>();
    page->setFocus();
    QTest::keyClick(page, Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    QTest::qWait(50);
    EXPECT_EQ(second.models.store.history().size(), 2u) << "on this desktop the key means redo";
    QTest::keyClick(page, Qt::Key_Backspace, Qt::ControlModifier | Qt::ShiftModifier);
    auto* ask = box("undo_all");
    ASSERT_TRUE(ask);
    EXPECT_TRUE(ask->informativeText().contains("first") && ask->informativeText().contains("second")) << "the list";
    press_button(ask, "Leave it");
    EXPECT_EQ(second.models.store.history().size(), 2u);
    QTest::keyClick(page, Qt::Key_Backspace, Qt::ControlModifier | Qt::ShiftModifier);
    ask = box("undo_all");
    ASSERT_TRUE(ask);
    press_button(ask, "Put everything back");
    ASSERT_TRUE(wait([&] { return second.models.store.history().empty() && !second.models.jobs.busy(); }));
    EXPECT_EQ(get_file(folder / "game.zip"), before);
}

TEST_F(SafetyUi, EscapeStopsWhatTheFooterOffersToCancel) {
    std::vector<ZipItem> items;
    const auto texture = make_dds(Format::BC7, 512, 512);
    for (int i = 0; i < 400; ++i)
        items.push_back({fmt::format("t{}.dds", i), texture, true}), items.back().data[200] = static_cast<std::byte>(i),
                                                                     items.back().data[201] = static_cast<std::byte>(i >> 8);
    put_file(folder / "many.zip", make_zip(items));
    window = std::make_unique<Workspace>(models);
    window->show();
    window->activateWindow();
    models.store.open({folder / "project", {}, {folder / "many.zip"}, {}});
    QAction* cancel = nullptr;
    for (auto* action : window->actions())
        if (action->shortcut() == QKeySequence(Qt::Key_Escape)) cancel = action;
    ASSERT_TRUE(cancel) << "the key belongs to the window";
    EXPECT_FALSE(cancel->isEnabled()) << "while nothing runs it is the page's";
    QSignalSpy pressed(cancel, &QAction::triggered);
    // What is listed first can be stopped, too; here it is looking at pictures.
    ASSERT_TRUE(wait([&] { return models.sources.ready() && models.catalog.catalog()->unseen > 0 && cancel->isEnabled(); }));
    QTest::keyClick(window.get(), Qt::Key_Escape);
    EXPECT_EQ(pressed.size(), 1);
    ASSERT_TRUE(wait([&] { return !models.jobs.busy(); }));
    EXPECT_GT(models.catalog.catalog()->unseen, 0u) << "it stopped before it had looked at everything";
}

TEST_F(SafetyUi, TheKeyShownOnTheEmptyPageWorks) {
    open({});
    window->activateWindow();
    ASSERT_TRUE(wait([&] { return window->isActiveWindow(); }));
    QTest::keyClick(QApplication::focusWidget() ? QApplication::focusWidget() : window.get(), Qt::Key_A);
    bool dialog = false;
    ASSERT_TRUE(wait([&] {
        for (auto* widget : QApplication::topLevelWidgets()) dialog |= widget->isVisible() && widget->windowTitle() == "Add archives";
        return dialog;
    }));
    for (auto* widget : QApplication::topLevelWidgets())
        if (widget->isVisible() && widget->windowTitle() == "Add archives") widget->close();
}

TEST_F(SafetyUi, TheTourEndsWherePeopleHaveTheirOwnProject) {
    GamesModel games(GameList(folder / "games", folder / "projects"));
    MainWindow main(games);
    main.open({folder / "project", {}, {archive()}, {}});
    main.show();
    int code = -1;
    Tour tour(&main, QString::fromStdString((folder / "shots").string()), [&](int done) { code = done; });
    ASSERT_TRUE(wait([&] { return code >= 0; }));
    EXPECT_EQ(code, 2);
}

TEST(StartUp, HelpAndVersionNeedNoDisplay) {
    for (const char* option : {"--help", "--version"}) {
        const auto ran =
            run_program({"env", "-u", "DISPLAY", "-u", "WAYLAND_DISPLAY", "-u", "QT_QPA_PLATFORM", our_program("skivet"), option});
        EXPECT_EQ(ran.code, 0) << ran.output;
        EXPECT_FALSE(ran.output.empty());
    }
}

TEST_F(SafetyUi, OneProjectIsWorkedOnByTheWindowAndTheCommandLineInTurn) {
    const auto zip = archive().string(), project = (folder / "project").string();
    const auto before = hash_of_file(zip);
    const auto file = [&] { return models.store.project().work() / models.bench.pieces()[0].file; };
    // The window takes a texture; while it is open the command line may look, but not change.
    open({archive()});
    models.catalog.take({0}, ExportAs::png);
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 1 && !models.jobs.busy(); }));
    const auto id = models.bench.pieces()[0].id;
    auto image = *read_png(get_file(file()), ReadLimits{});
    image.at(3, 3) = {255, 0, 255, 255};
    put_file(file(), *write_png(image));
    ASSERT_TRUE(wait([&] { return models.bench.piece(id)->state != PieceState::out && !models.jobs.busy(); }));
    EXPECT_EQ(run_cli({"project", "fit", project}).code, 4);
    models.store.close();
    window.reset();
    // The command line delivers it.
    auto ran = run_cli({"project", "status", project});
    EXPECT_NE(ran.out.find("fits"), std::string::npos) << ran.out;
    ran = run_cli({"project", "deliver", project, std::to_string(id)});
    ASSERT_EQ(ran.code, 0) << ran.out << ran.err;
    EXPECT_NE(hash_of_file(zip), before);
    {
        // The window shows it, and takes it back.
        Second second(folder / "project");
        ASSERT_TRUE(wait([&] { return second.models.sources.ready() && !second.models.jobs.busy(); }));
        ASSERT_EQ(second.models.delivery.history().size(), 1u);
        EXPECT_EQ(second.models.bench.piece(id)->state, PieceState::delivered);
        second.models.delivery.undo_all();
        ASSERT_TRUE(wait([&] { return second.models.delivery.history().empty() && !second.models.jobs.busy(); }));
        EXPECT_EQ(hash_of_file(zip), before);
        second.models.store.close();
    }
    // And the command line sees that.
    EXPECT_TRUE(run_cli({"project", "history", project}).out.empty());
    ran = run_cli({"project", "status", project});
    EXPECT_NE(ran.out.find("fits "), std::string::npos) << "edited, and no longer in the game: " << ran.out;
    EXPECT_EQ(run_cli({"project", "deliver", project}).code, 0);
    EXPECT_EQ(run_cli({"project", "undo", project, "--all"}).code, 0);
    EXPECT_EQ(hash_of_file(zip), before);
}

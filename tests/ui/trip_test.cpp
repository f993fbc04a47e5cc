// The whole trip in the real window, driven by keys and mouse: sources, catalog, bench, fitting, delivery, the game, and back.
#include <gtest/gtest.h>

#include <filesystem>
#include <QFileDialog>
#include <QSignalSpy>
#include <QtTest>
#include <string>
#include <vector>

#include "app/models/models.h"
#include "app/pages/bench_page.h"
#include "app/pages/catalog_page.h"
#include "app/pages/delivery_page.h"
#include "app/pages/fitting_page.h"
#include "app/pages/sources_page.h"
#include "app/workshop/bring_window.h"
#include "app/workshop/touch_window.h"
#include "app/workspace.h"
#include "base/file_write.h"
#include "support/pictures.h"
#include "support/run_program.h"
#include "support/temp_folder.h"
#include "texture/png.h"
#include "ui/trip.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

TEST_F(Trip, FromTheArchiveToTheGameAndBack) {
    const auto before_hash = hash_of_file(game / "midway.zip");
    const auto before_picture = game_picture();

    // 1. Sources: eleven, the override on top, each with how it was recognized.
    window->activateWindow();
    auto* sources = window->findChild<QListView*>("sources");
    ASSERT_EQ(sources->model()->rowCount(), 11);
    EXPECT_EQ(sources->model()->index(0, 0).data().toString(), "override");
    sources->scrollTo(sources->model()->index(10, 0));
    QTest::mouseClick(sources->viewport(), Qt::LeftButton, {}, sources->visualRect(sources->model()->index(10, 0)).center());
    bool recognized = false;
    for (const auto* label : window->page<SourcesPage>()->findChildren<QLabel*>())
        recognized = recognized || label->text().contains("recognized by its end record");
    EXPECT_TRUE(recognized);
    EXPECT_EQ(window->findChild<QTableView*>("entries")->model()->rowCount(), 27);

    // 2. Catalog: typing filters at once; the chosen one is shown large.
    press(Qt::Key_2, Qt::ControlModifier);
    ASSERT_EQ(window->current(), PageId::catalog);
    auto* contact_sheet = window->page<CatalogPage>()->contact_sheet();
    const int all = contact_sheet->model()->rowCount();
    EXPECT_GE(all, 40);
    type("target");
    EXPECT_EQ(window->page<CatalogPage>()->search()->text(), "target");
    ASSERT_EQ(contact_sheet->model()->rowCount(), 1);
    // Until it is read the one before stands there.
    ASSERT_TRUE(wait([&] { return !window->page<CatalogPage>()->viewer()->view()->image().isNull() && !models.jobs.busy(); }));
    EXPECT_EQ(window->page<CatalogPage>()->viewer()->view()->image().size(), QSize(256, 256));
    const auto over = window->page<CatalogPage>()->viewer()->view()->image();
    press(Qt::Key_R, Qt::AltModifier);
    ASSERT_TRUE(wait([&] { return window->page<CatalogPage>()->viewer()->view()->image() != over; }));
    const auto red = window->page<CatalogPage>()->viewer()->view()->image();
    EXPECT_EQ(qRed(red.pixel(128, 30)), qRed(over.pixel(128, 30)));
    EXPECT_EQ(qBlue(red.pixel(128, 30)), qRed(over.pixel(128, 30))) << "one channel as gray";

    // 3. Bench: one key takes it; the file is there and watched.
    press(Qt::Key_Return);
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 1; }));
    EXPECT_EQ(piece().state, PieceState::out);
    press(Qt::Key_3, Qt::ControlModifier);
    const auto file = models.store.project().work() / piece().file;
    auto image = *read_png(get_file(file), ReadLimits{});
    for (std::uint32_t y = 100; y < 160; ++y)
        for (std::uint32_t x = 100; x < 160; ++x) image.at(x, y) = {30, 60, 220, 255};
    // Saved by a program that writes a new file and renames it.
    put_file(file.string() + "~", *write_png(image));
    std::filesystem::rename(file.string() + "~", file);
    ASSERT_TRUE(wait([&] { return waits(piece().state); })) << "by itself";
    EXPECT_NE(window->page<BenchPage>()->list()->model()->index(0, 0).data(Qt::AccessibleTextRole).toString(), "target, out");
    // And once more, in place.
    image.at(0, 0) = {255, 255, 255, 255};
    const auto seen = piece().seen_hash;
    put_file(file, *write_png(image));
    ASSERT_TRUE(wait([&] { return piece().seen_hash != seen && piece().seen_hash == to_hex(sha256(*write_png(image))); }));

    // 4. Fitting: what the game will get is shown next to the others, with the real decode.
    window->page<BenchPage>()->list()->setFocus();
    press(Qt::Key_Return);
    ASSERT_EQ(window->current(), PageId::fitting);
    ASSERT_TRUE(wait([&] { return models.bench.fits().fit(piece().id) != nullptr && piece().state == PieceState::fits; }));
    const auto fitted = models.bench.fits().fit(piece().id);
    EXPECT_FALSE(fitted->made.fit->blocked());
    EXPECT_GT(fitted->made.fit->kept_blocks(), fitted->made.fit->new_blocks());
    ASSERT_TRUE(wait([&] { return !window->page<FittingPage>()->result_view()->image().isNull(); }));
    EXPECT_GT(qBlue(window->page<FittingPage>()->result_view()->image().pixel(130, 130)), 180);

    // 5. Delivery: the plan first, then one key writes.
    press(Qt::Key_Return);
    ASSERT_EQ(window->current(), PageId::delivery);
    ASSERT_TRUE(wait([&] { return models.delivery.plan() && models.delivery.plan()->piece_count() == 1; }));
    EXPECT_EQ(hash_of_file(game / "midway.zip"), before_hash) << "nothing has been written yet";
    const auto planned = models.delivery.plan()->groups[0].plan.bytes_written();
    EXPECT_LT(planned, 8000u);
    press(Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return piece().state == PieceState::delivered && models.store.history().size() == 1; }));
    EXPECT_NE(hash_of_file(game / "midway.zip"), before_hash);
    EXPECT_EQ(models.store.history()[0].bytes_written(), planned);
    EXPECT_EQ(models.store.history()[0].title, "target into midway.zip");

    // 6. The game shows it on its object: the target stands at 150…240 × 520…610.
    const auto picture = game_picture();
    const auto& spot = picture.at(150 + 90 / 2, 520 + 90 / 2);
    EXPECT_GT(spot[2], 150);
    EXPECT_LT(spot[0], 90);
    press(Qt::Key_F5);
    ASSERT_TRUE(wait([&] { return models.game.process().state() == QProcess::Running; }));
    models.game.process().kill();
    ASSERT_TRUE(wait([&] { return models.game.process().state() == QProcess::NotRunning; }));

    // Back: one press, and the archive is the one it was.
    ASSERT_TRUE(wait([&] { return window->page<DeliveryPage>()->findChild<QPushButton*>("undo") != nullptr; }));
    QTest::mouseClick(window->page<DeliveryPage>()->findChild<QPushButton*>("undo"), Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return models.store.history().empty(); }));
    EXPECT_EQ(hash_of_file(game / "midway.zip"), before_hash);
    EXPECT_EQ(game_picture(), before_picture);
    ASSERT_TRUE(wait([&] { return waits(piece().state); }));
}

TEST_F(Trip, AFindingBlocksDeliveryUntilItIsMended) {
    window->go_to(PageId::catalog);
    window->page<CatalogPage>()->search()->setFocus();
    type("popcorn");
    press(Qt::Key_Return);
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 1; }));
    put_file(models.store.project().work() / piece().file, *write_png(Image(100, 100, {200, 30, 30, 255})));
    ASSERT_TRUE(wait([&] { return waits(piece().state); }));
    window->go_to(PageId::delivery);
    ASSERT_TRUE(wait([&] { return models.delivery.plan() && models.delivery.plan()->left_out.size() == 1; }));
    EXPECT_EQ(models.delivery.plan()->piece_count(), 0u);
    EXPECT_FALSE(window->page<DeliveryPage>()->findChild<QPushButton*>("deliver")->isEnabled());
    window->go_to(PageId::fitting);
    ASSERT_TRUE(wait([&] { return piece().state == PieceState::needs_mend; }));
    ASSERT_TRUE(wait([&] { return window->page<FittingPage>()->findChild<QPushButton*>("mend") != nullptr; }));
    press(Qt::Key_M);  // mend all
    ASSERT_TRUE(wait([&] { return piece().state == PieceState::fits; }));
    window->go_to(PageId::delivery);
    ASSERT_TRUE(wait([&] { return models.delivery.plan() && models.delivery.plan()->piece_count() == 1; }));
}

TEST_F(Trip, ThereAreWaysThatLeaveTheArchivesAlone) {
    const auto before = hash_of_file(game / "midway.zip");
    paint_the_target();
    press(Qt::Key_5, Qt::ControlModifier);
    const auto planned = [&](Way way) {
        return wait([&] {
            return models.delivery.plan() && models.delivery.plan()->groups.size() == 1 &&
                   models.delivery.plan()->groups[0].plan.way() == way;
        });
    };
    ASSERT_TRUE(planned(Way::in_place));

    // Loose files in the override folder, which the game prefers.
    press(Qt::Key_O);
    ASSERT_TRUE(planned(Way::create)) << (models.delivery.plan() && !models.delivery.plan()->groups.empty() &&
                                                  models.delivery.plan()->groups[0].error
                                              ? models.delivery.plan()->groups[0].error->message()
                                              : "");
    press(Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return piece().state == PieceState::delivered; }));
    EXPECT_TRUE(std::filesystem::exists(game / "override/booths/shooting/target.dds"));
    EXPECT_EQ(hash_of_file(game / "midway.zip"), before);
    const auto picture = game_picture();
    EXPECT_TRUE(shows_the_line(picture)) << "the green line is in the game";
    ASSERT_TRUE(wait([&] { return !models.jobs.busy(); }));
    models.delivery.undo(models.store.history()[0].id);
    ASSERT_TRUE(wait([&] { return waits(piece().state); }));
    EXPECT_FALSE(std::filesystem::exists(game / "override/booths/shooting/target.dds"));
    EXPECT_TRUE(std::filesystem::exists(game / "override/signs/sign_exit.png"));

    // A patch archive; the choice is kept with the project.
    ASSERT_TRUE(wait([&] { return !models.jobs.busy(); }));
    press(Qt::Key_P);
    ASSERT_TRUE(wait([&] {
        return models.delivery.plan() && models.delivery.plan()->groups.size() == 2 &&
               models.delivery.plan()->groups[0].source.filename() == "zz_midway_patch.zip" && !models.jobs.busy();
    }));
    press(Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return std::filesystem::exists(game / "zz_midway_patch.zip"); }));
    ASSERT_TRUE(wait([&] { return piece().state == PieceState::delivered; }));
    EXPECT_EQ(hash_of_file(game / "midway.zip"), before);
    const auto patch = open_source(*models.store.context(), game / "zz_midway_patch.zip");
    ASSERT_TRUE(patch);
    ASSERT_EQ((*patch)->entries().size(), 1u);
    EXPECT_EQ((*patch)->entries()[0].path, "booths/shooting/target.dds");
    EXPECT_EQ(open_project(folder / "project")->destination, Destination::patch_archives);
    EXPECT_TRUE(shows_the_line(game_picture())) << "the game's list names it, so the game loads it";
}

TEST_F(Trip, AForeignChangeIsSaidAndLookedAtAgain) {
    paint_the_target();
    press(Qt::Key_5, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return models.delivery.plan() && models.delivery.plan()->piece_count() == 1 && !models.jobs.busy(); }));
    // Somebody else's program puts another file into the archive meanwhile.
    put_file(folder / "note.txt", as_bytes("hello"));
    ASSERT_EQ(run_program({"zip", "-q", "-j", (game / "midway.zip").string(), (folder / "note.txt").string()}).code, 0);
    const auto foreign = hash_of_file(game / "midway.zip");
    press(Qt::Key_Return, Qt::ControlModifier);
    const auto says = [&](const QString& text) {
        for (const auto* label : window->findChildren<QLabel*>())
            if (label->isVisible() && label->text().contains(text)) return true;
        return false;
    };
    ASSERT_TRUE(wait([&] { return says("was changed by another program"); }));
    EXPECT_EQ(hash_of_file(game / "midway.zip"), foreign) << "nothing was written";
    EXPECT_EQ(piece().state, PieceState::fits) << "the piece stays";
    press(Qt::Key_L);
    ASSERT_TRUE(wait([&] {
        return !says("was changed by another program") && models.delivery.plan() && models.delivery.plan()->piece_count() == 1 &&
               !models.jobs.busy();
    }));
    press(Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return piece().state == PieceState::delivered; }));
    EXPECT_NE(hash_of_file(game / "midway.zip"), foreign);
    const auto now = open_source(*models.store.context(), game / "midway.zip");
    ASSERT_TRUE(now);
    EXPECT_TRUE((*now)->find("note.txt")) << "what the other program put in is still there";
}

/// Chosen on the bench, tinted through a mask, delivered, seen in the game: no paint program and no file touched.
TEST_F(Trip, TenPiecesAreTintedThroughAMaskAtOnce) {
    const auto before = hash_of_file(game / "midway.zip");
    const auto snapshot = models.catalog.snapshot();
    std::vector<std::size_t> chosen;
    const auto collect = [&](bool target) {
        for (std::size_t i = 0; i < snapshot->catalog.items.size() && chosen.size() < 10; ++i) {
            const auto& item = snapshot->catalog.items[i];
            if (item.is_texture() && item.effective && snapshot->sources[item.source].path.filename() == "midway.zip" &&
                (item.name() == "target") == target)
                chosen.push_back(i);
        }
    };
    collect(true);
    collect(false);
    ASSERT_EQ(chosen.size(), 10u);
    models.catalog.take(chosen, ExportAs::picture);
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 10; }));
    const auto game_before = game_picture();
    press(Qt::Key_3, Qt::ControlModifier);
    auto* list = window->page<BenchPage>()->list();
    list->setFocus();
    press(Qt::Key_A, Qt::ControlModifier);
    EXPECT_EQ(window->page<BenchPage>()->chosen_pieces().size(), 10u);
    press(Qt::Key_T);
    auto* touch = window->findChild<TouchWindow*>();
    ASSERT_NE(touch, nullptr);
    ASSERT_TRUE(wait([&] { return !touch->after()->image().isNull(); }));
    const auto plain = touch->after()->image();
    // Tint, by the keyboard: the menu, then its letter.
    auto* menu = touch->findChild<QMenu*>("touch_menu");
    const auto choose = [&](const QString& words) {
        touch->activateWindow();
        ASSERT_TRUE(wait([&] { return touch->isActiveWindow(); }));
        QTest::keyClick(touch, Qt::Key_Insert);
        ASSERT_TRUE(wait([&] { return menu->isVisible(); }));
        for (auto* entry : menu->actions())
            if (entry->text() == words) menu->setActiveAction(entry);
        QTest::keyClick(menu, Qt::Key_Return);
    };
    choose("Tint");
    ASSERT_EQ(touch->texts().size(), 1u);
    for (auto* field : touch->findChildren<QLineEdit*>())
        if (field->accessibleName() == "Color") {
            field->selectAll();
            QTest::keyClicks(field, "#20c040");
        }
    EXPECT_EQ(touch->texts()[0], "tint=color:#20c040");
    auto* where = touch->findChild<QComboBox*>("touch_where");
    where->setFocus();
    QTest::keyClick(where, Qt::Key_Down);
    emit where->activated(where->currentIndex());
    ASSERT_EQ(touch->texts()[0], "tint=color:#20c040,mask:red");
    ASSERT_TRUE(wait([&] { return touch->after()->image() != plain; })) << "shown at once";
    // Two of them, and a number that is typed but not ended when the order changes: it counts for its own.
    choose("Alpha from gray");
    choose("Soften");
    ASSERT_EQ(touch->texts().size(), 3u);
    for (auto* field : touch->findChildren<QLineEdit*>())
        if (field->accessibleName() == "Radius, in texels, as a number") {
            field->setFocus();
            field->selectAll();
            QTest::keyClicks(field, "3");
            QTest::keyClick(field, Qt::Key_Up, Qt::ControlModifier);
        }
    ASSERT_EQ(touch->texts(), (std::vector<std::string>{"tint=color:#20c040,mask:red", "soften=radius:3", "alpha_gray"}));
    QTest::keyClick(touch->findChild<QListWidget*>("touches"), Qt::Key_Delete);
    QTest::keyClick(touch->findChild<QListWidget*>("touches"), Qt::Key_Delete);
    ASSERT_EQ(touch->texts().size(), 1u);
    // Kept under a name, and used once more.
    auto* lists = touch->findChild<QMenu*>("touch_lists");
    const auto from_lists = [&](const QString& words) {
        touch->activateWindow();
        ASSERT_TRUE(wait([&] { return touch->isActiveWindow(); }));
        QTest::keyClick(touch, Qt::Key_L, Qt::ControlModifier);
        ASSERT_TRUE(wait([&] { return lists->isVisible(); }));
        for (auto* entry : lists->actions())
            if (entry->text() == words) lists->setActiveAction(entry);
        QTest::keyClick(lists, Qt::Key_Return);
    };
    from_lists("Keep these as…");
    ASSERT_TRUE(wait([&] { return touch->findChild<QInputDialog*>("touch_list_name") != nullptr; }));
    auto* ask = touch->findChild<QInputDialog*>("touch_list_name");
    ask->setTextValue("green rings");
    ask->accept();
    ASSERT_TRUE(wait([&] { return TouchLists(TouchLists::standard_folder()).names() == std::vector<std::string>{"green rings"}; }));
    from_lists("green rings");
    ASSERT_EQ(touch->texts().size(), 2u);
    EXPECT_EQ(touch->texts()[1], touch->texts()[0]);
    QTest::keyClick(touch->findChild<QListWidget*>("touches"), Qt::Key_Delete);
    ASSERT_EQ(touch->texts().size(), 1u);
    // A second one, which is taken out again.
    choose("Soften");
    EXPECT_EQ(touch->texts().size(), 2u);
    QTest::keyClick(touch->findChild<QListWidget*>("touches"), Qt::Key_Delete);
    ASSERT_EQ(touch->texts().size(), 1u);
    QTest::mouseClick(touch->findChild<QPushButton*>("touch_keep"), Qt::LeftButton);
    ASSERT_TRUE(wait([&] {
        return std::all_of(models.bench.pieces().begin(), models.bench.pieces().end(), [](const Piece& p) {
            return p.touches == std::vector<std::string>{"tint=color:#20c040,mask:red"} && p.state != PieceState::out;
        });
    }));
    for (const auto& p : models.bench.pieces())
        EXPECT_EQ(p.seen_hash, p.exported_hash) << p.name() << ": the file in the work folder is the modder's";
    window->activateWindow();
    ASSERT_TRUE(wait([&] { return window->isActiveWindow(); }));
    list->setFocus();
    press(Qt::Key_5, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] {
        return models.delivery.plan() && models.delivery.plan()->piece_count() + models.delivery.plan()->left_out.size() == 10;
    })) << (models.delivery.plan() ? models.delivery.plan()->piece_count() : 0);
    EXPECT_GE(models.delivery.plan()->piece_count(), 9u);
    press(Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return models.store.history().size() == 1; }));
    EXPECT_NE(game_picture(), game_before);
    // The target's red rings are green now.
    const auto after = game_picture();
    std::int64_t green = 0, red = 0;
    for (std::uint32_t y = 520; y < 610; ++y)
        for (std::uint32_t x = 150; x < 240; ++x)
            green += after.at(x, y)[1] - game_before.at(x, y)[1], red += after.at(x, y)[0] - game_before.at(x, y)[0];
    EXPECT_GT(green, red + 90 * 90 * 10);
    ASSERT_TRUE(wait([&] { return window->page<DeliveryPage>()->findChild<QPushButton*>("undo") != nullptr; }));
    QTest::mouseClick(window->page<DeliveryPage>()->findChild<QPushButton*>("undo"), Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return models.store.history().empty(); }));
    EXPECT_EQ(hash_of_file(game / "midway.zip"), before);
    press(Qt::Key_3, Qt::ControlModifier);
    list->setFocus();
    press(Qt::Key_A, Qt::ControlModifier);
    press(Qt::Key_Delete);
    ASSERT_TRUE(wait([&] { return models.bench.pieces().empty(); })) << "all that are chosen";
}

TEST_F(Trip, AFriendsFolderIsBroughtInAfterAYes) {
    // Two pictures of a friend: one lies where the texture lies in the game, one has a name that several have.
    const auto friends = folder / "from a friend";
    const auto& items = models.catalog.snapshot()->catalog.items;
    const auto is_called = [&](const CatalogItem& item, std::string_view name) {
        return item.is_texture() && item.effective && item.name() == name;
    };
    const auto horse = std::find_if(items.begin(), items.end(), [&](const CatalogItem& i) { return is_called(i, "horse_a_tint"); });
    ASSERT_NE(horse, items.end());
    const auto& d = horse->desc;
    const auto picture = smooth_picture(d.width, d.height, 3);
    const std::string path(horse->path());  // the catalog is read again below
    ASSERT_TRUE(write_file(friends / std::filesystem::path(path).replace_extension(".png"), *write_png(picture)));
    ASSERT_TRUE(write_file(friends / "bunting.png", *write_png(smooth_picture(30, 60, 4))));
    ASSERT_TRUE(write_file(friends / "holiday.png", *write_png(random_picture(40, 40, 5))));
    // While only the first of the game is listed: what is not there yet is waited for.
    models.sources.reload();
    models.catalog.show(empty_catalog());
    window->bring_in(friends);
    auto* bring = window->findChild<BringWindow*>();
    ASSERT_TRUE(bring);
    EXPECT_FALSE(bring->ready());
    ASSERT_TRUE(wait([&] { return bring->ready(); }));
    auto* rows = bring->list()->model();
    ASSERT_EQ(rows->rowCount(), 3);
    EXPECT_EQ(rows->index(0, 0).data().toString(), "bunting.png") << "what is doubtful first";
    EXPECT_EQ(rows->index(0, 0).data(Qt::CheckStateRole).toInt(), Qt::Unchecked);
    EXPECT_EQ(rows->index(1, 0).data(Qt::CheckStateRole).toInt(), Qt::Checked);
    EXPECT_EQ(rows->index(2, 0).data().toString(), "holiday.png");
    const auto in_front = [&] {
        bring->activateWindow();
        bring->list()->setFocus();
        return bring->isActiveWindow() && bring->list()->hasFocus();
    };
    ASSERT_TRUE(wait(in_front));
    QTest::keyClick(bring->list(), Qt::Key_Space);
    EXPECT_EQ(rows->index(0, 0).data(Qt::CheckStateRole).toInt(), Qt::Checked) << "looked at, and taken";
    QTest::keyClick(bring->list(), Qt::Key_Space);
    ASSERT_TRUE(wait(in_front));
    QTest::keyClick(bring->list(), Qt::Key_Return);
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 1 && !models.jobs.busy(); }));
    const auto& piece = models.bench.pieces()[0];
    EXPECT_EQ(piece.address.inner.back(), path);
    EXPECT_EQ(*read_png(get_file(models.bench.file_of(piece)), ReadLimits{}), picture);
    EXPECT_NE(piece.state, PieceState::out);
}

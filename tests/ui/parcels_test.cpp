// Parcels in the window: put in, where two meet, taken out, made; by keyboard and mouse.
#include <gtest/gtest.h>
#include <filesystem>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <string>
#include <vector>

#include "app/pages/delivery_page.h"
#include "app/pages/sources_page.h"
#include "app/workshop/parcels_window.h"
#include "app/workshop/update_window.h"
#include "base/hash.h"
#include "support/places.h"
#include "ui/trip.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

struct ParcelPages : Trip {
    /// What somebody else made of the same game: a filled square in a texture.
    std::filesystem::path parcel_of(const std::string& title, const std::string& entry, std::uint32_t at, Texel color) {
        const auto other = folder / ("of " + title), copy = folder / ("game of " + title);
        std::filesystem::copy(fairground_folder, copy, std::filesystem::copy_options::recursive);
        const auto file = folder / (title + ".parcel");
        EXPECT_EQ(run_cli({"project", "new", other.string(), (copy / "midway.zip").string()}).code, 0);
        const auto taken = run_cli({"project", "take", other.string(), (copy / "midway.zip").string() + "::" + entry});
        EXPECT_EQ(taken.code, 0) << taken.err;
        std::filesystem::path picture;
        for (const auto& item : std::filesystem::recursive_directory_iterator(other / "work"))
            if (item.is_regular_file()) picture = item.path();
        auto image = *read_png(get_file(picture), ReadLimits{});
        for (std::uint32_t y = at; y < at + 64; ++y)
            for (std::uint32_t x = at; x < at + 64; ++x) image.at(x, y) = color;
        put_file(picture, *write_png(image));
        const auto made = run_cli({"parcel", "make", other.string(), "--out", file.string(), "--title", title, "--author", "E. Wick",
                                   "--set-version", "1.2", "--notes", "Painted on a rainy evening."});
        EXPECT_EQ(made.code, 0) << made.err;
        return file;
    }
    ParcelsWindow* parcels_window() {
        window->go_to(PageId::sources);
        press(Qt::Key_M);
        auto* out = window->findChild<ParcelsWindow*>();
        EXPECT_NE(out, nullptr);
        EXPECT_TRUE(wait([&] { return models.parcels.plan() && !models.jobs.busy(); }));
        return out;
    }
    bool says(QWidget* in, const QString& text) {
        for (const auto* label : in->findChildren<QLabel*>())
            if (label->isVisible() && label->text().contains(text)) return true;
        return false;
    }
    /// The one button that writes.
    void write(ParcelsWindow* parcels) {
        auto* button = parcels->findChild<QPushButton*>("write_change");
        ASSERT_TRUE(wait([&] { return button->isEnabled(); }));
        QTest::mouseClick(button, Qt::LeftButton);
        ASSERT_TRUE(wait([&] { return !models.jobs.busy() && !models.parcels.waits() && !button->isEnabled(); }));
    }
};

}  // namespace

TEST_F(ParcelPages, ArePutInWhereTwoMeetOneIsChosenAndTheyGoAgain) {
    const auto before = hash_of_file(game / "midway.zip");
    const auto shown_before = game_picture();
    const auto target = [&] {
        const auto& items = models.catalog.snapshot()->catalog.items;
        for (const auto& item : items)
            if (item.name() == "target") return item.path();
        return std::string();
    }();
    const auto warm = parcel_of("Warm", target, 96, {240, 150, 20, 255}), cold = parcel_of("Cold", target, 130, {30, 70, 240, 255});
    auto* parcels = parcels_window();
    ASSERT_TRUE(parcels);
    EXPECT_TRUE(says(parcels, "No parcel yet"));

    parcels->bring(warm);
    ASSERT_TRUE(wait([&] { return models.parcels.waits() && !models.jobs.busy(); }));
    ASSERT_EQ(parcels->layers()->count(), 2);
    EXPECT_EQ(parcels->layers()->item(0)->text(), "Your own work");
    EXPECT_TRUE(says(parcels, "by E. Wick"));
    EXPECT_TRUE(says(parcels, "Painted on a rainy evening."));
    EXPECT_TRUE(says(parcels, "Nothing has been written yet."));
    ASSERT_EQ(parcels->textures()->count(), 1);
    EXPECT_EQ(hash_of_file(game / "midway.zip"), before);
    write(parcels);
    EXPECT_NE(hash_of_file(game / "midway.zip"), before);
    EXPECT_NE(game_picture(), shown_before) << "the game shows it";

    parcels->bring(cold);
    ASSERT_TRUE(wait([&] { return models.parcels.waits() && !models.jobs.busy(); }));
    ASSERT_EQ(parcels->layers()->count(), 3);
    EXPECT_TRUE(says(parcels, "Cold stays, Warm gives way"));
    auto* other = parcels->findChild<QPushButton*>("right_stays");
    ASSERT_TRUE(wait([&] { return other->isVisible(); }));
    EXPECT_TRUE(says(parcels, "Cold (stays)"));
    QTest::mouseClick(other, Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return says(parcels, "Warm stays, Cold gives way"); }));
    const auto warm_in = hash_of_file(game / "midway.zip");
    write(parcels);
    EXPECT_EQ(hash_of_file(game / "midway.zip"), warm_in) << "Cold has nothing of its own to show";
    EXPECT_EQ(models.store.project().stack_state.stack.layers.size(), 3u);

    // By keyboard: the list, a parcel, out with it.
    const auto row_of = [&](const QString& name) {
        for (int row = 0; row < parcels->layers()->count(); ++row)
            if (parcels->layers()->item(row)->text() == name) return row;
        return -1;
    };
    parcels->activateWindow();
    ASSERT_TRUE(wait([&] { return parcels->isActiveWindow(); }));
    for (const QString name : {"Warm", "Cold"}) {
        parcels->layers()->setFocus();
        parcels->layers()->setCurrentRow(row_of(name));
        QTest::keyClick(parcels->layers(), Qt::Key_Delete);
        ASSERT_TRUE(wait([&] { return models.parcels.waits() && !models.jobs.busy(); })) << name.toStdString();
        QTest::keyClick(parcels->layers(), Qt::Key_Return, Qt::ControlModifier);
        ASSERT_TRUE(wait([&] { return !models.jobs.busy() && !models.parcels.waits(); }));
    }
    EXPECT_EQ(hash_of_file(game / "midway.zip"), before);
    EXPECT_EQ(game_picture(), shown_before);
    EXPECT_TRUE(models.store.project().stack_state.stack.empty());
    EXPECT_TRUE(says(parcels, "No parcel yet"));
}

TEST_F(ParcelPages, WhatDoesNotGoInSaysWhy) {
    put_file(folder / "no.parcel", bytes_of("PK nothing of the kind"));
    auto* parcels = parcels_window();
    ASSERT_TRUE(parcels);
    parcels->bring(folder / "no.parcel");
    ASSERT_TRUE(wait([&] { return !models.jobs.busy() && (says(parcels, "no.parcel") || says(parcels, "holds no texture")); }));
    EXPECT_FALSE(parcels->findChild<QPushButton*>("write_change")->isEnabled());
}

TEST_F(ParcelPages, OneIsMadeOfTheBench) {
    paint_the_target();
    window->go_to(PageId::delivery);
    press(Qt::Key_M);
    auto* making = window->findChild<MakeParcelWindow*>();
    ASSERT_TRUE(making);
    ASSERT_TRUE(wait([&] { return says(making, "1 texture, "); }));
    auto* button = making->findChild<QPushButton*>("write_parcel");
    EXPECT_FALSE(button->isEnabled()) << "it has no title yet";
    making->activateWindow();
    auto* title = making->findChild<QLineEdit*>("parcel_title");
    title->setFocus();
    QTest::keyClicks(title, "Evening at the fair");
    EXPECT_TRUE(button->isEnabled());
    making->write(folder / "made.parcel");
    ASSERT_TRUE(wait([&] { return std::filesystem::exists(folder / "made.parcel") && !models.jobs.busy(); }));
    const auto shown = run_cli({"parcel", "show", (folder / "made.parcel").string()});
    EXPECT_EQ(shown.code, 0) << shown.err;
    EXPECT_NE(shown.out.find("Evening at the fair (evening-at-the-fair)\nfor Brindle Fair\n"), std::string::npos) << shown.out;
}

TEST_F(ParcelPages, AnUpdateOfTheGameIsNoticedAndOneButtonPutsEverythingInAgain) {
    // Three pieces: the game's new version leaves one alone, stamps another elsewhere and paints the third anew.
    const auto snapshot = models.catalog.snapshot();
    std::vector<std::size_t> chosen;
    for (std::size_t i = 0; i < snapshot->catalog.items.size(); ++i)
        for (const char* name : {"target", "awning_red_tint", "meadow"})
            if (snapshot->catalog.items[i].name() == name) chosen.push_back(i);
    models.catalog.take(chosen, ExportAs::png);
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 3; }));
    for (const auto& piece : models.bench.pieces()) {
        const auto file = models.store.project().work() / piece.file;
        auto image = *read_png(get_file(file), ReadLimits{});
        for (std::uint32_t y = 60; y < 100; ++y)
            for (std::uint32_t x = 20; x < 60; ++x) image.at(x, y) = {20, 150, 160, 255};
        put_file(file, *write_png(image));
    }
    ASSERT_TRUE(wait([&] {
        return std::all_of(models.bench.pieces().begin(), models.bench.pieces().end(), [](const Piece& p) { return waits(p.state); }) &&
               !models.jobs.busy();
    }));
    window->go_to(PageId::delivery);
    ASSERT_TRUE(wait([&] { return models.delivery.plan() && models.delivery.plan()->piece_count() == 3; }));
    press(Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return models.store.history().size() == 1 && !models.jobs.busy(); }));
    EXPECT_FALSE(models.update.update());

    // Another program updates the game while the window is in the background.
    const auto two = folder / "two";
    ASSERT_EQ(run_program({our_program("fair-press"), two.string(), "--update", "2"}).code, 0);
    for (const auto& item : std::filesystem::directory_iterator(two))
        if (item.is_regular_file()) {
            std::filesystem::remove(game / item.path().filename());
            std::filesystem::copy_file(item.path(), game / item.path().filename());
        }
    QEvent back(QEvent::ActivationChange);
    QCoreApplication::sendEvent(window.get(), &back);
    ASSERT_TRUE(wait([&] { return models.update.update() && !models.jobs.busy(); }));
    auto* page = window->page<DeliveryPage>();
    EXPECT_TRUE(says(page, "2 pieces can go in again"));
    EXPECT_TRUE(says(page, "1 waits for you to decide"));
    press(Qt::Key_U);
    auto* updating = window->findChild<UpdateWindow*>();
    ASSERT_TRUE(updating);
    ASSERT_EQ(updating->list()->model()->rowCount(), 3);
    EXPECT_EQ(updating->list()->model()->index(0, 0).data().toString(), "meadow") << "what needs a person first";
    EXPECT_TRUE(says(updating, "differs where you painted"));
    const auto views = updating->findChildren<ImageView*>();
    ASSERT_TRUE(
        wait([&] { return std::count_if(views.begin(), views.end(), [](const ImageView* v) { return !v->image().isNull(); }) == 3; }));
    auto* button = updating->findChild<QPushButton*>("put_in_again");
    EXPECT_EQ(button->text(), "Put 2 in again");
    QTest::mouseClick(button, Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return models.update.update() && models.update.update()->pieces.size() == 1 && !models.jobs.busy(); }));
    EXPECT_NE(hash_of_file(game / "midway.zip"), hash_of_file(two / "midway.zip"));
    EXPECT_EQ(updating->list()->model()->rowCount(), 1);
    // The last one is decided: one's own goes over the game's new picture.
    auto* over = updating->findChild<QPushButton*>("let_over");
    ASSERT_TRUE(wait([&] { return over->isVisible(); }));
    QTest::mouseClick(over, Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return button->text() == "Put 1 in again" && button->isEnabled(); }));
    QTest::mouseClick(button, Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return !models.update.update() && !models.jobs.busy(); }));
    EXPECT_TRUE(says(updating, "Everything is in the game as you delivered it."));
    ASSERT_EQ(models.store.history().size(), 2u);
    models.delivery.undo(models.store.history().back().id);
    ASSERT_TRUE(wait([&] { return models.store.history().size() == 1 && !models.jobs.busy(); }));
    // And back: then it is the makers' new version.
    ASSERT_EQ(models.store.history().size(), 1u);
    models.delivery.undo(models.store.history().front().id);
    ASSERT_TRUE(wait([&] { return models.store.history().empty() && !models.jobs.busy(); }));
    EXPECT_EQ(hash_of_file(game / "midway.zip"), hash_of_file(two / "midway.zip"));
}

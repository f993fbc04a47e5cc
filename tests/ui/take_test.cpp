// Taking textures out with what belongs to them, and what goes with a piece, by keyboard and mouse.
#include <gtest/gtest.h>
#include <filesystem>
#include <QCheckBox>
#include <QComboBox>
#include <QInputDialog>
#include <QListWidget>
#include <QPushButton>
#include <string>
#include <vector>

#include "app/pages/bench_page.h"
#include "app/pages/catalog_page.h"
#include "app/pages/delivery_page.h"
#include "app/pages/fitting_page.h"
#include "app/workshop/take_window.h"
#include "base/file_write.h"
#include "container/texture_files.h"
#include "ui/trip.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

struct Taking : Trip {
    std::size_t item(const std::string& name) {
        const auto snapshot = models.catalog.snapshot();
        for (std::size_t i = 0; i < snapshot->catalog.items.size(); ++i)
            if (snapshot->catalog.items[i].name() == name && snapshot->catalog.items[i].effective) return i;
        ADD_FAILURE() << name;
        return 0;
    }
    const Piece* piece_named(const std::string& name) {
        for (const auto& piece : models.bench.pieces())
            if (piece.name() == name) return &piece;
        return nullptr;
    }
    std::filesystem::path file(const Piece& piece) { return models.store.project().work() / piece.file; }
    /// Searches in the catalog and opens the window for taking.
    TakeWindow* take_window(const QString& words) {
        window->go_to(PageId::catalog);
        auto* search = window->page<CatalogPage>()->search();
        search->setFocus();
        search->clear();
        type(words);
        EXPECT_TRUE(wait([&] { return window->page<CatalogPage>()->model()->rowCount() == 1; }));
        press(Qt::Key_Return, Qt::AltModifier);
        auto* taking = window->findChild<TakeWindow*>();
        EXPECT_NE(taking, nullptr);
        return taking;
    }
    /// What an outside program does to a file.
    void magick(const std::filesystem::path& path, std::vector<std::string> does) {
        std::vector<std::string> words = {"convert", path.string()};
        words.insert(words.end(), does.begin(), does.end());
        words.push_back("PNG:" + path.string() + ".new");
        const auto ran = run_program(words);
        ASSERT_EQ(ran.code, 0) << ran.output;
        std::filesystem::rename(path.string() + ".new", path);
    }
};

}  // namespace

TEST_F(Taking, TheWindowProposesAFileAndShowsWhatAlphaIs) {
    auto* taking = take_window("bunting_far");
    ASSERT_TRUE(taking);
    auto* as = taking->findChild<QComboBox*>("as");
    auto* alpha = taking->findChild<QComboBox*>("alpha");
    const auto says = [&](const QString& text) {
        for (const auto* label : taking->findChildren<QLabel*>())
            if (label->isVisible() && label->text().contains(text)) return true;
        return false;
    };
    EXPECT_TRUE(as->itemText(0).contains("PNG"));
    EXPECT_TRUE(says("8 bits"));
    ASSERT_TRUE(wait([&] { return says("Here: "); }));
    EXPECT_TRUE(alpha->isEnabled());
    // As DDS alpha stays where it is.
    as->setCurrentIndex(as->findText("DDS, as it is"));
    EXPECT_FALSE(alpha->isEnabled());
    EXPECT_TRUE(says("It stays in the file."));
    EXPECT_TRUE(says("Proposed is PNG"));
    as->setCurrentIndex(0);
    alpha->setCurrentIndex(1);
    taking->activateWindow();
    ASSERT_TRUE(wait([&] { return taking->isActiveWindow(); }));
    QTest::keyClick(taking, Qt::Key_Return);
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 1 && !models.jobs.busy(); }));
    ASSERT_EQ(piece().more.size(), 1u);

    // The gray picture is watched like the other one.
    const auto gray = models.store.project().work() / piece().more[0].file;
    magick(gray, {"-negate"});
    ASSERT_TRUE(wait([&] { return waits(piece().state); }));
    window->go_to(PageId::bench);
    EXPECT_TRUE(wait([&] {
        for (const auto* text : window->page<BenchPage>()->findChildren<QLabel*>())
            if (text->isVisible() && text->text().contains("bunting_far.dds.alpha.png")) return true;
        return false;
    }));
}

TEST_F(Taking, CopiesOfThePictureFollow) {
    ASSERT_TRUE(wait([&] { return models.catalog.catalog()->unseen == 0 && !models.jobs.busy(); }));
    window->go_to(PageId::catalog);
    auto* page = window->page<CatalogPage>();
    page->contact_sheet()->setCurrentIndex(page->model()->index(page->model()->row_of(item("bunting"))));
    QTest::mouseClick(page->findChild<QPushButton*>("how"), Qt::LeftButton);
    auto* taking = window->findChild<TakeWindow*>();
    ASSERT_TRUE(taking);
    auto* copies = taking->findChild<QCheckBox*>("copies");
    ASSERT_TRUE(copies->isEnabled());
    copies->click();
    QTest::mouseClick(taking->findChild<QPushButton*>("go"), Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 2 && !models.jobs.busy(); }));
    ASSERT_TRUE(piece_named("bunting_far"));
    EXPECT_TRUE(piece_named("bunting_far")->follows());
}

TEST_F(Taking, ASetEditedOutsideIsMendedItsTwinsFollowAndTheGameShowsIt) {
    ASSERT_TRUE(wait([&] { return models.catalog.catalog()->unseen == 0 && !models.jobs.busy(); }));
    const auto before = hash_of_file(game / "rides.crate"), midway_before = hash_of_file(game / "midway.zip");
    const auto shown_before = game_picture();

    // A set of three maps, by one key; and the bunting.
    auto* taking = take_window("horse_a_tint");
    ASSERT_TRUE(taking);
    auto* list = taking->findChild<QListWidget*>("taken");
    auto* sets = taking->findChild<QCheckBox*>("sets");
    ASSERT_TRUE(sets->isEnabled());
    sets->click();
    EXPECT_EQ(list->count(), 3);
    QTest::mouseClick(taking->findChild<QPushButton*>("go"), Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 3; }));
    models.catalog.take({item("bunting")}, {});
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 4 && !models.jobs.busy(); }));

    // Edited by another program: one comes back half as large, one with green turned, the others as they should.
    magick(file(*piece_named("horse_a_tint")), {"-fill", "#20c040", "-draw", "rectangle 100,100 160,160", "-resize", "50%"});
    magick(file(*piece_named("horse_a_bump")), {"-channel", "G", "-negate"});
    magick(file(*piece_named("horse_a_gloss")), {"-fill", "white", "-draw", "rectangle 10,10 30,30"});
    magick(file(*piece_named("bunting")), {"-fill", "#1030e0", "-draw", "rectangle 0,0 500,200"});
    window->go_to(PageId::fitting);
    auto* page = window->page<FittingPage>();
    const auto state = [&](const std::string& name, PieceState wanted) { return piece_named(name)->state == wanted; };
    ASSERT_TRUE(wait([&] {
        return state("horse_a_tint", PieceState::needs_mend) && state("horse_a_bump", PieceState::needs_mend) &&
               state("horse_a_gloss", PieceState::fits) && state("bunting", PieceState::fits);
    }));

    // Two findings, a press each.
    for (const auto* name : {"horse_a_tint", "horse_a_bump"}) {
        page->show_piece(piece_named(name)->id);
        ASSERT_TRUE(wait([&] { return page->findChild<QPushButton*>("mend") != nullptr && !models.jobs.busy(); })) << name;
        QTest::mouseClick(page->findChild<QPushButton*>("mend"), Qt::LeftButton);
        ASSERT_TRUE(wait([&] { return state(name, PieceState::fits); })) << name;
    }
    // The bunting far away would still be the old one.
    page->show_piece(piece_named("bunting")->id);
    ASSERT_TRUE(wait([&] { return page->findChild<QPushButton*>("kin") != nullptr; }));
    QTest::mouseClick(page->findChild<QPushButton*>("kin"), Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return piece_named("bunting_far") != nullptr && state("bunting_far", PieceState::fits); }));
    ASSERT_TRUE(wait([&] { return page->findChild<QPushButton*>("kin") == nullptr; })) << "offered once";

    // Put away it is told once more, before anything is written.
    models.bench.put_away(piece_named("bunting_far")->id);
    window->go_to(PageId::delivery);
    auto* copies = window->page<DeliveryPage>()->findChild<QPushButton*>("copies_left");
    ASSERT_TRUE(wait([&] { return copies->isVisible(); }));
    QTest::mouseClick(copies, Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return piece_named("bunting_far") != nullptr && !copies->isVisible(); }));
    ASSERT_TRUE(wait([&] { return models.delivery.plan() && models.delivery.plan()->piece_count() == 5 && !models.jobs.busy(); }));
    auto* deliver = window->page<DeliveryPage>()->findChild<QPushButton*>("deliver");
    ASSERT_TRUE(wait([&] { return deliver->isEnabled(); }));
    QTest::mouseClick(deliver, Qt::LeftButton);
    ASSERT_TRUE(wait([&] {
        return std::all_of(models.bench.pieces().begin(), models.bench.pieces().end(),
                           [](const Piece& p) { return p.state == PieceState::delivered; });
    }));
    const auto shown = game_picture();
    EXPECT_GT(shown.at(60, 40)[2], 180) << "the bunting is blue in the game";
    EXPECT_LT(shown_before.at(60, 40)[2], 180);
    const auto far = *open_texture_at(*models.store.context(), piece_named("bunting_far")->address);
    EXPECT_GT((*far.decode(0)).at(10, 4)[2], 180) << "the reduced copy too";
    ASSERT_TRUE(wait([&] { return !models.jobs.busy(); }));
    models.delivery.undo(models.store.history()[0].id);
    ASSERT_TRUE(wait([&] { return waits(piece().state); }));
    EXPECT_EQ(hash_of_file(game / "rides.crate"), before);
    EXPECT_EQ(hash_of_file(game / "midway.zip"), midway_before);
}

TEST_F(Taking, AVariantComesOneIsRenamedOneGoesAndUndoPutsItBack) {
    const auto before = hash_of_file(game / "midway.zip");
    window->go_to(PageId::catalog);
    auto* page = window->page<CatalogPage>();
    const auto choose = [&](const std::string& name) {
        page->contact_sheet()->setCurrentIndex(page->model()->index(page->model()->row_of(item(name))));
        EXPECT_TRUE(wait([&] { return page->viewer()->item() == item(name); }));
    };
    // A dialog had the keys.
    const auto press_there = [&](Qt::Key key, Qt::KeyboardModifiers modifiers = {}) {
        window->activateWindow();
        EXPECT_TRUE(wait([&] { return window->isActiveWindow(); }));
        page->contact_sheet()->setFocus();
        press(key, modifiers);
    };
    const auto path = [&](const std::string& name) { return models.catalog.path_of(item(name)); };
    const auto old_path = path("bunting"), ticket_path = path("ticket_child"), far_path = path("bunting_far");

    choose("bunting");
    press_there(Qt::Key_D, Qt::ControlModifier);
    auto* dialog = page->findChild<QInputDialog*>("variant");
    ASSERT_TRUE(dialog);
    EXPECT_TRUE(dialog->textValue().endsWith("bunting_2.dds"));
    dialog->setTextValue(QString::fromStdString(far_path));
    dialog->accept();
    QString said;
    QObject::connect(&models.messages, &Messages::notice, [&](const QString& text) { said = text; });
    ASSERT_TRUE(wait([&] { return !models.jobs.busy(); }));
    EXPECT_TRUE(models.bench.pieces().empty()) << "that name is taken";
    press_there(Qt::Key_D, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return page->findChild<QInputDialog*>("variant") != nullptr; }));
    page->findChild<QInputDialog*>("variant")->accept();
    ASSERT_TRUE(wait([&] { return piece_named("bunting_2") != nullptr; }));
    magick(file(*piece_named("bunting_2")), {"-fill", "#1030e0", "-draw", "rectangle 0,0 500,200"});

    choose("ticket_child");
    press_there(Qt::Key_F2);
    ASSERT_TRUE(wait([&] { return page->findChild<QInputDialog*>("rename") != nullptr; }));
    page->findChild<QInputDialog*>("rename")->setTextValue("booths/ticket/ticket_kid.dds");
    page->findChild<QInputDialog*>("rename")->accept();
    ASSERT_TRUE(wait([&] { return models.store.project().changes.size() == 1; }));
    EXPECT_TRUE(said.contains("ticket_kid")) << said.toStdString();
    choose("bunting_far");
    press_there(Qt::Key_Delete);
    ASSERT_TRUE(wait([&] { return models.store.project().changes.size() == 2; }));
    EXPECT_EQ(hash_of_file(game / "midway.zip"), before) << "nothing has been written yet";

    ASSERT_TRUE(wait([&] { return piece_named("bunting_2")->state == PieceState::fits; }));
    window->go_to(PageId::delivery);
    auto* delivery = window->page<DeliveryPage>();
    const auto planned = [&](std::size_t pieces, std::size_t changes) {
        const auto plan = models.delivery.plan();
        return plan && plan->piece_count() == pieces && plan->change_count() == changes && !models.jobs.busy();
    };
    ASSERT_TRUE(wait([&] { return planned(1, 2); }));
    // One is left as it is after all, and comes back to the list.
    QTest::mouseClick(delivery->findChildren<QPushButton*>("leave").last(), Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return models.store.project().changes.size() == 1; }));
    models.catalog.take_out({item("bunting_far")});
    ASSERT_TRUE(wait([&] { return planned(1, 2); }));
    auto* deliver = delivery->findChild<QPushButton*>("deliver");
    ASSERT_TRUE(wait([&] { return deliver->isEnabled() && deliver->text().contains("3 changes"); })) << deliver->text().toStdString();
    QTest::mouseClick(deliver, Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return models.store.history().size() == 1 && !models.jobs.busy(); }));
    const auto& context = *models.store.context();
    const auto there = [&](const std::string& inner) { return read_address(context, {game / "midway.zip", {inner}}).has_value(); };
    EXPECT_TRUE(there("booths/ticket/ticket_kid.dds"));
    EXPECT_FALSE(there(ticket_path));
    EXPECT_FALSE(there(far_path));
    EXPECT_TRUE(there(piece_named("bunting_2")->address.inner.back()));
    EXPECT_TRUE(there(old_path));
    ASSERT_TRUE(wait([&] {
        const auto& items = models.catalog.snapshot()->catalog.items;
        return std::any_of(items.begin(), items.end(), [](const CatalogItem& i) { return i.name() == "ticket_kid"; });
    })) << "the catalog shows it";
    ASSERT_TRUE(wait([&] { return delivery->findChild<QPushButton*>("undo") != nullptr; }));
    QTest::mouseClick(delivery->findChild<QPushButton*>("undo"), Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return models.store.history().empty() && !models.jobs.busy(); }));
    EXPECT_EQ(hash_of_file(game / "midway.zip"), before);
}

// The catalog as a person uses it: searching, narrowing down, sets, roles, twins, finding by picture, exporting; by keyboard and mouse.
#include <gtest/gtest.h>

#include <filesystem>
#include <QClipboard>
#include <QComboBox>
#include <QDialog>
#include <QDropEvent>
#include <QInputDialog>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QMimeData>
#include <QScrollBar>
#include <QtTest>
#include <string>
#include <vector>

#include "app/pages/catalog_page.h"
#include "app/widgets/picture_row.h"
#include "catalog/index_store.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"
#include "texture/dds.h"
#include "ui/window_test.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

/// The whole fairground in the window, looked through to its end.
struct CatalogUi : WindowTest {
    CatalogPage* page = nullptr;

    void open_fair() {
        std::filesystem::copy(fairground_folder, folder / "fair", std::filesystem::copy_options::recursive);
        window = std::make_unique<Workspace>(models);
        models.store.open({folder / "project", folder / "fair", {}, {}});
        window->resize(1280, 800);
        window->show();
        ASSERT_TRUE(wait([&] { return models.sources.ready() && !models.jobs.busy() && models.catalog.catalog()->unseen == 0; }));
        window->go_to(PageId::catalog);
        page = window->page<CatalogPage>();
        window->activateWindow();
        page->search()->setFocus();
    }
    void type(const char* text) {
        page->search()->clear();
        QTest::keyClicks(page->search(), text);
    }
    [[nodiscard]] QStringList cards() const {
        QStringList out;
        for (int row = 0; row < page->model()->rowCount(); ++row) out << page->model()->index(row).data().toString();
        return out;
    }
    [[nodiscard]] int row_named(const QString& name) const { return int(cards().indexOf(name)); }
    void choose(const QString& name) {
        ASSERT_GE(row_named(name), 0) << name.toStdString() << " among " << cards().join(' ').toStdString();
        page->contact_sheet()->setCurrentIndex(page->model()->index(row_named(name)));
        page->contact_sheet()->setFocus();
    }
    [[nodiscard]] std::size_t item_named(std::string_view name) const {
        const auto snapshot = models.catalog.snapshot();
        for (std::size_t i = 0; i < snapshot->catalog.items.size(); ++i)
            if (snapshot->catalog.items[i].is_texture() && snapshot->catalog.items[i].name() == name &&
                snapshot->catalog.items[i].effective)
                return i;
        return std::size_t(-1);
    }
    [[nodiscard]] Role role_of(std::string_view name) const { return models.catalog.catalog()->analysis.roles[item_named(name)]; }
    void click_facet(const QString& value) {
        const int row = page->facets()->row_of(value);
        ASSERT_GE(row, 0) << value.toStdString();
        auto* list = page->facet_list();
        const auto index = page->facets()->index(row);
        list->scrollTo(index);
        QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualRect(index).center());
    }
    [[nodiscard]] unsigned facet_count_of(const QString& value) const {
        const int row = page->facets()->row_of(value);
        return row < 0 ? 0u : page->facets()->index(row).data(FacetModel::Count).toUInt();
    }
    /// A key in the contact sheet, once no other window is in front of it.
    void key(Qt::Key key, Qt::KeyboardModifiers modifiers = {}) {
        ASSERT_TRUE(wait([] { return !QApplication::activeModalWidget() && !QApplication::activePopupWidget(); }));
        window->activateWindow();
        ASSERT_TRUE(wait([&] { return window->isActiveWindow(); }));
        page->contact_sheet()->setFocus();
        QTest::keyClick(page->contact_sheet(), key, modifiers);
    }
    QDialog* dialog(const char* name) {
        QDialog* out = nullptr;
        (void)wait([&] { return (out = window->findChild<QDialog*>(name)) && out->isVisible(); });
        return out;
    }
};

}  // namespace

TEST_F(CatalogUi, SearchingNarrowingAndStepping) {
    open_fair();
    const int all = page->model()->rowCount();
    type("\"booths/\" -blue awning");
    EXPECT_EQ(cards().join(' ').count("awning"), 3);
    EXPECT_TRUE(says("3 of "));
    type("17");
    EXPECT_EQ(cards(), QStringList{"banner_017"});
    type("0018");
    EXPECT_EQ(cards(), QStringList{"banner_018"});
    type("horse_?_*int");
    EXPECT_EQ(page->model()->texture_count(), 3u);
    page->search()->clear();
    EXPECT_EQ(page->model()->rowCount(), all);
    // Facets by mouse, and their counts.
    const auto masks = facet_count_of("mask");
    EXPECT_GE(masks, 1u);
    click_facet("mask");
    EXPECT_EQ(page->model()->texture_count(), masks);
    EXPECT_GE(facet_count_of("normal"), 3u) << "other values of the facet keep their counts";
    click_facet("mask");
    EXPECT_EQ(page->model()->rowCount(), all);
    // By keys: down to a value, Space checks it.
    auto* list = page->facet_list();
    list->setFocus();
    list->setCurrentIndex(page->facets()->index(page->facets()->row_of("normal")));
    QTest::keyClick(list, Qt::Key_Space);
    EXPECT_EQ(page->model()->texture_count(), 3u);
    // Next and previous match.
    const auto first = page->viewer()->item();
    key(Qt::Key_F3);
    EXPECT_NE(page->viewer()->item(), first);
    key(Qt::Key_F3, Qt::ShiftModifier);
    EXPECT_EQ(page->viewer()->item(), first);
}

TEST_F(CatalogUi, ShadowedCopiesAreShownOnRequest) {
    open_fair();
    type("mirror");
    ASSERT_EQ(cards(), QStringList{"mirror"});
    EXPECT_EQ(models.catalog.snapshot()->sources[models.catalog.snapshot()->catalog.items[page->viewer()->item()].source].path.filename(),
              "zz_spare.crate")
        << "the last source wins";
    ASSERT_TRUE(wait([&] { return !page->viewer()->relations().copies.empty(); }));
    EXPECT_EQ(page->viewer()->relations().copies.size(), 1u) << "what it covers";
    click_facet("shadowed");
    ASSERT_EQ(cards(), QStringList{"mirror"});
    EXPECT_EQ(models.catalog.snapshot()->sources[models.catalog.snapshot()->catalog.items[page->viewer()->item()].source].path.filename(),
              "rides.crate");
    EXPECT_TRUE(says("shadowed by a later source"));
}

TEST_F(CatalogUi, ASetIsOneCardThatOpens) {
    open_fair();
    type("carousel");
    const int closed = page->model()->rowCount();
    choose("horse_a");
    const auto row = page->contact_sheet()->currentIndex();
    EXPECT_EQ(row.data(ContactModel::SetSize).toInt(), 3);
    key(Qt::Key_Space);
    EXPECT_EQ(page->model()->rowCount(), closed + 2);
    ASSERT_GE(row_named("horse_a_bump"), 0);
    EXPECT_EQ(row_named("horse_a_tint") + 1, row_named("horse_a_bump")) << "base color first";
    // The viewer's row of the set leads to its members.
    ASSERT_TRUE(wait([&] { return page->viewer()->set_row()->cells().size() == 3; }));
    QTest::mouseClick(page->viewer()->set_row(), Qt::LeftButton, {}, QPoint(70, 20));
    EXPECT_EQ(page->viewer()->item(), item_named("horse_a_bump"));
    EXPECT_EQ(page->contact_sheet()->currentIndex().row(), row_named("horse_a_bump"));
    // A double click closes it again.
    QTest::mouseDClick(page->contact_sheet()->viewport(), Qt::LeftButton, {},
                       page->contact_sheet()->visualRect(page->contact_sheet()->currentIndex()).center());
    EXPECT_EQ(page->model()->rowCount(), closed);
    // The whole set goes to the bench in one.
    choose("horse_a");
    key(Qt::Key_Return, Qt::ShiftModifier);
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 3; }));
}

TEST_F(CatalogUi, RolesAreCorrectedByOneKeyAndRemembered) {
    open_fair();
    type("wheel/sun_panel");
    choose("sun_panel");
    EXPECT_EQ(role_of("sun_panel"), Role::base_color);
    key(Qt::Key_9, Qt::AltModifier);
    ASSERT_TRUE(wait([&] { return role_of("sun_panel") == Role::mask; }));
    ASSERT_TRUE(wait([&] { return says("you said so"); }));
    key(Qt::Key_0, Qt::AltModifier);
    ASSERT_TRUE(wait([&] { return role_of("sun_panel") == Role::base_color; })) << "taken back";
    // For the habit: the last word of the name is offered.
    key(Qt::Key_4, Qt::AltModifier | Qt::ShiftModifier);
    auto* ask = window->findChild<QInputDialog*>("habit_word");
    ASSERT_TRUE(ask);
    EXPECT_EQ(ask->textValue(), "panel");
    ask->accept();
    ASSERT_TRUE(wait([&] { return role_of("sun_panel") == Role::specular && role_of("star_panel") == Role::specular; }));
    // The window that lists habits forgets it again.
    key(Qt::Key_H, Qt::ControlModifier | Qt::ShiftModifier);
    auto* habits = dialog("habits");
    ASSERT_TRUE(habits);
    auto* list = habits->findChild<QListWidget*>("habit_list");
    ASSERT_GE(list->count(), 1);
    EXPECT_TRUE(list->item(0)->text().contains("panel"));
    models.catalog.set_role({item_named("moon_panel")}, Role::emission);
    ASSERT_TRUE(wait([&] { return role_of("moon_panel") == Role::emission; }));
    habits->close();
    // Remembered in the project.
    const auto saved = [&] {
        const auto project = open_project(folder / "project");
        return project && project->roles.size() == 1 && project->habits.size() == 1;
    };
    ASSERT_TRUE(wait(saved));
    EXPECT_EQ(open_project(folder / "project")->roles[0].role, "emission");
}

TEST_F(CatalogUi, TwinsAndCopiesGoToTheBenchTogether) {
    open_fair();
    type("\"front/bunting.dds\"");
    choose("bunting");
    ASSERT_TRUE(wait([&] { return !page->viewer()->relations().alike.empty(); }));
    const auto& alike = page->viewer()->relations().alike;
    EXPECT_TRUE(std::any_of(alike.begin(), alike.end(), [&](const AlikeTexture& a) {
        return a.index == item_named("bunting_far") && a.likeness == Likeness::smaller;
    }));
    EXPECT_GE(models.catalog.catalog()->analysis.twins[item_named("bunting")], 1u);
    auto* together = window->findChild<QPushButton*>("copies");
    ASSERT_TRUE(together && together->isVisible()) << "offered where the copies are shown";
    together->click();
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() >= 2 && !models.jobs.busy(); }));
    EXPECT_FALSE(models.bench.pieces()[0].follows());
    EXPECT_TRUE(models.bench.pieces()[1].follows());
    // "same picture elsewhere" narrows to twins.
    page->search()->clear();
    click_facet("same picture elsewhere");
    EXPECT_GE(row_named("bunting_far"), 0);
    EXPECT_LT(row_named("popcorn"), 0);
}

TEST_F(CatalogUi, APictureFindsItsTexture) {
    open_fair();
    const auto target = item_named("popcorn");
    QImage picture;
    ASSERT_TRUE(wait([&] { return !(picture = models.catalog.pictures().of(target)).isNull(); }));
    // As captured: another size, mirrored, opaque.
    const auto captured = picture.convertToFormat(QImage::Format_RGB888)
                              .scaled(75, 75, Qt::IgnoreAspectRatio, Qt::SmoothTransformation)
                              .mirrored(true, false);
    QApplication::clipboard()->setImage(captured);
    page->contact_sheet()->setFocus();
    key(Qt::Key_V, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return says("What looks like the pasted picture"); }));
    ASSERT_GT(page->model()->rowCount(), 0);
    EXPECT_EQ(page->model()->item_at(0), target);
    EXPECT_GT(page->model()->index(0).data(ContactModel::Score).toDouble(), 0.9);
    key(Qt::Key_Escape);
    EXPECT_FALSE(says("What looks like"));
    EXPECT_GT(page->model()->rowCount(), 50);
    // Dropped as a file.
    captured.save(to_text((folder / "shot.png").string()));
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(to_text((folder / "shot.png").string()))});
    QDragEnterEvent enter(QPoint(300, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(page, &enter);
    ASSERT_TRUE(enter.isAccepted());
    QDropEvent drop(QPointF(300, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(page, &drop);
    ASSERT_TRUE(wait([&] { return says("What looks like shot.png"); }));
    EXPECT_EQ(page->model()->item_at(0), target);
    // Typing searches again.
    QTest::keyClicks(page->contact_sheet(), "swan");
    EXPECT_FALSE(says("What looks like"));
    // What is no picture says so.
    put_file(folder / "no.png", bytes_of("nothing"));
    QString said;
    QObject::connect(&models.messages, &Messages::notice, [&](const QString& text) { said = text; });
    page->find_by(folder / "no.png");
    ASSERT_TRUE(wait([&] { return said.contains("no.png"); }));
}

TEST_F(CatalogUi, SearchesAreKept) {
    open_fair();
    type("carousel");
    click_facet("normal");
    const auto found = cards();
    key(Qt::Key_F, Qt::ControlModifier | Qt::ShiftModifier);
    auto* menu = window->findChild<QMenu*>("searches");
    ASSERT_TRUE(menu);
    const auto entry = [&](const QString& text) -> QAction* {
        for (auto* action : window->findChild<QMenu*>("searches")->actions())
            if (action->text().contains(text)) return action;
        return nullptr;
    };
    ASSERT_TRUE(entry("Keep this"));
    entry("Keep this")->trigger();
    auto* name = window->findChild<QInputDialog*>("keep_search");
    ASSERT_TRUE(name);
    name->setTextValue("bumps");
    name->accept();
    ASSERT_TRUE(wait([&] { return models.store.project().searches.size() == 1; }));
    menu->close();
    ASSERT_TRUE(wait([&] { return !window->findChild<QMenu*>("searches"); }));
    click_facet("normal");
    page->search()->clear();
    EXPECT_NE(cards(), found);
    key(Qt::Key_F, Qt::ControlModifier | Qt::ShiftModifier);
    ASSERT_TRUE(entry("bumps"));
    entry("bumps")->trigger();
    EXPECT_EQ(cards(), found);
    EXPECT_EQ(page->search()->text(), "carousel");
}

TEST_F(CatalogUi, ABatchIsExportedCanceledAndGoesOn) {
    open_fair();
    type("carousel");
    key(Qt::Key_E, Qt::ControlModifier);
    auto* ask = dialog("export");
    ASSERT_TRUE(ask);
    auto* what = ask->findChild<QComboBox*>("what");
    what->setCurrentIndex(what->count() - 1);
    EXPECT_TRUE(what->currentText().contains(QString::number(page->model()->texture_count())));
    ask->findChild<QLineEdit*>("place")->setText(to_text((folder / "out").string()));
    ask->findChild<QComboBox*>("shape")->setCurrentIndex(2);
    auto* state = ask->findChild<QLabel*>("state");
    auto* start = ask->findChild<QPushButton*>("start");
    start->click();
    // Halted before it has written everything, then canceled, whatever it has done by then.
    ASSERT_TRUE(models.catalog.exporting());
    models.catalog.exporting()->gate.pause();
    ask->findChild<QPushButton*>("cancel")->click();
    ASSERT_TRUE(wait([&] { return !models.catalog.exporting() && state->text().contains("Canceled"); })) << state->text().toStdString();
    EXPECT_TRUE(ask->findChild<QAbstractButton*>("resume")->isChecked()) << "the next press goes on";
    start->click();
    ASSERT_TRUE(wait([&] { return !models.catalog.exporting() && state->text().contains("written"); })) << state->text().toStdString();
    std::set<std::string> files;
    for (const auto& f : std::filesystem::recursive_directory_iterator(folder / "out"))
        if (f.is_regular_file() && f.path().filename() != "exported.jsonl")
            files.insert(f.path().lexically_relative(folder / "out").string());
    EXPECT_EQ(files.size(), page->model()->texture_count());
    EXPECT_TRUE(files.contains("carousel/horse_a/horse_a_tint.png")) << "a folder for the set";
    EXPECT_TRUE(files.contains("carousel/swan.png"));
    ask->close();
}

TEST_F(CatalogUi, SourcesAreDraggedSwitchedOffAndComparedWithTheBaseline) {
    open_fair();
    window->go_to(PageId::sources);
    auto* list = window->findChild<QListView*>("sources");
    const auto row_of = [&](const QString& name) {
        for (int row = 0; row < list->model()->rowCount(); ++row)
            if (list->model()->index(row, 0).data().toString() == name) return row;
        return -1;
    };
    const auto status = [&](const QString& name) { return list->model()->index(row_of(name), 0).data(Qt::AccessibleTextRole).toString(); };
    // Off: what it covered comes to light.
    list->setCurrentIndex(list->model()->index(row_of("zz_spare.crate"), 0));
    press(Qt::Key_X);
    ASSERT_TRUE(wait([&] { return status("zz_spare.crate").contains("switched off") && !models.jobs.busy(); }));
    EXPECT_EQ(models.catalog.snapshot()->sources[models.catalog.snapshot()->catalog.items[item_named("mirror")].source].path.filename(),
              "rides.crate");
    // A clean installation is recorded; what comes later is told.
    models.shipped.record("1.0");  // from the window: ui/shipped_test.cpp
    ASSERT_TRUE(wait([&] { return status("midway.zip").contains("as shipped") && !models.jobs.busy(); }))
        << status("midway.zip").toStdString();
    put_file(folder / "late.zip", make_zip({{"carousel/swan.pnl.dds", make_dds(Format::BC1, 32, 32)}}));
    models.sources.add(folder / "late.zip");
    ASSERT_TRUE(wait([&] { return row_of("late.zip") >= 0 && status("late.zip").contains("added later") && !models.jobs.busy(); }));
    put_file(folder / "other.dds", make_dds(Format::BC1, 256, 256, 0, 5));
    ASSERT_EQ(run_cli({"replace", (folder / "fair/midway.zip").string() + "::ground/meadow.dds", "--with", (folder / "other.dds").string(),
                       "--as-is", "--vault", (folder / "v").string()})
                  .code,
              0);
    models.delivery.refresh();
    ASSERT_TRUE(wait([&] {
        return status("midway.zip").contains("changed by someone else") && !models.jobs.busy() && models.catalog.catalog()->unseen == 0;
    })) << status("midway.zip").toStdString();
    window->go_to(PageId::catalog);
    click_facet("changed by someone else");
    EXPECT_EQ(cards(), QStringList{"meadow"});
    // Taken it is said; where the project wants only what is clean, it stays.
    QStringList told;
    QObject::connect(&models.messages, &Messages::notice, window.get(), [&](const QString& text) { told << text; });
    models.store.change([](Project& p) { p.only_as_shipped = true; });
    models.catalog.take({item_named("meadow")}, ExportAs::png);
    ASSERT_FALSE(told.isEmpty());
    EXPECT_TRUE(told.last().contains("ground/meadow.dds is not as shipped")) << told.last().toStdString();
    EXPECT_TRUE(told.last().contains("only what is as shipped"));
    models.catalog.take({item_named("meadow"), item_named("target")}, ExportAs::png);
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 1 && !models.jobs.busy(); }));
    EXPECT_EQ(models.bench.pieces().front().name(), "target");
    models.store.change([](Project& p) { p.only_as_shipped = false; });
    models.catalog.take({item_named("meadow")}, ExportAs::png);
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 2 && !models.jobs.busy(); }));
    // Dragged: the model moves it, rows follow.
    window->go_to(PageId::sources);
    const auto before = models.store.project().sources;
    models.sources.place(0, 2);
    ASSERT_TRUE(wait([&] { return !models.jobs.busy(); }));
    EXPECT_EQ(models.store.project().sources[2], before[0]);
    EXPECT_EQ(models.store.project().sources[0], before[1]);
}

TEST_F(CatalogUi, AProjectIsShownFromItsIndexAtOnce) {
    open_fair();
    const auto whole = models.catalog.snapshot()->catalog.items.size();
    ASSERT_TRUE(wait([&] { return !models.jobs.busy(); }));
    models.store.close();
    window.reset();
    Models again;
    Workspace second(again);
    std::size_t first_seen = 0;
    bool opened = true;
    QObject::connect(&again.catalog, &CatalogModel::catalog_changed, [&] {
        if (first_seen) return;
        first_seen = again.catalog.snapshot()->catalog.items.size();
        opened = again.catalog.snapshot()->whole;
    });
    again.store.open({folder / "project", {}, {}, {}});
    second.show();
    ASSERT_TRUE(wait([&] { return again.sources.ready() && !again.jobs.busy(); }));
    EXPECT_EQ(first_seen, whole) << "everything is there before an archive is opened";
    EXPECT_FALSE(opened);
    EXPECT_EQ(again.catalog.snapshot()->catalog.items.size(), whole);
    EXPECT_EQ(again.catalog.catalog()->unseen, 0u) << "nothing is looked at twice";
}

TEST_F(CatalogUi, AHundredThousandCardsCostNothing) {
    open_fair();
    std::vector<Card> cards(100'000);
    for (std::uint32_t i = 0; i < cards.size(); ++i) cards[i].first = i % 50;
    page->model()->show(std::move(cards));
    auto* contact_sheet = page->contact_sheet();
    EXPECT_EQ(contact_sheet->model()->rowCount(), 100'000);
    const auto last = page->model()->index(99'999);
    contact_sheet->setFocus();
    QTest::keyClick(contact_sheet, Qt::Key_End, Qt::ControlModifier);
    contact_sheet->scrollTo(last);
    EXPECT_TRUE(contact_sheet->viewport()->rect().contains(contact_sheet->visualRect(last).center()));
    EXPECT_EQ(contact_sheet->indexAt(contact_sheet->visualRect(last).center()), last);
    EXPECT_EQ(contact_sheet->verticalScrollBar()->value(), contact_sheet->verticalScrollBar()->maximum());
    // From card to card in reading order.
    contact_sheet->setCurrentIndex(page->model()->index(10));
    QTest::keyClick(contact_sheet, Qt::Key_Down);
    EXPECT_EQ(contact_sheet->currentIndex().row(), 10 + contact_sheet->columns());
    QTest::keyClick(contact_sheet, Qt::Key_Right, Qt::ShiftModifier);
    EXPECT_EQ(contact_sheet->selectionModel()->selectedIndexes().size(), 2);
    const int across = contact_sheet->columns();
    QTest::keyClick(contact_sheet, Qt::Key_Plus, Qt::ControlModifier);
    EXPECT_LE(contact_sheet->columns(), across);
    EXPECT_GT(contact_sheet->card_width(), 152);
}

// Pages on their own: empty states, sources that cannot be read, adding and dropping, the command finder, keys without a mouse.
#include <gtest/gtest.h>

#include <QTableView>

#include <filesystem>
#include <QDialog>
#include <QDropEvent>
#include <QMimeData>
#include <QtTest>
#include <string>

#include "app/pages/catalog_page.h"
#include "app/pages/delivery_page.h"
#include "app/pages/page_list.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "ui/window_test.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

struct Pages : WindowTest {
    std::filesystem::path make_archive(const std::string& name) {
        put_file(folder / name,
                 make_zip({{"a/horse.dds", make_dds(Format::BC1, 32, 32)}, {"a/mask.dds", make_dds(Format::BC4, 32, 32), true}}));
        return folder / name;
    }
};

}  // namespace

TEST_F(Pages, EmptyPagesSayWhatToDoNext) {
    open({});
    EXPECT_TRUE(says("Show where the game is installed"));
    window->go_to(PageId::catalog);
    EXPECT_TRUE(says("No textures yet"));
    window->go_to(PageId::bench);
    EXPECT_TRUE(says("The bench is empty"));
    window->go_to(PageId::fitting);
    EXPECT_TRUE(says("Nothing to fit yet"));
    window->go_to(PageId::delivery);
    EXPECT_TRUE(says("Nothing to deliver"));
    EXPECT_FALSE(window->page<DeliveryPage>()->findChild<QPushButton*>("deliver")->isEnabled());
}

TEST_F(Pages, DroppedArchivesBecomeSources) {
    open({});
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(QString::fromStdString(make_archive("dropped.zip").string()))});
    QDragEnterEvent enter(QPoint(10, 10), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(window.get(), &enter);
    EXPECT_TRUE(enter.isAccepted());
    QDropEvent drop(QPointF(10, 10), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(window.get(), &drop);
    ASSERT_TRUE(QTest::qWaitFor([&] { return models.catalog.snapshot()->catalog.items.size() == 2; }, 30'000));
    EXPECT_EQ(window->findChild<QListView*>("sources")->model()->rowCount(), 1);
    EXPECT_EQ(window->findChild<QTableView*>("entries")->model()->rowCount(), 2);
}

TEST_F(Pages, ASourceThatCannotBeReadSaysWhyAndTheOthersWork) {
    put_file(folder / "broken.zip", random_bytes(400, 1));
    open({folder / "broken.zip", make_archive("good.zip")});
    auto* list = window->findChild<QListView*>("sources");
    ASSERT_EQ(list->model()->rowCount(), 2);
    list->setCurrentIndex(list->model()->index(1, 0));
    EXPECT_TRUE(says("no archive we know"));
    EXPECT_EQ(models.catalog.snapshot()->texture_counts[1], 2u);
}

TEST_F(Pages, LoadOrderCanBeChangedByKeys) {
    open({make_archive("one.zip"), make_archive("two.zip")});
    auto* list = window->findChild<QListView*>("sources");
    list->setFocus();
    list->setCurrentIndex(list->model()->index(1, 0));
    ASSERT_EQ(list->currentIndex().data().toString(), "one.zip");
    QTest::keyClick(list, Qt::Key_Up, Qt::AltModifier);
    ASSERT_TRUE(
        QTest::qWaitFor([&] { return models.store.project().sources.back().filename() == "one.zip" && !models.jobs.busy(); }, 30'000));
    EXPECT_TRUE(models.catalog.snapshot()->catalog.items.back().effective);
}

TEST_F(Pages, TypingInTheSheetSearchesAndNothingFoundIsSaid) {
    open({make_archive("one.zip")});
    window->go_to(PageId::catalog);
    auto* contact_sheet = window->page<CatalogPage>()->contact_sheet();
    contact_sheet->setFocus();
    QTest::keyClicks(contact_sheet, "m");
    QTest::keyClicks(window->page<CatalogPage>()->search(), "ask");
    EXPECT_EQ(window->page<CatalogPage>()->search()->text(), "mask");
    EXPECT_EQ(contact_sheet->model()->rowCount(), 1);
    QTest::keyClicks(window->page<CatalogPage>()->search(), "zzz");
    EXPECT_TRUE(says("Nothing fits this search"));
    QTest::keyClick(window->page<CatalogPage>()->search(), Qt::Key_Escape);
    EXPECT_EQ(contact_sheet->model()->rowCount(), 2);
}

TEST_F(Pages, TheCommandFinderRunsACommandByItsName) {
    open({});
    QTest::keyClick(window.get(), Qt::Key_K, Qt::ControlModifier);
    ASSERT_TRUE(QTest::qWaitFor([&] { return window->findChild<QDialog*>("finder") != nullptr; }));
    auto* field = window->findChild<QDialog*>("finder")->findChild<QLineEdit*>();
    ASSERT_TRUE(QTest::qWaitFor([&] { return field->hasFocus(); }));  // keys go to what is in front
    QTest::keyClicks(field, "go to bench");
    QTest::keyClick(field, Qt::Key_Return);
    EXPECT_EQ(window->current(), PageId::bench);
}

TEST_F(Pages, TheViewerReadsOutTexelsBlocksAndExposure) {
    TextureDesc d{Format::BC6H, 16, 16, 1, 1, 1, 1, ColorSpace::unknown};
    ImageF bright(16, 16);
    for (auto& t : bright.texels) t = {4, 0.5f, 0.25f, 1};
    put_file(folder / "sky.zip", make_zip({{"sky/glow.dds", *write_dds(d, *encode(Format::BC6H, bright))}}));
    open({folder / "sky.zip"});
    window->go_to(PageId::catalog);
    auto* viewer = window->page<CatalogPage>()->viewer();
    viewer->show_item(0);
    auto* view = viewer->view();
    ASSERT_TRUE(QTest::qWaitFor([&] { return !view->image().isNull(); }, 10'000));
    EXPECT_EQ(view->image().pixelColor(3, 3).red(), 255) << "cut off at 1";
    QTest::mouseMove(view, view->rect().center());
    ASSERT_TRUE(QTest::qWaitFor([&] { return view->readout().size() >= 2; }, 5'000)) << "the pointer's texel is read out";
    EXPECT_TRUE(view->readout()[0].contains("stored 4 0.5 0.25")) << view->readout()[0].toStdString();
    EXPECT_TRUE(view->readout()[1].startsWith("block ")) << view->readout()[1].toStdString();
    EXPECT_TRUE(view->readout()[1].contains("mode ")) << view->readout()[1].toStdString();
    viewer->change_exposure(-3);
    ASSERT_TRUE(QTest::qWaitFor([&] { return view->image().pixelColor(3, 3).red() == 188; }, 5'000))
        << "4 at three stops less is 0.5, sRGB 188";
    EXPECT_TRUE(says("exposure -3"));
    viewer->show_histogram(true);
    EXPECT_TRUE(view->has_histogram());
    QEvent leave(QEvent::Leave);
    QCoreApplication::sendEvent(view, &leave);
    EXPECT_TRUE(view->readout().isEmpty());
}

TEST_F(Pages, AChannelChosenWhileATextureOpensIsNotLostAndDamageIsShown) {
    auto cut = make_dds(Format::BC3, 128, 64);
    cut.resize(128 + 5000);  // of 10,960
    put_file(folder / "cut.zip", make_zip({{"a/cut.dds", cut}, {"a/whole.dds", make_dds(Format::BC1, 32, 32)}}));
    open({folder / "cut.zip"});
    window->go_to(PageId::catalog);
    auto* viewer = window->page<CatalogPage>()->viewer();
    viewer->show_item(1);
    ASSERT_TRUE(QTest::qWaitFor([&] { return viewer->view()->image().width() == 32; }, 10'000));
    viewer->show_item(0);
    viewer->set_channels(Channels::color);  // before the first is open
    ASSERT_TRUE(QTest::qWaitFor([&] { return viewer->view()->image().width() == 128; }, 10'000));
    EXPECT_TRUE(says("mip chain: needs 10,960 bytes, has 5,000"));
    EXPECT_NE(viewer->view()->image().pixelColor(60, 10), QColor(0, 0, 0)) << "what is there is shown";
    EXPECT_EQ(viewer->view()->image().pixelColor(60, 60), QColor(0, 0, 0));
}

TEST_F(Pages, FactsSayHowMipsWereMadeAndWhatAlphaIs) {
    open({make_archive("a.zip")});
    window->go_to(PageId::catalog);
    window->page<CatalogPage>()->viewer()->show_item(1);
    EXPECT_TRUE(QTest::qWaitFor([&] { return says("box filter"); }, 10'000)) << window->findChild<QLabel*>("facts")->text().toStdString();
    EXPECT_FALSE(says("Alpha")) << "BC4 has none";
    window->page<CatalogPage>()->viewer()->show_item(0);
    EXPECT_TRUE(QTest::qWaitFor([&] { return says("cut-out"); }, 10'000)) << "what one bit leaves of the picture's alpha";
}

TEST_F(Pages, TakingTwiceGivesOnePiece) {
    open({make_archive("one.zip")});
    models.catalog.take({0}, ExportAs::png);
    models.catalog.take({0}, ExportAs::png);
    ASSERT_TRUE(QTest::qWaitFor([&] { return !models.jobs.busy(); }, 30'000));
    EXPECT_EQ(models.bench.pieces().size(), 1u);
}

TEST_F(Pages, TheProjectIsThereAgainAtTheNextStart) {
    open({make_archive("one.zip")});
    models.catalog.take({1}, ExportAs::dds);
    ASSERT_TRUE(QTest::qWaitFor([&] { return models.bench.pieces().size() == 1 && !models.jobs.busy(); }, 30'000));
    ASSERT_TRUE(QTest::qWaitFor(
        [&] { return std::filesystem::exists(folder / "project/project.json") && open_project(folder / "project")->pieces.size() == 1; },
        30'000));
    models.store.close();
    Models next;
    next.store.open({folder / "project", {}, {}, {}});
    ASSERT_TRUE(QTest::qWaitFor([&] { return next.sources.ready(); }, 30'000));
    ASSERT_EQ(next.store.project().pieces.size(), 1u);
    EXPECT_EQ(next.store.project().pieces[0].as, ExportAs::dds);
    EXPECT_EQ(next.store.project().sources.size(), 1u);
}

TEST_F(Pages, EverythingHasAnAccessibleName) {
    open({make_archive("one.zip")});
    for (const auto& row : page_list()) {
        window->go_to(row.id);
        for (const auto* widget : window->findChildren<QWidget*>()) {
            if (!widget->isVisible() || widget->focusPolicy() == Qt::NoFocus || !widget->isEnabled()) continue;
            const auto* box = qobject_cast<const QAbstractButton*>(widget);
            const bool container = qobject_cast<const QAbstractScrollArea*>(widget) && !qobject_cast<const QAbstractItemView*>(widget);
            const bool header = widget->inherits("QHeaderView") || widget->inherits("QTableView");
            EXPECT_TRUE(!widget->accessibleName().isEmpty() || (box && !box->text().isEmpty()) || container || header)
                << widget->metaObject()->className() << " " << widget->objectName().toStdString() << " on page " << row.title;
        }
    }
}

TEST_F(Pages, FitsTheSmallestWindow) {
    open({make_archive("one.zip")});
    window->resize(1024, 700);
    for (const auto& row : page_list()) {
        window->go_to(row.id);
        QTest::qWait(1);
        EXPECT_LE(window->all_pages()[std::size_t(row.id)]->minimumSizeHint().width(), 1024) << row.title;
        EXPECT_LE(window->minimumSizeHint().width(), 1024) << "page " << row.title;
        EXPECT_LE(window->minimumSizeHint().height(), 670) << "page " << row.title;
        for (const auto* button : window->findChildren<Button*>()) {
            if (!button->isVisible()) continue;
            EXPECT_GE(button->width(), button->sizeHint().width())
                << "cut off: " << button->text().toStdString() << " on page " << row.title;
        }
    }
}

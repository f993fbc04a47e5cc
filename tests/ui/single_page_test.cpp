// Each page with its model alone: no window, no other page, no other model.
#include <gtest/gtest.h>

#include <QListView>
#include <QPushButton>
#include <QSignalSpy>
#include <QtTest>
#include <vector>

#include "app/pages/bench_page.h"
#include "app/pages/catalog_page.h"
#include "app/pages/delivery_page.h"
#include "app/pages/fitting_page.h"
#include "app/pages/sources_page.h"
#include "ui/page_test.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

TEST_F(SinglePage, SourcesShowWhatIsInTheProject) {
    SourcesModel model(store);
    SourcesPage page(&model);
    page.show();
    EXPECT_TRUE(says(page, "No archive yet"));
    open();
    ASSERT_TRUE(wait([&] { return model.ready(); }));
    EXPECT_TRUE(says(page, "game.zip"));
    QSignalSpy gone(&page, &Page::go_to);
    QTest::keyClick(page.findChild<QListView*>("sources"), Qt::Key_Return);
    ASSERT_EQ(gone.size(), 1);
    EXPECT_EQ(gone[0][0].value<PageId>(), PageId::catalog);
}

TEST_F(SinglePage, TheCatalogShowsASnapshotItIsGiven) {
    CatalogModel model(store);
    CatalogPage page(&model);
    page.show();
    EXPECT_TRUE(says(page, "No textures yet"));
    ReadContext context;
    Progress progress;
    Project project;
    project.sources = {zip};
    const auto index = *IndexStore::open(":memory:");
    model.show(*read_sources(context, {project, nullptr, {}}, *index, progress));
    EXPECT_EQ(page.model()->rowCount(), 2);
    page.activateWindow();
    ASSERT_TRUE(QTest::qWaitForWindowActive(&page));
    QSignalSpy wanted(&model, &CatalogModel::wanted);
    page.contact_sheet()->setCurrentIndex(page.model()->index(1));
    page.contact_sheet()->setFocus();
    QTest::keyClick(page.contact_sheet(), Qt::Key_Return);
    ASSERT_EQ(wanted.size(), 1);
    const auto addresses = wanted[0][0].value<std::vector<TakeWith>>();
    ASSERT_EQ(addresses.size(), 1u);
    EXPECT_EQ(addresses[0].address, (Address{zip, {"a/two.dds"}}));
}

TEST_F(SinglePage, TheBenchKeepsTheChosenPieceByItsId) {
    BenchModel model(store);
    BenchPage page(&model);
    page.show();
    EXPECT_TRUE(says(page, "The bench is empty"));
    open();
    model.take({{zip, {"a/one.dds"}}, {zip, {"a/two.dds"}}}, ExportAs::png);
    ASSERT_TRUE(wait([&] { return model.pieces().size() == 2; }));
    const auto second = model.pieces()[1].id;
    page.choose_piece(second);
    EXPECT_EQ(page.current_piece(), second);
    model.put_away(model.pieces()[0].id);
    EXPECT_EQ(page.current_piece(), second) << "the same piece, in another row";
    QSignalSpy fit(&page, &Page::fit_wanted);
    page.list()->setFocus();
    QTest::keyClick(page.list(), Qt::Key_Return);
    ASSERT_EQ(fit.size(), 1);
    EXPECT_EQ(fit[0][0].value<PieceId>(), second);
    model.put_away(second);
    EXPECT_EQ(page.current_piece(), 0u);
    EXPECT_TRUE(says(page, "The bench is empty"));
}

TEST_F(SinglePage, FittingOffersTheMendsOfTheTable) {
    BenchModel model(store);
    FittingPage page(&model);
    page.resize(1200, 700);
    page.show();
    open();
    model.take({{zip, {"a/one.dds"}}}, ExportAs::png);
    ASSERT_TRUE(wait([&] { return model.pieces().size() == 1; }));
    const auto id = model.pieces()[0].id;
    paint(model, id, 20);
    page.show_piece(id);
    // Until the fit is the one of the file as it is now.
    ASSERT_TRUE(wait([&] { return page.findChild<QPushButton*>("mend") && model.fits().fit(id) && !jobs.busy(); }));
    EXPECT_EQ(page.findChild<QPushButton*>("mend")->text().toStdString(), info(Mend::resize).words);
    page.activateWindow();
    ASSERT_TRUE(QTest::qWaitForWindowActive(&page));
    page.entered();
    QTest::keyClick(page.result_view(), Qt::Key_M);
    ASSERT_TRUE(wait([&] {
        return model.piece(id)->options.mends.has(Mend::resize) && model.fits().fit(id) && model.fits().fit(id)->made.deliverable();
    }));
}

TEST_F(SinglePage, DeliveryWritesAndUndoes) {
    DeliveryModel model(store);
    DeliveryPage page(&model);
    page.show();
    EXPECT_TRUE(says(page, "Nothing to deliver"));
    open();
    const auto before = hash_of_file(zip);
    {
        BenchModel bench(store);
        bench.take({{zip, {"a/one.dds"}}}, ExportAs::png);
        ASSERT_TRUE(wait([&] { return bench.pieces().size() == 1; }));
        paint(bench, bench.pieces()[0].id);
    }
    page.entered();
    auto* button = page.findChild<QPushButton*>("deliver");
    ASSERT_TRUE(wait([&] { return button->isEnabled(); }));
    EXPECT_EQ(button->text(), "Deliver 1 piece");
    button->click();
    ASSERT_TRUE(wait([&] { return model.history().size() == 1 && !jobs.busy(); }));
    EXPECT_NE(hash_of_file(zip), before);
    EXPECT_TRUE(model.anything_in_the_game());
    page.findChild<QPushButton*>("undo")->click();
    ASSERT_TRUE(wait([&] { return model.history().empty() && !jobs.busy(); }));
    EXPECT_EQ(hash_of_file(zip), before);
}

TEST_F(SinglePage, WhatWritesIsDoneInOrderByOne) {
    // The second may not begin before the first has ended, whatever the others do.
    std::atomic<int> at_once{0}, most{0};
    std::vector<int> order;
    for (int i = 0; i < 8; ++i)
        jobs.run(
            Jobs::By::writer, &store, {},
            [&, i] {
                most = std::max(most.load(), ++at_once);
                std::this_thread::sleep_for(std::chrono::milliseconds(2));
                --at_once;
                return i;
            },
            [&](int n) { order.push_back(n); });
    EXPECT_TRUE(jobs.busy());
    ASSERT_TRUE(wait([&] { return !jobs.busy(); }));
    EXPECT_EQ(most, 1);
    EXPECT_EQ(order, (std::vector<int>{0, 1, 2, 3, 4, 5, 6, 7}));
}

TEST_F(SinglePage, AnAnswerForSomebodyWhoIsGoneIsDropped) {
    bool answered = false;
    {
        QObject asker;
        jobs.run(
            &asker, {}, [] { return 1; }, [&](int) { answered = true; });
    }
    ASSERT_TRUE(wait([&] { return !jobs.busy(); }));
    EXPECT_FALSE(answered);
}

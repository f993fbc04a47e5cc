// The bench and the fitting page with many pieces, saves of all kinds, and several mends at once.
#include <fmt/format.h>
#include <gtest/gtest.h>
#include <filesystem>
#include <QListWidget>
#include <QMessageBox>
#include <QPushButton>
#include <string>
#include <vector>

#include "app/pages/bench_page.h"
#include "app/pages/fitting_page.h"
#include "app/workshop/versions_window.h"
#include "support/imagemagick.h"
#include "ui/page_test.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

struct ManyPieces : SinglePage {
    std::vector<Address> addresses;

    void SetUp() override {
        std::vector<ZipItem> items;
        for (int i = 0; i < 12; ++i) {
            const auto name = fmt::format("{}/sign_{:02}.dds", i < 6 ? "front" : "back", i);
            items.push_back({name, make_dds(Format::BC1, 32, 32, 0, unsigned(i + 1))});
            addresses.push_back({zip, {name}});
        }
        put_file(zip, make_zip(items));
    }
    void take(BenchModel& model, std::size_t count) {
        open();
        model.take({addresses.begin(), addresses.begin() + std::ptrdiff_t(count)}, ExportAs::png);
        ASSERT_TRUE(wait([&] { return model.pieces().size() == count; }));
    }
    void save(const BenchModel& model, PieceId id, const Bytes& bytes, const std::string& ending = {}) {
        const auto file = model.file_of(*model.piece(id)).string() + ending;
        put_file(file + ".new", bytes);
        std::filesystem::rename(file + ".new", file);
    }
    Image picture(const BenchModel& model, PieceId id) { return *read_png(get_file(model.file_of(*model.piece(id))), ReadLimits{}); }
    /// The game's picture with a mark on it, another one for each seed.
    Image marked(const BenchModel& model, PieceId id, std::uint8_t seed) {
        auto out = picture(model, id);
        for (std::uint32_t y = 4; y < 12; ++y)
            for (std::uint32_t x = 4; x < 12; ++x) out.at(x, y) = {seed, std::uint8_t(255 - seed), 128, 255};
        return out;
    }
    static std::ptrdiff_t pieces_of(const BenchModel& model, PieceState state) {
        return std::count_if(model.pieces().begin(), model.pieces().end(), [&](const Piece& p) { return p.state == state; });
    }
    /// In front, so that keys arrive.
    void show(Page& page) {
        page.resize(1200, 700);
        page.show();
        page.activateWindow();
        ASSERT_TRUE(QTest::qWaitForWindowActive(&page));
        page.entered();
    }
};

void choose(QComboBox* box, int index) {
    box->setCurrentIndex(index);
    emit box->activated(index);
}

}  // namespace

TEST_F(ManyPieces, AreNarrowedDownSortedAndCounted) {
    BenchModel model(store);
    BenchPage page(&model);
    take(model, 12);
    show(page);
    EXPECT_TRUE(page.filters()->isVisible());
    EXPECT_TRUE(says(page, "12 out"));
    const auto id = model.pieces()[3].id;
    save(model, id, *write_png(marked(model, id, 50)));
    ASSERT_TRUE(wait([&] { return model.piece(id)->state == PieceState::fits; }));
    EXPECT_TRUE(says(page, "11 out · 1 fits"));

    auto* list = page.list();
    QTest::keyClick(&page, Qt::Key_F, Qt::ControlModifier);
    auto* words = page.findChild<QLineEdit*>("words");
    EXPECT_TRUE(words->hasFocus());
    QTest::keyClicks(words, "BACK/");
    EXPECT_EQ(list->model()->rowCount(), 6);
    EXPECT_TRUE(says(page, "6 of 12 shown"));
    words->clear();
    auto* states = page.findChild<QComboBox*>("states");
    choose(states, states->findText("fits · 1"));
    ASSERT_EQ(list->model()->rowCount(), 1);
    EXPECT_EQ(page.current_piece(), id);
    choose(states, 0);
    EXPECT_EQ(list->model()->rowCount(), 12);
    EXPECT_EQ(page.current_piece(), id) << "the chosen one stays";
    choose(page.findChild<QComboBox*>("order"), 3);
    EXPECT_EQ(list->model()->index(0, 0).data(PieceRows::IdRole).toULongLong(), id) << "what needs something first";
    EXPECT_EQ(page.current_piece(), id);
    QTest::keyClick(list, Qt::Key_A, Qt::ControlModifier);
    EXPECT_EQ(page.chosen_pieces().size(), 12u);
}

TEST_F(ManyPieces, ASaveInAnotherFormatIsOffered) {
    BenchModel model(store);
    BenchPage page(&model);
    take(model, 2);
    show(page);
    const auto id = model.pieces()[1].id;
    const auto first = marked(model, id, 60), second = marked(model, id, 61);
    const auto tiff = file_by_imagemagick(first, {}, "TIFF:.tif");
    const auto beside = model.file_of(*model.piece(id)).replace_extension(".tif");
    put_file(beside, tiff);
    auto* use = page.findChild<QPushButton*>("use_other");
    ASSERT_TRUE(wait([&] { return use->isVisible(); }));
    EXPECT_TRUE(says(page, "sign_01.dds.tif was saved beside sign_01.dds.png"));
    QTest::mouseClick(use, Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return model.piece(id)->file.extension() == ".tif" && !use->isVisible(); }));
    ASSERT_TRUE(wait([&] { return model.piece(id)->state == PieceState::fits; }));
    ASSERT_TRUE(wait([&] { return model.fits().fit(id) != nullptr; }));
    EXPECT_EQ(model.fits().fit(id)->made.fit->edited, first) << "saving goes on in the new file";
    put_file(beside, file_by_imagemagick(second, {}, "TIFF:.tif"));
    ASSERT_TRUE(wait([&] { return model.fits().fit(id) && model.fits().fit(id)->made.fit->edited == second; }));
}

TEST_F(ManyPieces, AFileWrittenInTwoHalvesIsSeenOnce) {
    BenchModel model(store);
    take(model, 1);
    const auto id = model.pieces()[0].id;
    const auto whole = *write_png(random_picture(32, 32, 5));
    const auto file = model.file_of(*model.piece(id)).string();
    auto* f = std::fopen(file.c_str(), "wb");
    ASSERT_TRUE(f);
    std::fwrite(whole.data(), 1, whole.size() / 2, f);
    std::fflush(f);
    QTest::qWait(500);
    EXPECT_EQ(model.piece(id)->state, PieceState::out) << "half of it is waited for";
    std::fwrite(whole.data() + whole.size() / 2, 1, whole.size() - whole.size() / 2, f);
    std::fclose(f);
    ASSERT_TRUE(wait([&] { return model.piece(id)->state != PieceState::out; }));
    EXPECT_EQ(store.project().versions.size(), 1u);
}

TEST_F(ManyPieces, OneGoesBackToAnEarlierSave) {
    BenchModel model(store);
    BenchPage page(&model);
    take(model, 1);
    show(page);
    const auto id = model.pieces()[0].id;
    const auto first = *write_png(marked(model, id, 70)), second = *write_png(marked(model, id, 71));
    for (const auto& bytes : {first, second}) {
        const auto count = model.versions(id).size();
        save(model, id, bytes);
        ASSERT_TRUE(wait([&] { return model.versions(id).size() == count + 1; }));
    }
    QTest::keyClick(page.list(), Qt::Key_V);
    auto* window = page.findChild<VersionsWindow*>();
    ASSERT_TRUE(window);
    ASSERT_EQ(window->list()->count(), 2);
    EXPECT_TRUE(window->list()->item(0)->text().contains("in the work folder"));
    const auto in_front = [&] {
        window->activateWindow();
        window->list()->setFocus();
        return window->isActiveWindow() && window->list()->hasFocus();
    };
    ASSERT_TRUE(wait(in_front));
    QTest::keyClick(window->list(), Qt::Key_Down);
    ASSERT_TRUE(wait(in_front));
    QTest::keyClick(window->list(), Qt::Key_Return);
    ASSERT_TRUE(wait([&] { return get_file(model.file_of(*model.piece(id))) == first; }));
    ASSERT_TRUE(wait([&] { return window->list()->item(1) && window->list()->item(1)->text().contains("in the work folder"); }));
    EXPECT_EQ(model.versions(id).size(), 2u) << "nothing is lost by going back";
    model.clear_versions();
    ASSERT_TRUE(wait([&] { return model.versions(id).size() == 1; }));
    EXPECT_EQ(get_file(model.file_of(*model.piece(id))), first);
    window->reject();
}

TEST_F(ManyPieces, TheNewTextureReplacesAnEditOnlyAfterAQuestion) {
    BenchModel model(store);
    BenchPage page(&model);
    take(model, 1);
    const auto id = model.pieces()[0].id;
    const auto edit = *write_png(marked(model, id, 80));
    save(model, id, edit);
    ASSERT_TRUE(wait([&] { return model.is_edited(id) && !jobs.busy(); }));
    store.change([&](Project& p) { p.piece(id)->state = PieceState::gone_stale; });
    store.tell_pieces_changed();
    show(page);
    QTest::keyClick(page.list(), Qt::Key_N);
    ASSERT_EQ(page.current_piece(), id);
    ASSERT_EQ(model.piece(id)->state, PieceState::gone_stale);
    auto* ask = page.findChild<QMessageBox*>();
    ASSERT_TRUE(ask) << "the edit in the work folder is the modder's";
    EXPECT_EQ(get_file(model.file_of(*model.piece(id))), edit);
    QTest::mouseClick(ask->buttons().first(), Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return model.piece(id)->state == PieceState::out; }));
    EXPECT_FALSE(model.is_edited(id));
    EXPECT_EQ(model.versions(id).size(), 1u) << "and it can be had back";
}

TEST_F(ManyPieces, TheSameFaultIsMendedInAllOfThem) {
    BenchModel model(store);
    FittingPage page(&model);
    take(model, 4);
    std::vector<PieceId> ids;
    for (const auto& piece : model.pieces()) ids.push_back(piece.id);
    // Three were saved upside down, by a program; one is sound.
    for (std::size_t i = 0; i < 3; ++i) save(model, ids[i], file_by_imagemagick(picture(model, ids[i]), {"-flip"}));
    save(model, ids[3], *write_png(marked(model, ids[3], 90)));
    const auto count = [&](PieceState state) { return pieces_of(model, state); };
    ASSERT_TRUE(wait([&] { return count(PieceState::needs_mend) == 3 && count(PieceState::fits) == 1; })) << "without going there";
    show(page);
    EXPECT_EQ(page.list()->model()->index(3, 0).data(PieceRows::IdRole).toULongLong(), ids[3]) << "what needs something comes first";
    const auto button = [&] { return page.findChild<QPushButton*>("mend_all"); };
    ASSERT_TRUE(wait([&] { return button() && button()->text() == "In all 3"; }));
    EXPECT_TRUE(wait([&] { return says(page, "Upside down"); }));
    QTest::mouseClick(button(), Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return count(PieceState::fits) == 4; }));
    for (std::size_t i = 0; i < 3; ++i) EXPECT_TRUE(model.piece(ids[i])->options.mends.has(Mend::undo_save));
    ASSERT_TRUE(wait([&] { return model.fits().fit(ids[0]) != nullptr; }));
    EXPECT_EQ(model.fits().fit(ids[0])->made.fit->new_blocks(), 0u) << "nothing else was changed, so nothing is";
}

TEST_F(ManyPieces, ChosenPiecesAreMendedByOneKey) {
    BenchModel model(store);
    FittingPage page(&model);
    take(model, 3);
    std::vector<PieceId> ids;
    for (const auto& piece : model.pieces()) ids.push_back(piece.id);
    for (const auto id : ids) save(model, id, *write_png(smooth_picture(20, 20, 1)));
    const auto count = [&](PieceState state) { return pieces_of(model, state); };
    ASSERT_TRUE(wait([&] { return count(PieceState::needs_mend) == 3; }));
    show(page);
    page.list()->setCurrentIndex(page.list()->model()->index(0, 0));
    QTest::keyClick(page.list(), Qt::Key_Down, Qt::ShiftModifier);
    EXPECT_EQ(page.chosen_pieces().size(), 2u);
    QTest::keyClick(page.list(), Qt::Key_M);
    ASSERT_TRUE(wait([&] { return count(PieceState::fits) == 2 && count(PieceState::needs_mend) == 1; }));
}

TEST_F(ManyPieces, TheFittingPageIsWorkedByKeysAndBlocksByTheMouse) {
    BenchModel model(store);
    FittingPage page(&model);
    take(model, 1);
    const auto id = model.pieces()[0].id;
    auto image = picture(model, id);
    const Texel colors[] = {{255, 0, 0, 255}, {0, 255, 0, 255}, {0, 0, 255, 255}, {255, 255, 255, 255}};
    std::uint32_t x = 0, y = 0;  // of a block that is opaque
    for (std::uint32_t block = 0; block < 64; ++block) {
        x = block % 8 * 4, y = block / 8 * 4;
        bool opaque = true;
        for (std::uint32_t i = 0; i < 16; ++i) opaque = opaque && image.at(x + i % 4, y + i / 4)[3] == 255;
        if (opaque) break;
    }
    for (std::uint32_t i = 0; i < 16; ++i) image.at(x + i % 4, y + i / 4) = colors[i % 4];
    const QPoint red{int(x), int(y)};
    save(model, id, *write_png(image));
    ASSERT_TRUE(wait([&] { return model.piece(id)->state == PieceState::fits; }));
    show(page);
    auto* compare = page.compare();
    ASSERT_TRUE(wait([&] { return !compare->view(3)->image().isNull(); }));
    ASSERT_TRUE(wait([&] { return says(page, "1 block lost much"); }));
    QTest::mouseClick(page.findChild<QPushButton*>("show"), Qt::LeftButton);
    EXPECT_TRUE(says(page, QStringLiteral("Block at %1, %2 · new").arg(x).arg(y))) << "the finding leads there";
    // The same block by a click at its place, seen whole: it is let go.
    QTest::keyClick(&page, Qt::Key_Z);
    QTest::keyClick(&page, Qt::Key_1);
    EXPECT_EQ(compare->layout_mode(), CompareView::Layout::one);
    EXPECT_TRUE(compare->view(2)->isVisible());
    QTest::keyClick(&page, Qt::Key_F);
    EXPECT_TRUE(compare->view(3)->isVisible()) << "the next at the same spot";
    QTest::keyClick(&page, Qt::Key_F);
    EXPECT_TRUE(compare->view(0)->isVisible());
    QTest::keyClick(&page, Qt::Key_S);
    EXPECT_EQ(compare->layout_mode(), CompareView::Layout::split);
    EXPECT_FALSE(compare->view(1)->second().isNull());
    QTest::keyClick(&page, Qt::Key_W);
    EXPECT_TRUE(says(page, "Block at"));
    QTest::keyClick(&page, Qt::Key_0);
    // A channel for all of them; alpha's difference by itself.
    QTest::keyClick(&page, Qt::Key_A, Qt::AltModifier);
    const auto alpha = image.at(5, 5)[3];
    ASSERT_TRUE(wait([&] { return compare->view(0)->image().pixelColor(5, 5) == QColor(alpha, alpha, alpha); }));
    EXPECT_EQ(compare->view(3)->image().pixelColor(red), QColor(0, 0, 0));
    QTest::keyClick(&page, Qt::Key_R, Qt::AltModifier);
    ASSERT_TRUE(wait([&] { return compare->view(1)->image().pixelColor(red.x() + 1, red.y()) == QColor(0, 0, 0); })) << "green has no red";
    EXPECT_EQ(compare->view(1)->image().pixelColor(red), QColor(255, 255, 255));
    QTest::keyClick(&page, Qt::Key_D);
    QTest::keyClick(&page, Qt::Key_X);
    ASSERT_TRUE(wait([&] { return says(page, "Lost ×16"); }));
}

TEST_F(ManyPieces, WhatCannotBeReadIsNotReadAgainAndAgain) {
    BenchModel model(store);
    take(model, 1);
    const auto id = model.pieces()[0].id;
    std::filesystem::remove(store.project().original_of(model.pieces()[0]));
    std::filesystem::remove(model.file_of(model.pieces()[0]));
    QSignalSpy ready(&model, &BenchModel::picture_ready);
    EXPECT_TRUE(model.picture(id, false).isNull());
    ASSERT_TRUE(wait([&] { return ready.size() == 1 && !jobs.busy(); }));
    // As each painting asks.
    EXPECT_TRUE(model.picture(id, false).isNull());
    EXPECT_TRUE(model.picture(id, true).isNull());
    QTest::qWait(200);
    EXPECT_EQ(ready.size(), 1);
    EXPECT_FALSE(jobs.busy());
}

// Widgets and models on their own.
#include <gtest/gtest.h>

#include <filesystem>
#include <QAbstractItemModelTester>
#include <QSignalSpy>
#include <QtTest>
#include <vector>

#include "app/models/entry_table.h"
#include "app/models/fit_pictures.h"
#include "app/pages/block_panel.h"
#include "app/pages/mip_strip.h"
#include "app/theme/theme.h"
#include "app/widgets/button.h"
#include "app/widgets/byte_map.h"
#include "app/widgets/channel_row.h"
#include "app/widgets/compare_view.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/image_view.h"
#include "app/widgets/route.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

QImage drawn(PieceState state) {
    QImage image(24, 24, QImage::Format_ARGB32);
    image.fill(Qt::white);
    QPainter p(&image);
    draw_state(p, QPointF(12, 12), state);
    return image;
}

std::shared_ptr<const CatalogSnapshot> stock_of(const std::filesystem::path& zip) {
    AnalysisContext analysis;
    analysis.project.sources = {zip};
    Progress progress;
    return (*read_sources(ReadContext(), analysis, **IndexStore::open({}), progress))->snapshot;
}

}  // namespace

TEST(Pictures, NormalsInAlphaAndGreenAreLitLikeThoseInRedAndGreen) {
    const auto plain = test::random_picture(16, 16, 3);
    auto swapped = plain;
    for (auto& t : swapped.texels) t = {255, t[1], 0, t[0]};
    EXPECT_EQ(app::lit_picture(plain, {0.3, -0.4}), app::lit_picture(swapped, {0.3, -0.4}, 3));
    EXPECT_NE(app::lit_picture(plain, {0.3, -0.4}), app::lit_picture(swapped, {0.3, -0.4}));
}

TEST(Glyphs, EveryStateLooksDifferent) {
    const PieceState states[] = {PieceState::on_the_bench, PieceState::out,       PieceState::changed,   PieceState::fits,
                                 PieceState::needs_mend,   PieceState::delivered, PieceState::gone_stale};
    for (auto a : states)
        for (auto b : states)
            if (a != b) EXPECT_NE(drawn(a), drawn(b)) << name_of(a) << " and " << name_of(b);
}

TEST(Glyphs, TheSurroundIsNeutral) {
    const auto& c = colors();
    for (const auto& gray : {c.ink, c.soft, c.line, c.panel, c.page, c.well, c.card, c.border}) {
        EXPECT_EQ(gray.red(), gray.green());
        EXPECT_EQ(gray.green(), gray.blue());
    }
    EXPECT_EQ(c.well, QColor(0x76, 0x76, 0x76));
}

TEST(Fonts, AreTheShippedOnes) {
    EXPECT_EQ(QFontInfo(text_font(13)).family(), "Skivet Text");
    EXPECT_EQ(QFontInfo(number_font(12)).family(), "Skivet Numbers");
    const QFontMetrics numbers(number_font(20));
    EXPECT_EQ(numbers.horizontalAdvance('1'), numbers.horizontalAdvance('8')) << "numbers in tables line up";
    const QFontMetrics text(text_font(20));
    EXPECT_NE(text.horizontalAdvance('i'), text.horizontalAdvance('m'));
}

TEST(RouteWidget, IsWalkedWithKeysAndMouse) {
    Route route({"One", "Two", "Three"});
    route.resize(600, 66);
    QSignalSpy chosen(&route, &Route::chosen);
    QTest::mouseClick(&route, Qt::LeftButton, {}, QPoint(300 + 148, 27));
    ASSERT_EQ(chosen.size(), 1);
    EXPECT_EQ(chosen[0][0].toInt(), 2);
    route.set_current(1);
    EXPECT_EQ(route.accessibleDescription(), "Two, station 2 of 3");
    QTest::keyClick(&route, Qt::Key_Left);
    EXPECT_EQ(chosen.last()[0].toInt(), 0);
    QTest::keyClick(&route, Qt::Key_Right);
    EXPECT_EQ(chosen.last()[0].toInt(), 2);
    route.set_current(2);
    const auto count = chosen.size();
    QTest::keyClick(&route, Qt::Key_Right);
    EXPECT_EQ(chosen.size(), count) << "there is nothing behind the last station";
}

TEST(ButtonWidget, FollowsItsActionAndShowsItsKey) {
    QAction action("Deliver");
    action.setShortcut(QKeySequence(Qt::CTRL | Qt::Key_Return));
    Button button(&action, Button::Look::primary);
    const auto with_key = button.sizeHint().width();
    EXPECT_TRUE(button.toolTip().contains("Ctrl+Enter"));
    EXPECT_EQ(button.accessibleName(), "Deliver");
    action.setText("Deliver 12 pieces");
    EXPECT_EQ(button.text(), "Deliver 12 pieces");
    EXPECT_GT(button.sizeHint().width(), with_key);
    action.setEnabled(false);
    EXPECT_FALSE(button.isEnabled());
    action.setEnabled(true);
    QSignalSpy triggered(&action, &QAction::triggered);
    QTest::mouseClick(&button, Qt::LeftButton);
    EXPECT_EQ(triggered.size(), 1);
}

TEST(ImageViewWidget, SharesOneViewAndZoomsAtThePointer) {
    SharedView shared;
    ImageView a(&shared), b(&shared);
    for (auto* view : {&a, &b}) {
        view->resize(224, 224);
        view->set_image(QImage(100, 100, QImage::Format_RGBA8888));
    }
    QWheelEvent wheel(QPointF(112, 112), a.mapToGlobal(QPointF(112, 112)), {}, QPoint(0, 120), Qt::NoButton, Qt::NoModifier,
                      Qt::NoScrollPhase, false);
    QApplication::sendEvent(&a, &wheel);
    EXPECT_NEAR(shared.zoom, 1.2, 1e-9);
    EXPECT_NEAR(shared.center.x(), 0.5, 1e-9) << "the middle stays in the middle";
    const auto center = shared.center;
    QTest::keyClick(&b, Qt::Key_Right);
    EXPECT_GT(shared.center.x(), center.x());
    a.toggle_one_to_one();
    EXPECT_NEAR(shared.zoom, 1, 1e-9) << "first the whole picture";
    a.toggle_one_to_one();
    EXPECT_NEAR(shared.zoom, 0.5, 1e-9) << "200 px of room for 100 texels: one texel a pixel is half of fitting";
    shared.set(1e9, {7, -7});
    EXPECT_EQ(shared.zoom, 64);
    EXPECT_EQ(shared.center, QPointF(1, 0));
}

TEST(ImageViewWidget, ShowsAMessageInsteadOfAPicture) {
    SharedView shared;
    ImageView view(&shared);
    view.resize(200, 200);
    view.set_message("cannot be read");
    EXPECT_TRUE(view.image().isNull());
    EXPECT_FALSE(view.grab().isNull());
    view.set_image(QImage(4, 4, QImage::Format_RGBA8888));
    EXPECT_FALSE(view.image().isNull());
}

TEST(MipStripWidget, ChoosesWithKeysAndMouse) {
    MipStrip strip;
    strip.resize(300, 44);
    std::vector<QImage> levels(4, QImage(8, 8, QImage::Format_RGBA8888));
    strip.set_pictures(levels);
    QSignalSpy chosen(&strip, &MipStrip::chosen);
    QTest::mouseClick(&strip, Qt::LeftButton, {}, QPoint(48 * 2 + 10, 20));
    ASSERT_EQ(chosen.size(), 1);
    EXPECT_EQ(chosen[0][0].toInt(), 2);
    strip.set_current(3);
    QTest::keyClick(&strip, Qt::Key_Right);
    EXPECT_EQ(chosen.size(), 1) << "there is no fifth level";
    QTest::keyClick(&strip, Qt::Key_Left);
    EXPECT_EQ(chosen.last()[0].toInt(), 2);
    QTest::mouseClick(&strip, Qt::LeftButton, {}, QPoint(290, 20));
    EXPECT_EQ(chosen.size(), 2);
}

TEST(Pictures, ChannelsAreTakenApart) {
    const Image image(1, 1, {10, 20, 30, 40});
    const auto at = [&](Channels c) { return to_qimage(image, c).pixelColor(0, 0); };
    EXPECT_EQ(at(Channels::color), QColor(10, 20, 30, 255));
    EXPECT_EQ(at(Channels::red), QColor(10, 10, 10));
    EXPECT_EQ(at(Channels::green), QColor(20, 20, 20));
    EXPECT_EQ(at(Channels::blue), QColor(30, 30, 30));
    EXPECT_EQ(at(Channels::alpha), QColor(40, 40, 40));
    EXPECT_EQ(at(Channels::alpha_over), QColor(10, 20, 30, 40));
}

TEST(Pictures, LightFallsOnWhatFacesIt) {
    Image normals(3, 1, {128, 128, 255, 255});
    normals.texels[1] = {228, 128, 0, 255};  // leaning to the right; blue is not needed
    normals.texels[2] = {28, 128, 0, 255};
    const auto from_right = lit_picture(normals, {0.8, 0}), from_left = lit_picture(normals, {-0.8, 0});
    EXPECT_GT(from_right.pixelColor(1, 0).red(), from_right.pixelColor(2, 0).red() + 80);
    EXPECT_EQ(from_right.pixelColor(1, 0), from_left.pixelColor(2, 0));
}

TEST(Pictures, HistogramsCountTheStoredChannels) {
    const auto counts = histogram_of(Image(4, 4, {7, 9, 0, 255}), info(Format::BC5));
    ASSERT_EQ(counts.size(), 2u);
    EXPECT_EQ(counts[0][7], 16u);
    EXPECT_EQ(counts[1][9], 16u);
    EXPECT_EQ(histogram_of(Image(1, 1), info(Format::BC7)).size(), 4u);
}

TEST(Pictures, DifferenceIsBlackWhereEqual) {
    Image a(2, 1, {50, 50, 50, 255}), b = a;
    b.texels[1][0] = 60;
    b.texels[1][3] = 252;
    const auto picture = difference_picture(a, b, Channels::color, 4);
    EXPECT_EQ(picture.pixelColor(0, 0), QColor(0, 0, 0));
    EXPECT_EQ(picture.pixelColor(1, 0), QColor(40, 0, 0)) << "four times amplified, each color by itself";
    EXPECT_EQ(difference_picture(a, b, Channels::red, 1).pixelColor(1, 0), QColor(10, 10, 10));
    EXPECT_EQ(difference_picture(a, b, Channels::alpha, 16).pixelColor(1, 0), QColor(48, 48, 48)) << "alpha by itself";
}

TEST(ByteMapWidget, FindsTheEntryUnderThePointer) {
    TempFolder folder;
    put_file(folder / "a.zip", make_zip({{"x.dds", make_dds(Format::BC1, 32, 32)}, {"y.txt", random_bytes(900, 1)}}));
    const auto snapshot = stock_of(folder / "a.zip");
    ByteMap map;
    map.resize(400, 92);
    map.show_source(snapshot, 0);
    EXPECT_EQ(map.gap_bytes(), 0u);
    QSignalSpy chosen(&map, &ByteMap::entry_chosen);
    QTest::mouseClick(&map, Qt::LeftButton, {}, QPoint(5, 20));
    ASSERT_EQ(chosen.size(), 1);
    EXPECT_EQ(chosen[0][0].toInt(), 0);
    const auto size = std::filesystem::file_size(folder / "a.zip");
    const auto second = int(snapshot->sources[0].container->entries()[1].at * 400 / size + 20);
    QTest::mouseClick(&map, Qt::LeftButton, {}, QPoint(second, 20));
    EXPECT_EQ(chosen.last()[0].toInt(), 1);
    QTest::mouseClick(&map, Qt::LeftButton, {}, QPoint(399, 20));
    EXPECT_EQ(chosen.size(), 2) << "the directory is no entry";
    // Before: plain; after choosing: framed in the accent.
    const auto plain = map.grab().toImage();
    map.select_entry(1);
    EXPECT_NE(map.grab().toImage(), plain);
}

TEST(EntryTableModel, KeepsTheRulesOfModels) {
    TempFolder folder;
    put_file(folder / "inner.zip", make_zip({{"deep.dds", make_dds(Format::BC4, 16, 16)}}));
    put_file(folder / "a.zip",
             make_zip({{"x.dds", make_dds(Format::BC1, 32, 32)}, {"inner.zip", get_file(folder / "inner.zip")}, {"z.txt", bytes_of("z")}}));
    EntryTable table;
    QAbstractItemModelTester tester(&table, QAbstractItemModelTester::FailureReportingMode::Fatal);
    table.show_source(stock_of(folder / "a.zip"), 0);
    ASSERT_EQ(table.rowCount(), 4);
    EXPECT_EQ(table.data(table.index(0, 1), Qt::DisplayRole).toString(), "texture · BC1 · 32×32 · 6 mips");
    EXPECT_EQ(table.data(table.index(1, 1), Qt::DisplayRole).toString(), "archive");
    EXPECT_EQ(table.data(table.index(2, 0), Qt::DisplayRole).toString(), "inner.zip ▸ deep.dds");
    EXPECT_EQ(table.data(table.index(3, 1), Qt::DisplayRole).toString(), "other data");
    EXPECT_EQ(table.data(table.index(0, 4), Qt::DisplayRole).toString(), "0x0");
    // Rows of archives inside do not shift the entries of the byte map.
    EXPECT_EQ(table.row_of_entry(2), 3);
    EXPECT_EQ(table.entry_of_row(3), 2);
    EXPECT_EQ(table.row_of_entry(9), -1);
}

TEST(FitPictures, ShowWhatBecameOfEachBlock) {
    const auto original =
        std::make_shared<TextureFile>(*TextureFile::open(TextureKinds::standard(), make_dds(Format::BC1, 32, 16), "x", ReadLimits{}));
    auto image = *original->decode(0);
    image.at(9, 5) = {255, 0, 255, 255};
    auto fitted = std::make_shared<FittedPiece>();
    fitted->original = original;
    EditedFile edited;
    edited.image = image;
    fitted->made.fit = *fit(*original, std::move(edited), {});
    draw_blocks(*fitted, Qt::red);
    ASSERT_EQ(fitted->new_blocks.size(), QSize(8, 4));
    for (int y = 0; y < 4; ++y)
        for (int x = 0; x < 8; ++x) {
            EXPECT_EQ(qAlpha(fitted->new_blocks.pixel(x, y)) > 0, x == 2 && y == 1);
            EXPECT_EQ(qAlpha(fitted->lost_blocks.pixel(x, y)) > 0, x == 2 && y == 1) << "the block cannot hold it exactly";
        }
    const auto mips = mips_of(*fitted, 4, 16);
    EXPECT_EQ(mips.game.size(), 4u);
    EXPECT_EQ(mips.result.size(), 4u);
    EXPECT_EQ(mips.game[0].size(), QSize(16, 8));
    const auto sides = sides_of(fitted, {});
    for (const auto& picture : sides.pictures) EXPECT_EQ(picture.size(), QSize(32, 16));
    EXPECT_EQ(sides.pictures[1].pixelColor(9, 5), QColor(255, 0, 255));
    EXPECT_EQ(sides.pictures[3].pixelColor(30, 14), QColor(0, 0, 0));
    const auto blue = sides_of(fitted, {Channels::blue, true, 1});
    EXPECT_EQ(blue.pictures[1].pixelColor(9, 5), QColor(255, 255, 255)) << "the channel as gray";
    const auto& fit = *fitted->made.fit;
    EXPECT_EQ(blue.pictures[3].pixelColor(9, 5).red(), std::abs(fit.edited.at(9, 5)[2] - fit.result.at(9, 5)[2])) << "what was lost";
}

TEST(FitPictures, ReducedOnesAreMeansOfWhatIsSeen) {
    // A square of 4×4: half of it clear, half opaque red. What is clear adds no color.
    QImage picture(8, 4, QImage::Format_RGBA8888);
    picture.fill(QColor(200, 0, 0));
    for (int y = 0; y < 4; ++y)
        for (int x = 0; x < 2; ++x) picture.setPixelColor(x, y, QColor(0, 255, 0, 0));
    const auto small = reduced(picture, 4);
    ASSERT_EQ(small.size(), QSize(2, 1));
    EXPECT_EQ(small.pixelColor(1, 0), QColor(200, 0, 0));
    EXPECT_NEAR(small.pixelColor(0, 0).alpha(), 128, 1);
    EXPECT_NEAR(small.pixelColor(0, 0).red(), 200, 2);
    EXPECT_EQ(small.pixelColor(0, 0).green(), 0);
    FitSides sides;
    sides.pictures[1] = picture;
    const auto made = with_reduced(sides);
    EXPECT_TRUE(made.reduced[0].isNull());
    EXPECT_EQ(made.reduced[1], small);
}

TEST(CompareViewWidget, DrawsTheReducedPictureWhereItIsEnough) {
    CompareView view;
    view.resize(300, 300);
    view.set_layout(CompareView::Layout::one);
    QImage white(512, 512, QImage::Format_RGB32), gray(200, 200, QImage::Format_RGB32);
    white.fill(Qt::white);
    gray.fill(QColor(90, 90, 90));  // as if it were the same
    view.set_pictures({white, white, white, white}, {});
    view.set_reduced({gray, gray, gray, gray});
    const auto middle = [&] { return view.view(0)->grab().toImage().pixelColor(view.view(0)->rect().center()).red(); };
    EXPECT_EQ(middle(), 255) << "shown with more pixels than it has";
    view.resize(220, 220);
    EXPECT_EQ(middle(), 90);
    view.set_pictures({white, white, white, white}, {});
    EXPECT_EQ(middle(), 255) << "it belonged to the last picture";
}

TEST(FitPictures, AreNormalsAsPeopleKnowThem) {
    Image stored(64, 64);
    for (auto& t : stored.texels) t = {204, 128, 0, 255};
    NormalChannels red_green;
    red_green.z = -1;
    EXPECT_EQ(whole(stored, red_green).pixelColor(3, 3), QColor(204, 128, 230));
    EXPECT_EQ(small(stored, 8, red_green).size(), QSize(8, 8));
    EXPECT_EQ(small(stored, 8, red_green).pixelColor(3, 3), QColor(204, 128, 230));
    EXPECT_EQ(small(stored, 100, red_green).pixelColor(63, 63), QColor(204, 128, 230));
    EXPECT_EQ(small(stored, 8).pixelColor(3, 3), QColor(204, 128, 0));
    EXPECT_EQ(whole(stored, NormalChannels()).pixelColor(3, 3), QColor(204, 128, 0)) << "it holds what is in blue";
}

TEST(CompareViewWidget, ChoosesTheColumnsThatMakePicturesLargest) {
    CompareView view;
    view.resize(840, 500);
    const auto places = [&](const QSize& size) {
        QImage picture(size, QImage::Format_RGBA8888);
        view.set_pictures({picture, picture, picture, picture}, {});
        return std::pair{view.view(1)->geometry().topLeft() - view.view(0)->geometry().topLeft(),
                         view.view(2)->geometry().topLeft() - view.view(0)->geometry().topLeft()};
    };
    const auto square = places({64, 64});
    EXPECT_EQ(square.first.y(), 0) << "two beside each other";
    EXPECT_GT(square.second.y(), 0) << "and two below";
    const auto strip = places({1024, 32});
    EXPECT_GT(strip.first.y(), 0) << "a strip: one below the other";
    EXPECT_EQ(strip.first.x(), 0);
    const auto tower = places({32, 1024});
    EXPECT_EQ(tower.second.y(), 0) << "a tower: all beside each other";
}

TEST(CompareViewWidget, FlipsAndSplits) {
    CompareView view;
    view.resize(400, 300);
    QImage dark(8, 8, QImage::Format_RGB32), light(8, 8, QImage::Format_RGB32);
    dark.fill(Qt::black);
    light.fill(Qt::white);
    view.set_pictures({dark, light, dark, light}, {});
    view.show();
    view.set_layout(CompareView::Layout::one);
    for (std::size_t i = 0; i < 4; ++i) EXPECT_EQ(view.view(i)->isVisible(), i == 0);
    view.flip();
    EXPECT_TRUE(view.view(1)->isVisible());
    EXPECT_FALSE(view.view(0)->isVisible());
    view.set_current(0);
    view.set_layout(CompareView::Layout::split);
    auto* split = view.view(0);
    const auto seen = [&] { return split->grab().toImage(); };
    const auto middle = split->height() / 2 + 40;
    EXPECT_EQ(seen().pixelColor(split->width() / 2 - 20, middle).red(), 0);
    EXPECT_EQ(seen().pixelColor(split->width() / 2 + 20, middle).red(), 255);
    QTest::mousePress(split, Qt::LeftButton, {}, {split->width() / 2, middle});
    QTest::mouseMove(split, {split->width() / 2 - 60, middle});
    QTest::mouseRelease(split, Qt::LeftButton, {}, {split->width() / 2 - 60, middle});
    EXPECT_LT(split->split(), 0.4) << "the line was dragged";
    EXPECT_EQ(seen().pixelColor(split->width() / 2 - 20, middle).red(), 255);
    const auto dragged = split->split();
    QTest::keyClick(split, Qt::Key_BracketRight);
    EXPECT_NEAR(split->split(), dragged + 0.02, 1e-9);
    view.flip();
    EXPECT_EQ(view.view(1)->second().pixelColor(0, 0), QColor(Qt::black)) << "the next two";
}

TEST(ImageViewWidget, AClickNamesItsTexelADragDoesNot) {
    SharedView shared;
    ImageView view(&shared);
    view.resize(224, 224);
    QImage picture(20, 20, QImage::Format_RGB32);
    picture.fill(Qt::gray);
    view.set_image(picture);
    QSignalSpy clicked(&view, &ImageView::clicked);
    QTest::mouseClick(&view, Qt::LeftButton, {}, {12 + 55, 12 + 15});
    ASSERT_EQ(clicked.size(), 1);
    EXPECT_EQ(clicked[0][0].toPoint(), QPoint(5, 1));
    QTest::mousePress(&view, Qt::LeftButton, {}, {50, 50});
    QTest::mouseRelease(&view, Qt::LeftButton, {}, {90, 50});
    EXPECT_EQ(clicked.size(), 1);
    view.show_texels({5, 9, 2, 2});
    EXPECT_EQ(shared.center, QPointF(0.3, 0.5));
    EXPECT_GT(shared.zoom, 1);
}

TEST(FlowRowLayout, WidgetsGoOnInTheNextLineAndStandAtTheRightOfIt) {
    QWidget outer;
    auto* row = new FlowRow(&outer);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(10);
    std::vector<QWidget*> boxes;
    for (int i = 0; i < 4; ++i) {
        auto* box = new QWidget;
        box->setFixedSize(50, 20);
        if (i == 3) row->addStretch();
        row->addWidget(box);
        boxes.push_back(box);
    }
    EXPECT_EQ(row->sizeHint(), QSize(230, 20));
    EXPECT_EQ(row->minimumSize(), QSize(50, 20));
    const auto place = [&](int width) {
        row->setGeometry({0, 0, width, row->heightForWidth(width)});
        return row->heightForWidth(width);
    };
    EXPECT_EQ(place(230), 20) << "just enough";
    EXPECT_EQ(boxes[3]->pos(), QPoint(180, 0));
    EXPECT_EQ(place(400), 20);
    EXPECT_EQ(boxes[2]->pos(), QPoint(120, 0));
    EXPECT_EQ(boxes[3]->pos(), QPoint(350, 0)) << "at the right";
    EXPECT_EQ(place(229), 50);
    EXPECT_EQ(boxes[2]->pos(), QPoint(120, 0));
    EXPECT_EQ(boxes[3]->pos(), QPoint(179, 30)) << "in the next line, at the right there, too";
    EXPECT_EQ(place(60), 110);
    EXPECT_EQ(boxes[2]->pos(), QPoint(0, 60));
    EXPECT_EQ(boxes[3]->pos(), QPoint(10, 90));
    // What is hidden takes no room.
    boxes[1]->hide();
    EXPECT_EQ(row->sizeHint().width(), 170);
    EXPECT_EQ(place(170), 20);
    EXPECT_EQ(boxes[2]->pos(), QPoint(60, 0));
}

TEST(ChannelRowWidget, AllChannelsStandInOneLineWhereThereIsRoom) {
    ChannelRow row;
    row.resize(row.sizeHint());
    row.show();
    for (const auto* button : row.findChildren<QPushButton*>()) EXPECT_EQ(button->y(), row.findChild<QPushButton*>()->y());
}

namespace {

/// What the panel of blocks says of a noisy edit of a texture, and the smaller levels as they are shown.
std::pair<QString, FitMips> said_of(const TextureDesc& d, const Image& picture, const Image& edit) {
    const auto texture =
        TextureFile::open(TextureKinds::standard(), *write_dds(d, *encode_levels(picture, d, {MipFilter::box})), "x", ReadLimits{});
    auto fitted = std::make_shared<FittedPiece>();
    fitted->original = std::make_shared<const TextureFile>(*texture);
    fitted->made.fit = *fit(*texture, *read_edited(*write_png(edit), ReadLimits{}), {});
    BlockPanel panel;
    panel.show_fit(fitted);
    QString all;
    for (const auto* label : panel.findChildren<QLabel*>()) all += label->text() + '\n';
    return {all, mips_of(*fitted, 3, 64, {})};
}

Image tilted(std::uint32_t side, int by) {
    Image out(side, side);
    for (std::uint32_t y = 0; y < side; ++y)
        for (std::uint32_t x = 0; x < side; ++x)
            out.at(x, y) = {static_cast<std::uint8_t>(128 + by * std::sin(x / 3.0)),
                            static_cast<std::uint8_t>(128 + by * std::cos(y / 5.0)), 255, 255};
    return out;
}

}  // namespace

TEST(BlockPanelSays, HowFarOffItIsAsItCountsForTheTexture) {
    const auto colors = random_picture(32, 32, 3), smooth = smooth_picture(32, 32, 5);
    const auto desc = [](Format format, ColorSpace color) { return TextureDesc{format, 32, 32, 1, 3, 1, 1, color}; };
    const auto [color, color_mips] = said_of(desc(Format::BC1, ColorSpace::srgb), smooth, colors);
    EXPECT_TRUE(color.contains(QStringLiteral(" dB from your picture"))) << color.toStdString();
    const auto [mask, mask_mips] = said_of(desc(Format::BC1, ColorSpace::linear), smooth, colors);
    EXPECT_TRUE(mask.contains(QStringLiteral("(red "))) << mask.toStdString();
    EXPECT_TRUE(mask.contains(QStringLiteral("blue "))) << mask.toStdString();
    const auto [normals, mips] = said_of(desc(Format::BC5, ColorSpace::linear), tilted(32, 40), tilted(32, 90));
    EXPECT_TRUE(normals.contains(QStringLiteral("° (in new blocks; 99 % within "))) << normals.toStdString();
    // The third part of a normal is rebuilt in the strip, too.
    ASSERT_GE(mips.result.size(), 2u);
    for (const auto& level : mips.result) EXPECT_GT(level.pixelColor(1, 1).blue(), 128);
}

// Textures on their objects: the horse of the fairground, by mouse and keys.
#include <gtest/gtest.h>
#include <filesystem>
#include <QComboBox>
#include <QPushButton>
#include <string>
#include <vector>

#include "app/pages/catalog_page.h"
#include "app/pages/delivery_page.h"
#include "app/pages/fitting_page.h"
#include "app/pages/try_on_panel.h"
#include "app/workshop/columns_window.h"
#include "app/workshop/frame_window.h"
#include "app/workshop/try_on_window.h"
#include "base/file_write.h"
#include "support/places.h"
#include "ui/trip.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

struct OnTheObject : Trip {
    TryOnPanel* panel = nullptr;
    TryOnModel* model = nullptr;

    std::vector<std::size_t> items(const std::string& beginning) {
        const auto snapshot = models.catalog.snapshot();
        std::vector<std::size_t> out;
        for (std::size_t i = 0; i < snapshot->catalog.items.size(); ++i)
            if (snapshot->catalog.items[i].name().starts_with(beginning) && snapshot->catalog.items[i].is_texture()) out.push_back(i);
        return out;
    }
    const Piece& named(const std::string& name) {
        for (const auto& piece : models.bench.pieces())
            if (piece.name() == name) return piece;
        ADD_FAILURE() << name;
        return models.bench.pieces().front();
    }
    void fill(const Piece& piece, Texel color) {
        const auto file = models.store.project().work() / piece.file;
        auto image = *read_png(get_file(file), ReadLimits{});
        for (auto& texel : image.texels) texel = color;
        put_file(file.string() + ".new", *write_png(image));
        std::filesystem::rename(file.string() + ".new", file);
    }
    bool is_there() { return model->pictures().scene().rays && model->layout() && !model->flat().isNull() && settled(); }
    bool there() {
        if (wait([&] { return is_there(); })) return true;
        ADD_FAILURE() << "rays " << bool(model->pictures().scene().rays) << ", layout " << bool(model->layout()) << ", flat "
                      << !model->flat().isNull() << ", idle " << model->pictures().is_idle() << ", jobs " << models.jobs.busy() << ", says "
                      << model->message().toStdString();
        return false;
    }
    bool settled() { return model->pictures().is_idle() && !models.jobs.busy(); }
    /// The horse on the bench, and on its object in Fitting.
    void show_horse() {
        ASSERT_TRUE(wait([&] { return models.catalog.unseen() == 0; }));
        models.catalog.take(items("horse_a_tint"), ExportAs::png);
        ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 1; }));
        window->go_to(PageId::fitting);
        press(Qt::Key_O);
        panel = window->page<FittingPage>()->try_on();
        model = &models.try_on;
        ASSERT_TRUE(there());
    }
    /// Where a point of the mesh is in the view, in its own pixels.
    QPoint place_of(const Vec3& point) {
        auto* view = panel->mesh_view();
        const auto at = projected(view->camera(), point, std::uint32_t(view->width()), std::uint32_t(view->height()));
        return at ? QPoint(int((*at)[0]), int((*at)[1])) : QPoint(-1, -1);
    }
    QColor color_at(const Vec3& point) {
        auto* view = panel->mesh_view();
        const auto& picture = view->picture();
        const auto at = place_of(point);
        return picture.pixelColor(at.x() * picture.width() / view->width(), at.y() * picture.height() / view->height());
    }
    /// The pointer goes there, whatever window lies above.
    static void point(QWidget* at, QPoint place) {
        QMouseEvent move(QEvent::MouseMove, QPointF(place), at->mapToGlobal(QPointF(place)), Qt::NoButton, Qt::NoButton, Qt::NoModifier);
        QApplication::sendEvent(at, &move);
    }
    static QString texel_of(const QString& said) { return said.section(QStringLiteral(" · "), 0, 0); }
};

constexpr Vec3 cheek = {0.5f, 1.5f, 0.12f}, cheek_behind = {0.5f, 1.5f, -0.12f};

}  // namespace

TEST_F(OnTheObject, AHorseIsTurnedItsMirroredLetteringFoundAndATexelPickedIsTheOneLaidFlat) {
    show_horse();
    ASSERT_FALSE(model->meshes().empty());
    EXPECT_EQ(model->meshes()[0].name, QStringLiteral("horse.obj"));
    EXPECT_TRUE(model->meshes()[0].on);
    EXPECT_TRUE(panel->said_of_layout().contains(QStringLiteral("1 mirrored"))) << panel->said_of_layout().toStdString();
    EXPECT_TRUE(panel->flat_view()->has_overlay());

    // Pointing at the object marks the texel: the front shows the texture from u = (x + 1) / 2 and v = 1 - y / 2.
    point(panel->mesh_view(), place_of(cheek));
    ASSERT_TRUE(panel->flat_view()->spot());
    EXPECT_NEAR(panel->flat_view()->spot()->x(), 0.75, 0.01);
    EXPECT_NEAR(panel->flat_view()->spot()->y(), 0.25, 0.01);
    EXPECT_FALSE(panel->said_of_place().contains(QStringLiteral("mirrored")));
    const auto on_object = texel_of(panel->said_of_place());
    const int front_island = panel->island();
    EXPECT_GE(front_island, 0);
    // The color there is that of the flat picture, without light.
    press(Qt::Key_C);
    ASSERT_TRUE(wait([&] { return settled(); }));
    const auto spot = *panel->flat_view()->spot();
    const auto& flat = panel->flat_view()->image();
    const auto wanted = flat.pixelColor(int(spot.x() * flat.width()), int(spot.y() * flat.height()));
    panel->mesh_view()->setFocus();
    point(panel->mesh_view(), QPoint(1, 1));
    ASSERT_TRUE(wait([&] { return settled() && panel->island() == -1; }));
    const auto seen = color_at(cheek);
    for (const auto& [a, b] : {std::pair{wanted.red(), seen.red()}, {wanted.green(), seen.green()}, {wanted.blue(), seen.blue()}})
        EXPECT_NEAR(a, b, 30);

    // Pointing at the flat picture lights the island on the object.
    auto* view = panel->flat_view();
    const double side = std::min(view->width() - 24.0, view->height() - 24.0);
    point(view, QPoint(int(view->width() / 2.0 + side * 0.25), int(view->height() / 2.0 - side * 0.25)));
    EXPECT_GE(panel->island(), 0);
    EXPECT_TRUE(panel->said_of_place().startsWith(QStringLiteral("Texel 38"))) << panel->said_of_place().toStdString();
    EXPECT_TRUE(on_object.startsWith(QStringLiteral("Texel 38"))) << on_object.toStdString();

    // Half way round by keys: there lettering comes out reversed.
    const auto before = panel->mesh_view()->orbit().turn;
    panel->mesh_view()->setFocus();
    for (int i = 0; i < 26; ++i) press(Qt::Key_Right);
    EXPECT_NEAR(std::abs(panel->mesh_view()->orbit().turn - before), 26 * 0.12, 0.01);
    ASSERT_TRUE(wait([&] { return settled(); }));
    point(panel->mesh_view(), place_of(cheek_behind));
    EXPECT_TRUE(panel->said_of_place().contains(QStringLiteral("mirrored"))) << panel->said_of_place().toStdString();
    EXPECT_NE(panel->island(), front_island);
    ASSERT_TRUE(panel->flat_view()->spot());
    EXPECT_NEAR(panel->flat_view()->spot()->x(), 0.75, 0.01);

    // By mouse: dragging turns, the wheel goes nearer, Home shows the whole again.
    const auto turned = panel->mesh_view()->orbit();
    QTest::mousePress(panel->mesh_view(), Qt::LeftButton, {}, QPoint(100, 100));
    QTest::mouseMove(panel->mesh_view(), QPoint(160, 120));
    QTest::mouseRelease(panel->mesh_view(), Qt::LeftButton, {}, QPoint(160, 120));
    EXPECT_NE(panel->mesh_view()->orbit().turn, turned.turn);
    EXPECT_NE(panel->mesh_view()->orbit().rise, turned.rise);
    press(Qt::Key_Minus);
    EXPECT_GT(panel->mesh_view()->distance(), 1.1);
    press(Qt::Key_Home);
    EXPECT_NEAR(panel->mesh_view()->distance(), 1, 0.001);
}

TEST_F(OnTheObject, IslandsLieOverTheFlatPicturesToo) {
    show_horse();
    press(Qt::Key_I);  // beside the object
    EXPECT_FALSE(panel->flat_view()->has_overlay());
    press(Qt::Key_I);
    EXPECT_TRUE(panel->flat_view()->has_overlay());
    auto* page = window->page<FittingPage>();
    press(Qt::Key_O);
    ASSERT_FALSE(page->is_on_object());
    EXPECT_FALSE(page->compare()->view(0)->has_overlay());
    page->list()->setFocus();
    press(Qt::Key_I);
    ASSERT_TRUE(wait([&] { return page->compare()->view(0)->has_overlay() && page->compare()->view(2)->has_overlay(); }));
    EXPECT_FALSE(page->compare()->view(3)->has_overlay());  // the difference
    press(Qt::Key_I);
    EXPECT_FALSE(page->compare()->view(0)->has_overlay());
    // And over the catalog's large picture, for whatever is chosen.
    window->go_to(PageId::catalog);
    auto* catalog = window->page<CatalogPage>();
    catalog->viewer()->show_item(items("tent").at(0));
    catalog->contact_sheet()->setFocus();
    press(Qt::Key_I);
    ASSERT_TRUE(wait([&] { return catalog->viewer()->view()->has_overlay(); }));
    catalog->viewer()->show_item(items("balloon").at(0));  // lies on no mesh
    EXPECT_FALSE(catalog->viewer()->view()->has_overlay());
    ASSERT_TRUE(wait([&] { return !models.jobs.busy(); }));
    EXPECT_FALSE(catalog->viewer()->view()->has_overlay());
    catalog->viewer()->show_item(items("bricks").at(0));
    ASSERT_TRUE(wait([&] { return catalog->viewer()->view()->has_overlay(); }));
    press(Qt::Key_I);
    EXPECT_FALSE(catalog->viewer()->view()->has_overlay());
}

TEST_F(OnTheObject, FartherAwayTheMipsGetSmaller) {
    show_horse();
    auto* text = panel->findChild<QLabel*>(QStringLiteral("mip_text"));
    ASSERT_NE(text, nullptr);
    const auto near = text->text();
    panel->distance()->setValue(panel->distance()->value() + 300);
    EXPECT_NE(text->text(), near);
    auto* mips = panel->findChild<QComboBox*>(QStringLiteral("mips_used"));
    EXPECT_EQ(mips->count(), 11);  // by distance, and ten levels
    mips->setCurrentIndex(4);
    EXPECT_EQ(text->text(), QStringLiteral("mip 3 of 9"));
    ASSERT_TRUE(wait([&] { return settled(); }));
}

TEST_F(OnTheObject, WhatItLiesOnIsChosenRememberedAndSaved) {
    show_horse();
    // The islands as a picture of the texture's size, and as SVG.
    std::optional<Error> refused;
    model->save_islands(folder / "lines.jpg", false, [&](const std::optional<Error>& error) { refused = error; });
    EXPECT_TRUE(refused) << "no PNG under another name";
    int saved = 0;
    for (const auto* name : {"alone.png", "over.png", "lines.svg"})
        model->save_islands(folder / name, std::string_view(name) == "over.png", [&](const std::optional<Error>& error) {
            EXPECT_FALSE(error) << error->message();
            ++saved;
        });
    ASSERT_TRUE(wait([&] { return saved == 3; }));
    const auto alone = *read_png(get_file(folder / "alone.png"), ReadLimits{}),
               over = *read_png(get_file(folder / "over.png"), ReadLimits{});
    EXPECT_EQ(alone.width, 512u);
    EXPECT_EQ(over.width, 512u);
    EXPECT_TRUE(std::any_of(alone.texels.begin(), alone.texels.end(), [](const Texel& t) { return t[3] == 0; }));
    EXPECT_TRUE(std::any_of(alone.texels.begin(), alone.texels.end(), [](const Texel& t) { return t[3] == 255; }));
    EXPECT_TRUE(std::all_of(over.texels.begin(), over.texels.end(), [](const Texel& t) { return t[3] == 255; }));
    const auto svg = get_file(folder / "lines.svg");
    EXPECT_NE(std::string(reinterpret_cast<const char*>(svg.data()), svg.size()).find("<svg"), std::string::npos);

    auto* tree = panel->tree();
    QTreeWidgetItem* ball = nullptr;
    for (int i = 0; i < tree->topLevelItemCount(); ++i)
        if (tree->topLevelItem(i)->text(0) == QStringLiteral("ball")) ball = tree->topLevelItem(i);
    ASSERT_NE(ball, nullptr);
    tree->setCurrentItem(ball);
    tree->setFocus();
    press(Qt::Key_Return);
    ASSERT_TRUE(wait([&] { return model->is_plain() && is_there(); }));
    EXPECT_TRUE(panel->findChild<QComboBox*>(QStringLiteral("tiles"))->isVisible());
    // With the horse beside it, and the horse's part off again.
    model->put_mesh_on(0, true);
    ASSERT_TRUE(wait([&] { return model->parts().size() == 2 && is_there(); }));
    model->put_part_on(0, false);
    ASSERT_TRUE(there());
    // In German or English, in this program or the next: the set has it so.
    panel->setFocus();
    window->page<FittingPage>()->show_object(false);
    EXPECT_TRUE(model->is_empty());
    window->page<FittingPage>()->show_object(true);
    ASSERT_TRUE(there());
    EXPECT_EQ(model->parts().size(), 2u);
    EXPECT_FALSE(model->parts()[0].on);
    EXPECT_EQ(models.store.project().try_on.size(), 1u);
    // Its fellows have it, too.
    models.try_on.show_item(items("horse_a_gloss").at(0));
    ASSERT_TRUE(there());
    EXPECT_EQ(model->parts().size(), 2u);
    EXPECT_FALSE(model->parts()[0].on);
}

TEST_F(OnTheObject, AMeshThatCannotBeReadSaysWhyAndTheNextOneIsShown) {
    show_horse();
    put_file(folder / "broken.glb", Bytes(40, std::byte{7}));
    model->add_file(folder / "broken.glb");
    ASSERT_TRUE(wait([&] { return settled() && model->message().contains(QStringLiteral("broken.glb")); }))
        << model->message().toStdString();
    EXPECT_TRUE(model->meshes().front().wrong);
    model->use_only(1);
    ASSERT_TRUE(wait([&] { return is_there() && model->message().isEmpty(); })) << model->message().toStdString();
}

TEST_F(OnTheObject, ATableOfVerticesIsCorrectedAndTriedOn) {
    show_horse();
    // Columns that say little: what looks like positions is none.
    const std::string text = "a.x,a.y,a.z,b.x,b.y,weight\n0,0,0,0,1,1\n2,0,0,1,1,1\n2,2,0,1,0,nan\n0,0,0,0,1,1\n2,2,0,1,0,1\n0,2,0,0,0,1\n";
    put_file(folder / "thing.csv", std::as_bytes(std::span(text)));
    model->open_table(folder / "thing.csv", [&](auto table) {
        ASSERT_TRUE(table);
        auto* columns = new ColumnsWindow(panel, *table);
        columns->setObjectName(QStringLiteral("columns_window"));
        QObject::connect(columns, &ColumnsWindow::kept, panel, [this, table = *table](const TableReading& reading) {
            model->keep_reading(table->table, reading);
            model->add_file(folder / "thing.csv");
        });
        columns->open();
    });
    ColumnsWindow* columns = nullptr;
    ASSERT_TRUE(wait([&] { return (columns = panel->findChild<ColumnsWindow*>()) != nullptr; }));
    auto* use = columns->findChild<QPushButton*>(QStringLiteral("use_columns"));
    EXPECT_FALSE(use->isEnabled());
    EXPECT_FALSE(columns->meaning(5)->isEnabled());  // it holds no numbers
    const QStringList wanted = {"position x", "position y", "position z", "texture u", "texture v"};
    for (std::size_t c = 0; c < 5; ++c) columns->meaning(c)->setCurrentText(wanted[qsizetype(c)]);
    ASSERT_TRUE(use->isEnabled());
    QTest::mouseClick(use, Qt::LeftButton);
    const auto is_worn = [&] {
        return std::any_of(model->meshes().begin(), model->meshes().end(),
                           [](const auto& row) { return row.on && row.name == QStringLiteral("thing.csv") && !row.wrong; });
    };
    ASSERT_TRUE(wait([&] { return is_worn() && is_there(); }));
    EXPECT_EQ(model->pictures().scene().rays->mesh().triangles(), 2u);
    EXPECT_EQ(model->layout()->islands.size(), 1u);
    EXPECT_TRUE(panel->findChild<QPushButton*>(QStringLiteral("columns"))->isVisible());
    // Kept with the project, for the next table of these columns.
    EXPECT_TRUE(wait([&] { return open_project(models.store.project().folder)->table_readings.size() == 1; }));
    EXPECT_EQ(open_project(models.store.project().folder)->table_readings, models.store.project().table_readings);
}

TEST_F(OnTheObject, ASetIsEditedSeenOnTheMeshAndDelivered) {
    ASSERT_TRUE(wait([&] { return models.catalog.unseen() == 0; }));
    auto set = items("horse_a_tint");
    const auto whole = models.catalog.with_sets(set);
    ASSERT_GE(whole.size(), 2u);
    models.catalog.take(whole, ExportAs::png);
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == whole.size(); }));
    window->go_to(PageId::fitting);
    window->page<FittingPage>()->show_piece(named("horse_a_tint").id);
    panel = window->page<FittingPage>()->try_on();
    model = &models.try_on;
    press(Qt::Key_O);
    ASSERT_TRUE(there());
    press(Qt::Key_C);  // colors alone
    ASSERT_TRUE(wait([&] { return settled(); }));
    EXPECT_EQ(model->side(), TryOnModel::Side::game);
    const auto was = color_at(cheek);
    EXPECT_GT(was.green(), 100);

    fill(named("horse_a_tint"), {20, 30, 200, 255});
    ASSERT_TRUE(wait([&] { return waits(named("horse_a_tint").state); }));
    press(Qt::Key_F);
    EXPECT_EQ(model->side(), TryOnModel::Side::yours);
    ASSERT_TRUE(wait([&] { return settled() && color_at(cheek).blue() > 150; }));
    EXPECT_LT(color_at(cheek).green(), 60);
    // Saved once more while it is shown, and another of the set with it.
    fill(named("horse_a_tint"), {30, 190, 40, 255});
    fill(named("horse_a_gloss"), {255, 255, 255, 255});
    ASSERT_TRUE(wait([&] { return settled() && color_at(cheek).green() > 150; }));
    EXPECT_LT(color_at(cheek).blue(), 80);
    press(Qt::Key_F);
    EXPECT_EQ(model->side(), TryOnModel::Side::result);
    ASSERT_TRUE(wait([&] { return settled() && model->message().isEmpty() && color_at(cheek).green() > 150; }));
    press(Qt::Key_F);
    ASSERT_TRUE(wait([&] { return settled() && color_at(cheek) == was; }));

    // A save that cannot be read is said, and only where it would be seen.
    const auto good = get_file(models.store.project().work() / named("horse_a_tint").file);
    const auto write = [&](ByteSpan bytes) {
        const auto file = models.store.project().work() / named("horse_a_tint").file;
        put_file(file.string() + ".new", bytes);
        std::filesystem::rename(file.string() + ".new", file);
    };
    auto broken = good;
    for (std::size_t i = 60; i < broken.size() - 20; ++i) broken[i] ^= std::byte{0x5A};
    const auto edit = named("horse_a_tint").edit();
    write(broken);
    ASSERT_TRUE(wait([&] { return named("horse_a_tint").edit() != edit; }));
    model->set_side(TryOnModel::Side::yours);
    ASSERT_TRUE(wait([&] { return settled() && !model->message().isEmpty(); }));
    model->set_side(TryOnModel::Side::game);
    ASSERT_TRUE(wait([&] { return settled() && model->message().isEmpty(); })) << model->message().toStdString();
    write(good);
    ASSERT_TRUE(wait([&] { return named("horse_a_tint").edit() == edit; }));

    ASSERT_TRUE(wait([&] { return !waits(named("horse_a_tint").state) || named("horse_a_tint").state == PieceState::fits; }));
    window->go_to(PageId::delivery);
    ASSERT_TRUE(wait([&] { return models.delivery.plan() && models.delivery.plan()->piece_count() == 2; }));
    models.delivery.deliver();
    ASSERT_TRUE(wait(
        [&] { return named("horse_a_tint").state == PieceState::delivered && named("horse_a_gloss").state == PieceState::delivered; }));
    window->go_to(PageId::fitting);
    ASSERT_TRUE(there());
    model->set_side(TryOnModel::Side::result);
    ASSERT_TRUE(wait([&] { return settled() && color_at(cheek).green() > 150; }));
}

TEST_F(OnTheObject, TheCatalogsWindowFollowsWhatIsChosen) {
    ASSERT_TRUE(wait([&] { return models.catalog.unseen() == 0; }));
    window->go_to(PageId::catalog);
    auto* page = window->page<CatalogPage>();
    page->search()->setFocus();
    type(QStringLiteral("bricks"));
    ASSERT_TRUE(wait([&] { return page->model()->rowCount() == 1; }));
    page->contact_sheet()->setFocus();
    page->contact_sheet()->setCurrentIndex(page->model()->index(0));
    press(Qt::Key_O);
    auto* shown = page->findChild<TryOnWindow*>();
    ASSERT_NE(shown, nullptr);
    panel = shown->panel();
    model = shown->model();
    ASSERT_TRUE(there());
    EXPECT_EQ(model->meshes()[0].name, QStringLiteral("booth.gltf"));
    EXPECT_TRUE(model->meshes()[0].on);
    EXPECT_FALSE(model->has_sides());
    page->search()->clear();
    page->search()->insert(QStringLiteral("tent"));
    ASSERT_TRUE(wait([&] { return model->name().startsWith(QStringLiteral("tent")) && is_there(); }));
    EXPECT_EQ(model->meshes()[0].name, QStringLiteral("tent.glb"));
    EXPECT_TRUE(model->meshes()[0].reason.contains(QStringLiteral("material")));
    shown->close();
}

namespace {

struct ByFrame : OnTheObject {
    FrameWindow* open() {
        EXPECT_TRUE(wait([&] { return models.catalog.unseen() == 0; }));
        window->go_to(PageId::catalog);
        window->page<CatalogPage>()->contact_sheet()->setFocus();
        press(Qt::Key_I, Qt::ControlModifier | Qt::ShiftModifier);
        auto* frame = window->page<CatalogPage>()->findChild<FrameWindow*>();
        EXPECT_NE(frame, nullptr);
        EXPECT_TRUE(wait([&] { return models.frame.record() != nullptr; }));
        return frame;
    }
    void record(const std::string& name) {
        ASSERT_EQ(run_program({our_program("fair-stall"), game.string(), "--frame", (game / "frames" / name).string()}).code, 0);
    }
    /// Whether all textures of the thing were looked for.
    bool all_found() {
        const auto& thing = models.frame.record()->things[models.frame.thing()];
        return std::all_of(thing.textures.begin(), thing.textures.end(), [&](std::size_t t) { return models.frame.found(t).looked; });
    }
    QString name_of_first() {
        const auto item = models.frame.item_of(models.frame.record()->things[models.frame.thing()].textures.front());
        return item ? QString::fromStdString(std::string(models.catalog.snapshot()->catalog.items[*item].name())) : QString();
    }
};

}  // namespace

TEST_F(ByFrame, AFrameIsSteppedThroughByKeysAndByPointing) {
    QSignalSpy recorded(&models.frame, &FrameModel::recorded);
    record("first");
    ASSERT_TRUE(wait([&] { return !recorded.isEmpty(); })) << "the newest is offered by itself";
    // A large one takes its time: first its folder is there, much later what makes it whole.
    recorded.clear();
    std::filesystem::create_directories(game / "frames/second");
    QTest::qWait(1200);
    EXPECT_TRUE(recorded.isEmpty());
    for (const auto& file : std::filesystem::directory_iterator(game / "frames/first"))
        std::filesystem::copy(file.path(), game / "frames/second" / file.path().filename());
    ASSERT_TRUE(wait([&] { return !recorded.isEmpty(); }));
    auto* frame = open();
    const auto all = models.frame.record()->things.size();
    ASSERT_GT(all, 30u);
    EXPECT_LT(all, models.frame.record()->draws.size() / 3) << "what repeats is folded";
    auto* view = frame->view();
    const auto said = [&] { return frame->findChild<QLabel*>(QStringLiteral("thing"))->text(); };
    EXPECT_TRUE(said().startsWith(QStringLiteral("Thing 1 of"))) << said().toStdString();
    view->setFocus();
    press(Qt::Key_Right);
    EXPECT_EQ(models.frame.thing(), 1u);
    EXPECT_TRUE(said().contains(QStringLiteral("drawn"))) << said().toStdString();
    press(Qt::Key_Left);
    press(Qt::Key_Left);
    EXPECT_EQ(models.frame.thing(), all - 1);

    // The balloon, where it is on the screen; what it lights is where its pixels are.
    const auto balloon = view->place_of({1150, 90});
    point(view, balloon);
    EXPECT_EQ(qAlpha(view->lit().pixel(1150, 90)), 0);
    EXPECT_GT(qAlpha(view->lit().pixel(600, 780)), 100);
    EXPECT_EQ(models.frame.thing(), all - 1) << "pointing lights, a click chooses";
    QTest::mouseClick(view, Qt::LeftButton, {}, balloon);
    ASSERT_TRUE(wait([&] { return all_found(); }));
    EXPECT_EQ(name_of_first(), QStringLiteral("balloon"));
    const auto& thing = models.frame.record()->things[models.frame.thing()];
    ASSERT_EQ(thing.textures.size(), 2u);
    EXPECT_GT(models.frame.record()->textures[thing.textures.back()].things, 3u) << "the sky, which others have, too, is the last";
    EXPECT_GE(models.frame.found(thing.textures.front()).hits.front().score, FrameModel::Found::sure);

    // The horse, with all its maps, found, shown on what was drawn, and in the catalog.
    QTest::mouseClick(view, Qt::LeftButton, {}, view->place_of({420, 480}));
    ASSERT_TRUE(wait([&] { return all_found(); }));
    EXPECT_EQ(name_of_first(), QStringLiteral("horse_a_tint"));
    const auto& of_horse = models.frame.record()->things[models.frame.thing()].textures;
    EXPECT_TRUE(std::any_of(of_horse.begin(), of_horse.end(), [&](std::size_t texture) {
        const auto& bump = models.frame.found(texture);
        return bump.captured.pixelColor(0, 0).blue() == 0 && bump.seen.pixelColor(0, 0).blue() > 200;
    })) << "normals of two channels are seen as people know them";
    ASSERT_TRUE(wait([&] { return frame->findChild<QPushButton*>(QStringLiteral("show_in_catalog")) != nullptr; }));
    press(Qt::Key_O);
    ASSERT_NE(frame->on_mesh(), nullptr);
    model = frame->on_mesh()->model();
    panel = frame->on_mesh()->panel();
    const auto is_worn = [&] {
        return std::any_of(model->meshes().begin(), model->meshes().end(),
                           [](const auto& row) { return row.on && row.name.endsWith(QStringLiteral(".csv")); });
    };
    ASSERT_TRUE(wait([&] { return is_there() && is_worn(); }));
    EXPECT_EQ(model->pictures().scene().rays->mesh().triangles(), 2u);
    frame->on_mesh()->close();
    QTest::mouseClick(frame->findChild<QPushButton*>(QStringLiteral("show_in_catalog")), Qt::LeftButton);
    EXPECT_EQ(models.catalog.path_of(window->page<CatalogPage>()->viewer()->item()), "carousel/horse_a_tint.pnl");

    // What was captured is saved as it is.
    const auto texture = models.frame.record()->things[models.frame.thing()].textures.front();
    bool saved = false;
    models.frame.save_texture(texture, folder / "captured.png", [&](const std::optional<Error>& error) {
        EXPECT_FALSE(error);
        saved = true;
    });
    ASSERT_TRUE(wait([&] { return saved; }));
    EXPECT_EQ(get_file(folder / "captured.png"), get_file(models.frame.record()->textures[texture].file));
    frame->close();
}

TEST_F(ByFrame, ATextureInNoArchiveIsSaidAndABrokenRecordIsAnError) {
    record("one");
    // Somebody's noise instead of the balloon's picture.
    Image noise(64, 64);
    std::uint32_t seed = 1;
    for (auto& texel : noise.texels)
        texel = {std::uint8_t((seed = seed * 1664525u + 1013904223u) >> 24), std::uint8_t(seed >> 16), std::uint8_t(seed >> 8), 255};
    put_file(game / "frames/one/texture-1.png", *write_png(noise));
    auto* frame = open();
    ASSERT_TRUE(wait([&] { return all_found(); }));
    EXPECT_FALSE(models.frame.found(0).is_found());
    const auto says = [&](const QString& text) {
        for (const auto* label : frame->findChildren<QLabel*>())
            if (label->text().contains(text)) return true;
        return false;
    };
    EXPECT_TRUE(wait([&] { return says(QStringLiteral("In no archive")); }));
    EXPECT_NE(frame->findChild<QPushButton*>(QStringLiteral("save_captured")), nullptr);
    put_file(folder / "broken/frame.jsonl", Bytes{std::byte{0x78}});
    QSignalSpy refused(&models.frame, &FrameModel::refused);
    models.frame.open(folder / "broken");
    ASSERT_TRUE(wait([&] { return refused.size() == 1; }));
    EXPECT_TRUE(refused.front().front().toString().contains(QStringLiteral("no frame record")))
        << refused.front().front().toString().toStdString();
    frame->close();
}

#pragma once
// The real window on a copy of the demo installation, and the stand-in game that shows it.
#include <gtest/gtest.h>

#include <QApplication>
#include <QtTest>

#include "app/models/models.h"
#include "app/workspace.h"
#include "support/places.h"
#include "support/run_program.h"
#include "support/temp_folder.h"
#include "texture/png.h"

namespace skivet::test {

using namespace skivet::app;

struct Trip : testing::Test {
    TempFolder folder;
    std::filesystem::path game;
    Models models;
    std::unique_ptr<Workspace> window;

    void SetUp() override {
        qputenv("XDG_DATA_HOME", (folder / "data").c_str());  // nothing of the person's own is read or written
        game = folder / "Brindle Fair";
        std::filesystem::copy(skivet::test::fairground_folder, game, std::filesystem::copy_options::recursive);
        window = std::make_unique<Workspace>(models);
        models.store.open({folder / "project", game, {}, {skivet::test::our_program("fair-stall"), game.string()}});
        window->show();
        ASSERT_TRUE(QTest::qWaitForWindowExposed(window.get()));
        window->activateWindow();  // under Xvfb there is no window manager that would give it the focus
        ASSERT_TRUE(QTest::qWaitForWindowActive(window.get()));
        ASSERT_TRUE(wait([&] { return models.sources.ready(); }));
    }
    template <class Condition>
    bool wait(Condition condition) {
        return QTest::qWaitFor(condition, 60'000);
    }
    void type(const QString& text) { QTest::keyClicks(QApplication::focusWidget(), text); }
    void press(Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
        auto* target = QApplication::focusWidget() ? QApplication::focusWidget() : window.get();
        QTest::keyClick(target, key, modifiers);
    }
    Image game_picture() {
        const auto ran = run_program({skivet::test::our_program("fair-stall"), game.string(), "--shot", (folder / "shot.png").string()});
        EXPECT_EQ(ran.code, 0) << ran.output;
        return *read_png(get_file(folder / "shot.png"), ReadLimits{});
    }
    /// Whether the stand-in game's picture has the green line that paint_the_target paints; the target is light without it.
    static bool shows_the_line(const Image& picture) {
        const auto texel = picture.at(195, 565);
        return texel[1] > 150 && texel[0] < 120;
    }
    const Piece& piece() { return models.bench.pieces().at(0); }
    /// Takes a texture to the bench and paints a green line across it.
    void paint_the_target() {
        const auto snapshot = models.catalog.snapshot();
        std::vector<std::size_t> chosen;
        for (std::size_t i = 0; i < snapshot->catalog.items.size(); ++i)
            if (snapshot->catalog.items[i].name() == "target") chosen.push_back(i);
        models.catalog.take(chosen, ExportAs::png);
        ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 1; }));
        const auto file = models.store.project().work() / piece().file;
        auto image = *read_png(get_file(file), ReadLimits{});
        for (std::uint32_t y = 128; y < 132; ++y)  // as high as a block, so that the game, which shows it smaller, shows it
            for (std::uint32_t x = 0; x < 256; ++x) image.at(x, y) = {20, 200, 40, 255};
        put_file(file, *write_png(image));
        ASSERT_TRUE(wait([&] { return waits(piece().state); }));
    }
};

}  // namespace skivet::test

// From a game's folder to the sources, in the real window.
#include <gtest/gtest.h>

#include <filesystem>
#include <QPushButton>
#include <string>
#include <vector>

#include "app/workshop/found_window.h"
#include "support/pictures.h"
#include "texture/png.h"
#include "ui/window_test.h"

namespace skivet::test {
namespace {

namespace fs = std::filesystem;
using namespace app;

struct FoundInAFolder : WindowTest {
    fs::path game = folder / "game";
    FoundWindow* found = nullptr;

    void put(const std::string& name, const Bytes& bytes) {
        fs::create_directories((game / name).parent_path());
        put_file(game / name, bytes);
    }
    static Bytes textures_from(unsigned seed) {
        std::vector<ZipItem> items;
        for (unsigned i = 0; i < 5; ++i)
            items.push_back({"walls/" + std::to_string(seed * 10 + i) + ".dds", make_dds(Format::BC1, 64, 64, 0, seed * 7 + i)});
        return make_zip(items);
    }
    void make_game() {
        put("data/win/base2.bin", textures_from(1));
        put("data/win/base10.bin", textures_from(1));
        put("data/update_1/extra.bin", textures_from(2));
        put("data/win/base2.bin.bak", textures_from(1));
        put("data/win/music.zip", make_zip({{"a.ogg", bytes_of("OggS")}}));
        put("data/win/world.pak", random_bytes(1'500'000, 4));
        for (unsigned i = 0; i < 6; ++i)
            put("data/gui/" + std::to_string(i) + "/icon" + std::to_string(i) + ".png", *write_png(smooth_picture(48, 48, i)));
        put("readme.txt", bytes_of("words"));
    }
    /// The window that shows what is found, at rest.
    void look() {
        show_found(window.get(), models.sources.found(), game);
        found = window->findChild<FoundWindow*>();
        ASSERT_TRUE(found);
        ASSERT_TRUE(wait([&] { return !models.sources.found()->looking(); }));
    }
    std::vector<std::string> sources() const {
        std::vector<std::string> out;
        for (const auto& source : models.store.project().sources) out.push_back(source.lexically_relative(game).generic_string());
        return out;
    }
    QModelIndex row(const QString& name) const {
        const auto* rows = found->list()->model();
        for (int s = 0; s < rows->rowCount(); ++s)
            for (int r = 0; r < rows->rowCount(rows->index(s, 0)); ++r)
                if (const auto index = rows->index(r, 0, rows->index(s, 0)); index.data().toString() == name) return index;
        return {};
    }
};

TEST_F(FoundInAFolder, WhatIsLikelyIsTickedAndBecomesTheSourcesInOrder) {
    make_game();
    open({});
    look();
    EXPECT_EQ(row("base2.bin").data(Qt::CheckStateRole).toInt(), Qt::Checked);
    EXPECT_EQ(row("base2.bin.bak").data(Qt::CheckStateRole).toInt(), Qt::Unchecked);
    EXPECT_EQ(row("music.zip").data(Qt::CheckStateRole).toInt(), Qt::Unchecked);
    EXPECT_EQ(row("world.pak").data(Qt::CheckStateRole).toInt(), Qt::Unchecked);
    EXPECT_TRUE(wait([&] { return !models.sources.found()->picture(row("base2.bin").data(Qt::UserRole).toULongLong(), 0).isNull(); }));
    // One is unticked by the keyboard, another ticked with the mouse.
    found->list()->setCurrentIndex(row("gui"));
    QTest::keyClick(found->list(), Qt::Key_Space);
    EXPECT_EQ(row("gui").data(Qt::CheckStateRole).toInt(), Qt::Unchecked);
    EXPECT_EQ(found->list()->currentIndex().data().toString(), "gui") << "what was chosen stays chosen";
    found->list()->scrollTo(row("music.zip"));
    const auto rect = found->list()->visualRect(row("music.zip"));
    QTest::mouseClick(found->list()->viewport(), Qt::LeftButton, {}, QPoint(rect.x() + 22, rect.center().y()));
    EXPECT_EQ(row("music.zip").data(Qt::CheckStateRole).toInt(), Qt::Checked);
    QTest::keyClick(found, Qt::Key_Return);
    ASSERT_TRUE(wait([&] { return models.sources.ready() && !models.jobs.busy(); }));
    EXPECT_EQ(sources(),
              (std::vector<std::string>{"data/win/base2.bin", "data/win/base10.bin", "data/win/music.zip", "data/update_1/extra.bin"}));
    EXPECT_EQ(models.store.project().setting(game / "data/update_1/extra.bin").group, "update");
    EXPECT_EQ(models.store.project().game, game);
    EXPECT_EQ(models.sources.snapshot()->texture_counts[0], 5u);
}

TEST_F(FoundInAFolder, AfterAnUpdateWhatIsNewIsSaidAndTakesItsPlace) {
    make_game();
    open({});
    look();
    QTest::keyClick(found, Qt::Key_Return);
    ASSERT_TRUE(wait([&] { return models.sources.ready() && !models.jobs.busy(); }));
    const auto before = sources();
    put("data/win/base11.bin", textures_from(5));
    put("data/update_2/more.bin", textures_from(6));
    models.store.open({folder / "project", {}, {}, {}});
    ASSERT_TRUE(wait([&] { return models.sources.found()->fresh() == 2; }));
    look();
    QTest::keyClick(found, Qt::Key_Return);
    ASSERT_TRUE(wait([&] { return models.sources.ready() && !models.jobs.busy(); }));
    const auto after = sources();
    ASSERT_EQ(after.size(), before.size() + 2);
    const auto at = [&](const std::string& name) { return std::find(after.begin(), after.end(), name) - after.begin(); };
    EXPECT_EQ(at("data/win/base11.bin"), at("data/win/base10.bin") + 1);
    EXPECT_GT(at("data/update_2/more.bin"), at("data/update_1/extra.bin"));
    EXPECT_EQ(models.sources.found()->fresh(), 0u);
}

TEST_F(FoundInAFolder, AFolderWithNothingInItSaysSo) {
    fs::create_directories(game / "empty");
    open({});
    look();
    EXPECT_EQ(found->list()->model()->rowCount(), 0);
    const auto labels = found->findChildren<QLabel*>();
    EXPECT_TRUE(
        std::any_of(labels.begin(), labels.end(), [](const auto* l) { return l->text().contains("Nothing here can be a source"); }));
    QTest::keyClick(found, Qt::Key_Return);
    EXPECT_TRUE(found->isVisible()) << "there is nothing to take";
    QTest::keyClick(found, Qt::Key_Escape);
    EXPECT_TRUE(models.store.project().sources.empty());
}

}  // namespace
}  // namespace skivet::test

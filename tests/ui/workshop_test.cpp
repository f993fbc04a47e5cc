// What nothing describes: sifted, seen with the raw lens, given a sheet in the workshop, and named; by keyboard, in the real window.
#include <gtest/gtest.h>

#include <QTableView>

#include <filesystem>
#include <QApplication>
#include <QListView>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QtTest>
#include <string>

#include "app/workshop/raw_lens.h"
#include "app/workshop/sheet_workshop.h"
#include "app/workshop/sift_window.h"
#include "bench/fitting.h"
#include "codec/codec.h"
#include "support/headerless.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"
#include "ui/window_test.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

struct Workshops : WindowTest {
    template <class T>
    T* dialog() {
        T* found = nullptr;
        wait([&] {
            found = window->findChild<T*>();
            return found && found->isVisible() && found->isActiveWindow();
        });
        return found;
    }
    /// The window once it has sifted a file with the texture behind so many bytes of noise; nullptr when it does not come.
    SiftWindow* sift_among_noise(std::size_t before, const Bytes& texture) {
        auto file = random_bytes(before, 4);
        file.insert(file.end(), texture.begin(), texture.end());
        const auto more = random_bytes(6000, 5);
        file.insert(file.end(), more.begin(), more.end());
        put_file(folder / "unknown.dat", file);
        open({folder / "unknown.dat"});
        press(Qt::Key_S);
        auto* sifting = dialog<SiftWindow>();
        return sifting && wait([&] { return sifting->settled(); }) ? sifting : nullptr;
    }
    /// The path of the one texture that using what was found brings into the catalog.
    std::string taken(SiftWindow* sifting) {
        EXPECT_FALSE(sifting->findChild<ImageView*>()->image().isNull());
        const auto before = models.catalog.snapshot();
        QTest::keyClick(sifting, Qt::Key_Return, Qt::ControlModifier);
        const bool whole =
            wait([&] { return models.catalog.snapshot() != before && models.catalog.snapshot()->whole && !models.jobs.busy(); });
        if (!whole || models.catalog.snapshot()->texture_counts[0] != 1u) return "not one texture";
        return models.catalog.snapshot()->catalog.items[0].path();
    }
    void write_layout(const std::string& name) {
        std::filesystem::create_directories(folder / "game");
        const auto ran =
            run_program({"python3", std::string(layouts_folder) + "/layouts.py", "write", name, (folder / "game").string(), "7"});
        ASSERT_EQ(ran.code, 0) << ran.output;
    }
};

}  // namespace

TEST_F(Workshops, BareBytesBecomeATextureThroughTheLens) {
    const auto picture = smooth_picture(128, 64, 3);
    Bytes file(40, std::byte{0x5C});
    const auto pixels = *encode(Format::BC1, picture);
    file.insert(file.end(), pixels.begin(), pixels.end());
    put_file(folder / "wall.raw", file);
    open({folder / "wall.raw"});
    ASSERT_TRUE(models.catalog.snapshot()->sources[0].error);
    press(Qt::Key_R);
    auto* lens = dialog<RawLens>();
    ASSERT_TRUE(lens);
    auto* view = lens->findChild<ImageView*>();
    // Every value has a key: forty bytes on, another format and back, the suggested width.
    for (int i = 0; i < 40; ++i) QTest::keyClick(view, Qt::Key_Down, Qt::ShiftModifier);
    QTest::keyClick(view, Qt::Key_F);
    EXPECT_NE(lens->lens().format, Format::BC1);
    QTest::keyClick(view, Qt::Key_F, Qt::ShiftModifier);
    EXPECT_EQ(lens->lens().format, Format::BC1);
    EXPECT_EQ(lens->lens().offset, 40u);
    ASSERT_TRUE(wait([&] { return lens->settled(); }));
    QTest::keyClick(view, Qt::Key_W);
    EXPECT_EQ(lens->lens().width, 128u);
    QTest::keyClick(view, Qt::Key_Right);
    QTest::keyClick(view, Qt::Key_Left);
    EXPECT_EQ(lens->lens().width, 128u);
    QTest::keyClick(view, Qt::Key_T);
    EXPECT_EQ(lens->lens().tiling.tiling, Tiling::morton);
    QTest::keyClick(view, Qt::Key_T);
    QTest::keyClick(view, Qt::Key_B);
    EXPECT_EQ(lens->lens().tiling.block_height, 32u);
    QTest::keyClick(view, Qt::Key_T);
    EXPECT_EQ(lens->lens().tiling.tiling, Tiling::linear);
    ASSERT_TRUE(wait([&] { return lens->settled(); }));
    EXPECT_EQ(view->image().size(), QSize(128, 64));
    const auto shown = *decode(Format::BC1, pixels, 128, 64);
    for (const auto& at : {QPoint(0, 0), QPoint(77, 33), QPoint(127, 63)}) {
        const auto& t = shown.at(unsigned(at.x()), unsigned(at.y()));
        EXPECT_EQ(view->image().pixelColor(at), QColor(t[0], t[1], t[2]));
    }
    const auto before = models.catalog.snapshot();
    QTest::keyClick(view, Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return models.catalog.snapshot() != before && models.catalog.snapshot()->whole && !models.jobs.busy(); }));
    ASSERT_FALSE(models.catalog.snapshot()->sources[0].error) << models.catalog.snapshot()->sources[0].error->message();
    ASSERT_EQ(models.catalog.snapshot()->catalog.items.size(), 1u);
    const auto& desc = models.catalog.snapshot()->catalog.items[0].desc;
    EXPECT_EQ(desc.format, Format::BC1);
    EXPECT_EQ(desc.width, 128u);
    EXPECT_EQ(desc.height, 64u);
    // The project opened again still knows it.
    ASSERT_TRUE(wait([&] { return !models.jobs.busy(); }));
    models.store.close();
    Models again;
    again.store.open({folder / "project", {}, {}, {}});
    ASSERT_TRUE(wait([&] { return again.sources.ready(); }));
    EXPECT_EQ(again.catalog.snapshot()->texture_counts[0], 1u);
}

TEST_F(Workshops, ASheetIsDraftedMendedProvenAndKept) {
    write_layout("bins");
    open({folder / "game/game.bins"});
    ASSERT_TRUE(models.catalog.snapshot()->sources[0].error);
    press(Qt::Key_W);
    auto* workshop = dialog<SheetWorkshop>();
    ASSERT_TRUE(workshop);
    auto* text = workshop->findChild<QPlainTextEdit*>("sheet_text");
    text->setPlainText(QStringLiteral("sheet = \"container\"\nname = \"Bins\"\nsize = 3\n"));
    ASSERT_TRUE(wait([&] { return workshop->settled(); }));
    EXPECT_TRUE(says("line 3"));
    EXPECT_EQ(text->extraSelections().size(), 1) << "the line is marked";
    text->setFocus();
    QTest::keyClick(text, Qt::Key_D, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return text->toPlainText().contains(QStringLiteral("data offset")) && workshop->settled(); }));
    EXPECT_TRUE(says("6 entries, 6 of 6 looked at can be read; 0 bytes are not explained"));
    auto* fields = workshop->findChild<QTableView*>("sheet_fields");
    EXPECT_EQ(fields->model()->rowCount(), 4 + 6 * 3);
    QTest::keyClick(text, Qt::Key_T, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return says("Proved: 6 of 6 entries"); }));
    const auto before = models.catalog.snapshot();
    QTest::keyClick(text, Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return models.catalog.snapshot() != before && models.catalog.snapshot()->whole && !models.jobs.busy(); }));
    ASSERT_FALSE(models.catalog.snapshot()->sources[0].error);
    EXPECT_EQ(models.catalog.snapshot()->sources[0].container->entries().size(), 6u);
    EXPECT_TRUE(std::filesystem::exists(folder / "project/sheets/game.toml"));
}

TEST_F(Workshops, WhatSiftingFindsComesIntoTheCatalog) {
    auto* sifting = sift_among_noise(5000, make_dds(Format::BC3, 64, 64));
    ASSERT_TRUE(sifting);
    EXPECT_TRUE(says("ONE TEXTURE"));
    EXPECT_TRUE(says("DDS texture, BC3, 64×64, 7 mips"));
    EXPECT_EQ(taken(sifting), "0x00001388.dds");
    ASSERT_EQ(models.store.project().choices.size(), 1u);
    EXPECT_EQ(models.store.project().choices[0].kind, "sifting");
}

TEST_F(Workshops, ATextureWithoutAHeaderIsSiftedOutAndComesIntoTheCatalog) {
    auto* sifting = sift_among_noise(8192, *encode_levels(drawn_picture(128, 128, 18), TextureDesc{Format::BC1, 128, 128, 1, 8}, {}));
    ASSERT_TRUE(sifting);
    EXPECT_TRUE(says("ONE TEXTURE"));
    EXPECT_TRUE(says("Texture without a header, BC1, 128×128, 8 mips"));
    EXPECT_EQ(taken(sifting), "0x00002000.dds");
}

TEST_F(Workshops, NothingFoundSaysWhatElseCanBeDone) {
    put_file(folder / "noise.dat", Bytes(3000, std::byte{0x41}));
    open({folder / "noise.dat"});
    press(Qt::Key_S);
    auto* sifting = dialog<SiftWindow>();
    ASSERT_TRUE(sifting);
    ASSERT_TRUE(wait([&] { return sifting->settled(); }));
    EXPECT_TRUE(says("The raw lens shows bare bytes as pixels"));
    EXPECT_FALSE(sifting->findChild<QPushButton*>("sift_take")->isEnabled());
}

TEST_F(Workshops, NamesOfHashedEntriesAreFoundInOtherFiles) {
    write_layout("cipher");
    std::filesystem::create_directories(folder / "project/sheets");
    std::filesystem::copy_file(std::filesystem::path(layouts_folder) / "cipher.toml", folder / "project/sheets/cipher.toml");
    std::filesystem::copy_file(folder / "game/cipher.paths", folder / "project/sheets/cipher.paths");
    const std::string notes = "material swing { picture = \"rides\\Swing.dds\"; tint = 3 }\n";
    put_file(folder / "loose/notes.mat", as_bytes(notes));
    open({folder / "game/game.cph", folder / "loose"});
    const auto before = models.catalog.snapshot();
    ASSERT_TRUE(models.store.add_key("booth=000102030405060708090a0b0c0d0e0f"));
    ASSERT_TRUE(wait([&] { return models.catalog.snapshot() != before && models.catalog.snapshot()->whole && !models.jobs.busy(); }));
    const auto keyed = models.catalog.snapshot();
    ASSERT_TRUE(models.store.add_key("vault=6465666768696a6b6c6d6e6f707172737475767778797a7b7c7d7e7f80818283"));
    ASSERT_TRUE(wait([&] { return models.catalog.snapshot() != keyed && models.catalog.snapshot()->whole && !models.jobs.busy(); }));
    ASSERT_TRUE(models.catalog.snapshot()->sources[0].container) << models.catalog.snapshot()->sources[0].error->message();
    ASSERT_EQ(models.catalog.snapshot()->facts[0].unnamed, 1u);
    ASSERT_TRUE(models.catalog.snapshot()->sources[0].container->find("#f517cf26"));
    window->findChild<QListView*>("sources")->setCurrentIndex(window->findChild<QListView*>("sources")->model()->index(1, 0));
    press(Qt::Key_N);
    QDialog* names = nullptr;
    ASSERT_TRUE(wait([&] {
        names = window->findChild<QDialog*>("names");
        return names && names->findChild<QListWidget*>("names_list")->count() == 1;
    }));
    EXPECT_TRUE(names->findChild<QListWidget*>("names_list")->item(0)->text().contains("rides/Swing.dds"));
    const auto found = models.catalog.snapshot();
    QTest::mouseClick(names->findChild<QPushButton*>("names_take"), Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return models.catalog.snapshot() != found && models.catalog.snapshot()->whole && !models.jobs.busy(); }));
    EXPECT_TRUE(models.catalog.snapshot()->sources[0].container->find("rides/Swing.dds"));
    EXPECT_EQ(models.catalog.snapshot()->facts[0].unnamed, 0u);
}

// All entries are padded, so a last byte and the one behind it fit alike: read to the last byte, and only a place to begin.
TEST_F(Workshops, ADraftThatIsNotSoundSaysWhy) {
    ByteWriter out;
    out.put("FN");
    out.le(std::uint16_t{12});
    Bytes data;
    const std::size_t start = 200;
    for (unsigned i = 0; i < 12; ++i) {
        const auto content = random_bytes(50 + 8 * i + i % 3, i);
        auto name = "horse" + std::to_string(i);
        name.resize(8);
        out.put(name);
        out.le(static_cast<std::uint32_t>(start + data.size()));
        out.le(static_cast<std::uint32_t>(start + data.size() + content.size()));
        data.insert(data.end(), content.begin(), content.end());
        data.resize((data.size() + 7) / 8 * 8);
    }
    out.bytes.resize(start);
    out.bytes.insert(out.bytes.end(), data.begin(), data.end());
    put_file(folder / "pins.dat", out.bytes);
    open({folder / "pins.dat"});
    show_sheet_workshop(window.get(), &models.sources, 0);
    auto* workshop = dialog<SheetWorkshop>();
    ASSERT_TRUE(workshop);
    QTest::keyClick(workshop, Qt::Key_D, Qt::ControlModifier);
    const auto says = [&](const QString& part) {
        for (const auto* label : workshop->findChildren<QLabel*>())
            if (label->text().contains(part)) return true;
        return false;
    };
    EXPECT_TRUE(wait([&] { return workshop->settled() && says("only a place to begin"); }));
    EXPECT_TRUE(says("looks like sizes or ends") || says("last byte or the one behind it"));
    EXPECT_TRUE(says("12 entries, 12 of 12 looked at can be read"));
    // Somebody's own text is judged by what it reads.
    auto* text = workshop->findChild<QPlainTextEdit*>();
    text->moveCursor(QTextCursor::End);
    text->insertPlainText("\n");
    EXPECT_TRUE(wait([&] { return workshop->settled() && !says("only a place to begin"); }));
}

// What sheets describe, in the real window: an example of the cookbook typed in and proved, a packer of one's own, a palette texture edited
// and delivered.
#include <gtest/gtest.h>

#include <fmt/format.h>
#include <filesystem>
#include <QDialog>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QtTest>
#include <sstream>
#include <string>

#include "app/pages/delivery_page.h"
#include "app/pages/fitting_page.h"
#include "app/workshop/sheet_workshop.h"
#include "base/keys.h"
#include "container/texture_files.h"
#include "delivery/vault.h"
#include "support/band_archive.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"
#include "texture/png.h"
#include "ui/window_test.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

struct Described : WindowTest {
    template <class T>
    T* dialog(const char* name = nullptr) {
        T* found = nullptr;
        wait([&] {
            for (auto* d : window->findChildren<T*>(name ? QString::fromLatin1(name) : QString()))
                if (d->isVisible()) found = d;
            return found != nullptr;
        });
        return found;
    }
    QPushButton* button(const QString& text) {
        for (auto* b : window->findChildren<QPushButton*>())
            if (b->isVisible() && b->text().contains(text)) return b;
        return nullptr;
    }
    /// Dump and sheet of a recipe of docs/sheets.md.
    std::pair<Bytes, std::string> recipe(const std::string& title) {
        std::istringstream in(as_text(get_file(std::filesystem::path(layouts_folder) / "../../docs/sheets.md")));
        std::pair<Bytes, std::string> out;
        bool here = false;
        for (std::string line; std::getline(in, line);) {
            if (line.starts_with("### ")) here = line.find(title) != std::string::npos;
            if (!here || !line.starts_with("    ")) continue;
            line.erase(0, 4);
            if (line.size() > 10 && line[8] == ':') {
                const auto bytes = bytes_of_hex(line.substr(10, 39));
                out.first.insert(out.first.end(), bytes->begin(), bytes->end());
            } else {
                out.second += line + '\n';
            }
        }
        return out;
    }
};

}  // namespace

TEST_F(Described, AnExampleOfTheCookbookIsTypedProvedAndKept) {
    const auto [archive, sheet] = recipe("One more place than entries");
    put_file(folder / "game/nest.bin", archive);
    open({folder / "game/nest.bin"});
    ASSERT_TRUE(models.catalog.snapshot()->sources[0].error);
    press(Qt::Key_W);
    auto* workshop = dialog<SheetWorkshop>();
    ASSERT_TRUE(workshop);
    auto* text = workshop->findChild<QPlainTextEdit*>("sheet_text");
    text->setPlainText(QString::fromStdString(sheet));
    ASSERT_TRUE(wait([&] { return workshop->settled(); }));
    EXPECT_TRUE(says("2 entries, 2 of 2 looked at can be read; 0 bytes are not explained"));
    text->setFocus();
    QTest::keyClick(text, Qt::Key_T, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return says("Proved: 2 of 2 entries were changed and put back in a copy"); }));
    EXPECT_TRUE(says("every byte is explained"));
    const auto before = models.catalog.snapshot();
    QTest::keyClick(text, Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return models.catalog.snapshot() != before && models.catalog.snapshot()->whole && !models.jobs.busy(); }));
    ASSERT_FALSE(models.catalog.snapshot()->sources[0].error);
    EXPECT_EQ(models.catalog.snapshot()->sources[0].container->entries().size(), 2u);
}

TEST_F(Described, WhatADraftFoundIsKeptWithTheSheetAndNotBefore) {
    const Bytes key = {std::byte{0x91}, std::byte{0x3C}, std::byte{0x77}, std::byte{0xE8}, std::byte{0x05}};
    for (const bool whole : {false, true}) {
        const auto name = whole ? "whole" : "band";
        put_file(folder / fmt::format("game/{}.pak0", name), whole ? hidden_band_archive(key) : band_archive(key));
    }
    open({folder / "game/band.pak0", folder / "game/whole.pak0"});
    for (const bool whole : {false, true}) {
        ASSERT_TRUE(models.catalog.snapshot()->sources[whole].error);
        show_sheet_workshop(window.get(), &models.sources, whole);
        auto* workshop = dialog<SheetWorkshop>();
        ASSERT_TRUE(workshop);
        auto* text = workshop->findChild<QPlainTextEdit*>("sheet_text");
        text->setFocus();
        QTest::keyClick(text, Qt::Key_D, Qt::ControlModifier);
        ASSERT_TRUE(wait([&] {
            return workshop->settled() && says("24 entries, 24 of 24 looked at can be read; 0 bytes are not explained");
        })) << text->toPlainText().toStdString();
        EXPECT_EQ(says("all of the file is hidden by a short key"), whole);
        const auto keys = models.store.context()->keys->all().size();
        EXPECT_EQ(keys, whole ? 1u : 0u) << "a draft alone keeps nothing";
        QTest::keyClick(text, Qt::Key_T, Qt::ControlModifier);
        ASSERT_TRUE(wait([&] { return says("Proved: 24 of 24 entries were changed and put back in a copy"); }));
        const auto before = models.catalog.snapshot();
        QTest::keyClick(text, Qt::Key_Return, Qt::ControlModifier);
        ASSERT_TRUE(wait([&] {
            return models.catalog.snapshot() != before && models.catalog.snapshot()->whole && !models.jobs.busy() &&
                   !models.catalog.snapshot()->sources[whole].error;
        }));
        const auto container = models.catalog.snapshot()->sources[whole].container;
        ASSERT_EQ(container->entries().size(), 24u);
        const auto content = *container->read(2, ReadLimits{});
        EXPECT_TRUE(as_text(content).starts_with("cccc")) << as_text(content);
        EXPECT_EQ(models.store.context()->keys->all().size(), keys + 1);
    }
}

TEST_F(Described, WhereNothingCanBeDraftedWhatCanBeSeenIsShown) {
    put_file(folder / "game/noise.pak0", random_bytes(50'000, 3));
    open({folder / "game/noise.pak0"});
    show_sheet_workshop(window.get(), &models.sources, 0);
    auto* workshop = dialog<SheetWorkshop>();
    ASSERT_TRUE(workshop);
    auto* text = workshop->findChild<QPlainTextEdit*>("sheet_text");
    text->setFocus();
    QTest::keyClick(text, Qt::Key_D, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return says("no table of entries could be found"); }));
    EXPECT_TRUE(says("packed or hidden bytes, 8.0 bits a byte"));
    EXPECT_TRUE(text->toPlainText().isEmpty());
}

TEST_F(Described, APackerOfOnesOwnIsNamedWhereASheetWantsOne) {
    const auto brass = std::filesystem::path(programs_folder) / "fair-brass";
    const auto horse = make_dds(Format::BC1, 32, 32);
    put_file(folder / "plain", horse);
    ASSERT_EQ(
        run_program(
            {"sh", "-c", "'" + brass.string() + "' pack < '" + (folder / "plain").string() + "' > '" + (folder / "packed").string() + "'"})
            .code,
        0);
    const auto packed = get_file(folder / "packed");
    ByteWriter out;
    out.put("BAND");
    out.le(static_cast<std::uint32_t>(packed.size()));
    out.le(static_cast<std::uint32_t>(horse.size()));
    out.put(packed);
    put_file(folder / "game/march.band", out.bytes);
    put_file(folder / "project/sheets/band.toml", bytes_of(R"(sheet = "container"
name = "Band"
[[recognize]]
text = "BAND"
[[packer]]
name = "brass"
kind = "program"
[header]
fields = [ { name = "magic", type = "text", size = 4 } ]
[record]
count = 1
path = "horse.dds"
fields = [ { name = "stored", type = "u32", means = "stored size" }, { name = "bytes", type = "u32", means = "size" } ]
[data]
at = "after record"
method = "brass"
)"));
    open({folder / "game/march.band"});
    ASSERT_FALSE(models.catalog.snapshot()->sources[0].error) << models.catalog.snapshot()->sources[0].error->message();
    EXPECT_EQ(models.catalog.snapshot()->catalog.items.at(0).desc.format, Format::unknown);
    ASSERT_TRUE(button("Packers"));
    press(Qt::Key_P);
    auto* packers = dialog<QDialog>("packers");
    ASSERT_TRUE(packers);
    auto* unpack = packers->findChild<QLineEdit*>("unpack_command");
    auto* pack = packers->findChild<QLineEdit*>("pack_command");
    auto* keep = packers->findChild<QPushButton*>("keep_packer");
    QTest::keyClicks(unpack, "'no end");
    QTest::mouseClick(keep, Qt::LeftButton);
    EXPECT_TRUE(says("without its end"));
    unpack->clear();
    QTest::keyClicks(unpack, QString::fromStdString(brass.string() + " unpack {size}"));
    QTest::keyClicks(pack, QString::fromStdString(brass.string() + " pack"));
    QTest::mouseClick(keep, Qt::LeftButton);
    ASSERT_TRUE(wait([&] {
        return !models.catalog.snapshot()->catalog.items.empty() && models.catalog.snapshot()->catalog.items[0].desc.format == Format::BC1;
    }));
    packers->close();
    ASSERT_TRUE(wait([&] { return as_text(get_file(folder / "project/project.json")).find("fair-brass") != std::string::npos; }));
}

TEST_F(Described, APaletteTextureIsEditedAndDelivered) {
    std::filesystem::create_directories(folder / "game");
    ASSERT_EQ(
        run_program({"python3", std::string(layouts_folder) + "/textures.py", "write", "badge", (folder / "game").string(), "5"}).code, 0);
    put_file(folder / "project/sheets/badge.toml", get_file(std::filesystem::path(layouts_folder) / "badge.toml"));
    const auto archive = folder / "game/badge.zip";
    const auto before = get_file(archive);
    open({archive});
    const auto snapshot = models.catalog.snapshot();
    std::optional<std::size_t> badge;
    for (std::size_t i = 0; i < snapshot->catalog.items.size(); ++i)
        if (snapshot->catalog.items[i].path() == "a/x.badge") badge = i;
    ASSERT_TRUE(badge);
    models.catalog.take({*badge}, ExportAs::png);
    ASSERT_TRUE(wait([&] { return models.bench.pieces().size() == 1; }));
    const auto& piece = [&]() -> const Piece& { return models.bench.pieces().at(0); };
    const auto file = models.store.project().work() / piece().file;
    auto image = *read_png(get_file(file), ReadLimits{});
    ASSERT_EQ(image.width, 13u);
    // One texel in a color of the palette, one in a color near to another of them.
    const Texel green{9, 200, 30, 255}, nearly_red{240, 8, 9, 128}, red{250, 1, 2, 128};
    image.at(3, 2) = green;
    image.at(4, 2) = nearly_red;
    put_file(file, *write_png(image));
    ASSERT_TRUE(wait([&] { return waits(piece().state); }));
    window->go_to(PageId::fitting);
    ASSERT_TRUE(wait([&] { return piece().state == PieceState::fits || piece().state == PieceState::needs_mend; }));
    window->go_to(PageId::delivery);
    ASSERT_TRUE(wait([&] { return models.delivery.plan() && models.delivery.plan()->piece_count() == 1; }));
    models.delivery.deliver();
    ASSERT_TRUE(wait([&] { return piece().state == PieceState::delivered; }));
    ReadContext context;
    ASSERT_TRUE(add_sheet(context, std::filesystem::path(layouts_folder) / "badge.toml"));
    const auto texture = open_texture_at(context, {archive, {"a/x.badge"}});
    ASSERT_TRUE(texture);
    const auto shown = *texture->decode(0);
    EXPECT_EQ(shown.at(3, 2), green);
    EXPECT_EQ(shown.at(4, 2), red) << "the nearest of the four colors";
    std::filesystem::create_directories(folder / "out");
    EXPECT_EQ(run_program({"python3", std::string(layouts_folder) + "/textures.py", "read", "badge", (folder / "game").string(),
                           (folder / "out").string()})
                  .code,
              0)
        << "the palette's own file and everything else as they were";
    PosixFiles files;
    ASSERT_TRUE(wait([&] { return !models.jobs.busy(); }));
    ASSERT_TRUE(Vault(folder / "project/vault", files).restore_all());
    EXPECT_EQ(get_file(archive), before);
}

// Sources by keyboard and mouse: a key is given, a kind is chosen against recognition, dead space is given back.
#include <gtest/gtest.h>

#include <sys/stat.h>
#include <filesystem>
#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLineEdit>
#include <QListView>
#include <QListWidget>
#include <QPushButton>
#include <QtTest>
#include <string>
#include <vector>

#include "support/pictures.h"
#include "support/run_program.h"
#include "ui/window_test.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

struct SourcesUi : WindowTest {
    QPushButton* button(const QString& text) {
        for (auto* b : window->findChildren<QPushButton*>())
            if (b->isVisible() && b->text().contains(text)) return b;
        return nullptr;
    }
    QDialog* dialog(const char* name) {
        QDialog* found = nullptr;
        wait([&] {
            for (auto* d : window->findChildren<QDialog*>(name))
                if (d->isVisible()) found = d;
            return found != nullptr;
        });
        return found;
    }
};

}  // namespace

TEST_F(SourcesUi, AKeyOpensAnEncryptedArchiveAndStaysInTheProject) {
    put_file(folder / "in/horse.dds", make_dds(Format::BC1, 32, 32));
    ASSERT_EQ(run_program({"zip", "-q", "-P", "ticket booth", "../locked.zip", "horse.dds"}, (folder / "in").string()).code, 0);
    open({folder / "locked.zip"});
    EXPECT_TRUE(says("Some entries are encrypted and no key opens them"));
    EXPECT_EQ(models.catalog.snapshot()->catalog.items[0].desc.format, Format::unknown);
    press(Qt::Key_K);
    auto* keys = dialog("keys");
    ASSERT_TRUE(keys);
    auto* name = keys->findChild<QLineEdit*>("key_name");
    auto* value = keys->findChild<QLineEdit*>("key_value");
    QTest::keyClicks(name, "booth");
    keys->findChild<QComboBox*>("key_how")->setCurrentIndex(1);
    QTest::keyClicks(value, "not digits");
    QTest::mouseClick(keys->findChild<QPushButton*>("add_key"), Qt::LeftButton);
    EXPECT_TRUE(says("is not written in pairs of hexadecimal digits"));
    EXPECT_TRUE(models.store.key_names().empty());
    EXPECT_EQ(value->echoMode(), QLineEdit::Password) << "nobody reads it over the shoulder";
    keys->findChild<QComboBox*>("key_how")->setCurrentIndex(0);
    value->clear();
    QTest::keyClicks(value, "ticket booth");
    QTest::mouseClick(keys->findChild<QPushButton*>("add_key"), Qt::LeftButton);
    EXPECT_EQ(models.store.key_names(), std::vector<std::string>{"booth"});
    ASSERT_TRUE(wait([&] {
        return !models.catalog.snapshot()->catalog.items.empty() && models.catalog.snapshot()->catalog.items[0].desc.format == Format::BC1;
    }));
    keys->close();
    EXPECT_FALSE(says("no key opens them"));
    struct stat info {};
    ASSERT_TRUE(wait([&] { return ::stat((folder / "project/keys").c_str(), &info) == 0; }));
    EXPECT_EQ(info.st_mode & 0777, 0600u);
    for (const auto& line : models.messages.log()) EXPECT_FALSE(line.contains("ticket booth"));
    EXPECT_EQ(as_text(get_file(folder / "project/project.json")).find("ticket"), std::string::npos);
    // The project opened again has the key.
    ASSERT_TRUE(wait([&] { return !models.jobs.busy(); }));
    models.store.close();
    Models again;
    again.store.open({folder / "project", {}, {}, {}});
    ASSERT_TRUE(wait([&] { return again.sources.ready(); }));
    EXPECT_EQ(again.catalog.snapshot()->catalog.items[0].desc.format, Format::BC1);
}

TEST_F(SourcesUi, AKindIsChosenAndTakenBack) {
    put_file(folder / "odd.pack", make_zip({{"horse.dds", make_dds(Format::BC1, 32, 32)}}));
    open({folder / "odd.pack"});
    ASSERT_EQ(models.catalog.snapshot()->facts.size(), 1u);
    EXPECT_EQ(models.catalog.snapshot()->facts[0].candidates[0].first, "ZIP");
    const auto choose = [&](const QString& what, bool alike) {
        press(Qt::Key_T);
        auto* kinds = dialog("kinds");
        ASSERT_TRUE(kinds);
        auto* list = kinds->findChild<QListWidget*>("kind_list");
        for (int i = 0; i < list->count(); ++i)
            if (list->item(i)->text().startsWith(what)) list->setCurrentRow(i);
        kinds->findChild<QCheckBox*>("kind_alike")->setChecked(alike);
        const auto before = models.catalog.snapshot();
        QTest::mouseClick(kinds->findChild<QPushButton*>("take_kind"), Qt::LeftButton);
        ASSERT_TRUE(wait([&] { return models.catalog.snapshot() != before && models.catalog.snapshot()->whole && !models.jobs.busy(); }));
    };
    choose("tar", true);
    EXPECT_TRUE(models.catalog.snapshot()->sources[0].error) << "a ZIP is no tar";
    ASSERT_EQ(models.store.project().choices.size(), 1u);
    EXPECT_EQ(models.store.project().choices[0].pattern, "*.pack");
    EXPECT_TRUE(says("odd.pack"));
    choose("As recognized", true);
    EXPECT_FALSE(models.catalog.snapshot()->sources[0].error);
    EXPECT_TRUE(models.store.project().choices.empty());
}

TEST_F(SourcesUi, DeadSpaceIsShownAndGivenBack) {
    const auto archive = folder / "game.zip";
    put_file(archive, make_zip({{"a.bin", random_bytes(50'000, 1)}, {"horse.dds", make_dds(Format::BC1, 32, 32)}}));
    put_file(folder / "new.bin", random_bytes(20'000, 2));
    ASSERT_EQ(
        run_cli({"replace", archive.string() + "::a.bin", "--with", (folder / "new.bin").string(), "--vault", (folder / "v").string()})
            .code,
        0);
    const auto grown = get_file(archive);
    open({archive});
    auto* give = button("back");
    ASSERT_TRUE(give);
    EXPECT_TRUE(give->text().contains("Give 4")) << give->text().toStdString();
    press(Qt::Key_G);
    ASSERT_TRUE(wait([&] {
        return models.store.history().size() == 1 && models.catalog.snapshot()->whole &&
               models.catalog.snapshot()->facts[0].dead_bytes == 0 && !models.jobs.busy();
    }));
    EXPECT_LT(std::filesystem::file_size(archive), 25'000u);
    EXPECT_FALSE(button("Give "));
    ASSERT_EQ(models.store.history().size(), 1u);
    models.delivery.undo(models.store.history()[0].id);
    ASSERT_TRUE(wait([&] { return models.catalog.snapshot()->facts[0].dead_bytes > 0 && !models.jobs.busy(); }));
    EXPECT_EQ(get_file(archive), grown);
}

TEST_F(SourcesUi, ADamagedArchiveSaysThatItIsOnlyRead) {
    auto bytes = make_zip({{"horse.dds", make_dds(Format::BC1, 32, 32)}, {"b", random_bytes(50, 1)}});
    bytes.resize(bytes.size() - 30);
    put_file(folder / "cut.zip", bytes);
    open({folder / "cut.zip"});
    EXPECT_TRUE(says("Only for reading: the archive's directory is damaged"));
    EXPECT_EQ(models.catalog.snapshot()->texture_counts[0], 1u) << "what is whole can be taken out";
}

// Colors that can be read, by day and by night, and the settings of the program.
#include <gtest/gtest.h>

#include <cmath>
#include <QApplication>
#include <QComboBox>
#include <QDBusVariant>
#include <QKeySequenceEdit>
#include <QLineEdit>
#include <QPushButton>
#include <QRadioButton>
#include <QTableWidget>
#include <vector>

#include "app/models/preferences.h"
#include "app/settings_pages.h"
#include "app/theme/system_look.h"
#include "app/theme/theme.h"
#include "app/workshop/workshop_actions.h"
#include "catalog/thumbnail_cache.h"
#include "ui/window_test.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

/// Relative luminance and contrast ratio as WCAG 2.2 defines them (https://www.w3.org/TR/WCAG22/#dfn-relative-luminance,
/// #dfn-contrast-ratio).
double luminance(const QColor& color) {
    const auto linear = [](double v) { return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
    return 0.2126 * linear(color.redF()) + 0.7152 * linear(color.greenF()) + 0.0722 * linear(color.blueF());
}
double contrast(const QColor& a, const QColor& b) {
    const double x = luminance(a), y = luminance(b);
    return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
}

struct Pair {
    const char* what;
    QColor upper, lower;
};

}  // namespace

TEST(Theme, TheContrastFormulaIsTheStandards) {
    EXPECT_NEAR(contrast(Qt::white, Qt::black), 21, 1e-9);
    EXPECT_NEAR(contrast(QColor(0x77, 0x77, 0x77), Qt::white), 4.48,
                0.005);  // the gray that just fails, named in WCAG's own advice; from memory
}

TEST(Theme, TextAndWhatCanBeUsedIsVisibleByDayAndByNight) {
    for (const auto* c : {&light_colors(), &night_colors()}) {
        const char* theme = c == &light_colors() ? "day" : "night";
        // Success criterion 1.4.3 (AA): text has at least 4.5 to 1.
        const Pair texts[] = {
            {"ink on page", c->ink, c->page},       {"ink on panel", c->ink, c->panel},       {"ink on card", c->ink, c->card},
            {"ink on chip", c->ink, c->chip},       {"ink on band", c->ink, c->band},         {"ink under the pointer", c->ink, c->over},
            {"ink pressed", c->ink, c->down},       {"soft on page", c->soft, c->page},       {"soft on panel", c->soft, c->panel},
            {"soft on card", c->soft, c->card},     {"soft on chip", c->soft, c->chip},       {"soft under the pointer", c->soft, c->over},
            {"mark on page", c->mark, c->page},     {"mark on panel", c->mark, c->panel},     {"mark on card", c->mark, c->card},
            {"on accent", c->on_accent, c->accent}, {"page on ink (chosen)", c->page, c->ink}};
        for (const auto& pair : texts) EXPECT_GE(contrast(pair.upper, pair.lower), 4.5) << pair.what << " by " << theme;
        // 1.4.11 (AA): what tells a control or its state has at least 3 to 1.
        const Pair lines[] = {{"border on card", c->border, c->card},
                              {"border on panel", c->border, c->panel},
                              {"border on page", c->border, c->page},
                              {"mark on card", c->mark, c->card},
                              {"mark on panel", c->mark, c->panel}};
        for (const auto& pair : lines) EXPECT_GE(contrast(pair.upper, pair.lower), 3.0) << pair.what << " by " << theme;
        for (const auto* gray : {&c->ink, &c->soft, &c->page, &c->panel, &c->card, &c->line, &c->border, &c->well, &c->chip})
            EXPECT_TRUE(gray->red() == gray->green() && gray->green() == gray->blue()) << "grays have no hue, by " << theme;
    }
    EXPECT_EQ(light_colors().accent, night_colors().accent);
    EXPECT_EQ(light_colors().well, night_colors().well) << "colors are judged on the same gray";
}

TEST(Theme, TheSettingAndTheSystemChooseIt) {
    const auto set = [](Settings::Look look) { Preferences::the().change([&](Settings& s) { s.look = look; }); };
    set(Settings::Look::night);
    EXPECT_TRUE(is_night());
    EXPECT_EQ(QApplication::palette().color(QPalette::Window), night_colors().page);
    EXPECT_TRUE(qApp->styleSheet().contains(night_colors().card.name()));
    EXPECT_FALSE(qApp->styleSheet().contains('@')) << "every color has its value";
    set(Settings::Look::light);
    EXPECT_FALSE(is_night());
    set(Settings::Look::system);
    EXPECT_FALSE(qApp->styleSheet().contains('@'));

    QPalette dark;
    dark.setColor(QPalette::Window, QColor(30, 30, 30));
    EXPECT_TRUE(SystemLook(dark, nullptr).is_dark());
    // org.freedesktop.appearance: color-scheme is 0 (no preference), 1 (dark) or 2 (light).
    SystemLook system(QPalette(Qt::white), nullptr);
    int changes = 0;
    QObject::connect(&system, &SystemLook::changed, [&] { ++changes; });
    system.take(QVariant(1u));
    EXPECT_TRUE(system.is_dark());
    system.take(QVariant(0u));
    system.take(QVariant("nonsense"));
    EXPECT_TRUE(system.is_dark());
    system.take(QVariant(2u));
    EXPECT_FALSE(system.is_dark());
    EXPECT_EQ(changes, 2);
}

namespace {

struct SettingsUi : WindowTest {
    void SetUp() override { qputenv("XDG_CACHE_HOME", (folder / "cache").c_str()); }
    void TearDown() override {
        qunsetenv("XDG_CACHE_HOME");
        Preferences::the().change([](Settings& s) { s = {}; });
    }
    QDialog* settings(SettingsPart part) {
        window->open_settings(part);
        return window->findChild<QDialog*>("settings");
    }
    static void keep(QDialog* dialog) { QTest::mouseClick(dialog->findChild<QPushButton*>("keep_settings"), Qt::LeftButton); }
};

}  // namespace

TEST_F(SettingsUi, TheLookIsChosenAndKept) {
    open({});
    auto* dialog = settings(SettingsPart::look);
    ASSERT_TRUE(dialog);
    dialog->findChild<QRadioButton*>("look_night")->click();
    EXPECT_FALSE(is_night()) << "nothing changes before it is kept";
    keep(dialog);
    EXPECT_TRUE(is_night());
    dialog = settings(SettingsPart::look);
    EXPECT_TRUE(dialog->findChild<QRadioButton*>("look_night")->isChecked());
    dialog->reject();
}

TEST_F(SettingsUi, AKeyIsPressedAndAClashIsRefused) {
    open({});
    auto* dialog = settings(SettingsPart::keys);
    ASSERT_TRUE(dialog);
    auto* table = dialog->findChild<QTableWidget*>("key_table");
    EXPECT_GT(table->rowCount(), 80) << "every action of the window and its pages";
    auto* search = dialog->findChild<QLineEdit*>("key_search");
    auto* edit = dialog->findChild<QKeySequenceEdit*>("key_edit");
    const auto press = [&](const QKeySequence& key) {
        edit->setKeySequence(key);
        emit edit->editingFinished();
    };
    search->setText("Ctrl+L");
    ASSERT_EQ(table->item(0, 0)->text(), "Log");
    press(QKeySequence("Ctrl+K"));  // the finder's
    keep(dialog);
    ASSERT_TRUE(window->findChild<QDialog*>("settings")) << "two actions with one key are not kept";
    press(QKeySequence("Ctrl+Shift+L"));
    keep(dialog);
    EXPECT_EQ(window->findChild<QAction*>("window/log")->shortcut(), QKeySequence("Ctrl+Shift+L"));
    EXPECT_EQ(Preferences::the().settings().keys.size(), 1u);
}

TEST(SystemText, ItsSizeIsTakenWhereItMakesSense) {
    EXPECT_EQ(text_scale_of(1.25), 1.25);
    EXPECT_EQ(text_scale_of(QVariant::fromValue(QDBusVariant(QVariant::fromValue(QDBusVariant(1.5))))), 1.5) << "as older portals answer";
    for (const auto& rubbish : {QVariant(), QVariant(0.0), QVariant(-1), QVariant(40.0), QVariant(QStringLiteral("large"))})
        EXPECT_EQ(text_scale_of(rubbish), 1);
    EXPECT_EQ(system_text_scale(), 1) << "without a bus";
}

TEST_F(SettingsUi, KeysOfTheWorkshopsWindowsAreListedAndChanged) {
    // Each has a name and a window; in one window no two have the same key.
    std::map<std::pair<QString, QKeySequence>, const char*> taken;
    for (const auto& action : workshop_actions()) {
        EXPECT_FALSE(workshop_window_of(QLatin1String(action.id)).isEmpty()) << action.id;
        if (action.standard().isEmpty()) continue;
        const auto [other, fresh] = taken.try_emplace({workshop_window_of(QLatin1String(action.id)), action.standard()}, action.id);
        EXPECT_TRUE(fresh) << action.id << " and " << other->second;
    }
    KeySettings standard(Preferences::the().settings(), {});
    EXPECT_TRUE(standard.wrong().isEmpty()) << standard.wrong().toStdString();
    Settings kept;
    standard.keep(kept);
    EXPECT_TRUE(kept.keys.empty());
    // A person's key is the key of the window that is opened next, and of one that is open.
    QWidget lens;
    auto* action = add_workshop_action(&lens, "raw-lens/next-format");
    EXPECT_EQ(action->shortcut(), QKeySequence(Qt::Key_F));
    Preferences::the().change([](Settings& s) { s.keys["raw-lens/next-format"] = "Ctrl+J"; });
    EXPECT_EQ(action->shortcut(), QKeySequence(Qt::CTRL | Qt::Key_J));
    EXPECT_EQ(add_workshop_action(&lens, "raw-lens/next-format")->shortcut(), QKeySequence(Qt::CTRL | Qt::Key_J));
    // One that another of the window has is told.
    Preferences::the().change([](Settings& s) { s.keys["raw-lens/next-format"] = "T"; });
    KeySettings clash(Preferences::the().settings(), {});
    EXPECT_TRUE(clash.wrong().contains("Next format")) << clash.wrong().toStdString();
}

TEST_F(SettingsUi, SmallPicturesAreMeasuredAndCleared) {
    open({});
    const auto place = ThumbnailCache::usual_place();
    {
        const auto cache = *ThumbnailCache::open(place);
        std::vector<KeptPicture> pictures;
        for (std::uint64_t i = 1; i < 40; ++i) pictures.push_back({{i, i}, Image(128, 128, {9, 9, 9, 255}), {}, Format::unknown});
        ASSERT_TRUE(cache->put(pictures));
    }
    auto* dialog = settings(SettingsPart::pictures);
    ASSERT_TRUE(dialog);
    dialog->findChild<QPushButton*>("clear_pictures")->click();
    EXPECT_TRUE(wait([&] { return (*ThumbnailCache::open(place))->bytes() == 0; }));
    auto* most = dialog->findChild<QComboBox*>("most_pictures");
    most->setCurrentIndex(0);
    keep(dialog);
    EXPECT_EQ(Preferences::the().settings().thumbnail_bytes, 64u << 20);
}

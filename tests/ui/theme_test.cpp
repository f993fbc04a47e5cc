// Colors that can be read, by day and by night.
#include <gtest/gtest.h>

#include <cmath>
#include <QApplication>

#include "app/models/preferences.h"
#include "app/theme/system_look.h"
#include "app/theme/theme.h"

using namespace skivet;
using namespace skivet::app;

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

#include "app/theme/theme.h"

#include <cmath>
#include <QFontDatabase>
#include <QPainterPath>
#include <QProxyStyle>
#include <QStyleFactory>

#include "app/models/preferences.h"
#include "app/theme/system_look.h"
#include "app/widgets/accessible.h"

// Resources of a static library are only linked when they are asked for; the macro must stand outside any namespace.
static void link_resources() {
    Q_INIT_RESOURCE(resources);
    Q_INIT_RESOURCE(guide);
}

namespace skivet::app {

namespace {

bool night = false;

QColor gray(int value) { return {value, value, value}; }

/// The style sheet with the colors in the places of their names.
QString style_sheet(const Colors& c);

}  // namespace

const Colors& light_colors() {
    static const Colors out{gray(0x23), gray(0x60), gray(0xe4),         gray(0xf1), gray(0xfb),         gray(0xc9),
                            gray(0x7d), gray(0x76), {0xa6, 0x3a, 0x50}, gray(0xff), {0xa6, 0x3a, 0x50}, {0xa6, 0x3a, 0x50, 44},
                            gray(0xe2), gray(0xff), gray(0xd8),         gray(0x9a), gray(0xd2),         gray(0xb9),
                            gray(0x4d), gray(0xff)};
    return out;
}

const Colors& night_colors() {
    // The accent's fill is the same; as text and as lines it is lighter, or nobody could read it.
    static const Colors out{gray(0xea), gray(0xb0), gray(0x1d),         gray(0x27), gray(0x31),         gray(0x45),
                            gray(0x8a), gray(0x76), {0xa6, 0x3a, 0x50}, gray(0xff), {0xe0, 0x7f, 0x92}, {0xe0, 0x7f, 0x92, 52},
                            gray(0x3b), gray(0x42), gray(0x1d),         gray(0x7c), gray(0x40),         gray(0x66),
                            gray(0xb4), gray(0x14)};
    return out;
}

const Colors& colors() { return night ? night_colors() : light_colors(); }
bool is_night() { return night; }

QFont text_font(double pixels, bool bold) {
    QFont font(QStringLiteral("Skivet Text"));
    font.setPixelSize(int(std::lround(pixels)));
    font.setBold(bold);
    return font;
}

QFont number_font(double pixels) {
    QFont font(QStringLiteral("Skivet Numbers"));
    font.setPixelSize(int(std::lround(pixels)));
    return font;
}

namespace {

QString style_sheet(const Colors& c) {
    auto sheet = QStringLiteral(R"(
        QFrame#panel { background: @panel; border: 1px solid @line; border-radius: 3px; }
        QFrame#card { background: @card; border: 1px solid @line; border-radius: 3px; }
        QFrame#header, QFrame#footer { background: @card; border: none; }
        QFrame#header { border-bottom: 1px solid @line; } QFrame#footer { border-top: 1px solid @line; }
        QFrame#overlay { background: @card; border: 2px solid @border; border-radius: 4px; }
        QFrame#hint { background: @band; border: none; border-bottom: 1px solid @line; }
        QLabel#heading { font-size: 12px; font-weight: bold; color: @soft; }
        QLabel#title { font-size: 18px; font-weight: bold; }
        QLabel#subtitle { font-size: 15px; font-weight: bold; }
        QLabel#strong { font-weight: bold; }
        QLabel#soft { font-size: 12px; color: @soft; }
        QLabel#warning { font-size: 12px; color: @mark; }
        QLabel#soft[news="true"] { color: @ink; } QLabel#soft[wrong="true"], QLabel#strong[wrong="true"], QLabel[wrong="true"] { color: @mark; }
        QLabel#well { background: @well; }
        QListView, QTableView, QScrollArea { background: transparent; border: none; outline: none; }
        QDialog { background: @panel; border: 1px solid @border; }
        QDialogButtonBox { dialogbuttonbox-buttons-have-icons: 0; }
        QDialog QListWidget { background: @card; border: 1px solid @line; border-radius: 4px; padding: 3px; }
        QDialog QListWidget::item { padding: 7px 8px; border-radius: 3px; }
        QDialog QListWidget::item:selected { background: @accent; color: @on_accent; }
        QScrollArea > QWidget > QWidget#clear { background: transparent; } QHeaderView { background: transparent; }
        QTableView { gridline-color: transparent; selection-background-color: @band; selection-color: @ink; font-size: 12px; }
        QHeaderView::section { background: transparent; border: none; color: @soft; font-size: 11px; padding: 4px 6px; text-align: left; }
        QLineEdit { background: @card; border: 1px solid @border; border-radius: 4px; padding: 5px 10px; font-size: 14px; }
        QLineEdit:focus { border: 2px solid @mark; padding: 4px 9px; }
        QComboBox, QSpinBox, QLineEdit[small="true"] { background: @card; border: 1px solid @border; border-radius: 4px; padding: 4px 10px; font-size: 12px; }
        QComboBox:focus, QSpinBox:focus { border: 2px solid @mark; } QLineEdit[small="true"]:focus { border: 2px solid @mark; padding: 3px 9px; }
        QComboBox:disabled, QSpinBox:disabled, QLineEdit:disabled { color: @off; background: transparent; border-color: @line; }
        QPlainTextEdit { background: @card; border: 1px solid @border; border-radius: 4px; } QPlainTextEdit:focus { border: 2px solid @mark; }
        QComboBox::drop-down { border: none; width: 22px; } QComboBox::down-arrow { image: url(:/glyphs/@arrow.svg); width: 12px; height: 12px; }
        QCheckBox { font-size: 12px; spacing: 7px; padding: 1px; } QCheckBox:focus { color: @mark; }
        QCheckBox:disabled { color: @off; }
        QCheckBox::indicator:disabled { border-color: @line; background: @panel; }
        QCheckBox::indicator { width: 11px; height: 11px; border: 1px solid @border; border-radius: 2px; background: @card; }
        QCheckBox::indicator:checked { background: @ink; border-color: @ink; }
        QToolTip { background: @card; color: @ink; border: 1px solid @border; padding: 4px; }
        QScrollBar:vertical { width: 10px; background: transparent; } QScrollBar:horizontal { height: 10px; background: transparent; }
        QScrollBar::handle { background: @handle; border-radius: 4px; min-height: 28px; min-width: 28px; }
        QScrollBar::add-line, QScrollBar::sub-line { height: 0; width: 0; }
        QMenuBar { background: @card; color: @ink; border-bottom: 1px solid @line; padding: 1px 10px; } QMenuBar::item { padding: 4px 9px; background: transparent; }
        QMenu { background: @card; color: @ink; border: 1px solid @border; padding: 4px; } QMenu::item { padding: 5px 22px; border-radius: 3px; }
        QMenu::separator { height: 1px; background: @line; margin: 4px 8px; } QMenu::item:disabled { color: @off; }
        QMenuBar::item:selected, QMenu::item:selected { background: @band; color: @ink; }
        QTabWidget::pane { border: none; } QTabBar { background: transparent; }
        QTabBar::tab { padding: 7px 14px; background: transparent; color: @soft; border: none; border-bottom: 2px solid transparent; }
        QTabBar::tab:selected { color: @ink; border-bottom: 2px solid @mark; } QTabBar::tab:focus { color: @mark; }
        QProgressBar { background: @handle; border: none; border-radius: 3px; } QProgressBar::chunk { background: @ink; border-radius: 3px; }
    )");
    // Longer names first: one may begin another.
    const std::pair<const char*, QString> names[] = {{"@on_accent", c.on_accent.name()},
                                                     {"@accent", c.accent.name()},
                                                     {"@arrow", night ? QStringLiteral("down-night") : QStringLiteral("down")},
                                                     {"@border", c.border.name()},
                                                     {"@handle", c.handle.name()},
                                                     {"@panel", c.panel.name()},
                                                     {"@band", c.band.name()},
                                                     {"@card", c.card.name()},
                                                     {"@line", c.line.name()},
                                                     {"@mark", c.mark.name()},
                                                     {"@page", c.page.name()},
                                                     {"@soft", c.soft.name()},
                                                     {"@well", c.well.name()},
                                                     {"@ink", c.ink.name()},
                                                     {"@off", c.off.name()}};
    for (const auto& [name, color] : names) sheet.replace(QLatin1String(name), color);
    return sheet;
}

void set_colors(QApplication& app) {
    const auto& c = colors();
    QPalette palette;
    palette.setColor(QPalette::Window, c.page);
    palette.setColor(QPalette::Base, c.card);
    palette.setColor(QPalette::AlternateBase, c.panel);
    palette.setColor(QPalette::Button, c.card);
    for (auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText, QPalette::ToolTipText, QPalette::BrightText})
        palette.setColor(role, c.ink);
    for (auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText}) palette.setColor(QPalette::Disabled, role, c.off);
    palette.setColor(QPalette::PlaceholderText, c.soft);
    palette.setColor(QPalette::Highlight, c.accent);
    palette.setColor(QPalette::HighlightedText, c.on_accent);
    palette.setColor(QPalette::ToolTipBase, c.card);
    palette.setColor(QPalette::Link, c.mark);
    palette.setColor(QPalette::Light, c.card);
    palette.setColor(QPalette::Midlight, c.panel);
    palette.setColor(QPalette::Mid, c.line);
    palette.setColor(QPalette::Dark, c.border);
    palette.setColor(QPalette::Shadow, c.border);
    app.setPalette(palette);
    app.setStyleSheet(style_sheet(c));
}

/// Fusion without movement: nothing in the window moves by itself.
class Still : public QProxyStyle {
public:
    Still() : QProxyStyle(QStyleFactory::create(QStringLiteral("Fusion"))) {}
    int styleHint(StyleHint hint, const QStyleOption* option, const QWidget* widget, QStyleHintReturn* data) const override {
        return hint == SH_Widget_Animation_Duration ? 0 : QProxyStyle::styleHint(hint, option, widget, data);
    }
};

}  // namespace

void apply_theme(QApplication& app) {
    link_resources();
    make_accessible();
    for (const char* file : {"SkivetText-Regular", "SkivetText-Bold", "SkivetText-Italic", "SkivetNumbers-Regular"})
        QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/%1.otf").arg(QLatin1String(file)));
    auto* system = new SystemLook(QGuiApplication::palette(), &app);
    app.setStyle(new Still);
    app.setFont(text_font(13));
    QApplication::setWindowIcon(app_icon());
    const auto follow = [&app, system] {
        const auto look = Preferences::the().settings().look;
        const bool wanted = look == Settings::Look::night || (look == Settings::Look::system && system->is_dark());
        if (wanted == night && !app.styleSheet().isEmpty()) return;
        night = wanted;
        set_colors(app);
    };
    QObject::connect(&Preferences::the(), &Preferences::changed, &app, follow);
    QObject::connect(system, &SystemLook::changed, &app, follow);
    follow();
}

void draw_mark(QPainter& p, QPointF center, double r, const QColor& color) {
    const double d = 0.38 * r, gap = 0.34 * r, angle = std::acos(d / r) * 180 / M_PI;
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    p.translate(center);
    p.rotate(-35);
    p.setPen(Qt::NoPen);
    p.setBrush(color);
    const QRectF circle(-r, -r, 2 * r, 2 * r);
    QPainterPath large, slice;
    large.arcMoveTo(circle, angle);
    large.arcTo(circle, angle, 360 - 2 * angle);
    large.closeSubpath();
    slice.arcMoveTo(circle, -angle);
    slice.arcTo(circle, -angle, 2 * angle);
    slice.closeSubpath();
    p.drawPath(large);
    p.translate(gap, 0);
    p.drawPath(slice);
    p.restore();
}

QPixmap mark_pixmap(double side, double ratio) {
    QPixmap out(QSize(int(side * ratio), int(side * ratio)));
    out.setDevicePixelRatio(ratio);
    out.fill(Qt::transparent);
    QPainter p(&out);
    draw_mark(p, {side * 0.45, side / 2}, side * 0.42, colors().ink);
    return out;
}

QIcon app_icon() {
    QIcon out;
    for (const int side : {16, 24, 32, 48, 64, 128, 256}) {
        QPixmap picture(side, side);
        picture.fill(Qt::transparent);
        QPainter p(&picture);
        draw_mark(p, {side * 0.46, side * 0.5}, side * 0.42, colors().accent);
        p.end();
        out.addPixmap(picture);
    }
    return out;
}

void draw_warning(QPainter& p, QPointF c) {
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(Qt::NoPen);
    p.setBrush(colors().mark);
    p.drawPolygon(QPolygonF({c + QPointF(0, -7), c + QPointF(7, 6), c + QPointF(-7, 6)}));
    p.restore();
}

void draw_fits(QPainter& p, QPointF c) { draw_state(p, c, PieceState::fits); }

void draw_state(QPainter& p, QPointF c, PieceState state) {
    if (state == PieceState::needs_mend) return draw_warning(p, c);
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    const auto& ink = colors().ink;
    p.setPen(QPen(ink, 1.5));
    switch (state) {
        case PieceState::fits:
            p.setBrush(ink);
            p.drawEllipse(c, 5.5, 5.5);
            break;
        case PieceState::delivered:
            p.setBrush(ink);
            p.drawRect(QRectF(c.x() - 5, c.y() - 5, 10, 10));
            break;
        default:
            p.drawEllipse(c, 6, 6);
            if (state == PieceState::out) p.drawLine(c, c + QPointF(9, 0));
            if (state == PieceState::gone_stale) p.drawLine(c + QPointF(-6, 6), c + QPointF(6, -6));
            if (state == PieceState::changed) {
                p.setBrush(ink);
                p.setPen(Qt::NoPen);
                p.drawPie(QRectF(c.x() - 6, c.y() - 6, 12, 12), 0, 90 * 16);
            }
    }
    p.restore();
}

QBrush checker_brush() {
    QPixmap tile(16, 16);
    tile.fill(QColor(0x8a, 0x8a, 0x8a));
    QPainter p(&tile);
    p.fillRect(0, 0, 8, 8, QColor(0x6a, 0x6a, 0x6a));
    p.fillRect(8, 8, 8, 8, QColor(0x6a, 0x6a, 0x6a));
    p.end();
    return QBrush(tile);
}

}  // namespace skivet::app

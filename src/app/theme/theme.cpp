#include "app/theme/theme.h"

#include <cmath>
#include <QFontDatabase>
#include <QPainterPath>
#include <QStyleFactory>

// Resources of a static library are only linked when they are asked for; the macro must stand outside any namespace.
static void link_resources() { Q_INIT_RESOURCE(resources); }

namespace skivet::app {

const Colors& colors() {
    static const Colors light;
    return light;
}

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

void apply_theme(QApplication& app) {
    link_resources();
    for (const char* file : {"SkivetText-Regular", "SkivetText-Bold", "SkivetText-Italic", "SkivetNumbers-Regular"})
        QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/%1.otf").arg(QLatin1String(file)));
    app.setStyle(QStyleFactory::create(QStringLiteral("Fusion")));
    app.setFont(text_font(13));
    const auto& c = colors();
    QPalette palette;
    palette.setColor(QPalette::Window, c.page);
    palette.setColor(QPalette::Base, c.card);
    palette.setColor(QPalette::AlternateBase, c.panel);
    palette.setColor(QPalette::Button, c.card);
    for (auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText, QPalette::ToolTipText}) palette.setColor(role, c.ink);
    palette.setColor(QPalette::PlaceholderText, c.soft);
    palette.setColor(QPalette::Highlight, c.accent);
    palette.setColor(QPalette::HighlightedText, Qt::white);
    palette.setColor(QPalette::ToolTipBase, c.card);
    app.setPalette(palette);
    app.setStyleSheet(QStringLiteral(R"(
        QFrame#panel { background: #f1f1f1; border: 1px solid #c9c9c9; border-radius: 3px; }
        QFrame#card { background: #fbfbfb; border: 1px solid #c9c9c9; border-radius: 3px; }
        QFrame#header, QFrame#footer { background: #fbfbfb; border: none; }
        QFrame#header { border-bottom: 1px solid #c9c9c9; } QFrame#footer { border-top: 1px solid #c9c9c9; }
        QLabel#heading { font-size: 12px; font-weight: bold; color: #636363; }
        QLabel#title { font-size: 18px; font-weight: bold; }
        QLabel#subtitle { font-size: 15px; font-weight: bold; }
        QLabel#strong { font-weight: bold; }
        QLabel#soft { font-size: 12px; color: #636363; }
        QLabel#warning { font-size: 12px; color: #a63a50; }
        QListView, QTableView, QScrollArea { background: transparent; border: none; outline: none; }
        QDialog { background: #f1f1f1; border: 1px solid #8a8a8a; }
        QDialogButtonBox { dialogbuttonbox-buttons-have-icons: 0; }
        QDialog QListWidget { background: #fbfbfb; border: 1px solid #c9c9c9; border-radius: 4px; padding: 3px; }
        QDialog QListWidget::item { padding: 7px 8px; border-radius: 3px; }
        QDialog QListWidget::item:selected { background: #a63a50; color: #ffffff; }
        QScrollArea > QWidget > QWidget#clear { background: transparent; } QHeaderView { background: transparent; }
        QTableView { gridline-color: transparent; selection-background-color: #e0e0e0; selection-color: #232323; font-size: 12px; }
        QHeaderView::section { background: transparent; border: none; color: #636363; font-size: 11px; padding: 4px 6px; text-align: left; }
        QLineEdit { background: #fbfbfb; border: 1px solid #8a8a8a; border-radius: 4px; padding: 5px 10px; font-size: 14px; }
        QLineEdit:focus { border: 2px solid #a63a50; padding: 4px 9px; }
        QComboBox, QSpinBox, QLineEdit[small="true"] { background: #fbfbfb; border: 1px solid #a9a9a9; border-radius: 4px; padding: 4px 10px; font-size: 12px; }
        QComboBox:focus, QSpinBox:focus { border: 2px solid #a63a50; } QLineEdit[small="true"]:focus { border: 2px solid #a63a50; padding: 3px 9px; }
        QComboBox:disabled, QSpinBox:disabled, QLineEdit:disabled { color: #a9a9a9; background: transparent; border-color: #d5d5d5; }
        QPlainTextEdit { background: #fbfbfb; border: 1px solid #a9a9a9; border-radius: 4px; } QPlainTextEdit:focus { border: 2px solid #a63a50; }
        QComboBox::drop-down { border: none; width: 22px; } QComboBox::down-arrow { image: url(:/glyphs/down.svg); width: 12px; height: 12px; }
        QCheckBox { font-size: 12px; spacing: 7px; padding: 1px; } QCheckBox:focus { color: #a63a50; }
        QCheckBox:disabled { color: #9a9a9a; }
        QCheckBox::indicator:disabled { border-color: #b5b5b5; background: #ececec; }
        QCheckBox::indicator { width: 11px; height: 11px; border: 1px solid #777777; border-radius: 2px; background: #fbfbfb; }
        QCheckBox::indicator:checked { background: #232323; border-color: #232323; }
        QToolTip { background: #fbfbfb; color: #232323; border: 1px solid #a9a9a9; padding: 4px; }
        QScrollBar:vertical { width: 10px; background: transparent; } QScrollBar:horizontal { height: 10px; background: transparent; }
        QScrollBar::handle { background: #bdbdbd; border-radius: 4px; min-height: 28px; min-width: 28px; }
        QScrollBar::add-line, QScrollBar::sub-line { height: 0; width: 0; }
        QMenuBar { background: #fbfbfb; } QMenuBar::item:selected, QMenu::item:selected { background: #e0e0e0; color: #232323; }
    )"));
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

void draw_warning(QPainter& p, QPointF c) {
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(Qt::NoPen);
    p.setBrush(colors().accent);
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

#pragma once
// Colors, fonts and glyphs. Neutral grays everywhere; one accent, for where one is, what has the focus and what to do next.
#include <QApplication>
#include <QColor>
#include <QPainter>

#include "workflow/project.h"

namespace skivet::app {

struct Colors {
    QColor ink{0x23, 0x23, 0x23}, soft{0x63, 0x63, 0x63}, line{0xc9, 0xc9, 0xc9}, panel{0xf1, 0xf1, 0xf1}, page{0xe4, 0xe4, 0xe4},
        well{0x76, 0x76, 0x76}, accent{0xa6, 0x3a, 0x50}, card{0xfb, 0xfb, 0xfb}, border{0xa9, 0xa9, 0xa9};
};

[[nodiscard]] const Colors& colors();
/// Loads the shipped fonts and sets palette, font and style sheet.
void apply_theme(QApplication& app);
[[nodiscard]] QFont text_font(double pixels, bool bold = false);
[[nodiscard]] QFont number_font(double pixels);

/// Our mark: a disc with one slice cut off along a slant and moved away.
void draw_mark(QPainter& painter, QPointF center, double radius, const QColor& color);
/// The glyph of a piece's state, about 14 px across.
void draw_state(QPainter& painter, QPointF center, PieceState state);
void draw_warning(QPainter& painter, QPointF center);
void draw_fits(QPainter& painter, QPointF center);

/// Light and dark squares of 8 px behind alpha.
[[nodiscard]] QBrush checker_brush();

}  // namespace skivet::app

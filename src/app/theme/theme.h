#pragma once
// Colors, fonts and glyphs. Neutral grays everywhere; one accent, for where one is, what has the focus and what to do next.
#include <QApplication>
#include <QColor>
#include <QIcon>
#include <QPainter>

#include "workflow/project.h"

namespace skivet::app {

struct Colors {
    QColor ink, soft;                 ///< what is read; what is said beside it
    QColor page, panel, card;         ///< grounds, from the lowest to the uppermost
    QColor line, border;              ///< between areas; around what can be used
    QColor well;                      ///< behind pictures, the same by day and night: colors are judged on it
    QColor accent, on_accent;         ///< fills, and what is read on them
    QColor mark, tint;                ///< the accent where it is text or a line, and as a thin layer
    QColor chip, over, down, off;     ///< small actions, what is under the pointer, what is pressed, what cannot be used
    QColor band, handle, dense, gap;  ///< an open set; handles and other data; textures in a byte map; its gaps
};

[[nodiscard]] const Colors& colors();
[[nodiscard]] const Colors& light_colors();
[[nodiscard]] const Colors& night_colors();
/// Loads the shipped fonts and sets palette, font and style sheet, as the settings and the system want them, and follows both.
void apply_theme(QApplication& app);
/// Whether the night theme is on.
[[nodiscard]] bool is_night();
[[nodiscard]] QFont text_font(double pixels, bool bold = false);
[[nodiscard]] QFont number_font(double pixels);

/// Our mark: a disc with one slice cut off along a slant and moved away.
void draw_mark(QPainter& painter, QPointF center, double radius, const QColor& color);
/// The mark as a picture of `side` pixels, for a screen of that ratio.
[[nodiscard]] QPixmap mark_pixmap(double side, double ratio);
/// The window's icon: the mark in the accent.
[[nodiscard]] QIcon app_icon();
/// The glyph of a piece's state, about 14 px across.
void draw_state(QPainter& painter, QPointF center, PieceState state);
void draw_warning(QPainter& painter, QPointF center);
void draw_fits(QPainter& painter, QPointF center);

/// Light and dark squares of 8 px behind alpha.
[[nodiscard]] QBrush checker_brush();

}  // namespace skivet::app

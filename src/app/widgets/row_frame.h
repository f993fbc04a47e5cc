#pragma once
#include <QPainter>
#include <QStyleOptionViewItem>

namespace skivet::app {

/// The frame of a row in a list of cards, in the accent's color when it is chosen. `gap`: pixels to the next row. Returns the box inside
/// which the row is drawn; antialiasing is on.
[[nodiscard]] QRectF draw_row_frame(QPainter& painter, const QStyleOptionViewItem& option, int gap);
/// A tick box, 18 px a side.
void draw_tick(QPainter& painter, const QRectF& box, bool on);

}  // namespace skivet::app

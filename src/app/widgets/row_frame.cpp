#include "app/widgets/row_frame.h"

#include "app/theme/theme.h"

namespace skivet::app {

QRectF draw_row_frame(QPainter& p, const QStyleOptionViewItem& option, int gap) {
    p.setRenderHint(QPainter::Antialiasing);
    const QRectF box = QRectF(option.rect).adjusted(1, 1, -1, -gap);
    const bool on = option.state & QStyle::State_Selected;
    p.setPen(QPen(on ? colors().mark : colors().line, on ? 2 : 1));
    p.setBrush(colors().card);
    p.drawRoundedRect(box, 3, 3);
    return box;
}

void draw_tick(QPainter& p, const QRectF& box, bool on) {
    const auto& c = colors();
    p.setPen(QPen(on ? c.mark : c.border, 1.5));
    p.setBrush(on ? QBrush(c.accent) : QBrush(c.card));
    p.drawRoundedRect(box, 3, 3);
    if (!on) return;
    p.setPen(QPen(c.card, 2.2, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.drawPolyline(QPolygonF({box.topLeft() + QPointF(4, 9.5), box.topLeft() + QPointF(7.5, 13), box.topLeft() + QPointF(14, 5.5)}));
}

}  // namespace skivet::app

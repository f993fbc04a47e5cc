#include "app/widgets/row_frame.h"

#include "app/theme/theme.h"

namespace skivet::app {

QRectF draw_row_frame(QPainter& p, const QStyleOptionViewItem& option, int gap) {
    p.setRenderHint(QPainter::Antialiasing);
    const QRectF box = QRectF(option.rect).adjusted(1, 1, -1, -gap);
    const bool on = option.state & QStyle::State_Selected;
    p.setPen(QPen(on ? colors().accent : colors().line, on ? 2 : 1));
    p.setBrush(colors().card);
    p.drawRoundedRect(box, 3, 3);
    return box;
}

}  // namespace skivet::app

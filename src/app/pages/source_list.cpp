#include "app/pages/source_list.h"

#include <QDropEvent>
#include <QPainter>

#include "app/theme/theme.h"
#include "app/widgets/row_frame.h"

namespace skivet::app {

void SourceDelegate::paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const {
    const auto& c = colors();
    p->save();
    const auto box = draw_row_frame(*p, option, 7);
    p->setFont(number_font(16));
    p->setPen(c.soft);
    p->drawText(QRectF(box.x() + 10, box.y(), 28, box.height()), Qt::AlignCenter, QString::number(index.data(SourceIndex).toInt() + 1));
    const bool bad = index.data(Bad).toBool();
    const auto count = index.data(Count).toString(), status = index.data(Status).toString();
    const QRectF text = box.adjusted(46, 7, -12, -6);
    p->setFont(text_font(12));
    const int right = std::max(p->fontMetrics().horizontalAdvance(count), p->fontMetrics().horizontalAdvance(status) + 24);
    p->setPen(c.ink);
    p->drawText(text, int(Qt::AlignTop | Qt::AlignRight), count);
    p->setPen(bad ? c.mark : c.soft);
    p->drawText(text.adjusted(0, 0, -24, 0), int(Qt::AlignBottom | Qt::AlignRight), status);
    p->setPen(c.soft);
    p->drawText(text, int(Qt::AlignBottom | Qt::AlignLeft),
                p->fontMetrics().elidedText(index.data(About).toString(), Qt::ElideRight, int(text.width()) - right - 8));
    p->setFont(text_font(14, true));
    p->setPen(c.ink);
    p->drawText(text, int(Qt::AlignTop | Qt::AlignLeft),
                p->fontMetrics().elidedText(index.data().toString(), Qt::ElideMiddle, int(text.width()) - right - 8));
    const QPointF glyph(text.right() - 7, text.bottom() - 8);
    if (bad) draw_warning(*p, glyph);
    else
        draw_state(*p, glyph,
                   status.startsWith(QObject::tr("changed")) ? PieceState::changed
                   : status == QObject::tr("switched off")   ? PieceState::gone_stale
                   : status == QObject::tr("added later")    ? PieceState::on_the_bench
                                                             : PieceState::fits);
    p->restore();
}

OrderList::OrderList() {
    setDragEnabled(true);
    setAcceptDrops(true);
    setDropIndicatorShown(true);
    setDragDropMode(QAbstractItemView::InternalMove);
}

void OrderList::dropEvent(QDropEvent* event) {
    if (event->source() != this) return event->ignore();
    const int from = currentIndex().row();
    const auto over = indexAt(event->position().toPoint());
    int to = over.isValid() ? over.row() : model()->rowCount() - 1;
    // Below its middle it goes behind the row, above it before.
    if (over.isValid()) {
        const bool below = event->position().y() > visualRect(over).center().y();
        if (to < from && below) ++to;
        if (to > from && !below) --to;
    }
    event->setDropAction(Qt::IgnoreAction);  // the model moves it, the model follows
    event->accept();
    if (from >= 0 && from != to && moved) moved(from, to);
}

}  // namespace skivet::app

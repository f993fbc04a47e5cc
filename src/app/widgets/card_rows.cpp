#include "app/widgets/card_rows.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include "app/theme/theme.h"
#include "app/widgets/row_frame.h"

namespace skivet::app {
namespace {

constexpr int tick_room = 46;

bool can_tick(const QModelIndex& index) { return index.flags().testFlag(Qt::ItemIsUserCheckable); }

}  // namespace

void CardRows::paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const {
    const auto& c = colors();
    p->save();
    const auto box = draw_row_frame(*p, option, 5);
    if (ticks_ && can_tick(index))
        draw_tick(*p, {box.x() + 14, box.center().y() - 9, 18, 18}, index.data(Qt::CheckStateRole).toInt() == Qt::Checked);
    const auto text = box.adjusted(ticks_ ? tick_room : 14, 8, -13, -8);
    const auto wrong = index.data(CardWrong);
    const bool marked = wrong.typeId() == QMetaType::QString ? !wrong.toString().isEmpty() : wrong.toBool();
    const int room = int(text.width()) - (marked ? 22 : 0);
    p->setPen(c.ink);
    p->setFont(text_font(13, true));
    p->drawText(text, int(Qt::AlignTop | Qt::AlignLeft), p->fontMetrics().elidedText(index.data().toString(), Qt::ElideMiddle, room));
    if (marked) draw_warning(*p, {text.right() - 7, text.top() + 8});
    p->setPen(c.soft);
    p->setFont(text_font(12));
    p->drawText(text, int(Qt::AlignBottom | Qt::AlignLeft),
                p->fontMetrics().elidedText(index.data(CardUnder).toString(), Qt::ElideMiddle, int(text.width())));
    p->restore();
}

bool CardRows::editorEvent(QEvent* event, QAbstractItemModel* model, const QStyleOptionViewItem& option, const QModelIndex& index) {
    if (!ticks_ || !can_tick(index)) return false;
    const bool clicked =
        event->type() == QEvent::MouseButtonRelease &&
        QRectF(option.rect).adjusted(0, 0, tick_room - option.rect.width(), 0).contains(static_cast<QMouseEvent*>(event)->position());
    const bool pressed = event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Space;
    if (!clicked && !pressed) return false;
    const bool on = index.data(Qt::CheckStateRole).toInt() == Qt::Checked;
    return model->setData(index, on ? Qt::Unchecked : Qt::Checked, Qt::CheckStateRole);
}

}  // namespace skivet::app

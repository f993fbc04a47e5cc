#include "app/pages/catalog_delegates.h"

#include <cmath>
#include <QKeyEvent>
#include <QPainter>

#include "app/language.h"
#include "app/models/contact_model.h"
#include "app/pages/page.h"
#include "app/theme/theme.h"
#include "app/widgets/image_view.h"

namespace skivet::app {

namespace {

FacetModel::RowKind kind(const QModelIndex& index) { return static_cast<FacetModel::RowKind>(index.data(FacetModel::Kind).toInt()); }

}  // namespace

void CardDelegate::paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const {
    const auto item = std::size_t(index.data(ContactModel::ItemIndex).toULongLong());
    const auto catalog = model_->catalog();
    const auto& snapshot = catalog->snapshot;
    if (item >= snapshot->catalog.items.size()) return;
    const auto& entry = snapshot->catalog.items[item];
    const bool known = item < catalog->analysis.roles.size();
    const auto& c = colors();
    p->save();
    p->setRenderHint(QPainter::Antialiasing);
    const int in_set = index.data(ContactModel::SetSize).toInt();
    const bool open = index.data(ContactModel::IsOpen).toBool(), closed_set = in_set > 1 && !open;
    const bool on = option.state & QStyle::State_Selected;
    QRectF card = QRectF(option.rect).adjusted(3, 5, -5, -5);
    if (open) {  // members of an open set lie on one band
        p->setPen(Qt::NoPen);
        p->setBrush(c.band);
        p->drawRect(QRectF(option.rect).adjusted(0, 1, 0, -1));
    }
    p->setPen(QPen(c.border, 1));
    p->setBrush(c.panel);
    if (closed_set)  // the edges of the cards behind
        for (const int behind : {4, 2}) p->drawRoundedRect(card.adjusted(behind + 2, -behind, behind - 1, -behind - 8), 3, 3);
    p->setPen(QPen(on ? c.mark : c.line, on ? 2 : 1));
    p->setBrush(c.card);
    p->drawRoundedRect(card, 3, 3);
    auto image = model_->pictures().of(item, int((card.width() - 12) * p->device()->devicePixelRatioF()));
    if (!image.isNull() && image.hasAlphaChannel() && alpha != Alpha::over) {
        const auto* facts = known ? catalog->analysis.facts[item].get() : nullptr;
        if (alpha == Alpha::ignored || !facts || facts->alpha == AlphaUse::empty || facts->alpha == AlphaUse::mask)
            image = image.convertToFormat(QImage::Format_RGB888);
    }
    draw_in_well(*p, QRectF(card.x() + 6, card.y() + 6, card.width() - 12, card.width() - 12), image,
                 std::clamp(int(card.width()) / 18, 3, 12));
    const QRectF text(card.x() + 8, card.bottom() - 39, card.width() - 16, 18);
    p->setFont(text_font(12, true));
    p->setPen(c.ink);
    p->drawText(text, int(Qt::AlignLeft | Qt::AlignVCenter),
                p->fontMetrics().elidedText(index.data().toString(), Qt::ElideMiddle, int(text.width())));
    p->setFont(text_font(11));
    p->setPen(entry.error ? c.mark : c.soft);
    QString fact = entry.error && entry.desc.format != Format::unknown
                       ? (entry.error->code == ErrorCode::missing ? tr("part missing") : tr("damaged"))
                   : entry.error ? tr("cannot be read")
                   : closed_set  ? tr("set of %L1").arg(in_set)
                   : open && known
                       ? spoken(name_of(catalog->analysis.roles[item]))
                       : QStringLiteral("%1 %2×%3").arg(to_text(info(entry.desc.format).name)).arg(entry.desc.width).arg(entry.desc.height);
    if (!entry.effective && !entry.error) fact = tr("%1 · shadowed").arg(to_text(info(entry.desc.format).name));
    if (const auto score = index.data(ContactModel::Score); score.isValid())
        fact = tr("%1 % alike").arg(int(std::lround(100 * score.toDouble())));
    const auto state = model_->state_of(item);
    const double room = text.width() - (state ? 20 : 0);
    QString right;
    if (known && catalog->analysis.twins[item] > 0 && entry.effective && card.width() > 120)
        right = catalog->analysis.twins[item] == 1 ? tr("1 twin") : tr("%L1 twins").arg(catalog->analysis.twins[item]);
    const double taken = right.isEmpty() ? 0 : p->fontMetrics().horizontalAdvance(right) + 6;
    const bool both = p->fontMetrics().horizontalAdvance(fact) + taken <= room;
    p->drawText(QRectF(text.x(), text.y() + 18, room, 18), int(Qt::AlignLeft | Qt::AlignVCenter),
                p->fontMetrics().elidedText(fact, Qt::ElideRight, int(room)));
    p->setPen(c.soft);
    if (both && !right.isEmpty()) p->drawText(QRectF(text.x(), text.y() + 18, room, 18), int(Qt::AlignRight | Qt::AlignVCenter), right);
    if (state) draw_state(*p, QPointF(card.right() - 14, text.bottom() + 9), *state);
    if (option.state & QStyle::State_HasFocus && !on) {
        p->setPen(QPen(c.mark, 1, Qt::DotLine));
        p->setBrush(Qt::NoBrush);
        p->drawRoundedRect(card, 3, 3);
    }
    p->restore();
}

QSize FacetDelegate::sizeHint(const QStyleOptionViewItem&, const QModelIndex& index) const {
    return {140, kind(index) == FacetModel::RowKind::heading ? 30 : 21};
}

void FacetDelegate::paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const {
    const auto& c = colors();
    const auto text = index.data().toString();
    const QRectF box = QRectF(option.rect).adjusted(0, 0, -6, 0);
    p->save();
    p->setRenderHint(QPainter::Antialiasing);
    p->setPen(c.ink);
    if (kind(index) == FacetModel::RowKind::heading) {
        p->setFont(text_font(12, true));
        p->drawText(box.adjusted(0, 8, 0, 0), int(Qt::AlignLeft | Qt::AlignVCenter), text);
        return p->restore();
    }
    const bool focus = option.state & QStyle::State_HasFocus;
    p->setFont(text_font(12));
    if (kind(index) == FacetModel::RowKind::more) {
        p->setPen(focus ? c.mark : c.soft);
        p->drawText(box.adjusted(20, 0, 0, 0), int(Qt::AlignLeft | Qt::AlignVCenter), text);
        return p->restore();
    }
    const QRectF mark(box.x() + 1, box.center().y() - 5, 11, 11);
    const bool on = index.data(Qt::CheckStateRole).toInt() == Qt::Checked;
    p->setPen(QPen(focus ? c.mark : on ? c.ink : c.border, focus ? 2 : 1));
    p->setBrush(on ? c.ink : c.card);
    p->drawRoundedRect(mark, 2, 2);
    const auto count = QLocale().toString(index.data(FacetModel::Count).toUInt());
    p->setPen(c.soft);
    p->setFont(number_font(11));
    const int taken = p->fontMetrics().horizontalAdvance(count) + 8;
    p->drawText(box, int(Qt::AlignRight | Qt::AlignVCenter), count);
    p->setPen(c.ink);
    p->setFont(text_font(12));
    p->drawText(box.adjusted(20, 0, -taken, 0), int(Qt::AlignLeft | Qt::AlignVCenter),
                p->fontMetrics().elidedText(text, Qt::ElideMiddle, int(box.width()) - 20 - taken));
    p->restore();
}

bool FacetDelegate::editorEvent(QEvent* event, QAbstractItemModel* model, const QStyleOptionViewItem&, const QModelIndex& index) {
    // The whole line is the box.
    if (event->type() == QEvent::MouseButtonRelease ||
        (event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Space))
        return static_cast<FacetModel*>(model)->toggle(index.row());
    return false;
}

}  // namespace skivet::app

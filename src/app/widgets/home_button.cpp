#include "app/widgets/home_button.h"

#include <QEvent>
#include <QPainter>

#include "app/theme/theme.h"

namespace skivet::app {
namespace {

constexpr int mark_room = 46, chevron = 14, widest = 230;

}  // namespace

HomeButton::HomeButton(QWidget* parent) : QAbstractButton(parent) {
    setObjectName(QStringLiteral("home"));
    setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
    setFocusPolicy(Qt::TabFocus);
}

void HomeButton::set_project(const QString& name, const QString& under) {
    if (text() == name && under_ == under) return;
    setText(name);
    under_ = under;
    setAccessibleName(tr("%1, to all games").arg(name));
    setToolTip(tr("%1 – to all games").arg(name));
    updateGeometry();
    update();
}

QSize HomeButton::sizeHint() const {
    const int name = QFontMetrics(text_font(15, true)).horizontalAdvance(text());
    const int below = QFontMetrics(text_font(12)).horizontalAdvance(under_) + chevron;
    return {std::min(widest, mark_room + std::max({name, below, 70}) + 12), 52};
}

bool HomeButton::event(QEvent* event) {
    if (event->type() == QEvent::HoverEnter || event->type() == QEvent::HoverLeave) update();
    return QAbstractButton::event(event);
}

void HomeButton::paintEvent(QPaintEvent*) {
    const auto& c = colors();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (underMouse() || hasFocus()) {
        p.setPen(QPen(hasFocus() ? c.mark : c.line, hasFocus() ? 2 : 1));
        p.setBrush(c.panel);
        p.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 4, 4);
    }
    draw_mark(p, QPointF(20, height() / 2.0), 13, c.ink);
    const QRectF words(mark_room, 6, width() - mark_room - 6, height() - 12);
    p.setPen(c.ink);
    p.setFont(text_font(15, true));
    p.drawText(words, int(Qt::AlignLeft | Qt::AlignTop), p.fontMetrics().elidedText(text(), Qt::ElideRight, int(words.width())));
    // A way back: a small chevron before the words.
    const double y = words.bottom() - 8;
    p.setPen(QPen(c.soft, 1.5, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.drawPolyline(QPolygonF({QPointF(words.x() + 6, y - 4), QPointF(words.x() + 2, y), QPointF(words.x() + 6, y + 4)}));
    p.setFont(text_font(12));
    p.drawText(words.adjusted(chevron, 0, 0, 0), int(Qt::AlignLeft | Qt::AlignBottom),
               p.fontMetrics().elidedText(under_, Qt::ElideRight, int(words.width()) - chevron));
}

}  // namespace skivet::app

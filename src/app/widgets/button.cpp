#include "app/widgets/button.h"

#include <QPainter>

#include "app/theme/theme.h"
#include "app/widgets/actions.h"

namespace skivet::app {

Button::Button(QAction* action, Look look, QWidget* parent) : QPushButton(parent), action_(action), look_(look) {
    setCheckable(action->isCheckable());
    connect(action, &QAction::changed, this, &Button::follow);
    connect(this, &QPushButton::clicked, action, &QAction::trigger);
    setCursor(Qt::ArrowCursor);
    follow();
}

Button::Button(const QString& text, Look look, QWidget* parent) : QPushButton(text, parent), look_(look) {
    setCheckable(look == Look::toggle);
    setAccessibleName(text);
}

void Button::follow() {
    key_ = key_text(action_->shortcut());
    setText(action_->text());
    setAccessibleName(action_->text());
    setToolTip(action_->toolTip() + (key_.isEmpty() ? QString() : QStringLiteral("  (%1)").arg(key_)));
    setEnabled(action_->isEnabled());
    setVisible(action_->isVisible());
    setChecked(action_->isChecked());
    updateGeometry();
    update();
}

QSize Button::sizeHint() const {
    const QFontMetrics letters(text_font(13, look_ == Look::primary)), keys(number_font(11));
    int width = letters.horizontalAdvance(text()) + (look_ == Look::toggle ? 22 : look_ == Look::link ? 16 : 32);
    if (!key_.isEmpty()) width += keys.horizontalAdvance(key_) + (look_ == Look::link ? 9 : 14);
    return {width, look_ == Look::toggle ? 24 : look_ == Look::link ? 22 : 30};
}

void Button::paintEvent(QPaintEvent*) {
    const auto& c = colors();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const bool primary = look_ == Look::primary, on = isChecked();
    QColor fill = primary ? c.accent
                  : on    ? c.ink
                          : c.card,
           letters = primary ? c.on_accent
                     : on    ? c.page
                             : c.ink,
           edge = primary ? c.accent : c.border;
    if (look_ == Look::link) fill = c.chip, edge = c.chip;
    if (isDown()) fill = primary || on ? fill.darker(115) : c.down;
    else if (underMouse() && isEnabled()) fill = primary || on ? fill.lighter(108) : c.over;
    if (!isEnabled()) {
        fill = c.panel;
        letters = c.off;
        edge = c.line;
    }
    const QRectF box = QRectF(rect()).adjusted(1, 1, -1, -1);
    const double radius = primary ? box.height() / 2 : 4;
    p.setPen(look_ == Look::link ? QPen(Qt::NoPen) : QPen(edge, 1));
    p.setBrush(fill);
    p.drawRoundedRect(box, radius, radius);
    if (hasFocus()) {
        p.setPen(QPen(primary ? c.ink : c.mark, 2));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(box, radius, radius);
    }
    p.setPen(letters);
    QFont font = text_font(look_ == Look::toggle || look_ == Look::link ? 12 : 13, primary);
    p.setFont(font);
    const bool keyed = !key_.isEmpty();
    const QRectF inside = box.adjusted(look_ == Look::link ? 7 : 14, 0, look_ == Look::link ? -7 : -13, 0);
    p.drawText(look_ == Look::toggle && !keyed ? box : inside, int(Qt::AlignVCenter | (keyed ? Qt::AlignLeft : Qt::AlignHCenter)), text());
    if (keyed) {
        p.setFont(number_font(11));
        p.setPen(!isEnabled() ? letters : primary ? c.on_accent : on ? c.page : c.soft);
        p.drawText(inside, int(Qt::AlignVCenter | Qt::AlignRight), key_);
    }
}

}  // namespace skivet::app

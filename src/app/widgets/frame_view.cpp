#include "app/widgets/frame_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include "app/theme/theme.h"

namespace skivet::app {

FrameView::FrameView(QWidget* parent) : QWidget(parent) {
    setMinimumSize(240, 150);
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
}

void FrameView::set_picture(const QImage& picture) {
    picture_ = picture;
    message_.clear();
    update();
}

void FrameView::set_lit(const QImage& mask) {
    lit_ = mask;
    update();
}

void FrameView::set_message(const QString& message) {
    picture_ = {};
    message_ = message;
    update();
}

QRectF FrameView::target() const {
    if (picture_.isNull()) return {};
    const auto size =
        QSizeF(picture_.size()).scaled(size_t(width()) > 16 ? QSizeF(width() - 16, height() - 16) : QSizeF(1, 1), Qt::KeepAspectRatio);
    return {QPointF((width() - size.width()) / 2, (height() - size.height()) / 2), size};
}

QPoint FrameView::pixel_at(QPointF at) const {
    const auto to = target();
    if (!to.contains(at)) return {-1, -1};
    return {int((at.x() - to.x()) / to.width() * picture_.width()), int((at.y() - to.y()) / to.height() * picture_.height())};
}

QPoint FrameView::place_of(QPoint pixel) const {
    const auto to = target();
    return {int(to.x() + (pixel.x() + 0.5) / picture_.width() * to.width()),
            int(to.y() + (pixel.y() + 0.5) / picture_.height() * to.height())};
}

void FrameView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(Qt::NoPen);
    p.setBrush(colors().well);
    p.drawRoundedRect(rect(), 2, 2);
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    if (picture_.isNull()) {
        p.setPen(QColor(0xf2, 0xf2, 0xf2));
        p.setFont(text_font(13));
        p.drawText(rect().adjusted(24, 24, -24, -24), int(Qt::AlignCenter) | int(Qt::TextWordWrap), message_);
    } else {
        const auto to = target();
        p.drawImage(to, picture_);
        if (!lit_.isNull()) p.drawImage(to, lit_);
    }
    if (hasFocus()) {
        p.setPen(QPen(colors().accent, 2));
        p.setBrush(Qt::NoBrush);
        p.drawRect(rect().adjusted(1, 1, -1, -1));
    }
}

void FrameView::mouseMoveEvent(QMouseEvent* event) { emit pointed(pixel_at(event->position())); }

void FrameView::mousePressEvent(QMouseEvent* event) { emit clicked(pixel_at(event->position())); }

void FrameView::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
        case Qt::Key_Left:
        case Qt::Key_Up: return emit stepped(-1);
        case Qt::Key_Right:
        case Qt::Key_Down: return emit stepped(1);
        case Qt::Key_PageUp: return emit stepped(-10);
        case Qt::Key_PageDown: return emit stepped(10);
        default: QWidget::keyPressEvent(event);
    }
}

}  // namespace skivet::app

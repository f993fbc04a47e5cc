#include "app/workshop/place_strip.h"

#include <QMouseEvent>
#include <QPainter>

#include "app/theme/theme.h"

namespace skivet::app {

void PlaceStrip::set(quint64 size, quint64 at, quint64 bytes) {
    size_ = std::max<quint64>(1, size);
    at_ = at;
    bytes_ = bytes;
    update();
}

void PlaceStrip::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const QRectF strip(0, 4, width(), height() - 8);
    p.fillRect(strip, colors().line);
    const double x = double(at_) / double(size_) * strip.width();
    p.fillRect(QRectF(x, 2, std::max(3.0, double(bytes_) / double(size_) * strip.width()), height() - 4), colors().mark);
}

void PlaceStrip::mousePressEvent(QMouseEvent* event) {
    emit chosen(quint64(std::clamp(event->position().x() / width(), 0.0, 1.0) * double(size_ - 1)));
}

}  // namespace skivet::app

#include "app/widgets/image_view.h"

#include <cmath>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>

#include "app/theme/theme.h"

namespace skivet::app {

void SharedView::set(double new_zoom, QPointF new_center) {
    zoom = std::clamp(new_zoom, 0.2, 64.0);
    center = {std::clamp(new_center.x(), 0.0, 1.0), std::clamp(new_center.y(), 0.0, 1.0)};
    emit changed();
}

ImageView::ImageView(SharedView* view, QWidget* parent) : QWidget(parent), view_(view) {
    setMinimumSize(96, 96);
    setFocusPolicy(Qt::TabFocus);
    setMouseTracking(true);
    connect(view, &SharedView::changed, this, qOverload<>(&QWidget::update));
}

void ImageView::set_image(const QImage& image) {
    image_ = image;
    message_.clear();
    update();
}

void ImageView::set_blocks(const QImage& blocks) {
    blocks_ = blocks;
    update();
}

void ImageView::set_message(const QString& message) {
    image_ = {};
    message_ = message;
    update();
}

double ImageView::fit_scale() const {
    if (image_.isNull()) return 1;
    return std::min((width() - 24.0) / image_.width(), (height() - 24.0) / image_.height());
}

QRectF ImageView::target() const {
    const double scale = fit_scale() * view_->zoom;
    const QSizeF size(image_.width() * scale, image_.height() * scale);
    return {QPointF(width() / 2.0 - view_->center.x() * size.width(), height() / 2.0 - view_->center.y() * size.height()), size};
}

void ImageView::toggle_one_to_one() {
    const double one = 1 / fit_scale();
    view_->set(std::abs(view_->zoom - 1) < 1e-6 ? one : 1, view_->center);
}

void ImageView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(Qt::NoPen);
    p.setBrush(colors().well);
    p.drawRoundedRect(rect(), 2, 2);
    p.setClipRect(rect());
    if (image_.isNull()) {
        p.setPen(QColor(0xee, 0xee, 0xee));
        p.setFont(text_font(12));
        p.drawText(rect().adjusted(16, 16, -16, -16), int(Qt::AlignCenter) | int(Qt::TextWordWrap), message_);
    } else {
        const auto to = target();
        if (image_.hasAlphaChannel()) p.fillRect(to, checker_brush());
        p.setRenderHint(QPainter::Antialiasing, false);
        p.setRenderHint(QPainter::SmoothPixmapTransform, to.width() < image_.width());
        p.drawImage(to, image_);
        if (!blocks_.isNull()) {
            const double w = to.width() / blocks_.width(), h = to.height() / blocks_.height();
            p.setBrush(Qt::NoBrush);
            p.setPen(QPen(colors().accent, 1));
            for (int y = 0; y < blocks_.height(); ++y) {
                const auto* line = reinterpret_cast<const QRgb*>(blocks_.constScanLine(y));
                for (int x = 0; x < blocks_.width(); ++x) {
                    if (!qAlpha(line[x])) continue;
                    const QRectF block(to.x() + x * w, to.y() + y * h, w, h);
                    // Large enough to tell apart: every block. Smaller: only the outline of the region, so that the picture stays visible.
                    if (w >= 10) p.drawRect(block);
                    else {
                        const auto is_new = [&](int bx, int by) { return blocks_.valid(bx, by) && qAlpha(blocks_.pixel(bx, by)); };
                        if (!is_new(x - 1, y)) p.drawLine(block.topLeft(), block.bottomLeft());
                        if (!is_new(x + 1, y)) p.drawLine(block.topRight(), block.bottomRight());
                        if (!is_new(x, y - 1)) p.drawLine(block.topLeft(), block.topRight());
                        if (!is_new(x, y + 1)) p.drawLine(block.bottomLeft(), block.bottomRight());
                    }
                }
            }
        }
    }
    if (!image_.isNull()) {
        const auto to = target();
        if (texel_.x() >= 0 && block_.width() > 1 && to.width() / image_.width() * block_.width() >= 8) {  // large enough to see
            const double sx = to.width() / image_.width(), sy = to.height() / image_.height();
            const QRectF block(to.x() + texel_.x() / block_.width() * block_.width() * sx,
                               to.y() + texel_.y() / block_.height() * block_.height() * sy, block_.width() * sx, block_.height() * sy);
            p.setBrush(Qt::NoBrush);
            p.setPen(QPen(QColor(0, 0, 0, 160), 3));
            p.drawRect(block);
            p.setPen(QPen(Qt::white, 1));
            p.drawRect(block);
        }
        draw_histogram(p);
        draw_readout(p);
    }
    if (hasFocus()) {
        p.setPen(QPen(colors().accent, 2));
        p.setBrush(Qt::NoBrush);
        p.drawRect(rect().adjusted(1, 1, -1, -1));
    }
}

void ImageView::wheelEvent(QWheelEvent* event) {
    if (image_.isNull()) return;
    const auto before = target();
    const QPointF at((event->position().x() - before.x()) / before.width(), (event->position().y() - before.y()) / before.height());
    const double zoom = std::clamp(view_->zoom * std::pow(1.2, event->angleDelta().y() / 120.0), 0.2, 64.0);
    const double scale = fit_scale() * zoom;
    // The texel under the pointer stays under the pointer.
    view_->set(zoom, {at.x() - (event->position().x() - width() / 2.0) / (image_.width() * scale),
                      at.y() - (event->position().y() - height() / 2.0) / (image_.height() * scale)});
    event->accept();
}

void ImageView::set_readout(const QStringList& lines) {
    readout_ = lines;
    update();
}

void ImageView::set_histogram(std::vector<std::array<quint32, 256>> channels) {
    histogram_ = std::move(channels);
    update();
}

void ImageView::draw_readout(QPainter& p) {
    if (readout_.isEmpty()) return;
    p.setFont(number_font(11));
    const int line = p.fontMetrics().height() + 1;
    const QRect strip(0, height() - line * int(readout_.size()) - 8, width(), line * int(readout_.size()) + 8);
    p.fillRect(strip, QColor(28, 28, 28, 225));
    p.setPen(QColor(0xf2, 0xf2, 0xf2));
    for (int i = 0; i < readout_.size(); ++i)
        p.drawText(QRect(8, strip.y() + 4 + i * line, width() - 16, line), Qt::AlignVCenter | Qt::AlignLeft,
                   p.fontMetrics().elidedText(readout_[i], Qt::ElideRight, width() - 16));
}

void ImageView::draw_histogram(QPainter& p) {
    if (histogram_.empty()) return;
    const QRectF box(width() - 150, 8, 142, 64);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(Qt::NoPen);
    p.setBrush(QColor(28, 28, 28, 225));
    p.drawRoundedRect(box, 2, 2);
    const QColor lines[] = {QColor(0xe0, 0x70, 0x70), QColor(0x74, 0xc0, 0x74), QColor(0x86, 0x9c, 0xf0), QColor(0xe8, 0xe8, 0xe8)};
    for (std::size_t c = 0; c < histogram_.size() && c < 4; ++c) {
        double most = 1;
        for (const auto count : histogram_[c])
            most = std::max(most, std::sqrt(double(count)));  // roots: small counts stay visible beside flat areas
        QPolygonF curve;
        for (int v = 0; v < 256; ++v)
            curve << QPointF(box.x() + 7 + v * (box.width() - 14) / 255,
                             box.bottom() - 6 - std::sqrt(double(histogram_[c][std::size_t(v)])) / most * (box.height() - 12));
        p.setPen(QPen(lines[c], 1.2, c == 3 ? Qt::DotLine : Qt::SolidLine));
        p.setBrush(Qt::NoBrush);
        p.drawPolyline(curve);
    }
}

void ImageView::point_at(const QPointF& position) {
    QPoint texel(-1, -1);
    if (!image_.isNull() && rect().contains(position.toPoint())) {
        const auto to = target();
        const QPoint at(int(std::floor((position.x() - to.x()) / to.width() * image_.width())),
                        int(std::floor((position.y() - to.y()) / to.height() * image_.height())));
        if (image_.rect().contains(at)) texel = at;
    }
    if (texel == texel_) return;
    texel_ = texel;
    emit pointed(texel);
    update();
}

void ImageView::leaveEvent(QEvent*) { point_at({-1, -1}); }

void ImageView::mousePressEvent(QMouseEvent* event) { grabbed_ = event->position(); }

void ImageView::mouseMoveEvent(QMouseEvent* event) {
    point_at(event->position());
    if (!(event->buttons() & (Qt::LeftButton | Qt::MiddleButton)) || image_.isNull()) return;
    const auto to = target();
    const auto moved = event->position() - grabbed_;
    grabbed_ = event->position();
    view_->set(view_->zoom, view_->center - QPointF(moved.x() / to.width(), moved.y() / to.height()));
}

void ImageView::keyPressEvent(QKeyEvent* event) {
    const double step = 0.1 / view_->zoom;
    switch (event->key()) {
        case Qt::Key_Plus:
        case Qt::Key_Equal: view_->set(view_->zoom * 1.25, view_->center); break;
        case Qt::Key_Minus: view_->set(view_->zoom / 1.25, view_->center); break;
        case Qt::Key_Left: view_->set(view_->zoom, view_->center - QPointF(step, 0)); break;
        case Qt::Key_Right: view_->set(view_->zoom, view_->center + QPointF(step, 0)); break;
        case Qt::Key_Up: view_->set(view_->zoom, view_->center - QPointF(0, step)); break;
        case Qt::Key_Down: view_->set(view_->zoom, view_->center + QPointF(0, step)); break;
        default: QWidget::keyPressEvent(event);
    }
}

void draw_in_well(QPainter& p, const QRectF& well, const QImage& image, double margin) {
    p.save();
    p.setPen(Qt::NoPen);
    p.setBrush(colors().well);
    p.drawRoundedRect(well, 2, 2);
    if (!image.isNull()) {
        const auto inside = well.adjusted(margin, margin, -margin, -margin);
        const double scale = std::min(inside.width() / image.width(), inside.height() / image.height());
        QRectF to(0, 0, image.width() * scale, image.height() * scale);
        to.moveCenter(inside.center());
        if (image.hasAlphaChannel()) p.fillRect(to, checker_brush());
        p.setRenderHint(QPainter::SmoothPixmapTransform, scale < 1);
        p.drawImage(to, image);
    }
    p.restore();
}

}  // namespace skivet::app

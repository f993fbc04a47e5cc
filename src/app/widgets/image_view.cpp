#include "app/widgets/image_view.h"

#include <cmath>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>

#include "app/theme/theme.h"

namespace skivet::app {
namespace {

constexpr std::size_t most_edges = 20'000;  ///< that are drawn again at every step of a drag

}  // namespace

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

QString ImageView::described() const {
    if (image_.isNull()) return message_;
    auto out = tr("%1×%2, at %3 %").arg(image_.width()).arg(image_.height()).arg(qRound(fit_scale() * view_->zoom * 100));
    if (!readout_.isEmpty()) out += QStringLiteral(". ") + readout_.join(QStringLiteral(", "));
    return out;
}

void ImageView::set_image(const QImage& image) {
    image_ = image;
    reduced_ = {};
    message_.clear();
    update();
}

void ImageView::set_reduced(const QImage& reduced) {
    reduced_ = reduced;
    update();
}

void ImageView::set_blocks(const QImage& blocks) {
    if (blocks.cacheKey() == blocks_.cacheKey()) return;
    blocks_ = blocks.isNull() ? blocks : blocks.convertToFormat(QImage::Format_ARGB32);
    edges_.clear();
    const int across = blocks_.width(), down = blocks_.height();
    std::vector<const QRgb*> scan(static_cast<std::size_t>(down));
    for (int y = 0; y < down; ++y) scan[std::size_t(y)] = reinterpret_cast<const QRgb*>(blocks_.constScanLine(y));
    const auto there = [&](int x, int y) { return x >= 0 && y >= 0 && x < across && y < down && qAlpha(scan[std::size_t(y)][x]) > 0; };
    // Runs of edges, along rows and along columns.
    const auto runs = [&](int lines, int along, const auto& edge, const auto& line) {
        for (int i = 0; i <= lines && edges_.size() <= most_edges; ++i)
            for (int from = 0; from < along;) {
                int to = from;
                while (to < along && edge(i, to)) ++to;
                if (to > from) edges_.push_back(line(i, from, to));
                from = std::max(to, from + 1);
            }
    };
    runs(
        blocks_.height(), blocks_.width(), [&](int y, int x) { return there(x, y) != there(x, y - 1); },
        [](int y, int from, int to) { return QLine(from, y, to, y); });
    runs(
        blocks_.width(), blocks_.height(), [&](int x, int y) { return there(x, y) != there(x - 1, y); },
        [](int x, int from, int to) { return QLine(x, from, x, to); });
    if (edges_.size() > most_edges) edges_.clear();
    update();
}

void ImageView::set_tint(const QImage& tint) {
    tint_ = tint;
    update();
}

void ImageView::set_second(const QImage& second, const QImage& reduced) {
    second_ = second;
    second_reduced_ = reduced;
    update();
}

void ImageView::set_split(double split) {
    split_ = std::clamp(split, 0.02, 0.98);
    update();
}

void ImageView::set_marked(QRect texels) {
    marked_ = texels;
    update();
}

void ImageView::set_overlay(std::shared_ptr<const std::vector<OverlayLine>> lines) {
    overlay_ = std::move(lines);
    update();
}

void ImageView::set_overlay_group(int group) {
    if (group == overlay_group_) return;
    overlay_group_ = group;
    update();
}

void ImageView::set_spot(std::optional<QPointF> at) {
    if (at) at = QPointF(at->x() - std::floor(at->x()), at->y() - std::floor(at->y()));
    if (at == spot_) return;
    spot_ = at;
    update();
}

void ImageView::set_scale(int most) {
    scale_ = most;
    update();
}

void ImageView::show_texels(QRect texels) {
    if (image_.isNull()) return;
    const QPointF center((texels.x() + texels.width() / 2.0) / image_.width(), (texels.y() + texels.height() / 2.0) / image_.height());
    // As near as leaves some of what is around.
    const double scale = std::min(width(), height()) / (8.0 * std::max({texels.width(), texels.height(), 1}));
    view_->set(std::max(view_->zoom, scale / fit_scale()), center);
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

namespace {

void frame(QPainter& p, QRectF box, const QColor& color) {
    // What is too small to see gets a frame around it.
    if (box.width() < 6) box.adjust(-3, -3, 3, 3);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(QColor(0, 0, 0, 160), 3));
    p.drawRect(box);
    p.setPen(QPen(color, 1));
    p.drawRect(box);
}

}  // namespace

void ImageView::draw_picture(QPainter& p, const QImage& image, const QImage& reduced, const QRectF& to) {
    if (image.hasAlphaChannel()) p.fillRect(to, checker_brush());
    p.setRenderHint(QPainter::Antialiasing, false);
    p.setRenderHint(QPainter::SmoothPixmapTransform, to.width() < image.width());
    p.drawImage(to, to.width() * devicePixelRatioF() <= reduced.width() ? reduced : image);
}

void ImageView::draw_blocks(QPainter& p, const QRectF& to) {
    p.setRenderHint(QPainter::SmoothPixmapTransform, false);
    if (!tint_.isNull()) p.drawImage(to, tint_);
    if (blocks_.isNull()) return;
    const double w = to.width() / blocks_.width(), h = to.height() / blocks_.height();
    if (w < 10 && edges_.empty()) {
        p.setOpacity(0.35);
        p.drawImage(to, blocks_);
        p.setOpacity(1);
        return;
    }
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(colors().accent, 1));
    // Smaller than can be told apart: only the outline of the region, so that the picture stays visible.
    if (w < 10) {
        for (const auto& edge : edges_)
            p.drawLine(QPointF(to.x() + edge.x1() * w, to.y() + edge.y1() * h), QPointF(to.x() + edge.x2() * w, to.y() + edge.y2() * h));
        return;
    }
    const auto first = [](double at) { return std::max(0, int(std::floor(at))); };
    for (int y = first(-to.y() / h); y < std::min(blocks_.height(), int(std::ceil((height() - to.y()) / h))); ++y)
        for (int x = first(-to.x() / w); x < std::min(blocks_.width(), int(std::ceil((width() - to.x()) / w))); ++x)
            if (qAlpha(blocks_.pixel(x, y))) p.drawRect(QRectF(to.x() + x * w, to.y() + y * h, w, h));
}

void ImageView::draw_overlay(QPainter& p, const QRectF& to) {
    if (!overlay_) return;
    const QRectF seen(rect());
    const auto placed = [&](const QLineF& line) {
        return QLineF(to.x() + line.x1() * to.width(), to.y() + line.y1() * to.height(), to.x() + line.x2() * to.width(),
                      to.y() + line.y2() * to.height());
    };
    using Look = OverlayLine::Look;
    std::array<QList<QLineF>, 5> lines;  // by look; what stands out is the last
    for (const auto& one : *overlay_) {
        const auto line = placed(one.line);
        if (!QRectF(line.p1(), line.p2()).normalized().adjusted(-1, -1, 1, 1).intersects(seen)) continue;
        if (one.look != Look::faint || lines[0].size() <= qsizetype(most_edges)) lines[std::size_t(one.look)].push_back(line);
        if (one.group == overlay_group_ && one.look != Look::faint) lines[4].push_back(line);
    }
    if (lines[0].size() > qsizetype(most_edges)) lines[0].clear();
    qsizetype all = 0;
    for (const auto& some : lines) all += some.size();
    p.setRenderHint(QPainter::Antialiasing, all < qsizetype(most_edges) / 4);  // smooth ones take several times as long
    p.setBrush(Qt::NoBrush);
    // Light inside dark, so that they are seen on every picture; the accent is for what stands out alone.
    const QPen inside[] = {QPen(QColor(255, 255, 255, 90), 1), QPen(QColor(255, 255, 255, 235), 1.2), QPen(QColor(0xff, 0xb7, 0x4a), 1.4),
                           QPen(QColor(0x66, 0xd9, 0xd0), 1.4), QPen(colors().accent, 3)};
    for (std::size_t i = 0; i < lines.size(); ++i) {
        if (i > 0 && i < 4) {
            p.setPen(QPen(QColor(20, 20, 20, 150), 2.6));
            p.drawLines(lines[i]);
        }
        p.setPen(inside[i]);
        p.drawLines(lines[i]);
    }
    p.setRenderHint(QPainter::Antialiasing, false);
}

void ImageView::draw_scale(QPainter& p) {
    constexpr int least_height = 72;  // in a lower one it would hide the picture
    if (scale_ <= 0 || height() < least_height) return;
    const double wide = std::min(150.0, width() - 16.0);
    const QRectF box(8, height() - 34, wide, 26), bar(box.x() + 22, box.y() + 8, wide - 66, 10);
    p.setPen(Qt::NoPen);
    p.setBrush(QColor(28, 28, 28, 225));
    p.drawRect(box);
    QLinearGradient gray(bar.topLeft(), bar.topRight());
    gray.setColorAt(0, Qt::black);
    gray.setColorAt(1, Qt::white);
    p.setPen(QPen(QColor(0x9a, 0x9a, 0x9a), 1));
    p.setBrush(gray);
    p.drawRect(bar);
    p.setPen(QColor(0xf2, 0xf2, 0xf2));
    p.setFont(number_font(11));
    p.drawText(QRectF(box.x() + 7, box.y(), 14, box.height()), int(Qt::AlignVCenter), QStringLiteral("0"));
    p.drawText(QRectF(bar.right() + 6, box.y(), 40, box.height()), int(Qt::AlignVCenter), QString::number(scale_));
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
        draw_picture(p, image_, reduced_, to);
        if (!second_.isNull()) {
            const double line = std::round(split_ * width());
            p.save();
            p.setClipRect(QRectF(line, 0, width() - line, height()));
            p.setPen(Qt::NoPen);
            p.fillRect(QRectF(line, 0, width() - line, height()), colors().well);
            draw_picture(p, second_, second_reduced_, to);
            p.restore();
        }
        draw_blocks(p, to);
        draw_overlay(p, to);
        if (!second_.isNull()) {
            const double line = std::round(split_ * width());
            p.fillRect(QRectF(line - 1.5, 0, 3, height()), QColor(28, 28, 28));
            p.fillRect(QRectF(line - 0.5, 0, 1, height()), Qt::white);
            p.setRenderHint(QPainter::Antialiasing);
            p.setPen(QPen(Qt::white, 1));
            p.setBrush(QColor(28, 28, 28));
            p.drawRoundedRect(QRectF(line - 5, height() / 2.0 - 16, 10, 32), 3, 3);
            p.setRenderHint(QPainter::Antialiasing, false);
        }
    }
    if (!image_.isNull()) {
        const auto to = target();
        if (texel_.x() >= 0 && block_.width() > 1 && to.width() / image_.width() * block_.width() >= 8) {  // large enough to see
            const double sx = to.width() / image_.width(), sy = to.height() / image_.height();
            const QRectF block(to.x() + texel_.x() / block_.width() * block_.width() * sx,
                               to.y() + texel_.y() / block_.height() * block_.height() * sy, block_.width() * sx, block_.height() * sy);
            frame(p, block, Qt::white);
        }
        if (!marked_.isNull()) {
            const double sx = to.width() / image_.width(), sy = to.height() / image_.height();
            frame(p, QRectF(to.x() + marked_.x() * sx, to.y() + marked_.y() * sy, marked_.width() * sx, marked_.height() * sy),
                  colors().accent);
        }
        if (spot_) {
            const QPointF at(to.x() + spot_->x() * to.width(), to.y() + spot_->y() * to.height());
            p.setRenderHint(QPainter::Antialiasing);
            p.setBrush(Qt::NoBrush);
            p.setPen(QPen(QColor(0, 0, 0, 160), 3));
            p.drawEllipse(at, 6, 6);
            p.setPen(QPen(Qt::white, 1.4));
            p.drawEllipse(at, 6, 6);
            p.setRenderHint(QPainter::Antialiasing, false);
        }
        draw_scale(p);
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

QPoint ImageView::texel_at(const QPointF& position) const {
    if (image_.isNull() || !rect().contains(position.toPoint())) return {-1, -1};
    const auto to = target();
    const QPoint at(int(std::floor((position.x() - to.x()) / to.width() * image_.width())),
                    int(std::floor((position.y() - to.y()) / to.height() * image_.height())));
    return image_.rect().contains(at) ? at : QPoint(-1, -1);
}

void ImageView::point_at(const QPointF& position) {
    const auto texel = texel_at(position);
    if (texel == texel_) return;
    texel_ = texel;
    emit pointed(texel);
    update();
}

void ImageView::leaveEvent(QEvent*) { point_at({-1, -1}); }

void ImageView::mousePressEvent(QMouseEvent* event) {
    grabbed_ = pressed_ = event->position();
    splitting_ = !second_.isNull() && std::abs(grabbed_.x() - split_ * width()) <= 8;
}

void ImageView::mouseReleaseEvent(QMouseEvent* event) {
    const bool dragged = (event->position() - pressed_).manhattanLength() > 3;
    if (!std::exchange(splitting_, false) && !dragged)
        if (const auto texel = texel_at(event->position()); texel.x() >= 0) emit clicked(texel);
}

void ImageView::mouseMoveEvent(QMouseEvent* event) {
    point_at(event->position());
    if (!second_.isNull()) setCursor(std::abs(event->position().x() - split_ * width()) <= 8 ? Qt::SplitHCursor : Qt::ArrowCursor);
    if (!(event->buttons() & (Qt::LeftButton | Qt::MiddleButton)) || image_.isNull()) return;
    if (splitting_) return set_split(event->position().x() / width());
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
        case Qt::Key_BracketLeft: set_split(split_ - 0.02); break;
        case Qt::Key_BracketRight: set_split(split_ + 0.02); break;
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

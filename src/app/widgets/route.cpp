#include "app/widgets/route.h"

#include <cmath>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include "app/theme/theme.h"

namespace skivet::app {

Route::Route(const QStringList& stations, QWidget* parent) : QWidget(parent) {
    for (const auto& name : stations) stations_.push_back({name, {}, false});
    setFocusPolicy(Qt::TabFocus);
    setAccessibleName(tr("Route"));
    setAccessibleDescription(stations.join(QStringLiteral(", ")));
}

double Route::x_of(int station) const {
    const double step = std::min(148.0, (width() - 120.0) / double(stations_.size() - 1));
    return width() / 2.0 + (station - (double(stations_.size()) - 1) / 2) * step;
}

void Route::set_current(int station) {
    current_ = station;
    setAccessibleDescription(tr("%1, station %2 of %3").arg(stations_[std::size_t(station)].name).arg(station + 1).arg(stations_.size()));
    tell_part_chosen(this);
    update();
}

void Route::set_count(int station, const QString& count) {
    stations_[std::size_t(station)].count = count;
    update();
}

void Route::set_warning(int station, bool warning) {
    stations_[std::size_t(station)].warning = warning;
    update();
}

QString Route::part_name(int part) const {
    const auto& station = stations_[std::size_t(part)];
    auto out = station.name;
    if (!station.count.isEmpty()) out += QStringLiteral(", ") + station.count;
    return station.warning ? tr("%1, needs you").arg(out) : out;
}

QRect Route::part_place(int part) const { return {int(x_of(part)) - 48, 0, 96, height()}; }

void Route::paintEvent(QPaintEvent*) {
    const auto& c = colors();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const double y = 27;
    const int last = int(stations_.size()) - 1;
    p.setPen(QPen(c.border, 2));
    p.drawLine(QPointF(x_of(0), y), QPointF(x_of(last), y));
    p.setPen(QPen(c.ink, 2));
    p.drawLine(QPointF(x_of(0), y), QPointF(x_of(current_), y));
    for (int i = 0; i <= last; ++i) {
        const auto& s = stations_[std::size_t(i)];
        const QPointF at(x_of(i), y);
        if (i == current_) {
            p.fillRect(QRectF(at.x() - 16, y - 12, 32, 24), c.card);
            draw_mark(p, at, 10, c.mark);
        } else {
            p.setPen(QPen(c.ink, 1.5));
            p.setBrush(i < current_ ? c.ink : c.card);
            p.drawEllipse(at, 7, 7);
        }
        p.setPen(i == current_ ? c.mark : c.ink);
        p.setFont(text_font(13, i == current_));
        p.drawText(QRectF(at.x() - 60, y + 14, 120, 20), Qt::AlignCenter, s.name);
        p.setPen(c.soft);
        p.setFont(number_font(11));
        p.drawText(QRectF(at.x() + 14, y - 22, 60, 16), Qt::AlignLeft | Qt::AlignVCenter, s.count);
        if (s.warning) draw_warning(p, at + QPointF(-24, -9));
        if (hasFocus() && i == current_) {
            p.setPen(QPen(c.mark, 2));
            p.setBrush(Qt::NoBrush);
            p.drawRoundedRect(QRectF(at.x() - 48, 8, 96, 54), 6, 6);
        }
    }
}

void Route::mousePressEvent(QMouseEvent* event) {
    for (int i = 0; i < int(stations_.size()); ++i)
        if (std::abs(event->position().x() - x_of(i)) < 56) emit chosen(i);
}

void Route::keyPressEvent(QKeyEvent* event) {
    const int last = int(stations_.size()) - 1;
    if (event->key() == Qt::Key_Right && current_ < last) emit chosen(current_ + 1);
    else if (event->key() == Qt::Key_Left && current_ > 0) emit chosen(current_ - 1);
    else QWidget::keyPressEvent(event);
}

}  // namespace skivet::app

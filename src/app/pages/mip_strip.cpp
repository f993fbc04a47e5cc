#include "app/pages/mip_strip.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include "app/theme/theme.h"
#include "app/widgets/image_view.h"

namespace skivet::app {

MipStrip::MipStrip(QWidget* parent) : QWidget(parent) {
    setFixedHeight(44);
    setFocusPolicy(Qt::TabFocus);
    setAccessibleName(tr("Mips"));
}

double MipStrip::cell() const { return std::min(44.0, pictures_.empty() ? 44.0 : (width() + 4.0) / double(pictures_.size()) - 4.0); }

void MipStrip::set_pictures(std::vector<QImage> pictures) {
    pictures_ = std::move(pictures);
    update();
}

QString MipStrip::part_name(int part) const {
    const auto& image = pictures_[std::size_t(part)];
    return tr("Mip %1, %2×%3").arg(part).arg(image.width()).arg(image.height());
}

QRect MipStrip::part_place(int part) const { return QRectF(part * (cell() + 4), (height() - cell()) / 2, cell(), cell()).toAlignedRect(); }

void MipStrip::set_current(int mip) {
    if (current_ != mip) {
        current_ = mip;
        tell_part_chosen(this);
    }
    update();
}

void MipStrip::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    for (std::size_t i = 0; i < pictures_.size(); ++i) {
        const QRectF well(double(i) * (cell() + 4), (height() - cell()) / 2, cell(), cell());
        draw_in_well(p, well, {});
        const auto& image = pictures_[i];
        // Each level half as large as the one before, down to a visible dot.
        const double side = std::max(3.0, (cell() - 8) / double(1u << std::min<std::size_t>(i, 8)));
        const double scale = side / std::max(image.width(), image.height());
        QRectF to(0, 0, image.width() * scale, image.height() * scale);
        to.moveCenter(well.center());
        p.setRenderHint(QPainter::SmoothPixmapTransform, scale < 1);
        p.drawImage(to, image);
        if (int(i) == current_) {
            p.setPen(QPen(hasFocus() ? colors().mark : colors().ink, 2));
            p.setBrush(Qt::NoBrush);
            p.drawRect(well.adjusted(1, 1, -1, -1));
        }
    }
}

void MipStrip::mousePressEvent(QMouseEvent* event) {
    const int i = int(event->position().x() / (cell() + 4));
    if (i >= 0 && i < int(pictures_.size())) emit chosen(i);
}

void MipStrip::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Right && current_ + 1 < int(pictures_.size())) emit chosen(current_ + 1);
    else if (event->key() == Qt::Key_Left && current_ > 0) emit chosen(current_ - 1);
    else QWidget::keyPressEvent(event);
}

}  // namespace skivet::app

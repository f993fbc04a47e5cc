#include "app/pages/mip_rows.h"

#include <cmath>
#include <QPainter>

#include "app/theme/theme.h"
#include "app/widgets/image_view.h"

namespace skivet::app {
namespace {

constexpr double left = 68, gap = 6, foot = 20;
constexpr std::size_t most = 8;

}  // namespace

MipRows::MipRows(QWidget* parent) : QWidget(parent) {
    setFixedHeight(118);
    setAccessibleName(tr("Mips, the game's and the new ones"));
}

void MipRows::show_fit(std::shared_ptr<const FittedPiece> fitted, std::shared_ptr<const FitMips> mips) {
    fitted_ = std::move(fitted);
    mips_ = std::move(mips);
    update();
}

std::size_t MipRows::count() const {
    if (!fitted_ || !fitted_->original) return 1;
    const auto levels = fitted_->made.fit ? fitted_->made.fit->levels.size() : 0;
    return std::clamp<std::size_t>(std::max<std::size_t>(fitted_->original->layout.desc.mips, levels), 1, most);
}

double MipRows::cell_width() const { return std::min(120.0, (width() - left + gap) / double(count()) - gap); }

void MipRows::paintEvent(QPaintEvent*) {
    if (!fitted_ || !fitted_->made.fit) return;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const auto& c = colors();
    const auto& fit = *fitted_->made.fit;
    const double row_height = (height() - foot) / 2.0;
    const auto row = [&](const std::vector<QImage>& images, double y, const QString& name) {
        p.setPen(c.soft);
        p.setFont(text_font(11));
        p.drawText(QRectF(0, y, left, row_height - gap), int(Qt::AlignVCenter | Qt::AlignLeft), name);
        for (std::size_t i = 0; i < count(); ++i) {
            const QRectF well(left + double(i) * (cell_width() + gap), y, cell_width(), row_height - gap);
            draw_in_well(p, well, {});
            if (i >= images.size()) continue;
            const double room = std::min(well.width(), well.height()) - 8;
            const double side = std::max(3.0, room / std::pow(1.6, double(i)));
            const double scale = side / std::max(images[i].width(), images[i].height());
            QRectF to(0, 0, images[i].width() * scale, images[i].height() * scale);
            to.moveCenter(well.center());
            if (images[i].hasAlphaChannel()) p.fillRect(to, checker_brush());
            p.setRenderHint(QPainter::SmoothPixmapTransform, scale < 1);
            p.drawImage(to, images[i]);
        }
    };
    row(mips_ ? mips_->game : std::vector<QImage>(), 0, tr("the game's"));
    if (fit.file.empty()) return;
    row(mips_ ? mips_->result : std::vector<QImage>(), row_height, tr("new"));
    p.setFont(text_font(11));
    p.setPen(c.soft);
    p.drawText(QRectF(0, height() - foot, left, 18), int(Qt::AlignVCenter), tr("kept"));
    p.setFont(number_font(11));
    for (std::size_t i = 0; i < fit.levels.size() && i < count(); ++i) {
        const auto& level = fit.levels[i];
        // "100 %" only when every block was kept.
        const auto share = level.blocks ? level.kept * 100 / level.blocks : 100;
        const bool by_hand = std::find(fit.mips.painted.begin(), fit.mips.painted.end(), std::uint32_t(i)) != fit.mips.painted.end();
        auto text = level.kept == 0 ? tr("new") : level.kept < level.blocks && share >= 99 ? tr("99 %") : tr("%1 %").arg(share);
        if (by_hand) text = tr("%1, by hand").arg(text);
        const QRectF cell(left + double(i) * (cell_width() + gap), height() - foot, cell_width(), 18);
        p.drawText(cell, Qt::AlignCenter, p.fontMetrics().elidedText(text, Qt::ElideRight, int(cell.width())));
    }
}

}  // namespace skivet::app

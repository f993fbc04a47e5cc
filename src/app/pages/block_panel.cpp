#include "app/pages/block_panel.h"

#include <cmath>
#include <numeric>
#include <QHBoxLayout>
#include <QPainter>

#include "app/pages/page.h"
#include "app/theme/theme.h"
#include "app/widgets/image_view.h"
#include "base/text.h"
#include "codec/block_facts.h"

namespace skivet::app {
namespace {

constexpr int well_side = 44;

}  // namespace

BlockPanel::BlockPanel(QWidget* parent) : QWidget(parent) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(14, 7, 14, 7);
    row->setSpacing(14);
    wells_ = new QWidget;
    auto* wells = new QHBoxLayout(wells_);
    wells->setContentsMargins(0, 0, 0, 0);
    wells->setSpacing(6);
    const QString names[] = {tr("The game's block"), tr("Your block"), tr("What the game gets")};
    for (int i = 0; i < 3; ++i) {
        pictures_[i] = new QLabel;
        pictures_[i]->setFixedSize(well_side, well_side);
        pictures_[i]->setAccessibleName(names[i]);
        pictures_[i]->setToolTip(names[i]);
        wells->addWidget(pictures_[i]);
    }
    row->addWidget(wells_, 0, Qt::AlignVCenter);
    auto* words = new QVBoxLayout;
    words->setSpacing(0);
    head_ = make_label({}, "strong");
    text_ = make_label({}, "soft", true);
    for (auto* label : {head_, text_}) label->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    words->addWidget(head_);
    words->addWidget(text_);
    row->addLayout(words, 1);
    setFixedHeight(76);
    wells_->hide();
}

void BlockPanel::show_fit(std::shared_ptr<const FittedPiece> fitted) {
    // A block of the same texture, saved anew, stays chosen.
    const auto cells = [](const auto& one) { return one && one->made.fit ? one->made.fit->blocks.is_new.size() : 0; };
    if (!fitted_ || !fitted || fitted_->made.piece != fitted->made.piece || cells(fitted_) != cells(fitted)) cell_.reset();
    fitted_ = std::move(fitted);
    refresh();
}

void BlockPanel::show_cell(std::optional<std::size_t> cell) {
    cell_ = cell;
    refresh();
}

std::optional<std::size_t> BlockPanel::next_lost() const {
    if (!fitted_ || !fitted_->made.fit) return std::nullopt;
    const auto& loss = fitted_->made.fit->blocks.loss;
    // From the most on; blocks of equal loss from the first on.
    std::optional<std::size_t> best;
    for (std::size_t i = 0; i < loss.size(); ++i) {
        if (loss[i] == 0 || (cell_ && (loss[i] > loss[*cell_] || (loss[i] == loss[*cell_] && i <= *cell_)))) continue;
        if (!best || loss[i] > loss[*best]) best = i;
    }
    return best ? best : fitted_->made.fit->blocks.worst();
}

QImage BlockPanel::texels_of(const Image& image) const {
    const auto place = fitted_->made.fit->blocks.texels(*cell_);
    const QImage whole(reinterpret_cast<const uchar*>(image.texels.data()), int(image.width), int(image.height), int(image.width) * 4,
                       QImage::Format_RGBA8888);
    return whole.copy(QRect(int(place.x), int(place.y), int(place.width), int(place.height)) & whole.rect());
}

QString BlockPanel::made_of(const TextureLayout& layout, const Bytes& file) const {
    const auto& f = info(layout.desc.format);
    const auto* surface = layout.find(0);
    // Of a texture that got another size, no block has the place of one of the game's.
    const bool same_size = layout.desc.width == fitted_->made.fit->result->width && layout.desc.height == fitted_->made.fit->result->height;
    if (!f.block_compressed() || !layout.direct || !surface || !same_size) return {};
    const auto block = slice(file, surface->offset + *cell_ * f.block_bytes, f.block_bytes);
    return block ? to_text(describe_block(f.format, *block)) : QString();
}

QString BlockPanel::how_far_off(const Fit& fit) {
    const auto number = [](double value, int digits) { return QLocale().toString(value, 'f', digits); };
    const auto decibels = [&](double value) { return std::isinf(value) ? tr("no different") : tr("%1 dB").arg(number(value, 1)); };
    if (fit.degrees && fit.degrees->mean > 0)
        return tr("%1° (in new blocks; 99 % within %2°)").arg(number(fit.degrees->mean, 2), number(fit.degrees->most, 2));
    if (fit.stops && fit.stops->mean > 0)
        return tr("%1 stops (in new blocks; 99 % within %2)").arg(number(fit.stops->mean, 3), number(fit.stops->most, 2));
    auto all = decibels(fit.quality.psnr_rgb);
    if (!fit.psnr_channels || fit.quality.max_error == 0) return all;
    const auto& f = info(fit.layout.desc.format);
    const std::size_t colors = f.channels - (f.has_alpha ? 1u : 0u);
    const QString names[] = {colors == 1 ? tr("brightness") : tr("red"), tr("green"), tr("blue"), tr("alpha")};
    QStringList channels;
    for (std::size_t c = 0; c < 4; ++c)
        if (c == 3 ? f.has_alpha : c < colors) channels << names[c] + ' ' + decibels((*fit.psnr_channels)[c]);
    return QStringLiteral("%1 (%2)").arg(all, channels.join(QStringLiteral(", ")));
}

void BlockPanel::refresh() {
    const bool have = fitted_ && fitted_->made.fit && !fitted_->made.fit->file.empty();
    const bool one = have && cell_ && *cell_ < fitted_->made.fit->blocks.is_new.size();
    wells_->setVisible(one);
    if (!have) {
        head_->setText(tr("Nothing is encoded yet."));
        text_->clear();
        return;
    }
    const auto& fit = *fitted_->made.fit;
    const bool blocks = fitted_->original && info(fitted_->original->layout.desc.format).block_compressed();
    if (!one) {
        head_->setText((blocks ? tr("Blocks: %1 kept as they were · %2 new") : tr("Texels: %1 kept as they were · %2 new"))
                           .arg(to_text(grouped(fit.kept_blocks())), to_text(grouped(fit.new_blocks()))));
        const auto bytes = to_text(grouped(fit.file.size()));
        text_->setText(
            fit.change.changed_texels == 1
                ? tr("File: %1 bytes. You changed one texel; what the game gets is %2 from your picture.").arg(bytes, how_far_off(fit))
                : tr("File: %1 bytes. You changed %2 texels; what the game gets is %3 from your picture.")
                      .arg(bytes, to_text(grouped(fit.change.changed_texels)), how_far_off(fit)));
        return;
    }
    const Image* images[] = {&*fit.original, &*fit.edited, &*fit.result};
    for (int i = 0; i < 3; ++i) {
        QPixmap well(well_side * 2, well_side * 2);
        well.setDevicePixelRatio(2);
        well.fill(Qt::transparent);
        QPainter p(&well);
        draw_in_well(p, QRectF(0, 0, well_side, well_side), texels_of(*images[i]), 2);
        p.end();
        pictures_[i]->setPixmap(well);
    }
    const auto place = fit.blocks.texels(*cell_);
    const bool is_new = fit.blocks.is_new[*cell_] != 0;
    const auto where = blocks ? tr("Block at %1, %2").arg(place.x).arg(place.y) : tr("Texels at %1, %2").arg(place.x).arg(place.y);
    head_->setText(!is_new                        ? tr("%1 · kept as it was").arg(where)
                   : fit.blocks.loss[*cell_] == 0 ? tr("%1 · new · as you painted it").arg(where)
                                                  : tr("%1 · new · %2 of 255 off").arg(where).arg(fit.blocks.loss[*cell_]));
    const auto before = made_of(fitted_->original->layout, fitted_->original->file), after = made_of(fit.layout, fit.file);
    QStringList lines;
    if (!before.isEmpty()) lines << (is_new ? tr("the game's: %1").arg(before) : before);
    if (is_new && !after.isEmpty()) lines << tr("new: %1").arg(after);
    text_->setText(lines.join('\n'));
    text_->setToolTip(text_->text());
}

}  // namespace skivet::app

#include "app/widgets/picture_row.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QPainter>
#include <QToolTip>

#include "app/theme/theme.h"
#include "app/widgets/image_view.h"

namespace skivet::app {

namespace {
constexpr int cell_width = 58, well = 46;
}

PictureRow::PictureRow(std::function<QImage(std::size_t)> picture, const QString& name, QWidget* parent)
    : QWidget(parent), picture_(std::move(picture)) {
    setFixedHeight(well + 18);
    setFocusPolicy(Qt::TabFocus);
    setAccessibleName(name);
}

void PictureRow::set_cells(std::vector<Cell> cells, std::size_t current) {
    cells_ = std::move(cells);
    current_ = current;
    QStringList words;
    for (const auto& cell : cells_) words << cell.word;
    setAccessibleDescription(words.join(QStringLiteral(", ")));
    tell_part_chosen(this);
    update();
}

QString PictureRow::part_name(int part) const {
    const auto& cell = cells_[std::size_t(part)];
    return cell.tip.isEmpty() ? cell.word : cell.word + QStringLiteral(", ") + cell.tip;
}

QRect PictureRow::part_place(int part) const { return part < fit() ? QRect(part * cell_width, 1, well, well) : QRect(); }

int PictureRow::current_part() const {
    const auto now = std::find_if(cells_.begin(), cells_.end(), [&](const Cell& cell) { return cell.item == current_; });
    return now == cells_.end() ? -1 : int(now - cells_.begin());
}

int PictureRow::fit() const {
    const int room = std::max(1, width() / cell_width), all = int(cells_.size());
    return all <= room ? all : room - 1;
}

int PictureRow::cell_at(const QPointF& point) const {
    const int i = int(point.x()) / cell_width;
    return point.x() >= 0 && i < fit() ? i : -1;
}

void PictureRow::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const auto& c = colors();
    p.setFont(text_font(10));
    for (int i = 0; i < fit(); ++i) {
        const auto& cell = cells_[std::size_t(i)];
        const QRectF box(i * cell_width, 1, well, well);
        draw_in_well(p, box, picture_(cell.item), 3);
        if (cell.item == current_) {
            p.setPen(QPen(hasFocus() ? c.mark : c.ink, 2));
            p.setBrush(Qt::NoBrush);
            p.drawRect(box.adjusted(1, 1, -1, -1));
        }
        p.setPen(c.soft);
        p.drawText(QRectF(box.x(), well + 2, cell_width - 3, 15), int(Qt::AlignLeft | Qt::AlignVCenter),
                   p.fontMetrics().elidedText(cell.word, Qt::ElideRight, cell_width - 3));
    }
    if (fit() < int(cells_.size())) {
        p.setPen(c.soft);
        p.setFont(text_font(12));
        p.drawText(QRectF(fit() * cell_width, 0, cell_width, well), Qt::AlignCenter, tr("+%1").arg(int(cells_.size()) - fit()));
    }
}

void PictureRow::mousePressEvent(QMouseEvent* event) {
    if (const int i = cell_at(event->position()); i >= 0) emit chosen(cells_[std::size_t(i)].item);
}

void PictureRow::keyPressEvent(QKeyEvent* event) {
    int i = current_part();
    if (event->key() == Qt::Key_Right) ++i;
    else if (event->key() == Qt::Key_Left) --i;
    else return QWidget::keyPressEvent(event);
    if (i >= 0 && i < int(cells_.size())) emit chosen(cells_[std::size_t(i)].item);
}

bool PictureRow::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        auto* help = static_cast<QHelpEvent*>(event);
        const int i = cell_at(help->pos());
        if (i >= 0) QToolTip::showText(help->globalPos(), cells_[std::size_t(i)].tip, this);
        else QToolTip::hideText();
        return true;
    }
    return QWidget::event(event);
}

}  // namespace skivet::app

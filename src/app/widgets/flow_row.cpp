#include "app/widgets/flow_row.h"

#include <QWidget>

namespace skivet::app {

FlowRow::FlowRow(QWidget* parent) : QLayout(parent) { setSpacing(6); }

FlowRow::~FlowRow() {
    for (auto* item : items_) delete item;
}

void FlowRow::addSpacing(int pixels) { gaps_.emplace_back(int(items_.size()), pixels); }

QLayoutItem* FlowRow::itemAt(int index) const { return index >= 0 && index < count() ? items_[std::size_t(index)] : nullptr; }

QLayoutItem* FlowRow::takeAt(int index) {
    auto* item = itemAt(index);
    if (item) items_.erase(items_.begin() + index);
    return item;
}

std::vector<std::pair<int, int>> FlowRow::shown() const {
    std::vector<std::pair<int, int>> out;
    int gap = 0;
    for (int i = 0; i < count(); ++i) {
        for (const auto& [before, pixels] : gaps_)
            if (before == i) gap += pixels;
        if (items_[std::size_t(i)]->isEmpty()) continue;
        out.emplace_back(i, out.empty() ? 0 : spacing() + gap);
        gap = 0;
    }
    return out;
}

QSize FlowRow::sizeHint() const {
    QSize out(0, 0);
    for (const auto& [i, gap] : shown()) {
        const auto size = items_[std::size_t(i)]->sizeHint();
        out = {out.width() + gap + size.width(), std::max(out.height(), size.height())};
    }
    const auto margins = contentsMargins();
    return out + QSize(margins.left() + margins.right(), margins.top() + margins.bottom());
}

QSize FlowRow::minimumSize() const {
    QSize out(0, 0);
    for (const auto& [i, gap] : shown()) out = out.expandedTo(items_[std::size_t(i)]->minimumSize());
    const auto margins = contentsMargins();
    return out + QSize(margins.left() + margins.right(), margins.top() + margins.bottom());
}

void FlowRow::setGeometry(const QRect& rect) {
    QLayout::setGeometry(rect);
    arrange(rect, true);
}

int FlowRow::arrange(const QRect& rect, bool move) const {
    const auto margins = contentsMargins();
    const auto area = rect.marginsRemoved(margins);
    const auto all = shown();
    int needed = 0, high = 0;
    for (const auto& [i, gap] : all) needed += gap + items_[std::size_t(i)]->sizeHint().width();
    const bool one_line = needed <= area.width();
    int x = area.x(), y = area.y();
    for (std::size_t n = 0; n < all.size(); ++n) {
        const auto [i, gap] = all[n];
        auto* item = items_[std::size_t(i)];
        auto size = item->sizeHint();
        size.setWidth(std::min(size.width(), std::max(area.width(), item->minimumSize().width())));
        if (x > area.x()) x += gap;
        // At the right: what is left of the line goes in front of the first of them.
        if (one_line && stretch_ >= 0 && i >= stretch_ && (n == 0 || all[n - 1].first < stretch_)) x += area.width() - needed;
        if (!one_line && x > area.x() && x + size.width() > area.right() + 1) {
            x = area.x();
            y += high + spacing();
            high = 0;
        }
        if (move) item->setGeometry(QRect(QPoint(x, y + (one_line ? std::max(0, (area.height() - size.height()) / 2) : 0)), size));
        x += size.width();
        high = std::max(high, size.height());
    }
    return y + high - rect.y() + margins.bottom();
}

}  // namespace skivet::app

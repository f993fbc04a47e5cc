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
    const auto size_of = [&](std::size_t n) {
        const auto* item = items_[std::size_t(all[n].first)];
        const auto size = item->sizeHint();
        return QSize(std::min(size.width(), std::max(area.width(), item->minimumSize().width())), size.height());
    };
    struct Line {
        std::size_t begin, end;
        int width, high;
    };
    std::vector<Line> lines;
    for (std::size_t n = 0; n < all.size(); ++n) {
        const auto size = size_of(n);
        if (lines.empty() || lines.back().width + all[n].second + size.width() > area.width()) {
            lines.push_back({n, n + 1, size.width(), size.height()});
            continue;
        }
        auto& line = lines.back();
        line.end = n + 1;
        line.width += all[n].second + size.width();
        line.high = std::max(line.high, size.height());
    }
    int y = area.y();
    for (const auto& line : lines) {
        int x = area.x();
        for (auto n = line.begin; n < line.end; ++n) {
            const auto [i, gap] = all[n];
            const auto size = size_of(n);
            if (n > line.begin) x += gap;
            // At the right: what is left of the line goes in front of the first of them.
            if (stretch_ >= 0 && i >= stretch_ && (n == line.begin || all[n - 1].first < stretch_))
                x += std::max(0, area.width() - line.width);
            const int down = lines.size() == 1 ? std::max(0, (area.height() - size.height()) / 2) : 0;
            if (move) items_[std::size_t(i)]->setGeometry(QRect(QPoint(x, y + down), size));
            x += size.width();
        }
        y += line.high + spacing();
    }
    return y - (lines.empty() ? 0 : spacing()) - rect.y() + margins.bottom();
}

}  // namespace skivet::app

#include "app/widgets/contact_sheet.h"

#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>

namespace skivet::app {

ContactSheet::ContactSheet(QWidget* parent) : QAbstractItemView(parent) {
    setSelectionMode(ExtendedSelection);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setVerticalScrollMode(ScrollPerPixel);
    setEditTriggers(NoEditTriggers);
    setFrameShape(NoFrame);
    setDragEnabled(true);
    setDragDropMode(DragOnly);
}

int ContactSheet::count() const { return model() ? model()->rowCount(rootIndex()) : 0; }
int ContactSheet::columns() const { return std::max(1, viewport()->width() / width_); }
int ContactSheet::verticalOffset() const { return verticalScrollBar()->value(); }

void ContactSheet::set_card_width(int width) {
    const auto current = currentIndex();
    width_ = std::clamp(width, 88, 320);
    updateGeometries();
    if (current.isValid()) scrollTo(current, PositionAtCenter);
    viewport()->update();
}

QRect ContactSheet::visualRect(const QModelIndex& index) const {
    if (!index.isValid()) return {};
    const int across = columns();
    return {index.row() % across * width_, index.row() / across * card_size().height() - verticalOffset(), width_, card_size().height()};
}

QModelIndex ContactSheet::indexAt(const QPoint& point) const {
    const int across = columns(), column = point.x() / width_;
    const int y = point.y() + verticalOffset();
    if (point.x() < 0 || y < 0 || column >= across) return {};
    const int row = y / card_size().height() * across + column;
    return row < count() ? model()->index(row, 0, rootIndex()) : QModelIndex();
}

void ContactSheet::scrollTo(const QModelIndex& index, ScrollHint hint) {
    if (!index.isValid()) return;
    const int top = index.row() / columns() * card_size().height(), height = card_size().height(), view = viewport()->height();
    auto* bar = verticalScrollBar();
    if (hint == PositionAtCenter) bar->setValue(top - (view - height) / 2);
    else if (hint == PositionAtTop || top < bar->value()) bar->setValue(top);
    else if (hint == PositionAtBottom || top + height > bar->value() + view) bar->setValue(std::min(top, top + height - view));
}

void ContactSheet::reset() {
    QAbstractItemView::reset();
    updateGeometries();
}

void ContactSheet::rowsInserted(const QModelIndex& parent, int start, int end) {
    QAbstractItemView::rowsInserted(parent, start, end);
    updateGeometries();
    viewport()->update();
}

void ContactSheet::updateGeometries() {
    const int across = columns(), rows = (count() + across - 1) / across, height = card_size().height();
    auto* bar = verticalScrollBar();
    bar->setRange(0, std::max(0, rows * height - viewport()->height()));
    bar->setPageStep(std::max(1, viewport()->height()));
    bar->setSingleStep(height / 3);
    QAbstractItemView::updateGeometries();
}

void ContactSheet::resizeEvent(QResizeEvent* event) {
    const auto first = indexAt({4, 4});
    QAbstractItemView::resizeEvent(event);
    updateGeometries();
    if (first.isValid() && event->oldSize().width() != event->size().width()) scrollTo(first, PositionAtTop);
}

QModelIndex ContactSheet::moveCursor(CursorAction action, Qt::KeyboardModifiers) {
    const int all = count();
    if (all == 0) return {};
    const int across = columns(), page = std::max(1, viewport()->height() / card_size().height()) * across;
    int row = currentIndex().isValid() ? currentIndex().row() : 0;
    switch (action) {
        case MoveLeft:
        case MovePrevious: row -= 1; break;
        case MoveRight:
        case MoveNext: row += 1; break;
        case MoveUp: row = row < across ? row : row - across; break;
        case MoveDown: row = row + across < all ? row + across : row / across < (all - 1) / across ? all - 1 : row; break;
        case MovePageUp: row -= page; break;
        case MovePageDown: row += page; break;
        case MoveHome: row = 0; break;
        case MoveEnd: row = all - 1; break;
    }
    return model()->index(std::clamp(row, 0, all - 1), 0, rootIndex());
}

void ContactSheet::setSelection(const QRect& rect, QItemSelectionModel::SelectionFlags flags) {
    // From card to card in reading order, as the rectangle's corners say. Beyond the last card is the last card.
    const auto card_at = [&](QPoint point) {
        const int across = columns(),
                  row = (point.y() + verticalOffset()) / card_size().height() * across + std::clamp(point.x() / width_, 0, across - 1);
        return std::min(std::max(row, 0), count() - 1);
    };
    if (count() == 0) return;
    if (rect.width() <= 1 && rect.height() <= 1 && !indexAt(rect.topLeft()).isValid()) {
        if (flags & QItemSelectionModel::Clear) selectionModel()->clearSelection();
        return;
    }
    const int first = card_at(rect.topLeft()), last = card_at(rect.bottomRight());
    selectionModel()->select(QItemSelection(model()->index(std::min(first, last), 0), model()->index(std::max(first, last), 0)), flags);
}

QRegion ContactSheet::visualRegionForSelection(const QItemSelection& selection) const {
    // Only what can be seen has to be drawn again.
    const int across = columns(), height = card_size().height();
    const int first = verticalOffset() / height * across, last = ((verticalOffset() + viewport()->height()) / height + 1) * across - 1;
    QRegion out;
    for (const auto& range : selection)
        for (int row = std::max(first, range.top()); row <= std::min(last, range.bottom()); ++row)
            out += visualRect(model()->index(row, 0));
    return out;
}

void ContactSheet::paintEvent(QPaintEvent* event) {
    QPainter painter(viewport());
    if (!model()) return;
    QStyleOptionViewItem option;
    initViewItemOption(&option);
    const int across = columns(), height = card_size().height();
    const auto area = event->rect();
    const int first = (area.top() + verticalOffset()) / height * across;
    const int last = std::min(count() - 1, ((area.bottom() + verticalOffset()) / height + 1) * across - 1);
    for (int row = first; row <= last; ++row) {
        const auto index = model()->index(row, 0, rootIndex());
        option.rect = visualRect(index);
        if (!option.rect.intersects(area)) continue;
        option.state = QStyle::State_Enabled;
        if (selectionModel()->isSelected(index)) option.state |= QStyle::State_Selected;
        if (index == currentIndex()) option.state |= QStyle::State_HasFocus;
        itemDelegate()->paint(&painter, option, index);
    }
}

void ContactSheet::mouseDoubleClickEvent(QMouseEvent* event) {
    const auto index = indexAt(event->pos());
    if (index.isValid() && event->button() == Qt::LeftButton) emit opened(index);
}

void ContactSheet::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Space && event->modifiers() == Qt::NoModifier && currentIndex().isValid()) {
        emit opened(currentIndex());
        return;
    }
    QAbstractItemView::keyPressEvent(event);
}

void ContactSheet::wheelEvent(QWheelEvent* event) {
    if (event->modifiers() & Qt::ControlModifier) {
        set_card_width(width_ + (event->angleDelta().y() > 0 ? 16 : -16));
        event->accept();
        return;
    }
    QAbstractItemView::wheelEvent(event);
}

}  // namespace skivet::app

#pragma once
// The list of sources in load order: how a row is drawn, and how it is dragged to another place.
#include <functional>
#include <QListView>
#include <QStyledItemDelegate>

namespace skivet::app {

/// What a row holds beside its name.
enum SourceRole { SourceIndex = Qt::UserRole, About, Count, Status, Bad };

class SourceDelegate : public QStyledItemDelegate {
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    [[nodiscard]] QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {200, 62}; }
    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
};

/// A list whose rows are dragged to another place.
class OrderList : public QListView {
public:
    std::function<void(int from, int to)> moved;
    OrderList();

protected:
    void dropEvent(QDropEvent* event) override;
};

}  // namespace skivet::app

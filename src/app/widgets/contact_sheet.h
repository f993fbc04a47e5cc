#pragma once
#include <QAbstractItemView>

#include "app/widgets/accessible.h"

namespace skivet::app {

/// Pictures in rows, of a hundred thousand or more: every place is computed, nothing is kept an item. The delegate draws the cards.
class ContactSheet : public QAbstractItemView, public WithParts {
    Q_OBJECT
public:
    explicit ContactSheet(QWidget* parent = nullptr);
    /// Width of a card's place in pixels; its height is 40 more.
    void set_card_width(int width);
    [[nodiscard]] int card_width() const { return width_; }
    [[nodiscard]] QSize card_size() const { return {width_, width_ + 40}; }
    [[nodiscard]] int columns() const;

    [[nodiscard]] QRect visualRect(const QModelIndex& index) const override;
    void scrollTo(const QModelIndex& index, ScrollHint hint = EnsureVisible) override;
    [[nodiscard]] QModelIndex indexAt(const QPoint& point) const override;
    void reset() override;

    [[nodiscard]] int part_count() const override { return count(); }
    [[nodiscard]] QString part_name(int part) const override { return model()->index(part, 0).data(Qt::AccessibleTextRole).toString(); }
    [[nodiscard]] QRect part_place(int part) const override { return visualRect(model()->index(part, 0)) & viewport()->rect(); }
    [[nodiscard]] int part_at(QPoint place) const override { return indexAt(place).row(); }
    [[nodiscard]] int current_part() const override { return currentIndex().row(); }
    void choose_part(int part) override { setCurrentIndex(model()->index(part, 0)); }

signals:
    /// A card was double-clicked, or Space was pressed on it.
    void opened(const QModelIndex& index);
    /// What is chosen is being dragged away.
    void dragged();

protected:
    QModelIndex moveCursor(CursorAction action, Qt::KeyboardModifiers modifiers) override;
    [[nodiscard]] int horizontalOffset() const override { return 0; }
    [[nodiscard]] int verticalOffset() const override;
    [[nodiscard]] bool isIndexHidden(const QModelIndex&) const override { return false; }
    void setSelection(const QRect& rect, QItemSelectionModel::SelectionFlags flags) override;
    [[nodiscard]] QRegion visualRegionForSelection(const QItemSelection& selection) const override;
    void updateGeometries() override;
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void startDrag(Qt::DropActions) override { emit dragged(); }
    void wheelEvent(QWheelEvent* event) override;
    void rowsInserted(const QModelIndex& parent, int start, int end) override;

private:
    [[nodiscard]] int count() const;
    int width_ = 152;
};

}  // namespace skivet::app

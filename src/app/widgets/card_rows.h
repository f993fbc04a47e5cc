#pragma once
#include <QStyledItemDelegate>

namespace skivet::app {

/// What a row of a list of cards holds beside its text, which is its name.
enum CardRole {
    CardNumber = Qt::UserRole,  ///< what it is about, in its owner's list
    CardUnder,                  ///< said below the name
    CardWrong,                  ///< a text or true: it wants a look
};

/// A name and what is said of it below, in a frame; a mark where it wants a look; a tick box where the row can be ticked, by mouse and
/// space.
class CardRows : public QStyledItemDelegate {
public:
    /// `ticks`: rows leave room for a tick box.
    explicit CardRows(bool ticks, QObject* parent) : QStyledItemDelegate(parent), ticks_(ticks) {}
    [[nodiscard]] QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {200, 60}; }
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
    bool editorEvent(QEvent* event, QAbstractItemModel* model, const QStyleOptionViewItem& option, const QModelIndex& index) override;

private:
    bool ticks_;
};

}  // namespace skivet::app

#pragma once
// How the catalog's cards and facets are drawn.
#include <QStyledItemDelegate>

#include "app/models/catalog_model.h"
#include "app/widgets/contact_sheet.h"

namespace skivet::app {

/// A texture, or a set of them, as a card of the contact sheet.
class CardDelegate : public QStyledItemDelegate {
public:
    CardDelegate(CatalogModel* model, ContactSheet* contact_sheet) : QStyledItemDelegate(contact_sheet), model_(model) {}
    /// How alpha is shown: as the texture seems to mean it, over a checker, or not at all.
    enum class Alpha { as_meant, over, ignored } alpha = Alpha::as_meant;
    [[nodiscard]] QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {152, 192}; }
    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override;

private:
    CatalogModel* model_;
};

/// A line of the facets: a heading, a value with its count and a box, or the way to more values.
class FacetDelegate : public QStyledItemDelegate {
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    [[nodiscard]] QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex& index) const override;
    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
    /// The whole line is the box.
    bool editorEvent(QEvent* event, QAbstractItemModel* model, const QStyleOptionViewItem&, const QModelIndex& index) override;
};

}  // namespace skivet::app

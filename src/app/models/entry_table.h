#pragma once
#include <QAbstractTableModel>

#include "workflow/catalog_snapshot.h"

namespace skivet::app {

/// The entries of one source: path, what it is, size, how it is packed, where it lies.
class EntryTable : public QAbstractTableModel {
    Q_OBJECT
public:
    using QAbstractTableModel::QAbstractTableModel;
    void show_source(std::shared_ptr<const CatalogSnapshot> snapshot, std::size_t source);
    /// Row of an entry of the source's container (not of archives inside); -1: none.
    [[nodiscard]] int row_of_entry(int entry) const;
    [[nodiscard]] int entry_of_row(int row) const;
    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex& = {}) const override { return 5; }
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
    [[nodiscard]] const SourceItems& its() const;

    std::shared_ptr<const CatalogSnapshot> snapshot_;
    std::size_t source_ = 0;
};

/// "texture · BC1 · 256×256 · 9 mips"
[[nodiscard]] QString what_it_is(const CatalogItem& item);

}  // namespace skivet::app

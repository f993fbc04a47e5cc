#pragma once
#include <QAbstractTableModel>

#include "app/models/session.h"

namespace skivet::app {

/// The entries of one source: path, what it is, size, how it is packed, where it lies.
class EntryTable : public QAbstractTableModel {
    Q_OBJECT
public:
    using QAbstractTableModel::QAbstractTableModel;
    void show_source(std::shared_ptr<const Stock> stock, std::size_t source);
    /// Row of an entry of the source's container (not of archives inside); -1: none.
    [[nodiscard]] int row_of_entry(int entry) const;
    [[nodiscard]] int entry_of_row(int row) const;
    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex& = {}) const override { return 5; }
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
    std::shared_ptr<const Stock> stock_;
    std::vector<std::size_t> items_;
    std::size_t source_ = 0;
};

/// "texture · BC1 · 256×256 · 9 mips"
[[nodiscard]] QString what_it_is(const CatalogItem& item);

/// The textures that pass the search and the facets, in catalog order.
class CatalogModel : public QAbstractListModel {
    Q_OBJECT
public:
    enum Role { ItemIndex = Qt::UserRole };
    explicit CatalogModel(Session* session, QObject* parent = nullptr);
    void refresh();
    void set_query(const QString& query);
    /// Values that pass, for each facet; an empty set passes everything.
    void set_facets(const QSet<QString>& folders, const QSet<QString>& formats, const QSet<QString>& sources);
    [[nodiscard]] std::size_t item_at(int row) const { return rows_[std::size_t(row)]; }
    [[nodiscard]] int row_of(std::size_t item) const;
    [[nodiscard]] std::size_t texture_count() const { return textures_; }
    [[nodiscard]] int rowCount(const QModelIndex& = {}) const override { return int(rows_.size()); }
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;

private:
    Session* session_;
    QString query_;
    QSet<QString> folders_, formats_, sources_;
    std::vector<std::size_t> rows_;
    std::size_t textures_ = 0;
};

[[nodiscard]] QString top_folder(const CatalogItem& item);

}  // namespace skivet::app

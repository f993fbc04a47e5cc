#pragma once
#include <QAbstractListModel>
#include <unordered_set>

#include "app/models/catalog_model.h"

namespace skivet::app {

/// The cards of the contact sheet: single textures, sets as one card that opens, or what was found by a picture.
class ContactModel : public QAbstractListModel {
    Q_OBJECT
public:
    enum Role { ItemIndex = Qt::UserRole, SetSize, IsOpen, IsMember, Score };
    explicit ContactModel(CatalogModel* model, QObject* parent = nullptr);
    void show(std::vector<Card> cards);
    void show_hits(const std::vector<PictureHit>& hits);
    /// Opens or closes the set of a row; false for a row without one. A member closes its set.
    bool toggle(int row);
    void open_all(bool open);
    /// The texture a row shows: of a set its first.
    [[nodiscard]] std::size_t item_at(int row) const { return rows_[std::size_t(row)].item; }
    /// All textures a row stands for.
    [[nodiscard]] std::vector<std::size_t> items_at(int row) const;
    /// -1: not shown, or inside a closed set.
    [[nodiscard]] int row_of(std::size_t item) const;
    [[nodiscard]] std::size_t texture_count() const { return textures_; }
    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : int(rows_.size()); }
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
    [[nodiscard]] Qt::ItemFlags flags(const QModelIndex& index) const override {
        return QAbstractListModel::flags(index) | Qt::ItemIsDragEnabled;
    }

private:
    struct Row {
        std::uint32_t item = 0, card = 0;
        bool head = false, member = false, open = false;
    };
    void lay_out();
    CatalogModel* model_;
    std::vector<Card> cards_;
    std::vector<float> scores_;               ///< a card; empty: not found by a picture
    std::unordered_set<std::uint32_t> open_;  ///< first items of open sets
    std::vector<Row> rows_;
    std::vector<int> row_of_;  ///< one per item: -1 where it has no row
    std::size_t textures_ = 0;
};

/// Facets with counts: headings, values one can check, and a line to see the rest.
class FacetModel : public QAbstractListModel {
    Q_OBJECT
public:
    enum Role { Kind = Qt::UserRole, Count };
    enum class RowKind { heading, value, trait, more };
    using QAbstractListModel::QAbstractListModel;
    void show(const CatalogAnswer& answer, const CatalogQuery& query);
    /// What is checked, with the search text left empty.
    [[nodiscard]] const CatalogQuery& chosen() const { return query_; }
    void set_chosen(CatalogQuery query) { query_ = std::move(query); }
    /// For tests and the keyboard: checks or unchecks a value.
    bool toggle(int row);
    [[nodiscard]] int row_of(const QString& text) const;
    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : int(rows_.size()); }
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
    [[nodiscard]] Qt::ItemFlags flags(const QModelIndex& index) const override;
    bool setData(const QModelIndex& index, const QVariant& value, int role) override;

signals:
    void changed();

private:
    struct Row {
        RowKind kind = RowKind::heading;
        std::size_t facet = 0;  ///< or trait
        std::string value;
        std::uint32_t count = 0;
    };
    void lay_out(const CatalogAnswer& answer);
    CatalogAnswer answer_;
    CatalogQuery query_;
    std::array<bool, facet_count> all_{};  ///< facets of which every value is shown
    std::vector<Row> rows_;
};

}  // namespace skivet::app

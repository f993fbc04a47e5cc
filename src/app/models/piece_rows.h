#pragma once
#include <QAbstractListModel>

#include "app/models/bench_model.h"

namespace skivet::app {

/// The pieces as rows of a list: those that are wanted, in the order that is wanted. Rows keep their selection when the order changes.
class PieceRows : public QAbstractListModel {
    Q_OBJECT
public:
    enum class Order {
        taken,  ///< as they came to the bench
        name,
        saved,  ///< the last saved first
        need,   ///< what needs something first
    };
    enum Role { IdRole = Qt::UserRole };

    PieceRows(BenchModel* model, Order order, QObject* parent);
    void set_order(Order order);
    /// Only pieces of these states; empty: all.
    void set_states(std::vector<PieceState> states);
    /// Only pieces with the words in name, path or file name, whatever their case; empty: all.
    void set_words(const QString& words);
    [[nodiscard]] PieceId id(int row) const { return row >= 0 && row < int(ids_.size()) ? ids_[std::size_t(row)] : 0; }
    [[nodiscard]] const std::vector<PieceId>& ids() const { return ids_; }
    /// -1: not among them.
    [[nodiscard]] int row(PieceId id) const;
    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : int(ids_.size()); }
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;

private:
    void refresh();
    BenchModel* model_;
    Order order_;
    std::vector<PieceState> states_;
    QString words_;
    std::vector<PieceId> ids_;
};

}  // namespace skivet::app

#include "app/models/piece_rows.h"

#include "app/language.h"

#include <algorithm>

namespace skivet::app {
namespace {

/// What has to be done about it: the less, the later.
int need(PieceState state) {
    switch (state) {
        case PieceState::needs_mend: return 0;
        case PieceState::gone_stale: return 1;
        case PieceState::changed: return 2;
        case PieceState::fits: return 3;
        case PieceState::delivered: return 4;
        case PieceState::out:
        case PieceState::on_the_bench: return 5;
    }
    return 6;
}

}  // namespace

PieceRows::PieceRows(BenchModel* model, Order order, QObject* parent) : QAbstractListModel(parent), model_(model), order_(order) {
    connect(model, &BenchModel::pieces_changed, this, &PieceRows::refresh);
    refresh();
}

void PieceRows::set_order(Order order) {
    order_ = order;
    refresh();
}

void PieceRows::set_states(std::vector<PieceState> states) {
    states_ = std::move(states);
    refresh();
}

void PieceRows::set_words(const QString& words) {
    words_ = words.trimmed();
    refresh();
}

int PieceRows::row(PieceId id) const {
    const auto found = std::find(ids_.begin(), ids_.end(), id);
    return found == ids_.end() ? -1 : int(found - ids_.begin());
}

void PieceRows::refresh() {
    struct Row {
        const Piece* piece;
        std::string name;
    };
    std::vector<Row> rows;
    for (const auto& piece : model_->pieces()) {
        if (!states_.empty() && std::find(states_.begin(), states_.end(), piece.state) == states_.end()) continue;
        if (!words_.isEmpty() && !QString::fromStdString(piece.address.text()).contains(words_, Qt::CaseInsensitive) &&
            !QString::fromStdString(piece.file.string()).contains(words_, Qt::CaseInsensitive))
            continue;
        rows.push_back({&piece, order_ == Order::name ? piece.name() : std::string()});
    }
    if (order_ != Order::taken)
        std::stable_sort(rows.begin(), rows.end(), [this](const Row& a, const Row& b) {
            switch (order_) {
                case Order::name: return a.name < b.name;
                case Order::saved: return a.piece->changed_at > b.piece->changed_at;
                case Order::need: return need(a.piece->state) < need(b.piece->state);
                case Order::taken: break;
            }
            return false;
        });
    std::vector<PieceId> ids;
    for (const auto& row : rows) ids.push_back(row.piece->id);
    if (ids == ids_) {
        if (!ids_.empty()) emit dataChanged(index(0), index(rowCount() - 1));
        return;
    }
    const auto sorted = [](std::vector<PieceId> some) {
        std::sort(some.begin(), some.end());
        return some;
    };
    if (sorted(ids) != sorted(ids_)) {
        beginResetModel();
        ids_ = std::move(ids);
        endResetModel();
        return;
    }
    emit layoutAboutToBeChanged();
    const auto old = std::exchange(ids_, std::move(ids));
    QModelIndexList from = persistentIndexList(), to;
    for (const auto& index : from) to << this->index(row(old[std::size_t(index.row())]));
    changePersistentIndexList(from, to);
    emit layoutChanged();
}

QVariant PieceRows::data(const QModelIndex& index, int role) const {
    const auto id = this->id(index.row());
    if (role == IdRole) return qulonglong(id);
    if (role != Qt::DisplayRole && role != Qt::AccessibleTextRole) return {};
    const auto* piece = model_->piece(id);
    if (!piece) return {};
    const auto name = QString::fromStdString(piece->name());
    if (role == Qt::DisplayRole) return name;
    return tr("%1, %2").arg(name, spoken(name_of(piece->state)));
}

}  // namespace skivet::app

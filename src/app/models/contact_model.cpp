#include "app/models/contact_model.h"

#include "app/language.h"

#include "app/pages/page.h"

namespace skivet::app {

ContactModel::ContactModel(CatalogModel* model, QObject* parent) : QAbstractListModel(parent), model_(model) {
    connect(&model->pictures(), &SmallPictures::ready, this, [this](std::size_t item) {
        if (const int row = row_of(item); row >= 0) emit dataChanged(index(row), index(row), {Qt::DecorationRole});
    });
}

void ContactModel::show(std::vector<Card> cards) {
    beginResetModel();
    cards_ = std::move(cards);
    scores_.clear();
    lay_out();
    endResetModel();
}

void ContactModel::show_hits(const std::vector<PictureHit>& hits) {
    beginResetModel();
    cards_.clear();
    scores_.clear();
    for (const auto& hit : hits) {
        cards_.push_back({std::uint32_t(hit.picture), {}});
        scores_.push_back(hit.score);
    }
    lay_out();
    endResetModel();
}

void ContactModel::lay_out() {
    rows_.clear();
    rows_.reserve(cards_.size());
    textures_ = 0;
    std::uint32_t last = 0;
    for (std::uint32_t c = 0; c < cards_.size(); ++c) {
        const auto& card = cards_[c];
        textures_ += card.size();
        const bool set = card.size() > 1, open = set && open_.contains(card.first);
        rows_.push_back({card.first, c, set, open, open});
        last = std::max(last, card.first);
        for (const auto item : card.others) {
            last = std::max(last, item);
            if (open) rows_.push_back({item, c, false, true, true});
        }
    }
    row_of_.assign(rows_.empty() ? 0 : last + 1, -1);
    for (std::size_t r = rows_.size(); r-- > 0;) row_of_[rows_[r].item] = int(r);
}

bool ContactModel::toggle(int row) {
    if (row < 0 || row >= int(rows_.size())) return false;
    const auto& card = cards_[rows_[std::size_t(row)].card];
    if (card.size() < 2) return false;
    if (!open_.erase(card.first)) open_.insert(card.first);
    beginResetModel();
    lay_out();
    endResetModel();
    return true;
}

void ContactModel::open_all(bool open) {
    beginResetModel();
    open_.clear();
    if (open)
        for (const auto& card : cards_)
            if (card.size() > 1) open_.insert(card.first);
    lay_out();
    endResetModel();
}

std::vector<std::size_t> ContactModel::items_at(int row) const {
    const auto& r = rows_[std::size_t(row)];
    if (r.member) return {r.item};
    const auto items = cards_[r.card].items();
    return {items.begin(), items.end()};
}

int ContactModel::row_of(std::size_t item) const { return item < row_of_.size() ? row_of_[item] : -1; }

QVariant ContactModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid() || index.row() >= int(rows_.size())) return {};
    const auto& row = rows_[std::size_t(index.row())];
    const auto snapshot = model_->snapshot();
    if (row.item >= snapshot->catalog.items.size()) return {};
    const auto& item = snapshot->catalog.items[row.item];
    const auto& card = cards_[row.card];
    switch (role) {
        case ItemIndex: return QVariant::fromValue<qulonglong>(row.item);
        case SetSize: return row.head ? int(card.size()) : 1;
        case IsOpen: return row.open;
        case IsMember: return row.member;
        case Score: return row.card < scores_.size() ? QVariant(scores_[row.card]) : QVariant();
        case Qt::DisplayRole: {
            if (row.head && !row.open) return to_text(split_name(item.path(), model_->catalog()->analysis.habits).base);
            return to_text(item.name());
        }
        case Qt::AccessibleTextRole:
            return row.head && !row.open ? tr("%1, a set of %L2").arg(to_text(item.name())).arg(card.size()) : to_text(item.name());
        case Qt::ToolTipRole: return to_text(address_of(snapshot->sources[item.source], item).text());
        default: return {};
    }
}

void FacetModel::show(const CatalogAnswer& answer, const CatalogQuery& query) {
    query_ = query;
    query_.search.clear();
    answer_.counts = answer.counts;
    answer_.traits = answer.traits;
    beginResetModel();
    lay_out(answer_);
    endResetModel();
}

void FacetModel::lay_out(const CatalogAnswer& answer) {
    constexpr std::size_t few = 6;
    rows_.clear();
    for (std::size_t f = 0; f < facet_count; ++f) {
        const auto facet = static_cast<Facet>(f);
        const auto& list = answer.counts[f];
        // One value only tells nothing, unless it is chosen.
        if (list.empty() || (list.size() == 1 && query_.chosen[f].empty())) continue;
        rows_.push_back({RowKind::heading, f, std::string(name_of(facet)), 0});
        const auto is_chosen = [&](const std::string& value) {
            return std::find(query_.chosen[f].begin(), query_.chosen[f].end(), value) != query_.chosen[f].end();
        };
        // The most frequent ones, in the list's own order.
        std::vector<std::uint32_t> counts;
        for (const auto& [value, count] : list) counts.push_back(count);
        std::sort(counts.rbegin(), counts.rend());
        const auto least = all_[f] || list.size() <= few + 1 ? 0u : counts[few - 1];
        std::size_t shown = 0, hidden = 0;
        for (const auto& [value, count] : list) {
            if ((count < least || (shown >= few && least > 0)) && !is_chosen(value)) {
                ++hidden;
                continue;
            }
            ++shown;
            rows_.push_back({RowKind::value, f, value, count});
        }
        if (hidden > 0) rows_.push_back({RowKind::more, f, {}, std::uint32_t(hidden)});
    }
    bool any = false;
    for (std::size_t t = 0; t < trait_count; ++t) {
        if (answer.traits[t] == 0 && !query_.traits[t]) continue;
        if (!any) rows_.push_back({RowKind::heading, 0, tr("Also").toStdString(), 0});
        any = true;
        rows_.push_back({RowKind::trait, t, std::string(name_of(static_cast<Trait>(t))), answer.traits[t]});
    }
}

bool FacetModel::toggle(int row) {
    if (row < 0 || row >= int(rows_.size())) return false;
    const auto at = rows_[std::size_t(row)];
    if (at.kind == RowKind::more) {
        all_[at.facet] = true;
        beginResetModel();
        lay_out(answer_);
        endResetModel();
        return true;
    }
    if (at.kind == RowKind::trait) query_.traits[at.facet] = !query_.traits[at.facet];
    else if (at.kind == RowKind::value) {
        auto& chosen = query_.chosen[at.facet];
        if (!std::erase(chosen, at.value)) chosen.push_back(at.value);
    } else return false;
    emit changed();
    return true;
}

int FacetModel::row_of(const QString& text) const {
    for (std::size_t r = 0; r < rows_.size(); ++r)
        if (rows_[r].kind != RowKind::heading && to_text(rows_[r].value) == text) return int(r);
    return -1;
}

namespace {
/// Values are kept with searches, so they are English; folders and names of sources are what they are.
QString shown_value(std::size_t facet, const std::string& value) {
    if (static_cast<Facet>(facet) == Facet::size && value.starts_with("to ")) return FacetModel::tr("to %1").arg(to_text(value.substr(3)));
    return static_cast<Facet>(facet) == Facet::folder && value == "(no folder)" ? FacetModel::tr("(no folder)") : spoken(value);
}
}  // namespace

QVariant FacetModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid() || index.row() >= int(rows_.size())) return {};
    const auto& row = rows_[std::size_t(index.row())];
    switch (role) {
        case Kind: return int(row.kind);
        case Count: return row.count;
        case Qt::DisplayRole: return row.kind == RowKind::more ? tr("%L1 more…").arg(row.count) : shown_value(row.facet, row.value);
        case Qt::AccessibleTextRole:
            return row.kind == RowKind::heading ? spoken(row.value)
                                                : tr("%1, %2").arg(data(index, Qt::DisplayRole).toString()).arg(row.count);
        case Qt::CheckStateRole: {
            if (row.kind == RowKind::trait) return query_.traits[row.facet] ? Qt::Checked : Qt::Unchecked;
            if (row.kind != RowKind::value) return {};
            const auto& chosen = query_.chosen[row.facet];
            return std::find(chosen.begin(), chosen.end(), row.value) != chosen.end() ? Qt::Checked : Qt::Unchecked;
        }
        default: return {};
    }
}

Qt::ItemFlags FacetModel::flags(const QModelIndex& index) const {
    const auto kind = static_cast<RowKind>(data(index, Kind).toInt());
    if (kind == RowKind::heading) return Qt::NoItemFlags;
    return Qt::ItemIsEnabled | Qt::ItemIsSelectable | (kind == RowKind::more ? Qt::NoItemFlags : Qt::ItemIsUserCheckable);
}

bool FacetModel::setData(const QModelIndex& index, const QVariant&, int role) { return role == Qt::CheckStateRole && toggle(index.row()); }

}  // namespace skivet::app

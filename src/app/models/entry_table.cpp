#include "app/models/entry_table.h"

#include "app/pages/page.h"
#include "app/theme/theme.h"

namespace skivet::app {

QString what_it_is(const CatalogItem& item) {
    if (item.error) return to_text(item.error->what);
    if (item.is_texture() && item.desc.format != Format::unknown)
        return QObject::tr("%1 · %2 · %3 · %4")
            .arg(item.kind == EntryKind::image ? QObject::tr("image") : QObject::tr("texture"), to_text(info(item.desc.format).name),
                 to_text(size_text(item.desc)),
                 item.desc.mips == 1 ? QObject::tr("one level") : QObject::tr("%1 mips").arg(item.desc.mips));
    switch (item.kind) {
        case EntryKind::container: return QObject::tr("archive");
        case EntryKind::mesh: return QObject::tr("mesh");
        default: return QObject::tr("other data");
    }
}

void EntryTable::show_source(std::shared_ptr<const CatalogSnapshot> snapshot, std::size_t source) {
    beginResetModel();
    snapshot_ = std::move(snapshot);
    source_ = source;
    items_.clear();
    for (std::size_t i = 0; snapshot_ && i < snapshot_->catalog.items.size(); ++i)
        if (snapshot_->catalog.items[i].source == source) items_.push_back(i);
    endResetModel();
}

int EntryTable::row_of_entry(int entry) const {
    int seen = 0;
    for (std::size_t row = 0; row < items_.size(); ++row)
        if (snapshot_->catalog.items[items_[row]].inner.size() == 1 && seen++ == entry) return int(row);
    return -1;
}

int EntryTable::entry_of_row(int row) const {
    int seen = -1;
    for (int r = 0; r <= row && r < int(items_.size()); ++r) seen += snapshot_->catalog.items[items_[std::size_t(r)]].inner.size() == 1;
    return seen;
}

int EntryTable::rowCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : int(items_.size()); }

QVariant EntryTable::data(const QModelIndex& index, int role) const {
    if (!index.isValid()) return {};
    const auto& item = snapshot_->catalog.items[items_[std::size_t(index.row())]];
    if (role == Qt::DisplayRole || role == Qt::ToolTipRole) {
        switch (index.column()) {
            case 0: {
                QStringList steps;
                for (const auto& step : item.inner) steps << to_text(step);
                return steps.join(QStringLiteral(" ▸ "));
            }
            case 1: return what_it_is(item);
            case 2: return to_text(human_bytes(item.size));
            case 3: return to_text(item.method.text());
            default: {
                const auto& container = snapshot_->sources[source_].container;
                if (item.inner.size() > 1 || !container || container->kind() == "folder") return QStringLiteral("–");
                const auto entry = container->find(item.path());
                return entry ? to_text(hex(container->entries()[*entry].at)) : QString();
            }
        }
    }
    if (role == Qt::FontRole && index.column() >= 2) return number_font(12);
    if (role == Qt::ForegroundRole && index.column() == 1 && item.error) return colors().mark;
    return {};
}

QVariant EntryTable::headerData(int section, Qt::Orientation orientation, int role) const {
    if (role == Qt::TextAlignmentRole) return int(Qt::AlignLeft | Qt::AlignVCenter);
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole) return {};
    const QString names[] = {tr("Entry"), tr("What it is"), tr("Size"), tr("Packed as"), tr("At")};
    return names[section];
}

}  // namespace skivet::app

#include "app/models/entry_table.h"

#include "app/language.h"
#include "app/pages/page.h"
#include "app/theme/theme.h"

namespace skivet::app {

QString what_it_is(const CatalogItem& item) {
    if (item.error) return spoken(item.error->what);
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
    endResetModel();
}

const SourceItems& EntryTable::its() const {
    static const SourceItems none;
    return snapshot_ && source_ < snapshot_->items_of.size() ? snapshot_->items_of[source_] : none;
}

int EntryTable::row_of_entry(int entry) const {
    return entry < 0 || std::size_t(entry) >= its().places.size() ? -1 : int(its().places[std::size_t(entry)]);
}

int EntryTable::entry_of_row(int row) const {
    return row < 0 || std::size_t(row) >= its().entries.size() ? -1 : its().entries[std::size_t(row)];
}

int EntryTable::rowCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : int(its().items.size()); }

QVariant EntryTable::data(const QModelIndex& index, int role) const {
    if (!index.isValid()) return {};
    const auto& item = snapshot_->catalog.items[its().items[std::size_t(index.row())]];
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
                const auto entry = entry_of_row(index.row());
                if (entry < 0 || !container || container->kind() == "folder") return QStringLiteral("–");
                return std::size_t(entry) < container->entries().size() ? to_text(hex(container->entries()[std::size_t(entry)].at))
                                                                        : QString();
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

#pragma once
#include <QListView>
#include <QStackedWidget>
#include <QStandardItemModel>
#include <QTableView>

#include "app/models/entry_table.h"
#include "app/models/parcel_model.h"
#include "app/models/shipped_model.h"
#include "app/models/sources_model.h"
#include "app/pages/page.h"
#include "app/widgets/byte_map.h"

namespace skivet::app {

/// Which archives and folders belong to the game, in load order, and what is inside each.
class SourcesPage : public Page {
    Q_OBJECT
public:
    explicit SourcesPage(SourcesModel* model, ParcelModel* parcels = nullptr, ShippedModel* shipped = nullptr, QWidget* parent = nullptr);
    void entered() override;
    [[nodiscard]] QJsonObject view() const override;
    void restore(const QJsonObject& view) override;

private:
    SourcesModel* model_;
    ParcelModel* parcels_;  ///< may be null
    void refresh();
    void show_source(int row);
    void add_archives();
    void add_folder();
    [[nodiscard]] int current_source() const;

    void choose_group();
    /// Goes through the project's game folder, or asks for one.
    void find_in_folder();
    QStackedWidget* stack_;
    QListView* list_;
    QStandardItemModel* rows_;
    QString wished_;  ///< path of the source to go to as soon as it is there
    QLabel *title_, *about_, *notes_, *map_title_, *inside_;
    void open_lens();
    QAction *find_, *off_, *group_, *baseline_, *keys_, *packers_, *kinds_, *compact_, *sift_, *lens_, *sheet_, *names_;
    QWidget *compact_button_, *kinds_button_, *names_button_, *look_inside_;
    QWidget* news_;
    ByteMap* map_;
    QTableView* table_;
    EntryTable* entries_;
};

}  // namespace skivet::app

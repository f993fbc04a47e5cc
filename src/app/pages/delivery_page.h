#pragma once
#include <QVBoxLayout>

#include "app/models/delivery_model.h"
#include "app/models/game_process.h"
#include "app/models/kin_model.h"
#include "app/models/parcel_model.h"
#include "app/models/update_model.h"
#include "app/pages/page.h"

namespace skivet::app {

/// What will be written, the one button that writes it, and the way back.
class DeliveryPage : public Page {
    Q_OBJECT
public:
    explicit DeliveryPage(DeliveryModel* model, KinModel* kin = nullptr, ParcelModel* parcels = nullptr, UpdateModel* update = nullptr,
                          GameProcess* game = nullptr, QWidget* parent = nullptr);
    void entered() override;

signals:
    /// Where deliveries go is to be said.
    void places_wanted();

private:
    DeliveryModel* model_;
    KinModel* kin_;
    ParcelModel* parcels_;  ///< may be null
    UpdateModel* update_;   ///< may be null
    void show_plan();
    void show_copies();
    void show_update();
    QFrame* make_update_card();
    /// An entry that gets another name or goes, and the way to leave it.
    [[nodiscard]] QLayout* make_change_line(const EntryChange& change);
    void add_changes(QVBoxLayout* box, const std::vector<EntryChange>& changes);
    void add_new_files(QVBoxLayout* box, const DeliveryGroup& group);
    void show_history();
    void ask_to_undo_all();

    QVBoxLayout *cards_, *history_;
    QLabel* where_text_;
    QWidget* change_;
    QLabel *state_, *vault_, *free_, *lock_, *changed_text_, *copies_title_, *copies_text_, *update_text_;
    QFrame *changed_, *copies_, *updated_;
    QAction* destinations_[4];
    QAction *deliver_, *undo_all_;
};

}  // namespace skivet::app

#pragma once
// What would be written into the game, writing it, and the way back.
#include <QObject>

#include "app/models/project_store.h"
#include "workflow/delivery_plan.h"

namespace skivet::app {

class DeliveryModel : public QObject {
    Q_OBJECT
public:
    explicit DeliveryModel(ProjectStore& store, QObject* parent = nullptr);

    void make_plan();
    /// The newest; null before the first and while a delivery is written.
    [[nodiscard]] std::shared_ptr<const DeliveryPlan> plan() const { return plan_; }
    void deliver();
    /// Entries get other names or go with the next delivery.
    void let_wait(const std::vector<EntryChange>& changes);
    /// Not any more.
    void leave(const std::vector<EntryChange>& changes);
    [[nodiscard]] Destination destination() const { return store_.project().destination; }
    /// Where deliveries go; kept in the project.
    void set_destination(Destination destination);
    /// Opens everything anew and looks whether the pieces' textures are still what was taken, after somebody else changed an archive.
    void refresh();
    /// Deliveries that stand, the oldest first.
    [[nodiscard]] const std::vector<Journal>& history() const { return store_.history(); }
    void undo(const std::string& id);
    /// Everything, the newest first; each undo reports its own result.
    void undo_all();
    [[nodiscard]] bool anything_in_the_game() const;
    /// Bytes free on the vault's disk, or less than zero; `done` is called on the window's thread.
    void free_space(std::function<void(qint64)> done);

signals:
    void plan_ready();
    void history_changed();
    void pieces_changed();
    void delivered();
    /// A delivery found that another program changed this archive; nothing was written.
    void changed_by_others(const QString& archive);

private:
    void plan_and_reload();

    ProjectStore& store_;
    Jobs& jobs_;
    Messages& messages_;
    std::shared_ptr<const DeliveryPlan> plan_;
    std::uint64_t requests_ = 0;  ///< for plans
    bool undoing_all_ = false;
};

}  // namespace skivet::app

#include "app/models/delivery_model.h"

#include <QStorageInfo>

namespace skivet::app {

DeliveryModel::DeliveryModel(ProjectStore& store, QObject* parent)
    : QObject(parent), store_(store), jobs_(store.jobs()), messages_(store.messages()) {
    connect(&store_, &ProjectStore::history_changed, this, &DeliveryModel::history_changed);
    connect(&store_, &ProjectStore::pieces_changed, this, &DeliveryModel::pieces_changed);
    connect(&store_, &ProjectStore::stepped, this, [this](const StepEffect& effect) {
        if (effect.changes || effect.places) store_.tell_pieces_changed(), make_plan();
    });
}

void DeliveryModel::make_plan() {
    jobs_.run(
        this, tr("Planning"),
        [context = store_.context(), project = store_.shared()] {
            return std::make_shared<DeliveryPlan>(plan_delivery(*context, *project));
        },
        [this, request = ++requests_](std::shared_ptr<DeliveryPlan> plan) {
            if (request != requests_) return;  // an older one that took longer
            plan_ = std::move(plan);
            if (store_.change_if([this](Project& p) { return note_planned(p, *plan_); })) store_.tell_pieces_changed();
            emit plan_ready();
        });
}

void DeliveryModel::plan_and_reload() {
    make_plan();
    store_.tell_game_changed();
}

void DeliveryModel::deliver() {
    if (!plan_ || plan_->piece_count() + plan_->change_count() == 0) return;
    jobs_.run(
        Jobs::By::writer, this, tr("Delivering"),
        [context = store_.context(), plan = plan_, vault = store_.vault()] { return skivet::deliver(*context, *plan, vault, now()); },
        [this, plan = plan_](Delivered done) {
            if (const auto& error = done.error) {
                messages_.complain(*error);
                if (error->code == ErrorCode::stale)
                    emit changed_by_others(QString::fromStdString(error->where.empty() ? error->what : error->where.front()));
            }
            store_.change([&](Project& p) { note_delivered(p, *plan, done); });
            for (const auto g : done.groups) {
                const auto& group = plan->groups[g];
                messages_.say(tr("Delivered into %1: %2 bytes written, read back and the same")
                                  .arg(QString::fromStdString(group.source.filename().string()))
                                  .arg(group.plan.bytes_written()));
            }
            plan_ = nullptr;
            store_.set_history(std::move(done.history));
            store_.tell_pieces_changed();
            emit delivered();
            plan_and_reload();
        });
}

void DeliveryModel::let_wait(const std::vector<EntryChange>& changes) {
    std::vector<Error> errors;
    store_.change(tr("Rename or take out entries"), [&](Project& p) { errors = p.add(changes); });
    if (errors.size() == 1) messages_.complain(errors.front());
    else if (!errors.empty()) messages_.refuse(tr("%1 of them are on the bench. Put them away first.").arg(errors.size()));
    const auto waiting = changes.size() - errors.size();
    if (waiting == 0) return;
    if (!errors.empty()) return store_.tell_pieces_changed();
    const auto& first = changes.front();
    const auto name = QString::fromStdString(first.address.inner.back());
    messages_.tell(waiting > 1          ? tr("%1 entries go with the next delivery.").arg(waiting)
                   : first.path.empty() ? tr("%1 goes with the next delivery.").arg(name)
                                        : tr("%1 becomes %2 with the next delivery.").arg(name, QString::fromStdString(first.path)));
    store_.tell_pieces_changed();
}

void DeliveryModel::leave(const std::vector<EntryChange>& changes) {
    store_.change(tr("Leave changes of entries"), [&](Project& p) { p.drop(changes); });
    store_.tell_pieces_changed();
}

void DeliveryModel::set_destination(Destination destination) {
    if (this->destination() == destination) return;
    store_.change(tr("Where it is delivered"), [&](Project& p) { p.destination = destination; });
    make_plan();
}

void DeliveryModel::refresh() {
    store_.look_at_game(Jobs::By::workers, this, [this] { plan_and_reload(); });
}

void DeliveryModel::undo(const std::string& id) {
    jobs_.run(
        Jobs::By::writer, this, tr("Putting back"),
        [context = store_.context(), project = store_.shared(), vault = store_.vault(), id] {
            return undo_delivery(*context, *project, vault, id);
        },
        [this, id](Undone undone) {
            if (!undone.status) messages_.complain(undone.status.error());
            else messages_.say(tr("The old bytes are back."));
            store_.change([&](Project& p) { note_undone(p, undone); });
            // A card that is not there holds nothing else up.
            const bool goes_on = undone.status || undone.status.error().code == ErrorCode::missing;
            store_.set_history(std::move(undone.history));
            store_.tell_pieces_changed();
            if (undoing_all_ && goes_on)
                for (auto older = history().rbegin(); older != history().rend(); ++older)
                    if (older->id < id) return undo(std::string(older->id));
            undoing_all_ = false;
            plan_and_reload();
        });
}

void DeliveryModel::undo_all() {
    if (history().empty() || undoing_all_) return;
    undoing_all_ = true;
    undo(history().back().id);
}

bool DeliveryModel::anything_in_the_game() const {
    const auto& pieces = store_.project().pieces;
    return std::any_of(pieces.begin(), pieces.end(), [](const Piece& p) { return p.state == PieceState::delivered; });
}

void DeliveryModel::free_space(std::function<void(qint64)> done) {
    jobs_.run(
        this, {}, [folder = QString::fromStdString(store_.project().folder.string())] { return QStorageInfo(folder).bytesAvailable(); },
        [done = std::move(done)](qint64 bytes) { done(bytes); });
}

}  // namespace skivet::app

#include "app/models/kin_model.h"

namespace skivet::app {

KinModel::KinModel(ProjectStore& store, CatalogModel& catalog, BenchModel& bench, QObject* parent)
    : QObject(parent), store_(store), catalog_(catalog), bench_(bench) {
    connect(&store_, &ProjectStore::opened, this, [this] {
        asking_.cancel();
        asked_ = {};
        answered_.reset();
        looking_.cancel();
        left_.clear();
        emit left_found();
    });
    connect(&catalog_, &CatalogModel::analysis_changed, this, [this] {
        if (asked_.piece != 0) emit ready(asked_.piece);  // whoever shows it asks again
    });
}

const std::vector<KinFinding>* KinModel::findings(PieceId id) {
    const auto* piece = store_.project().piece(id);
    if (!piece) return nullptr;
    Asked now{id, catalog_.catalog(), {}, bench_.fits().sides()};
    for (const auto& one : bench_.pieces()) now.bench.push_back(one.id);
    if (asked_ != now) {
        asking_.cancel();
        asking_ = {};
        asked_ = now;
        store_.jobs().run(
            this, tr("Looking for what goes with it"),
            [context = store_.context(), project = store_.shared(), piece = *piece, now, cancel = asking_] {
                return kin_of(*context, *now.catalog, *project, piece, now.sides, cancel);
            },
            [this, now](Result<Kindred> found) {
                if (asked_ != now || !found) return;
                answered_ = now;
                kindred_ = std::move(*found);
                findings_ = findings_of(kindred_);
                emit ready(now.piece);
            });
    }
    return answered_ && answered_->piece == id ? &findings_ : nullptr;
}

void KinModel::accept(PieceId id, const KinFinding& finding) {
    if (finding.offer != KinFinding::Offer::scale_set) return bench_.take_kin(id, finding.kin);
    std::vector<Address> others;
    for (const auto& one : finding.kin) others.push_back(one.address);
    bench_.scale_set(others, kindred_.factor);
}

void KinModel::look_for_copies(std::vector<PieceId> pieces) {
    looking_.cancel();
    looking_ = {};
    const auto catalog = catalog_.catalog();
    if (!catalog || pieces.empty()) {
        left_.clear();
        return emit left_found();
    }
    store_.jobs().run(
        this, {},
        [context = store_.context(), project = store_.shared(), catalog, pieces = std::move(pieces), cancel = looking_] {
            return copies_left(*context, *catalog, *project, pieces, cancel);
        },
        [this, asked = looking_](Result<std::vector<LeftCopies>> found) {
            if (asked.canceled() || !found) return;  // asked anew
            left_ = std::move(*found);
            emit left_found();
        });
}

void KinModel::take_left() {
    std::vector<TakeWith> wanted;
    for (const auto& one : std::exchange(left_, {})) {
        const auto* piece = store_.project().piece(one.piece);
        if (!piece) continue;
        wanted.push_back({piece->address});
        for (const auto& copy : one.copies) wanted.back().followers.push_back(copy.address);
    }
    bench_.take_with(std::move(wanted), {});
}

}  // namespace skivet::app

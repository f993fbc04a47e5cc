#pragma once
// What of the game goes with a piece, looked for in the background; the newest answer is kept.
#include <QObject>

#include "app/models/bench_model.h"
#include "app/models/catalog_model.h"

namespace skivet::app {

class KinModel : public QObject {
    Q_OBJECT
public:
    KinModel(ProjectStore& store, CatalogModel& catalog, BenchModel& bench, QObject* parent = nullptr);

    /// What was found, of the piece as it was last looked at; null while nobody has looked, then `ready` follows.
    [[nodiscard]] const std::vector<KinFinding>* findings(PieceId id);
    /// Does what a finding offers.
    void accept(PieceId id, const KinFinding& finding);

    /// Looks for copies that stay as they are when these are delivered; `left_found` follows.
    void look_for_copies(std::vector<PieceId> pieces);
    [[nodiscard]] const std::vector<LeftCopies>& left() const { return left_; }
    /// Takes all of them to the bench, to follow.
    void take_left();

signals:
    void ready(PieceId id);
    void left_found();

private:
    /// What an answer depends on beside the piece.
    struct Asked {
        PieceId piece = 0;
        std::shared_ptr<const AnalyzedCatalog> catalog;
        std::vector<PieceId> bench;
        PieceSides sides;
        bool operator==(const Asked&) const = default;
    };

    ProjectStore& store_;
    CatalogModel& catalog_;
    BenchModel& bench_;
    Asked asked_;
    std::optional<Asked> answered_;
    Kindred kindred_;
    std::vector<KinFinding> findings_;
    CancelToken asking_;
    std::vector<LeftCopies> left_;
    CancelToken looking_;
};

}  // namespace skivet::app

#pragma once
// What became of one's work when the game was updated, or something else changed its files; noticed by itself, put in again on a word.
#include <QImage>
#include <QObject>

#include "app/models/project_store.h"
#include "workflow/update.h"

namespace skivet::app {

class UpdateModel : public QObject {
    Q_OBJECT
public:
    explicit UpdateModel(ProjectStore& store, QObject* parent = nullptr);

    /// Looks at files' sizes and times, and at the pieces only where one of them is another than at the last look. Cheap: called each time
    /// the window comes to the front.
    void look_if_changed();
    /// Looks at every piece.
    void look();
    /// What was found; null before the first look, and where all is as it should be.
    [[nodiscard]] std::shared_ptr<const GameUpdate> update() const { return update_; }
    /// Lets a piece go over what the game changed in the same place.
    void let_over(PieceId piece);
    /// Puts these pieces and all parcels in again.
    void put_in_again(std::vector<PieceId> chosen);

    /// The four textures of a piece as pictures: what it was made from, what was made of it, what the game has now, what would go in. Those
    /// that are not there are null.
    struct Pictures {
        QImage was, ours, game, becomes;
    };
    void pictures(QObject* asker, PieceId piece, std::function<void(Pictures)> then);

signals:
    /// There is another finding, or none any more.
    void changed();

private:
    using Stamps = std::map<std::filesystem::path, FileStamp>;

    ProjectStore& store_;
    Jobs& jobs_;
    Messages& messages_;
    std::shared_ptr<const GameUpdate> update_;
    Stamps stamps_;  ///< of the sources at the last look
    std::uint64_t requests_ = 0;
    bool writing_ = false;
};

}  // namespace skivet::app

#pragma once
// The person's projects, for the start page: read beside the window, with the picture of each.
#include <QImage>
#include <QObject>

#include "app/models/jobs.h"
#include "app/models/messages.h"
#include "workflow/games.h"

namespace skivet::app {

class GamesModel : public QObject {
    Q_OBJECT
public:
    struct Game {
        GameCard card;
        QImage picture;  ///< null: none was kept yet
    };
    GamesModel(GameList list, QObject* parent = nullptr);
    ~GamesModel() override;

    /// Reads everything anew; `changed` as soon as the list is known and again with each card.
    void refresh();
    /// The last opened first.
    [[nodiscard]] const std::vector<Game>& games() const { return games_; }
    /// False until the list was read once.
    [[nodiscard]] bool known() const { return known_; }
    [[nodiscard]] const GameList& list() const { return list_; }

    void note_opened(const std::filesystem::path& folder);
    void forget(const std::filesystem::path& folder);
    /// `done` gets what was wrong, if anything.
    void rename(const std::filesystem::path& folder, const QString& name, std::function<void(const Status&)> done);
    [[nodiscard]] Jobs& jobs() { return jobs_; }
    [[nodiscard]] Messages& messages() { return messages_; }

signals:
    void changed();

private:
    GameList list_;
    Jobs jobs_;
    Messages messages_;
    std::vector<Game> games_;
    bool known_ = false;
    std::uint64_t reading_ = 0;  ///< counts readings: late answers to older ones are dropped
};

}  // namespace skivet::app

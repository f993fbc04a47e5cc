#include "app/models/games_model.h"

#include "app/models/project_store.h"

namespace skivet::app {

GamesModel::GamesModel(GameList list, QObject* parent) : QObject(parent), list_(std::move(list)) {
    jobs_.quietly(Jobs::By::looker, [projects = list_.projects()] { clear_passing(projects); });
}

GamesModel::~GamesModel() { jobs_.finish(); }

void GamesModel::refresh() {
    const auto reading = ++reading_;
    struct Read {
        std::vector<KnownGame> known;
        std::optional<Error> aside;
    };
    jobs_.run(
        this, {},
        [list = list_] {
            Read out;
            out.known = list.all(&out.aside);
            return out;
        },
        [this, reading](const Read& read) {
            if (read.aside) messages_.complain(*read.aside);
            if (reading != reading_) return;
            std::vector<Game> games;
            for (const auto& known : read.known) {
                const auto before =
                    std::find_if(games_.begin(), games_.end(), [&](const Game& g) { return g.card.known.folder == known.folder; });
                if (before != games_.end()) games.push_back(std::move(*before));
                else games.emplace_back().card.name = known.folder.filename().string();
                games.back().card.known = known;
            }
            games_ = std::move(games);
            known_ = true;
            emit changed();
            for (const auto& known : read.known)
                jobs_.run(
                    this, {},
                    [known, cancel = jobs_.ending()] {
                        Game out;
                        if (auto card = look_at_game(known, cancel)) out.card = std::move(*card);
                        out.picture = QImage(QString::fromStdString(card_picture(known.folder).string()));
                        return out;
                    },
                    [this, reading](Game game) {
                        if (reading != reading_) return;
                        const auto place = std::find_if(games_.begin(), games_.end(),
                                                        [&](const Game& one) { return one.card.known.folder == game.card.known.folder; });
                        if (place == games_.end()) return;  // canceled
                        *place = std::move(game);
                        emit changed();
                    });
        });
}

void GamesModel::note_opened(const std::filesystem::path& folder) {
    jobs_.run(
        Jobs::By::writer, this, {}, [list = list_, folder, at = now()] { return list.opened(folder, at); },
        [this](const Status& noted) {
            if (!noted) messages_.complain(noted.error());
        });
}

void GamesModel::forget(const std::filesystem::path& folder) {
    jobs_.run(
        Jobs::By::writer, this, {}, [list = list_, folder] { return list.forget(folder); },
        [this](const Status& gone) {
            if (!gone) messages_.complain(gone.error());
            refresh();
        });
}

void GamesModel::rename(const std::filesystem::path& folder, const QString& name, std::function<void(const Status&)> done) {
    jobs_.run(
        Jobs::By::writer, this, {}, [folder, name = name.trimmed().toStdString()] { return rename_game(folder, name); },
        [this, done = std::move(done)](const Status& renamed) {
            done(renamed);
            refresh();
        });
}

}  // namespace skivet::app

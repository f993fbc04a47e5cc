#pragma once
// What one sees before a game is open: the person's games as cards, and the ways to another one.
#include <QAbstractListModel>
#include <QListView>
#include <QStackedWidget>

#include "app/models/games_model.h"
#include "app/widgets/button.h"

namespace skivet::app {

class StartPage : public QWidget {
    Q_OBJECT
public:
    /// Actions of the window that lead to another game; `demo` may be null.
    struct Ways {
        QAction *new_game, *open_project, *demo;
    };
    StartPage(GamesModel* games, const Ways& to, QWidget* parent = nullptr);
    [[nodiscard]] QListView* list() const { return list_; }
    [[nodiscard]] const std::vector<GamesModel::Game>& games() const { return games_->games(); }
    void say(const QString& what);

signals:
    void project_wanted(const std::filesystem::path& folder);
    void files_dropped(const std::vector<std::filesystem::path>& files);

protected:
    void showEvent(QShowEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;

private:
    [[nodiscard]] const GamesModel::Game* current() const;
    void refresh();
    void rename();

    GamesModel* games_;
    QAbstractListModel* rows_;
    QListView* list_;
    QStackedWidget* stack_;
    QLabel* wrong_;
    QAction *open_, *rename_, *forget_;
};

}  // namespace skivet::app

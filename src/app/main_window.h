#pragma once
// A window: the start page, or the project that is open in it.
#include <QMainWindow>
#include <QMenu>
#include <QProcess>
#include <QStackedWidget>

#include "app/dialogs.h"
#include "app/models/games_model.h"
#include "workflow/opening.h"

namespace skivet::app {

class StartPage;
class Workspace;
struct Models;

class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    explicit MainWindow(GamesModel& games);
    ~MainWindow() override;

    /// Opens a project in place of the one that is open here.
    void open(OpenWish wish);
    /// A project for files that belong to none.
    void open_in_passing(const std::vector<std::filesystem::path>& files);
    /// Leaves the project and shows the person's games. What was being computed ends; what was being written is written to its end.
    void show_start();
    /// A folder the demo game is made in, if it is not there, and opened.
    void open_demo();

    /// Null while the start page is shown.
    [[nodiscard]] Workspace* workspace() const { return workspace_; }
    [[nodiscard]] Models* models() const { return models_.get(); }
    [[nodiscard]] StartPage* start_page() const { return start_; }
    /// The folder of the project that is open, or being opened; empty: none.
    [[nodiscard]] const std::filesystem::path& project() const { return project_; }
    /// No larger than what the screen has free, and on it.
    void fit_to_screen();
    /// As large as it was when it was closed.
    void restore_size();

signals:
    /// Another project is open here, or none.
    void project_changed();

protected:
    void closeEvent(QCloseEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void make_actions();
    void make_menus();
    void follow_settings();
    void new_game();
    /// The project of a game's folder, which is looked for beside the window, or a new one.
    void open_game(const std::filesystem::path& folder, std::vector<std::string> play = {});
    void open_folder(const std::filesystem::path& folder);
    void leave();
    void let_go(std::shared_ptr<Models> models, const std::filesystem::path& project);
    void settings();
    void guide(QWidget* from);

    GamesModel& games_;
    QStackedWidget* stack_;
    StartPage* start_;
    Workspace* workspace_ = nullptr;
    std::shared_ptr<Models> models_;
    std::vector<std::pair<std::shared_ptr<Models>, std::filesystem::path>> leaving_;  ///< until what they write is written
    std::filesystem::path project_;
    QAction *new_, *open_, *demo_ = nullptr, *settings_, *guide_, *about_, *quit_, *menu_bar_;
    QMenu *game_menu_, *edit_menu_, *page_menu_, *go_menu_;
    QProcess press_;
    bool alt_alone_ = false;
};

}  // namespace skivet::app

#pragma once
// The windows of the process, and which of them answers what a start asks for.
#include <QPointer>

#include "app/instance.h"
#include "app/main_window.h"

namespace skivet::app {

class OpenWindows : public QObject {
    Q_OBJECT
public:
    explicit OpenWindows(GamesModel& games);
    ~OpenWindows() override;
    /// The project it names; the window whose game the files belong to; a project in passing for other files; otherwise what is open comes
    /// to the front. `first`: the process has just started, and the last project opens by itself.
    MainWindow* answer(const StartRequest& request, bool first = false);
    [[nodiscard]] std::vector<MainWindow*> all() const;
    /// For every new window, instead of what was left: empty, as it was.
    QSize size;

    /// The process ends as it should: its windows do not come back by themselves.
    void end();

private:
    void keep_session();
    /// Of several games that are open a person says which one files are for.
    void ask_which(const std::vector<MainWindow*>& open, const std::vector<std::filesystem::path>& files);
    MainWindow* add();
    /// One that shows the start page, or a new one.
    MainWindow* free_one();
    GamesModel& games_;
    std::vector<QPointer<MainWindow>> windows_;
};

}  // namespace skivet::app

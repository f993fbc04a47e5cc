#pragma once
#include <functional>
#include <QElapsedTimer>
#include <QImage>

#include "app/main_window.h"
#include "app/models/models.h"
#include "app/workspace.h"

namespace skivet::app {

/// Walks the demo through every page, makes an edit as a paint program would, and saves a PNG of each page into `folder`.
/// Calls `done` with the exit code.
class Tour : public QObject {
    Q_OBJECT
public:
    /// The window has the demo's project open.
    Tour(MainWindow* window, QString folder, std::function<void(int)> done);

private:
    void step();
    void shot(const QString& name);
    [[nodiscard]] bool found_with_pictures() const;
    /// Where a parcel of this title is written, and writing one of the horse.
    [[nodiscard]] QString parcel_file(const char* title) const;
    void make_parcel(const char* title, const QString& author);
    [[nodiscard]] std::size_t source_named(std::string_view name) const;
    /// The demo's textures called so, in catalog order.
    [[nodiscard]] std::vector<std::size_t> textures_called(std::string_view name) const;
    /// Goes on once `ready` holds; gives up after 60 s.
    void wait_for(std::function<bool()> ready);

    MainWindow* main_;
    Workspace* window_;
    Models* models_;
    QString folder_;
    std::function<void(int)> done_;
    std::function<bool()> ready_;
    QTimer poll_;
    QElapsedTimer waited_;
    QImage picture_;
    int step_ = 0;
    int settled_ = 0;
};

}  // namespace skivet::app

#pragma once
#include <QLabel>
#include <QMainWindow>
#include <QProgressBar>
#include <QStackedWidget>

#include "app/pages/bench_page.h"
#include "app/pages/catalog_page.h"
#include "app/pages/delivery_page.h"
#include "app/pages/fitting_page.h"
#include "app/pages/sources_page.h"
#include "app/widgets/route.h"

namespace skivet::app {

class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    explicit MainWindow(Session* session);
    void go_to(int station);
    /// No larger than what the screen has free, and on it.
    void fit_to_screen();
    [[nodiscard]] int station() const { return pages_->currentIndex(); }
    [[nodiscard]] SourcesPage* sources() const { return sources_; }
    [[nodiscard]] CatalogPage* catalog() const { return catalog_; }
    [[nodiscard]] BenchPage* bench() const { return bench_; }
    [[nodiscard]] FittingPage* fitting() const { return fitting_; }
    [[nodiscard]] DeliveryPage* delivery() const { return delivery_; }

protected:
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    void update_counts();
    void show_activity(const QString& what, quint64 done, quint64 total);
    void ask_about_project(const QString& why, bool good_copy);
    void open_finder();
    void open_settings();
    void open_log();

    Session* session_;
    Route* route_;
    QStackedWidget* pages_;
    SourcesPage* sources_;
    CatalogPage* catalog_;
    BenchPage* bench_;
    FittingPage* fitting_;
    DeliveryPage* delivery_;
    QLabel *project_, *activity_, *numbers_;
    QProgressBar* bar_;
    QAction* cancel_;
    QTimer notice_timer_;
    QString notice_;
};

}  // namespace skivet::app

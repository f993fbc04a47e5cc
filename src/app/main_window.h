#pragma once
#include <QLabel>
#include <QMainWindow>
#include <QProgressBar>
#include <QStackedWidget>
#include <QTimer>

#include "app/pages/page.h"
#include "app/widgets/route.h"

namespace skivet::app {

struct Models;

class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    explicit MainWindow(Models& models);
    void go_to(PageId page);
    /// Shows a piece on the fitting page.
    void bring_in(const std::filesystem::path& folder);
    void fit_piece(PieceId piece);
    /// No larger than what the screen has free, and on it.
    void fit_to_screen();
    [[nodiscard]] PageId current() const { return static_cast<PageId>(pages_->currentIndex()); }
    /// The page of a class.
    template <class P>
    [[nodiscard]] P* page() const {
        return pages_->findChild<P*>(QString(), Qt::FindDirectChildrenOnly);
    }

protected:
    void changeEvent(QEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    void update_counts();
    void show_activity(const QString& what, quint64 done, quint64 total);
    void ask_about_project(const QString& why, bool good_copy);
    void open_finder();
    void open_settings();
    void open_log();

    Models& models_;
    Route* route_;
    QStackedWidget* pages_;
    QLabel *project_, *activity_, *numbers_;
    QProgressBar* bar_;
    QAction* cancel_;
    QTimer notice_timer_;
    QString notice_;
};

}  // namespace skivet::app

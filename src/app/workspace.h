#pragma once
#include <QLabel>
#include <QProgressBar>
#include <QStackedWidget>
#include <QTimer>

#include "app/dialogs.h"
#include "app/pages/page.h"
#include "app/widgets/route.h"

namespace skivet::app {

struct Models;

/// Where one works on a game: the pages of its project, the route above them, and what is running below.
class Workspace : public QWidget {
    Q_OBJECT
public:
    explicit Workspace(Models& models, QWidget* parent = nullptr);
    void go_to(PageId page);
    void bring_in(const std::filesystem::path& folder);
    /// Shows a piece on the fitting page.
    void fit_piece(PieceId piece);
    void open_settings(SettingsPart part);
    /// What was dropped or handed over: parcels go to the parcels, a game's folder is gone through, all else becomes a source.
    void take_files(const std::vector<std::filesystem::path>& files);
    [[nodiscard]] PageId current() const { return static_cast<PageId>(pages_->currentIndex()); }
    /// The page of a class.
    template <class P>
    [[nodiscard]] P* page() const {
        return pages_->findChild<P*>(QString(), Qt::FindDirectChildrenOnly);
    }

    [[nodiscard]] Page* current_page() const { return static_cast<Page*>(pages_->currentWidget()); }
    [[nodiscard]] std::vector<Page*> all_pages() const;
    [[nodiscard]] Models& models() const { return models_; }

signals:
    void start_wanted();
    void page_changed();
    /// The project has another name, or is kept now.
    void named();

protected:
    void changeEvent(QEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    void update_counts();
    void show_activity(const QString& what, quint64 done, quint64 total);
    void ask_about_project(const QString& why, bool good_copy);
    void keep();
    void open_finder();
    void open_log();

    Models& models_;
    Route* route_;
    QStackedWidget* pages_;
    class HomeButton* home_;
    QLabel *activity_, *numbers_;
    QProgressBar* bar_;
    QAction* cancel_;
    QAction *keep_, *copy_;
    QWidget* copy_button_;
    QWidget* keep_button_;
    QTimer notice_timer_;
    QString notice_;
    bool passing_ = false;  ///< the project goes when it is closed, unless something is done in it
};

}  // namespace skivet::app

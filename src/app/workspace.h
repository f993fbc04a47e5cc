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
    /// Keeps where one is, for the next time; done by itself now and then, so that little is lost when the program ends in the middle.
    void keep_view();
    [[nodiscard]] PageId current() const { return static_cast<PageId>(pages_->currentIndex()); }
    /// The page of a class.
    template <class P>
    [[nodiscard]] P* page() const {
        return pages_->findChild<P*>(QString(), Qt::FindDirectChildrenOnly);
    }

    [[nodiscard]] Page* current_page() const { return static_cast<Page*>(pages_->currentWidget()); }
    [[nodiscard]] std::vector<Page*> all_pages() const;
    [[nodiscard]] Models& models() const { return models_; }

    /// How work that came to its end while another window was in front is told; the desktop's own way unless a test listens.
    std::function<void(const QString& title, const QString& text)> tell_desktop;

signals:
    void start_wanted();
    void guide_wanted();
    void page_changed();
    /// The project has another name, or is kept now.
    void named();

protected:
    void changeEvent(QEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    void update_counts();
    void restore_view();
    void show_hint();
    [[nodiscard]] QString idle_text() const;
    void show_activity(const QString& what, quint64 done, quint64 total);
    void tell_of_end(const QString& what, double seconds);
    void ask_about_project(const QString& why, bool good_copy);
    void keep();
    void open_finder();
    void open_log();

    Models& models_;
    Route* route_;
    QStackedWidget* pages_;
    class HomeButton* home_;
    class WorkPanel* work_;
    QFrame* hint_;
    QLabel* hint_text_;
    QLabel *activity_, *numbers_;
    QProgressBar* bar_;
    QAction* cancel_;
    QAction *keep_, *copy_;
    QWidget* copy_button_;
    QWidget* keep_button_;
    QTimer notice_timer_, view_timer_;
    QString notice_;
    bool passing_ = false;  ///< the project goes when it is closed, unless something is done in it
};

}  // namespace skivet::app

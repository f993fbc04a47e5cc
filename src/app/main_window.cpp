#include "app/main_window.h"

#include <QDragEnterEvent>
#include <QHBoxLayout>
#include <QMenuBar>
#include <QMessageBox>
#include <QMimeData>
#include <QPainter>
#include <QPushButton>
#include <QScreen>

#include "app/dialogs.h"
#include "app/models/models.h"
#include "app/pages/bench_page.h"
#include "app/pages/delivery_page.h"
#include "app/pages/fitting_page.h"
#include "app/pages/page_list.h"
#include "app/theme/theme.h"
#include "app/workshop/bring_window.h"
#include "app/workshop/found_window.h"

namespace skivet::app {
namespace {

class MarkLabel : public QWidget {
public:
    using QWidget::QWidget;
    [[nodiscard]] QSize sizeHint() const override { return {36, 36}; }

protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        draw_mark(p, QPointF(16, height() / 2.0), 13, colors().ink);
    }
};

}  // namespace

MainWindow::MainWindow(Models& models) : models_(models) {
    setWindowTitle(tr("Skivet"));
    resize(1280, 800);
    setMinimumSize(1024, 700);
    setAcceptDrops(true);
    auto* center = new QWidget;
    auto* all = new QVBoxLayout(center);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);

    auto* header = new QFrame;
    header->setObjectName(QStringLiteral("header"));
    header->setFixedHeight(68);
    auto* head = new QHBoxLayout(header);
    head->setContentsMargins(14, 0, 16, 0);
    auto* mark = new MarkLabel;
    mark->setFixedSize(36, 40);
    head->addWidget(mark);
    auto* names = new QVBoxLayout;
    names->setSpacing(0);
    names->addStretch();
    auto* product = make_label(tr("Skivet"), "subtitle");
    names->addWidget(product);
    project_ = make_label({}, "soft");
    names->addWidget(project_);
    names->addStretch();
    head->addLayout(names);
    QStringList titles;
    for (const auto& row : page_list()) titles << row.title_text();
    route_ = new Route(titles);
    head->addWidget(route_, 1);
    auto* play = new QAction(tr("Try in game"), this);
    play->setShortcut(Qt::Key_F5);
    play->setToolTip(tr("Start the game as it is now"));
    connect(play, &QAction::triggered, this, [this] {
        if (models_.store.project().play.command.empty()) show_settings(this, &models_.store, SettingsPart::game);
        else models_.game.start(models_.store.project());
    });
    addAction(play);
    head->addWidget(new Button(play, Button::Look::plain));
    auto* find = new QAction(tr("Find…"), this);
    find->setShortcut(QKeySequence(Qt::CTRL | Qt::Key_K));
    find->setToolTip(tr("Find a command by its name"));
    connect(find, &QAction::triggered, this, &MainWindow::open_finder);
    addAction(find);
    head->addWidget(new Button(find, Button::Look::plain));
    all->addWidget(header);

    pages_ = new QStackedWidget;
    for (const auto& row : page_list()) {
        auto* page = row.make(models_);
        pages_->addWidget(page);
        connect(page, &Page::go_to, this, &MainWindow::go_to);
        connect(page, &Page::fit_wanted, this, &MainWindow::fit_piece);
    }
    all->addWidget(pages_, 1);
    connect(page<DeliveryPage>(), &DeliveryPage::places_wanted, this,
            [this] { show_settings(this, &models_.store, SettingsPart::delivery); });
    connect(page<BenchPage>(), &BenchPage::bring_wanted, this, [this] {
        choose_folder(this, tr("A folder with pictures"), [this](const std::filesystem::path& folder) { bring_in(folder); });
    });

    auto* footer = new QFrame;
    footer->setObjectName(QStringLiteral("footer"));
    footer->setFixedHeight(28);
    auto* foot = new QHBoxLayout(footer);
    foot->setContentsMargins(16, 0, 8, 0);
    activity_ = make_label(tr("Nothing running"), "soft");
    activity_->setMinimumWidth(0);
    activity_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    bar_ = new QProgressBar;
    bar_->setTextVisible(false);
    bar_->setFixedSize(220, 6);
    bar_->setStyleSheet(QStringLiteral(
        "QProgressBar{background:#d5d5d5;border:none;border-radius:3px;} QProgressBar::chunk{background:#232323;border-radius:3px;}"));
    numbers_ = make_label({}, "soft");
    numbers_->setFont(number_font(12));
    cancel_ = new QAction(tr("Cancel"), this);
    cancel_->setShortcut(Qt::Key_Escape);
    cancel_->setToolTip(tr("Stop looking through the archives"));
    cancel_->setEnabled(false);
    connect(cancel_, &QAction::triggered, &models_.jobs, &Jobs::cancel);
    addAction(cancel_);
    auto* log = new QAction(tr("Log"), this);
    log->setShortcut(QKeySequence(Qt::CTRL | Qt::Key_L));
    connect(log, &QAction::triggered, this, &MainWindow::open_log);
    addAction(log);
    auto* cancel_button = new Button(cancel_, Button::Look::link);
    foot->addWidget(activity_, 1);
    foot->addWidget(bar_);
    foot->addWidget(numbers_);
    foot->addWidget(cancel_button);
    foot->addStretch();
    foot->addWidget(new Button(log, Button::Look::link));
    all->addWidget(footer);
    setCentralWidget(center);
    bar_->hide();
    cancel_button->hide();
    connect(&models_.jobs, &Jobs::activity, cancel_button, [this, cancel_button](const QString&, quint64, quint64 total) {
        cancel_->setEnabled(total > 0);  // otherwise the key is the page's
        cancel_button->setVisible(total > 0);
    });

    auto* settings = new QAction(tr("Settings…"), this);
    settings->setShortcut(QKeySequence(Qt::CTRL | Qt::Key_Comma));
    connect(settings, &QAction::triggered, this, &MainWindow::open_settings);
    addAction(settings);
    auto* quit = new QAction(tr("Quit"), this);
    quit->setShortcut(QKeySequence(Qt::CTRL | Qt::Key_Q));
    connect(quit, &QAction::triggered, this, &QWidget::close);
    addAction(quit);
    for (const auto& row : page_list()) {
        auto* go = new QAction(tr("Go to %1").arg(row.title_text()), this);
        go->setShortcut(QKeySequence(Qt::CTRL | Qt::Key(Qt::Key_1 + int(row.id))));
        connect(go, &QAction::triggered, this, [this, id = row.id] { go_to(id); });
        addAction(go);
    }

    connect(route_, &Route::chosen, this, [this](int station) { go_to(static_cast<PageId>(station)); });
    connect(&models_.sources, &SourcesModel::changed, this, &MainWindow::update_counts);
    connect(&models_.catalog, &CatalogModel::catalog_changed, this, &MainWindow::update_counts);
    connect(&models_.store, &ProjectStore::pieces_changed, this, &MainWindow::update_counts);
    connect(&models_.jobs, &Jobs::activity, this, &MainWindow::show_activity);
    notice_timer_.setSingleShot(true);
    connect(&notice_timer_, &QTimer::timeout, this, [this] {
        notice_.clear();
        show_activity({}, 0, 0);
    });
    connect(&models_.messages, &Messages::notice, this, [this](const QString& text) {
        notice_ = text;
        notice_timer_.start(8000);
        show_activity({}, 0, 0);
    });
    connect(&models_.store, &ProjectStore::refused, this, &MainWindow::ask_about_project);
    update_counts();
    go_to(PageId::sources);
}

void MainWindow::fit_to_screen() {
    const auto free = screen()->availableGeometry();
    const auto frame = frameGeometry().size() - geometry().size();  // nothing yet before the first show
    const QSize most(free.width() - std::max(frame.width(), 2), free.height() - std::max(frame.height(), 38));
    setMinimumSize(minimumSize().boundedTo(most));
    resize(size().boundedTo(most));
    move(free.topLeft() + QPoint(std::max(0, (free.width() - width()) / 2), std::max(0, (free.height() - height()) / 2 - 14)));
}

void MainWindow::ask_about_project(const QString& why, bool good_copy) {
    auto* box = new QMessageBox(QMessageBox::NoIcon, tr("The project cannot be opened"),
                                QStringLiteral("<b>%1</b>").arg(tr("The project cannot be opened")), QMessageBox::NoButton, this);
    box->setAttribute(Qt::WA_DeleteOnClose);
    box->setObjectName(QStringLiteral("project_refused"));
    box->setTextFormat(Qt::RichText);
    box->setInformativeText(
        why.toHtmlEscaped() + QStringLiteral("<br><br>") +
        (good_copy ? tr("There is a copy of it as it was when it was last opened. The file that cannot be read is kept beside it.")
                   : tr("Nothing was changed, and nothing is kept until a project is open.")));
    if (good_copy) {
        auto* use = box->addButton(tr("Use the last good copy"), QMessageBox::AcceptRole);
        connect(use, &QPushButton::clicked, &models_.store, &ProjectStore::open_last_good);
    }
    auto* quit = box->addButton(tr("Quit"), QMessageBox::RejectRole);
    connect(quit, &QPushButton::clicked, this, &QWidget::close);
    box->open();
}

void MainWindow::bring_in(const std::filesystem::path& folder) {
    (new BringWindow(this, &models_.catalog, &models_.bench, folder))->open();
}

void MainWindow::fit_piece(PieceId piece) {
    page<FittingPage>()->show_piece(piece);
    go_to(PageId::fitting);
}

void MainWindow::go_to(PageId page) {
    pages_->setCurrentIndex(int(page));
    route_->set_current(int(page));
    static_cast<Page*>(pages_->currentWidget())->entered();
}

void MainWindow::update_counts() {
    project_->setText(to_text(models_.store.project().name));
    for (const auto& row : page_list()) {
        const auto [count, warning] = row.count(models_);
        route_->set_count(int(row.id), count ? QString::number(count) : QString());
        route_->set_warning(int(row.id), warning);
    }
}

void MainWindow::show_activity(const QString& what, quint64 done, quint64 total) {
    const bool counted = total > 0 && models_.jobs.busy();
    bar_->setVisible(counted);
    numbers_->setVisible(counted);
    if (counted) {
        bar_->setRange(0, 1000);
        bar_->setValue(int(done * 1000 / total));
        numbers_->setText(tr("%1 of %2").arg(done).arg(total));
    }
    activity_->setText(!notice_.isEmpty() ? notice_
                       : what.isEmpty()   ? (models_.jobs.busy() ? activity_->text() : tr("Nothing running"))
                                          : what);
    activity_->setToolTip(activity_->text());
    activity_->setStyleSheet(notice_.isEmpty() ? QString() : QStringLiteral("color:#a63a50"));
}

void MainWindow::changeEvent(QEvent* event) {
    QMainWindow::changeEvent(event);
    // Back from somewhere else, where the game may have been updated.
    if (event->type() == QEvent::ActivationChange && isActiveWindow()) models_.update.look_if_changed();
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    event->acceptProposedAction();
    go_to(PageId::sources);
    const auto urls = event->mimeData()->urls();
    // A folder, before there is any source, is where the game is installed.
    if (models_.store.project().sources.empty() && urls.size() == 1 && QFileInfo(urls.front().toLocalFile()).isDir())
        return show_found(this, models_.sources.found(), urls.front().toLocalFile().toStdString());
    for (const auto& url : urls)
        if (url.isLocalFile()) models_.sources.add(url.toLocalFile().toStdString());
}

void MainWindow::open_finder() {
    QList<QAction*> all = actions();
    all += pages_->currentWidget()->actions();
    show_command_finder(this, all);
}

void MainWindow::open_settings() { show_settings(this, &models_.store); }
void MainWindow::open_log() { show_log(this, &models_.messages); }

}  // namespace skivet::app

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
#include "app/theme/theme.h"

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

MainWindow::MainWindow(Session* session) : session_(session) {
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
    route_ = new Route({tr("Sources"), tr("Catalog"), tr("Bench"), tr("Fitting"), tr("Delivery")});
    head->addWidget(route_, 1);
    auto* play = new QAction(tr("Try in game"), this);
    play->setShortcut(Qt::Key_F5);
    play->setToolTip(tr("Start the game as it is now"));
    connect(play, &QAction::triggered, session, &Session::try_in_game);
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
    pages_->addWidget(sources_ = new SourcesPage(session));
    pages_->addWidget(catalog_ = new CatalogPage(session));
    pages_->addWidget(bench_ = new BenchPage(session));
    pages_->addWidget(fitting_ = new FittingPage(session));
    pages_->addWidget(delivery_ = new DeliveryPage(session));
    all->addWidget(pages_, 1);

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
    connect(cancel_, &QAction::triggered, session, &Session::cancel);
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
    connect(session, &Session::activity, cancel_button, [this, cancel_button](const QString&, quint64, quint64 total) {
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
    const QString stations[] = {tr("Sources"), tr("Catalog"), tr("Bench"), tr("Fitting"), tr("Delivery")};
    for (int i = 0; i < 5; ++i) {
        auto* go = new QAction(tr("Go to %1").arg(stations[i]), this);
        go->setShortcut(QKeySequence(Qt::CTRL | (Qt::Key_1 + i)));
        connect(go, &QAction::triggered, this, [this, i] { go_to(i); });
        addAction(go);
    }

    for (auto* page : {static_cast<Page*>(sources_), static_cast<Page*>(catalog_), static_cast<Page*>(bench_), static_cast<Page*>(fitting_),
                       static_cast<Page*>(delivery_)})
        connect(page, &Page::go_to, this, &MainWindow::go_to);
    const auto fit_piece = [this](int piece) {
        fitting_->show_piece(piece);
        go_to(3);
    };
    connect(bench_, &BenchPage::fit_piece, this, fit_piece);
    connect(delivery_, &DeliveryPage::fit_piece, this, fit_piece);
    connect(route_, &Route::chosen, this, &MainWindow::go_to);
    for (auto signal :
         {&Session::sources_changed, &Session::catalog_changed, &Session::pieces_changed, &Session::history_changed, &Session::plan_ready})
        connect(session, signal, this, &MainWindow::update_counts);
    connect(session, &Session::activity, this, &MainWindow::show_activity);
    notice_timer_.setSingleShot(true);
    connect(&notice_timer_, &QTimer::timeout, this, [this] {
        notice_.clear();
        show_activity({}, 0, 0);
    });
    connect(session, &Session::notice, this, [this](const QString& text) {
        notice_ = text;
        notice_timer_.start(8000);
        show_activity({}, 0, 0);
    });
    connect(session, &Session::project_refused, this, &MainWindow::ask_about_project);
    update_counts();
    go_to(0);
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
        connect(use, &QPushButton::clicked, session_, &Session::open_last_good);
    }
    auto* quit = box->addButton(tr("Quit"), QMessageBox::RejectRole);
    connect(quit, &QPushButton::clicked, this, &QWidget::close);
    box->open();
}

void MainWindow::go_to(int station) {
    pages_->setCurrentIndex(station);
    route_->set_current(station);
    static_cast<Page*>(pages_->currentWidget())->entered();
}

void MainWindow::update_counts() {
    const auto stock = session_->stock();
    project_->setText(to_text(session_->project().name));
    const auto count = [](std::size_t n) { return n ? QString::number(n) : QString(); };
    std::size_t textures = 0, to_fit = 0, mends = 0, to_deliver = 0;
    for (const auto& item : stock->catalog.items) textures += item.is_texture() && item.effective;
    for (const auto& piece : session_->project().pieces) {
        to_fit += piece.state == PieceState::changed || piece.state == PieceState::needs_mend;
        mends += piece.state == PieceState::needs_mend;
        to_deliver += piece.state == PieceState::fits;
    }
    route_->set_count(0, count(stock->sources.size()));
    route_->set_count(1, count(textures));
    route_->set_count(2, count(session_->project().pieces.size()));
    route_->set_count(3, count(to_fit));
    route_->set_count(4, count(to_deliver));
    route_->set_warning(3, mends > 0);
    route_->set_warning(0, std::any_of(stock->sources.begin(), stock->sources.end(), [](const auto& s) { return s.error.has_value(); }));
}

void MainWindow::show_activity(const QString& what, quint64 done, quint64 total) {
    const bool counted = total > 0 && session_->busy();
    bar_->setVisible(counted);
    numbers_->setVisible(counted);
    if (counted) {
        bar_->setRange(0, 1000);
        bar_->setValue(int(done * 1000 / total));
        numbers_->setText(tr("%1 of %2").arg(done).arg(total));
    }
    activity_->setText(!notice_.isEmpty() ? notice_
                       : what.isEmpty()   ? (session_->busy() ? activity_->text() : tr("Nothing running"))
                                          : what);
    activity_->setToolTip(activity_->text());
    activity_->setStyleSheet(notice_.isEmpty() ? QString() : QStringLiteral("color:#a63a50"));
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    for (const auto& url : event->mimeData()->urls())
        if (url.isLocalFile()) session_->add_source(url.toLocalFile().toStdString());
    event->acceptProposedAction();
    go_to(0);
}

void MainWindow::open_finder() {
    QList<QAction*> all = actions();
    all += pages_->currentWidget()->actions();
    show_command_finder(this, all);
}

void MainWindow::open_settings() { show_settings(this, session_); }
void MainWindow::open_log() { show_log(this, session_); }

}  // namespace skivet::app

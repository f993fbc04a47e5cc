#include "app/main_window.h"

#include <QApplication>
#include <QCloseEvent>
#include <QJsonArray>
#include <QKeyEvent>
#include <QMenuBar>
#include <QMessageBox>
#include <QScreen>
#include <QTimer>

#include "app/guide_window.h"
#include "app/models/left_state.h"
#include "app/models/models.h"
#include "app/models/preferences.h"
#include "app/pages/page_list.h"
#include "app/start_page.h"
#include "app/theme/theme.h"
#include "app/widgets/actions.h"
#include "app/workspace.h"
#include "base/file_write.h"
#include "base/own_folders.h"
#include "container/sheet_folders.h"

namespace skivet::app {

namespace fs = std::filesystem;

namespace {

/// How the last window was left.
const QString main_group = QStringLiteral("main");
const QString size_name = QStringLiteral("size"), maximized_name = QStringLiteral("maximized");

/// Whether a window was opened from another, at whatever remove.
bool belongs_to(const QWidget* window, const QWidget* other) {
    while (window && window != other) window = window->parentWidget();
    return window != nullptr;
}

}  // namespace

MainWindow::MainWindow(GamesModel& games) : games_(games) {
    setWindowTitle(tr("Skivet"));
    resize(1280, 800);
    setMinimumSize(1024, 700);
    make_actions();
    stack_ = new QStackedWidget;
    start_ = new StartPage(&games_, {new_, open_, demo_});
    stack_->addWidget(start_);
    setCentralWidget(stack_);
    make_menus();
    connect(start_, &StartPage::project_wanted, this, [this](const fs::path& folder) { open({folder, {}, {}, {}}); });
    connect(start_, &StartPage::files_dropped, this, [this](const std::vector<fs::path>& files) {
        std::error_code code;
        if (files.size() != 1 || !fs::is_directory(files[0], code)) {
            if (!files.empty()) open_in_passing(files);
        } else if (const auto meant = project_at(files[0])) open({*meant, {}, {}, {}});
        else open_game(files[0]);
    });
    connect(&Preferences::the(), &Preferences::changed, this, &MainWindow::follow_settings);
    follow_settings();
    qApp->installEventFilter(this);
}

MainWindow::~MainWindow() {
    auto* workspace = workspace_;
    if (models_) leave();
    delete workspace;
    for (auto& [models, project] : leaving_) {
        models.reset();  // waits for what is being written
        (void)let_passing_go(project);
    }
}

void MainWindow::make_actions() {
    const auto action = [this](const char* id, const QString& text, const QKeySequence& key, const QString& tip,
                               std::function<void()> run) {
        return add_named_action(this, QStringLiteral("window/") + QLatin1String(id), text, key, tip, std::move(run));
    };
    new_ = action("new-game", tr("New game…"), QKeySequence::New, tr("Show where a game is installed; its project is made"),
                  [this] { new_game(); });
    open_ = action(
        "open-a-project", tr("A project's folder…"), QKeySequence::Open, tr("A project from another place or another computer"),
        [this] { choose_folder(this, "project", tr("A project's folder"), [this](const fs::path& folder) { open_folder(folder); }); });
    if (!program_beside("fair-press").empty())
        demo_ = action("demo", tr("Try the demo game"), {}, tr("A small made-up game to try everything on"), [this] { open_demo(); });
    settings_ = action("settings", tr("Settings…"), QKeySequence(Qt::CTRL | Qt::Key_Comma), tr("Look, keys, editors, where things go"),
                       [this] { settings(); });
    menu_bar_ = action("menu-bar", tr("Menu bar"), QKeySequence(Qt::CTRL | Qt::Key_M), tr("Without it Alt or F10 shows the menus"),
                       [] { Preferences::the().change([](Settings& s) { s.menu_bar = !s.menu_bar; }); });
    menu_bar_->setCheckable(true);
    guide_ =
        action("guide", tr("Guide"), QKeySequence::HelpContents, tr("How this is done, with pictures"), [this] { guide(focusWidget()); });
    about_ = action("about", tr("About Skivet"), {}, tr("Version and licenses"), [this] {
        auto* box = new QMessageBox(QMessageBox::NoIcon, tr("About Skivet"),
                                    QStringLiteral("<b>Skivet %1</b>").arg(QApplication::applicationVersion()), QMessageBox::Close, this);
        box->setAttribute(Qt::WA_DeleteOnClose);
        box->setObjectName(QStringLiteral("about"));
        box->setIconPixmap(mark_pixmap(48, devicePixelRatioF()));
        box->setInformativeText(
            tr("Finds textures inside game archives, takes them out, and puts edits back with nothing else changed.\n\n"
               "Free software under the MIT license. The letters are B612, under the SIL Open Font License."));
        box->open();
    });
    quit_ = action("quit", tr("Quit"), QKeySequence(Qt::CTRL | Qt::Key_Q), {}, [this] { close(); });
}

void MainWindow::make_menus() {
    // No letters are underlined: Alt with a letter shows a texture's channels.
    game_menu_ = menuBar()->addMenu(tr("Game"));
    edit_menu_ = menuBar()->addMenu(tr("Edit"));
    go_menu_ = menuBar()->addMenu(tr("Go"));
    page_menu_ = menuBar()->addMenu(tr("Start"));
    auto* help = menuBar()->addMenu(tr("Help"));
    help->addAction(guide_);
    help->addAction(about_);
    connect(game_menu_, &QMenu::aboutToShow, this, [this] {
        game_menu_->clear();
        const auto of_workspace = [this](const char* id) {
            if (workspace_)
                if (auto* action = workspace_->findChild<QAction*>(QLatin1String(id), Qt::FindDirectChildrenOnly))
                    game_menu_->addAction(action);
        };
        of_workspace("window/games");
        game_menu_->addAction(new_);
        game_menu_->addAction(open_);
        if (demo_) game_menu_->addAction(demo_);
        game_menu_->addSeparator();
        for (const char* id : {"window/save", "window/play"}) of_workspace(id);
        game_menu_->addSeparator();
        game_menu_->addAction(settings_);
        game_menu_->addAction(menu_bar_);
        game_menu_->addSeparator();
        game_menu_->addAction(quit_);
    });
    connect(edit_menu_, &QMenu::aboutToShow, this, [this] {
        edit_menu_->clear();
        if (!workspace_) return;
        for (const char* id : {"window/undo", "window/redo", "window/find-a-command"})
            edit_menu_->addAction(workspace_->findChild<QAction*>(QLatin1String(id), Qt::FindDirectChildrenOnly));
    });
    connect(go_menu_, &QMenu::aboutToShow, this, [this] {
        go_menu_->clear();
        if (!workspace_) return;
        for (auto* action : workspace_->actions())
            if (action->objectName().startsWith(QStringLiteral("window/page-"))) go_menu_->addAction(action);
        go_menu_->addSeparator();
        go_menu_->addAction(workspace_->findChild<QAction*>(QLatin1String("window/log"), Qt::FindDirectChildrenOnly));
    });
    connect(page_menu_, &QMenu::aboutToShow, this, [this] {
        page_menu_->clear();
        fill_menu(page_menu_, workspace_ ? workspace_->current_page()->actions() : start_->actions());
    });
}

void MainWindow::follow_settings() {
    const bool on = Preferences::the().settings().menu_bar;
    menu_bar_->setChecked(on);
    menuBar()->setVisible(on);
}

bool MainWindow::eventFilter(QObject* watched, QEvent* event) {
    // Whoever has the focus may keep keys for itself, so they are looked at before.
    const auto type = event->type();
    if (type == QEvent::MouseButtonPress) alt_alone_ = false;
    const bool key = type == QEvent::KeyPress || type == QEvent::KeyRelease || type == QEvent::ShortcutOverride;
    // In the windows of this one the key is the same.
    if (type == QEvent::KeyPress && watched->isWidgetType() && static_cast<QKeyEvent*>(event)->key() == Qt::Key_F1) {
        auto* active = QApplication::activeWindow();
        if (active && active != this && belongs_to(active, this)) {
            show_guide(active->focusWidget() ? active->focusWidget() : active);
            return true;
        }
    }
    if (!key || !isActiveWindow() || QApplication::activeModalWidget()) return QMainWindow::eventFilter(watched, event);
    const auto* pressed = static_cast<QKeyEvent*>(event);
    const bool hidden = !Preferences::the().settings().menu_bar;
    if (pressed->key() != Qt::Key_Alt) {
        alt_alone_ = false;
        if (type == QEvent::KeyPress && pressed->key() == Qt::Key_F10 && pressed->modifiers() == Qt::NoModifier) {
            menuBar()->setVisible(true);
            menuBar()->setFocus();
            menuBar()->setActiveAction(game_menu_->menuAction());
            return true;
        }
    } else if (type != QEvent::KeyRelease) {
        alt_alone_ = true;
    } else if (std::exchange(alt_alone_, false) && hidden) {
        // Pressed and let go with nothing between: the menus come, and go again.
        menuBar()->setVisible(!menuBar()->isVisible());
    }
    return QMainWindow::eventFilter(watched, event);
}

void MainWindow::guide(QWidget* from) {
    // What is under the menus may be another page than where the focus was.
    if (workspace_ && (!from || !workspace_->current_page()->isAncestorOf(from))) from = workspace_->current_page();
    show_guide(from ? from : this);
}

void MainWindow::settings() {
    if (workspace_) workspace_->open_settings(SettingsPart::look);
    else show_settings(this, &games_.jobs(), nullptr, SettingsPart::look);
}

void MainWindow::new_game() {
    choose_folder(this, "game", tr("The folder the game is installed in"), [this](const fs::path& folder) { open_game(folder); });
}

void MainWindow::open_game(const fs::path& folder, std::vector<std::string> play) {
    games_.jobs().run(
        this, {}, [projects = games_.list().projects(), folder] { return project_for_game(projects, folder); },
        [this, folder, play = std::move(play)](const fs::path& project) {
            open({project, folder, {}, play});
        });
}

void MainWindow::open_folder(const fs::path& folder) {
    if (const auto meant = project_at(folder)) return open({*meant, {}, {}, {}});
    const auto why = tr("There is no project in %1. With \"New game…\" one is made for a game's folder.").arg(to_text(folder));
    if (models_) models_->messages.refuse(why);
    else start_->say(why);
}

void MainWindow::open_demo() {
    if (press_.state() != QProcess::NotRunning) return;
    const auto place = user_data_folder() / "demo" / "Brindle Fair";
    const auto go = [this, place] {
        const auto stall = program_beside("fair-stall");
        std::vector<std::string> play;
        if (!stall.empty()) play = {stall.string(), place.string()};
        open_game(place, play);
    };
    std::error_code code;
    if (fs::exists(place / "load_order.txt", code)) return go();
    start_->say(tr("The demo game is being made…"));
    connect(&press_, &QProcess::finished, this, [this, go](int exit, QProcess::ExitStatus how) {
        press_.disconnect(this);
        start_->say({});
        if (how == QProcess::NormalExit && exit == 0) go();
        else start_->say(tr("The demo game cannot be made: %1").arg(QString::fromLocal8Bit(press_.readAllStandardError()).trimmed()));
    });
    make_folders(place.parent_path(), code);
    press_.start(to_text(program_beside("fair-press")), {to_text(place)});
}

void MainWindow::open(OpenWish wish) {
    if (models_) leave();
    project_ = wish.folder;
    start_->say({});
    models_ = std::make_shared<Models>();
    auto* models = models_.get();
    workspace_ = new Workspace(*models);
    stack_->addWidget(workspace_);
    stack_->setCurrentWidget(workspace_);
    connect(workspace_, &Workspace::start_wanted, this, &MainWindow::show_start);
    connect(workspace_, &Workspace::guide_wanted, this, [this] { guide(nullptr); });
    connect(workspace_, &Workspace::page_changed, this,
            [this] { page_menu_->setTitle(page_list()[std::size_t(workspace_->current())].title_text()); });
    page_menu_->setTitle(page_list()[0].title_text());
    connect(workspace_, &Workspace::named, this, [this, models] {
        const auto& project = models->store.project();
        setWindowTitle(to_text(project.name));
        if (!is_passing(project.folder)) games_.note_opened(project.folder);
    });
    models_->store.open(std::move(wish));
    emit project_changed();
}

void MainWindow::open_in_passing(const std::vector<fs::path>& files) {
    auto folder = make_passing(games_.list().projects(), files.front());
    if (!folder) return start_->say(to_text(folder.error().message()));
    open({*folder, {}, files, {}});
}

void MainWindow::leave() {
    auto models = std::exchange(models_, nullptr);
    const auto project = std::exchange(project_, {});
    workspace_->keep_view();
    models->card.keep_before_leaving();
    stack_->removeWidget(workspace_);
    // It may be what asked for this; its models live at least as long.
    auto* workspace = std::exchange(workspace_, nullptr);
    connect(workspace, &QObject::destroyed, [models] {});
    workspace->deleteLater();
    models->store.close();
    models->jobs.leave();
    let_go(std::move(models), project);
}

void MainWindow::let_go(std::shared_ptr<Models> models, const fs::path& project) {
    leaving_.emplace_back(models, project);
    auto* poll = new QTimer(this);
    poll->setInterval(50);
    connect(poll, &QTimer::timeout, this, [this, poll, raw = models.get()] {
        if (!raw->jobs.is_over()) return;
        poll->deleteLater();
        const auto found = std::find_if(leaving_.begin(), leaving_.end(), [&](const auto& one) { return one.first.get() == raw; });
        if (found == leaving_.end()) return;
        const auto place = found->second;
        leaving_.erase(found);
        games_.jobs().run(
            Jobs::By::writer, this, {}, [place] { return let_passing_go(place); },
            [this](bool) {
                if (!workspace_) games_.refresh();
            });
    });
    poll->start();
}

void MainWindow::show_start() {
    if (models_) leave();
    setWindowTitle(tr("Skivet"));
    page_menu_->setTitle(tr("Start"));
    stack_->setCurrentWidget(start_);
    games_.refresh();
    emit project_changed();
}

void MainWindow::fit_to_screen() {
    const auto free = screen()->availableGeometry();
    const auto frame = frameGeometry().size() - geometry().size();  // nothing yet before the first show
    const QSize most(free.width() - std::max(frame.width(), 8), free.height() - std::max(frame.height(), 38));
    setMinimumSize(minimumSize().boundedTo(most));
    resize(size().boundedTo(most));
    move(free.topLeft() + QPoint(std::max(0, (free.width() - width()) / 2), std::max(0, (free.height() - height()) / 2 - 14)));
}

void MainWindow::restore_size() {
    const auto& left = LeftState::the();
    if (const auto size = left.value(main_group, size_name).toArray(); size.size() == 2)
        resize(QSize(size[0].toInt(), size[1].toInt()).expandedTo(minimumSize()));
    fit_to_screen();
    if (left.value(main_group, maximized_name).toBool()) setWindowState(windowState() | Qt::WindowMaximized);
}

void MainWindow::closeEvent(QCloseEvent* event) {
    auto& left = LeftState::the();
    left.set(main_group, maximized_name, isMaximized());
    if (!isMaximized()) left.set(main_group, size_name, QJsonArray{width(), height()});
    if (workspace_) workspace_->keep_view();
    QMainWindow::closeEvent(event);
}

}  // namespace skivet::app

#include "app/open_windows.h"

#include <QJsonArray>
#include <QMessageBox>
#include <QPushButton>

#include "app/models/left_state.h"
#include "app/models/models.h"
#include "app/workspace.h"
#include "base/file_write.h"

namespace skivet::app {

namespace fs = std::filesystem;

namespace {

const QString session = QStringLiteral("session");

bool same(const fs::path& a, const fs::path& b) {
    std::error_code code;
    return fs::weakly_canonical(a, code) == fs::weakly_canonical(b, code);
}

void bring_to_front(MainWindow* window) {
    window->setWindowState(window->windowState() & ~Qt::WindowMinimized);
    window->show();
    window->raise();
    window->activateWindow();
}

}  // namespace

OpenWindows::OpenWindows(GamesModel& games) : games_(games) {}

void OpenWindows::keep_session() {
    QJsonArray open;
    for (const auto* window : all())
        if (!window->project().empty() && !is_passing(window->project())) open << QString::fromStdString(window->project().string());
    LeftState::the().set(session, QStringLiteral("open"), open);
}

void OpenWindows::end() { LeftState::the().set(session, QStringLiteral("runs"), false); }

OpenWindows::~OpenWindows() {
    for (auto* window : all()) delete window;
}

std::vector<MainWindow*> OpenWindows::all() const {
    std::vector<MainWindow*> out;
    for (const auto& window : windows_)
        if (window) out.push_back(window);
    return out;
}

MainWindow* OpenWindows::add() {
    auto* window = new MainWindow(games_);
    window->setAttribute(Qt::WA_DeleteOnClose);
    if (size.isValid()) window->resize(size);
    else window->restore_size();
    windows_.emplace_back(window);
    connect(window, &MainWindow::project_changed, this, &OpenWindows::keep_session);
    return window;
}

MainWindow* OpenWindows::free_one() {
    for (auto* window : all())
        if (!window->workspace()) return window;
    return add();
}

void OpenWindows::ask_which(const std::vector<MainWindow*>& open, const std::vector<std::filesystem::path>& files) {
    auto* box = new QMessageBox(QMessageBox::NoIcon, tr("Which game is it for?"),
                                QStringLiteral("<b>%1</b>").arg(tr("Which game is it for?")), QMessageBox::Cancel, open.back());
    box->setAttribute(Qt::WA_DeleteOnClose);
    box->setObjectName(QStringLiteral("which_game"));
    box->setTextFormat(Qt::RichText);
    box->setInformativeText(tr("%1 can be put into each of the games that are open.")
                                .arg(QString::fromStdString(files[0].filename().string()).toHtmlEscaped()));
    for (auto* one : open) {
        auto* button =
            box->addButton(QString::fromStdString(one->models()->store.project().name).replace('&', "&&"), QMessageBox::ActionRole);
        connect(button, &QPushButton::clicked, this, [window = QPointer<MainWindow>(one), files] {
            if (!window || !window->workspace()) return;
            bring_to_front(window);
            window->workspace()->take_files(files);
        });
    }
    box->open();
}

MainWindow* OpenWindows::answer(const StartRequest& request, bool first) {
    auto& left = LeftState::the();
    QJsonArray lost;  // what was open when an earlier process ended in the middle
    if (first) {
        if (left.value(session, QStringLiteral("runs")).toBool()) lost = left.value(session, QStringLiteral("open")).toArray();
        left.set(session, QStringLiteral("runs"), true);
    }
    auto folder = request.project;
    if (folder.empty() && !request.game.empty()) folder = project_for_game(games_.list().projects(), request.game);
    // A project's own file or folder, from the file manager.
    auto files = request.files;
    if (folder.empty() && files.size() == 1)
        if (const auto meant = project_at(files[0])) folder = *meant, files.clear();
    MainWindow* window = nullptr;
    if (!folder.empty()) {
        for (auto* one : all())
            if (!one->project().empty() && same(one->project(), folder)) window = one;
        if (window) window->workspace()->take_files(files);
        else (window = free_one())->open({folder, request.game, files, request.play});
    } else if (!files.empty()) {
        for (auto* one : all())
            if (one->models() && !one->models()->store.project().game.empty() && lies_in(files[0], one->models()->store.project().game))
                window = one;
        // A parcel is for the game one is working on.
        if (!window && is_parcel_file(files[0])) {
            std::vector<MainWindow*> open;
            for (auto* one : all())
                if (one->workspace()) open.push_back(one);
            if (open.size() > 1) {
                ask_which(open, files);
                bring_to_front(open.back());
                return open.back();
            }
            if (!open.empty()) window = open.front();
        }
        if (window) window->workspace()->take_files(files);
        else (window = free_one())->open_in_passing(files);
    } else {
        for (auto* one : all())
            if (!window || one->isActiveWindow()) window = one;
        if (!window) {
            window = add();
            for (const auto& one : lost)
                if (const auto place = project_at(one.toString().toStdString())) {
                    if (window->workspace()) window->show(), window = add();
                    window->open({*place, {}, {}, {}});
                }
            if (window->workspace()) return bring_to_front(window), window;
            const auto known = first ? games_.list().all() : std::vector<KnownGame>();
            if (!known.empty() && project_at(known.front().folder)) window->open({known.front().folder, {}, {}, {}});
            else window->show_start();
        }
    }
    bring_to_front(window);
    return window;
}

}  // namespace skivet::app

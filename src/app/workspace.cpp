#include "app/workspace.h"

#include <QApplication>
#include <QClipboard>
#include <QDragEnterEvent>
#include <QHBoxLayout>
#include <QMessageBox>
#include <QMimeData>
#include <QPushButton>

#include "app/desktop_notice.h"
#include "app/guide_window.h"
#include "app/models/left_state.h"
#include "app/models/models.h"
#include "app/models/preferences.h"
#include "app/pages/bench_page.h"
#include "app/pages/delivery_page.h"
#include "app/pages/fitting_page.h"
#include "app/pages/page_list.h"
#include "app/theme/theme.h"
#include "app/widgets/home_button.h"
#include "app/work_panel.h"
#include "app/workshop/bring_window.h"
#include "app/workshop/found_window.h"
#include "app/workshop/parcels_window.h"
#include "workflow/games.h"

namespace skivet::app {
Workspace::Workspace(Models& models, QWidget* parent) : QWidget(parent), models_(models) {
    resize(1280, 800);
    setAcceptDrops(true);
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);

    auto* header = new QFrame;
    header->setObjectName(QStringLiteral("header"));
    header->setFixedHeight(68);
    auto* head = new QHBoxLayout(header);
    head->setContentsMargins(14, 0, 16, 0);
    auto* start = add_named_action(this, QStringLiteral("window/games"), tr("All games"), QKeySequence(Qt::ALT | Qt::Key_Home),
                                   tr("Leave this project for another one"), [this] { emit start_wanted(); });
    home_ = new HomeButton;
    connect(home_, &QAbstractButton::clicked, start, &QAction::trigger);
    head->addWidget(home_);
    QStringList titles;
    for (const auto& row : page_list()) titles << row.title_text();
    route_ = new Route(titles);
    head->addWidget(route_, 1);
    keep_ = add_named_action(this, QStringLiteral("window/save"), tr("Keep this project"), QKeySequence::Save,
                             tr("It is here in passing, and goes when it is closed"), [this] { keep(); });
    keep_button_ = new Button(keep_, Button::Look::plain);
    head->addWidget(keep_button_);
    auto* play =
        add_named_action(this, QStringLiteral("window/play"), tr("Try in game"), Qt::Key_F5, tr("Start the game as it is now"), [this] {
            if (models_.store.project().play.command.empty()) open_settings(SettingsPart::game);
            else models_.game.start(models_.store.project());
        });
    head->addWidget(new Button(play, Button::Look::plain));
    auto* find = add_named_action(this, QStringLiteral("window/find-a-command"), tr("Find…"), QKeySequence(Qt::CTRL | Qt::Key_K),
                                  tr("Find a command by its name"), [this] { open_finder(); });
    head->addWidget(new Button(find, Button::Look::plain));
    all->addWidget(header);

    hint_ = new QFrame;
    hint_->setObjectName(QStringLiteral("hint"));
    auto* hint = new QHBoxLayout(hint_);
    hint->setContentsMargins(20, 4, 16, 4);
    hint_text_ = make_label({}, "strong", true);
    hint->addWidget(hint_text_, 1);
    auto* more = new Button(tr("Guide"), Button::Look::link);
    connect(more, &QPushButton::clicked, this, &Workspace::guide_wanted);
    hint->addWidget(more);
    auto* seen = new Button(tr("Got it"), Button::Look::link);
    seen->setObjectName(QStringLiteral("hint_seen"));
    connect(seen, &QPushButton::clicked, this, [this] {
        Preferences::the().change([&](Settings& s) { s.hints_seen.push_back(current_page()->id().toStdString()); });
        current_page()->entered();
    });
    hint->addWidget(seen);
    all->addWidget(hint_);
    connect(&Preferences::the(), &Preferences::changed, this, &Workspace::show_hint);

    pages_ = new QStackedWidget;
    for (const auto& row : page_list()) {
        auto* page = row.make(models_);
        set_help(page, qPrintable(page->id()));
        pages_->addWidget(page);
        connect(page, &Page::go_to, this, &Workspace::go_to);
        connect(page, &Page::fit_wanted, this, &Workspace::fit_piece);
    }
    all->addWidget(pages_, 1);
    connect(page<DeliveryPage>(), &DeliveryPage::places_wanted, this, [this] { open_settings(SettingsPart::delivery); });
    connect(page<BenchPage>(), &BenchPage::bring_wanted, this, [this] {
        choose_folder(this, "pictures", tr("A folder with pictures"), [this](const std::filesystem::path& folder) { bring_in(folder); });
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
    numbers_ = make_label({}, "soft");
    numbers_->setFont(number_font(12));
    cancel_ = add_named_action(this, QStringLiteral("window/cancel"), tr("Cancel"), Qt::Key_Escape, tr("Stop looking through the archives"),
                               [this] { models_.jobs.cancel(); });
    cancel_->setEnabled(false);
    auto* log = add_named_action(this, QStringLiteral("window/log"), tr("Log"), QKeySequence(Qt::CTRL | Qt::Key_L),
                                 tr("What was done, and what went wrong"), [this] { open_log(); });
    auto* cancel_button = new Button(cancel_, Button::Look::link);
    copy_ = add_named_action(this, QStringLiteral("window/copy-the-error"), tr("Copy"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_C),
                             tr("Copy what went wrong, for a question or a report"),
                             [this] { QApplication::clipboard()->setText(models_.messages.complaint()); });
    copy_button_ = new Button(copy_, Button::Look::link);
    copy_button_->hide();
    foot->addWidget(activity_, 1);
    foot->addWidget(copy_button_);
    foot->addWidget(bar_);
    foot->addWidget(numbers_);
    foot->addWidget(cancel_button);
    foot->addStretch();
    work_ = new WorkPanel(&models_.jobs, this);
    auto* running =
        add_named_action(this, QStringLiteral("window/running"), tr("Running"), QKeySequence(Qt::CTRL | Qt::Key_R),
                         tr("All that is being done: how far, how fast, how long; halt it or end it"), [this] { work_->toggle(); });
    foot->addWidget(new Button(running, Button::Look::link));
    foot->addWidget(new Button(log, Button::Look::link));
    all->addWidget(footer);
    bar_->hide();
    cancel_button->hide();
    connect(&models_.jobs, &Jobs::activity, cancel_button, [this, cancel_button](const QString&, quint64, quint64 total) {
        cancel_->setEnabled(total > 0);  // otherwise the key is the page's
        cancel_button->setVisible(total > 0);
    });

    auto* undo = add_named_action(this, QStringLiteral("window/undo"), tr("Undo"), QKeySequence(Qt::CTRL | Qt::Key_Z),
                                  tr("Take the last change of the project back; deliveries are undone in Delivery"),
                                  [this] { models_.store.undo(); });
    auto* redo = add_named_action(this, QStringLiteral("window/redo"), tr("Redo"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z),
                                  tr("Make the change again that was taken back"), [this] { models_.store.redo(); });
    const auto show_steps = [this, undo, redo] {
        const auto back = models_.store.undo_title(), again = models_.store.redo_title();
        undo->setText(back.isEmpty() ? tr("Undo") : tr("Undo: %1").arg(back));
        undo->setEnabled(!back.isEmpty());
        redo->setText(again.isEmpty() ? tr("Redo") : tr("Redo: %1").arg(again));
        redo->setEnabled(!again.isEmpty());
    };
    connect(&models_.store, &ProjectStore::steps_changed, this, show_steps);
    show_steps();
    for (const auto& row : page_list())
        add_named_action(this, QStringLiteral("window/page-%1").arg(int(row.id) + 1), tr("Go to %1").arg(row.title_text()),
                         QKeySequence(Qt::CTRL | Qt::Key(Qt::Key_1 + int(row.id))), {}, [this, id = row.id] { go_to(id); });

    connect(route_, &Route::chosen, this, [this](int station) { go_to(static_cast<PageId>(station)); });
    connect(&models_.sources, &SourcesModel::changed, this, &Workspace::update_counts);
    connect(&models_.catalog, &CatalogModel::catalog_changed, this, &Workspace::update_counts);
    connect(&models_.store, &ProjectStore::pieces_changed, this, &Workspace::update_counts);
    connect(&models_.jobs, &Jobs::activity, this, &Workspace::show_activity);
    connect(&models_.jobs, &Jobs::work_ended, this, &Workspace::tell_of_end);
    connect(&models_.jobs, &Jobs::memory_failed, this, [this](const QString& what) {
        models_.messages.complain({ErrorCode::limit,
                                   tr("There is not enough memory for this").toStdString(),
                                   {what.toStdString()},
                                   std::nullopt,
                                   tr("Close other programs, or do it in smaller parts").toStdString()});
    });
    tell_desktop = show_on_desktop;
    connect(&view_timer_, &QTimer::timeout, this, &Workspace::keep_view);
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
    connect(&models_.store, &ProjectStore::opened, this, [this] {
        passing_ = is_passing(models_.store.project().folder);
        update_counts();
        restore_view();
        view_timer_.start(3000);
        emit named();
    });
    connect(&models_.store, &ProjectStore::refused, this, &Workspace::ask_about_project);
    update_counts();
    go_to(PageId::sources);
}

void Workspace::open_settings(SettingsPart part) {
    show_settings(window(), &models_.jobs, models_.store.is_open() ? &models_.store : nullptr, part);
}

std::vector<Page*> Workspace::all_pages() const {
    std::vector<Page*> out;
    for (int i = 0; i < pages_->count(); ++i) out.push_back(static_cast<Page*>(pages_->widget(i)));
    return out;
}

void Workspace::show_hint() {
    const auto& seen = Preferences::the().settings().hints_seen;
    hint_text_->setText(page_list()[std::size_t(current())].hint_text());
    hint_->setVisible(std::find(seen.begin(), seen.end(), current_page()->id().toStdString()) == seen.end());
}

void Workspace::keep_view() {
    if (!models_.store.is_open() || passing_) return;
    QJsonObject view{{QStringLiteral("page"), int(current())}};
    for (const auto* page : all_pages()) view.insert(page->id(), page->view());
    LeftState::the().set(QStringLiteral("views"), to_text(models_.store.project().folder), view);
}

void Workspace::restore_view() {
    const auto view = LeftState::the().value(QStringLiteral("views"), to_text(models_.store.project().folder)).toObject();
    if (view.isEmpty()) return;
    for (auto* page : all_pages())
        if (const auto one = view.value(page->id()).toObject(); !one.isEmpty()) page->restore(one);
    if (const int page = view.value(QStringLiteral("page")).toInt(-1); page >= 0 && page < pages_->count())
        go_to(static_cast<PageId>(page));
}

void Workspace::keep() {
    const auto folder = models_.store.project().folder;
    if (!passing_) return models_.messages.tell(tr("Everything is kept as you work; there is nothing to save."));
    models_.jobs.run(
        Jobs::By::writer, this, {}, [folder] { return keep_passing(folder); },
        [this](const Status& kept) {
            if (!kept) return models_.messages.complain(kept.error());
            passing_ = false;
            models_.messages.tell(tr("The project stays, and is among your games from now on."));
            update_counts();
            emit named();
        });
}

void Workspace::ask_about_project(const QString& why, bool good_copy) {
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
    auto* leave = box->addButton(tr("To all games"), QMessageBox::RejectRole);
    connect(leave, &QPushButton::clicked, this, &Workspace::start_wanted);
    box->open();
}

void Workspace::bring_in(const std::filesystem::path& folder) {
    (new BringWindow(this, &models_.sources, &models_.catalog, &models_.bench, folder))->open();
}

void Workspace::fit_piece(PieceId piece) {
    page<FittingPage>()->show_piece(piece);
    go_to(PageId::fitting);
}

void Workspace::go_to(PageId page) {
    pages_->setCurrentIndex(int(page));
    route_->set_current(int(page));
    show_hint();
    current_page()->entered();
    emit page_changed();
}

void Workspace::update_counts() {
    const auto& project = models_.store.project();
    home_->set_project(to_text(project.name), passing_ ? tr("in passing") : tr("All games"));
    keep_->setText(passing_ ? tr("Keep this project") : tr("Save"));
    keep_->setToolTip(passing_ ? tr("It is here in passing, and goes when it is closed") : tr("Everything is kept as you work"));
    keep_button_->setVisible(passing_);
    for (const auto& row : page_list()) {
        const auto [count, warning] = row.count(models_);
        route_->set_count(int(row.id), count ? QLocale().toString(qulonglong(count)) : QString());
        route_->set_warning(int(row.id), warning);
    }
}

QString Workspace::idle_text() const {
    for (const auto& work : models_.jobs.work())
        if (work.paused) return tr("Halted: %1").arg(work.what);
    return tr("Nothing running");
}

void Workspace::show_activity(const QString& what, quint64 done, quint64 total) {
    const bool counted = total > 0 && models_.jobs.busy();
    bar_->setVisible(counted);
    numbers_->setVisible(counted);
    if (counted) {
        bar_->setRange(0, 1000);
        bar_->setValue(int(done * 1000 / total));
        numbers_->setText(tr("%L1 of %L2").arg(done).arg(total));
    }
    activity_->setText(!notice_.isEmpty() ? notice_ : !what.isEmpty() ? what : models_.jobs.busy() ? activity_->text() : idle_text());
    activity_->setToolTip(activity_->text());
    const bool complaint = !notice_.isEmpty() && notice_ == models_.messages.complaint();
    copy_button_->setVisible(complaint);
    set_wrong(activity_, complaint);
    set_news(activity_, !notice_.isEmpty() && !complaint);
}

void Workspace::tell_of_end(const QString& what, double seconds) {
    constexpr double worth_it = 8;  // shorter work is waited for
    if (seconds < worth_it || isActiveWindow() || QApplication::activeWindow()) return;
    const auto& wrong = models_.messages.error();
    tell_desktop(wrong.isEmpty() ? tr("%1: done").arg(what) : tr("%1: not done").arg(what),
                 wrong.isEmpty() ? tr("%1, in %2").arg(to_text(models_.store.project().name), duration_text(seconds)) : wrong);
    QApplication::alert(window());
}

void Workspace::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    // Back from somewhere else, where the game may have been updated.
    if (event->type() == QEvent::ActivationChange && isActiveWindow()) models_.update.look_if_changed();
}

void Workspace::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls() && !event->source()) event->acceptProposedAction();
}

void Workspace::dropEvent(QDropEvent* event) {
    event->acceptProposedAction();
    take_files(local_files(*event->mimeData()));
}

void Workspace::take_files(const std::vector<std::filesystem::path>& files) {
    if (files.empty()) return;
    go_to(PageId::sources);
    std::error_code code;
    // A folder, before there is any source, is where the game is installed.
    if (models_.store.project().sources.empty() && files.size() == 1 && std::filesystem::is_directory(files[0], code))
        return show_found(this, models_.sources.found(), files[0]);
    for (const auto& file : files) {
        if (is_parcel_file(file)) {
            auto* parcels = new ParcelsWindow(this, &models_.parcels);
            parcels->show();
            parcels->bring(file);
        } else models_.sources.add(file);
    }
}

void Workspace::open_finder() {
    QList<QAction*> all = actions();
    if (window() != this) all += window()->actions();
    all += pages_->currentWidget()->actions();
    show_command_finder(this, all);
}

void Workspace::open_log() { show_log(this, &models_.messages); }

}  // namespace skivet::app

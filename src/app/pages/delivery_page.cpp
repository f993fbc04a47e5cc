#include "app/pages/delivery_page.h"

#include <QDateTime>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QMessageBox>
#include <QPainter>

#include "app/language.h"
#include "app/theme/theme.h"
#include "app/widgets/byte_map.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/game_log.h"
#include "app/workshop/parcels_window.h"
#include "app/workshop/update_window.h"

namespace skivet::app {
namespace {

/// Of one archive; nobody reads more, and thousands of lines would hold the window up.
constexpr std::size_t most_lines = 100;

QString way_text(Way way) {
    switch (way) {
        case Way::in_place: return QObject::tr("in place");
        case Way::append: return QObject::tr("append");
        case Way::rebuild: return QObject::tr("new file");
        case Way::create: return QObject::tr("new file");
        case Way::remove: return QObject::tr("taken away");
        default: return QObject::tr("nothing");
    }
}

}  // namespace

DeliveryPage::DeliveryPage(DeliveryModel* model, KinModel* kin, ParcelModel* parcels, UpdateModel* update, GameProcess* game,
                           QWidget* parent)
    : Page("delivery", parent), model_(model), kin_(kin), parcels_(parcels), update_(update) {
    deliver_ = add_action("deliver", tr("Deliver"), QKeySequence(Qt::CTRL | Qt::Key_Return),
                          tr("Write into the game, read it back and compare"), [this] {
                              deliver_->setEnabled(false);
                              model_->deliver();
                          });
    undo_all_ = add_action("put-everything-back", tr("Put everything back"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Backspace),
                           tr("Undo every delivery, newest first; asks before"), [this] { ask_to_undo_all(); });
    auto* undo_last = add_action("undo-the-newest", tr("Undo the newest"), QKeySequence(Qt::CTRL | Qt::Key_Backspace),
                                 tr("Put back what the newest delivery overwrote"), [this] {
                                     if (!model_->history().empty()) model_->undo(model_->history().back().id);
                                 });
    (void)undo_last;
    auto* make = add_action("as-a-parcel", tr("As a parcel…"), Qt::Key_M,
                            tr("One file with what is edited, for other people; nothing of the game goes in"), [this] {
                                if (parcels_) (new MakeParcelWindow(this, parcels_))->show();
                            });

    auto* left = make_panel();
    auto* left_box = new QVBoxLayout(left);
    left_box->setContentsMargins(12, 12, 12, 10);
    auto* head = new QHBoxLayout;
    head->addWidget(make_label(tr("WHAT WILL BE WRITTEN"), "heading"));
    head->addStretch();
    state_ = make_label({}, "soft");
    head->addWidget(state_);
    left_box->addLayout(head);
    auto* ways = new FlowRow;
    const struct {
        const char* id;
        QString text, tip;
        Qt::Key key;
    } destinations[] = {{"into-archives", tr("Into the archives"), tr("The entries themselves are replaced"), Qt::Key_I},
                        {"beside-the-game", tr("Beside the game"),
                         tr("Loose files in the game's override folder; its archives stay as they are"), Qt::Key_O},
                        {"patch-archives", tr("As patch archives"),
                         tr("A new archive with the changed entries alone, for games in which later archives win"), Qt::Key_P},
                        {"onto-a-card", tr("Onto a card"), tr("Files for a card or device, in the layout of the settings"), Qt::Key_D}};
    for (int i = 0; i < 4; ++i) {
        destinations_[i] = add_action(destinations[i].id, destinations[i].text, destinations[i].key, destinations[i].tip, [this, i] {
            model_->set_destination(static_cast<Destination>(i));
            show_plan();
        });
        destinations_[i]->setCheckable(true);
        ways->addWidget(new Button(destinations_[i], Button::Look::toggle));
    }
    ways->addStretch();
    left_box->addLayout(ways);
    auto* where_row = new QHBoxLayout;
    where_text_ = make_elided_label("soft");
    where_row->addWidget(where_text_, 1);
    auto* change = add_action("change-where", tr("Change where…"), Qt::Key_W,
                              tr("Folders, names and layouts of what is delivered beside the archives"), [this] { emit places_wanted(); });
    change_ = new Button(change, Button::Look::link);
    change_->setObjectName(QStringLiteral("change_places"));
    where_row->addWidget(change_);
    where_row->addWidget(new Button(make, Button::Look::link));
    left_box->addLayout(where_row);
    changed_ = make_card();
    auto* changed_box = new QHBoxLayout(changed_);
    changed_box->setContentsMargins(16, 10, 16, 10);
    changed_text_ = make_label({}, "warning", true);
    changed_box->addWidget(changed_text_, 1);
    auto* look =
        add_action("look-again", tr("Look again"), Qt::Key_L, tr("Open the game's archives anew and plan for what they are now"), [this] {
            changed_->hide();
            model_->refresh();
        });
    changed_box->addWidget(new Button(look, Button::Look::plain));
    changed_->hide();
    left_box->addWidget(changed_);
    left_box->addWidget(updated_ = make_update_card());
    copies_ = make_card();
    auto* copies_row = new QHBoxLayout(copies_);
    copies_row->setContentsMargins(16, 10, 16, 10);
    auto* copies_box = new QVBoxLayout;
    copies_title_ = make_label({}, "strong");
    copies_text_ = make_label({}, "soft", true);
    copies_box->addWidget(copies_title_);
    copies_box->addWidget(copies_text_);
    copies_row->addLayout(copies_box, 1);
    auto* follow =
        add_action("let-them-follow", tr("Let them follow"), Qt::Key_T, tr("Copies of what is delivered get the same edit"), [this] {
            copies_->hide();
            if (kin_) kin_->take_left();
        });
    auto* follow_button = new Button(follow, Button::Look::plain);
    follow_button->setObjectName(QStringLiteral("copies_left"));
    copies_row->addWidget(follow_button);
    copies_->hide();
    left_box->addWidget(copies_);
    cards_ = add_scrolling_column(left_box);

    auto* right = make_panel();
    right->setMinimumWidth(360);
    right->setMaximumWidth(460);
    auto* box = new QVBoxLayout(right);
    box->setContentsMargins(16, 12, 16, 10);
    box->addWidget(make_label(tr("SAFETY"), "heading"));
    auto* facts = new QFormLayout;
    facts->setHorizontalSpacing(18);
    facts->setVerticalSpacing(6);
    vault_ = make_label({}, "value", true);
    free_ = make_label({}, "value", true);
    lock_ = make_label(tr("everything is read back and compared"), "value", true);
    facts->addRow(make_label(tr("Vault keeps"), "soft"), vault_);
    facts->addRow(make_label(tr("Free"), "soft"), free_);
    facts->addRow(make_label(tr("After writing"), "soft"), lock_);
    box->addLayout(facts);
    box->addSpacing(14);
    box->addWidget(make_label(tr("HISTORY"), "heading"));
    history_ = add_scrolling_column(box);
    auto* bottom = new FlowRow;
    bottom->addWidget(new Button(undo_all_, Button::Look::plain));
    box->addLayout(bottom);
    auto* primary = new FlowRow;
    primary->addStretch();
    auto* deliver_button = new Button(deliver_, Button::Look::primary);
    deliver_button->setObjectName(QStringLiteral("deliver"));
    primary->addWidget(deliver_button);
    box->addLayout(primary);

    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(16, 16, 16, 16);
    all->setSpacing(16);
    auto* columns = new QHBoxLayout;
    columns->setSpacing(16);
    columns->addWidget(left, 2);
    columns->addWidget(right, 1);
    all->addLayout(columns, 1);
    if (game) all->addWidget(new GameLog(game));

    connect(model, &DeliveryModel::plan_ready, this, &DeliveryPage::show_plan);
    if (kin_) connect(kin_, &KinModel::left_found, this, &DeliveryPage::show_copies);
    connect(model, &DeliveryModel::plan_ready, this, [this] {
        if (!kin_) return;
        std::vector<PieceId> ids;
        for (const auto& group : model_->plan()->groups)
            for (const auto& piece : group.pieces) ids.push_back(piece.id);
        kin_->look_for_copies(std::move(ids));
    });
    connect(model, &DeliveryModel::changed_by_others, this, [this](const QString& archive) {
        changed_text_->setText(
            tr("%1 was changed by another program since it was planned. Nothing was written, and your pieces are still here.")
                .arg(archive));
        changed_->show();
        deliver_->setEnabled(true);
    });
    connect(model, &DeliveryModel::history_changed, this, &DeliveryPage::show_history);
    connect(model, &DeliveryModel::pieces_changed, this, [this] {
        if (isVisible()) model_->make_plan();
    });
    show_plan();
    show_history();
}

QFrame* DeliveryPage::make_update_card() {
    auto* card = make_card();
    auto* row = new QHBoxLayout(card);
    row->setContentsMargins(16, 10, 16, 10);
    auto* box = new QVBoxLayout;
    box->addWidget(make_label(tr("The game changed"), "strong"));
    update_text_ = make_label({}, "soft", true);
    box->addWidget(update_text_);
    row->addLayout(box, 1);
    auto* look = add_action("see-what-became-of-it", tr("See what became of it"), Qt::Key_U,
                            tr("Your pieces and parcels after an update of the game, and putting them in again"), [this] {
                                if (update_ && update_->update()) (new UpdateWindow(this, update_))->show();
                            });
    auto* button = new Button(look, Button::Look::plain);
    button->setObjectName(QStringLiteral("see_update"));
    row->addWidget(button);
    card->hide();
    if (update_) connect(update_, &UpdateModel::changed, this, &DeliveryPage::show_update);
    return card;
}

void DeliveryPage::show_update() {
    const auto update = update_->update();
    updated_->setVisible(update != nullptr);
    show_plan();
    if (!update) return;
    const auto can = std::count_if(update->pieces.begin(), update->pieces.end(), [](const UpdatedPiece& p) { return goes_in(p.how); });
    const auto open = std::ptrdiff_t(update->pieces.size()) - can;
    QStringList parts;
    if (can > 0) parts << (can == 1 ? tr("1 piece can go in again") : tr("%1 pieces can go in again").arg(can));
    if (open > 0) parts << (open == 1 ? tr("1 waits for you to decide") : tr("%1 wait for you to decide").arg(open));
    if (!update->parcels.empty())
        parts << (update->parcels.size() == 1 ? tr("1 parcel is out") : tr("%1 parcels are out").arg(update->parcels.size()));
    update_text_->setText(parts.join(QStringLiteral(" · ")));
}

void DeliveryPage::entered() {
    model_->make_plan();
    setFocus();
}

void DeliveryPage::show_plan() {
    for (int i = 0; i < 4; ++i) destinations_[i]->setChecked(int(model_->destination()) == i);
    clear_column(cards_);
    const auto plan = model_->plan();
    change_->setVisible(model_->destination() != Destination::into_archives);
    where_text_->setText(!plan || plan->where.empty() ? tr("The entries themselves are replaced") : to_text(plan->where));
    std::uint64_t kept = 0;
    if (plan)
        for (const auto& group : plan->groups) {
            auto* card = make_card();
            auto* box = new QVBoxLayout(card);
            box->setContentsMargins(16, 12, 16, 12);
            auto* head = new QHBoxLayout;
            head->addWidget(make_label(to_text(group.source.filename()), "subtitle"));
            head->addStretch();
            std::vector<std::pair<quint64, quint64>> ranges;
            quint64 size = group.archive_size, end = 0;
            Way way = Way::nothing;
            for (const auto& file : group.plan.files) {
                if (group.plan.files.size() > 1) size = std::max<quint64>(size, file.new_size);
                way = std::max(way, file.way);
                end = std::max(end, quint64(file.new_size));
                size = std::max<quint64>(size, file.expected.size);
                for (const auto& [at, bytes] : written_ranges(file)) ranges.emplace_back(at, bytes);
                kept += kept_bytes(file);
            }
            auto* way_label = make_label(way_text(way), "soft");
            head->addWidget(way_label);
            box->addLayout(head);
            if (group.error) {
                box->addWidget(make_label(to_text(group.error->message()), "warning", true));
            } else if (group.plan.empty()) {
                box->addWidget(make_label(tr("The game has these bytes already; nothing is written."), "soft", true));
            } else if (std::all_of(group.plan.files.begin(), group.plan.files.end(), [](const auto& f) { return f.way == Way::create; })) {
                add_new_files(box, group);
            } else {
                const auto bytes = to_text(grouped(group.plan.bytes_written())), of = to_text(human_bytes(size));
                box->addWidget(make_label(ranges.size() == 1 ? tr("%1 bytes in one place of %2").arg(bytes, of)
                                                             : tr("%1 bytes in %L2 places of %3").arg(bytes).arg(ranges.size()).arg(of),
                                          "soft"));
                box->addWidget(new WriteStrip(std::max(size, end), ranges));
                for (const auto& note : group.notes) box->addWidget(make_label(to_text(note), "soft", true));
            }
            for (const auto& piece : std::span(group.pieces).first(std::min(group.pieces.size(), most_lines))) {
                auto* line = new QHBoxLayout;
                QStringList steps;
                for (const auto& step : piece.inner) steps << to_text(step);
                line->addWidget(make_label(steps.join(QStringLiteral(" ▸ ")), "value"));
                line->addStretch();
                line->addWidget(make_label(!piece.like.empty()     ? tr("a variant of %1").arg(to_text(piece.like))
                                           : piece.new_blocks == 1 ? tr("1 block new")
                                                                   : tr("%1 blocks new").arg(to_text(grouped(piece.new_blocks))),
                                           "soft"));
                box->addLayout(line);
            }
            if (group.pieces.size() > most_lines)
                box->addWidget(make_label(tr("and %L1 more pieces").arg(group.pieces.size() - most_lines), "soft"));
            add_changes(box, group.changes);
            for (const auto& archive : group.lists) box->addWidget(make_label(tr("%1 is listed").arg(to_text(archive)), "value"));
            cards_->addWidget(card);
        }
    if (plan)
        for (const auto& piece : plan->left_out) {
            auto* card = make_card();
            auto* row = new QHBoxLayout(card);
            row->setContentsMargins(16, 10, 16, 10);
            auto* text = new QVBoxLayout;
            text->addWidget(make_label(tr("%1 stays on the bench").arg(to_text(piece.name)), "strong"));
            text->addWidget(make_label(piece.why.empty() ? tr("It needs a mend first.") : spoken(piece.why), "warning", true));
            row->addLayout(text, 1);
            auto* mend = new Button(tr("Mend it"), Button::Look::plain);
            connect(mend, &QPushButton::clicked, this, [this, id = piece.id] { emit fit_wanted(id); });
            row->addWidget(mend);
            cards_->addWidget(card);
        }
    if (plan && !plan->waiting.empty()) {
        auto* card = make_card();
        auto* box = new QVBoxLayout(card);
        box->setContentsMargins(16, 10, 16, 10);
        box->addWidget(make_label(tr("These wait for a delivery into the archives"), "strong"));
        add_changes(box, plan->waiting);
        cards_->addWidget(card);
    }
    const auto pieces = plan ? plan->piece_count() : 0, changes = plan ? plan->change_count() : 0;
    const auto count = pieces + changes;
    if (!plan || (plan->groups.empty() && plan->left_out.empty() && plan->waiting.empty())) {
        cards_->addStretch();
        const bool changed = update_ && update_->update();
        const bool in_the_game = model_->anything_in_the_game() && !changed;
        const bool card = model_->destination() == Destination::device;
        cards_->addWidget(make_label(!in_the_game ? tr("Nothing to deliver")
                                     : card       ? tr("It is on the card")
                                                  : tr("It is in the game"),
                                     "title"),
                          0, Qt::AlignCenter);
        cards_->addWidget(make_label(in_the_game ? tr("F5 starts the game; Undo on the right takes it out again.")
                                     : changed   ? tr("What the game's new version took out can go in again.")
                                                 : tr("Edit a piece and look at it in Fitting; then it can go into the game."),
                                     "soft"),
                          0, Qt::AlignCenter);
        auto* bench = new Button(tr("To the bench"), Button::Look::plain);
        connect(bench, &QPushButton::clicked, this, [this] { emit go_to(PageId::bench); });
        cards_->addWidget(bench, 0, Qt::AlignCenter);
    }
    cards_->addStretch();
    state_->setText(count ? tr("nothing has been written yet") : QString());
    deliver_->setText(pieces == 1 && changes == 0 ? tr("Deliver 1 piece")
                      : pieces && changes == 0    ? tr("Deliver %L1 pieces").arg(pieces)
                      : count == 1                ? tr("Deliver 1 change")
                      : count                     ? tr("Deliver %L1 changes").arg(count)
                                                  : tr("Deliver"));
    deliver_->setEnabled(count > 0);
    vault_->setText(count == 0  ? tr("nothing new")
                    : kept == 0 ? tr("nothing: only new files are written")
                                : tr("%1 bytes of the original").arg(to_text(grouped(kept))));
    model_->free_space([this](qint64 bytes) {
        free_->setText(bytes > 0 ? tr("%1 on this disk").arg(to_text(human_bytes(quint64(bytes)))) : QStringLiteral("–"));
    });
}

void DeliveryPage::add_new_files(QVBoxLayout* box, const DeliveryGroup& group) {
    constexpr std::size_t most = 6;
    const auto& files = group.plan.files;
    const auto bytes = to_text(human_bytes(group.plan.bytes_written()));
    box->addWidget(
        make_label(files.size() == 1 ? tr("A new file of %1").arg(bytes) : tr("%L1 new files, %2").arg(files.size()).arg(bytes), "soft"));
    for (const auto& file : std::span(files).first(std::min(files.size(), most))) {
        auto* line = new QHBoxLayout;
        const auto below = file.file.lexically_relative(group.source);
        line->addWidget(make_label(to_text(below.empty() || *below.begin() == ".." ? file.file.filename() : below), "value"));
        line->addStretch();
        line->addWidget(make_label(to_text(human_bytes(file.new_size)), "soft"));
        box->addLayout(line);
    }
    if (files.size() > most) box->addWidget(make_label(tr("and %L1 more files").arg(files.size() - most), "soft"));
    for (const auto& note : group.notes) box->addWidget(make_label(to_text(note), "soft", true));
}

void DeliveryPage::add_changes(QVBoxLayout* box, const std::vector<EntryChange>& changes) {
    for (std::size_t i = 0; i < std::min(changes.size(), most_lines); ++i) box->addLayout(make_change_line(changes[i]));
    if (changes.size() <= most_lines) return;
    auto* line = new QHBoxLayout;
    line->addWidget(make_label(tr("and %L1 more entries").arg(changes.size() - most_lines), "soft"));
    line->addStretch();
    auto* leave = new Button(tr("Leave all of them"), Button::Look::link);
    connect(leave, &QPushButton::clicked, this, [this, changes] { model_->leave(changes); });
    line->addWidget(leave);
    box->addLayout(line);
}

QLayout* DeliveryPage::make_change_line(const EntryChange& change) {
    auto* line = new QHBoxLayout;
    QStringList steps;
    for (const auto& step : change.address.inner) steps << to_text(step);
    line->addWidget(make_label(steps.join(QStringLiteral(" ▸ ")), "value"));
    line->addStretch();
    line->addWidget(make_label(change.path.empty() ? tr("is taken out") : tr("becomes %1").arg(to_text(change.path)), "soft"));
    auto* leave = new Button(tr("Leave it"), Button::Look::link);
    leave->setObjectName(QStringLiteral("leave"));
    connect(leave, &QPushButton::clicked, this, [this, change] { model_->leave({change}); });
    line->addWidget(leave);
    return line;
}

void DeliveryPage::show_copies() {
    std::size_t copies = 0;
    QStringList names;
    constexpr int most_names = 3;
    for (const auto& one : kin_->left()) {
        copies += one.copies.size();
        for (const auto& copy : one.copies)
            if (names.size() < most_names) names << to_text(copy.address.inner.back());
    }
    copies_->setVisible(copies > 0);
    if (copies == 0) return;
    copies_title_->setText(copies == 1 ? tr("A copy stays as it is") : tr("%L1 copies stay as they are").arg(copies));
    auto where = names.join(QStringLiteral(", "));
    if (copies > most_names) where += tr(" and %L1 more").arg(copies - most_names);
    copies_text_->setText(tr("The game goes on showing the old picture in %1.").arg(where));
}

void DeliveryPage::ask_to_undo_all() {
    const auto& history = model_->history();
    if (history.empty()) return;
    QStringList lines;
    for (auto journal = history.rbegin(); journal != history.rend(); ++journal) {
        if (lines.size() == 12) {
            lines << tr("and %L1 more").arg(history.rend() - journal);
            break;
        }
        lines << moment_text(journal->time) + QStringLiteral("  ") + to_text(journal->title);
    }
    auto* box = new QMessageBox(
        QMessageBox::NoIcon, tr("Put everything back"),
        history.size() == 1 ? tr("1 delivery is undone:") : tr("%1 deliveries are undone, the newest first:").arg(history.size()),
        QMessageBox::NoButton, this);
    box->setAttribute(Qt::WA_DeleteOnClose);
    box->setObjectName(QStringLiteral("undo_all"));
    box->setInformativeText(lines.join('\n'));
    auto* yes = box->addButton(tr("Put everything back"), QMessageBox::AcceptRole);
    auto* no = box->addButton(tr("Leave it"), QMessageBox::RejectRole);
    box->setDefaultButton(no);
    connect(yes, &QPushButton::clicked, model_, &DeliveryModel::undo_all);
    box->open();
}

void DeliveryPage::show_history() {
    clear_column(history_);
    const auto& history = model_->history();
    for (auto journal = history.rbegin(); journal != history.rend(); ++journal) {
        auto* card = make_card();
        auto* row = new QHBoxLayout(card);
        row->setContentsMargins(12, 6, 8, 6);
        const auto time = QDateTime::fromSecsSinceEpoch(journal->time);
        auto* when = make_label(time.date() == QDate::currentDate() ? clock_text(journal->time) : day_text(journal->time, false), "soft");
        when->setFont(number_font(12));
        row->addWidget(when);
        row->addSpacing(8);
        auto* title = make_label(to_text(journal->title), "value", true);
        title->setToolTip(
            tr("%1 bytes written, %2 kept").arg(to_text(grouped(journal->bytes_written())), to_text(grouped(journal->bytes_kept()))));
        row->addWidget(title, 1);
        auto* undo = new Button(tr("Undo"), Button::Look::plain);
        undo->setObjectName(QStringLiteral("undo"));
        connect(undo, &QPushButton::clicked, this, [this, id = journal->id] { model_->undo(id); });
        row->addWidget(undo);
        history_->addWidget(card);
    }
    if (history.empty()) history_->addWidget(make_label(tr("Nothing was delivered yet. Every delivery can be undone here."), "soft", true));
    history_->addStretch();
    undo_all_->setEnabled(!history.empty());
}

}  // namespace skivet::app

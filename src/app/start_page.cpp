#include "app/start_page.h"

#include <QDateTime>
#include <QDragEnterEvent>
#include <QLocale>
#include <QMimeData>
#include <QPainter>
#include <QStyledItemDelegate>

#include "app/dialogs.h"
#include "app/language.h"
#include "app/pages/page.h"
#include "app/theme/theme.h"
#include "app/widgets/actions.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/row_frame.h"

namespace skivet::app {
namespace {

constexpr int text_height = 92, gap = 14, narrowest = 460;

/// "today, 21:04", "yesterday, 9:30", "12 May 2026".
QString last_worked_on(std::int64_t at) {
    if (at == 0) return {};
    const auto then = QDateTime::fromSecsSinceEpoch(at);
    const auto days = then.date().daysTo(QDate::currentDate());
    const auto clock = clock_text(at);
    if (days == 0) return StartPage::tr("today, %1").arg(clock);
    if (days == 1) return StartPage::tr("yesterday, %1").arg(clock);
    return day_text(at, true);
}

QString work_in(const GameCard& card) {
    QStringList out;
    if (card.out) out << StartPage::tr("%n out", nullptr, int(card.out));
    if (card.waiting) out << StartPage::tr("%n waiting for the game", nullptr, int(card.waiting));
    if (card.in_game) out << StartPage::tr("%n in the game", nullptr, int(card.in_game));
    return out.isEmpty() ? StartPage::tr("nothing on the bench") : out.join(QStringLiteral(" · "));
}

QString warning_of(const GameCard& card) {
    if (card.error)
        return card.error->code == ErrorCode::missing ? StartPage::tr("its folder is not there") : StartPage::tr("cannot be read");
    if (!card.game_there) return StartPage::tr("the game is not there");
    if (card.changed) return StartPage::tr("the game's files changed");
    return {};
}

class Rows : public QAbstractListModel {
public:
    explicit Rows(GamesModel* games, QObject* parent) : QAbstractListModel(parent), games_(games) {}
    [[nodiscard]] int rowCount(const QModelIndex& parent) const override { return parent.isValid() ? 0 : int(games_->games().size()); }
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override {
        if (!index.isValid() || index.row() >= rowCount({})) return {};
        const auto& card = games_->games()[std::size_t(index.row())].card;
        if (role == Qt::DisplayRole) return to_text(card.name);
        if (role == Qt::ToolTipRole)
            return card.error ? to_text(card.error->message()) : StartPage::tr("Project: %1").arg(to_text(card.known.folder));
        if (role == Qt::AccessibleTextRole)
            return QStringList{to_text(card.name), to_text(card.game), last_worked_on(card.known.opened_at), work_in(card),
                               warning_of(card)}
                .join(QStringLiteral(", "));
        return {};
    }
    void start_over() {
        beginResetModel();
        endResetModel();
    }
    void changed_row(int row) { emit dataChanged(index(row), index(row)); }

private:
    GamesModel* games_;
};

class Cards : public QStyledItemDelegate {
public:
    Cards(GamesModel* games, QListView* list) : QStyledItemDelegate(list), games_(games), list_(list) {}
    [[nodiscard]] QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override {
        const int room = list_->width() - 14;  // whether or not a scroll bar stands there
        const int across = std::max(1, room / narrowest);
        const int width = room / across;
        return {width, (width - gap) / 4 + text_height + gap};
    }
    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        if (index.row() >= int(games_->games().size())) return;
        const auto& c = colors();
        const auto& game = games_->games()[std::size_t(index.row())];
        p->save();
        auto framed = option;
        framed.rect.setWidth(framed.rect.width() - gap);
        const auto box = draw_row_frame(*p, framed, gap);
        const QRectF well = box.adjusted(2, 2, -2, 0);
        const QRectF strip(well.x(), well.y(), well.width(), well.width() / 4);
        p->setRenderHint(QPainter::SmoothPixmapTransform);
        p->fillRect(strip, c.well);
        if (game.picture.isNull()) draw_mark(*p, strip.center(), strip.height() / 5, QColor(255, 255, 255, 90));
        else {
            // Fewer than four pictures stand in the middle.
            const double width = std::min(strip.width(), strip.height() * game.picture.width() / std::max(1, game.picture.height()));
            p->drawImage(QRectF(strip.center().x() - width / 2, strip.y(), width, strip.height()), game.picture);
        }
        const QRectF text(box.x() + 16, strip.bottom() + 9, box.width() - 32, text_height - 20);
        const auto when = last_worked_on(game.card.known.opened_at);
        p->setFont(text_font(12));
        p->setPen(c.soft);
        p->drawText(text, int(Qt::AlignTop | Qt::AlignRight), when);
        const int taken = p->fontMetrics().horizontalAdvance(when) + 12;
        p->setFont(text_font(16, true));
        p->setPen(c.ink);
        p->drawText(text, int(Qt::AlignTop | Qt::AlignLeft),
                    p->fontMetrics().elidedText(to_text(game.card.name), Qt::ElideRight, int(text.width()) - taken));
        p->setFont(text_font(12));
        p->setPen(c.soft);
        const auto where = game.card.game.empty() ? tr("no game's folder") : to_text(game.card.game);
        p->drawText(text, int(Qt::AlignVCenter | Qt::AlignLeft), p->fontMetrics().elidedText(where, Qt::ElideMiddle, int(text.width())));
        const auto warning = warning_of(game.card);
        int right = 0;
        if (!warning.isEmpty()) {
            p->setPen(c.mark);
            right = p->fontMetrics().horizontalAdvance(warning) + 34;
            p->drawText(text.adjusted(0, 0, -22, 0), int(Qt::AlignBottom | Qt::AlignRight), warning);
            draw_warning(*p, {text.right() - 8, text.bottom() - 8});
        }
        p->setPen(c.ink);
        p->drawText(text, int(Qt::AlignBottom | Qt::AlignLeft),
                    p->fontMetrics().elidedText(work_in(game.card), Qt::ElideRight, int(text.width()) - right));
        p->restore();
    }

private:
    GamesModel* games_;
    QListView* list_;
};

}  // namespace

StartPage::StartPage(GamesModel* games, const Ways& to, QWidget* parent) : QWidget(parent), games_(games) {
    setAcceptDrops(true);
    const auto action = [this](const char* id, const QString& text, const QKeySequence& key, const QString& tip,
                               std::function<void()> run) {
        return add_named_action(this, QStringLiteral("start/") + QLatin1String(id), text, key, tip, std::move(run),
                                Qt::WidgetWithChildrenShortcut);
    };
    open_ = action("open", tr("Open"), Qt::Key_Return, tr("Go on with this game"), [this] {
        if (const auto* game = current()) emit project_wanted(game->card.known.folder);
    });
    rename_ = action("rename", tr("Rename…"), Qt::Key_F2, tr("Another name for the project"), [this] { rename(); });
    forget_ = action("take-off-the-list", tr("Take off the list"), Qt::Key_Delete, tr("The project's folder stays where it is"), [this] {
        if (const auto* game = current()) games_->forget(game->card.known.folder);
    });
    auto* header = new QFrame;
    header->setObjectName(QStringLiteral("header"));
    header->setFixedHeight(68);
    auto* head = new QHBoxLayout(header);
    head->setContentsMargins(20, 0, 20, 0);
    auto* mark = new QLabel;
    mark->setObjectName(QStringLiteral("mark"));
    mark->setPixmap(mark_pixmap(26, devicePixelRatioF()));
    head->addWidget(mark);
    head->addSpacing(8);
    head->addWidget(make_label(tr("Skivet"), "title"));
    head->addStretch();

    rows_ = new Rows(games_, this);
    list_ = new QListView;
    list_->setObjectName(QStringLiteral("games"));
    list_->setAccessibleName(tr("Your games"));
    list_->setModel(rows_);
    list_->setItemDelegate(new Cards(games_, list_));
    list_->setViewMode(QListView::IconMode);
    list_->setMovement(QListView::Static);
    list_->setResizeMode(QListView::Adjust);
    list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    connect(list_, &QListView::activated, open_, &QAction::trigger);
    connect(list_->selectionModel(), &QItemSelectionModel::currentChanged, this, [this] {
        for (auto* a : {open_, rename_, forget_}) a->setEnabled(current() != nullptr);
    });

    auto* full = make_panel();
    auto* box = new QVBoxLayout(full);
    box->setContentsMargins(20, 14, 8, 12);
    box->addWidget(make_label(tr("YOUR GAMES"), "heading"));
    box->addSpacing(4);
    box->addWidget(list_, 1);
    auto* row = new FlowRow;
    row->setContentsMargins(0, 4, 12, 0);
    row->addWidget(new Button(to.new_game, Button::Look::plain));
    row->addWidget(new Button(to.open_project, Button::Look::plain));
    row->addSpacing(12);
    row->addWidget(new Button(rename_, Button::Look::link));
    row->addWidget(new Button(forget_, Button::Look::link));
    row->addStretch();
    row->addWidget(new Button(open_, Button::Look::primary));
    box->addLayout(row);

    auto* ways = new QWidget;
    auto* ways_box = new FlowRow(ways);
    ways_box->setContentsMargins(0, 0, 0, 0);
    if (to.demo) ways_box->addWidget(new Button(to.demo, Button::Look::plain));
    ways_box->addWidget(new Button(to.open_project, Button::Look::plain));
    ways_box->addWidget(new Button(to.new_game, Button::Look::primary));
    auto* body = new QWidget;
    stack_ = make_page_stack(
        body, make_empty_state(tr("No game yet"), tr("Show where a game is installed, or drop its folder here."), ways), full);

    wrong_ = make_label({}, "warning", true);
    wrong_->setContentsMargins(20, 10, 20, 0);
    wrong_->hide();
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);
    all->addWidget(header);
    all->addWidget(wrong_);
    all->addWidget(body, 1);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Start"));
    connect(games_, &GamesModel::changed, this, &StartPage::refresh);
    connect(&games_->messages(), &Messages::notice, this, &StartPage::say);
    refresh();
}

void StartPage::say(const QString& what) {
    wrong_->setText(what);
    wrong_->setVisible(!what.isEmpty());
}

const GamesModel::Game* StartPage::current() const {
    const auto index = list_->currentIndex();
    return index.isValid() && index.row() < int(games_->games().size()) ? &games_->games()[std::size_t(index.row())] : nullptr;
}

void StartPage::refresh() {
    const auto* before = current();
    const auto folder = before ? before->card.known.folder : std::filesystem::path();
    static_cast<Rows*>(rows_)->start_over();
    stack_->setCurrentIndex(games_->games().empty() ? 0 : 1);
    stack_->setVisible(games_->known());
    int row = 0;
    for (std::size_t i = 0; i < games_->games().size(); ++i)
        if (games_->games()[i].card.known.folder == folder) row = int(i);
    if (!games_->games().empty()) list_->setCurrentIndex(rows_->index(row));
    for (auto* a : {open_, rename_, forget_}) a->setEnabled(current() != nullptr);
    if (isVisible() && !QApplication::activeModalWidget()) games_->games().empty() ? setFocus() : list_->setFocus();
}

void StartPage::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    games_->refresh();
    games_->games().empty() ? setFocus() : list_->setFocus();
}

void StartPage::rename() {
    const auto* game = current();
    if (!game) return;
    ask_for_text(this, tr("Rename"), tr("The project's name:"), to_text(game->card.name), tr("Rename"), "rename_game",
                 [this, folder = game->card.known.folder](const QString& name) {
                     games_->rename(folder, name,
                                    [this](const Status& renamed) { say(renamed ? QString() : to_text(renamed.error().message())); });
                 });
}

void StartPage::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void StartPage::dropEvent(QDropEvent* event) {
    event->acceptProposedAction();
    emit files_dropped(local_files(*event->mimeData()));
}

void StartPage::contextMenuEvent(QContextMenuEvent* event) { show_menu_of(this, actions(), event->globalPos()); }

}  // namespace skivet::app

#include "app/pages/bench_page.h"

#include <QDateTime>
#include <QDesktopServices>
#include <QHBoxLayout>
#include <QMessageBox>
#include <QPainter>
#include <QStyledItemDelegate>
#include <QUrl>

#include "app/language.h"
#include "app/theme/theme.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/row_frame.h"
#include "app/widgets/titled_view.h"
#include "app/workshop/touch_window.h"
#include "app/workshop/versions_window.h"

namespace skivet::app {
namespace {

QString when(std::int64_t seconds) {
    const auto ago = QDateTime::currentSecsSinceEpoch() - seconds;
    if (ago < 60) return QObject::tr("just now");
    if (ago < 3600) return QObject::tr("%1 min ago").arg(ago / 60);
    return moment_text(seconds);
}

QString what_happened(const Piece& piece) {
    const auto file = piece.follows() ? QObject::tr("follows %1").arg(to_text(piece.file.filename())) : to_text(piece.file.filename());
    switch (piece.state) {
        case PieceState::out: return QObject::tr("written out %1 · %2").arg(when(piece.changed_at), file);
        case PieceState::gone_stale: return QObject::tr("the game's texture changed since it was taken");
        case PieceState::delivered:
            return (piece.delivered_hash.empty() ? QObject::tr("on the card · %1") : QObject::tr("in the game · %1")).arg(file);
        default:
            if (!piece.touches.empty()) return QObject::tr("touched up %1 · %2").arg(when(piece.changed_at), file);
            return QObject::tr("saved %1 · %2").arg(when(piece.changed_at), file);
    }
}

QString next_step(PieceState state) {
    switch (state) {
        case PieceState::on_the_bench:
        case PieceState::out: return QObject::tr("Open to edit");
        case PieceState::changed: return QObject::tr("Look at it in Fitting");
        case PieceState::needs_mend: return QObject::tr("Mend it in Fitting");
        case PieceState::fits: return QObject::tr("Deliver");
        case PieceState::delivered: return QObject::tr("Try in game");
        case PieceState::gone_stale: return QObject::tr("Take the new one");
    }
    return {};
}

constexpr int many = 9;  ///< from so many pieces on, one wants to narrow them down

int widest_state(const QFontMetrics& metrics) {
    using enum PieceState;
    constexpr PieceState states[] = {on_the_bench, out, changed, fits, needs_mend, delivered, gone_stale};
    int wide = 0;
    for (const auto state : states) wide = std::max(wide, metrics.horizontalAdvance(spoken(name_of(state))));
    return wide;
}

class PieceDelegate : public QStyledItemDelegate {
public:
    PieceDelegate(BenchModel* model, QObject* parent) : QStyledItemDelegate(parent), model_(model) {}
    [[nodiscard]] QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {300, 98}; }
    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const auto* there = model_->piece(index.data(PieceRows::IdRole).toULongLong());
        if (!there) return;
        const auto& piece = *there;
        const auto& c = colors();
        p->save();
        const auto box = draw_row_frame(*p, option, 8);
        draw_in_well(*p, QRectF(box.x() + 9, box.y() + 8, 73, 73), model_->picture(piece.id, false), 5);
        p->setPen(c.soft);
        p->setFont(text_font(18));
        p->drawText(QRectF(box.x() + 84, box.y(), 36, box.height()), Qt::AlignCenter, QStringLiteral("→"));
        const bool out = piece.state == PieceState::out || piece.state == PieceState::on_the_bench;
        const QRectF second(box.x() + 122, box.y() + 8, 73, 73);
        draw_in_well(*p, second, out ? QImage() : model_->picture(piece.id, true), 5);
        if (out) {
            p->setPen(QColor(0xdd, 0xdd, 0xdd));
            p->drawText(second, Qt::AlignCenter, QStringLiteral("…"));
        }
        // The states stand under each other, however long a language's longest is.
        const int wide = std::max(116, widest_state(QFontMetrics(text_font(13))) + 12);
        const QRectF text = box.adjusted(212, 14, -wide - 34, -12);
        p->setPen(c.ink);
        p->setFont(text_font(15, true));
        p->drawText(text, int(Qt::AlignTop | Qt::AlignLeft),
                    p->fontMetrics().elidedText(to_text(piece.name()), Qt::ElideMiddle, int(text.width())));
        p->setPen(c.soft);
        p->setFont(text_font(12));
        const auto middle = text.adjusted(0, 0, wide + 20, 0);  // beside neither the state nor what comes next
        p->drawText(middle, int(Qt::AlignVCenter | Qt::AlignLeft),
                    p->fontMetrics().elidedText(what_happened(piece), Qt::ElideRight, int(middle.width())));
        p->setFont(text_font(11));
        const auto folder = to_text(std::filesystem::path(piece.address.inner.back()).parent_path());
        const auto next = next_step(piece.state);
        const int next_wide = QFontMetrics(text_font(12)).horizontalAdvance(next) + 2;
        p->drawText(text, int(Qt::AlignBottom | Qt::AlignLeft),
                    p->fontMetrics().elidedText(
                        (piece.like.empty() ? tr("%1 in %2") : tr("new: %1 in %2")).arg(folder, to_text(piece.address.source.filename())),
                        Qt::ElideMiddle, int(std::min(text.width(), box.right() - 26 - next_wide - text.x()))));
        draw_state(*p, QPointF(box.right() - wide - 16, box.y() + 26), piece.state);
        p->setFont(text_font(13));
        p->setPen(piece.state == PieceState::needs_mend ? c.mark : c.ink);
        p->drawText(QRectF(box.right() - wide - 2, box.y() + 14, wide, 24), int(Qt::AlignLeft | Qt::AlignVCenter),
                    spoken(name_of(piece.state)));
        p->setPen(c.ink);
        p->setFont(text_font(12));
        p->drawText(QRectF(box.right() - 14 - next_wide, box.bottom() - 32, next_wide, 22), int(Qt::AlignRight | Qt::AlignVCenter), next);
        p->restore();
    }

private:
    BenchModel* model_;
};

}  // namespace

BenchPage::BenchPage(BenchModel* model, QWidget* parent) : Page("bench", parent), model_(model) {
    edit_ = add_action("open-to-edit", tr("Open to edit"), Qt::Key_O, tr("Open the file with the desktop's program for it"),
                       [this] { model_->open_to_edit(current_piece()); });
    fitting_ = add_action("to-fitting", tr("To fitting"), Qt::Key_Return, tr("See what the game will get"), [this] {
        if (current_piece() != 0) emit fit_wanted(current_piece());
    });
    away_ = add_action("put-away", tr("Put away"), Qt::Key_Delete,
                       tr("Take the chosen pieces off the bench; their files stay in the work folder"), [this] {
                           for (const auto id : chosen_pieces()) model_->put_away(id);
                       });
    again_ = add_action("take-the-new-one", tr("Take the new one"), Qt::Key_N, tr("The game's texture changed: take it out again"),
                        [this] { take_again(); });
    touch_ = add_action("touch-up", tr("Touch up"), Qt::Key_T,
                        tr("Change the chosen pieces without a paint program: colors, alpha, normals, sharpness"), [this] {
                            if (auto pieces = chosen_pieces(); !pieces.empty()) (new TouchWindow(this, model_, std::move(pieces)))->open();
                        });
    versions_ = add_action("versions", tr("Versions"), Qt::Key_V, tr("What was brought back before; go back to one of them"), [this] {
        if (current_piece() != 0) (new VersionsWindow(this, model_, current_piece()))->open();
    });
    folder_ = add_action("open-folder", tr("Open folder"), Qt::Key_F, tr("Open the folder of the chosen piece's file"), [this] {
        const auto* piece = model_->piece(current_piece());
        const auto folder = piece ? model_->file_of(*piece).parent_path() : model_->work_folder();
        QDesktopServices::openUrl(QUrl::fromLocalFile(to_text(folder)));
    });
    bring_ =
        add_action("bring-in", tr("Bring in…"), Qt::Key_I,
                   tr("Match the pictures of a folder to textures: edits made elsewhere, or by a friend"), [this] { emit bring_wanted(); });
    add_action("find-a-piece", tr("Find a piece"), QKeySequence(Qt::CTRL | Qt::Key_F), tr("Go to the search field"), [this] {
        filters_->show();
        words_->setFocus();
        words_->selectAll();
    });
    auto* catalog =
        add_action("to-the-catalog", tr("To the catalog"), Qt::Key_C, tr("Choose textures"), [this] { emit go_to(PageId::catalog); });

    auto* full = new QWidget;
    auto* columns = new QHBoxLayout(full);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->setSpacing(16);
    columns->addWidget(make_left(), 5);
    columns->addWidget(make_right(), 3);
    stack_ = make_page_stack(
        this,
        make_empty_state(tr("The bench is empty"), tr("Choose a texture in the catalog and press Enter; its file appears here."),
                         new Button(catalog, Button::Look::primary)),
        full);

    connect(model, &BenchModel::pieces_changed, this, &BenchPage::refresh);
    connect(model, &BenchModel::picture_ready, this, [this](PieceId piece) {
        list_->viewport()->update();
        if (piece == current_piece()) show_piece();
    });
    connect(list_->selectionModel(), &QItemSelectionModel::currentChanged, this, &BenchPage::show_piece);
    refresh();
}

QWidget* BenchPage::make_left() {
    auto* left = make_panel();
    auto* box = new QVBoxLayout(left);
    box->setContentsMargins(12, 12, 12, 10);
    auto* head = new QHBoxLayout;
    head->addWidget(make_label(tr("ON THE BENCH"), "heading"));
    totals_ = make_label({}, "soft");
    totals_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    totals_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    head->addWidget(totals_, 1);
    box->addLayout(head);

    rows_ = new PieceRows(model_, PieceRows::Order::taken, this);
    filters_ = new QWidget;
    auto* filters = new QHBoxLayout(filters_);
    filters->setContentsMargins(0, 0, 0, 0);
    words_ = new QLineEdit;
    words_->setObjectName(QStringLiteral("words"));
    words_->setAccessibleName(tr("Find a piece"));
    words_->setPlaceholderText(tr("Name or folder"));
    connect(words_, &QLineEdit::textChanged, this, [this](const QString& words) {
        rows_->set_words(words);
        refresh();
    });
    states_ = new QComboBox;
    states_->setObjectName(QStringLiteral("states"));
    states_->setAccessibleName(tr("State"));
    states_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    connect(states_, &QComboBox::activated, this, [this] {
        const int state = states_->currentData().toInt();
        rows_->set_states(state < 0 ? std::vector<PieceState>() : std::vector{PieceState(state)});
        refresh();
    });
    order_ = new QComboBox;
    order_->setObjectName(QStringLiteral("order"));
    order_->setAccessibleName(tr("Order"));
    for (const auto& name : {tr("as taken"), tr("by name"), tr("last saved first"), tr("what needs something first")})
        order_->addItem(name);
    connect(order_, &QComboBox::activated, this, [this](int order) {
        rows_->set_order(PieceRows::Order(order));
        refresh();
    });
    filters->addWidget(words_, 1);
    filters->addWidget(states_);
    filters->addWidget(order_);
    box->addWidget(filters_);
    filters_->hide();

    list_ = new QListView;
    list_->setObjectName(QStringLiteral("pieces"));
    list_->setAccessibleName(tr("Pieces on the bench"));
    list_->setModel(rows_);
    list_->setItemDelegate(new PieceDelegate(model_, list_));
    list_->setUniformItemSizes(true);
    list_->setSelectionMode(QAbstractItemView::ExtendedSelection);
    list_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    box->addWidget(list_, 1);

    other_ = make_card();
    auto* other = new QHBoxLayout(other_);
    other->setContentsMargins(12, 8, 12, 8);
    other_text_ = make_label({}, "soft", true);
    other->addWidget(other_text_, 1);
    auto* use = new Button(tr("Use it"), Button::Look::plain);
    use->setObjectName(QStringLiteral("use_other"));
    connect(use, &QPushButton::clicked, this, [this] {
        if (!model_->others().empty()) model_->use_file(model_->others().front().piece, model_->others().front().file);
    });
    auto* leave = new Button(tr("Leave it"), Button::Look::plain);
    connect(leave, &QPushButton::clicked, this, [this] {
        if (!model_->others().empty()) model_->pass_over(model_->others().front());
    });
    other->addWidget(use);
    other->addWidget(leave);
    box->addWidget(other_);
    other_->hide();

    auto* bottom = new FlowRow;
    bottom->addWidget(new Button(folder_, Button::Look::plain));
    bottom->addWidget(new Button(away_, Button::Look::plain));
    bottom->addWidget(new Button(bring_, Button::Look::plain));
    bottom->addStretch();
    box->addLayout(bottom);
    return left;
}

QWidget* BenchPage::make_right() {
    auto* right = make_panel();
    right->setMinimumWidth(360);
    auto* box = new QVBoxLayout(right);
    box->setContentsMargins(20, 14, 20, 10);
    title_ = make_label({}, "title");
    facts_ = make_label({}, "soft", true);
    state_text_ = make_label({}, "strong", true);
    file_ = make_label({}, "soft", true);
    file_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    auto* shared = new SharedView(this);
    before_ = new ImageView(shared);
    after_ = new ImageView(shared);
    auto* pictures = new QHBoxLayout;
    add_titled(pictures, before_, tr("The game's"));
    add_titled(pictures, after_, tr("Yours"));
    for (auto* view : {before_, after_}) {
        view->setMinimumSize(140, 140);
        view->setMaximumHeight(260);
    }
    box->addWidget(title_);
    box->addWidget(facts_);
    box->addSpacing(10);
    box->addLayout(pictures, 1);
    box->addSpacing(10);
    box->addWidget(state_text_);
    touches_ = make_label({}, "soft", true);
    box->addWidget(touches_);
    box->addSpacing(6);
    box->addWidget(make_label(tr("FILE"), "heading"));
    box->addWidget(file_);
    auto* versions = new FlowRow;
    versions->addWidget(new Button(touch_, Button::Look::plain));
    versions->addWidget(new Button(versions_, Button::Look::plain));
    versions->addStretch();
    box->addLayout(versions);
    box->addStretch(1);
    auto* bottom = new FlowRow;
    bottom->addWidget(new Button(edit_, Button::Look::plain));
    bottom->addWidget(new Button(again_, Button::Look::plain));
    bottom->addStretch();
    bottom->addWidget(new Button(fitting_, Button::Look::primary));
    box->addLayout(bottom);
    return right;
}

void BenchPage::entered() { list_->setFocus(); }

PieceId BenchPage::current_piece() const { return rows_->id(list_->currentIndex().row()); }

std::vector<PieceId> BenchPage::chosen_pieces() const {
    std::vector<PieceId> out;
    if (current_piece() != 0) out.push_back(current_piece());
    for (const auto& index : list_->selectionModel()->selectedRows())
        if (const auto id = rows_->id(index.row()); id != current_piece()) out.push_back(id);
    return out;
}

void BenchPage::choose_piece(PieceId piece) {
    if (const int row = rows_->row(piece); row >= 0) list_->setCurrentIndex(rows_->index(row));
}

void BenchPage::take_again() {
    const auto id = current_piece();
    if (!model_->is_edited(id)) return model_->take_again(id);
    auto* ask =
        new QMessageBox(QMessageBox::NoIcon, tr("Take the new one"),
                        tr("The game's new texture takes the place of your edit in the work folder. Your edit stays among the versions."),
                        QMessageBox::NoButton, this);
    ask->setAttribute(Qt::WA_DeleteOnClose);
    auto* yes = ask->addButton(tr("Take the new one"), QMessageBox::AcceptRole);
    ask->addButton(tr("Leave it"), QMessageBox::RejectRole);
    connect(yes, &QPushButton::clicked, this, [this, id] { model_->take_again(id); });
    ask->open();
}

void BenchPage::refresh() {
    const bool any = !model_->pieces().empty();
    stack_->setCurrentIndex(any ? 1 : 0);
    if (int(model_->pieces().size()) >= many) filters_->show();
    // The same piece, or the one that has its place now.
    if (rows_->row(shown_) >= 0) {
        if (current_piece() != shown_) choose_piece(shown_);
    } else if (rows_->rowCount() > 0) {
        list_->setCurrentIndex(rows_->index(std::clamp(shown_row_, 0, rows_->rowCount() - 1)));
    }
    show_totals();
    show_other();
    show_piece();
    list_->viewport()->update();
}

void BenchPage::show_totals() {
    std::map<PieceState, int> counts;
    for (const auto& piece : model_->pieces()) ++counts[piece.state];
    QStringList parts;
    const auto chosen = states_->currentData();
    const QSignalBlocker quiet(states_);
    states_->clear();
    states_->addItem(tr("all · %L1").arg(model_->pieces().size()), -1);
    for (const auto& [state, count] : counts) {
        parts << tr("%1 %2").arg(count).arg(spoken(name_of(state)));
        states_->addItem(tr("%1 · %2").arg(spoken(name_of(state))).arg(count), int(state));
    }
    // A state no piece has any more shows all again.
    const int at = chosen.isValid() ? states_->findData(chosen) : 0;
    states_->setCurrentIndex(std::max(0, at));
    if (at < 0) rows_->set_states({});
    totals_->setText(
        rows_->rowCount() < int(model_->pieces().size())
            ? tr("%L1 of %L2 shown · %3").arg(rows_->rowCount()).arg(model_->pieces().size()).arg(parts.join(QStringLiteral(" · ")))
            : parts.join(QStringLiteral(" · ")));
}

void BenchPage::show_other() {
    const auto& others = model_->others();
    other_->setVisible(!others.empty());
    if (others.empty()) return;
    const auto* piece = model_->piece(others.front().piece);
    const auto more = others.size() > 1 ? tr(" (and %L1 more)").arg(others.size() - 1) : QString();
    other_text_->setText(tr("%1 was saved beside %2%3. Is it the edit now?")
                             .arg(to_text(others.front().file.filename()), piece ? to_text(piece->file.filename()) : QString(), more));
}

void BenchPage::show_piece() {
    const auto* there = model_->piece(current_piece());
    if (there) shown_ = there->id, shown_row_ = list_->currentIndex().row();
    for (auto* action : {edit_, fitting_, away_, touch_, versions_}) action->setEnabled(there);
    // In this order: what cannot be seen cannot be enabled.
    again_->setVisible(there && there->state == PieceState::gone_stale);
    again_->setEnabled(again_->isVisible());
    if (!there) return;
    const auto& piece = *there;
    title_->setText(to_text(piece.name()));
    QStringList steps;
    for (const auto& step : piece.address.inner) steps << to_text(step);
    auto where = tr("%1 in %2").arg(steps.join(QStringLiteral(" ▸ ")), to_text(piece.address.source.filename()));
    if (!piece.like.empty()) where += tr("\nNew: a variant of %1, comes with its delivery").arg(to_text(piece.like));
    facts_->setText(where);
    state_text_->setText(tr("%1 — %2").arg(spoken(name_of(piece.state)), next_step(piece.state)));
    QStringList touches;
    for (const auto& text : piece.touches)
        if (const auto touch = parse_touch_up(text)) touches << to_text(describe(*touch));
    touches_->setText(touches.join('\n'));
    touches_->setVisible(!touches.isEmpty());
    QStringList files{to_text(model_->file_of(piece))};
    for (const auto& one : piece.more) files << to_text(model_->work_folder() / one.file);
    file_->setText(files.join('\n'));
    before_->set_image(model_->picture(piece.id, false));
    const auto after = model_->picture(piece.id, true);
    if (piece.state == PieceState::out) after_->set_message(tr("not saved yet"));
    else after_->set_image(after);
}

}  // namespace skivet::app

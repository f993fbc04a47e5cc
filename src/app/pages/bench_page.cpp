#include "app/pages/bench_page.h"

#include <QDateTime>
#include <QDesktopServices>
#include <QHBoxLayout>
#include <QPainter>
#include <QStyledItemDelegate>
#include <QUrl>

#include "app/theme/theme.h"
#include "app/widgets/row_frame.h"
#include "app/workshop/touch_window.h"

namespace skivet::app {
namespace {

QString when(std::int64_t seconds) {
    const auto ago = QDateTime::currentSecsSinceEpoch() - seconds;
    if (ago < 60) return QObject::tr("just now");
    if (ago < 3600) return QObject::tr("%1 min ago").arg(ago / 60);
    return QDateTime::fromSecsSinceEpoch(seconds).toString(QStringLiteral("d MMM HH:mm"));
}

QString what_happened(const Piece& piece) {
    const auto file = piece.follows() ? QObject::tr("follows %1").arg(to_text(piece.file.filename())) : to_text(piece.file.filename());
    switch (piece.state) {
        case PieceState::out: return QObject::tr("written out %1 · %2").arg(when(piece.changed_at), file);
        case PieceState::gone_stale: return QObject::tr("the game's texture changed since it was taken");
        case PieceState::delivered: return QObject::tr("in the game · %1").arg(file);
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

constexpr int IdRole = Qt::UserRole;

class PieceDelegate : public QStyledItemDelegate {
public:
    PieceDelegate(BenchModel* model, QObject* parent) : QStyledItemDelegate(parent), model_(model) {}
    [[nodiscard]] QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {300, 98}; }
    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const auto* there = model_->piece(index.data(IdRole).toULongLong());
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
        const QRectF text = box.adjusted(212, 14, -150, -12);
        p->setPen(c.ink);
        p->setFont(text_font(15, true));
        p->drawText(text, int(Qt::AlignTop | Qt::AlignLeft),
                    p->fontMetrics().elidedText(to_text(piece.name()), Qt::ElideMiddle, int(text.width())));
        p->setPen(c.soft);
        p->setFont(text_font(12));
        p->drawText(text, int(Qt::AlignVCenter | Qt::AlignLeft),
                    p->fontMetrics().elidedText(what_happened(piece), Qt::ElideRight, int(text.width())));
        p->setFont(text_font(11));
        const auto folder = to_text(std::filesystem::path(piece.address.inner.back()).parent_path());
        p->drawText(text, int(Qt::AlignBottom | Qt::AlignLeft),
                    p->fontMetrics().elidedText(tr("%1 in %2").arg(folder, to_text(piece.address.source.filename())), Qt::ElideMiddle,
                                                int(text.width())));
        draw_state(*p, QPointF(box.right() - 132, box.y() + 26), piece.state);
        p->setFont(text_font(13));
        p->setPen(piece.state == PieceState::needs_mend ? c.accent : c.ink);
        p->drawText(QRectF(box.right() - 118, box.y() + 14, 116, 24), int(Qt::AlignLeft | Qt::AlignVCenter), to_text(name_of(piece.state)));
        p->setPen(c.ink);
        p->setFont(text_font(12));
        p->drawText(QRectF(box.right() - 200, box.bottom() - 32, 186, 22), int(Qt::AlignRight | Qt::AlignVCenter), next_step(piece.state));
        p->restore();
    }

private:
    BenchModel* model_;
};

}  // namespace

BenchPage::BenchPage(BenchModel* model, QWidget* parent) : Page(parent), model_(model) {
    edit_ = add_action(tr("Open to edit"), Qt::Key_O, tr("Open the file with the desktop's program for it"),
                       [this] { model_->open_to_edit(current_piece()); });
    fitting_ = add_action(tr("To fitting"), Qt::Key_Return, tr("See what the game will get"), [this] {
        if (current_piece() != 0) emit fit_wanted(current_piece());
    });
    away_ =
        add_action(tr("Put away"), Qt::Key_Delete, tr("Take the chosen pieces off the bench; their files stay in the work folder"), [this] {
            for (const auto id : chosen_pieces()) model_->put_away(id);
        });
    again_ = add_action(tr("Take the new one"), Qt::Key_N, tr("The game's texture changed: take it out again"),
                        [this] { model_->take_again(current_piece()); });
    touch_ = add_action(tr("Touch up"), Qt::Key_T,
                        tr("Change the chosen pieces without a paint program: colors, alpha, normals, sharpness"), [this] {
                            if (auto pieces = chosen_pieces(); !pieces.empty()) (new TouchWindow(this, model_, std::move(pieces)))->open();
                        });
    auto* folder = add_action(tr("Open folder"), Qt::Key_F, tr("Open the work folder"),
                              [this] { QDesktopServices::openUrl(QUrl::fromLocalFile(to_text(model_->work_folder()))); });
    auto* catalog = add_action(tr("To the catalog"), QKeySequence(Qt::CTRL | Qt::Key_N), tr("Choose textures"),
                               [this] { emit go_to(PageId::catalog); });

    auto* left = make_panel();
    auto* left_box = new QVBoxLayout(left);
    left_box->setContentsMargins(12, 12, 12, 10);
    auto* head = new QHBoxLayout;
    head->addWidget(make_label(tr("ON THE BENCH"), "heading"));
    head->addStretch();
    head->addWidget(make_label(tr("files in work/ are watched"), "soft"));
    left_box->addLayout(head);
    rows_ = new QStandardItemModel(this);
    list_ = new QListView;
    list_->setObjectName(QStringLiteral("pieces"));
    list_->setAccessibleName(tr("Pieces on the bench"));
    list_->setModel(rows_);
    list_->setItemDelegate(new PieceDelegate(model, list_));
    list_->setSelectionMode(QAbstractItemView::ExtendedSelection);
    list_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    left_box->addWidget(list_, 1);
    auto* bottom_left = new QHBoxLayout;
    bottom_left->addWidget(new Button(folder, Button::Look::plain));
    bottom_left->addWidget(new Button(away_, Button::Look::plain));
    bottom_left->addStretch();
    left_box->addLayout(bottom_left);

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
    before_->setAccessibleName(tr("The game's"));
    after_->setAccessibleName(tr("Yours"));
    auto* pictures = new QHBoxLayout;
    for (auto [view, name] : {std::pair{before_, tr("The game's")}, std::pair{after_, tr("Yours")}}) {
        auto* column = new QVBoxLayout;
        column->addWidget(make_label(name, "strong"));
        view->setMinimumSize(140, 140);
        view->setMaximumHeight(260);
        column->addWidget(view, 1);
        pictures->addLayout(column);
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
    box->addStretch(1);
    auto* bottom = new QHBoxLayout;
    bottom->addWidget(new Button(edit_, Button::Look::plain));
    bottom->addWidget(new Button(touch_, Button::Look::plain));
    bottom->addWidget(new Button(again_, Button::Look::plain));
    bottom->addStretch();
    bottom->addWidget(new Button(fitting_, Button::Look::primary));
    box->addLayout(bottom);

    auto* full = new QWidget;
    auto* columns = new QHBoxLayout(full);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->setSpacing(16);
    columns->addWidget(left, 5);
    columns->addWidget(right, 3);
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

void BenchPage::entered() { list_->setFocus(); }

PieceId BenchPage::current_piece() const { return list_->currentIndex().isValid() ? list_->currentIndex().data(IdRole).toULongLong() : 0; }

std::vector<PieceId> BenchPage::chosen_pieces() const {
    std::vector<PieceId> out;
    if (current_piece() != 0) out.push_back(current_piece());
    for (const auto& index : list_->selectionModel()->selectedRows())
        if (const auto id = index.data(IdRole).toULongLong(); id != current_piece()) out.push_back(id);
    return out;
}

void BenchPage::choose_piece(PieceId piece) {
    for (int row = 0; row < rows_->rowCount(); ++row)
        if (rows_->index(row, 0).data(IdRole).toULongLong() == piece) list_->setCurrentIndex(rows_->index(row, 0));
}

void BenchPage::refresh() {
    const auto& pieces = model_->pieces();
    const auto before = current_piece();
    const int row = list_->currentIndex().row();
    if (rows_->rowCount() != int(pieces.size())) {
        rows_->clear();
        for (std::size_t i = 0; i < pieces.size(); ++i) rows_->appendRow(new QStandardItem);
    }
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        auto* item = rows_->item(int(i));
        item->setText(to_text(pieces[i].name()));
        item->setData(tr("%1, %2").arg(to_text(pieces[i].name()), to_text(name_of(pieces[i].state))), Qt::AccessibleTextRole);
        item->setData(qulonglong(pieces[i].id), IdRole);
    }
    stack_->setCurrentIndex(pieces.empty() ? 0 : 1);
    // The same piece, or the one that has its place now.
    if (model_->piece(before)) choose_piece(before);
    else if (!pieces.empty()) list_->setCurrentIndex(rows_->index(std::clamp(row, 0, int(pieces.size()) - 1), 0));
    show_piece();
    list_->viewport()->update();
}

void BenchPage::show_piece() {
    const auto* there = model_->piece(current_piece());
    for (auto* action : {edit_, fitting_, away_, touch_}) action->setEnabled(there);
    again_->setEnabled(there && there->state == PieceState::gone_stale);
    again_->setVisible(again_->isEnabled());
    if (!there) return;
    const auto& piece = *there;
    title_->setText(to_text(piece.name()));
    QStringList steps;
    for (const auto& step : piece.address.inner) steps << to_text(step);
    facts_->setText(tr("%1 in %2").arg(steps.join(QStringLiteral(" ▸ ")), to_text(piece.address.source.filename())));
    state_text_->setText(tr("%1 — %2").arg(to_text(name_of(piece.state)), next_step(piece.state)));
    QStringList touches;
    for (const auto& text : piece.touches)
        if (const auto touch = parse_touch_up(text)) touches << to_text(describe(*touch));
    touches_->setText(touches.join('\n'));
    touches_->setVisible(!touches.isEmpty());
    file_->setText(to_text(model_->file_of(piece)));
    before_->set_image(model_->picture(piece.id, false));
    const auto after = model_->picture(piece.id, true);
    if (piece.state == PieceState::out) after_->set_message(tr("not saved yet"));
    else after_->set_image(after);
}

}  // namespace skivet::app

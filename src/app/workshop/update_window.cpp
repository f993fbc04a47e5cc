#include "app/workshop/update_window.h"

#include <QAction>

#include "app/guide_window.h"
#include "app/language.h"
#include "app/models/left_state.h"
#include "app/pages/page.h"
#include "app/widgets/card_rows.h"
#include "app/workshop/workshop_actions.h"

namespace skivet::app {
namespace {

QString words_of(UpdateHow how) {
    switch (how) {
        case UpdateHow::same: return QObject::tr("The game has its own texture again; yours goes in as it was.");
        case UpdateHow::moved: return QObject::tr("The game has the same texture under another path; yours goes in there.");
        case UpdateHow::elsewhere: return QObject::tr("The game's new texture differs, but not where you painted: both are kept.");
        case UpdateHow::other_format: return QObject::tr("The game has the same picture compressed anew; your change is brought to it.");
        case UpdateHow::same_place:
            return QObject::tr(
                "The game's new texture differs where you painted. Your file stays as it is; take the new one on the bench, or let "
                "yours go over it.");
        default: return QObject::tr("The game has it no more. Your file stays as it is.");
    }
}

}  // namespace

UpdateWindow::UpdateWindow(QWidget* parent, UpdateModel* model) : QDialog(parent), model_(model) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("update"));
    setWindowTitle(tr("The game changed"));
    resize(1100, 680);
    keep_size(this, "update");
    set_help(this, "updates");
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(16, 14, 16, 12);
    auto* columns = new QHBoxLayout;
    columns->setSpacing(18);
    rows_ = new QStandardItemModel(this);
    list_ = new QListView;
    list_->setObjectName(QStringLiteral("updated"));
    list_->setAccessibleName(tr("Your pieces, and what became of them"));
    list_->setModel(rows_);
    list_->setItemDelegate(new CardRows(true, list_));
    list_->setUniformItemSizes(true);
    list_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    list_->setFixedWidth(340);
    columns->addWidget(list_);
    auto* right = new QVBoxLayout;
    auto* shared = new SharedView(this);
    for (auto** view : {&was_, &ours_, &game_, &becomes_}) *view = new ImageView(shared);
    auto* upper = new QHBoxLayout;
    auto* lower = new QHBoxLayout;
    upper->setSpacing(16);
    lower->setSpacing(16);
    add_titled(upper, was_, tr("As it was"));
    add_titled(upper, ours_, tr("Yours"));
    add_titled(lower, game_, tr("The game's now"));
    add_titled(lower, becomes_, tr("What would go in"));
    right->addLayout(upper, 1);
    right->addLayout(lower, 1);
    words_ = make_label({}, "soft", true);
    words_->setMinimumHeight(36);
    words_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    auto* below = new QHBoxLayout;
    below->addWidget(words_, 1);
    over_ = add_workshop_action(this, "update/go-over");
    connect(over_, &QAction::triggered, this, [this] {
        if (current()) model_->let_over(current()->id);
    });
    over_button_ = new Button(over_, Button::Look::plain);
    over_button_->setObjectName(QStringLiteral("let_over"));
    auto policy = over_button_->sizePolicy();
    policy.setRetainSizeWhenHidden(true);
    over_button_->setSizePolicy(policy);
    below->addWidget(over_button_, 0, Qt::AlignTop);
    right->addLayout(below);
    columns->addLayout(right, 1);
    box->addLayout(columns, 1);
    auto* bottom = new QHBoxLayout;
    counts_ = make_label({}, "soft", true);
    bottom->addWidget(counts_, 1);
    put_ = add_workshop_action(this, "update/put-in");
    connect(put_, &QAction::triggered, this, [this] {
        std::vector<PieceId> chosen;
        for (int row = 0; row < rows_->rowCount(); ++row)
            if (rows_->item(row)->checkState() == Qt::Checked) chosen.push_back(PieceId(rows_->item(row)->data(CardNumber).toULongLong()));
        put_->setEnabled(false);
        model_->put_in_again(std::move(chosen));
    });
    auto* button = new Button(put_, Button::Look::primary);
    button->setObjectName(QStringLiteral("put_in_again"));
    bottom->addWidget(button);
    box->addLayout(bottom);
    connect(model_, &UpdateModel::changed, this, &UpdateWindow::refresh);
    connect(list_->selectionModel(), &QItemSelectionModel::currentChanged, this, &UpdateWindow::show_piece);
    connect(rows_, &QStandardItemModel::itemChanged, this, &UpdateWindow::count);
    refresh();
    list_->setFocus();
}

const UpdatedPiece* UpdateWindow::current() const {
    const auto number = list_->currentIndex().data(CardNumber);
    if (!number.isValid() || !model_->update()) return nullptr;
    for (const auto& piece : model_->update()->pieces)
        if (piece.id == number.toULongLong()) return &piece;
    return nullptr;
}

void UpdateWindow::refresh() {
    const auto before = list_->currentIndex().data(CardNumber);
    rows_->clear();
    int chosen = 0;
    if (const auto update = model_->update()) {
        auto pieces = update->pieces;
        // What wants a look first: what cannot go in, then what two changed.
        const auto rank = [](const UpdatedPiece& p) { return !goes_in(p.how) ? 0 : !is_sure(p.how) ? 1 : 2; };
        std::stable_sort(pieces.begin(), pieces.end(), [&](const auto& a, const auto& b) { return rank(a) < rank(b); });
        for (const auto& piece : pieces) {
            auto* row = new QStandardItem(to_text(piece.name));
            row->setData(qulonglong(piece.id), CardNumber);
            row->setData(spoken(skivet::name_of(piece.how)), CardUnder);
            row->setData(!goes_in(piece.how), CardWrong);
            row->setToolTip(to_text(piece.address.text()));
            row->setData(row->text() + ", " + row->data(CardUnder).toString(), Qt::AccessibleTextRole);
            const bool goes_over = !goes_in(piece.how) && !piece.becomes.empty();
            if (goes_over) row->setData(tr("yours goes over it"), CardUnder);
            if (before.isValid() && before.toULongLong() == piece.id) chosen = rows_->rowCount();
            if (goes_in(piece.how) || goes_over) {
                row->setCheckable(true);
                row->setCheckState(Qt::Checked);
            }
            rows_->appendRow(row);
        }
        if (rows_->rowCount() > 0) list_->setCurrentIndex(rows_->index(chosen, 0));
    }
    count();
    show_piece();
}

void UpdateWindow::count() {
    int ticked = 0;
    for (int row = 0; row < rows_->rowCount(); ++row) ticked += rows_->item(row)->checkState() == Qt::Checked;
    const auto update = model_->update();
    const auto parcels = update ? update->parcels.size() : 0;
    put_->setText(ticked == 0 && parcels > 0 ? tr("Put the parcels in again") : tr("Put %1 in again").arg(ticked));
    put_->setEnabled(ticked > 0 || parcels > 0);
    QStringList parts;
    if (update) {
        const auto open =
            std::count_if(update->pieces.begin(), update->pieces.end(), [](const UpdatedPiece& p) { return p.becomes.empty(); });
        if (open > 0) parts << (open == 1 ? tr("1 waits for you to decide") : tr("%1 wait for you to decide").arg(open));
        for (const auto& parcel : update->parcels)
            parts << tr("%1: of %L2 textures %L3 do not fit any more")
                         .arg(to_text(parcel.title))
                         .arg(parcel.matches.size() + parcel.left_out.size())
                         .arg(parcel.left_out.size());
    }
    counts_->setText(!update ? tr("Everything is in the game as you delivered it.") : parts.join(QStringLiteral(" · ")));
}

void UpdateWindow::show_piece() {
    for (auto* view : {was_, ours_, game_, becomes_}) {
        view->set_image({});
        view->set_message({});
    }
    const auto* piece = current();
    words_->setText(piece ? words_of(piece->how) : QString());
    const bool open = piece && piece->how == UpdateHow::same_place && piece->becomes.empty();
    over_->setEnabled(open);
    over_button_->setVisible(open);
    if (!piece) return;
    model_->pictures(this, piece->id, [this, id = piece->id](const UpdateModel::Pictures& made) {
        if (!current() || current()->id != id) return;
        const auto show = [](ImageView* view, const QImage& image, const QString& otherwise) {
            if (image.isNull()) view->set_message(otherwise);
            else view->set_image(image);
        };
        show(was_, made.was, tr("No picture"));
        show(ours_, made.ours, tr("No picture"));
        show(game_, made.game, tr("The game has it no more"));
        show(becomes_, made.becomes, tr("Nothing, before you decide"));
    });
}

}  // namespace skivet::app

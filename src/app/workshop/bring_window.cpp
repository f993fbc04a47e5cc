#include "app/workshop/bring_window.h"

#include <QAction>
#include <QHBoxLayout>

#include "app/guide_window.h"
#include "app/language.h"
#include "app/models/left_state.h"
#include "app/pages/page.h"
#include "app/theme/theme.h"
#include "app/widgets/card_rows.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/titled_view.h"
#include "app/workshop/workshop_actions.h"

namespace skivet::app {

BringWindow::BringWindow(QWidget* parent, SourcesModel* sources, CatalogModel* catalog, BenchModel* bench, std::filesystem::path folder)
    : QDialog(parent), sources_(sources), catalog_(catalog), bench_(bench), folder_(std::move(folder)) {
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Bring in %L1").arg(to_text(folder_.filename())));
    resize(1060, 640);
    keep_size(this, "bring");
    set_help(this, "bench");
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(16, 14, 16, 12);
    auto* columns = new QHBoxLayout;
    columns->setSpacing(16);
    rows_ = new QStandardItemModel(this);
    list_ = new QListView;
    list_->setObjectName(QStringLiteral("matches"));
    list_->setAccessibleName(tr("Pictures and the textures they fit, doubtful ones first"));
    list_->setModel(rows_);
    list_->setItemDelegate(new CardRows(true, list_));
    list_->setUniformItemSizes(true);
    list_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    list_->setMinimumWidth(420);
    columns->addWidget(list_, 4);
    auto* right = new QVBoxLayout;
    auto* pictures = new QHBoxLayout;
    auto* shared = new SharedView(this);
    mine_ = new ImageView(shared);
    theirs_ = new ImageView(shared);
    add_titled(pictures, mine_, tr("Brought in"));
    add_titled(pictures, theirs_, tr("The game's"));
    right->addLayout(pictures, 1);
    doubt_ = make_label({}, "soft", true);
    right->addWidget(doubt_);
    candidates_ = new QComboBox;
    candidates_->setEnabled(false);  // until a picture has some
    candidates_->setObjectName(QStringLiteral("candidates"));
    candidates_->setAccessibleName(tr("The texture it is for"));
    candidates_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    right->addWidget(candidates_);
    columns->addLayout(right, 5);
    box->addLayout(columns, 1);
    counts_ = make_label({}, "soft");
    take_ = add_workshop_action(this, "bring/bring-in");
    take_->setEnabled(false);
    auto* bottom = new FlowRow;
    bottom->addWidget(counts_);
    bottom->addStretch();
    bottom->addWidget(new Button(take_, Button::Look::primary));
    box->addLayout(bottom);

    connect(take_, &QAction::triggered, this, &BringWindow::take);
    connect(list_->selectionModel(), &QItemSelectionModel::currentChanged, this, &BringWindow::show_row);
    connect(rows_, &QStandardItemModel::itemChanged, this, &BringWindow::refresh_counts);
    connect(candidates_, &QComboBox::activated, this, [this](int index) {
        auto* match = match_at(list_->currentIndex());
        if (!match || index <= 0 || index > int(match->others.size())) return;
        // The chosen one takes the first place; that is an answer to the doubt.
        std::swap(match->item, match->others[std::size_t(index) - 1]);
        rows_->itemFromIndex(list_->currentIndex())->setCheckState(Qt::Checked);
        show_row(list_->currentIndex());
    });
    match();
    list_->setFocus();
}

void BringWindow::match() {
    analyzed_ = catalog_->catalog();
    if (!analyzed_->snapshot->whole && sources_->looking()) {
        // In a part of the game much would fit nothing.
        counts_->setText(tr("The game is still being listed; the pictures are matched then."));
        // Queued: the catalog takes over what the sources tell.
        connect(sources_, &SourcesModel::changed, this, &BringWindow::match,
                Qt::ConnectionType(Qt::QueuedConnection | Qt::SingleShotConnection));
        return;
    }
    counts_->setText(tr("Going through the folder…"));
    progress_ = catalog_->jobs().shown_progress(tr("Matching pictures"));
    bench_->match(this, analyzed_, folder_, progress_, [this](Result<BroughtFolder> found) { fill(std::move(found)); });
}

BringWindow::~BringWindow() {
    if (progress_) progress_->cancel.cancel();
}

BroughtMatch* BringWindow::match_at(const QModelIndex& index) {
    const auto at = index.data(CardNumber);
    return at.isValid() ? &found_.matches[std::size_t(at.toULongLong())] : nullptr;
}

void BringWindow::fill(Result<BroughtFolder> found) {
    progress_.reset();
    ready_ = true;
    if (!found) {
        counts_->setText(to_text(found.error().message()));
        return;
    }
    found_ = std::move(*found);
    const auto& items = analyzed_->snapshot->catalog.items;
    for (std::size_t i = 0; i < found_.matches.size(); ++i) {
        const auto& match = found_.matches[i];
        auto* row = new QStandardItem(to_text(match.file));
        row->setData(qulonglong(i), CardNumber);
        row->setData(tr("%1 · by %2").arg(to_text(items[match.item].path()), spoken(name_of(match.by))), CardUnder);
        row->setData(spoken(match.doubt), CardWrong);
        row->setData(tr("%1, for %2%3")
                         .arg(to_text(match.file), to_text(items[match.item].path()),
                              match.doubt.empty() ? QString() : tr(", doubtful: %1").arg(spoken(match.doubt))),
                     Qt::AccessibleTextRole);
        row->setCheckable(true);
        row->setCheckState(match.doubt.empty() ? Qt::Checked : Qt::Unchecked);
        rows_->appendRow(row);
    }
    const auto without = [&](const QString& file, const QString& why) {
        auto* row = new QStandardItem(file);
        row->setData(why, CardUnder);
        rows_->appendRow(row);
    };
    for (const auto& file : found_.unmatched) without(to_text(file), tr("fits nothing"));
    for (const auto& error : found_.errors)
        without(error.where.empty() ? tr("A file") : to_text(error.where.front()), to_text(error.message()));
    if (rows_->rowCount() > 0) list_->setCurrentIndex(rows_->index(0, 0));
    refresh_counts();
}

void BringWindow::refresh_counts() {
    int ticked = 0;
    for (int row = 0; row < rows_->rowCount(); ++row) ticked += rows_->item(row)->checkState() == Qt::Checked;
    const auto doubtful =
        std::count_if(found_.matches.begin(), found_.matches.end(), [](const BroughtMatch& m) { return !m.doubt.empty(); });
    QStringList parts;
    if (!found_.matches.empty()) parts << tr("%L1 matched, %L2 of them doubtful").arg(found_.matches.size()).arg(doubtful);
    if (!found_.unmatched.empty()) parts << tr("%L1 fit nothing").arg(found_.unmatched.size());
    if (!found_.errors.empty()) parts << tr("%1 cannot be read").arg(found_.errors.size());
    if (!parts.isEmpty() && !analyzed_->snapshot->whole) parts << tr("the game was not looked through to its end");
    if (parts.isEmpty()) parts << tr("There is no picture in this folder.");
    else if (analyzed_->unseen > 0)
        parts << tr("%L1 of the game's pictures are not looked at yet: matched by name only").arg(analyzed_->unseen);
    counts_->setText(parts.join(QStringLiteral(" · ")));
    take_->setText(tr("Bring in %L1").arg(ticked));
    take_->setEnabled(ticked > 0);
}

void BringWindow::show_row(const QModelIndex& index) {
    const auto* match = match_at(index);
    candidates_->clear();
    candidates_->setEnabled(match && !match->others.empty());
    doubt_->setText(!match                 ? index.data(CardUnder).toString()
                    : match->doubt.empty() ? tr("Matched by %1.").arg(spoken(name_of(match->by)))
                                           : tr("Look first: %1.").arg(spoken(match->doubt)));
    if (match) {
        const auto& items = analyzed_->snapshot->catalog.items;
        candidates_->addItem(to_text(items[match->item].path()));
        for (const auto other : match->others) candidates_->addItem(to_text(items[other].path()));
        rows_->itemFromIndex(index)->setData(tr("%1 · by %2").arg(to_text(items[match->item].path()), spoken(name_of(match->by))),
                                             CardUnder);
    }
    for (auto* view : {mine_, theirs_}) view->set_message({});
    const auto shown = [this, index = QPersistentModelIndex(index)](ImageView* view) {
        return [this, index, view](const Result<QImage>& made) {
            if (list_->currentIndex() != index) return;
            if (made) view->set_image(*made);
            else view->set_message(to_text(made.error().message()));
        };
    };
    const auto file = match ? folder_ / match->file : folder_ / index.data().toString().toStdString();
    bench_->file_picture(this, file, shown(mine_));
    if (match) bench_->game_picture(this, address_of(*match), shown(theirs_));
    else theirs_->set_message(tr("No texture"));
}

Address BringWindow::address_of(const BroughtMatch& match) const {
    const auto& snapshot = *analyzed_->snapshot;
    const auto& item = snapshot.catalog.items[match.item];
    return skivet::address_of(snapshot.sources[item.source], item);
}

void BringWindow::take() {
    std::vector<std::pair<Address, std::filesystem::path>> wanted;
    for (int row = 0; row < rows_->rowCount(); ++row) {
        const auto* match = match_at(rows_->index(row, 0));
        if (!match || rows_->item(row)->checkState() != Qt::Checked) continue;
        wanted.emplace_back(address_of(*match), folder_ / match->file);
    }
    bench_->bring_in(std::move(wanted));
    accept();
}

}  // namespace skivet::app

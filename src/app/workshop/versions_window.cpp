#include "app/workshop/versions_window.h"

#include <QAction>
#include <QDateTime>
#include <QHBoxLayout>
#include <QMessageBox>

#include "app/guide_window.h"
#include "app/language.h"
#include "app/models/left_state.h"
#include "app/pages/page.h"
#include "app/theme/theme.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/titled_view.h"
#include "app/workshop/workshop_actions.h"
#include "base/text.h"

namespace skivet::app {

namespace {

/// The file of the piece that the version is of.
std::pair<std::filesystem::path, std::string> file_and_hash(const Piece& piece, const Version& version) {
    for (const auto& one : piece.more)
        if (one.file == version.file) return {one.file, one.seen_hash};
    return {piece.file, piece.seen_hash};
}

/// "png", "alpha png".
QString kind_of(const Piece& piece, const Version& version) {
    const auto ending = to_text(version.file.extension().string()).mid(1);
    for (const auto& one : piece.more)
        if (one.file == version.file) return to_text(one.part) + ' ' + ending;
    return ending;
}

bool is_now(const Piece& piece, const Version& version) { return version.hash == file_and_hash(piece, version).second; }

}  // namespace

VersionsWindow::VersionsWindow(QWidget* parent, BenchModel* model, PieceId piece) : QDialog(parent), model_(model), piece_(piece) {
    setAttribute(Qt::WA_DeleteOnClose);
    const auto* there = model->piece(piece);
    setWindowTitle(there ? tr("Versions of %1").arg(to_text(there->name())) : tr("Versions"));
    resize(940, 560);
    keep_size(this, "versions");
    set_help(this, "bench");
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(16, 14, 16, 12);
    auto* columns = new QHBoxLayout;
    columns->setSpacing(14);
    list_ = new QListWidget;
    list_->setObjectName(QStringLiteral("versions"));
    list_->setAccessibleName(tr("Versions, the newest first"));
    list_->setFixedWidth(230);
    columns->addWidget(list_);
    auto* shared = new SharedView(this);
    then_ = new ImageView(shared);
    now_ = new ImageView(shared);
    add_titled(columns, then_, tr("That version"));
    add_titled(columns, now_, tr("In the work folder now"));
    box->addLayout(columns, 1);
    room_ = make_label({}, "soft");
    back_ = add_workshop_action(this, "versions/go-back");
    clear_ = add_workshop_action(this, "versions/clear");
    auto* bottom = new FlowRow;
    bottom->addWidget(room_);
    bottom->addStretch();
    bottom->addWidget(new Button(clear_, Button::Look::plain));
    bottom->addWidget(new Button(back_, Button::Look::primary));
    box->addLayout(bottom);
    connect(back_, &QAction::triggered, this, [this] {
        if (const int row = list_->currentRow(); row >= 0 && row < int(versions_.size()))
            model_->go_back(piece_, versions_[std::size_t(row)]);
    });
    connect(clear_, &QAction::triggered, this, [this] {
        auto* ask = new QMessageBox(QMessageBox::NoIcon, tr("Clear versions"),
                                    tr("Delete what is kept of earlier saves of all pieces? What lies in the work folder stays."),
                                    QMessageBox::NoButton, this);
        ask->setAttribute(Qt::WA_DeleteOnClose);
        auto* yes = ask->addButton(tr("Delete them"), QMessageBox::AcceptRole);
        ask->addButton(tr("Keep them"), QMessageBox::RejectRole);
        connect(yes, &QPushButton::clicked, this, [this] { model_->clear_versions(); });
        ask->open();
    });
    connect(list_, &QListWidget::currentRowChanged, this, &VersionsWindow::show_version);
    connect(model, &BenchModel::pieces_changed, this, &VersionsWindow::refresh);
    refresh();
    list_->setFocus();
}

void VersionsWindow::refresh() {
    const auto* there = model_->piece(piece_);
    if (!there) return reject();
    const int row = std::max(0, list_->currentRow());
    versions_ = model_->versions(piece_);
    const QSignalBlocker quiet(list_);
    list_->clear();
    for (const auto& version : versions_) {
        const auto when = moment_text(version.at);
        const bool now = is_now(*there, version);
        list_->addItem(tr("%1\n%2%3")
                           .arg(when, kind_of(*there, version),
                                now ? tr(" · in the work folder") : tr(" · %1 bytes").arg(to_text(grouped(version.size)))));
    }
    list_->setCurrentRow(std::min(row, list_->count() - 1));
    room_->setText(tr("All versions of the project: %1 bytes").arg(to_text(grouped(model_->bytes_of_versions()))));
    clear_->setEnabled(!versions_.empty());
    if (versions_.empty()) then_->set_message(tr("Nothing was brought back yet. Edit the file and save it."));
    show_version(list_->currentRow());
}

void VersionsWindow::show_version(int row) {
    const auto* there = model_->piece(piece_);
    const bool any = row >= 0 && row < int(versions_.size());
    back_->setEnabled(any && there && !is_now(*there, versions_[std::size_t(row)]));
    const auto file = there && any ? file_and_hash(*there, versions_[std::size_t(row)]).first
                      : there      ? there->file
                                   : std::filesystem::path();
    if (!file.empty())
        model_->file_picture(this, model_->work_folder() / file, [this](const Result<QImage>& made) {
            if (made) now_->set_image(*made);
            else now_->set_message(to_text(made.error().message()));
        });
    if (!any) return;
    model_->version_picture(this, piece_, &versions_[std::size_t(row)],
                            [this, row, hash = versions_[std::size_t(row)].hash](const Result<QImage>& made) {
                                if (row != list_->currentRow() || row >= int(versions_.size()) || versions_[std::size_t(row)].hash != hash)
                                    return;
                                if (made) then_->set_image(*made);
                                else then_->set_message(to_text(made.error().message()));
                            });
}

}  // namespace skivet::app

#include <QAction>
#include <QFileDialog>
#include <QFormLayout>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPointer>

#include "app/guide_window.h"
#include "app/language.h"
#include "app/models/left_state.h"
#include "app/pages/page.h"
#include "app/theme/theme.h"
#include "app/workshop/parcels_window.h"
#include "app/workshop/workshop_actions.h"

namespace skivet::app {
namespace {
enum { PieceNumber = Qt::UserRole };
}  // namespace

MakeParcelWindow::MakeParcelWindow(QWidget* parent, ParcelModel* model) : QDialog(parent), model_(model) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("make_parcel"));
    setWindowTitle(tr("Make a parcel"));
    resize(900, 560);
    keep_size(this, "make-parcel");
    set_help(this, "parcels");
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(16, 14, 16, 12);
    auto* columns = new QHBoxLayout;
    columns->setSpacing(18);
    auto* left = new QVBoxLayout;
    left->addWidget(make_label(tr("WHAT GOES IN"), "heading"));
    pieces_ = new QListWidget;
    pieces_->setObjectName(QStringLiteral("parcel_pieces"));
    pieces_->setAccessibleName(tr("Edited pieces; ticked ones go in"));
    pieces_->setTextElideMode(Qt::ElideMiddle);
    for (const auto& piece : model_->project().pieces) {
        if (!waits(piece.state) && piece.state != PieceState::delivered) continue;
        auto* item = new QListWidgetItem(to_text(piece.name()), pieces_);
        item->setData(PieceNumber, qulonglong(piece.id));
        item->setToolTip(to_text(piece.address.text()));
        item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
        item->setCheckState(Qt::Checked);
    }
    left->addWidget(pieces_, 1);
    left->addWidget(
        make_label(tr("Changed blocks only; nothing of the game's own goes in but small pictures of before and after."), "soft", true));
    columns->addLayout(left, 1);
    auto* right = new QVBoxLayout;
    right->addWidget(make_label(tr("WHAT IT SAYS OF ITSELF"), "heading"));
    auto* form = new QFormLayout;
    form->setVerticalSpacing(6);
    const auto line = [&](const char* name, const QString& label, const QString& hint) {
        auto* edit = new QLineEdit;
        edit->setObjectName(QString::fromLatin1(name));
        edit->setPlaceholderText(hint);
        edit->setMaxLength(200);
        edit->setAccessibleName(label);
        form->addRow(label, edit);
        return edit;
    };
    title_edit_ = line("parcel_title", tr("Title"), tr("Lanterns, relit"));
    author_ = line("parcel_author", tr("By"), {});
    version_ = line("parcel_version", tr("Version"), QStringLiteral("1.0"));
    license_ = line("parcel_license", tr("License"), QStringLiteral("CC-BY-4.0"));
    notes_ = new QPlainTextEdit;
    notes_->setObjectName(QStringLiteral("parcel_notes"));
    notes_->setAccessibleName(tr("Notes"));
    notes_->setTabChangesFocus(true);
    form->addRow(tr("Notes"), notes_);
    right->addLayout(form, 1);
    columns->addLayout(right, 1);
    box->addLayout(columns, 1);
    wrong_ = make_label({}, "warning", true);
    wrong_->hide();
    box->addWidget(wrong_);
    auto* bottom = new QHBoxLayout;
    counts_ = make_label({}, "soft", true);
    bottom->addWidget(counts_, 1);
    write_ = add_workshop_action(this, "make-parcel/make");
    connect(write_, &QAction::triggered, this, [this] {
        const auto id = parcel_id(title_edit_->text().toStdString());
        auto file =
            QFileDialog::getSaveFileName(this, tr("Make the parcel"), QString::fromStdString(id + ".parcel"), tr("Parcels (*.parcel)"));
        if (file.isEmpty()) return;
        if (!file.contains('.')) file += QStringLiteral(".parcel");
        write(file.toStdString());
    });
    auto* button = new Button(write_, Button::Look::primary);
    button->setObjectName(QStringLiteral("write_parcel"));
    bottom->addWidget(button);
    box->addLayout(bottom);
    connect(pieces_, &QListWidget::itemChanged, this, [this] { make(); });
    connect(title_edit_, &QLineEdit::textChanged, this, [this] { write_->setEnabled(made_ && !title_edit_->text().trimmed().isEmpty()); });
    make();
    title_edit_->setFocus();
}

MakeWish MakeParcelWindow::wish() const {
    MakeWish out;
    out.about.title = title_edit_->text().trimmed().toStdString();
    if (out.about.title.empty()) out.about.title = "A parcel";
    out.about.id = parcel_id(out.about.title);
    out.about.author = author_->text().trimmed().toStdString();
    out.about.version = version_->text().trimmed().toStdString();
    out.about.license = license_->text().trimmed().toStdString();
    out.about.notes = notes_->toPlainText().trimmed().toStdString();
    out.about.game = model_->project().game.filename().string();
    for (int row = 0; row < pieces_->count(); ++row)
        if (pieces_->item(row)->checkState() == Qt::Checked)
            out.pieces.push_back(PieceId(pieces_->item(row)->data(PieceNumber).toULongLong()));
    out.own = own_;
    return out;
}

void MakeParcelWindow::make() {
    made_ = nullptr;
    write_->setEnabled(false);
    const auto what = wish();
    if (what.pieces.empty()) {
        counts_->setText(pieces_->count() == 0 ? tr("Nothing is edited yet.") : tr("Nothing is ticked."));
        wrong_->hide();
        return;
    }
    counts_->setText(tr("Putting it together…"));
    model_->make(this, what, [this, request = ++requests_](Result<MadeParcel> made) {
        if (request == requests_) show_made(std::move(made));
    });
}

void MakeParcelWindow::show_made(Result<MadeParcel> made) {
    if (!made) {
        wrong_->setText(to_text(made.error().message()));
        wrong_->show();
        counts_->clear();
        return;
    }
    made_ = std::make_shared<MadeParcel>(std::move(*made));
    QStringList lines;
    bool own = false;
    for (const auto& left : made_->left_out) {
        if (lines.size() < 3) lines << tr("%1: %2").arg(to_text(left.name), spoken(left.why.what));
        own = own || left.could_be_own;
    }
    if (made_->left_out.size() > 3) lines << tr("and %L1 more").arg(made_->left_out.size() - 3);
    if (own)
        lines << QStringLiteral("<a href=\"own\" style=\"color:%2\">%1</a>")
                     .arg(tr("They are wholly my own work: put the whole textures in"), colors().mark.name());
    for (int i = 0; i < lines.size() - (own ? 1 : 0); ++i) lines[i] = lines[i].toHtmlEscaped();
    wrong_->setTextFormat(Qt::RichText);
    wrong_->setText(lines.join(QStringLiteral("<br>")));
    wrong_->setVisible(!lines.isEmpty());
    disconnect(wrong_, &QLabel::linkActivated, nullptr, nullptr);
    connect(wrong_, &QLabel::linkActivated, this, [this] {
        for (const auto& left : made_->left_out)
            if (left.could_be_own) own_.push_back(left.id);
        make();
    });
    std::uint64_t bytes = 0;
    std::size_t whole = 0;
    for (const auto& texture : made_->parcel.textures)
        bytes += texture.change.units.size() + texture.whole.size(), whole += !texture.whole.empty();
    const auto count = made_->parcel.textures.size();
    counts_->setText(
        (count == 1 ? tr("1 texture, %1 of %2").arg(to_text(human_bytes(bytes)), to_text(human_bytes(made_->originals)))
                    : tr("%1 textures, %2 of %3").arg(count).arg(to_text(human_bytes(bytes)), to_text(human_bytes(made_->originals)))) +
        (whole > 0 ? tr(", %1 of them whole").arg(whole) : QString()));
    write_->setEnabled(count > 0 && !title_edit_->text().trimmed().isEmpty());
}

void MakeParcelWindow::write(const std::filesystem::path& file) {
    if (!made_) return;
    auto last = std::make_shared<MadeParcel>(*made_);
    last->parcel.about = wish().about;
    model_->write(last, file);
    accept();
}

}  // namespace skivet::app

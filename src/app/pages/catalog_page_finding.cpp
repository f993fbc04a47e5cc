// The catalog page's kept searches, and finding by a picture.
#include <QApplication>
#include <QClipboard>
#include <QDragEnterEvent>
#include <QFileDialog>
#include <QInputDialog>
#include <QMenu>
#include <QMimeData>

#include "app/models/left_state.h"
#include "app/pages/catalog_page.h"

namespace skivet::app {

void CatalogPage::show_searches() {
    auto* menu = new QMenu(this);
    menu->setObjectName(QStringLiteral("searches"));
    menu->setAttribute(Qt::WA_DeleteOnClose);
    for (const auto& kept : model_->kept_searches())
        connect(menu->addAction(to_text(kept.name)), &QAction::triggered, this, [this, kept] {
            CatalogQuery query;
            for (const auto& [facet, value] : kept.chosen)
                for (std::size_t f = 0; f < facet_count; ++f)
                    if (name_of(static_cast<Facet>(f)) == facet) query.chosen[f].push_back(value);
            for (std::size_t t = 0; t < trait_count; ++t)
                query.traits[t] = std::find(kept.traits.begin(), kept.traits.end(), name_of(static_cast<Trait>(t))) != kept.traits.end();
            facets_->set_chosen(query);
            const QSignalBlocker quiet(search_);
            search_->setText(to_text(kept.text));
            leave_hits();
            ask();
        });
    if (model_->kept_searches().empty()) menu->addAction(tr("No search is kept yet"))->setEnabled(false);
    menu->addSeparator();
    auto query = facets_->chosen();
    query.search = search_->text().toStdString();
    auto* keep = menu->addAction(tr("Keep this search…"));
    keep->setEnabled(!query.empty());
    connect(keep, &QAction::triggered, this, [this, query] {
        auto* dialog = new QInputDialog(this);
        dialog->setObjectName(QStringLiteral("keep_search"));
        dialog->setAttribute(Qt::WA_DeleteOnClose);
        dialog->setWindowTitle(tr("Keep this search"));
        dialog->setLabelText(tr("Name"));
        dialog->setTextValue(search_->text());
        connect(dialog, &QInputDialog::textValueSelected, this, [this, query](const QString& name) {
            if (!name.trimmed().isEmpty()) model_->keep_search(name.trimmed().toStdString(), query);
        });
        dialog->open();
    });
    if (!model_->kept_searches().empty()) {
        auto* forget = menu->addMenu(tr("Forget"));
        for (const auto& kept : model_->kept_searches())
            connect(forget->addAction(to_text(kept.name)), &QAction::triggered, this,
                    [this, name = kept.name] { model_->forget_search(name); });
    }
    menu->popup(search_->mapToGlobal(QPoint(search_->width() - 40, search_->height())));
}

void CatalogPage::choose_picture() {
    auto* dialog = new QFileDialog(this, tr("Find what looks like an image"));
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setFileMode(QFileDialog::ExistingFile);
    keep_folder(dialog, "picture");
    connect(dialog, &QFileDialog::fileSelected, this, [this](const QString& file) { find_by(std::filesystem::path(file.toStdString())); });
    dialog->open();
}

void CatalogPage::paste_picture() {
    const auto* clip = QApplication::clipboard()->mimeData();
    if (clip && clip->hasImage()) find_by(qvariant_cast<QImage>(clip->imageData()), tr("the pasted picture"));
    else if (clip && clip->hasUrls() && clip->urls().front().isLocalFile())
        find_by(std::filesystem::path(clip->urls().front().toLocalFile().toStdString()));
    else if (clip && clip->hasText() && search_->isVisible()) {
        search_->setFocus();
        search_->insert(clip->text());
    } else model_->refuse(tr("There is no picture in the clipboard."));
}

void CatalogPage::find_by(const QImage& picture, const QString& name) {
    model_->find_picture(picture,
                         [this, picture, name](Result<std::vector<PictureHit>> hits) { show_hits(std::move(hits), picture, name); });
}

void CatalogPage::find_by(const std::filesystem::path& file) {
    model_->find_picture(file, [this, file](Result<std::vector<PictureHit>> hits, const QImage& picture) {
        show_hits(std::move(hits), picture, to_text(file.filename()));
    });
}

void CatalogPage::show_hits(Result<std::vector<PictureHit>> hits, const QImage& picture, const QString& name) {
    if (!hits) return model_->complain(hits.error());
    // What is alike by chance only fills the page; a few are shown all the same.
    std::size_t count = 0;
    while (count < hits->size() && (count < 4 || (*hits)[count].score >= 0.6f)) ++count;
    hits->resize(count);
    hits_ = true;
    hits_picture_->setPixmap(QPixmap::fromImage(picture.scaled(52, 52, Qt::KeepAspectRatio, Qt::SmoothTransformation)));
    const bool sure = !hits->empty() && hits->front().score >= 0.85f;
    QString text = tr("What looks like %1, the most alike first.").arg(name);
    if (!sure) text += ' ' + tr("Nothing is very much like it.");
    if (model_->catalog()->unseen > 0) text += ' ' + tr("%L1 textures have not been looked at yet.").arg(model_->catalog()->unseen);
    hits_text_->setText(text);
    hits_row_->show();
    cards_->show_hits(*hits);
    show_counts();
    if (cards_->rowCount() > 0) contact_sheet_->setCurrentIndex(cards_->index(0));
    contact_sheet_->setFocus();
}

void CatalogPage::leave_hits() {
    if (!hits_) return;
    hits_ = false;
    hits_row_->hide();
    ask();
}

void CatalogPage::dragEnterEvent(QDragEnterEvent* event) {
    if (event->source()) return;  // our own, on its way out
    const auto* mime = event->mimeData();
    if (mime->hasImage() || (mime->hasUrls() && mime->urls().size() == 1)) event->acceptProposedAction();
}

void CatalogPage::dropEvent(QDropEvent* event) {
    const auto* mime = event->mimeData();
    event->acceptProposedAction();
    if (mime->hasUrls() && !mime->urls().isEmpty() && mime->urls().front().isLocalFile())
        find_by(std::filesystem::path(mime->urls().front().toLocalFile().toStdString()));
    else if (mime->hasImage()) find_by(qvariant_cast<QImage>(mime->imageData()), tr("the picture"));
}

bool CatalogPage::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress) return Page::eventFilter(watched, event);
    auto* key = static_cast<QKeyEvent*>(event);
    if (watched == search_ && (key->key() == Qt::Key_Down || key->key() == Qt::Key_Up)) {
        contact_sheet_->setFocus();
        return true;
    }
    if (watched == search_ && key->matches(QKeySequence::Paste) && QApplication::clipboard()->mimeData()->hasImage()) {
        paste_picture();
        return true;
    }
    if (key->key() == Qt::Key_Escape && hits_) {
        leave_hits();
        return true;
    }
    if (watched == search_ && key->key() == Qt::Key_Escape && !search_->text().isEmpty()) {
        search_->clear();
        return true;
    }
    if (watched == facet_list_) return Page::eventFilter(watched, event);
    // Typing anywhere in the contact sheet searches; a space opens a set.
    if (watched == contact_sheet_ && !key->text().isEmpty() && key->text()[0].isPrint() && key->key() != Qt::Key_Space &&
        !(key->modifiers() & (Qt::ControlModifier | Qt::AltModifier))) {
        search_->setFocus();
        search_->insert(key->text());
        return true;
    }
    return Page::eventFilter(watched, event);
}

}  // namespace skivet::app

#pragma once
// How textures go to the bench: as which file, what becomes of alpha, and what goes with them.
#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QListWidget>

#include "app/models/catalog_model.h"
#include "app/widgets/image_view.h"

namespace skivet::app {

class TakeWindow : public QDialog {
    Q_OBJECT
public:
    TakeWindow(QWidget* parent, CatalogModel* model, std::vector<std::size_t> items);

private:
    [[nodiscard]] QWidget* make_list();
    [[nodiscard]] QWidget* make_choices();
    /// Those that were asked for, with their sets when wanted.
    void refresh();
    void show_row(int row);
    void show_choices();
    [[nodiscard]] const CatalogItem* current() const;
    [[nodiscard]] ExportAs as() const;
    [[nodiscard]] bool in_parts() const { return parts_->isEnabled() && parts_->currentIndex() == 1; }
    void take();

    CatalogModel* model_;
    std::shared_ptr<const CatalogSnapshot> snapshot_;  ///< that the numbers are of
    std::vector<std::size_t> asked_, items_;
    QListWidget* list_;
    QLabel *title_, *why_, *alpha_words_;
    QCheckBox *sets_, *copies_;
    QComboBox *as_, *alpha_, *parts_;
    ImageView *picture_, *gray_;
    QString alpha_is_;
};

}  // namespace skivet::app

#pragma once
// Versions of the game as they were shipped: recorded under names, compared with; the textures that are other than in one, as they were and
// as they are.
#include <QDialog>
#include <QLineEdit>
#include <QListView>
#include <QStandardItemModel>

#include "app/models/shipped_model.h"
#include "app/widgets/image_view.h"
#include "app/widgets/titled_view.h"

namespace skivet::app {

class ShippedWindow : public QDialog {
    Q_OBJECT
public:
    ShippedWindow(QWidget* parent, ShippedModel* model);
    [[nodiscard]] QListView* versions() const { return versions_; }
    [[nodiscard]] QListView* changes() const { return changes_; }

private:
    QWidget* make_versions();
    QWidget* make_changes();
    void refresh();
    void show_change();

    ShippedModel* model_;
    QStandardItemModel *version_rows_, *change_rows_;
    QListView *versions_, *changes_;
    QLineEdit* name_;
    QWidget* what_;  ///< the list of changes and their pictures
    QLabel *title_, *words_, *nothing_;
    ImageView *before_, *now_;
    QAction *record_, *compare_, *forget_;
};

}  // namespace skivet::app

#pragma once
// After an update of the game: each piece with what it was, what one made of it, what the game has now and what would go in; one press puts
// in again what can.
#include <QDialog>
#include <QListView>
#include <QStandardItemModel>

#include "app/models/update_model.h"
#include "app/widgets/image_view.h"
#include "app/widgets/titled_view.h"

namespace skivet::app {

class UpdateWindow : public QDialog {
    Q_OBJECT
public:
    UpdateWindow(QWidget* parent, UpdateModel* model);
    [[nodiscard]] QListView* list() const { return list_; }

private:
    void refresh();
    void show_piece();
    void count();
    [[nodiscard]] const UpdatedPiece* current() const;

    UpdateModel* model_;
    QStandardItemModel* rows_;
    QListView* list_;
    ImageView *was_, *ours_, *game_, *becomes_;
    QLabel *words_, *counts_;
    QAction *put_, *over_;
    QWidget* over_button_;
};

}  // namespace skivet::app

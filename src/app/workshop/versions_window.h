#pragma once
// What was brought back of a piece, one save after the other, beside what its file holds now; one can go back to any of them.
#include <QDialog>
#include <QListWidget>

#include "app/models/bench_model.h"
#include "app/widgets/image_view.h"

namespace skivet::app {

class VersionsWindow : public QDialog {
    Q_OBJECT
public:
    VersionsWindow(QWidget* parent, BenchModel* model, PieceId piece);
    [[nodiscard]] QListWidget* list() const { return list_; }

private:
    void refresh();
    void show_version(int row);
    BenchModel* model_;
    PieceId piece_;
    std::vector<Version> versions_;
    QListWidget* list_;
    ImageView *then_, *now_;
    QLabel* room_;
    QAction *back_, *clear_;
};

}  // namespace skivet::app

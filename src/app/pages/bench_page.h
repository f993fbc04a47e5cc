#pragma once
#include <QListView>
#include <QStackedWidget>
#include <QStandardItemModel>

#include "app/models/bench_model.h"
#include "app/pages/page.h"
#include "app/widgets/image_view.h"

namespace skivet::app {

/// The pieces taken for work: each with its file, its state, and what to do next.
class BenchPage : public Page {
    Q_OBJECT
public:
    explicit BenchPage(BenchModel* model, QWidget* parent = nullptr);
    void entered() override;
    /// The chosen piece; 0: none.
    [[nodiscard]] PieceId current_piece() const;
    void choose_piece(PieceId piece);
    /// All that are chosen, the current one first.
    [[nodiscard]] std::vector<PieceId> chosen_pieces() const;
    [[nodiscard]] QListView* list() const { return list_; }

private:
    void refresh();
    void show_piece();

    BenchModel* model_;
    QStackedWidget* stack_;
    QListView* list_;
    QStandardItemModel* rows_;
    QLabel *title_, *facts_, *file_, *state_text_, *touches_;
    ImageView *before_, *after_;
    QAction *edit_, *fitting_, *away_, *again_, *touch_;
};

}  // namespace skivet::app

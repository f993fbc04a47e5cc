#pragma once
#include <QListView>
#include <QStackedWidget>
#include <QStandardItemModel>

#include "app/pages/page.h"
#include "app/widgets/image_view.h"

namespace skivet::app {

/// The pieces taken for work: each with its file, its state, and what to do next.
class BenchPage : public Page {
    Q_OBJECT
public:
    BenchPage(Session* session, QWidget* parent = nullptr);
    void entered() override;
    [[nodiscard]] int current_piece() const;
    void choose_piece(int piece);
    [[nodiscard]] QListView* list() const { return list_; }

signals:
    /// Wants this piece on the fitting page.
    void fit_piece(int piece);

private:
    void refresh();
    void show_piece();

    QStackedWidget* stack_;
    QListView* list_;
    QStandardItemModel* rows_;
    QLabel *title_, *facts_, *file_, *state_text_;
    ImageView *before_, *after_;
    QAction *edit_, *fitting_, *away_, *again_;
};

}  // namespace skivet::app

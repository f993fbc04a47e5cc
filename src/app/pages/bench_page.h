#pragma once
#include <QComboBox>
#include <QLineEdit>
#include <QListView>
#include <QStackedWidget>

#include "app/models/piece_rows.h"
#include "app/pages/page.h"
#include "app/widgets/image_view.h"

namespace skivet::app {

/// The pieces taken for work: each with its file, its state, and what to do next.
class BenchPage : public Page {
    Q_OBJECT
public:
    explicit BenchPage(BenchModel* model, QWidget* parent = nullptr);
    void entered() override;
    [[nodiscard]] QJsonObject view() const override { return {{QStringLiteral("piece"), int(current_piece())}}; }
    void restore(const QJsonObject& view) override { choose_piece(PieceId(view.value(QStringLiteral("piece")).toInt())); }
    /// The chosen piece; 0: none.
    [[nodiscard]] PieceId current_piece() const;
    void choose_piece(PieceId piece);
    /// All that are chosen, the current one first.
    [[nodiscard]] std::vector<PieceId> chosen_pieces() const;
    [[nodiscard]] QListView* list() const { return list_; }

    /// What the rows are narrowed down by; shown once there are many.
    [[nodiscard]] QWidget* filters() const { return filters_; }

signals:
    /// Wants a folder of pictures to be matched.
    void bring_wanted();

private:
    [[nodiscard]] QWidget* make_left();
    [[nodiscard]] QWidget* make_right();
    void refresh();
    void show_piece();
    void show_totals();
    void show_other();
    void take_again();

    BenchModel* model_;
    QStackedWidget* stack_;
    QListView* list_;
    PieceRows* rows_;
    QWidget* filters_;
    QLineEdit* words_;
    QComboBox *states_, *order_;
    PieceId shown_ = 0;  ///< kept when the rows come anew
    int shown_row_ = 0;
    QLabel *totals_, *title_, *facts_, *file_, *state_text_, *touches_, *other_text_;
    QFrame* other_;
    ImageView *before_, *after_;
    QAction *edit_, *fitting_, *away_, *again_, *touch_, *versions_, *folder_, *bring_;
};

}  // namespace skivet::app

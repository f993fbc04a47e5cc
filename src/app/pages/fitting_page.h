#pragma once
#include <QComboBox>
#include <QStackedWidget>
#include <QVBoxLayout>

#include "app/models/bench_model.h"
#include "app/pages/page.h"
#include "app/widgets/image_view.h"

namespace skivet::app {

class MipRows;

/// Original, edited and what the game will get, with one view; the fit list.
class FittingPage : public Page {
    Q_OBJECT
public:
    explicit FittingPage(BenchModel* model, QWidget* parent = nullptr);
    void entered() override;
    void show_piece(PieceId piece);
    /// 0: none.
    [[nodiscard]] PieceId piece() const { return piece_; }
    [[nodiscard]] ImageView* result_view() const { return views_[2]; }

private:
    void refresh_choices();
    void update_view();
    void show_findings(const FittedPiece& fitted);
    [[nodiscard]] bool is_choosable(const Piece& piece) const;

    BenchModel* model_;
    PieceId piece_ = 0;
    QStackedWidget* stack_;
    QComboBox* choice_;
    std::vector<PieceId> choices_;  ///< one per line of the choice
    ImageView* views_[3];
    QLabel *result_text_, *blocks_text_, *file_text_, *mip_text_, *third_title_;
    MipRows* mips_;
    QVBoxLayout* cards_;
    QAction *difference_, *blocks_, *mend_all_, *next_, *touch_;
};

}  // namespace skivet::app

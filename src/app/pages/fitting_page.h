#pragma once
#include <QListView>
#include <QStackedWidget>
#include <QVBoxLayout>

#include "app/models/kin_model.h"
#include "app/models/piece_rows.h"
#include "app/pages/page.h"
#include "app/widgets/compare_view.h"

namespace skivet::app {

class BlockPanel;
class ChannelRow;
class MipRows;
class TryOnModel;
class TryOnPanel;

/// Original, edited, what the game will get and their difference, with one view; the pieces and the fit list of the one that is shown.
class FittingPage : public Page {
    Q_OBJECT
public:
    explicit FittingPage(BenchModel* model, KinModel* kin = nullptr, TryOnModel* try_on = nullptr, QWidget* parent = nullptr);
    void entered() override;
    void show_piece(PieceId piece);
    /// 0: none.
    [[nodiscard]] PieceId piece() const { return piece_; }
    [[nodiscard]] ImageView* result_view() const { return compare_->view(2); }
    [[nodiscard]] CompareView* compare() const { return compare_; }
    [[nodiscard]] QListView* list() const { return list_; }
    /// The piece on its object, instead of flat pictures.
    void show_object(bool on);
    [[nodiscard]] bool is_on_object() const { return sides_->currentIndex() == 1; }
    /// Null where there is nothing to try textures on with.
    [[nodiscard]] TryOnPanel* try_on() const { return try_on_panel_; }
    /// All that are chosen, the one that is shown first.
    [[nodiscard]] std::vector<PieceId> chosen_pieces() const;

private:
    [[nodiscard]] QWidget* make_left();
    [[nodiscard]] QWidget* make_right();
    void refresh();
    void update_view();
    void update_pictures();
    void update_mend_all();
    void show_findings(const std::vector<Finding>& findings, const std::vector<KinFinding>& kin);
    [[nodiscard]] QWidget* make_card_of(const Finding& finding, const std::vector<QPushButton*>& offers);
    [[nodiscard]] std::vector<QPushButton*> offers_of(const Finding& finding);
    [[nodiscard]] std::vector<QPushButton*> offers_of(const KinFinding& finding);
    [[nodiscard]] std::vector<KinFinding> kin_findings() const;
    /// Menu of the formats the texture could have, each with its price.
    void show_formats(const QPoint& at);
    void set_layout(CompareView::Layout layout);
    void show_islands();
    void choose_cell(std::optional<std::size_t> cell, bool go_there);

    BenchModel* model_;
    FitModel* fits_;
    KinModel* kin_;  ///< null: nobody looks for what goes with a piece
    PieceId piece_ = 0;
    std::shared_ptr<const FittedPiece> fitted_;
    FitLook look_;
    PieceId cards_of_ = 0;  ///< whose findings the cards are
    std::vector<std::size_t> offers_;
    std::vector<std::string> kin_shown_;  ///< headlines and details of the cards about what goes with it
    QStackedWidget *stack_, *sides_;
    TryOnModel* try_on_;
    TryOnPanel* try_on_panel_ = nullptr;
    PieceRows* rows_;
    QListView* list_;
    CompareView* compare_;
    ChannelRow* channels_;
    BlockPanel* block_;
    MipRows* mips_;
    QLabel *mip_text_, *list_title_;
    QVBoxLayout* cards_;
    QAction *all_, *one_, *split_, *flip_, *object_, *islands_, *blocks_, *loss_, *zoom_, *of_, *amplify_, *worst_, *mend_all_, *next_,
        *touch_;
};

}  // namespace skivet::app

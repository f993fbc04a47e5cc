#include "app/pages/fitting_page.h"

#include <cmath>
#include <QHBoxLayout>
#include <QPainter>

#include "app/theme/theme.h"
#include "app/workshop/touch_window.h"

namespace skivet::app {

/// Two rows of levels, the game's and the new ones, with the share of kept blocks below.
class MipRows : public QWidget {
public:
    explicit MipRows(QWidget* parent = nullptr) : QWidget(parent) { setMinimumHeight(150); }
    void show_fit(std::shared_ptr<const FittedPiece> fitted) {
        fitted_ = std::move(fitted);
        update();
    }

protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const auto& c = colors();
        const double left = 68, row_height = (height() - 22) / 2.0;
        const auto row = [&](const std::vector<QImage>& images, double y, const QString& name) {
            p.setPen(c.soft);
            p.setFont(text_font(11));
            p.drawText(QRectF(0, y, left, row_height - 6), int(Qt::AlignVCenter | Qt::AlignLeft), name);
            const double cell = cell_width();
            for (std::size_t i = 0; i < images.size() && i < 8; ++i) {
                const QRectF well(left + double(i) * (cell + 6), y, cell, row_height - 6);
                draw_in_well(p, well, {});
                const double room = std::min(well.width(), well.height()) - 10;
                const double side = std::max(3.0, room / std::pow(1.6, double(i)));
                const double scale = side / std::max(images[i].width(), images[i].height());
                QRectF to(0, 0, images[i].width() * scale, images[i].height() * scale);
                to.moveCenter(well.center());
                if (images[i].hasAlphaChannel()) p.fillRect(to, checker_brush());
                p.setRenderHint(QPainter::SmoothPixmapTransform, scale < 1);
                p.drawImage(to, images[i]);
            }
        };
        if (!fitted_ || !fitted_->made.fit) return;
        row(fitted_->pictures.original_mips, 0, tr("the game's"));
        if (fitted_->pictures.result_mips.empty()) return;
        row(fitted_->pictures.result_mips, row_height, tr("new"));
        p.setFont(text_font(11));
        p.setPen(c.soft);
        p.drawText(QRectF(0, height() - 20, left, 18), int(Qt::AlignVCenter), tr("kept"));
        p.setFont(number_font(11));
        const auto& levels = fitted_->made.fit->levels;
        for (std::size_t i = 0; i < levels.size() && i < 8 && i < fitted_->pictures.result_mips.size(); ++i) {
            // "100 %" only when every block was kept.
            const auto share = levels[i].blocks ? levels[i].kept * 100 / levels[i].blocks : 100;
            const auto text = levels[i].kept == 0                                ? tr("new")
                              : levels[i].kept < levels[i].blocks && share >= 99 ? tr("99 %")
                                                                                 : tr("%1 %").arg(share);
            p.drawText(QRectF(left + double(i) * (cell_width() + 6), height() - 20, cell_width(), 18), Qt::AlignCenter, text);
        }
    }

private:
    [[nodiscard]] double cell_width() const {
        const auto count = std::max<std::size_t>(1, std::min<std::size_t>(8, fitted_ ? fitted_->pictures.original_mips.size() : 1));
        return std::min(120.0, (width() - 68.0 + 6) / double(count) - 6);
    }
    std::shared_ptr<const FittedPiece> fitted_;
};

FittingPage::FittingPage(BenchModel* model, QWidget* parent) : Page(parent), model_(model) {
    difference_ = add_action(tr("difference"), Qt::Key_D, tr("Show where the game's new texture differs, four times amplified"),
                             [this] { update_view(); });
    difference_->setCheckable(true);
    blocks_ = add_action(tr("new blocks"), Qt::Key_K, tr("Outline the blocks that are encoded anew"), [this] { update_view(); });
    blocks_->setCheckable(true);
    blocks_->setChecked(true);
    auto* one = add_action(tr("1:1"), Qt::Key_Z, tr("One texel a pixel, or the whole picture"), [this] { views_[0]->toggle_one_to_one(); });
    mend_all_ = add_action(tr("Mend all"), Qt::Key_M, tr("Press every mend of the list"), [this] {
        const auto fitted = model_->fit(piece_);
        if (!fitted || !fitted->made.fit) return;
        MendSet due;
        for (const auto& finding : fitted->made.fit->findings)
            if (finding.mend && finding.grade >= Grade::mend) due.add(*finding.mend);
        model_->mend(piece_, due);
    });
    touch_ = add_action(tr("Touch up"), Qt::Key_T, tr("Change the piece without a paint program"), [this] {
        if (piece_ != 0) (new TouchWindow(this, model_, {piece_}))->open();
    });
    next_ = add_action(tr("To delivery"), Qt::Key_Return, tr("See what will be written"), [this] { emit go_to(PageId::delivery); });
    auto* bench =
        add_action(tr("To the bench"), QKeySequence(Qt::CTRL | Qt::Key_B), tr("See the pieces"), [this] { emit go_to(PageId::bench); });

    auto* left = make_panel();
    auto* box = new QVBoxLayout(left);
    box->setContentsMargins(12, 12, 12, 10);
    box->setSpacing(6);
    auto* shared = new SharedView(this);
    auto* pictures = new QHBoxLayout;
    pictures->setSpacing(12);
    const QString titles[] = {tr("The game's"), tr("Yours"), tr("What the game will get")};
    for (int i = 0; i < 3; ++i) {
        auto* column = new QVBoxLayout;
        auto* head = new QHBoxLayout;
        auto* title = make_label(titles[i], "strong");
        title->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
        head->addWidget(title, 1);
        if (i == 2) {
            third_title_ = title;
            result_text_ = make_label({}, "soft");
            result_text_->setFont(number_font(11));
            head->addWidget(result_text_);
        }
        column->addLayout(head);
        views_[i] = new ImageView(shared);
        views_[i]->setObjectName(QStringLiteral("fit%1").arg(i));
        views_[i]->setAccessibleName(titles[i]);
        column->addWidget(views_[i], 1);
        pictures->addLayout(column, 1);
    }
    box->addLayout(pictures, 3);
    auto* modes = new QHBoxLayout;
    modes->addWidget(make_label(tr("one view: drag, wheel"), "soft"));
    modes->addStretch();
    for (auto* action : {difference_, blocks_, one}) modes->addWidget(new Button(action, Button::Look::toggle));
    box->addLayout(modes);
    auto* mip_head = new QHBoxLayout;
    mip_head->addWidget(make_label(tr("MIPS"), "heading"));
    mip_head->addStretch();
    mip_text_ = make_label({}, "soft");
    mip_head->addWidget(mip_text_);
    box->addLayout(mip_head);
    mips_ = new MipRows;
    box->addWidget(mips_, 2);
    auto* summary = make_card();
    auto* summary_box = new QVBoxLayout(summary);
    summary_box->setContentsMargins(14, 8, 14, 8);
    blocks_text_ = new QLabel;
    file_text_ = make_label({}, "soft", true);
    summary_box->addWidget(blocks_text_);
    summary_box->addWidget(file_text_);
    box->addWidget(summary);

    auto* right = make_panel();
    right->setFixedWidth(352);
    auto* right_box = new QVBoxLayout(right);
    right_box->setContentsMargins(12, 12, 12, 10);
    right_box->addWidget(make_label(tr("FIT LIST"), "heading"));
    choice_ = new QComboBox;
    choice_->setObjectName(QStringLiteral("piece"));
    choice_->setAccessibleName(tr("Piece"));
    choice_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    auto* chosen = new QHBoxLayout;
    chosen->addWidget(choice_, 1);
    chosen->addWidget(new Button(touch_, Button::Look::plain));
    right_box->addLayout(chosen);
    cards_ = add_scrolling_column(right_box);
    auto* bottom = new QHBoxLayout;
    bottom->addWidget(new Button(mend_all_, Button::Look::plain));
    bottom->addStretch();
    bottom->addWidget(new Button(next_, Button::Look::primary));
    right_box->addLayout(bottom);

    auto* full = new QWidget;
    auto* columns = new QHBoxLayout(full);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->setSpacing(16);
    columns->addWidget(left, 1);
    columns->addWidget(right);
    stack_ =
        make_page_stack(this,
                        make_empty_state(tr("Nothing to fit yet"), tr("Edit a piece of the bench and save it; it appears here by itself."),
                                         new Button(bench, Button::Look::primary)),
                        full);

    connect(choice_, &QComboBox::activated, this, [this](int index) { show_piece(choices_[std::size_t(index)]); });
    connect(model, &BenchModel::pieces_changed, this, [this] {
        refresh_choices();
        if (isVisible()) update_view();
    });
    connect(model, &BenchModel::fit_ready, this, [this](PieceId piece) {
        if (piece == piece_ && isVisible()) update_view();
    });
    refresh_choices();
}

bool FittingPage::is_choosable(const Piece& piece) const { return piece.state != PieceState::on_the_bench; }

void FittingPage::entered() {
    refresh_choices();
    update_view();
    views_[2]->setFocus();
}

void FittingPage::show_piece(PieceId piece) {
    piece_ = piece;
    refresh_choices();
    update_view();
}

void FittingPage::refresh_choices() {
    choice_->clear();
    choices_.clear();
    PieceId best = 0;
    for (const auto& piece : model_->pieces()) {
        if (!is_choosable(piece)) continue;
        choices_.push_back(piece.id);
        choice_->addItem(tr("%1 — %2").arg(to_text(piece.name()), to_text(name_of(piece.state))));
        if (best == 0 && piece.state != PieceState::out && piece.state != PieceState::delivered) best = piece.id;
    }
    if (std::find(choices_.begin(), choices_.end(), piece_) == choices_.end())
        piece_ = best != 0 ? best : choices_.empty() ? 0 : choices_.front();
    const auto at = std::find(choices_.begin(), choices_.end(), piece_);
    if (at != choices_.end()) choice_->setCurrentIndex(int(at - choices_.begin()));
    stack_->setCurrentIndex(piece_ == 0 ? 0 : 1);
    next_->setEnabled(piece_ != 0);
}

void FittingPage::update_view() {
    if (piece_ == 0) return;
    const auto fitted = model_->fit(piece_);
    if (!fitted) return;  // fit_ready comes back here
    mips_->show_fit(fitted);
    show_findings(*fitted);
    if (!fitted->made.fit) {
        for (auto* view : views_) view->set_message(tr("The file cannot be read yet."));
        return;
    }
    const auto& pictures = fitted->pictures;
    views_[0]->set_image(pictures.original);
    views_[1]->set_image(pictures.edited);
    const bool have = !pictures.result.isNull();
    if (have) views_[2]->set_image(difference_->isChecked() ? pictures.difference : pictures.result);
    else views_[2]->set_message(tr("The game could not read this yet. See the fit list."));
    third_title_->setText(difference_->isChecked() && have ? tr("Difference ×4") : tr("What the game will get"));
    views_[2]->set_blocks(blocks_->isChecked() ? pictures.changed_blocks : QImage());
    const auto& fit = *fitted->made.fit;
    const auto decibels = [](double value) { return std::isinf(value) ? tr("the same as yours") : tr("%1 dB").arg(value, 0, 'f', 1); };
    result_text_->setText(have ? decibels(fit.quality.psnr_rgb) : QString());
    mip_text_->setText(tr("made with: %1").arg(to_text(describe(fit.mips))));
    blocks_text_->setText(
        have ? tr("Blocks: %1 kept as they were · %2 new").arg(to_text(grouped(fit.kept_blocks())), to_text(grouped(fit.new_blocks())))
             : tr("Nothing is encoded yet."));
    file_text_->setText(
        have ? tr("File: %1 bytes. You changed %2 texels; what the game gets is %3 from your picture.")
                   .arg(to_text(grouped(fit.file.size())), to_text(grouped(fit.change.changed_texels)),
                        std::isinf(fit.quality.psnr_rgb) ? tr("no different") : tr("%1 dB").arg(fit.quality.psnr_rgb, 0, 'f', 1))
             : QString());
}

void FittingPage::show_findings(const FittedPiece& fitted) {
    clear_column(cards_);
    auto findings = fitted.made.fit ? fitted.made.fit->findings : std::vector<Finding>();
    if (!fitted.made.fit)
        findings = {{Grade::blocks, tr("The file cannot be read").toStdString(), fitted.made.fit.error().message(), std::nullopt}};
    bool any_mend = false;
    for (const auto& finding : findings) {
        auto* card = make_card();
        auto* row = new QHBoxLayout(card);
        row->setContentsMargins(12, 12, 12, 12);
        QPixmap glyph(16 * 2, 16 * 2);
        glyph.setDevicePixelRatio(2);
        glyph.fill(Qt::transparent);
        QPainter p(&glyph);
        draw_state(p, QPointF(8, 8),
                   finding.grade >= Grade::mend   ? PieceState::needs_mend
                   : finding.grade == Grade::note ? PieceState::changed
                                                  : PieceState::fits);
        p.end();
        auto* icon = new QLabel;
        icon->setPixmap(glyph);
        row->addWidget(icon, 0, Qt::AlignTop);
        auto* text = new QVBoxLayout;
        text->addWidget(make_label(to_text(finding.headline), "strong", true));
        text->addWidget(make_label(to_text(finding.detail), "soft", true));
        if (finding.mend) {
            auto* button = new Button(to_text(info(*finding.mend).words), Button::Look::plain);
            button->setObjectName(QStringLiteral("mend"));
            connect(button, &QPushButton::clicked, this, [this, mend = *finding.mend] { model_->mend(piece_, {mend}); });
            text->addWidget(button, 0, Qt::AlignLeft);
            any_mend = true;
        }
        row->addLayout(text, 1);
        cards_->addWidget(card);
    }
    cards_->addStretch();
    mend_all_->setEnabled(any_mend);
}

}  // namespace skivet::app

#include "app/pages/fitting_page.h"

#include <QHBoxLayout>
#include <QMenu>
#include <QPainter>
#include <QStyledItemDelegate>

#include "app/language.h"
#include "app/pages/block_panel.h"
#include "app/pages/mip_rows.h"
#include "app/pages/try_on_panel.h"
#include "app/theme/theme.h"
#include "app/widgets/channel_row.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/row_frame.h"
#include "app/workshop/touch_window.h"
#include "base/text.h"

namespace skivet::app {
namespace {

constexpr int row_height = 44, most_rows = 5;

/// A piece in one line: what it looks like now, its name, its state.
class PieceLine : public QStyledItemDelegate {
public:
    PieceLine(BenchModel* model, QObject* parent) : QStyledItemDelegate(parent), model_(model) {}
    [[nodiscard]] QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {200, row_height}; }
    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const auto* piece = model_->piece(index.data(PieceRows::IdRole).toULongLong());
        if (!piece) return;
        const auto& c = colors();
        p->save();
        const auto box = draw_row_frame(*p, option, 4);
        draw_in_well(*p, QRectF(box.x() + 4, box.y() + 4, 31, 31), model_->picture(piece->id, true), 2);
        const auto state = spoken(name_of(piece->state));
        p->setFont(text_font(12));
        const int wide = p->fontMetrics().horizontalAdvance(state) + 8;
        p->setPen(piece->state == PieceState::needs_mend ? c.mark : c.soft);
        p->drawText(QRectF(box.right() - wide, box.y(), wide - 6, box.height()), int(Qt::AlignVCenter | Qt::AlignRight), state);
        draw_state(*p, QPointF(box.right() - wide - 12, box.center().y()), piece->state);
        p->setFont(text_font(13, option.state & QStyle::State_Selected));
        p->setPen(c.ink);
        const QRectF name(box.x() + 44, box.y(), box.width() - wide - 72, box.height());
        p->drawText(name, int(Qt::AlignVCenter | Qt::AlignLeft),
                    p->fontMetrics().elidedText(to_text(piece->name()), Qt::ElideMiddle, int(name.width())));
        p->restore();
    }

private:
    BenchModel* model_;
};

QAction* toggled(QAction* action, bool on = false) {
    action->setCheckable(true);
    action->setChecked(on);
    return action;
}

QRect to_qrect(const Rect& rect) { return {int(rect.x), int(rect.y), int(rect.width), int(rect.height)}; }

}  // namespace

FittingPage::FittingPage(BenchModel* model, KinModel* kin, TryOnModel* try_on, QWidget* parent)
    : Page("fitting", parent), model_(model), fits_(&model->fits()), kin_(kin), try_on_(try_on) {
    using Layout = CompareView::Layout;
    all_ = toggled(add_action("four", tr("four"), Qt::Key_0, tr("The game's, yours, what the game will get, and what differs"),
                              [this] { set_layout(Layout::all); }),
                   true);
    one_ =
        toggled(add_action("one", tr("one"), Qt::Key_1, tr("One picture, as large as there is room"), [this] { set_layout(Layout::one); }));
    split_ = toggled(add_action("split", tr("split"), Qt::Key_S, tr("Two pictures with a line between; drag it, or press [ and ]"),
                                [this] { set_layout(Layout::split); }));
    flip_ = add_action("flip", tr("flip"), Qt::Key_F, tr("The next picture at the same spot"), [this] {
        if (is_on_object()) try_on_panel_->flip();
        else if (compare_->layout_mode() == Layout::all) set_layout(Layout::one);
        else compare_->flip();
    });
    object_ =
        toggled(add_action("on-the-object", tr("on the object"), Qt::Key_O,
                           tr("Where the texture lies on its mesh, and how it looks there"), [this] { show_object(!is_on_object()); }));
    object_->setVisible(try_on_ != nullptr);
    islands_ = toggled(add_action("islands", tr("islands"), Qt::Key_I,
                                  tr("Where the mesh lies on the texture; mirrored ones are orange, shared ones green"), [this] {
                                      if (!is_on_object()) return show_islands();
                                      islands_->setChecked(!islands_->isChecked());  // the panel has its own
                                      try_on_panel_->toggle_islands();
                                  }));
    islands_->setVisible(try_on_ != nullptr);
    blocks_ = toggled(add_action("new-blocks", tr("new blocks"), Qt::Key_K, tr("Outline the blocks that are encoded anew"),
                                 [this] { update_pictures(); }),
                      true);
    loss_ = toggled(add_action("loss", tr("loss"), Qt::Key_L, tr("Tint the new blocks by how much of your picture they lost"),
                               [this] { update_pictures(); }));
    zoom_ = add_action("one-to-one", tr("1:1"), Qt::Key_Z, tr("One texel a pixel, or the whole picture"),
                       [this] { compare_->toggle_one_to_one(); });
    of_ = toggled(add_action("to-yours", tr("to yours"), Qt::Key_D,
                             tr("The difference between your picture and what the game will get, instead of to the game's"), [this] {
                                 look_.loss = of_->isChecked();
                                 update_pictures();
                             }));
    amplify_ = add_action("amplify", tr("×4"), Qt::Key_X, tr("How much the difference is amplified"), [this] {
        look_.amplify = look_.amplify == 1 ? 4 : look_.amplify == 4 ? 16 : 1;
        amplify_->setText(tr("×%1").arg(look_.amplify));
        update_pictures();
    });
    worst_ = add_action("next-lost-block", tr("Next lost block"), Qt::Key_W, tr("Go to the block that lost most, then to the next"),
                        [this] { choose_cell(block_->next_lost(), true); });
    mend_all_ = add_action("mend-all", tr("Mend all"), Qt::Key_M, tr("Press every mend of the chosen pieces' lists"),
                           [this] { fits_->mend_all(chosen_pieces()); });
    touch_ = add_action("touch-up", tr("Touch up"), Qt::Key_T, tr("Change the chosen pieces without a paint program"), [this] {
        if (piece_ != 0) (new TouchWindow(this, model_, chosen_pieces()))->open();
    });
    next_ = add_action("to-delivery", tr("To delivery"), Qt::Key_Return, tr("See what will be written"),
                       [this] { emit go_to(PageId::delivery); });
    auto* bench = add_action("to-the-bench", tr("To the bench"), QKeySequence(Qt::CTRL | Qt::Key_B), tr("See the pieces"),
                             [this] { emit go_to(PageId::bench); });

    auto* full = new QWidget;
    auto* columns = new QHBoxLayout(full);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->setSpacing(16);
    columns->addWidget(make_left(), 1);
    columns->addWidget(make_right());
    stack_ =
        make_page_stack(this,
                        make_empty_state(tr("Nothing to fit yet"), tr("Edit a piece of the bench and save it; it appears here by itself."),
                                         new Button(bench, Button::Look::primary)),
                        full);

    connect(list_->selectionModel(), &QItemSelectionModel::currentChanged, this, [this](const QModelIndex& now) {
        if (const auto id = rows_->id(now.row()); id != 0 && id != piece_) show_piece(id);
    });
    connect(list_->selectionModel(), &QItemSelectionModel::selectionChanged, this, &FittingPage::update_mend_all);
    connect(model, &BenchModel::pieces_changed, this, &FittingPage::refresh);
    connect(model, &BenchModel::picture_ready, this, [this] { list_->viewport()->update(); });
    connect(fits_, &FitModel::ready, this, [this](PieceId piece) {
        if (piece == piece_ && isVisible()) update_view();
    });
    connect(fits_, &FitModel::read, this, [this](PieceId piece, const QString&, const QImage& yours) {
        if (piece != piece_ || !isVisible() || yours.isNull()) return;
        compare_->set_titles({tr("The game's"), tr("Yours"), tr("The game gets"), tr("Difference")});
        compare_->set_pictures({compare_->view(0)->image(), yours, {}, {}}, tr("Encoding…"));
    });
    if (try_on_)
        connect(try_on_, &TryOnModel::scene_changed, this,
                [this] { compare_->set_overlay(islands_->isChecked() && !try_on_->is_plain() ? try_on_->overlay() : nullptr); });
    if (kin_)
        connect(kin_, &KinModel::ready, this, [this](PieceId piece) {
            if (piece == piece_ && isVisible()) update_view();
        });
    refresh();
}

QWidget* FittingPage::make_left() {
    auto* left = make_panel();
    auto* box = new QVBoxLayout(left);
    box->setContentsMargins(12, 10, 12, 10);
    box->setSpacing(6);
    auto* into = box;
    const auto row_of = [&](std::initializer_list<QAction*> first, std::initializer_list<QAction*> last, QWidget* before) {
        auto* row = new FlowRow;
        row->setSpacing(5);
        if (before) row->addWidget(before);
        for (auto* action : first) row->addWidget(new Button(action, Button::Look::toggle));
        row->addStretch();
        for (auto* action : last) row->addWidget(new Button(action, Button::Look::toggle));
        into->addLayout(row);
    };
    row_of({all_, one_, split_, flip_, object_}, {islands_, blocks_, loss_, zoom_}, nullptr);
    sides_ = new QStackedWidget;
    box->addWidget(sides_, 1);
    auto* flat = new QWidget;
    sides_->addWidget(flat);
    if (try_on_) {
        try_on_panel_ = new TryOnPanel(try_on_);
        sides_->addWidget(try_on_panel_);
    }
    box = into = new QVBoxLayout(flat);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(6);
    compare_ = new CompareView;
    for (std::size_t i = 0; i < CompareView::most; ++i) compare_->view(i)->setObjectName(QStringLiteral("fit%1").arg(i));
    connect(compare_, &CompareView::clicked, this, [this](QPoint texel) {
        if (!fitted_ || !fitted_->made.fit || fitted_->made.fit->blocks.is_new.empty()) return;
        const auto cell = fitted_->made.fit->blocks.at(std::uint32_t(texel.x()), std::uint32_t(texel.y()));
        choose_cell(block_->cell() == cell ? std::nullopt : std::optional(cell), false);
    });
    box->addWidget(compare_, 1);
    channels_ = new ChannelRow;
    connect(channels_, &ChannelRow::chosen, this, [this](Channels channels) {
        look_.channels = channels;
        update_pictures();
    });
    row_of({}, {of_, amplify_}, channels_);
    auto* mip_head = new QHBoxLayout;
    mip_head->addWidget(make_label(tr("MIPS"), "heading"));
    mip_text_ = make_elided_label("soft");
    mip_text_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    mip_head->addWidget(mip_text_, 1);
    box->addLayout(mip_head);
    mips_ = new MipRows;
    box->addWidget(mips_);
    auto* card = make_card();
    auto* inside = new QVBoxLayout(card);
    inside->setContentsMargins(0, 0, 0, 0);
    block_ = new BlockPanel;
    inside->addWidget(block_);
    box->addWidget(card);
    return left;
}

QWidget* FittingPage::make_right() {
    auto* right = make_panel();
    right->setFixedWidth(352);
    auto* box = new QVBoxLayout(right);
    box->setContentsMargins(12, 12, 12, 10);
    auto* head = new QHBoxLayout;
    head->addWidget(make_label(tr("PIECES"), "heading"));
    head->addStretch();
    head->addWidget(new Button(touch_, Button::Look::plain));
    box->addLayout(head);
    rows_ = new PieceRows(model_, PieceRows::Order::need, this);
    list_ = new QListView;
    list_->setObjectName(QStringLiteral("fits"));
    list_->setAccessibleName(tr("Pieces"));
    list_->setModel(rows_);
    list_->setItemDelegate(new PieceLine(model_, list_));
    list_->setUniformItemSizes(true);
    list_->setSelectionMode(QAbstractItemView::ExtendedSelection);
    list_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    box->addWidget(list_);
    list_title_ = make_label(tr("FIT LIST"), "heading");
    box->addWidget(list_title_);
    cards_ = add_scrolling_column(box);
    auto* bottom = new FlowRow;
    bottom->addWidget(new Button(mend_all_, Button::Look::plain));
    bottom->addStretch();
    bottom->addWidget(new Button(next_, Button::Look::primary));
    box->addLayout(bottom);
    return right;
}

void FittingPage::entered() {
    refresh();
    list_->setFocus();
}

std::vector<PieceId> FittingPage::chosen_pieces() const {
    std::vector<PieceId> out;
    if (piece_ != 0) out.push_back(piece_);
    for (const auto& index : list_->selectionModel()->selectedRows())
        if (const auto id = rows_->id(index.row()); id != 0 && id != piece_) out.push_back(id);
    return out;
}

void FittingPage::show_piece(PieceId piece) {
    piece_ = piece;
    refresh();
}

void FittingPage::refresh() {
    if (rows_->row(piece_) < 0) piece_ = rows_->id(0);
    stack_->setCurrentIndex(piece_ == 0 ? 0 : 1);
    next_->setEnabled(piece_ != 0);
    list_->setFixedHeight(std::clamp(rows_->rowCount(), 1, most_rows) * row_height + 2);
    if (const int row = rows_->row(piece_); row >= 0 && list_->currentIndex().row() != row) list_->setCurrentIndex(rows_->index(row));
    if (isVisible()) update_view();
}

void FittingPage::show_object(bool on) {
    if (!try_on_panel_) return;
    sides_->setCurrentIndex(on ? 1 : 0);
    object_->setChecked(on);
    const auto layout = compare_->layout_mode();
    all_->setChecked(!on && layout == CompareView::Layout::all);
    one_->setChecked(!on && layout == CompareView::Layout::one);
    split_->setChecked(!on && layout == CompareView::Layout::split);
    for (auto* action : {blocks_, loss_, zoom_, worst_}) action->setVisible(!on);  // they are of the flat pictures
    try_on_->set_dressing(on);
    if (on) {
        try_on_->show_piece(piece_);
        try_on_panel_->mesh_view()->setFocus();
    } else {
        show_islands();
        update_view();
    }
}

void FittingPage::show_islands() {
    if (!try_on_) return;
    try_on_->set_dressing(is_on_object());
    if (islands_->isChecked()) try_on_->show_piece(piece_);
    else if (!is_on_object()) try_on_->clear();
    compare_->set_overlay(islands_->isChecked() && !try_on_->is_plain() ? try_on_->overlay() : nullptr);
}

void FittingPage::set_layout(CompareView::Layout layout) {
    using Layout = CompareView::Layout;
    if (is_on_object()) show_object(false);
    for (auto [action, which] : {std::pair{all_, Layout::all}, std::pair{one_, Layout::one}, std::pair{split_, Layout::split}})
        action->setChecked(which == layout);
    // Alone, what the game will get is the first to look at; with a line, against yours.
    if (layout != compare_->layout_mode()) compare_->set_current(layout == Layout::one ? 2 : layout == Layout::split ? 1 : 0);
    compare_->set_layout(layout);
}

void FittingPage::choose_cell(std::optional<std::size_t> cell, bool go_there) {
    block_->show_cell(cell);
    const auto place = cell ? to_qrect(fitted_->made.fit->blocks.texels(*cell)) : QRect();
    compare_->set_marked(place);
    if (cell && go_there) compare_->show_texels(place);
}

void FittingPage::update_view() {
    if (try_on_ && (is_on_object() || islands_->isChecked())) try_on_->show_piece(piece_);
    if (piece_ == 0) return;
    const auto fitted = fits_->fit(piece_);  // null: `ready` comes back here
    const bool fresh = fitted && fitted != fitted_;
    if (fresh) fitted_ = fitted;
    const auto* found = fits_->findings(piece_);
    const bool other = cards_of_ != piece_;
    if (other && !fitted) fitted_.reset();  // it is another piece's
    // Of the same piece what is shown may stay while a new fit is made; of another one neither its pictures nor its mends.
    if (found || other) {
        const auto findings = found ? *found : std::vector<Finding>();
        std::vector<std::size_t> offers;  // in how many pieces each mend is offered
        for (const auto& finding : findings) offers.push_back(finding.mend ? fits_->with_mend(*finding.mend).size() : 0);
        const auto kin = kin_findings();
        std::vector<std::string> shown;
        for (const auto& one : kin) shown.push_back(one.finding.headline + one.finding.detail);
        if (other || fresh || offers != offers_ || shown != kin_shown_) show_findings(findings, kin);
        offers_ = std::move(offers);
        kin_shown_ = std::move(shown);
        cards_of_ = piece_;
    }
    update_mend_all();
    if (!fitted) {
        if (!other && fitted_) return;
        fitted_.reset();
        block_->show_fit(nullptr);
        mips_->show_fit(nullptr, nullptr);
        mip_text_->clear();
        return compare_->set_pictures({}, tr("Fitting…"));
    }
    if (fresh) {
        block_->show_fit(fitted);
        if (!block_->cell()) compare_->set_marked({});
    }
    mips_->show_fit(fitted, fitted->made.fit ? fits_->mips(piece_) : nullptr);
    mip_text_->setText(fitted->made.fit ? tr("made with: %1").arg(to_text(describe(fitted->made.fit->mips))) : QString());
    update_pictures();
}

void FittingPage::update_pictures() {
    if (!fitted_) return;
    if (!fitted_->made.fit) return compare_->set_pictures({}, tr("The file cannot be read yet."));
    const auto sides = fits_->sides(piece_, look_);
    if (!sides) return;  // `ready` comes back here
    compare_->set_titles({tr("The game's"), tr("Yours"), tr("The game gets"),
                          look_.loss ? tr("Lost ×%1").arg(look_.amplify) : tr("Difference ×%1").arg(look_.amplify)});
    compare_->set_pictures(sides->pictures, tr("The game could not read this yet. See the fit list."));
    compare_->set_reduced(sides->reduced);
    compare_->set_blocks(blocks_->isChecked() ? fitted_->new_blocks : QImage(), loss_->isChecked() ? fitted_->lost_blocks : QImage());
    compare_->set_scale(255 / look_.amplify);
}

std::vector<KinFinding> FittingPage::kin_findings() const {
    const auto* piece = model_->piece(piece_);
    // As long as nothing is painted nothing else need follow.
    if (!kin_ || !piece || piece->state == PieceState::out || piece->state == PieceState::on_the_bench) return {};
    const auto* found = kin_->findings(piece_);  // null: `ready` comes back here
    return found ? *found : std::vector<KinFinding>();
}

void FittingPage::show_findings(const std::vector<Finding>& findings, const std::vector<KinFinding>& kin) {
    clear_column(cards_);
    const auto first_note = std::find_if(findings.begin(), findings.end(), [](const Finding& f) { return f.grade < Grade::mend; });
    for (auto f = findings.begin(); f != first_note; ++f) cards_->addWidget(make_card_of(*f, offers_of(*f)));
    for (const auto& one : kin) cards_->addWidget(make_card_of(one.finding, offers_of(one)));
    for (auto f = first_note; f != findings.end(); ++f) cards_->addWidget(make_card_of(*f, offers_of(*f)));
    cards_->addStretch();
}

void FittingPage::update_mend_all() {
    const auto chosen = chosen_pieces();
    mend_all_->setEnabled(std::any_of(chosen.begin(), chosen.end(), [this](PieceId id) { return fits_->has_due_mends(id); }));
}

std::vector<QPushButton*> FittingPage::offers_of(const Finding& finding) {
    std::vector<QPushButton*> out;
    if (finding.mend) {
        auto* button = new Button(spoken(info(*finding.mend).words), Button::Look::plain);
        button->setObjectName(QStringLiteral("mend"));
        connect(button, &QPushButton::clicked, this, [this, piece = piece_, mend = *finding.mend] { fits_->mend({piece}, {mend}); });
        out.push_back(button);
        if (const auto others = fits_->with_mend(*finding.mend); others.size() > 1) {
            auto* all = new Button(tr("In all %L1").arg(others.size()), Button::Look::plain);
            all->setObjectName(QStringLiteral("mend_all"));
            all->setToolTip(tr("The same mend in every piece whose list offers it"));
            connect(all, &QPushButton::clicked, this, [this, others, mend = *finding.mend] { fits_->mend(others, {mend}); });
            out.push_back(all);
        }
    }
    if (finding.format != Format::unknown && fitted_) {
        const bool own = fitted_->original->layout.desc.format == finding.format;
        const auto name = to_text(info(finding.format).name);
        auto* button = new Button(own ? tr("Keep %1").arg(name) : tr("Let it become %1").arg(name), Button::Look::plain);
        button->setObjectName(QStringLiteral("format"));
        connect(button, &QPushButton::clicked, this,
                [this, piece = piece_, format = own ? Format::unknown : finding.format] { fits_->set_format({piece}, format); });
        out.push_back(button);
    } else if (finding.grade == Grade::fits && fitted_ && !other_formats(*fitted_->original).empty()) {
        auto* button = new Button(tr("Another format…"), Button::Look::plain);
        button->setObjectName(QStringLiteral("formats"));
        connect(button, &QPushButton::clicked, this, [this, button] { show_formats(button->mapToGlobal(QPoint(0, button->height()))); });
        out.push_back(button);
    }
    if (finding.where) {
        auto* button = new Button(tr("Show"), Button::Look::plain);
        button->setObjectName(QStringLiteral("show"));
        connect(button, &QPushButton::clicked, this, [this, where = *finding.where] {
            if (fitted_ && fitted_->made.fit) choose_cell(fitted_->made.fit->blocks.at(where.x, where.y), true);
        });
        out.push_back(button);
    }
    return out;
}

void FittingPage::show_formats(const QPoint& at) {
    const auto* piece = model_->piece(piece_);
    if (!piece || !fitted_ || !fitted_->made.fit) return;
    auto* menu = new QMenu(this);
    menu->setObjectName(QStringLiteral("format_menu"));
    menu->setAttribute(Qt::WA_DeleteOnClose);
    const auto own = fitted_->original->layout.desc.format;
    auto desc = fitted_->made.fit->layout.desc;
    const auto now = desc.format;
    auto all = other_formats(*fitted_->original);
    all.insert(all.begin(), own);
    constexpr std::size_t most = 12;  // the common ones come first
    if (all.size() > most) all.resize(most);
    for (const auto format : all) {
        desc.format = format;
        auto* action = menu->addAction(tr("%1   %2 bytes%3")
                                           .arg(to_text(info(format).name), to_text(grouped(level_bytes_of(desc))),
                                                format == own ? tr("   (the game's)") : QString()));
        action->setCheckable(true);
        action->setChecked(format == now);
        connect(action, &QAction::triggered, this,
                [this, ids = chosen_pieces(), format, own] { fits_->set_format(ids, format == own ? Format::unknown : format); });
    }
    menu->popup(at);
}

std::vector<QPushButton*> FittingPage::offers_of(const KinFinding& finding) {
    auto* button = new Button(spoken(words_of(finding.offer)), Button::Look::plain);
    button->setObjectName(QStringLiteral("kin"));
    connect(button, &QPushButton::clicked, this, [this, piece = piece_, finding, button] {
        button->setEnabled(false);  // once is enough; the card goes when it is done
        kin_->accept(piece, finding);
    });
    return {button};
}

QWidget* FittingPage::make_card_of(const Finding& finding, const std::vector<QPushButton*>& offers) {
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
    text->addWidget(make_label(spoken(finding.headline), "strong", true));
    text->addWidget(make_label(spoken(finding.detail), "soft", true));
    if (!offers.empty()) {
        auto* buttons = new FlowRow;
        for (auto* button : offers) buttons->addWidget(button);
        buttons->addStretch();
        text->addLayout(buttons);
    }
    row->addLayout(text, 1);
    return card;
}

}  // namespace skivet::app

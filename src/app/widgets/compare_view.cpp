#include "app/widgets/compare_view.h"

#include "app/theme/theme.h"
#include "app/widgets/helpers.h"

namespace skivet::app {
namespace {

constexpr int title_height = 22, gap = 12;
constexpr std::size_t marked_view = 2;  ///< blocks are laid over the third picture, or over the two that are shown

}  // namespace

CompareView::CompareView(QWidget* parent) : QWidget(parent) {
    setMinimumSize(220, 180);
    auto* shared = new SharedView(this);
    for (std::size_t i = 0; i < most; ++i) {
        labels_[i] = make_label({}, "strong", false, this);
        views_[i] = new ImageView(shared, this);
        views_[i]->setMinimumSize(1, 1);  // four of a long strip stand in very little room
        connect(views_[i], &ImageView::clicked, this, &CompareView::clicked);
        connect(views_[i], &ImageView::pointed, this, &CompareView::pointed);
    }
}

void CompareView::set_titles(const std::array<QString, most>& titles) {
    titles_ = titles;
    for (std::size_t i = 0; i < most; ++i) views_[i]->setAccessibleName(titles[i]);
    arrange();
}

void CompareView::set_pictures(const std::array<QImage, most>& pictures, const QString& message) {
    pictures_ = pictures;
    reduced_ = {};
    for (std::size_t i = 0; i < most; ++i) {
        if (pictures[i].isNull()) views_[i]->set_message(message);
        else views_[i]->set_image(pictures[i]);
    }
    show_second();
    arrange();
}

void CompareView::set_reduced(const std::array<QImage, most>& reduced) {
    reduced_ = reduced;
    for (std::size_t i = 0; i < most; ++i) views_[i]->set_reduced(reduced_[i]);
    show_second();
}

void CompareView::set_layout(Layout layout) {
    layout_ = layout;
    if (layout_ == Layout::split) current_ = std::min(current_, most - 3);  // pairs of the first three
    show_second();
    arrange();
}

void CompareView::set_current(std::size_t which) {
    current_ = which;
    show_second();
    arrange();
}

void CompareView::flip() {
    const bool had_focus = views_[current_]->hasFocus();
    current_ = (current_ + 1) % (layout_ == Layout::split ? most - 2 : most);
    show_second();
    arrange();
    if (had_focus) views_[current_]->setFocus();
}

void CompareView::show_second() {
    const bool split = layout_ == Layout::split;
    for (std::size_t i = 0; i < most; ++i) {
        if (split && i == current_) views_[i]->set_second(pictures_[i + 1], reduced_[i + 1]);
        else views_[i]->set_second({});
        const bool over = i == (split ? current_ : marked_view) && !pictures_[marked_view].isNull();
        views_[i]->set_blocks(over ? outlined_ : QImage());
        views_[i]->set_tint(over ? tint_ : QImage());
    }
    set_scale(scale_);
}

void CompareView::set_blocks(const QImage& outlined, const QImage& tint) {
    outlined_ = outlined;
    tint_ = tint;
    show_second();
}

void CompareView::set_overlay(const std::shared_ptr<const std::vector<OverlayLine>>& lines) {
    for (std::size_t i = 0; i + 1 < most; ++i) views_[i]->set_overlay(lines);
}

void CompareView::set_marked(QRect texels) {
    for (auto* view : views_) view->set_marked(texels);
}

void CompareView::show_texels(QRect texels) { front()->show_texels(texels); }

void CompareView::set_scale(int steps) {
    scale_ = steps;
    views_[most - 1]->set_scale(pictures_[most - 1].isNull() ? 0 : steps);
}

ImageView* CompareView::front() const { return views_[current_]; }

void CompareView::arrange() {
    const auto place = [&](std::size_t i, QRect cell, const QString& title) {
        labels_[i]->setGeometry(cell.x(), cell.y(), cell.width(), title_height - 4);
        labels_[i]->setText(labels_[i]->fontMetrics().elidedText(title, Qt::ElideRight, cell.width()));
        views_[i]->setGeometry(cell.adjusted(0, title_height, 0, 0));
    };
    for (std::size_t i = 0; i < most; ++i) {
        const bool shown = layout_ == Layout::all || i == current_;
        views_[i]->setVisible(shown);
        labels_[i]->setVisible(shown);
    }
    if (layout_ != Layout::all)
        return place(current_, rect(),
                     layout_ == Layout::split ? tr("%1  |  %2").arg(titles_[current_], titles_[current_ + 1]) : titles_[current_]);
    const auto& first = pictures_[0];
    const double across = first.isNull() ? 1 : first.width(), down = first.isNull() ? 1 : first.height();
    int columns = 4;
    double best = 0;
    for (const int n : {4, 2, 1}) {
        const int rows = int(most) / n;
        const double w = (width() - gap * (n - 1)) / double(n) - 24, h = (height() - gap * (rows - 1)) / double(rows) - title_height - 24;
        const double scale = std::min(w / across, h / down);
        if (scale > best * 1.001) best = scale, columns = n;
    }
    const int rows = int(most) / columns;
    const double w = (width() - gap * (columns - 1)) / double(columns), h = (height() - gap * (rows - 1)) / double(rows);
    for (int i = 0; i < int(most); ++i)
        place(std::size_t(i), QRectF(i % columns * (w + gap), i / columns * (h + gap), w, h).toRect(), titles_[std::size_t(i)]);
}

}  // namespace skivet::app

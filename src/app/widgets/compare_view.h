#pragma once
#include <array>
#include <QLabel>
#include <QWidget>

#include "app/widgets/image_view.h"

namespace skivet::app {

/// Up to four pictures of the same thing at the same spot: all at once, one after the other, or two with a line between. They share pan and
/// zoom. All at once stand in the columns that make them largest: a long strip gets another order than a square.
class CompareView : public QWidget {
    Q_OBJECT
public:
    enum class Layout { all, one, split };
    static constexpr std::size_t most = 4;

    explicit CompareView(QWidget* parent = nullptr);
    void set_titles(const std::array<QString, most>& titles);
    /// Null ones are shown as `message`.
    void set_pictures(const std::array<QImage, most>& pictures, const QString& message);
    /// The same in fewer pixels, for where that is enough; null: none.
    void set_reduced(const std::array<QImage, most>& reduced);
    void set_layout(Layout layout);
    [[nodiscard]] Layout layout_mode() const { return layout_; }
    /// The one that is shown alone; in two, the one right of the line is the next.
    void set_current(std::size_t which);
    [[nodiscard]] std::size_t current() const { return current_; }
    /// The next one alone, or the next two.
    void flip();
    void toggle_one_to_one() { views_[current_]->toggle_one_to_one(); }
    void set_blocks(const QImage& outlined, const QImage& tint);
    /// Lines over all but the difference; null: none.
    void set_overlay(const std::shared_ptr<const std::vector<OverlayLine>>& lines);
    void set_marked(QRect texels);
    void show_texels(QRect texels);
    /// Of the last picture; see ImageView.
    void set_scale(int steps);
    [[nodiscard]] ImageView* view(std::size_t which) const { return views_[which]; }
    /// The view that has the keys: the current one.
    [[nodiscard]] ImageView* front() const;

signals:
    void clicked(QPoint texel);
    void pointed(QPoint texel);

protected:
    void resizeEvent(QResizeEvent*) override { arrange(); }

private:
    void arrange();
    void show_second();
    std::array<ImageView*, most> views_;
    std::array<QLabel*, most> labels_;
    std::array<QString, most> titles_;
    std::array<QImage, most> pictures_, reduced_;
    QImage outlined_, tint_;
    Layout layout_ = Layout::all;
    std::size_t current_ = 0;
    int scale_ = 0;
};

}  // namespace skivet::app

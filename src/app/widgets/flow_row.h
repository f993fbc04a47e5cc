#pragma once
#include <QLayout>
#include <vector>

namespace skivet::app {

/// Widgets side by side, each as wide as it wants to be; those that have no room go on in the next line, as words do. Behind `addStretch`
/// they stand at the right of whatever line they come to. Other languages are longer than one's own.
class FlowRow : public QLayout {
    Q_OBJECT
public:
    explicit FlowRow(QWidget* parent = nullptr);
    ~FlowRow() override;
    void addStretch() { stretch_ = int(items_.size()); }
    /// A wider gap before the next widget.
    void addSpacing(int pixels);

    void addItem(QLayoutItem* item) override { items_.push_back(item); }
    [[nodiscard]] int count() const override { return int(items_.size()); }
    [[nodiscard]] QLayoutItem* itemAt(int index) const override;
    QLayoutItem* takeAt(int index) override;
    [[nodiscard]] Qt::Orientations expandingDirections() const override { return {}; }
    [[nodiscard]] bool hasHeightForWidth() const override { return true; }
    [[nodiscard]] int heightForWidth(int width) const override { return arrange({0, 0, width, 0}, false); }
    [[nodiscard]] QSize sizeHint() const override;
    [[nodiscard]] QSize minimumSize() const override;
    void setGeometry(const QRect& rect) override;

private:
    /// Places everything, or only computes the height it takes.
    int arrange(const QRect& rect, bool move) const;
    /// Of what is shown, in order: index, gap before it.
    [[nodiscard]] std::vector<std::pair<int, int>> shown() const;
    std::vector<QLayoutItem*> items_;
    std::vector<std::pair<int, int>> gaps_;  ///< before which item, pixels
    int stretch_ = -1;                       ///< first item at the right; -1: none
};

}  // namespace skivet::app

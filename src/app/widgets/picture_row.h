#pragma once
#include <functional>
#include <QImage>
#include <QWidget>
#include <vector>

#include "app/widgets/accessible.h"

namespace skivet::app {

/// A few small pictures side by side, each with a word below; one can be chosen by mouse or keys. What does not fit is counted at the end.
class PictureRow : public QWidget, public WithParts {
    Q_OBJECT
public:
    struct Cell {
        std::size_t item = 0;
        QString word, tip;
    };
    /// `picture` gives the item's picture when it is drawn.
    PictureRow(std::function<QImage(std::size_t)> picture, const QString& name, QWidget* parent = nullptr);
    void set_cells(std::vector<Cell> cells, std::size_t current);
    [[nodiscard]] const std::vector<Cell>& cells() const { return cells_; }
    [[nodiscard]] QSize sizeHint() const override { return {160, 64}; }
    [[nodiscard]] QSize minimumSizeHint() const override { return {56, 64}; }

    [[nodiscard]] int part_count() const override { return int(cells_.size()); }
    [[nodiscard]] QString part_name(int part) const override;
    [[nodiscard]] QRect part_place(int part) const override;
    [[nodiscard]] int current_part() const override;
    void choose_part(int part) override { emit chosen(cells_[std::size_t(part)].item); }

signals:
    void chosen(std::size_t item);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

private:
    [[nodiscard]] int fit() const;
    [[nodiscard]] int cell_at(const QPointF& point) const;
    std::function<QImage(std::size_t)> picture_;
    std::vector<Cell> cells_;
    std::size_t current_ = 0;
};

}  // namespace skivet::app

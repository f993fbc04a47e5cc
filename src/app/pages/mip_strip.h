#pragma once
#include <QImage>
#include <QWidget>
#include <vector>

#include "app/widgets/accessible.h"

namespace skivet::app {

/// Small pictures of all levels in a row; the chosen one is framed.
class MipStrip : public QWidget, public WithParts {
    Q_OBJECT
public:
    explicit MipStrip(QWidget* parent = nullptr);
    void set_pictures(std::vector<QImage> pictures);
    void set_current(int mip);
    [[nodiscard]] QSize sizeHint() const override { return {300, 48}; }

    [[nodiscard]] int part_count() const override { return int(pictures_.size()); }
    [[nodiscard]] QString part_name(int part) const override;
    [[nodiscard]] QRect part_place(int part) const override;
    [[nodiscard]] int current_part() const override { return current_; }
    void choose_part(int part) override { emit chosen(part); }

signals:
    void chosen(int mip);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    [[nodiscard]] double cell() const;
    std::vector<QImage> pictures_;
    int current_ = 0;
};

}  // namespace skivet::app

#pragma once
#include <QImage>
#include <QWidget>
#include <vector>

namespace skivet::app {

/// Small pictures of all levels in a row; the chosen one is framed.
class MipStrip : public QWidget {
    Q_OBJECT
public:
    explicit MipStrip(QWidget* parent = nullptr);
    void set_pictures(std::vector<QImage> pictures);
    void set_current(int mip);
    [[nodiscard]] QSize sizeHint() const override { return {300, 48}; }

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

#pragma once
#include <QWidget>

namespace skivet::app {

/// A file as one thin strip, with the stretch that is looked at.
class PlaceStrip : public QWidget {
    Q_OBJECT
public:
    using QWidget::QWidget;
    void set(quint64 size, quint64 at, quint64 bytes);
    [[nodiscard]] QSize sizeHint() const override { return {300, 18}; }

signals:
    void chosen(quint64 at);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    quint64 size_ = 1, at_ = 0, bytes_ = 0;
};

}  // namespace skivet::app

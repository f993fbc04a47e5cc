#pragma once
#include <QWidget>

#include "app/widgets/accessible.h"

namespace skivet::app {

/// A file as one thin strip, with the stretch that is looked at.
class PlaceStrip : public QWidget, public WithDescription {
    Q_OBJECT
public:
    using QWidget::QWidget;
    void set(quint64 size, quint64 at, quint64 bytes);
    [[nodiscard]] QString described() const override { return tr("%L1 bytes at %L2 of %L3").arg(bytes_).arg(at_).arg(size_); }
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

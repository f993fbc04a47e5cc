#pragma once
#include <QImage>
#include <QWidget>

#include "app/widgets/accessible.h"

namespace skivet::app {

/// A frame's picture, in which one thing is lit and the rest dimmed. Keys step, pointing and clicking say where.
class FrameView : public QWidget, public WithDescription {
    Q_OBJECT
public:
    explicit FrameView(QWidget* parent = nullptr);
    void set_picture(const QImage& picture);
    /// A picture of the frame's size that is opaque where the thing is; null: nothing is lit.
    void set_lit(const QImage& mask);
    void set_message(const QString& message);
    void set_described(const QString& what) { what_ = what; }
    [[nodiscard]] const QImage& lit() const { return lit_; }
    /// Where a pixel of the frame is in the widget.
    [[nodiscard]] QPoint place_of(QPoint pixel) const;
    [[nodiscard]] QSize sizeHint() const override { return {640, 400}; }
    [[nodiscard]] QString described() const override { return picture_.isNull() ? message_ : what_; }

signals:
    /// The pixel of the frame under the pointer; (-1, -1) outside.
    void pointed(QPoint pixel);
    void clicked(QPoint pixel);
    void stepped(int by);

protected:
    void paintEvent(QPaintEvent*) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent*) override { emit pointed({-1, -1}); }
    void keyPressEvent(QKeyEvent* event) override;

private:
    [[nodiscard]] QRectF target() const;
    [[nodiscard]] QPoint pixel_at(QPointF at) const;
    QImage picture_, lit_;
    QString message_, what_;
};

}  // namespace skivet::app

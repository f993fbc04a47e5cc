#pragma once
#include <QImage>
#include <QWidget>

#include "app/widgets/accessible.h"
#include "mesh/shading.h"
#include "mesh/view.h"

namespace skivet::app {

/// A well with the picture of a mesh, and where one stands to look at it. Dragging turns the thing, with Shift or the right button it
/// moves, with Ctrl the light moves; the wheel goes nearer or away; keys do the same. Whoever makes the pictures listens to `moved`.
class MeshView : public QWidget, public WithDescription {
    Q_OBJECT
public:
    explicit MeshView(QWidget* parent = nullptr);
    /// What is to be seen; the whole of it is looked at from now on.
    void look_at(const Box3& box, bool upright_z);
    void look_at_whole();
    void set_picture(const QImage& picture);
    [[nodiscard]] const QImage& picture() const { return picture_; }
    /// Instead of a picture, or below it while there is one; empty: none.
    void set_message(const QString& message);
    void set_described(const QString& what) { what_ = what; }

    [[nodiscard]] const Orbit& orbit() const { return orbit_; }
    void set_orbit(const Orbit& orbit);
    [[nodiscard]] Camera camera() const { return camera_of(orbit_); }
    /// How much farther away one stands than where the whole is seen; 1/8 to 64.
    [[nodiscard]] double distance() const;
    void set_distance(double times);
    static constexpr double nearest = 1.0 / 8, farthest = 64;
    [[nodiscard]] Lighting light() const;
    /// Of the screen.
    [[nodiscard]] QSize pixels() const { return size() * devicePixelRatioF(); }
    /// A small ring at a place of the picture; null: none.
    void set_spot(std::optional<QPointF> at);
    [[nodiscard]] QSize sizeHint() const override { return {420, 420}; }
    [[nodiscard]] QString described() const override;

signals:
    /// Another camera, light or size.
    void moved();
    /// The place under the pointer, in pixels of the screen from the upper left; nothing outside.
    void pointed(std::optional<QPointF> at);
    void clicked(QPointF at);

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void leaveEvent(QEvent*) override { emit pointed(std::nullopt); }
    void wheelEvent(QWheelEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent*) override { look_at_whole(); }
    void keyPressEvent(QKeyEvent* event) override;

private:
    void turn(double right, double down);
    void move_light(double right, double down);
    [[nodiscard]] Orbit whole_orbit() const;
    QImage picture_;
    QString message_, what_;
    Box3 box_;
    bool upright_z_ = false;
    Orbit orbit_;
    float light_turn_ = -0.7f, light_rise_ = 0.8f;  ///< radians, to the right of where one looks from at first, and above the horizon
    QPointF grabbed_, pressed_;
    bool dragged_ = false;
    std::optional<QPointF> spot_;
};

}  // namespace skivet::app

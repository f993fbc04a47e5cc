#pragma once
#include <array>
#include <memory>
#include <optional>
#include <QImage>
#include <QObject>
#include <QWidget>
#include <vector>

#include "app/models/overlay.h"
#include "app/widgets/accessible.h"

namespace skivet::app {

/// Pan and zoom that several views share. Positions are fractions of the picture, so that pictures of different size line up.
class SharedView : public QObject {
    Q_OBJECT
public:
    using QObject::QObject;
    double zoom = 1;  ///< 1: the picture fits the well
    QPointF center{0.5, 0.5};
    void set(double new_zoom, QPointF new_center);
    void fit() { set(1, {0.5, 0.5}); }

signals:
    void changed();
};

/// A well with a picture in it. Wheel zooms at the pointer, dragging pans, Z switches between fitting and one to one.
class ImageView : public QWidget, public WithDescription {
    Q_OBJECT
public:
    explicit ImageView(SharedView* view, QWidget* parent = nullptr);
    void set_image(const QImage& image);
    /// The same picture in fewer pixels, drawn where those are enough; null: none. Forgotten with the next picture.
    void set_reduced(const QImage& reduced);
    /// A picture with one pixel a block; opaque ones are outlined, or tinted where there are very many.
    void set_blocks(const QImage& blocks);
    /// A picture with one pixel a block that is laid over the texels.
    void set_tint(const QImage& tint);
    /// A second picture right of a line that can be dragged; null: none.
    void set_second(const QImage& second, const QImage& reduced = {});
    [[nodiscard]] const QImage& second() const { return second_; }
    /// Where the line stands, 0…1 of the well's width.
    void set_split(double split);
    [[nodiscard]] double split() const { return split_; }
    /// Texels with a frame around them; null: none.
    void set_marked(QRect texels);
    /// Lines over the picture; null: none. Where very many faint ones are in sight they are left out.
    void set_overlay(std::shared_ptr<const std::vector<OverlayLine>> lines);
    [[nodiscard]] bool has_overlay() const { return overlay_ != nullptr; }
    /// The group whose lines stand out; -1: none.
    void set_overlay_group(int group);
    /// A small ring at a place from 0 to 1; it is drawn where the picture repeats, too.
    void set_spot(std::optional<QPointF> at);
    [[nodiscard]] std::optional<QPointF> spot() const { return spot_; }
    /// A legend for a picture of differences: white stands for so many steps of 255; 0: none.
    void set_scale(int most);
    /// Brings texels into the middle, large enough to be seen.
    void show_texels(QRect texels);
    void set_message(const QString& message);
    [[nodiscard]] const QImage& image() const { return image_; }
    void toggle_one_to_one();
    /// Lines over the lower edge of the well; empty: none.
    void set_readout(const QStringList& lines);
    [[nodiscard]] const QStringList& readout() const { return readout_; }
    [[nodiscard]] bool has_histogram() const { return !histogram_.empty(); }
    /// Blocks the pointer's one is outlined in; 1×1 and smaller: none.
    void set_block_size(QSize texels) { block_ = texels; }
    /// Counts of 256 values for R, G, B, A, drawn in a corner; empty: none.
    void set_histogram(std::vector<std::array<quint32, 256>> channels);
    [[nodiscard]] QSize sizeHint() const override { return {280, 280}; }
    [[nodiscard]] QString described() const override;

signals:
    /// The texel under the pointer, also when keys moved the picture under it; (-1, -1) outside.
    void pointed(QPoint texel);
    /// A texel was clicked without dragging.
    void clicked(QPoint texel);

protected:
    void paintEvent(QPaintEvent*) override;
    void leaveEvent(QEvent*) override;
    void wheelEvent(QWheelEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent*) override { toggle_one_to_one(); }
    void keyPressEvent(QKeyEvent* event) override;

private:
    [[nodiscard]] double fit_scale() const;
    [[nodiscard]] QRectF target() const;
    SharedView* view_;
    QImage image_, second_, blocks_, tint_;
    QImage reduced_, second_reduced_;
    QString message_;
    void point_at(const QPointF& position);
    void draw_picture(QPainter& p, const QImage& image, const QImage& reduced, const QRectF& to);
    void draw_blocks(QPainter& p, const QRectF& to);
    void draw_overlay(QPainter& p, const QRectF& to);
    void draw_readout(QPainter& p);
    void draw_histogram(QPainter& p);
    void draw_scale(QPainter& p);
    [[nodiscard]] QPoint texel_at(const QPointF& position) const;
    QPointF grabbed_, pressed_;
    std::vector<QLine> edges_;  ///< around the opaque blocks, in blocks; empty: too many to draw
    QRect marked_;
    std::shared_ptr<const std::vector<OverlayLine>> overlay_;
    int overlay_group_ = -1;
    std::optional<QPointF> spot_;
    double split_ = 0.5;
    int scale_ = 0;
    bool splitting_ = false;
    QStringList readout_;
    QSize block_{1, 1};
    QPoint texel_{-1, -1};
    std::vector<std::array<quint32, 256>> histogram_;
};

/// A small picture in a well, for strips and rows.
void draw_in_well(QPainter& painter, const QRectF& well, const QImage& image, double margin = 6);

}  // namespace skivet::app

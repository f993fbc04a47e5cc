#pragma once
// Painting helpers of the art generator.
#include <cstdint>
#include <functional>
#include <QColor>
#include <QImage>
#include <QPainter>
#include <QPainterPath>

namespace fair {

/// Deterministic value noise in 0…1 at a lattice point.
double noise_at(int x, int y, int seed);
/// Smooth noise, `scale` texels a cell, a few octaves; 0…1.
double smooth_noise(double x, double y, double scale, int seed);

/// A picture of `width` × `height` painted in a 100 × 100 coordinate system.
QImage paint(int width, int height, const QColor& ground, const std::function<void(QPainter&)>& draw);
/// Multiplies brightness with noise: strength 0…1.
void weather(QImage& image, double strength, double scale, int seed);
/// Calls `texel(u, v)` (0…1) for every texel.
QImage shade(int width, int height, const std::function<QColor(double, double)>& texel);
/// Normals of a height field, 8-bit, x right, y down to up (`flip` false) or up to down.
QImage normals_of(const QImage& heights, double strength, bool flip);

/// Text as a filled path that fits a box, so that it does not depend on hinting.
void letters(QPainter& painter, const QRectF& box, const QString& text, const QColor& color);
/// A star with `points` points around a center.
QPainterPath star(QPointF center, double outer, double inner, int points);
/// A gradient from left to right with its light at two fifths.
QLinearGradient across(double x0, double x1, QColor a, QColor b, QColor c);
/// A rounded frame in the 100 × 100 system.
void frame(QPainter& painter, QColor color, double inset, double width);

extern const QColor cream, madder, bottle, navy, gold, ink, plum, sky, brass, rust, straw, white;

}  // namespace fair

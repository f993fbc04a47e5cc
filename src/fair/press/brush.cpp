#include "fair/press/brush.h"

#include <algorithm>
#include <cmath>
#include <QFont>

namespace fair {

const QColor cream(0xEF, 0xE2, 0xC4), madder(0xA3, 0x35, 0x3C), bottle(0x2A, 0x69, 0x5C), navy(0x1F, 0x3F, 0x74), gold(0xDD, 0xAE, 0x45),
    ink(0x1C, 0x1A, 0x1E), plum(0x5C, 0x2E, 0x5E), sky(0x8F, 0xB9, 0xD6), brass(0xC8, 0x9B, 0x3F), rust(0xB5, 0x5A, 0x2C),
    straw(0xE6, 0xC8, 0x7A), white(0xF7, 0xF4, 0xEC);

double noise_at(int x, int y, int seed) {
    auto h = static_cast<std::uint32_t>(x) * 374761393u + static_cast<std::uint32_t>(y) * 668265263u +
             static_cast<std::uint32_t>(seed) * 2246822519u;
    h = (h ^ h >> 13) * 1274126177u;
    h ^= h >> 16;
    return (h & 0xFFFFFF) / double(0xFFFFFF);
}

double smooth_noise(double x, double y, double scale, int seed) {
    double sum = 0, weight = 0, amplitude = 1;
    for (int octave = 0; octave < 3; ++octave) {
        const double fx = x / scale, fy = y / scale;
        const int ix = int(std::floor(fx)), iy = int(std::floor(fy));
        const double tx = fx - ix, ty = fy - iy;
        const double sx = tx * tx * (3 - 2 * tx), sy = ty * ty * (3 - 2 * ty);
        const double top = noise_at(ix, iy, seed + octave) * (1 - sx) + noise_at(ix + 1, iy, seed + octave) * sx;
        const double low = noise_at(ix, iy + 1, seed + octave) * (1 - sx) + noise_at(ix + 1, iy + 1, seed + octave) * sx;
        sum += amplitude * (top * (1 - sy) + low * sy);
        weight += amplitude;
        amplitude /= 2;
        scale /= 2;
    }
    return sum / weight;
}

QImage paint(int width, int height, const QColor& ground, const std::function<void(QPainter&)>& draw) {
    QImage image(width, height, QImage::Format_ARGB32_Premultiplied);
    image.fill(ground);
    QPainter p(&image);
    p.setRenderHint(QPainter::Antialiasing);
    p.scale(width / 100.0, height / 100.0);
    p.setPen(Qt::NoPen);
    draw(p);
    p.end();
    return image.convertToFormat(QImage::Format_RGBA8888);
}

void weather(QImage& image, double strength, double scale, int seed) {
    for (int y = 0; y < image.height(); ++y) {
        auto* line = image.scanLine(y);
        for (int x = 0; x < image.width(); ++x) {
            const double n =
                1 - strength + strength * 2 * smooth_noise(x, y, scale, seed) * 0.5 + (noise_at(x, y, seed + 9) - 0.5) * strength * 0.3;
            for (int c = 0; c < 3; ++c) line[x * 4 + c] = std::uint8_t(std::clamp(line[x * 4 + c] * n, 0.0, 255.0));
        }
    }
}

QImage shade(int width, int height, const std::function<QColor(double, double)>& texel) {
    QImage image(width, height, QImage::Format_RGBA8888);
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x) image.setPixelColor(x, y, texel((x + 0.5) / width, (y + 0.5) / height));
    return image;
}

QImage normals_of(const QImage& heights, double strength, bool flip) {
    QImage out(heights.size(), QImage::Format_RGBA8888);
    const int w = heights.width(), h = heights.height();
    const auto at = [&](int x, int y) { return qRed(heights.pixel((x + w) % w, (y + h) % h)) / 255.0; };
    for (int y = 0; y < h; ++y)
        for (int x = 0; x < w; ++x) {
            const double dx = (at(x - 1, y) - at(x + 1, y)) * strength, dy = (at(x, y + 1) - at(x, y - 1)) * strength * (flip ? -1 : 1);
            const double length = std::sqrt(dx * dx + dy * dy + 1);
            const auto byte = [&](double v) { return int(std::lround((v / length * 0.5 + 0.5) * 255)); };
            out.setPixelColor(x, y, QColor(byte(dx), byte(dy), byte(1)));
        }
    return out;
}

/// Text as a filled path that fits a box, so that it does not depend on hinting.
void letters(QPainter& p, const QRectF& box, const QString& text, const QColor& color) {
    QFont font(QStringLiteral("Skivet Text"));
    font.setBold(true);
    font.setPointSizeF(40);
    QPainterPath path;
    path.addText(0, 0, font, text);
    const auto bounds = path.boundingRect();
    const double scale = std::min(box.width() / bounds.width(), box.height() / bounds.height());
    p.save();
    p.translate(box.center());
    p.scale(scale, scale);
    p.translate(-bounds.center());
    p.fillPath(path, color);
    p.restore();
}

QPainterPath star(QPointF c, double outer, double inner, int points) {
    QPainterPath path;
    for (int i = 0; i < points * 2; ++i) {
        const double a = M_PI * i / points - M_PI / 2, r = i % 2 ? inner : outer;
        const QPointF at(c.x() + r * std::cos(a), c.y() + r * std::sin(a));
        if (i == 0) path.moveTo(at);
        else path.lineTo(at);
    }
    path.closeSubpath();
    return path;
}

QLinearGradient across(double x0, double x1, QColor a, QColor b, QColor c) {
    QLinearGradient g(x0, 0, x1, 0);
    g.setColorAt(0, a);
    g.setColorAt(0.4, b);
    g.setColorAt(1, c);
    return g;
}

void frame(QPainter& p, QColor color, double inset, double width) {
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(color, width));
    p.drawRoundedRect(QRectF(inset, inset, 100 - 2 * inset, 100 - 2 * inset), 4, 4);
    p.setPen(Qt::NoPen);
}

}  // namespace fair

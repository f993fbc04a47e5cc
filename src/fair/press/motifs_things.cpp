#include "fair/press/motifs.h"

#include <cmath>
#include <QtMath>

namespace fair {

QImage drum(int s) {
    auto image = paint(s, s, madder, [&](QPainter& p) {
        p.setBrush(across(0, 100, QColor(0, 0, 0, 120), QColor(255, 255, 255, 50), QColor(0, 0, 0, 130)));
        p.drawRect(QRectF(0, 0, 100, 100));
        p.setPen(QPen(cream, 2.4));
        for (int i = 0; i < 6; ++i) {
            p.drawLine(QPointF(i * 20 - 10, 18), QPointF(i * 20, 82));
            p.drawLine(QPointF(i * 20, 82), QPointF(i * 20 + 10, 18));
        }
        p.setPen(Qt::NoPen);
        p.fillRect(QRectF(0, 0, 100, 18), gold);
        p.fillRect(QRectF(0, 82, 100, 18), gold);
        p.fillRect(QRectF(0, 16, 100, 2), gold.darker(170));
        p.fillRect(QRectF(0, 82, 100, 2), gold.darker(170));
    });
    weather(image, 0.12, s / 7.0, 61);
    return image;
}

QImage clock_face(int s) {
    auto image = paint(s, s, bottle, [&](QPainter& p) {
        p.setBrush(gold);
        p.drawEllipse(QPointF(50, 50), 46, 46);
        p.setBrush(white);
        p.drawEllipse(QPointF(50, 50), 41, 41);
        for (int i = 0; i < 12; ++i) {
            const double a = i * M_PI / 6;
            p.setPen(QPen(ink, i % 3 ? 1.6 : 3.4));
            p.drawLine(QPointF(50 + 33 * std::sin(a), 50 - 33 * std::cos(a)), QPointF(50 + 38 * std::sin(a), 50 - 38 * std::cos(a)));
        }
        p.setPen(QPen(ink, 4, Qt::SolidLine, Qt::RoundCap));
        p.drawLine(QPointF(50, 50), QPointF(36, 34));
        p.setPen(QPen(ink, 2.6, Qt::SolidLine, Qt::RoundCap));
        p.drawLine(QPointF(50, 50), QPointF(66, 22));
        p.setPen(Qt::NoPen);
        p.setBrush(madder);
        p.drawEllipse(QPointF(50, 50), 3.4, 3.4);
    });
    weather(image, 0.06, s / 6.0, 62);
    return image;
}

QImage wheel(int s) {
    auto image = paint(s, s, QColor(0x25, 0x2B, 0x4A), [&](QPainter& p) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(cream, 2));
        p.drawEllipse(QPointF(50, 46), 36, 36);
        p.drawEllipse(QPointF(50, 46), 30, 30);
        for (int i = 0; i < 12; ++i) {
            const double a = i * M_PI / 6;
            p.setPen(QPen(cream, 0.9));
            p.drawLine(QPointF(50, 46), QPointF(50 + 36 * std::cos(a), 46 + 36 * std::sin(a)));
        }
        p.setPen(QPen(rust, 3.4));
        p.drawLine(QPointF(50, 46), QPointF(28, 98));
        p.drawLine(QPointF(50, 46), QPointF(72, 98));
        p.setPen(Qt::NoPen);
        const QColor cars[] = {madder, gold, bottle};
        for (int i = 0; i < 12; ++i) {
            const double a = i * M_PI / 6;
            p.setBrush(cars[i % 3]);
            p.drawRoundedRect(QRectF(50 + 36 * std::cos(a) - 4, 46 + 36 * std::sin(a) - 1, 8, 7), 2, 2);
        }
        p.setBrush(gold);
        p.drawEllipse(QPointF(50, 46), 4, 4);
    });
    weather(image, 0.06, s / 6.0, 63);
    return image;
}

QImage curtain(int s, QColor cloth) {
    return shade(s, s, [&](double u, double v) {
        const double fold = 0.5 + 0.5 * std::sin(u * 2 * M_PI * 6 + std::sin(v * 5) * 0.6);
        const double light = 0.28 + 0.8 * fold;
        const bool trim = v > 0.88 && v < 0.93;
        const QColor c = trim ? gold : cloth;
        return QColor::fromRgbF(float(std::min(1.0, c.redF() * light)), float(std::min(1.0, c.greenF() * light)),
                                float(std::min(1.0, c.blueF() * light)));
    });
}

QImage rope(int s) {
    return shade(s, s, [&](double u, double v) {
        const double band = std::fmod(u * 4, 1.0), across_rope = std::abs(band - 0.5) * 2;
        if (across_rope > 0.78) return QColor(36, 26, 20);
        const double twist = std::fmod(v * 8 + band * 1.2, 1.0);
        const double light = (0.55 + 0.5 * std::sin(twist * M_PI)) * (1.05 - 0.5 * across_rope * across_rope);
        return QColor::fromRgbF(float(std::min(1.0, 0.80 * light)), float(std::min(1.0, 0.66 * light)), float(std::min(1.0, 0.42 * light)));
    });
}

QImage canvas(int s, int seed) {
    auto image = shade(s, s, [&](double u, double v) {
        const double weave = 0.94 + 0.05 * std::sin(u * M_PI * s / 2) + 0.05 * std::sin(v * M_PI * s / 2);
        const bool seam = std::abs(u - 0.5) < 0.006 || std::abs(v - 0.33) < 0.006;
        const double f = seam ? 0.6 : weave;
        return QColor::fromRgbF(float(0.86 * f), float(0.80 * f), float(0.66 * f));
    });
    weather(image, 0.3, s / 4.0, seed);
    return image;
}

QImage popcorn(int s) {
    auto image = paint(s, s, QColor(0x3A, 0x5A, 0x78), [&](QPainter& p) {
        p.setBrush(straw);
        for (int i = 0; i < 40; ++i) {
            const double x = 22 + 56 * noise_at(i, 7, 3), y = 12 + 26 * noise_at(i, 8, 3);
            p.setBrush(i % 3 ? QColor(250, 240, 205) : straw);
            p.drawEllipse(QPointF(x, y), 5, 4.4);
        }
        QPainterPath box;
        box.addPolygon(QPolygonF({{18, 34}, {82, 34}, {74, 98}, {26, 98}}));
        p.save();
        p.setClipPath(box);
        for (int i = 0; i < 8; ++i) p.fillRect(QRectF(18 + i * 8, 30, 8, 70), i % 2 ? madder : white);
        p.restore();
        letters(p, QRectF(28, 56, 44, 16), QStringLiteral("POP"), ink);
    });
    weather(image, 0.08, s / 8.0, 64);
    return image;
}

QImage ticket(int w, int h, const QString& text, QColor paper) {
    return paint(w, h, QColor(paper.red(), paper.green(), paper.blue(), 0), [&](QPainter& p) {
        QPainterPath stub;
        stub.addRoundedRect(QRectF(4, 12, 92, 76), 6, 8);
        for (int i = 0; i < 4; ++i) {
            QPainterPath bite;
            bite.addEllipse(QPointF(4, 24 + i * 18), 3.4, 6);
            bite.addEllipse(QPointF(96, 24 + i * 18), 3.4, 6);
            stub = stub.subtracted(bite);
        }
        p.fillPath(stub, paper);
        p.setPen(QPen(ink, 1.2, Qt::DashLine));
        p.drawLine(QPointF(28, 14), QPointF(28, 86));
        p.setPen(Qt::NoPen);
        letters(p, QRectF(34, 34, 54, 32), text, ink);
        p.setBrush(madder);
        p.drawPath(star({17, 50}, 8, 3.4, 5));
    });
}

QImage ground_cover(int s, QColor a, QColor b, double scale, int seed) {
    return shade(s, s, [&](double u, double v) {
        const double n = smooth_noise(u * s, v * s, s / scale, seed) * 0.7 + noise_at(int(u * s / 2), int(v * s / 2), seed) * 0.3;
        return QColor(int(a.red() + (b.red() - a.red()) * n), int(a.green() + (b.green() - a.green()) * n),
                      int(a.blue() + (b.blue() - a.blue()) * n));
    });
}

QImage bricks(int s) {
    auto image = paint(s, s, QColor(0xB9, 0xAE, 0x9C), [&](QPainter& p) {
        for (int row = 0; row < 8; ++row)
            for (int i = -1; i < 5; ++i) {
                const double x = i * 25 + (row % 2) * 12.5;
                p.setBrush(rust.darker(int(100 + 40 * noise_at(i + 9, row, 6))));
                p.drawRect(QRectF(x + 0.8, row * 12.5 + 0.8, 23.4, 10.9));
            }
    });
    weather(image, 0.3, s / 16.0, 65);
    return image;
}

QImage chevrons(int s) {
    return shade(s, s, [&](double u, double v) {
        const double t = u * 3 + std::abs(v * 2 - 1) * 0.5;
        const int value = std::fmod(t, 1.0) < 0.5 ? 238 : 18;
        return QColor(value, value, value);
    });
}

QImage poster(int w, int h, const QString& title, QColor ground) {
    auto image = paint(w, h, ground, [&](QPainter& p) {
        frame(p, cream, 4, 1.6);
        letters(p, QRectF(14, 9, 72, 18), title, cream);
        p.setBrush(gold);
        p.drawPath(star({50, 58}, 26, 11, 10));
        p.setBrush(madder);
        p.drawEllipse(QPointF(50, 58), 12, 10);
        p.setBrush(cream);
        p.drawPath(star({50, 58}, 8, 3, 5));
        for (int i = 0; i < 3; ++i) p.fillRect(QRectF(24 + i * 4, 86 + i * 3, 52 - i * 8, 1.4), cream);
    });
    weather(image, 0.15, w / 6.0, 66);
    return image;
}

QImage mirror(int s) {
    return paint(s, s, gold.darker(130), [&](QPainter& p) {
        frame(p, gold.lighter(130), 3, 3);
        QLinearGradient glass(15, 15, 85, 85);
        glass.setColorAt(0, QColor(210, 225, 232));
        glass.setColorAt(0.45, QColor(120, 150, 170));
        glass.setColorAt(0.5, QColor(235, 243, 247));
        glass.setColorAt(0.56, QColor(120, 150, 170));
        glass.setColorAt(1, QColor(70, 95, 120));
        p.setBrush(glass);
        p.drawEllipse(QRectF(13, 10, 74, 80));
    });
}

QImage gloss(int s, int seed) {
    return shade(s, s, [&](double u, double v) {
        const double n = smooth_noise(u * s * 0.2, v * s, s / 20.0, seed);
        const int value = int(110 + 90 * n);
        return QColor(value, value, value);
    });
}

QImage evening(int s, int face) {
    return shade(s, s, [&](double u, double v) {
        if (face == 2) return QColor(0x1B, 0x24, 0x4A);
        if (face == 3) return QColor(0x3A, 0x33, 0x2C);
        const double t = std::clamp(v, 0.0, 1.0);
        const QColor top(0x1B, 0x24, 0x4A), low(0xE9, 0xA0, 0x5C);
        const double f = t * t;
        const bool hill = v > 0.86 + 0.06 * std::sin((u + face) * 6);
        if (hill) return QColor(0x22, 0x20, 0x26);
        return QColor(int(top.red() + (low.red() - top.red()) * f), int(top.green() + (low.green() - top.green()) * f),
                      int(top.blue() + (low.blue() - top.blue()) * f));
    });
}

QImage lamp(int s) {
    return paint(s, s, QColor(18, 16, 20), [&](QPainter& p) {
        QRadialGradient glow(QPointF(50, 42), 44);
        glow.setColorAt(0, QColor(255, 240, 190));
        glow.setColorAt(0.35, QColor(230, 160, 70));
        glow.setColorAt(1, QColor(18, 16, 20, 0));
        p.setBrush(glow);
        p.drawRect(QRectF(0, 0, 100, 100));
        p.setPen(QPen(ink, 2.4));
        p.setBrush(QColor(255, 236, 180));
        p.drawPolygon(QPolygonF({{36, 22}, {64, 22}, {70, 62}, {30, 62}}));
        p.setPen(Qt::NoPen);
        p.setBrush(ink);
        p.drawPolygon(QPolygonF({{30, 22}, {50, 8}, {70, 22}}));
        p.drawRect(QRectF(28, 62, 44, 5));
        p.drawRect(QRectF(47, 67, 6, 33));
    });
}

QImage tent(int s) {
    auto image = paint(s, s, sky.lighter(112), [&](QPainter& p) {
        p.fillRect(QRectF(0, 82, 100, 18), QColor(0x6E, 0x8C, 0x4C));
        for (int i = 0; i < 8; ++i) {
            const double x0 = 8 + i * 10.5, x1 = 8 + (i + 1) * 10.5;
            p.setBrush(i % 2 ? cream : madder);
            p.drawPolygon(QPolygonF({{50, 10}, {x0, 46}, {x1, 46}}));
            p.drawPolygon(QPolygonF({{x0, 46}, {x1, 46}, {x1, 86}, {x0, 86}}));
        }
        p.setBrush(ink);
        p.drawPolygon(QPolygonF({{50, 54}, {42, 86}, {58, 86}}));
        p.setBrush(gold);
        p.drawPolygon(QPolygonF({{50, 10}, {50, 1}, {64, 5}}));
    });
    weather(image, 0.08, s / 6.0, 67);
    return image;
}

QImage flag(int s) {
    auto image = paint(s, s, bottle, [&](QPainter& p) {
        p.fillRect(QRectF(0, 34, 100, 32), cream);
        p.setBrush(gold);
        p.drawPath(star(QPointF(50, 50), 15, 6, 8));
        for (int i = 0; i < 5; ++i) {
            QLinearGradient fold(i * 20, 0, i * 20 + 20, 0);
            fold.setColorAt(0, QColor(0, 0, 0, 46));
            fold.setColorAt(0.5, QColor(255, 255, 255, 30));
            fold.setColorAt(1, QColor(0, 0, 0, 46));
            p.fillRect(QRectF(i * 20, 0, 20, 100), fold);
        }
    });
    weather(image, 0.1, s / 16.0, 71);
    return image;
}

QImage haze(int s) {
    return shade(s, s, [&](double u, double v) {
        const double r = std::hypot(u - 0.5, v - 0.46) * 2;
        const double a = std::pow(std::clamp(1 - r, 0.0, 1.0), 1.6) * (0.75 + 0.25 * smooth_noise(u * s, v * s, s / 6.0, 91));
        return QColor(int(255 * a), int(206 * a), int(120 * a), int(255 * a));
    });
}

QImage green_alpha_normals(const QImage& normals) {
    QImage out(normals.size(), QImage::Format_RGBA8888);
    for (int y = 0; y < out.height(); ++y)
        for (int x = 0; x < out.width(); ++x) {
            const auto* from = normals.constScanLine(y) + x * 4;
            auto* to = out.scanLine(y) + x * 4;
            to[0] = to[2] = 0;
            to[1] = from[1];
            to[3] = from[0];
        }
    return out;
}

}  // namespace fair

#include "fair/press/motifs.h"

#include <cmath>
#include <QRadialGradient>
#include <QtMath>

namespace fair {

QImage awning(int s, QColor a, QColor b) {
    auto image = paint(s, s, b, [&](QPainter& p) {
        for (int i = 0; i < 8; i += 2) p.fillRect(QRectF(i * 12.5, 0, 12.5, 100), a);
        QLinearGradient fold(0, 0, 0, 100);
        fold.setColorAt(0, QColor(255, 255, 255, 60));
        fold.setColorAt(0.7, QColor(0, 0, 0, 0));
        fold.setColorAt(0.78, QColor(0, 0, 0, 70));
        fold.setColorAt(0.82, QColor(0, 0, 0, 0));
        p.fillRect(QRectF(0, 0, 100, 100), fold);
        for (int i = 0; i < 8; ++i) {  // scalloped edge on a dark shadow
            p.setBrush(QColor(20, 16, 14));
            QPainterPath gap;
            gap.addRect(QRectF(i * 12.5, 90, 12.5, 10));
            QPainterPath scallop;
            scallop.addEllipse(QRectF(i * 12.5, 80, 12.5, 18));
            p.drawPath(gap.subtracted(scallop));
        }
        p.fillRect(QRectF(0, 86, 100, 1.5), gold);
    });
    weather(image, 0.18, s / 8.0, 11);
    return image;
}

QImage sign(int w, int h, const QString& text, QColor ground, QColor color) {
    auto image = paint(w, h, ground, [&](QPainter& p) {
        QRadialGradient light(35, 25, 90);
        light.setColorAt(0, QColor(255, 255, 255, 50));
        light.setColorAt(1, QColor(0, 0, 0, 60));
        p.fillRect(QRectF(0, 0, 100, 100), light);
        frame(p, color, 6, 2.5);
        frame(p, color, 10, 0.8);
        letters(p, QRectF(18, 30, 64, 40), text, color);
        p.setBrush(QColor(60, 50, 40));
        for (const auto& c : {QPointF(4, 4), QPointF(96, 4), QPointF(4, 96), QPointF(96, 96)}) p.drawEllipse(c, 1.8, 1.8);
    });
    weather(image, 0.12, w / 5.0, 21);
    return image;
}

QImage horse(int s, QColor ground, QColor coat, QColor saddle) {
    auto image = paint(s, s, ground, [&](QPainter& p) {
        QPainterPath head;  // neck and head, looking right
        head.moveTo(8, 100);
        head.cubicTo(10, 60, 22, 26, 46, 16);
        head.lineTo(50, 5);
        head.lineTo(56, 16);
        head.cubicTo(68, 22, 82, 40, 90, 52);
        head.cubicTo(92, 60, 84, 66, 78, 62);
        head.cubicTo(70, 58, 64, 56, 60, 58);
        head.cubicTo(56, 70, 60, 84, 66, 100);
        head.closeSubpath();
        QLinearGradient body(20, 20, 70, 100);
        body.setColorAt(0, coat.lighter(125));
        body.setColorAt(1, coat.darker(125));
        p.setBrush(body);
        p.drawPath(head);
        p.setBrush(gold);  // mane
        for (int i = 0; i < 7; ++i) {
            QPainterPath lock;
            const double x = 40 - i * 5.2, y = 16 + i * 12.5;
            lock.moveTo(x + 6, y - 2);
            lock.cubicTo(x - 10, y, x - 12, y + 14, x - 4, y + 18);
            lock.cubicTo(x - 2, y + 10, x + 2, y + 8, x + 6, y + 6);
            p.drawPath(lock);
        }
        p.setPen(QPen(saddle, 3.2));  // bridle
        p.setBrush(Qt::NoBrush);
        p.drawPolyline(QPolygonF({{50, 18}, {64, 36}, {62, 57}}));
        p.drawPolyline(QPolygonF({{64, 36}, {86, 47}}));
        p.drawPolyline(QPolygonF({{76, 34}, {72, 60}}));
        p.setPen(Qt::NoPen);
        p.setBrush(white);
        p.drawEllipse(QPointF(61, 30), 4, 3.2);
        p.setBrush(ink);
        p.drawEllipse(QPointF(62, 30), 2.2, 2.4);
        p.drawEllipse(QPointF(84, 55), 1.4, 1.8);
        p.setBrush(saddle);
        p.drawPath(star({40, 78}, 12, 5, 6));
        p.setBrush(gold);
        p.drawEllipse(QPointF(40, 78), 4, 4);
    });
    weather(image, 0.14, s / 10.0, 31);
    return image;
}

QImage bunting(int s) {
    QImage image(s, s, QImage::Format_RGBA8888);
    const QColor flags[] = {madder, gold, bottle, navy};
    for (int y = 0; y < s; ++y)
        for (int x = 0; x < s; ++x) {
            const double u = double(x) / s * 4, v = double(y) / s;
            const int i = int(u) % 4;
            const double d = std::abs(u - int(u) - 0.5) * 2;
            QColor c = flags[i];  // the color goes on under zero alpha, as games keep it
            const bool cloth = v > 0.12 && d<1 - (v - 0.12) / 0.72, cord = v> 0.07 && v <= 0.13;
            if (cord) c = straw;
            else c = c.darker(int(100 + 25 * d));
            c.setAlpha(cloth || cord ? 255 : 0);
            image.setPixelColor(x, y, c);
        }
    return image;
}

QImage pipes(int s) {
    return paint(s, s, QColor(40, 24, 14), [&](QPainter& p) {
        for (int i = 0; i < 6; ++i) {
            const double x = 3 + i * 16, w = 13, top = 8 + std::abs(i - 2.5) * 7;
            p.setBrush(across(x, x + w, brass.darker(190), QColor(255, 236, 170), brass.darker(220)));
            p.drawRoundedRect(QRectF(x, top, w, 100 - top), 3, 3);
            p.setBrush(QColor(30, 18, 8));
            QPainterPath mouth;
            mouth.moveTo(x + 2, 70);
            mouth.lineTo(x + w - 2, 70);
            mouth.lineTo(x + w / 2, 58);
            mouth.closeSubpath();
            p.drawPath(mouth);
            p.fillRect(QRectF(x, 78, w, 2.2), brass.darker(230));
        }
    });
}

QImage bulbs(int s, bool lit) {
    return paint(s, s, lit ? QColor(4, 3, 3) : QColor(70, 30, 30), [&](QPainter& p) {
        if (!lit) frame(p, gold, 2, 2);
        for (int y = 0; y < 4; ++y)
            for (int x = 0; x < 4; ++x) {
                const QPointF c(12.5 + x * 25, 12.5 + y * 25);
                QRadialGradient glow(c, lit ? 12 : 7);
                glow.setColorAt(0, lit ? QColor(255, 250, 220) : QColor(255, 248, 225));
                glow.setColorAt(0.4, lit ? QColor(255, 205, 100) : QColor(230, 200, 140));
                glow.setColorAt(1, lit ? QColor(40, 20, 0, 0) : QColor(120, 90, 50));
                p.setBrush(glow);
                p.drawEllipse(c, lit ? 12 : 7, lit ? 12 : 7);
            }
    });
}

QImage planks(int s, QColor wood, int seed) {
    return shade(s, s, [&](double u, double v) {
        const int board = int(v * 6);
        const double inside = v * 6 - board;
        const double grain = smooth_noise(u * s * 0.25, (inside + board * 7) * s, s / 22.0, seed + board);
        const double tone = 0.78 + 0.2 * noise_at(board, 3, seed) + 0.35 * (grain - 0.5);
        const bool gap = inside < 0.05;
        const bool nail = std::hypot((u - 0.06) * 6, inside - 0.5) < 0.09 || std::hypot((u - 0.94) * 6, inside - 0.5) < 0.09;
        const double f = gap ? 0.3 : nail ? 0.45 : tone;
        return QColor::fromRgbF(float(std::min(1.0, wood.redF() * f)), float(std::min(1.0, wood.greenF() * f)),
                                float(std::min(1.0, wood.blueF() * f)));
    });
}

QImage scrollwork(int s, QColor ground, QColor line) {
    auto image = paint(s, s, ground, [&](QPainter& p) {
        p.setBrush(Qt::NoBrush);
        for (int mirror = 0; mirror < 2; ++mirror) {
            p.save();
            if (mirror) {
                p.translate(100, 0);
                p.scale(-1, 1);
            }
            for (int k = 0; k < 2; ++k) {
                QPainterPath curl;
                const QPointF c(26, 28 + k * 44);
                for (int i = 0; i <= 90; ++i) {
                    const double a = i * 0.14 * (k ? -1 : 1), r = 2 + i * 0.23;
                    const QPointF at(c.x() + r * std::cos(a), c.y() + r * std::sin(a));
                    if (i == 0) curl.moveTo(at);
                    else curl.lineTo(at);
                }
                p.setPen(QPen(line.darker(150), 5.5, Qt::SolidLine, Qt::RoundCap));
                p.drawPath(curl.translated(0.7, 0.9));
                p.setPen(QPen(line, 4.2, Qt::SolidLine, Qt::RoundCap));
                p.drawPath(curl);
            }
            p.restore();
        }
        p.setPen(Qt::NoPen);
        p.setBrush(line);
        p.drawPath(star({50, 50}, 13, 6, 8));
        frame(p, line, 2.5, 2);
    });
    weather(image, 0.12, s / 6.0, 41);
    return image;
}

QImage pole(int s, QColor a, QColor b) {
    return shade(s, s, [&](double u, double v) {
        const double t = u + v * 2;
        const bool first = std::fmod(t, 0.5) < 0.25;
        const double light = 0.45 + 0.75 * std::sin(M_PI * u);
        const auto& c = first ? a : b;
        return QColor::fromRgbF(float(std::min(1.0, c.redF() * light)), float(std::min(1.0, c.greenF() * light)),
                                float(std::min(1.0, c.blueF() * light)));
    });
}

QImage tiles(int s, QColor a, QColor b) {
    auto image = paint(s, s, QColor(60, 56, 50), [&](QPainter& p) {
        for (int y = 0; y < 4; ++y)
            for (int x = 0; x < 4; ++x) {
                p.setBrush((x + y) % 2 ? a : b);
                p.drawRect(QRectF(x * 25 + 0.6, y * 25 + 0.6, 23.8, 23.8));
            }
    });
    weather(image, 0.25, s / 12.0, 51);
    return image;
}

QImage star_panel(int s) {
    auto image = paint(s, s, navy, [&](QPainter& p) {
        p.setBrush(gold);
        p.drawPath(star({50, 50}, 38, 15, 5));
        p.setBrush(cream);
        p.drawPath(star({50, 50}, 20, 8, 5));
        for (int i = 0; i < 14; ++i) p.drawPath(star({6 + 88 * noise_at(i, 1, 5), 6 + 88 * noise_at(i, 2, 5)}, 2.6, 1, 5));
        frame(p, gold, 3, 2);
    });
    weather(image, 0.1, s / 6.0, 52);
    return image;
}

QImage moon_panel(int s) {
    auto image = paint(s, s, plum, [&](QPainter& p) {
        QPainterPath moon, bite;
        moon.addEllipse(QPointF(48, 50), 34, 34);
        bite.addEllipse(QPointF(64, 44), 29, 29);
        p.setBrush(straw);
        p.drawPath(moon.subtracted(bite));
        p.setBrush(ink);
        p.drawEllipse(QPointF(27, 44), 2, 2.6);
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(ink, 1.6));
        p.drawArc(QRectF(22, 50, 14, 12), 200 * 16, 120 * 16);
        p.setPen(Qt::NoPen);
        p.setBrush(cream);
        for (const auto& c : {QPointF(74, 40), QPointF(82, 62), QPointF(64, 64)}) p.drawPath(star(c, 4.5, 1.7, 4));
        frame(p, straw, 3, 2);
    });
    weather(image, 0.1, s / 6.0, 53);
    return image;
}

QImage sun_panel(int s) {
    auto image = paint(s, s, sky, [&](QPainter& p) {
        p.setBrush(rust);
        p.drawPath(star({50, 50}, 42, 24, 16));
        p.setBrush(gold);
        p.drawEllipse(QPointF(50, 50), 24, 24);
        p.setBrush(ink);
        p.drawEllipse(QPointF(42, 46), 2.4, 3);
        p.drawEllipse(QPointF(58, 46), 2.4, 3);
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(madder, 2.4, Qt::SolidLine, Qt::RoundCap));
        p.drawArc(QRectF(38, 44, 24, 20), 210 * 16, 120 * 16);
        p.setPen(Qt::NoPen);
        frame(p, white, 3, 2);
    });
    weather(image, 0.1, s / 6.0, 54);
    return image;
}

QImage swan(int s) {
    auto image = paint(s, s, QColor(0x4E, 0x8F, 0xA0), [&](QPainter& p) {
        for (int i = 0; i < 6; ++i) p.fillRect(QRectF(0, 74 + i * 5, 100, 1.2), QColor(255, 255, 255, 70));
        QPainterPath body;
        body.moveTo(12, 58);
        body.cubicTo(20, 84, 66, 88, 84, 66);
        body.cubicTo(92, 54, 90, 44, 94, 40);
        body.cubicTo(78, 44, 66, 44, 54, 56);
        body.cubicTo(48, 62, 42, 60, 38, 54);
        body.cubicTo(34, 42, 46, 30, 40, 18);
        body.cubicTo(34, 8, 20, 12, 20, 22);
        body.cubicTo(30, 20, 30, 30, 22, 40);
        body.cubicTo(16, 48, 11, 50, 12, 58);
        p.setBrush(white);
        p.drawPath(body);
        p.setBrush(rust);
        p.drawPolygon(QPolygonF({{21, 17}, {8, 25}, {21, 24}}));
        p.setBrush(ink);
        p.drawEllipse(QPointF(27, 17), 1.8, 1.8);
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(QColor(150, 160, 170), 1.4));
        for (int i = 0; i < 4; ++i) p.drawArc(QRectF(46 + i * 7, 52 + i, 34 - i * 6, 22), 200 * 16, 130 * 16);
    });
    weather(image, 0.08, s / 6.0, 55);
    return image;
}

QImage rooster(int s) {
    auto image = paint(s, s, straw, [&](QPainter& p) {
        p.setBrush(bottle);
        for (int i = 0; i < 5; ++i) {
            QPainterPath feather;
            feather.moveTo(34, 58);
            feather.cubicTo(14 - i * 2, 50 - i * 9, 10 + i * 4, 20 - i * 3, 24 + i * 6, 16 + i * 2);
            feather.cubicTo(20 + i * 5, 30, 28 + i * 2, 44, 40, 54);
            p.drawPath(feather);
        }
        QPainterPath body;
        body.moveTo(30, 56);
        body.cubicTo(32, 86, 72, 86, 74, 54);
        body.cubicTo(76, 36, 80, 28, 72, 22);
        body.cubicTo(62, 22, 60, 38, 54, 48);
        body.cubicTo(46, 56, 36, 50, 30, 56);
        p.setBrush(rust);
        p.drawPath(body);
        p.setBrush(madder);
        for (int i = 0; i < 3; ++i) p.drawEllipse(QPointF(66 + i * 4, 19 - (i == 1) * 2), 3.4, 4.6);
        p.drawEllipse(QPointF(78, 36), 2.6, 5);
        p.setBrush(gold);
        p.drawPolygon(QPolygonF({{78, 26}, {90, 30}, {78, 33}}));
        p.setBrush(ink);
        p.drawEllipse(QPointF(73, 27), 1.8, 1.8);
        p.setPen(QPen(gold.darker(130), 2.4));
        p.drawLine(QPointF(50, 78), QPointF(48, 94));
        p.drawLine(QPointF(58, 78), QPointF(60, 94));
    });
    weather(image, 0.1, s / 6.0, 56);
    return image;
}

QImage teacup(int s) {
    auto image = paint(s, s, QColor(0xD9, 0xB8, 0xB4), [&](QPainter& p) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(white, 7));
        p.drawEllipse(QPointF(80, 48), 11, 13);
        p.setPen(Qt::NoPen);
        QPainterPath cup;
        cup.moveTo(14, 30);
        cup.lineTo(78, 30);
        cup.cubicTo(78, 66, 66, 80, 46, 80);
        cup.cubicTo(26, 80, 14, 66, 14, 30);
        p.setBrush(across(14, 78, QColor(220, 214, 206), white, QColor(200, 190, 180)));
        p.drawPath(cup);
        p.setBrush(QColor(120, 70, 40));
        p.drawEllipse(QPointF(46, 30), 32, 6);
        p.setBrush(navy);
        for (int i = 0; i < 5; ++i) p.drawPath(star({24 + i * 11.0, 52 + 4 * std::sin(i * 0.8)}, 5, 2, 6));
        p.setBrush(white);
        p.drawEllipse(QPointF(46, 86), 36, 6);
        p.setBrush(gold);
        p.drawEllipse(QPointF(46, 85), 24, 3);
    });
    weather(image, 0.06, s / 6.0, 57);
    return image;
}

QImage balloon(int s) {
    auto image = paint(s, s, QColor(0xA8, 0xCB, 0xDE), [&](QPainter& p) {
        QPainterPath bag;
        bag.addEllipse(QPointF(50, 40), 34, 36);
        p.save();
        p.setClipPath(bag);
        const QColor gores[] = {madder, cream, gold, cream, bottle, cream};
        for (int i = 0; i < 6; ++i) {
            p.setBrush(gores[i]);
            p.drawEllipse(QPointF(50, 40), 36 - i * 6.5, 40);
        }
        QRadialGradient light(38, 24, 60);
        light.setColorAt(0, QColor(255, 255, 255, 90));
        light.setColorAt(1, QColor(0, 0, 0, 90));
        p.fillRect(QRectF(0, 0, 100, 100), light);
        p.restore();
        p.setPen(QPen(ink, 0.8));
        p.drawLine(QPointF(34, 71), QPointF(43, 86));
        p.drawLine(QPointF(66, 71), QPointF(57, 86));
        p.setPen(Qt::NoPen);
        p.setBrush(rust.darker(140));
        p.drawRoundedRect(QRectF(42, 85, 16, 11), 2, 2);
    });
    weather(image, 0.06, s / 5.0, 58);
    return image;
}

QImage target(int s) {
    auto image = paint(s, s, QColor(0x6B, 0x4B, 0x32), [&](QPainter& p) {
        for (int i = 0; i < 5; ++i) {
            p.setBrush(i % 2 ? madder : cream);
            p.drawEllipse(QPointF(50, 50), 44 - i * 9, 44 - i * 9);
        }
        p.setBrush(ink);
        for (int i = 0; i < 6; ++i) p.drawEllipse(QPointF(20 + 60 * noise_at(i, 4, 8), 20 + 60 * noise_at(i, 5, 8)), 1.8, 1.8);
    });
    weather(image, 0.2, s / 9.0, 59);
    return image;
}

QImage ducks(int s) {
    auto image = paint(s, s, sky, [&](QPainter& p) {
        for (int row = 0; row < 2; ++row) {
            for (int i = 0; i < 3; ++i) {
                const double x = 16 + i * 32 + row * 10, y = 34 + row * 44;
                p.setBrush(gold);
                p.drawEllipse(QPointF(x, y), 13, 8);
                p.drawEllipse(QPointF(x + 9, y - 10), 6, 6);
                p.setBrush(rust);
                p.drawPolygon(QPolygonF({{x + 14, y - 11}, {x + 20, y - 8}, {x + 14, y - 7}}));
                p.setBrush(ink);
                p.drawEllipse(QPointF(x + 11, y - 12), 1.2, 1.2);
            }
            p.setBrush(navy);
            for (int i = 0; i < 9; ++i) p.drawEllipse(QPointF(i * 12.5, 46 + row * 44), 7, 5);
        }
    });
    weather(image, 0.1, s / 8.0, 60);
    return image;
}

}  // namespace fair

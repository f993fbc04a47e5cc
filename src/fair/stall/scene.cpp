#include "fair/stall/scene.h"

#include <cmath>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QPainter>
#include <QPainterPath>
#include <QtMath>
#include <string>

namespace fair {
namespace {

class Stage {
public:
    Stage(Installation& game, int quality, QPainter& painter, QIODevice* record, FrameRecord* frame)
        : game_(game), quality_(quality), p_(painter), record_(record), frame_(frame) {}

    const QImage& picture(const QByteArray& path) {
        const QString key = QString::fromUtf8(path);
        if (!cache_.contains(key)) cache_[key] = game_.texture(key, quality_).value_or(missing_texture());
        return cache_[key];
    }

    /// A texture on a quadrilateral: top left, top right, bottom right, bottom left.
    void quad(const QByteArray& path, const QPolygonF& to, double light = 1, QRectF part = QRectF(0, 0, 1, 1)) {
        const auto& image = picture(path);
        if (record_) {
            QJsonArray corners;
            for (const auto& p : to) corners.append(QJsonArray{p.x(), p.y()});
            const QString key = QString::fromUtf8(path);
            record_->write(
                QJsonDocument(
                    QJsonObject{
                        {"draw", ++draws_}, {"texture", key}, {"archive", game_.source_of(key)}, {"level", quality_}, {"corners", corners}})
                    .toJson(QJsonDocument::Compact) +
                '\n');
        }
        const QRectF from(part.x() * image.width(), part.y() * image.height(), part.width() * image.width(),
                          part.height() * image.height());
        QTransform transform;
        if (!QTransform::quadToQuad(QPolygonF({from.topLeft(), from.topRight(), from.bottomRight(), from.bottomLeft()}), to, transform))
            return;
        if (frame_) frame_->quad(QString::fromUtf8(path), image, transform, from, bound(path, light < 1));
        p_.save();
        p_.setTransform(transform, true);
        p_.drawImage(from, image, from);
        if (light < 1) p_.fillRect(from, QColor(10, 8, 24, int((1 - light) * 255)));
        p_.restore();
    }

    void box(const QByteArray& path, double x, double y, double w, double h, double light = 1) {
        quad(path, QPolygonF({{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}), light);
    }

    /// The ground as rows of tiles in perspective.
    void ground(const char* path, double horizon, double bottom) {
        for (int row = 0; row < 7; ++row) {
            const double a = std::pow(row / 7.0, 1.7), b = std::pow((row + 1) / 7.0, 1.7);
            const double y0 = horizon + (bottom - horizon) * a, y1 = horizon + (bottom - horizon) * b;
            const double s0 = 60 + 260 * a, s1 = 60 + 260 * b;
            for (int i = -12; i < 12; ++i)
                quad(path, QPolygonF({{640 + i * s0, y0}, {640 + (i + 1) * s0, y0}, {640 + (i + 1) * s1, y1}, {640 + i * s1, y1}}),
                     0.72 + 0.2 * b);
        }
    }

private:
    /// What else the draw could read: the other maps of the set, and the sky, which lights what stands in it.
    std::vector<std::pair<QString, QImage>> bound(const QString& path, bool lit) {
        std::vector<std::pair<QString, QImage>> out;
        const auto paths = game_.paths();
        for (const auto* other : {"_bump", "_gloss"}) {
            auto beside = path;
            if (!beside.contains(QLatin1String("_tint"))) continue;
            beside.replace(QLatin1String("_tint"), QLatin1String(other));
            if (paths.contains(beside)) out.emplace_back(beside, picture(beside.toUtf8()));
        }
        if (lit) out.emplace_back(QStringLiteral("sky/evening.dds"), picture("sky/evening.dds"));
        return out;
    }

    Installation& game_;
    int quality_;
    QPainter& p_;
    QIODevice* record_;
    FrameRecord* frame_;
    int draws_ = 0;
    QMap<QString, QImage> cache_;
};

void carousel(Stage& s, QPainter& p) {
    const double cx = 420, top = 190, base = 610;
    p.setPen(Qt::NoPen);
    p.setBrush(QColor(20, 14, 12, 110));
    p.drawEllipse(QPointF(cx, base + 26), 300, 40);
    for (int i = 0; i < 10; ++i) s.box("carousel/deck.pnl", cx - 280 + i * 56, base - 6, 56, 34, 0.9);
    s.box("carousel/mirror.pnl", cx - 70, top + 130, 140, base - top - 140, 0.9);
    const char* horses[] = {"carousel/horse_b_tint.pnl", "carousel/horse_a_tint.pnl", "carousel/horse_c_tint.pnl"};
    for (int i = 0; i < 3; ++i) {
        const double x = cx - 250 + i * 180, lift = i == 1 ? 30 : 0;
        s.box("carousel/pole.pnl", x + 62, top + 110, 14, base - top - 110);
        s.box(horses[i], x, base - 200 + lift - 30, 140, 140);
    }
    for (int i = 0; i < 8; ++i) s.box("carousel/scrollwork.pnl", cx - 300 + i * 75, top + 76, 75, 60);
    for (int i = 0; i < 10; ++i) s.box("lights/bulbs.pnl", cx - 300 + i * 60, top + 132, 60, 16);
    // The roof: wedges that narrow to the point
    for (int i = 0; i < 6; ++i) {
        const double x0 = cx - 310 + i * 103.3, x1 = x0 + 103.3, t0 = cx - 30 + i * 10, t1 = t0 + 10;
        s.quad("booths/ticket/awning_red_tint.dds", QPolygonF({{t0, top - 60}, {t1, top - 60}, {x1, top + 84}, {x0, top + 84}}),
               i < 3 ? 1.0 : 0.82);
    }
    s.box("wheel/star_panel.pnl", cx - 28, top - 112, 56, 56);
}

void ticket_booth(Stage& s) {
    s.box("ground/bricks.dds", 800, 440, 190, 190, 0.9);
    s.box("organ/curtain.pnl", 830, 400, 130, 110);
    s.quad("booths/ticket/awning_green_tint.dds", QPolygonF({{800, 330}, {990, 330}, {1012, 430}, {778, 430}}));
    s.box("signs/sign_tickets.dds", 812, 262, 166, 72);
    s.box("booths/ticket/ticket_adult.dds", 846, 520, 96, 48);
}

void organ(Stage& s) {
    s.box("organ/front_scroll.pnl", 1040, 300, 210, 330);
    s.box("organ/pipes.pnl", 1062, 340, 166, 170);
    s.box("organ/drum.pnl", 1062, 530, 70, 70);
    s.box("organ/clock.dds", 1158, 526, 74, 74);
}

}  // namespace

QImage draw_storeroom(Installation& game, int quality, QIODevice* record, FrameRecord* frame) {
    QImage image(1280, 800, QImage::Format_ARGB32_Premultiplied);
    image.fill(QColor(40, 36, 34));
    QPainter p(&image);
    p.setRenderHints(QPainter::SmoothPixmapTransform | QPainter::Antialiasing);
    Stage s(game, quality, p, record, frame);
    int place = 0;
    for (const auto& path : game.paths()) {
        if (!game.is_flat(path) || place == 12 * 8) continue;
        s.box(path.toUtf8(), 8 + place % 12 * 106, 4 + place / 12 * 99, 96, 90);
        ++place;
    }
    p.end();
    return image;
}

QImage draw_scene(Installation& game, int quality, QIODevice* record, FrameRecord* frame) {
    QImage image(1280, 800, QImage::Format_ARGB32_Premultiplied);
    QPainter p(&image);
    p.setRenderHints(QPainter::SmoothPixmapTransform | QPainter::Antialiasing);
    Stage s(game, quality, p, record, frame);
    s.box("sky/evening.dds", 0, 0, 1280, 500);
    s.ground("ground/meadow.dds", 470, 800);
    s.box("wheel/wheel.pnl", 640, 130, 300, 300, 0.75);
    s.box("cloth/tent.dds", 20, 330, 190, 150, 0.85);
    s.box("cloth/balloon.dds", 1090, 40, 120, 120, 0.95);
    for (int i = 0; i < 5; ++i) s.box("front/bunting.dds", i * 256, 10, 256, 90);
    carousel(s, p);
    ticket_booth(s);
    organ(s);
    s.box("carnival/arch.stp", 700, 560, 80, 100, 0.95);
    const char* lanterns[] = {"red", "blue", "green", "plum", "gold"};
    for (int i = 0; i < 5; ++i) s.box("lanterns/paper_" + QByteArray(lanterns[i]) + ".pnl", 700 + i * 66, 170 + (i % 2) * 14, 30, 44);
    s.box("puppets/stage_front.pnl", 232, 560, 130, 120);
    s.box("puppets/king_tint.pnl", 250, 590, 44, 60);
    s.box("puppets/queen_tint.pnl", 300, 590, 44, 60);
    s.box("carousel/swan_variant.pnl", 1130, 660, 120, 120);
    s.box("front_curtain.pnl", 20, 640, 100, 130, 0.9);
    s.box("cashbox/ticket_gold.pnl", 900, 576, 60, 30);
    for (int i = 0; i < 7; ++i)
        s.quad("ground/gravel.dds",
               QPolygonF({{400 + i * 70.0, 660}, {470 + i * 70.0, 660}, {460 + i * 106.0, 800}, {354 + i * 106.0, 800}}), 0.92);
    s.box("front/poster_autumn.dds", 40, 500, 80, 150);
    s.box("booths/shooting/target.dds", 150, 520, 90, 90);
    p.end();
    return image;
}

}  // namespace fair

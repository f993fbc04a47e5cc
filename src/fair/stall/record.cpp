#include "fair/stall/record.h"

#include <QDir>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QSaveFile>

namespace fair {
namespace {

QByteArray line_of(const QJsonObject& object) { return QJsonDocument(object).toJson(QJsonDocument::Compact) + '\n'; }

bool write(const QString& file, const QByteArray& bytes) {
    QSaveFile out(file);
    return out.open(QIODevice::WriteOnly) && out.write(bytes) == bytes.size() && out.commit();
}

}  // namespace

bool FrameRecord::begin(const QString& folder, QSize screen) {
    folder_ = folder;
    if (!QDir().mkpath(folder)) return false;
    draws_ = QImage(screen, QImage::Format_ARGB32);
    draws_.fill(Qt::black);
    lines_ = line_of({{"frame", 1},
                      {"width", screen.width()},
                      {"height", screen.height()},
                      {"picture", "frame.png"},
                      {"draws", "draws.png"},
                      {"by", "fair-stall"}});
    return true;
}

int FrameRecord::texture(const QString& path, const QImage& image) {
    if (const auto known = textures_.constFind(path); known != textures_.cend()) return *known;
    const int number = int(textures_.size()) + 1;
    textures_[path] = number;
    const auto file = QStringLiteral("texture-%1.png").arg(number);
    sound_ = image.save(folder_ + '/' + file, "PNG") && sound_;
    lines_ += line_of({{"texture", number}, {"file", file}, {"width", image.width()}, {"height", image.height()}});
    return number;
}

int FrameRecord::mesh(const QSizeF& size, const QRectF& part) {
    const double w = size.width() / 256, h = size.height() / 256;
    QByteArray rows = "index,position.x,position.y,position.z,normal.x,normal.y,normal.z,texcoord.u,texcoord.v\n";
    for (const int k : {0, 1, 2, 0, 2, 3}) {
        const double x = k == 1 || k == 2 ? 1 : 0, y = k >= 2 ? 1 : 0;
        rows += QByteArray::number(k) + ',' + QByteArray::number(x * w) + ',' + QByteArray::number(y * h) + ",0,0,0,1," +
                QByteArray::number(part.left() + x * part.width()) + ',' + QByteArray::number(part.bottom() - y * part.height()) + '\n';
    }
    const auto known = meshes_.constFind(QString::fromLatin1(rows));
    if (known != meshes_.cend()) return *known;
    const int number = int(meshes_.size()) + 1;
    meshes_[QString::fromLatin1(rows)] = number;
    const auto file = QStringLiteral("mesh-%1.csv").arg(number);
    sound_ = write(folder_ + '/' + file, rows) && sound_;
    lines_ += line_of({{"mesh", number}, {"file", file}});
    return number;
}

void FrameRecord::quad(const QString& path, const QImage& image, const QTransform& to, const QRectF& from,
                       const std::vector<std::pair<QString, QImage>>& bound) {
    ++count_;
    QJsonArray list{texture(path, image)};
    for (const auto& [name, other] : bound) list.append(texture(name, other));
    const QRectF part(from.x() / image.width(), from.y() / image.height(), from.width() / image.width(), from.height() / image.height());
    const int shape = mesh(from.size(), part);
    lines_ += line_of({{"draw", count_}, {"mesh", shape}, {"textures", list}, {"triangles", 2}});
    // Where it is seen through, what lies behind is what one points at.
    auto mask = image.convertToFormat(QImage::Format_ARGB32);
    const QRgb color = qRgb(count_ & 255, (count_ >> 8) & 255, (count_ >> 16) & 255);
    for (int y = 0; y < mask.height(); ++y) {
        auto* row = reinterpret_cast<QRgb*>(mask.scanLine(y));
        for (int x = 0; x < mask.width(); ++x) row[x] = qAlpha(row[x]) >= 128 ? color : 0;
    }
    QPainter p(&draws_);
    p.setTransform(to);
    p.drawImage(from, mask, from);
}

bool FrameRecord::end(const QImage& picture) {
    sound_ = picture.save(folder_ + QStringLiteral("/frame.png"), "PNG") && sound_;
    sound_ = draws_.convertToFormat(QImage::Format_RGB888).save(folder_ + QStringLiteral("/draws.png"), "PNG") && sound_;
    // The last: who finds it finds the whole.
    return write(folder_ + QStringLiteral("/frame.jsonl"), lines_) && sound_;
}

}  // namespace fair

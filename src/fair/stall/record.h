#pragma once
#include <QIODevice>
#include <QMap>
#include <QPainter>
#include <QSet>

#include "fair/stall/loader.h"

namespace fair {

/// What one frame draws, as a game's own tool would write it out: a folder with frame.jsonl, the frame, which draw each pixel is of, the
/// textures as they were on the graphics card, and the meshes as tables of vertices. The format is described in docs/frame-record.md.
/// Nothing in it says what the textures are called, as a graphics card does not know it.
class FrameRecord {
public:
    /// `folder` is made; false when it cannot be.
    bool begin(const QString& folder, QSize screen);
    /// A texture on a quadrilateral. `bound`: further textures that the draw could have read.
    void quad(const QString& path, const QImage& image, const QTransform& to, const QRectF& from,
              const std::vector<std::pair<QString, QImage>>& bound);
    bool end(const QImage& picture);

private:
    int texture(const QString& path, const QImage& image);
    int mesh(const QSizeF& size, const QRectF& part);
    QString folder_;
    QByteArray lines_;
    QImage draws_;
    int count_ = 0;
    bool sound_ = true;
    QMap<QString, int> textures_, meshes_;
};

}  // namespace fair

#pragma once
// Compressing and packing, written without any of Skivet's code.
#include <QByteArray>
#include <QString>
#include <vector>

#include "fair/press/art.h"

namespace fair {

struct PackedFile {
    QString path;  ///< with ending
    QByteArray bytes;
    bool deflated = false;
};

/// The finished file of one texture.
PackedFile make_texture(const Art& art);
/// All its files: a stepped texture has its largest levels in files of their own.
std::vector<PackedFile> make_texture_files(const Art& art);
/// One line of the game's manifest: path, pixel code, width, height, levels, layers.
QString manifest_line(const QString& archive, const Art& art);

/// With libzip. Returns an empty array on failure.
QByteArray make_zip(const std::vector<PackedFile>& files);
QByteArray make_crate(const std::vector<PackedFile>& files, quint32 season);

/// A stored-only ZIP of `entries` files with `bytes` altogether, for measuring: written straight to disk, ZIP64 where needed.
bool make_depot(const QString& path, quint64 entries, quint64 bytes);

}  // namespace fair

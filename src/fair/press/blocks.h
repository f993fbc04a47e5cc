#pragma once
// Blocks that libsquish does not make, by the plainest way each format has; deterministic.
#include <QByteArray>
#include <QImage>

namespace fair {

/// Every block in mode 6: one line through all four channels.
QByteArray bc7_blocks(const QImage& image);
/// Every block in the mode with two endpoints of 10 bits; `brightness` is what white stands for.
QByteArray bc6h_blocks(const QImage& image, double brightness);
/// Every block in ETC1's individual mode, halves side by side.
QByteArray etc2_blocks(const QImage& image);
/// 4×4, with astcenc.
QByteArray astc_blocks(const QImage& image);

}  // namespace fair

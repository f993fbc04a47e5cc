#pragma once
// From the core's pictures to the window's. Everything here is called on worker threads.
#include <QImage>
#include <QPointF>

#include "bench/fitting.h"

namespace skivet::app {

enum class Channels { color, red, green, blue, alpha, alpha_over, lit };

[[nodiscard]] QImage to_qimage(const Image& image);
[[nodiscard]] Image from_qimage(const QImage& picture);
/// One channel as gray, color without alpha, or color with alpha.
[[nodiscard]] QImage to_qimage(const Image& image, Channels channels, bool premultiplied = false);
/// A normal map lit from a direction: `light` is the pointer's place over the picture, -1…1, light from the upper left at (-0.5, -0.5). X
/// is in `x_channel` and Y in green, 128 for zero, green up; Z is rebuilt as sqrt(1 - x² - y²) so that maps of two channels serve too.
[[nodiscard]] QImage lit_picture(const Image& normals, QPointF light, std::size_t x_channel = 0);
/// How often each value occurs, for the channels the format stores.
[[nodiscard]] std::vector<std::array<quint32, 256>> histogram_of(const Image& image, const FormatInfo& format);
}  // namespace skivet::app

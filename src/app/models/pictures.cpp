#include "app/models/pictures.h"

#include <cmath>

#include "pixel/bands.h"

namespace skivet::app {

Image from_qimage(const QImage& picture) {
    const auto rgba = picture.convertToFormat(QImage::Format_RGBA8888);
    Image out(std::uint32_t(rgba.width()), std::uint32_t(rgba.height()));
    for (int y = 0; y < rgba.height(); ++y)
        std::memcpy(out.texels.data() + std::size_t(y) * out.width, rgba.constScanLine(y), std::size_t(out.width) * 4);
    return out;
}

QImage to_qimage(const Image& image) {
    return QImage(reinterpret_cast<const uchar*>(image.texels.data()), int(image.width), int(image.height), int(image.width) * 4,
                  QImage::Format_RGBA8888)
        .copy();
}

QImage to_qimage(const Image& image, Channels channels, bool premultiplied) {
    if (channels == Channels::alpha_over) {
        auto picture = to_qimage(image);
        // The same bytes, read as already multiplied; what is brighter than its alpha (block compression) is held to it.
        if (premultiplied) {
            for (int y = 0; y < picture.height(); ++y)
                for (auto *t = picture.scanLine(y), *end = t + picture.width() * 4; t != end; t += 4)
                    for (int c = 0; c < 3; ++c) t[c] = std::min(t[c], t[3]);
            picture.reinterpretAsFormat(QImage::Format_RGBA8888_Premultiplied);
        }
        return picture;
    }
    QImage out(int(image.width), int(image.height), QImage::Format_RGBX8888);
    each_band(image.height, [&, lines = out.bits(), pitch = out.bytesPerLine()](std::uint32_t from, std::uint32_t end) {
        for (auto y = from; y < end; ++y) {
            const auto* in = &image.at(0, y);
            auto* to = reinterpret_cast<Texel*>(lines + y * pitch);
            if (channels == Channels::color)
                for (std::uint32_t x = 0; x < image.width; ++x) to[x] = {in[x][0], in[x][1], in[x][2], 255};
            else
                for (std::uint32_t x = 0, c = std::uint32_t(channels) - 1; x < image.width; ++x)
                    to[x] = {in[x][c], in[x][c], in[x][c], 255};
        }
    });
    return out;
}

QImage lit_picture(const Image& normals, QPointF at, std::size_t x_channel) {
    Image out(normals.width, normals.height);
    const double lx = std::clamp(at.x(), -0.95, 0.95), ly = -std::clamp(at.y(), -0.95, 0.95);
    const double lz = std::sqrt(std::max(0.05, 1 - lx * lx - ly * ly)), size = std::sqrt(lx * lx + ly * ly + lz * lz);
    for (std::size_t i = 0; i < normals.texels.size(); ++i) {
        const double x = (normals.texels[i][x_channel] - 128) / 127.0, y = (normals.texels[i][1] - 128) / 127.0;
        const double z = std::sqrt(std::max(0.0, 1 - x * x - y * y));
        const double light = std::max(0.0, (x * lx + y * ly + z * lz) / size);
        const auto gray = std::uint8_t(std::min(255.0, 20 + 225 * light));
        out.texels[i] = {gray, gray, gray, 255};
    }
    return to_qimage(out);
}

std::vector<std::array<quint32, 256>> histogram_of(const Image& image, const FormatInfo& format) {
    std::vector<std::array<quint32, 256>> out(format.has_alpha ? 4 : std::min<std::size_t>(3, format.channels));
    for (auto& channel : out) channel.fill(0);
    for (const auto& t : image.texels)
        for (std::size_t c = 0; c < out.size(); ++c) ++out[c][t[c]];
    return out;
}

}  // namespace skivet::app

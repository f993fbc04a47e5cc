#include "app/models/pictures.h"

#include <cmath>

#include "codec/paint_form.h"

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
    auto out = image;
    for (auto& t : out.texels) {
        if (channels != Channels::color) {
            const auto value = t[std::size_t(channels) - 1];
            t = {value, value, value, 255};
        }
        t[3] = 255;
    }
    return to_qimage(out);
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

QImage difference_picture(const Image& a, const Image& b) {
    Image out(a.width, a.height);
    for (std::size_t i = 0; i < a.texels.size() && i < b.texels.size(); ++i) {
        for (std::size_t c = 0; c < 3; ++c) {
            const int d = std::abs(a.texels[i][c] - b.texels[i][c]) + std::abs(a.texels[i][3] - b.texels[i][3]) / 3;
            out.texels[i][c] = std::uint8_t(std::min(255, d * 4));
        }
    }
    return to_qimage(out);
}

FitPictures pictures_of(const TextureFile& original, const Fit& fit) {
    FitPictures out;
    out.original = to_qimage(fit.original);
    out.edited = to_qimage(fit.edited);
    const auto& d = original.layout.desc;
    const auto levels = [&](const TextureFile& texture) {
        std::vector<QImage> images;
        for (std::uint32_t mip = 0; mip < d.mips; ++mip) {
            const auto image = texture.decode(mip);
            if (!image) break;
            images.push_back(to_qimage(paint_form(d.format, *image)));
        }
        return images;
    };
    out.original_mips = levels(original);
    if (fit.file.empty()) return out;
    out.result = to_qimage(fit.result);
    out.difference = difference_picture(fit.original, fit.result);
    const TextureFile result{original.kind, original.layout, fit.file};
    out.result_mips = levels(result);
    const auto& f = info(d.format);
    const auto* surface = original.layout.find(0);
    if (surface && original.layout.direct) {
        const auto across = (d.width + f.block_width - 1) / f.block_width, down = (d.height + f.block_height - 1) / f.block_height;
        QImage blocks(int(across), int(down), QImage::Format_ARGB32);
        blocks.fill(Qt::transparent);
        for (std::uint32_t i = 0; i < across * down; ++i) {
            const auto at = static_cast<std::ptrdiff_t>(surface->offset + std::uint64_t{i} * f.block_bytes);
            if (!std::equal(original.file.begin() + at, original.file.begin() + at + f.block_bytes, fit.file.begin() + at))
                blocks.setPixel(int(i % across), int(i / across), 0xFFFFFFFF);
        }
        out.changed_blocks = blocks;
    }
    return out;
}

}  // namespace skivet::app

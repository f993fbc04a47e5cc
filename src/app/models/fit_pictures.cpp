#include "app/models/fit_pictures.h"

#include <cmath>
#include <cstring>
#include <QColor>

#include "codec/paint_form.h"
#include "pixel/bands.h"
#include "pixel/normals.h"
#include "pixel/reduce.h"

namespace skivet::app {
namespace {

/// The picture's own memory, kept alive by `owner`.
QImage shared_image(std::shared_ptr<const FittedPiece> owner, const Image& image) {
    using Owner = std::shared_ptr<const FittedPiece>;
    return QImage(
        reinterpret_cast<const uchar*>(image.texels.data()), int(image.width), int(image.height), int(image.width) * 4,
        QImage::Format_RGBA8888, [](void* kept) { delete static_cast<Owner*>(kept); }, new Owner(std::move(owner)));
}

}  // namespace

QImage whole(const Image& image, const std::optional<NormalChannels>& normals) {
    return normals && normals->z < 0 ? to_qimage(with_z(normals, image)) : to_qimage(image);
}

QImage small(const Image& image, int side, const std::optional<NormalChannels>& normals) {
    const QImage seen(reinterpret_cast<const uchar*>(image.texels.data()), int(image.width), int(image.height), int(image.width) * 4,
                      QImage::Format_RGBA8888);
    const auto is_larger = [&](int most) { return std::max(seen.width(), seen.height()) > most; };
    // A quick look first: a smooth one of millions of texels takes long, and nobody sees the difference in a strip.
    auto out = is_larger(side * 4) ? seen.scaled(side * 4, side * 4, Qt::KeepAspectRatio, Qt::FastTransformation) : seen;
    if (normals && normals->z < 0) out = to_qimage(with_z(normals, from_qimage(out)));
    return is_larger(side) ? out.scaled(side, side, Qt::KeepAspectRatio, Qt::SmoothTransformation) : out.copy();
}

QImage difference_picture(const Image& a, const Image& b, Channels channels, int amplify) {
    if (a.texels.size() != b.texels.size()) return {};
    QImage out(int(a.width), int(a.height), QImage::Format_RGBX8888);
    const bool one = channels >= Channels::red && channels <= Channels::alpha;
    const auto lone = one ? std::size_t(channels) - 1 : 0;
    const auto factor = unsigned(amplify);
    const auto differs = [factor](std::uint8_t x, std::uint8_t y) {
        return std::uint8_t(std::min(255u, unsigned(x > y ? x - y : y - x) * factor));
    };
    const auto row = [&, lines = out.bits(), pitch = out.bytesPerLine()](std::uint32_t y) {
        const auto *p = a.texels[std::size_t{y} * a.width].data(), *q = b.texels[std::size_t{y} * a.width].data();
        auto* line = lines + y * pitch;
        if (std::memcmp(p, q, std::size_t{a.width} * 4) == 0) {
            std::fill_n(reinterpret_cast<Texel*>(line), a.width, Texel{0, 0, 0, 255});
        } else if (one) {
            for (std::size_t x = 0; x < a.width; ++x) {
                const auto d = differs(p[x * 4 + lone], q[x * 4 + lone]);
                line[x * 4] = line[x * 4 + 1] = line[x * 4 + 2] = d;
                line[x * 4 + 3] = 255;
            }
        } else {
            for (std::size_t i = 0; i < std::size_t{a.width} * 4; ++i) line[i] = (i & 3) == 3 ? std::uint8_t(255) : differs(p[i], q[i]);
        }
    };
    each_band(a.height, [&](std::uint32_t from, std::uint32_t to) {
        for (auto y = from; y < to; ++y) row(y);
    });
    return out;
}

FitSides sides_of(std::shared_ptr<const FittedPiece> fitted, const FitLook& look) {
    FitSides out;
    out.look = look;
    if (!fitted->made.fit) return out;
    const auto& fit = *fitted->made.fit;
    const auto& normals = fit.mips.normals;
    const auto x = normals ? normals->x : std::size_t{0};
    const auto picture = [&](const Image& image) {
        if (image.texels.empty()) return QImage();
        if (look.channels == Channels::lit) return lit_picture(image, {-0.5, -0.5}, x);
        const bool is_whole = look.channels == Channels::color || look.channels == Channels::alpha_over;
        if (is_whole && normals && normals->z < 0) return whole(image, normals);
        return look.channels == Channels::alpha_over ? shared_image(fitted, image) : to_qimage(image, look.channels);
    };
    out.pictures[std::size_t(FitSide::game)] = picture(fit.original);
    out.pictures[std::size_t(FitSide::yours)] = picture(fit.edited);
    if (fit.file.empty()) return out;
    out.pictures[std::size_t(FitSide::result)] = picture(fit.result);
    out.pictures[std::size_t(FitSide::difference)] =
        difference_picture(look.loss ? fit.edited : fit.original, fit.result, look.channels, look.amplify);
    constexpr int large = 2048;
    const auto& result = out.pictures[std::size_t(FitSide::result)];
    out.are_large = std::max(result.width(), result.height()) >= large;
    return out;
}

QImage reduced(const QImage& picture, std::uint32_t step) {
    RowReducer reducer(std::uint32_t(picture.width()), std::uint32_t(picture.height()), step);
    std::vector<Texel> row(std::size_t(picture.width()));
    const bool opaque = !picture.hasAlphaChannel();
    for (int y = 0; y < picture.height(); ++y) {
        const auto* texels = reinterpret_cast<const Texel*>(picture.constScanLine(y));
        for (std::size_t x = 0; x < row.size(); ++x) {
            const auto& t = texels[x];
            const auto part = [&](std::uint8_t v) { return std::uint8_t((v * t[3] + 127) / 255); };
            row[x] = opaque || t[3] == 255 ? Texel{t[0], t[1], t[2], 255} : Texel{part(t[0]), part(t[1]), part(t[2]), t[3]};
        }
        reducer.add(row.data());
    }
    auto out = to_qimage(reducer.take().means);
    out.reinterpretAsFormat(opaque ? QImage::Format_RGBX8888 : QImage::Format_RGBA8888_Premultiplied);
    return out.convertToFormat(opaque ? QImage::Format_RGB32 : QImage::Format_ARGB32_Premultiplied);  // what is drawn fastest
}

FitSides with_reduced(FitSides sides) {
    constexpr std::uint32_t step = 4;
    for (std::size_t i = 0; i < fit_side_count; ++i)
        if (!sides.pictures[i].isNull()) sides.reduced[i] = reduced(sides.pictures[i], step);
    return sides;
}

FitMips mips_of(const FittedPiece& fitted, std::size_t most, int side, const std::vector<QImage>& game) {
    FitMips out;
    if (!fitted.made.fit || !fitted.original) return out;
    const auto& fit = *fitted.made.fit;
    const auto& original = *fitted.original;
    const auto& d = original.layout.desc;
    const auto& normals = fit.mips.normals;
    const auto levels = [&](const TextureFile& texture, const Image& first) {
        std::vector<QImage> images{small(first, side, normals)};
        for (std::uint32_t mip = 1; mip < texture.layout.desc.mips && images.size() < most; ++mip) {
            const auto image = texture.decode(mip);
            if (!image) break;
            images.push_back(small(paint_form(d.format, *image), side, normals));
        }
        return images;
    };
    out.game = game.empty() ? levels(original, fit.original) : game;
    if (!fit.file.empty()) out.result = levels({original.kind, fit.layout, fit.file}, fit.result);
    return out;
}

void draw_blocks(FittedPiece& fitted, const QColor& accent) {
    if (!fitted.made.fit || fitted.made.fit->blocks.is_new.empty()) return;
    const auto& map = fitted.made.fit->blocks;
    QImage changed(int(map.across), int(map.down), QImage::Format_ARGB32), lost(changed.size(), QImage::Format_ARGB32);
    for (int y = 0; y < changed.height(); ++y) {
        auto *a = reinterpret_cast<QRgb*>(changed.scanLine(y)), *b = reinterpret_cast<QRgb*>(lost.scanLine(y));
        for (int x = 0; x < changed.width(); ++x) {
            const auto cell = std::size_t(y) * map.across + std::size_t(x);
            a[x] = map.is_new[cell] ? accent.rgb() : 0;
            // Full at 32 of 255, where any eye sees it.
            b[x] = qRgba(accent.red(), accent.green(), accent.blue(), std::min(230, map.loss[cell] * 230 / 32));
        }
    }
    fitted.new_blocks = changed;
    fitted.lost_blocks = lost;
}

}  // namespace skivet::app

// The viewer's picture: what is made of the chosen level, and what the texel under the pointer holds.
#include <cmath>
#include <QMouseEvent>
#include <QPainter>
#include "app/pages/mip_strip.h"
#include "app/pages/page.h"
#include "app/pages/texture_viewer.h"
#include "app/theme/theme.h"
#include "codec/block_facts.h"
#include "codec/paint_form.h"
#include "pixel/alpha_use.h"
#include "pixel/normals.h"
#include "texture/spread.h"

namespace skivet::app {

/// A stored value on the scale of 0 to 255; what lies between two steps with one decimal.
static QString number_text(double value) {
    const double whole = std::round(value);
    return std::abs(value - whole) < 0.05 ? QString::number(int(whole)) : QString::number(value, 'f', 1);
}

void TextureViewer::read_out(QPoint texel) {
    pointed_ = texel;  // a picture that arrives under a pointer that rests is read out, too
    if (!under_ || texel.x() < 0 || !texture_) return view_->set_readout({});
    const auto& f = info(under_->format);
    const auto x = std::uint32_t(texel.x()), y = std::uint32_t(texel.y());
    if (x >= under_->width || y >= under_->height) return view_->set_readout({});
    if (channels_ == Channels::lit && !lighting_) {  // one picture at a time; the next move brings the next
        light_ = {2.0 * x / under_->width - 1, 2.0 * y / under_->height - 1};
        lighting_ = true;
        model_->jobs().run(
            this, tr("Reading pictures"), [under = under_, light = light_] { return lit_picture(under->shown, light); },
            [this, under = under_](QImage picture) {
                lighting_ = false;
                if (under == under_ && channels_ == Channels::lit) view_->set_image(picture);
            });
    }
    // Only the pointer's own block is decoded.
    const auto across = (under_->width + f.block_width - 1) / f.block_width;
    const auto at = (std::size_t(y / f.block_height) * across + x / f.block_width) * f.block_bytes;
    if (at + f.block_bytes > under_->bytes.size()) return view_->set_readout({});
    const auto block = ByteSpan(under_->bytes).subspan(at, f.block_bytes);
    const auto values = decode_wide(under_->format, block, f.block_width, f.block_height);
    if (!values) return view_->set_readout({});
    const auto& value = values->at(x % f.block_width, y % f.block_height);
    const auto& shown = under_->shown.at(x, y);
    QStringList stored;
    for (std::size_t c = 0; c < 4; ++c) {
        if (c == 3 ? !f.has_alpha : (c >= f.channels || f.format == Format::A8)) continue;
        if (f.luminance && (c == 1 || c == 2)) continue;
        const bool bytes = f.numeric == Numeric::unorm && !f.wide;
        stored << (bytes            ? number_text(value[c] * 255.0)
                   : f.is_integer() ? QString::number(std::llround(value[c]))
                                    : QString::number(double(value[c]), 'g', 5));
    }
    const QString place = tr("%1, %2   stored %3").arg(x).arg(y).arg(stored.join(QLatin1Char(' ')));
    const QString seen =
        tr("shown %1 %2 %3").arg(shown[0]).arg(shown[1]).arg(shown[2]) + (f.has_alpha ? QStringLiteral(" %1").arg(shown[3]) : QString());
    constexpr int line_size = 46;
    QStringList lines = {place};
    if (place.size() + seen.size() + 3 <= line_size) lines.front() += QStringLiteral("   ") + seen;
    else lines << QStringLiteral("  ") + seen;
    if (f.block_compressed()) {
        // Long descriptions go on in the next line, at one of their dots.
        const QString dot = QStringLiteral(" · ");
        QString line = tr("block %1, %2").arg(x / f.block_width).arg(y / f.block_height);
        for (const auto& part : to_text(describe_block(under_->format, block)).split(dot)) {
            if (line.size() + part.size() > line_size) lines << std::exchange(line, QStringLiteral("  ") + part);
            else line += dot + part;
        }
        lines << line;
    }
    view_->set_readout(lines);
}

void TextureViewer::update_picture() {
    if (!texture_) return;
    if (texture_->error) {
        view_->set_message(to_text(texture_->error->message()));
        mips_->set_pictures({});
        return;
    }
    const auto& d = texture_->texture.layout.desc;
    const auto parts = std::max(d.layers * d.faces, mip_side(d.depth, std::uint32_t(mip_)));
    part_ = std::min(part_, int(parts) - 1);
    face_row_->setVisible(parts > 1);
    face_text_->setText(d.depth > 1   ? tr("slice %1 of %2").arg(part_ + 1).arg(parts)
                        : d.faces > 1 ? tr("face %1 of %2").arg(part_ + 1).arg(parts)
                                      : tr("layer %1 of %2").arg(part_ + 1).arg(parts));
    mip_text_->setText(tr("mip %1 of %2 · %3×%4")
                           .arg(mip_)
                           .arg(d.mips)
                           .arg(mip_side(d.width, std::uint32_t(mip_)))
                           .arg(mip_side(d.height, std::uint32_t(mip_))));
    const auto& format = info(d.format);
    exposure_row_->setVisible(format.is_float());
    exposure_text_->setText(tr("exposure %1%2").arg(exposure_ > 0 ? QStringLiteral("+") : QString()).arg(exposure_));
    view_->set_block_size({format.block_width, format.block_height});
    struct Shown {
        QImage picture;
        std::vector<QImage> mips;
        QString error, alpha;
        std::shared_ptr<const Under> under;
    };
    const auto request = ++request_;
    model_->jobs().run(
        this, tr("Reading pictures"),
        [texture = texture_, mip = std::uint32_t(mip_), part = std::uint32_t(part_), channels = channels_, exposure = float(exposure_),
         light = light_] {
            Shown out;
            const auto& desc = texture->texture.layout.desc;
            const auto level = [&](std::uint32_t m) -> Result<Image> {
                const auto layer = desc.depth > 1 ? 0 : part / desc.faces, face = desc.depth > 1 ? 0 : part % desc.faces;
                const auto slice = desc.depth > 1 ? std::min(part, mip_side(desc.depth, m) - 1) : 0;
                if (m == mip)
                    if (const auto* surface = texture->texture.layout.find(m, layer, face, slice)) {
                        // A level that is cut off is shown, but has no stored values to read out.
                        if (auto bytes = texture->texture.surface_bytes(*surface)) {
                            auto under = std::make_shared<Under>();
                            under->bytes = std::move(*bytes);
                            under->format = desc.format;
                            under->width = surface->width;
                            under->height = surface->height;
                            out.under = under;
                        }
                    }
                if (!info(desc.format).is_float()) return texture->texture.decode(m, layer, face, slice);
                SKIVET_TRY(const auto wide, texture->texture.decode_wide(m, layer, face, slice));
                return view_of(desc.format, wide, exposure);
            };
            std::optional<NormalChannels> normals;
            const bool is_one = channels >= Channels::red && channels <= Channels::alpha;
            for (std::uint32_t m = 0; m < desc.mips; ++m) {
                const auto image = level(m);
                if (!image) {
                    if (m == mip) out.error = to_text(image.error().message());
                    out.mips.emplace_back();
                    continue;
                }
                if (m == 0 && (channels == Channels::lit || (!is_one && desc.color != ColorSpace::srgb)))
                    normals = guess_normals(desc.format, *image);
                auto painted = paint_form(desc.format, *image);
                const auto alpha =
                    info(desc.format).has_alpha && (m == mip || channels == Channels::alpha_over) ? alpha_facts(painted) : AlphaFacts{};
                auto histogram = out.under && m == mip ? histogram_of(painted, info(desc.format)) : decltype(Under::histogram)();
                auto seen = with_z(normals, std::move(painted));
                const auto shown = channels == Channels::lit ? lit_picture(seen, light) : to_qimage(seen, channels, alpha.premultiplied);
                if (m == mip) {
                    out.picture = shown;
                    if (info(desc.format).has_alpha) out.alpha = to_text(describe(alpha));
                    if (out.under) {
                        auto under = std::make_shared<Under>(*out.under);
                        under->shown = std::move(seen);
                        under->histogram = std::move(histogram);
                        out.under = under;
                    }
                }
                out.mips.push_back(shown.width() > 48 || shown.height() > 48
                                       ? shown.scaled(48, 48, Qt::KeepAspectRatio, Qt::SmoothTransformation)
                                       : shown);
            }
            return out;
        },
        [this, request](Shown shown) {
            if (request != request_) return;
            if (!shown.error.isEmpty()) view_->set_message(shown.error);
            else view_->set_image(shown.picture);
            mips_->set_pictures(std::move(shown.mips));
            mips_->set_current(mip_);
            under_ = shown.under;
            if (pointed_.x() >= 0) read_out(pointed_);
            show_facts(shown.alpha, mips_fact_);
            show_histogram(histogram_);
        });
}

}  // namespace skivet::app

// What is seen of a texture on its object: the pictures, and what is said of the place under the pointer.
#include <cmath>

#include "app/language.h"
#include "app/pages/try_on_panel.h"
#include "app/theme/theme.h"

namespace skivet::app {
namespace {

Texel texel_of(const QColor& color) { return {std::uint8_t(color.red()), std::uint8_t(color.green()), std::uint8_t(color.blue()), 255}; }

}  // namespace

void TryOnPanel::show_scene(bool another) {
    if (!isVisible()) {  // pictures that nobody sees are not made
        missed_ = missed_ || another;
        return;
    }
    const auto& scene = model_->pictures().scene();
    view_->set_message(model_->message());
    if (!scene.rays) view_->set_picture({});
    if (model_->flat().isNull()) flat_->set_message(model_->is_empty() ? QString() : tr("Reading…"));
    else if (flat_->image().cacheKey() != model_->flat().cacheKey()) flat_->set_image(model_->flat());
    flat_->set_overlay(islands_->isChecked() ? model_->overlay() : nullptr);
    green_->setVisible(model_->has_normals());
    const auto levels = model_->flat_map() ? int(model_->flat_map()->levels.size()) + model_->flat_map()->above : 0;
    if (mips_->count() != levels + 1) {
        filling_ = true;
        const int at = mips_->currentIndex();
        while (mips_->count() > 1) mips_->removeItem(mips_->count() - 1);
        for (int i = 0; i < levels; ++i) mips_->addItem(tr("mip %1").arg(i));
        mips_->setCurrentIndex(at <= levels ? at : 0);
        filling_ = false;
    }
    const auto layout = model_->layout();
    if (!layout) facts_->clear();
    else {
        QStringList facts{layout->islands.size() == 1 ? tr("1 island") : tr("%L1 islands").arg(layout->islands.size())};
        const auto count = [&](auto what) { return int(std::count_if(layout->islands.begin(), layout->islands.end(), what)); };
        if (const int n = count([](const UvIsland& i) { return i.mirrored; })) facts << tr("%L1 mirrored").arg(n);
        if (const int n = count([](const UvIsland& i) { return i.shared; })) facts << tr("%L1 shared").arg(n);
        if (const int n = count([](const UvIsland& i) { return i.outside; })) facts << tr("%L1 beyond the edges").arg(n);
        facts << tr("%1 % used").arg(qRound(layout->used * 100));
        std::optional<float> gap;
        for (const auto& island : layout->islands)
            if (island.gap && (!gap || *island.gap < *gap)) gap = island.gap;
        if (gap) facts << tr("colors mix from mip %1").arg(bleeding_level(*gap));
        if (layout->without_uv > 0) facts << tr("%L1 triangles without coordinates").arg(layout->without_uv);
        facts_->setText(facts.join(QStringLiteral(" · ")));
    }
    if (island_ && (!layout || *island_ >= layout->islands.size())) light_island(std::nullopt);
    if (another) {
        view_->look_at(model_->box(), model_->upright_z());  // asks for the picture
        return;
    }
    ask_picture();
    say_mip();
}

void TryOnPanel::ask_picture() {
    if (!isVisible()) return;
    MeshWish wish;
    wish.camera = view_->camera();
    wish.pixels = view_->pixels();
    wish.look.shown = lit_->isChecked() ? PictureLook::Shown::lit : PictureLook::Shown::base_color;
    wish.look.wires = wires_->isChecked();
    wish.look.vertex_colors = colors_->isChecked();
    wish.look.levels.forced = float(mips_->currentIndex() - 1);
    wish.look.levels.start = std::max(0, quality_->currentIndex());
    wish.look.light = view_->light();
    wish.look.repeat = repeat();
    wish.look.behind = texel_of(colors().well);
    wish.look.mark = texel_of(colors().accent);
    // Where all is one island there is nothing to tell apart.
    if (const auto layout = model_->layout(); layout && layout->islands.size() > 1) wish.island = island_;
    model_->pictures().ask(wish);
}

float TryOnPanel::repeat() const { return model_->is_plain() ? tiles_->currentData().toFloat() : 1; }

std::optional<MeshHit> TryOnPanel::hit_at(QPointF at) const {
    const auto& rays = model_->pictures().scene().rays;
    const auto size = view_->pixels();
    if (!rays || size.isEmpty()) return std::nullopt;
    return rays->hit(view_->camera(), std::uint32_t(size.width()), std::uint32_t(size.height()), {float(at.x()), float(at.y())});
}

void TryOnPanel::point_at_mesh(std::optional<QPointF> at) {
    const auto hit = at ? hit_at(*at) : std::nullopt;
    const bool wears = hit && hit->part < model_->parts().size() && model_->parts()[hit->part].wears;
    if (!wears || flat_->image().isNull()) {
        flat_->set_spot(std::nullopt);
        light_island(std::nullopt);
        return say_place(hit ? tr("This part has other textures.") : QString(), std::nullopt);
    }
    flat_->set_spot(QPointF(double(hit->uv[0] * repeat()), double(hit->uv[1] * repeat())));
    const auto island = model_->layout() ? model_->layout()->island_of(hit->part, hit->triangle) : std::nullopt;
    light_island(island);
    const auto spot = *flat_->spot();
    const auto size = model_->texels();
    say_place(tr("Texel %1, %2").arg(int(spot.x() * size.width())).arg(int(spot.y() * size.height())), island);
}

void TryOnPanel::point_at_flat(QPoint texel) {
    const auto layout = model_->layout();
    flat_->set_spot(std::nullopt);
    if (texel.x() < 0 || !layout) {
        light_island(std::nullopt);
        return say_place({}, std::nullopt);
    }
    const auto& image = flat_->image();
    const auto found = layout->at({(float(texel.x()) + 0.5f) / float(image.width()), (float(texel.y()) + 0.5f) / float(image.height())});
    const auto island = found.empty() ? std::nullopt : std::optional(found.front());
    light_island(island);
    say_place(
        island ? tr("Texel %1, %2").arg(texel.x()).arg(texel.y()) : tr("Texel %1, %2: nothing of the mesh").arg(texel.x()).arg(texel.y()),
        island);
}

void TryOnPanel::light_island(std::optional<std::uint32_t> island) {
    if (island == island_) return;
    island_ = island;
    flat_->set_overlay_group(island ? int(*island) : -1);
    ask_picture();
}

void TryOnPanel::say_place(const QString& where, std::optional<std::uint32_t> number) {
    QStringList says;
    if (!where.isEmpty()) says << where;
    const auto layout = model_->layout();
    if (number && layout) {
        const auto& island = layout->islands[*number];
        says << tr("island %L1 of %L2").arg(*number + 1).arg(layout->islands.size());
        if (island.mirrored) says << tr("mirrored: lettering comes out reversed");
        if (island.shared) says << tr("others lie on the same texels");
        if (island.gap) says << tr("%1 texels to the next").arg(double(*island.gap), 0, 'g', 3);
        if (island.surface > 0) says << tr("%1 texels a unit").arg(island.density(layout->width, layout->height), 0, 'g', 3);
    }
    place_->setText(says.join(QStringLiteral(" · ")));
}

void TryOnPanel::say_mip() {
    const auto map = model_->flat_map();
    const auto size = view_->pixels();
    if (!map || size.isEmpty() || !model_->pictures().scene().rays) return mip_text_->clear();
    const int last = int(map->levels.size()) + map->above - 1;
    LevelRule rule{float(mips_->currentIndex() - 1), std::max(0, quality_->currentIndex())};
    float wanted = 0;
    if (rule.forced < 0) {
        // In the middle of the picture: of the nearest pixels there that have it.
        const QPointF middle(size.width() / 2.0, size.height() / 2.0);
        const auto here = hit_at(middle), right = hit_at(middle + QPointF(1, 0)), down = hit_at(middle + QPointF(0, 1));
        if (!here || !right || !down || right->part != here->part || down->part != here->part) return mip_text_->clear();
        const float times = repeat();
        const auto by = [&](const MeshHit& there) {
            return Vec2{(there.uv[0] - here->uv[0]) * times, (there.uv[1] - here->uv[1]) * times};
        };
        wanted = level_for(map->levels[0].width, map->levels[0].height, by(*right), by(*down));
    }
    const double used = double(used_level(*map, rule, wanted)) + map->above;
    mip_text_->setText(tr("mip %1 of %2").arg(QLocale().toString(used, 'f', used == std::floor(used) ? 0 : 1)).arg(last));
}

}  // namespace skivet::app

#include "fair/press/season_two.h"

#include "fair/press/brush.h"

namespace fair {

namespace {

/// A star in the upper right corner, an eighth of the picture wide.
void stamp(QImage& picture) {
    QPainter p(&picture);
    p.setRenderHint(QPainter::Antialiasing);
    const double side = picture.width() / 8.0;
    p.fillPath(star({picture.width() - side, side * picture.height() / picture.width()}, side / 2, side / 5, 5), gold);
}

/// Other paint all over.
void paint_anew(QImage& picture) {
    for (int y = 0; y < picture.height(); ++y)
        for (int x = 0; x < picture.width(); ++x) {
            const auto c = picture.pixelColor(x, y);
            picture.setPixelColor(x, y, QColor(c.blue() * 3 / 4 + 40, c.red() * 3 / 4 + 20, c.green() * 3 / 4, c.alpha()));
        }
}

}  // namespace

void second_season(std::vector<Art>& all) {
    const auto is_one_of = [](const Art& art, std::initializer_list<const char*> paths) {
        return std::any_of(paths.begin(), paths.end(), [&](const char* path) { return art.path == QLatin1String(path); });
    };
    for (auto& art : all) {
        if (art.archive.startsWith("autumn") || art.archive.startsWith("zz")) continue;
        if (is_one_of(art, {"booths/ticket/awning_red_tint", "booths/ticket/awning_green_tint", "carousel/horse_c_tint", "wheel/star_panel",
                            "organ/pipes"}))
            for (auto& picture : art.pictures) stamp(picture);
        if (is_one_of(art, {"ground/meadow", "carousel/swan", "organ/clock"}))
            for (auto& picture : art.pictures) paint_anew(picture);
        if (art.path == "cloth/rope" || art.path == "cloth/tent") art.archive = "midway.zip";
        if (art.path == "ground/tiles") art.archive = "organ.zip";
        if (art.path == "signs/sign_tea") art.path = "signs/board_tea";
        if (art.path == "wheel/sun_panel") art.path = "wheel/noon_panel";
        if (art.path == "ground/bricks") art.pixels = Pixels::bc7, art.wrap = Wrap::dds_dx10;
        if (art.path == "wheel/moon_panel") art.pixels = Pixels::bc3;
    }
    std::erase_if(all, [](const Art& art) { return art.path == "booths/sweets/popcorn"; });
}

}  // namespace fair

// The list of what the fairground has: which motif, in which format, in which archive.
#include "fair/press/art.h"
#include "fair/press/motifs.h"

namespace fair {

std::vector<Art> draw_everything(int seed) {
    std::vector<Art> all;
    const auto add = [&](const char* archive, const char* path, Pixels pixels, Wrap wrap, QImage picture, bool srgb = true,
                         bool deflated = false) -> Art& {
        Art art;
        art.archive = QString::fromUtf8(archive);
        art.path = QString::fromUtf8(path);
        art.pixels = pixels;
        art.wrap = wrap;
        art.srgb = srgb;
        art.deflated = deflated;
        art.pictures.push_back(std::move(picture));
        all.push_back(std::move(art));
        return all.back();
    };
    // midway.zip: booths, signs, ground; some stored, some deflated
    const char* midway = "midway.zip";
    add(midway, "booths/ticket/awning_red_tint", Pixels::bc1, Wrap::dds, awning(256, madder, cream));
    add(midway, "booths/ticket/awning_green_tint", Pixels::bc1, Wrap::dds, awning(256, bottle, cream), true, true);
    add(midway, "booths/sweets/awning_blue_tint", Pixels::bc1, Wrap::dds_dx10, awning(256, navy, white));
    add(midway, "booths/sweets/awning_plum_tint", Pixels::bc1, Wrap::dds, awning(128, plum, straw), true, true);
    add(midway, "signs/sign_ride", Pixels::bc1, Wrap::dds, sign(256, 256, "RIDE", navy, cream));
    add(midway, "signs/sign_tickets", Pixels::bc1, Wrap::dds, sign(512, 256, "TICKETS", madder, cream));
    add(midway, "signs/sign_tea", Pixels::b5g6r5, Wrap::dds, sign(256, 128, "TEA ROOM", bottle, gold), true, true);
    add(midway, "signs/sign_exit", Pixels::png, Wrap::png, sign(128, 64, "WAY OUT", ink, straw));
    add(midway, "signs/sign_fair", Pixels::bc3, Wrap::dds, sign(512, 256, "BRINDLE FAIR", plum, gold), true, true);
    add(midway, "booths/shooting/target", Pixels::bc1, Wrap::dds, target(256));
    add(midway, "booths/shooting/ducks", Pixels::bc1, Wrap::dds, ducks(256), true, true);
    add(midway, "booths/sweets/popcorn", Pixels::bgra8, Wrap::dds, popcorn(128), true, true);
    add(midway, "booths/ticket/ticket_adult", Pixels::bc3, Wrap::dds, ticket(256, 128, "ONE RIDE", straw));
    add(midway, "booths/ticket/ticket_child", Pixels::bgra4, Wrap::dds, ticket(128, 64, "SMALL", QColor(0xC9, 0xDD, 0xC0)), true, true);
    add(midway, "front/bunting", Pixels::bc3, Wrap::dds, bunting(256));
    add(midway, "front/bunting_far", Pixels::bc2, Wrap::dds, bunting(64));
    add(midway, "front/poster_autumn", Pixels::bc1, Wrap::dds, poster(128, 256, "AUTUMN", rust), true, true);
    add(midway, "front/banner_017", Pixels::bc1, Wrap::dds, poster(256, 128, "BRINDLE", navy));
    add(midway, "ground/meadow", Pixels::bc1, Wrap::dds,
        ground_cover(256, QColor(0x4E, 0x6E, 0x2E), QColor(0x8E, 0xA2, 0x4E), 10, seed + 1));
    add(midway, "ground/gravel", Pixels::bc1, Wrap::dds,
        ground_cover(256, QColor(0x6E, 0x66, 0x5C), QColor(0xC2, 0xB6, 0xA0), 24, seed + 2), true, true);
    add(midway, "ground/tiles", Pixels::bc1, Wrap::dds, tiles(256, madder, cream));
    add(midway, "ground/bricks", Pixels::bc1, Wrap::dds, bricks(256), true, true);
    add(midway, "front/poster_late", Pixels::jpeg, Wrap::jpeg, poster(256, 256, "LATE NIGHT", plum), true);
    add(midway, "ground/bricks_bump", Pixels::bc3, Wrap::dds, green_alpha_normals(normals_of(bricks(256), 3, false)), false, true);
    add(midway, "lights/haze", Pixels::rgba8, Wrap::dds, haze(128), false, true);
    // rides.crate: the carousel and the other rides, in the fair's own texture files
    const char* rides = "rides.crate";
    add(rides, "carousel/horse_a_tint", Pixels::bc3, Wrap::panel, horse(512, QColor(0xD8, 0xC7, 0xA8), QColor(0xE8, 0xE2, 0xD6), madder));
    add(rides, "carousel/horse_a_bump", Pixels::bc5, Wrap::panel,
        normals_of(horse(256, QColor(40, 40, 40), QColor(200, 200, 200), madder), 4, false), false);
    add(rides, "carousel/horse_a_gloss", Pixels::bc4, Wrap::panel, gloss(256, seed + 3), false, true);
    add(rides, "carousel/horse_b_tint", Pixels::bc1, Wrap::panel, horse(256, QColor(0x9F, 0xB8, 0xB0), QColor(0x7A, 0x4A, 0x30), navy),
        true, true);
    add(rides, "carousel/horse_c_tint", Pixels::bc1, Wrap::panel, horse(256, QColor(0xE0, 0xC0, 0x8E), QColor(0x3A, 0x34, 0x36), bottle));
    add(rides, "carousel/stripe_two_mask", Pixels::bc4, Wrap::panel, chevrons(256), false, true);
    add(rides, "carousel/pole", Pixels::bc1, Wrap::panel, pole(128, madder, cream));
    add(rides, "carousel/scrollwork", Pixels::bc1, Wrap::panel, scrollwork(256, madder.darker(120), gold));
    add(rides, "carousel/mirror", Pixels::bc1, Wrap::panel, mirror(256), true, true);
    add(rides, "carousel/deck", Pixels::bc1, Wrap::panel, planks(256, QColor(0xA6, 0x6E, 0x42), seed + 4));
    add(rides, "carousel/deck_gloss", Pixels::r8, Wrap::panel, gloss(128, seed + 5), false);
    add(rides, "carousel/swan", Pixels::bc1, Wrap::panel, swan(256));
    add(rides, "carousel/rooster", Pixels::bc1, Wrap::panel, rooster(256), true, true);
    add(rides, "teacups/cup", Pixels::bc1, Wrap::panel, teacup(256));
    add(rides, "wheel/wheel", Pixels::bc1, Wrap::panel, wheel(256), true, true);
    add(rides, "wheel/star_panel", Pixels::bc1, Wrap::panel, star_panel(256));
    add(rides, "wheel/moon_panel", Pixels::bc1, Wrap::panel, moon_panel(256));
    add(rides, "wheel/sun_panel", Pixels::bc1, Wrap::panel, sun_panel(256), true, true);
    add(rides, "lights/bulbs", Pixels::bc1, Wrap::panel, bulbs(256, false));
    add(rides, "lights/bulbs_glow", Pixels::bc1, Wrap::panel, bulbs(256, true), true, true);
    add(rides, "lights/lamp", Pixels::rgba8, Wrap::panel, lamp(64));
    // organ.crate lies inside organ.zip, so that an archive inside an archive is there
    const char* organ = "organ.zip::organ.crate";
    add(organ, "organ/pipes", Pixels::bc1, Wrap::panel, pipes(256));
    add(organ, "organ/curtain", Pixels::bc1, Wrap::panel, curtain(256, madder), true, true);
    add(organ, "organ/drum", Pixels::bc1, Wrap::panel, drum(128));
    add(organ, "organ/clock", Pixels::bc1, Wrap::dds, clock_face(256));
    add(organ, "organ/front_scroll", Pixels::bc1, Wrap::panel, scrollwork(256, bottle, straw), true, true);
    // sky and cloth
    auto& evening_sky = add("organ.zip", "sky/evening", Pixels::bc1, Wrap::dds_dx10, evening(64, 0), true, true);
    evening_sky.cube = true;
    for (int face = 1; face < 6; ++face) evening_sky.pictures.push_back(evening(64, face));
    auto& strip = add("organ.zip", "cloth/canvas_set", Pixels::bc1, Wrap::dds_dx10, canvas(64, seed + 6), true, true);
    for (int layer = 1; layer < 3; ++layer) strip.pictures.push_back(canvas(64, seed + 6 + layer));
    add("organ.zip", "sky/lantern_light", Pixels::rgba16f, Wrap::dds_dx10, lamp(128), true, true);
    add("organ.zip", "cloth/flag", Pixels::bc1, Wrap::ktx2, flag(256));
    add("organ.zip", "cloth/rope", Pixels::bc1, Wrap::dds, rope(128));
    auto& odd = add("organ.zip", "cloth/tent", Pixels::bc1, Wrap::dds, tent(200).copy(0, 0, 198, 150));
    odd.mips = 0;
    add("organ.zip", "cloth/balloon", Pixels::bc1, Wrap::dds, balloon(256), true, true);
    // Formats and shapes the fair's older files do not have
    add("organ.zip", "cloth/pennant", Pixels::bc7, Wrap::dds_dx10, flag(128), true, true);
    add("organ.zip", "sky/stars", Pixels::bc6h, Wrap::dds_dx10, lamp(64), false, true);
    add("organ.zip", "cloth/sash", Pixels::etc2, Wrap::ktx2, curtain(128, plum), true, true);
    add("organ.zip", "cloth/banner_018", Pixels::astc, Wrap::ktx2, poster(128, 64, "BRASS BAND", bottle), true, true);
    auto& mist = add("organ.zip", "sky/mist", Pixels::rgba8, Wrap::dds, haze(32), false, true);
    mist.volume = true;
    mist.mips = 1;
    for (int slice = 1; slice < 8; ++slice)
        mist.pictures.push_back(haze(32).scaled(32 - 2 * slice, 32 - 2 * slice).scaled(32, 32).convertToFormat(QImage::Format_RGBA8888));
    // A texture in three files, and one that has lost its largest level
    add("organ.zip", "carnival/arch", Pixels::bc1, Wrap::stepped, awning(256, navy, gold));
    auto& gate = add("organ.zip", "carnival/gate", Pixels::bc1, Wrap::stepped, sign(256, 256, "GATE", madder, cream));
    gate.lacks_top = true;
    gate.listed = false;
    // Normals with green pointing down, beside those of the horse with green up
    add(rides, "carousel/deck_bump", Pixels::bc5, Wrap::panel, normals_of(planks(128, QColor(0xA6, 0x6E, 0x42), seed + 4), 3, true), false);
    // The one that is shown is called a variant
    add(rides, "carousel/swan_variant", Pixels::bc1, Wrap::panel, swan(256).mirrored(true, false));
    // sideshow.bale: a crate deflated as a whole, in it rolls, in them textures
    add("sideshow.bale::curtains.roll", "front_curtain", Pixels::bc1, Wrap::panel, curtain(128, plum));
    add("sideshow.bale::curtains.roll", "back_curtain", Pixels::bc1, Wrap::dds, curtain(128, navy));
    add("sideshow.bale::games.roll", "hoop_ring", Pixels::bc1, Wrap::dds, target(128));
    add("sideshow.bale::games.roll", "duck_row", Pixels::bc3, Wrap::panel, ducks(128));
    add("sideshow.bale::games.roll", "dice", Pixels::r8, Wrap::panel, chevrons(64), false);
    // lanterns.index: an index and two data files
    for (const auto& [name, color] :
         {std::pair{"red", madder}, std::pair{"blue", navy}, std::pair{"green", bottle}, std::pair{"plum", plum}, std::pair{"gold", gold}})
        add("lanterns.index", (QByteArray("lanterns/paper_") + name).constData(), Pixels::bc1, Wrap::panel, pole(64, color, cream));
    // The same texture in three archives
    for (const char* archive : {"lanterns.index", "organ.zip", rides})
        add(archive, archive == rides ? "shared/brass_pipes" : "shared/brass_pipes_copy", Pixels::bc1, Wrap::panel, pipes(128));
    // cashbox.strongbox: encrypted
    add("cashbox.strongbox", "cashbox/ticket_gold", Pixels::bc3, Wrap::panel, ticket(128, 64, "GOLD", gold));
    add("cashbox.strongbox", "cashbox/ticket_free", Pixels::bc3, Wrap::dds, ticket(128, 64, "FREE", straw));
    add("cashbox.strongbox", "cashbox/rosette", Pixels::bc1, Wrap::panel, star_panel(128));
    // puppets.hamper: hashed names
    add("puppets.hamper", "puppets/king_tint", Pixels::bc1, Wrap::panel, moon_panel(128));
    add("puppets.hamper", "puppets/queen_tint", Pixels::bc1, Wrap::panel, sun_panel(128));
    add("puppets.hamper", "puppets/fool_tint", Pixels::bc1, Wrap::dds, chevrons(128));
    add("puppets.hamper", "puppets/stage_front", Pixels::bc1, Wrap::panel, scrollwork(128, plum, gold));
    // weathered.zip: one texture in it is damaged
    add("weathered.zip", "weathered/plank", Pixels::bc1, Wrap::dds, planks(128, rust, seed + 9));
    add("weathered.zip", "weathered/nail", Pixels::bc1, Wrap::dds, star_panel(64)).listed = false;
    // zz_spare.crate: left behind by a tool for mods
    add("zz_spare.crate", "carousel/mirror", Pixels::bc1, Wrap::panel, mirror(256).mirrored(true, false));
    add("zz_spare.crate", "carousel/scrollwork", Pixels::bc1, Wrap::panel, scrollwork(256, navy.darker(120), gold), true, true);
    // autumn.crate: an update that brings one texture anew
    add("autumn.crate", "carousel/horse_b_tint", Pixels::bc1, Wrap::panel,
        horse(256, QColor(0xC9, 0x8A, 0x4A), QColor(0x8E, 0x52, 0x2E), bottle));
    add("autumn.crate", "carousel/rooster", Pixels::bc1, Wrap::panel, rooster(256), true, true);
    return all;
}

}  // namespace fair

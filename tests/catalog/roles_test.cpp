// Roles by name and picture, sets, habits, green conventions.
#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "catalog/export_items.h"
#include "catalog/usage.h"
#include "codec/codec.h"
#include "support/pictures.h"
#include "texture/dds.h"

using namespace skivet;
using namespace skivet::test;

namespace {

MeasuredPicture look_of(const Image& picture, Format format = Format::RGBA8) {
    TextureDesc d{format, picture.width, picture.height, 1, 1, 1, 1, ColorSpace::unknown};
    const ReadContext context;
    return *measure_picture(*TextureFile::open(context.textures, *write_dds(d, *encode(format, picture)), "x.dds", context.limits));
}
TextureDesc desc_of(Format format) { return {format, 64, 64, 1, 1, 1, 1, ColorSpace::unknown}; }

/// Bumps of a height field h(x, y) = sin x · sin y and the like, as a normal map whose green points up or down.
Image bumps(bool down, std::uint32_t side = 64) {
    Image out(side, side);
    for (std::uint32_t y = 0; y < side; ++y)
        for (std::uint32_t x = 0; x < side; ++x) {
            const double u = 0.31 * x + 0.05 * y, v = 0.23 * y - 0.11 * x;
            // Slopes of sin(u)·sin(v) along the picture's axes, y downward.
            const double p = 0.31 * std::cos(u) * std::sin(v) - 0.11 * std::sin(u) * std::cos(v),
                         q = 0.05 * std::cos(u) * std::sin(v) + 0.23 * std::sin(u) * std::cos(v);
            const double k = 3, length = std::sqrt(k * k * (p * p + q * q) + 1);
            const double nx = -k * p / length, ny = (down ? -1 : 1) * k * q / length, nz = 1 / length;
            const auto byte = [](double n) { return static_cast<std::uint8_t>(std::lround((n + 1) * 127.5)); };
            out.at(x, y) = {byte(nx), byte(ny), byte(nz), 255};
        }
    return out;
}
Image gray_noise(std::uint8_t from, std::uint8_t to, unsigned seed) {
    Image out(64, 64);
    std::mt19937 random(seed);
    for (auto& t : out.texels) {
        const auto v = static_cast<std::uint8_t>(from + random() % (to - from + 1));
        t = {v, v, v, 255};
    }
    return out;
}

NameParts named(std::string_view path) { return split_name(path, Habits{}); }

}  // namespace

TEST(RoleNames, SuffixPrefixWordFolderAndNumbers) {
    const auto suffix = named("Rides/Horse_A_Bump.dds");
    EXPECT_EQ(suffix.set, "rides/horse_a");
    EXPECT_EQ(suffix.base, "Horse_A");
    EXPECT_EQ(suffix.habit->role, Role::normal);
    EXPECT_EQ(named("horseNormal.png").set, "horse") << "a capital sets a word off";
    EXPECT_EQ(named("spec_horse.dds").habit->place, RoleHabit::Place::prefix);
    EXPECT_EQ(named("spec_horse.dds").set, "horse");
    EXPECT_EQ(named("horse_normal_far.dds").habit->place, RoleHabit::Place::word);
    EXPECT_EQ(named("horse_normal_far.dds").set, "horse_far");
    EXPECT_EQ(named("rides/normals/horse.dds").set, "rides/*/horse");
    EXPECT_EQ(named("rides/color/horse.dds").set, "rides/*/horse") << "the same set in two folders";
    EXPECT_EQ(named("bark_norm_02.dds").set, "bark_02") << "numbers go with the base";
    EXPECT_EQ(named("bark_norm2.dds").set, "bark2");
    EXPECT_EQ(named("bark_norm.png.cached.dds").set, "bark") << "several extensions";
    EXPECT_EQ(named("bark.norm.dds").habit->role, Role::normal) << "a part behind a dot";
    EXPECT_EQ(named("wall_base_color.dds").set, "wall") << "the longest word";
    EXPECT_FALSE(named("normal.dds").habit) << "the whole name is no part of one";
    EXPECT_FALSE(named("banner_017.dds").habit);
}

TEST(RoleNames, AProjectsOwnHabitStandsAboveTheCommonOnes) {
    const std::vector<RoleHabit> own = {{RoleHabit::Place::suffix, "zug", Role::mask}, {RoleHabit::Place::suffix, "bump", Role::height}};
    const Habits habits(own);
    EXPECT_EQ(split_name("horse_zug.dds", habits).habit->role, Role::mask);
    EXPECT_EQ(split_name("horse_bump.dds", habits).habit->role, Role::height);
}

TEST(RolePictures, NormalMapsAndTheirGreenAreTold) {
    for (const auto format : {Format::RGBA8, Format::BC1, Format::BC5, Format::BC7})
        for (const bool down : {false, true}) {
            const auto look = look_of(bumps(down), format);
            const auto guess = guess_by_picture(look.facts, desc_of(format));
            EXPECT_EQ(guess.role, Role::normal) << info(format).name << guess.why;
            EXPECT_EQ(look.facts.green_axis(), down ? GreenAxis::down : GreenAxis::up) << info(format).name << " curl " << look.facts.curl;
        }
}

TEST(RolePictures, GrayMapsMasksOcclusionEmissionAndColor) {
    const auto role = [](const Image& picture, Format format = Format::RGBA8) {
        return guess_by_picture(look_of(picture, format).facts, desc_of(format)).role;
    };
    EXPECT_EQ(role(gray_noise(90, 150, 1)), Role::roughness_gloss);
    EXPECT_EQ(role(gray_noise(90, 150, 2), Format::BC4), Role::roughness_gloss);
    Image two(64, 64);
    for (std::uint32_t y = 0; y < 64; ++y)
        for (std::uint32_t x = 0; x < 64; ++x) two.at(x, y) = (x / 8 + y / 16) % 2 ? Texel{230, 230, 230, 255} : Texel{20, 20, 20, 255};
    EXPECT_EQ(role(two), Role::mask);
    auto creases = gray_noise(225, 255, 3);
    for (std::uint32_t i = 0; i < 64; ++i)
        for (std::uint32_t w = 0; w < 6; ++w) {
            const auto v = static_cast<std::uint8_t>(80 + 24 * w);
            creases.at(i, 20 + w) = creases.at(40 + w, i) = {v, v, v, 255};
        }
    EXPECT_EQ(role(creases), Role::occlusion);
    Image lamps(64, 64, {2, 2, 4, 255});
    for (std::uint32_t y = 20; y < 28; ++y)
        for (std::uint32_t x = 20; x < 28; ++x) lamps.at(x, y) = {255, 220, 120, 255};
    EXPECT_EQ(role(lamps), Role::emission);
    EXPECT_EQ(role(smooth_picture(64, 64, 4)), Role::base_color);
}

TEST(Roles, NamesAreBelievedUnlessThePixelsRuleThemOut) {
    const auto normal = look_of(bumps(false)).facts;
    const auto gray = look_of(gray_noise(90, 150, 5)).facts;
    const auto color = look_of(smooth_picture(64, 64, 6)).facts;
    const auto d = desc_of(Format::RGBA8);
    EXPECT_EQ(guess_role(named("horse_gloss.dds"), Bare::in_set, &gray, d).role, Role::roughness_gloss);
    const auto heights = guess_role(named("horse_bump.dds"), Bare::in_set, &gray, d);
    EXPECT_EQ(heights.role, Role::height) << heights.why;
    EXPECT_EQ(guess_role(named("horse_tint.dds"), Bare::in_set, &normal, d).role, Role::normal)
        << "a normal map is one whatever it is called";
    EXPECT_EQ(guess_role(named("horse_e.dds"), Bare::common, &color, d).role, Role::base_color) << "a letter needs the pixels' word";
    EXPECT_EQ(guess_role(named("metal_door.dds"), Bare::common, &color, d).role, Role::base_color) << "a prefix may name the thing";
    EXPECT_EQ(guess_role(named("horse.dds"), Bare::in_set, &gray, d).role, Role::base_color);
    EXPECT_EQ(guess_role(named("horse.dds"), Bare::alone, &gray, d).role, Role::base_color) << "a gray wall is as gray as a gloss map";
    EXPECT_EQ(guess_role(named("horse.dds"), Bare::alone, nullptr, d).role, Role::unsure);
    for (const auto& row : all_roles()) EXPECT_EQ(role_named(row.token), row.role);
}

namespace {

Catalog catalog_of(const std::vector<std::string>& paths) {
    Catalog out;
    for (const auto& path : paths) {
        CatalogItem item;
        item.inner = {path};
        item.kind = EntryKind::texture;
        item.desc = desc_of(Format::RGBA8);
        out.items.push_back(item);
    }
    mark_effective(out.items);
    return out;
}

}  // namespace

TEST(Sets, NamesThatDifferInTheirRolePartBelongTogether) {
    const auto catalog = catalog_of(
        {"a/horse_bump.dds", "a/horse_tint.dds", "b/horse_tint.dds", "a/horse_b_tint.dds", "a/cup.dds", "a/cup_gloss.dds", "a/cup.png"});
    const auto analysis = analyze_catalog(catalog, {}, {});
    ASSERT_EQ(analysis.sets.size(), 2u);
    EXPECT_EQ(analysis.sets[0], (std::vector<std::uint32_t>{1, 0})) << "base color first";
    EXPECT_EQ(analysis.set_of[2], CatalogAnalysis::no_set) << "another folder";
    EXPECT_EQ(analysis.set_of[3], CatalogAnalysis::no_set);
    EXPECT_EQ(analysis.set_of[4], analysis.set_of[5]) << "the bare name is a member";
    EXPECT_EQ(analysis.roles[4], Role::base_color);
}

TEST(Sets, CorrectionsForOneTextureAndForAHabit) {
    const auto catalog = catalog_of({"a/horse_zug.dds", "a/horse.dds", "a/cup_zug.dds"});
    RoleWishes wishes;
    wishes.habits.push_back({RoleHabit::Place::suffix, "zug", Role::specular});
    wishes.textures["a/cup_zug.dds"] = Role::mask;
    const auto analysis = analyze_catalog(catalog, {}, wishes);
    EXPECT_EQ(analysis.roles[0], Role::specular);
    EXPECT_EQ(analysis.roles[2], Role::mask);
    EXPECT_EQ(analysis.set_of[0], analysis.set_of[1]);
    EXPECT_EQ(analysis.why(catalog, 2, wishes).why, "you said so");
    EXPECT_NE(analysis.why(catalog, 0, wishes).why.find("zug"), std::string::npos);
}

TEST(Sets, AFolderOfASetIsNamedByTheProjectsOwnHabitsToo) {
    const auto catalog = catalog_of({"a/horse_zug.dds", "a/horse_bump.dds", "a/cup.dds"});
    RoleWishes wishes;
    wishes.habits.push_back({RoleHabit::Place::suffix, "zug", Role::base_color});
    const auto analysis = analyze_catalog(catalog, {}, wishes);
    EXPECT_EQ(set_folder(catalog, analysis, 0), "a/horse");
    EXPECT_EQ(set_folder(catalog, analysis, 1), "a/horse");
    EXPECT_EQ(set_folder(catalog, analysis, 2), "");
}

TEST(Sets, LettersThatCountAreNoRoles) {
    const auto catalog = catalog_of({"a/stone_a.dds", "a/stone_b.dds", "a/stone_d.dds", "a/stone_e.dds", "a/wall_d.dds", "a/horse_d.dds",
                                     "a/horse_n.dds", "a/horse_s.dds"});
    const auto analysis = analyze_catalog(catalog, {}, {});
    EXPECT_TRUE(analysis.counted[2] && analysis.counted[3]);
    EXPECT_FALSE(analysis.counted[4]);
    EXPECT_EQ(analysis.sets.size(), 1u);
    const auto without = catalog_of({"a/wall_d.dds", "a/horse_d.dds", "a/horse_n.dds"});
    EXPECT_TRUE(analyze_catalog(without, {}, {}).counted[0]) << "two with a counterpart are no habit";
}

TEST(Sets, AFolderWithBrothersIsAThing) {
    const auto catalog = catalog_of({"maps/sky/c.dds", "maps/sky/t.dds", "maps/hills/c.dds", "maps/hills/t.dds", "maps/lake/c.dds",
                                     "maps/lake/t.dds", "textures/sky/dawn.dds", "maps/rough/c.dds", "icons/horse.dds"});
    const auto analysis = analyze_catalog(catalog, {}, {});
    for (std::size_t i = 0; i < 6; ++i) EXPECT_EQ(analysis.roles[i], Role::unsure) << catalog.items[i].path();
    EXPECT_EQ(analysis.roles[6], Role::sky);
    EXPECT_EQ(analysis.roles[7], Role::unsure);
    EXPECT_EQ(analysis.roles[8], Role::interface);
    EXPECT_EQ(analysis.why(catalog, 0, {}).role, Role::unsure);
}

TEST(Sets, DirectionsAreNoRoles) {
    const auto catalog =
        catalog_of({"snow_n.dds", "snow_e.dds", "snow_s.dds", "snow_w.dds", "bark_n.dds", "bark_s.dds", "bark_d.dds", "road_e2.dds"});
    const auto analysis = analyze_catalog(catalog, {}, {});
    for (std::size_t i = 0; i < 4; ++i) EXPECT_EQ(analysis.roles[i], Role::unsure) << i;
    EXPECT_EQ(analysis.roles[4], Role::normal);
    EXPECT_EQ(analysis.roles[5], Role::specular);
    EXPECT_EQ(analysis.roles[6], Role::base_color);
    EXPECT_EQ(analysis.roles[7], Role::unsure) << "a letter with a number is a number";
}

TEST(Roles, ALetterOrAWordThatNamesThingsNeedsACounterpart) {
    const auto gray = look_of(gray_noise(90, 150, 5)).facts;
    const auto color = look_of(smooth_picture(64, 64, 6)).facts;
    const auto d = desc_of(Format::RGBA8);
    EXPECT_EQ(guess_role(named("wall_m.dds"), Bare::alone, &gray, d).role, Role::base_color);
    EXPECT_EQ(guess_role(named("wall_m.dds"), Bare::in_set, &gray, d).role, Role::metalness);
    EXPECT_EQ(guess_role(named("city_metal.dds"), Bare::alone, &gray, d).role, Role::base_color) << "a city of metal";
    EXPECT_EQ(guess_role(named("city_metal.dds"), Bare::in_set, &gray, d).role, Role::metalness);
    EXPECT_EQ(guess_role(named("tree_n.dds"), Bare::alone, &gray, d).role, Role::base_color) << "heights are not told by a letter";
    EXPECT_EQ(guess_role(named("tree_n.dds"), Bare::alone, &color, d).role, Role::base_color);
    EXPECT_EQ(guess_role(named("button_normal.dds"), Bare::alone, &color, d).role, Role::base_color) << "a button that nobody presses";
    // The user's word stands.
    const RoleHabit own[] = {{RoleHabit::Place::suffix, "m", Role::metalness}};
    EXPECT_EQ(guess_role(split_name("wall_m.dds", Habits(own)), Bare::alone, &gray, d).role, Role::metalness);
    // Alone and unnamed: what no pixels settle is unsure, a normal map is one.
    EXPECT_EQ(guess_role(named("x.dds"), Bare::alone, &gray, desc_of(Format::BC4)).role, Role::unsure);
    const auto normals = look_of(bumps(false)).facts;
    EXPECT_EQ(guess_role(named("x.dds"), Bare::alone, &normals, d).role, Role::normal);
    EXPECT_EQ(guess_role(named("gui/coin.dds"), Bare::alone, &color, d).role, Role::interface);
}

TEST(Habits, EndingsThatRecurAreProposedWithWhatTheirPicturesSay) {
    auto normal = std::make_shared<PictureFacts>(look_of(bumps(false)).facts),
         color = std::make_shared<PictureFacts>(look_of(smooth_picture(64, 64, 7)).facts);
    const auto catalog = catalog_of({"a/horse_zug.dds", "a/horse.dds", "a/cup_zug.dds", "a/cup.dds", "a/swan_zug.dds", "a/swan.dds",
                                     "a/red_1.dds", "a/red_2.dds", "a/horse_red.dds", "a/cup_red.dds", "a/swan_red.dds"});
    std::vector<FactsPtr> facts(catalog.items.size(), color);
    for (const std::size_t i : {0u, 2u, 4u}) facts[i] = normal;
    const auto analysis = analyze_catalog(catalog, facts, {});
    ASSERT_EQ(analysis.proposals.size(), 1u) << "red ones look like those without: a color, no role";
    EXPECT_EQ(analysis.proposals[0].habit.word, "zug");
    EXPECT_EQ(analysis.proposals[0].habit.role, Role::normal);
    EXPECT_EQ(analysis.proposals[0].names, 3u);
    EXPECT_EQ(analysis.proposals[0].shared, 3u);
}

TEST(Usage, MeshesSayWhichTexturesTheyUse) {
    const std::string gltf =
        R"({"images":[{"uri":"tex/horse.png"},{"uri":"data:image/png;base64,xx"}],"materials":[{"name":"awning_red"}]})";
    EXPECT_EQ(textures_of_mesh(as_bytes(gltf), "m/booth.gltf"), (std::vector<std::string>{"tex/horse.png", "awning_red"}));
    // glTF 2.0, section 4.4: the header is magic, version 2, length; then a chunk of type JSON.
    Bytes glb(20);
    store_uint(glb.data(), 0x46546C67, 4, ByteOrder::little);
    store_uint(glb.data() + 12, gltf.size(), 4, ByteOrder::little);
    glb.insert(glb.end(), as_bytes(gltf).begin(), as_bytes(gltf).end());
    EXPECT_EQ(textures_of_mesh(glb, "m/booth.glb").size(), 2u);
    store_uint(glb.data() + 12, 1u << 30, 4, ByteOrder::little);
    EXPECT_TRUE(textures_of_mesh(glb, "m/booth.glb").empty()) << "a chunk longer than its file";
    EXPECT_EQ(textures_of_mesh(bytes_of("o a\nusemtl horse_a\r\nmap_Kd -s 1 1 1 horse.dds\n"), "x.mtl"),
              (std::vector<std::string>{"horse_a", "horse.dds"}));
    EXPECT_TRUE(textures_of_mesh(bytes_of("{broken"), "x.gltf").empty());
    const auto uses =
        uses_in_record(bytes_of("{\"draw\":1,\"texture\":\"a.dds\"}\nnonsense\n{\"texture\":\"b.dds\",\"object\":\"tent\"}\n"));
    ASSERT_EQ(uses.size(), 2u);
    EXPECT_EQ(uses[1], (std::pair<std::string, std::string>("tent", "b.dds")));
}

TEST(Usage, ATextureOfSeveralObjectsIsShared) {
    TempFolder folder;
    const std::string obj = "usemtl stripes\n", other = R"({"materials":[{"name":"stripes"}]})";
    put_file(folder / "g.zip", make_zip({{"m/tent.obj", bytes_of(obj)},
                                         {"m/booth.gltf", bytes_of(other)},
                                         {"t/stripes_tint.dds", make_dds(Format::BC1, 16, 16)},
                                         {"t/cup.dds", make_dds(Format::BC1, 16, 16)},
                                         {"shared/rope.dds", make_dds(Format::BC1, 16, 16)}}));
    const ReadContext context;
    Progress progress;
    const std::vector<std::filesystem::path> paths = {folder / "g.zip"};
    const auto sources = open_sources(context, paths);
    const auto catalog = *build_catalog(context, sources, progress);
    const auto users = *users_of_textures(context, sources, catalog, {}, progress);
    ASSERT_EQ(users.size(), 1u);
    EXPECT_EQ(users.at("t/stripes_tint.dds"), (std::vector<std::string>{"tent", "booth"}));
    const auto analysis = analyze_catalog(catalog, {}, {}, users);
    for (std::size_t i = 0; i < catalog.items.size(); ++i)
        if (catalog.items[i].is_texture()) EXPECT_EQ(analysis.shared[i], catalog.items[i].path() != "t/cup.dds") << catalog.items[i].path();
}

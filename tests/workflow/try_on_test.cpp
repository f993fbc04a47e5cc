// Which meshes a texture may lie on, what lies on which part, and pictures as maps.
#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "workflow/try_on.h"

#include "support/archives.h"
#include "support/sanitized.h"
#include "workflow/workflow_fixture.h"

using namespace skivet;
using namespace skivet::test;

namespace {

std::string triangle(const std::string& name, const std::string& material) {
    return "o " + name + "\nv 0 0 0\nv 1 0 0\nv 0 1 0\nvt 0 0\nvt 1 0\nvt 0 1\nusemtl " + material + "\nf 1/1 2/2 3/3\n";
}

struct TryOn : Workflow {
    std::shared_ptr<const AnalyzedCatalog> catalog;
    OpenedProject opened;

    void SetUp() override {
        std::filesystem::create_directories(game);
        const auto text = [](const std::string& t) {
            return Bytes(std::as_bytes(std::span(t)).begin(), std::as_bytes(std::span(t)).end());
        };
        const std::string material = "newmtl skin\nmap_Kd ../maps/lamp_d.dds\nnewmtl rope\nmap_Kd rope.tga\n";
        put_file(
            zip,
            make_zip({{"maps/lamp_d.dds", make_dds(Format::BC1, 32, 32, 0, 1)},
                      {"maps/lamp_n.dds", make_dds(Format::BC1, 32, 32, 0, 2)},
                      {"props/rope.dds", make_dds(Format::BC1, 16, 16, 0, 3)},
                      {"props/crate_d.dds", make_dds(Format::BC1, 16, 16, 0, 4)},
                      {"models/post.obj", text("mtllib post.mtl\n" + triangle("glass", "skin") + "o string\nusemtl rope\nf 1/1 2/2 3/3\n")},
                      {"models/post.mtl", text(material)},
                      {"models/post_lod1.obj", text("mtllib post.mtl\n" + triangle("glass", "skin"))},
                      {"props/crate.obj", text(triangle("box", "wood"))},
                      {"props/other.obj", text(triangle("thing", "stone"))}}));
        opened = open();
        Progress progress;
        auto read = read_sources(*opened.context, AnalysisContext{opened.project, nullptr, {}}, *opened.index, progress);
        ASSERT_TRUE(read) << read.error().message();
        catalog = *read;
    }
    std::size_t item(const std::string& path) const {
        const auto& items = catalog->snapshot->catalog.items;
        for (std::size_t i = 0; i < items.size(); ++i)
            if (items[i].path() == path) return i;
        ADD_FAILURE() << path;
        return 0;
    }
    std::vector<FoundMesh> found(const std::string& path) const {
        auto meshes = find_meshes(*opened.context, *catalog, item(path), {});
        EXPECT_TRUE(meshes);
        return meshes ? *meshes : std::vector<FoundMesh>();
    }
};

}  // namespace

TEST_F(TryOn, AMeshWhoseMaterialIsReadElsewhereIsFoundByItsBytesOrItsName) {
    // An OBJ names its materials in a file beside it; the texture's name stands in neither the mesh nor its name.
    const auto box = found("props/crate_d.dds");
    ASSERT_FALSE(box.empty());
    EXPECT_EQ(box[0].name, "crate.obj");
    EXPECT_GE(box[0].sure, 0.7f);
    EXPECT_EQ(box[0].reason, "has its name");
    ASSERT_EQ(box.size(), 2u);
    EXPECT_EQ(box[1].name, "other.obj");
    EXPECT_EQ(box[1].reason, "in the same folder");
    EXPECT_LT(box[1].sure, box[0].sure);
}

TEST_F(TryOn, AFileOfMaterialsBesideAMeshTellsWhatLiesOnIt) {
    const auto lamp = found("maps/lamp_d.dds");
    ASSERT_GE(lamp.size(), 2u);
    EXPECT_EQ(lamp[0].name, "post.obj");  // the finer one first
    EXPECT_EQ(lamp[1].name, "post_lod1.obj");
    EXPECT_EQ(lamp[0].reason, "post.mtl beside it names it");
}

TEST_F(TryOn, APlaceIsKeptAsTextAndReadBack) {
    for (const MeshPlace& place :
         {MeshPlace(PlainMesh::ball), MeshPlace(Address{zip, {"models/post.obj"}}), MeshPlace(Address{"/of mine/a.glb", {}})}) {
        const auto back = mesh_place(text_of(place));
        ASSERT_TRUE(back) << text_of(place);
        EXPECT_EQ(*back, place);
    }
    EXPECT_FALSE(mesh_place("plain:teapot"));
    EXPECT_FALSE(mesh_place(""));
}

TEST_F(TryOn, PartsWearTheTextureTheyNameAndOthersTheirOwn) {
    if (sanitized) GTEST_SKIP() << "a sanitizer takes more addresses for itself than the program that reads meshes gets";
    const auto mesh = load_mesh(*opened.context, Address{zip, {"models/post.obj"}}, 1, {});
    ASSERT_TRUE(mesh) << mesh.error().message();
    ASSERT_EQ(mesh->parts.size(), 2u);
    const auto outfit = outfit_of(*catalog, item("maps/lamp_d.dds"), *mesh);
    const auto glass = mesh->parts[0].material == "skin" ? 0u : 1u;
    EXPECT_EQ(outfit.of_part[glass], 0u);
    EXPECT_TRUE(std::count(outfit.sets[0].begin(), outfit.sets[0].end(), item("maps/lamp_d.dds")));
    ASSERT_NE(outfit.of_part[1 - glass], Outfit::none);
    EXPECT_EQ(outfit.sets[outfit.of_part[1 - glass]], std::vector<std::size_t>{item("props/rope.dds")});
    // A texture that no part names is on the whole of it: somebody wants to see it there.
    const auto worn = outfit_of(*catalog, item("props/crate_d.dds"), *load_mesh(*opened.context, Address{zip, {"props/other.obj"}}, 1, {}));
    EXPECT_EQ(worn.of_part, std::vector<std::uint32_t>{0});
    // And so is one that is in no catalog.
    EXPECT_EQ(outfit_of(*catalog, 10'000, *mesh).of_part, (std::vector<std::uint32_t>{0, 0}));
}

TEST_F(TryOn, AMeshThatIsNotThereSaysSo) {
    const auto gone = load_mesh(*opened.context, Address{zip, {"models/gone.obj"}}, 1, {});
    ASSERT_FALSE(gone);
    EXPECT_NE(gone.error().message().find("gone.obj"), std::string::npos);
}

TEST_F(TryOn, TheChoiceIsKeptInTheProject) {
    EXPECT_NE(try_on_key(*catalog, item("maps/lamp_d.dds")), try_on_key(*catalog, item("props/rope.dds")));
    auto& project = opened.project;
    project.try_on["maps/lamp"] = {{"plain:ball", "/a b/c.glb"}, {"glass · skin"}, true, true};
    ASSERT_TRUE(save_project(project));
    const auto again = open_project(project.folder);
    ASSERT_TRUE(again);
    EXPECT_EQ(again->try_on, project.try_on);
}

TEST_F(TryOn, APieceIsWornAsTakenAndAsPainted) {
    const auto ids = take(opened, {{zip, {"maps/lamp_d.dds"}}});
    paint(opened.project, ids[0], {250, 10, 20, 255});
    const auto& piece = *opened.project.piece(ids[0]);
    const auto before = worn_map(*opened.context, opened.project, piece, false, {Role::base_color}, {});
    const auto after = worn_map(*opened.context, opened.project, piece, true, {Role::base_color}, {});
    ASSERT_TRUE(before && after);
    EXPECT_EQ((*before)->levels.size(), 6u);  // as the file has them: 32 to 1
    EXPECT_EQ((*after)->levels.size(), 6u);
    EXPECT_TRUE((*after)->srgb);
    EXPECT_EQ((*after)->levels[0].at(1, 1), (Texel{250, 10, 20, 255}));
    EXPECT_NE((*before)->levels[0].at(1, 1), (Texel{250, 10, 20, 255}));
}

TEST(TryOnMaps, LevelsAboveTheWishAreLeftOutAndCounted) {
    Image picture(64, 32, {10, 20, 30, 255});
    const auto map = map_of(picture, {Role::base_color, 16});
    EXPECT_EQ(map->above, 2);
    EXPECT_EQ(map->levels[0].width, 16u);
    EXPECT_EQ(map->levels.back().width, 1u);
    // A rule counts the texture's levels: its third is the first that is here.
    EXPECT_EQ(used_level(*map, {3, 0}, 0), 1);
    EXPECT_EQ(used_level(*map, {0, 0}, 0), 0);
    EXPECT_EQ(used_level(*map, {-1, 4}, 0), 2);
    EXPECT_EQ(used_level(*map, {-1, 0}, 1.5f), 1.5f);
}

TEST(TryOnMaps, ASetBecomesOneSurface) {
    const auto map = [](Texel texel) { return map_of(Image(8, 8, texel), {Role::base_color}); };
    const auto color = map({200, 100, 50, 255}), gloss = map({90, 90, 90, 255}), normal = map({128, 128, 255, 255});
    auto surface = surface_of(std::vector<WornMap>{
        {Role::base_color, "a_d.dds", color}, {Role::normal, "a_n.dds", normal}, {Role::roughness_gloss, "a_gloss.dds", gloss}});
    EXPECT_EQ(surface.base_color, color);
    EXPECT_EQ(surface.normal, normal);
    EXPECT_EQ(surface.roughness, gloss);
    EXPECT_TRUE(surface.is_gloss);
    EXPECT_EQ(surface.alpha, AlphaMode::opaque);
    EXPECT_FALSE(surface_of(std::vector<WornMap>{{Role::roughness_gloss, "a_rough.dds", gloss}}).is_gloss);
    // Holes where alpha is all or nothing, of a share that is no noise.
    Image holes(8, 8, {50, 90, 40, 255});
    for (std::uint32_t x = 0; x < 8; ++x)
        for (std::uint32_t y = 0; y < 3; ++y) holes.at(x, y)[3] = 0;
    EXPECT_EQ(surface_of(std::vector<WornMap>{{Role::base_color, "leaf.dds", map_of(holes, {Role::base_color})}}).alpha,
              AlphaMode::cut_out);
    // A mask alone is looked at as it is.
    EXPECT_EQ(surface_of(std::vector<WornMap>{{Role::mask, "a_mask.dds", gloss}}).base_color, gloss);
}

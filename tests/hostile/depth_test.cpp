// What a file nests without end must not decide how deep the stack becomes: every reader of nested things on a thread of 256 KB.
#include <gtest/gtest.h>

#include <fmt/format.h>
#include <pthread.h>
#include <filesystem>
#include <string>
#include <vector>

#include "base/file_write.h"
#include "bench/export_manifest.h"
#include "bench/open_raster.h"
#include "catalog/catalog.h"
#include "catalog/frame_record.h"
#include "catalog/names.h"
#include "catalog/query.h"
#include "catalog/usage.h"
#include "container/address.h"
#include "hostile/hostile_files.h"
#include "mesh/read_mesh.h"
#include "parcel/manifest.h"
#include "sheet/sheet.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/sanitized.h"
#include "workflow/games.h"
#include "workflow/project.h"
#include "workflow/settings.h"

using namespace skivet;
using namespace skivet::test;
namespace fs = std::filesystem;

namespace {

constexpr std::size_t stack_bytes = sanitized ? 1 << 20 : 256 << 10;  // a sanitizer's frames are several times as large

/// Where it overflows, the process ends.
void on_small_stack(std::function<void()> work) {
    pthread_attr_t attributes;
    ASSERT_EQ(pthread_attr_init(&attributes), 0);
    ASSERT_EQ(pthread_attr_setstacksize(&attributes, stack_bytes), 0);
    pthread_t thread;
    ASSERT_EQ(pthread_create(
                  &thread, &attributes,
                  [](void* given) -> void* {
                      (*static_cast<std::function<void()>*>(given))();
                      return nullptr;
                  },
                  &work),
              0);
    pthread_join(thread, nullptr);
    pthread_attr_destroy(&attributes);
}

Bytes of_text(const std::string& text) {
    const auto bytes = as_bytes(text);
    return {bytes.begin(), bytes.end()};
}

constexpr std::size_t deep = 1'000'000;

}  // namespace

TEST(Depth, OfJsonInProjectsSettingsAndRecords) {
    TempFolder folder;
    const auto nested = nested_json(deep);
    put_file(folder / "project.json", of_text(R"({"name":"a","game":"","sources":[],"pieces":[],"x":)" + nested + "}"));
    put_file(folder / "settings.json", of_text(R"({"keys":)" + nested + "}"));
    put_file(folder / std::string(ExportManifest::file_name), of_text(R"({"file":)" + nested + "}\n"));
    fs::create_directories(folder / "pieces");
    put_file(folder / "pieces/project.json", of_text(R"({"name":"a","game":"","sources":[],"pieces":)" + nested + "}"));
    on_small_stack([&] {
        const auto project = open_project(folder.path());
        EXPECT_TRUE(project) << "what nobody knows is left alone";
        EXPECT_FALSE(open_project(folder / "pieces"));
        (void)load_settings(folder / "settings.json");
        (void)ExportManifest::read(folder.path());
        (void)frame_record_of(R"({"a":)" + nested + "}\n", folder.path());
        (void)read_manifest(R"({"a":)" + nested + "}", ReadLimits{});
        (void)uses_in_record(of_text(R"({"a":)" + nested + "}"));
        (void)uses_in_record(of_text(nested));
    });
}

TEST(Depth, OfMeshesAndWhatTheyName) {
    std::string nodes;
    for (std::size_t i = 0; i < 50'000; ++i) nodes += fmt::format("{}{{\"children\":[{}]}}", i ? "," : "", i + 1);
    const auto chain = R"({"asset":{"version":"2.0"},"scene":0,"scenes":[{"nodes":[0]}],"nodes":[)" + nodes + ",{}]}";
    const auto deep_json = R"({"asset":{"version":"2.0"},"extras":)" + nested_json(deep) + "}";
    TempFolder folder;
    put_file(folder / "chain.gltf", of_text(chain));
    put_file(folder / "deep.gltf", of_text(deep_json));
    on_small_stack([&] {
        (void)textures_of_mesh(of_text(chain), "a.gltf");
        (void)textures_of_mesh(of_text(deep_json), "a.gltf");
        // Read by a program of its own, which may fall over them; that is an error here.
        for (const char* name : {"chain.gltf", "deep.gltf"}) {
            const auto mesh = read_mesh_file(fs::path(programs_folder) / "skivet-mesh", folder / name);
            if (!mesh) EXPECT_FALSE(mesh.error().what.empty());
        }
    });
}

TEST(Depth, OfSheetsSearchesAndNames) {
    on_small_stack([&] {
        EXPECT_FALSE(parse_sheet("sheet = \"container\"\nx = " + nested_json(deep), "a.toml"));
        EXPECT_FALSE(
            parse_sheet("sheet = \"container\"\n" + std::string(deep, 'a') + ".b = 1\n[" + std::string(2 * deep, '[') + "]", "a.toml"));
        std::string dotted = "a";
        for (int i = 0; i < 100'000; ++i) dotted += ".a";
        EXPECT_FALSE(parse_sheet("sheet = \"container\"\n" + dotted + " = 1", "a.toml"));
        (void)parse_search(std::string(10'000, '(') + "horse" + std::string(10'000, ')'));
        (void)parse_search(std::string(10'000, '-') + std::string(10'000, '"'));
    });
}

TEST(Depth, OfFoldersAndArchivesInsideArchives) {
    TempFolder folder;
    std::string path;
    for (int i = 0; i < 2000; ++i) path += "a/";
    const auto tree = make_zip({{path + "horse.dds", small_texture(1)}});
    put_file(folder / "tree.zip", tree);
    for (const auto& [name, bytes] : bomb("nested.zip").make()) put_file(folder / name, bytes);
    auto chain = make_zip({{"horse.dds", small_texture(1)}});
    for (int i = 0; i < 200; ++i) chain = make_zip({{"in.zip", chain}});
    put_file(folder / "chain.zip", chain);
    on_small_stack([&] {
        ReadContext context;
        Progress progress;
        const std::vector<fs::path> paths = {folder / "tree.zip", folder / "nested.zip", folder / "chain.zip"};
        const auto sources = open_sources(context, paths);
        const auto catalog = build_catalog(context, sources, progress);
        ASSERT_TRUE(catalog);
        EXPECT_TRUE(std::any_of(catalog->items.begin(), catalog->items.end(), [](const auto& item) { return item.is_texture(); }));
        (void)find_names(context, sources, progress);
    });
}

TEST(Depth, OfLayersInAPaintedFile) {
    // OpenRaster: a ZIP whose stack.xml may nest.
    std::string xml = "<image w=\"4\" h=\"4\">";
    for (int i = 0; i < 200'000; ++i) xml += "<stack>";
    const auto file = make_zip({{"mimetype", of_text("image/openraster")}, {"stack.xml", of_text(xml)}});
    on_small_stack([&] { EXPECT_FALSE(merged_picture(file, ReadLimits{})); });
}

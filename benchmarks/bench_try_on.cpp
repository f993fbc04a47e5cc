// Which textures of an installation find a mesh they may lie on, and why; and which meshes can be read. Prints a table. Not a test.
#include <fmt/format.h>
#include <chrono>
#include <map>

#include "catalog/usage.h"
#include "workflow/opening.h"
#include "workflow/try_on.h"

int main(int argc, char** argv) {
    using namespace skivet;
    if (argc < 2) return fmt::print(stderr, "usage: skivet_try_on_check FOLDER|ARCHIVE…\n"), 2;
    ReadContext context;
    std::vector<std::filesystem::path> paths(argv + 1, argv + argc);
    auto snapshot = std::make_shared<CatalogSnapshot>();
    snapshot->sources = open_sources(context, paths);
    Progress progress;
    snapshot->catalog = *build_catalog(context, snapshot->sources, progress);
    Project project;
    const auto catalog = analyze(snapshot, {}, AnalysisContext{project, nullptr, {}}, 0);
    const auto& items = snapshot->catalog.items;
    std::size_t meshes = 0, textures = 0, read = 0, triangles = 0, with_uv = 0;
    std::map<std::string, std::size_t> why_not, by_reason;
    std::set<std::size_t> named;  // items that some material names: those have a mesh for certain
    using Clock = std::chrono::steady_clock;
    double reading = 0;
    for (std::size_t i = 0; i < items.size(); ++i) {
        if (items[i].kind != EntryKind::mesh || !items[i].effective) continue;
        ++meshes;
        const auto begin = Clock::now();
        auto mesh = load_mesh(context, address_of(snapshot->sources[items[i].source], items[i]), 1, {});
        reading += std::chrono::duration<double>(Clock::now() - begin).count();
        if (!mesh) {
            ++why_not[mesh.error().what.substr(0, 60)];
            continue;
        }
        ++read;
        triangles += mesh->triangles();
        bool uv = false;
        for (const auto& part : mesh->parts) uv = uv || !part.uvs.empty();
        with_uv += uv;
        for (const auto& part : mesh->parts)
            for (const auto& map : part.maps) {
                auto name = map.path.substr(map.path.find_last_of("/\\") + 1);
                name = name.substr(0, name.find('.'));
                for (std::size_t t = 0; t < items.size(); ++t)
                    if (items[t].is_texture() && items[t].effective && items[t].name() == name) named.insert(t);
            }
    }
    std::size_t found = 0, of_named = 0;
    double looking = 0;
    for (std::size_t i = 0; i < items.size(); ++i) {
        if (!items[i].is_texture() || !items[i].effective) continue;
        ++textures;
        const auto begin = Clock::now();
        const auto list = find_meshes(context, *catalog, i, {});
        looking += std::chrono::duration<double>(Clock::now() - begin).count();
        if (!list || list->empty() || list->front().sure < 0.5f) continue;
        ++found;
        ++by_reason[list->front().reason.substr(0, 10)];
        if (named.contains(i)) ++of_named;
    }
    fmt::print("meshes {}, read {} ({:.0f} ms each), with coordinates {}, triangles {}\n", meshes, read,
               1000 * reading / static_cast<double>(std::max<std::size_t>(1, meshes)), with_uv, triangles);
    for (const auto& [what, count] : why_not) fmt::print("  not read {}: {}\n", count, what);
    fmt::print("textures {}, with a mesh {} ({:.0f} ms each); of {} that a material names {}\n", textures, found,
               1000 * looking / static_cast<double>(std::max<std::size_t>(1, textures)), named.size(), of_named);
    for (const auto& [what, count] : by_reason) fmt::print("  {}…: {}\n", what, count);
    return 0;
}

// What the catalog reads of a game's own texts: searches, names, meshes and frame records.
#include "catalog/query.h"
#include "catalog/usage.h"

using namespace skivet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    const auto bytes = std::as_bytes(std::span(data, size));
    for (const char* name : {"a.gltf", "a.glb", "a.obj", "a.mtl", "a.x"}) (void)textures_of_mesh(bytes, name);
    (void)uses_in_record(bytes);
    if (size > 2000) return 0;
    const auto cut = text.find('\n');
    const auto search = text.substr(0, cut), path = cut == std::string_view::npos ? text : text.substr(cut + 1);
    const auto terms = parse_search(search);
    const bool found = matches(path, terms);
    // The table must agree with the plain definition.
    std::string line(path);
    std::replace(line.begin(), line.end(), '\n', ' ');
    const std::vector<std::string> texts = {line, "horse", line};
    CatalogQuery query;
    query.search = search;
    const auto answer = QueryTable::of_texts(texts).ask(query);
    std::string lowered = line;
    for (auto& c : lowered) c = c >= 'A' && c <= 'Z' ? static_cast<char>(c + 32) : c;
    if (!answer || (std::find(answer->items.begin(), answer->items.end(), 0u) != answer->items.end()) != matches(lowered, terms))
        std::abort();
    (void)found;
    static const Habits habits;
    const auto parts = split_name(path, habits);
    if (parts.habit && parts.base.empty() && !whole_name(path, habits).base.empty()) std::abort();  // a word for a role is no whole name
    Catalog catalog;
    for (const auto& p : {std::string(path), "a/" + std::string(path), std::string("a/horse_bump.dds"), std::string("a/horse.dds")}) {
        CatalogItem item;
        item.inner = {p};
        item.kind = EntryKind::texture;
        catalog.items.push_back(item);
    }
    mark_effective(catalog.items);
    (void)analyze_catalog(catalog, {}, {});
    return 0;
}

#include "workflow/try_on.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <set>

#include "base/file_write.h"
#include "base/phrase.h"
#include "base/text.h"
#include "catalog/usage.h"
#include "container/sheet_folders.h"
#include "mesh/vertex_table.h"
#include "pixel/alpha_use.h"
#include "pixel/mips.h"
#include "pixel/normals.h"
#include "workflow/pieces.h"

namespace skivet {
namespace {

constexpr std::uint64_t most_read = 256u << 20, most_of_one = 64u << 20;
constexpr std::size_t most_found = 20, most_sets = 12;
constexpr std::uint64_t most_text = 64u << 10, most_texts = 16u << 20;
constexpr std::size_t most_text_files = 2000, few_meshes = 4;
constexpr std::string_view plain_mark = "plain:";

std::string_view file_of(std::string_view path) {
    const auto slash = path.find_last_of("/\\");
    return slash == std::string_view::npos ? path : path.substr(slash + 1);
}
std::string_view folder_of(std::string_view path) {
    const auto slash = path.find_last_of("/\\");
    return slash == std::string_view::npos ? std::string_view() : path.substr(0, slash);
}
/// Without its endings, in lower case.
std::string whole_stem(std::string_view path) {
    const auto file = file_of(path);
    const auto dot = file.find('.');
    return lower(path.substr(0, path.size() - file.size() + (dot == std::string_view::npos || dot == 0 ? file.size() : dot)));
}

/// Words of a name of at least four letters; shorter ones stand in too many.
std::set<std::string> words_of(std::string_view name) {
    std::set<std::string> out;
    std::string word;
    const auto end = [&] {
        if (word.size() >= 4) out.insert(word);
        word.clear();
    };
    char before = ' ';
    for (const char c : name) {
        if (!std::isalpha(static_cast<unsigned char>(c))) end();
        else {
            if (std::isupper(static_cast<unsigned char>(c)) && std::islower(static_cast<unsigned char>(before))) end();
            word += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
        }
        before = c;
    }
    end();
    return out;
}

/// What a texture's set is called.
struct SetNames {
    std::set<std::string> paths;  ///< whole, without endings
    std::set<std::string> stems;  ///< file names alone, and the part all share
    std::set<std::string> words;
    std::set<std::string> folders;
};

std::vector<std::size_t> set_members(const AnalyzedCatalog& catalog, std::size_t item) {
    const auto& analysis = catalog.analysis;
    if (item < analysis.set_of.size() && analysis.set_of[item] != CatalogAnalysis::no_set) {
        const auto& set = analysis.sets[analysis.set_of[item]];
        return {set.begin(), set.end()};
    }
    return {item};
}

SetNames names_of(const AnalyzedCatalog& catalog, std::size_t item) {
    SetNames out;
    for (const auto i : set_members(catalog, item)) {
        const auto& path = catalog.snapshot->catalog.items[i].path();
        out.paths.insert(whole_stem(path));
        out.stems.insert(whole_stem(file_of(path)));
        const auto base = lower(split_name(path, catalog.analysis.habits).base);
        if (base.size() >= 3) out.stems.insert(base);
        out.words.merge(words_of(base));
        out.folders.insert(lower(folder_of(path)));
    }
    return out;
}

/// How sure a name in a mesh is one of the set.
float likeness(const SetNames& names, std::string_view named) {
    auto stem = whole_stem(named);
    std::replace(stem.begin(), stem.end(), '\\', '/');
    if (names.paths.contains(stem)) return 1;
    return names.stems.contains(std::string(file_of(stem))) ? 0.9f : 0;
}

bool holds(ByteSpan bytes, std::string_view word) {
    if (word.size() < 5) return false;
    const auto same = [](std::byte a, char b) {
        const auto c = static_cast<unsigned char>(a);
        return (c >= 'A' && c <= 'Z' ? c + 32 : c) == static_cast<unsigned char>(b);
    };
    return std::search(bytes.begin(), bytes.end(), word.begin(), word.end(), same) != bytes.end();
}

/// Small texts that lie in folders with meshes and name a texture of the set, as files of materials do; by folder.
std::map<std::string, std::vector<std::string>> named_beside(const ReadContext& context, const CatalogSnapshot& snapshot,
                                                             const std::map<std::string, std::size_t>& with_meshes, const SetNames& names,
                                                             const CancelToken& cancel) {
    std::map<std::string, std::vector<std::string>> out;
    std::uint64_t read = 0;
    std::size_t files = 0;
    for (const auto& item : snapshot.catalog.items) {
        if (item.kind != EntryKind::other || !item.effective || item.size == 0 || item.size > most_text) continue;
        const auto folder = lower(folder_of(item.path()));
        if (!with_meshes.contains(folder) || !snapshot.sources[item.source].container) continue;
        if ((read += item.size) > most_texts || ++files > most_text_files || cancel.canceled()) break;
        const auto bytes = read_entry(context, *snapshot.sources[item.source].container, item.inner);
        if (!bytes || std::find(bytes->begin(), bytes->end(), std::byte{0}) != bytes->end()) continue;  // no text
        for (const auto& stem : names.stems)
            if (holds(*bytes, stem)) {
                out[folder].push_back(item.path());
                break;
            }
    }
    return out;
}

}  // namespace

std::string text_of(const MeshPlace& place) {
    if (const auto* plain = std::get_if<PlainMesh>(&place)) return std::string(plain_mark) + std::string(name_of(*plain));
    return std::get<Address>(place).text();
}

std::optional<MeshPlace> mesh_place(std::string_view text) {
    if (text.starts_with(plain_mark)) {
        const auto plain = plain_named(text.substr(plain_mark.size()));
        return plain ? std::optional<MeshPlace>(*plain) : std::nullopt;
    }
    auto address = parse_address(text);
    return address && !text.empty() ? std::optional<MeshPlace>(std::move(*address)) : std::nullopt;
}

std::string title_of(const MeshPlace& place) {
    if (const auto* plain = std::get_if<PlainMesh>(&place))
        return *plain == PlainMesh::plate ? said("plate") : *plain == PlainMesh::cylinder ? said("cylinder") : said("ball");
    const auto& address = std::get<Address>(place);
    return address.inner.empty() ? address.source.filename().string() : std::string(file_of(address.inner.back()));
}

Result<std::vector<FoundMesh>> find_meshes(const ReadContext& context, const AnalyzedCatalog& catalog, std::size_t item,
                                           const CancelToken& cancel) {
    const auto& snapshot = *catalog.snapshot;
    const auto& items = snapshot.catalog.items;
    std::vector<FoundMesh> out;
    if (item >= items.size()) return out;
    const auto names = names_of(catalog, item);
    struct MeshCandidate {
        std::size_t item;
        float by_name;
        std::string reason;
    };
    std::vector<MeshCandidate> candidates;
    std::map<std::string, std::size_t> in_folder;  // how many meshes lie in each
    for (const auto& mesh : items)
        if (mesh.kind == EntryKind::mesh && mesh.effective) ++in_folder[lower(folder_of(mesh.path()))];
    const auto beside = named_beside(context, snapshot, in_folder, names, cancel);
    for (std::size_t i = 0; i < items.size(); ++i) {
        const auto& mesh = items[i];
        if (mesh.kind != EntryKind::mesh || !mesh.effective || !is_mesh_path(mesh.path())) continue;
        MeshCandidate one{i, 0, {}};
        const auto stem = whole_stem(file_of(mesh.path()));
        if (names.stems.contains(stem)) {
            one.by_name = 0.7f;
            one.reason = phrase("has its name");
        } else {
            for (const auto& word : words_of(file_of(mesh.path())))
                if (one.by_name < 0.5f && names.words.contains(word)) {
                    one.by_name = 0.5f;
                    one.reason = phrase("named {}, too", word);
                }
        }
        if (names.folders.contains(lower(folder_of(mesh.path())))) {
            if (one.by_name == 0) {
                one.reason = phrase("in the same folder");
                // A folder of a few meshes is that of one thing.
                if (in_folder[lower(folder_of(mesh.path()))] <= few_meshes) one.by_name = 0.3f;
            }
            one.by_name += 0.2f;
        }
        if (const auto named = beside.find(lower(folder_of(mesh.path()))); named != beside.end()) {
            // "upper_default.txt" is about "upper.md3"; one that begins like no mesh is about all of them.
            for (const auto& file : named->second) {
                const auto about = whole_stem(file_of(file));
                const float like = about.starts_with(stem) || stem.starts_with(about) ? 0.85f : 0.55f;
                if (like <= one.by_name) continue;
                one.by_name = like;
                one.reason = phrase("{} beside it names it", std::string(file_of(file)));
            }
        }
        candidates.push_back(std::move(one));
    }
    std::stable_sort(candidates.begin(), candidates.end(), [](const auto& a, const auto& b) { return a.by_name > b.by_name; });
    std::uint64_t read = 0;
    for (auto& one : candidates) {
        SKIVET_CHECK(cancel.check());
        const auto& mesh = items[one.item];
        const auto& source = snapshot.sources[mesh.source];
        float sure = one.by_name;
        auto reason = one.reason;
        if (source.container && mesh.size <= most_of_one && read + mesh.size <= most_read) {
            read += mesh.size;
            if (const auto bytes = read_entry(context, *source.container, mesh.inner)) {
                for (const auto& named : textures_of_mesh(*bytes, mesh.path()))
                    if (const float like = likeness(names, named); like > sure) {
                        sure = like;
                        reason = phrase("its material names {}", std::string(file_of(named)));
                    }
                if (sure < 0.8f)
                    for (const auto& stem : names.stems)
                        if (holds(*bytes, stem)) {
                            sure = 0.8f;
                            reason = phrase("{} stands in it", stem);
                            break;
                        }
            }
        }
        if (sure > 0) out.push_back({address_of(source, mesh), std::string(file_of(mesh.path())), std::move(reason), sure});
    }
    const auto detail = [](const FoundMesh& m) { return detail_number(m.name.substr(0, m.name.find('.'))); };
    std::stable_sort(out.begin(), out.end(),
                     [&](const FoundMesh& a, const FoundMesh& b) { return a.sure != b.sure ? a.sure > b.sure : detail(a) < detail(b); });
    if (out.size() > most_found) out.resize(most_found);
    return out;
}

Result<Mesh> load_mesh(const ReadContext& context, const MeshPlace& place, float shape, const CancelToken& cancel,
                       const TableReadings& readings) {
    if (const auto* plain = std::get_if<PlainMesh>(&place)) return plain_mesh(*plain, shape);
    const auto& address = std::get<Address>(place);
    const auto program = program_beside("skivet-mesh");
    if (address.inner.empty() && is_table_path(address.source.string())) {
        SKIVET_TRY(const auto bytes, read_file(address.source, MeshLimits{}.file_bytes));
        auto mesh = [&]() -> Result<Mesh> {
            SKIVET_TRY(const auto table, read_vertex_table(bytes, {}, cancel));
            const auto kept = readings.find(columns_key(table));
            return mesh_of(table, kept == readings.end() ? proposed_reading(table) : kept->second, address.source.stem().string());
        }();
        return std::move(mesh).map_error([&](Error error) { return std::move(error).within(address.source.filename().string()); });
    }
    if (address.inner.empty()) return read_mesh_file(program, address.source, {}, cancel);
    AddressReader reader(context);
    SKIVET_TRY(auto bytes, reader.read(address));
    const auto& path = address.inner.back();
    MeshSource source{std::string(file_of(path)), std::move(bytes), {}};
    source.beside = [&](const std::string& other) -> std::optional<Bytes> {
        const auto inside = path_from(folder_of(path), other);
        if (!inside) return std::nullopt;
        auto there = address;
        there.inner.back() = *inside;
        auto found = reader.read(there);
        return found ? std::optional(std::move(*found)) : std::nullopt;
    };
    return read_mesh(program, source, {}, cancel).map_error([&](Error error) { return std::move(error).within(path); });
}

Outfit outfit_of(const AnalyzedCatalog& catalog, std::size_t item, const Mesh& mesh) {
    Outfit out;
    out.of_part.assign(mesh.parts.size(), Outfit::none);
    if (item >= catalog.snapshot->catalog.items.size()) {
        out.sets.push_back({item});
        std::fill(out.of_part.begin(), out.of_part.end(), 0u);
        return out;
    }
    out.sets.push_back(set_members(catalog, item));
    const auto own = names_of(catalog, item);
    // What a part names, the surest first: the pictures of its material, then the material.
    const auto named = [](const MeshPart& part) {
        std::vector<std::string> names;
        for (const auto& map : part.maps) names.push_back(map.path);
        if (!part.material.empty()) names.push_back(part.material);
        return names;
    };
    bool any = false;
    for (std::size_t p = 0; p < mesh.parts.size(); ++p)
        for (const auto& name : named(mesh.parts[p]))
            if (likeness(own, name) > 0) out.of_part[p] = 0, any = true;
    // Textures of the game by their whole path and by their name, where it is one alone.
    constexpr std::size_t several = static_cast<std::size_t>(-1);
    std::map<std::string, std::size_t, std::less<>> by_path, by_stem;
    const auto& items = catalog.snapshot->catalog.items;
    std::set<std::string> wanted;
    for (const auto& part : mesh.parts)
        for (const auto& name : named(part)) wanted.insert(std::string(file_of(whole_stem(name))));
    for (std::size_t i = 0; i < items.size() && !wanted.empty(); ++i) {
        if (!items[i].is_texture() || !items[i].effective) continue;
        const auto stem = whole_stem(items[i].path());
        const auto base = lower(split_name(items[i].path(), catalog.analysis.habits).base);
        for (const auto& name : {std::string(file_of(stem)), base})
            if (wanted.contains(name)) {
                by_path.emplace(stem, i);
                const auto [found, is_new] = by_stem.emplace(name, i);
                if (!is_new && set_members(catalog, found->second == several ? i : found->second) != set_members(catalog, i))
                    found->second = several;
            }
    }
    std::map<std::size_t, std::uint32_t> known;  // by a set's first member
    for (std::size_t p = 0; p < mesh.parts.size(); ++p) {
        if (out.of_part[p] != Outfit::none) continue;
        std::size_t found = several;
        for (const auto& name : named(mesh.parts[p])) {
            auto stem = whole_stem(name);
            std::replace(stem.begin(), stem.end(), '\\', '/');
            if (const auto path = by_path.find(stem); path != by_path.end()) found = path->second;
            else if (const auto file = by_stem.find(file_of(stem)); file != by_stem.end()) found = file->second;
            if (found != several) break;
        }
        if (found == several) {
            if (!any) out.of_part[p] = 0;
            continue;
        }
        auto members = set_members(catalog, found);
        const auto first = members.front();
        const auto [at, is_new] = known.emplace(first, static_cast<std::uint32_t>(out.sets.size()));
        if (is_new) {
            if (out.sets.size() >= most_sets) {
                known.erase(at);
                continue;
            }
            out.sets.push_back(std::move(members));
        }
        out.of_part[p] = at->second;
    }
    if (!any && std::find(out.of_part.begin(), out.of_part.end(), 0u) == out.of_part.end())
        std::fill(out.of_part.begin(), out.of_part.end(), 0u);  // asked for by a person: the whole of it wears the texture
    return out;
}

namespace {

bool is_color(Role role) {
    switch (role) {
        case Role::normal:
        case Role::roughness_gloss:
        case Role::metalness:
        case Role::occlusion:
        case Role::height:
        case Role::mask: return false;
        default: return true;
    }
}

/// X in red and Y in green, as a surface wants them.
void arrange_normals(Format format, SurfaceMap& map) {
    const auto found = guess_normals(format, map.levels.front());
    NormalChannels channels;
    if (found) channels = *found;
    else if (info(format).channels == 2) channels.z = -1;
    map.two_channels = channels.z < 0;
    if (channels.x == 0 && channels.y == 1) return;
    for (auto& level : map.levels)
        for (auto& t : level.texels) t = {t[channels.x], t[channels.y], t[2], 255};
}

}  // namespace

Result<SharedMap> map_of(const TextureFile& texture, const MapWish& wish) {
    auto out = std::make_shared<SurfaceMap>();
    const auto& desc = texture.layout.desc;
    out->srgb = is_color(wish.role);
    std::optional<Error> wrong;
    for (std::uint32_t mip = 0; mip < desc.mips; ++mip) {
        const auto* surface = texture.layout.find(mip);
        if (!surface) continue;
        if (std::max(surface->width, surface->height) > wish.most && mip + 1 < desc.mips) {
            ++out->above;
            continue;
        }
        auto level = texture.decode(mip);
        if (level) out->levels.push_back(std::move(*level));
        else if (!wrong) wrong = std::move(level).error();  // a level that lies in a file that is not there
    }
    if (out->levels.empty()) return wrong ? fail(std::move(*wrong)) : fail(ErrorCode::missing, "no level of it is there");
    if (wish.role == Role::normal) arrange_normals(desc.format, *out);
    return out;
}

SharedMap map_of(const Image& picture, const MapWish& wish) {
    auto out = std::make_shared<SurfaceMap>();
    out->srgb = is_color(wish.role);
    out->levels.push_back(picture);
    MipRecipe box;
    box.linear_light = out->srgb;
    while (out->levels.back().width > 1 || out->levels.back().height > 1) {
        const auto& above = out->levels.back();
        const ByteRows rows(above, out->srgb);
        auto next = to_bytes(next_level(rows, box, {}, {0, 0, std::max(1u, above.width / 2), std::max(1u, above.height / 2)}), out->srgb);
        out->levels.push_back(std::move(next));
    }
    auto& levels = out->levels;
    while (levels.size() > 1 && std::max(levels[0].width, levels[0].height) > wish.most) {
        levels.erase(levels.begin());
        ++out->above;
    }
    if (wish.role == Role::normal) arrange_normals(wish.stored, *out);
    return out;
}

Result<SharedMap> worn_map(const ReadContext& context, const Project& project, const Piece& piece, bool edited, const MapWish& wish,
                           const CancelToken& cancel) {
    if (edited) {
        SKIVET_TRY(auto edit, edited_piece(context, project, piece, cancel));
        return edit.texture ? map_of(*edit.texture, wish) : Result<SharedMap>(map_of(edit.image, wish));
    }
    SKIVET_TRY(auto texture, original_texture(context, project, piece));
    return map_of(texture, wish);
}

MeshSurface surface_of(std::span<const WornMap> maps) {
    MeshSurface out;
    for (const auto& worn : maps) {
        const auto take = [&](SharedMap& place) {
            if (!place) place = worn.map;
        };
        switch (worn.role) {
            case Role::normal: take(out.normal); break;
            case Role::roughness_gloss: {
                if (out.roughness) break;
                out.roughness = worn.map;
                const auto name = lower(file_of(worn.path));
                out.is_gloss = name.find("gl") != std::string::npos || name.find("smooth") != std::string::npos;
                if (name.find("rough") != std::string::npos) out.is_gloss = false;
                break;
            }
            case Role::metalness: take(out.metalness); break;
            case Role::occlusion: take(out.occlusion); break;
            case Role::emission: take(out.emission); break;
            case Role::specular: take(out.specular); break;
            case Role::height:
            case Role::mask:
            case Role::lightmap: break;  // nothing that is seen of them by themselves
            default: take(out.base_color); break;
        }
    }
    // A map tried on alone is looked at as it is.
    if (!out.base_color && maps.size() == 1 && maps[0].role != Role::normal) out.base_color = maps[0].map;
    if (out.base_color && out.base_color->is_there()) {
        // A middle level tells as much as the largest.
        const auto& levels = out.base_color->levels;
        const auto middle = std::find_if(levels.begin(), levels.end(), [](const Image& l) { return std::max(l.width, l.height) <= 256; });
        const auto use = alpha_facts(middle == levels.end() ? levels.back() : *middle).use;
        if (use == AlphaUse::cut_out) out.alpha = AlphaMode::cut_out;
        if (use == AlphaUse::gradient) out.alpha = AlphaMode::blend;
    }
    return out;
}

std::string try_on_key(const AnalyzedCatalog& catalog, std::size_t item) {
    const auto& items = catalog.snapshot->catalog.items;
    if (item >= items.size()) return {};
    const auto first = set_members(catalog, item).front();
    return path_key(items[first].inner);
}

}  // namespace skivet

#pragma once
// A texture on its object: which meshes it may belong to, which of a mesh's parts its set lies on, and what lies on the others.
#include <variant>

#include "mesh/mesh_picture.h"
#include "mesh/plain.h"
#include "mesh/read_mesh.h"
#include "workflow/catalog_snapshot.h"

namespace skivet {

/// A mesh by where it is: an entry of the game, a file of the person's own, or a plain body.
using MeshPlace = std::variant<PlainMesh, Address>;
/// As the project keeps it.
[[nodiscard]] std::string text_of(const MeshPlace& place);
/// Nothing for what is none.
[[nodiscard]] std::optional<MeshPlace> mesh_place(std::string_view text);

struct FoundMesh {
    MeshPlace place;
    std::string name;    ///< to be shown
    std::string reason;  ///< why it may be the texture's, in a few words
    float sure = 0;      ///< 0…1
};
/// Meshes among the game's that a texture may lie on, the surest first and of equals the finer level of detail, at most 20: those whose
/// materials name a texture of its set; those in whose bytes, or in a small text beside which, such a name stands; those named alike; those
/// in its folder. At most 256 MB of meshes are read. Error `canceled` only.
[[nodiscard]] Result<std::vector<FoundMesh>> find_meshes(const ReadContext& context, const AnalyzedCatalog& catalog, std::size_t item,
                                                         const CancelToken& cancel);
/// Files it names are looked for beside it, in its archive or on disk. `shape`: width by height of the texture, for plain bodies.
/// `readings`: of tables of vertices whose columns somebody corrected; others are read as their columns' names say.
[[nodiscard]] Result<Mesh> load_mesh(const ReadContext& context, const MeshPlace& place, float shape, const CancelToken& cancel,
                                     const TableReadings& readings = {});
/// What a place is called in lists.
[[nodiscard]] std::string title_of(const MeshPlace& place);

/// Which textures lie on which parts of a mesh.
struct Outfit {
    static constexpr std::uint32_t none = 0xFFFFFFFF;
    std::vector<std::vector<std::size_t>> sets;  ///< catalog items of each; the first is the one that is tried on
    std::vector<std::uint32_t> of_part;          ///< an index into sets, or none
};
/// `item` may be none of the catalog's: then all of the mesh wears what is tried on alone. Parts whose material names a texture of the
/// item's set get that set, and so do all parts that name no texture of the game when no part names one of the set; the others get the sets
/// of the textures they name.
[[nodiscard]] Outfit outfit_of(const AnalyzedCatalog& catalog, std::size_t item, const Mesh& mesh);

/// What a picture is laid on a mesh as.
struct MapWish {
    Role role = Role::unsure;
    std::uint32_t most = 2048;        ///< levels with a longer side are left out, where there are smaller ones
    Format stored = Format::unknown;  ///< of the texture a picture is of: says where a normal map's channels lie
};
/// The levels of a texture (of its first layer and face), ready to be laid on. Two-channel normals are brought into red and green.
[[nodiscard]] Result<SharedMap> map_of(const TextureFile& texture, const MapWish& wish);
/// Of a picture without levels: they are made, by a box filter.
[[nodiscard]] SharedMap map_of(const Image& picture, const MapWish& wish);

/// A piece as it is tried on: as it was taken, or as its file has it now.
[[nodiscard]] Result<SharedMap> worn_map(const ReadContext& context, const Project& project, const Piece& piece, bool edited,
                                         const MapWish& wish, const CancelToken& cancel);

struct WornMap {
    Role role = Role::unsure;
    std::string path;
    SharedMap map;
};
/// A set as one surface. `gloss` or roughness by the texture's name; whether alpha makes holes, or blends, by the base color's alpha.
[[nodiscard]] MeshSurface surface_of(std::span<const WornMap> maps);

/// The set a texture's choices are kept for: the same for all its members.
[[nodiscard]] std::string try_on_key(const AnalyzedCatalog& catalog, std::size_t item);

}  // namespace skivet

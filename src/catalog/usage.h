#pragma once
// Which objects use a texture: from the materials of meshes, and from frame records. Where nothing is known, shared folders tell
// (analysis.h).
#include <map>
#include <string>

#include "catalog/analysis.h"

namespace skivet {

/// Names of textures that a mesh file refers to: images and materials of glTF 2.0 (sections 3.8 and 3.9; JSON, or the first chunk of a
/// GLB), `usemtl` and `map_*` lines of OBJ and MTL files. Nothing for what is no mesh.
[[nodiscard]] std::vector<std::string> textures_of_mesh(ByteSpan file, std::string_view path);
/// Objects and their textures from a frame record (JSON Lines; each line has `texture` and may have `object` or `mesh`). Lines that are no
/// JSON are left out.
[[nodiscard]] std::vector<std::pair<std::string, std::string>> uses_in_record(ByteSpan file);

/// Objects by texture (path_key). A texture is meant by its path, or by its name without folder and extension where only one effective
/// texture is named so; a role part may be left out. Frame records (*.record.jsonl) are looked for in `records`, which may be empty. Error
/// `canceled` only.
[[nodiscard]] Result<std::map<std::string, std::vector<std::string>>> users_of_textures(const ReadContext& context,
                                                                                        std::span<const Source> sources,
                                                                                        const Catalog& catalog,
                                                                                        const std::filesystem::path& records,
                                                                                        Progress& progress);

}  // namespace skivet

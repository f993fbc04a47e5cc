#pragma once
// Files of meshes, read by the Assimp library. It reads dozens of formats that nobody checked against hostile files as ours are, so it runs
// in a program of its own (skivet-mesh): a file that ends it, or that wants too much, is an error and nothing else.
#include <filesystem>
#include <functional>
#include <optional>

#include "base/progress.h"
#include "mesh/mesh_wire.h"

namespace skivet {

struct MeshSource {
    std::string name;  ///< with its ending: "horse.obj"
    Bytes bytes;
    /// What the file names beside it (a material's file, a buffer), by its path relative to the mesh's folder; nothing: not there.
    std::function<std::optional<Bytes>(const std::string& path)> beside;
};

/// `program` is skivet-mesh. Errors: `missing` without it, `unsupported` or `damaged` with what the library says, `limit`, `canceled`.
[[nodiscard]] Result<Mesh> read_mesh(const std::filesystem::path& program, const MeshSource& source, const MeshLimits& limits = {},
                                     const CancelToken& cancel = {});
/// Of a file on disk; what it names is looked for in its folder and below.
[[nodiscard]] Result<Mesh> read_mesh_file(const std::filesystem::path& program, const std::filesystem::path& path,
                                          const MeshLimits& limits = {}, const CancelToken& cancel = {});

/// Whether a path's ending is that of a file of meshes that is read.
[[nodiscard]] bool is_mesh_path(std::string_view path);
/// "*.fbx *.glb …", for file dialogs.
[[nodiscard]] std::string mesh_patterns();
/// `path` as it is meant from `folder` ("models" and "../maps/a.png": "maps/a.png"); nothing where it leaves the top or is absolute.
[[nodiscard]] std::optional<std::string> path_from(std::string_view folder, std::string_view path);

}  // namespace skivet

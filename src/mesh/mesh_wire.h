#pragma once
// How skivet-mesh, the program that reads files of meshes, hands one over: our own bytes, checked as any file is.
#include <functional>

#include "base/bytes.h"
#include "mesh/mesh.h"

namespace skivet {

/// What goes into the program: the file and what it names, each with its name; those without bytes are not there.
struct MeshFiles {
    struct One {
        std::string name;  ///< relative to the mesh's folder, with '/'
        bool is_there = false;
        ByteSpan bytes;  ///< somebody else's
    };
    std::vector<One> files;  ///< the mesh first; a last one without a name: whatever else is asked for is not there
};
/// Everything but the bytes of the files, which follow one after the other. It begins with the number of all bytes behind that number.
[[nodiscard]] Bytes head_of(const MeshFiles& files);
/// From the whole input of the program but for its first number; looks into `bytes`. Error `damaged`.
[[nodiscard]] Result<MeshFiles> read_mesh_files(ByteSpan bytes);

/// What comes out of it: a mesh, the name of a file that it has to have first, or why there is none.
struct MeshAnswer {
    Mesh mesh;
    std::string wanted;
    std::string wrong;
};
/// Gives the bytes to `sink` piece by piece, so that a large mesh is not held twice.
void write_mesh_answer(const MeshAnswer& answer, const std::function<void(ByteSpan)>& sink);
/// Numbers that are none become 0, and a note says so. Errors: `damaged` for what contradicts itself, `limit`.
[[nodiscard]] Result<MeshAnswer> read_mesh_answer(ByteSpan bytes, const MeshLimits& limits);

}  // namespace skivet

#pragma once
// Small meshes for three things of the fairground, as OBJ and glTF 2.0.
#include "fair/press/pack.h"

namespace fair {

/// models/horse.obj (two sides, the left one's texture mirrored), models/booth.gltf, models/tent.glb.
std::vector<PackedFile> make_meshes();

}  // namespace fair

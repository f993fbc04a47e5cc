#pragma once
#include "fair/stall/loader.h"

namespace fair {

/// The fairground at 1280 × 800, drawn with the installation's textures. `quality` 0 uses the largest level, higher numbers start
/// further down the chain.
QImage draw_scene(Installation& game, int quality);

}  // namespace fair

#pragma once
#include <QIODevice>

#include "fair/stall/record.h"

namespace fair {

/// The fairground at 1280 × 800, drawn with the installation's textures. `quality` 0 uses the largest level, higher numbers start
/// further down the chain. `record` gets a frame record: JSON Lines, one draw a line, with the texture, the archive it came from, the
/// level, and the four corners on the screen.
QImage draw_scene(Installation& game, int quality, QIODevice* record = nullptr, FrameRecord* frame = nullptr);
/// The same for the storeroom: every flat texture of the installation on a board of its own.
QImage draw_storeroom(Installation& game, int quality, QIODevice* record = nullptr, FrameRecord* frame = nullptr);

}  // namespace fair

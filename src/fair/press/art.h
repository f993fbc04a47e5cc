#pragma once
// All pictures of Brindle Fair, drawn by program: the same seed and size give the same texels.
#include <QImage>
#include <QString>
#include <vector>

namespace fair {

enum class Pixels { bc1, bc2, bc3, bc4, bc5, rgba8, bgra8, r8, b5g6r5, bgra4, png, jpeg, rgba16f, bc7, bc6h, etc2, astc };
enum class Wrap { dds, dds_dx10, panel, png, jpeg, ktx2, stepped };

struct Art {
    QString path;  ///< inside its archive, without the file ending
    Pixels pixels = Pixels::bc1;
    Wrap wrap = Wrap::dds;
    bool srgb = true;
    int mips = 0;                  ///< 0: down to 1×1
    std::vector<QImage> pictures;  ///< one a layer or face; Format_RGBA8888
    bool cube = false;
    bool volume = false;     ///< the pictures are slices
    bool lacks_top = false;  ///< stepped: the file with the largest level was lost
    bool listed = true;      ///< in the game's manifest
    QString archive;         ///< which archive it goes into
    bool deflated = false;
};

/// Every texture of the installation at the small scale.
std::vector<Art> draw_everything(int seed);

}  // namespace fair

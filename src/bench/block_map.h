#pragma once
// What became of each block of level 0.
#include <cstdint>
#include <optional>
#include <vector>

#include "pixel/mips.h"
#include "texture/texture.h"

namespace skivet {

/// In cells of one block, or of 4×4 texels where the format has no blocks; rows from the top.
struct BlockMap {
    std::uint32_t across = 0, down = 0;   ///< cells
    std::uint32_t width = 4, height = 4;  ///< texels of a cell
    std::vector<std::uint8_t> is_new;     ///< 1 where something of it is not the original's
    std::vector<std::uint8_t> loss;       ///< of new cells: RMS of edited against result over R, G, B and A, in steps of 255, rounded up

    [[nodiscard]] std::size_t at(std::uint32_t x, std::uint32_t y) const { return std::size_t{y / height} * across + x / width; }
    /// The cell's texels.
    [[nodiscard]] Rect texels(std::size_t cell) const {
        return {static_cast<std::uint32_t>(cell % across) * width, static_cast<std::uint32_t>(cell / across) * height, width, height};
    }
    /// The new cell that lost most; nothing where none lost anything.
    [[nodiscard]] std::optional<std::size_t> worst() const;
};

/// The three pictures are level 0 in paint form (of a cubemap that came back as its cross, the cross). Cells are told by the bytes where a
/// level's lie in the file as they are, by texels elsewhere; of another size or format (`layout` is that of `file`) all are new.
/// Where alpha is transparency, color counts by it.
[[nodiscard]] BlockMap map_blocks(const TextureFile& original, const Bytes& file, const TextureLayout& layout, const Image& before,
                                  const Image& edited, const Image& result, bool alpha_is_transparency);

}  // namespace skivet

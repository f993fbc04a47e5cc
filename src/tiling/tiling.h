#pragma once
// Where the blocks (or texels, of uncompressed formats) of a level lie in memory that is not row by row. Both ways, for every format.
#include <string>

#include "base/bytes.h"
#include "pixel/format.h"

namespace skivet {

enum class Tiling : std::uint8_t {
    linear,
    morton,        ///< Z-order: the bits of x and y take turns, x first; where one side is longer, its upper bits follow
    block_linear,  ///< groups of 64 bytes × 8 rows, stacked `block_height` high, block after block
    tiles,         ///< tiles row after row, inside each row by row or as `bits` says
};
[[nodiscard]] std::optional<Tiling> tiling_named(std::string_view name);

struct TilingSpec {
    Tiling tiling = Tiling::linear;
    std::uint32_t block_height = 16;  ///< block-linear: groups on top of each other, 1, 2, 4 … 32
    std::uint32_t gob_rows =
        8;  ///< block-linear: rows of a group (GOB); 8, or 4 for the older hardware, whose rows lie one behind the other
    std::uint32_t tile_width = 8, tile_height = 8;  ///< tiles: blocks (or texels) of one
    /// tiles: which bit of x or y each bit of a position in a tile is, from the lowest on: "xyxyxy" is Z-order in 8 × 8. Empty: row by row.
    std::string bits = {};
    bool shrink = true;  ///< block-linear: halved for small levels until a block is no higher than the level needs
    bool operator==(const TilingSpec&) const = default;
};

/// The block height a level of so many rows of blocks has.
[[nodiscard]] std::uint32_t block_height_of(const TilingSpec& spec, std::uint32_t rows);
/// Bytes a tiled level takes. Morton: both sides rounded up to powers of two. Block-linear: whole blocks. Tiles:
/// whole tiles.
[[nodiscard]] std::uint64_t tiled_bytes(const TilingSpec& spec, Format format, std::uint32_t width, std::uint32_t height);
/// To what a level's start is aligned: block-linear levels start at whole blocks, others anywhere.
[[nodiscard]] std::uint64_t tiled_alignment(const TilingSpec& spec, Format format, std::uint32_t width, std::uint32_t height);

/// What does not hold of a pattern of bits; empty for a good one, whose tile's sides go into the spec.
[[nodiscard]] std::string take_bits(TilingSpec& spec, std::string_view bits);

/// Position in the tiled level of the first byte of block (x, y).
[[nodiscard]] std::uint64_t tiled_offset(const TilingSpec& spec, Format format, std::uint32_t width, std::uint32_t height, std::uint32_t x,
                                         std::uint32_t y);

/// Row by row, without what tiling adds. Error `damaged` when `tiled` is too short.
[[nodiscard]] Result<Bytes> untile(const TilingSpec& spec, Format format, std::uint32_t width, std::uint32_t height, ByteSpan tiled);
/// The inverse. Bytes between come from `before`, a tiled level of the same size; zeros where it is empty. Error `unfit` for wrong sizes.
[[nodiscard]] Result<Bytes> tile(const TilingSpec& spec, Format format, std::uint32_t width, std::uint32_t height, ByteSpan rows,
                                 ByteSpan before = {});

}  // namespace skivet

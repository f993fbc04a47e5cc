#pragma once
#include <algorithm>

#include "pixel/format.h"

namespace skivet {

/// How a surface is cut into bands of whole rows of blocks, about 64 texels high, from the top.
struct BandRows {
    std::uint32_t height;  ///< texels of each but the last
    BandRows(Format format, std::uint32_t surface_width, std::uint32_t surface_height)
        : height(info(format).block_height * std::max(1u, 64u / info(format).block_height)),
          format_(format),
          width_(surface_width),
          rows_(surface_height) {}
    [[nodiscard]] std::uint32_t height_from(std::uint32_t y) const { return std::min(height, rows_ - y); }
    /// Where the band that begins at texel row `y` begins in the surface, and how many bytes it has.
    [[nodiscard]] std::size_t at(std::uint32_t y) const { return y == 0 ? 0 : static_cast<std::size_t>(level_bytes(format_, width_, y)); }
    [[nodiscard]] std::size_t bytes_from(std::uint32_t y) const {
        return static_cast<std::size_t>(level_bytes(format_, width_, height_from(y)));
    }

private:
    Format format_;
    std::uint32_t width_, rows_;
};

}  // namespace skivet

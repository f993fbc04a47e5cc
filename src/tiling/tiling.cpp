#include "tiling/tiling.h"

#include <algorithm>
#include <bit>

#include "base/phrase.h"

namespace skivet {
namespace {

constexpr std::uint32_t group_width = 64;

std::uint32_t group_rows_of(const TilingSpec& spec) { return spec.gob_rows == 4 ? 4 : 8; }

struct Grid {
    std::uint32_t across, down, bytes;  ///< blocks, and bytes of one
};
Grid grid_of(Format format, std::uint32_t width, std::uint32_t height) {
    const auto& f = info(format);
    return {(width + f.block_width - 1u) / f.block_width, (height + f.block_height - 1u) / f.block_height, f.block_bytes};
}

/// Bits of v at every other place, the lowest first.
std::uint64_t spread(std::uint64_t v) {
    v = (v | v << 16) & 0x0000FFFF0000FFFF;
    v = (v | v << 8) & 0x00FF00FF00FF00FF;
    v = (v | v << 4) & 0x0F0F0F0F0F0F0F0F;
    v = (v | v << 2) & 0x3333333333333333;
    return (v | v << 1) & 0x5555555555555555;
}

std::uint64_t morton(std::uint32_t x, std::uint32_t y, std::uint32_t across, std::uint32_t down) {
    const auto shared = static_cast<unsigned>(std::min(std::bit_width(std::bit_ceil(across)), std::bit_width(std::bit_ceil(down))) - 1);
    const std::uint32_t low = (1u << shared) - 1;
    // Above the shared bits only one of the two has any left.
    return spread(x & low) | spread(y & low) << 1 | std::uint64_t{(x | y) >> shared} << (2 * shared);
}

/// Inside a group, bytes go in units of 16 × 2, those in a zigzag of 32 × 8: from the Tegra X1 Technical Reference Manual, "Block Linear"
/// (pixel memory formats), by memory. A byte at (x, y), x in bytes: bits of the address from the lowest are x0-x3, y0, x4, y1, y2, x5.
/// Groups of four rows belong to older hardware (the NV50 family) and have their rows one behind the other; also by memory.
std::uint64_t in_group(std::uint32_t x, std::uint32_t y, std::uint32_t group_rows) {
    if (group_rows == 4) return x | y << 6;
    return (x & 15) | (y & 1) << 4 | (x >> 4 & 1) << 5 | (y >> 1 & 3) << 6 | (x >> 5 & 1) << 8;
}

std::uint64_t block_linear(std::uint64_t x, std::uint32_t y, std::uint64_t groups_across, std::uint32_t block_height,
                           std::uint32_t group_rows) {
    const std::uint64_t group_bytes = std::uint64_t{group_width} * group_rows, block_bytes = group_bytes * block_height;
    const auto rows = group_rows * block_height;
    return (y / rows * groups_across + x / group_width) * block_bytes + y % rows / group_rows * group_bytes +
           in_group(static_cast<std::uint32_t>(x % group_width), y % group_rows, group_rows);
}

/// Position of an element in tiles that follow one another row by row.
std::uint64_t in_tiles(const TilingSpec& spec, std::uint32_t x, std::uint32_t y, std::uint32_t across) {
    const std::uint64_t tiles_across = (across + spec.tile_width - 1) / spec.tile_width;
    auto inside = std::uint64_t{y % spec.tile_height} * spec.tile_width + x % spec.tile_width;
    if (!spec.bits.empty()) {
        inside = 0;
        unsigned of_x = 0, of_y = 0, place = 0;
        for (const char c : spec.bits) inside |= std::uint64_t{c == 'x' ? x >> of_x++ & 1 : y >> of_y++ & 1} << place++;
    }
    return (y / spec.tile_height * tiles_across + x / spec.tile_width) * spec.tile_width * spec.tile_height + inside;
}

/// Calls visit(tiled position, position in rows, bytes) for runs that stay together.
template <class Visit>
void each_run(const TilingSpec& spec, Format format, std::uint32_t width, std::uint32_t height, const Visit& visit) {
    const auto g = grid_of(format, width, height);
    const std::uint64_t row = std::uint64_t{g.across} * g.bytes, groups = (row + group_width - 1) / group_width;
    const auto block_height = block_height_of(spec, g.down);
    for (std::uint32_t y = 0; y < g.down; ++y) {
        if (spec.tiling == Tiling::linear) visit(y * row, y * row, row);
        else if (spec.tiling == Tiling::morton)
            for (std::uint32_t x = 0; x < g.across; ++x)
                visit(morton(x, y, g.across, g.down) * g.bytes, y * row + std::uint64_t{x} * g.bytes, std::uint64_t{g.bytes});
        else if (spec.tiling == Tiling::tiles)
            for (std::uint32_t x = 0; x < g.across; ++x)
                visit(in_tiles(spec, x, y, g.across) * g.bytes, y * row + std::uint64_t{x} * g.bytes, std::uint64_t{g.bytes});
        else
            for (std::uint64_t x = 0; x < row; x += 16)
                visit(block_linear(x, y, groups, block_height, group_rows_of(spec)), y * row + x, std::min<std::uint64_t>(16, row - x));
    }
}

}  // namespace

std::optional<Tiling> tiling_named(std::string_view name) {
    if (name == "linear") return Tiling::linear;
    if (name == "morton") return Tiling::morton;
    if (name == "block-linear") return Tiling::block_linear;
    if (name == "tiles") return Tiling::tiles;
    return std::nullopt;
}

std::string take_bits(TilingSpec& spec, std::string_view bits) {
    const auto x = std::count(bits.begin(), bits.end(), 'x'), y = std::count(bits.begin(), bits.end(), 'y');
    if (bits.empty() || static_cast<std::size_t>(x + y) != bits.size() || x > 12 || y > 12)
        return "bits are the letters x and y, at most 12 of each, from the lowest bit of a position on, such as \"xyxyxy\"";
    spec.bits = bits;
    spec.tile_width = 1u << x;
    spec.tile_height = 1u << y;
    return {};
}

std::uint32_t block_height_of(const TilingSpec& spec, std::uint32_t rows) {
    auto height = std::clamp(spec.block_height, 1u, 32u);
    while (spec.shrink && height > 1 && rows <= group_rows_of(spec) * height / 2) height /= 2;
    return height;
}

std::uint64_t tiled_bytes(const TilingSpec& spec, Format format, std::uint32_t width, std::uint32_t height) {
    const auto g = grid_of(format, width, height);
    if (spec.tiling == Tiling::linear) return level_bytes(format, width, height);
    if (spec.tiling == Tiling::morton) return std::uint64_t{std::bit_ceil(g.across)} * std::bit_ceil(g.down) * g.bytes;
    if (spec.tiling == Tiling::tiles)
        return std::uint64_t{(g.across + spec.tile_width - 1) / spec.tile_width} * ((g.down + spec.tile_height - 1) / spec.tile_height) *
               spec.tile_width * spec.tile_height * g.bytes;
    const auto rows = group_rows_of(spec) * block_height_of(spec, g.down);
    const std::uint64_t groups = (std::uint64_t{g.across} * g.bytes + group_width - 1) / group_width;
    return groups * ((g.down + rows - 1) / rows) * rows * group_width;
}

std::uint64_t tiled_alignment(const TilingSpec& spec, Format format, std::uint32_t width, std::uint32_t height) {
    return spec.tiling == Tiling::block_linear
               ? std::uint64_t{group_width} * group_rows_of(spec) * block_height_of(spec, grid_of(format, width, height).down)
               : 1;
}

std::uint64_t tiled_offset(const TilingSpec& spec, Format format, std::uint32_t width, std::uint32_t height, std::uint32_t x,
                           std::uint32_t y) {
    const auto g = grid_of(format, width, height);
    const std::uint64_t row = std::uint64_t{g.across} * g.bytes;
    if (spec.tiling == Tiling::linear) return y * row + std::uint64_t{x} * g.bytes;
    if (spec.tiling == Tiling::morton) return morton(x, y, g.across, g.down) * g.bytes;
    if (spec.tiling == Tiling::tiles) return in_tiles(spec, x, y, g.across) * g.bytes;
    return block_linear(std::uint64_t{x} * g.bytes, y, (row + group_width - 1) / group_width, block_height_of(spec, g.down),
                        group_rows_of(spec));
}

Result<Bytes> untile(const TilingSpec& spec, Format format, std::uint32_t width, std::uint32_t height, ByteSpan tiled) {
    const auto need = tiled_bytes(spec, format, width, height);
    if (tiled.size() < need)
        return fail(ErrorCode::damaged,
                    phrase("tiled level of {}×{}: needs {} bytes, has {}", width, height, grouped(need), grouped(tiled.size())));
    Bytes out(static_cast<std::size_t>(level_bytes(format, width, height)));
    each_run(spec, format, width, height, [&](std::uint64_t from, std::uint64_t to, std::uint64_t count) {
        std::memcpy(out.data() + to, tiled.data() + from, static_cast<std::size_t>(count));
    });
    return out;
}

Result<Bytes> tile(const TilingSpec& spec, Format format, std::uint32_t width, std::uint32_t height, ByteSpan rows, ByteSpan before) {
    const auto need = tiled_bytes(spec, format, width, height);
    if (rows.size() != level_bytes(format, width, height) || (!before.empty() && before.size() != need))
        return fail(ErrorCode::unfit, phrase("level of {}×{}: needs {} bytes, has {}", width, height,
                                             grouped(level_bytes(format, width, height)), grouped(rows.size())));
    Bytes out(before.begin(), before.end());
    out.resize(static_cast<std::size_t>(need));
    each_run(spec, format, width, height, [&](std::uint64_t to, std::uint64_t from, std::uint64_t count) {
        std::memcpy(out.data() + to, rows.data() + from, static_cast<std::size_t>(count));
    });
    return out;
}

}  // namespace skivet

#pragma once
// The raw lens: any bytes as pixels, by hand. What has been found becomes a texture sheet.
#include <vector>

#include "base/bytes.h"
#include "pixel/format.h"
#include "pixel/image.h"
#include "tiling/tiling.h"

namespace skivet {

/// How bytes are looked at.
struct Lens {
    Format format = Format::RGBA8;
    unsigned palette_bits = 0;     ///< 4 or 8: texels are numbers of palette entries, whose format is `format`; 0: no palette
    std::uint64_t palette_at = 0;  ///< bytes; 2^palette_bits entries
    std::uint32_t width = 256;     ///< texels
    std::uint32_t height = 0;      ///< texels; 0: as many rows as there are, up to `most_rows`
    std::uint64_t offset = 0;      ///< bytes, where the first row begins
    std::uint64_t pitch = 0;       ///< bytes from one row of blocks to the next; 0: rows follow without a gap. Linear only
    TilingSpec tiling;

    bool operator==(const Lens&) const = default;
};

/// Rows a lens without a height shows at most.
constexpr std::uint32_t most_lens_rows = 4096;
/// … and texels; with a height four times as many.
constexpr std::uint64_t most_lens_texels = 1u << 24;

/// Bytes from one row of blocks to the next.
[[nodiscard]] std::uint64_t row_bytes(const Lens& lens);
/// The height in texels the lens shows of `data`: `height`, or as many whole rows of blocks as there are; 0 when there is none.
[[nodiscard]] std::uint32_t lens_height(const Lens& lens, std::uint64_t data_size);
/// Bytes of `data` that the picture takes, from `offset` on.
[[nodiscard]] std::uint64_t lens_bytes(const Lens& lens, std::uint64_t data_size);

/// The picture, in paint form. Bytes behind the end count as zero. Error `unfit` when nothing lies at the offset, `limit` for a width
/// of 0 or more than 16,384 texels, `unsupported` for a palette of a block format.
[[nodiscard]] Result<Image> picture_through(const Lens& lens, ByteSpan data);

struct WidthGuess {
    std::uint32_t width = 0;  ///< texels
    double likeness = 0;      ///< 1: rows under each other are the same; 0: as unlike as any two places
};
/// Widths at which rows fit under each other, the likeliest first: minima of the mean difference between the data and itself moved by a
/// row (the average magnitude difference function, the cheap form of the autocorrelation; M. J. Ross et al., IEEE Trans. ASSP 22, 1974).
/// For block formats the colors of the blocks are compared. Looks at up to 256 K texels or blocks from the offset on. Tiled data has none.
[[nodiscard]] std::vector<WidthGuess> suggest_widths(const Lens& lens, ByteSpan data);

struct FormatGuess {
    Format format = Format::unknown;
    double score = 0;  ///< 1: neighbors are alike as in a picture; 0: as unlike as any two places
};
/// Formats in which what lies at `offset` looks like a picture, the likeliest first: each is decoded and neighboring blocks are compared
/// along their edges; what its blocks say of themselves (order of endpoints, modes nobody writes) counts too. Same scores are kept apart
/// by how common a format is. Empty when nothing looks like a picture.
[[nodiscard]] std::vector<FormatGuess> suggest_formats(ByteSpan data, std::uint64_t offset);

/// A texture sheet that opens files like this one as the lens shows it: recognized by the file's name and, where it has any, its first
/// bytes. Error `unsupported` for palettes, which sheets do not have.
[[nodiscard]] Result<std::string> sheet_of(const Lens& lens, ByteSpan data, std::string_view sheet_name, std::string_view file_name);

}  // namespace skivet

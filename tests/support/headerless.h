#pragma once
// Textures without a header among other data, as big files of games have them; all from a seed, with what is where.
#include <functional>

#include "sift/bare.h"
#include "support/pictures.h"

namespace skivet::test {

struct Embedded {
    std::uint64_t at = 0, size = 0;  ///< bytes
    TextureDesc desc;                ///< of paletted ones the format of the palette
    bool paletted = false;
    std::uint64_t palette_at = 0;
    std::string packing;  ///< of the stream it lies in, "deflate", "lz4" …; empty: it lies open
};

struct Mixture {
    Bytes bytes;
    std::vector<Embedded> textures;
};

/// A picture of just this size. `style`: 0 to 4, what the maker has.
using PictureMaker = std::function<Image(std::uint32_t width, std::uint32_t height, unsigned seed)>;
/// Other data of about this size.
using FillMaker = std::function<Bytes(std::size_t size, unsigned seed)>;

/// Cloudy noise with shapes, bricks, hard flat areas with lettering-like bars, a gradient, or a map of heights: drawn by the seed.
[[nodiscard]] Image drawn_picture(std::uint32_t width, std::uint32_t height, unsigned seed);
/// Random bytes, words, sound waves of 16 bits, tables of rising numbers, vertices as floats, code-like bytes, or zeros: drawn by the seed.
[[nodiscard]] Bytes other_data(std::size_t size, unsigned seed);

struct MixtureOptions {
    std::size_t textures = 40;
    std::size_t bytes = 20'000'000;
    PictureMaker picture = drawn_picture;
    FillMaker fill = other_data;
    std::vector<Format> formats = {Format::BC1, Format::BC1, Format::BC3,   Format::BC3,  Format::BC7,    Format::BC7, Format::BC2,
                                   Format::BC4, Format::BC5, Format::RGBA8, Format::RGB8, Format::B5G6R5, Format::L8};
    bool palettes = true;  ///< some are paletted
};

/// Textures of 64×64 to 512×512 texels, most of them square and with all their levels, at places that are multiples of 1 to 4,096.
[[nodiscard]] Mixture mixture(unsigned seed, const MixtureOptions& options = {});

/// Whether what was found there is of the texture's format, and in as wide rows. Which of red and blue comes first does not count: it
/// cannot be seen.
[[nodiscard]] bool found_as(const Embedded& texture, const BareTexture& found);

/// 256 colors of a picture by median cut (P. Heckbert, SIGGRAPH 1982), and their numbers.
struct Paletted {
    std::vector<Texel> palette;
    std::vector<std::uint8_t> numbers;
};
[[nodiscard]] Paletted in_256_colors(const Image& image);

}  // namespace skivet::test

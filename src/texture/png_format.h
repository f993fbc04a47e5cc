#pragma once
#include <functional>
// What reading and writing PNG share.
#include "pixel/format.h"
#include "pixel/reduce.h"
#include "texture/texture.h"

namespace skivet::png {

/// Color types of section 11.2.2.
enum : std::uint8_t { gray = 0, true_color = 2, indexed = 3, gray_alpha = 4, true_color_alpha = 6 };

/// What IHDR says, and whether a tRNS chunk adds alpha.
struct Header {
    std::uint32_t width = 0, height = 0;
    std::uint8_t depth = 8, color_type = 0, interlace = 0;
    bool extra_alpha = false;

    [[nodiscard]] bool indexed() const { return color_type == png::indexed; }
    [[nodiscard]] std::size_t texel_bits() const {
        return std::size_t{depth} * (color_type == true_color ? 3 : color_type == true_color_alpha ? 4 : color_type == gray_alpha ? 2 : 1);
    }
    [[nodiscard]] std::size_t row_bytes() const { return (width * texel_bits() + 7) / 8; }
    /// The file's samples are the texels of format(), byte for byte (16-bit samples in the machine's order).
    [[nodiscard]] bool plain() const { return !indexed() && depth >= 8 && !extra_alpha; }
    [[nodiscard]] Format format() const {
        if (indexed()) return extra_alpha ? Format::RGBA8 : Format::RGB8;
        const bool deep = depth == 16;
        switch (color_type) {
            case gray: return extra_alpha ? (deep ? Format::LA16 : Format::LA8) : deep ? Format::L16 : Format::L8;
            case gray_alpha: return deep ? Format::LA16 : Format::LA8;
            case true_color: return extra_alpha ? (deep ? Format::RGBA16 : Format::RGBA8) : deep ? Format::RGB16 : Format::RGB8;
            default: return deep ? Format::RGBA16 : Format::RGBA8;
        }
    }
};

/// A picture of at most 8 bits a sample that is not interlaced, as RGBA; nothing where the file is another or does not hold what it says.
[[nodiscard]] std::optional<Image> read_usual(ByteSpan file, const Header& header, const ReadLimits& limits);
/// The same made smaller by RowReducer while it is read, without the whole picture in memory.
[[nodiscard]] std::optional<Reduced> read_usual_reduced(ByteSpan file, const Header& header, std::uint32_t step, const ReadLimits& limits);
/// Length, type, data and CRC.
[[nodiscard]] Bytes make_chunk(std::string_view type, ByteSpan data);
/// Puts the samples of row y where `to` says, in the machine's order, packed to whole bytes. Called from several threads, for any row.
using RowSource = std::function<void(std::uint32_t y, std::uint8_t* to)>;
/// A whole file, not interlaced, but without a palette.
[[nodiscard]] Result<Bytes> write(const RowSource& rows, const Header& header, bool srgb);
/// The same of rows that lie one after the other.
[[nodiscard]] Result<Bytes> write(std::span<const std::uint8_t> rows, const Header& header, bool srgb);

}  // namespace skivet::png

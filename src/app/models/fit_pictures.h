#pragma once
// What the fitting page shows of a piece. Everything here is called on worker threads.
#include <array>
#include <memory>

#include "app/models/pictures.h"
#include "workflow/pieces.h"

namespace skivet::app {

/// A piece's fit and what it was made against; none when the edit cannot be read.
struct FittedPiece {
    PieceFit made;
    std::shared_ptr<const TextureFile> original;
    QImage new_blocks;   ///< one pixel a cell of the fit's block map, in the accent's color where it is new
    QImage lost_blocks;  ///< the same, the more opaque the more was lost
};

/// What is shown side by side.
enum class FitSide : std::uint8_t { game, yours, result, difference };
inline constexpr std::size_t fit_side_count = 4;

struct FitLook {
    Channels channels = Channels::alpha_over;
    bool loss = false;  ///< the difference of yours and the result, instead of the game's and the result
    int amplify = 4;    ///< of the difference
    bool operator==(const FitLook&) const = default;
};

struct FitSides {
    FitLook look;
    std::array<QImage, fit_side_count> pictures;  ///< null where there is none; one that needs no work shares the fit's memory
    std::array<QImage, fit_side_count> reduced;   ///< of large ones, so that panning goes through less memory; made after them
    bool are_large = false;                       ///< worth reducing
};
[[nodiscard]] FitSides sides_of(std::shared_ptr<const FittedPiece> fitted, const FitLook& look);

/// The same with what is reduced.
[[nodiscard]] FitSides with_reduced(FitSides sides);
/// A picture in one of sides_of's formats with each square of `step` pixels as one: their mean, premultiplied.
[[nodiscard]] QImage reduced(const QImage& picture, std::uint32_t step);

/// Normals without Z with it (with_z).
[[nodiscard]] QImage whole(const Image& image, const std::optional<NormalChannels>& normals);
/// The same, no larger than `side` on its longer side.
[[nodiscard]] QImage small(const Image& image, int side, const std::optional<NormalChannels>& normals = {});
/// The levels, each at most `side` texels large.
struct FitMips {
    std::vector<QImage> game, result;
};
/// `game`: those of the same original, where they were made before.
[[nodiscard]] FitMips mips_of(const FittedPiece& fitted, std::size_t most, int side, const std::vector<QImage>& game = {});

/// Amplified absolute difference: of each color, or of one channel as gray; 0 where equal. One size.
[[nodiscard]] QImage difference_picture(const Image& a, const Image& b, Channels channels, int amplify);
/// The cells of a block map as pictures, for FittedPiece.
void draw_blocks(FittedPiece& fitted, const QColor& accent);

}  // namespace skivet::app

#pragma once
// Where in a row of cells a texture begins and ends, and how many levels it has.
#include <optional>

#include "sift/cells.h"

namespace skivet {

struct Fit {
    std::size_t first = 0, end = 0;     ///< cells, all levels
    std::size_t top = 0;                ///< where level 0 begins
    std::size_t width = 0, height = 0;  ///< cells of level 0
    std::uint32_t mips = 1;
    bool smallest_first = false;
    double likeness = 0;        ///< of cells under each other, 0…1
    double beside = 0;          ///< … beside each other
    double member = 0;          ///< how much speaks for its cells being of the format, in nats a cell
    double edges = 0;           ///< 1: what lies before and behind is something else; 0: it goes on as inside
    bool by_size = false;       ///< found by how long it is
    bool levels_shown = false;  ///< a second level is the first one halved
};

/// Beginning, height and levels that explain the cells in [from, to) best, among places and sizes that textures usually have. Nothing where
/// what fits is too small.
[[nodiscard]] std::optional<Fit> fit_rows(const Cells& cells, const Rows& rows, std::size_t from, std::size_t to);

/// A texture that is too rough for its rows to be found: blocks that are of the format for just as long as a texture of a usual size, whose
/// rows or levels show then.
[[nodiscard]] std::optional<Fit> fit_size(const Cells& cells, std::size_t from, std::size_t to);

}  // namespace skivet

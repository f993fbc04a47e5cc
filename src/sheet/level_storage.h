#pragma once
// How one level lies in a file: rows with gaps, tiles, columns, planes, numbers of fewer than eight bits. Both ways.
#include "sheet/sheet.h"

namespace skivet {

struct LevelStorage {
    Format format = Format::unknown;  ///< of what is stored; R8 for numbers of palette entries
    unsigned bits = 8;                ///< of a number: 1, 2, 4 or 8; 8 for everything else
    bool high_first = false;
    TilingSpec tiling;
    LevelOrder order;
    std::uint64_t row_align = 1;  ///< bytes stored rows are padded to
    std::uint64_t row_pitch = 0;  ///< bytes from one stored row to the next; 0: as row_align says

    /// Bytes a level of width × height texels takes.
    [[nodiscard]] std::uint64_t bytes(std::uint32_t width, std::uint32_t height) const;
    /// Row by row from the top, without what the storage adds: as `format` has it, or one byte for each number. Error `damaged` when
    /// `stored` is too short.
    [[nodiscard]] Result<Bytes> rows(std::uint32_t width, std::uint32_t height, ByteSpan stored) const;
    /// The inverse. What lies between comes from `before`, the level as it is stored.
    [[nodiscard]] Result<Bytes> stored(std::uint32_t width, std::uint32_t height, ByteSpan rows, ByteSpan before) const;

private:
    struct Shape {
        std::uint64_t across, down;  ///< elements of a stored row, stored rows
        std::uint64_t element;       ///< bytes of one element as `rows` has it
        std::uint64_t pitch, plane;  ///< bytes of a stored row and of a plane
        std::uint64_t planes, part;  ///< how many, and bytes of one channel
    };
    [[nodiscard]] Shape shape(std::uint32_t width, std::uint32_t height) const;
    template <class Visit>
    void each(std::uint32_t width, std::uint32_t height, const Visit& visit) const;
};

}  // namespace skivet

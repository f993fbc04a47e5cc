#pragma once
// A large picture made smaller while its rows come, so that nothing of its full size has to be kept.
#include "pixel/image.h"

namespace skivet {

/// Two smaller forms of one picture, both of max(1, width / step) × max(1, height / step) texels.
struct Reduced {
    Image means;  ///< of step × step texels each, rounded to nearest; texels at the right and lower edge that make no whole square are left
                  ///< out
    Image samples;  ///< the middle texel of each square, for what depends on exact values
};

/// Takes the rows of a width × height picture from top to bottom; `step` of at least 1. A side shorter than `step` is one square.
class RowReducer {
public:
    RowReducer(std::uint32_t width, std::uint32_t height, std::uint32_t step);
    /// The next row, of `width` texels; more than `height` rows are ignored.
    void add(const Texel* row);
    /// After the last row.
    [[nodiscard]] Reduced take() { return std::move(out_); }

private:
    void add_up();
    void finish_row();

    std::uint32_t width_, high_, wide_, next_ = 0;
    Reduced out_;
    std::vector<std::uint16_t> columns_;  ///< sums of up to 256 rows, channel by channel
    std::vector<std::uint64_t> sums_;     ///< of the squares these rows belong to
    std::uint32_t rows_in_columns_ = 0;
};

[[nodiscard]] Reduced reduce(const Image& image, std::uint32_t step);

}  // namespace skivet

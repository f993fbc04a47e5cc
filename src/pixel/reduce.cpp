#include "pixel/reduce.h"

#include <algorithm>
#include <cstring>

namespace skivet {

namespace {

using Bytes8 [[gnu::vector_size(8)]] = std::uint8_t;
using Lanes [[gnu::vector_size(16)]] = std::uint16_t;

/// A column's sum of so many rows fits in 16 bits.
constexpr std::uint32_t most_rows = 256;

}  // namespace

RowReducer::RowReducer(std::uint32_t width, std::uint32_t height, std::uint32_t step)
    : width_(width),
      high_(std::max(1u, std::min(step, height))),
      wide_(std::max(1u, std::min(step, width))),
      columns_(std::size_t{width} * 4) {
    const Image small(std::max(1u, width / step), std::max(1u, height / step));
    out_ = {small, small};
    sums_.resize(std::size_t{small.width} * 4);
}

void RowReducer::add(const Texel* row) {
    const auto y = next_ / high_;
    if (y >= out_.means.height) return;
    const auto* bytes = row->data();
    const std::size_t count = columns_.size();
    std::size_t i = 0;
    for (; i + 8 <= count; i += 8) {
        Bytes8 eight;
        Lanes sum;
        std::memcpy(&eight, bytes + i, sizeof eight);
        std::memcpy(&sum, &columns_[i], sizeof sum);
        sum += __builtin_convertvector(eight, Lanes);
        std::memcpy(&columns_[i], &sum, sizeof sum);
    }
    for (; i < count; ++i) columns_[i] = static_cast<std::uint16_t>(columns_[i] + bytes[i]);
    if (next_ % high_ == high_ / 2)
        for (std::uint32_t x = 0; x < out_.samples.width; ++x)
            out_.samples.at(x, y) = row[std::min(std::size_t{x} * wide_ + wide_ / 2, std::size_t{width_} - 1)];
    ++next_;
    if (++rows_in_columns_ == most_rows || next_ % high_ == 0) add_up();
    if (next_ % high_ == 0) finish_row();
}

void RowReducer::add_up() {
    using Wide [[gnu::vector_size(16)]] = std::uint32_t;
    using Four [[gnu::vector_size(8)]] = std::uint16_t;
    const auto* column = columns_.data();
    for (std::uint32_t x = 0; x < out_.means.width; ++x) {
        Wide sum{};  // holds up to 65,000 texels a row
        for (std::uint32_t i = 0; i < wide_; ++i, column += 4) {
            Four four;
            std::memcpy(&four, column, sizeof four);
            sum += __builtin_convertvector(four, Wide);
        }
        for (std::size_t c = 0; c < 4; ++c) sums_[std::size_t{x} * 4 + c] += sum[c];
    }
    std::fill(columns_.begin(), columns_.end(), std::uint16_t{0});
    rows_in_columns_ = 0;
}

void RowReducer::finish_row() {
    const auto y = next_ / high_ - 1;
    // Rounded to nearest by whole numbers: the half more keeps the product away from the next one, so that it is exact.
    const auto count = std::uint64_t{high_} * wide_;
    const double one = 1.0 / static_cast<double>(count), half = static_cast<double>(count / 2) + 0.5;
    for (std::uint32_t x = 0; x < out_.means.width; ++x)
        for (std::size_t c = 0; c < 4; ++c)
            out_.means.at(x, y)[c] =
                static_cast<std::uint8_t>(static_cast<std::uint32_t>((static_cast<double>(sums_[std::size_t{x} * 4 + c]) + half) * one));
    std::fill(sums_.begin(), sums_.end(), 0);
}

Reduced reduce(const Image& image, std::uint32_t step) {
    RowReducer reducer(image.width, image.height, step);
    for (std::uint32_t y = 0; y < image.height; ++y) reducer.add(&image.at(0, y));
    return reducer.take();
}

}  // namespace skivet

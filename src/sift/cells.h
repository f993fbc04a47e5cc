#pragma once
// Bytes read as a row of cells, blocks or texels of a format, each with one number for how bright it is; and stretches of them in which
// rows of one width fit under each other.
#include <optional>
#include <vector>

#include "base/bytes.h"
#include "pixel/format.h"

namespace skivet {

/// Cells one after the other.
struct Cells {
    Format format = Format::unknown;
    std::size_t bytes = 1;   ///< of a cell
    std::uint32_t side = 1;  ///< texels
    std::uint64_t at = 0;    ///< where the first one lies, in bytes
    std::vector<std::uint8_t> bright;
    std::vector<std::int8_t> member;  ///< how much speaks for a cell being one of the format behind the one before it, in 1/16 of a nat
    [[nodiscard]] std::size_t size() const { return bright.size(); }
};
/// `member` is empty for single bytes. The cells of data[from, to), as many as there are whole ones. Texels of two bytes are all looked at
/// as B5G6R5.
[[nodiscard]] Cells cells_of(Format format, ByteSpan data, std::uint64_t from, std::uint64_t to);

/// The mean of `member` of cells that begin at `from`, in nats.
[[nodiscard]] double member_mean(Format format, ByteSpan data, std::uint64_t from, std::size_t count);

/// Sum of |a[i] - b[i]|.
[[nodiscard]] std::uint64_t apart(const std::uint8_t* a, const std::uint8_t* b, std::size_t count);

/// The part [from, to) of a row of values with the largest sum; an empty one where none is above zero.
struct Run {
    std::size_t from = 0, to = 0;
    double sum = 0;
};
/// … of value(i) for i in [from, to) (J. Kadane's method; J. Bentley, Communications of the ACM 27, 1984).
template <class Value>
[[nodiscard]] Run largest_run(std::size_t from, std::size_t to, Value value) {
    Run best{from, from, 0};
    double sum = 0;
    auto begin = from;
    for (auto i = from; i < to; ++i) {
        sum += value(i);
        if (sum <= 0) {
            sum = 0;
            begin = i + 1;
        } else if (sum > best.sum) {
            best = {begin, i + 1, sum};
        }
    }
    return best;
}

/// Cells [from, to) in which rows of `width` cells fit under each other.
struct Rows {
    std::size_t from = 0, to = 0, width = 0;
    double under = 0;  ///< mean difference between cells under each other
    double far = 0;    ///< … and between cells a part of a row apart: how much there is to see
    double score = 0;  ///< how much speaks for it, in cells
    [[nodiscard]] double likeness() const { return far > 0 ? 1 - under / far : 0; }
};

/// Whether it is worth looking for rows: samples every some thousand cells fit at a usual width, or are smooth.
[[nodiscard]] bool rows_likely(const Cells& cells);

/// For ranges of one row of cells: what has been counted is kept.
class RowFinder {
public:
    explicit RowFinder(const Cells& cells);
    /// The best in [from, to), up to three widths with the likeliest first; none where no width speaks for itself. Records of numbers,
    /// where cells a small distance apart are as alike and neighbors are not, are left out.
    [[nodiscard]] std::vector<Rows> best_in(std::size_t from, std::size_t to);

private:
    struct Width {
        std::size_t cells = 0;
        std::vector<float> under, far;  ///< mean a chunk
    };
    const Cells& cells_;
    std::vector<Width> usual_, other_;  ///< powers of two and three times such; whatever else fits somewhere
    bool others_added_ = false;
    std::uint64_t work_ = 0;

    void add(std::size_t width, std::vector<Width>& to) const;
    [[nodiscard]] std::vector<Rows> best_of(const std::vector<Width>& widths, std::size_t from, std::size_t to);
    [[nodiscard]] bool repeats(const Rows& rows) const;
    /// Widths that are no powers of two, from the minima of the mean difference at all distances.
    void add_others();
};

}  // namespace skivet

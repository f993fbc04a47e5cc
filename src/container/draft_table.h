#pragma once
// Finding the entry table of an archive nobody described: names at a regular distance, and among the bytes between them two numbers that
// are offset and size, because with them the entries lie side by side without overlapping.
#include <map>

#include "base/bytes.h"
#include "base/pack.h"
#include "base/progress.h"
#include "sheet/sums.h"

namespace skivet::draft {

enum class NameForm { none, fixed, prefixed, terminated };

/// Records that follow one another: a name and bytes of a fixed number, before it (`leads`) or behind it.
struct Table {
    NameForm form = NameForm::none;
    unsigned prefix = 0;                    ///< bytes of a length before each name
    std::uint64_t name_bytes = 0;           ///< of a fixed name
    bool leads = false;                     ///< the numbers stand before the name
    std::uint64_t numbers = 0;              ///< bytes of them
    ByteOrder order = ByteOrder::little;    ///< of prefixes
    std::uint64_t at = 0, end = 0;          ///< first byte of the first record, and behind the last one
    std::vector<std::uint64_t> numbers_at;  ///< where each record's numbers stand
    std::uint64_t bare = 0;                 ///< records without names, which follow one another from `at` on
    [[nodiscard]] std::size_t count() const { return bare ? static_cast<std::size_t>(bare) : numbers_at.size(); }
    [[nodiscard]] std::uint64_t position(std::size_t record) const { return bare ? at + record * numbers : numbers_at[record]; }
};

/// A number at a fixed place among a record's numbers.
struct Column {
    std::uint64_t at = 0;
    unsigned width = 4;
    ByteOrder order = ByteOrder::little;
    [[nodiscard]] std::uint64_t of(ByteSpan file, const Table& table, std::size_t record) const {
        return load_uint(file.data() + table.position(record) + at, width, order);
    }
};

/// Data files beside the archive, by their number; the archive itself is 0 when there are none.
struct DataFiles {
    std::string pattern;  ///< "{stem}_{number:2}.dat"; empty: the archive itself
    bool numbered = false;
    std::map<std::uint64_t, std::uint64_t> sizes;  ///< bytes, by number
};

/// What makes a table one of entries.
struct Placed {
    Column offset, size;
    std::uint64_t unit = 1, base = 0;
    std::optional<Column> number;  ///< of the data file
    std::uint64_t covered = 0;     ///< bytes of all entries
    [[nodiscard]] std::uint64_t begin(ByteSpan file, const Table& table, std::size_t record) const {
        return offset.of(file, table, record) * unit + base;
    }
};

/// Runs of records with names, the longest first; then tables of numbers alone. Looks at the first and last 16 MB.
[[nodiscard]] std::vector<Table> tables_with_names(ByteSpan file);
[[nodiscard]] std::vector<Table> tables_of_numbers(ByteSpan file);

/// The two columns that tile the file (or the data files), or nothing. `bases` are places offsets may count from. `budget` bounds the work
/// over all tables of a file: every pair of columns that is looked at takes one from it, every table of them a part of its records.
[[nodiscard]] std::optional<Placed> place_entries(ByteSpan file, const Table& table, const DataFiles& files,
                                                  const std::vector<std::uint64_t>& bases, std::uint64_t& budget);

}  // namespace skivet::draft

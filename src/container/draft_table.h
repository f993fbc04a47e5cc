#pragma once
// Finding the entry table of an archive nobody described: numbers at a regular distance that rise, or names at one, and among the bytes
// between them two numbers that are offset and size, because with them the entries lie side by side without overlapping.
#include <map>

#include "base/bytes.h"
#include "base/pack.h"
#include "base/progress.h"
#include "sheet/sums.h"

namespace skivet::draft {

enum class NameForm { none, fixed, prefixed, terminated };

/// Records that follow one another. Of one size, with a name in them or not; or a name of its own length and bytes of a fixed number,
/// before it (`leads`) or behind it.
struct Table {
    NameForm form = NameForm::none;
    unsigned prefix = 0;                                        ///< bytes of a length before each name
    std::uint64_t name_at = 0, name_bytes = 0;                  ///< of a fixed name, in its record
    bool leads = false;                                         ///< the numbers stand before the name
    std::uint64_t numbers = 0;                                  ///< bytes of them; of a record of one size all its bytes
    std::uint64_t apart = 0;                                    ///< bytes on the other side of the name, of which nothing is known
    ByteOrder order = ByteOrder::little;                        ///< of prefixes
    std::uint64_t at = 0, end = 0;                              ///< first byte of the first record, and behind the last one
    std::vector<std::uint64_t> numbers_at;                      ///< where each record's numbers stand, when their sizes differ
    std::uint64_t rows = 0;                                     ///< records of one size
    std::optional<std::pair<std::uint64_t, ByteOrder>> rising;  ///< where in a record four bytes stand that rise, when that is known
    [[nodiscard]] std::size_t count() const { return rows ? static_cast<std::size_t>(rows) : numbers_at.size(); }
    [[nodiscard]] std::uint64_t position(std::size_t record) const { return rows ? at + record * numbers : numbers_at[record]; }
    [[nodiscard]] bool in_name(std::uint64_t column, std::uint64_t width) const {
        return form == NameForm::fixed && column < name_at + name_bytes && name_at < column + width;
    }
};

/// A number at a fixed place among a record's numbers.
struct Column {
    std::uint64_t at = 0;
    unsigned width = 4;
    ByteOrder order = ByteOrder::little;
    [[nodiscard]] std::uint64_t of(ByteSpan file, const Table& table, std::size_t record) const {
        return load_uint(file.data() + table.position(record) + at, width, order);
    }
    [[nodiscard]] bool apart(const Column& other) const { return at + width <= other.at || other.at + other.width <= at; }
};

/// Data files beside the archive, by their number; the archive itself is 0 when there are none.
struct DataFiles {
    std::string pattern;  ///< "{stem}_{number:2}.dat"; empty: the archive itself
    bool numbered = false;
    std::map<std::uint64_t, std::uint64_t> sizes;  ///< bytes, by number
};

/// What makes a table one of entries.
struct Placed {
    enum class Ends { by_size, next_record, next_offset } ends = Ends::by_size;
    std::optional<Column> offset;  ///< nothing: one after the other from `base` on
    std::optional<Column> size;
    /// What that column says: how many bytes an entry has, the first one behind it, or its last one, these two counted as offsets are.
    enum class Says { size, end, last } says = Says::size;
    bool end_unclear = false;  ///< nothing shows which of these two
    std::uint64_t unit = 1, base = 0;
    std::optional<Column> number;              ///< of the data file
    std::vector<std::uint64_t> begins, sizes;  ///< of each entry, bytes
    std::uint64_t covered = 0;                 ///< bytes of all entries
    /// Each entry's data lies behind its own record, padded to `align`; the last one ends with the file, or a record without a name
    /// follows.
    enum class Chain { none, to_the_end, to_a_nameless_one } chain = Chain::none;
    std::uint64_t align = 1;
    bool counts_itself = false;   ///< a size counts its own four bytes
    bool parts_of_names = false;  ///< names may begin before the place where they are taken to, or end behind it
    [[nodiscard]] ByteOrder order() const { return offset ? offset->order : size->order; }
};

/// Records in front of their data, and where it lies.
struct Chain {
    Table table;
    Placed placed;
    /// The more, the less it is likely: whether most names begin behind a letter and may be parts of names, few records (~ of them), how
    /// many such names, bytes of a record beside its name.
    std::tuple<bool, std::size_t, std::size_t, std::uint64_t> doubt;
};
/// Chains of records from a name at the beginning of the file to its end, the likeliest first, at most four, and one of sizes alone.
[[nodiscard]] std::vector<Chain> chains_in(ByteSpan file, const Progress& progress);

/// Where names lie one after the other, each with a zero behind it.
struct NameRun {
    std::uint64_t at = 0, end = 0;
    std::vector<std::uint64_t> starts;
};

/// Where something may begin or end, and numbers that may be counts; sorted.
struct Places {
    std::vector<std::uint64_t> numbers;  ///< of a header: at multiples of two in the first 64 bytes and the last 64, both orders
    std::vector<std::uint64_t> counts;   ///< these, and of two bytes in the first 16
    std::vector<std::uint64_t> ends;     ///< of the file and of runs of names
};
[[nodiscard]] Places places_in(ByteSpan file, const std::vector<NameRun>& names);

constexpr std::size_t longest_name = 512;  ///< bytes kept for a name
/// How many signs of names stand here, at most `most`.
[[nodiscard]] std::uint64_t name_length(ByteSpan file, std::uint64_t at, std::uint64_t most);
/// Whether these bytes may be a name: signs of names, a letter among them.
[[nodiscard]] bool is_name(ByteSpan file, std::uint64_t at, std::uint64_t length);
/// The length of the name whose length stands here, without that.
[[nodiscard]] std::optional<std::uint64_t> prefixed_name(ByteSpan file, std::uint64_t at, unsigned width, ByteOrder order);
/// Whether a name of so many bytes stands here with a zero behind it.
[[nodiscard]] bool is_whole_name(ByteSpan file, std::uint64_t at, std::uint64_t bytes);
/// Runs of at least 16 names, the longest first, at most 8. Looks at the first and last 16 MB.
[[nodiscard]] std::vector<NameRun> runs_of_names(ByteSpan file);

/// Records of one size in which four bytes rise from each to the next, and none is above `most`. Looked for at both ends of the file and
/// where `places` say; each comes with the phases that something speaks for. The longest first.
[[nodiscard]] std::vector<Table> tables_that_rise(ByteSpan file, std::uint64_t most, const Places& places, const Progress& progress);
/// Runs of records with names, the longest first. Looks at the first and last 16 MB.
[[nodiscard]] std::vector<Table> tables_with_names(ByteSpan file, const Places& places, const Progress& progress);
/// Tables of numbers where the numbers at the ends say that they are.
[[nodiscard]] std::vector<Table> tables_of_numbers(ByteSpan file, const Places& places);
/// The bytes of a number right before `at` that says `count`, in either order; 0 where none does.
[[nodiscard]] unsigned counted_before(ByteSpan file, std::uint64_t at, std::uint64_t count);
/// Finds the field that holds a name in every record of one size, and makes it the table's.
void find_name_field(ByteSpan file, Table& table);

/// Where entries may lie: the bytes of the table, its file or files, and places offsets may count from. `budget` bounds the work over all
/// tables of a file: every pair of columns that is looked at takes one from it, every table of them a part of its records.
struct Surroundings {
    ByteSpan file;
    const DataFiles& files;
    const std::vector<std::uint64_t>& bases;
    const std::vector<NameRun>& names;
    const std::vector<std::uint64_t>& numbers;  ///< of the header
    std::uint64_t& budget;
};
/// The two columns that tile the file (or the data files), or nothing.
[[nodiscard]] std::optional<Placed> place_by_sizes(const Surroundings& around, const Table& table);
/// The same where the second column says where an entry ends.
[[nodiscard]] std::optional<Placed> place_by_ends(const Surroundings& around, const Table& table);
/// As place_by_sizes where only one end of all entries lies where it can.
[[nodiscard]] std::optional<Placed> place_loosely(const Surroundings& around, const Table& table);
/// An offset each, and the next one ends the entry. Only where the first one is exactly where data can begin.
[[nodiscard]] std::optional<Placed> place_by_next(const Surroundings& around, const Table& table);
/// A size each, one after the other: their sum is exactly what is there.
[[nodiscard]] std::optional<Placed> place_in_a_row(const Surroundings& around, const Table& table);

}  // namespace skivet::draft

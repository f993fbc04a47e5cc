#pragma once
// What a sheet makes of an archive, byte by byte, for its author.
#include "container/sheet_container.h"

namespace skivet {

struct TriedField {
    std::string where;  ///< "header", "entry 14 (rides/horse.dds)"
    std::string name;
    std::string means;     ///< "data offset"; empty for a field without a meaning
    std::uint64_t at = 0;  ///< in the file, or in the unpacked directory as `where` says
    std::uint64_t size = 0;
    std::string value;  ///< as it is read: "2,048", "\"horse\"", "deflate (1)"
    std::string bytes;  ///< the first sixteen in hexadecimal
};

struct Trial {
    std::string recognized_by;         ///< empty: the sheet's conditions do not hold
    std::vector<TriedField> fields;    ///< of the header and of the first `records` records
    std::optional<Error> first_wrong;  ///< the first thing that does not hold
    std::size_t entries = 0;
    std::vector<std::string> names;  ///< paths of the first 10,000 entries
    std::size_t looked_at = 0;       ///< entries whose content was asked for
    std::size_t readable = 0;        ///< of them, those that were read and agree with their checksums
    std::vector<Segment> segments;   ///< tables, entries, and gaps
    std::vector<Segment> unknown;    ///< gaps that are not only zeros and fill bytes: what the sheet does not explain
    std::uint64_t unexplained = 0;   ///< bytes in them
    std::uint64_t padding = 0;       ///< bytes in the other gaps
    std::size_t paddings = 0;        ///< how many of those there are
};

/// Reads with a container sheet as far as it goes: the first `records` records field by field, and contents until `content_bytes` of them
/// are read. Error only when the file itself cannot be read.
[[nodiscard]] Result<Trial> try_sheet(const ReadContext& context, std::shared_ptr<const Sheet> sheet, const FileView& file,
                                      std::size_t records = 1000, std::uint64_t content_bytes = ~0ull);

struct Proof {
    std::size_t entries = 0;        ///< in the archive
    std::size_t changed = 0;        ///< changed and put back
    std::size_t longer = 0;         ///< of them, made longer too; others cannot be in this layout
    std::string refused;            ///< why not; empty when none refused
    std::uint64_t unexplained = 0;  ///< bytes that are not explained, and were still there after each step
};
/// "6 of 6 entries were changed and put back in a copy, …": what was proved and what was not.
[[nodiscard]] std::string text_of(const Proof& proof);

/// Proves that what a sheet reads it also writes: in a copy in the temporary folder entries are changed, made longer and put back, and
/// after each step all entries are read again. The error says which step failed. Error `limit` for more than 1 GB.
[[nodiscard]] Result<Proof> prove_writing(const ReadContext& context, const std::filesystem::path& archive, const Progress& progress);

}  // namespace skivet

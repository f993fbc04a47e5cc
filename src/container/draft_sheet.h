#pragma once
// A sheet from an example: an archive nobody described is looked at, and the likeliest layout is written down as a sheet that reads it.
#include "base/keys.h"
#include "container/kinds.h"

namespace skivet {

struct SheetDraft {
    std::string toml;
    std::string wrapper;             ///< a second sheet, for the file around the archive, when all of it is hidden; otherwise empty
    std::optional<FileView> inside;  ///< … and that archive, with what hides it taken off
    std::vector<Key> keys;           ///< that the sheets name: found out from the example
    std::string found;               ///< what it rests on: "21 records with names and 20 bytes of numbers at 0x1a40; …"
    std::size_t entries = 0;
    std::size_t looked_at = 0;      ///< entries whose content was asked for: up to 64 MB of them
    std::size_t readable = 0;       ///< of them, those that could be read
    std::uint64_t unexplained = 0;  ///< bytes of the archive that are neither table nor entry
    /// Why it must not be taken for the archive's layout; empty when it reads everything it lists and that is something. A person may still
    /// begin with it.
    std::string unsound;
    /// The same as a sentence, which is the draft's first comment, too.
    [[nodiscard]] std::string unsound_line() const;
};

/// Looks for numbers that rise from record to record, for names at a regular distance, and for tables the header points at; for the two
/// columns that are offset and size because they tile the file (or the numbered data files beside it), or where the next entry's offset or
/// the sum of all sizes fits exactly; then for names apart, a short key, the entries' compression, unpacked size and checksums, and for
/// what the header says of the table. The draft is tried before it is returned. A draft is a beginning: it knows nothing that the example
/// does not show. Error `unsupported` when there is no such table; its hint says what can be seen instead.
[[nodiscard]] Result<SheetDraft> draft_sheet(const ReadContext& context, const FileView& file, const Progress& progress);

/// What a person would look at in a file that nothing can be drafted from: a line each for stretches of numbers, of text, of zeros and of
/// packed or hidden bytes by their entropy (bits a byte); the first likely names; and the distances at which bytes are most often the same.
[[nodiscard]] std::vector<std::string> seen_in(ByteSpan file);

}  // namespace skivet

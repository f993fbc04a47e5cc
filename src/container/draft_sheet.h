#pragma once
// A sheet from an example: an archive nobody described is looked at, and the likeliest layout is written down as a sheet that reads it.
#include "container/kinds.h"

namespace skivet {

struct SheetDraft {
    std::string toml;
    std::string found;  ///< what it rests on: "21 records with names and 20 bytes of numbers at 0x1a40; …"
    std::size_t entries = 0;
    std::size_t looked_at = 0;      ///< entries whose content was asked for: up to 64 MB of them
    std::size_t readable = 0;       ///< of them, those that could be read
    std::uint64_t unexplained = 0;  ///< bytes of the archive that are neither table nor entry
    /// Why it must not be taken for the archive's layout; empty when it reads everything it lists and that is something. A person may still
    /// begin with it.
    std::string unsound;
};

/// Looks for a run of equal records in which two numbers are offset and size that tile the file (or the numbered data files beside it);
/// then for the entries' compression, unpacked size and checksums, and for what the header says of the table. The draft is tried before it
/// is returned. A draft is a beginning: it knows nothing that the example does not show. Error `unsupported` when there is no such run.
[[nodiscard]] Result<SheetDraft> draft_sheet(const ReadContext& context, const FileView& file, const Progress& progress);

}  // namespace skivet

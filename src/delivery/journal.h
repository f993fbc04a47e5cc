#pragma once
// What a delivery is about to overwrite. A journal is complete on disk before the first game byte changes; rolling one back is
// idempotent, so a crash at any point, also while rolling back, is answered by rolling back again.
#include "base/hash.h"
#include "container/write_plan.h"

namespace skivet {

struct JournalRange {
    std::uint64_t at = 0;
    Bytes old_bytes;             ///< what lay there; shorter than what is written where the file grew
    std::uint64_t new_size = 0;  ///< bytes written there; 0 for a tail that was only cut off
    Sha256 new_hash{};           ///< of the bytes written, to notice changes by others before an undo
};

struct JournalFile {
    std::filesystem::path file;
    std::uint64_t old_size = 0;
    std::uint64_t new_size = 0;
    std::vector<JournalRange> ranges;
};

struct Journal {
    std::string id;                     ///< "000001"; grows with time
    std::int64_t time = 0;              ///< seconds since 1970, UTC
    std::string title;                  ///< "bunting into midway.zip"
    std::filesystem::path source;       ///< the archive or folder the pieces belong to
    std::vector<std::string> entries;   ///< what was replaced, as paths inside the source
    std::vector<JournalFile> files;

    [[nodiscard]] std::uint64_t bytes_written() const;
    [[nodiscard]] std::uint64_t bytes_kept() const;
};

/// Layout: "SKJ1", u32 length of the description, the description (JSON), the old bytes of every range in order, SHA-256 of all that.
[[nodiscard]] Bytes write_journal(const Journal& journal);
/// Error `damaged` when the checksum does not hold: such a journal was never complete, so nothing was written under it.
[[nodiscard]] Result<Journal> read_journal(ByteSpan data);

}  // namespace skivet

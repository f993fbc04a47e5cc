#pragma once
// What a delivery is about to overwrite, as a file of its own: first a description, then the old bytes. A journal is complete on disk
// before the first game byte changes; rolling one back is idempotent, so a crash at any point, also while rolling back, is answered by
// rolling back again.
#include "base/hash.h"
#include "container/write_plan.h"

namespace skivet {

/// Bytes that were overwritten or cut off. They lie one after the other behind the description, in the order of the ranges.
struct JournalRange {
    std::uint64_t at = 0;
    std::uint64_t old_size = 0;  ///< bytes that lay there; fewer than are written where the file grew
    std::uint64_t new_size = 0;  ///< bytes written there; 0 for a tail that was only cut off
    Sha256 new_hash{};           ///< of the bytes written, to notice changes by others before an undo
    std::uint64_t kept_at = 0;   ///< position of the old bytes in the journal's file
    /// Hashes of the new bytes by sector (`sectors_of`), to tell a half-written file from one that something else wrote. Empty in journals
    /// of the first kind.
    std::vector<std::uint64_t> new_sectors;
};

/// The pieces of a range of which each is wholly old or wholly new after a crash: cut where the file's sectors of 512 bytes end, because a
/// disk writes those whole, and where the old file ended. Positions in the file, [from, to).
[[nodiscard]] std::vector<std::pair<std::uint64_t, std::uint64_t>> sectors_of(const JournalRange& range);
[[nodiscard]] std::vector<std::uint64_t> sector_hashes(const JournalRange& range, ByteSpan new_bytes);

/// A stretch of the old file, taken from the rebuilt one or from the journal.
struct BackPiece {
    bool from_new = false;
    std::uint64_t at = 0;  ///< in the rebuilt file, or in the journal's file
    std::uint64_t size = 0;
};

struct JournalFile {
    std::filesystem::path file;
    Way way = Way::nothing;
    std::uint64_t old_size = 0;
    std::uint64_t new_size = 0;
    std::vector<JournalRange> ranges;            ///< in place, append
    std::vector<BackPiece> back;                 ///< rebuild: the old file from its beginning to its end
    Sha256 old_hash{}, new_hash{};               ///< rebuild, create and remove: of the whole file
    std::vector<std::filesystem::path> folders;  ///< create: folders that were made for it, outermost first
    std::filesystem::path fresh;  ///< where a new file is put together (rebuild, create, and the way back from remove), nobody else's name
    std::uint32_t mode = 0;       ///< remove: the file's permissions
};

/// One source's share of a delivery.
struct JournalPart {
    std::filesystem::path source;      ///< the archive or folder the pieces belong to
    std::vector<std::string> entries;  ///< what was replaced, as paths inside the source
    std::vector<JournalFile> files;
    std::filesystem::path place;  ///< the file this was read from; not stored
    /// A card or device that may be taken away: what is not there is away with it, and says nothing. Then `apart` tells whether it is on
    /// another file system than the vault, to notice an empty place where it was mounted.
    bool device = false, apart = false;
    [[nodiscard]] std::uint64_t bytes_written() const;
    [[nodiscard]] std::uint64_t bytes_kept() const;
};

struct Journal {
    std::string id;                  ///< "000001"; grows with time
    std::int64_t time = 0;           ///< seconds since 1970, UTC
    std::string title;               ///< "bunting into midway.zip"
    std::vector<JournalPart> parts;  ///< one for each source that is not undone yet

    [[nodiscard]] std::uint64_t bytes_written() const;
    [[nodiscard]] std::uint64_t bytes_kept() const;
    [[nodiscard]] bool touches(const std::filesystem::path& source) const;
    [[nodiscard]] std::vector<std::string> entries() const;
};

/// Layout of a part's file: "SKJ3" ("SKJ2" without sectors and `fresh`), u32 length of the description, the description (JSON), SHA-256 of
/// all that; the old bytes; SHA-256 of the old bytes. `bytes` positions in `part` are set as they will be in the file.
[[nodiscard]] Bytes write_description(const Journal& journal, JournalPart& part);
/// Reads the description; the old bytes are only measured. Error `damaged` when the checksum does not hold or the file has another
/// size than it says: such a journal was never complete, so nothing was written under it.
[[nodiscard]] Result<Journal> read_description(ByteSpan data);

}  // namespace skivet

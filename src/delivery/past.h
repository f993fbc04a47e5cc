#pragma once
// Game files as they were before all deliveries that stand, and plans from what is there now to what a plan on those would make. So what a
// game's files become depends on the originals and on what is wanted, and not on the order in which it came about.
#include "container/past_files.h"
#include "container/write_plan.h"

namespace skivet {

/// A stretch of a file as it was: of the file as it is now, or kept in a journal.
struct PastPiece {
    bool from_now = false;
    std::uint64_t at = 0;  ///< from_now: position in the file as it is now
    std::uint64_t size = 0;
    ByteSpan kept;  ///< otherwise its bytes
};

/// One file that deliveries changed.
struct PastFile {
    std::optional<FileView> now;    ///< nothing: it is not there now
    std::optional<FileView> was;    ///< nothing: it was not there
    std::vector<PastPiece> pieces;  ///< `was`, from its beginning to its end
};

struct Past {
    std::map<std::filesystem::path, PastFile> files;  ///< by their real paths
    std::vector<FileView> journals;                   ///< in which kept bytes lie

    /// For contexts that read the files as they were.
    [[nodiscard]] std::shared_ptr<const PastFiles> as_files() const;
    /// The plan from the files as they are to what `plan`, made on the files as they were, makes of them; files it says nothing of become
    /// as they were. Where both differ from the old file only in place, that is what is written.
    [[nodiscard]] Result<WritePlan> from_now(const WritePlan& plan) const;
};

}  // namespace skivet

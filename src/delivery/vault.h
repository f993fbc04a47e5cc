#pragma once
// The one place that writes game files. Order of a delivery:
//   lock → journal with the old bytes, synced → game bytes, synced → read back and compared → journal kept as the way back.
// A crash before the journal is complete leaves the old files; after that, the next start rolls it back; after the journal was marked
// kept, the new files stand. A delivery over several archives has one journal, a folder with one file for each archive, whose name says
// how far it is; so all of them change or none.
#include "base/progress.h"
#include "delivery/files.h"
#include "delivery/journal.h"

namespace skivet {

/// What one source gets in a delivery.
struct Share {
    std::filesystem::path source;
    std::vector<std::string> entries;   ///< paths inside the source, for the history
    WritePlan plan;
};

struct DeliveryNote {
    std::string title;
    std::filesystem::path source;
    std::vector<std::string> entries;
};

class Vault {
public:
    /// `files` must outlive the vault. The folder is made when first needed.
    Vault(std::filesystem::path folder, Files& files) : folder_(std::move(folder)), files_(&files) {}

    /// $XDG_DATA_HOME/skivet/vault, or ~/.local/share/skivet/vault.
    [[nodiscard]] static std::filesystem::path default_folder();

    /// Writes the plans, all or none. `verify` is called after the bytes are on disk and compared; its error rolls everything back.
    /// Any error leaves every file as it was (or, when even that fails, the next `recover` does).
    /// Errors: `stale` when a file is not as the plan expects it, `busy` when a program has it locked, `no_space` before anything is
    /// touched when the room is known not to do.
    [[nodiscard]] Result<Journal> deliver(std::vector<Share> shares, const std::string& title, std::int64_t now, const std::function<Status()>& verify = {});
    [[nodiscard]] Result<Journal> deliver(const WritePlan& plan, const DeliveryNote& note, std::int64_t now, const std::function<Status()>& verify = {});

    /// Rolls back what a crash left half done. Called at every start. Returns how many deliveries were rolled back.
    [[nodiscard]] Result<unsigned> recover();

    /// Deliveries that can be undone, oldest first.
    [[nodiscard]] Result<std::vector<Journal>> history() const;
    /// Puts the bytes back that a delivery overwrote, in all its sources or in one of them. Error `usage` when a later delivery changed
    /// the same file, `stale` when something else did.
    [[nodiscard]] Status undo(const std::string& id, const std::optional<std::filesystem::path>& source = std::nullopt);
    /// Undoes every delivery into `source`, newest first. Returns how many there were.
    [[nodiscard]] Result<unsigned> restore(const std::filesystem::path& source);
    /// Undoes everything. Returns how many deliveries there were.
    [[nodiscard]] Result<unsigned> restore_all();

    /// A file as it was before all deliveries that stand, for reading; nothing is written. Error `limit` when it has to be put together
    /// in memory and is larger than `most` bytes.
    [[nodiscard]] Result<FileView> original(const std::filesystem::path& file, std::uint64_t most) const;

    [[nodiscard]] const std::filesystem::path& folder() const { return folder_; }

private:
    [[nodiscard]] Result<FileLock> lock() const;
    [[nodiscard]] std::filesystem::path path_of(const std::string& id, std::string_view state) const;
    [[nodiscard]] Result<JournalPart> prepare(const Share& share) const;
    [[nodiscard]] Status write_part(const Journal& journal, JournalPart& part, const std::filesystem::path& place);
    [[nodiscard]] Status write_game(const Share& share, const JournalPart& part);
    [[nodiscard]] Status check_written(const Share& share, const JournalPart& part);
    [[nodiscard]] Result<Sha256> hash_file(const std::filesystem::path& file) const;
    [[nodiscard]] Status roll_back_file(const JournalPart& part, const JournalFile& file);
    [[nodiscard]] Status roll_back(const std::filesystem::path& folder, const std::vector<JournalPart>& parts);
    [[nodiscard]] Status check_untouched(const JournalPart& part);
    [[nodiscard]] Status undo_locked(const Journal& journal, const std::optional<std::filesystem::path>& source);
    [[nodiscard]] Result<Journal> read_journal_folder(const std::filesystem::path& folder) const;
    void drop_part_folder(const std::filesystem::path& folder);

    std::filesystem::path folder_;
    Files* files_;
};

}  // namespace skivet

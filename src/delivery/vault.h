#pragma once
// The one place that writes game files. Order of a delivery:
//   lock → journal with the old bytes, synced → game bytes, synced → read back and compared → journal kept as the way back.
// A crash before the journal is complete leaves the old files; after that, the next start rolls it back; after the journal was marked
// kept, the new files stand. A delivery over several archives has one journal, a folder with one file for each archive, whose name says
// how far it is; so all of them change or none.
// Old bytes go only into a file that is in a state the journal knows: as it was, as the delivery left it, or half way between. A file that
// something else wrote meanwhile stays as it is, and the journal is set aside for a person to decide.
#include "base/progress.h"
#include "delivery/files.h"
#include "delivery/journal.h"
#include "delivery/past.h"
#include "delivery/vault_register.h"

namespace skivet {

/// What one source gets in a delivery.
struct Share {
    std::filesystem::path source;
    std::vector<std::string> entries;  ///< paths inside the source, for the history
    WritePlan plan;
    bool device = false;  ///< `source` is the folder of a card or device, which may be taken away
};

struct DeliveryNote {
    std::string title;
    std::filesystem::path source;
    std::vector<std::string> entries;
};

/// A delivery that was cut short and is not rolled back yet.
struct Unfinished {
    std::string title;
    std::vector<std::filesystem::path> files;
    bool running = false;  ///< its program is still at it
};

/// What a start found of deliveries that were cut short.
struct Recovered {
    std::vector<Journal> rolled_back;  ///< whose old bytes are back
    std::vector<Error> set_aside;  ///< journals that cannot be followed, each with where it is now; other archives are not held up by them
    std::vector<Error> waiting;    ///< what could not be rolled back yet: the file is in use, the disk cannot be written
};

class Vault {
public:
    /// `files` must outlive the vault. The folder is made when first needed.
    Vault(std::filesystem::path folder, Files& files) : folder_(std::move(folder)), files_(&files) {}
    /// The same, noted in a register when it is first written to, and heeding what other vaults in it have begun.
    Vault(std::filesystem::path folder, Files& files, VaultRegister vaults)
        : folder_(std::move(folder)), files_(&files), register_(std::move(vaults)) {}
    /// Ends a delivery that is not complete; what it has written is rolled back.
    void heed(CancelToken cancel) { cancel_ = std::move(cancel); }

    /// $XDG_DATA_HOME/skivet/vault, or ~/.local/share/skivet/vault.
    [[nodiscard]] static std::filesystem::path default_folder();

    /// Writes the plans, all or none. `verify` is called after the bytes are on disk and compared; its error rolls everything back.
    /// Any error leaves every file as it was (or, when even that fails, the next `recover` does).
    /// Errors: `stale` when a file is not as the plan expects it, `busy` when a program has it locked, `no_space` before anything is
    /// touched when the room is known not to do.
    [[nodiscard]] Result<Journal> deliver(std::vector<Share> shares, const std::string& title, std::int64_t now,
                                          const std::function<Status()>& verify = {});
    [[nodiscard]] Result<Journal> deliver(const WritePlan& plan, const DeliveryNote& note, std::int64_t now,
                                          const std::function<Status()>& verify = {});

    /// Rolls back what a crash left half done. Called at every start. An error only when the vault itself cannot be used.
    [[nodiscard]] Result<Recovered> recover();
    /// What `recover` would look at, without writing anything.
    [[nodiscard]] std::vector<Unfinished> unfinished() const;

    /// Deliveries that can be undone, oldest first. Journals that cannot be read are left out.
    [[nodiscard]] Result<std::vector<Journal>> history() const;
    /// Why journals of deliveries that stand cannot be read; the others are not held up by them.
    [[nodiscard]] std::vector<Error> unreadable() const;
    /// Puts the bytes back that a delivery overwrote, in all its sources or in one of them. Error `usage` when a later delivery changed
    /// the same file, `stale` when something else did.
    [[nodiscard]] Status undo(const std::string& id, const std::optional<std::filesystem::path>& source = std::nullopt);
    /// Undoes every delivery into `source`, newest first. Returns how many there were.
    [[nodiscard]] Result<unsigned> restore(const std::filesystem::path& source);
    /// Undoes everything. Returns how many deliveries there were. Error `missing` when a device is not there; all others are undone then.
    [[nodiscard]] Result<unsigned> restore_all();

    /// A file as it was before all deliveries that stand, for reading; nothing is written. Error `limit` when it has to be put together
    /// in memory and is larger than `most` bytes.
    [[nodiscard]] Result<FileView> original(const std::filesystem::path& file, std::uint64_t most) const;

    /// The files of these sources as they were before all deliveries that stand, and the way from there to other contents. Nothing is
    /// written. Errors: `stale` where something else changed what the newest delivery left; `limit` for a file that has to be put together
    /// in memory and is larger than `most` bytes.
    [[nodiscard]] Result<Past> past(std::span<const std::filesystem::path> sources, std::uint64_t most) const;

    /// Whether something else changed what deliveries left in this source. Errors: those of reading.
    [[nodiscard]] Result<bool> changed_by_others(const std::filesystem::path& source) const;
    /// Sets aside what is kept of a source that something else changed: it is the way back to a state nobody wants any more, an older
    /// version of the game. Returns the deliveries it was about; none for a source that is as we left it.
    [[nodiscard]] Result<std::vector<std::string>> let_go(const std::filesystem::path& source);

    [[nodiscard]] const std::filesystem::path& folder() const { return folder_; }

private:
    // The states of a journal are its folder's ending, because a rename is atomic. A fourth, "aside" (recovery.cpp): nothing follows it any
    // more, it is there for a person.
    static constexpr std::string_view part_state = "part";        ///< being written; nothing else has happened
    static constexpr std::string_view pending_state = "pending";  ///< complete; game files may be half written
    static constexpr std::string_view kept_state = "kept";        ///< the delivery stands and can be undone

    /// Without links, where it can be told.
    [[nodiscard]] static std::filesystem::path real_path(const std::filesystem::path& path);
    [[nodiscard]] std::vector<Unfinished> unfinished(bool locked_by_us) const;
    /// How a file stands to what the journal says of it.
    enum class Stand { old, between, written, foreign };

    [[nodiscard]] Result<FileLock> lock() const;
    [[nodiscard]] static Result<std::vector<FileLock>> lock_parts(const std::vector<JournalPart>& parts);
    [[nodiscard]] std::filesystem::path path_of(const std::string& id, std::string_view state) const;
    [[nodiscard]] std::vector<std::filesystem::path> folders_in(std::string_view state) const;
    [[nodiscard]] Result<JournalPart> prepare(const Share& share) const;
    [[nodiscard]] Status write_part(const Journal& journal, JournalPart& part, const std::filesystem::path& place);
    [[nodiscard]] Status write_game(const Share& share, const JournalPart& part);
    [[nodiscard]] Status check_written(const Share& share, const JournalPart& part);
    [[nodiscard]] Result<Sha256> hash_file(const std::filesystem::path& file, const CancelToken& cancel = {}) const;
    /// Nothing else may have begun what is not finished in these files, here or in another vault.
    [[nodiscard]] Status check_unfinished(const std::vector<Share>& shares) const;
    [[nodiscard]] Status check_untouched(const JournalPart& part) const;
    [[nodiscard]] Status undo_locked(const Journal& journal, const std::optional<std::filesystem::path>& source);
    [[nodiscard]] Result<Journal> read_journal_folder(const std::filesystem::path& folder) const;
    void drop_part_folder(const std::filesystem::path& folder);

    // recovery.cpp
    [[nodiscard]] Status check_kept(const JournalPart& part, const CancelToken& cancel = {}) const;
    /// Error `missing` for a device that is not there now.
    [[nodiscard]] Status check_there(const JournalPart& part) const;
    [[nodiscard]] Result<Stand> stand_of(const JournalPart& part, const JournalFile& file) const;
    [[nodiscard]] Result<Stand> stand_of_ranges(const JournalPart& part, const JournalFile& file) const;
    [[nodiscard]] Result<bool> any_foreign(const JournalPart& part, std::string& name) const;
    /// A cancel is heeded only while a rebuilt file is put together again beside the other one: that can be given up.
    [[nodiscard]] Status roll_back_file(const JournalPart& part, const JournalFile& file, const CancelToken& cancel);
    [[nodiscard]] Status roll_back(const std::filesystem::path& folder, const std::vector<JournalPart>& parts,
                                   const CancelToken& cancel = {});
    /// Moves a journal, or some parts of it, where nothing follows it any more, and says why and where.
    [[nodiscard]] Result<Error> set_aside(const std::filesystem::path& folder, const std::vector<JournalPart>& parts, bool whole,
                                          Error why);
    [[nodiscard]] Status roll_back_what_is_known(const std::filesystem::path& folder, const Journal& journal, Recovered& out);

    std::filesystem::path folder_;
    Files* files_;
    std::optional<VaultRegister> register_;
    CancelToken cancel_;
};

}  // namespace skivet

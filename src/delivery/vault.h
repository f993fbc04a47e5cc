#pragma once
// The one place that writes game files. Order of a delivery:
//   lock → journal with the old bytes, synced → game bytes, synced → read back and compared → journal kept as the way back.
// A crash before the journal is complete leaves the old file; after that, the next start rolls it back; after the journal was marked
// kept, the new file stands.
#include "delivery/files.h"
#include "delivery/journal.h"

namespace skivet {

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

    /// Writes the plan. `verify` is called after the bytes are on disk and compared; its error rolls everything back.
    /// Any error leaves every file as it was (or, when even that fails, the next `recover` does).
    [[nodiscard]] Result<Journal> deliver(const WritePlan& plan, const DeliveryNote& note, std::int64_t now,
                                          const std::function<Status()>& verify = {});

    /// Rolls back what a crash left half done. Called at every start. Returns how many deliveries were rolled back.
    [[nodiscard]] Result<unsigned> recover();

    /// Deliveries that can be undone, oldest first.
    [[nodiscard]] Result<std::vector<Journal>> history() const;
    /// Puts the bytes back that a delivery overwrote. Error `usage` when a later delivery changed the same file, `stale` when
    /// something else did.
    [[nodiscard]] Status undo(const std::string& id);
    /// Undoes every delivery into `source`, newest first. Returns how many there were.
    [[nodiscard]] Result<unsigned> restore(const std::filesystem::path& source);

    [[nodiscard]] const std::filesystem::path& folder() const { return folder_; }

private:
    [[nodiscard]] Result<FileLock> lock() const;
    [[nodiscard]] std::filesystem::path path_of(const std::string& id, std::string_view state) const;
    [[nodiscard]] Status roll_back(const Journal& journal);
    [[nodiscard]] Status check_untouched(const Journal& journal);
    [[nodiscard]] Status undo_locked(const Journal& journal);

    std::filesystem::path folder_;
    Files* files_;
};

}  // namespace skivet

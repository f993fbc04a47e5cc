#pragma once
// The game as it was shipped, in as many versions as were recorded: which one the installation is, and which textures are other than in it.
#include "delivery/vault.h"
#include "workflow/catalog_snapshot.h"

namespace skivet {

/// All that were recorded, the oldest first; one that was recorded before versions had names is there without a name.
[[nodiscard]] std::vector<ShippedVersion> shipped_versions(const Project& project);
/// The one the installation is compared with; null before any was recorded.
[[nodiscard]] const ShippedVersion* version_now(const Project& project, std::span<const ShippedVersion> versions);

/// Where a version of this name is recorded: the file of the one that has the name, or a new one.
[[nodiscard]] std::string baseline_for(const Project& project, const std::string& name);
/// Records the installation as it is in that file of the project's folder. The project is as before until note_recorded.
[[nodiscard]] Result<std::shared_ptr<Baseline>> record_shipped(const Project& project, const std::string& file,
                                                               const CatalogSnapshot& snapshot);
/// The version is in the list, with these others, and compared with. These three read and write no file; `versions`: as shipped_versions
/// has them.
void note_recorded(Project& project, std::vector<ShippedVersion> versions, const std::string& file, const std::string& name,
                   std::int64_t now);
/// Another version is compared with. False when there is none with this file.
bool compare_with(Project& project, std::vector<ShippedVersion> versions, const std::string& file);
/// Forgets a version, not the one that is compared with. False when it stays.
bool forget_version(Project& project, std::vector<ShippedVersion> versions, const std::string& file);
/// Its file goes, once the project that forgot it is kept.
void remove_baseline(const Project& project, const std::string& file);

/// How many of the project's sources are as in a version, by samples.
struct VersionMatch {
    std::string baseline;
    std::size_t same = 0, sources = 0;
};
[[nodiscard]] std::vector<VersionMatch> match_versions(const Project& project);

/// A texture that is other than it was recorded, and not by us.
struct ShippedChange {
    enum class What : std::uint8_t {
        changed,
        added,
        moved,  ///< the same content under another path
        gone
    } what = What::changed;
    std::filesystem::path source;
    std::vector<std::string> inner;  ///< of `gone`: in lower case, as it was recorded
    std::string from;                ///< moved: source and path as recorded
    ContentKey before, now;          ///< empty where there is none
    std::string as_in;               ///< the name of another version that has this content there; empty: none of those recorded
};
/// What was recorded beside what the snapshot has, textures nobody has looked at left out. `others`: further versions, to tell which one a
/// changed texture is from.
[[nodiscard]] std::vector<ShippedChange> changes_since(const Baseline& baseline, const CatalogSnapshot& snapshot,
                                                       const std::vector<Journal>& history,
                                                       std::span<const std::pair<std::string, std::vector<BaselineEntry>>> others = {});
[[nodiscard]] std::string_view name_of(ShippedChange::What what);

/// All of it at once.
struct SeenVersions {
    std::vector<ShippedVersion> versions;
    std::vector<VersionMatch> matches;   ///< one per version
    std::optional<std::size_t> now;      ///< the version that is compared with
    std::vector<ShippedChange> changes;  ///< against it; what a delivery left there is none, what something else put over it is
};
/// `baseline`: the one that is compared with, or null.
[[nodiscard]] SeenVersions look_at_versions(const Project& project, const Baseline* baseline, const Vault& vault,
                                            const CatalogSnapshot& snapshot, std::vector<Journal> history);

}  // namespace skivet

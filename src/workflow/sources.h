#pragma once
// The sources of a project: its list, and what is known of each beside its entries.
#include "catalog/catalog.h"
#include "workflow/project.h"

namespace skivet {

/// False when it is in the list already.
bool add_source(Project& project, const std::filesystem::path& source);
/// By its place in the load order; false when there is none there.
bool remove_source(Project& project, std::size_t index);
/// Moves a source to another place; later ones win. False when nothing changes.
bool place_source(Project& project, std::size_t index, std::size_t place);
/// Takes a file, or all whose names fit a pattern, for a kind; an empty kind goes back to recognition.
void choose_kind(Project& project, const std::string& pattern, const std::string& kind);
/// Paths that hashed names stand for.
void accept_paths(Project& project, const std::vector<std::string>& paths);
/// Keeps a sheet with the project; `name` without its ending. Returns the file. The sheet is read first: one that is not sound is refused.
[[nodiscard]] Result<std::filesystem::path> keep_sheet(const Project& project, const std::string& name, const std::string& toml);

/// What is known of a source beside its entries.
struct SourceFacts {
    std::vector<std::pair<std::string, std::string>> candidates;  ///< kinds it may be and why, the most likely first
    std::string chosen;                                           ///< the kind the user chose for it; empty: recognized
    std::string read_only;                                        ///< why nothing can be put in
    std::uint64_t dead_bytes = 0;                                 ///< what nothing uses any more
    std::size_t unnamed = 0;                                      ///< entries known only by a hash
    bool wants_key = false;                                       ///< no key of the ring opens it, or an entry of it
};
/// Reads the file's head, and that of the first encrypted entry.
[[nodiscard]] SourceFacts facts_of(const ReadContext& context, const Source& source);

/// The project's sources, opened; those that are switched off have neither container nor error.
[[nodiscard]] std::vector<Source> open_those_on(const ReadContext& context, const Project& project);

}  // namespace skivet

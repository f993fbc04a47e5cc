#pragma once
// From a game's folder to the sources of a project: what was found, in which order it is proposed, what of it is new.
#include "catalog/leftovers.h"
#include "workflow/project.h"

namespace skivet {

struct Installation {
    GameSurvey survey;
    LoadOrder order;                  ///< what is proposed
    std::vector<Leftover> leftovers;  ///< of other tools, known at the end
};

/// Goes through a game's folder: walks it, then opens the archives it found on all cores. `so_far` gets what is known after the walk and,
/// about three times a second, as archives are opened; on one of the workers. Errors: those of survey_game.
[[nodiscard]] Result<Installation> find_in_game(const ReadContext& context, const std::filesystem::path& game, Progress& progress,
                                                const std::function<void(const Installation&)>& so_far = {});

/// How something that was found stands to a project.
enum class Standing {
    source,  ///< in its list
    passed,  ///< it was there when the installation was last gone through, and was not taken
    fresh    ///< it was not there then, or the installation was never gone through
};
[[nodiscard]] Standing standing_of(const Project& project, const Found& found);

/// What is proposed, one per found: the project's sources, and what is wanted and was not passed over before.
[[nodiscard]] std::vector<bool> ticks(const Project& project, const Installation& installation);

/// Indexes into survey.found of what is ticked, in the order in which it would be loaded: the project's sources in their order, and each
/// other one behind what it follows in the installation's order; what that has not, behind the last of its group. Reads no file.
[[nodiscard]] std::vector<std::size_t> in_order(const Project& project, const Installation& installation, const std::vector<bool>& ticked);

/// How many things that are wanted are in the game's folder and were not when it was last gone through. Opens only those.
[[nodiscard]] Result<std::size_t> count_fresh(const ReadContext& context, const Project& project, Progress& progress);

/// Makes `chosen`, in that order, the project's sources, with their groups where they had none. Sources that were not found in the game's
/// folder (they lie elsewhere) stay, behind these. Remembers all that was found as seen.
void take_sources(Project& project, const Installation& installation, std::span<const std::size_t> chosen);

}  // namespace skivet

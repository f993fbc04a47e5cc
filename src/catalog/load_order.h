#pragma once
// In which order an installation's sources are loaded, as far as it can be told without the game.
#include "catalog/game_survey.h"

namespace skivet {

struct OrderedSource {
    std::size_t found = 0;  ///< index into GameSurvey::found
    std::string reason;     ///< why it stands where it stands
    bool sure = true;       ///< false: another order is as likely, and it matters
};

struct LoadOrder {
    std::vector<OrderedSource> sources;  ///< later ones win
    std::filesystem::path list;          ///< the game's own list that was followed; empty: none was recognized
};

/// The sources that are wanted, in the order proposed: as a list of the game's own says, if a text is one (its lines name archives; of
/// several the one of which most lines do); otherwise by group, then numbers in names, then names. Loose files come after archives of their
/// group. Where two sources of a group share paths and nothing but a name or a date says which comes first, neither is sure.
[[nodiscard]] LoadOrder propose_order(const GameSurvey& survey);

/// Text order in which runs of digits count as numbers: "pack9" before "pack10"; ASCII letters in either case.
[[nodiscard]] bool natural_less(std::string_view a, std::string_view b);

}  // namespace skivet

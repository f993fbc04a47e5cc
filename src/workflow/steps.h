#pragma once
// Undo and redo of what a person decides in a project: which sources and pieces there are, in which order, what they are for, how they are
// changed. What follows by itself (states, saves, versions) and what is in the game (deliveries, parcels) goes its own way.
#include "workflow/project.h"

namespace skivet {

/// What a step touched, for whoever shows it.
struct StepEffect {
    bool sources = false;         ///< which there are, their order, or whether they are loaded
    bool reading = false;         ///< what files are taken for, paths of hashed names, packers
    bool words = false;           ///< roles, habits, searches, groups
    bool places = false;          ///< where things go, what opens and starts them
    bool changes = false;         ///< entries that wait to be renamed or taken out
    std::vector<PieceId> pieces;  ///< that came, went, or are changed in another way
    [[nodiscard]] bool any() const { return sources || reading || words || places || changes || !pieces.empty(); }
};

/// What differs between two states of a project in what a person decided.
[[nodiscard]] StepEffect difference_of(const Project& from, const Project& to);
/// Makes the step from `from` to `to` in a project that has meanwhile gone on by itself. A piece that comes back is as it was when it went,
/// its file as it is now; one that goes leaves its files; one that was delivered meanwhile, and one whose place another took, stays.
StepEffect make_step(Project& project, const Project& from, const Project& to);

}  // namespace skivet

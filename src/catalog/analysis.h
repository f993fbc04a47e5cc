#pragma once
// What is known of a catalog's textures beyond their headers: facts of their pictures, roles, sets, twins, what is shared.
#include "catalog/alike.h"
#include "catalog/catalog.h"
#include "catalog/roles.h"

namespace skivet {

/// Lower-case steps of an item joined by "::": what corrections, baselines and load order go by.
[[nodiscard]] std::string path_key(const std::vector<std::string>& inner);

/// What the user said, kept in the project.
struct RoleWishes {
    std::vector<RoleHabit> habits;         ///< of this project
    std::map<std::string, Role> textures;  ///< by path_key
};

struct CatalogAnalysis {
    static constexpr std::uint32_t no_set = 0xFFFFFFFF;
    Habits habits;                                          ///< the common ones and the project's
    std::vector<FactsPtr> facts;                            ///< one per item; null: no texture, or not looked at yet
    std::vector<Role> roles;                                ///< one per item
    std::vector<std::uint32_t> set_of;                      ///< one per item; no_set for those without one
    std::vector<std::vector<std::uint32_t>> sets;           ///< items of each set, the base color first, then in the order of roles
    std::vector<std::uint32_t> twins;                       ///< one per item: how many effective others show the same picture at any size
    std::map<std::string, std::vector<std::string>> users;  ///< objects by path_key, where known
    std::vector<bool> shared;                               ///< one per item: many objects use it
    std::vector<HabitProposal> proposals;
    std::vector<bool>
        counted;  ///< one per item: what looks like a role in its name is none: a letter that counts, a folder that is a thing
    bool names_say_roles = false;  ///< at least a tenth of the names have a role part

    /// Why an item has its role.
    [[nodiscard]] RoleGuess why(const Catalog& catalog, std::size_t item, const RoleWishes& wishes) const;
};

/// Sets are made of effective textures. An item is shared when `users` (objects that use it, by path_key; see usage.h) has more than one
/// for it, or when it lies in a folder whose name says so (shared, common) or in a folder named like that.
[[nodiscard]] CatalogAnalysis analyze_catalog(const Catalog& catalog, std::vector<FactsPtr> facts, const RoleWishes& wishes,
                                              const std::map<std::string, std::vector<std::string>>& users = {});

/// Sides and facts of every item, for alike_to and count_twins. Items without facts compare to nothing.
[[nodiscard]] std::vector<Comparable> comparables(const Catalog& catalog, std::span<const FactsPtr> facts, bool effective_only);

/// Folders whose textures many objects share, by their name. Common practice, no source.
[[nodiscard]] bool in_shared_folder(std::string_view path);

}  // namespace skivet

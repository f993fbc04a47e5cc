#pragma once
// What the session's catalog side shares between its files. Everything here is called on worker threads.
#include <set>

#include "app/models/session.h"

namespace skivet::app {

/// The stock and the knowledge a project's index remembers, for showing it at once; both stay null where it remembers nothing.
void remember_stock(const Kinds& kinds, const Project& project, const IndexStore& index, std::shared_ptr<Stock>& stock,
                    std::shared_ptr<Knowledge>& knowledge);
[[nodiscard]] SourceFacts facts_of(const Kinds& kinds, const Source& source);
[[nodiscard]] RoleWishes wishes_of(const Project& project);
/// A word for each item: its state on the bench, or what became of it since the baseline; empty where neither is known. `ours`: path keys
/// of entries that deliveries of this project changed.
[[nodiscard]] std::vector<std::string> states_of_items(const Project& project, const Stock& stock, const Baseline* baseline,
                                                       const std::set<std::string>& ours);
/// Path keys and last steps of what the vault has changed.
[[nodiscard]] std::set<std::string> changed_by_us(const std::vector<Journal>& history);

}  // namespace skivet::app

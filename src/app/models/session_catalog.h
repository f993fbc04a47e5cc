#pragma once
// What the session's catalog side shares between its files. Everything here is called on worker threads.
#include "app/models/session.h"

namespace skivet::app {

/// The stock and the knowledge a project's index remembers, for showing it at once; both stay null where it remembers nothing.
void remember_stock(const Kinds& kinds, const Project& project, const IndexStore& index, std::shared_ptr<Stock>& stock, std::shared_ptr<Knowledge>& knowledge);
[[nodiscard]] SourceFacts facts_of(const Kinds& kinds, const Source& source);
[[nodiscard]] RoleWishes wishes_of(const Project& project);
/// A word for each item that is on the bench; empty for others.
[[nodiscard]] std::vector<std::string> bench_states(const Project& project, const Stock& stock);

}  // namespace skivet::app

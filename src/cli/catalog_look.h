#pragma once
// A catalog with everything its pictures tell, as the commands need it.
#include "catalog/analysis.h"
#include "catalog/indexing.h"
#include "cli/commands.h"

namespace skivet::cli {

struct ReadCatalog {
    std::vector<Source> sources;
    Catalog catalog;
    CatalogAnalysis analysis;
    std::vector<bool> mine;  ///< an item: whether it is in the part that was asked for
};
/// Looks at all textures of the sources. With an `index` file only at what it does not know yet. Without `roles_too` the analysis has facts
/// alone. Of a `shard` only the textures in it. Errors: `canceled`, and the index file's.
[[nodiscard]] Result<ReadCatalog> read_catalog(Context& c, std::vector<Source> sources, const std::filesystem::path& index,
                                               const CatalogOptions& options, bool roles_too = true, const Shard& shard = {});

}  // namespace skivet::cli

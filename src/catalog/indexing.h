#pragma once
// Building the index: listings from the store where nothing changed, and a look at every texture it does not know yet.
#include "catalog/index_store.h"
#include "catalog/thumbnail_cache.h"

namespace skivet {

/// build_catalog with a store: sources that did not change are not looked through, and what is found is kept. `catalog.items` have the
/// contents that are known. Failures of the store are reported among the catalog's problems; the catalog is there all the same.
[[nodiscard]] Result<Catalog> build_indexed_catalog(const ReadContext& context, std::span<const Source> sources, IndexStore& store,
                                                    Progress& progress, std::function<void(const Catalog&)> so_far = {});

/// Only what the store knows, without opening a source: for showing a project at once. Null containers; sources that changed or are unknown
/// have no items.
struct RememberedCatalog {
    std::vector<Source> sources;
    Catalog catalog;
    bool whole = false;  ///< every source was there, unchanged, with all of its items
};
/// `all`: sources that are not asked for, but lie below one that is; empty: `sources` themselves. Only the first `most` items are read.
[[nodiscard]] RememberedCatalog remember(const ReadContext& context, std::span<const std::filesystem::path> sources,
                                         const IndexStore& store, std::span<const std::filesystem::path> all = {},
                                         std::size_t most = std::numeric_limits<std::size_t>::max());

/// A texture that was looked at.
struct LookedAt {
    std::uint32_t item = 0;  ///< of the catalog
    ContentKey content;
    FactsPtr facts;  ///< null: it cannot be decoded
};

/// Looks at the items in `todo`, in that order on all cores, and keeps what it sees in the store and, when given, small pictures in the
/// cache. `batch` gets what was kept, about three times a second, on one of the workers. What was kept stays when it is canceled or the
/// process ends. An item whose content is known already (a twin, or a changed archive's unchanged entry) is not decoded again. Textures
/// that cannot be read are left out and tried again next time; those that cannot be decoded are remembered. Errors: `canceled`, and the
/// store's.
[[nodiscard]] Status measure_pictures(const ReadContext& context, std::span<const Source> sources, const Catalog& catalog,
                                      std::span<const std::uint32_t> todo, IndexStore& store, ThumbnailCache* thumbnails,
                                      Progress& progress, const std::function<void(std::vector<LookedAt>)>& batch = {});

/// Facts of all items whose content the store knows, and the textures that are still to be looked at, in catalog order.
struct KnownFacts {
    std::vector<FactsPtr> facts;  ///< one per item
    std::vector<std::uint32_t> todo;
};
[[nodiscard]] KnownFacts known_facts(const Catalog& catalog, const IndexStore& store);

}  // namespace skivet

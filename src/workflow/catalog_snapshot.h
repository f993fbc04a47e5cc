#pragma once
// What a project shows of its game. A snapshot is what the sources held when they were looked through; an analyzed catalog is a snapshot
// with what follows from its pictures and the user's words, ready for searches. Both are replaced as a whole and never changed, so that
// workers read them without locks.
#include <set>

#include "catalog/alike.h"
#include "catalog/baseline.h"
#include "catalog/indexing.h"
#include "catalog/query.h"
#include "delivery/journal.h"
#include "workflow/sources.h"

namespace skivet {

/// The items of one source, and which entries of its own container they are; counted beside the window, which has no time for all items.
struct SourceItems {
    std::vector<std::uint32_t> items;    ///< numbers of the catalog's items, in their order
    std::vector<std::int32_t> entries;   ///< for each of them the entry; -1: it is inside an archive in the source
    std::vector<std::uint32_t> places;   ///< for each entry the place of its item in `items`
    std::vector<bool> entry_is_texture;  ///< by entry
};

/// The open sources and what is in them.
struct CatalogSnapshot {
    std::vector<Source> sources;
    Catalog catalog;
    std::vector<std::vector<Segment>> segments;       ///< one list per source, for the byte map
    std::vector<std::size_t> texture_counts;          ///< one per source
    std::size_t textures = 0;                         ///< that the game loads
    std::vector<SourceItems> items_of;                ///< one per source
    std::vector<SourceFacts> facts;                   ///< one per source
    std::map<std::filesystem::path, Shipped> became;  ///< by source: what became of it since the baseline
    bool whole = false;                               ///< everything was looked through; otherwise more is coming
};

/// A snapshot's textures as they are understood, and the table that answers searches.
struct AnalyzedCatalog {
    std::shared_ptr<const CatalogSnapshot> snapshot;  ///< what it is about; never null
    CatalogAnalysis analysis;
    QueryTable table;
    RoleWishes wishes;
    std::size_t unseen = 0;     ///< textures that are still to be looked at
    std::vector<bool> foreign;  ///< by item: not as it was shipped, and not by us; empty where nothing is known
};

/// Without sources.
[[nodiscard]] std::shared_ptr<const AnalyzedCatalog> empty_catalog();

/// What the user said of roles, as the analysis wants it.
[[nodiscard]] RoleWishes wishes_of(const Project& project);

/// What an analysis depends on beside a snapshot.
struct AnalysisContext {
    Project project;
    std::shared_ptr<Baseline> baseline;  ///< null: nothing is known of what was shipped
    std::vector<Journal> history;        ///< tells our changes from others'
};
/// Paths of entries, in lower case, that deliveries which stand have changed.
[[nodiscard]] std::set<std::string> changed_by_us(const std::vector<Journal>& history);

/// A word for each item: its state on the bench, or what became of it since the baseline; empty where neither is known.
[[nodiscard]] std::vector<std::string> states_of_items(const AnalysisContext& analysis, const CatalogSnapshot& snapshot);

/// Roles, sets, twins and the table of a snapshot. `facts`: one per item, null where it was not looked at; may be empty.
[[nodiscard]] std::shared_ptr<const AnalyzedCatalog> analyze(std::shared_ptr<const CatalogSnapshot> snapshot, std::vector<FactsPtr> facts,
                                                             const AnalysisContext& analysis, std::size_t unseen,
                                                             const std::map<std::string, std::vector<std::string>>& users = {});
/// The same again after the user's words or the pieces changed.
[[nodiscard]] std::shared_ptr<const AnalyzedCatalog> analyze_again(const AnalyzedCatalog& before, const AnalysisContext& analysis);

/// What the index remembers of the project's sources, the first `most` items; no archive is opened. Null where it remembers nothing.
[[nodiscard]] std::shared_ptr<const AnalyzedCatalog> remembered_catalog(const ReadContext& context, const Project& project,
                                                                        const IndexStore& index,
                                                                        std::size_t most = std::numeric_limits<std::size_t>::max());
/// So many are shown of a project that is opened: more than anybody looks through until all of them are there, and there at once.
inline constexpr std::size_t shown_first = 8192;

using CatalogSoFar = std::function<void(std::shared_ptr<const AnalyzedCatalog>)>;
/// Opens the sources and looks through them, with what the index knows. `so_far` gets what is there, several times while it grows, not more
/// often than somebody can look. Error `canceled` only; what could not be opened stands in the snapshot.
[[nodiscard]] Result<std::shared_ptr<const AnalyzedCatalog>> read_sources(const ReadContext& context, const AnalysisContext& analysis,
                                                                          IndexStore& index, Progress& progress,
                                                                          const CatalogSoFar& so_far = {});

/// Looks at the pictures nobody has seen yet, on all cores, and keeps what it sees in the index and the cache (may be null). `so_far` gets
/// the catalog as it is understood, at growing distances. Returns the whole, with the contents that became known; when it was canceled
/// `unseen` says how much is left. Errors of the disk go to `problem`.
[[nodiscard]] std::shared_ptr<const AnalyzedCatalog> measure_unseen(const ReadContext& context, const AnalysisContext& analysis,
                                                                    const AnalyzedCatalog& before, IndexStore& index, ThumbnailCache* cache,
                                                                    Progress& progress, const CatalogSoFar& so_far,
                                                                    std::optional<Error>& problem);

/// Where else a texture is, and what belongs to it.
struct Relations {
    std::vector<std::size_t> set;     ///< all members, itself included; empty without a set
    std::vector<AlikeTexture> alike;  ///< items that look like it
    std::vector<std::string> users;   ///< objects that use it, where known
    std::vector<std::size_t> copies;  ///< items with the same path in other sources, the winning one first
    RoleGuess role;
    PictureFacts facts;
    bool seen = false;  ///< it was looked at, so that `facts` hold
};
[[nodiscard]] Relations relations_of(const AnalyzedCatalog& catalog, std::size_t item);

/// The sources against the baseline, without reading more than samples.
[[nodiscard]] std::map<std::filesystem::path, Shipped> what_became(const Baseline* baseline, const Project& project);

}  // namespace skivet

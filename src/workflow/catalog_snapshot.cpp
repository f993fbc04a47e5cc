#include "workflow/catalog_snapshot.h"

#include <chrono>
#include <mutex>

#include "base/text.h"
#include "catalog/usage.h"

namespace skivet {

namespace fs = std::filesystem;
using Clock = std::chrono::steady_clock;

namespace {

void count_items(CatalogSnapshot& snapshot) {
    snapshot.texture_counts.assign(snapshot.sources.size(), 0);
    snapshot.textures = 0;
    snapshot.items_of.assign(snapshot.sources.size(), {});
    const auto& items = snapshot.catalog.items;
    for (std::size_t i = 0; i < items.size(); ++i) {
        const bool texture = items[i].is_texture();
        snapshot.texture_counts[items[i].source] += texture;
        snapshot.textures += texture && items[i].effective;
        auto& its = snapshot.items_of[items[i].source];
        const bool own = items[i].inner.size() == 1;
        its.entries.push_back(own ? static_cast<std::int32_t>(its.places.size()) : -1);
        if (own) {
            its.places.push_back(static_cast<std::uint32_t>(its.items.size()));
            its.entry_is_texture.push_back(texture);
        }
        its.items.push_back(static_cast<std::uint32_t>(i));
    }
}

void add_facts(const ReadContext& context, const Project& project, CatalogSnapshot& snapshot) {
    count_items(snapshot);
    for (const auto& source : snapshot.sources) {
        snapshot.segments.push_back(source.container ? source.container->segments() : std::vector<Segment>());
        snapshot.facts.push_back(project.setting(source.path).off ? SourceFacts{} : facts_of(context, source));
    }
}

/// Placeholder values for a snapshot whose sources are not open yet.
void add_plain_facts(CatalogSnapshot& snapshot) {
    count_items(snapshot);
    snapshot.segments.assign(snapshot.sources.size(), {});
    snapshot.facts.assign(snapshot.sources.size(), {});
}

}  // namespace

std::shared_ptr<const AnalyzedCatalog> empty_catalog() {
    auto out = std::make_shared<AnalyzedCatalog>();
    out->snapshot = std::make_shared<CatalogSnapshot>();
    return out;
}

RoleWishes wishes_of(const Project& project) {
    RoleWishes out;
    for (const auto& h : project.habits)
        if (const auto place = place_named(h.place); place && role_named(h.role))
            out.habits.push_back({*place, h.word, *role_named(h.role)});
    for (const auto& r : project.roles)
        if (const auto role = role_named(r.role)) out.textures[r.path] = *role;
    return out;
}

namespace {
constexpr const char* changed_by_others = "changed by someone else";
}  // namespace

std::set<std::string> changed_by_us(const std::vector<Journal>& history) {
    std::set<std::string> out;
    for (const auto& journal : history)
        for (const auto& part : journal.parts)
            if (!part.device)
                for (const auto& entry : part.entries) out.insert(lower(entry));
    return out;
}

std::vector<std::string> states_of_items(const AnalysisContext& analysis, const CatalogSnapshot& snapshot) {
    std::map<std::pair<fs::path, std::string>, std::string> states;
    for (const auto& piece : analysis.project.pieces) states[{piece.address.source, path_key(piece.address.inner)}] = name_of(piece.state);
    if (states.empty() && !analysis.baseline) return {};
    const auto shipped = analysis.baseline ? analysis.baseline->compare(snapshot.catalog, snapshot.sources) : std::vector<Shipped>();
    const auto ours = changed_by_us(analysis.history);
    std::vector<std::string> out(snapshot.catalog.items.size());
    for (std::size_t i = 0; i < out.size(); ++i) {
        const auto& item = snapshot.catalog.items[i];
        if (!item.is_texture()) continue;
        if (const auto found = states.find({snapshot.sources[item.source].path, path_key(item.inner)}); found != states.end())
            out[i] = found->second;
        else if (i < shipped.size() && shipped[i] == Shipped::changed)
            out[i] = ours.contains(lower(item.path())) ? "changed by us" : changed_by_others;
        else if (i < shipped.size()) out[i] = name_of(shipped[i]);
    }
    return out;
}

std::shared_ptr<const AnalyzedCatalog> analyze(std::shared_ptr<const CatalogSnapshot> snapshot, std::vector<FactsPtr> facts,
                                               const AnalysisContext& analysis, std::size_t unseen,
                                               const std::map<std::string, std::vector<std::string>>& users) {
    auto out = std::make_shared<AnalyzedCatalog>();
    out->wishes = wishes_of(analysis.project);
    out->analysis = analyze_catalog(snapshot->catalog, std::move(facts), out->wishes, users);
    const auto states = states_of_items(analysis, *snapshot);
    if (analysis.baseline)
        for (const auto& state : states) out->foreign.push_back(state == changed_by_others || state == name_of(Shipped::added));
    out->table = QueryTable::build(snapshot->catalog, snapshot->sources, out->analysis, states);
    out->snapshot = std::move(snapshot);
    out->unseen = unseen;
    return out;
}

std::shared_ptr<const AnalyzedCatalog> analyze_again(const AnalyzedCatalog& before, const AnalysisContext& analysis) {
    return analyze(before.snapshot, before.analysis.facts, analysis, before.unseen, before.analysis.users);
}

std::shared_ptr<const AnalyzedCatalog> remembered_catalog(const ReadContext& context, const Project& project, const IndexStore& index,
                                                          std::size_t most) {
    std::vector<fs::path> on;
    for (const auto& path : project.sources)
        if (!project.setting(path).off) on.push_back(path);
    auto remembered = remember(context, on, index, project.sources, most);
    if (remembered.catalog.items.empty()) return nullptr;
    auto snapshot = std::make_shared<CatalogSnapshot>();
    // Numbers of sources count those that are off, too.
    std::vector<std::size_t> place;
    for (std::size_t i = 0; i < project.sources.size(); ++i) {
        snapshot->sources.push_back({project.sources[i], nullptr, std::nullopt, {}});
        if (!project.setting(project.sources[i]).off) place.push_back(i);
    }
    for (auto& item : remembered.catalog.items) item.source = place[item.source];
    snapshot->catalog = std::move(remembered.catalog);
    add_plain_facts(*snapshot);
    auto known = known_facts(snapshot->catalog, index);
    return analyze(snapshot, std::move(known.facts), {project, nullptr, {}}, known.todo.size());
}

std::map<fs::path, Shipped> what_became(const Baseline* baseline, const Project& project) {
    std::map<fs::path, Shipped> out;
    for (const auto& path : project.sources)
        if (baseline) out[path] = baseline->compare(path);
    return out;
}

Result<std::shared_ptr<const AnalyzedCatalog>> read_sources(const ReadContext& context, const AnalysisContext& analysis, IndexStore& index,
                                                            Progress& progress, const CatalogSoFar& so_far) {
    const auto& project = analysis.project;
    auto snapshot = std::make_shared<CatalogSnapshot>();
    snapshot->sources = open_those_on(context, project);
    auto last = Clock::now() - std::chrono::seconds(1);
    const auto show = [&](const Catalog& catalog) {
        // Not more often than somebody can look.
        if (!so_far || Clock::now() - last < std::chrono::milliseconds(120)) return;
        auto partial = std::make_shared<CatalogSnapshot>();
        partial->sources = snapshot->sources;
        partial->catalog = catalog;
        add_plain_facts(*partial);
        Project words = project;
        words.pieces.clear();  // states come with the whole
        so_far(analyze(partial, {}, {std::move(words), nullptr, {}}, 0));
        last = Clock::now();
    };
    SKIVET_TRY(snapshot->catalog, build_indexed_catalog(context, snapshot->sources, index, progress, show));
    snapshot->whole = true;
    add_facts(context, project, *snapshot);
    snapshot->became = what_became(analysis.baseline.get(), project);
    auto known = known_facts(snapshot->catalog, index);
    const auto users = users_of_textures(context, snapshot->sources, snapshot->catalog, project.folder / "records", progress);
    return analyze(snapshot, std::move(known.facts), analysis, known.todo.size(),
                   users ? *users : std::map<std::string, std::vector<std::string>>());
}

std::shared_ptr<const AnalyzedCatalog> measure_unseen(const ReadContext& context, const AnalysisContext& analysis,
                                                      const AnalyzedCatalog& before, IndexStore& index, ThumbnailCache* cache,
                                                      Progress& progress, const CatalogSoFar& so_far, std::optional<Error>& problem) {
    const auto& snapshot = before.snapshot;
    auto known = known_facts(snapshot->catalog, index);
    auto unseen = known.todo.size();
    std::vector<ContentKey> contents(snapshot->catalog.items.size());
    std::mutex mutex;
    auto last = Clock::now();
    auto pause = std::chrono::milliseconds(500);
    const auto& users = before.analysis.users;
    const auto status = measure_pictures(context, snapshot->sources, snapshot->catalog, known.todo, index, cache, progress,
                                         [&](std::vector<LookedAt> seen) {
                                             const std::lock_guard lock(mutex);
                                             for (auto& s : seen) {
                                                 known.facts[s.item] = std::move(s.facts);
                                                 contents[s.item] = s.content;
                                             }
                                             unseen -= std::min(unseen, seen.size());
                                             // Each is made at twice the distance of the one before, so that making them costs little of
                                             // the whole.
                                             if (!so_far || Clock::now() - last < pause || progress.cancel.canceled()) return;
                                             so_far(analyze(snapshot, known.facts, analysis, unseen, users));
                                             last = Clock::now();
                                             pause = std::min(pause * 2, std::chrono::milliseconds(8000));
                                         });
    if (!status && status.error().code != ErrorCode::canceled) problem = status.error();
    if (!progress.cancel.canceled()) {
        unseen = 0;
        (void)index.prune();  // what cannot be cleared away today can be tomorrow
    }
    // The contents that are known now belong to the snapshot: the baseline and the picture cache go by them.
    auto filled = std::make_shared<CatalogSnapshot>(*snapshot);
    for (std::size_t i = 0; i < contents.size(); ++i)
        if (!contents[i].empty()) filled->catalog.items[i].content = contents[i];
    if (analysis.baseline) (void)analysis.baseline->add_contents(filled->catalog, filled->sources);
    return analyze(filled, std::move(known.facts), analysis, unseen, users);
}

Relations relations_of(const AnalyzedCatalog& catalog, std::size_t item) {
    Relations out;
    const auto& items = catalog.snapshot->catalog.items;
    if (item >= items.size()) return out;
    const auto& analysis = catalog.analysis;
    if (const auto set = analysis.set_of[item]; set != CatalogAnalysis::no_set)
        out.set.assign(analysis.sets[set].begin(), analysis.sets[set].end());
    const auto key = path_key(items[item].inner);
    for (std::size_t i = items.size(); i-- > 0;)
        if (i != item && items[i].source != items[item].source && items[i].path().size() == items[item].path().size() &&
            path_key(items[i].inner) == key)
            out.copies.push_back(i);
    out.alike = alike_to(comparables(catalog.snapshot->catalog, analysis.facts, false), item);
    std::erase_if(out.alike,
                  [&](const AlikeTexture& a) { return std::find(out.copies.begin(), out.copies.end(), a.index) != out.copies.end(); });
    if (out.alike.size() > 200) out.alike.resize(200);  // more than anybody looks through
    if (const auto users = analysis.users.find(key); users != analysis.users.end()) out.users = users->second;
    out.role = analysis.why(catalog.snapshot->catalog, item, catalog.wishes);
    if (analysis.facts[item]) out.facts = *analysis.facts[item], out.seen = true;
    return out;
}

}  // namespace skivet

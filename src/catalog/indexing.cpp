#include "catalog/indexing.h"

#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>
#include <tbb/task_arena.h>
#include <chrono>
#include <map>
#include <unordered_map>

#include "base/budget.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

std::string whole_fingerprint(const std::string& print, const fs::path& source, std::span<const fs::path> apart) {
    auto own = fingerprint_of(source);
    if (own.empty()) return own;
    for (const auto& path : apart) own += '\n' + path.string();
    return print + ' ' + own;
}

}  // namespace

Result<Catalog> build_indexed_catalog(const ReadContext& context, std::span<const Source> sources, IndexStore& store, Progress& progress,
                                      std::function<void(const Catalog&)> so_far) {
    const auto print = fingerprint_of(context);
    std::map<fs::path, std::string> prints;  // taken before anything is read, so that a change in between is seen next time
    for (const auto& source : sources) prints[source.path] = whole_fingerprint(print, source.path, source.apart);
    std::map<fs::path, std::vector<ContentKey>> contents;
    std::vector<Error> problems;
    CatalogOptions options;
    options.known = [&](const Source& source) { return store.listing(source.path, prints[source.path]); };
    options.looked_through = [&](const Source& source, std::span<const CatalogItem> items) {
        auto put = store.put_listing(source.path, prints[source.path], items);
        if (put) contents[source.path] = std::move(*put);
        else problems.push_back(std::move(put).error());
    };
    options.so_far = std::move(so_far);
    SKIVET_TRY(auto catalog, build_catalog(context, sources, progress, options));
    std::vector<std::size_t> next(sources.size());
    for (auto& item : catalog.items) {
        const auto found = contents.find(sources[item.source].path);
        if (found != contents.end() && next[item.source] < found->second.size()) item.content = found->second[next[item.source]];
        ++next[item.source];
    }
    std::vector<fs::path> paths;
    for (const auto& source : sources) paths.push_back(source.path);
    if (auto kept = store.keep_only(paths); !kept) problems.push_back(std::move(kept).error());
    std::move(problems.begin(), problems.end(), std::back_inserter(catalog.problems));
    return catalog;
}

RememberedCatalog remember(const ReadContext& context, std::span<const fs::path> paths, const IndexStore& store,
                           std::span<const fs::path> all, std::size_t most) {
    RememberedCatalog out;
    out.whole = !paths.empty();
    const auto print = fingerprint_of(context);
    for (const auto& path : paths) {
        const auto left = most - out.catalog.items.size();
        auto items = store.listing(path, whole_fingerprint(print, path, below(path, all.empty() ? paths : all)), left);
        if (!items || items->size() == left) out.whole = false;
        if (items)
            for (auto& item : *items) {
                item.source = out.sources.size();
                out.catalog.items.push_back(std::move(item));
            }
        out.sources.push_back({path, nullptr, std::nullopt, {}});
    }
    mark_effective(out.catalog.items);
    return out;
}

KnownFacts known_facts(const Catalog& catalog, const IndexStore& store) {
    std::vector<ContentKey> keys;
    keys.reserve(catalog.items.size());
    for (const auto& item : catalog.items) keys.push_back(item.content);
    std::vector<bool> undecodable;
    KnownFacts out;
    out.facts = store.facts(keys, &undecodable);
    for (std::size_t i = 0; i < catalog.items.size(); ++i) {
        const auto& item = catalog.items[i];
        const bool readable = item.is_texture() && item.desc.format != Format::unknown;
        if (readable && !out.facts[i] && !undecodable[i]) out.todo.push_back(static_cast<std::uint32_t>(i));
    }
    return out;
}

Status measure_pictures(const ReadContext& context, std::span<const Source> sources, const Catalog& catalog,
                        std::span<const std::uint32_t> todo, IndexStore& store, ThumbnailCache* thumbnails, Progress& progress,
                        const std::function<void(std::vector<LookedAt>)>& batch) {
    progress.total += todo.size();
    // An item's number among those of its source, as the store counts.
    std::vector<std::size_t> first(sources.size(), catalog.items.size());
    for (std::size_t i = catalog.items.size(); i-- > 0;) first[catalog.items[i].source] = i;

    using Clock = std::chrono::steady_clock;
    std::mutex mutex;
    std::vector<LookedAt> seen;
    std::vector<KeptPicture> pictures;
    auto last = Clock::now();
    std::optional<Error> failed;
    // Asking the store each time would wait for whatever is being put into it.
    constexpr std::size_t few = 100;
    const auto known = todo.size() > few ? store.contents() : std::vector<ContentKey>();
    const auto may_know = [&](const ContentKey& key) { return todo.size() <= few || std::binary_search(known.begin(), known.end(), key); };
    Budget memory(context.limits.decoded_bytes);
    std::unordered_map<std::uint64_t, FactsPtr> done_now;  // by content: the same file twice in one game is common
    const auto keep = [&](std::vector<LookedAt> some, std::vector<KeptPicture> images) {
        std::vector<IndexStore::Seen> rows;
        for (const auto& s : some) {
            const auto source = catalog.items[s.item].source;
            rows.push_back({sources[source].path, s.item - first[source], s.content, s.facts});
        }
        if (auto put = store.put_seen(rows); !put) {
            const std::lock_guard lock(mutex);
            if (!failed) failed = std::move(put).error();
            return;
        }
        {
            // What is kept from now on has its pattern in the store.
            const std::lock_guard lock(mutex);
            for (std::size_t i = 0; i < some.size(); ++i) {
                some[i].facts = rows[i].facts;
                if (some[i].facts) done_now[some[i].content.low] = some[i].facts;
            }
        }
        if (thumbnails) (void)thumbnails->put(images);  // only a cache
        // Whoever gets it may hold a lock and share out work of its own: while that is waited for, this thread must not begin another
        // texture and come here again.
        if (batch) tbb::this_task_arena::isolate([&] { batch(std::move(some)); });
    };
    tbb::parallel_for(
        tbb::blocked_range<std::size_t>(0, todo.size(), 1),
        [&](const auto& range) {
            for (auto n = range.begin(); n != range.end(); ++n) {
                if (progress.cancel.canceled()) return;
                const auto i = todo[n];
                const auto& item = catalog.items[i];
                LookedAt one{i, {}, nullptr};
                std::optional<KeptPicture> picture;
                const auto look_at = [&] {
                    const Budget::Share share(memory, bytes_to_measure(item.desc, item.size));
                    const auto texture = open_texture(context, sources[item.source], item);
                    ++progress.done;
                    if (!texture) return false;
                    one.content = content_key(texture->file);
                    {
                        const std::lock_guard lock(mutex);
                        if (failed) return false;
                        if (const auto done = done_now.find(one.content.low); done != done_now.end()) one.facts = done->second;
                    }
                    if (!one.facts && may_know(one.content)) one.facts = store.facts(std::span(&one.content, 1)).front();
                    if (one.facts) return true;
                    if (auto look = measure_picture(*texture)) {
                        one.facts = std::make_shared<PictureFacts>(look->facts);
                        if (thumbnails)
                            picture = KeptPicture{one.content, std::move(look->thumbnail), std::move(look->blocks), look->format};
                    }
                    return true;
                };
                // What decoding shares out must not make this thread begin another texture, which would wait for the memory this one holds.
                if (!tbb::this_task_arena::isolate(look_at)) continue;
                std::vector<LookedAt> some;
                std::vector<KeptPicture> images;
                {
                    const std::lock_guard lock(mutex);
                    if (one.facts) done_now[one.content.low] = one.facts;
                    if (picture) pictures.push_back(std::move(*picture));
                    seen.push_back(std::move(one));
                    if (Clock::now() - last < std::chrono::milliseconds(300) && pictures.size() < 256 && seen.size() < 4000) continue;
                    last = Clock::now();
                    some.swap(seen);
                    images.swap(pictures);
                }
                keep(std::move(some), std::move(images));
            }
        },
        tbb::simple_partitioner());
    if (!seen.empty()) keep(std::move(seen), std::move(pictures));
    if (failed) return fail(std::move(*failed));
    return progress.cancel.check();
}

}  // namespace skivet

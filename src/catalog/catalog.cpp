#include "catalog/catalog.h"

#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>
#include <xxhash.h>
#include <mutex>
#include <unordered_map>
#include <utility>

#include "base/chunks.h"
#include "base/file_write.h"
#include "base/phrase.h"
#include "base/text.h"
#include "catalog/analysis.h"
#include "container/nested_room.h"
#include "container/texture_files.h"
#include "mesh/read_mesh.h"
#include "texture/spread.h"

namespace skivet {
namespace {

constexpr std::size_t head_bytes = 1024;  // a KTX2 level index of sixteen levels ends at 464

class Builder {
public:
    Builder(const ReadContext& context, Progress& progress, const CatalogOptions& options)
        : context_(context), progress_(progress), recurse_(options.recurse), recognize_content_(options.recognize_content) {}

    /// Before a source's own container.
    void begin_source(const Container& container) { room_.emplace(container, context_.limits); }

    /// Items of one container, in entry order, those of archives inside right behind their entry, added to `out`. `part_done` is called
    /// after the first 512 entries, the next 1,024 and so on, so that whoever shows them does so at once and pays for it only a few times.
    void look_through(const Container& container, std::size_t source, const std::vector<std::string>& outer, std::uint32_t check,
                      std::vector<CatalogItem>& out, const std::function<void()>& part_done = {}) {
        const auto& entries = container.entries();
        progress_.total += entries.size();
        for (std::size_t begin = 0, size = 512; begin < entries.size() && !progress_.cancel.canceled(); begin += size, size *= 2) {
            const auto end = part_done ? std::min(entries.size(), begin + size) : entries.size();
            std::vector<std::vector<CatalogItem>> found(end - begin);
            tbb::parallel_for(tbb::blocked_range<std::size_t>(begin, end, 64), [&](const auto& range) {
                for (auto i = range.begin(); i != range.end() && !progress_.cancel.canceled(); ++i) {
                    found[i - begin] = look_at(container, i, source, outer, check);
                    ++progress_.done;
                }
            });
            for (auto& items : found) std::move(items.begin(), items.end(), std::back_inserter(out));
            if (!part_done) break;
            part_done();
        }
    }

    void report(Error error) {
        const std::lock_guard lock(mutex_);
        if (problems_.size() < 1000) problems_.push_back(std::move(error));
    }

    /// Of something inside archives inside the source, with their names.
    void report(Error error, const std::vector<std::string>& outer) {
        for (auto step = outer.rbegin(); step != outer.rend(); ++step) error = std::move(error).within(*step);
        report(std::move(error));
    }

    std::vector<Error> problems() && { return std::move(problems_); }

private:
    const ReadContext& context_;
    Progress& progress_;
    bool recurse_;
    bool recognize_content_;
    std::optional<NestedRoom> room_;  ///< of the source
    std::mutex mutex_;
    std::vector<Error> problems_;

    /// A missing one is named; a change of one is a change of the texture.
    void look_at_siblings(const Container& container, std::size_t entry, const Spread& spread, const std::vector<std::string>& outer,
                          CatalogItem& item) {
        const auto& path = container.entries()[entry].path;
        const auto slash = path.rfind('/');
        const auto folder = slash == std::string::npos ? std::string() : path.substr(0, slash + 1);
        std::string missing;
        for (const auto& sibling : spread.siblings) {
            const auto there = container.find(folder + sibling.name);
            if (!there) missing += (missing.empty() ? "" : ", ") + sibling.name;
            const auto check = there ? container.entries()[*there].check : 0;
            item.check = check == 0 || item.check == 0 ? 0 : (item.check * 0x9E3779B1u ^ check) | 1u;
        }
        if (missing.empty()) return;
        item.error = in_entry(container, entry,
                              Error{ErrorCode::missing,
                                    phrase("{} is missing: its levels cannot be shown", missing),
                                    {},
                                    {},
                                    "Put it beside the texture's other files"});
        report(*item.error, outer);
    }

    std::vector<CatalogItem> look_at(const Container& container, std::size_t entry, std::size_t source,
                                     const std::vector<std::string>& outer, std::uint32_t check) {
        const auto& e = container.entries()[entry];
        std::vector<CatalogItem> out(1);
        auto& item = out.front();
        item.source = source;
        item.inner = outer;
        item.inner.push_back(e.path);
        item.size = e.size;
        item.stored = e.stored;
        item.method = e.method;
        item.check = e.check != 0 ? e.check : check;
        item.kind = kind_by_name(context_.textures, e.path);
        if (!recognize_content_ || e.size == 0) return out;
        const auto head = container.read_head(entry, head_bytes);
        if (!head) {
            item.error = head.error();
            report(head.error(), outer);
            return out;
        }
        if (const auto kind = context_.textures.recognize(*head, e.path, e.size)) {
            item.file_kind = kind->name();
            item.kind = kind->traits().picture ? EntryKind::image : EntryKind::texture;
            auto layout = kind->layout(*head, e.size, context_.limits);
            if (!layout && head->size() < e.size)  // some headers are longer than the beginning, or stand at the end
                if (const auto whole = container.read(entry, context_.limits)) layout = kind->layout(*whole, e.size, context_.limits);
            if (layout) {
                item.desc = layout->desc;
                if (const auto spread = kind->spread(*head, e.path, context_.limits); spread && !spread->siblings.empty())
                    look_at_siblings(container, entry, *spread, outer, item);
                if (layout->damage) {
                    item.error = in_entry(container, entry, *layout->damage);
                    report(*item.error, outer);
                }
            } else {
                item.error = in_entry(container, entry, std::move(layout).error());
                report(*item.error, outer);
            }
        } else if (!candidates(context_, *head, e.size, e.path).empty()) {
            item.kind = EntryKind::container;
            if (recurse_ && outer.size() + 1 < context_.limits.depth) {
                if (!room_->has_room_for(e)) {
                    item.error = in_entry(container, entry,
                                          Error{ErrorCode::limit,
                                                "too much lies in archives inside archives; this one is not opened",
                                                {},
                                                {},
                                                "Add it as a source of its own"});
                    report(*item.error, outer);
                    return out;
                }
                auto view = container.view(entry, context_.limits);
                if (!view) {
                    report(std::move(view).error(), outer);
                    return out;
                }
                auto inside = open_container(context_, std::move(*view));
                if (!inside) {
                    item.error = in_entry(container, entry, std::move(inside).error());
                    report(*item.error, outer);
                    return out;
                }
                for (const auto& problem : (*inside)->problems()) report(in_entry(container, entry, problem), outer);
                room_->opened(**inside);
                std::vector<CatalogItem> more;  // `out` grows while `item` is looked at
                look_through(**inside, source, item.inner, item.check, more);
                std::move(more.begin(), more.end(), std::back_inserter(out));
            }
        }
        return out;
    }
};

}  // namespace

EntryKind kind_by_name(const TextureKinds& kinds, std::string_view path) {
    const auto name = lower(path);
    const auto ends = [&](std::string_view ending) { return name.ends_with(ending); };
    if (is_mesh_path(path)) return EntryKind::mesh;
    if (ends(".zip")) return EntryKind::container;
    if (const auto kind = kinds.by_extension(path)) return kind->traits().picture ? EntryKind::image : EntryKind::texture;
    return EntryKind::other;
}

std::string_view name_of(EntryKind kind) {
    switch (kind) {
        case EntryKind::texture: return "texture";
        case EntryKind::image: return "image";
        case EntryKind::container: return "container";
        case EntryKind::mesh: return "mesh";
        default: return "other";
    }
}

std::string CatalogItem::name() const { return std::filesystem::path(path()).stem().string(); }

std::vector<std::filesystem::path> below(const std::filesystem::path& folder, std::span<const std::filesystem::path> all) {
    const auto front = (folder / "").string();
    std::vector<std::filesystem::path> out;
    for (const auto& path : all) {
        if (!path.string().starts_with(front) || path.string().size() == front.size()) continue;
        out.push_back(path);
        if (const auto parts = parts_of(path); parts && parts->size() > 1) out.insert(out.end(), parts->begin(), parts->end());
    }
    std::sort(out.begin(), out.end());
    out.erase(std::unique(out.begin(), out.end()), out.end());
    return out;
}

Source open_one_of(const ReadContext& context, const std::filesystem::path& path, std::span<const std::filesystem::path> all) {
    Source source{path, nullptr, std::nullopt, below(path, all)};
    auto opened = open_source(context, path, source.apart);
    if (opened) source.container = std::move(*opened);
    else source.error = std::move(opened).error();
    return source;
}

std::vector<Source> open_sources(const ReadContext& context, std::span<const std::filesystem::path> paths) {
    std::vector<Source> out;
    for (const auto& path : paths) out.push_back(open_one_of(context, path, paths));
    return out;
}

void mark_effective(std::vector<CatalogItem>& items) {
    // Paths inside archives inside count with their steps.
    std::vector<std::pair<std::uint64_t, std::uint32_t>> hashes(items.size());  // of the keys (XXH3, 64 bits), and whose
    in_chunks(items.size(), [&](std::size_t begin, std::size_t end) {
        for (auto i = begin; i < end; ++i) {
            const auto key = path_key(items[i].inner);
            hashes[i] = {XXH3_64bits(key.data(), key.size()), static_cast<std::uint32_t>(i)};
            items[i].effective = true;
        }
    });
    std::sort(hashes.begin(), hashes.end());
    // Of several with one path in one source the last counts, as most readers take it.
    const auto wins = [&](std::size_t a, std::size_t b) { return std::pair(items[a].source, a) > std::pair(items[b].source, b); };
    for (std::size_t from = 0, to = 0; from < hashes.size(); from = to) {
        while (to < hashes.size() && hashes[to].first == hashes[from].first) ++to;
        if (to - from == 1) continue;
        std::unordered_map<std::string, std::size_t> best;  // two keys with one hash are rare, but somebody may make them
        for (auto k = from; k < to; ++k) {
            const std::size_t i = hashes[k].second;
            const auto [one, first] = best.try_emplace(path_key(items[i].inner), i);
            if (first) continue;
            const auto loser = wins(i, one->second) ? std::exchange(one->second, i) : i;
            items[loser].effective = false;
        }
    }
}

Result<Catalog> build_catalog(const ReadContext& context, std::span<const Source> sources, Progress& progress,
                              const CatalogOptions& options) {
    Catalog catalog;
    Builder builder(context, progress, options);
    const auto show = [&] {
        mark_effective(catalog.items);
        options.so_far(catalog);
    };
    for (std::size_t s = 0; s < sources.size(); ++s) {
        if (!sources[s].container) continue;
        const auto first = catalog.items.size();
        if (auto known = options.known ? options.known(sources[s]) : std::nullopt) {
            for (auto& item : *known) {
                item.source = s;
                if (item.error) builder.report(*item.error);
                catalog.items.push_back(std::move(item));
            }
        } else {
            for (const auto& problem : sources[s].container->problems())
                builder.report(problem.within(sources[s].path.filename().string()));
            builder.begin_source(*sources[s].container);
            builder.look_through(*sources[s].container, s, {}, 0, catalog.items, options.so_far ? show : std::function<void()>());
            SKIVET_CHECK(progress.cancel.check());
            if (options.looked_through) options.looked_through(sources[s], std::span(catalog.items).subspan(first));
        }
        SKIVET_CHECK(progress.cancel.check());
    }
    catalog.problems = std::move(builder).problems();
    mark_effective(catalog.items);
    return catalog;
}

Address address_of(const Source& source, const CatalogItem& item) { return {source.path, item.inner}; }

Result<TextureFile> open_texture(const ReadContext& context, const Source& source, const CatalogItem& item) {
    Bytes bytes;
    if (item.inner.size() == 1 && source.container) {
        const auto entry = source.container->find(item.path());
        if (!entry) return fail(ErrorCode::missing, phrase("there is no entry \"{}\" any more", item.path()));
        SKIVET_TRY(bytes, source.container->read(*entry, context.limits));
    } else {
        SKIVET_TRY(bytes, read_address(context, address_of(source, item)));
    }
    const auto read =
        source.container ? siblings_of(context, *source.container, item.inner) : siblings_of(context, address_of(source, item));
    auto texture = open_spread(context.textures, std::move(bytes), item.path(), read, context.limits);
    if (!texture) return fail(std::move(texture).error().within(item.path()));
    return texture;
}

}  // namespace skivet

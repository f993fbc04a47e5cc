// Commands that look at every picture: list with roles, find-picture, roles.
#include "cli/catalog_look.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <ostream>

#include "base/file_write.h"
#include "base/text.h"
#include "bench/fitting.h"
#include "catalog/query.h"
#include "cli/json_line.h"
#include "cli/lines.h"
#include "cli/terminal.h"
#include "container/texture_files.h"

namespace skivet::cli {

using nlohmann::json;

namespace {

Result<ReadCatalog> look_once(Context& c, std::vector<Source> sources, const std::filesystem::path& index, const CatalogOptions& options,
                              bool roles_too, const Shard& shard) {
    ReadCatalog out;
    out.sources = std::move(sources);
    SKIVET_TRY(const auto store, IndexStore::open(index));
    Progress progress;
    progress.cancel = c.cancel;
    if (!index.empty()) {
        SKIVET_TRY(out.catalog, build_indexed_catalog(c.context, out.sources, *store, progress));
    } else {
        SKIVET_TRY(out.catalog, build_catalog(c.context, out.sources, progress, options));
    }
    const Shown shown(c, progress, "Looking at pictures");
    auto known = known_facts(out.catalog, *store);
    out.mine.assign(out.catalog.items.size(), shard.is_all());
    if (!shard.is_all()) {
        std::vector<std::uint64_t> sizes;
        std::vector<std::size_t> textures;
        for (std::size_t i = 0; i < out.catalog.items.size(); ++i)
            if (out.catalog.items[i].is_texture()) textures.push_back(i), sizes.push_back(out.catalog.items[i].size);
        for (const auto i : part_of(sizes, shard)) out.mine[textures[i]] = true;
        std::erase_if(known.todo, [&](std::size_t i) { return !out.mine[i]; });
    }
    SKIVET_CHECK(measure_pictures(c.context, out.sources, out.catalog, known.todo, *store, nullptr, progress,
                                  [&, mutex = std::make_shared<std::mutex>()](std::vector<LookedAt> seen) {
                                      const std::lock_guard lock(*mutex);
                                      for (auto& s : seen) known.facts[s.item] = std::move(s.facts);
                                  }));
    SKIVET_CHECK(store->prune());
    if (roles_too) out.analysis = analyze_catalog(out.catalog, std::move(known.facts), {});
    else out.analysis.facts = std::move(known.facts);
    return out;
}

}  // namespace

Result<ReadCatalog> read_catalog(Context& c, std::vector<Source> sources, const std::filesystem::path& index, const CatalogOptions& options,
                                 bool roles_too, const Shard& shard) {
    auto out = look_once(c, sources, index, options, roles_too, shard);
    if (out || out.error().code != ErrorCode::damaged || index.empty()) return out;
    // It was opened as an index of ours, so it may go: everything in it is found again.
    c.err << fmt::format("skivet-cli: the index {} is damaged ({}) and is made anew\n", index.string(), out.error().what);
    std::error_code code;
    for (const char* tail : {"", "-wal", "-shm"}) std::filesystem::remove(std::filesystem::path(index.string() + tail), code);
    return look_once(c, std::move(sources), index, options, roles_too, shard);
}

int find_picture(Context& c, const FindPictureOptions& options) {
    auto bytes = read_file(options.image, c.context.limits.inflated_bytes);
    if (!bytes) return c.failed(bytes.error());
    auto picture = read_edited(std::move(*bytes), c.context.limits, options.image.string());
    if (!picture) return c.failed(picture.error().within(options.image.filename().string()));
    const std::vector<std::filesystem::path> paths(options.sources.begin(), options.sources.end());
    auto sources = open_sources(c.context, paths);
    int code = 0;
    for (const auto& source : sources)
        if (source.error) code = c.failed(*source.error);
    const auto looked = read_catalog(c, std::move(sources), options.index, {}, false);
    if (!looked) return c.failed(looked.error());
    const auto hits = PictureSearch::build(looked->analysis.facts).find(picture->image, options.top, c.cancel);
    if (!hits) return c.failed(hits.error());
    for (const auto& hit : *hits) {
        const auto& item = looked->catalog.items[hit.picture];
        const auto address = address_of(looked->sources[item.source], item).text();
        if (c.json) {
            const json j = {{"address", address},
                            {"path", item.path()},
                            {"score", std::round(hit.score * 1000) / 1000},
                            {"x", hit.x},
                            {"y", hit.y},
                            {"width", hit.width},
                            {"height", hit.height},
                            {"quarter_turns", hit.quarter_turns},
                            {"mirrored", hit.mirrored},
                            {"effective", item.effective}};
            c.out << dump(j) << '\n';
        } else {
            std::string how;
            if (hit.width * hit.height < 0.8f) how += fmt::format(", {:.0f} % of it", 100 * hit.width * hit.height);
            if (hit.mirrored) how += ", mirrored";
            if (hit.quarter_turns) how += fmt::format(", turned by {}°", 90 * hit.quarter_turns);
            c.out << fmt::format("{:5.3f}  {}{}\n", hit.score, address, how);
        }
    }
    return code == 0 ? 0 : 1;
}

int roles(Context& c, const RolesOptions& options) {
    const std::vector<std::filesystem::path> paths(options.sources.begin(), options.sources.end());
    auto sources = open_sources(c.context, paths);
    int code = 0;
    for (const auto& source : sources)
        if (source.error) code = c.failed(*source.error);
    const auto looked = read_catalog(c, std::move(sources), options.index, {}, options.shard.is_all(), options.shard);
    if (!looked) return c.failed(looked.error());
    const auto& catalog = looked->catalog;
    const auto line = [&](std::size_t i) -> std::string {
        const auto& item = catalog.items[i];
        if (!item.is_texture() || !looked->mine[i]) return {};
        const auto guess = options.by_picture
                               ? (looked->analysis.facts[i] ? guess_by_picture(*looked->analysis.facts[i], item.desc) : RoleGuess{})
                               : looked->analysis.why(catalog, i, {});
        const auto address = address_of(looked->sources[item.source], item).text();
        if (!c.json) return fmt::format("{:<18} {:3.0f} %  {}  ({})\n", name_of(guess.role), 100 * guess.confidence, address, guess.why);
        return std::move(JsonLine()
                             .add("address", address)
                             .add("confidence", std::round(guess.confidence * 100) / 100)
                             .add("path", item.path())
                             .add("role", token_of(guess.role))
                             .add("why", guess.why))
            .line();
    };
    write_lines(c.out, catalog.items.size(), line);
    for (const auto& p : looked->analysis.proposals) {
        const auto text =
            fmt::format("{} \"{}\": {} names, {} of them with a counterpart{}", name_of(p.habit.place), p.habit.word, p.names, p.shared,
                        p.habit.role == Role::unsure ? std::string()
                                                     : fmt::format("; {:.0f} % look like {}", 100 * p.agreement, name_of(p.habit.role)));
        c.err << "skivet-cli: possible habit, " << text << '\n';
    }
    for (const auto& problem : catalog.problems) code = c.failed(problem);
    return code == 0 ? 0 : 1;
}

}  // namespace skivet::cli

// What comes to the bench: textures of the game, and pictures of others.
#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <ostream>
#include <set>

#include "cli/project_work.h"
#include "cli/writing.h"
#include "workflow/bring_in.h"
#include "workflow/kin.h"

namespace skivet::cli {

namespace fs = std::filesystem;
using nlohmann::json;
using namespace project_work;

namespace {

/// The textures, with the other members of their sets and the copies of their pictures as wanted.
std::vector<TakeWith> with_what_belongs(const AnalyzedCatalog& catalog, const std::vector<Address>& addresses,
                                        const ProjectOptions& options) {
    const auto& snapshot = *catalog.snapshot;
    const auto& items = snapshot.catalog.items;
    std::map<std::string, std::size_t> item_of;
    for (std::size_t i = 0; i < items.size(); ++i) item_of[address_of(snapshot.sources[items[i].source], items[i]).text()] = i;
    std::vector<std::size_t> wanted;
    std::vector<TakeWith> out;
    const auto add = [&](std::size_t item) {
        if (std::find(wanted.begin(), wanted.end(), item) == wanted.end()) wanted.push_back(item);
    };
    for (const auto& address : addresses) {
        const auto found = item_of.find(address.text());
        if (found == item_of.end()) {
            out.push_back({address});  // taking it says what is wrong
            continue;
        }
        add(found->second);
        const auto set = catalog.analysis.set_of[found->second];
        if (!options.sets || set == CatalogAnalysis::no_set) continue;
        for (const auto member : catalog.analysis.sets[set]) add(member);
    }
    if (options.copies) {
        auto more = with_copies(catalog, wanted);
        std::move(more.begin(), more.end(), std::back_inserter(out));
        return out;
    }
    for (const auto item : wanted) out.push_back({address_of(snapshot.sources[items[item].source], items[item])});
    return out;
}

int take_one_variant(Context& c, Open& project, const ProjectOptions& options, const TakeAs& as) {
    if (options.sources.size() != 1) return c.failed(Error{ErrorCode::usage, "--variant is of one texture", {}, {}, "Name one address"});
    auto like = parse_address(options.sources.front());
    if (!like) return c.failed(like.error());
    like->source = fs::absolute(like->source).lexically_normal();
    auto piece = take_variant(project.context, project.project(), *like, options.variant, as, now());
    if (!piece) return c.failed(piece.error());
    std::vector<Piece> taken;
    taken.push_back(std::move(*piece));
    for (const auto id : keep_taken(project.project(), std::move(taken))) print_piece(c, *project.project().piece(id), project.project());
    if (auto saved = save_project(project.project()); !saved) return c.failed(saved.error());
    return 0;
}

}  // namespace

int project_take(Context& c, const ProjectOptions& options) {
    const auto as = export_named(options.as);
    if (!as) return c.failed(Error{ErrorCode::usage, "pieces cannot be written as " + options.as, {}, {}, "Choose picture, png, dds …"});
    const auto alpha = alpha_way_named(options.alpha);
    if (!alpha) return c.failed(Error{ErrorCode::usage, "alpha cannot go as " + options.alpha, {}, {}, "Choose keep, split or drop"});
    auto project = open(c, options.folder);
    if (!project) return c.failed(project.error());
    std::vector<Address> addresses;
    for (const auto& text : options.sources) {
        auto address = parse_address(text);
        if (!address) return c.failed(address.error());
        if (address->inner.empty())
            return c.failed(Error{ErrorCode::usage, text + " names a whole file", {}, {}, "Name an entry: archive.zip::path/inside.dds"});
        address->source = fs::absolute(address->source).lexically_normal();
        if (options.variant.empty() && project->project().piece_of(*address))
            c.err << fmt::format("skivet-cli: {} is on the bench already\n", text);
        else addresses.push_back(std::move(*address));
    }
    if (!options.variant.empty()) return take_one_variant(c, *project, options, {*as, *alpha, options.parts});
    std::vector<TakeWith> wanted;
    for (const auto& address : addresses) wanted.push_back({address});
    if (options.sets || options.copies) {
        const auto catalog = seen_catalog(c, *project);
        if (!catalog) return c.failed(catalog.error());
        wanted = with_what_belongs(**catalog, addresses, options);
    }
    auto taken = take_pieces(project->context, project->project(), wanted, {*as, *alpha, options.parts}, now());
    int code = 0;
    for (const auto& error : taken.errors) code = c.failed(error);
    const bool any = !taken.pieces.empty();
    for (const auto id : keep_taken(project->project(), std::move(taken.pieces)))
        print_piece(c, *project->project().piece(id), project->project());
    if (auto saved = save_project(project->project()); !saved) return c.failed(saved.error());
    return code != 0 && any ? 1 : code;
}

int project_bring(Context& c, const ProjectOptions& options) {
    auto project = open(c, options.folder);
    if (!project) return c.failed(project.error());
    const auto seen = seen_catalog(c, *project);
    if (!seen) return c.failed(seen.error());
    Progress progress;
    progress.cancel = c.cancel;
    const auto found = match_folder(**seen, project->project(), options.pictures, project->context.limits, progress);
    if (!found) return c.failed(found.error());
    int code = 0;
    for (const auto& error : found->errors) code = c.failed(error);
    const auto& snapshot = *(*seen)->snapshot;
    const auto address = [&](std::size_t item) {
        return address_of(snapshot.sources[snapshot.catalog.items[item].source], snapshot.catalog.items[item]);
    };
    for (const auto& match : found->matches) {
        const bool take = options.bring == "all" || (options.bring == "sure" && match.doubt.empty());
        if (c.json) {
            json others = json::array();
            for (const auto other : match.others) others.push_back(address(other).text());
            print(c, {{"file", match.file.generic_string()},
                      {"address", address(match.item).text()},
                      {"by", std::string(name_of(match.by))},
                      {"doubt", match.doubt},
                      {"others", others},
                      {"taken", take}});
        } else {
            c.out << fmt::format("{} {} → {} (by {}{}{})\n",
                                 take                  ? "+"
                                 : match.doubt.empty() ? " "
                                                       : "?",
                                 match.file.generic_string(), address(match.item).text(), name_of(match.by),
                                 match.doubt.empty() ? "" : ": ", match.doubt);
        }
        if (!take) continue;
        if (auto done = bring_in(project->context, project->project(), address(match.item), options.pictures / match.file, now()); !done)
            code = c.failed(done.error());
    }
    for (const auto& file : found->unmatched) {
        if (c.json) print(c, {{"file", file.generic_string()}, {"address", nullptr}});
        else c.out << fmt::format("- {}: fits nothing\n", file.generic_string());
    }
    if (auto saved = save_project(project->project()); !saved) return c.failed(saved.error());
    return code;
}

}  // namespace skivet::cli

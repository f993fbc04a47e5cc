// Putting one's work in again after the game was updated.
#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <ostream>

#include "cli/project_work.h"
#include "cli/writing.h"
#include "workflow/update.h"

namespace skivet::cli {

using nlohmann::json;
using namespace project_work;

namespace {

void print_update(Context& c, const GameUpdate& update) {
    for (const auto& piece : update.pieces) {
        if (c.json)
            print(c, {{"piece", piece.id},
                      {"name", piece.name},
                      {"how", std::string(name_of(piece.how))},
                      {"address", piece.address.text()},
                      {"goes_in", goes_in(piece.how)},
                      {"sure", is_sure(piece.how)}});
        else c.out << fmt::format("{:>4}  {:<26} {}\n", piece.id, name_of(piece.how), piece.address.text());
    }
    for (const auto& parcel : update.parcels) {
        if (c.json) print(c, {{"parcel", parcel.id}, {"goes_in", parcel.matches.size()}, {"left_out", parcel.left_out}});
        else {
            c.out << fmt::format(
                "{}: {} again\n", parcel.title,
                parcel.matches.size() == 1 ? "1 texture goes in" : fmt::format("{} textures go in", parcel.matches.size()));
            for (const auto& text : parcel.left_out) c.out << "      " << text << '\n';
        }
    }
}

}  // namespace

int project_update(Context& c, const ProjectOptions& options) {
    auto open_project = open(c, options.folder);
    if (!open_project) return c.failed(open_project.error());
    auto& project = open_project->project();
    PosixFiles files;
    auto vault = vault_of(project, files);
    vault.heed(c.cancel);
    Progress progress;
    progress.cancel = c.cancel;
    auto update = look_for_update(open_project->context, project, vault, progress);
    if (!update) return c.failed(update.error());
    print_update(c, *update);
    std::vector<PieceId> chosen;
    if (!options.over.empty()) {
        const auto over = pieces_named(project, options.over);
        if (!over) return c.failed(over.error());
        for (auto& piece : update->pieces) {
            if (std::find(over->begin(), over->end(), piece.id) == over->end() || piece.how != UpdateHow::same_place) continue;
            auto file = over_the_new(open_project->context, project, piece);
            if (!file) return c.failed(file.error().within(piece.name));
            piece.becomes = std::move(*file);
            chosen.push_back(piece.id);
        }
    }
    if ((options.put.empty() && chosen.empty()) || update->empty()) {
        if (update->empty() && !c.json) c.out << "everything is in the game as it was delivered\n";
        return 0;
    }
    bool left = false;
    for (const auto& piece : update->pieces)
        if (options.put == "all" ? goes_in(piece.how) : options.put == "sure" && is_sure(piece.how)) chosen.push_back(piece.id);
        else left = left || std::find(chosen.begin(), chosen.end(), piece.id) == chosen.end();
    const auto plan = plan_update(open_project->context, project, std::move(*update), std::move(chosen));
    if (!plan) return c.failed(plan.error());
    const Writing writing(c);
    if (!writing.may()) return c.failed(c.cancel.check().error());
    const auto done = put_in_again(open_project->context, project, *plan, vault, now());
    note_updated(project, *plan, done);
    if (auto saved = save_project(project); !saved) return c.failed(saved.error());
    if (done.delivered.error) return c.failed(*done.delivered.error);
    for (const auto& error : done.errors) c.failed(error);
    for (const auto& journal : done.delivered.history)
        if (journal.id == done.delivered.id) print_journal(c, journal);
    return left || !done.errors.empty() ? 1 : 0;
}

}  // namespace skivet::cli

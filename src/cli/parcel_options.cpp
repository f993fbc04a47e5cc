// What `skivet-cli parcel` takes.
#include <CLI/CLI.hpp>

#include "cli/parcel_commands.h"

namespace skivet::cli {

void add_parcel_commands(CLI::App& app, ParcelOptions& options, const std::function<void(CLI::App*)>& common,
                         const std::function<void(int (*)(Context&, const ParcelOptions&), bool)>& chosen) {
    auto* parcel = app.add_subcommand("parcel", "Mods as files: made of a project, put into another installation, taken out again");
    parcel->require_subcommand(1);
    const auto add = [&](const char* name, const char* what, int (*run)(Context&, const ParcelOptions&), bool writes = false) {
        auto* sub = parcel->add_subcommand(name, what);
        common(sub);
        sub->callback([&chosen, run, writes] { chosen(run, writes); });
        return sub;
    };
    const auto with_project = [&](CLI::App* sub) { sub->add_option("DIR", options.project, "The project's folder")->required(); };
    const auto with_file = [&](CLI::App* sub) {
        sub->add_option("FILE", options.file, "A parcel, or a folder or archive whose paths mirror the game's")->required();
    };
    const auto with_id = [&](CLI::App* sub, const char* what) { sub->add_option("ID", options.id, what)->required(); };
    const auto dry = [&](CLI::App* sub) { sub->add_flag("--dry-run", options.dry_run, "Only say what would be written"); };

    auto* sub = add("make", "Make a parcel of what is edited: the changes, and nothing of the game", parcel_make);
    with_project(sub);
    sub->add_option("PIECE", options.pieces, "Numbers, names or addresses of pieces; all that are edited when none is named");
    sub->add_option("--out", options.out, "The file")->required()->type_name("FILE");
    sub->add_option("--title", options.title, "What people call it")->required();
    sub->add_option("--id", options.id, "What stays the same over its versions; otherwise made of the title");
    sub->add_option("--author", options.author, "Who made it");
    sub->add_option("--set-version", options.version, "Its version, such as 1.0")->type_name("TEXT");
    sub->add_option("--license", options.license, "As SPDX names it: CC-BY-4.0");
    sub->add_option("--notes", options.notes, "What it does, for whoever puts it in");
    sub->add_option("--game", options.game, "For which game it is, in words");
    sub->add_option("--needs", options.needs, "A parcel that must be installed")->type_name("ID[@VERSION]");
    sub->add_option("--not-with", options.not_with, "A parcel that must not be")->type_name("ID[@VERSION]");
    sub->add_option("--own", options.own,
                    "A piece that is wholly your own work: where it is no change of some blocks (another size, another format), the whole "
                    "texture goes in; \"all\" for all")
        ->type_name("PIECE");
    sub->add_option("--pictures", options.pictures, "How many textures are shown before and after")->capture_default_str();

    sub = add("show", "What is in a parcel, or in a mod of another form", parcel_show);
    with_file(sub);
    sub->add_option("--in", options.project, "Also how it fits this project's game")->type_name("DIR");
    sub = add("check", "Whether a parcel is sound; everything in it is read", parcel_check);
    with_file(sub);
    sub = add("install", "Put a parcel into the game, above the others and below one's own work", parcel_install, true);
    with_project(sub);
    with_file(sub);
    dry(sub);
    sub = add("remove", "Take a parcel out: the game is what the others alone make of it", parcel_remove, true);
    with_project(sub);
    with_id(sub, "As list names it");
    dry(sub);
    with_project(add("list", "Installed parcels and one's own work, the uppermost first", parcel_list));
    sub = add("order", "Move a parcel, or one's own work, to another place", parcel_order, true);
    with_project(sub);
    with_id(sub, "As list names it; own: one's own work");
    sub->add_option("PLACE", options.place, "1 is the lowest")->required()->check(CLI::Range(1, 100000));
    dry(sub);
    sub = add("prefer", "Say which stays where two change the same place of a texture", parcel_prefer, true);
    with_project(sub);
    sub->add_option("ADDRESS", options.address, "The texture: archive.zip::path/inside.dds")->required();
    with_id(sub, "As list names it; own: one's own work");
    dry(sub);
}

}  // namespace skivet::cli

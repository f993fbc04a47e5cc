// What `skivet-cli project` takes.
#include <CLI/CLI.hpp>

#include "bench/mends.h"
#include "cli/checks.h"
#include "cli/project_commands.h"

namespace skivet::cli {

void add_project_commands(CLI::App& app, ProjectOptions& options, const std::function<void(CLI::App*)>& common,
                          const std::function<void(int (*)(Context&, const ProjectOptions&), bool)>& chosen) {
    auto* project = app.add_subcommand("project", "Work in a project, the same one the window opens");
    project->require_subcommand(1);
    const auto add = [&](const char* name, const char* what, int (*run)(Context&, const ProjectOptions&), bool writes = false) {
        auto* sub = project->add_subcommand(name, what);
        sub->add_option("DIR", options.folder, "The project's folder")->required();
        common(sub);
        sub->callback([&chosen, run, writes] { chosen(run, writes); });
        return sub;
    };
    const auto with_pieces = [&](CLI::App* sub) {
        sub->add_option("PIECE", options.pieces, "Numbers, names or addresses of pieces; all when none is named");
    };
    const auto with_destination = [&](CLI::App* sub) {
        sub->add_option(
               "--to", options.to,
               "Into the archives, beside them as loose files, as patch archives, or onto a card or device; otherwise as the project says")
            ->check(CLI::IsMember({"archives", "beside", "patch", "device"}));
    };
    auto* sub = add("new", "Make a project", project_new);
    sub->add_option("--game", options.game, "The game's folder: its archives become the sources")->type_name("DIR");
    sub->add_option("SOURCE", options.sources, "Archives and folders");
    add("status", "Sources, and pieces with their states", project_status);
    sub = add("set", "Say where deliveries go, and how the game is started", project_set);
    with_destination(sub);
    sub->add_option("--override", options.override_folder, "The folder for loose files, inside the game's; \"\" for the one proposed")
        ->type_name("DIR");
    sub->add_option("--patch-name", options.patch_name, "How patch archives are named, with {name} and {n}; \"\" for what is proposed")
        ->type_name("NAME");
    sub->add_option("--override-layout", options.override_layout,
                    "How loose files lie in it, with {path}, {file}, {archive} and {group}; \"\" for what is proposed")
        ->type_name("LAYOUT");
    sub->add_option("--list", options.list_file,
                    "The game's list that patch archives are added to, inside the game's folder; \"\" for the one the load order was read "
                    "from, - for none")
        ->type_name("FILE");
    sub->add_option("--device", options.device, "The folder of a card or device; \"\" for none")->type_name("DIR");
    sub->add_option("--device-layout", options.device_layout, "How files lie in it, as for loose files; \"\" for {path}")
        ->type_name("LAYOUT");
    sub->add_option("--device-files", options.device_files,
                    "What goes there: the game's files whole as they become, or textures as loose files")
        ->check(CLI::IsMember({"whole", "loose"}));
    sub->add_option("--device-largest", options.device_largest, "Bytes of the largest file it holds; larger ones are cut")
        ->type_name("BYTES");
    sub->add_option("--device-part", options.device_part, "What the names of the parts end in; \"\" for .{nn}")->type_name("ENDING");
    sub->add_option("--play", options.play, "How the game is started: program and arguments")->type_name("COMMAND");
    sub->add_option("--play-folder", options.play_folder, "The folder it is started in; \"\" for the game's")->type_name("DIR");
    sub->add_option("--play-environment", options.play_environment, "NAME=value, as often as needed; \"\" for none")
        ->type_name("NAME=VALUE");
    sub->add_option("--play-log", options.play_log, "A log the game writes, inside its folder; \"\" for none")->type_name("FILE");
    sub->add_option("--set-unpacker", options.unpackers, "A program of yours for a packer that sheets name: NAME=COMMAND")
        ->type_name("NAME=COMMAND");
    sub->add_option("--set-packer", options.packers, "… and the one that packs")->type_name("NAME=COMMAND");
    sub->add_option("--forget-packer", options.forget_packers, "Remove one")->type_name("NAME");
    add("play", "Start the game as the project says", project_play);
    add("add", "Add archives and folders; later ones win", project_add)
        ->add_option("SOURCE", options.sources, "Archives and folders")
        ->required();
    sub = add("take", "Write textures out to work on", project_take);
    sub->add_option("ADDRESS", options.sources, "Textures: archive.zip::path/inside.dds")->required();
    sub->add_option("--as", options.as, "picture (what loses nothing: png, or exr, dds …), png, png16, exr, tga, tiff, dds, ktx2 or raw")
        ->capture_default_str();
    sub->add_option("--alpha", options.alpha, "keep, split into a gray image beside, or drop: then the original's comes back")
        ->check(CLI::IsMember({"keep", "split", "drop"}))
        ->capture_default_str();
    sub->add_flag("--parts", options.parts, "Each face of a cubemap and each layer of an array as a file of its own");
    sub->add_option(
           "--variant", options.variant,
           "Take a variant of the one texture: the same under this path of its own, which comes into the archive with the delivery")
        ->type_name("PATH");
    sub->add_flag("--sets", options.sets, "With the other textures of their sets");
    sub->add_flag("--copies", options.copies, "What shows the same picture follows, at any size");
    sub = add("bring", "Match the pictures of a folder to textures; with --take they become their edits", project_bring);
    sub->add_option("FOLDER", options.pictures, "A folder with pictures")->required()->check(CLI::ExistingDirectory);
    sub->add_option("--take", options.bring,
                    "Those that are sure, or all, with the first texture that fits; otherwise they are only listed")
        ->check(CLI::IsMember({"sure", "all"}));
    sub = add("fit", "See what the game will get of the edits", project_fit);
    add_shard(sub, options.shard);
    with_pieces(sub);
    sub = add("mend", "Make the repairs that are offered, and fit again", project_mend);
    sub->add_option("--do", options.mends, "Which, with commas between: " + mend_words())->type_name("LIST");
    sub->add_option("--format", options.format, "The format they get instead of their own, where their files can say it; own: their own")
        ->type_name("FORMAT");
    with_pieces(sub);
    sub = add("touch", "Give pieces touch-ups, and fit again; without --do and --clear: say which they have", project_touch);
    sub->add_option("--do", options.touches,
                    "A touch-up behind those there are: NAME=VALUE,…; a mask by mask:…; pictures lie in the project's work folder. See "
                    "skivet-cli touch --help")
        ->type_name("TOUCH")
        ->allow_extra_args(false);
    sub->add_flag("--clear", options.clear, "Forget those there are first");
    with_pieces(sub);
    sub = add("plan", "What a delivery would write", project_plan);
    with_destination(sub);
    with_pieces(sub);
    sub = add("deliver", "Write into the game, read it back and compare", project_deliver, true);
    with_destination(sub);
    with_pieces(sub);
    sub = add("undo", "Put back what the newest delivery overwrote", project_undo, true);
    sub->add_option("DELIVERY", options.id, "Another one, as history names it");
    sub->add_flag("--all", options.all, "All of them, the newest first");
    sub = add("shipped", "The versions of the game that were recorded as shipped, and what was changed since", project_shipped);
    sub->add_option("--record", options.record_as, "Record the installation, which is clean now, under this name")->type_name("NAME");
    sub->add_option("--compare", options.compare_with, "Compare with this version from now on")->type_name("NAME");
    sub->add_option("--forget", options.forget_version, "Forget this version")->type_name("NAME");
    sub->add_flag("--changes", options.list_changes, "List the textures that are other than in the version, and not by deliveries");
    sub = add("update", "After an update of the game: what became of the edited pieces and of parcels; with --put they go in again",
              project_update, true);
    sub->add_option(
           "--put", options.put,
           "sure: where the game has the original again, wherever it lies now; all: also where the game's texture changed elsewhere, "
           "or was compressed anew; otherwise they are only listed")
        ->check(CLI::IsMember({"sure", "all"}));
    sub->add_option("--over", options.over, "A piece that goes in although the game changed the same place, over it")->type_name("PIECE");
    add("history", "Deliveries that can be undone, the oldest first", project_history);
}

}  // namespace skivet::cli

#include "cli/run.h"

#include <fmt/format.h>

#include <tbb/global_control.h>
#include <cerrno>
#include <CLI/CLI.hpp>
#include <cstring>
#include <ostream>
#include <sstream>

#include "base/file_write.h"
#include "bench/mends.h"
#include "cli/checks.h"
#include "cli/commands.h"
#include "cli/describe.h"
#include "cli/parcel_commands.h"
#include "cli/project_commands.h"
#include "container/sheet_folders.h"
#include "delivery/vault.h"
#include "touch/touch_up.h"

namespace skivet::cli {

bool Interruption::begin_writing() {
    const std::lock_guard lock(mutex_);
    if (cancel.canceled()) return false;
    ++writing_;
    return true;
}

void Interruption::end_writing() {
    const std::lock_guard lock(mutex_);
    --writing_;
}

Result<PackerPrograms> packer_programs(const std::vector<std::string>& unpackers, const std::vector<std::string>& packers,
                                       PackerPrograms out) {
    const auto take = [&](const std::string& text, std::vector<std::string> PackerProgram::*which) -> Status {
        const auto equals = text.find('=');
        if (equals == 0 || equals == std::string::npos)
            return fail(ErrorCode::usage, fmt::format("{}: write NAME=COMMAND, such as \"brass=/home/me/brass unpack {{size}}\"", text));
        const auto name = text.substr(0, equals);
        auto program = out.find(name) ? *out.find(name) : PackerProgram{name, {}, {}};
        SKIVET_TRY(program.*which, command_words(std::string_view(text).substr(equals + 1)));
        out.add(std::move(program));
        return {};
    };
    for (const auto& text : unpackers) SKIVET_CHECK(take(text, &PackerProgram::unpack));
    for (const auto& text : packers) SKIVET_CHECK(take(text, &PackerProgram::pack));
    for (const auto& program : out.all())
        if (program.unpack.empty())
            return fail(ErrorCode::usage, fmt::format("the packer \"{}\" has no command for unpacking", program.name),
                        "Give one with --unpacker");
    return out;
}

int run(const std::vector<std::string>& arguments, std::ostream& out, std::ostream& err, Interruption* interruption,
        const Terminal& terminal) {
    CLI::App app("Finds the textures inside game archives, takes them out, and puts edits back with nothing else changed.", "skivet-cli");
    app.require_subcommand(1);
    app.set_version_flag("--version", std::string("skivet-cli ") + SKIVET_VERSION);
    app.footer(
        "Addresses: archive.zip::path/inside.dds, and :: again for an archive inside. A name with :: in it is written :\\:.\n"
        "Exit codes: 0 done, 1 done in part, 2 wrong use, 3 input refused, 4 the system failed, 130 canceled.");
    Context c{{}, out, err, interruption ? interruption->cancel : CancelToken(), false, false, terminal, Vault::default_folder()};
    c.interruption = interruption;
    app.set_config("--config", (user_config_folder() / "cli.toml").string(),
                   "File of defaults: a table for each command, with its options without dashes")
        ->type_name("FILE");
    std::vector<std::string> sheets, keys, choices, paths, packers, unpackers;
    int code = 0, jobs = 0;
    bool writes = false;  // game files; those commands first put right what was cut short
    std::function<int()> command;
    const auto common = [&](CLI::App* sub) {
        sub->add_flag("--json", c.json, "Print JSON Lines");
        if (!sub->get_option_no_throw("--jobs"))
            sub->add_option("--jobs", jobs, "How many threads compute at once; 0: all cores")
                ->type_name("N")
                ->check(CLI::Range(0, 256))
                ->capture_default_str();
        sub->add_flag("--quiet", c.quiet, "No progress, and no word where all went well");
        // One value each time an option is given, so that what follows is a source and not swallowed.
        sub->add_option("--sheet", sheets, "Also use this sheet")->type_name("FILE")->allow_extra_args(false);
        sub->add_option("--key", keys, "A key or password: NAME=HEX, NAME=text:WORDS or NAME=@FILE")
            ->type_name("NAME=HEX")
            ->allow_extra_args(false);
        sub->add_option("--unpacker", unpackers,
                        "Your program for a packer a sheet names: NAME=COMMAND, with {size} and {packed}; it runs in a sandbox")
            ->type_name("NAME=COMMAND")
            ->allow_extra_args(false);
        sub->add_option("--packer", packers, "… and the one that packs")->type_name("NAME=COMMAND")->allow_extra_args(false);
        sub->add_option("--kind", choices, "Take files that fit a pattern for a kind of archive, for example '*.pak=ZIP'")
            ->type_name("GLOB=KIND")
            ->allow_extra_args(false);
        sub->add_option("--paths", paths, "File of known paths for archives with hashed names, one a line")
            ->type_name("FILE")
            ->allow_extra_args(false);
    };
    const auto with_vault = [&](CLI::App* sub) {
        sub->add_option_function<std::string>(
               "--vault", [&](const std::string& folder) { c.vault = folder, c.vault_chosen = true; }, "Where overwritten bytes are kept")
            ->type_name("DIR");
    };

    ListOptions list_options;
    auto* sub = app.add_subcommand("list", "List the entries of archives and folders");
    sub->add_option("SOURCE", list_options.sources, "Archives and folders; later ones win")->required();
    sub->add_flag("--textures", list_options.textures, "Only textures and images");
    sub->add_flag("--recursive", list_options.recursive, "Also inside archives inside");
    sub->add_option("--match", list_options.match, "Only paths that fit a pattern with * and ?")
        ->type_name("GLOB")
        ->allow_extra_args(false);
    sub->add_option("--roles", list_options.roles,
                    "What roles in JSON are told from: name, which is done at once, or picture, as with --index")
        ->check(CLI::IsMember({"name", "picture"}));
    const auto with_index = [&](CLI::App* to, std::filesystem::path& file) {
        to->add_option("--index", file, "Keep what was seen in this file, and use it")->type_name("FILE");
    };
    with_index(sub, list_options.index);
    common(sub);
    sub->callback([&] { command = [&] { return list(c, list_options); }; });

    std::string surveyed;
    sub = app.add_subcommand("survey", "Find the archives and loose textures of an installed game, and their order");
    sub->add_option("FOLDER", surveyed, "The folder the game is installed in")->required();
    common(sub);
    sub->callback([&] { command = [&] { return survey(c, surveyed); }; });

    FindPictureOptions picture_options;
    sub = app.add_subcommand("find-picture", "Find the textures that look like an image, or like the texture it is a part of");
    sub->add_option("IMAGE", picture_options.image, "The image")->required();
    sub->add_option("SOURCE", picture_options.sources, "Archives and folders")->required();
    sub->add_option("--top", picture_options.top, "How many")->type_name("N")->check(CLI::Range(1, 10000))->capture_default_str();
    with_index(sub, picture_options.index);
    common(sub);
    sub->callback([&] { command = [&] { return find_picture(c, picture_options); }; });

    RolesOptions roles_options;
    sub = app.add_subcommand("roles", "Say what each texture is for, and why");
    sub->add_option("SOURCE", roles_options.sources, "Archives and folders")->required();
    sub->add_flag("--by-picture", roles_options.by_picture, "By the pixels alone, whatever the name says");
    with_index(sub, roles_options.index);
    add_shard(sub, roles_options.shard);
    common(sub);
    sub->callback([&] {
        if (!roles_options.shard.is_all() && !roles_options.by_picture)
            throw CLI::ValidationError(
                "roles", "--shard needs --by-picture: with the help of names and sets a role is told from all pictures together");
        command = [&] { return roles(c, roles_options); };
    });

    std::string address;
    sub = app.add_subcommand("show", "Show all facts of one entry");
    sub->add_option("ADDRESS", address, "A texture, or any entry: archive.zip::path/inside.dds")->required();
    common(sub);
    sub->callback([&] { command = [&] { return show(c, address); }; });

    ExtractOptions extract_options;
    sub = app.add_subcommand("extract", "Take the bytes of one entry out");
    sub->add_option("ADDRESS", extract_options.address, "The entry: archive.zip::path/inside.bin")->required();
    sub->add_option("--out", extract_options.out, "The file to write, or - for the output; otherwise the entry's own name")
        ->type_name("FILE");
    sub->add_flag("--stored", extract_options.stored, "As it lies in the archive: packed, encrypted");
    common(sub);
    sub->callback([&] { command = [&] { return extract(c, extract_options); }; });

    ExportOptions export_options;
    sub = app.add_subcommand("export", "Write textures as files");
    sub->add_option("SOURCE_OR_ADDRESS", export_options.sources, "Archives, folders, textures, or entries of archives")->required();
    sub->add_option("--to", export_options.to, "Target folder")->required()->type_name("DIR");
    sub->add_option("--as", export_options.as, "picture (png, or exr for floats), png, png16, dds, ktx2, tga, tiff, exr or raw")
        ->capture_default_str();
    sub->add_option("--faces", export_options.faces, "A cubemap as cross, as six files, or only the first face")
        ->check(CLI::IsMember({"cross", "six", "first"}))
        ->capture_default_str();
    sub->add_option("--layers", export_options.layers, "All layers of an array and slices of a volume, or only the first")
        ->check(CLI::IsMember({"all", "first"}))
        ->capture_default_str();
    sub->add_option("--match", export_options.match, "Only paths that fit a pattern")->type_name("GLOB")->allow_extra_args(false);
    sub->add_option("--mip", export_options.mip, "A level, or all")->check(word_or_number({"all"}, 0, 31))->capture_default_str();
    sub->add_option("--alpha", export_options.alpha, "keep, split into a gray image, or drop")
        ->check(CLI::IsMember({"keep", "split", "drop"}))
        ->capture_default_str();
    sub->add_option("--jobs", export_options.jobs, "How many at once; 0: all cores")
        ->type_name("N")
        ->check(CLI::Range(0, 256))
        ->capture_default_str();
    auto* flat = sub->add_flag("--flat", export_options.flat, "No folders; names that would meet get a number");
    sub->add_flag("--sets", export_options.sets, "A folder for each set of textures that belong together")->excludes(flat);
    auto* fat32 = sub->add_flag("--fat32", export_options.fat32, "Cut files of more than 4 GiB less one byte");
    sub->add_option("--part-size", export_options.part_bytes, "Cut files of more bytes into name.000, name.001 …")
        ->type_name("BYTES")
        ->excludes(fat32);
    auto* resume = sub->add_flag("--resume", export_options.resume, "Leave out what is already there");
    sub->add_flag("--force", export_options.force, "Write also over files that no export made or that were changed since")
        ->excludes(resume);
    add_shard(sub, export_options.shard);
    common(sub);
    sub->callback([&] { command = [&] { return export_entries(c, export_options); }; });

    EncodeCommand encode_options;
    sub = app.add_subcommand("encode", "Make a texture from an image, or textures from a folder of images");
    sub->add_option("IMAGE", encode_options.image, "The image, - for the standard input, or a folder")->required();
    sub->add_option(
           "--out", encode_options.out,
           "The texture's file (.dds, .ktx or .ktx2; with --like of the same kind), - for the output, or of a folder the folder for "
           "its textures")
        ->required()
        ->type_name("FILE");
    auto* format = sub->add_option("--format", encode_options.format, "A format name, for example BC1");
    auto* like =
        sub->add_option("--like", encode_options.like, "Take everything from this texture, unchanged blocks included")->excludes(format);
    format->excludes(like);
    sub->add_flag("--resize-texture", encode_options.resize_texture, "Give the texture the picture's size, where its file can say so")
        ->needs(like);
    sub->add_option("--mend", encode_options.mends, "Repairs that are made where they are due, with commas between: " + mend_words())
        ->type_name("LIST")
        ->needs(like);
    sub->add_option("--mips", encode_options.mips, "full, none or a number")
        ->check(word_or_number({"full", "none"}, 1, 32))
        ->capture_default_str();
    sub->add_option("--effort", encode_options.effort, "fast, normal or best")
        ->check(CLI::IsMember({"fast", "normal", "best"}))
        ->capture_default_str();
    sub->add_option("--as", encode_options.as, "What a folder's textures become: dds, ktx or ktx2")
        ->check(CLI::IsMember({"dds", "ktx", "ktx2"}))
        ->capture_default_str();
    sub->add_flag("--resume", encode_options.resume, "Of a folder: leave out what is already there");
    add_shard(sub, encode_options.shard);
    sub->add_option("--color", encode_options.color, "srgb or linear")->check(CLI::IsMember({"srgb", "linear"}));
    sub->add_option("--jobs", encode_options.jobs, "How many at once; 0: all cores")
        ->type_name("N")
        ->check(CLI::Range(0, 256))
        ->capture_default_str();
    common(sub);
    sub->callback([&] {
        if (encode_options.format.empty() && encode_options.like.empty())
            throw CLI::ValidationError("encode", "--format or --like is needed");
        command = [&] { return encode_image(c, encode_options); };
    });

    ReplaceOptions replace_options;
    sub = app.add_subcommand("replace", "Put a file into an entry");
    sub->add_option("ADDRESS", replace_options.address, "The entry: archive.zip::path/inside.dds, or a texture's file")->required();
    sub->add_option("--with", replace_options.with, "A picture or texture, or - for the standard input")->required()->type_name("FILE");
    sub->add_flag("--dry-run", replace_options.dry_run, "Only show what would be written");
    auto* as_is = sub->add_flag("--as-is", replace_options.as_is, "Put the file in without fitting it");
    sub->add_flag("--resize-texture", replace_options.resize_texture, "Give the texture the picture's size, where its file can say so")
        ->excludes(as_is);
    sub->add_option("--format", replace_options.format, "Give the texture another format, where its file can say so")
        ->type_name("FORMAT")
        ->excludes(as_is);
    sub->add_option("--mend", replace_options.mends, "Repairs that are made where they are due, with commas between: " + mend_words())
        ->type_name("LIST")
        ->excludes(as_is);
    auto* beside =
        sub->add_option("--beside", replace_options.beside, "Write a loose file into an override folder instead")->type_name("DIR");
    sub->add_option("--patch", replace_options.patch, "Make a new archive of the same kind with only this entry instead")
        ->type_name("FILE")
        ->excludes(beside);
    common(sub);
    with_vault(sub);
    sub->callback([&] { writes = !replace_options.dry_run, command = [&] { return replace(c, replace_options); }; });

    AddOptions add_options;
    sub = app.add_subcommand("add", "Put a new entry into an archive or folder");
    sub->add_option("ADDRESS", add_options.address, "Where it will be: archive.zip::textures/horse_blue.dds")->required();
    sub->add_option("--like", add_options.like,
                    "An entry of the same archive that it is a variant of: same format, mips and header; a picture is fitted to it")
        ->type_name("PATH");
    sub->add_option("--with", add_options.with, "What it holds, or - for the standard input; without it, what the other one holds")
        ->type_name("FILE");
    auto* added_as_is = sub->add_flag("--as-is", add_options.as_is, "Put the file in without fitting it");
    sub->add_option("--mend", add_options.mends, "Repairs that are made where they are due, as for replace")
        ->type_name("LIST")
        ->excludes(added_as_is);
    sub->add_flag("--dry-run", add_options.dry_run, "Only show what would be written");
    common(sub);
    with_vault(sub);
    sub->callback([&] {
        if (add_options.like.empty() && add_options.with.empty()) throw CLI::ValidationError("add", "--like or --with is needed");
        writes = !add_options.dry_run, command = [&] { return add_entry(c, add_options); };
    });

    RenameOptions rename_options;
    sub = app.add_subcommand("rename", "Give an entry another name");
    sub->add_option("ADDRESS", rename_options.address, "The entry: archive.zip::path/inside.dds")->required();
    sub->add_option("PATH", rename_options.path, "Its path inside the archive from then on")->required();
    sub->add_flag("--dry-run", rename_options.dry_run, "Only show what would be written");
    common(sub);
    with_vault(sub);
    sub->callback([&] { writes = !rename_options.dry_run, command = [&] { return rename_entry(c, rename_options); }; });

    RemoveOptions remove_options;
    sub = app.add_subcommand("remove", "Take entries out of an archive or folder; restore puts them back");
    sub->add_option("ADDRESS", remove_options.addresses, "All of one archive")->required();
    sub->add_flag("--dry-run", remove_options.dry_run, "Only show what would be written");
    common(sub);
    with_vault(sub);
    sub->callback([&] { writes = !remove_options.dry_run, command = [&] { return remove_entries(c, remove_options); }; });

    ApplyOptions apply_options;
    sub = app.add_subcommand("apply", "Put every file of a folder into the entry with its path");
    sub->add_option("FOLDER", apply_options.folder, "A folder whose files mirror the entries' paths")->required();
    sub->add_option("--into", apply_options.into, "The archive or folder")->required()->type_name("SOURCE");
    beside = sub->add_option("--beside", apply_options.beside, "Write loose files into an override folder instead")->type_name("DIR");
    sub->add_option("--patch", apply_options.patch, "Make a new archive of the same kind with only these entries instead")
        ->type_name("FILE")
        ->excludes(beside);
    sub->add_flag("--dry-run", apply_options.dry_run, "Only show what would be written");
    common(sub);
    with_vault(sub);
    sub->callback([&] { writes = !apply_options.dry_run, command = [&] { return apply_folder(c, apply_options); }; });

    TouchOptions touch_options;
    sub = app.add_subcommand("touch", "Change textures by touch-ups, without a paint program");
    sub->add_option("FILE", touch_options.files, "Texture or picture files, or addresses")->required();
    sub->add_option("--do", touch_options.touches, "A touch-up: NAME=VALUE,…; made in the order given. There are:\n" + touch_words())
        ->type_name("TOUCH")
        ->allow_extra_args(false);
    sub->add_option("--list", touch_options.list, "A list that was kept under a name, or a file with a touch-up a line; made before --do")
        ->type_name("NAME");
    sub->add_option("--keep-as", touch_options.keep_as, "Keep the touch-ups of this call under a name, for every project")
        ->type_name("NAME");
    sub->add_option(
           "--mask", touch_options.mask,
           "Where: red, green, blue, alpha, gray, a color with how near (#a03020~0.1) or a picture (@FILE); \"not \" turns it around")
        ->type_name("MASK");
    sub->add_option("--to", touch_options.to, "Write PNG files there instead of changing anything")->type_name("DIR");
    sub->add_option("--mend", touch_options.mends, "Repairs that are made where they are due, with commas between: " + mend_words())
        ->type_name("LIST");
    auto* force = sub->add_flag("--force", touch_options.force, "Also over pictures that are there");
    sub->add_flag("--resume", touch_options.resume, "Leave out pictures that are already there")->excludes(force);
    add_shard(sub, touch_options.shard);
    sub->add_flag("--dry-run", touch_options.dry_run, "Only show what would be written");
    common(sub);
    with_vault(sub);
    sub->callback([&] {
        if (touch_options.touches.empty() && touch_options.list.empty()) throw CLI::ValidationError("touch", "--do or --list is needed");
        if (!touch_options.shard.is_all() && touch_options.to.empty())
            throw CLI::ValidationError("touch", "--shard needs --to: several machines do not change the same files in place");
        writes = !touch_options.dry_run && touch_options.to.empty();
        command = [&] { return touch_files(c, touch_options); };
    });

    std::string source;
    sub = app.add_subcommand("restore", "Put the original bytes back");
    bool restore_all = false;
    RestoreOptions restore_options;
    sub->add_option("SOURCE", restore_options.source, "The archive or folder; otherwise --all");
    sub->add_option("ADDRESS", restore_options.addresses, "Only these entries of it");
    sub->add_flag("--all", restore_all, "Everything in the vault, every archive");
    sub->add_flag("--unfinished", restore_options.unfinished, "Only what was cut short by a crash");
    common(sub);
    with_vault(sub);
    sub->callback([&] {
        if (!restore_options.source.empty() + restore_all + restore_options.unfinished != 1)
            throw CLI::ValidationError("restore", "say a source, or --all, or --unfinished");
        writes = true;
        command = [&] { return restore(c, restore_options); };
    });

    sub = app.add_subcommand("verify", "Read everything and check every checksum");
    sub->add_option("SOURCE", source, "An archive or folder")->required();
    common(sub);
    sub->callback([&] { command = [&] { return verify(c, source); }; });

    std::string first, second;
    sub = app.add_subcommand("compare", "Compare two textures or images");
    sub->add_option("A", first, "A texture or image")->required();
    sub->add_option("B", second, "The one it is compared with")->required();
    common(sub);
    sub->callback([&] { command = [&] { return compare(c, first, second); }; });

    std::string sifted;
    sub = app.add_subcommand("sift", "Look through unknown bytes for textures and compressed streams");
    sub->add_option("FILE", sifted, "Any file")->required();
    common(sub);
    sub->footer("What is found can be listed, exported and replaced with --kind 'FILE=sifting'.");
    sub->callback([&] { command = [&] { return sift_file(c, sifted); }; });

    std::string compacted;
    bool compact_dry_run = false;
    sub = app.add_subcommand("compact", "Give back space in an archive that nothing uses any more");
    sub->add_option("SOURCE", compacted, "An archive")->required();
    sub->add_flag("--dry-run", compact_dry_run, "Only show what would be written");
    common(sub);
    with_vault(sub);
    sub->callback([&] { writes = !compact_dry_run, command = [&] { return compact(c, compacted, compact_dry_run); }; });

    std::string sheet_file;
    auto* sheet = app.add_subcommand("sheet", "Work with sheets");
    sheet->require_subcommand(1);
    sub = sheet->add_subcommand("check", "Say whether a sheet is sound");
    sub->add_option("FILE", sheet_file, "A sheet")->required();
    common(sub);
    sub->callback([&] { command = [&] { return sheet_check(c, sheet_file); }; });
    SheetTryOptions try_options;
    sub = sheet->add_subcommand("try", "Account for an archive under a sheet, byte by byte");
    sub->add_option("FILE", try_options.file, "A sheet")->required();
    sub->add_option("ARCHIVE", try_options.archive, "A file, an entry of an archive (ARCHIVE::ENTRY), or a folder of examples")->required();
    sub->add_option("--records", try_options.records, "How many entries are shown field by field")->capture_default_str();
    sub->add_flag("--prove", try_options.prove, "Also prove on a copy that the sheet writes what it reads");
    common(sub);
    sub->callback([&] { command = [&] { return sheet_try(c, try_options); }; });

    std::vector<std::string> names_sources;
    sub = app.add_subcommand("names", "Look inside the game's files for the names of entries that are known only by a hash");
    sub->add_option("SOURCE", names_sources, "Archives and folders of the game")->required();
    common(sub);
    sub->callback([&] { command = [&] { return names(c, names_sources); }; });

    std::string draft_archive, draft_out;
    sub = sheet->add_subcommand("draft", "Look for the entry table of an archive nobody described and write a sheet that reads it");
    sub->add_option("ARCHIVE", draft_archive, "An example")->required();
    sub->add_option("--out", draft_out, "Write the sheet to this file instead of the standard output")->type_name("FILE");
    common(sub);
    sub->callback([&] { command = [&] { return sheet_draft(c, draft_archive, draft_out); }; });

    ProjectOptions project_options;
    const std::function<void(int (*)(Context&, const ProjectOptions&), bool)> run_in_project = [&](auto* run_it, bool writes_game) {
        writes = writes_game;
        command = [&c, &project_options, run_it] { return run_it(c, project_options); };
    };
    add_project_commands(app, project_options, common, run_in_project);
    ParcelOptions parcel_options;
    const std::function<void(int (*)(Context&, const ParcelOptions&), bool)> run_with_parcel = [&](auto* run_it, bool writes_game) {
        writes = writes_game;
        command = [&c, &parcel_options, run_it] { return run_it(c, parcel_options); };
    };
    add_parcel_commands(app, parcel_options, common, run_with_parcel);

    // For whoever packs it: the same texts as a manual page, or as a shell's completion.
    std::string described;
    sub = app.add_subcommand("describe", "This command line for man, bash, zsh or fish")->group("");
    sub->add_option("FOR", described, "man, bash, zsh or fish")->required()->check(CLI::IsMember({"man", "bash", "zsh", "fish"}));
    sub->callback([&] {
        command = [&] {
            out << (described == "man" ? man_page(app, SKIVET_VERSION) : completion(app, described));
            return 0;
        };
    });

    if (const auto unknown = unknown_command(app, arguments); !unknown.empty())
        return c.failed(Error{ErrorCode::usage, unknown, {}, {}, "skivet-cli --help lists all"});
    try {
        std::vector<std::string> reversed(arguments.rbegin(), arguments.rend());
        app.parse(reversed);
    } catch (const CLI::ParseError& error) {
        const int result = app.exit(error, out, err);
        return result == 0 ? 0 : 2;
    }
    std::optional<tbb::global_control> threads;
    if (jobs > 0) threads.emplace(tbb::global_control::max_allowed_parallelism, std::size_t(jobs));
    for (const auto& folder : sheet_folders())
        for (const auto& error : add_sheets_in(c.context, folder)) c.failed(error);
    for (const auto& file : sheets)
        if (auto added = add_sheet(c.context, file); !added) return c.failed(added.error());
    auto ring = std::make_shared<KeyRing>();
    for (const auto& text : keys) {
        auto key = parse_key(text);
        if (!key) return c.failed(key.error());
        ring->add(std::move(*key));
    }
    c.context.keys = ring;
    auto programs = packer_programs(unpackers, packers);
    if (!programs) return c.failed(programs.error());
    c.context.packers = std::make_shared<PackerPrograms>(std::move(*programs));
    for (const auto& text : choices) {
        const auto equals = text.rfind('=');
        const auto kind = equals == std::string::npos ? std::string() : text.substr(equals + 1);
        if (std::none_of(c.context.containers.begin(), c.context.containers.end(), [&](const auto& k) { return k->name() == kind; })) {
            std::string known;
            for (const auto& k : c.context.containers) known += (known.empty() ? "" : ", ") + k->name();
            return c.failed(Error{
                ErrorCode::usage, "--kind " + text + ": there is no such kind", {}, {}, "Write PATTERN=KIND; the kinds are " + known});
        }
        c.context.choices.push_back({text.substr(0, equals), kind});
    }
    for (const auto& file : paths) {
        const auto data = read_file(file, 256u << 20);
        if (!data) return c.failed(data.error());
        std::istringstream lines(as_text(*data));
        for (std::string line; std::getline(lines, line);) {
            if (!line.empty() && line.back() == '\r') line.pop_back();
            c.context.known_paths.push_back(std::move(line));
        }
    }
    // A half-written archive is no base for anything: who writes rolls it back first, who reads says so.
    if (writes) code = recover(c);
    const int unfinished = writes ? 0 : warn_of_unfinished(c, arguments);
    if (code == 0) code = command();
    if (unfinished > 0 && (code == 0 || code == 1)) code = app.got_subcommand("verify") ? 3 : 1;
    out.flush();
    if (!out && terminal.reader_gone && terminal.reader_gone()) return code == 0 || code == 1 ? 4 : code;  // it has what it wanted
    if (!out) {
        err << "skivet-cli: the results could not be written: " << std::strerror(errno) << '\n';
        if (code == 0 || code == 1) code = 4;
    }
    return code;
}

}  // namespace skivet::cli

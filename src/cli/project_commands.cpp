#include "cli/project_commands.h"

#include <fmt/format.h>
#include <signal.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>
#include <nlohmann/json.hpp>
#include <ostream>

#include "base/text.h"
#include "cli/project_work.h"
#include "cli/writing.h"
#include "workflow/delivery_plan.h"
#include "workflow/kin.h"
#include "workflow/opening.h"
#include "workflow/parcel_stack.h"
#include "workflow/places.h"
#include "workflow/sources.h"

namespace skivet::cli {

namespace fs = std::filesystem;
using nlohmann::json;
using namespace project_work;

namespace {

/// A project for reading: whoever has it open keeps it. Its pieces are as they are now, but nothing of that is kept.
struct Looked {
    Project project;
    ReadContext context;
};

Result<Looked> look(Context& c, const fs::path& folder) {
    std::error_code code;
    if (!fs::exists(folder / "project.json", code)) return fail(no_project(folder));
    Looked out;
    SKIVET_TRY(out.project, open_project(fs::absolute(folder).lexically_normal()));
    auto keys = load_keys(out.project.keys());
    if (!keys) c.failed(keys.error());
    std::vector<Error> errors;
    out.context = with_own(c, *context_of(c.context, out.project, std::make_shared<KeyRing>(keys.value_or(KeyRing{})), errors));
    for (const auto& error : errors) c.failed(error);
    PosixFiles files;
    const auto vault = vault_of(out.project, files);
    if (const auto history = vault.history(); history && vault.unreadable().empty() && settle_pending(out.project, *history))
        for (auto& [id, hash] : in_game_now(out.context, out.project)) out.project.piece(id)->in_game = hash;
    AddressReader reader(out.context);
    for (auto& piece : out.project.pieces) {
        SKIVET_CHECK(c.cancel.check());
        piece = refresh_piece(out.project, piece, now());
        if (auto checked = check_source(out.context, reader, piece)) piece = std::move(*checked);
    }
    return out;
}

constexpr std::pair<std::string_view, Destination> destinations[] = {{"archives", Destination::into_archives},
                                                                     {"beside", Destination::beside_the_game},
                                                                     {"patch", Destination::patch_archives},
                                                                     {"device", Destination::device}};

std::string_view name_of_destination(Destination destination) {
    for (const auto& [name, known] : destinations)
        if (known == destination) return name;
    return {};
}

void set_destination(Project& project, const std::string& name) {
    for (const auto& [known, destination] : destinations)
        if (known == name) project.destination = destination;
}

std::string_view name_of_grade(Grade grade) {
    switch (grade) {
        case Grade::fits: return "fits";
        case Grade::note: return "note";
        case Grade::mend: return "mend";
        case Grade::blocks: return "blocks";
    }
    return "";
}

void print_fit(Context& c, const Piece& piece, const PieceFit& fitted) {
    if (c.json) {
        json line = {{"piece", piece.id}, {"name", piece.name()}, {"state", std::string(name_of(piece.state))}};
        if (!fitted.fit) {
            line["error"] = fitted.fit.error().message();
            return print(c, line);
        }
        line["findings"] = json::array();
        for (const auto& f : fitted.fit->findings)
            line["findings"].push_back({{"grade", std::string(name_of_grade(f.grade))},
                                        {"headline", f.headline},
                                        {"detail", f.detail},
                                        {"mend", f.mend ? json(std::string(info(*f.mend).id)) : json()}});
        line["blocks_new"] = fitted.fit->new_blocks();
        line["blocks_kept"] = fitted.fit->kept_blocks();
        line["changed_texels"] = fitted.fit->change.changed_texels;
        return print(c, line);
    }
    c.out << fmt::format("{:>4}  {:<14} {}\n", piece.id, name_of(piece.state), piece.name());
    if (!fitted.fit) return void(c.out << "      " << fitted.fit.error().message() << '\n');
    for (const auto& f : fitted.fit->findings) {
        c.out << fmt::format("      {}: {}\n", f.headline, f.detail);
        if (f.mend) c.out << fmt::format("      {} with: project mend … --do {}\n", info(*f.mend).words, info(*f.mend).id);
    }
    c.out << fmt::format("      {} kept, {} new\n", count_of(fitted.fit->kept_blocks(), "block"), grouped(fitted.fit->new_blocks()));
}

/// What of the game goes with an edited piece, as far as the index knows the game.
void print_kin(Context& c, const Open& open, const AnalyzedCatalog& catalog, const Piece& piece, const PieceFit& fitted) {
    PieceSides sides;
    if (fitted.fit && fitted.fit->resized) sides[piece.id] = {fitted.fit->layout.desc.width, fitted.fit->layout.desc.height};
    const auto kindred = kin_of(open.context, catalog, open.opened.project, piece, sides, c.cancel);
    if (!kindred) return;
    for (const auto& found : findings_of(*kindred)) {
        json kin = json::array();
        for (const auto& one : found.kin) kin.push_back({{"address", one.address.text()}, {"way", one.way}});
        if (c.json) print(c, {{"piece", piece.id}, {"headline", found.finding.headline}, {"detail", found.finding.detail}, {"kin", kin}});
        else c.out << fmt::format("      {}: {}\n", found.finding.headline, found.finding.detail);
    }
}

/// Fits the pieces, keeps their states, prints what was found. 1 when one cannot be delivered as it is.
int fit_pieces(Context& c, Open& open, const std::vector<PieceId>& ids) {
    int code = 0;
    constexpr std::size_t most_told = 100;  // each is compared with all of the game
    const auto catalog = ids.size() <= most_told ? remembered_catalog(open.context, open.project(), *open.opened.index) : nullptr;
    for (const auto id : ids) {
        const auto& piece = *open.project().piece(id);
        if (!waits(piece.state)) continue;
        if (auto stop = c.cancel.check(); !stop) return c.failed(stop.error());
        const auto fitted = fit_now(open.context, open.project(), piece);
        note_fit(open.project(), fitted);
        print_fit(c, piece, fitted);
        if (catalog) print_kin(c, open, *catalog, piece, fitted);
        if (!fitted.fit || fitted.fit->needs_mend()) code = 1;
    }
    if (auto saved = save_project(open.project()); !saved) return c.failed(saved.error());
    return code;
}

/// `waits`: for a delivery into the archives.
void print_change(Context& c, const EntryChange& change, bool waits) {
    const auto where = change.address.text();
    if (c.json) return print(c, {{"entry", where}, {"becomes", change.path.empty() ? json() : json(change.path)}, {"waits", waits}});
    c.out << where << (change.path.empty() ? " is taken out" : " becomes " + change.path)
          << (waits ? ", once deliveries go into the archives\n" : "\n");
}

int print_delivery_plan(Context& c, const DeliveryPlan& plan) {
    int code = 0;
    for (const auto& group : plan.groups) {
        json pieces = json::array();
        for (const auto& piece : group.pieces)
            pieces.push_back({{"piece", piece.id}, {"name", piece.name}, {"inner", piece.inner}, {"blocks_new", piece.new_blocks}});
        if (c.json) {
            json line = {{"source", group.source.string()}, {"beside", group.beside}, {"pieces", pieces}};
            if (group.device) line["device"] = true;
            if (!group.lists.empty()) line["lists"] = group.lists;
            if (group.error) line["error"] = group.error->message();
            else line["way"] = std::string(name_of(group.plan.way())), line["bytes_written"] = group.plan.bytes_written();
            print(c, line);
        } else if (!group.error && !group.lists.empty()) {
            c.out << fmt::format("{}: lists {}\n", group.source.string(), fmt::join(group.lists, ", "));
        } else if (!group.error) {
            c.out << fmt::format("{}: {} {}, {}, {} bytes\n", group.source.string(), group.pieces.size(),
                                 group.pieces.size() == 1 ? "piece" : "pieces", name_of(group.plan.way()),
                                 grouped(group.plan.bytes_written()));
        }
        if (group.error) code = c.failed(*group.error);
        for (const auto& change : group.changes) print_change(c, change, false);
        for (const auto& note : group.notes) c.err << "skivet-cli: " << note << '\n';
    }
    for (const auto& piece : plan.left_out) {
        if (c.json) print(c, {{"left_out", piece.id}, {"name", piece.name}, {"why", piece.why}});
        else c.out << fmt::format("{} stays on the bench: {}\n", piece.name, piece.why);
        if (code == 0) code = 1;
    }
    for (const auto& change : plan.waiting) print_change(c, change, true);
    if (plan.groups.empty() && plan.left_out.empty() && plan.waiting.empty() && !c.json)
        c.out << "nothing to deliver: no piece was edited\n";
    return code;
}

/// Copies of what a plan would deliver, as far as the index knows the game.
void print_copies(Context& c, const ReadContext& context, const Project& project, const IndexStore& index, const DeliveryPlan& plan) {
    std::vector<PieceId> ids;
    for (const auto& group : plan.groups)
        for (const auto& piece : group.pieces) ids.push_back(piece.id);
    const auto catalog = ids.empty() ? nullptr : remembered_catalog(context, project, index);
    if (!catalog) return;
    const auto left = copies_left(context, *catalog, project, ids, c.cancel);
    if (!left) return;
    for (const auto& one : *left)
        for (const auto& copy : one.copies) {
            const auto piece = project.piece(one.piece)->name(), where = copy.address.text();
            if (c.json) print(c, {{"copy", where}, {"piece", one.piece}, {"name", piece}});
            else c.out << fmt::format("{} shows the picture of {} and stays as it is\n", where, piece);
        }
}

}  // namespace

int project_new(Context& c, const ProjectOptions& options) {
    std::error_code code;
    if (fs::exists(options.folder / "project.json", code))
        return c.failed(
            Error{ErrorCode::usage, options.folder.string() + " is a project already", {}, {}, "Add sources with: project add"});
    if (!options.game.empty() && !fs::is_directory(options.game, code))
        return c.failed(Error{ErrorCode::usage, options.game.string() + " is no folder", {}, {}, "Name the game's folder"});
    OpenWish wish{fs::absolute(options.folder).lexically_normal(), {}, {}, {}};
    if (!options.game.empty()) wish.game = fs::absolute(options.game).lexically_normal();
    for (const auto& source : options.sources) wish.more_sources.push_back(fs::absolute(source).lexically_normal());
    PosixFiles files;
    const auto opened = open_for_work(c.context, wish, files, now());
    if (!opened) return c.failed(opened.error());
    if (auto saved = save_project(opened->project); !saved) return c.failed(saved.error());
    return project_status(c, options);
}

int project_status(Context& c, const ProjectOptions& options) {
    const auto looked = look(c, options.folder);
    if (!looked) return c.failed(looked.error());
    const auto& project = looked->project;
    if (c.json)
        print(c, {{"project", project.folder.string()},
                  {"name", project.name},
                  {"game", project.game.string()},
                  {"to", std::string(name_of_destination(project.destination))},
                  {"override", override_folder(project).string()},
                  {"override_layout", project.places.override_layout},
                  {"patch_name", project.places.patch_name},
                  {"list", patch_list(project).string()},
                  {"device", project.places.device.folder.string()}});
    else c.out << fmt::format("{} ({})\n", project.name, project.game.empty() ? "no game's folder" : project.game.string());
    for (const auto& path : project.sources) {
        const auto setting = project.setting(path);
        const auto source = open_sources(looked->context, std::span(&path, 1)).front();
        const auto kind = source.container ? source.container->kind() : std::string();
        if (c.json) {
            json line = {{"source", path.string()}, {"kind", kind}, {"off", setting.off}, {"group", setting.group}};
            if (source.error) line["error"] = source.error->message();
            print(c, line);
        } else {
            c.out << fmt::format("      {}: {}\n", path.string(),
                                 setting.off    ? "switched off"
                                 : source.error ? source.error->message()
                                                : kind);
        }
    }
    for (const auto& piece : project.pieces) print_piece(c, piece, project);
    return 0;
}

int project_add(Context& c, const ProjectOptions& options) {
    auto project = open(c, options.folder);
    if (!project) return c.failed(project.error());
    int code = 0;
    for (const auto& text : options.sources) {
        const auto path = fs::absolute(text).lexically_normal();
        const auto source = open_source(project->context, path);
        if (!source) {
            code = c.failed(source.error().within(text));
            continue;
        }
        if (!add_source(project->project(), path)) c.err << fmt::format("skivet-cli: {} is in the list already\n", text);
    }
    if (auto saved = save_project(project->project()); !saved) return c.failed(saved.error());
    return code != 0 && options.sources.size() > 1 ? 1 : code;
}

namespace {

template <class To, class From>
void take_if(To& to, const std::optional<From>& from) {
    if (from) to = *from;
}

Status set_places(Project& project, const ProjectOptions& options) {
    auto places = project.places;
    take_if(places.override_folder, options.override_folder);
    take_if(places.override_layout, options.override_layout);
    take_if(places.patch_name, options.patch_name);
    take_if(places.list_file, options.list_file);
    if (options.device) places.device.folder = options.device->empty() ? fs::path() : fs::absolute(*options.device).lexically_normal();
    take_if(places.device.layout, options.device_layout);
    take_if(places.device.part, options.device_part);
    take_if(places.device.largest, options.device_largest);
    if (options.device_files) places.device.loose = *options.device_files == "loose";
    SKIVET_CHECK(check_places(places));
    project.places = std::move(places);
    return {};
}

Status set_play(Project& project, const ProjectOptions& options) {
    auto play = project.play;
    if (options.play) {
        play.command.clear();
        if (!options.play->empty()) {
            SKIVET_TRY(play.command, command_words(*options.play));
        }
    }
    if (options.play_folder) play.folder = options.play_folder->empty() ? fs::path() : fs::absolute(*options.play_folder);
    if (options.play_environment) {
        play.environment = *options.play_environment;
        std::erase(play.environment, "");
    }
    take_if(play.log, options.play_log);
    SKIVET_CHECK(check_play(play));
    project.play = std::move(play);
    return {};
}

}  // namespace

int project_set(Context& c, const ProjectOptions& options) {
    auto project = open(c, options.folder);
    if (!project) return c.failed(project.error());
    set_destination(project->project(), options.to);
    if (auto set = set_places(project->project(), options); !set) return c.failed(set.error());
    if (auto set = set_play(project->project(), options); !set) return c.failed(set.error());
    for (const auto& name : options.forget_packers) project->project().packers.remove(name);
    auto programs = packer_programs(options.unpackers, options.packers, project->project().packers);
    if (!programs) return c.failed(programs.error());
    project->project().packers = std::move(*programs);
    if (auto saved = save_project(project->project()); !saved) return c.failed(saved.error());
    return project_status(c, options);
}

int project_play(Context& c, const ProjectOptions& options) {
    const auto project = open_project(options.folder);
    if (!project) return c.failed(project.error());
    if (project->play.command.empty())
        return c.failed(
            Error{ErrorCode::usage, "nothing says how the game is started", {}, {}, "Say it with: project set DIR --play COMMAND"});
    auto command = project->play.command;
    std::vector<std::string> environment;
    const auto is_set = [&](std::string_view name) {
        return std::any_of(project->play.environment.begin(), project->play.environment.end(),
                           [&](const auto& word) { return word.substr(0, word.find('=')) == name; });
    };
    for (auto** word = environ; *word; ++word)
        if (const std::string_view text(*word); !is_set(text.substr(0, text.find('=')))) environment.emplace_back(text);
    environment.insert(environment.end(), project->play.environment.begin(), project->play.environment.end());
    const auto pointers = [](std::vector<std::string>& words) {
        std::vector<char*> out;
        for (auto& word : words) out.push_back(word.data());
        out.push_back(nullptr);
        return out;
    };
    posix_spawn_file_actions_t actions;
    posix_spawnattr_t attributes;
    posix_spawn_file_actions_init(&actions);
    posix_spawnattr_init(&attributes);
    if (const auto folder = play_folder(*project); !folder.empty()) posix_spawn_file_actions_addchdir_np(&actions, folder.c_str());
    // Signals that this program waits for are the game's own again.
    sigset_t none;
    sigemptyset(&none);
    posix_spawnattr_setsigmask(&attributes, &none);
    posix_spawnattr_setflags(&attributes, POSIX_SPAWN_SETSIGMASK);
    c.out.flush();
    pid_t game = 0;
    const int wrong =
        ::posix_spawnp(&game, command[0].c_str(), &actions, &attributes, pointers(command).data(), pointers(environment).data());
    posix_spawn_file_actions_destroy(&actions);
    posix_spawnattr_destroy(&attributes);
    if (wrong != 0) return c.failed(fail_errno(wrong, "cannot start " + command[0]).value());
    int status = 0;
    while (::waitpid(game, &status, 0) < 0 && errno == EINTR) {
    }
    return WIFEXITED(status) ? WEXITSTATUS(status) : 1;
}

int project_fit(Context& c, const ProjectOptions& options) {
    auto project = open(c, options.folder);
    if (!project) return c.failed(project.error());
    const auto ids = pieces_named(project->project(), options.pieces);
    if (!ids) return c.failed(ids.error());
    std::vector<std::uint64_t> sizes;
    for (const auto id : *ids) {
        const auto* piece = project->project().piece(id);
        std::error_code code;
        const auto size = piece ? std::filesystem::file_size(project->project().work() / piece->file, code) : 0;
        sizes.push_back(code ? 0 : size);
    }
    std::vector<PieceId> mine;
    for (const auto i : part_of(sizes, options.shard)) mine.push_back((*ids)[i]);
    return fit_pieces(c, *project, mine);
}

int project_mend(Context& c, const ProjectOptions& options) {
    if (options.mends.empty() && options.format.empty())
        return c.failed(Error{ErrorCode::usage, "nothing is to be mended", {}, {}, "Say which with --do LIST, or a format with --format"});
    const auto mends = parse_mends(options.mends);
    if (!mends) return c.failed(mends.error());
    const auto format = options.format == "own" ? std::optional(Format::unknown) : format_named(options.format);
    if (!options.format.empty() && !format)
        return c.failed(Error{ErrorCode::usage, "there is no format " + options.format, {}, {}, "BC1, BC3, BC7, RGBA8 …"});
    auto project = open(c, options.folder);
    if (!project) return c.failed(project.error());
    const auto ids = pieces_named(project->project(), options.pieces);
    if (!ids) return c.failed(ids.error());
    for (const auto id : *ids)
        if (auto* piece = project->project().piece(id)) {
            if (!options.format.empty()) set_format(*piece, *format, now());
            if (waits(piece->state)) piece->options.mends.press(*mends);
        }
    return fit_pieces(c, *project, *ids);
}

int project_touch(Context& c, const ProjectOptions& options) {
    auto project = open(c, options.folder);
    if (!project) return c.failed(project.error());
    const auto ids = pieces_named(project->project(), options.pieces);
    if (!ids) return c.failed(ids.error());
    std::map<PieceId, std::vector<std::string>> lists;
    for (const auto id : *ids) {
        auto& list = lists[id];
        if (!options.clear) list = project->project().piece(id)->touches;
        list.insert(list.end(), options.touches.begin(), options.touches.end());
    }
    if (auto set = set_touches(project->project(), std::move(lists), now()); !set) return c.failed(set.error());
    if (options.clear || !options.touches.empty()) return fit_pieces(c, *project, *ids);
    for (const auto id : *ids) {
        const auto& piece = *project->project().piece(id);
        print_piece(c, piece, project->project());
        if (!c.json)
            for (const auto& text : piece.touches) c.out << "      " << text << '\n';
    }
    return 0;
}

int project_plan(Context& c, const ProjectOptions& options) {
    auto looked = look(c, options.folder);
    if (!looked) return c.failed(looked.error());
    set_destination(looked->project, options.to);
    const auto ids = pieces_named(looked->project, options.pieces);
    if (!ids) return c.failed(ids.error());
    const auto plan = plan_delivery(looked->context, looked->project, *ids);
    const int code = print_delivery_plan(c, plan);
    std::error_code none;
    if (fs::exists(looked->project.index(), none))  // looking makes no files
        if (const auto index = IndexStore::open(looked->project.index())) print_copies(c, looked->context, looked->project, **index, plan);
    return code;
}

int project_deliver(Context& c, const ProjectOptions& options) {
    auto project = open(c, options.folder);
    if (!project) return c.failed(project.error());
    set_destination(project->project(), options.to);
    const auto ids = pieces_named(project->project(), options.pieces);
    if (!ids) return c.failed(ids.error());
    const auto plan = plan_delivery(project->context, project->project(), *ids);
    note_planned(project->project(), plan);
    const int code = print_delivery_plan(c, plan);
    print_copies(c, project->context, project->project(), *project->opened.index, plan);
    Delivered done;
    if (plan.piece_count() + plan.change_count() > 0) {
        const Writing writing(c);
        if (!writing.may()) return c.failed(c.cancel.check().error());
        PosixFiles files;
        auto vault = vault_of(project->project(), files);
        vault.heed(c.cancel);
        done = deliver(project->context, plan, vault, now());
        note_delivered(project->project(), plan, done);
    }
    // States are kept whatever became of it.
    if (auto saved = save_project(project->project()); !saved) return c.failed(saved.error());
    if (done.error) return c.failed(*done.error);
    for (const auto& journal : done.history)
        if (journal.id == done.id) print_journal(c, journal);
    return code;
}

int project_undo(Context& c, const ProjectOptions& options) {
    auto project = open(c, options.folder);
    if (!project) return c.failed(project.error());
    const auto history = project->opened.history;
    if (history.empty()) return c.failed(Error{ErrorCode::missing, "nothing was delivered", {}, {}, {}});
    const Writing writing(c);
    if (!writing.may()) return c.failed(c.cancel.check().error());
    PosixFiles files;
    auto vault = vault_of(project->project(), files);
    vault.heed(c.cancel);
    int code = 0;
    std::vector<std::string> ids;  // the newest first
    for (auto journal = history.rbegin(); journal != history.rend(); ++journal) ids.push_back(journal->id);
    if (!options.all) ids.resize(1);
    if (!options.id.empty()) ids.assign({options.id});
    for (const auto& id : ids) {
        auto undone = undo_delivery(project->context, project->project(), vault, id);
        note_undone(project->project(), undone);
        for (const auto& journal : history)
            if (journal.id == id && undone.status) print_journal(c, journal);
        if (undone.status) continue;
        code = c.failed(undone.status.error());
        // A card that is not there holds nothing else up.
        if (undone.status.error().code != ErrorCode::missing) break;
    }
    if (auto saved = save_project(project->project()); !saved) return c.failed(saved.error());
    return code;
}

int project_history(Context& c, const ProjectOptions& options) {
    const auto looked = look(c, options.folder);
    if (!looked) return c.failed(looked.error());
    PosixFiles files;
    const auto history = vault_of(looked->project, files).history();
    if (!history) return c.failed(history.error());
    for (const auto& journal : *history) print_journal(c, journal);
    return 0;
}

}  // namespace skivet::cli

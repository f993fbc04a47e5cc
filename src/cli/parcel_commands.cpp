#include "cli/parcel_commands.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <ostream>

#include "cli/project_work.h"
#include "cli/writing.h"
#include "workflow/parcels.h"

namespace skivet::cli {

namespace fs = std::filesystem;
using nlohmann::json;
using namespace project_work;

namespace {

constexpr std::string_view own_name = "own";

std::string id_of(const std::string& text) { return text == own_name ? std::string() : text; }

ParcelName parcel_name(const std::string& text) {
    const auto at = text.find('@');
    return {text.substr(0, at), at == std::string::npos ? std::string() : text.substr(at + 1)};
}

std::string name_of_layer(const StackLayer& layer) {
    if (layer.is_own()) return "your own work";
    return layer.version.empty() ? layer.title : layer.title + " " + layer.version;
}

void print_about(Context& c, const Parcel& parcel) {
    const auto& a = parcel.about;
    if (c.json) {
        json needs = json::array(), not_with = json::array();
        for (const auto& one : a.needs) needs.push_back({{"id", one.id}, {"version", one.version}});
        for (const auto& one : a.not_with) not_with.push_back({{"id", one.id}, {"version", one.version}});
        return print(c, {{"id", a.id},
                         {"title", a.title},
                         {"author", a.author},
                         {"version", a.version},
                         {"license", a.license},
                         {"notes", a.notes},
                         {"game", a.game},
                         {"foreign", parcel.foreign},
                         {"needs", needs},
                         {"not_with", not_with},
                         {"textures", parcel.textures.size()}});
    }
    c.out << fmt::format("{} ({})\n", a.version.empty() ? a.title : a.title + " " + a.version, a.id);
    for (const auto& [what, text] : {std::pair{"by", &a.author}, {"license", &a.license}, {"for", &a.game}})
        if (!text->empty()) c.out << fmt::format("{} {}\n", what, *text);
    for (const auto& one : a.needs) c.out << fmt::format("needs {} {}\n", one.id, one.version);
    for (const auto& one : a.not_with) c.out << fmt::format("not with {} {}\n", one.id, one.version);
    if (!a.notes.empty()) c.out << a.notes << '\n';
    if (parcel.foreign) c.out << "a mod of another form: whole textures\n";
}

void print_texture(Context& c, const ParcelTexture& t, const TextureMatch* match) {
    const auto path = Address{t.source, t.inner}.text();
    const auto bytes = t.whole.empty() ? t.change.units.size() : t.whole.size();
    if (c.json) {
        json line = {{"path", path},          {"way", t.whole.empty() ? "change" : "whole"},
                     {"bytes", bytes},        {"format", std::string(info(t.desc.format).name)},
                     {"width", t.desc.width}, {"height", t.desc.height}};
        if (!t.like.empty()) line["like"] = t.like;
        if (match) {
            line["match"] = std::string(name_of(match->how));
            line["goes_in"] = goes_in(match->how);
            line["note"] = match->note;
            if (!match->address.inner.empty()) line["address"] = match->address.text();
        }
        return print(c, line);
    }
    c.out << fmt::format("  {} ({} {}, {})", path, size_text(t.desc), info(t.desc.format).name,
                         t.whole.empty() ? human_bytes(bytes) + " changed" : "whole");
    if (!t.like.empty()) c.out << ", a variant of " << t.like;
    if (match) c.out << ": " << name_of(match->how) << (match->note.empty() ? "" : ", " + match->note);
    c.out << '\n';
}

void print_matches(Context& c, const ReadMod& mod, const std::vector<TextureMatch>& matches) {
    for (std::size_t i = 0; i < matches.size(); ++i) print_texture(c, mod.parcel.textures[i], &matches[i]);
    for (const auto& stranger : mod.strangers)
        c.err << fmt::format("skivet-cli: {} has no counterpart in the game; it is left out\n", stranger);
}

void print_stack_plan(Context& c, const StackPlan& plan, bool dry_run) {
    for (const auto& t : plan.textures) {
        const auto names = [&](const std::vector<std::size_t>& layers) {
            json out = json::array();
            for (const auto i : layers) out.push_back(plan.wanted.layers[i].is_own() ? std::string(own_name) : plan.wanted.layers[i].id);
            return out;
        };
        if (c.json) {
            print(c,
                  {{"texture", t.address.text()}, {"layers", names(t.layers)}, {"left_out", names(t.left_out)}, {"unfit", names(t.unfit)}});
            continue;
        }
        std::string stays;
        for (const auto i : t.layers)
            if (std::find(t.left_out.begin(), t.left_out.end(), i) == t.left_out.end() &&
                std::find(t.unfit.begin(), t.unfit.end(), i) == t.unfit.end())
                stays += (stays.empty() ? "" : " and ") + name_of_layer(plan.wanted.layers[i]);
        c.out << fmt::format("  {}: {} {}", t.address.text(), stays.empty() ? "the original" : stays,
                             t.left_out.empty() ? "both have a place" : "stays");
        for (const auto i : t.left_out) c.out << fmt::format("; {} changes the same place", name_of_layer(plan.wanted.layers[i]));
        for (const auto i : t.unfit) c.out << fmt::format("; {} does not fit", name_of_layer(plan.wanted.layers[i]));
        c.out << '\n';
    }
    for (const auto& group : plan.groups) {
        if (group.error) {
            c.failed(group.error->within(group.source.filename().string()));
            continue;
        }
        if (c.json)
            print(c, {{"source", group.source.string()},
                      {"way", std::string(name_of(group.plan.way()))},
                      {"bytes_written", group.plan.bytes_written()},
                      {"dry_run", dry_run}});
        else
            c.out << fmt::format("{}: {} bytes {}\n", group.source.filename().string(), grouped(group.plan.bytes_written()),
                                 dry_run ? "would be written" : "to write");
        for (const auto& note : group.notes) c.err << "skivet-cli: " << note << '\n';
    }
}

/// Plans a stack, shows and delivers it.
int change_stack(Context& c, Open& open, const Result<ParcelStack>& wanted, const std::string& title, bool dry_run) {
    if (!wanted) return c.failed(wanted.error());
    auto& project = open.project();
    PosixFiles files;
    auto vault = vault_of(project, files);
    vault.heed(c.cancel);
    const auto plan = plan_stack(open.context, project, vault, *wanted, title, c.cancel);
    if (!plan) return c.failed(plan.error());
    print_stack_plan(c, *plan, dry_run);
    if (const auto* error = plan->error()) return exit_code(error->code);
    if (dry_run) return 0;
    const Writing writing(c);
    if (!writing.may()) return c.failed(c.cancel.check().error());
    note_pending(project, *plan, open.opened.history);
    if (auto saved = save_project(project); !saved) return c.failed(saved.error());
    const auto done = deliver_stack(open.context, *plan, vault, now());
    note_stack(project, *plan, done);
    if (auto saved = save_project(project); !saved) return c.failed(saved.error());
    if (done.error) return c.failed(*done.error);
    for (const auto& journal : done.history)
        if (journal.id == done.id) print_journal(c, journal);
    return 0;
}

/// What is to go in, and how it stands to this game.
struct Brought {
    ReadMod mod;
    std::vector<TextureMatch> matches;
    [[nodiscard]] bool all_go_in() const {
        return std::all_of(matches.begin(), matches.end(), [](const TextureMatch& m) { return goes_in(m.how); });
    }
};
Result<Brought> bring(Context& c, Open& open, const std::string& file) {
    Brought out;
    SKIVET_TRY(out.mod, read_mod(open.context, open.project(), file, c.cancel));
    PosixFiles files;
    Progress progress;
    progress.cancel = c.cancel;
    SKIVET_TRY(out.matches, match_parcel(open.context, open.project(), vault_of(open.project(), files), out.mod.parcel, progress));
    return out;
}

}  // namespace

int parcel_make(Context& c, const ParcelOptions& options) {
    auto project = open(c, options.project);
    if (!project) return c.failed(project.error());
    MakeWish wish;
    wish.about = {options.id.empty() ? parcel_id(options.title) : options.id,
                  options.title,
                  options.author,
                  options.version,
                  options.license,
                  options.notes,
                  options.game,
                  {},
                  {}};
    for (const auto& text : options.needs) wish.about.needs.push_back(parcel_name(text));
    for (const auto& text : options.not_with) wish.about.not_with.push_back(parcel_name(text));
    wish.pictures = options.pictures;
    if (!options.pieces.empty()) {
        auto ids = pieces_named(project->project(), options.pieces);
        if (!ids) return c.failed(ids.error());
        wish.pieces = std::move(*ids);
    }
    auto own = pieces_named(project->project(), options.own == std::vector<std::string>{"all"} ? std::vector<std::string>{} : options.own);
    if (!own) return c.failed(own.error());
    if (!options.own.empty()) wish.own = std::move(*own);
    const auto made = make_parcel(project->context, project->project(), wish, c.cancel);
    if (!made) return c.failed(made.error());
    for (const auto& left : made->left_out) {
        c.failed(left.why.within(left.name));
        if (left.could_be_own) c.err << fmt::format("skivet-cli: --own {} puts the whole texture in\n", left.id);
    }
    if (made->parcel.textures.empty())
        return c.failed(Error{ErrorCode::usage,
                              "nothing is edited that could go into a parcel",
                              {},
                              {},
                              "skivet-cli project status says what is on the bench"});
    if (auto written = write_parcel_file(made->parcel, options.out); !written) return c.failed(written.error());
    std::error_code none;
    const auto size = fs::file_size(options.out, none);
    if (c.json)
        print(c, {{"file", options.out.string()},
                  {"id", made->parcel.about.id},
                  {"textures", made->parcel.textures.size()},
                  {"bytes", size},
                  {"originals", made->originals}});
    else
        c.out << fmt::format("{}: {}, {} of {}\n", options.out.string(), count_of(made->parcel.textures.size(), "texture"),
                             human_bytes(size), human_bytes(made->originals));
    return made->left_out.empty() ? 0 : 1;
}

int parcel_show(Context& c, const ParcelOptions& options) {
    if (!options.project.empty()) {
        auto project = open(c, options.project);
        if (!project) return c.failed(project.error());
        const auto brought = bring(c, *project, options.file);
        if (!brought) return c.failed(brought.error());
        print_about(c, brought->mod.parcel);
        print_matches(c, brought->mod, brought->matches);
        return brought->all_go_in() ? 0 : 1;
    }
    const auto view = FileView::open(options.file);
    if (!view) return c.failed(view.error());
    const auto parcel = read_parcel(*view, c.context.limits);
    if (!parcel) return c.failed(parcel.error().within(fs::path(options.file).filename().string()));
    print_about(c, *parcel);
    for (const auto& texture : parcel->textures) print_texture(c, texture, nullptr);
    return 0;
}

int parcel_check(Context& c, const ParcelOptions& options) {
    const auto view = FileView::open(options.file);
    if (!view) return c.failed(view.error());
    const auto parcel = read_parcel(*view, c.context.limits);
    if (!parcel) return c.failed(parcel.error().within(fs::path(options.file).filename().string()));
    std::size_t whole = 0;
    for (const auto& t : parcel->textures) {
        for (const auto* picture : {&t.before, &t.after})
            if (*picture)
                if (const auto seen = read_picture(**picture); !seen) return c.failed(seen.error());
        if (t.whole.empty()) continue;
        ++whole;
        const auto texture = TextureFile::open(c.context.textures, t.whole, t.inner.back(), c.context.limits);
        if (!texture) return c.failed(texture.error().within(t.inner.back()));
        if (texture->layout.damage) return c.failed(texture->layout.damage->within(t.inner.back()));
    }
    if (c.json) print(c, {{"id", parcel->about.id}, {"textures", parcel->textures.size()}, {"whole", whole}});
    else
        c.out << fmt::format("{} is sound: {}{}\n", parcel->about.title, count_of(parcel->textures.size(), "texture"),
                             whole == 0 ? "" : fmt::format(", {} of them whole", whole));
    return 0;
}

int parcel_install(Context& c, const ParcelOptions& options) {
    auto project = open(c, options.project);
    if (!project) return c.failed(project.error());
    const auto brought = bring(c, *project, options.file);
    if (!brought) return c.failed(brought.error());
    print_matches(c, brought->mod, brought->matches);
    const int code = change_stack(c, *project, stack_with(project->project(), brought->mod, brought->matches, now()),
                                  title_of_installing(brought->mod.parcel.about.title), options.dry_run);
    return code != 0 || brought->all_go_in() ? code : 1;
}

int parcel_remove(Context& c, const ParcelOptions& options) {
    auto project = open(c, options.project);
    if (!project) return c.failed(project.error());
    const auto& stack = project->project().stack_state.stack;
    const auto layer = stack.find(options.id);
    const auto title = layer ? stack.layers[*layer].title : options.id;
    return change_stack(c, *project, stack_without(project->context, project->project(), options.id), title_of_taking_out(title),
                        options.dry_run);
}

int parcel_list(Context& c, const ParcelOptions& options) {
    auto project = open(c, options.project);
    if (!project) return c.failed(project.error());
    const auto& stack = project->project().stack_state.stack;
    for (std::size_t i = stack.layers.size(); i-- > 0;) {
        const auto& layer = stack.layers[i];
        if (c.json)
            print(c, {{"place", i + 1},
                      {"id", layer.is_own() ? std::string(own_name) : layer.id},
                      {"title", layer.title},
                      {"version", layer.version},
                      {"author", layer.author},
                      {"installed", layer.at},
                      {"textures", layer.matches.size()}});
        else if (layer.is_own()) c.out << fmt::format("{:>3}  your own work\n", i + 1);
        else
            c.out << fmt::format("{:>3}  {:<24} {} ({})\n", i + 1, layer.id, name_of_layer(layer),
                                 count_of(layer.matches.size(), "texture"));
    }
    return 0;
}

int parcel_order(Context& c, const ParcelOptions& options) {
    auto project = open(c, options.project);
    if (!project) return c.failed(project.error());
    return change_stack(c, *project, stack_moved(project->project(), id_of(options.id), options.place - 1), "parcels in another order",
                        options.dry_run);
}

int parcel_prefer(Context& c, const ParcelOptions& options) {
    auto project = open(c, options.project);
    if (!project) return c.failed(project.error());
    const auto address = parse_address(options.address);
    if (!address) return c.failed(address.error());
    if (!project->project().stack_state.stack.with_own().find(id_of(options.id)))
        return c.failed(Error{
            ErrorCode::missing, fmt::format("no parcel \"{}\" is installed", options.id), {}, {}, "skivet-cli parcel list names them"});
    auto known = *address;
    known.source = fs::absolute(known.source).lexically_normal();
    return change_stack(
        c, *project, stack_preferring(project->project(), known, id_of(options.id)),
        fmt::format("{} stays in {}", options.id, fs::path(known.inner.empty() ? "" : known.inner.back()).filename().string()),
        options.dry_run);
}

}  // namespace skivet::cli

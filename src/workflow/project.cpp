#include "workflow/project.h"

#include <fmt/format.h>
#include <unistd.h>
#include <nlohmann/json.hpp>
#include <set>

#include "base/file_write.h"
#include "base/json_number.h"
#include "base/phrase.h"
#include "base/text.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr std::pair<PieceState, std::string_view> states[] = {
    {PieceState::on_the_bench, "on the bench"}, {PieceState::out, "out"},
    {PieceState::changed, "changed"},           {PieceState::fits, "fits"},
    {PieceState::needs_mend, "needs a mend"},   {PieceState::delivered, "delivered"},
    {PieceState::gone_stale, "gone stale"}};

PieceState state_named(std::string_view name) {
    for (const auto& [state, text] : states)
        if (text == name) return state;
    return PieceState::on_the_bench;
}

nlohmann::json files_to_json(const std::vector<PieceFile>& files) {
    auto out = nlohmann::json::array();
    for (const auto& one : files)
        out.push_back({{"part", one.part}, {"file", one.file.generic_string()}, {"exported", one.exported_hash}, {"seen", one.seen_hash}});
    return out;
}

nlohmann::json to_json(const Piece& p) {
    return {{"id", p.id},
            {"source", p.address.source.string()},
            {"inner", p.address.inner},
            {"as", std::string(name_of(p.as.as))},
            {"alpha", std::string(name_of(p.as.alpha))},
            {"parts", p.as.parts},
            {"more", files_to_json(p.more)},
            {"file", p.file.generic_string()},
            {"original", p.original_hash},
            {"exported", p.exported_hash},
            {"seen", p.seen_hash},
            {"delivered", p.delivered_hash},
            {"delivered_texture", p.delivered_texture},
            {"in_game", p.in_game},
            {"on_device", p.on_device},
            {"device_delivery", p.device_delivery},
            {"leader", p.leader_hash},
            {"like", p.like},
            {"way", p.way},
            {"state", std::string(name_of(p.state))},
            {"mends", ids_of(p.options.mends)},
            {"format", p.options.format == Format::unknown ? std::string() : std::string(info(p.options.format).name)},
            {"touches", p.touches},
            {"changed_at", p.changed_at}};
}

Piece piece_from(const nlohmann::json& j) {
    Piece p;
    p.id = whole_number(j, "id", PieceId{0});
    p.address.source = j.at("source").get<std::string>();
    p.address.inner = j.at("inner").get<std::vector<std::string>>();
    p.as.as = export_named(j.at("as").get<std::string>()).value_or(ExportAs::png);
    p.as.alpha = alpha_way_named(j.value("alpha", std::string())).value_or(AlphaWay::kept);
    p.as.parts = j.value("parts", false);
    for (const auto& one : j.value("more", nlohmann::json::array()))
        p.more.push_back({one.at("part").get<std::string>(), safe_relative_path(one.at("file").get<std::string>()),
                          one.at("exported").get<std::string>(), one.at("seen").get<std::string>()});
    p.file = safe_relative_path(j.at("file").get<std::string>());
    p.original_hash = safe_relative_path(j.at("original").get<std::string>());
    p.exported_hash = j.at("exported").get<std::string>();
    p.seen_hash = j.at("seen").get<std::string>();
    p.delivered_hash = j.at("delivered").get<std::string>();
    p.delivered_texture = j.at("delivered_texture").get<std::string>();
    p.in_game = j.value("in_game", std::string());
    p.on_device = j.value("on_device", std::string());
    p.device_delivery = j.value("device_delivery", std::string());
    p.leader_hash = safe_relative_path(j.value("leader", std::string()));
    p.like = j.value("like", std::string());
    p.way = j.value("way", std::vector<std::string>());
    p.state = state_named(j.at("state").get<std::string>());
    // Mends were keys of their own once.
    for (const auto& row : all_mends())
        if (j.value(std::string(row.id), false)) p.options.mends.add(row.mend);
    for (const auto& id : j.value("mends", std::vector<std::string>()))
        if (const auto mend = mend_named(id)) p.options.mends.add(*mend);
    p.options.format = format_named(j.value("format", std::string())).value_or(Format::unknown);
    p.touches = j.value("touches", std::vector<std::string>());
    p.changed_at = whole_number<std::int64_t>(j.at("changed_at"));
    if (p.address.inner.empty()) throw std::runtime_error("a piece without a path");
    return p;
}

}  // namespace

std::string_view name_of(PieceState state) {
    for (const auto& [known, text] : states)
        if (known == state) return text;
    return "";
}

std::string Piece::edit() const {
    auto out = seen_hash;
    for (const auto& one : more) out += '\n' + one.seen_hash;
    for (const auto& text : touches) out += '\n' + text;
    const bool plain = touches.empty() && more.empty() && options.format == Format::unknown;
    if (options.format != Format::unknown) out += '\n' + std::string(info(options.format).name);
    return plain ? out : to_hex(sha256(std::as_bytes(std::span(out))));
}

bool Piece::is_saved() const {
    return seen_hash != exported_hash ||
           std::any_of(more.begin(), more.end(), [](const PieceFile& one) { return one.seen_hash != one.exported_hash; });
}

std::string Piece::name() const { return fs::path(address.inner.back()).stem().string(); }

const Piece* Project::piece(PieceId id) const {
    const auto found = std::lower_bound(pieces.begin(), pieces.end(), id, [](const Piece& p, PieceId wanted) { return p.id < wanted; });
    return found == pieces.end() || found->id != id ? nullptr : &*found;
}

Piece* Project::piece(PieceId id) { return const_cast<Piece*>(std::as_const(*this).piece(id)); }

const Piece* Project::piece_of(const Address& address) const {
    // Paths are compared part by part, which takes long.
    const auto found = std::find_if(pieces.begin(), pieces.end(),
                                    [&](const Piece& p) { return p.address.inner == address.inner && p.address.source == address.source; });
    return found == pieces.end() ? nullptr : &*found;
}

PiecesByAddress::PiecesByAddress(const Project& project) {
    ids_.reserve(project.pieces.size());
    for (const auto& piece : project.pieces) ids_.emplace(piece.address.text(), piece.id);
}

std::optional<PieceId> PiecesByAddress::find(const Address& address) const {
    const auto found = ids_.find(address.text());
    return found == ids_.end() ? std::nullopt : std::optional(found->second);
}

Piece* Project::add(Piece piece) {
    if (piece_of(piece.address)) return nullptr;
    piece.id = next_piece++;
    pieces.push_back(std::move(piece));
    return &pieces.back();
}

std::vector<Error> Project::add(std::span<const EntryChange> more) {
    const PiecesByAddress on_bench(*this);
    std::vector<Error> out;
    std::map<std::string, const EntryChange*> wanted;
    for (const auto& change : more) {
        if (!on_bench.find(change.address)) wanted[change.address.text()] = &change;
        else
            out.push_back(Error{ErrorCode::usage,
                                phrase("{} is on the bench", change.address.inner.back()),
                                {},
                                {},
                                "Put it away first, or deliver it under its own name"});
    }
    std::erase_if(changes, [&](const EntryChange& c) { return wanted.contains(c.address.text()); });
    for (const auto& change : more)
        if (const auto found = wanted.find(change.address.text()); found != wanted.end() && found->second == &change)
            changes.push_back(change);
    return out;
}

std::size_t Project::drop(std::span<const EntryChange> some) {
    std::set<std::pair<std::string, std::string>> gone;
    for (const auto& change : some) gone.emplace(change.address.text(), change.path);
    return std::erase_if(changes, [&](const EntryChange& c) { return gone.contains({c.address.text(), c.path}); });
}

bool Project::put_away(PieceId id) {
    return std::erase_if(pieces, [&](const Piece& p) { return p.id == id; }) > 0;
}

namespace {

void put(nlohmann::json& j, const PlaySettings& play) {
    j["play"] = play.command;
    if (!play.folder.empty()) j["play_folder"] = play.folder.string();
    if (!play.environment.empty()) j["play_environment"] = play.environment;
    if (!play.log.empty()) j["play_log"] = play.log.string();
}

PlaySettings play_from(const nlohmann::json& j) {
    return {j.value("play", std::vector<std::string>()), j.value("play_folder", std::string()),
            j.value("play_environment", std::vector<std::string>()), j.value("play_log", std::string())};
}

void put(nlohmann::json& j, const PlaceSettings& places) {
    j["override_folder"] = places.override_folder;
    j["patch_name"] = places.patch_name;
    if (!places.override_layout.empty()) j["override_layout"] = places.override_layout;
    if (!places.list_file.empty()) j["list_file"] = places.list_file;
    if (const auto& device = places.device; !(device == DeviceSettings{}))
        j["device"] = {{"folder", device.folder.string()},
                       {"layout", device.layout},
                       {"loose", device.loose},
                       {"largest", device.largest},
                       {"part", device.part}};
}

PlaceSettings places_from(const nlohmann::json& j) {
    PlaceSettings out{j.value("override_folder", std::string()),
                      j.value("override_layout", std::string()),
                      j.value("patch_name", std::string()),
                      j.value("list_file", std::string()),
                      {}};
    if (const auto d = j.find("device"); d != j.end())
        out.device = {d->value("folder", std::string()), d->value("layout", std::string()), d->value("loose", false),
                      d->value("largest", fat32_largest), d->value("part", std::string())};
    return out;
}

}  // namespace

Result<Project> open_project(const fs::path& folder) {
    Project out;
    out.folder = folder;
    out.name = folder.filename().string();
    const auto file = folder / "project.json";
    std::error_code code;
    if (!fs::exists(file, code)) return out;
    SKIVET_TRY(const auto bytes, read_file(file, 64u << 20));
    try {
        const auto j = nlohmann::json::parse(as_text(bytes));
        out.name = j.at("name").get<std::string>();
        out.game = j.at("game").get<std::string>();
        for (const auto& source : j.at("sources")) out.sources.emplace_back(source.get<std::string>());
        out.play = play_from(j);
        out.editor = j.value("editor", std::vector<std::string>());
        out.editors = j.value("editors", decltype(out.editors)());
        out.destination = static_cast<Destination>(std::clamp(whole_number(j, "route", 0), 0, static_cast<int>(Destination::device)));
        for (const auto& s : j.value("shipped", nlohmann::json::array()))
            out.shipped.push_back({s.value("name", std::string()), whole_number(s, "at", std::int64_t{0}),
                                   safe_relative_path(s.value("baseline", std::string()))});
        std::erase_if(out.shipped, [](const auto& s) { return s.baseline.empty(); });
        out.shipped_now = safe_relative_path(j.value("shipped_now", std::string()));
        out.only_as_shipped = j.value("only_as_shipped", false);
        for (const auto& p : j.value("packers", nlohmann::json::array())) {
            PackerProgram program;
            program.name = p.value("name", std::string());
            program.unpack = p.value("unpack", std::vector<std::string>());
            program.pack = p.value("pack", std::vector<std::string>());
            if (!program.name.empty() && !program.unpack.empty()) out.packers.add(std::move(program));
        }
        out.places = places_from(j);
        out.load_list = j.value("load_list", std::string());
        out.known_paths = j.value("known_paths", std::vector<std::string>());
        out.seen_places = j.value("seen_places", std::vector<std::string>());
        for (const auto& t : j.value("table_readings", nlohmann::json::array())) {
            TableReading reading;
            for (const auto& c : t.at("columns"))
                reading.columns.push_back(
                    {vertex_field_named(c.value("is", std::string())).value_or(VertexField::none), whole_number(c, "set", 0u)});
            reading.v_up = t.value("v_up", false);
            reading.strip = t.value("strip", false);
            out.table_readings[t.at("names").get<std::string>()] = std::move(reading);
        }
        for (const auto& t : j.value("try_on", nlohmann::json::array()))
            out.try_on[t.at("set").get<std::string>()] = {t.value("meshes", std::vector<std::string>()),
                                                          t.value("hidden", std::vector<std::string>()), t.value("upright_z", false),
                                                          t.value("green_down", false)};
        if (j.contains("source_settings"))
            for (const auto& s : j.at("source_settings"))
                out.source_settings[s.at("source").get<std::string>()] = {s.value("off", false), s.value("group", std::string())};
        if (j.contains("roles"))
            for (const auto& r : j.at("roles")) out.roles.push_back({r.at("path").get<std::string>(), r.at("role").get<std::string>()});
        if (j.contains("habits"))
            for (const auto& h : j.at("habits"))
                out.habits.push_back({h.at("place").get<std::string>(), h.at("word").get<std::string>(), h.at("role").get<std::string>()});
        if (j.contains("searches"))
            for (const auto& s : j.at("searches"))
                out.searches.push_back({s.at("name").get<std::string>(), s.at("text").get<std::string>(),
                                        s.value("chosen", std::vector<std::pair<std::string, std::string>>()),
                                        s.value("traits", std::vector<std::string>())});
        if (j.contains("choices"))
            for (const auto& choice : j.at("choices"))
                out.choices.push_back({choice.at("pattern").get<std::string>(), choice.at("kind").get<std::string>()});
        out.next_piece = std::max<PieceId>(1, whole_number(j, "next_piece", PieceId{1}));
        for (const auto& piece : j.at("pieces")) {
            out.pieces.push_back(piece_from(piece));
            out.next_piece = std::max(out.next_piece, out.pieces.back().id + 1);
        }
        for (const auto& c : j.value("changes", nlohmann::json::array())) {
            EntryChange change{{c.at("source").get<std::string>(), c.at("inner").get<std::vector<std::string>>()},
                               c.value("path", std::string())};
            if (!change.address.inner.empty()) out.changes.push_back(std::move(change));
        }
        if (j.contains("stack")) out.stack_state = stack_state_from(j.at("stack"));
        for (const auto& v : j.value("versions", nlohmann::json::array()))
            out.versions.push_back({safe_relative_path(v.at("file").get<std::string>()),
                                    safe_relative_path(v.at("hash").get<std::string>()), whole_number<std::int64_t>(v.at("at")),
                                    whole_number<std::uint64_t>(v.at("size"))});
        // Pieces had no ids once, and what somebody edited by hand may give one twice.
        std::set<PieceId> given = {0};
        for (auto& piece : out.pieces)
            if (!given.insert(piece.id).second) piece.id = out.next_piece++;
        std::stable_sort(out.pieces.begin(), out.pieces.end(), [](const Piece& a, const Piece& b) { return a.id < b.id; });
    } catch (const nlohmann::json::parse_error& error) {
        return fail(Error{ErrorCode::damaged,
                          "the file is damaged and cannot be read as a project",
                          {file.string()},
                          error.byte > 0 ? error.byte - 1 : 0,
                          "Move the file away to start the project anew; work/ and vault/ stay as they are"});
    } catch (const std::exception&) {
        return fail(Error{ErrorCode::damaged,
                          "the file lacks what a project has",
                          {file.string()},
                          std::nullopt,
                          "Move the file away to start the project anew; work/ and vault/ stay as they are"});
    }
    return out;
}

Status save_project(const Project& project) {
    nlohmann::json j = {
        {"name", project.name}, {"game", project.game.string()}, {"sources", nlohmann::json::array()}, {"pieces", nlohmann::json::array()}};
    j["next_piece"] = project.next_piece;
    put(j, project.play);
    j["editor"] = project.editor;
    if (!project.editors.empty()) j["editors"] = project.editors;
    j["route"] = static_cast<int>(project.destination);
    for (const auto& s : project.shipped) j["shipped"].push_back({{"name", s.name}, {"at", s.at}, {"baseline", s.baseline}});
    if (!project.shipped_now.empty()) j["shipped_now"] = project.shipped_now;
    if (project.only_as_shipped) j["only_as_shipped"] = true;
    j["packers"] = nlohmann::json::array();
    for (const auto& p : project.packers.all()) j["packers"].push_back({{"name", p.name}, {"unpack", p.unpack}, {"pack", p.pack}});
    put(j, project.places);
    if (!project.load_list.empty()) j["load_list"] = project.load_list.string();
    j["known_paths"] = project.known_paths;
    j["seen_places"] = project.seen_places;
    for (const auto& [names, reading] : project.table_readings) {
        auto columns = nlohmann::json::array();
        for (const auto& c : reading.columns) columns.push_back({{"is", std::string(name_of(c.field))}, {"set", c.set}});
        j["table_readings"].push_back(
            {{"names", names}, {"columns", std::move(columns)}, {"v_up", reading.v_up}, {"strip", reading.strip}});
    }
    for (const auto& [set, t] : project.try_on)
        j["try_on"].push_back(
            {{"set", set}, {"meshes", t.meshes}, {"hidden", t.hidden}, {"upright_z", t.upright_z}, {"green_down", t.green_down}});
    for (const char* list : {"source_settings", "roles", "habits", "searches"}) j[list] = nlohmann::json::array();
    for (const auto& [source, setting] : project.source_settings)
        if (setting != SourceSetting{})
            j["source_settings"].push_back({{"source", source.string()}, {"off", setting.off}, {"group", setting.group}});
    for (const auto& r : project.roles) j["roles"].push_back({{"path", r.path}, {"role", r.role}});
    for (const auto& h : project.habits) j["habits"].push_back({{"place", h.place}, {"word", h.word}, {"role", h.role}});
    for (const auto& s : project.searches)
        j["searches"].push_back({{"name", s.name}, {"text", s.text}, {"chosen", s.chosen}, {"traits", s.traits}});
    j["choices"] = nlohmann::json::array();
    for (const auto& choice : project.choices) j["choices"].push_back({{"pattern", choice.pattern}, {"kind", choice.kind}});
    for (const auto& source : project.sources) j["sources"].push_back(source.string());
    for (const auto& piece : project.pieces) j["pieces"].push_back(to_json(piece));
    j["changes"] = nlohmann::json::array();
    for (const auto& c : project.changes)
        j["changes"].push_back({{"source", c.address.source.string()}, {"inner", c.address.inner}, {"path", c.path}});
    j["stack"] = to_json(project.stack_state);
    j["versions"] = nlohmann::json::array();
    for (const auto& v : project.versions)
        j["versions"].push_back({{"file", v.file.generic_string()}, {"hash", v.hash}, {"at", v.at}, {"size", v.size}});
    return write_file(project.folder / "project.json", as_bytes(j.dump(1, ' ', false, nlohmann::json::error_handler_t::replace)),
                      {.sync = true});
}

Result<FileLock> lock_project(const fs::path& folder) {
    std::error_code code;
    fs::create_directories(folder, code);
    if (code) return fail_errno(code.value(), phrase("cannot make the project's folder {}", folder.string()));
    const auto file = folder / "project.lock";
    // A window that is just closing still saves.
    auto lock = FileLock::take_within(file, std::chrono::seconds(1));
    if (lock) {
        lock->note(fmt::format("process {}\n", ::getpid()));
        return lock;
    }
    auto error = std::move(lock).error();
    if (error.code == ErrorCode::busy) {
        const auto text = read_file(file, 4096);
        auto who = text ? as_text(*text) : std::string();
        while (!who.empty() && who.back() == '\n') who.pop_back();
        error = {ErrorCode::busy,
                 phrase("the project {} is open in another window{}", folder.string(), who.empty() ? "" : " (" + who + ")"),
                 {},
                 {},
                 "Work there, or close it first"};
    }
    return fail(std::move(error));
}

Status keep_good_copy(const fs::path& folder) {
    std::error_code code;
    if (!fs::exists(folder / "project.json", code)) return {};
    SKIVET_TRY(const auto bytes, read_file(folder / "project.json", 64u << 20));
    return write_file(folder / "project.last.json", bytes, {.sync = true});
}

bool has_good_copy(const fs::path& folder) {
    std::error_code code;
    return fs::is_regular_file(folder / "project.last.json", code);
}

Status use_good_copy(const fs::path& folder) {
    SKIVET_TRY(const auto bytes, read_file(folder / "project.last.json", 64u << 20));
    std::error_code code;
    auto aside = folder / "project.damaged.json";
    for (int n = 2; fs::exists(aside, code); ++n) aside = folder / fmt::format("project.damaged-{}.json", n);
    fs::rename(folder / "project.json", aside, code);
    if (code) return fail_errno(code.value(), "cannot set project.json aside");
    return write_file(folder / "project.json", bytes, {.sync = true});
}

fs::path project_for_game(const fs::path& projects, const fs::path& game) {
    std::error_code code;
    const auto wanted = fs::weakly_canonical(game, code);
    std::vector<fs::path> folders;
    for (const auto& item : fs::directory_iterator(projects, code))
        if (item.is_directory(code)) folders.push_back(item.path());
    std::sort(folders.begin(), folders.end());
    for (const auto& folder : folders)
        if (const auto project = open_project(folder);
            project && !project->game.empty() && fs::weakly_canonical(project->game, code) == wanted)
            return folder;
    auto name = wanted.filename().string();
    if (name.empty()) name = "game";
    auto out = projects / name;
    for (int n = 2; fs::exists(out, code); ++n) out = projects / fmt::format("{} {}", name, n);
    return out;
}

}  // namespace skivet

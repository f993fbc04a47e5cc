#include "workflow/games.h"

#include <fmt/format.h>
#include <sys/stat.h>
#include <algorithm>
#include <charconv>
#include <nlohmann/json.hpp>

#include "base/file_write.h"
#include "base/keys.h"
#include "base/own_folders.h"
#include "base/phrase.h"
#include "workflow/pieces.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr auto patience = std::chrono::seconds(1);

fs::path real(const fs::path& folder) {
    std::error_code code;
    auto out = fs::weakly_canonical(fs::absolute(folder, code), code);
    if (!out.has_filename()) out = out.parent_path();  // "folder/"
    return code ? folder : out;
}

// "seconds path", a line each; the path in hexadecimal, because it may hold any byte but zero.
std::optional<std::vector<KnownGame>> parse(std::string_view text) {
    std::vector<KnownGame> out;
    for (std::size_t at = 0; at < text.size();) {
        const auto end = std::min(text.find('\n', at), text.size());
        const auto line = text.substr(at, end - at);
        at = end + 1;
        if (line.empty()) continue;
        KnownGame game;
        const auto [rest, code] = std::from_chars(line.data(), line.data() + line.size(), game.opened_at);
        if (code != std::errc() || rest == line.data() + line.size() || *rest != ' ') return std::nullopt;
        const auto path = bytes_of_hex(line.substr(std::size_t(rest - line.data()) + 1));
        if (!path || path->empty()) return std::nullopt;
        game.folder = as_text(*path);
        out.push_back(std::move(game));
    }
    return out;
}

std::string text_of(std::span<const KnownGame> games) {
    std::string out;
    for (const auto& game : games) out += fmt::format("{} {}\n", game.opened_at, to_hex(as_bytes(game.folder.string())));
    return out;
}

fs::path mark_of(const fs::path& folder) { return folder / "passing"; }

/// Projects made before there was a list.
std::vector<KnownGame> found_below(const fs::path& projects) {
    std::vector<KnownGame> out;
    std::error_code code;
    for (const auto& item : fs::directory_iterator(projects, code)) {
        const auto file = item.path() / "project.json";
        struct ::stat facts {};
        if (::stat(file.c_str(), &facts) != 0 || is_passing(item.path())) continue;
        out.push_back({real(item.path()), facts.st_mtime});
    }
    std::sort(out.begin(), out.end(), [](const KnownGame& a, const KnownGame& b) { return a.folder < b.folder; });
    return out;
}

void sort_by_time(std::vector<KnownGame>& games) {
    // Of two of the same second the one that stands first in the list was opened later.
    std::stable_sort(games.begin(), games.end(), [](const KnownGame& a, const KnownGame& b) { return a.opened_at > b.opened_at; });
}

}  // namespace

std::optional<fs::path> project_at(const fs::path& path) {
    std::error_code code;
    for (const auto& folder : {path, path.parent_path()})
        if (fs::is_regular_file(folder / "project.json", code) && fs::exists(path, code)) return folder;
    return std::nullopt;
}

GameList GameList::usual() { return {user_data_folder() / "games", user_data_folder() / "projects"}; }

std::vector<KnownGame> GameList::all(std::optional<Error>* aside) const {
    std::error_code code;
    std::vector<KnownGame> out;
    if (!fs::exists(file_, code)) out = found_below(projects_);
    else {
        const auto bytes = read_file(file_, 4u << 20);
        auto parsed = bytes ? parse(as_text(*bytes)) : std::nullopt;
        if (parsed) out = std::move(*parsed);
        else {
            const auto damaged = file_.string() + ".damaged";
            fs::rename(file_, damaged, code);
            if (aside)
                *aside = Error{ErrorCode::damaged,
                               "the list of games cannot be read",
                               {file_.string()},
                               std::nullopt,
                               phrase("It was set aside as {}; projects that lie elsewhere can be opened by their folder", damaged)};
            out = found_below(projects_);
        }
    }
    sort_by_time(out);
    return out;
}

template <class Change>
Status GameList::change(Change change) const {
    std::error_code code;
    make_folders(file_.parent_path(), code);
    SKIVET_TRY(const auto lock, FileLock::take_within(file_.string() + ".lock", patience));
    auto games = all();
    change(games);
    return write_file(file_, as_bytes(text_of(games)));
}

Status GameList::opened(const fs::path& folder, std::int64_t at) const {
    return change([&, where = real(folder)](std::vector<KnownGame>& games) {
        std::erase_if(games, [&](const KnownGame& g) { return g.folder == where; });
        games.insert(games.begin(), {where, at});
    });
}

Status GameList::forget(const fs::path& folder) const {
    return change([&, where = real(folder)](std::vector<KnownGame>& games) {
        std::erase_if(games, [&](const KnownGame& g) { return g.folder == where || g.folder == folder; });
    });
}

namespace {

fs::path seen_file(const fs::path& folder) { return folder / "seen.json"; }

/// Whether a source is other than it was when it was noted; what was not noted is not.
Result<bool> sources_changed(const Project& project, const CancelToken& cancel) {
    const auto bytes = read_file(seen_file(project.folder), 16u << 20);
    if (!bytes) return false;
    const auto seen = nlohmann::json::parse(as_text(*bytes), nullptr, false);
    if (!seen.is_object()) return false;
    for (const auto& source : project.sources) {
        SKIVET_CHECK(cancel.check());
        const auto noted = seen.find(to_hex(as_bytes(source.string())));
        if (noted != seen.end() && noted->is_string() && noted->get_ref<const std::string&>() != fingerprint_of(source)) return true;
    }
    return false;
}

}  // namespace

Result<GameCard> look_at_game(const KnownGame& known, const CancelToken& cancel) {
    GameCard out;
    out.known = known;
    out.name = known.folder.filename().string();
    std::error_code code;
    if (project_at(known.folder) != known.folder) {
        out.error = Error{ErrorCode::missing, "the project's folder is not there", {known.folder.string()}, {}, {}};
        return out;
    }
    const auto project = open_project(known.folder);
    if (!project) {
        out.error = project.error();
        return out;
    }
    out.name = project->name;
    out.game = project->game;
    out.game_there = project->game.empty() || fs::is_directory(project->game, code);
    for (const auto& piece : project->pieces) {
        out.out += piece.state == PieceState::out;
        out.waiting += waits(piece.state);
        out.in_game += piece.state == PieceState::delivered;
    }
    if (out.game_there) {
        SKIVET_TRY(out.changed, sources_changed(*project, cancel));
    }
    return out;
}

Status note_sources_seen(const Project& project) {
    auto seen = nlohmann::json::object();
    for (const auto& source : project.sources) seen[to_hex(as_bytes(source.string()))] = fingerprint_of(source);
    return write_file(seen_file(project.folder), as_bytes(seen.dump(1)));
}

Status rename_game(const fs::path& folder, const std::string& name) {
    if (name.empty()) return fail(ErrorCode::usage, "a project needs a name");
    SKIVET_TRY(const auto lock, lock_project(folder));
    SKIVET_TRY(auto project, open_project(folder));
    project.name = name;
    return save_project(project);
}

std::vector<std::size_t> telling_items(const AnalyzedCatalog& catalog, const Project& project, std::size_t most) {
    const auto& snapshot = *catalog.snapshot;
    const auto& items = snapshot.catalog.items;
    std::map<std::pair<std::string, std::vector<std::string>>, std::size_t> by_address;
    std::vector<std::size_t> large;
    for (std::size_t i = 0; i < items.size(); ++i) {
        const auto& item = items[i];
        if (!item.is_texture() || item.error || item.desc.width < 16 || item.desc.height < 16 || item.desc.faces > 1) continue;
        if (!project.pieces.empty()) by_address[{snapshot.sources[item.source].path.string(), item.inner}] = i;
        if (item.effective) large.push_back(i);
    }
    std::vector<std::size_t> out;
    for (auto piece = project.pieces.rbegin(); piece != project.pieces.rend() && out.size() < most; ++piece)
        if (const auto found = by_address.find({piece->address.source.string(), piece->address.inner}); found != by_address.end())
            out.push_back(found->second);
    // Color first: a normal map tells nobody which game it is.
    const auto rank = [&](std::size_t i) {
        const bool color = i < catalog.analysis.roles.size() && catalog.analysis.roles[i] == Role::base_color;
        return std::pair(color, std::uint64_t(items[i].desc.width) * items[i].desc.height);
    };
    const auto count = std::min(large.size(), 4 * most);
    std::partial_sort(large.begin(), large.begin() + std::ptrdiff_t(count), large.end(),
                      [&](std::size_t a, std::size_t b) { return rank(a) != rank(b) ? rank(a) > rank(b) : a < b; });
    std::set<std::string> names;
    for (const auto i : out) names.insert(items[i].name());
    for (std::size_t k = 0; k < count && out.size() < most; ++k)
        if (names.insert(items[large[k]].name()).second) out.push_back(large[k]);
    return out;
}

fs::path card_picture(const fs::path& folder) { return folder / "card.png"; }

Result<fs::path> make_passing(const fs::path& projects, const fs::path& file) {
    const auto stem = file.stem().string();
    const auto name = stem.empty() ? std::string("files") : stem;
    std::error_code code;
    make_folders(projects, code);
    for (int n = 1; n < 10'000; ++n) {
        const auto folder = projects / (n == 1 ? name : fmt::format("{} {}", name, n));
        // Made here and now: two programs that start at once get two.
        if (!fs::create_directory(folder, code)) {
            if (code) return fail_errno(code.value(), phrase("cannot make the project's folder {}", folder.string()));
            continue;
        }
        SKIVET_CHECK(write_file(mark_of(folder), as_bytes("kept once something is done in it\n")));
        return folder;
    }
    return fail(ErrorCode::limit, phrase("there are too many projects named {} in {}", name, projects.string()));
}

bool is_passing(const fs::path& folder) {
    std::error_code code;
    return fs::is_regular_file(mark_of(folder), code);
}

Status keep_passing(const fs::path& folder) {
    std::error_code code;
    fs::remove(mark_of(folder), code);
    if (code) return fail_errno(code.value(), phrase("cannot remove {}", mark_of(folder).string()));
    return {};
}

bool let_passing_go(const fs::path& folder) {
    if (!is_passing(folder)) return false;
    const auto lock = lock_project(folder);
    if (!lock) return false;
    const auto project = open_project(folder);
    std::error_code code;
    const auto holds = [](const fs::path& path) {
        std::error_code why;
        return fs::exists(path, why) && !(fs::is_directory(path, why) && fs::is_empty(path, why));
    };
    const bool untouched = project && project->pieces.empty() && project->changes.empty() && project->versions.empty() &&
                           project->stack_state.stack.empty() && project->roles.empty() && project->choices.empty() &&
                           project->shipped.empty() && project->known_paths.empty() && project->searches.empty() &&
                           !holds(project->keys()) && !holds(project->sheets()) && !holds(project->vault()) && !holds(project->work()) &&
                           !holds(project->parcels());
    if (!untouched) {
        (void)keep_passing(folder);
        return false;
    }
    fs::remove_all(folder, code);
    return !code;
}

void clear_passing(const fs::path& projects) {
    std::error_code code;
    std::vector<fs::path> left;
    for (const auto& item : fs::directory_iterator(projects, code))
        if (is_passing(item.path()) &&
            fs::last_write_time(mark_of(item.path()), code) < fs::file_time_type::clock::now() - std::chrono::minutes(1))
            left.push_back(item.path());
    for (const auto& folder : left) (void)let_passing_go(folder);
}

}  // namespace skivet

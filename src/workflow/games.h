#pragma once
// The projects of this person, one a game: which there are, when each was last worked on, and what a card of one says.
#include "base/progress.h"
#include "workflow/catalog_snapshot.h"
#include "workflow/project.h"

namespace skivet {

/// The project that a file manager means by a path: the folder of one, or any file that lies right in it; nothing for all else.
[[nodiscard]] std::optional<std::filesystem::path> project_at(const std::filesystem::path& path);

struct KnownGame {
    std::filesystem::path folder;  ///< the project's
    std::int64_t opened_at = 0;    ///< seconds since 1970, UTC
    bool operator==(const KnownGame&) const = default;
};

/// The list of projects, one file. Several programs may change it; each change is whole.
class GameList {
public:
    /// `projects`: where projects lie that nobody gave a place; what is there already is in a list that is made anew.
    GameList(std::filesystem::path file, std::filesystem::path projects) : file_(std::move(file)), projects_(std::move(projects)) {}
    /// games in user_data_folder(), with the projects below it.
    [[nodiscard]] static GameList usual();

    /// The last opened first. A list that cannot be read is set aside as games.damaged and made anew; `aside` says so.
    [[nodiscard]] std::vector<KnownGame> all(std::optional<Error>* aside = nullptr) const;
    /// Takes a project in, or says that it was opened again.
    [[nodiscard]] Status opened(const std::filesystem::path& folder, std::int64_t at) const;
    /// Off the list; its folder stays.
    [[nodiscard]] Status forget(const std::filesystem::path& folder) const;
    [[nodiscard]] const std::filesystem::path& projects() const { return projects_; }

private:
    template <class Change>
    [[nodiscard]] Status change(Change change) const;
    std::filesystem::path file_, projects_;
};

/// What a card of a project says. Nothing here is locked: another window may be working on it.
struct GameCard {
    KnownGame known;
    std::string name;
    std::filesystem::path game;
    std::size_t out = 0;         ///< pieces whose files are with the person
    std::size_t waiting = 0;     ///< edits that are not in the game
    std::size_t in_game = 0;     ///< pieces that are delivered
    bool game_there = true;      ///< the game's folder, where one is named
    bool changed = false;        ///< a source is other than when the project was last open
    std::optional<Error> error;  ///< the project cannot be read, or is not there
};
/// Reads project.json and asks the file system about the sources; no archive is opened. Error `canceled` only.
[[nodiscard]] Result<GameCard> look_at_game(const KnownGame& known, const CancelToken& cancel);
/// Keeps what the sources are now, so that a later card can tell whether they changed: seen.json.
[[nodiscard]] Status note_sources_seen(const Project& project);
/// Another name for a project that no window has open. Error `busy`.
[[nodiscard]] Status rename_game(const std::filesystem::path& folder, const std::string& name);

/// Up to `most` textures that tell one game from another at a glance: the pieces, the newest first, then its largest.
[[nodiscard]] std::vector<std::size_t> telling_items(const AnalyzedCatalog& catalog, const Project& project, std::size_t most);
/// Where a card's picture lies in a project's folder.
[[nodiscard]] std::filesystem::path card_picture(const std::filesystem::path& folder);

/// A project for files that somebody only wants to look at: a free folder below `projects` with a mark in it.
[[nodiscard]] Result<std::filesystem::path> make_passing(const std::filesystem::path& projects, const std::filesystem::path& file);
[[nodiscard]] bool is_passing(const std::filesystem::path& folder);
/// It is a project like others from now on.
[[nodiscard]] Status keep_passing(const std::filesystem::path& folder);
/// Removes a passing project's folder when no window has it and nothing was done in it: no piece, no delivery, no key, no sheet, no word on
/// its textures. One in which something was done is kept. Returns whether it is gone.
[[nodiscard]] bool let_passing_go(const std::filesystem::path& folder);
/// The same for all that a crash left below `projects`; those that are open stay, and those of the last minute, which are just being
/// opened.
void clear_passing(const std::filesystem::path& projects);

}  // namespace skivet

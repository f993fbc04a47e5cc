#pragma once
// What an installation holds that could be a source, before anything of it is one. The first look walks the folders and reads the
// beginning of each file; the second opens the archives it found and counts what is in them.
#include "base/progress.h"
#include "container/address.h"

namespace skivet {

/// Where a source belongs in the order of loading; later ones win.
enum class SourceGroup { base, extra, update, mods, over };
/// "base", "extra content", "update", "other mods", "override": as a project's sources are grouped.
[[nodiscard]] std::string_view name_of(SourceGroup group);

/// One thing that could be a source.
struct Found {
    enum class What {
        archive,      ///< something a reader opens
        loose,        ///< textures and pictures that lie in folders
        undescribed,  ///< large, and nothing says what is in it
        backup,       ///< a copy somebody keeps
        installer,    ///< what set the game up
        documents     ///< pictures of manuals and screenshots
    } what = What::archive;
    std::filesystem::path path;               ///< a file (the first of its parts), or the folder in which everything lies
    std::vector<std::filesystem::path> with;  ///< files that belong to it: its other parts, an index or data beside it
    std::string kind;                         ///< of the archive; empty: none
    std::string reason;                       ///< by what it was recognized
    SourceGroup group = SourceGroup::base;
    std::string group_reason;  ///< what says so; empty: nothing, which makes it base
    std::uint64_t bytes = 0;
    std::int64_t written = 0;                ///< seconds since 1970, UTC; the newest of a folder's
    std::size_t textures = 0;                ///< texture and picture files; of an archive known after the second look
    std::size_t entries = 0;                 ///< of an archive, after the second look
    bool opened = false;                     ///< the second look was there
    std::optional<Error> error;              ///< why it could not be opened
    std::vector<std::uint64_t> path_hashes;  ///< of an archive's textures, sorted; to see which archives share a path
    std::vector<Address> samples;            ///< at most four textures, to show
    bool wanted = false;                     ///< proposed as a source
    std::string why;                         ///< why it is, or is not

    [[nodiscard]] std::size_t files() const { return 1 + with.size(); }
};

struct GameSurvey {
    std::filesystem::path root;
    std::vector<Found> found;  ///< by path
    /// Texts beside or above the archives, small enough to read: one of them may be the game's own list.
    std::vector<std::filesystem::path> texts;
    std::size_t files = 0, folders = 0;
    std::size_t hidden = 0, linked = 0, unreadable = 0;  ///< left out
    bool whole = true;                                   ///< false: there was more than the limits allow
};

/// Walks `root` without following links or going into hidden folders, and reads of each file its beginning (of a large one that nothing
/// recognizes by that, what its kind asks for). At most `context.limits.entries` files and 64 folders deep. Errors: `missing`, `io` for the
/// root itself, `canceled`. `progress` counts files.
[[nodiscard]] Result<GameSurvey> survey_game(const ReadContext& context, const std::filesystem::path& root, Progress& progress);

/// Opens an archive that was found, counts its textures, picks samples, and says anew whether it is wanted. Fills `opened`; what went wrong
/// is in `error`.
void look_inside(const ReadContext& context, Found& found);

}  // namespace skivet

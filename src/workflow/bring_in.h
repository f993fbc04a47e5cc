#pragma once
// A folder of pictures that were edited elsewhere, for an older version of the game, or by a friend: which texture is each of them?
#include "workflow/catalog_snapshot.h"
#include "workflow/pieces.h"

namespace skivet {

/// What a picture was matched by, the surest first.
enum class MatchedBy : std::uint8_t {
    path,       ///< name and all folders
    name,       ///< the file name, and as many folders as both have
    bare_name,  ///< the name without the word for its role and without numbers of copies
    picture,    ///< what it shows
};
[[nodiscard]] std::string_view name_of(MatchedBy by);

struct BroughtMatch {
    std::filesystem::path file;  ///< relative to the folder
    std::size_t item = 0;        ///< of the catalog
    MatchedBy by = MatchedBy::path;
    std::vector<std::size_t> others;  ///< items that fit as well
    std::string doubt;                ///< why somebody should look first; empty: sure
};

struct BroughtFolder {
    std::vector<BroughtMatch> matches;             ///< doubtful ones first, then by file
    std::vector<std::filesystem::path> unmatched;  ///< pictures that fit nothing
    std::vector<Error> errors;                     ///< of files that could not be read
};

/// Only textures the game loads are matched. Names are compared without case; of a name one of our own exports gives (x.dds.png) the ending
/// is taken off. A match is doubtful when several textures fit as well, when it goes by the bare name or by the picture, when the sides
/// have another proportion, when two files ask for one texture, and when an edit of it is on the bench. Pictures are searched for only
/// among what was looked at (the analysis has facts of it). Errors: `canceled`; `limit` for a folder with more than 20,000 pictures; the
/// folder's own.
[[nodiscard]] Result<BroughtFolder> match_folder(const AnalyzedCatalog& catalog, const Project& project,
                                                 const std::filesystem::path& folder, const ReadLimits& limits, Progress& progress);

/// Makes the file the edit of the texture: takes the texture to the bench if it is not there, and copies the file into the work folder. An
/// edit that is there already is kept as a version. The folder itself is never changed.
[[nodiscard]] Result<PieceId> bring_in(const ReadContext& context, Project& project, const Address& address,
                                       const std::filesystem::path& file, std::int64_t now);

}  // namespace skivet

#pragma once
// What paint programs do to the files in the work folder: saves are noticed however they are made, and every version that came back is
// kept by its content.
#include <map>

#include "base/file_view.h"
#include "workflow/pieces.h"

namespace skivet {

/// Whether a file that is being written may be whole already: PNG and JPEG by their end, other texture and picture files by what their
/// headers ask for, OpenRaster by its directory. What we do not know is whole.
[[nodiscard]] bool is_whole(ByteSpan file, std::string_view name);

/// Whether read_edited reads files named so.
[[nodiscard]] bool is_named_like_an_edit(const std::filesystem::path& file);

/// The state of the files when they were last read, so that thousands of them cost a question to the file system each. For one look at a
/// time.
class SeenFiles {
public:
    /// False when the file is as it was when `remember` was called. A file that was written less than two seconds before that may have been
    /// written again without its time changing, and is read once more.
    [[nodiscard]] bool may_be_new(const std::filesystem::path& file, const FileStamp& stamp) const;
    void remember(const std::filesystem::path& file, const FileStamp& stamp);

private:
    std::map<std::filesystem::path, std::pair<FileStamp, bool>> seen_;  ///< and whether it was old enough then
};

/// A file that was saved beside a piece's, later, under the same name with another ending.
struct OtherSave {
    PieceId piece = 0;
    std::filesystem::path file;  ///< relative to the work folder
    bool operator==(const OtherSave&) const = default;
};

struct BenchLook {
    std::vector<Piece> saved;       ///< with other content than they were seen with
    std::vector<Version> versions;  ///< of them, kept
    std::vector<OtherSave> others;
    bool unfinished = false;    ///< a file is being written; it is worth looking again soon
    std::vector<Error> errors;  ///< versions that could not be kept
};
/// A file and the hash of its new content.
using SaveSeen = std::function<void(const std::filesystem::path& file, const std::string& hash)>;
/// Looks at the pieces' files and what lies beside them. A file that is gone or not whole is waited for; one that stays so for ten seconds
/// is taken as it is. Canceled, it ends with what it has seen. `first` is told of the first file that was saved, before its version is
/// kept: of one large file that takes as long as all the rest.
[[nodiscard]] BenchLook look_at_files(const Project& project, SeenFiles& seen, std::int64_t now, const CancelToken& cancel = {},
                                      const SaveSeen& first = {});
/// Takes over that a file has new content; the ids of the pieces it belongs to.
std::vector<PieceId> note_save(Project& project, const std::filesystem::path& file, const std::string& hash, std::int64_t now);
/// Takes over what was seen; the ids of the pieces that were saved.
std::vector<PieceId> note_look(Project& project, const BenchLook& look);

/// What lies beside: readable picture and texture files with the piece's name and another ending, newer than its file.
[[nodiscard]] std::vector<OtherSave> other_saves(const Project& project);
/// The piece's edit is in this file from now on (the pieces that share its file follow); the old one stays where it is. Error `usage` when
/// another piece has it.
[[nodiscard]] Status use_file(Project& project, PieceId id, const std::filesystem::path& file, std::int64_t now);

/// Keeps the content of a piece's files, but of those that are as they were exported, or kept already.
[[nodiscard]] Result<std::vector<Version>> keep_versions(const Project& project, const Piece& piece, std::int64_t now);
/// The piece's, the newest first.
[[nodiscard]] std::vector<Version> versions_of(const Project& project, const Piece& piece);
/// Writes a version into the work folder in the place of what is there, which is kept before if it was not. Returns the piece with it.
/// Error `usage` when another piece has its file by now.
struct WentBack {
    Piece piece;
    std::vector<Version> kept;
};
[[nodiscard]] Result<WentBack> go_back(const Project& project, const Piece& piece, const Version& version, std::int64_t now);
/// Puts in those that are not there yet.
void add_versions(Project& project, std::span<const Version> versions);
/// Deletes the bytes of all versions but those that lie in the work folder; returns the ones that are gone, for the project to forget.
[[nodiscard]] std::vector<Version> cleared_versions(const Project& project);
[[nodiscard]] std::uint64_t bytes_of_versions(const Project& project);

}  // namespace skivet

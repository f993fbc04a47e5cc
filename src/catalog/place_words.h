#pragma once
// What names of folders and files in an installation say about what lies there.
#include <string>

#include "catalog/game_survey.h"

namespace skivet {

/// What a folder's or a file's name says.
enum class PlaceWord { none, backup, installer, documents, extra, update, mods, over };

/// Of a folder: its whole name, numbers and marks around it aside ("DLC_1"). A word inside a longer name names a thing, not a purpose.
[[nodiscard]] PlaceWord word_of_folder(const std::string& name);
/// Of a file: any word of its name; the first that says something.
[[nodiscard]] PlaceWord word_of_file(const std::string& name);
[[nodiscard]] SourceGroup group_of(PlaceWord word);

}  // namespace skivet

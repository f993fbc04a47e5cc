#pragma once
// Names for entries that are known only by a hash, found inside the game's other files.
#include "catalog/catalog.h"

namespace skivet {

/// A path that hashes to an entry without a name.
struct NameCandidate {
    std::size_t source = 0;          ///< index into the sources
    std::vector<std::string> inner;  ///< the archive inside the source that the entry is in; empty: the source itself
    std::string hash;                ///< the entry's path so far: "#5d1c0a3e"
    std::string path;
    std::string found_in;  ///< the entry whose text names it
};

/// Looks for text that names entries: whatever looks like a path or file name in the files of all sources, also behind the folders that
/// the archive's known entries have. Textures and files of more than 16 MB are left out. `progress` counts entries. Error `canceled` only.
[[nodiscard]] Result<std::vector<NameCandidate>> find_names(const ReadContext& context, std::span<const Source> sources,
                                                            Progress& progress);

}  // namespace skivet

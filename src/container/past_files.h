#pragma once
// Files as they were at another time. A context that has some reads them in place of what lies on the disk, so that an archive, the files
// beside it and a folder can be looked at, and planned on, as they were before deliveries, without a copy of them.
#include <map>
#include <set>

#include "base/file_view.h"

namespace skivet {

struct PastFiles {
    std::map<std::filesystem::path, FileView> were;  ///< with other content, or gone from the disk since; by their real paths
    std::set<std::filesystem::path> not_there;       ///< that came since

    /// The file as it was: one that nothing is said of is the disk's. Error `missing` for one that was not there.
    [[nodiscard]] Result<FileView> open(const std::filesystem::path& file) const;
};

/// `past` may be null: then it is the disk's file.
[[nodiscard]] Result<FileView> open_file(const PastFiles* past, const std::filesystem::path& file);
/// As FileView::join.
[[nodiscard]] Result<FileView> join_files(const PastFiles* past, const std::vector<std::filesystem::path>& parts, std::uint64_t limit);

}  // namespace skivet

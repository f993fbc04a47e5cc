#pragma once
// Archives and files that were cut into parts by size.
#include <filesystem>
#include <map>
#include <optional>
#include <string>
#include <vector>

namespace skivet {

/// Number and whole name of a part: "big.crate.00" is part 0 of "big.crate"; nothing for a name that is no part's.
/// Endings: two or three digits (.00 .01, .000, .001), .part1 and .z01.
struct PartName {
    std::string whole;
    std::string style;  ///< what kind of ending, to keep different ones apart
    unsigned number = 0;
};
[[nodiscard]] std::optional<PartName> part_name(std::string_view file_name);

/// Groups a folder's file names: whole name → its parts in order. Only complete groups of at least two, numbered from 0 or 1 without a
/// hole; other names are left out. A hole is told as `missing`, the name of the first part that is not there.
struct PartGroup {
    std::vector<std::string> parts;
    std::string missing;
};
[[nodiscard]] std::map<std::string, PartGroup> group_parts(const std::vector<std::string>& names);

}  // namespace skivet

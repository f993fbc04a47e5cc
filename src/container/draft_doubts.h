#pragma once
#include "container/draft_found.h"
#include "container/sheet_try.h"

namespace skivet::draft {

/// A draft that was tried.
struct Doubted {
    const Found& found;
    const Trial& trial;
    const std::vector<NameRun>& names;   ///< that lie apart, all there are in the file
    bool hidden = false;                 ///< a key was guessed: more must speak for what it shows
    std::uint64_t most_unexplained = 0;  ///< bytes a sound draft may leave
};
/// Why it must not be taken for the layout; nothing where it may.
[[nodiscard]] std::string why_unsound(const Doubted& doubted);

/// A letter, a digit or what stands between those of a path.
[[nodiscard]] bool is_plain_sign(std::byte b);

}  // namespace skivet::draft

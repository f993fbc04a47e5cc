#pragma once
// What other tools have left in an installation: told, never touched.
#include "catalog/load_order.h"

namespace skivet {

struct Leftover {
    enum class What : std::uint8_t {
        unlisted,  ///< an archive that the game's own list does not name
        copy,      ///< a copy of a file beside it, under a name that says so
        wrapper,   ///< a library beside the program that goes by a system library's name: the game loads it in that one's place
    } what = What::copy;
    std::filesystem::path path;
    std::string why;  ///< in words, for a person
};

/// Looks through a game's folder (200,000 files at most, no links followed). What cannot be read is passed over. Error `canceled` only.
[[nodiscard]] Result<std::vector<Leftover>> find_leftovers(const GameSurvey& survey, const LoadOrder& order,
                                                           const CancelToken& cancel = {});

}  // namespace skivet

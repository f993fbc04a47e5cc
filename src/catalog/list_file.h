#pragma once
// A game's own text that lists its archives, one a line or several in one: reading it, and adding to it without changing anything else.
#include <map>
#include <span>
#include <vector>

#include "base/bytes.h"

namespace skivet {

/// A line that names something.
struct ListedLine {
    struct Name {
        std::size_t what = 0;          ///< the value in `by_name`
        std::size_t at = 0, size = 0;  ///< where in the text it stands, without the folders before it
    };
    std::size_t at = 0, size = 0;  ///< in the text, without its line end
    std::vector<Name> names;       ///< in the order in which they stand
};
struct ListText {
    std::vector<ListedLine> lines;
    std::size_t said = 0;  ///< lines that say anything: neither empty nor a comment
};
/// `by_name`: file names in lower case. Comments begin with # or //. A name stands as a word of its own, with or without folders before
/// it, or takes the whole line.
[[nodiscard]] ListText read_list_text(std::string_view text, const std::multimap<std::string, std::size_t>& by_name);

/// The text with each of `more` listed behind what it lists, in the form it lists the last of `known` with the same ending: a line like
/// that one, with a number that counts on where the lines are numbered, or a name more in its one line. `beside`: those of `known` that lie
/// in the same folder as the new ones, so that folders before names are right; empty: all. What is listed already is not listed twice. All
/// are file names. Errors: `unfit` when it names none of `known`.
[[nodiscard]] Result<std::string> with_listed(std::string_view text, std::span<const std::string> known, std::span<const std::string> more,
                                              std::span<const std::string> beside = {});

}  // namespace skivet

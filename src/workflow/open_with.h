#pragma once
// What opens a piece: a command of the modder's, for its file type or for all, or whatever the desktop has for it.
#include "workflow/project.h"

namespace skivet {

/// Endings that a command of its own can be named for, without the dot: "png", "tiff" …
[[nodiscard]] std::vector<std::string> endings_of_pieces();

/// Program and arguments; empty: the desktop decides. Placeholders in an argument: {file}, the whole path; {folder}, its folder; {alpha},
/// the gray picture that is its alpha (an argument that asks for one where there is none is left out); {name}, the texture's name; {{ is a
/// brace. Without {file} the file comes last.
[[nodiscard]] std::vector<std::string> command_for(const Project& project, const Piece& piece);
/// Error `usage` for a placeholder that is none.
[[nodiscard]] Status check_command(const std::vector<std::string>& command);

}  // namespace skivet

#pragma once
// Where deliveries beside the archives go: settings of the project, with proposals from what the installation shows.
#include "workflow/project.h"

namespace skivet {

/// The folder for loose files, relative to the game's: what an existing one of the sources or the game's folder suggests, else "override".
[[nodiscard]] std::string proposed_override(const Project& project);
/// As set, or as proposed; absolute. In the project's folder when it knows no game.
[[nodiscard]] std::filesystem::path override_folder(const Project& project);

/// How patch archives are named, without the ending: as the installation's own updates beside this archive are ("patch_{n}"), else
/// "zz_{name}_patch". `{name}` is the archive's name without its ending, `{n}` a number above those that are there.
[[nodiscard]] std::string proposed_patch_name(const Project& project, const std::filesystem::path& archive);
/// The file of a new patch archive, beside the archive when it lies in the game's folder; nobody has it yet.
[[nodiscard]] std::filesystem::path patch_archive(const Project& project, const std::filesystem::path& archive);

/// Error `usage` for a folder that is absolute or climbs out, and for a pattern that is a path or has another word in braces.
[[nodiscard]] Status check_places(const std::string& override_folder, const std::string& patch_name);

}  // namespace skivet

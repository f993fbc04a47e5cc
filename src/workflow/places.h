#pragma once
// Where deliveries beside the archives go: settings of the project, with proposals from what the installation shows.
#include "workflow/project.h"

namespace skivet {

/// The folder for loose files, relative to the game's: what an existing one of the sources or the game's folder suggests, else "override".
[[nodiscard]] std::string proposed_override(const Project& project);
/// As set, or as proposed; absolute. In the project's folder when it knows no game.
[[nodiscard]] std::filesystem::path override_folder(const Project& project);

/// What a layout's words stand for.
struct LayoutWords {
    std::string path;     ///< {path}: inside the archive, or below the game's folder
    std::string archive;  ///< {archive}: the archive's name without its ending
    std::string group;    ///< {group}: "base", "update", "extra", "other" or "override", as the source's group has it
};
/// The layout with its words filled in; {file} is the last part of the path. Empty: {path}.
[[nodiscard]] std::string laid_out(const std::string& layout, const LayoutWords& words);
/// Words for what comes from this source.
[[nodiscard]] LayoutWords layout_words(const Project& project, const std::filesystem::path& source, std::string path);
/// How loose files lie in the override folder: below a folder named after their archive where there is one, else by their paths alone.
[[nodiscard]] std::string proposed_layout(const Project& project);

/// How patch archives are named, without the ending: as the installation's own updates beside this archive are ("patch_{n}"), else
/// "zz_{name}_patch". `{name}` is the archive's name without its ending, `{n}` a number above those that are there.
[[nodiscard]] std::string proposed_patch_name(const Project& project, const std::filesystem::path& archive);
/// The file of a new patch archive, beside the archive when it lies in the game's folder; nobody has it yet, and it is none of `taken`.
[[nodiscard]] std::filesystem::path patch_archive(const Project& project, const std::filesystem::path& archive,
                                                  std::span<const std::filesystem::path> taken = {});
/// The list that names patch archives: as set, or the one the load order was read from; empty: none.
[[nodiscard]] std::filesystem::path patch_list(const Project& project);

/// How files of the device are cut, with proposals filled in.
[[nodiscard]] DeviceCut device_cut(const DeviceSettings& device);

/// Where the project's destination is, for people; empty for the archives themselves.
[[nodiscard]] std::string place_in_words(const Project& project);

/// Error `usage` for a folder or a list that is absolute or climbs out, for a pattern that is a path or has another word in braces, for a
/// layout that does not end in {path} or {file}, and those of check_cut.
[[nodiscard]] Status check_places(const PlaceSettings& places);
/// The folder the game is started in: as set, or the game's; empty where neither is known.
[[nodiscard]] std::filesystem::path play_folder(const Project& project);
/// Error `usage` for what is no NAME=value, and for a log that lies outside the game's folder.
[[nodiscard]] Status check_play(const PlaySettings& play);

}  // namespace skivet

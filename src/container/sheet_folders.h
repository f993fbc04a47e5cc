#pragma once
#include <filesystem>
#include <vector>

namespace skivet {

/// Where shipped sheets lie, beside the program (in the build tree or installed), and the user's own
/// ($XDG_CONFIG_HOME/skivet/sheets). Folders that do not exist are left out.
[[nodiscard]] std::vector<std::filesystem::path> sheet_folders();
/// A shipped program beside this one, for example fair-stall; empty when it is not there.
[[nodiscard]] std::filesystem::path program_beside(const char* name);

}  // namespace skivet

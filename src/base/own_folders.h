#pragma once
// Folders of our own: the user's alone, and without what a process that was ended left behind.
#include <chrono>
#include <filesystem>
#include <string_view>

namespace skivet {

/// As std::filesystem::create_directories. What lies in one of the user's folders for us (user_data_folder, user_cache_folder,
/// user_state_folder, user_config_folder) is made for the user alone, mode 0700, and so is that folder itself when it was open to others.
void make_folders(const std::filesystem::path& folder, std::error_code& code);

/// How long files that were written to be dragged somewhere are kept: whoever got them may read them late.
inline constexpr auto kept_for_dragging = std::chrono::hours(24);
/// Where they lie.
[[nodiscard]] std::filesystem::path folder_for_dragging();

/// What the name of a TemporaryFolder begins with; its process's number follows.
inline constexpr std::string_view temporary_name = "skivet-run-";
/// Removes temporary folders of ours whose process has ended, and what was dragged long ago. Quiet: what cannot be removed stays.
void sweep_leftovers();

}  // namespace skivet

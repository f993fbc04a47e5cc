#pragma once
// What a person set for the program as a whole, whatever the game: one JSON file. What belongs to a game is in its project.
#include <filesystem>
#include <map>
#include <optional>

#include "base/result.h"

namespace skivet {

struct Settings {
    enum class Look : std::uint8_t { system, light, night };
    Look look = Look::system;
    int text_percent = 0;                          ///< size of text, 80 to 200; 0: as the system has it
    bool menu_bar = true;                          ///< always there; otherwise while Alt or F10 shows it
    std::string language;                          ///< "en", "de"; empty: the system's
    std::uint64_t thumbnail_bytes = 256ull << 20;  ///< what small pictures may take on the disk
    std::map<std::string, std::string> keys;       ///< by action: its key as portable text ("Ctrl+Shift+E"); empty: none
    std::vector<std::string> recent_commands;      ///< actions run from the command finder, the last first
    std::vector<std::string> hints_seen;           ///< pages whose first hint was put away
    bool operator==(const Settings&) const = default;
};

/// settings.json in user_config_folder().
[[nodiscard]] std::filesystem::path settings_file();
/// What is not in the file, or makes no sense there, is as above. A file that cannot be read is set aside as settings.damaged.json, and
/// `aside` says so.
[[nodiscard]] Settings load_settings(const std::filesystem::path& file, std::optional<Error>* aside = nullptr);
/// What another version keeps in the file stays there.
[[nodiscard]] Status save_settings(const Settings& settings, const std::filesystem::path& file);

}  // namespace skivet

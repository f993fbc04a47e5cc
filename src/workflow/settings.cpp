#include "workflow/settings.h"

#include <algorithm>
#include <nlohmann/json.hpp>

#include "base/file_write.h"
#include "base/phrase.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr std::string_view looks[] = {"system", "light", "night"};

/// The value under a name, where it is there and of the right sort.
template <class Value>
void read(const nlohmann::json& j, const char* name, Value& value) {
    const auto found = j.find(name);
    if (found == j.end()) return;
    try {
        value = found->get<Value>();
    } catch (const nlohmann::json::exception&) {  // NOLINT(bugprone-empty-catch): stays as it was
    }
}

}  // namespace

fs::path settings_file() { return user_config_folder() / "settings.json"; }

Settings load_settings(const fs::path& file, std::optional<Error>* aside) {
    Settings out;
    std::error_code code;
    if (!fs::exists(file, code)) return out;
    const auto bytes = read_file(file, 4u << 20);
    const auto j = bytes ? nlohmann::json::parse(as_text(*bytes), nullptr, false) : nlohmann::json();
    if (!j.is_object()) {
        auto damaged = file.parent_path() / "settings.damaged.json";
        for (int n = 2; fs::exists(damaged, code) && n < 100; ++n)
            damaged = file.parent_path() / ("settings.damaged." + std::to_string(n) + ".json");
        fs::rename(file, damaged, code);
        if (aside)
            *aside = Error{ErrorCode::damaged,
                           "the settings cannot be read, so those of a new installation are used",
                           {file.string()},
                           std::nullopt,
                           code ? "" : phrase("They were set aside as {}", damaged.string())};
        return out;
    }
    std::string look;
    read(j, "look", look);
    if (const auto found = std::find(std::begin(looks), std::end(looks), look); found != std::end(looks))
        out.look = static_cast<Settings::Look>(found - std::begin(looks));
    read(j, "text_percent", out.text_percent);
    if (out.text_percent != 0) out.text_percent = std::clamp(out.text_percent, 80, 200);
    read(j, "menu_bar", out.menu_bar);
    read(j, "language", out.language);
    read(j, "thumbnail_bytes", out.thumbnail_bytes);
    out.thumbnail_bytes = std::max<std::uint64_t>(out.thumbnail_bytes, 16u << 20);
    read(j, "keys", out.keys);
    read(j, "recent_commands", out.recent_commands);
    read(j, "hints_seen", out.hints_seen);
    return out;
}

Status save_settings(const Settings& settings, const fs::path& file) {
    auto j = nlohmann::json::object();
    if (const auto bytes = read_file(file, 4u << 20))
        if (auto there = nlohmann::json::parse(as_text(*bytes), nullptr, false); there.is_object()) j = std::move(there);
    j["look"] = looks[static_cast<std::size_t>(settings.look)];
    j["text_percent"] = settings.text_percent;
    j["menu_bar"] = settings.menu_bar;
    j["language"] = settings.language;
    j["thumbnail_bytes"] = settings.thumbnail_bytes;
    j["keys"] = settings.keys;
    j["recent_commands"] = settings.recent_commands;
    j["hints_seen"] = settings.hints_seen;
    return write_file(file, as_bytes(j.dump(1, ' ', false, nlohmann::json::error_handler_t::replace)));
}

}  // namespace skivet

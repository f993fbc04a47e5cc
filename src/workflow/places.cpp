#include "workflow/places.h"

#include <fmt/format.h>
#include <algorithm>

#include "base/text.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr std::string_view usual_patch = "zz_{name}_patch";  // behind everything else where names give the order

fs::path home(const Project& project) { return project.game.empty() ? project.folder : project.game; }

bool inside(const fs::path& path, const fs::path& folder) { return path.string().starts_with((folder / "").string()); }

bool digit(char c) { return c >= '0' && c <= '9'; }

std::string filled(std::string pattern, const std::string& name, std::uint64_t number) {
    for (const auto& [word, value] : {std::pair<std::string, std::string>("{name}", name), {"{n}", std::to_string(number)}})
        for (auto at = pattern.find(word); at != std::string::npos; at = pattern.find(word, at + value.size()))
            pattern.replace(at, word.size(), value);
    return pattern;
}

/// The number that a name has where the pattern has {n}; nothing when it does not fit.
std::optional<std::uint64_t> number_in(std::string_view name, std::string_view pattern) {
    const auto at = pattern.find("{n}");
    if (at == std::string_view::npos) return std::nullopt;
    const auto before = pattern.substr(0, at), behind = pattern.substr(at + 3);
    if (name.size() <= before.size() + behind.size() || !name.starts_with(before) || !name.ends_with(behind)) return std::nullopt;
    const auto digits = name.substr(before.size(), name.size() - before.size() - behind.size());
    if (digits.size() > 9 || !std::all_of(digits.begin(), digits.end(), digit)) return std::nullopt;
    return std::stoull(std::string(digits));
}

}  // namespace

std::string proposed_override(const Project& project) {
    std::error_code code;
    for (const auto& source : project.sources)
        if (project.setting(source).group == "override" && inside(source, project.game) && fs::is_directory(source, code))
            return source.lexically_relative(project.game).generic_string();
    if (!project.game.empty())
        for (const auto& item : fs::directory_iterator(project.game, fs::directory_options::skip_permission_denied, code))
            if (const auto name = lower(item.path().filename().string());
                (name == "override" || name == "overrides") && item.is_directory(code))
                return item.path().filename().string();
    return "override";
}

fs::path override_folder(const Project& project) {
    return home(project) / (project.override_folder.empty() ? proposed_override(project) : project.override_folder);
}

std::string proposed_patch_name(const Project& project, const fs::path& archive) {
    for (auto source = project.sources.rbegin(); source != project.sources.rend(); ++source) {
        if (project.setting(*source).group != "update" || source->parent_path() != archive.parent_path() ||
            source->extension() != archive.extension())
            continue;
        const auto stem = source->stem().string();
        const auto last = stem.find_last_of("0123456789");
        if (last == std::string::npos) continue;
        auto first = last;
        while (first > 0 && digit(stem[first - 1])) --first;
        return stem.substr(0, first) + "{n}" + stem.substr(last + 1);
    }
    return std::string(usual_patch);
}

fs::path patch_archive(const Project& project, const fs::path& archive) {
    const auto pattern = project.patch_name.empty() ? proposed_patch_name(project, archive) : project.patch_name;
    const auto folder = inside(archive, home(project)) ? archive.parent_path() : home(project);
    const auto name = archive.stem().string(), ending = archive.extension().string();
    const auto numbered = filled(pattern, name, 0) == filled(pattern, name, 1) ? std::string() : pattern;
    std::error_code code;
    std::uint64_t number = 1;
    if (!numbered.empty())
        for (const auto& item : fs::directory_iterator(folder, fs::directory_options::skip_permission_denied, code))
            if (const auto there = number_in(item.path().stem().string(),
                                             filled(pattern.substr(0, pattern.find("{n}")), name, 0) + pattern.substr(pattern.find("{n}"))))
                number = std::max(number, *there + 1);
    for (;; ++number) {
        auto file = folder / (filled(pattern, name, number) + (numbered.empty() && number > 1 ? fmt::format("_{}", number) : "") + ending);
        if (!fs::exists(file, code)) return file;
    }
}

Status check_places(const std::string& folder, const std::string& patch) {
    if (!folder.empty() && safe_relative_path(folder) != fs::path(folder).lexically_normal().generic_string())
        return fail(ErrorCode::usage, "the folder for loose files must lie inside the game's: " + folder,
                    "Write it relative to the game's folder, as data/override");
    if (patch.find('/') != std::string::npos || (!patch.empty() && safe_relative_path(patch) != patch))
        return fail(ErrorCode::usage, "patch archives lie beside the archive they change: " + patch + " is no name",
                    "Write a name, as patch_{n}");
    const auto plain = filled(patch, "", 1);
    if (plain.find_first_of("{}") != std::string::npos)
        return fail(ErrorCode::usage, "a patch archive's name has an unknown word in braces: " + patch, "There are {name} and {n}");
    return {};
}

}  // namespace skivet

#include "workflow/places.h"

#include <fmt/format.h>
#include <algorithm>

#include "base/phrase.h"
#include "base/text.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr std::string_view usual_patch = "zz_{name}_patch";  // behind everything else where names give the order

fs::path home(const Project& project) { return project.game.empty() ? project.folder : project.game; }

bool inside(const fs::path& path, const fs::path& folder) { return path.string().starts_with((folder / "").string()); }

bool digit(char c) { return c >= '0' && c <= '9'; }

using Filling = std::pair<std::string_view, std::string>;

std::string filled(std::string pattern, std::initializer_list<Filling> words) {
    for (const auto& [word, value] : words)
        for (auto at = pattern.find(word); at != std::string::npos; at = pattern.find(word, at + value.size()))
            pattern.replace(at, word.size(), value);
    return pattern;
}

std::string filled(std::string pattern, const std::string& name, std::uint64_t number) {
    return filled(std::move(pattern), {{"{name}", name}, {"{n}", std::to_string(number)}});
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
    return home(project) / (project.places.override_folder.empty() ? proposed_override(project) : project.places.override_folder);
}

std::string laid_out(const std::string& layout, const LayoutWords& words) {
    const auto slash = words.path.rfind('/');
    return filled(layout.empty() ? "{path}" : layout, {{"{file}", slash == std::string::npos ? words.path : words.path.substr(slash + 1)},
                                                       {"{archive}", words.archive},
                                                       {"{group}", words.group},
                                                       {"{path}", words.path}});  // last: a path may have braces of its own
}

LayoutWords layout_words(const Project& project, const fs::path& source, std::string path) {
    auto group = project.setting(source).group;
    if (group.empty()) group = "base";
    return {std::move(path), source.stem().string(), group.substr(0, group.find(' '))};
}

std::string proposed_layout(const Project& project) {
    const auto folder = override_folder(project);
    std::error_code code;
    for (const auto& source : project.sources)
        if (!fs::is_directory(source, code) && !source.stem().empty() && fs::is_directory(folder / source.stem(), code))
            return "{archive}/{path}";
    return "{path}";
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

fs::path patch_archive(const Project& project, const fs::path& archive, std::span<const fs::path> taken) {
    const auto pattern = project.places.patch_name.empty() ? proposed_patch_name(project, archive) : project.places.patch_name;
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
        if (!fs::exists(file, code) && std::find(taken.begin(), taken.end(), file) == taken.end()) return file;
    }
}

fs::path patch_list(const Project& project) {
    if (project.places.list_file == "-") return {};
    if (!project.places.list_file.empty()) return home(project) / project.places.list_file;
    return inside(project.load_list, home(project)) ? project.load_list : fs::path();
}

DeviceCut device_cut(const DeviceSettings& device) {
    DeviceCut out;
    out.largest = device.largest;
    if (!device.part.empty()) out.part = device.part;
    return out;
}

namespace {

bool stays_inside(const std::string& path) {
    return path.empty() || safe_relative_path(path) == fs::path(path).lexically_normal().generic_string();
}

Status check_layout(const std::string& layout, const char* what) {
    if (layout.empty()) return {};
    const auto plain = filled(layout, {{"{path}", "x"}, {"{file}", "x"}, {"{archive}", "x"}, {"{group}", "x"}});
    if (plain.find_first_of("{}") != std::string::npos)
        return fail(ErrorCode::usage, phrase("the layout of {} has an unknown word in braces: {}", said(what), layout),
                    "There are {path}, {file}, {archive} and {group}");
    if (safe_relative_path(plain) != plain)
        return fail(ErrorCode::usage, phrase("the layout of {} is no path: {}", said(what), layout), "Write it as mods/{path}");
    const auto name = layout.substr(layout.rfind('/') + 1);
    if (name != "{path}" && name != "{file}")
        return fail(ErrorCode::usage,
                    phrase("the layout of {} must end in {{path}} or {{file}}, so that names stay: {}", said(what), layout),
                    "Write it as mods/{path}");
    return {};
}

}  // namespace

Status check_places(const PlaceSettings& places) {
    const auto& folder = places.override_folder;
    const auto& patch = places.patch_name;
    if (!stays_inside(folder))
        return fail(ErrorCode::usage, phrase("the folder for loose files must lie inside the game's: {}", folder),
                    "Write it relative to the game's folder, as data/override");
    if (patch.find('/') != std::string::npos || (!patch.empty() && safe_relative_path(patch) != patch))
        return fail(ErrorCode::usage, phrase("patch archives lie beside the archive they change: {} is no name", patch),
                    "Write a name, as patch_{n}");
    const auto plain = filled(patch, "", 1);
    if (plain.find_first_of("{}") != std::string::npos)
        return fail(ErrorCode::usage, phrase("a patch archive's name has an unknown word in braces: {}", patch),
                    "There are {name} and {n}");
    if (places.list_file != "-" && !stays_inside(places.list_file))
        return fail(ErrorCode::usage, phrase("the list of archives must lie inside the game's folder: {}", places.list_file),
                    "Write it relative to the game's folder, or - for none");
    SKIVET_CHECK(check_layout(places.override_layout, "loose files"));
    SKIVET_CHECK(check_layout(places.device.layout, "the device's files"));
    if (!places.device.folder.empty() && !places.device.folder.is_absolute())
        return fail(ErrorCode::usage, phrase("the device's folder must be a whole path: {}", places.device.folder.string()));
    return check_cut(device_cut(places.device));
}

std::string place_in_words(const Project& project) {
    const auto as = [](const std::string& layout) { return layout.empty() ? std::string("{path}") : layout; };
    const auto& places = project.places;
    switch (project.destination) {
        case Destination::beside_the_game:
            return phrase("In {}, as {}", override_folder(project).string(),
                          places.override_layout.empty() ? proposed_layout(project) : places.override_layout);
        case Destination::patch_archives: {
            const auto list = patch_list(project);
            const auto name = !places.patch_name.empty() ? places.patch_name
                              : project.sources.empty()  ? std::string(usual_patch)
                                                         : proposed_patch_name(project, project.sources.front());
            return list.empty() ? phrase("Named {}, in no list", name)
                                : phrase("Named {}, and listed in {}", name, list.filename().string());
        }
        case Destination::device:
            if (places.device.folder.empty()) return said("No card or device is chosen yet");
            return places.device.loose
                       ? phrase("{}: textures as files of their own, as {}", places.device.folder.string(), as(places.device.layout))
                       : phrase("{}: the game's files, whole, as {}", places.device.folder.string(), as(places.device.layout));
        default: return {};
    }
}

fs::path play_folder(const Project& project) { return project.play.folder.empty() ? project.game : project.play.folder; }

Status check_play(const PlaySettings& play) {
    for (const auto& word : play.environment)
        if (const auto equals = word.find('='); equals == std::string::npos || equals == 0)
            return fail(ErrorCode::usage, phrase("\"{}\" sets nothing", word), "Write NAME=value");
    if (!stays_inside(play.log.string()))
        return fail(ErrorCode::usage, phrase("the game's log must lie inside its folder: {}", play.log.string()),
                    "Write it relative to the game's folder");
    return {};
}

}  // namespace skivet

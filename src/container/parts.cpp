#include "container/parts.h"

#include <fmt/format.h>
#include <algorithm>

#include "base/phrase.h"
#include "base/text.h"
#include "container/kinds.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

bool all_digits(std::string_view text) {
    return !text.empty() && std::all_of(text.begin(), text.end(), [](char c) { return c >= '0' && c <= '9'; });
}

std::string name_of_part(std::string_view sample, unsigned number) {
    // The sample's number is replaced; its width stays.
    const auto dot = sample.rfind('.');
    auto letters = dot + 1;
    while (letters < sample.size() && (sample[letters] < '0' || sample[letters] > '9')) ++letters;
    const auto width = sample.size() - letters;
    return std::string(sample.substr(0, letters)) + fmt::format("{:0{}}", number, width);
}

}  // namespace

std::optional<PartName> part_name(std::string_view name) {
    const auto dot = name.rfind('.');
    if (dot == std::string_view::npos || dot == 0) return std::nullopt;
    const auto ending = name.substr(dot + 1);
    const auto low = lower(ending);
    PartName out;
    out.whole = name.substr(0, dot);
    std::string_view digits = ending;
    if (low.starts_with("part")) out.style = "part", digits.remove_prefix(4);
    else if (low.starts_with('z') && low != "z") out.style = "z", digits.remove_prefix(1);
    else if (ending.size() < 2 || ending.size() > 3) return std::nullopt;
    else out.style = fmt::format("{}", ending.size());
    if (!all_digits(digits) || digits.size() > 4) return std::nullopt;
    out.number = static_cast<unsigned>(std::stoul(std::string(digits)));
    if (out.style == "z") out.whole += ".zip";  // APPNOTE 4.4.? names the last segment .zip
    return out;
}

std::map<std::string, PartGroup> group_parts(const std::vector<std::string>& names) {
    std::map<std::pair<std::string, std::string>, std::map<unsigned, std::string>> found;
    for (const auto& name : names)
        if (const auto part = part_name(name)) found[{part->whole, part->style}][part->number] = name;
    std::map<std::string, PartGroup> out;
    for (const auto& [key, numbered] : found) {
        const auto& [whole, style] = key;
        const auto first = numbered.begin()->first;
        PartGroup group;
        for (auto n = first; n <= numbered.rbegin()->first; ++n) {
            const auto it = numbered.find(n);
            if (it == numbered.end()) {
                group.missing = name_of_part(numbered.begin()->second, n);
                break;
            }
            group.parts.push_back(it->second);
        }
        if (style == "z") {
            const auto last = std::find(names.begin(), names.end(), whole);
            if (last == names.end()) group.missing = whole;
            else group.parts.push_back(whole);
        }
        if (first > 1) group.missing = name_of_part(numbered.begin()->second, 1);
        if (numbered.size() < 2 && style != "z") continue;  // a name that happens to end in digits
        out[whole] = std::move(group);
    }
    return out;
}

Result<std::vector<fs::path>> parts_of(const fs::path& path) {
    auto wanted = path.filename().string();
    const bool could_be = part_name(wanted) || lower(path.extension().string()) == ".zip";
    std::error_code code;
    if (!could_be && fs::exists(path, code)) return std::vector<fs::path>{path};
    std::vector<std::string> names;
    const auto folder = path.parent_path().empty() ? fs::path(".") : path.parent_path();
    for (const auto& item : fs::directory_iterator(folder, code))
        if (item.is_regular_file(code)) {
            const auto name = item.path().filename().string();
            if (const auto part = part_name(name); part || name == wanted) names.push_back(name);
        }
    for (const auto& [whole, group] : group_parts(names)) {
        if (whole != wanted && std::find(group.parts.begin(), group.parts.end(), wanted) == group.parts.end()) continue;
        if (!group.missing.empty())
            return fail(ErrorCode::missing, phrase("the part {} is not there", group.missing),
                        phrase("{} is cut into parts; all of them must lie in one folder", whole));
        std::vector<fs::path> out;
        for (const auto& name : group.parts) out.push_back(path.parent_path() / name);
        return out;
    }
    return std::vector<fs::path>{path};
}

}  // namespace skivet

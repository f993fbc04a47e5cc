#include "catalog/place_words.h"

#include <cctype>

#include "base/text.h"

namespace skivet {
namespace {

struct WordRow {
    PlaceWord word;
    std::string_view names;  ///< with spaces between
};
// Words of the trade and of file systems, in English, as installations use them (common practice, no source).
constexpr WordRow rows[] = {
    {PlaceWord::backup, "backup backups bak orig originals"},
    {PlaceWord::installer, "setup install installer installers redist support uninstall"},
    {PlaceWord::documents, "doc docs documentation manual manuals help screenshots screenshot"},
    {PlaceWord::extra, "extra extras dlc expansion expansions bonus"},
    {PlaceWord::update, "update updates patch patches hotfix"},
    {PlaceWord::mods, "mod mods addon addons usermods"},
    {PlaceWord::over, "override overrides"},
};

PlaceWord word_of(std::string_view text) {
    for (const auto& row : rows)
        for (auto rest = row.names; !rest.empty();) {
            const auto name = rest.substr(0, rest.find(' '));
            if (name == text) return row.word;
            rest.remove_prefix(std::min(rest.size(), name.size() + 1));
        }
    return PlaceWord::none;
}

}  // namespace

PlaceWord word_of_folder(const std::string& name) {
    auto text = lower(name);
    const auto letter = [](char c) { return std::isalpha(static_cast<unsigned char>(c)) != 0; };
    while (!text.empty() && !letter(text.back())) text.pop_back();
    const auto first = std::find_if(text.begin(), text.end(), letter);
    text.erase(text.begin(), first);
    return word_of(text);
}

PlaceWord word_of_file(const std::string& name) {
    const auto text = lower(name);
    if (text.ends_with('~') || text.find(" - copy") != std::string::npos || text.find("(copy)") != std::string::npos)
        return PlaceWord::backup;
    for (std::size_t at = 0; at < text.size();) {
        if (!std::isalpha(static_cast<unsigned char>(text[at]))) {
            ++at;
            continue;
        }
        auto end = at;
        while (end < text.size() && std::isalpha(static_cast<unsigned char>(text[end]))) ++end;
        const auto word = word_of(std::string_view(text).substr(at, end - at));
        if (word != PlaceWord::none && word != PlaceWord::documents) return word;
        at = end;
    }
    return PlaceWord::none;
}

SourceGroup group_of(PlaceWord word) {
    switch (word) {
        case PlaceWord::extra: return SourceGroup::extra;
        case PlaceWord::update: return SourceGroup::update;
        case PlaceWord::mods: return SourceGroup::mods;
        case PlaceWord::over: return SourceGroup::over;
        default: return SourceGroup::base;
    }
}

std::string_view name_of(SourceGroup group) {
    switch (group) {
        case SourceGroup::base: return "base";
        case SourceGroup::extra: return "extra content";
        case SourceGroup::update: return "update";
        case SourceGroup::mods: return "other mods";
        default: return "override";
    }
}

}  // namespace skivet

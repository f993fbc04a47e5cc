#include "workflow/sources.h"

#include "base/file_write.h"
#include "base/text.h"
#include "sheet/sheet.h"

namespace skivet {

namespace fs = std::filesystem;

bool add_source(Project& project, const fs::path& source) {
    if (std::find(project.sources.begin(), project.sources.end(), source) != project.sources.end()) return false;
    project.sources.push_back(source);
    return true;
}

bool remove_source(Project& project, std::size_t index) {
    if (index >= project.sources.size()) return false;
    project.sources.erase(project.sources.begin() + static_cast<std::ptrdiff_t>(index));
    return true;
}

bool place_source(Project& project, std::size_t index, std::size_t place) {
    auto& sources = project.sources;
    if (index >= sources.size() || place >= sources.size() || index == place) return false;
    const auto at = [&](std::size_t i) { return sources.begin() + static_cast<std::ptrdiff_t>(i); };
    if (index < place) std::rotate(at(index), at(index) + 1, at(place) + 1);
    else std::rotate(at(place), at(index), at(index) + 1);
    return true;
}

void choose_kind(Project& project, const std::string& pattern, const std::string& kind) {
    std::erase_if(project.choices, [&](const KindChoice& c) { return c.pattern == pattern; });
    if (!kind.empty()) project.choices.insert(project.choices.begin(), {pattern, kind});
}

void accept_paths(Project& project, const std::vector<std::string>& paths) {
    for (const auto& path : paths)
        if (std::find(project.known_paths.begin(), project.known_paths.end(), path) == project.known_paths.end())
            project.known_paths.push_back(path);
}

Result<fs::path> keep_sheet(const Project& project, const std::string& name, const std::string& toml) {
    SKIVET_TRY(const auto sheet, parse_sheet(toml, name));
    (void)sheet;
    const auto safe = fs::path(safe_relative_path(name)).filename();
    if (safe.empty()) return fail(ErrorCode::usage, "the sheet needs a name");
    const auto file = project.sheets() / (safe.string() + ".toml");
    SKIVET_CHECK(write_file(file, as_bytes(toml)));
    return file;
}

SourceFacts facts_of(const ReadContext& context, const Source& source) {
    SourceFacts out;
    std::error_code code;
    for (const auto& choice : context.choices)
        if (choice.pattern == source.path.string() || glob_match(choice.pattern, source.path.filename().string())) {
            out.chosen = choice.kind;
            break;
        }
    if (fs::is_regular_file(source.path, code))
        if (const auto view = FileView::open(source.path))
            if (const auto data = view->bytes()) {
                auto recognized = context;
                recognized.choices.clear();
                for (const auto& candidate : candidates(recognized, *data, data->size(), source.path.string()))
                    out.candidates.emplace_back(candidate.kind->name(), candidate.recognized.reason);
            }
    out.wants_key = source.error && source.error->code == ErrorCode::key;
    if (!source.container) return out;
    out.read_only = source.container->read_only();
    out.dead_bytes = source.container->dead_bytes();
    out.unnamed = source.container->unnamed();
    const auto& entries = source.container->entries();
    for (std::size_t i = 0; i < entries.size(); ++i) {
        if (!entries[i].encrypted) continue;
        const auto head = source.container->read_head(i, 16);
        out.wants_key = !head && head.error().code == ErrorCode::key;
        break;
    }
    return out;
}

std::vector<Source> open_those_on(const ReadContext& context, const Project& project) {
    std::vector<Source> out;
    for (const auto& path : project.sources) {
        if (project.setting(path).off) out.push_back({path, nullptr, std::nullopt, {}});
        else out.push_back(open_one_of(context, path, project.sources));
    }
    return out;
}

}  // namespace skivet

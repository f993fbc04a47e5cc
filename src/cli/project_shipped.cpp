// The game as it was shipped, by versions: recorded, compared with, forgotten; what is other than in one.
#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <ostream>

#include "cli/project_work.h"
#include "cli/writing.h"
#include "workflow/shipped.h"

namespace skivet::cli {

using nlohmann::json;
using namespace project_work;

namespace {

Result<ShippedVersion> version_named(const Project& project, const std::string& name) {
    for (auto& version : shipped_versions(project))
        if (version.name == name || version.baseline == name) return version;
    return fail(ErrorCode::usage, fmt::format("no version \"{}\" is recorded", name), "skivet-cli project shipped lists those that are");
}

void print_versions(Context& c, const Project& project) {
    const auto versions = shipped_versions(project);
    const auto matches = match_versions(project);
    const auto* now = version_now(project, versions);
    for (std::size_t v = 0; v < versions.size(); ++v) {
        const bool compared = now == &versions[v];
        if (c.json)
            print(c, {{"version", versions[v].name},
                      {"recorded", versions[v].at},
                      {"file", versions[v].baseline},
                      {"compared_with", compared},
                      {"sources_as_in_it", matches[v].same},
                      {"sources", matches[v].sources}});
        else
            c.out << fmt::format("{} {}: {} of {} sources are as in it\n", compared ? '*' : ' ',
                                 versions[v].name.empty() ? "(without a name)" : versions[v].name, matches[v].same, matches[v].sources);
    }
    if (versions.empty() && !c.json) c.out << "nothing is recorded; --record NAME does it\n";
}

int print_changes(Context& c, Open& open) {
    const auto& project = open.project();
    if (!version_now(project, shipped_versions(project)) || !open.opened.baseline)
        return c.failed(
            Error{ErrorCode::usage, "nothing is recorded to compare with", {}, {}, "Record a clean installation with --record NAME"});
    const auto catalog = seen_catalog(c, open);
    if (!catalog) return c.failed(catalog.error());
    PosixFiles files;
    const auto seen =
        look_at_versions(project, open.opened.baseline.get(), vault_of(project, files), *(*catalog)->snapshot, open.opened.history);
    for (const auto& change : seen.changes) {
        const Address address{change.source, change.inner};
        if (c.json)
            print(
                c,
                {{"how", std::string(name_of(change.what))}, {"address", address.text()}, {"from", change.from}, {"as_in", change.as_in}});
        else
            c.out << fmt::format("{:<8} {}{}{}\n", name_of(change.what), address.text(), change.from.empty() ? "" : "  was " + change.from,
                                 change.as_in.empty() ? "" : "  as in " + change.as_in);
    }
    return 0;
}

}  // namespace

int project_shipped(Context& c, const ProjectOptions& options) {
    auto opened = open(c, options.folder);
    if (!opened) return c.failed(opened.error());
    auto& project = opened->project();
    std::string forgotten;  // its file goes once the project is saved
    if (options.record_as) {
        const auto catalog = seen_catalog(c, *opened);
        if (!catalog) return c.failed(catalog.error());
        const auto file = baseline_for(project, *options.record_as);
        auto baseline = record_shipped(project, file, *(*catalog)->snapshot);
        if (!baseline) return c.failed(baseline.error());
        Progress progress;
        progress.cancel = c.cancel;
        if (auto done = (*baseline)->complete(progress); !done) return c.failed(done.error());
        note_recorded(project, shipped_versions(project), file, *options.record_as, now());
        opened->opened.baseline = std::move(*baseline);
    }
    if (options.compare_with) {
        const auto version = version_named(project, *options.compare_with);
        if (!version) return c.failed(version.error());
        (void)compare_with(project, shipped_versions(project), version->baseline);
        auto baseline = Baseline::open(project.baseline());
        if (!baseline) return c.failed(baseline.error());
        opened->opened.baseline = std::move(*baseline);
    }
    if (options.forget_version) {
        const auto version = version_named(project, *options.forget_version);
        if (!version) return c.failed(version.error());
        if (!forget_version(project, shipped_versions(project), version->baseline))
            return c.failed(Error{ErrorCode::usage, "it is the version that is compared with", {}, {}, "Compare with another one first"});
        forgotten = version->baseline;
    }
    if (auto saved = save_project(project); !saved) return c.failed(saved.error());
    if (!forgotten.empty()) remove_baseline(project, forgotten);
    if (options.list_changes) return print_changes(c, *opened);
    print_versions(c, project);
    return 0;
}

}  // namespace skivet::cli

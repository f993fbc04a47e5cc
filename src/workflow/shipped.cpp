#include "workflow/shipped.h"

#include <fmt/format.h>
#include <unordered_map>

#include "base/text.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr const char* first_baseline = "baseline.sqlite";

std::string place_key(const fs::path& source, const std::string& path) { return source.string() + '\n' + path; }

std::vector<std::string> steps_of(const std::string& path) {
    std::vector<std::string> out;
    for (std::size_t at = 0;;) {
        const auto end = path.find("::", at);
        out.push_back(path.substr(at, end == std::string::npos ? end : end - at));
        if (end == std::string::npos) return out;
        at = end + 2;
    }
}

}  // namespace

std::vector<ShippedVersion> shipped_versions(const Project& project) {
    auto out = project.shipped;
    const auto named = std::any_of(out.begin(), out.end(), [](const auto& v) { return v.baseline == first_baseline; });
    if (named) return out;
    std::error_code code;
    if (!fs::exists(project.folder / first_baseline, code)) return out;
    const auto baseline = Baseline::open(project.folder / first_baseline);
    if (baseline && (*baseline)->recorded()) out.insert(out.begin(), ShippedVersion{{}, 0, first_baseline});
    return out;
}

const ShippedVersion* version_now(const Project& project, std::span<const ShippedVersion> versions) {
    const auto file = project.baseline().filename().string();
    const auto found = std::find_if(versions.begin(), versions.end(), [&](const auto& v) { return v.baseline == file; });
    return found == versions.end() ? nullptr : &*found;
}

std::string baseline_for(const Project& project, const std::string& name) {
    const auto versions = shipped_versions(project);
    for (const auto& version : versions)
        if (version.name == name) return version.baseline;
    if (versions.empty()) return first_baseline;
    std::error_code code;
    for (int n = 2;; ++n)
        if (auto file = fmt::format("baseline-{}.sqlite", n); !fs::exists(project.folder / file, code)) return file;
}

Result<std::shared_ptr<Baseline>> record_shipped(const Project& project, const std::string& file, const CatalogSnapshot& snapshot) {
    SKIVET_TRY(auto baseline, Baseline::open(project.folder / file));
    SKIVET_CHECK(baseline->record(project.sources, snapshot.catalog, snapshot.sources));
    return baseline;
}

void note_recorded(Project& project, std::vector<ShippedVersion> versions, const std::string& file, const std::string& name,
                   std::int64_t now) {
    std::erase_if(versions, [&](const auto& v) { return v.baseline == file; });
    versions.push_back({name, now, file});
    project.shipped = std::move(versions);
    project.shipped_now = file;
}

bool compare_with(Project& project, std::vector<ShippedVersion> versions, const std::string& file) {
    if (std::none_of(versions.begin(), versions.end(), [&](const auto& v) { return v.baseline == file; })) return false;
    project.shipped = std::move(versions);
    project.shipped_now = file;
    return true;
}

bool forget_version(Project& project, std::vector<ShippedVersion> versions, const std::string& file) {
    if (project.baseline().filename() == file || std::erase_if(versions, [&](const auto& v) { return v.baseline == file; }) == 0)
        return false;
    project.shipped = std::move(versions);
    return true;
}

void remove_baseline(const Project& project, const std::string& file) {
    std::error_code code;
    for (const auto* ending : {"", "-wal", "-shm"}) fs::remove(project.folder / (file + ending), code);
}

std::vector<VersionMatch> match_versions(const Project& project) {
    std::vector<VersionMatch> out;
    for (const auto& version : shipped_versions(project)) {
        VersionMatch match{version.baseline, 0, project.sources.size()};
        if (const auto baseline = Baseline::open(project.folder / version.baseline))
            for (const auto& source : project.sources) match.same += (*baseline)->compare(source) == Shipped::as_shipped;
        out.push_back(match);
    }
    return out;
}

std::string_view name_of(ShippedChange::What what) {
    switch (what) {
        case ShippedChange::What::added: return "new";
        case ShippedChange::What::moved: return "moved";
        case ShippedChange::What::gone: return "gone";
        default: return "changed";
    }
}

std::vector<ShippedChange> changes_since(const Baseline& baseline, const CatalogSnapshot& snapshot, const std::vector<Journal>& history,
                                         std::span<const std::pair<std::string, std::vector<BaselineEntry>>> others) {
    using What = ShippedChange::What;
    std::unordered_map<std::string, BaselineEntry> was;
    std::set<fs::path> recorded;
    for (auto& entry : baseline.entries()) {
        recorded.insert(entry.source);
        was.emplace(place_key(entry.source, entry.path), std::move(entry));
    }
    std::vector<std::pair<std::string_view, std::unordered_map<std::string, ContentKey>>> versions;
    for (const auto& [name, entries] : others) {
        auto& map = versions.emplace_back(name, std::unordered_map<std::string, ContentKey>()).second;
        for (const auto& entry : entries) map.emplace(place_key(entry.source, entry.path), entry.content);
    }
    const auto ours = changed_by_us(history);
    std::vector<ShippedChange> out;
    std::multimap<ContentKey, std::size_t> added;
    for (const auto& item : snapshot.catalog.items) {
        if (!item.is_texture()) continue;
        const auto& source = snapshot.sources[item.source].path;
        const auto key = place_key(source, path_key(item.inner));
        const auto found = was.find(key);
        const bool known = found != was.end();
        ShippedChange change{known ? What::changed : What::added,          source,       item.inner, {},
                             known ? found->second.content : ContentKey(), item.content, {}};
        if (known) was.erase(found);
        // What was not looked at says nothing; of a source nobody recorded all is new, and the source itself says so.
        if (item.content.empty() || change.before == change.now || (!known && !recorded.contains(source)) ||
            ours.contains(lower(item.path())))
            continue;
        for (const auto& [name, entries] : versions)
            if (const auto there = entries.find(key); there != entries.end() && there->second == change.now) change.as_in = name;
        if (!known) added.emplace(change.now, out.size());
        out.push_back(std::move(change));
    }
    std::set<fs::path> open;
    for (const auto& source : snapshot.sources)
        if (source.container) open.insert(source.path);
    for (const auto& [key, entry] : was) {
        if (!open.contains(entry.source)) continue;
        if (const auto same = added.find(entry.content); same != added.end()) {
            auto& change = out[same->second];
            change.what = What::moved;
            change.from = entry.source.filename().string() + "::" + entry.path;
            change.before = entry.content;
            added.erase(same);
            continue;
        }
        const auto steps = steps_of(entry.path);
        if (!ours.contains(entry.path) && !ours.contains(steps.back()))
            out.push_back({What::gone, entry.source, steps, {}, entry.content, {}, {}});
    }
    std::sort(out.begin(), out.end(),
              [](const auto& a, const auto& b) { return std::tie(a.what, a.source, a.inner) < std::tie(b.what, b.source, b.inner); });
    return out;
}

SeenVersions look_at_versions(const Project& project, const Baseline* baseline, const Vault& vault, const CatalogSnapshot& snapshot,
                              std::vector<Journal> history) {
    SeenVersions out;
    out.versions = shipped_versions(project);
    out.matches = match_versions(project);
    if (const auto* version = version_now(project, out.versions)) out.now = static_cast<std::size_t>(version - out.versions.data());
    if (!baseline || !out.now) return out;
    std::vector<std::pair<std::string, std::vector<BaselineEntry>>> others;
    for (std::size_t v = 0; v < out.versions.size(); ++v)
        if (v != *out.now)
            if (const auto other = Baseline::open(project.folder / out.versions[v].baseline))
                others.emplace_back(out.versions[v].name, (*other)->entries());
    std::map<fs::path, bool> written_over;
    for (auto& journal : history)
        std::erase_if(journal.parts, [&](const JournalPart& part) {
            if (part.device) return true;
            const auto [known, fresh] = written_over.emplace(part.source, false);
            if (fresh) known->second = vault.changed_by_others(part.source).value_or(false);
            return known->second;
        });
    out.changes = changes_since(*baseline, snapshot, history, others);
    return out;
}

}  // namespace skivet

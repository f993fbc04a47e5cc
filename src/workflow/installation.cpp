#include "workflow/installation.h"

#include <tbb/parallel_for.h>
#include <chrono>
#include <mutex>
#include <set>

namespace skivet {

namespace fs = std::filesystem;

Result<Installation> find_in_game(const ReadContext& context, const fs::path& game, Progress& progress,
                                  const std::function<void(const Installation&)>& so_far) {
    Installation out;
    SKIVET_TRY(out.survey, survey_game(context, game, progress));
    out.order = propose_order(out.survey);
    if (so_far) so_far(out);
    std::mutex mutex;
    auto told = std::chrono::steady_clock::now();
    progress.total += out.survey.found.size();
    tbb::parallel_for(std::size_t{0}, out.survey.found.size(), [&](std::size_t i) {
        if (progress.cancel.canceled()) return;
        auto found = [&] {
            const std::lock_guard lock(mutex);
            return out.survey.found[i];
        }();
        look_inside(context, found);
        const std::lock_guard lock(mutex);
        out.survey.found[i] = std::move(found);
        ++progress.done;
        const auto now = std::chrono::steady_clock::now();
        if (!so_far || now - told < std::chrono::milliseconds(330)) return;
        told = now;
        so_far(out);
    });
    SKIVET_CHECK(progress.cancel.check());
    out.order = propose_order(out.survey);
    SKIVET_TRY(out.leftovers, find_leftovers(out.survey, out.order, progress.cancel));
    return out;
}

Standing standing_of(const Project& project, const Found& found) {
    if (std::find(project.sources.begin(), project.sources.end(), found.path) != project.sources.end()) return Standing::source;
    const auto& seen = project.seen_places;
    return std::find(seen.begin(), seen.end(), found.path.string()) != seen.end() ? Standing::passed : Standing::fresh;
}

std::vector<bool> ticks(const Project& project, const Installation& installation) {
    std::vector<bool> out;
    for (const auto& found : installation.survey.found) {
        const auto standing = standing_of(project, found);
        out.push_back(standing == Standing::source || (standing == Standing::fresh && found.wanted));
    }
    return out;
}

std::vector<std::size_t> in_order(const Project& project, const Installation& installation, const std::vector<bool>& ticked) {
    const auto& found = installation.survey.found;
    std::vector<std::size_t> order;
    for (const auto& source : installation.order.sources) order.push_back(source.found);
    // What nobody proposed goes behind the last of its group.
    for (std::size_t i = 0; i < found.size(); ++i)
        if (ticked[i] && std::find(order.begin(), order.end(), i) == order.end())
            order.insert(std::find_if(order.begin(), order.end(), [&](auto o) { return found[o].group > found[i].group; }), i);
    std::erase_if(order, [&](auto o) { return !ticked[o]; });
    std::vector<std::size_t> out;
    for (const auto& source : project.sources)
        for (const auto i : order)
            if (found[i].path == source) out.push_back(i);
    for (std::size_t i = 0; i < order.size(); ++i) {
        if (std::find(out.begin(), out.end(), order[i]) != out.end()) continue;
        auto place = out.begin();
        for (auto before = i; before > 0 && place == out.begin(); --before)
            if (const auto at = std::find(out.begin(), out.end(), order[before - 1]); at != out.end()) place = at + 1;
        out.insert(place, order[i]);
    }
    return out;
}

Result<std::size_t> count_fresh(const ReadContext& context, const Project& project, Progress& progress) {
    SKIVET_TRY(auto survey, survey_game(context, project.game, progress));
    std::size_t fresh = 0;
    for (auto& found : survey.found) {
        SKIVET_CHECK(progress.cancel.check());
        if (!found.wanted || standing_of(project, found) != Standing::fresh) continue;
        look_inside(context, found);
        fresh += found.wanted;
    }
    return fresh;
}

void take_sources(Project& project, const Installation& installation, std::span<const std::size_t> chosen) {
    const auto& found = installation.survey.found;
    std::set<fs::path> here;
    for (const auto& one : found) here.insert(one.path);
    std::vector<fs::path> sources;
    for (const auto i : chosen) {
        sources.push_back(found[i].path);
        auto& setting = project.source_settings[found[i].path];
        if (setting.group.empty() && found[i].group != SourceGroup::base) setting.group = name_of(found[i].group);
    }
    for (const auto& source : project.sources)
        if (!here.contains(source)) sources.push_back(source);
    project.sources = std::move(sources);
    project.load_list = installation.order.list;
    project.seen_places.clear();
    for (const auto& path : here) project.seen_places.push_back(path.string());
}

}  // namespace skivet

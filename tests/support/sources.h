#pragma once
#include "workflow/installation.h"

namespace skivet::test {

/// The sources proposed for a game's folder, in load order.
inline std::vector<std::filesystem::path> sources_of(const ReadContext& context, const std::filesystem::path& game) {
    Progress progress;
    std::vector<std::filesystem::path> out;
    if (const auto found = find_in_game(context, game, progress))
        for (const auto& source : found->order.sources) out.push_back(found->survey.found[source.found].path);
    return out;
}

}  // namespace skivet::test

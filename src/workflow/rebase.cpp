#include "workflow/rebase.h"

#include <set>

#include "bench/rebuild.h"

namespace skivet {

Result<std::optional<TextureChange>> rebased(const TextureFile& base, const TextureChange& change) {
    SKIVET_TRY(const auto wrong, misfits(base, change));
    if (wrong.empty()) return change;
    const auto& desc = base.layout.desc;
    const auto order = surface_order(base.layout);
    const auto is_smaller = [&](const ChangedRun& run) {
        return run.surface != outside && run.surface < order.size() && base.layout.surfaces[order[run.surface]].mip > 0;
    };
    for (const auto i : wrong)
        if (!is_smaller(change.runs[i])) return std::nullopt;
    if (desc.depth > 1) return std::nullopt;

    TextureChange largest;
    std::set<std::pair<std::uint32_t, std::uint32_t>> pictures;  // layer and face
    const std::size_t unit = info(desc.format).block_bytes;
    std::size_t at = 0;
    for (const auto& run : change.runs) {
        const auto size = std::size_t{run.count} * (run.surface == outside ? 1 : unit);
        if (!is_smaller(run)) {
            largest.runs.push_back(run);
            largest.units.insert(largest.units.end(), change.units.begin() + static_cast<std::ptrdiff_t>(at),
                                 change.units.begin() + static_cast<std::ptrdiff_t>(at + size));
            if (run.surface != outside) {
                const auto& s = base.layout.surfaces[order[run.surface]];
                pictures.emplace(s.layer, s.face);
            }
        }
        at += size;
    }
    auto after = base;
    SKIVET_TRY(after.file, put_units(base, largest));
    SKIVET_TRY(const auto mips, guess_mips(base));
    std::vector<SurfaceEdit> edits;
    for (const auto& [layer, face] : pictures) {
        const auto rebuilt = [&, l = layer, f = face]() -> Result<RebuiltLevels> {
            if (info(desc.format).wide) {
                SKIVET_TRY(const auto was, base.decode_wide(0, l, f));
                SKIVET_TRY(const auto is, after.decode_wide(0, l, f));
                return rebuild_levels(base, mips, {}, was, is, l, f);
            }
            SKIVET_TRY(const auto was, base.decode(0, l, f));
            SKIVET_TRY(const auto is, after.decode(0, l, f));
            return rebuild_levels(base, mips, {}, was, is, l, f);
        };
        SKIVET_TRY(auto levels, rebuilt());
        for (auto& edit : levels.edits)
            if (base.layout.surfaces[edit.surface].mip > 0) edits.push_back(std::move(edit));
    }
    SKIVET_TRY(after.file, base.kind->replace(after.file, base.layout, edits));
    return difference(base, after).map([](TextureChange&& c) { return std::optional(std::move(c)); });
}

}  // namespace skivet

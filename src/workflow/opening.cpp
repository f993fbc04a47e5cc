#include "workflow/opening.h"

#include "base/phrase.h"
#include "catalog/catalog.h"
#include "container/sheet_folders.h"
#include "workflow/installation.h"
#include "workflow/parcel_stack.h"
#include "workflow/saves.h"

namespace skivet {

namespace fs = std::filesystem;

std::shared_ptr<const ReadContext> shipped_context(std::vector<Error>& errors) {
    auto context = std::make_shared<ReadContext>();
    for (const auto& folder : sheet_folders())
        for (auto& error : add_sheets_in(*context, folder)) errors.push_back(std::move(error));
    return context;
}

std::shared_ptr<ReadContext> context_of(const ReadContext& shipped, const Project& project, std::shared_ptr<const KeyRing> keys,
                                        std::vector<Error>& errors) {
    auto context = std::make_shared<ReadContext>(shipped);
    context->keys = std::move(keys);
    context->packers = std::make_shared<PackerPrograms>(project.packers);
    context->choices = project.choices;
    context->known_paths = project.known_paths;
    for (auto& error : add_sheets_in(*context, project.sheets())) errors.push_back(std::move(error));
    return context;
}

Vault vault_of(const Project& project, Files& files) { return Vault(project.vault(), files, VaultRegister(VaultRegister::usual_place())); }

namespace {

Status look_over(OpenedProject& opened, std::int64_t now, const CancelToken& cancel) {
    SeenFiles seen;
    auto look = look_at_files(opened.project, seen, now, cancel);
    (void)note_look(opened.project, look);
    for (auto& error : look.errors) opened.problems.push_back(std::move(error));
    const auto stale = gone_stale(*opened.context, opened.project.pieces, cancel);
    (void)note_stale(opened.project, stale, opened.project);
    return cancel.check();
}

}  // namespace

Result<OpenedProject> open_for_work(const ReadContext& shipped, const OpenWish& wish, Files& files, std::int64_t now) {
    OpenedProject out;
    if (!wish.locked) {
        SKIVET_TRY(out.lock, lock_project(wish.folder));
    }
    SKIVET_TRY(out.project, open_project(wish.folder));
    auto& project = out.project;
    std::error_code code;
    if (!wish.game.empty() && !project.game.empty() && fs::weakly_canonical(wish.game, code) != fs::weakly_canonical(project.game, code))
        // Its sources and its loose files belong to the other one.
        return fail(
            Error{ErrorCode::usage,
                  phrase("the project {} is about the game in {}, not {}", wish.folder.string(), project.game.string(), wish.game.string()),
                  {},
                  {},
                  "Choose another --project for this game, or leave --project out"});
    (void)keep_good_copy(wish.folder);  // only a help for a bad day
    if (auto keys = load_keys(project.keys())) out.keys = std::move(*keys);
    else out.problems.push_back(std::move(keys).error());
    out.context = context_of(shipped, project, std::make_shared<KeyRing>(out.keys), out.problems);
    auto vault = vault_of(project, files);
    if (auto recovered = vault.recover()) out.recovered = std::move(*recovered);
    else out.problems.push_back(std::move(recovered).error());
    auto unreadable = vault.unreadable();
    if (auto history = vault.history()) {
        out.history = std::move(*history);
        // What cannot be read may stand all the same.
        if (unreadable.empty() && settle_pending(project, out.history))
            for (auto& [id, hash] : in_game_now(*out.context, project)) project.piece(id)->in_game = hash;
    }
    drop_unused_parcels(project);
    for (auto& error : unreadable) out.problems.push_back(std::move(error));
    if (!wish.game.empty()) {
        project.game = wish.game;
        if (project.sources.empty()) {
            project.name = wish.game.filename().string();
            Progress progress;
            progress.cancel = wish.cancel;
            if (const auto found = find_in_game(*out.context, wish.game, progress))
                take_sources(project, *found, in_order(project, *found, ticks(project, *found)));
            else if (found.error().code == ErrorCode::canceled) return fail(found.error());
            else out.problems.push_back(found.error());
        }
    }
    if (!wish.play.empty()) project.play.command = wish.play;
    for (const auto& source : wish.more_sources)
        if (std::find(project.sources.begin(), project.sources.end(), source) == project.sources.end()) project.sources.push_back(source);
    if (wish.looked_over) {
        SKIVET_CHECK(look_over(out, now, wish.cancel));
    }
    if (auto index = IndexStore::open(project.index(), true)) out.index = std::move(*index);
    else out.problems.push_back(std::move(index).error());
    // Without a place on the disk it works all the same, only nothing is kept.
    if (!out.index) {
        SKIVET_TRY(out.index, IndexStore::open({}));
    }
    if (auto baseline = Baseline::open(project.baseline())) out.baseline = std::move(*baseline);
    else out.problems.push_back(std::move(baseline).error());
    return out;
}

}  // namespace skivet

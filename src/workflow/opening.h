#pragma once
// Opening a project for work: everything that both faces need of it, in the order that keeps it safe.
#include "catalog/baseline.h"
#include "catalog/index_store.h"
#include "catalog/thumbnail_cache.h"
#include "delivery/vault.h"
#include "workflow/project.h"

namespace skivet {

struct OpenWish {
    std::filesystem::path folder;
    std::filesystem::path game;                       ///< gives the sources of a new project; may be empty
    std::vector<std::filesystem::path> more_sources;  ///< added to the list, in order, where they are not in it
    std::vector<std::string> play;                    ///< how the game is started; empty: as it was
    bool locked = false;                              ///< the caller holds the project's lock already
    bool looked_over = true;                          ///< false: the caller looks at the pieces' files and entries himself, later
    CancelToken cancel = {};                          ///< heeded between two pieces
};

/// A project that is open. `problems` hold nothing up: each says what cannot be used (keys, a sheet, the index, the baseline).
struct OpenedProject {
    Project project;
    std::optional<FileLock> lock;  ///< none when the caller had it
    KeyRing keys;
    std::shared_ptr<const ReadContext> context;  ///< the shipped ones with the project's sheets, choices, paths and keys
    Recovered recovered;                         ///< what was cut short last time
    std::vector<Journal> history;                ///< deliveries that stand, the oldest first
    std::shared_ptr<IndexStore> index;           ///< in memory where the project's own cannot be used
    std::shared_ptr<Baseline> baseline;          ///< null when damaged
    std::vector<Error> problems;
};

/// Locks the project, reads it, keeps the last good copy, puts right what a crash left, and looks at what has become of its pieces: their
/// files and the game's entries, which takes long of thousands. `shipped`: the context without a project's. Errors: `busy`, `damaged`
/// (has_good_copy says whether there is a way back), `usage` when the project is about another game. Nothing is saved.
[[nodiscard]] Result<OpenedProject> open_for_work(const ReadContext& shipped, const OpenWish& wish, Files& files, std::int64_t now);

/// What is recognized without a project; sheets that are not sound go to `errors`.
[[nodiscard]] std::shared_ptr<const ReadContext> shipped_context(std::vector<Error>& errors);
/// `shipped` with what the project adds: its sheets (folder `sheets`), choices, known paths, and the key ring.
[[nodiscard]] std::shared_ptr<ReadContext> context_of(const ReadContext& shipped, const Project& project,
                                                      std::shared_ptr<const KeyRing> keys, std::vector<Error>& errors);
/// The project's vault, noted in the usual register.
[[nodiscard]] Vault vault_of(const Project& project, Files& files);

}  // namespace skivet

#pragma once
// The project that is open: kept on the disk by one writer, changed only through `change`.
#include <functional>
#include <memory>
#include <QObject>

#include "app/models/jobs.h"
#include "app/models/messages.h"
#include "workflow/catalog_snapshot.h"
#include "workflow/opening.h"
#include "workflow/steps.h"

namespace skivet::app {

class ProjectStore : public QObject {
    Q_OBJECT
public:
    ProjectStore(Jobs& jobs, Messages& messages, QObject* parent = nullptr);

    /// Opens or makes the project; a game folder gives the sources of a new one. Ends in `opened` or `refused`.
    void open(OpenWish wish);
    /// Sets the project.json that cannot be read aside and opens the last good copy.
    void open_last_good();
    /// Gives the project free for another window, once everything that is to be kept is on the disk. Nothing is kept afterwards.
    void close();
    /// False until a project is open, and when it could not be: then nothing is kept anywhere.
    [[nodiscard]] bool is_open() const { return open_; }
    /// True when there is none, and says so.
    [[nodiscard]] bool needs_project();

    [[nodiscard]] const Project& project() const { return project_; }
    /// The project as it is now, for work beside the window: one copy, however many ask before the next change.
    [[nodiscard]] std::shared_ptr<const Project> shared() const;
    /// The piece taken from there, or null; quick among thousands.
    [[nodiscard]] const Piece* piece_of(const Address& address) const;
    /// Changes the project and saves it.
    template <class Change>
    void change(Change change) {
        change(project_);
        forget_copies();
        save();
    }
    /// The same where it may turn out that nothing is to be changed: `change` then leaves the project as it is and says false.
    template <class Change>
    bool change_if(Change change) {
        if (!change(project_)) return false;
        forget_copies();
        save();
        return true;
    }
    /// The same for what a person decides: it can be undone. `title`: what was done, as the menu says it ("Remove a source").
    template <class Change>
    void change(const QString& title, Change change) {
        auto before = shared();
        change(project_);
        forget_copies();
        note_step(title, std::move(before));
        save();
    }
    template <class Change>
    bool change_if(const QString& title, Change change) {
        auto before = shared();
        if (!change(project_)) return false;
        forget_copies();
        note_step(title, std::move(before));
        save();
        return true;
    }
    /// The title of what would be undone or done again; empty: nothing.
    [[nodiscard]] QString undo_title() const { return undo_.empty() ? QString() : undo_.back().title; }
    [[nodiscard]] QString redo_title() const { return redo_.empty() ? QString() : redo_.back().title; }
    void undo() { step(undo_, redo_, true); }
    void redo() { step(redo_, undo_, false); }
    /// For workers, which keep it while they run.
    [[nodiscard]] std::shared_ptr<const ReadContext> context() const { return context_; }
    [[nodiscard]] const std::shared_ptr<IndexStore>& index() const { return index_; }
    /// Null where the disk has no place for it.
    [[nodiscard]] const std::shared_ptr<ThumbnailCache>& cache() const { return cache_; }
    [[nodiscard]] const std::shared_ptr<Baseline>& baseline() const { return baseline_; }
    /// What an analysis of the catalog depends on, for a worker to put together: thousands of pieces are not copied in the window's thread.
    /// The baseline only once it is recorded.
    [[nodiscard]] std::function<AnalysisContext()> analysis_context() const;
    /// Another version is compared with; never null.
    void set_baseline(std::shared_ptr<Baseline> baseline) { baseline_ = std::move(baseline), has_baseline_ = baseline_->recorded(); }
    [[nodiscard]] bool has_baseline() const { return has_baseline_; }

    [[nodiscard]] Vault vault() const { return vault_of(project_, files_); }
    /// Deliveries that stand, the oldest first.
    [[nodiscard]] const std::vector<Journal>& history() const { return history_; }
    void set_history(std::vector<Journal> history);

    /// The project's choices and known paths changed: a context that follows them.
    void renew_context();
    /// Names only; values stay inside.
    [[nodiscard]] std::vector<std::string> key_names() const;
    /// "NAME=HEX", "NAME=text:WORDS" or "NAME=@FILE". An error is returned and nothing is kept.
    [[nodiscard]] Status add_key(const std::string& text);
    void remove_key(const std::string& name);
    /// Keeps a sheet with the project. `done` gets the file, or why it could not be kept.
    void save_sheet(const std::string& name, const std::string& toml, std::function<void(const Result<std::filesystem::path>&)> done);
    /// Where loose files go and how patch archives are named; see places.h.
    void set_places(const PlaceSettings& places);
    /// The user's program for a packer that sheets name; without a command for unpacking it is forgotten. Error `usage` for no command.
    [[nodiscard]] Status set_packer(const std::string& name, const std::string& unpack, const std::string& pack);

    void tell_pieces_changed() { emit pieces_changed(); }
    /// Whether the game's entries are still what was taken or delivered; `then` when the pieces say so.
    void look_at_game(Jobs::By by, QObject* asker, std::function<void()> then = {});
    /// Takes over which pieces the game has another texture of, as of `looked_at`.
    void note_stale(const std::vector<PieceId>& stale, const Project& looked_at);
    void tell_game_changed() { emit game_changed(); }

    Jobs& jobs() const { return jobs_; }
    Messages& messages() const { return messages_; }

signals:
    /// `remembered`: the catalog as the index knows it, for showing at once; may be null.
    void opened(std::shared_ptr<const AnalyzedCatalog> remembered);
    /// The project could not be opened; nothing was changed. `good_copy`: an earlier state of it is there.
    void refused(const QString& why, bool good_copy);
    /// Pieces came, went, or have another state.
    void pieces_changed();
    void history_changed();
    /// There is another thing to undo or do again.
    void steps_changed();
    /// Something was undone or done again.
    void stepped(const skivet::StepEffect& effect);
    /// What is in the sources, or how they are to be read, may be other than before.
    void game_changed();

private:
    struct Step {
        QString title;
        std::shared_ptr<const Project> before, after;
    };
    void note_step(const QString& title, std::shared_ptr<const Project> before);
    void step(std::vector<Step>& from, std::vector<Step>& to, bool back);
    void save();
    void forget_copies() { shared_.reset(), by_address_.reset(); }
    void keep_keys(KeyRing ring);
    /// `copy`: of its project, for workers.
    void take_over(OpenedProject opened, std::shared_ptr<const Project> copy);

    Jobs& jobs_;
    Messages& messages_;
    std::shared_ptr<const ReadContext> shipped_;  ///< without the project's own sheets
    std::shared_ptr<const ReadContext> context_;
    OpenWish wish_;  ///< the last one
    Project project_;
    // Of project_, once somebody asked.
    mutable std::shared_ptr<const Project> shared_;
    mutable std::optional<PiecesByAddress> by_address_;
    std::optional<FileLock> lock_;
    bool open_ = false, left_ = false, has_baseline_ = false;
    std::shared_ptr<IndexStore> index_;
    std::shared_ptr<ThumbnailCache> cache_;
    std::shared_ptr<Baseline> baseline_;
    std::vector<Journal> history_;
    std::vector<Step> undo_, redo_;  ///< the last at the end
    mutable PosixFiles files_;
};

/// Seconds since 1970, UTC.
[[nodiscard]] std::int64_t now();

}  // namespace skivet::app

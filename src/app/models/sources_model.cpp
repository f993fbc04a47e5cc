#include "app/models/sources_model.h"

#include "workflow/delivery_plan.h"

namespace skivet::app {

namespace fs = std::filesystem;

SourcesModel::SourcesModel(ProjectStore& store, QObject* parent)
    : QObject(parent), store_(store), jobs_(store.jobs()), messages_(store.messages()), found_(store) {
    connect(&found_, &FoundModel::taken, this, &SourcesModel::reload);
    connect(&store_, &ProjectStore::opened, this, [this](const std::shared_ptr<const AnalyzedCatalog>& remembered) {
        if (remembered) show(remembered);
        reload();
    });
    connect(&store_, &ProjectStore::game_changed, this, &SourcesModel::reload);
    connect(&store_, &ProjectStore::stepped, this, [this](const StepEffect& effect) {
        if (effect.sources && !effect.reading) reload();
        else if (effect.words) emit changed();
    });
}

SourceSetting SourcesModel::setting(std::size_t index) const {
    const auto& sources = store_.project().sources;
    return index < sources.size() ? store_.project().setting(sources[index]) : SourceSetting{};
}

Shipped SourcesModel::shipped(const fs::path& source) const {
    const auto found = became_.find(source);
    return found == became_.end() ? Shipped::unknown : found->second;
}

void SourcesModel::add(const fs::path& path) {
    if (store_.needs_project()) return;
    bool added = false;
    store_.change(tr("Add a source"), [&](Project& p) { added = add_source(p, path); });
    if (!added) return messages_.tell(tr("%1 is in the list already.").arg(QString::fromStdString(path.filename().string())));
    reload();
}

void SourcesModel::remove(std::size_t index) {
    bool gone = false;
    store_.change(tr("Remove a source"), [&](Project& p) { gone = remove_source(p, index); });
    if (gone) reload();
}

void SourcesModel::move(std::size_t index, bool up) {
    if (up || index > 0) place(index, up ? index + 1 : index - 1);
}

void SourcesModel::place(std::size_t index, std::size_t place) {
    bool moved = false;
    store_.change(tr("Another load order"), [&](Project& p) { moved = place_source(p, index, place); });
    if (moved) reload();
}

void SourcesModel::set(std::size_t index, const SourceSetting& setting) {
    const auto& sources = store_.project().sources;
    if (index >= sources.size()) return;
    const auto before = this->setting(index);
    store_.change(before.off == setting.off ? tr("What a source belongs to")
                  : setting.off             ? tr("Switch a source off")
                                            : tr("Switch a source on"),
                  [&](Project& p) { p.source_settings[p.sources[index]] = setting; });
    if (before.off != setting.off) return reload();
    emit changed();  // only a word beside it
}

void SourcesModel::choose_kind(const std::string& pattern, const std::string& kind) {
    store_.change(tr("What a source is taken for"), [&](Project& p) { skivet::choose_kind(p, pattern, kind); });
    store_.renew_context();
}

void SourcesModel::accept_paths(const std::vector<std::string>& paths) {
    store_.change(tr("Names for entries"), [&](Project& p) { skivet::accept_paths(p, paths); });
    store_.renew_context();
}

void SourcesModel::compact(std::size_t index) {
    if (index >= snapshot_->sources.size() || !snapshot_->sources[index].container) return;
    struct Done {
        Status status;
        std::vector<Journal> history;
    };
    jobs_.run(
        Jobs::By::writer, this, tr("Giving space back"),
        [context = store_.context(), source = snapshot_->sources[index], vault = store_.vault()]() mutable {
            Done out;
            const auto work = [&]() -> Status {
                SKIVET_TRY(const auto plan, plan_compacting(*context, source.path, source.container));
                if (plan.plan.empty()) return {};
                SKIVET_TRY(const auto done, vault.deliver(plan.plan, plan.note, now(), plan.check));
                (void)done;
                return {};
            };
            out.status = work();
            if (auto history = vault.history()) out.history = std::move(*history);
            return out;
        },
        [this](Done done) {
            if (!done.status) messages_.complain(done.status.error());
            else messages_.say(tr("The space is given back."));
            store_.set_history(std::move(done.history));
            store_.tell_game_changed();
        });
}

void SourcesModel::show(std::shared_ptr<const AnalyzedCatalog> catalog) {
    jobs_.let_go({std::exchange(snapshot_, catalog->snapshot)});
    if (snapshot_->whole) became_ = snapshot_->became;
    emit changed();
    emit looked_through(std::move(catalog));
}

void SourcesModel::reload() {
    jobs_.cancel();
    emit reloading();
    looking_ = jobs_.shown_progress(tr("Looking through the archives"));
    jobs_.run(
        this, tr("Looking through the archives"),
        [this, self = QPointer<QObject>(this), context = store_.context(), analysis = store_.analysis_context(), progress = looking_,
         index = store_.index()] {
            return read_sources(*context, analysis(), *index, *progress, [&](const std::shared_ptr<const AnalyzedCatalog>& so_far) {
                jobs_.tell(self, [this, so_far, progress] {
                    // What is shown already may be more: what was remembered stays until the whole is there.
                    if (progress == looking_ && so_far->snapshot->catalog.items.size() > snapshot_->catalog.items.size()) show(so_far);
                });
            });
        },
        [this, progress = std::weak_ptr(looking_)](Result<std::shared_ptr<const AnalyzedCatalog>> catalog) {
            if (progress.expired() || progress.lock() != looking_) return;
            looking_ = nullptr;
            ready_ = true;
            if (!catalog) {
                emit changed();
                return messages_.say(
                    tr("Stopped looking through the archives. They are looked through again when the project is opened or "
                       "its sources change."));
            }
            const auto& snapshot = *(*catalog)->snapshot;
            for (const auto& problem : snapshot.catalog.problems) messages_.say(QString::fromStdString(problem.message()));
            for (const auto& source : snapshot.sources)
                if (source.error) messages_.say(QString::fromStdString(source.error->message()));
            show(std::move(*catalog));
            if (store_.has_baseline()) complete_baseline();
        });
}

void SourcesModel::complete_baseline() {
    // Beside everything else, behind looking at pictures.
    jobs_.quietly(Jobs::By::looker,
                  [this, self = QPointer<QObject>(this), baseline = store_.baseline(), ending = jobs_.ending(), project = store_.shared()] {
                      Progress progress;
                      progress.cancel = ending;
                      const auto decided = baseline->complete(progress);
                      auto became = decided && *decided ? what_became(baseline.get(), *project) : std::map<fs::path, Shipped>();
                      jobs_.tell(self, [this, decided, became] {
                          if (!decided && decided.error().code != ErrorCode::canceled) messages_.complain(decided.error());
                          if (became.empty()) return;
                          became_ = became;
                          emit changed();
                      });
                  });
}

}  // namespace skivet::app

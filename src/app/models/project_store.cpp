#include "app/models/project_store.h"

#include <QDateTime>

#include "app/models/preferences.h"
#include "workflow/delivery_plan.h"
#include "workflow/sources.h"

namespace skivet::app {

namespace fs = std::filesystem;

std::int64_t now() { return QDateTime::currentSecsSinceEpoch(); }

ProjectStore::ProjectStore(Jobs& jobs, Messages& messages, QObject* parent) : QObject(parent), jobs_(jobs), messages_(messages) {
    index_ = IndexStore::open({}).value_or(nullptr);  // until a project brings its own
    std::vector<Error> errors;
    context_ = shipped_ = shipped_context(errors);
    for (const auto& error : errors) messages_.complain(error);
}

void ProjectStore::save() {
    if (!open_) return;
    jobs_.quietly(Jobs::By::writer, [this, copy = shared()] {
        if (auto saved = save_project(*copy); !saved) jobs_.tell(this, [this, error = saved.error()] { messages_.complain(error); });
    });
}

void ProjectStore::note_step(const QString& title, std::shared_ptr<const Project> before) {
    if (!difference_of(*before, project_).any()) return;
    // Each is two whole projects; of large ones fewer are kept.
    constexpr std::size_t most = 60, most_pieces = 100'000;
    undo_.push_back({title, std::move(before), shared()});
    const auto allowed = std::clamp<std::size_t>(most_pieces / (project_.pieces.size() + 1), 5, most);
    if (undo_.size() > allowed) undo_.erase(undo_.begin(), undo_.end() - std::ptrdiff_t(allowed));
    redo_.clear();
    emit steps_changed();
}

void ProjectStore::step(std::vector<Step>& from, std::vector<Step>& to, bool back) {
    if (!open_ || from.empty()) return;
    const auto one = std::move(from.back());
    from.pop_back();
    const auto effect = make_step(project_, back ? *one.after : *one.before, back ? *one.before : *one.after);
    forget_copies();
    to.push_back(one);
    save();
    const auto line = back ? tr("Undone: %1").arg(one.title) : tr("Done again: %1").arg(one.title);
    messages_.say(line);
    messages_.tell(line);
    emit steps_changed();
    if (effect.reading) renew_context();
    emit stepped(effect);
}

bool ProjectStore::needs_project() {
    if (open_) return false;
    messages_.tell(tr("No project is open, so there is nowhere to keep this."));
    return true;
}

std::shared_ptr<const Project> ProjectStore::shared() const {
    if (!shared_) shared_ = std::make_shared<const Project>(project_);
    return shared_;
}

const Piece* ProjectStore::piece_of(const Address& address) const {
    if (!by_address_) by_address_.emplace(project_);
    const auto id = by_address_->find(address);
    return id ? project_.piece(*id) : nullptr;
}

std::function<AnalysisContext()> ProjectStore::analysis_context() const {
    return [project = shared(), baseline = has_baseline_ ? baseline_ : nullptr, history = history_] {
        return AnalysisContext{*project, baseline, history};
    };
}

void ProjectStore::set_history(std::vector<Journal> history) {
    history_ = std::move(history);
    emit history_changed();
}

void ProjectStore::look_at_game(Jobs::By by, QObject* asker, std::function<void()> then) {
    jobs_.run(
        by, asker, tr("Looking whether the game changed"),
        [context = context_, project = shared(), ending = jobs_.ending()] { return gone_stale(*context, project->pieces, ending); },
        [this, project = shared(), then = std::move(then)](const std::vector<PieceId>& stale) {
            note_stale(stale, *project);
            if (then) then();
        });
}

void ProjectStore::note_stale(const std::vector<PieceId>& stale, const Project& looked_at) {
    if (change_if([&](Project& p) { return skivet::note_stale(p, stale, looked_at); })) tell_pieces_changed();
}

void ProjectStore::open(OpenWish wish) {
    wish_ = wish;
    left_ = false;
    wish.cancel = jobs_.ending();
    wish.locked = lock_ && project_.folder == wish.folder;
    wish.looked_over = false;  // BenchModel does, while the window shows what there is
    struct Answer {
        Result<OpenedProject> opened;
        bool good_copy = false;
        std::shared_ptr<ThumbnailCache> cache;
        std::shared_ptr<const AnalyzedCatalog> remembered;
        std::shared_ptr<const Project> copy;
    };
    jobs_.run(
        this, tr("Opening the project"),
        [this, shipped = shipped_, wish, bound = Preferences::the().settings().thumbnail_bytes] {
            Answer out{open_for_work(*shipped, wish, files_, now()), false, nullptr, nullptr, nullptr};
            if (!out.opened) {
                out.good_copy = out.opened.error().code == ErrorCode::damaged && has_good_copy(wish.folder);
                return out;
            }
            if (auto cache = ThumbnailCache::open(ThumbnailCache::usual_place(), bound)) out.cache = std::move(*cache);
            out.remembered = remembered_catalog(*out.opened->context, out.opened->project, *out.opened->index, shown_first);
            out.copy = std::make_shared<const Project>(out.opened->project);
            return out;
        },
        [this](Answer answer) {
            if (left_) return;  // somebody went elsewhere meanwhile; the lock goes with the answer
            if (!answer.opened) {
                messages_.complain(answer.opened.error());
                return emit refused(QString::fromStdString(answer.opened.error().message()), answer.good_copy);
            }
            cache_ = std::move(answer.cache);
            take_over(std::move(*answer.opened), std::move(answer.copy));
            emit history_changed();
            emit pieces_changed();
            emit opened(answer.remembered);
        });
}

void ProjectStore::take_over(OpenedProject opened, std::shared_ptr<const Project> copy) {
    if (opened.lock) lock_ = std::move(opened.lock);
    open_ = true;
    for (const auto& journal : opened.recovered.rolled_back) {
        const auto line = tr("\"%1\" was cut short last time. The old bytes were put back.").arg(QString::fromStdString(journal.title));
        messages_.say(line);
        messages_.tell(line);
    }
    for (const auto* list : {&opened.recovered.set_aside, &opened.recovered.waiting, &opened.problems})
        for (const auto& error : *list) messages_.complain(error);
    project_ = std::move(opened.project);
    forget_copies();
    shared_ = std::move(copy);
    undo_.clear();
    redo_.clear();
    emit steps_changed();
    history_ = std::move(opened.history);
    context_ = std::move(opened.context);
    index_ = std::move(opened.index);
    baseline_ = std::move(opened.baseline);
    has_baseline_ = baseline_ && baseline_->recorded();
    save();
}

void ProjectStore::close() {
    open_ = false;
    left_ = true;
    // Behind whatever is still to be saved.
    jobs_.quietly(Jobs::By::writer,
                  [lock = std::make_shared<std::optional<FileLock>>(std::exchange(lock_, std::nullopt))] { lock->reset(); });
}

void ProjectStore::open_last_good() {
    jobs_.run(
        Jobs::By::writer, this, tr("Opening the project"), [folder = wish_.folder] { return use_good_copy(folder); },
        [this](const Status& used) {
            if (!used) return messages_.complain(used.error());
            messages_.say(tr("The project's last good copy is used; the file that could not be read is kept beside it."));
            open(wish_);
        });
}

void ProjectStore::renew_context() {
    // Workers keep the context they were given; a new value takes their place.
    auto context = std::make_shared<ReadContext>(*context_);
    context->choices = project_.choices;
    context->known_paths = project_.known_paths;
    context->packers = std::make_shared<PackerPrograms>(project_.packers);
    context_ = std::move(context);
    emit game_changed();
}

std::vector<std::string> ProjectStore::key_names() const {
    std::vector<std::string> out;
    for (const auto& key : context_->keys->all()) out.push_back(key.name);
    return out;
}

void ProjectStore::keep_keys(KeyRing ring) {
    if (needs_project()) return;
    auto shared = std::make_shared<const KeyRing>(std::move(ring));
    auto context = std::make_shared<ReadContext>(*context_);
    context->keys = shared;
    context_ = std::move(context);
    jobs_.quietly(Jobs::By::writer, [this, shared, file = project_.keys()] {
        std::error_code code;
        fs::create_directories(file.parent_path(), code);
        if (auto saved = save_keys(*shared, file); !saved) jobs_.tell(this, [this, error = saved.error()] { messages_.complain(error); });
    });
    emit game_changed();
}

Status ProjectStore::add_key(const std::string& text) {
    SKIVET_TRY(auto key, parse_key(text));
    auto ring = *context_->keys;
    messages_.say(tr("The key \"%1\" is in the key ring").arg(QString::fromStdString(key.name)));
    ring.add(std::move(key));
    keep_keys(std::move(ring));
    return {};
}

void ProjectStore::remove_key(const std::string& name) {
    auto ring = *context_->keys;
    ring.remove(name);
    keep_keys(std::move(ring));
}

void ProjectStore::save_sheet(const std::string& name, const std::string& toml, std::function<void(const Result<fs::path>&)> done) {
    if (needs_project()) return done(fail(ErrorCode::usage, "no project is open"));
    struct Saved {
        Result<fs::path> file;
        std::shared_ptr<ReadContext> context;
        std::vector<Error> errors;
    };
    jobs_.run(
        Jobs::By::writer, this, tr("Keeping the sheet"),
        [shipped = shipped_, keys = context_->keys, project = project_, name, toml] {
            Saved out{keep_sheet(project, name, toml), nullptr, {}};
            out.context = context_of(*shipped, project, keys, out.errors);
            return out;
        },
        [this, done = std::move(done)](Saved saved) {
            if (saved.file) {
                saved.context->keys = context_->keys;
                context_ = std::move(saved.context);
                for (const auto& error : saved.errors) messages_.complain(error);
                messages_.say(tr("The sheet is kept as %1").arg(QString::fromStdString(saved.file->string())));
                renew_context();
            }
            done(saved.file);
        });
}

void ProjectStore::set_places(const PlaceSettings& places) {
    if (project_.places == places) return;
    change(tr("Where deliveries go"), [&](Project& p) { p.places = places; });
    emit pieces_changed();  // what a delivery would write is other than before
}

Status ProjectStore::set_packer(const std::string& name, const std::string& unpack, const std::string& pack) {
    if (name.empty()) return fail(ErrorCode::usage, "no packer is chosen");
    PackerProgram program{name, {}, {}};
    if (!unpack.empty()) {
        SKIVET_TRY(program.unpack, command_words(unpack));
    }
    if (!pack.empty()) {
        SKIVET_TRY(program.pack, command_words(pack));
    }
    if (unpack.empty() && !pack.empty()) return fail(ErrorCode::usage, "a packer needs the command that unpacks");
    if (needs_project()) return {};
    change([&](Project& p) {
        if (unpack.empty()) p.packers.remove(name);
        else p.packers.add(std::move(program));
    });
    renew_context();
    return {};
}

}  // namespace skivet::app

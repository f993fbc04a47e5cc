#include "app/models/session.h"
#include "app/models/session_catalog.h"

#include <QDateTime>
#include <QDesktopServices>
#include <QDir>
#include <QUrl>

#include "base/file_write.h"
#include "base/text.h"
#include "container/sheet_folders.h"
#include "sheet/sheet.h"

namespace skivet::app {

namespace fs = std::filesystem;

namespace {

std::int64_t now() { return QDateTime::currentSecsSinceEpoch(); }
QString text(const fs::path& path) { return QString::fromStdString(path.string()); }

std::shared_ptr<const Kinds> load_kinds(std::vector<Error>& errors) {
    auto kinds = std::make_shared<Kinds>();
    for (const auto& folder : sheet_folders())
        for (auto& error : add_sheets_in(*kinds, folder)) errors.push_back(std::move(error));
    return kinds;
}

}  // namespace

std::size_t DeliveryPlan::piece_count() const {
    std::size_t sum = 0;
    for (const auto& group : groups)
        if (!group.error && !group.plan.empty()) sum += group.pieces.size();
    return sum;
}

Session::Session(QObject* parent) : QObject(parent), stock_(std::make_shared<Stock>()), knowledge_(std::make_shared<Knowledge>()) {
    index_ = IndexStore::open(":memory:").value_or(nullptr);  // until a project brings its own
    std::vector<Error> errors;
    kinds_ = shipped_ = load_kinds(errors);
    thumbnails_.setMaxCost(96 << 10);  // kilobytes: fifty screens of cards
    pool_.setMaxThreadCount(3);        // an export may take one for long
    saver_.setMaxThreadCount(1);
    pictures_.setMaxThreadCount(2);
    looker_.setMaxThreadCount(1);
    settle_.setSingleShot(true);
    settle_.setInterval(60);
    connect(&settle_, &QTimer::timeout, this, &Session::look_at_pieces);
    connect(&watcher_, &QFileSystemWatcher::directoryChanged, &settle_, qOverload<>(&QTimer::start));
    connect(&watcher_, &QFileSystemWatcher::fileChanged, &settle_, qOverload<>(&QTimer::start));
    progress_timer_.setInterval(100);
    connect(&progress_timer_, &QTimer::timeout, this, [this] {
        if (progress_ && progress_->total > 0) emit activity(tr("Looking through the archives"), progress_->done, progress_->total);
        else if (looking_ && looking_->total > 0) emit activity(tr("Looking at pictures"), looking_->done, looking_->total);
    });
    connect(&game_, &QProcess::errorOccurred, this,
            [this] { emit notice(tr("The game could not be started: %1").arg(game_.errorString())); });
    connect(&game_, &QProcess::readyReadStandardError, this, [this] {
        for (const auto& line : QString::fromUtf8(game_.readAllStandardError()).split('\n', Qt::SkipEmptyParts)) say(line);
    });
    for (const auto& error : errors) complain(error);
}

Session::~Session() {
    cancel_.cancel();
    cancel();
    if (exporting_) exporting_->cancel.cancel();
    pool_.clear();
    pictures_.clear();
    pool_.waitForDone();
    pictures_.waitForDone();
    looker_.waitForDone();
    saver_.waitForDone();
    if (game_.state() != QProcess::NotRunning) {
        game_.disconnect();
        game_.terminate();
        game_.waitForFinished(2000);
    }
}

void Session::say(const QString& line) {
    log_.push_back(QDateTime::currentDateTime().toString(QStringLiteral("HH:mm:ss  ")) + line);
    if (log_.size() > 2000) log_.erase(log_.begin(), log_.begin() + 500);
    emit logged(log_.back());
}

void Session::complain(const Error& error) {
    const auto line = QString::fromStdString(error.message());
    say(line);
    emit notice(line);
}

bool Session::needs_project() {
    if (has_project_) return false;
    emit notice(tr("No project is open, so there is nowhere to keep this."));
    return true;
}

void Session::save() {
    if (!has_project_) return;
    // A copy is written in order by one thread; the last one wins.
    saver_.start([this, copy = project_] {
        if (auto saved = save_project(copy); !saved)
            QMetaObject::invokeMethod(
                this, [this, error = saved.error()] { complain(error); }, Qt::QueuedConnection);
    });
}

void Session::open(const fs::path& folder, const fs::path& game, const std::vector<fs::path>& more, const std::vector<std::string>& play) {
    struct Opened {
        Result<Project> project = Project{};
        std::optional<FileLock> lock;
        bool good_copy = false;
        Result<Recovered> recovered = Recovered{};
        std::vector<Error> unreadable;
        Result<KeyRing> keys = KeyRing{};
        std::shared_ptr<const Kinds> kinds;
        std::vector<Error> sheet_errors, index_errors;
        std::vector<Journal> history;
        std::shared_ptr<IndexStore> index;
        std::shared_ptr<ThumbnailCache> cache;
        std::shared_ptr<Baseline> baseline;
        std::shared_ptr<Stock> remembered;
        std::shared_ptr<Knowledge> knowledge;
    };
    asked_ = {folder, game, more, play};
    const bool locked = project_lock_ && project_.folder == folder;
    run(
        tr("Opening the project"),
        [kinds = kinds_, folder, game, more, play, locked, this]() mutable {
            Opened out;
            if (!locked) {
                auto lock = lock_project(folder);
                if (!lock) {
                    out.project = fail(std::move(lock).error());
                    return out;
                }
                out.lock = std::move(*lock);
            }
            out.project = open_project(folder);
            if (!out.project) {
                out.good_copy = has_good_copy(folder);
                return out;
            }
            auto& project = *out.project;
            std::error_code code;
            if (!game.empty() && !project.game.empty() && fs::weakly_canonical(game, code) != fs::weakly_canonical(project.game, code)) {
                // Its sources and its loose files belong to the other one.
                out.project = fail(
                    Error{ErrorCode::usage,
                          "the project " + folder.string() + " is about the game in " + project.game.string() + ", not " + game.string(),
                          {},
                          {},
                          "Choose another --project for this game, or leave --project out"});
                return out;
            }
            (void)keep_good_copy(folder);  // only a help for a bad day
            out.keys = load_keys(project.keys());
            auto changed = std::make_shared<Kinds>(*kinds);
            if (out.keys) changed->keys = std::make_shared<KeyRing>(*out.keys);
            changed->choices = project.choices;
            changed->known_paths = project.known_paths;
            out.sheet_errors = add_sheets_in(*changed, project.sheets());
            out.kinds = changed;
            kinds = std::move(changed);
            Vault vault(project.vault(), files_, VaultRegister(VaultRegister::usual_place()));
            out.recovered = vault.recover();
            out.unreadable = vault.unreadable();
            if (!game.empty()) {
                project.game = game;
                if (project.sources.empty()) {
                    project.name = game.filename().string();
                    if (auto found = find_sources(*kinds, game)) project.sources = std::move(*found);
                }
            }
            if (!play.empty()) project.play = play;
            for (const auto& source : more)
                if (std::find(project.sources.begin(), project.sources.end(), source) == project.sources.end())
                    project.sources.push_back(source);
            for (auto& piece : project.pieces) {
                piece = look_at_piece(project, piece, now());
                if (auto checked = check_source(*kinds, piece)) piece = std::move(*checked);
            }
            if (auto history = vault.history()) out.history = std::move(*history);
            if (auto index = IndexStore::open(project.index(), true)) out.index = std::move(*index);
            else out.index_errors.push_back(index.error());
            // Without a place on the disk it works all the same, only nothing is kept.
            if (!out.index) out.index = IndexStore::open(":memory:").value_or(nullptr);
            if (auto cache = ThumbnailCache::open(ThumbnailCache::usual_place())) out.cache = std::move(*cache);
            if (auto baseline = Baseline::open(project.baseline())) out.baseline = std::move(*baseline);
            else out.index_errors.push_back(baseline.error());
            if (out.index) remember_stock(*kinds, project, *out.index, out.remembered, out.knowledge);
            return out;
        },
        [this](Opened opened) {
            if (!opened.project) {
                complain(opened.project.error());
                emit project_refused(QString::fromStdString(opened.project.error().message()), opened.good_copy);
                return;
            }
            if (opened.lock) project_lock_ = std::move(opened.lock);
            has_project_ = true;
            if (!opened.recovered) {
                complain(opened.recovered.error());
            } else {
                for (const auto& journal : opened.recovered->rolled_back) {
                    const auto line =
                        tr("\"%1\" was cut short last time. The old bytes were put back.").arg(QString::fromStdString(journal.title));
                    say(line);
                    emit notice(line);
                }
                for (const auto* list : {&opened.recovered->set_aside, &opened.recovered->waiting})
                    for (const auto& error : *list) complain(error);
            }
            for (const auto& error : opened.unreadable) complain(error);
            project_ = std::move(*opened.project);
            history_ = std::move(opened.history);
            if (!opened.keys) complain(opened.keys.error());
            kinds_ = std::move(opened.kinds);
            for (const auto& error : opened.sheet_errors) complain(error);
            ++piece_generation_;
            watch_pieces();
            save();
            index_ = std::move(opened.index);
            cache_ = std::move(opened.cache);
            baseline_ = std::move(opened.baseline);
            has_baseline_ = baseline_ && baseline_->recorded();
            for (const auto& error : opened.index_errors) complain(error);
            emit history_changed();
            emit pieces_changed();
            if (opened.remembered) show_stock(std::move(opened.remembered), std::move(opened.knowledge));
            reload();
        });
}

void Session::close() {
    has_project_ = false;
    // Behind whatever is still to be saved.
    saver_.start([lock = std::make_shared<std::optional<FileLock>>(std::exchange(project_lock_, std::nullopt))] { lock->reset(); });
}

void Session::open_last_good() {
    run(
        tr("Opening the project"), [folder = asked_.folder] { return use_good_copy(folder); },
        [this](const Status& used) {
            if (!used) return complain(used.error());
            say(tr("The project's last good copy is used; the file that could not be read is kept beside it."));
            open(asked_.folder, asked_.game, asked_.more, asked_.play);
        });
}

Vault Session::vault() const { return Vault(project_.vault(), files_, VaultRegister(VaultRegister::usual_place())); }

void Session::add_source(const fs::path& path) {
    if (needs_project()) return;
    if (std::find(project_.sources.begin(), project_.sources.end(), path) != project_.sources.end())
        return emit notice(tr("%1 is in the list already.").arg(text(path.filename())));
    project_.sources.push_back(path);
    save();
    reload();
}

void Session::remove_source(std::size_t index) {
    if (index >= project_.sources.size()) return;
    project_.sources.erase(project_.sources.begin() + static_cast<std::ptrdiff_t>(index));
    save();
    reload();
}

void Session::move_source(std::size_t index, bool up) {
    const auto other = up ? index + 1 : index - 1;
    if (index < project_.sources.size() && other < project_.sources.size()) place_source(index, other);
}

void Session::place_source(std::size_t index, std::size_t place) {
    auto& sources = project_.sources;
    if (index >= sources.size() || place >= sources.size() || index == place) return;
    const auto at = [&](std::size_t i) { return sources.begin() + static_cast<std::ptrdiff_t>(i); };
    if (index < place) std::rotate(at(index), at(index) + 1, at(place) + 1);
    else std::rotate(at(place), at(index), at(index) + 1);
    save();
    reload();
}

void Session::set_source(std::size_t index, const SourceSetting& setting) {
    if (index >= project_.sources.size()) return;
    const auto before = project_.setting(project_.sources[index]);
    project_.source_settings[project_.sources[index]] = setting;
    save();
    if (before.off != setting.off) return reload();
    emit sources_changed();  // only a word beside it
}

void Session::set_kinds(const std::function<void(Kinds&)>& change) {
    // Workers keep the kinds they were given; a new value takes their place.
    auto kinds = std::make_shared<Kinds>(*kinds_);
    change(*kinds);
    kinds_ = std::move(kinds);
}

void Session::choose_kind(const std::string& pattern, const std::string& kind) {
    std::erase_if(project_.choices, [&](const KindChoice& c) { return c.pattern == pattern; });
    if (!kind.empty()) project_.choices.insert(project_.choices.begin(), {pattern, kind});
    set_kinds([&](Kinds& kinds) { kinds.choices = project_.choices; });
    save();
    reload();
}

std::vector<std::string> Session::key_names() const {
    std::vector<std::string> out;
    for (const auto& key : kinds_->keys->all()) out.push_back(key.name);
    return out;
}

void Session::keep_keys(KeyRing ring) {
    if (needs_project()) return;
    auto shared = std::make_shared<const KeyRing>(std::move(ring));
    set_kinds([&](Kinds& kinds) { kinds.keys = shared; });
    saver_.start([this, shared, file = project_.keys()] {
        std::error_code code;
        fs::create_directories(file.parent_path(), code);
        if (auto saved = save_keys(*shared, file); !saved)
            QMetaObject::invokeMethod(
                this, [this, error = saved.error()] { complain(error); }, Qt::QueuedConnection);
    });
    reload();
}

Status Session::add_key(const std::string& text) {
    SKIVET_TRY(auto key, parse_key(text));
    auto ring = *kinds_->keys;
    say(tr("The key \"%1\" is in the key ring").arg(QString::fromStdString(key.name)));
    ring.add(std::move(key));
    keep_keys(std::move(ring));
    return {};
}

void Session::remove_key(const std::string& name) {
    auto ring = *kinds_->keys;
    ring.remove(name);
    keep_keys(std::move(ring));
}

void Session::save_sheet(const std::string& name, const std::string& toml, std::function<void(const Result<fs::path>&)> done) {
    if (needs_project()) return done(fail(ErrorCode::usage, "no project is open"));
    struct Saved {
        Result<fs::path> file;
        std::shared_ptr<Kinds> kinds;
        std::vector<Error> errors;
    };
    run(
        tr("Keeping the sheet"),
        [shipped = shipped_, folder = project_.sheets(), name, toml] {
            Saved out;
            out.kinds = std::make_shared<Kinds>(*shipped);
            out.file = [&]() -> Result<fs::path> {
                SKIVET_TRY(const auto sheet, parse_sheet(toml, name));
                (void)sheet;
                const auto safe = fs::path(safe_relative_path(name)).filename();
                if (safe.empty()) return fail(ErrorCode::usage, "the sheet needs a name");
                const auto file = folder / (safe.string() + ".toml");
                SKIVET_CHECK(write_file(file, as_bytes(toml)));
                return file;
            }();
            out.errors = add_sheets_in(*out.kinds, folder);
            return out;
        },
        [this, done = std::move(done)](Saved saved) {
            if (saved.file) {
                saved.kinds->keys = kinds_->keys;
                saved.kinds->choices = project_.choices;
                saved.kinds->known_paths = project_.known_paths;
                kinds_ = std::move(saved.kinds);
                for (const auto& error : saved.errors) complain(error);
                say(tr("The sheet is kept as %1").arg(text(*saved.file)));
                reload();
            }
            done(saved.file);
        });
}

void Session::accept_paths(const std::vector<std::string>& paths) {
    for (const auto& path : paths)
        if (std::find(project_.known_paths.begin(), project_.known_paths.end(), path) == project_.known_paths.end())
            project_.known_paths.push_back(path);
    set_kinds([&](Kinds& kinds) { kinds.known_paths = project_.known_paths; });
    save();
    reload();
}

void Session::compact(std::size_t index) {
    if (index >= stock_->sources.size() || !stock_->sources[index].container) return;
    struct Done {
        Status status;
        std::vector<Journal> history;
    };
    run(
        tr("Giving space back"),
        [kinds = kinds_, stock = stock_, index, vault = vault()]() mutable {
            Done out;
            const auto& source = stock->sources[index];
            const auto work = [&]() -> Status {
                SKIVET_TRY(const auto plan, source.container->plan_compact(kinds->limits));
                if (plan.empty()) return {};
                const auto title = human_bytes(source.container->dead_bytes()) + " given back in " + source.path.filename().string();
                SKIVET_TRY(const auto done, vault.deliver(plan, {title, source.path, {}}, now(), [&]() -> Status {
                    SKIVET_TRY(const auto again, open_source(*kinds, source.path));
                    return same_contents(*source.container, *again, kinds->limits, {});
                }));
                (void)done;
                return {};
            };
            out.status = work();
            if (auto history = vault.history()) out.history = std::move(*history);
            return out;
        },
        [this](Done done) {
            if (!done.status) complain(done.status.error());
            else say(tr("The space is given back."));
            history_ = std::move(done.history);
            refresh_history();
        });
}

void Session::set_commands(const std::vector<std::string>& editor, const std::vector<std::string>& play) {
    project_.editor = editor;
    project_.play = play;
    save();
}

void Session::open_texture(std::size_t item, std::function<void(std::shared_ptr<const OpenTexture>)> done) {
    run(
        tr("Opening a texture"),
        [kinds = kinds_, stock = stock_, item] {
            auto out = std::make_shared<OpenTexture>();
            if (item >= stock->catalog.items.size()) return out;
            const auto& entry = stock->catalog.items[item];
            auto texture = skivet::open_texture(*kinds, stock->sources[entry.source], entry);
            if (texture) out->texture = std::move(*texture);
            else out->error = std::move(texture).error();
            return out;
        },
        [done = std::move(done)](std::shared_ptr<OpenTexture> opened) { done(std::move(opened)); });
}

bool Session::try_in_game() {
    if (project_.play.empty()) {
        emit notice(tr("Say in the settings how the game is started."));
        return false;
    }
    if (game_.state() != QProcess::NotRunning) {
        emit notice(tr("The game is running; it shows what was delivered."));
        return true;
    }
    QStringList arguments;
    for (std::size_t i = 1; i < project_.play.size(); ++i) arguments << QString::fromStdString(project_.play[i]);
    game_.start(QString::fromStdString(project_.play[0]), arguments);
    say(tr("Started %1").arg(QString::fromStdString(project_.play[0])));
    return true;
}

}  // namespace skivet::app

#include "app/models/bench_model.h"

#include <QDesktopServices>
#include <QProcess>
#include <QUrl>
#include <set>

#include "base/file_write.h"
#include "base/text.h"
#include "codec/paint_form.h"
#include "container/texture_files.h"
#include "workflow/open_with.h"
#include "workflow/pieces.h"

namespace skivet::app {

namespace fs = std::filesystem;

namespace {

QString text(const fs::path& path) { return QString::fromStdString(path.string()); }

constexpr int small_side = 320;

}  // namespace

BenchModel::BenchModel(ProjectStore& store, QObject* parent)
    : QObject(parent), store_(store), jobs_(store.jobs()), messages_(store.messages()), fits_(store) {
    settle_.setSingleShot(true);
    settle_.setInterval(30);
    connect(&settle_, &QTimer::timeout, this, &BenchModel::look);
    connect(&watcher_, &FolderWatch::changed, &settle_, qOverload<>(&QTimer::start));
    connect(&watcher_, &FolderWatch::began, &settle_, qOverload<>(&QTimer::start));
    connect(&store_, &ProjectStore::pieces_changed, this, &BenchModel::pieces_changed);
    connect(&fits_, &FitModel::read, this, [this](PieceId id, const QString& edit, const QImage&, const QImage& little) {
        note_pictures(id, {{}, {}, {}, little, edit.toStdString()});
    });
    connect(&store_, &ProjectStore::stepped, this, [this](const StepEffect& effect) {
        if (effect.pieces.empty()) return;
        // What follows them follows what they are now.
        std::set<fs::path> files;
        for (const auto id : effect.pieces) {
            forget(id);
            if (const auto* there = piece(id)) files.insert(there->file);
        }
        std::vector<PieceId> followers;
        for (const auto& one : pieces())
            if (one.follows() && files.contains(one.file)) followers.push_back(one.id);
        for (const auto id : followers) forget(id);
        watch();
        look();  // the file of one that came back may be another by now
        store_.tell_pieces_changed();
    });
    connect(&store_, &ProjectStore::opened, this, [this] {
        // Ids count anew in another project.
        pictures_.clear();
        drawn_.clear();
        pictures_pending_.clear();
        passed_over_.clear();
        seen_ = std::make_shared<SeenFiles>();
        watch();
        if (pieces().empty()) return;
        // What was saved while nobody looked: beside the window, so that a thousand pieces do not hold it up. What the game became finds
        // UpdateModel.
        look_at_saves(true);
    });
}

void BenchModel::put_away(PieceId id) {
    const auto* piece = this->piece(id);
    if (!piece) return;
    messages_.say(tr("Put away: %1. Its file stays in the project's work folder.").arg(text(piece->file)));
    store_.change(tr("Put away"), [&](Project& p) { p.put_away(id); });
    forget(id);
    watch();
    store_.tell_pieces_changed();
}

void BenchModel::take_again(PieceId id) {
    const auto* piece = this->piece(id);
    if (!piece) return;
    jobs_.run(
        this, tr("Writing out"),
        [context = store_.context(), project = store_.shared(), old = *piece]() -> Result<WentBack> {
            WentBack out;
            SKIVET_TRY(out.kept, keep_versions(*project, old, now()));
            SKIVET_TRY(out.piece, skivet::take_again(*context, *project, old, now()));
            return out;
        },
        [this, id](Result<WentBack> taken) {
            if (!taken) return messages_.complain(taken.error());
            store_.change([&](Project& p) {
                if (auto* there = p.piece(id)) *there = std::move(taken->piece);
                add_versions(p, taken->kept);
            });
            forget(id);
            watch();
            store_.tell_pieces_changed();
        });
}

void BenchModel::open_to_edit(PieceId id) {
    const auto* piece = this->piece(id);
    if (!piece) return;
    const auto file = text(file_of(*piece));
    const auto command = command_for(store_.project(), *piece);
    if (command.empty()) {
        if (!QDesktopServices::openUrl(QUrl::fromLocalFile(file)))
            messages_.refuse(tr("The desktop has no program for this file. Name one in the settings, or open %1 yourself.").arg(file));
        return;
    }
    QStringList arguments;
    for (std::size_t i = 1; i < command.size(); ++i) arguments << QString::fromStdString(command[i]);
    const auto program = QString::fromStdString(command[0]);
    if (!QProcess::startDetached(program, arguments)) messages_.refuse(tr("%1 could not be started. Look at the settings.").arg(program));
    else messages_.say(tr("Opened %1 with %2").arg(file, program));
}

void BenchModel::watch() {
    // Few folders hold thousands of files, and a path takes long to take apart.
    std::set<std::string_view> inside;
    const auto note = [&](const fs::path& file) {
        const std::string_view text = file.native();
        const auto slash = text.rfind('/');
        inside.insert(slash == std::string_view::npos ? std::string_view() : text.substr(0, slash));
    };
    for (const auto& piece : pieces()) {
        note(piece.file);
        for (const auto& one : piece.more) note(one.file);
    }
    std::set<std::string> folders;
    for (const auto folder : inside) folders.insert((work_folder() / folder).string());
    watcher_.set(folders);
}

void BenchModel::look() { look_at_saves(false); }

void BenchModel::look_at_saves(bool first) {
    if (pieces().empty()) return;
    look_again_ = looking_;
    if (looking_) return;
    looking_ = true;
    jobs_.run(
        this, tr("Looking at saved files"),
        [this, self = QPointer<QObject>(this), &jobs = jobs_, project = store_.shared(), seen = seen_, first] {
            if (first) return look_at_files(*project, *seen, now());
            return look_at_files(*project, *seen, now(), {}, [&](const fs::path& file, const std::string& hash) {
                jobs.tell(self, [this, file, hash] {
                    std::vector<PieceId> saved;
                    store_.change([&](Project& p) { saved = note_save(p, file, hash, now()); });
                    watch();  // a rename ended it
                    tell_saved(saved);
                });
            });
        },
        [this, first](BenchLook look) {
            looking_ = false;
            note(std::move(look), first);
        });
}

void BenchModel::note(BenchLook look, bool first) {
    for (const auto& error : look.errors) messages_.complain(error);
    std::erase_if(look.others,
                  [this](const OtherSave& o) { return std::find(passed_over_.begin(), passed_over_.end(), o) != passed_over_.end(); });
    const bool other = std::exchange(others_, look.others) != others_;
    watch();
    // A file that is being written may be whole soon, without telling.
    constexpr int patience_ms = 300;
    if (look.unfinished) QTimer::singleShot(patience_ms, this, &BenchModel::look);
    if (std::exchange(look_again_, false)) QTimer::singleShot(0, this, &BenchModel::look);
    if (!look.saved.empty() || !look.versions.empty()) {
        std::vector<PieceId> saved;
        store_.change([&](Project& p) { saved = note_look(p, look); });
        if (!saved.empty()) return tell_saved(saved, first);
    }
    if (other) emit pieces_changed();
}

void BenchModel::tell_saved(const std::vector<PieceId>& ids, bool first) {
    for (const auto id : ids) {
        forget(id);
        if (!first) messages_.say(tr("Saved: %1").arg(text(piece(id)->file)));
    }
    if (first && !ids.empty()) {
        const auto one = text(piece(ids[0])->file);
        messages_.say(ids.size() == 1 ? tr("Saved while the project was closed: %1").arg(one)
                                      : tr("Saved while the project was closed: %1 and %L2 more").arg(one).arg(ids.size() - 1));
    }
    if (!ids.empty()) store_.tell_pieces_changed();
}

bool BenchModel::is_edited(PieceId id) const {
    const auto* there = piece(id);
    return there && there->is_saved();
}

void BenchModel::use_file(PieceId id, const fs::path& file) {
    jobs_.run(
        this, tr("Looking at saved files"),
        [now_there = store_.shared(), id, file]() -> Result<Project> {
            auto project = *now_there;
            SKIVET_CHECK(skivet::use_file(project, id, file, now()));
            return project;
        },
        [this, id, file](Result<Project> with) {
            if (!with) return messages_.complain(with.error());
            // Only what belongs to the piece's file; the rest may have gone on meanwhile.
            store_.change([&](Project& p) {
                for (const auto& seen : with->pieces)
                    if (auto* mine = p.piece(seen.id); mine && seen.file == file) *mine = seen;
                add_versions(p, with->versions);
            });
            for (const auto& one : pieces())
                if (one.file == file) forget(one.id);
            std::erase_if(others_, [&](const OtherSave& o) { return o.piece == id; });
            messages_.say(tr("The edit is in %1 now.").arg(text(file)));
            watch();
            store_.tell_pieces_changed();
        });
}

void BenchModel::pass_over(const OtherSave& other) {
    passed_over_.push_back(other);
    std::erase(others_, other);
    emit pieces_changed();
}

std::vector<Version> BenchModel::versions(PieceId id) const {
    const auto* there = piece(id);
    return there ? versions_of(store_.project(), *there) : std::vector<Version>();
}

void BenchModel::match(QObject* asker, std::shared_ptr<const AnalyzedCatalog> catalog, fs::path folder, std::shared_ptr<Progress> progress,
                       std::function<void(Result<BroughtFolder>)> then) {
    jobs_.run(
        asker, tr("Matching pictures"),
        [catalog = std::move(catalog), folder = std::move(folder), progress = std::move(progress), context = store_.context(),
         project = store_.shared()] { return match_folder(*catalog, *project, folder, context->limits, *progress); },
        [then = std::move(then)](Result<BroughtFolder> found) { then(std::move(found)); });
}

void BenchModel::bring_in(std::vector<std::pair<Address, fs::path>> files) {
    struct Brought {
        std::vector<Piece> pieces;
        std::vector<Version> versions;
        std::vector<Error> errors;
        std::size_t count = 0;  ///< files
    };
    jobs_.run(
        this, tr("Bringing in"),
        [context = store_.context(), now_there = store_.shared(), files = std::move(files)] {
            auto project = *now_there;
            Brought out;
            std::set<fs::path> brought;
            for (const auto& [address, file] : files) {
                const auto id = skivet::bring_in(*context, project, address, file, now());
                if (id) brought.insert(project.piece(*id)->file);
                else out.errors.push_back(id.error());
            }
            // Those that share the file, too.
            for (auto& piece : project.pieces)
                if (brought.contains(piece.file)) out.pieces.push_back(std::move(piece));
            out.count = brought.size();
            out.versions = std::move(project.versions);
            return out;
        },
        [this](Brought brought) {
            for (const auto& error : brought.errors) messages_.complain(error);
            std::vector<PieceId> ids;
            store_.change([&](Project& p) {
                const PiecesByAddress on_bench(p);
                std::vector<Piece> fresh;
                for (auto& piece : brought.pieces) {
                    const auto id = on_bench.find(piece.address);
                    if (!id) {
                        fresh.push_back(std::move(piece));
                        continue;
                    }
                    piece.id = *id;
                    ids.push_back(*id);
                    *p.piece(*id) = std::move(piece);
                }
                const auto more = keep_taken(p, std::move(fresh));
                ids.insert(ids.end(), more.begin(), more.end());
                add_versions(p, brought.versions);
            });
            for (const auto id : ids) forget(id);
            if (brought.count > 0)
                messages_.tell(brought.count == 1 ? tr("One picture was brought in.")
                                                  : tr("%L1 pictures were brought in.").arg(brought.count));
            watch();
            store_.tell_pieces_changed();
        });
}

void BenchModel::version_picture(QObject* asker, PieceId id, const Version* version, std::function<void(Result<QImage>)> then) {
    const auto* there = piece(id);
    if (!there) return;
    picture_of(asker, version ? store_.project().version_file(version->hash) : file_of(*there), version ? version->file : there->file,
               std::move(then));
}

void BenchModel::file_picture(QObject* asker, const fs::path& file, std::function<void(Result<QImage>)> then) {
    picture_of(asker, file, file, std::move(then));
}

void BenchModel::game_picture(QObject* asker, const Address& address, std::function<void(Result<QImage>)> then) {
    jobs_.run(
        Jobs::By::pictures, asker, tr("Reading pictures"),
        [address, context = store_.context()]() -> Result<QImage> {
            SKIVET_TRY(const auto texture, open_texture_at(*context, address));
            SKIVET_TRY(auto level, texture.decode(0));
            return to_qimage(paint_form(texture.layout.desc.format, std::move(level)));
        },
        [then = std::move(then)](Result<QImage> made) { then(std::move(made)); });
}

void BenchModel::picture_of(QObject* asker, const fs::path& file, const fs::path& name, std::function<void(Result<QImage>)> then) {
    jobs_.run(
        Jobs::By::pictures, asker, tr("Reading pictures"),
        [file, name, context = store_.context()]() -> Result<QImage> {
            SKIVET_TRY(auto bytes, read_file(file));
            SKIVET_TRY(const auto edited, read_edited(std::move(bytes), context->limits, name.string()));
            return to_qimage(edited.image);
        },
        [then = std::move(then)](Result<QImage> made) { then(std::move(made)); });
}

void BenchModel::go_back(PieceId id, const Version& version) {
    const auto* there = piece(id);
    if (!there) return;
    jobs_.run(
        this, tr("Going back"),
        [project = store_.shared(), piece = *there, version] { return skivet::go_back(*project, piece, version, now()); },
        [this, id](Result<WentBack> went) {
            if (!went) return messages_.complain(went.error());
            store_.change([&](Project& p) {
                const auto* now_there = p.piece(id);
                if (!now_there) return;
                const auto old = now_there->file;
                for (auto& one : p.pieces) {
                    if (one.file != old) continue;
                    one.file = went->piece.file;
                    one.seen_hash = went->piece.seen_hash;
                    one.more = went->piece.more;
                    one.changed_at = went->piece.changed_at;
                    one.options.mends = {};
                    if (one.state != PieceState::gone_stale) one.state = state_by_edit(one);
                }
                add_versions(p, went->kept);
            });
            for (const auto& one : pieces())
                if (one.file == went->piece.file) forget(one.id);
            watch();
            store_.tell_pieces_changed();
        });
}

void BenchModel::clear_versions() {
    jobs_.run(
        Jobs::By::writer, this, tr("Clearing older versions"), [project = store_.shared()] { return cleared_versions(*project); },
        [this](const std::vector<Version>& cleared) {
            quint64 freed = 0;
            store_.change([&](Project& p) {
                for (const auto& version : cleared) {
                    freed += version.size;
                    std::erase_if(p.versions, [&](const Version& v) { return v.hash == version.hash; });
                }
            });
            messages_.say(tr("Older versions were cleared: %1 bytes").arg(QString::fromStdString(grouped(freed))));
            store_.tell_pieces_changed();
        });
}

void BenchModel::forget(PieceId id) { fits_.forget(id); }

void BenchModel::note_pictures(PieceId id, Pictures pictures) {
    auto& kept = pictures_[id];
    if (!pictures.original_of.empty()) {
        kept.original = std::move(pictures.original);
        kept.original_of = std::move(pictures.original_of);
        kept.normals = pictures.normals;
    }
    if (!pictures.edit_of.empty()) kept.edited = std::move(pictures.edited), kept.edit_of = std::move(pictures.edit_of);
    drawn_.remove(id);
    drawn_.push_front(id);
    constexpr std::size_t most_drawn = 128;  // several screens full
    while (drawn_.size() > most_drawn) pictures_.erase(drawn_.back()), drawn_.pop_back();
    emit picture_ready(id);
}

QImage BenchModel::picture(PieceId id, bool edited) {
    const auto* piece = this->piece(id);
    if (!piece) return {};
    const auto edit = piece->edit();
    QImage out;
    bool there = false;
    if (const auto found = pictures_.find(id); found != pictures_.end()) {
        if (drawn_.front() != id) drawn_.remove(id), drawn_.push_front(id);
        out = edited ? found->second.edited : found->second.original;
        there = edited ? found->second.edit_of == edit : found->second.original_of == piece->original_hash;
    }
    // What was painted comes from the fit that reads it anyway; until then the last picture is as good as none.
    if (there || (edited && fits_.is_fitting(id))) return out;
    if (const auto pending = pictures_pending_.find(id); pending != pictures_pending_.end() && pending->second == edit) return out;
    pictures_pending_[id] = edit;
    const bool with_original = !pictures_.contains(id) || pictures_[id].original_of != piece->original_hash;
    jobs_.run(
        this, tr("Reading pictures"),
        [context = store_.context(), project = store_.shared(), p = *piece, edit, with_original,
         normals = with_original ? std::nullopt : pictures_[id].normals] {
            Pictures made{{}, {}, normals, {}, edit};
            if (with_original) {
                made.original_of = p.original_hash;  // also when there is none to be had: it is not asked for again
                if (const auto original = original_texture(*context, *project, p))
                    if (const auto seen = small_picture(*original, small_side))
                        made.original = to_qimage(seen->image), made.normals = seen->normals;
            }
            if (const auto now_there = edited_piece(*context, *project, p)) made.edited = small(now_there->image, small_side, made.normals);
            return made;
        },
        [this, id, edit](Pictures made) {
            if (const auto pending = pictures_pending_.find(id); pending != pictures_pending_.end() && pending->second == edit)
                pictures_pending_.erase(pending);
            const auto* now_there = this->piece(id);
            if (now_there && now_there->edit() == edit) note_pictures(id, std::move(made));
        });
    return out;
}

void BenchModel::touch(const std::vector<PieceId>& ids, const std::vector<std::string>& touches, bool behind) {
    const std::set<PieceId> wanted(ids.begin(), ids.end());
    std::map<PieceId, std::vector<std::string>> lists;
    for (const auto& piece : pieces()) {
        if (!wanted.contains(piece.id)) continue;
        auto& list = lists[piece.id];
        if (behind) list = piece.touches;
        list.insert(list.end(), touches.begin(), touches.end());
    }
    const auto before = store_.shared();
    std::vector<PieceId> changed;
    const bool done = store_.change_if(tr("Touch up"), [&](Project& p) {
        if (const auto set = set_touches(p, std::move(lists), now()); !set) {
            messages_.complain(set.error());
            return false;
        }
        for (std::size_t i = 0; i < p.pieces.size(); ++i)
            if (p.pieces[i].touches != before->pieces[i].touches) changed.push_back(p.pieces[i].id);
        return !changed.empty();
    });
    if (!done) return;
    for (const auto id : changed) forget(id);
    store_.tell_pieces_changed();
}

void BenchModel::preview(QObject* asker, PieceId id, std::vector<std::string> touches, CancelToken cancel,
                         std::function<void(Result<QImage>)> then) {
    const auto* there = piece(id);
    if (!there) return;
    auto touched = *there;
    touched.touches = std::move(touches);
    jobs_.run(
        asker, tr("Touching up"),
        [context = store_.context(), project = store_.shared(), piece = std::move(touched),
         cancel = std::move(cancel)]() -> Result<QImage> {
            SKIVET_TRY(const auto edited, edited_piece(*context, *project, piece, cancel));
            return to_qimage(edited.image);
        },
        [then = std::move(then)](Result<QImage> made) { then(std::move(made)); });
}

}  // namespace skivet::app

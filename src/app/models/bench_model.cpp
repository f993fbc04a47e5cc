#include "app/models/bench_model.h"

#include <QDesktopServices>
#include <QProcess>
#include <QUrl>

#include "base/file_write.h"

namespace skivet::app {

namespace fs = std::filesystem;

namespace {

QString text(const fs::path& path) { return QString::fromStdString(path.string()); }

}  // namespace

BenchModel::BenchModel(ProjectStore& store, QObject* parent)
    : QObject(parent), store_(store), jobs_(store.jobs()), messages_(store.messages()), fits_(store) {
    settle_.setSingleShot(true);
    settle_.setInterval(60);
    connect(&settle_, &QTimer::timeout, this, &BenchModel::look);
    connect(&watcher_, &QFileSystemWatcher::directoryChanged, &settle_, qOverload<>(&QTimer::start));
    connect(&watcher_, &QFileSystemWatcher::fileChanged, &settle_, qOverload<>(&QTimer::start));
    connect(&store_, &ProjectStore::pieces_changed, this, &BenchModel::pieces_changed);
    connect(&store_, &ProjectStore::opened, this, &BenchModel::watch);
}

void BenchModel::keep(Taken taken) {
    for (const auto& error : taken.errors) messages_.complain(error);
    std::vector<PieceId> ids;
    store_.change([&](Project& p) { ids = keep_taken(p, std::move(taken.pieces)); });
    for (const auto id : ids) {
        const auto& piece = *this->piece(id);
        messages_.say(piece.follows()
                          ? tr("On the bench: %1, following %2").arg(QString::fromStdString(piece.address.text()), text(piece.file))
                          : tr("On the bench: %1").arg(text(piece.file)));
    }
    watch();
    store_.tell_pieces_changed();
}

void BenchModel::take(const std::vector<Address>& addresses, ExportAs as) {
    std::vector<Address> free;
    for (const auto& address : addresses) {
        if (const auto* there = store_.project().piece_of(address))
            messages_.tell(tr("%1 is on the bench already.").arg(QString::fromStdString(there->name())));
        else free.push_back(address);
    }
    if (free.empty()) return;
    jobs_.run(
        this, tr("Writing out"),
        [context = store_.context(), project = store_.project(), free, as] { return take_pieces(*context, project, free, as, now()); },
        [this](Taken taken) { keep(std::move(taken)); });
}

void BenchModel::take_with_copies(const Address& address, const std::vector<Address>& copies) {
    jobs_.run(
        this, tr("Writing out"),
        [context = store_.context(), project = store_.project(), address, copies] {
            return take_with_followers(*context, project, address, copies, now());
        },
        [this](Taken taken) { keep(std::move(taken)); });
}

void BenchModel::put_away(PieceId id) {
    const auto* piece = this->piece(id);
    if (!piece) return;
    messages_.say(tr("Put away: %1. Its file stays in the project's work folder.").arg(text(piece->file)));
    store_.change([&](Project& p) { p.put_away(id); });
    forget(id);
    watch();
    store_.tell_pieces_changed();
}

void BenchModel::take_again(PieceId id) {
    const auto* piece = this->piece(id);
    if (!piece) return;
    jobs_.run(
        this, tr("Writing out"),
        [context = store_.context(), project = store_.project(), old = *piece] {
            return skivet::take_again(*context, project, old, now());
        },
        [this, id](Result<Piece> taken) {
            if (!taken) return messages_.complain(taken.error());
            store_.change([&](Project& p) {
                if (auto* there = p.piece(id)) *there = std::move(*taken);
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
    const auto& editor = store_.project().editor;
    if (editor.empty()) {
        if (!QDesktopServices::openUrl(QUrl::fromLocalFile(file)))
            messages_.tell(tr("The desktop has no program for this file. Name one in the settings, or open %1 yourself.").arg(file));
        return;
    }
    QStringList arguments;
    for (std::size_t i = 1; i < editor.size(); ++i) arguments << QString::fromStdString(editor[i]);
    arguments << file;
    const auto program = QString::fromStdString(editor[0]);
    if (!QProcess::startDetached(program, arguments)) messages_.tell(tr("%1 could not be started. Look at the settings.").arg(program));
    else messages_.say(tr("Opened %1 with %2").arg(file, program));
}

void BenchModel::watch() {
    // Folders too: a program that writes a new file and renames it over the old one ends the watch on the file.
    QStringList paths;
    for (const auto& piece : pieces()) paths << text(file_of(piece)) << text(file_of(piece).parent_path());
    paths.removeDuplicates();
    if (const auto old = watcher_.files() + watcher_.directories(); !old.isEmpty()) watcher_.removePaths(old);
    if (!paths.isEmpty()) watcher_.addPaths(paths);
}

void BenchModel::look() {
    if (pieces().empty()) return;
    jobs_.run(
        this, tr("Looking at saved files"),
        [project = store_.project()] {
            std::vector<Piece> seen;
            for (const auto& piece : project.pieces) seen.push_back(refresh_piece(project, piece, now()));
            return seen;
        },
        [this](const std::vector<Piece>& seen) {
            std::vector<PieceId> saved;
            auto project = store_.project();
            for (const auto& piece : seen)
                if (note_refreshed(project, piece)) saved.push_back(piece.id);
            watch();
            if (saved.empty()) return;
            store_.change([&](Project& p) { p = std::move(project); });
            for (const auto id : saved) {
                forget(id);
                messages_.say(tr("Saved: %1").arg(text(piece(id)->file)));
            }
            store_.tell_pieces_changed();
        });
}

void BenchModel::forget(PieceId id) {
    fits_.forget(id);
    pictures_.erase(id);
    pictures_pending_.remove(id);
}

QImage BenchModel::picture(PieceId id, bool edited) {
    const auto* piece = this->piece(id);
    if (!piece) return {};
    if (const auto found = pictures_.find(id); found != pictures_.end()) return edited ? found->second.edited : found->second.original;
    if (pictures_pending_.contains(id)) return {};
    pictures_pending_.insert(id);
    jobs_.run(
        this, tr("Reading pictures"),
        [context = store_.context(), project = store_.project(), p = *piece] {
            constexpr int side = 320;
            Pictures out;
            if (const auto original = original_texture(*context, project, p))
                if (const auto image = skivet::thumbnail(*original, side)) out.original = to_qimage(*image);
            if (const auto there = edited_piece(*context, project, p))
                out.edited = to_qimage(there->image).scaled(side, side, Qt::KeepAspectRatio, Qt::SmoothTransformation);
            return out;
        },
        [this, id, edit = piece->edit()](Pictures pictures) {
            const auto* now_there = this->piece(id);
            if (!now_there || now_there->edit() != edit) return;
            pictures_pending_.remove(id);
            pictures_[id] = std::move(pictures);
            emit picture_ready(id);
        });
    return {};
}

void BenchModel::touch(const std::vector<PieceId>& ids, const std::vector<std::string>& touches, bool behind) {
    auto project = store_.project();
    for (const auto id : ids) {
        const auto* there = project.piece(id);
        if (!there) continue;
        auto list = behind ? there->touches : std::vector<std::string>();
        list.insert(list.end(), touches.begin(), touches.end());
        if (const auto done = set_touches(project, id, std::move(list), now()); !done) return messages_.complain(done.error());
    }
    store_.change([&](Project& p) { p = std::move(project); });
    for (const auto& piece : pieces()) forget(piece.id);
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
        [context = store_.context(), project = store_.project(), piece = std::move(touched), cancel]() -> Result<QImage> {
            SKIVET_TRY(const auto edited, edited_piece(*context, project, piece, cancel));
            return to_qimage(edited.image);
        },
        [then = std::move(then)](Result<QImage> made) { then(std::move(made)); });
}

}  // namespace skivet::app

#include "app/models/frame_model.h"

#include <QDir>

#include "app/language.h"
#include "app/models/fit_pictures.h"
#include "base/file_write.h"
#include "bench/fitting.h"
#include "pixel/normals.h"

namespace skivet::app {
namespace fs = std::filesystem;
namespace {

constexpr std::uint64_t most_picture = 512u << 20;
constexpr std::size_t most_hits = 8;
constexpr int seen_side = 144;
constexpr qsizetype most_watched = 32;

Result<Image> read_picture(const ReadContext& context, const fs::path& file) {
    SKIVET_TRY(auto bytes, read_file(file, most_picture));
    auto edited = read_edited(std::move(bytes), context.limits, file.string());
    if (!edited) return fail(std::move(edited).error().within(file.filename().string()));
    return std::move(edited->image);
}

}  // namespace

FrameModel::FrameModel(ProjectStore& store, CatalogModel& catalog, QObject* parent)
    : QObject(parent), store_(store), catalog_(catalog), jobs_(store.jobs()) {
    settle_.setSingleShot(true);
    settle_.setInterval(400);
    connect(&watcher_, &QFileSystemWatcher::directoryChanged, &settle_, qOverload<>(&QTimer::start));
    connect(&settle_, &QTimer::timeout, this, &FrameModel::watch);
    connect(&store_, &ProjectStore::opened, this, [this] {
        record_.reset();
        found_.clear();
        picture_ = {};
        map_ = std::make_shared<ThingMap>();
        newest_.reset();
        newest_known_ = false;
        watch();
    });
    connect(&catalog_, &CatalogModel::catalog_changed, this, &FrameModel::renew);
    connect(&catalog_, &CatalogModel::analysis_changed, this, &FrameModel::renew);
}

void FrameModel::renew() {
    if (!record_) return;
    // Other items, or pictures that nobody had looked at: what was found is looked for again.
    const bool whole = catalog_.unseen() == 0;
    if (catalog_.snapshot() == found_in_ && (seen_whole_ || !whole)) return;
    found_in_ = catalog_.snapshot();
    seen_whole_ = whole;
    for (auto& [texture, one] : found_) one.looked = false, one.hits.clear();
    emit found_more();
    look();
}

std::vector<fs::path> FrameModel::folders() const {
    std::vector<fs::path> out;
    const auto& project = store_.project();
    if (!project.game.empty()) out.push_back(project.game / "frames");
    if (!project.folder.empty()) out.push_back(project.folder / "frames");
    return out;
}

void FrameModel::watch() {
    look_for_newest([this](std::optional<fs::path> newest) {
        if (newest_known_ && newest && newest != newest_) emit recorded(*newest);
        newest_ = newest;
        newest_known_ = true;
    });
}

void FrameModel::look_for_newest(std::function<void(std::optional<fs::path>)> done) {
    struct Seen {
        std::optional<fs::path> newest;
        QStringList there;  ///< to be watched
    };
    jobs_.run(
        this, {},
        [folders = folders()] {
            Seen out{newest_frame_record(folders), {}};
            for (const auto& folder : folders) {
                std::error_code code;
                // Where there is none yet the folder above is watched for it.
                const auto there = fs::is_directory(folder, code) ? folder : folder.parent_path();
                if (fs::is_directory(there, code)) out.there << QString::fromStdString(there.string());
                // A record is a folder first and whole only when its frame.jsonl comes: those that are being written are watched.
                for (fs::directory_iterator at(folder, code), end; !code && at != end && out.there.size() < most_watched;
                     at.increment(code)) {
                    std::error_code none;
                    if (at->is_directory(none) && !fs::exists(at->path() / "frame.jsonl", none))
                        out.there << QString::fromStdString(at->path().string());
                }
            }
            return out;
        },
        [this, done = std::move(done)](const Seen& seen) {
            auto gone = watcher_.directories();
            for (const auto& one : seen.there) gone.removeAll(one);
            if (!gone.isEmpty()) watcher_.removePaths(gone);
            for (const auto& one : seen.there)
                if (!watcher_.directories().contains(one)) watcher_.addPath(one);
            done(seen.newest);
        });
}

void FrameModel::open(const fs::path& place) {
    struct Opened {
        Result<FrameRecord> record = FrameRecord{};
        QImage picture;
        std::shared_ptr<ThingMap> map = std::make_shared<ThingMap>();
    };
    const auto request = ++request_;
    jobs_.run(
        this, tr("Reading a frame record"),
        [context = store_.context(), place] {
            Opened out;
            out.record = read_frame_record(place);
            if (!out.record) return out;
            auto& record = *out.record;
            if (auto picture = read_picture(*context, record.picture)) out.picture = to_qimage(*picture);
            else record.notes.push_back(picture.error().message());
            if (auto draws = read_picture(*context, record.draw_map)) *out.map = thing_map(record, *draws);
            else record.notes.push_back(draws.error().message());
            return out;
        },
        [this, request](Opened opened) {
            if (request != request_) return;
            if (!opened.record) return emit refused(spoken(opened.record.error().message()));
            record_ = std::make_shared<FrameRecord>(std::move(*opened.record));
            picture_ = opened.picture;
            map_ = std::move(opened.map);
            found_.clear();
            looking_ = false;
            found_in_ = catalog_.snapshot();
            seen_whole_ = catalog_.unseen() == 0;
            thing_ = 0;
            emit this->opened();
            emit thing_changed();
            look();
        });
}

void FrameModel::set_thing(std::size_t thing) {
    if (!record_ || thing == thing_ || thing >= record_->things.size()) return;
    thing_ = thing;
    emit thing_changed();
    look();
}

void FrameModel::step(int by) {
    if (!record_ || record_->things.empty()) return;
    const auto all = long(record_->things.size());
    set_thing(std::size_t((long(thing_) + by % all + all) % all));
}

const FrameModel::Found& FrameModel::found(std::size_t texture) const {
    static const Found nothing;
    const auto at = found_.find(texture);
    return at == found_.end() ? nothing : at->second;
}

std::optional<std::size_t> FrameModel::item_of(std::size_t texture) const {
    const auto& one = found(texture);
    if (!one.is_found() || one.hits.front().picture >= catalog_.snapshot()->catalog.items.size()) return std::nullopt;
    // Of equal pictures that of the source that wins.
    const auto& items = catalog_.snapshot()->catalog.items;
    for (const auto& hit : one.hits)
        if (hit.score >= one.hits.front().score - 1e-4f && hit.picture < items.size() && items[hit.picture].effective) return hit.picture;
    return one.hits.front().picture;
}

void FrameModel::look() {
    if (looking_ || !record_ || thing_ >= record_->things.size()) return;
    struct Pictures {
        QImage whole, seen;
    };
    for (const auto texture : record_->things[thing_].textures) {
        if (found(texture).looked) continue;
        looking_ = true;
        jobs_.run(
            this, tr("Reading textures"),
            [context = store_.context(), file = record_->textures[texture].file]() -> Result<Pictures> {
                if (file.empty()) return fail(ErrorCode::missing, tr("The record has no picture of it.").toStdString());
                SKIVET_TRY(const auto picture, read_picture(*context, file));
                // A captured texture of two channels has nothing in blue.
                const bool two = std::all_of(picture.texels.begin(), picture.texels.end(), [](const Texel& t) { return t[2] == 0; });
                const auto normals = two ? guess_normals(Format::RG8, picture) : std::nullopt;
                return Pictures{to_qimage(picture), small(picture, seen_side, normals)};
            },
            [this, texture, record = record_](Result<Pictures> picture) {
                if (record != record_) return;
                auto& one = found_[texture];
                if (!picture) {
                    one.looked = true;
                    one.wrong = spoken(picture.error().message());
                    looking_ = false;
                    emit found_more();
                    return look();
                }
                one.captured = picture->whole;
                one.seen = picture->seen;
                emit found_more();
                const auto asked = catalog_.snapshot();
                catalog_.find_picture(
                    picture->whole, [this, texture, record, asked, whole = seen_whole_](Result<std::vector<PictureHit>> hits) {
                        if (record != record_) return;
                        looking_ = false;
                        if (asked != catalog_.snapshot() || whole != seen_whole_) return look();  // of a catalog that is gone
                        auto& found = found_[texture];
                        found.looked = true;
                        if (hits) {
                            const auto snapshot = catalog_.snapshot();
                            const auto size_of = [&](std::size_t item) {
                                const auto& items = snapshot->catalog.items;
                                return item < items.size() ? std::pair(items[item].desc.width, items[item].desc.height) : std::pair(0u, 0u);
                            };
                            found.hits = ranked_as_captured(std::move(*hits), std::uint32_t(found.captured.width()),
                                                            std::uint32_t(found.captured.height()), size_of);
                            if (found.hits.size() > most_hits) found.hits.resize(most_hits);
                        } else found.wrong = spoken(hits.error().message());
                        emit found_more();
                        look();
                    });
            });
        return;
    }
}

void FrameModel::save_texture(std::size_t texture, const fs::path& file, std::function<void(std::optional<Error>)> done) {
    if (!record_ || texture >= record_->textures.size()) return;
    if (const auto ending = record_->textures[texture].file.extension(); file.extension() != ending)
        return done(fail(ErrorCode::usage,
                         tr("What was captured is a file that ends with %1.").arg(QString::fromStdString(ending.string())).toStdString())
                        .value());
    jobs_.run(
        this, tr("Saving a texture"),
        [from = record_->textures[texture].file, file]() -> std::optional<Error> {
            const auto bytes = read_file(from, most_picture);
            if (!bytes) return bytes.error();
            if (const auto written = write_file(file, *bytes); !written) return written.error();
            return std::nullopt;
        },
        [done = std::move(done)](std::optional<Error> error) { done(std::move(error)); });
}

}  // namespace skivet::app

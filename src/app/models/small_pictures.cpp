#include "app/models/small_pictures.h"

#include "app/models/pictures.h"

namespace skivet::app {

namespace {

constexpr int at_once = 2;               // the threads that make them
constexpr qsizetype most_kb = 96 << 10;  // fifty screens of cards
constexpr qsizetype most_wanted = 300;   // somebody who scrolls through thousands wants those where he stops

struct Made {
    QImage image;
    bool later = false;  ///< its source is not open yet
};

/// Finer ones are made anew each time: they are seldom wanted, and four or sixteen times as large.
Made make(const ReadContext& context, const CatalogSnapshot& snapshot, ThumbnailCache* cache, std::size_t item, std::uint32_t side) {
    if (side > thumbnail_side) cache = nullptr;
    const auto& entry = snapshot.catalog.items[item];
    if (cache && !entry.content.empty())
        if (const auto kept = cache->find(entry.content)) return {to_qimage(*kept)};
    if (!snapshot.sources[entry.source].container) return {{}, true};
    const auto texture = skivet::open_texture(context, snapshot.sources[entry.source], entry);
    if (!texture) return {};
    const auto small = skivet::thumbnail(*texture, side);
    if (!small) return {};
    // Of a texture that was not looked at yet the index will keep one.
    if (cache && !entry.content.empty())
        (void)cache->put(std::vector{KeptPicture{content_key(texture->file), *small, {}, Format::unknown}});
    return {to_qimage(*small)};
}

/// Whether a name is a texture's, at whatever size.
bool is_of(const QString& name, const QString& key) { return name == key || name.startsWith(key + '@'); }

}  // namespace

SmallPictures::SmallPictures(ProjectStore& store, QObject* parent) : QObject(parent), store_(store) { made_.setMaxCost(most_kb); }

void SmallPictures::start_over() {
    ++generation_;
    made_.clear();
    pending_.clear();
    wanted_.clear();
}

QString SmallPictures::key(std::size_t item) const {
    const auto& entry = snapshot_->catalog.items[item];
    return QString::fromStdString(snapshot_->sources[entry.source].path.string() + "::" + path_key(entry.inner));
}

QImage SmallPictures::of(std::size_t item, int pixels) {
    if (item >= snapshot_->catalog.items.size()) return {};
    const auto name = key(item);
    const auto small = asked(item, name, thumbnail_side);
    constexpr double soft = 1.15;  // so much enlarged it shows
    // One that is smaller than it could be is all there is.
    if (small.isNull() || pixels <= int(thumbnail_side * soft) || std::max(small.width(), small.height()) < int(thumbnail_side))
        return small;
    const std::uint32_t side = pixels <= 256 * soft ? 256 : 512;
    const auto fine = asked(item, name, side);
    return fine.isNull() ? small : fine;
}

QImage SmallPictures::asked(std::size_t item, const QString& of_item, std::uint32_t side) {
    const auto name = side == thumbnail_side ? of_item : of_item + QStringLiteral("@%1").arg(side);
    if (const auto* image = made_.object(name)) return *image;
    if (pending_.contains(name)) return {};
    pending_.insert(name);
    wanted_.push_back({item, name, side});
    while (wanted_.size() > most_wanted) pending_.remove(wanted_.takeFirst().key);
    load();
    return {};
}

void SmallPictures::load() {
    while (running_ < at_once && !wanted_.isEmpty()) {
        const auto wanted = wanted_.takeLast();
        if (wanted.item >= snapshot_->catalog.items.size() || !is_of(wanted.key, key(wanted.item))) {  // of an older snapshot
            pending_.remove(wanted.key);
            continue;
        }
        ++running_;
        store_.jobs().run(
            Jobs::By::pictures, this, {},
            [context = store_.context(), snapshot = snapshot_, cache = store_.cache(), wanted] {
                return make(*context, *snapshot, cache.get(), wanted.item, wanted.side);
            },
            [this, wanted, generation = generation_](const Made& made) {
                --running_;
                if (generation == generation_) keep(wanted, made.image, made.later);
                load();
            });
    }
}

void SmallPictures::keep(const Wanted& wanted, QImage image, bool later) {
    const auto& [item, name, side] = wanted;
    pending_.remove(name);
    if (image.isNull() && !later) {  // cannot be shown: a plain field, and the reason is in the facts
        image = QImage(64, 64, QImage::Format_RGBA8888);
        image.fill(QColor(0x60, 0x60, 0x60));
    }
    if (image.isNull()) return;
    made_.insert(name, new QImage(image), std::max<qsizetype>(1, image.sizeInBytes() / 1024));
    if (item < snapshot_->catalog.items.size() && is_of(name, key(item))) emit ready(item);
}

}  // namespace skivet::app

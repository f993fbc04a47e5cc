#include "app/models/card_keeper.h"

#include <QPainter>

#include "app/models/pictures.h"
#include "base/file_write.h"
#include "workflow/games.h"

#include <QBuffer>

namespace skivet::app {
namespace {

constexpr int side = 256, most = 4;
constexpr int quiet_for = 3000;  // milliseconds: a picture of work that is still going on need not be made

}  // namespace

QImage side_by_side(const std::vector<QImage>& pictures) {
    if (pictures.empty()) return {};
    QImage out(side * int(pictures.size()), side, QImage::Format_RGB32);
    out.fill(QColor(0x76, 0x76, 0x76));
    QPainter p(&out);
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    for (int i = 0; i < int(pictures.size()); ++i) {
        const auto& picture = pictures[std::size_t(i)];
        const int edge = std::min(picture.width(), picture.height());
        // Of what is long, its middle.
        p.drawImage(QRect(i * side, 0, side, side), picture,
                    QRect((picture.width() - edge) / 2, (picture.height() - edge) / 2, edge, edge));
    }
    return out;
}

CardKeeper::CardKeeper(ProjectStore& store, SourcesModel& sources, CatalogModel& catalog, QObject* parent)
    : QObject(parent), store_(store), catalog_(catalog), sources_(sources) {
    later_.setSingleShot(true);
    later_.setInterval(quiet_for);
    connect(&later_, &QTimer::timeout, this, [this] { keep(); });
    const auto wait = [this] { later_.start(); };
    connect(&catalog, &CatalogModel::analysis_changed, this, wait);
    connect(&store, &ProjectStore::pieces_changed, this, wait);
    connect(&store, &ProjectStore::history_changed, this, wait);
}

void CardKeeper::keep_before_leaving() {
    if (later_.isActive()) keep(Jobs::By::writer);
}

void CardKeeper::keep(Jobs::By by) {
    if (!store_.is_open() || !sources_.ready()) return;
    later_.stop();
    store_.jobs().run(
        by, this, {},
        [context = store_.context(), project = store_.shared(), catalog = catalog_.catalog()] {
            (void)note_sources_seen(*project);
            std::vector<QImage> pictures;
            const auto& snapshot = *catalog->snapshot;
            // One that cannot be shown is no reason to show fewer.
            for (const auto item : telling_items(*catalog, *project, 2 * std::size_t(most))) {
                const auto& entry = snapshot.catalog.items[item];
                if (!snapshot.sources[entry.source].container) continue;
                const auto texture = skivet::open_texture(*context, snapshot.sources[entry.source], entry);
                if (!texture) continue;
                const auto small = skivet::thumbnail(*texture, side);
                if (!small) continue;
                // As the picture shows it: what is clear in the game may be the best of it.
                pictures.push_back(to_qimage(*small).convertToFormat(QImage::Format_RGBX8888));
                if (pictures.size() == most) break;
            }
            if (pictures.empty()) return false;
            QByteArray bytes;
            QBuffer buffer(&bytes);
            buffer.open(QIODevice::WriteOnly);
            return side_by_side(pictures).save(&buffer, "PNG") &&
                   write_file(card_picture(project->folder), as_bytes(std::string_view(bytes.constData(), std::size_t(bytes.size()))))
                       .has_value();
        },
        [this](bool) { emit kept(); });
}

}  // namespace skivet::app

#pragma once
// Small pictures of the catalog's textures, made when they come into view.
#include <QCache>
#include <QImage>
#include <QObject>
#include <QSet>
#include <utility>

#include "app/models/project_store.h"

namespace skivet::app {

class SmallPictures : public QObject {
    Q_OBJECT
public:
    explicit SmallPictures(ProjectStore& store, QObject* parent = nullptr);

    /// Other textures, or other archives with them: what was made is forgotten.
    void start_over();
    /// The same textures, better known.
    /// Gives back the one before: freeing it takes longer than the window's thread has.
    [[nodiscard]] std::shared_ptr<const CatalogSnapshot> set_snapshot(std::shared_ptr<const CatalogSnapshot> snapshot) {
        return std::exchange(snapshot_, std::move(snapshot));
    }
    /// A picture of at most 128 × 128, or a null image and later `ready`. The newest request is answered first. For a place of more
    /// `pixels` (of the screen) a finer one follows once the small one is there: on fine screens and large cards that would be soft.
    [[nodiscard]] QImage of(std::size_t item, int pixels = 0);

signals:
    void ready(std::size_t item);

private:
    struct Wanted {
        std::size_t item = 0;
        QString key;
        std::uint32_t side = 0;
    };
    [[nodiscard]] QString key(std::size_t item) const;
    [[nodiscard]] QImage asked(std::size_t item, const QString& name, std::uint32_t side);
    void load();
    void keep(const Wanted& wanted, QImage image, bool later);

    ProjectStore& store_;
    std::shared_ptr<const CatalogSnapshot> snapshot_ = std::make_shared<CatalogSnapshot>();
    QCache<QString, QImage> made_;  ///< by source and path
    QSet<QString> pending_;
    QVector<Wanted> wanted_;  ///< the newest last
    int running_ = 0;
    std::uint64_t generation_ = 0;  ///< counts starts: late answers to older ones are dropped
};

}  // namespace skivet::app

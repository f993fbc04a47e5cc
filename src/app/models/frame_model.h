#pragma once
// A record of a frame, and what of it is in the archives.
#include <QFileSystemWatcher>
#include <QObject>

#include "app/models/catalog_model.h"
#include "catalog/frame_record.h"

namespace skivet::app {

class FrameModel : public QObject {
    Q_OBJECT
public:
    FrameModel(ProjectStore& store, CatalogModel& catalog, QObject* parent = nullptr);

    /// Ends in `opened` or `refused`.
    void open(const std::filesystem::path& place);
    /// Null: none is open.
    [[nodiscard]] std::shared_ptr<const FrameRecord> record() const { return record_; }
    [[nodiscard]] const QImage& picture() const { return picture_; }
    [[nodiscard]] const ThingMap& map() const { return *map_; }

    /// The one that is looked at; as many as there are things: none.
    [[nodiscard]] std::size_t thing() const { return thing_; }
    void set_thing(std::size_t thing);
    /// The next one, or the one before, round at the ends.
    void step(int by);

    /// A texture of the record, and where it may be in the archives, the likeliest first.
    struct Found {
        bool looked = false;
        QImage captured;  ///< null where it cannot be read
        QImage seen;      ///< the same, small; normals without Z with it
        QString wrong;    ///< why
        std::vector<PictureHit> hits;
        /// Below that a likeness is chance.
        static constexpr float chance = 0.6f;
        static constexpr float sure = 0.85f;
        [[nodiscard]] bool is_found() const { return !hits.empty() && hits.front().score >= chance; }
    };
    /// Of an index into the record's textures; nothing was looked for yet, and `found` follows, where it is of the thing.
    [[nodiscard]] const Found& found(std::size_t texture) const;
    /// The items of a texture's hits that are right now in the catalog.
    [[nodiscard]] std::optional<std::size_t> item_of(std::size_t texture) const;
    /// The captured texture as a file of its own, which ends as the captured one does. `done` gets what went wrong.
    void save_texture(std::size_t texture, const std::filesystem::path& file, std::function<void(std::optional<Error>)> done);

    /// The newest record of the game's or the project's; asked for beside the window.
    void look_for_newest(std::function<void(std::optional<std::filesystem::path>)> done);
    [[nodiscard]] CatalogModel& catalog() const { return catalog_; }

signals:
    void opened();
    void refused(const QString& why);
    void thing_changed();
    void found_more();
    /// The game recorded a frame since the project was opened.
    void recorded(const std::filesystem::path& place);

private:
    void look();
    void renew();
    void watch();
    [[nodiscard]] std::vector<std::filesystem::path> folders() const;

    ProjectStore& store_;
    CatalogModel& catalog_;
    Jobs& jobs_;
    std::shared_ptr<const FrameRecord> record_;
    std::shared_ptr<const ThingMap> map_ = std::make_shared<ThingMap>();
    QImage picture_;
    std::size_t thing_ = 0;
    std::map<std::size_t, Found> found_;
    quint64 request_ = 0;
    bool looking_ = false;
    std::shared_ptr<const CatalogSnapshot> found_in_;  ///< what the finds are items of
    bool seen_whole_ = false;                          ///< and whether all of its pictures had been looked at
    QFileSystemWatcher watcher_;
    QTimer settle_;  ///< a record is written file by file
    std::optional<std::filesystem::path> newest_;
    bool newest_known_ = false;
};

}  // namespace skivet::app

#pragma once
// The versions of the game that were recorded as they were shipped, and what is other than in the one that is compared with.
#include <QImage>
#include <QObject>

#include "app/models/catalog_model.h"
#include "app/models/sources_model.h"
#include "workflow/shipped.h"

namespace skivet::app {

class ShippedModel : public QObject {
    Q_OBJECT
public:
    ShippedModel(SourcesModel& sources, const CatalogModel& catalog, QObject* parent = nullptr);

    struct Seen : SeenVersions {
        std::size_t unseen = 0;  ///< textures nobody has looked at yet
    };
    /// Null before the first look.
    [[nodiscard]] std::shared_ptr<const Seen> seen() const { return seen_; }
    void look();
    /// The same once all textures of the catalog were looked at, where anything is recorded.
    void look_when_known();
    /// Takes the installation as it is for what the game's maker shipped as this version.
    void record(const QString& name);
    void compare_with(std::size_t version);
    void forget(std::size_t version);
    /// A changed texture as it was recorded (small, as far as its picture is still kept) and as it is; null where there is none.
    void pictures(QObject* asker, std::size_t change, std::function<void(QImage before, QImage now)> then);
    [[nodiscard]] ProjectStore& store() const { return store_; }

signals:
    void changed();

private:
    void take_over(Result<std::shared_ptr<Baseline>> baseline);

    SourcesModel& sources_;
    const CatalogModel& catalog_;  ///< knows the contents
    ProjectStore& store_;
    Jobs& jobs_;
    Messages& messages_;
    std::shared_ptr<const Seen> seen_;
    std::uint64_t requests_ = 0;
    std::weak_ptr<const CatalogSnapshot> looked_at_;  ///< by look_when_known, with so many deliveries
    std::size_t deliveries_ = 0;
};

}  // namespace skivet::app

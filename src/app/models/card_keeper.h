#pragma once
// Keeps what the start page shows of this project: a picture of its textures, and what its sources were.
#include <QTimer>

#include "app/models/catalog_model.h"
#include "app/models/sources_model.h"

namespace skivet::app {

class CardKeeper : public QObject {
    Q_OBJECT
public:
    CardKeeper(ProjectStore& store, SourcesModel& sources, CatalogModel& catalog, QObject* parent = nullptr);
    /// Now, instead of some seconds after the last change.
    void keep(Jobs::By by = Jobs::By::looker);
    /// Where something changed in these last seconds; the writer does it, which goes on to its end.
    void keep_before_leaving();

signals:
    void kept();

private:
    ProjectStore& store_;
    CatalogModel& catalog_;
    SourcesModel& sources_;
    QTimer later_;
};

/// Up to four pictures side by side, each cut to a square of 256 pixels.
[[nodiscard]] QImage side_by_side(const std::vector<QImage>& pictures);

}  // namespace skivet::app

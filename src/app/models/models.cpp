#include "app/models/models.h"

namespace skivet::app {

Models::Models() {
    QObject::connect(&sources, &SourcesModel::reloading, &catalog, [this] { catalog.pictures().start_over(); });
    QObject::connect(&sources, &SourcesModel::looked_through, &catalog, &CatalogModel::show);
    QObject::connect(&catalog, &CatalogModel::analysis_changed, &shipped, &ShippedModel::look_when_known);
    QObject::connect(&catalog, &CatalogModel::wanted, &bench, &BenchModel::take_with);
    QObject::connect(&catalog, &CatalogModel::variant_wanted, &bench, &BenchModel::take_variant);
    QObject::connect(&catalog, &CatalogModel::changes_wanted, &delivery, &DeliveryModel::let_wait);
}

Models::~Models() { jobs.finish(); }

}  // namespace skivet::app

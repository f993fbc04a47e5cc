#pragma once
// From the catalog to the bulk export.
#include "bench/bulk_export.h"
#include "catalog/analysis.h"

namespace skivet {

/// The texture as the export wants it; the sources stay open as long as it is kept.
[[nodiscard]] ExportItem export_item(const ReadContext& context, std::shared_ptr<const std::vector<Source>> sources,
                                     const CatalogItem& item, std::string set);
/// "rides/carousel/horse_a": the folder of a texture's set; empty without one.
[[nodiscard]] std::string set_folder(const Catalog& catalog, const CatalogAnalysis& analysis, std::size_t item);

}  // namespace skivet

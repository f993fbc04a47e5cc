#pragma once
// OpenRaster, an open format for layered pictures: a ZIP archive whose first entry, `mimetype`, is stored and says "image/openraster"; what
// all layers together look like is `mergedimage.png` ("File Layout Specification" of the OpenRaster project at freedesktop.org, from
// memory).
#include "base/bytes.h"
#include "base/limits.h"

namespace skivet {

[[nodiscard]] bool is_open_raster(ByteSpan file);
/// The PNG file of the merged picture. Error `missing` when there is none, and those of the archive.
[[nodiscard]] Result<Bytes> merged_picture(ByteSpan file, const ReadLimits& limits);

}  // namespace skivet

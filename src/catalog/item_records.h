#pragma once
// The index's rows of items as bytes: little-endian numbers, texts with their length in front. Opening a project reads all of them at once,
// so they are not CBOR: that takes 20 times as long to read, for three quarters of the room (benchmarks/bench_catalog.cpp,
// records_and_cbor).
#include "catalog/catalog.h"

namespace skivet {

[[nodiscard]] Bytes pack_items(std::span<const CatalogItem> items);
/// Nothing when they are not whole, or name a format nobody knows. `content` stays empty.
[[nodiscard]] std::optional<std::vector<CatalogItem>> unpack_items(ByteSpan data);

}  // namespace skivet

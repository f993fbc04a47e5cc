#pragma once
// The manifest of a parcel, as JSON (docs/parcels.md).
#include "parcel/parcel.h"

namespace skivet {

inline constexpr std::string_view manifest_name = "parcel.json";

/// Where a texture's data lie in the parcel.
struct ParcelFiles {
    std::string change, whole;  ///< names in the parcel; one of them
};
[[nodiscard]] std::string write_manifest(const Parcel& parcel, std::span<const ParcelFiles> files);

struct ReadManifest {
    Parcel parcel;  ///< without changes, whole textures and the pictures' bytes
    std::vector<ParcelFiles> files;
};
/// Errors `damaged`, `unsupported` for a version we do not know, `limit`.
[[nodiscard]] Result<ReadManifest> read_manifest(std::string_view text, const ReadLimits& limits);

}  // namespace skivet

#pragma once
// What a project remembers of the parcels that are installed, and of what its own deliveries put into archives: enough to make the game's
// files anew from the originals, with any of it left out.
#include <nlohmann/json_fwd.hpp>

#include "container/address.h"

namespace skivet {

/// What one of the project's own deliveries did to an entry of an archive.
struct DeliveredEntry {
    enum class What : std::uint8_t { texture, renamed, removed } what = What::texture;
    std::string delivery;  ///< id in the history; empty: an update took it away, and it waits to be put in again
    Address address;
    std::string like;           ///< texture: of which entry of the archive it is a variant; empty: it was there
    std::string original_hash;  ///< texture: SHA-256 of what it was made from; in originals/
    std::string texture_hash;   ///< texture: SHA-256 of what was delivered; in delivered/
    std::string path;           ///< renamed: its new path
};

/// A texture of a parcel, and the entry it changes.
struct ParcelMatch {
    std::uint32_t texture = 0;  ///< index into Parcel::textures
    Address address;
    bool operator==(const ParcelMatch&) const = default;
};

/// A parcel in the stack, or one's own work.
struct StackLayer {
    std::string parcel;  ///< SHA-256 of the parcel's file, which is in parcels/; empty: one's own work
    std::string id, title, version, author;
    std::int64_t at = 0;  ///< when it was installed, seconds since 1970, UTC
    std::vector<ParcelMatch> matches;
    [[nodiscard]] bool is_own() const { return parcel.empty(); }
    bool operator==(const StackLayer&) const = default;
};

/// "Where these two meet in this texture, that one stays."
struct StackChoice {
    Address address;
    std::string id;  ///< of a parcel; empty: one's own work
    bool operator==(const StackChoice&) const = default;
};

struct ParcelStack {
    std::vector<StackLayer> layers;  ///< the lowest first; one's own work is among them, or stands above all
    std::vector<StackChoice> choices;

    /// No parcel is installed.
    [[nodiscard]] bool empty() const;
    /// Index of the layer with this id; empty: one's own work.
    [[nodiscard]] std::optional<std::size_t> find(const std::string& id) const;
    /// With one's own work in its place, if only above all.
    [[nodiscard]] ParcelStack with_own() const;
    /// Archives and folders that the parcels change.
    [[nodiscard]] std::vector<std::filesystem::path> sources() const;
    bool operator==(const ParcelStack&) const = default;
};

/// A change of the stack that was delivered, and what it was before.
struct StackStep {
    std::string delivery;  ///< id in the history
    ParcelStack before;
};

struct StackState {
    ParcelStack stack;
    std::vector<StackStep> steps;  ///< in the order they were made
    /// What is being delivered: `delivery` is the newest one from before. Kept until it is known whether it came about.
    std::optional<StackStep> pending;
    std::vector<DeliveredEntry> delivered;  ///< in the order of their deliveries
};

[[nodiscard]] nlohmann::json to_json(const StackState& state);
/// Throws what nlohmann::json throws.
[[nodiscard]] StackState stack_state_from(const nlohmann::json& json);

}  // namespace skivet

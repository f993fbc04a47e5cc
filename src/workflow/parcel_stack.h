#pragma once
// The parcels of a project, one above the other with its own work among them. Whatever changes in the stack, the game's files are made anew
// from the originals (delivery/past.h), the layers that stay and nothing else, and written as one delivery: what a parcel did is gone with
// it, in any order.
#include "parcel/parcel.h"
#include "parcel/stack.h"
#include "workflow/own_layer.h"

namespace skivet {

/// A texture that layers of the stack change.
struct StackTexture {
    Address address;
    std::vector<std::size_t> layers;    ///< indices into StackPlan::wanted.layers, the lowest first
    std::vector<std::size_t> left_out;  ///< of these: they change what one that stays changes, too
    std::vector<std::size_t> unfit;     ///< of these: the game's texture is not what they were made for any more
    bool mended_levels = false;         ///< see Composed
};

struct StackPlan {
    ParcelStack wanted;  ///< with one's own work in its place
    std::string title;   ///< of the delivery
    std::vector<DeliveryGroup> groups;
    std::vector<StackTexture> textures;  ///< all that two or more layers change, or that are not as wanted
    [[nodiscard]] bool writes() const;
    /// The first error of a group.
    [[nodiscard]] const Error* error() const;
};

/// The plan from the game as it is to the game with this stack. Nothing is written. Errors: `stale` where something else changed what was
/// delivered; `unsupported` where a delivery stands that is not remembered; those of reading. Errors of a group stand in it.
[[nodiscard]] Result<StackPlan> plan_stack(const ReadContext& context, const Project& project, const Vault& vault, ParcelStack wanted,
                                           std::string title, const CancelToken& cancel = {});
/// One texture as the game's maker had it, and as each layer that changes it would have it alone.
struct StackSide {
    std::optional<std::size_t> layer;  ///< index into wanted.layers; none: the original
    Bytes texture;
};
[[nodiscard]] Result<std::vector<StackSide>> stack_sides(const ReadContext& context, const Project& project, const Vault& vault,
                                                         const ParcelStack& wanted, const Address& address);

/// To be saved before deliver_stack: what will be tried.
void note_pending(Project& project, const StackPlan& plan, std::span<const Journal> history);
/// Writes it as one delivery, or nothing; without an id where the game is as wanted already.
[[nodiscard]] Delivered deliver_stack(const ReadContext& context, const StackPlan& plan, Vault vault, std::int64_t now);
void note_stack(Project& project, const StackPlan& plan, const Delivered& delivered);
/// What became of a change that a crash cut off; `history` after recovery. True when anything changed.
bool settle_pending(Project& project, std::span<const Journal> history);

/// One source with the stack's parcels in it and this own work, for deliveries of one's own.
struct SourcePlan {
    WritePlan plan;
    std::vector<AddressedBytes> contents;  ///< of all textures that are not the original's, by the names they have afterwards
    std::vector<AddressedChange> changes;  ///< everything, as it is planned on the originals
    std::vector<StackTexture> textures;    ///< see StackPlan
};
[[nodiscard]] Result<SourcePlan> plan_source(const ReadContext& context, const Project& project, const Vault& vault,
                                             const ParcelStack& wanted, const std::filesystem::path& source, const OwnLayer& own,
                                             const CancelToken& cancel = {});

/// Removes files in parcels/ that no stack of the project, past or present, refers to.
void drop_unused_parcels(const Project& project);
/// A parcel of the stack, as it was installed. Error `missing` for one whose file is gone from parcels/.
[[nodiscard]] Result<Parcel> installed_parcel(const Project& project, const StackLayer& layer, const ReadLimits& limits);

}  // namespace skivet

#pragma once
// One's own deliveries as a layer of the stack: what each archive has of them, counted from the originals.
#include "workflow/delivery_plan.h"

namespace skivet {

/// A texture of one's own work, at the address that it has in the originals (a variant: at the one it comes to).
struct OwnTexture {
    Address address;
    std::string like;           ///< see Piece::like
    std::string original_hash;  ///< of what it was made from; in originals/
    std::string texture_hash;   ///< of what was delivered; in delivered/ with its original
    Bytes texture;
};
struct OwnLayer {
    std::vector<OwnTexture> textures;
    std::vector<EntryChange> changes;  ///< by the names of the originals; no two of one entry
};

/// Keeps what is delivered, so that it can be put in again: as the change of its original where it is one, otherwise whole.
[[nodiscard]] Status keep_delivered(const ReadContext& context, const std::filesystem::path& project, const std::string& original_hash,
                                    const Address& address, ByteSpan texture);
/// What the deliveries that stand did in a source. `leave_out`: addresses whose texture is not wanted, since a new one comes. Errors: those
/// of reading what was kept.
[[nodiscard]] Result<OwnLayer> own_layer(const ReadContext& context, const Project& project, const std::filesystem::path& source,
                                         std::span<const Address> leave_out = {});
/// A texture of a delivery that comes; its address is as the archive has it now.
void add_texture(OwnLayer& layer, OwnTexture texture);
/// What a delivery's changes of entries make of a layer.
void add_changes(OwnLayer& layer, std::span<const EntryChange> changes);

}  // namespace skivet

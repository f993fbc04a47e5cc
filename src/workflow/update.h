#pragma once
// After the game was updated, or something else changed its files: what became of one's own work and of the parcels, and putting them in
// again in one step.
#include "workflow/parcels.h"

namespace skivet {

/// How a piece stands to the game as it is now.
enum class UpdateHow : std::uint8_t {
    same,          ///< the game has the original again: ours is gone
    moved,         ///< the same original, under another path or in another archive
    elsewhere,     ///< the game's new texture differs, but not where the piece was painted: both are kept
    other_format,  ///< the same picture, compressed anew or in another format: the edit is brought to it
    same_place,    ///< both changed the same place: for a person to decide
    gone,          ///< the game has it no more
};
[[nodiscard]] std::string_view name_of(UpdateHow how);
/// Whether it can be put in again; those of `is_sure` without anybody looking.
[[nodiscard]] bool goes_in(UpdateHow how);
[[nodiscard]] bool is_sure(UpdateHow how);

struct UpdatedPiece {
    PieceId id = 0;
    std::string name;
    UpdateHow how = UpdateHow::gone;
    Address address;         ///< where the game has it now; where it was, when it is gone
    bool delivered = false;  ///< it was in the game; otherwise only its original is another one
    std::string game_hash;   ///< SHA-256 of the texture file that the game has now; empty when it is gone
    Bytes becomes;           ///< the texture file that would go in; empty where nothing can
};
struct UpdatedParcel {
    std::string id, title;
    std::vector<ParcelMatch> matches;   ///< that still go in
    std::vector<std::string> left_out;  ///< textures that do not, each with why
};
struct GameUpdate {
    std::vector<std::filesystem::path> sources;  ///< that something else changed, as far as pieces and parcels are concerned
    std::vector<UpdatedPiece> pieces;
    std::vector<UpdatedParcel> parcels;
    [[nodiscard]] bool empty() const { return pieces.empty() && parcels.empty(); }
};

/// Looks at every piece that is edited, and at every parcel. Nothing is written. Errors: `canceled`, and those of the vault.
[[nodiscard]] Result<GameUpdate> look_for_update(const ReadContext& context, const Project& project, const Vault& vault,
                                                 Progress& progress);
/// The same where somebody else asks what the game has now, too.
[[nodiscard]] Result<GameUpdate> look_for_update(const ReadContext& context, const Project& project, const Vault& vault, TexturesNow& now,
                                                 Progress& progress);

/// Texture files of a piece: the original it was made from, what was made of it, what the game has now. Those that are not there are empty.
struct UpdatedTextures {
    Bytes was, ours, game;
};
[[nodiscard]] UpdatedTextures textures_of(const ReadContext& context, const Project& project, const UpdatedPiece& piece);
/// One's own picture over the game's new one, whatever that changed: what a person decides for `same_place`. Errors: `unfit` with the
/// finding that stands against it, and for what is several pictures.
[[nodiscard]] Result<Bytes> over_the_new(const ReadContext& context, const Project& project, const UpdatedPiece& piece);

struct UpdatePlan {
    GameUpdate update;
    std::vector<PieceId> chosen;  ///< of update.pieces
    ParcelStack wanted;           ///< the stack with what of the parcels still goes in
    DeliveryPlan delivery;
};
/// The plan for putting these pieces and the parcels in again, into the game as it is now.
[[nodiscard]] Result<UpdatePlan> plan_update(const ReadContext& context, const Project& project, GameUpdate update,
                                             std::vector<PieceId> chosen);
struct Updated {
    Delivered delivered;
    std::vector<std::string> let_go;  ///< deliveries of before the update, which cannot be undone any more
    std::vector<Error> errors;        ///< of files that could not be written
    std::vector<Piece> pieces;        ///< as they are now
    std::vector<Version> versions;    ///< of their files, that were kept
};
/// Delivers it as one step, and brings the pieces' files to the game's new textures where those differ; what was there is kept as a
/// version.
[[nodiscard]] Updated put_in_again(const ReadContext& context, const Project& project, const UpdatePlan& plan, Vault vault,
                                   std::int64_t now);
void note_updated(Project& project, const UpdatePlan& plan, const Updated& updated);

}  // namespace skivet

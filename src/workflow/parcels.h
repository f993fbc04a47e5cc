#pragma once
// Parcels and a project: making one of the bench, reading one (or a mod of another form), and finding its textures in an installation.
#include "catalog/catalog.h"
#include "parcel/parcel.h"
#include "workflow/parcel_stack.h"

namespace skivet {

/// What goes into a parcel.
struct MakeWish {
    ParcelAbout about;
    std::vector<PieceId> pieces;  ///< none: all that are edited and can be delivered
    std::vector<PieceId> own;     ///< of them that are wholly the modder's own, so that the whole texture may go in
    std::size_t pictures = 6;     ///< textures with pictures of before and after
};
/// A piece that does not go in.
struct LeftOutOfParcel {
    PieceId id = 0;
    std::string name;
    Error why;
    bool could_be_own = false;  ///< it goes in when the modder says that it is theirs
};
struct MadeParcel {
    Parcel parcel;
    std::vector<LeftOutOfParcel> left_out;
    std::uint64_t originals = 0;  ///< bytes of the texture files it changes
};
/// Fits every piece as a delivery would. Errors: `usage` for what it is to say of itself; `canceled`.
[[nodiscard]] Result<MadeParcel> make_parcel(const ReadContext& context, const Project& project, const MakeWish& wish,
                                             const CancelToken& cancel = {});

/// A parcel, or a mod of another form: a folder or archive whose paths mirror the game's, with or without folders around them. Of the
/// latter, whole textures at paths the project's sources have become a parcel; other textures are told in `strangers`.
struct ReadMod {
    Parcel parcel;
    Bytes file;                          ///< as it is kept in parcels/
    std::vector<std::string> strangers;  ///< textures of a mod of another form that have no counterpart
};
[[nodiscard]] Result<ReadMod> read_mod(const ReadContext& context, const Project& project, const std::filesystem::path& path,
                                       const CancelToken& cancel = {});

/// How a texture of a parcel stands to this installation.
enum class MatchHow : std::uint8_t {
    fits,           ///< the original is the one it was made for
    same_pixels,    ///< the same pixels in another file, or under another name
    other_version,  ///< the original is another, but what the parcel changes is the same
    whole,          ///< the parcel has the whole texture
    does_not_fit,   ///< what it changes is something else here
    is_there,       ///< a new one whose name the game has
    not_found,
};
[[nodiscard]] std::string_view name_of(MatchHow how);
[[nodiscard]] bool goes_in(MatchHow how);
struct TextureMatch {
    MatchHow how = MatchHow::not_found;
    Address address;   ///< where it goes in, or what does not fit
    std::string note;  ///< in words, for a person; may be empty
};
/// One for each texture of the parcel: by source and path, by path alone, then by picture. The game counts as it was before the project's
/// deliveries. Errors: `canceled`; those of the vault.
[[nodiscard]] Result<std::vector<TextureMatch>> match_parcel(const ReadContext& context, const Project& project, const Vault& vault,
                                                             const Parcel& parcel, Progress& progress);

/// The stack with a parcel in it: above the other parcels and below one's own work, or in the place of another version of it. Writes the
/// parcel's file into parcels/. Errors: `usage` where nothing goes in, or another parcel does not go with it, or it needs one that is not
/// installed.
[[nodiscard]] Result<ParcelStack> stack_with(const Project& project, const ReadMod& mod, std::span<const TextureMatch> matches,
                                             std::int64_t now);
/// What the deliveries of the two are called in the history.
[[nodiscard]] std::string title_of_installing(const std::string& parcel);
[[nodiscard]] std::string title_of_taking_out(const std::string& parcel);
/// Without the parcel of this id. Error `missing`; `usage` when another one needs it.
[[nodiscard]] Result<ParcelStack> stack_without(const ReadContext& context, const Project& project, const std::string& id);
/// With this layer (empty: one's own work) at another place, the lowest being 0. Error `missing`.
[[nodiscard]] Result<ParcelStack> stack_moved(const Project& project, const std::string& id, std::size_t place);
/// With a choice for a texture where layers meet.
[[nodiscard]] ParcelStack stack_preferring(const Project& project, const Address& address, const std::string& id);

/// The file of a parcel that is made or kept.
[[nodiscard]] Status write_parcel_file(const Parcel& parcel, const std::filesystem::path& file);

}  // namespace skivet

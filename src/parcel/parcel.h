#pragma once
// A parcel: one file with a mod's changes, for other people. It is a ZIP with a manifest, described in docs/parcels.md. It holds what was
// changed and nothing of the game.
#include "container/kinds.h"
#include "parcel/change.h"

namespace skivet {

/// Another parcel, by its id; `version` may be empty.
struct ParcelName {
    std::string id, version;
    bool operator==(const ParcelName&) const = default;
};

struct ParcelAbout {
    std::string id;  ///< what tells it from others and stays over its versions; lower-case letters, digits, '-' and '.'
    std::string title, author, version, license, notes;
    std::string game;  ///< for which it was made, in words
    std::vector<ParcelName> needs, not_with;
};

/// A preview picture: a name in the parcel, and what it shows.
struct ParcelPicture {
    std::string file;
    Bytes bytes = {};  ///< WebP, at most 512 texels on a side
};

struct ParcelTexture {
    std::string source;                ///< file name of the archive or folder
    std::string group;                 ///< what the source is for ("base", "update"); may be empty
    std::vector<std::string> inner;    ///< path inside the source, one step for every archive
    std::string like;                  ///< a new entry: path of the entry in the same archive it is a variant of; empty: it was there
    std::string kind;                  ///< of the file: "DDS"
    TextureDesc desc;                  ///< of the original; of a whole texture without one, what it is
    std::string was_file, was_pixels;  ///< SHA-256 in hex; empty where nothing is known of an original
    std::string becomes_file, becomes_pixels;  ///< SHA-256 in hex
    bool own = false;                          ///< the modder says that all of it is theirs: nearly all of it is changed, or it is whole
    TextureChange change;
    Bytes whole;  ///< the whole file, where the modder says that it is theirs; then there is no change
    std::optional<ParcelPicture> before, after;
};

struct Parcel {
    ParcelAbout about;
    bool foreign = false;  ///< made from a mod of another form, which does not say what was changed
    std::vector<ParcelTexture> textures;
};

/// "Lanterns, relit!" -> "lanterns-relit"; "mod" where nothing is left.
[[nodiscard]] std::string parcel_id(std::string_view title);
/// Error `usage` for an id or texts that no parcel may have (empty title, more than 256 bytes, 64 KB of notes).
[[nodiscard]] Status check_about(const ParcelAbout& about);

/// Whether a file is a parcel by its manifest's name.
[[nodiscard]] bool is_parcel(ByteSpan head);
/// The same of a file, by its first bytes; false when it cannot be read.
[[nodiscard]] bool is_parcel_file(const std::filesystem::path& file);
/// The whole file. The same parcel always gives the same bytes.
[[nodiscard]] Result<Bytes> write_parcel(const Parcel& parcel);
/// Reads and checks everything but pictures' content: a parcel comes from anywhere. Errors: `damaged` with the texture it is about;
/// `limit`.
[[nodiscard]] Result<Parcel> read_parcel(const FileView& file, const ReadLimits& limits);

/// A texture of a parcel from what it was and what it became. `own`: the whole file goes in where it is no change of some blocks, and a
/// change of nearly all of them (98 %, of 64 or more) is one of the modder's picture and not the game's, compressed anew.
/// Error `unsupported`, with what to do, for one that would need it and may not.
[[nodiscard]] Result<ParcelTexture> parcel_texture(const TextureFile& original, const TextureFile& edited, bool own);
/// Gives textures pictures of before and after: those with the most changes, `most` of them, up to `side` texels. What cannot be shown
/// has none.
struct PictureOf {
    std::size_t texture = 0;  ///< index into Parcel::textures
    const TextureFile* before = nullptr;
    const TextureFile* after = nullptr;
};
void add_pictures(Parcel& parcel, std::span<const PictureOf> textures, std::size_t most = 6, std::uint32_t side = 128);
/// A preview as a picture. Errors of WebP, `limit` above 512 texels.
[[nodiscard]] Result<Image> read_picture(const ParcelPicture& picture);

}  // namespace skivet

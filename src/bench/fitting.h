#pragma once
// Fitting: the edit becomes a texture the game can read, and nothing that was not edited changes.
#include "bench/block_map.h"
#include "bench/mends.h"
#include "bench/mip_guess.h"
#include "codec/codec.h"
#include "pixel/alpha_use.h"
#include "pixel/metrics.h"
#include "pixel/mips.h"
#include "pixel/role_metrics.h"
#include "pixel/shared_image.h"
#include "texture/texture.h"

namespace skivet {

/// What an edited file holds: a picture, and for files that keep levels (DDS, KTX, KTX2) also the texture.
struct EditedFile : Painted {
    std::optional<TextureFile> texture;  ///< when the file carries its own format and levels
    bool touched = false;                ///< touch-ups were made: the whole picture may be meant to look otherwise
};

/// Reads a picture or a texture file; of an OpenRaster file the merged picture. The name counts only for TGA, which is not known by its
/// content. Errors say what is wrong.
[[nodiscard]] Result<EditedFile> read_edited(Bytes file, const ReadLimits& limits, std::string_view name = {});

enum class Grade {
    fits,    ///< as the game needs it
    note,    ///< worth knowing; the result is right
    mend,    ///< probably not meant; delivering is possible
    blocks,  ///< the game could not read the result
};

/// One card of the fit list.
struct Finding {
    Grade grade = Grade::fits;
    std::string headline;             ///< plain words
    std::string detail;               ///< what it means in the game
    std::optional<Mend> mend = {};    ///< the one-press repair, where there is one
    std::optional<Rect> where = {};   ///< texels of level 0 to look at
    Format format = Format::unknown;  ///< another one that could be chosen because of it
};

/// What a person decided.
struct FitWish {
    MendSet mends;
    Format format = Format::unknown;
    bool operator==(const FitWish&) const = default;
};
struct FitOptions {
    MendSet mends;                    ///< those that are made where they are due
    EncodeOptions encode = {};        ///< how the changed blocks are made
    Format format = Format::unknown;  ///< that the texture gets instead of its own, where its file can say it; unknown: its own
    [[nodiscard]] FitWish wish() const { return {mends, format}; }
};

/// Blocks (or texels, for uncompressed formats) of one level.
struct LevelFit {
    std::uint64_t blocks = 0;
    std::uint64_t kept = 0;  ///< with the original's own bytes
};

struct Fit {
    std::vector<Finding> findings;
    SharedImage original;  ///< level 0 of the original, decoded, in paint form
    SharedImage edited;    ///< level 0 of the edit after mends, in paint form
    SharedImage result;    ///< level 0 of what the game will get: encoded and decoded again, in paint form
    Bytes file;            ///< the texture file for the game; empty when a finding blocks
    TextureLayout layout;  ///< of `file`
    bool resized = false;  ///< the texture gets another size, or another format, than the original's
    std::vector<LevelFit> levels;
    BlockMap blocks;  ///< of level 0; empty when a finding blocks
    MipGuess mips;
    Difference quality;  ///< edited against result
    Difference change;   ///< original against edited
    /// Edited against result as it counts for what the texture is: over new blocks of normals in degrees, of light in floats in stops; over
    /// all by channel where what is linear has several and is no normal.
    std::optional<ErrorSpread> degrees, stops;
    std::optional<std::array<double, 4>> psnr_channels;

    [[nodiscard]] bool blocked() const;
    [[nodiscard]] bool needs_mend() const;
    [[nodiscard]] std::uint64_t new_blocks() const;
    [[nodiscard]] std::uint64_t kept_blocks() const;
};

/// What every fit of one original wants of it, so that the next edit of the same texture need not decode it again.
struct KnownOriginal {
    SharedImage level;           ///< 0, decoded, as stored
    std::vector<Image> smaller;  ///< the levels below it, likewise; none where they have true values
    MipGuess mips;
    AlphaFacts alpha;  ///< of it, where the format has alpha
};
[[nodiscard]] Result<KnownOriginal> know_original(const TextureFile& original);

/// Errors are those of the original or the machine; everything about the edit is a finding. `known` is of the same original, or null.
[[nodiscard]] Result<Fit> fit(const TextureFile& original, EditedFile edited, const FitOptions& options,
                              const KnownOriginal* known = nullptr);

/// Formats that a texture's file can say and an edit of 8 bits can be encoded in, without the original's own, the common ones first. Empty
/// where the file does not say its format, and for arrays, cubemaps, volumes and formats of more than 8 bits.
[[nodiscard]] std::vector<Format> other_formats(const TextureFile& original);
/// Bytes of all levels, which is what the texture takes in the game's memory too.
[[nodiscard]] std::uint64_t level_bytes_of(const TextureDesc& desc);

/// All levels of a picture (in paint form) by `recipe`, in lay_out order. Used by `encode --format` and where a texture gets another size.
[[nodiscard]] Result<Bytes> encode_levels(const Image& image, const TextureDesc& desc, MipRecipe recipe, const EncodeOptions& options = {},
                                          const NormalChannels& normals = {});

}  // namespace skivet

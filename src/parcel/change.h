#pragma once
// What an edit changed of a texture, without anything of the original: the blocks (or texels) that differ, and where they lie. Units are
// what the format is made of: blocks of a block-compressed format, texels of others, counted row by row within a surface.
#include "base/hash.h"
#include "texture/texture.h"

namespace skivet {

/// Units that follow each other in one surface.
struct ChangedRun {
    std::uint32_t surface = 0;            ///< number in surface_order
    std::uint32_t first = 0;              ///< unit in that surface; in `outside` byte of the file
    std::uint32_t count = 0;              ///< units; in `outside` bytes
    std::array<std::byte, 8> original{};  ///< the first bytes of the SHA-256 of what the original has there
    bool operator==(const ChangedRun&) const = default;
};
/// ChangedRun::surface of bytes of the file that belong to no surface: headers, palettes.
inline constexpr std::uint32_t outside = 0xFFFFFFFF;

struct TextureChange {
    std::vector<ChangedRun> runs;  ///< sorted, not touching
    Bytes units;                   ///< the new ones, in the order of the runs
    [[nodiscard]] bool empty() const { return runs.empty(); }
    bool operator==(const TextureChange&) const = default;
};

/// Indices into layout.surfaces in the order in which parcels number surfaces: layer by layer, in it face by face, in it mip by mip from
/// the largest, in it slice by slice.
[[nodiscard]] std::vector<std::size_t> surface_order(const TextureLayout& layout);
/// SHA-256 of all surfaces in that order, as the format has them: the same for the same pixels in whatever file.
[[nodiscard]] Result<Sha256> pixel_hash(const TextureFile& texture);

/// What `edited` has that `original` has not. Errors: `unsupported` where the two differ in more than their units (size, format, levels,
/// kind of file), and where the file's kind does not give the edited file back exactly.
[[nodiscard]] Result<TextureChange> difference(const TextureFile& original, const TextureFile& edited);
/// The same for kinds that compress what they are given and lose a little of it (JPEG): the change, and the file it makes, whose texels are
/// the edited ones but for what compressing them again costs (3 of 255 RMS at most, 48 in one texel). Error `unsupported` beyond that.
struct NearChange {
    TextureChange change;
    Bytes file;
};
[[nodiscard]] Result<NearChange> near_difference(const TextureFile& original, const TextureFile& edited);
/// The runs of `change` whose place holds something else in this texture, or is not there.
[[nodiscard]] Result<std::vector<std::size_t>> misfits(const TextureFile& texture, const TextureChange& change);
/// Whether this texture has the new content everywhere already.
[[nodiscard]] Result<bool> is_made(const TextureFile& texture, const TextureChange& change);
/// The file with the change made. Error `stale` where a run does not fit, with how many.
[[nodiscard]] Result<Bytes> apply(const TextureFile& original, const TextureChange& change);

/// The same whatever the runs say of the original; all must lie inside the texture.
[[nodiscard]] Result<Bytes> put_units(const TextureFile& original, const TextureChange& change);

/// Which share of the units of the largest levels it changes, 0…1.
[[nodiscard]] double share_of(const TextureChange& change, const TextureLayout& layout);

/// As a parcel has it (docs/parcels.md).
[[nodiscard]] Bytes write_change(const TextureChange& change);
/// `desc` says how many surfaces there are and how large their units. Errors `damaged` for whatever cannot be so.
[[nodiscard]] Result<TextureChange> read_change(ByteSpan bytes, const TextureDesc& desc);

}  // namespace skivet

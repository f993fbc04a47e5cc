#pragma once
// Decoding and encoding of one level of pixels. Adding a format: one file with a BlockCodec, one line in registry.cpp, its tests.
//
// There are two forms of a picture. Image has 8 bits a channel and serves every format that fits: unsigned values as they are, signed
// ones with 128 for zero. ImageF has the true values; it is what the formats marked `wide` are edited in, and for them an Image
// is only a view.
#include "base/bytes.h"
#include "pixel/format.h"
#include "pixel/image.h"
#include "pixel/normal_channels.h"

namespace skivet {

/// How much time an encoder may take for its quality.
enum class Effort : std::uint8_t { fast, normal, best };
[[nodiscard]] std::string_view name_of(Effort effort);
[[nodiscard]] std::optional<Effort> effort_named(std::string_view name);

struct EncodeOptions {
    Effort effort = Effort::normal;
    /// Color counts by its alpha: what nobody sees may be wrong. Only for textures whose alpha is transparency, not a mask.
    bool alpha_is_transparency = false;
    /// The texture holds normals here: errors count by the angle they make (weights.h). BC1 to BC5 and BC7 heed it.
    std::optional<NormalChannels> normals = std::nullopt;
    /// The picture came from this format, and what was not touched since shall come back exactly, at any effort; BC7 then looks for it at
    /// some cost. Unset: encode() looks at some of its blocks, and leaves it so where they have few colors and do not tell.
    std::optional<bool> held_before = std::nullopt;
    bool operator==(const EncodeOptions&) const = default;
};

using BlockTexels = std::array<Texel, 16>;  ///< 4×4, row by row
using BlockTexelsF = std::array<TexelF, 16>;

/// Blocks that are exactly what a format can hold, of those that tell where they come from: blocks of few colors seldom do.
struct HeldBlocks {
    std::size_t exact = 0, telling = 0;
};

/// All functions work on `count` blocks at once. Decoded blocks stand side by side in rows of `pitch` texels, whole blocks; texels to
/// encode come block after block, each row by row. Channels the format does not store come as 0, alpha as 255 (or 1).
struct BlockCodec {
    void (*decode)(const std::byte* blocks, std::size_t count, Texel* out, std::size_t pitch) = nullptr;
    /// nullptr: the 8-bit values are the whole truth.
    void (*decode_wide)(const std::byte* blocks, std::size_t count, TexelF* out, std::size_t pitch) = nullptr;
    /// nullptr: this format is read only, or written from wide texels.
    void (*encode)(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) = nullptr;
    void (*encode_wide)(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) = nullptr;
    /// Whether a block is as encoders usually write it, for telling formats from bare bytes; nullptr: nothing can be told.
    bool (*usual)(const std::byte* block) = nullptr;
    /// Of so many blocks, which tell; nullptr where EncodeOptions::held_before makes no difference.
    HeldBlocks (*held)(const Texel* blocks, std::size_t count) = nullptr;
};

/// The codec of a block-compressed format; nullptr for others.
[[nodiscard]] const BlockCodec* block_codec(Format format);
/// False for what is only read (ASTC with high dynamic range).
[[nodiscard]] bool can_encode(Format format);

/// Decodes one level; `data` must hold level_bytes(format, width, height) bytes or the error says what is missing.
/// For wide formats this is view_of the true values.
[[nodiscard]] Result<Image> decode(Format format, ByteSpan data, std::uint32_t width, std::uint32_t height);
/// The same into a picture of the level's size; not for wide formats (error `usage`).
[[nodiscard]] Status decode_into(Format format, ByteSpan data, Image& out);
/// Brings `image`, the decode of `before`, to that of `now`, decoding only the blocks that differ. Both hold a level of the picture's size.
[[nodiscard]] Status decode_changed(Format format, ByteSpan before, ByteSpan now, Image& image);
/// The true values (see ImageF), for every format.
[[nodiscard]] Result<ImageF> decode_wide(Format format, ByteSpan data, std::uint32_t width, std::uint32_t height);
/// Encodes one level. Texels outside the picture in border blocks repeat the nearest one inside. The same bytes for any number of
/// threads and any SIMD width. Error `unsupported` for formats that are only read.
[[nodiscard]] Result<Bytes> encode(Format format, const Image& image, const EncodeOptions& options = {});
[[nodiscard]] Result<Bytes> encode(Format format, const ImageF& image, const EncodeOptions& options = {});

/// Encodes `image` like encode, but where all texels of a block equal `before` (the decode of `original`) the block's
/// bytes come from `original`. Same sizes required. `kept`, when given, receives the number of blocks kept.
[[nodiscard]] Result<Bytes> encode_changed(Format format, const Image& image, const Image& before, ByteSpan original,
                                           std::uint64_t* kept = nullptr, const EncodeOptions& options = {});
[[nodiscard]] Result<Bytes> encode_changed(Format format, const ImageF& image, const ImageF& before, ByteSpan original,
                                           std::uint64_t* kept = nullptr, const EncodeOptions& options = {});

/// True values as 8 bits: normalized and integer ranges stretched over 0…255 (signed: zero at 128), floats brightened by 2^exposure,
/// cut off at 1 and sRGB-encoded.
[[nodiscard]] Image view_of(Format format, const ImageF& image, float exposure = 0);
/// The values an 8-bit view stands for: the inverse of view_of at exposure 0.
[[nodiscard]] ImageF from_view(Format format, const Image& image);

/// Equal to the bit, so that a NaN equals itself.
[[nodiscard]] inline bool same_texel(const Texel& a, const Texel& b) { return a == b; }
[[nodiscard]] bool same_texel(const TexelF& a, const TexelF& b);

/// Uncompressed texels by the bit layout in the format table.
void decode_packed(const FormatInfo& format, const std::byte* bytes, std::size_t count, Texel* out);
void encode_packed(const FormatInfo& format, const Texel* in, std::size_t count, std::byte* bytes);
void decode_packed_wide(const FormatInfo& format, const std::byte* bytes, std::size_t count, TexelF* out);
void encode_packed_wide(const FormatInfo& format, const TexelF* in, std::size_t count, std::byte* bytes);

}  // namespace skivet

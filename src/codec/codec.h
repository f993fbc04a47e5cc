#pragma once
// Decoding and encoding of one level of pixels. Adding a format: one file with a Codec, one line in registry.cpp, its tests.
#include "base/bytes.h"
#include "pixel/format.h"
#include "pixel/image.h"

namespace skivet {

using BlockTexels = std::array<Texel, 16>;  ///< 4×4, row by row

struct Codec {
    /// One block: `bytes` has info(format).block_bytes bytes. Channels the format does not store come as 0, alpha as 255.
    void (*decode_block)(const std::byte* bytes, BlockTexels& out) = nullptr;
    void (*encode_block)(const BlockTexels& in, std::byte* bytes) = nullptr;
};

/// The codec of a block-compressed format; nullptr for others.
[[nodiscard]] const Codec* block_codec(Format format);

/// Decodes one level; `data` must hold level_bytes(format, width, height) bytes or the error says what is missing.
[[nodiscard]] Result<Image> decode(Format format, ByteSpan data, std::uint32_t width, std::uint32_t height);
/// Encodes one level. Texels outside the picture in border blocks repeat the nearest one inside.
[[nodiscard]] Result<Bytes> encode(Format format, const Image& image);

/// Encodes `image` like encode, but where all texels of a block equal `before` (the decode of `original`) the block's
/// bytes come from `original`. Same sizes required. `kept`, when given, receives the number of blocks kept.
[[nodiscard]] Result<Bytes> encode_changed(Format format, const Image& image, const Image& before, ByteSpan original,
                                           std::uint64_t* kept = nullptr);

// --- the parts
void decode_bc1(const std::byte*, BlockTexels&);
void encode_bc1(const BlockTexels&, std::byte*);
void decode_bc2(const std::byte*, BlockTexels&);
void encode_bc2(const BlockTexels&, std::byte*);
void decode_bc3(const std::byte*, BlockTexels&);
void encode_bc3(const BlockTexels&, std::byte*);
void decode_bc4(const std::byte*, BlockTexels&);
void encode_bc4(const BlockTexels&, std::byte*);
void decode_bc5(const std::byte*, BlockTexels&);
void encode_bc5(const BlockTexels&, std::byte*);

/// The 8-byte color part of BC1 to BC3. `four_colors`: always four colors, as BC2 and BC3 have it.
void decode_color_part(const std::byte* bytes, BlockTexels& out, bool four_colors);
/// `punch_through`: texels with alpha below 128 become transparent (BC1); otherwise alpha is not looked at.
void encode_color_part(const BlockTexels& in, std::byte* bytes, bool punch_through);
/// The 8-byte single-channel part of BC3 to BC5, written to `channel` of the texels.
void decode_channel_part(const std::byte* bytes, BlockTexels& out, std::size_t channel);
void encode_channel_part(const BlockTexels& in, std::byte* bytes, std::size_t channel);

/// Uncompressed texels by the bit layout in the format table.
void decode_packed(const FormatInfo& format, const std::byte* bytes, std::size_t count, Texel* out);
void encode_packed(const FormatInfo& format, const Texel* in, std::size_t count, std::byte* bytes);

}  // namespace skivet

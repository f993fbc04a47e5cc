#pragma once
#include "codec/codec.h"

namespace skivet {
void encode_etc1(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options);
void encode_etc2_rgb(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options);
/// Texels with alpha below 128 become transparent.
void encode_etc2_rgba1(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options);
void encode_etc2_rgba(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options);
/// ETC2's alpha, `stride` bytes from one block to the next.
void encode_eac_alpha(const Texel* blocks, std::size_t count, std::byte* out, std::size_t stride, Effort effort);
void encode_eac_r(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options);
void encode_eac_r_snorm(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options);
void encode_eac_rg(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options);
void encode_eac_rg_snorm(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options);
}  // namespace skivet

#pragma once
#include "codec/codec.h"

namespace skivet {
/// Values are clamped to 0…65504 (signed: ±65504); NaN becomes 0.
void encode_bc6h(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options);
void encode_bc6h_signed(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options);
}  // namespace skivet

#pragma once
#include "codec/codec.h"

namespace skivet {
/// Sixteen texels a block, 16 bytes each. See bc7_encode.cpp for how.
void encode_bc7(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options);
/// See BlockCodec::held.
[[nodiscard]] HeldBlocks held_bc7(const Texel* blocks, std::size_t count);
}  // namespace skivet

#pragma once
#include "codec/blocks.h"

namespace skivet {

enum class EtcVariant : std::uint8_t { etc1, rgb, punch_through };

/// Decodes as many blocks as fill whole vectors and says how many those are. `stride`: 8 bytes a block, or 16 with the color part in the
/// second half. `one` decodes a color part in any mode.
[[nodiscard]] std::size_t decode_half_blocks(EtcVariant variant, const std::byte* blocks, std::size_t stride, std::size_t count, Texel* out,
                                             std::size_t pitch, void (*one)(const std::byte*, Texel*, std::size_t));

}  // namespace skivet

#pragma once
// What one block of a compressed format is made of, in words.
#include <string>

#include "codec/codec.h"

namespace skivet {

/// "four colors · #a53139 to #e7d9bd", "mode 6 · one subset · 4-bit indices", "planar". Empty for formats without blocks and when there are
/// too few bytes.
[[nodiscard]] std::string describe_block(Format format, ByteSpan block);

}  // namespace skivet

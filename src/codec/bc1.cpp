#include "codec/codec.h"

namespace skivet {

void decode_bc1(const std::byte* bytes, BlockTexels& out) { decode_color_part(bytes, out, false); }
void encode_bc1(const BlockTexels& in, std::byte* bytes) { encode_color_part(in, bytes, true); }

}  // namespace skivet

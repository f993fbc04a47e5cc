#include "codec/codec.h"

namespace skivet {

void decode_bc4(const std::byte* bytes, BlockTexels& out) {
    out.fill({0, 0, 0, 255});
    decode_channel_part(bytes, out, 0);
}
void encode_bc4(const BlockTexels& in, std::byte* bytes) { encode_channel_part(in, bytes, 0); }

}  // namespace skivet

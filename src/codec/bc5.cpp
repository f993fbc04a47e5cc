// BC5: two channel parts, red and green.
#include "codec/codec.h"

namespace skivet {

void decode_bc5(const std::byte* bytes, BlockTexels& out) {
    out.fill({0, 0, 0, 255});
    decode_channel_part(bytes, out, 0);
    decode_channel_part(bytes + 8, out, 1);
}

void encode_bc5(const BlockTexels& in, std::byte* bytes) {
    encode_channel_part(in, bytes, 0);
    encode_channel_part(in, bytes + 8, 1);
}

}  // namespace skivet

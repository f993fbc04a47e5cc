// BC3: a channel part for alpha, then a color part that always has four colors.
#include "codec/codec.h"

namespace skivet {

void decode_bc3(const std::byte* bytes, BlockTexels& out) {
    decode_color_part(bytes + 8, out, true);
    decode_channel_part(bytes, out, 3);
}

void encode_bc3(const BlockTexels& in, std::byte* bytes) {
    encode_channel_part(in, bytes, 3);
    encode_color_part(in, bytes + 8, false);
}

}  // namespace skivet

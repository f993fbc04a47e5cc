// Any bytes as blocks or texels of any format: decoded in both forms, described, and, where the format can be written, encoded again from
// what they decode to with nothing changed, which must give the same bytes.
#include <cstdlib>

#include "codec/block_facts.h"
#include "codec/codec.h"

using namespace skivet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size < 3) return 0;
    const auto formats = all_formats();
    const auto& f = formats[data[0] % formats.size()];
    const std::uint32_t width = data[1] % 40 + 1u, height = data[2] % 24 + 1u;
    auto bytes = std::as_bytes(std::span(data + 3, size - 3));
    const auto need = static_cast<std::size_t>(level_bytes(f.format, width, height));
    Bytes filled(bytes.begin(), bytes.end());
    const bool enough = filled.size() >= need;
    if (decode(f.format, filled, width, height).has_value() != enough) std::abort();
    filled.resize(need);
    const auto image = decode(f.format, filled, width, height);
    const auto wide = decode_wide(f.format, filled, width, height);
    if (!image || !wide) std::abort();
    (void)describe_block(f.format, filled);
    if (!can_encode(f.format)) return 0;
    if (*encode_changed(f.format, *image, *image, filled) != filled || *encode_changed(f.format, *wide, *wide, filled) != filled)
        std::abort();
    if (width * height <= 64 && !encode(f.format, *wide, {Effort::fast})) std::abort();
    // The quick ones at every effort, as normals now and then.
    if (width * height > 64 || f.format < Format::BC1 || f.format > Format::BC5_SNORM) return 0;
    EncodeOptions options;
    options.effort = static_cast<Effort>(data[1] % 3);
    if (data[2] % 4 == 0) options.normals = NormalChannels{0, 1, -1};
    if (!encode(f.format, *image, options)) std::abort();
    return 0;
}

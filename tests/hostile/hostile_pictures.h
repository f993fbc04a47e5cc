#pragma once
// Pictures that claim more than they hold, and how their bytes are put down.
#include <string_view>

#include "base/bytes.h"

namespace skivet::test {

inline void put(Bytes& out, std::string_view text) {
    for (const char c : text) out.push_back(static_cast<std::byte>(c));
}
inline void put(Bytes& out, const Bytes& more) { out.insert(out.end(), more.begin(), more.end()); }
inline void little(Bytes& out, std::uint64_t value, int bytes) {
    for (int i = 0; i < bytes; ++i) out.push_back(static_cast<std::byte>(value >> (8 * i)));
}
inline void big(Bytes& out, std::uint64_t value, int bytes) {
    for (int i = bytes - 1; i >= 0; --i) out.push_back(static_cast<std::byte>(value >> (8 * i)));
}

/// 45 runs and the end, of a picture of 268 million texels.
[[nodiscard]] Bytes run_length_bmp();
/// A progressive picture of 4096×4096 with 10,000 scans, each of which goes over all of it (ITU-T T.81, G.1.1).
[[nodiscard]] Bytes jpeg_of_scans();
/// 1 GB of zeros, packed by Zstandard to 33 KB.
[[nodiscard]] Bytes packed_ktx2();
/// KTX 1 of 24,576 surfaces, whole: 4,096 layers of six faces with two levels.
[[nodiscard]] Bytes ktx_of_layers();
/// RGBA of 16384×16384 in seven passes, of which nothing but the beginning is there.
[[nodiscard]] Bytes interlaced_png();
/// RGBA of 8192×8192 in strips of 64 rows that all lie at the same bytes (TIFF 6.0, section 3: nothing forbids it).
[[nodiscard]] Bytes shared_tiff();
/// OpenEXR of which an attribute is larger than its type: who goes by the type reads on inside of it, where a text of 1 GB begins.
[[nodiscard]] Bytes lying_exr();

}  // namespace skivet::test

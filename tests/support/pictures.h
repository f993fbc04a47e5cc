#pragma once
// Pictures and archives for tests, all from a seed.
#include <map>
#include <random>

#include "codec/codec.h"
#include "pixel/image.h"
#include "support/temp_folder.h"
#include "texture/texture.h"

namespace skivet::test {

/// Smooth gradients with some edges and, when asked, alpha that varies.
[[nodiscard]] Image smooth_picture(std::uint32_t width, std::uint32_t height, unsigned seed, bool alpha = false);
/// A smooth picture with noise of up to 20 in its colors.
[[nodiscard]] Image noisy_picture(std::uint32_t width, std::uint32_t height, unsigned seed);
[[nodiscard]] Image random_picture(std::uint32_t width, std::uint32_t height, unsigned seed);
[[nodiscard]] Bytes random_bytes(std::size_t size, unsigned seed);
/// A DDS file of a smooth picture with `mips` levels (0: all).
[[nodiscard]] Bytes make_dds(Format format, std::uint32_t width, std::uint32_t height, std::uint32_t mips = 0, unsigned seed = 1);

/// A file of the first kind that can hold the format: DDS, KTX2 or KTX. `payload` in lay_out order, largest level first.
[[nodiscard]] Bytes make_file(const TextureDesc& desc, ByteSpan payload);

/// One block of a 4×4 format.
[[nodiscard]] Bytes encode_one(Format format, const BlockTexels& block, Effort effort = Effort::normal);
[[nodiscard]] BlockTexels decode_one(Format format, const std::byte* block);

/// A ZIP archive written by the simplest possible code, with the traits a test wants.
struct ZipTraits {
    bool zip64 = false;        ///< ZIP64 fields and end records though nothing needs them
    bool descriptors = false;  ///< sizes and checksum behind the data
    bool descriptor_signature = true;
    std::string prefix;  ///< bytes before the archive; offsets do not count them
    bool offsets_count_prefix = false;
    std::string comment;
    std::uint16_t flags = 0x800;  ///< UTF-8 names
};
struct ZipItem {
    std::string name;
    Bytes data;
    bool deflated = false;
};
[[nodiscard]] Bytes make_zip(const std::vector<ZipItem>& items, const ZipTraits& traits = {});

/// A crate as assets/sheets/fair-crate.toml describes it.
[[nodiscard]] Bytes make_crate(const std::vector<ZipItem>& items);

}  // namespace skivet::test

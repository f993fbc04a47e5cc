#pragma once
// Pictures and archives for tests, all from a seed.
#include <map>
#include <random>

#include "pixel/format.h"
#include "pixel/image.h"
#include "support/temp_folder.h"
#include "texture/texture.h"

namespace skivet::test {

/// Smooth gradients with some edges and, when asked, alpha that varies.
[[nodiscard]] Image smooth_picture(std::uint32_t width, std::uint32_t height, unsigned seed, bool alpha = false);
[[nodiscard]] Image random_picture(std::uint32_t width, std::uint32_t height, unsigned seed);
[[nodiscard]] Bytes random_bytes(std::size_t size, unsigned seed);
/// A DDS file of a smooth picture with `mips` levels (0: all).
[[nodiscard]] Bytes make_dds(Format format, std::uint32_t width, std::uint32_t height, std::uint32_t mips = 0, unsigned seed = 1);

/// A ZIP archive written by the simplest possible code, with the traits a test wants.
struct ZipTraits {
    bool zip64 = false;             ///< ZIP64 fields and end records though nothing needs them
    bool descriptors = false;       ///< sizes and checksum behind the data
    bool descriptor_signature = true;
    std::string prefix;             ///< bytes before the archive; offsets do not count them
    bool offsets_count_prefix = false;
    std::string comment;
    std::uint16_t flags = 0x800;    ///< UTF-8 names
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

#include <gtest/gtest.h>
#include <string>
#include <vector>

#include "bench/fitting.h"
#include "catalog/catalog.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

Result<TextureFile> open(Bytes file) { return TextureFile::open(TextureKinds::standard(), std::move(file), "x.dds", ReadLimits{}); }

void set_word(Bytes& file, std::size_t at, std::uint32_t value) { store_le(file.data() + at, value); }

}  // namespace

TEST(Dds, WritesAndReadsEveryFormat) {
    for (const auto& f : all_formats()) {
        TextureDesc d{f.format, 20, 12, 1, 5, 1, 1, ColorSpace::unknown};
        std::uint64_t end = 0;
        (void)lay_out(d, 0, MipOrder::largest_first, 1, end);
        const auto written = write_dds(d, random_bytes(static_cast<std::size_t>(end), 1));
        if (!written) {  // what Direct3D has no number for
            EXPECT_EQ(written.error().code, ErrorCode::unsupported) << f.name;
            EXPECT_TRUE(is_astc(f.format) || f.name.starts_with("E") || f.name.starts_with("RGB16")) << f.name;
            continue;
        }
        const auto& file = *written;
        const auto texture = open(file);
        ASSERT_TRUE(texture) << f.name << texture.error().message();
        EXPECT_EQ(texture->layout.desc.format, f.format) << f.name;
        EXPECT_EQ(texture->layout.desc.mips, 5u);
        EXPECT_EQ(texture->layout.surfaces.back().offset + texture->layout.surfaces.back().size, file.size());
        EXPECT_TRUE(texture->decode(4));
    }
}

TEST(Dds, ColorSpaceNeedsAndGetsADx10Header) {
    TextureDesc d{Format::BC3, 8, 8, 1, 4, 1, 1, ColorSpace::srgb};
    const auto file = *write_dds(d, random_bytes(16 * 4 + 16 * 3, 1));
    EXPECT_EQ(load_le<std::uint32_t>(file.data() + 128), 78u) << "DXGI_FORMAT_BC3_UNORM_SRGB";
    EXPECT_EQ(open(file)->layout.desc, d);
}

TEST(Dds, CubemapsArraysAndVolumesAreLaidOut) {
    const TextureDesc cube{Format::BC1, 16, 16, 1, 2, 1, 6, ColorSpace::unknown};
    const auto cube_bytes = (4 * 4 + 2 * 2) * 8;
    const auto texture = open(*write_dds(cube, random_bytes(cube_bytes * 6, 1)));
    ASSERT_TRUE(texture);
    EXPECT_EQ(texture->layout.desc, cube);
    EXPECT_EQ(texture->layout.find(1, 0, 5)->offset, 128u + cube_bytes * 5 + 16 * 8);
    const TextureDesc array{Format::R8, 4, 4, 1, 1, 3, 1, ColorSpace::unknown};
    const auto layers = open(*write_dds(array, random_bytes(48, 1)));
    ASSERT_TRUE(layers) << layers.error().message();
    EXPECT_EQ(layers->layout.desc, array);
    const TextureDesc volume{Format::RGBA8, 4, 4, 4, 3, 1, 1, ColorSpace::unknown};
    const auto slices = open(*write_dds(volume, random_bytes((4 * 16 + 2 * 4 + 1) * 4, 1)));
    ASSERT_TRUE(slices);
    EXPECT_EQ(slices->layout.desc, volume);
    EXPECT_EQ(slices->layout.surfaces.size(), 7u);
}

TEST(Dds, EveryHeaderByteIsKept) {
    auto file = make_dds(Format::BC1, 16, 16);
    for (std::size_t i = 32; i < 76; ++i) file[i] = static_cast<std::byte>(i * 3);  // reserved words
    file.push_back(std::byte{0xEE});                                                // something behind the levels
    const auto texture = open(file);
    ASSERT_TRUE(texture);
    const std::vector<SurfaceEdit> edits = {{1, random_bytes(32, 4)}};
    const auto out = texture->kind->replace(texture->file, texture->layout, edits);
    ASSERT_TRUE(out);
    const auto at = texture->layout.surfaces[1].offset;
    for (std::size_t i = 0; i < file.size(); ++i)
        if (i < at || i >= at + 32) ASSERT_EQ((*out)[i], file[i]);
    EXPECT_EQ(*texture->kind->replace(texture->file, texture->layout, {}), file);
}

TEST(Dds, ShortFilesSayWhatIsMissing) {
    auto file = make_dds(Format::BC1, 64, 64);
    const auto whole = *open(file)->decode(0);
    file.resize(128 + 1000);
    const auto texture = open(file);
    ASSERT_TRUE(texture);
    ASSERT_TRUE(texture->layout.damage);
    EXPECT_NE(texture->layout.damage->message().find("mip chain: needs 2,744 bytes, has 1,000 (at byte 0x80)"), std::string::npos);
    // 1,000 bytes are 125 blocks: seven rows of sixteen and thirteen more. What is there is shown, the rest is black; missing levels say
    // so.
    const auto image = texture->decode(0);
    ASSERT_TRUE(image);
    for (std::uint32_t y = 0; y < 28; ++y)
        for (std::uint32_t x = 0; x < 64; ++x) ASSERT_EQ(image->at(x, y), whole.at(x, y));
    EXPECT_EQ(image->at(60, 60), (Texel{0, 0, 0, 255}));
    const auto missing = texture->decode(1);
    ASSERT_FALSE(missing);
    EXPECT_NE(missing.error().message().find("mip 1"), std::string::npos) << missing.error().message();
    EXPECT_FALSE(texture->surface_bytes(texture->layout.surfaces[0])) << "bytes that are not there are never made up for writing";
    EXPECT_FALSE(fit(*texture, *read_edited(*write_png(whole), ReadLimits{}), {})) << "and nothing is fitted to a damaged original";
    const auto small = thumbnail(*texture, 16);
    ASSERT_TRUE(small);
    EXPECT_EQ(small->width, 16u);
    file.resize(128 + 256);
    EXPECT_FALSE(open(file)) << "an eighth of the first level is needed";
    for (std::size_t size : {0u, 3u, 4u, 127u}) {
        file.resize(size);
        EXPECT_FALSE(open(file)) << size;
    }
}

TEST(Dds, ClaimsBeyondTheLimitsAreRefused) {
    const auto good = make_dds(Format::BC1, 64, 64);
    const auto broken = [&](std::size_t at, std::uint32_t value) {
        auto file = good;
        set_word(file, at, value);
        return open(file);
    };
    EXPECT_EQ(broken(16, 0xFFFFFFFF).error().code, ErrorCode::limit);
    EXPECT_FALSE(broken(12, 0)) << "height 0";
    EXPECT_FALSE(broken(28, 30)) << "30 levels of 64×64";
    EXPECT_FALSE(broken(4, 100)) << "header size";
    EXPECT_EQ(broken(84, 0x34495441).error().code, ErrorCode::unsupported) << "an unknown four-character code";
    EXPECT_TRUE(broken(28, 0)) << "no level count means one level";
}

TEST(Dds, UnsupportedFormatsAreNamed) {
    TextureDesc d{Format::BC1, 4, 4, 1, 1, 1, 1, ColorSpace::srgb};
    auto file = *write_dds(d, Bytes(8));
    set_word(file, 128, 20);  // DXGI_FORMAT_D32_FLOAT_S8X24_UINT
    const auto texture = open(file);
    ASSERT_FALSE(texture);
    EXPECT_NE(texture.error().message().find("DXGI format 20"), std::string::npos);
}

TEST(Dds, RandomHeadersNeverCrash) {
    const auto good = make_dds(Format::BC3, 32, 32);
    for (unsigned seed = 0; seed < 3000; ++seed) {
        auto file = good;
        std::mt19937 random(seed);
        for (int k = 0; k < 4; ++k) file[random() % 148] = static_cast<std::byte>(random());
        if (const auto texture = open(file)) EXPECT_TRUE(texture->decode(0));
    }
}

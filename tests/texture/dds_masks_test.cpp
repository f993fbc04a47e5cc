// Uncompressed DDS layouts as other writers state them: masks, flags and bit counts (DDS_PIXELFORMAT, Direct3D documentation).
#include <gtest/gtest.h>

#include <bit>
#include <cmath>
#include <string>

#include "support/pictures.h"
#include "texture/dds.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Masks {
    const char* name;
    std::uint32_t flags, bits, red, green, blue, alpha;
    Format format;
};

Result<TextureFile> with_masks(const Masks& m, std::uint32_t side = 4) {
    Bytes file(128 + std::size_t{side} * side * ((m.bits + 7) / 8));
    const auto set = [&](std::size_t at, std::uint32_t value) { store_le(file.data() + at, value); };
    std::memcpy(file.data(), "DDS ", 4);
    set(4, 124);
    set(12, side);
    set(16, side);
    set(76, 32);
    set(80, m.flags);
    set(88, m.bits);
    set(92, m.red);
    set(96, m.green);
    set(100, m.blue);
    set(104, m.alpha);
    for (std::size_t i = 128; i < file.size(); ++i) file[i] = static_cast<std::byte>(i * 37);
    return TextureFile::open(TextureKinds::standard(), std::move(file), "x.dds", ReadLimits{});
}

class EveryLayout : public testing::TestWithParam<Masks> {};
INSTANTIATE_TEST_SUITE_P(Dds, EveryLayout,
                         testing::Values(Masks{"A8R8G8B8", 0x41, 32, 0xFF0000, 0xFF00, 0xFF, 0xFF000000, Format::BGRA8},
                                         Masks{"X8R8G8B8", 0x40, 32, 0xFF0000, 0xFF00, 0xFF, 0, Format::BGRX8},
                                         Masks{"X8R8G8B8_stale_alpha_mask", 0x40, 32, 0xFF0000, 0xFF00, 0xFF, 0xFF000000, Format::BGRX8},
                                         Masks{"A8B8G8R8", 0x41, 32, 0xFF, 0xFF00, 0xFF0000, 0xFF000000, Format::RGBA8},
                                         Masks{"R8G8B8", 0x40, 24, 0xFF0000, 0xFF00, 0xFF, 0, Format::BGR8},
                                         Masks{"B8G8R8", 0x40, 24, 0xFF, 0xFF00, 0xFF0000, 0, Format::RGB8},
                                         Masks{"R5G6B5", 0x40, 16, 0xF800, 0x7E0, 0x1F, 0, Format::B5G6R5},
                                         Masks{"A1R5G5B5", 0x41, 16, 0x7C00, 0x3E0, 0x1F, 0x8000, Format::B5G5R5A1},
                                         Masks{"A4R4G4B4", 0x41, 16, 0xF00, 0xF0, 0xF, 0xF000, Format::BGRA4},
                                         Masks{"L8", 0x20000, 8, 0xFF, 0, 0, 0, Format::L8},
                                         Masks{"L8_repeated", 0x20000, 8, 0xFF, 0xFF, 0xFF, 0, Format::L8},
                                         Masks{"A8L8", 0x20001, 16, 0xFF, 0, 0, 0xFF00, Format::LA8},
                                         Masks{"A8", 0x2, 8, 0, 0, 0, 0xFF, Format::A8}),
                         [](const auto& param) { return std::string(param.param.name); });

}  // namespace

TEST_P(EveryLayout, IsKnownByItsMasks) {
    const auto texture = with_masks(GetParam());
    ASSERT_TRUE(texture) << texture.error().message();
    EXPECT_EQ(texture->layout.desc.format, GetParam().format);
}

TEST_P(EveryLayout, TakesEachChannelFromItsMask) {
    const auto texture = with_masks(GetParam());
    const auto image = *texture->decode(0);
    const auto& m = GetParam();
    const auto& f = info(m.format);
    for (std::size_t i = 0; i < 16; ++i) {
        const auto raw =
            static_cast<std::uint32_t>(load_uint(texture->file.data() + 128 + i * f.block_bytes, f.block_bytes, ByteOrder::little));
        const auto expected = [&](std::uint32_t mask) {
            const auto top = mask >> std::countr_zero(mask);
            return static_cast<int>(std::lround(static_cast<double>((raw & mask) >> std::countr_zero(mask)) * 255 / top));
        };
        if (m.red && f.red.bits) EXPECT_EQ(image.texels[i][0], expected(m.red));
        if (f.green.bits) EXPECT_EQ(image.texels[i][1], expected(m.green));
        if (f.blue.bits) EXPECT_EQ(image.texels[i][2], expected(m.blue));
        EXPECT_EQ(image.texels[i][3], f.alpha.bits ? expected(m.alpha) : 255);
    }
}

TEST(DdsLayouts, StrangeMasksAreRefusedWithTheMasksInTheMessage) {
    const auto texture = with_masks({"odd", 0x40, 32, 0x3FF, 0xFFC00, 0x3FF00000, 0, Format::unknown});
    ASSERT_FALSE(texture);
    EXPECT_EQ(texture.error().code, ErrorCode::unsupported);
    EXPECT_NE(texture.error().message().find("32 bits with masks 000003ff 000ffc00 3ff00000 00000000"), std::string::npos)
        << texture.error().message();
}

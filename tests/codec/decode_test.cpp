// The vector decoders of BC1 to BC5 and ETC against the scalar functions (which the reference tests compare with Mesa and libsquish).
#include <gtest/gtest.h>
#include <hwy/highway.h>
#include <tbb/global_control.h>
#include <string>

#include "codec/blocks.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

class VectorDecoding : public testing::TestWithParam<Format> {};
INSTANTIATE_TEST_SUITE_P(Formats, VectorDecoding,
                         testing::Values(Format::BC1, Format::BC2, Format::BC3, Format::BC4, Format::BC4_SNORM, Format::BC5,
                                         Format::BC5_SNORM, Format::ETC1, Format::ETC2_RGB, Format::ETC2_RGBA1, Format::ETC2_RGBA),
                         [](const auto& param) { return std::string(skivet::info(param.param).name); });

TEST_P(VectorDecoding, IsTheScalarOneForEveryInstructionSet) {
    // Every pair of endpoints of a channel part occurs: all 65,536 of them, 64 blocks a row of 1,028 texels (one block is left over in each
    // row).
    const std::size_t bytes = info(GetParam()).block_bytes;
    constexpr std::uint32_t across = 257, down = 256;
    auto blocks = random_bytes(across * down * bytes, 5);
    for (std::size_t i = 0; i < across * down; ++i)
        for (std::size_t part = 0; part < bytes; part += 8)
            blocks[i * bytes + part] = static_cast<std::byte>(i), blocks[i * bytes + part + 1] = static_cast<std::byte>(i >> 8);
    Image expected(across * 4, down * 4);
    for (std::size_t i = 0; i < across * down; ++i) {
        // One block alone is done by the scalar function wherever a vector holds more.
        BlockTexels one;
        block_codec(GetParam())->decode(blocks.data() + i * bytes, 1, one.data(), 4);
        for (std::uint32_t k = 0; k < 16; ++k)
            expected.at(static_cast<std::uint32_t>(i % across) * 4 + k % 4, static_cast<std::uint32_t>(i / across) * 4 + k / 4) = one[k];
    }
    for (std::int64_t rest = hwy::SupportedTargets(); rest != 0; rest &= rest - 1) {
        hwy::SetSupportedTargetsForTest(rest & -rest);
        hwy::GetChosenTarget().Update(hwy::SupportedTargets());
        EXPECT_EQ(*decode(GetParam(), blocks, across * 4, down * 4), expected) << hwy::TargetName(rest & -rest);
        EXPECT_EQ(decode(GetParam(), blocks, 61, 30)->at(60, 29), decode(GetParam(), blocks, 64, 32)->at(60, 29))
            << "cut blocks at the border";
        hwy::SetSupportedTargetsForTest(0);
    }
    hwy::GetChosenTarget().Update(hwy::SupportedTargets());
}

TEST(DecodeInto, RefusesWhatDoesNotFit) {
    Image image(8, 8);
    EXPECT_FALSE(decode_into(Format::BC1, Bytes(31), image)) << "four blocks need 32 bytes";
    EXPECT_TRUE(decode_into(Format::BC1, Bytes(32), image));
    EXPECT_FALSE(decode_into(Format::BC6H, Bytes(64), image)) << "8 bits do not hold it";
}

TEST(DecodeChanged, IsTheWholeDecodeForEveryFormat) {
    std::mt19937 random(3);
    for (const auto& f : all_formats())
        for (const auto& [width, height] : {std::pair{65u, 37u}, {4u, 3u}}) {
            const auto before = random_bytes(static_cast<std::size_t>(level_bytes(f.format, width, height)), 7);
            auto now = before;
            for (int k = 0; k < 9; ++k) now[random() % now.size()] = static_cast<std::byte>(random());
            auto image = decode(f.format, before, width, height);
            const auto whole = decode(f.format, now, width, height);
            if (!image || !whole) continue;  // what cannot be decoded at all
            ASSERT_TRUE(decode_changed(f.format, before, now, *image)) << f.name;
            EXPECT_EQ(*image, *whole) << f.name;
            EXPECT_FALSE(decode_changed(f.format, before, ByteSpan(now).first(now.size() - 1), *image)) << f.name;
        }
}

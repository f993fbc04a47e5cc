#include <gtest/gtest.h>

#include "codec/codec.h"
#include "codec/paint_form.h"
#include "pixel/metrics.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

class EveryFormat : public testing::TestWithParam<Format> {};
INSTANTIATE_TEST_SUITE_P(Formats, EveryFormat, testing::ValuesIn([] {
                             std::vector<Format> all;
                             for (const auto& f : all_formats()) all.push_back(f.format);
                             return all;
                         }()),
                         [](const auto& param) { return std::string(skivet::info(param.param).name); });

TEST_P(EveryFormat, DecodingEncodedPicturesComesClose) {
    const auto format = GetParam();
    const auto picture = stored_form(format, smooth_picture(61, 43, 2, info(format).has_alpha && format != Format::BC1));
    const auto bytes = encode(format, picture);
    ASSERT_TRUE(bytes);
    EXPECT_EQ(bytes->size(), level_bytes(format, 61, 43));
    const auto back = decode(format, *bytes, 61, 43);
    ASSERT_TRUE(back);
    const auto d = difference(picture, *back);
    const auto& f = info(format);
    const bool exact = !f.block_compressed() && f.block_bytes != 2 && format != Format::A8;
    if (exact || f.format == Format::RG8 || f.format == Format::LA8 || f.format == Format::A8) EXPECT_EQ(d.max_error, 0u);
    else EXPECT_GT(d.psnr_rgb, 27);
    if (format == Format::B5G5R5A1) return;  // one bit of alpha
    EXPECT_GT(d.psnr_alpha, format == Format::BGRA4 || format == Format::BC2 || format == Format::BC3 ? 30 : 40);
}

TEST_P(EveryFormat, EqualBlocksKeepTheirBytes) {
    const auto format = GetParam();
    // Random bytes: nearly no encoder would produce them, so keeping them shows.
    const auto original = random_bytes(static_cast<std::size_t>(level_bytes(format, 36, 20)), 11);
    const auto before = *decode(format, original, 36, 20);
    std::uint64_t kept = 0;
    EXPECT_EQ(*encode_changed(format, before, before, original, &kept), original);
    auto after = before;
    after.at(17, 9) = stored_form(format, Image(1, 1, {250, 3, 120, 200})).texels[0];
    const auto bytes = *encode_changed(format, after, before, original, &kept);
    const auto& f = info(format);
    const std::size_t across = (36 + f.block_width - 1) / f.block_width;
    const auto changed = (std::size_t{9} / f.block_height * across + 17 / f.block_width) * f.block_bytes;
    EXPECT_EQ(kept, original.size() / f.block_bytes - 1);
    for (std::size_t i = 0; i < original.size(); ++i)
        if (i < changed || i >= changed + f.block_bytes) ASSERT_EQ(bytes[i], original[i]) << "byte " << i;
}

TEST_P(EveryFormat, RefusesTooFewBytes) {
    const auto need = level_bytes(GetParam(), 16, 16);
    const auto short_by_one = random_bytes(static_cast<std::size_t>(need) - 1, 1);
    const auto image = decode(GetParam(), short_by_one, 16, 16);
    ASSERT_FALSE(image);
    EXPECT_NE(image.error().message().find(fmt::format("needs {} bytes, has {}", grouped(need), grouped(need - 1))), std::string::npos);
}

TEST_P(EveryFormat, AnyBytesDecode) {
    for (unsigned seed = 0; seed < 20; ++seed) EXPECT_TRUE(decode(GetParam(), random_bytes(static_cast<std::size_t>(level_bytes(GetParam(), 24, 24)), seed), 24, 24));
}

TEST_P(EveryFormat, PaintFormAndBackKeepsWhatTheFormatStores) {
    const auto decoded = *decode(GetParam(), random_bytes(static_cast<std::size_t>(level_bytes(GetParam(), 24, 24)), 3), 24, 24);
    EXPECT_EQ(stored_form(GetParam(), paint_form(GetParam(), decoded)), decoded);
}

TEST(Bc1, OneTransparentTexelMakesAThreeColorBlock) {
    BlockTexels in;
    in.fill({200, 40, 40, 255});
    in[5] = {9, 9, 9, 0};
    std::byte block[8];
    encode_bc1(in, block);
    EXPECT_LE(load_le<std::uint16_t>(block), load_le<std::uint16_t>(block + 2));
    BlockTexels out;
    decode_bc1(block, out);
    for (std::size_t i = 0; i < 16; ++i) EXPECT_EQ(out[i][3], i == 5 ? 0 : 255);
    EXPECT_NEAR(out[0][0], 200, 5);
}

TEST(Bc1, OpaqueBlocksNeverBecomeTransparent) {
    for (unsigned seed = 0; seed < 300; ++seed) {
        const auto picture = seed % 2 ? random_picture(4, 4, seed) : Image(4, 4, {std::uint8_t(seed), std::uint8_t(seed * 7), 0, 255});
        BlockTexels in, out;
        for (std::size_t i = 0; i < 16; ++i) in[i] = {picture.texels[i][0], picture.texels[i][1], picture.texels[i][2], 255};
        std::byte block[8];
        encode_bc1(in, block);
        decode_bc1(block, out);
        for (const auto& t : out) ASSERT_EQ(t[3], 255) << "seed " << seed;
    }
}

TEST(Bc1, SingleColorsComeWithinTheGrid) {
    // With a third between two grid points every 8-bit value is met within 4 steps for five bits and 2 for six.
    for (int v = 0; v < 256; ++v) {
        BlockTexels in, out;
        in.fill({std::uint8_t(v), std::uint8_t(v), std::uint8_t(255 - v), 255});
        std::byte block[8];
        encode_bc1(in, block);
        decode_bc1(block, out);
        EXPECT_LE(std::abs(out[0][0] - v), 2);
        EXPECT_LE(std::abs(out[0][1] - v), 1);
    }
}

TEST(Bc4, IsExactForUpToTwoValuesAndForTheExtremes) {
    std::byte block[8];
    for (auto [a, b] : {std::pair{0, 255}, {17, 203}, {44, 44}, {0, 0}, {255, 255}}) {
        BlockTexels in, out;
        for (std::size_t i = 0; i < 16; ++i) in[i] = {std::uint8_t(i % 3 ? a : b), 0, 0, 255};
        encode_bc4(in, block);
        decode_bc4(block, out);
        for (std::size_t i = 0; i < 16; ++i) EXPECT_EQ(out[i][0], in[i][0]);
    }
}

TEST(Bc4, SixValueModeServesBlocksWithBlackAndWhite) {
    BlockTexels in, out;
    for (std::size_t i = 0; i < 16; ++i) in[i] = {std::uint8_t(i == 0 ? 0 : i == 1 ? 255 : 100 + i), 0, 0, 255};
    std::byte block[8];
    encode_bc4(in, block);
    EXPECT_LE(block[0], block[1]);
    decode_bc4(block, out);
    EXPECT_EQ(out[0][0], 0);
    EXPECT_EQ(out[1][0], 255);
    for (std::size_t i = 2; i < 16; ++i) EXPECT_NEAR(out[i][0], in[i][0], 3);
}

TEST(PaintForm, OneChannelBecomesGrayAndColorBecomesLuma) {
    Image decoded(1, 1, {77, 0, 0, 255});
    EXPECT_EQ(paint_form(Format::BC4, decoded).texels[0], (Texel{77, 77, 77, 255}));
    // Rec. ITU-R BT.709-6: Y = 0.2126 R + 0.7152 G + 0.0722 B.
    EXPECT_EQ(stored_form(Format::BC4, Image(1, 1, {255, 0, 0, 128})).texels[0], (Texel{54, 0, 0, 255}));
    EXPECT_EQ(stored_form(Format::BC5, Image(1, 1, {1, 2, 3, 4})).texels[0], (Texel{1, 2, 0, 255}));
}
